"""The shipped saturation tables of refrigerants."""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path

import numpy as np

from keelroom.core.arrays import Floats

TABLES = Path(__file__).parent / "data" / "refrigerants.json"
NAMES = {"r134a": "R-134a", "r1234yf": "R-1234yf"}


@cache
def _table(refrigerant: str) -> tuple[Floats, Floats]:
    document = json.loads(TABLES.read_text(encoding="utf-8"))
    logs = np.log(np.array(document["pressure_Pa"][refrigerant], float))
    kelvin = document["first_degC"] + document["step_K"] * np.arange(len(logs)) + 273.15
    return kelvin, logs


def saturation_pressure(refrigerant: str, celsius: float) -> float:
    """Pressure [Pa absolute] at which a refrigerant condenses at a temperature, held to -20..92 degC.

    Between table rows ln p goes straight over 1/T, as vapour pressures do. Source: CoolProp, as shipped.
    """
    kelvin, logs = _table(refrigerant)
    return float(np.exp(np.interp(-1.0 / (celsius + 273.15), -1.0 / kelvin, logs)))
