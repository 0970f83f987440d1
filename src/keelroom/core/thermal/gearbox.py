"""What an automatic gearbox and its converter turn into heat."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats

POUND_FEET = 1.3558179
"""[N m]"""
COUPLING = 0.88
"""Speed ratio from which on the converter no longer multiplies torque (common practice)."""
STALL_RATIO = 2.0
"""Torque ratio at stall (common practice: 1.8 to 2.3)."""
CASE, CASE_BY_SPEED = 12.0, 1.5
"""[W/K] a gearbox case sheds standing, and more of it per m/s (common practice)."""
FLOW_IDLE, FLOW_FULL, FLOW_RPM = 4.0 / 60e3, 11.0 / 60e3, 2500.0
"""[m3/s] through the cooler lines at no speed and from FLOW_RPM on (common practice: 4 to 12 L/min)."""


def stall_torque(rpm: Floats, factor: Floats) -> Floats:
    """Torque [N m] a stalled converter asks of the engine. factor: its K [rpm/sqrt(lbf ft)]. Source: CONVERTER."""
    torque: Floats = (rpm / factor) ** 2 * POUND_FEET
    return torque


def stall_heat(rpm: Floats, factor: Floats) -> Floats:
    """Heat [W] of a converter in gear whose car stands: all that goes in. Source: torque by speed."""
    heat: Floats = stall_torque(rpm, factor) * rpm * np.pi / 30
    return heat


def slip_loss(power: Floats, rpm: Floats, factor: Floats) -> Floats:
    """Share of the power that goes into an unlocked converter and does not come out; all (n,).

    power [W] into it; rpm of the engine. The capacity falls from the stall torque with the cube of the speed ratio,
    the torque ratio straight to 1 at COUPLING. Source: CONVERTER; the curve's shape common practice.
    """
    torque = power / (np.maximum(rpm, 1.0) * np.pi / 30)
    asked = np.clip(torque / stall_torque(rpm, factor), 0.0, 0.995)
    speed = np.cbrt(1 - asked)
    multiplied = np.maximum(STALL_RATIO - (STALL_RATIO - 1) * speed / COUPLING, 1.0)
    loss: Floats = np.clip(1 - speed * multiplied, 0.0, 1.0)
    return loss


def line_flow(rpm: Floats) -> Floats:
    """Fluid [m3/s] through the cooler lines. Source: common practice."""
    flow: Floats = FLOW_IDLE + (FLOW_FULL - FLOW_IDLE) * np.minimum(rpm / FLOW_RPM, 1.0)
    return flow


def case_sheds(speed: Floats) -> Floats:
    """[W/K] the case sheds at a road speed [m/s]. Source: common practice."""
    sheds: Floats = CASE + CASE_BY_SPEED * speed
    return sheds


OIL_IDLE, OIL_FULL, OIL_RPM = 8.0 / 60e3, 30.0 / 60e3, 4000.0
"""[m3/s] of engine oil through a cooler at no speed and from OIL_RPM on (common practice)."""


def oil_flow(rpm: Floats) -> Floats:
    """Engine oil [m3/s] through its cooler. Source: common practice."""
    flow: Floats = OIL_IDLE + (OIL_FULL - OIL_IDLE) * np.minimum(rpm / OIL_RPM, 1.0)
    return flow
