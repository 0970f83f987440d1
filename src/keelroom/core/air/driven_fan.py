"""A fan turned by the engine: its speed by the clutch, and the power it drags."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats

SLIPPING, LOCKED = 0.25, 0.85
"""Share of the shaft's speed a thermal clutch turns its fan at disengaged and engaged (common practice: 20–30 %,
80–90 %)."""
CLUTCH_MOST = 1.2
"""Times its rated speed a clutch lets a fan turn at most: its fluid shears (common practice: some 2 500–3 000 rpm)."""
SPAN = 12.0
"""Kelvin of air over which a thermal clutch engages (common practice)."""


def blades(turned: Floats, clutch: Floats, engaged: bool) -> Floats:
    """Speed of the blades over the rated one. turned: of their shaft, clutch: 1 where there is one; like shapes, >=
    0. Source: common practice."""
    gripped = np.minimum(turned * (LOCKED if engaged else SLIPPING), CLUTCH_MOST)
    speed: Floats = np.where(clutch > 0, gripped, turned)
    return speed


def drag(rated: Floats, turned: Floats, speed: Floats) -> Floats:
    """Shaft power [W] from the engine. rated [W]: what the blades take at rated speed; turned, speed: of shaft and
    blades over it.

    A slipping clutch passes torque, not power: what it loses turns to heat and is dragged too; like shapes, >= 0.
    Source: FAN_LAWS, torque with the square of the blades' speed.
    """
    power: Floats = rated * speed**2 * turned
    return power
