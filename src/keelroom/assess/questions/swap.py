"""The engine-driven fan as it was, and what taking it off gives: air and temperature per case, power, room, what failure costs."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.assessment import Assessment, CaseFigures
from keelroom.core.kept import in_one_go
from keelroom.document.edits import Change, Edit, fresh_id
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package

NAME = "As found: engine-driven fan"


class Before(NamedTuple):
    """One duty case before and after. temperatures [degC] (None: does not settle), air through the core [m3/s], power the fan drags [W],
    brake power [W]."""

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


def as_found(build: Build) -> Edit:
    """The active package once more with its electric fans off and a generic engine-driven fan on: what was there before the swap.

    A clutch fan of 0.85 of the face's height in the middle of it, in the same shroud; no circuits.
    """
    package = build.package
    core = package.core
    width, height = (v.si if v else 0.45 for v in (core.face_width, core.face_height))
    size = min(0.9 * height, 0.9 * width, 0.48)
    annulus = (size / 0.43) ** 3
    fan = Fan(
        id="fan1", name="Clutch fan", diameter=from_si(size, "length", "us", "assumed"), depth=quantity("5 in", "length"), hub_diameter=quantity("6 in", "length"),
        x=from_si(width / 2, "length", "us", "derived"), y=from_si(height / 2, "length", "us", "derived"), free_air_flow=from_si(1.9 * annulus, "airflow", "us", "assumed"),
        derate=quantity("100 %", "share"), motor="engine", blade="straight", drag=from_si(2200.0 * annulus * (size / 0.43) ** 2, "power", "us", "assumed"),
    )  # fmt: skip
    ident = fresh_id(build.packages, "p")
    made = package.model_copy(update={"id": ident, "name": NAME, "fans": (fan,), "circuits": (), "hours": None})
    return Edit("Add the package as found", (Change(("packages",), (*build.packages, made)),))


def driven_package(build: Build) -> Package | None:
    """The first package whose fans are all turned by the engine, other than the active one."""
    return next((p for p in build.packages if p.id != build.active and p.fans and all(fan.motor == "engine" for fan in p.fans)), None)


@in_one_go
def swap(build: Build) -> Swap | None:
    """The active package against the one with the engine-driven fan; None without one."""
    found = driven_package(build)
    if found is None:
        return None
    was, now = first_wave(build, found.id), first_wave(build)
    rows = tuple(
        Before(a.name, _held(a.figures), _held(b.figures), a.figures.airflow, b.figures.airflow, _drag(was, k), (a.figures.brake_power, b.figures.brake_power))
        for k, (a, b) in enumerate(zip(was.cases, now.cases, strict=True)) if a.figures and b.figures
    )  # fmt: skip
    depth = [max((fan.depth.si for fan in p.fans if fan.depth), default=0.0) for p in (found, build.package)]
    return Swap(rows, depth[0] - depth[1], found.name or found.id)


def _held(figures: CaseFigures) -> float | None:
    return None if figures.verdict == "does_not_settle" else figures.temperature


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
