"""Workings of a headline figure: its inputs, the formula in words, its sources, and what moves it most."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.assess.figures.assessment import COLDEST, HOTTEST, CaseFigures
from keelroom.assess.figures.batch import Asked, answers, row_for
from keelroom.assess.figures.outputs import lines
from keelroom.assess.inputs.translate import PointRow
from keelroom.assess.report import fans_run
from keelroom.core import rules
from keelroom.core.answer import Answer
from keelroom.core.kept import in_one_go
from keelroom.core.sources import SOURCES, Reference
from keelroom.core.thermal.engine_laws import BIAS
from keelroom.document.edits import apply, set_value
from keelroom.document.fields import Path, measured_fields
from keelroom.document.quantity import Quantity, Spec, from_si
from keelroom.document.schema.build import Build
from keelroom.errors import InputError
from keelroom.units import KINDS, format_si

RELATIVE_STEP = 0.10
TEMPERATURE_STEP = 5.0
"""An input is moved by a tenth of itself, a temperature by 5 K, to see what it is worth."""


class Mover(NamedTuple):
    """One input and what moving it does to the temperature [K]."""

    path: Path
    label: str
    step: str
    change: float


class Working(NamedTuple):
    """How a headline figure came about. Lines are (what, value) in the reader's units."""

    title: str
    formula: str
    inputs: tuple[tuple[str, str], ...]
    sources: tuple[Reference, ...]


def bias_words(kind: str) -> str:
    """How far an engine's heat lies from published balances, in words."""
    bias = BIAS[kind]
    if not bias.rows:
        return "No published balance of such an engine is held against its heat."
    way = "over" if bias.share > 0 else "under"
    return (
        f"Against {bias.rows} published balances and consumptions of such engines its heat lies {abs(bias.share):.0%} "
        f"{way} their middle on the mean; that is told here and not taken out."
    )


def temperature_working(figures: CaseFigures, name: str, system: str) -> Working:
    """The working of a duty case's settled temperature."""

    def text(si: float, kind: str) -> str:
        return format_si(si, KINDS[kind], system) if math.isfinite(si) else "no limit"

    return Working(
        title=f"{name}: engine-outlet temperature",
        formula="Heat into the coolant (fuel burnt for road load, accessories and the engine's own friction, times "
        "the coolant's share) equals "
        "what the core rejects: each cell of the face passes coolant heat to the air that reaches it, row "
        "behind row, for the air the fans "
        "and road speed push through grille, core and bay, and the coolant the pump and thermostat send.",
        inputs=(
            *lines(figures, system, "heat_in_W", "rejection_at_limit_W"),
            ("Engine at", f"{figures.rpm:.0f} rpm, {text(figures.brake_power, 'power')} brake"),
            *lines(figures, system, "airflow_m3_s", "air_in_degC", "air_out_degC"),
            (
                "Coolant through the core",
                f"{text(figures.core_coolant_flow, 'coolant flow')} of {text(figures.coolant_flow, 'coolant flow')}",
            ),
            *lines(figures, system, "core_outlet_degC", "thermostat_opening"),
            ("Fans run", fans_run(figures, system)),
            *lines(figures, system, "boiling_degC"),
            *ambient_inputs(figures, system),
        ),
        sources=tuple(
            SOURCES[key]
            for key in ("HEYWOOD", "CHANG_WANG", "CHANG_HSU", "GNIELINSKI", "KAYS_LONDON", "FAN_LAWS", "RAOULT")
        ),
    )


def ambient_inputs(figures: CaseFigures, system: str) -> tuple[tuple[str, str], ...]:
    """The lines of a working that come with the second wave."""
    if figures.ambients is None:
        return (("Air to boil", "…"), ("Holds the limit up to", "…"))
    holds, boils = (_text(value, "temperature", system) for value in figures.ambients)
    if figures.ambients.holds > HOTTEST:
        told = "any weather"
    else:
        told = f"{holds} ambient" if figures.ambients.holds > COLDEST else "no ambient"
    return (("Air to boil", boils), ("Holds the limit up to", told))


class Headline(NamedTuple):
    """A figure of the ledger besides the temperatures: how it is told, how it came about, how it is read off a solved
    point."""

    title: str
    kind_name: str
    formula: str
    sources: tuple[str, ...]
    value: Callable[[Build, PointRow, Answer, int], float]
    inputs: Callable[[Build, CaseFigures, str], tuple[tuple[str, str], ...]]


def _temperature(build: Build, row: PointRow, answer: Answer, i: int) -> float:
    return float(answer.temperature[i])


def _airflow(build: Build, row: PointRow, answer: Answer, i: int) -> float:
    fixed = answer.solution.fixed
    return float(np.maximum(fixed.running.flows.core[i], 0.0).sum() / fixed.outdoor_density[i])


def _amps(build: Build, row: PointRow, answer: Answer, i: int) -> float:
    return row.amps


def _face(build: Build, row: PointRow, answer: Answer, i: int) -> float:
    plant = row.points.plant
    return float(plant.core.face_width * plant.core.face_height) - rules.face_area_wanted(
        float(plant.engine.displacement)
    )


def _text(si: float, kind: str, system: str) -> str:
    return format_si(si, KINDS[kind], system)


def _airflow_inputs(build: Build, f: CaseFigures, system: str) -> tuple[tuple[str, str], ...]:
    engine = build.brief.engine
    wanted = (
        rules.airflow_wanted(engine.displacement.si, engine.cylinders.si)
        if engine.displacement and engine.cylinders
        else None
    )
    return (
        ("Through the core, fans running", _text(f.airflow_fans_on, "airflow", system)),
        *((("The rule wants, by engine class", _text(wanted, "airflow", system)),) if wanted is not None else ()),
        *((f"Fan {k}: into the core", _text(fan.flow_into_core, "airflow", system)) for k, fan in enumerate(f.fans, 1)),
        *((f"Fan {k}: volts at the motor", _text(fan.voltage, "voltage", system)) for k, fan in enumerate(f.fans, 1)),
        *((place, _text(pressure, "fan pressure", system)) for place, pressure in f.pressures),
    )


def _amps_inputs(build: Build, f: CaseFigures, system: str) -> tuple[tuple[str, str], ...]:
    return (
        *lines(f, system, "electrical_current_A"),
        (
            "In the mean of the fans’ cycle",
            f"{_text(f.mean_current, 'current', system)}, of that the fans {_text(f.fan_current, 'current', system)}",
        ),
        ("Fans run", f"{f.fan_command:.0%} of the time"),
        *lines(f, system, "alternator_current_A"),
        ("Engine at", f"{f.rpm:.0f} rpm"),
    )


def _face_inputs(build: Build, f: CaseFigures, system: str) -> tuple[tuple[str, str], ...]:
    core, engine = build.package.core, build.brief.engine
    if not (core.face_width and core.face_height and engine.displacement):
        return ()
    return (
        ("Face", _text(core.face_width.si * core.face_height.si, "area", system)),
        ("The rule wants", _text(rules.face_area_wanted(engine.displacement.si), "area", system)),
        ("Displacement", _text(engine.displacement.si, "displacement", system)),
    )


HEADLINES = {
    "airflow": Headline(
        "Air through the core, standing",
        "airflow",
        "The flow at which the fans' pressure equals what grille, covers, core, corners of the shroud and "
        "bay exit lose, at the densities "
        "the air has there; leaks and what comes back are part of the balance. Beside it the rule of thumb "
        "by engine class.",
        ("FAN_LAWS", "CHANG_HSU", "KAYS_LONDON", "PRACTICE"),
        _airflow,
        _airflow_inputs,
    ),
    "amps": Headline(
        "Amps standing, everything on and the fans running",
        "current",
        "Each fan's current while it runs (with the square of its speed, which follows the volts that its "
        "wires leave at the motor), "
        "plus all other loads at the system's volts; against what the alternator gives hot at this speed of its own.",
        ("FAN_LAWS", "PRACTICE"),
        _amps,
        _amps_inputs,
    ),
    "face": Headline(
        "Face against the frontal-area rule",
        "area",
        "Face width times face height, against as many square inches as the engine has cubic inches. The "
        "rule knows neither climate, load, depth nor fans.",
        ("PRACTICE",),
        _face,
        _face_inputs,
    ),
}


def headline_working(build: Build, name: str, figures: CaseFigures, system: str) -> Working:
    """The working of a headline figure besides the temperatures, for the duty case it is read at."""
    headline = HEADLINES[name]
    return Working(
        headline.title,
        headline.formula,
        headline.inputs(build, figures, system),
        tuple(SOURCES[key] for key in headline.sources),
    )


@in_one_go
def movers(build: Build, case_id: str, system: str, headline: str = "temperature") -> tuple[Mover, ...]:
    """Every measured input's worth for one duty case of the active package, largest first.

    Each is moved by RELATIVE_STEP or TEMPERATURE_STEP and the whole build solved again; inputs that make no
    legal or workable build when moved are left out. Empty while the case still needs something.
    headline : 'temperature' [K] or a key of HEADLINES, whose change is then in its SI unit
    """
    value = HEADLINES[headline].value if headline in HEADLINES else _temperature
    variants = [
        (path, spec, step, moved)
        for path, spec, now in _inputs(build, case_id)
        for step, moved in _moved(build, path, spec, now, system)
    ]
    builds = [build, *(moved for _, _, _, moved in variants)]
    rows = [row_for(Asked(b, case_id)) for b in builds]
    pairs = zip(builds, rows, answers(rows), strict=True)
    figures = [value(b, row, *found) if row is not None and found is not None else None for b, row, found in pairs]
    base = figures[0]
    if base is None:
        return ()
    found = [
        Mover(path, spec.label, step, figure - base)
        for (path, spec, step, _), figure in zip(variants, figures[1:], strict=True)
        if figure is not None
    ]
    least = 1e-4 if headline == "temperature" else 1e-9
    return tuple(sorted((m for m in found if abs(m.change) > least), key=lambda mover: -abs(mover.change)))


def _inputs(build: Build, case_id: str) -> list[tuple[Path, Spec, Quantity]]:
    case = build.duty_case(case_id)
    places = (
        (build.brief, ("brief",)),
        (build.package, ("packages", build.active)),
        (build.supply, ("supply",)),
        (case, ("duty_cases", case_id)),
    )
    return [
        (path, spec, value)
        for node, start in places
        for path, spec, value in measured_fields(node, start)
        if value is not None and not spec.descriptive
    ]


def _moved(build: Build, path: Path, spec: Spec, value: Quantity, system: str) -> list[tuple[str, Build]]:
    if spec.whole or spec.kind_name == "money":
        return []
    if spec.kind_name in ("temperature", "temperature difference"):
        step, label = TEMPERATURE_STEP, f"+{format_si(TEMPERATURE_STEP, KINDS['temperature difference'], system)}"
    else:
        step, label = RELATIVE_STEP * value.si, f"+{RELATIVE_STEP:.0%}"
    for sign, text in ((1, label), (-1, label.replace("+", "−"))):
        try:
            moved = from_si(value.si + sign * step, spec.kind_name, system, "derived")
            if spec.refusal(moved.si) is None and moved.si != value.si:
                return [(text, apply(build, set_value(path, moved, "")))]
        except InputError:
            continue
    return []
