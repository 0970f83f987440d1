"""What tells kinds of petrol and diesel engines apart: friction, efficiency, the coolant's share of the fuel, and the
doubt of all that.

Sources: HEYWOOD for the form of friction and the heat balance; published part-load consumption at 2 000 rpm and 2 bar
         (modern injected
350-380 g/kWh, older 400-450, light diesels 290-320, from memory) for friction and efficiency at light load; published
balances at maximum power (coolant near 0.6-0.8 of brake power, modern engines lower, from memory) for the coolant's
share.
"""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.arrays import Floats


class EngineLaw(NamedTuple):
    """One kind of engine; floats for one, arrays (n,) once stacked.

    friction : times Heywood's motored friction;  pumping [Pa] mean effective pressure from closed to idle
    efficient, idling : indicated efficiency at load and at idle;  rich : share of efficiency lost to rich running at
                        full load
    to_coolant, idle_to_coolant : share of fuel power into the coolant at full load and at idle
    heating [J/kg] of the fuel;  air_per_fuel by mass under boost;  doubt : standard doubt of the heat into the
    coolant, as a share
    """

    friction: Floats | float
    pumping: Floats | float
    efficient: Floats | float
    idling: Floats | float
    rich: Floats | float
    to_coolant: Floats | float
    idle_to_coolant: Floats | float
    heating: Floats | float
    air_per_fuel: Floats | float
    doubt: Floats | float


PETROL, DIESEL = 43.5e6, 42.8e6
"""Lower heating values [J/kg]."""
LAWS: dict[str, EngineLaw] = {
    "carburetted": EngineLaw(0.80, 0.60e5, 0.360, 0.30, 0.14, 0.185, 0.40, PETROL, 13.5, 0.25),
    "injected": EngineLaw(0.69, 0.60e5, 0.375, 0.31, 0.12, 0.170, 0.40, PETROL, 14.0, 0.20),
    "modern": EngineLaw(0.62, 0.50e5, 0.385, 0.32, 0.08, 0.155, 0.38, PETROL, 14.4, 0.18),
    "boosted": EngineLaw(0.72, 0.60e5, 0.365, 0.31, 0.14, 0.165, 0.40, PETROL, 13.0, 0.22),
    "diesel": EngineLaw(0.80, 0.10e5, 0.450, 0.38, 0.0, 0.220, 0.37, DIESEL, 22.0, 0.20),
}
"""By kind: older carburetted, port injected, modern high-compression, boosted petrol, diesel."""
