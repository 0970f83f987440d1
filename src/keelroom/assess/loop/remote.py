"""What long lines and an electric pump mean: heat lost on the way, what happens when the pump is off, what a size of line costs."""

from __future__ import annotations

import math

from keelroom.assess.assessment import CaseFigures
from keelroom.assess.loop.graph import graph_of
from keelroom.assess.loop.heights import core_bottom, core_top, heights_of
from keelroom.assess.loop.ports import COLD, HOT
from keelroom.assess.loop.routes import Run
from keelroom.core.loop.hoses import WALL
from keelroom.core.network import GRAVITY
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import KINDS, format_si

FILM, BARE = 12.0, 60.0
"""[W/m2K] from a line to the air round it, radiation with it, and [K] it is warmer (common practice)."""
EXPANDS = 6.5e-4
"""[1/K] of half and half near 80 °C (COOLPROP)."""


def heat_lost(run: Run) -> float:
    """[W] a line gives off hot, in still air. Source: FILM, common practice."""
    return FILM * math.pi * (run.bore + 2 * WALL) * (run.length or 0.0) * BARE


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
                f"Off, the warm coolant alone moves about {format_si(flow, KINDS['coolant flow'], system)}: enough to warm up by, not to drive on."
            )
        else:
            words.append(
                "Off, nothing goes round: the core does not stand over the engine, so warm coolant does not rise to it. If the pump fails the car stops."
            )
    return tuple(words)


def standing_flow(build: Build, package: Package, figures: CaseFigures) -> float:
    """Coolant [m3/s] that goes round by its warmth alone, at the temperatures of a case: the head of the warm leg against the losses as the pump
    finds them; 0 where the core does not stand over the engine. Source: hydrostatics."""
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
