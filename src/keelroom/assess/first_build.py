"""A first build from twelve answers in the trade's words: what is not answered is taken from the usual kind, and
marked as that."""

from __future__ import annotations

from typing import Literal, NamedTuple

from keelroom.assess.acts.brief import engine_edit, with_converter
from keelroom.assess.defaults import FULL_POWER, default_duty_cases, new_build
from keelroom.catalogue.load import FanAssembly, cores, engines, fan_assemblies, named, placed, vehicles
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.brief import Symptom
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core, Shroud
from keelroom.units import INCH

CORE_SIZES = ("face_width", "face_height", "depth")


class Answers(NamedTuple):
    """What a guided first build asks. Names are of the catalogue.

    gearbox : 'automatic' or 'manual'; '' as such a vehicle is built
    core, fans : None where one is to be proposed;  fans '' where there are none yet
    own_core : width, height and depth of a core that is there, in place of one from the catalogue
    room : width and height a core with its tanks may take; None where nothing was measured
    hottest : of the year, at the grille;  tows [kg] on the grade, None where nothing is towed
    flat_out : whether it is held at full power for minutes, as on a track
    """

    vehicle: str
    engine: str
    gearbox: Literal["", "automatic", "manual"] = ""
    core: str | None = None
    room: tuple[Quantity, Quantity] | None = None
    own_core: tuple[Quantity, Quantity, Quantity] | None = None
    fans: str | None = None
    hottest: Quantity = quantity("100 °F", "temperature")
    ac: bool = True
    tows: Quantity | None = None
    flat_out: bool = False
    wrong: tuple[Symptom, ...] = ()


def first_build(answers: Answers, system: str) -> Build:
    """The build that is meant. Raises CatalogueError for a name the catalogue has not, InputError for a value that
    means nothing."""
    build = new_build()
    engine = named(engines(), answers.engine)
    build = apply(build, engine_edit(build, engine, "Engine"))
    where = ("packages", build.active)
    vehicle = with_converter(named(vehicles(), answers.vehicle), engine)
    if answers.gearbox:
        vehicle = vehicle.model_copy(update={"gearbox": answers.gearbox})
    core = core_of(answers)
    changes = [
        Change(("brief", "title"), f"{answers.vehicle}: {answers.engine}"),
        Change(("brief", "vehicle"), vehicle),
        Change(("brief", "climate", "ambient"), answers.hottest),
        Change(("brief", "accessories", "ac_fitted"), answers.ac),
        Change(("brief", "symptoms"), answers.wrong),
        Change((*where, "core"), core),
        Change((*where, "name"), core.name or "First package"),
    ]
    changes += _room(answers)
    if not answers.ac:
        coolers = tuple(one for one in build.package.coolers if one.kind != "condenser")
        changes.append(Change((*where, "coolers"), coolers))
    if answers.fans:
        assembly = next(one for one in fan_assemblies() if one.name == answers.fans)
        fans, shroud = placed(assembly, core, system)
        changes += [Change((*where, "fans"), fans), Change((*where, "shroud"), shroud)]
    else:
        changes.append(Change((*where, "shroud"), Shroud(kind="none")))
    build = apply(build, Edit("First build", tuple(changes)))
    cases = default_duty_cases(build.brief)
    if answers.tows is not None:
        cases = tuple(
            case.model_copy(update={"towed_mass": answers.tows}) if case.id == "grade" else case for case in cases
        )
    else:
        bare = quantity("0 lb", "mass")
        cases = tuple(
            case.model_copy(update={"towed_mass": bare, "name": "Grade"}) if case.id == "grade" else case
            for case in cases
        )
    if answers.flat_out:
        cases = (*cases, FULL_POWER)
    return apply(build, Edit("Duty cases", (Change(("duty_cases",), cases),)))


BOUNDLESS = 3.0
"""[m] from which on a side of the room was not measured."""


def _room(answers: Answers) -> list[Change]:
    """The room that was measured, kept with the survey."""
    sides = zip(("room_width", "room_height"), answers.room or (), strict=False)
    return [Change(("survey", name), side) for name, side in sides if side.si < BOUNDLESS]


ROUND_A_FAN = 0.5 * INCH
"""[m] kept between a fan and the edge of the face where its shroud is still to be made: a pan's fold and its ring
(common practice)."""


def fits(assembly: FanAssembly, core: Core) -> bool:
    """Whether fans stand side by side on a core's face without reaching over it, with room for a pan round them where
    they bring none."""
    if assembly.fan.diameter is None or core.face_width is None or core.face_height is None:
        return True
    diameter, edge = assembly.fan.diameter.si, 0.0 if assembly.shrouded else 2 * ROUND_A_FAN
    return assembly.count * diameter + edge <= core.face_width.si and diameter + edge <= core.face_height.si


def fitting(core: Core) -> list[FanAssembly]:
    """The catalogue's fans that go onto a core."""
    return [one for one in fan_assemblies() if fits(one, core)]


def within(core: Core, room: tuple[Quantity, Quantity] | None) -> bool:
    """Whether a core with its tanks goes into the width and height there is."""
    if room is None or core.face_width is None or core.face_height is None:
        return True
    tanks = 2 * (core.tank_size.si if core.tank_size else 0.0)
    wide, high = core.face_width.si, core.face_height.si
    whole = (wide + tanks, high) if core.flow == "crossflow" else (wide, high + tanks)
    return whole[0] <= room[0].si and whole[1] <= room[1].si


def core_of(answers: Answers) -> Core:
    """The chosen core; one that is there takes its fins and tubes from the catalogue's nearest in depth, assumed
    until they are counted."""
    if answers.own_core is None:
        return named(cores(), answers.core or "")
    depth = answers.own_core[2].si
    like = min(cores(), key=lambda core: abs((core.depth.si if core.depth else 1.0) - depth))
    taken = {
        name: value.model_copy(update={"origin": "assumed"})
        for name in type(like).model_fields
        if isinstance(value := getattr(like, name), Quantity) and name not in CORE_SIZES
    }
    sizes = dict(zip(CORE_SIZES, answers.own_core, strict=True))
    return like.model_copy(update={**taken, **sizes, "name": "The core that is there", "cost": None})
