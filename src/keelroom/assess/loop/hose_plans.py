"""How each hose is got and fitted: its length, where a moulded one is cut, its clamps, clips, and the rod that is
bent to find it."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.routes import HoseRun
from keelroom.assess.inputs.coolant.sensor import adapter_of, sensor_hose
from keelroom.assess.outcome import alone
from keelroom.core.loop.hoses import CLIP_EVERY, PUSHED_ON, WALL, ClampSize, bead_height, t_bolt_clamp, worm_clamp
from keelroom.core.loop.route import RodStep, flattened, rod_steps
from keelroom.core.packaging.pattern import Mark, Pattern
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import Fact, fact
from keelroom.units import INCH, fine

FIRST_CUT = 1.0 * INCH
"""[m] a long moulded hose is left too long at first (common practice: an inch, then the rest along a band of tape)."""
ROD_STOCK = "1/8 in rod"
"""what a template is bent of"""
LONGEST_ROD = 1.2
"""[m] a rod one bends in the hand"""
PLANE = 0.006
"""[m] a line that leaves its plane by less is flat enough for one drawing"""


class HosePlan(NamedTuple):
    """One hose. cut [m]: its length with what goes over the necks, None where its route is not known; off [m]: what
    is cut off the one at hand; clamps at its start and end; clips: how many; steps: of the rod; adapter [m] taken out
    of it for a sensor; straight [m]: its longest straight piece; notes: what to mind."""

    run: HoseRun
    cut: float | None
    off: float | None
    clamps: tuple[ClampSize, ...]
    clips: int
    steps: tuple[RodStep, ...]
    adapter: float
    straight: float
    notes: tuple[Fact, ...]
    stopped: str = ""
    """why it could not be worked out; '' where it could"""


def hose_plans(build: Build, package: Package) -> tuple[HosePlan, ...]:
    """Every hose whose ends are known."""
    sensed, adapter = sensor_hose(build, package), adapter_of(build, package)
    runs = graph_of(build, package).runs
    return tuple(_planned(run, adapter.cut if adapter and run.hose.id == sensed else 0.0) for run in runs)


def _planned(run: HoseRun, adapter: float) -> HosePlan:
    """One hose; where it cannot be worked out, that stands among its notes."""
    return alone(
        run.name,
        (),
        lambda: _plan(run, adapter),
        lambda stop: HosePlan(
            run, None, None, (), 0, (), adapter, 0.0, (fact("stopped", sentence=f"{stop.sentence}."),), stop.sentence
        ),
    )


def _plan(run: HoseRun, adapter: float) -> HosePlan:
    route, hose = run.route, run.hose
    cut = hose.length.si if hose.length else route.length + 2 * PUSHED_ON if route else None
    off = hose.stock.si - cut + adapter if hose.stock and cut is not None else None
    straight = route.longest_straight if route else 0.0
    free = max(straight, 0.0) if route else (cut or 0.0)
    notes = [*_cut_notes(run, cut, off), *_fit_notes(run)]
    if adapter > 0:
        room = straight > adapter + 2 * PUSHED_ON
        code = "hose.adapter" if room or route is None else "hose.adapter_long"
        notes.append(fact(code, adapter=(adapter, "length"), straight=(straight, "length")))
    clamps = tuple(_clamp(run, bore) for bore in (run.start.bore, run.end.bore))
    return HosePlan(
        run,
        cut,
        off,
        clamps,
        int(free // CLIP_EVERY[hose.kind]),
        rod_steps(route) if route else (),
        adapter,
        straight,
        tuple(notes),
    )


def _clamp(run: HoseRun, neck: float | None) -> ClampSize:
    outside = (neck if neck is not None else run.bore) + 2 * WALL
    return t_bolt_clamp(outside) if run.hose.clamp == "t_bolt" else worm_clamp(outside)


def _cut_notes(run: HoseRun, cut: float | None, off: float | None) -> list[Fact]:
    hose = run.hose
    if cut is None:
        return [fact("hose.ends_unknown")]
    if hose.kind == "moulded" and off is not None and off > 1e-3:
        first = max(off - FIRST_CUT, 0.0)
        if first <= 1e-3:
            return [fact("hose.one_cut", off=(off, "length"))]
        return [fact("hose.two_cuts", off=(off, "length"), first=(first, "length"), last=(off - first, "length"))]
    if off is not None and off < -1e-3:
        return [fact("hose.short", off=(-off, "length"))]
    return [fact("hose.cut_to", cut=(cut, "length"), over=(PUSHED_ON, "length"))]


def _fit_notes(run: HoseRun) -> list[Fact]:
    neck = next((bore for bore in (run.start.bore, run.end.bore) if bore is not None), run.bore)
    notes = [fact("hose.bead", bead=(bead_height(neck), "length"))]
    if run.hose.piece == "sleeve":
        notes.append(fact("hose.sleeve"))
    if run.hose.piece == "reducer":
        notes.append(fact("hose.reducer"))
    if run.hose.kind == "hard":
        notes.append(fact("hose.hard"))
    if run.bore > 0.018:
        notes.append(fact("hose.slide"))
    return notes


INSTALL = (
    "On a crowded engine: push every hose fully onto the loose pipe, lay the pipe in, then slide each over its neck.",
    "Clamps are hung on and turned beforehand; try the driver on each screw before the pipe goes in.",
    "Rubber grease, coolant or soap on the neck; never oil or mineral grease.",
    "Upper before lower on, lower before upper off: what drips runs where the tray is.",
)
"""For the work plan (common practice)."""


def rod_words(steps: tuple[RodStep, ...], system: str) -> tuple[str, ...]:
    """The bend list of a 1/8 in rod: along, bend, and how it is turned in the hand between."""
    from keelroom.units import KINDS, format_si

    def length(value: float) -> str:
        return format_si(value, KINDS["length"], system)

    found = []
    for k, step in enumerate(steps, 1):
        turned = (
            f", turn the rod {abs(math.degrees(step.twist)):.0f}° {'left' if step.twist > 0 else 'right'}"
            if abs(step.twist) > math.radians(2)
            else ""
        )
        bend = f", bend {math.degrees(step.angle):.0f}° round {length(step.radius)}" if step.angle else ", end"
        found.append(f"{k}. {length(step.straight)} straight{turned}{bend}")
    return tuple(found)


def rod_pattern(plan: HosePlan) -> Pattern | None:
    """The middle line at 1:1, to hold a bent rod or a stock hose against; None where its route is not known, or
    longer than a rod is."""
    route = plan.run.route
    if route is None or route.length > LONGEST_ROD:
        return None
    line, off = flattened(route)
    half = plan.run.bore / 2
    left = tuple(_aside(line, k, half) for k in range(len(line)))
    right = tuple(_aside(line, k, -half) for k in range(len(line)))
    outline = (*left, *reversed(right))
    marks = tuple(Mark(a, to=b) for a, b in pairwise(line))
    words = "flat" if off < PLANE else f"it leaves this plane by {fine(off, 'us')}"
    middle = line[len(line) // 2]
    return Pattern(
        f"{plan.run.name}: {words}", ROD_STOCK, (outline,), marks=(*marks, Mark(middle, f"{plan.run.name}: {words}"))
    )


def _aside(line: tuple[tuple[float, float], ...], k: int, by: float) -> tuple[float, float]:
    """A point beside the middle line."""
    (x0, y0), (x1, y1) = line[max(k - 1, 0)], line[min(k + 1, len(line) - 1)]
    long = math.hypot(x1 - x0, y1 - y0) or 1.0
    x, y = line[k]
    return (x - (y1 - y0) / long * by, y + (x1 - x0) / long * by)
