"""What parts are asked for with, read off an assessment: the fans' own pressure, the circuit where air stays in it."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.fit.shroud_plan import IDLE_PRESSURE
from keelroom.assess.loop.air import TrappedAir, air_of
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package


def suction(assessment: Assessment) -> float:
    """The fans' own pressure while standing [Pa], for what leaks through a gap."""
    idle = assessment.idle
    return max((fan.pressure for fan in idle.fans), default=IDLE_PRESSURE) if idle else IDLE_PRESSURE


def air_in(build: Build, package: Package, assessment: Assessment) -> TrappedAir:
    """Where air stays: with the circuit at idle, and in the case that turns the engine fastest."""
    solved = [case.figures for case in assessment.cases if case.figures]
    fastest = max(solved, key=lambda figures: figures.rpm, default=None)
    idle = assessment.idle
    return air_of(build, package, idle.loop if idle else None, fastest.loop if fastest else None)
