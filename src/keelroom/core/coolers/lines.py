"""Lines to a cooler: what they lose, what they hold, how far a hose may be bent, which fittings go with them."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.coolers.oils import density, kinematic_viscosity

BEND_LOSS, END_LOSS = 0.9, 1.5
"""Dynamic heads per right-angle bend, and of both ends together (common practice)."""
LAMINAR, SMOOTH = 64.0, 0.316
BENDS = ((4.8, 50.0), (6.4, 65.0), (7.9, 75.0), (9.5, 75.0), (12.7, 100.0), (15.9, 125.0), (19.1, 150.0), (25.4, 300.0))
"""Bore and least bend radius [mm] of textile-braided hose (SAE_HOSE)."""
DASHES = (
    (4, 6.4, "7/16-20"),
    (5, 7.9, "1/2-20"),
    (6, 9.5, "9/16-18"),
    (8, 12.7, "3/4-16"),
    (10, 15.9, "7/8-14"),
    (12, 19.1, "1 1/16-12"),
    (16, 25.4, "1 5/16-12"),
)
"""Size in sixteenths of an inch of tube, bore [mm] it goes with, thread of its 37° fitting (SAE_FITTING)."""


TURBULENT = 2300.0
"""Reynolds number from which a pipe's flow is turbulent (Reynolds 1883, as every handbook has it)."""


class Lost(NamedTuple):
    """Pressure lost [Pa] in both lines, speed in them [m/s] and their Reynolds number."""

    pressure: float
    speed: float
    reynolds: float

    @property
    def laminar(self) -> bool:
        """Whether the oil runs smooth in them."""
        return self.reynolds < TURBULENT


def lost_in_lines(flow: float, bore: float, length: float, bends: float, celsius: float) -> Lost:
    """What oil loses on its way to a cooler and back.

    flow [m3/s], bore and length there and back [m], right-angle bends, temperature [degC] of the oil.
    Source: Darcy with 64/Re, from Re 2300 on Blasius; properties TABLE_OIL.
    """
    speed = flow / (np.pi / 4 * bore**2)
    reynolds = speed * bore / kinematic_viscosity(celsius)
    friction = LAMINAR / max(reynolds, 1e-6) if reynolds < TURBULENT else SMOOTH / reynolds**0.25
    heads = friction * length / bore + BEND_LOSS * bends + END_LOSS
    return Lost(float(heads * density(celsius) * speed**2 / 2), float(speed), float(reynolds))


def least_bend(bore: float) -> float:
    """Least radius [m] a hose of a bore [m] may be bent to, by its middle line. Source: SAE_HOSE, the next larger
    bore's."""
    return next((radius for size, radius in BENDS if size >= bore * 1e3 - 0.3), 12 * bore * 1e3) * 1e-3


def fitting_of(bore: float) -> tuple[int, str]:
    """Size in sixteenths and thread of the fittings a bore [m] goes with. Source: SAE_FITTING."""
    size, _, thread = min(DASHES, key=lambda row: abs(row[1] - bore * 1e3))
    return size, thread


def held(bore: float, length: float, core: tuple[float, float, float]) -> float:
    """Fluid [m3] lines and cooler hold. core: width, height, depth [m] of the cooler. Source: geometry; a sixth of a
    cooler is fluid, common practice."""
    return float(np.pi / 4 * bore**2 * length + core[0] * core[1] * core[2] / 6)
