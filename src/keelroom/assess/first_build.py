"""A first build from nine answers in the trade's words: what is not answered is taken from the usual kind, and
marked as that."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.brief import engine_edit
from keelroom.assess.defaults import FULL_POWER, default_duty_cases, new_build
from keelroom.catalogue.load import FanAssembly, cores, engines, fan_assemblies, named, placed, vehicles
from keelroom.core import rules
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.brief import Engine, Symptom
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core, Shroud

CORE_SIZES = ("face_width", "face_height", "depth")


class Answers(NamedTuple):
    """What a guided first build asks. Names are of the catalogue; '' where nothing was chosen.

    own_core : width, height and depth of a core that is there, in place of one from the catalogue
    hottest : of the year, at the grille;  tows [kg] on the grade, None where nothing is towed
    flat_out : whether it is held at full power for minutes, as on a track
    """

    vehicle: str
    engine: str
    core: str = ""
    own_core: tuple[Quantity, Quantity, Quantity] | None = None
    fans: str = ""
    hottest: Quantity = quantity("100 °F", "temperature")
    ac: bool = True
    tows: Quantity | None = None
    flat_out: bool = False
    wrong: tuple[Symptom, ...] = ()


def proposed_core(engine: Engine) -> str:
    """The smallest core of the catalogue that meets the frontal-area rule for an engine; '' where its displacement is
    not known."""
    if engine.displacement is None:
        return ""
    areas = [
        (core.face_width.si * core.face_height.si, core.name)
        for core in cores()
        if core.face_width and core.face_height
    ]
    return _least(areas, rules.face_area_wanted(engine.displacement.si))


def proposed_fans(engine: Engine, core: Core | None) -> str:
    """The smallest fans of the catalogue that go onto a core and meet the CFM rule; '' where the engine is not known
    well enough."""
    if engine.displacement is None or engine.cylinders is None:
        return ""
    fitting = [one for one in fan_assemblies() if core is None or fits(one, core)] or list(fan_assemblies())
    flows = [(one.count * one.fan.free_air_flow.si, one.name) for one in fitting if one.fan.free_air_flow]
    return _least(flows, rules.airflow_wanted(engine.displacement.si, engine.cylinders.si))


def _least(sizes: list[tuple[float, str]], wanted: float) -> str:
    """The name of the smallest that is large enough; of the largest where none is."""
    enough = [one for one in sizes if one[0] >= wanted]
    return min(enough)[1] if enough else max(sizes)[1]


def first_build(answers: Answers, system: str) -> Build:
    """The build that is meant. Raises CatalogueError for a name the catalogue has not, InputError for a value that
    means nothing."""
    build = new_build()
    engine = named(engines(), answers.engine)
    build = apply(build, engine_edit(build, engine, "Engine"))
    where = ("packages", build.active)
    core = _core(answers)
    changes = [
        Change(("brief", "title"), f"{answers.vehicle}: {answers.engine}"),
        Change(("brief", "vehicle"), named(vehicles(), answers.vehicle)),
        Change(("brief", "climate", "ambient"), answers.hottest),
        Change(("brief", "accessories", "ac_fitted"), answers.ac),
        Change(("brief", "symptoms"), answers.wrong),
        Change((*where, "core"), core),
        Change((*where, "name"), core.name or "First package"),
    ]
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


def fits(assembly: FanAssembly, core: Core) -> bool:
    """Whether fans stand side by side on a core's face without reaching over it."""
    if assembly.fan.diameter is None or core.face_width is None or core.face_height is None:
        return True
    diameter = assembly.fan.diameter.si
    return assembly.count * diameter <= core.face_width.si and diameter <= core.face_height.si


def _core(answers: Answers) -> Core:
    """The chosen core; one that is there takes its fins and tubes from the catalogue's nearest in depth, assumed
    until they are counted."""
    if answers.own_core is None:
        return named(cores(), answers.core)
    depth = answers.own_core[2].si
    like = min(cores(), key=lambda core: abs((core.depth.si if core.depth else 1.0) - depth))
    taken = {
        name: value.model_copy(update={"origin": "assumed"})
        for name in type(like).model_fields
        if isinstance(value := getattr(like, name), Quantity) and name not in CORE_SIZES
    }
    sizes = dict(zip(CORE_SIZES, answers.own_core, strict=True))
    return like.model_copy(update={**taken, **sizes, "name": "The core that is there", "cost": None})
