"""The car as found against the active package: air and temperature per case, power the old fan dragged, room, what
failure costs."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.batch import Asked, temperatures
from keelroom.core.kept import in_one_go
from keelroom.document.schema.build import Build


class Before(NamedTuple):
    """One duty case before and after. temperatures [degC] with the fans held on (inf: does not settle), air
    through the core [m3/s], power the fan drags [W], brake power [W]."""

    case: str
    before: float | None
    after: float | None
    air_before: float
    air_after: float
    drag: float
    brake: tuple[float, float]


class Swap(NamedTuple):
    """The package as found against the active one; freed [m]: how much less deep the fans are."""

    rows: tuple[Before, ...]
    freed: float
    before: str


@in_one_go
def swap(build: Build) -> Swap | None:
    """The active package against the car as found; None where that was not kept, or is what is active."""
    found = build.of_kind("as_found")
    if found is None or found.id == build.active:
        return None
    was, now = first_wave(build, found.id), first_wave(build)
    sides = (build.model_copy(update={"active": found.id}), build)
    heats = temperatures([Asked(one, case.id) for one in sides for case in build.duty_cases])
    rows = tuple(
        Before(
            a.name,
            heats[k],
            heats[len(build.duty_cases) + k],
            a.figures.airflow,
            b.figures.airflow,
            _drag(was, k),
            (a.figures.brake_power, b.figures.brake_power),
        )
        for k, (a, b) in enumerate(zip(was.cases, now.cases, strict=True))
        if a.figures and b.figures
    )
    depth = [max((fan.depth.si for fan in p.fans if fan.depth), default=0.0) for p in (found, build.package)]
    return Swap(rows, depth[0] - depth[1], found.name or found.id)


def _drag(assessment: Assessment, k: int) -> float:
    """What the fan drags in the k-th case as it is engaged there."""
    if assessment.start is None:
        return 0.0
    ready = [case for case in assessment.cases if case.figures]
    i = ready.index(assessment.cases[k])
    fixed, load = assessment.start.answer.solution.fixed, assessment.start.answer.solution.state.load
    ends = [air.heat.accessories for air in (fixed.stopped, fixed.running)]
    points = assessment.start.rows[i].points.situation.drive
    rest = float(points.accessories) + float(points.converter_heat)
    return float(ends[0][i] + load[i] * (ends[1][i] - ends[0][i])) - rest
