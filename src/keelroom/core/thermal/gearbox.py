"""What flows through the lines of a gearbox and an engine, over arrays."""

from __future__ import annotations

from keelroom.core.arrays import Floats
from keelroom.core.rows import over
from keelroom.core.thermal import engine_point


def line_flow(rpm: Floats) -> Floats:
    """Fluid [m3/s] through the cooler lines. Source: common practice."""
    return over(engine_point.line_flow, rpm)


def oil_flow(rpm: Floats) -> Floats:
    """Engine oil [m3/s] through its cooler. Source: common practice."""
    return over(engine_point.oil_flow, rpm)
