"""Coolers as bodies where they stand, and whether each has room, height, a way out for its air, and lines that can be
made."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.fit.bodies import Body, Path, Terms, term
from keelroom.assess.inputs.coolers import out_area, size_of
from keelroom.assess.placing import Axes, core_depth, face_size
from keelroom.core.coolers.lines import Lost, fitting_of, held, least_bend, lost_in_lines
from keelroom.core.packaging.solids import Solid
from keelroom.core.thermal.gearbox import line_flow, oil_flow
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Package
from keelroom.facts import Fact, Fault, fact
from keelroom.units import INCH

SPACER, SIDE_ROOM = 0.75 * INCH, 1.0 * INCH
"""[m] a cooler away from the core wants behind it and at each side (common practice)."""
FITTING_ROOM = {"straight": 2.5 * INCH, "elbow_45": 2.0 * INCH, "elbow_90": 1.5 * INCH}
"""[m] a hose with its fitting takes beyond the cooler's side (common practice)."""
GROUND = 5 * INCH
"""Least height over the ground [m] on the road (common practice)."""
FITTING_WIDE, FAN_DEEP, RISE = 1.5 * INCH, 2.2 * INCH, 1.0 * INCH
"""[m] a fitting's width, a small fan's depth, and how far in from the corner a fitting stands (common practice)."""
FAR = ("floor", "trunk")
"""places outside the bay that the survey measures"""
LOW = ("bumper", "floor", "wheel_well")
"""places a kerb or a stone reaches"""
HIGH_LOSS = 1.0e5
"""[Pa] lost in the lines of a gearbox cooler that starves it: pumps give some 2 to 4 bar there (common practice)."""
LINED = ("gearbox_cooler", "oil_cooler", "steering_cooler")
WARM = (8.0 / 60e3, 80.0)
"""Flow [m3/s] and temperature [degC] of the warm oil that sheets of lines are worked out at."""


def named(cooler: Cooler) -> str:
    """What it is called."""
    return cooler.name or cooler.kind.replace("_", " ").capitalize()


class LinePlan(NamedTuple):
    """Lines of one cooler. lost at its flow; fitting: size in sixteenths and thread; bend: least radius [m]; fluid
    [m3] the addition takes."""

    lost: Lost
    fitting: tuple[int, str]
    bend: float
    fluid: float


def oil_through(cooler: Cooler, rpm: float) -> float:
    """Flow [m3/s] its pump sends through a cooler's lines at an engine speed."""
    flow = oil_flow if cooler.kind == "oil_cooler" else line_flow
    return float(flow(np.array(rpm)))


def line_plan(package: Package, cooler: Cooler, flow: float, celsius: float) -> LinePlan:
    """Lines at a flow [m3/s] of oil of a temperature [degC]."""
    size = size_of(cooler, face_size(package))
    return LinePlan(
        lost_in_lines(flow, cooler.line_bore.si, cooler.line_length.si, cooler.bends.si, celsius),
        fitting_of(cooler.line_bore.si),
        least_bend(cooler.line_bore.si),
        held(cooler.line_bore.si, cooler.line_length.si, (*size, cooler.thickness.si)),
    )


def mount_notes(build: Build, package: Package, cooler: Cooler) -> tuple[tuple[Fault, ...], tuple[Fact, ...]]:
    """Faults, each with the field it is at, and notes of how a cooler away from the core hangs."""
    faults: list[Fault] = []
    notes: list[Fact] = []
    size = size_of(cooler, face_size(package))
    if cooler.stands != "behind" and cooler.spacer.si < SPACER - 1e-6:
        faults.append(
            Fault("spacer", fact("spacer_small", spacer=(cooler.spacer.si, "length"), wanted=(SPACER, "length")))
        )
    slot = out_area(cooler, size) / (size[0] * size[1])
    if cooler.stands != "behind":
        notes.append(fact("air_out", slot=(slot, "share")))
    if cooler.side_room.si < SIDE_ROOM - 1e-6:
        faults.append(
            Fault(
                "side_room", fact("side_room_small", have=(cooler.side_room.si, "length"), wanted=(SIDE_ROOM, "length"))
            )
        )
    need = FITTING_ROOM[cooler.fitting]
    if cooler.fitting_room.si < need - 1e-6:
        code = "fitting_room" if cooler.fitting == "elbow_90" else "fitting_room.elbow"
        least = (FITTING_ROOM["elbow_90"], "length")
        faults.append(
            Fault(
                "fitting_room", fact(code, need=(need, "length"), have=(cooler.fitting_room.si, "length"), least=least)
            )
        )
    if build.survey.ground is None:
        notes.append(fact("ground_unknown"))
    else:
        clear = build.survey.ground.si + cooler.bottom.si
        if clear < GROUND:
            faults.append(Fault("bottom", fact("ground_low", clear=(clear, "length"), least=(GROUND, "length"))))
        else:
            notes.append(fact("ground_clear", clear=(clear, "length")))
    if cooler.stands in LOW and cooler.guard.si <= 0:
        notes.append(fact("stones"))
    wide = size[0] + 2 * cooler.side_room.si + cooler.fitting_room.si
    notes.append(fact("needs_width", wide=(wide, "length"), high=(size[1], "length")))
    return tuple(faults), tuple(notes)


def kinked(cooler: Cooler) -> Fact | None:
    """What is wrong with the tightest bend of its hoses; None where nothing is, or it is not measured."""
    least = least_bend(cooler.line_bore.si)
    if cooler.tightest is None or cooler.tightest.si >= least - 1e-6:
        return None
    return fact(
        "hose_kinks_at",
        bore=(cooler.line_bore.si, "length"),
        tightest=(cooler.tightest.si, "length"),
        least=(least, "length"),
    )


def bodies(package: Package, frame: Axes, where: Path) -> list[Body]:
    """Coolers that stand in the bay away from the core's front, with their fans and fittings, as solids."""
    return [
        body
        for cooler in package.coolers
        if cooler.stands not in ("ahead", *FAR)
        for body in _bodies(package, frame, where, cooler)
    ]


def _bodies(package: Package, frame: Axes, where: Path, cooler: Cooler) -> list[Body]:
    wide, high = size_of(cooler, face_size(package))
    path, name = (*where, "coolers", cooler.id), named(cooler)
    fan = FAN_DEEP if cooler.fans.si >= 1 else 0.0
    deep = cooler.thickness.si + fan
    across = term(f"{name} from left", (*path, "left"), cooler.left)
    upward = term(f"{name} from bottom", (*path, "bottom"), cooler.bottom)
    right, top = (
        across + term(f"{name} width", (*path, "width"), cooler.width),
        upward + term(f"{name} height", (*path, "height"), cooler.height),
    )
    thick = term(f"{name} depth", (*path, "thickness"), cooler.thickness)
    u, v = (cooler.left.si, cooler.left.si + wide), (cooler.bottom.si, cooler.bottom.si + high)
    if cooler.stands == "behind":
        start = core_depth(package.core) + cooler.stand_off.si
        off: Terms = term(f"{name} behind the core", (*path, "stand_off"), cooler.stand_off)

        def box(across: tuple[float, float], upward: tuple[float, float], depth: tuple[float, float]) -> Solid:
            return frame.box(across, upward, depth)
    else:
        start = cooler.front.si if cooler.front else 0.0
        off = term(f"{name} from support plane", (*path, "front"), cooler.front)

        def box(across: tuple[float, float], upward: tuple[float, float], depth: tuple[float, float]) -> Solid:
            return upright(across, upward, depth)

    unknown = cooler.stands != "behind" and cooler.front is None
    low, far = (across, upward, off), (right, top, off + thick)
    found = [
        Body(f"cooler:{cooler.id}", name, "part", box(u, v, (start, start + deep)), (*path, "left"), low, far, unknown)
    ]
    if cooler.fitting_room.si > 0:
        reach = (u[1], u[1] + cooler.fitting_room.si)
        span = (max(v[1] - RISE - FITTING_WIDE, v[0]), max(v[1] - RISE, v[0] + 1e-3))
        found.append(
            Body(
                f"fittings:{cooler.id}",
                f"{name} fittings",
                "part",
                box(reach, span, (start, start + cooler.thickness.si)),
                (*path, "fitting_room"),
                (right, upward, off),
                (right, top, off + thick),
                unknown,
            )
        )
    return found


def upright(across: tuple[float, float], upward: tuple[float, float], depth: tuple[float, float]) -> Solid:
    """A box along the datums' own ways."""
    spans = (across, upward, depth)
    centre = tuple((low + high) / 2 for low, high in spans)
    half = tuple((high - low) / 2 for low, high in spans)
    return Solid(centre, half)  # type: ignore[arg-type]
