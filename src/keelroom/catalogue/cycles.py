"""Public drive cycles that ship, second by second, with where they come from."""

from __future__ import annotations

import csv
from functools import cache
from typing import NamedTuple

from keelroom.catalogue.load import DATA


class Cycle(NamedTuple):
    """key in a schedule;  seconds [s];  speeds [m/s];  source"""

    key: str
    name: str
    seconds: tuple[float, ...]
    speeds: tuple[float, ...]
    source: str


SHIPPED = {
    "udds": ("City schedule UDDS", "40 CFR 86 appendix I"),
    "hwfet": ("Highway schedule HWFET", "40 CFR 600 appendix I"),
    "wltc3": ("World cycle WLTC class 3b", "UN GTR 15"),
    "nedc": ("European cycle NEDC", "UN ECE R83"),
}


@cache
def cycle_named(key: str) -> Cycle | None:
    """A cycle that ships, by its key; None where there is none of it."""
    if key not in SHIPPED:
        return None
    name, source = SHIPPED[key]
    text = (DATA / "cycles" / f"{key}.csv").read_text(encoding="utf-8")
    rows = list(csv.DictReader(text.splitlines()))
    seconds = tuple(float(row["second"]) for row in rows)
    return Cycle(key, name, seconds, tuple(float(row["metres_per_second"]) for row in rows), source)
