"""Which hoses are to be renewed, heater hoses with them."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.findings import Level
from keelroom.core.loop.hoses import LIFE
from keelroom.document.schema.loop import Hose
from keelroom.facts import Fact, fact

WORN = ("soft", "swollen", "cracked")


class Due(NamedTuple):
    """Why a hose is to be renewed: its state, or '' for its age. years, life: its age and what it is given."""

    level: Level
    form: str
    years: float
    life: float

    @property
    def fact(self) -> Fact:
        """What is to be done."""
        return fact("renew" if self.form else "past_its_age")


def renewal(hose: Hose) -> Due | None:
    """Why a hose is to be renewed; None where it may stay."""
    life = LIFE[hose.kind]
    years = hose.years.si if hose.years is not None else 0.0
    if hose.state in WORN:
        return Due("problem" if hose.state == "cracked" else "doubt", hose.state, years, life)
    return Due("doubt", "", years, life) if years > life else None
