"""The doors of the laws: what a law is given is held against the range it holds over, before anything is worked out
by it.

Outside such a range a law has no meaning: a logarithm of less than nothing, a slope of nothing, a speed no engine
turns. What stands outside stops the duty cases that need the law, with one sentence that names the law, its range and
the entry that is likeliest to be the cause. What a law still answers but nobody has tested (the limits of a
correlation's data) is no stop but a finding.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator
from typing import NamedTuple

from pydantic import BaseModel

from keelroom.assess.inputs.electrical.system import SLOW
from keelroom.assess.inputs.gearing import belt_turns, engine_rpm, rpm_of
from keelroom.assess.outcome import Stopped
from keelroom.core.electrical.charging import CREDIBLE_VOLTS
from keelroom.core.loop.circuit import PUMP_SPEEDS
from keelroom.core.thermal.engine_heat import DISPLACEMENTS, ENGINE_SPEEDS
from keelroom.core.thermal.louver import FIN_SHARE
from keelroom.document.fields import Path, get, measured_fields, spec_of
from keelroom.document.quantity import Quantity, Spec
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.package import Package
from keelroom.facts import raised
from keelroom.units import both

USUAL: dict[tuple[str, str], float] = {
    ("Vehicle", "mass"): 1600.0,
    ("Engine", "displacement"): 3.5e-3,
    ("Engine", "power"): 150e3,
    ("Engine", "power_rpm"): 90.0,
    ("Engine", "pump_flow"): 3.5e-3,
    ("Core", "face_width"): 0.6,
    ("Core", "face_height"): 0.42,
    ("Core", "depth"): 0.045,
    ("Core", "fin_density"): 600.0,
    ("Fan", "diameter"): 0.36,
    ("Fan", "free_air_flow"): 0.8,
    ("Fan", "power"): 180.0,
    ("Fan", "rated_current"): 14.0,
    ("Accessories", "idle_voltage"): 13.6,
    ("Accessories", "road_voltage"): 14.2,
    ("DutyCase", "rpm"): 35.0,
}
"""SI values of what the schema has no usual value for (common practice): they only tell which entry is farthest from
usual."""
FAR = math.log(4.0)
"""How far from usual an entry stands before it is named: four times as much, or a quarter; warmer or colder by
KELVIN_FAR."""
KELVIN_FAR, NOUGHT = 55.0, math.log(30.0)


class Odd(NamedTuple):
    """An entry that stands far from usual: its path, how far (1 is FAR), and both values in words."""

    path: Path
    distance: float
    words: str


class Met(NamedTuple):
    """What a law is given here: the value, and the entries it is made of."""

    value: float
    entries: tuple[Path, ...]


class Door(NamedTuple):
    """A law's door. law: in words, with whose it is;  what: the quantity it is given;  kind: of that; low, high:
    where the law holds."""

    law: str
    what: str
    kind: str
    low: float
    high: float
    met: Callable[[Build, Package, DutyCase], Iterable[Met]]


def _fins(build: Build, package: Package, case: DutyCase) -> Iterator[Met]:
    core, where = package.core, ("packages", package.id, "core")
    if core.fin_thickness and core.fin_density:
        yield Met(core.fin_thickness.si * core.fin_density.si, ((*where, "fin_density"), (*where, "fin_thickness")))


GEARED = tuple(("brief", "vehicle", name) for name in ("tyre_diameter", "top_ratio", "final_drive"))


def _speed_of(case: DutyCase) -> tuple[Path, ...]:
    """The entries an engine's speed is made of in a duty case."""
    where = ("duty_cases", case.id)
    if case.rpm is not None:
        return ((*where, "rpm"),)
    idle = ("brief", "engine", "idle_rpm")
    own = {"idle": (idle,), "full_power": (("brief", "engine", "power_rpm"),)}
    return own.get(case.demand, (*GEARED, (*where, "speed"), (*where, "gear_step"), idle))


def _engine(build: Build, package: Package, case: DutyCase) -> Iterator[Met]:
    yield Met(engine_rpm(build.brief, case) / 60.0, _speed_of(case))


def _size(build: Build, package: Package, case: DutyCase) -> Iterator[Met]:
    displacement = build.brief.engine.displacement
    if displacement:
        yield Met(displacement.si, (("brief", "engine", "displacement"),))


def _pump(build: Build, package: Package, case: DutyCase) -> Iterator[Met]:
    loop, rated = package.loop, build.brief.engine.power_rpm
    if loop.pump != "electric" and rated and loop.pulley_ratio:
        entries = (*_speed_of(case), ("brief", "engine", "power_rpm"), ("packages", package.id, "loop", "pulley_ratio"))
        yield Met(
            engine_rpm(build.brief, case) / rpm_of(rated) * loop.pulley_ratio.si * belt_turns(build.supply), entries
        )


def _volts(build: Build, package: Package, case: DutyCase) -> Iterator[Met]:
    batteries = 2.0 if build.supply.regulated.si > 20 else 1.0
    name = "idle_voltage" if engine_rpm(build.brief, case) < SLOW else "road_voltage"
    measured = getattr(build.brief.accessories, name)
    if measured is not None:
        yield Met(measured.si / batteries, (("brief", "accessories", name),))
    yield Met(build.supply.regulated.si / batteries, (("supply", "regulated"),))


DOORS = (
    Door(
        "the friction of louvered fins (Chang, Hsu, Lin and Wang)",
        "fin thickness over fin pitch",
        "number",
        *FIN_SHARE,
        _fins,
    ),
    Door("engine friction (Heywood)", "the engine’s speed", "turning speed", *ENGINE_SPEEDS, _engine),
    Door("engine friction (Heywood)", "the displacement", "displacement", *DISPLACEMENTS, _size),
    Door("the pump’s law of speed", "the pump’s speed over that of its rated flow", "number", *PUMP_SPEEDS, _pump),
    Door("charging of lead-acid batteries", "volts per 12 V battery", "voltage", *CREDIBLE_VOLTS, _volts),
)


def stop_at_doors(build: Build, package: Package, case: DutyCase) -> Stopped | None:
    """The first law a duty case would leave, None where it leaves none. Reads what is there: what is missing is a
    need."""
    for door in DOORS:
        for met in door.met(build, package, case):
            if not door.low <= met.value <= door.high:
                return _stop(build, door, met)
    return None


def _stop(build: Build, door: Door, met: Met) -> Stopped:
    there = [odd for path in met.entries if (odd := _odd_at(build, path)) is not None]
    worst = max(there, key=lambda odd: odd.distance, default=None)
    low, high, value = (_said(at, door.kind) for at in (door.low, door.high, met.value))
    # The entry first: it is what is mended, and what is read where there is room for little.
    said = f"{door.what} is then {value}, and {door.law} holds from {low} to {high}"
    return Stopped("", worst.path, f"{worst.words}: {said}") if worst else Stopped("", met.entries[0], raised(said))


def _said(value: float, kind: str) -> str:
    return f"{value:.3g}" if kind == "number" else both(value, kind)


def oddest(build: Build, package: Package, case: DutyCase) -> Path | None:
    """The entry farthest from usual of all a duty case is made of; None where nothing is far."""
    where = ("packages", package.id)
    parts: list[tuple[BaseModel, Path]] = [
        *(
            (getattr(build.brief, name), ("brief", name))
            for name in ("vehicle", "engine", "accessories", "climate", "cooling")
        ),
        *(
            (getattr(package, name), (*where, name))
            for name in ("core", "shroud", "control", "loop", "coolant", "remote")
        ),
        *((fan, (*where, "fans", fan.id)) for fan in package.fans),
        *((cooler, (*where, "coolers", cooler.id)) for cooler in package.coolers),
        *((circuit, (*where, "circuits", circuit.id)) for circuit in package.circuits),
        (build.supply, ("supply",)),
        (case, ("duty_cases", case.id)),
    ]
    found = [
        odd
        for section, path in parts
        for at, _, _ in measured_fields(section, path)
        if (odd := _odd_at(build, at)) and odd.distance > 1
    ]
    return max(found, key=lambda odd: odd.distance).path if found else None


NO_CAUSE = {"money", "time", "altitude", "wire size"}
"""Kinds no solve fails by."""


def _odd_at(build: Build, path: Path) -> Odd | None:
    """How far the entry at a path stands from usual; None where it is empty, or nothing is usual there."""
    owner, value = get(build, path[:-1]), get(build, path)
    model: type[BaseModel] = type(owner)
    spec, usual = spec_of(model, path[-1]), _usual(model, path[-1])
    if spec is None or value is None or usual is None or spec.kind_name in NO_CAUSE:
        return None
    name = getattr(owner, "name", "") if len(path) > 3 and path[-2] != "core" else ""
    label = f"{spec.label}{f' of {name}' if name else ''}"
    return Odd(
        path, _distance(value.si, usual, spec) / FAR, f"{label} {value.words}, usual {both(usual, spec.kind_name)}"
    )


def _usual(model: type[BaseModel], field: str) -> float | None:
    given = model.model_fields[field].default
    return given.si if isinstance(given, Quantity) else USUAL.get((model.__name__, field))


def _distance(value: float, usual: float, spec: Spec) -> float:
    if spec.kind_name == "temperature":
        return abs(value - usual) / KELVIN_FAR * FAR
    if usual <= 0 or value < 0:
        return 0.0
    return abs(math.log(value / usual)) if value > 0 else NOUGHT
