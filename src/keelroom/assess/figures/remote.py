"""What long lines and an electric pump mean: heat lost on the way, what happens when the pump is off, what a size of
line costs."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import CaseFigures
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.heights import core_bottom, core_top, heights_of
from keelroom.assess.inputs.coolant.ports import COLD, HOT
from keelroom.assess.inputs.coolant.routes import HoseRun, heads_of
from keelroom.core.loop.circuit import ROUND
from keelroom.core.loop.hoses import WALL
from keelroom.core.loop.point import friction
from keelroom.core.network import GRAVITY
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import KINDS, format_si

FILM, BARE = 12.0, 60.0
"""[W/m2K] from a line to the air round it, radiation with it, and [K] it is warmer (common practice)."""
EXPANDS = 6.5e-4
"""[1/K] of half and half near 80 °C (COOLPROP)."""


def heat_lost(run: HoseRun) -> float:
    """[W] a line gives off hot, in still air. Source: FILM, common practice."""
    return FILM * math.pi * (run.bore + 2 * WALL) * (run.length or 0.0) * BARE


HOT_DENSITY, HOT_VISCOSITY = 1030.0, 0.75e-3
"""[kg/m3] and [Pa s] of half and half near 90 °C (COOLPROP)."""
WIDER = 0.0381
"""[m] the bore a long line is set against: 1 1/2 in, as a radiator hose has it"""
LONG_LINE = 2.0
"""[m] of a line whose loss is worth a word"""


def line_loss(run: HoseRun, flow: float, bore: float, narrow: float) -> float:
    """Pressure [Pa] a line loses at a flow [m3/s] hot, were it of a bore with its narrowest fitting so wide [m].
    Source: as the circuit's."""
    speed = flow / (math.pi / 4 * bore**2)
    factor = float(friction(max(HOT_DENSITY * speed * bore / HOT_VISCOSITY, 1.0), ROUND))
    return (
        (factor * (run.length or 0.0) / bore + heads_of(run._replace(bore=bore, narrow=narrow)))
        * HOT_DENSITY
        / 2
        * speed**2
    )


def line_words(run: HoseRun, figures: CaseFigures | None, system: str) -> tuple[str, ...]:
    """What a long line costs in the chosen case, and what a wide one would."""
    flow = figures.loop.of(f"hose:{run.hose.id}") if figures is not None else None
    if flow is None or (run.length or 0.0) < LONG_LINE or flow.flow == 0.0:
        return ()
    lost, wide = line_loss(run, abs(flow.flow), run.bore, run.narrow), line_loss(run, abs(flow.flow), WIDER, WIDER)
    pressure, coolant = KINDS["pressure"], KINDS["coolant flow"]
    words = f"It loses {format_si(lost, pressure, system)} at {format_si(abs(flow.flow), coolant, system)}"
    if run.narrow < WIDER - 1e-3:
        words += (
            f"; {format_si(run.narrow, KINDS['length'], system)} is its true bore. In "
            f"{format_si(WIDER, KINDS['length'], system)} it would be {format_si(wide, pressure, system)}"
        )
    return (f"{words}.",)


def off_words(build: Build, package: Package, figures: CaseFigures | None, system: str) -> tuple[str, ...]:
    """What an electric pump takes, when it runs, and what goes round while it is off."""
    loop = package.loop
    if loop.pump == "mechanical":
        return ()
    power = f"{loop.electric_power.si:.0f} W" if loop.electric_power else "power not known"
    starts = f"starts at {format_si(loop.pump_on.si, KINDS['temperature'], system)}" if loop.pump_on else "always runs"
    words = [f"Electric pump: {power}, {starts}; figures here are with it running."]
    if figures is not None and loop.pump == "electric":
        flow = standing_flow(build, package, figures)
        if flow > 0:
            words.append(
                f"Off, the warm coolant alone moves about {format_si(flow, KINDS['coolant flow'], system)}: "
                "enough to warm up by, not to drive on."
            )
        else:
            words.append(
                "Off, nothing goes round: the core does not stand over the engine, so warm coolant does not "
                "rise to it. If the pump fails the car stops."
            )
    return tuple(words)


def standing_flow(build: Build, package: Package, figures: CaseFigures) -> float:
    """Coolant [m3/s] that goes round by its warmth alone, at the temperatures of a case: the head of the warm leg
    against the losses as the pump finds them; 0 where the core does not stand over the engine. Source:
    hydrostatics."""
    heights = heights_of(build, package)
    ends = [at for node in (HOT, COLD) if (at := heights.get(node)) is not None]
    if not ends or not graph_of(build, package).whole:
        return 0.0
    rise = (core_top(build.survey, package) + core_bottom(build.survey, package)) / 2 - sum(ends) / len(ends)
    warmer = figures.temperature - figures.coolant_out
    head = 1030.0 * EXPANDS * warmer * GRAVITY * rise
    if head <= 0 or figures.loop.made <= 0:
        return 0.0
    return figures.core_coolant_flow * math.sqrt(head / figures.loop.made)
