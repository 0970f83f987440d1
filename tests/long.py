"""How long a test is: short every day, long in `make soak`, which says so by a variable."""

import os

FULL = {
    "fuzz": 12_000,
    "pure": 500,
    "looks": 4,
    "access": 9,
    "harness": 1,
    "scalar": 7,
    "monkey": 400,
    "draws": 200,
    "orders": 15,
    "offers": 60,
    "every": 1,
    "coverage": 100,
}
"""Long forms by name."""


def long(name: str, daily: int) -> int:
    """The daily number, or the long form's where that is asked for."""
    return FULL[name] if os.environ.get("KEELROOM_LONG") == name else daily
