"""Coolers as bodies where they stand, and whether each has room, height, a way out for its air, and lines that can be made."""

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
from keelroom.units import INCH, both

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
    """Lines of one cooler. lost at its flow; fitting: size in sixteenths and thread; bend: least radius [m]; fluid [m3] the addition takes."""

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
        lost_in_lines(flow, cooler.line_bore.si, cooler.line_length.si, cooler.bends.si, celsius), fitting_of(cooler.line_bore.si),
        least_bend(cooler.line_bore.si), held(cooler.line_bore.si, cooler.line_length.si, (*size, cooler.thickness.si)),
    )  # fmt: skip


def mount_notes(build: Build, package: Package, cooler: Cooler) -> tuple[tuple[tuple[str, str], ...], tuple[str, ...]]:
    """Faults, each with the field it is at, and notes of how a cooler away from the core hangs."""
    faults: list[tuple[str, str]] = []
    notes: list[str] = []
    size = size_of(cooler, face_size(package))
    if cooler.stands != "behind" and cooler.spacer.si < SPACER - 1e-6:
        faults.append(
            ("spacer", f"Spacers of {both(cooler.spacer.si, 'length')} leave the air no way out behind it; {both(SPACER, 'length')} does")
        )
    slot = out_area(cooler, size) / (size[0] * size[1])
    if cooler.stands != "behind":
        notes.append(f"Its air goes out through {slot:.0%} of its face behind it")
    if cooler.side_room.si < SIDE_ROOM - 1e-6:
        faults.append(("side_room", f"{both(cooler.side_room.si, 'length')} at each side; {both(SIDE_ROOM, 'length')} is wanted"))
    need = FITTING_ROOM[cooler.fitting]
    if cooler.fitting_room.si < need - 1e-6:
        better = "" if cooler.fitting == "elbow_90" else "; a 90° elbow takes 1 1/2 in"
        faults.append(
            (
                "fitting_room",
                f"A hose with this fitting takes {both(need, 'length')} beyond the side, there is {both(cooler.fitting_room.si, 'length')}{better}",
            )
        )
    if build.survey.ground is None:
        notes.append("Height of the datum above the ground is not measured: kerbs and stones cannot be judged")
    else:
        clear = build.survey.ground.si + cooler.bottom.si
        if clear < GROUND:
            faults.append(("bottom", f"{both(clear, 'length')} above the ground; {both(GROUND, 'length')} is the least on the road"))
        else:
            notes.append(f"{both(clear, 'length')} above the ground")
    if cooler.stands in LOW and cooler.guard.si <= 0:
        notes.append("Nothing ahead of it keeps stones and brush off: a mesh costs 1–2 of its dynamic heads")
    wide = size[0] + 2 * cooler.side_room.si + cooler.fitting_room.si
    notes.append(f"It needs {both(wide, 'length')} of width with its fittings and {both(size[1], 'length')} of height")
    return tuple(faults), tuple(notes)


def kinked(cooler: Cooler) -> str:
    """What is wrong with the tightest bend of its hoses; '' where nothing is, or it is not measured."""
    least = least_bend(cooler.line_bore.si)
    if cooler.tightest is None or cooler.tightest.si >= least - 1e-6:
        return ""
    return f"A hose of {both(cooler.line_bore.si, 'length')} bore kinks at {both(cooler.tightest.si, 'length')}: {both(least, 'length')} is its least radius"


def bodies(package: Package, frame: Axes, where: Path) -> list[Body]:
    """Coolers that stand in the bay away from the core's front, with their fans and fittings, as solids."""
    return [body for cooler in package.coolers if cooler.stands not in ("ahead", *FAR) for body in _bodies(package, frame, where, cooler)]


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
    found = [Body(f"cooler:{cooler.id}", name, "part", box(u, v, (start, start + deep)), (*path, "left"), low, far, unknown)]
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
