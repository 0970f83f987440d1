"""The coolant circuit: flow the pump gives against engine speed, and the thermostat's opening."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.arrays import Floats, unit_share

THERMOSTAT_SPAN = 10.0
"""Kelvin from the rating, where a thermostat starts to open, to full open (common practice)."""
LEAK = 0.02
"""Share of the flow a closed thermostat lets through by its jiggle valve."""


class Circuit(NamedTuple):
    """n circuits, arrays (n,). flow_rated [m3/s] at rpm_rated; thermostat [degC]; at_inlet 0 or 1."""

    flow_rated: Floats
    rpm_rated: Floats
    thermostat: Floats
    at_inlet: Floats


def pump_flow(circuit: Circuit, rpm: Floats) -> Floats:
    """Flow through the engine (n,) [m3/s]: a centrifugal pump on a fixed circuit gives flow in step with speed."""
    return circuit.flow_rated * rpm / circuit.rpm_rated


def thermostat_opening(circuit: Circuit, sensed: Floats) -> Floats:
    """Share of the flow sent to the core (n,), LEAK..1, at the temperature the element feels [degC]."""
    return LEAK + (1 - LEAK) * unit_share((sensed - circuit.thermostat) / THERMOSTAT_SPAN)
