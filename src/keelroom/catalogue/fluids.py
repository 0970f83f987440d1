"""The shipped property tables of coolants."""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path

import numpy as np

from keelroom.core.fluids.coolant import GlycolTable

TABLES = Path(__file__).parent / "data" / "fluid_tables.json"


@cache
def glycol_table(glycol: str) -> GlycolTable:
    """The shipped property table of one glycol."""
    document = json.loads(TABLES.read_text(encoding="utf-8"))
    table = document["glycols"][glycol]
    columns = ("density_kg_m3", "heat_capacity_J_kgK", "conductivity_W_mK", "ln_viscosity_Pa_s")
    return GlycolTable(
        glycol=glycol,
        mass_fraction=np.array(table["mass_fraction"]),
        temperature=np.array(document["temperature_degC"]),
        values=np.stack([np.array(table[column]) for column in columns], axis=2),
        freezing=np.array(table["freezing_degC"]),
    )
