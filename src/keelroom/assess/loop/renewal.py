"""Which hoses are to be renewed, heater hoses with them."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.findings import Level
from keelroom.core.loop.hoses import LIFE
from keelroom.document.schema.loop import Hose

STATES = {
    "soft": "gone soft: squeezed, it feels like a sponge and is sucked flat at revs",
    "swollen": "swollen: oil has got at it; at its clamp it lets go",
    "cracked": "cracked: it bursts hot and under pressure",
}


class Due(NamedTuple):
    """Why a hose is to be renewed."""

    level: Level
    what: str
    why: str


def renewal(hose: Hose) -> Due | None:
    """Why a hose is to be renewed; None where it may stay."""
    life = LIFE[hose.kind]
    if hose.state in STATES:
        return Due(
            "problem" if hose.state == "cracked" else "doubt",
            "to be renewed",
            f"It is {STATES[hose.state]}. A new one before the core is blamed.",
        )
    if hose.years is not None and hose.years.si > life:
        return Due(
            "doubt",
            "past its age",
            f"{hose.years.si:.0f} years; rubber hardens and cracks from inside, {life:.0f} years is what it is given.",
        )
    return None
