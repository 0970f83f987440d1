"""Workings of a headline figure: its inputs, the formula in words, its sources, and what moves it most."""

from __future__ import annotations

import math
from collections import defaultdict
from typing import NamedTuple

from keelroom.assess.assess import assess_rows
from keelroom.assess.assessment import CaseFigures
from keelroom.assess.judge import COLDEST
from keelroom.assess.translate import Row, needs_of, parts_of, row_of
from keelroom.build.edits import apply, set_value
from keelroom.build.fields import Path, measured_fields
from keelroom.build.quantity import Quantity, Spec, from_si
from keelroom.build.schema.build import Build
from keelroom.core.sources import SOURCES, Source
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
    sources: tuple[Source, ...]


def temperature_working(figures: CaseFigures, name: str, system: str) -> Working:
    """The working of a duty case's settled temperature."""

    def text(si: float, kind: str) -> str:
        return format_si(si, KINDS[kind], system) if math.isfinite(si) else "no limit"

    return Working(
        title=f"{name}: engine-outlet temperature",
        formula="Heat into the coolant (fuel burnt for road load, accessories and the engine's own friction, times the coolant's share) equals "
        "what the core rejects: each cell of the face passes coolant heat to the air that reaches it, row behind row, for the air the fans "
        "and road speed push through grille, core and bay, and the coolant the pump and thermostat send.",
        inputs=(
            ("Heat into the coolant", text(figures.heat_in, "heat")),
            ("Rejection at the limit", text(figures.rejection_at_limit, "heat")),
            ("Engine at", f"{figures.rpm:.0f} rpm, {text(figures.brake_power, 'power')} brake"),
            ("Air through the core", text(figures.airflow, "airflow")),
            ("Air ahead of the core", text(figures.air_in, "temperature")),
            ("Air behind the core", text(figures.air_out, "temperature")),
            (
                "Coolant through the core",
                f"{text(figures.core_coolant_flow, 'coolant flow')} of {text(figures.coolant_flow, 'coolant flow')}",
            ),
            ("Coolant back from the core", text(figures.coolant_out, "temperature")),
            ("Thermostat open", f"{figures.thermostat_opening:.0%}"),
            ("Fans run", f"{figures.fan_command:.0%} of the time"),
            ("Boils at", text(figures.boiling, "temperature")),
            ("Air to boil", text(figures.air_to_boil, "temperature")),
            (
                "Holds the limit up to",
                f"{text(figures.highest_ambient, 'temperature')} ambient" if figures.highest_ambient > COLDEST else "no ambient",
            ),
        ),
        sources=tuple(SOURCES[key] for key in ("HEYWOOD", "CHANG_WANG", "CHANG_HSU", "GNIELINSKI", "KAYS_LONDON", "FAN_LAWS", "RAOULT")),
    )


def movers(build: Build, case_id: str, system: str) -> tuple[Mover, ...]:
    """Every measured input's worth for one duty case of the active package, largest first.

    Each is moved by RELATIVE_STEP or TEMPERATURE_STEP and the whole build solved again; inputs that make no
    legal or workable build when moved are left out. Empty while the case still needs something.
    """
    variants = [
        (path, spec, step, moved)
        for path, spec, value in _inputs(build, case_id)
        for step, moved in _moved(build, path, spec, value, system)
    ]
    builds = [build, *(moved for _, _, _, moved in variants)]
    temperatures = _temperatures(builds, case_id)
    base = temperatures[0]
    if base is None:
        return ()
    found = [
        Mover(path, spec.label, step, t - base)
        for (path, spec, step, _), t in zip(variants, temperatures[1:], strict=True)
        if t is not None
    ]
    return tuple(sorted((m for m in found if abs(m.change) > 1e-4), key=lambda mover: -abs(mover.change)))


def _inputs(build: Build, case_id: str) -> list[tuple[Path, Spec, Quantity]]:
    case = next(case for case in build.duty_cases if case.id == case_id)
    places = ((build.brief, ("brief",)), (build.package, ("packages", build.active)), (case, ("duty_cases", case_id)))
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
                return [(text, apply(build, set_value(path, moved, ""))[0])]
        except InputError:
            continue
    return []


def _temperatures(builds: list[Build], case_id: str) -> list[float | None]:
    """Settled temperature per build, solved in as few calls as their layouts allow; None where something is missing."""
    found: list[float | None] = [None] * len(builds)
    batches: dict[tuple[object, ...], list[tuple[int, Row]]] = defaultdict(list)
    for i, build in enumerate(builds):
        case = next(case for case in build.duty_cases if case.id == case_id)
        if not needs_of(build, build.package, case):
            row = row_of(build, parts_of(build.brief, build.package), case)
            batches[row.batch].append((i, row))
    for members in batches.values():
        answer = assess_rows([row for _, row in members])
        for (i, _), temperature in zip(members, answer.solution.state.temperature, strict=True):
            found[i] = float(temperature)
    return found
