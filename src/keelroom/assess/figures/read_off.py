"""What parts are asked for with, read off an assessment: the fans' pressure, air in the circuit, what it draws."""

from __future__ import annotations

from keelroom.assess.electrical.charge import Draw
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.fit.shroud_plan import IDLE_PRESSURE
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.system import system_at
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


def draws_of(assessment: Assessment) -> tuple[Draw, ...]:
    """What every case that counts draws, as far as they are worked out."""
    build, package = assessment.driven, assessment.package
    counted = {case.case_id: case.figures for case in assessment.counting if case.figures}
    return tuple(
        Draw(case, system_at(build, package, demand_of(build.brief, case).at), counted[case.id].mean_current)
        for case in build.duty_cases
        if case.id in counted
    )
