"""What engines burn and where it goes, held against published balances: the rows of `engine_balances.csv`."""

import csv
from functools import partial
from pathlib import Path

from keelroom.core.thermal.engine_heat import EngineHeat, engine_heat
from tests.reference.cars import CAR, at, drive_with, engine_with
from tests.reference.check import Check

ROWS = Path(__file__).with_name("engine_balances.csv")
PETROL, DIESEL = 32.2e6, 35.8e6
"""[J/L]"""


def balance_of(row: dict[str, str]) -> EngineHeat:
    """The balance of a row: at full throttle, or with so many watts at the shaft."""
    rpm, full = float(row["rpm"]), row["state"] == "full"
    engine = engine_with(
        displacement=float(row["litres"]) * 1e-3,
        power=float(row["kilowatts"]) * 1e3,
        power_rpm=float(row["power_rpm"]),
        law=row["law"],
        boost=0.0,
    )
    drive = drive_with(
        rpm=rpm, full_power=float(full), accessories=0.0 if full else float(row["state"]), electrical=0.0
    )
    return engine_heat((engine, CAR), drive, at(0.0), (at(1.225), at(101325.0), at(25.0)))


def figure_of(row: dict[str, str]) -> float:
    """Ours for a row."""
    heat = balance_of(row)
    fuel, coolant = float(heat.fuel[0]), float(heat.coolant[0])
    if row["figure"] == "coolant_per_brake":
        return coolant / float(heat.brake[0])
    if row["figure"] == "coolant_of_fuel":
        return coolant / fuel
    return fuel / (DIESEL if row["law"] == "diesel" else PETROL) * 3600


def residuals(kind: str) -> list[float]:
    """Ours over the middle of each published range of a kind of engine, less one."""
    with ROWS.open(encoding="utf-8", newline="") as lines:
        rows = [row for row in csv.DictReader(lines) if row["law"] == kind]
    return [2 * figure_of(row) / (float(row["low"]) + float(row["high"])) - 1 for row in rows]


def engine_checks() -> list[Check]:
    """Each published range as its middle, good to half its width."""
    found = []
    with ROWS.open(encoding="utf-8", newline="") as lines:
        for row in csv.DictReader(lines):
            low, high = float(row["low"]), float(row["high"])
            middle, half = (low + high) / 2, (high - low) / 2
            name = f"{row['name']}: {row['figure'].replace('_', ' ')}"
            found.append(Check(name, row["class"], row["source"], middle, partial(figure_of, row), half, absolute=True))
    return found
