"""What an automatic gearbox and its converter turn into heat, and what flows through its lines, over arrays."""

from __future__ import annotations

from keelroom.core.arrays import Floats
from keelroom.core.rows import over
from keelroom.core.thermal import engine_point


def stall_heat(rpm: Floats, factor: Floats) -> Floats:
    """Heat [W] of a converter in gear whose car stands: all that goes in. factor: its K [rpm/sqrt(lbf ft)].

    Source: CONVERTER, torque by speed.
    """
    return over(engine_point.stall_heat, rpm, factor)


def line_flow(rpm: Floats) -> Floats:
    """Fluid [m3/s] through the cooler lines. Source: common practice."""
    return over(engine_point.line_flow, rpm)


def oil_flow(rpm: Floats) -> Floats:
    """Engine oil [m3/s] through its cooler. Source: common practice."""
    return over(engine_point.oil_flow, rpm)
