"""What tells kinds of petrol and diesel engines apart: friction, efficiency, the coolant's share of the fuel, and the
doubt of all that.

Sources: HEYWOOD for the form of friction and the heat balance; published part-load consumption at 2 000 rpm and 2 bar
         (modern injected 350-380 g/kWh, older 400-450, light diesels 290-320, from memory) for friction and efficiency
         at light load; published idle fuel (2.0 L 0.16, 4.6 L 0.39 US gal/h unloaded, from memory) for those at idle;
         TAYLOR for the share by mass flow; published balances at maximum power (coolant near 0.6-0.8 of brake power,
         modern engines lower, from memory) for where it starts.
"""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.arrays import Floats


class EngineLaw(NamedTuple):
    """One kind of engine; floats for one, arrays (n,) once stacked.

    friction : times Heywood's motored friction;  pumping [Pa] mean effective pressure from closed to idle
    efficient, idling : indicated efficiency at load and at idle;  rich : share of efficiency lost to rich running at
                        full load
    to_coolant : share of fuel power into the coolant where the fuel is `dense` [W/m3] of displacement
    falls : power of the fuel by which that share falls: heat goes with the 0.75 power of the gas in a petrol engine; a
            diesel's takes all its air at any load, so that its share moves less
    most : share it comes to without end as the fuel gets less, the exhaust having the rest
    heating [J/kg] of the fuel;  air_per_fuel by mass under boost;  doubt : standard doubt of the heat into the
    coolant, as a share
    """

    friction: Floats | float
    pumping: Floats | float
    efficient: Floats | float
    idling: Floats | float
    rich: Floats | float
    to_coolant: Floats | float
    dense: Floats | float
    falls: Floats | float
    most: Floats | float
    heating: Floats | float
    air_per_fuel: Floats | float
    doubt: Floats | float


PETROL, DIESEL = 43.5e6, 42.8e6
"""Lower heating values [J/kg]."""
LAWS: dict[str, EngineLaw] = {
    "carburetted": EngineLaw(0.80, 0.60e5, 0.360, 0.265, 0.14, 0.197, 165e6, 0.25, 0.42, PETROL, 13.5, 0.25),
    "injected": EngineLaw(0.69, 0.60e5, 0.375, 0.265, 0.12, 0.183, 165e6, 0.25, 0.42, PETROL, 14.0, 0.20),
    "modern": EngineLaw(0.62, 0.50e5, 0.385, 0.265, 0.08, 0.168, 180e6, 0.25, 0.40, PETROL, 14.4, 0.18),
    "boosted": EngineLaw(0.72, 0.60e5, 0.365, 0.265, 0.14, 0.178, 290e6, 0.25, 0.42, PETROL, 13.0, 0.22),
    "diesel": EngineLaw(0.80, 0.20e5, 0.450, 0.300, 0.0, 0.229, 100e6, 0.13, 0.45, DIESEL, 22.0, 0.20),
}
"""By kind: older carburetted, port injected, modern high-compression, boosted petrol, diesel."""


class Bias(NamedTuple):
    """How far a law's figures lie from the middle of published ranges, as a share of those, on the mean of so many.

    Told apart from its doubt, and not taken out: the ranges are wider than it.
    """

    share: float
    rows: int


BIAS: dict[str, Bias] = {
    "carburetted": Bias(0.02, 3),
    "injected": Bias(-0.06, 10),
    "modern": Bias(-0.04, 2),
    "boosted": Bias(0.0, 0),
    "diesel": Bias(-0.09, 3),
}
"""By kind, of heat into the coolant and fuel against the published balances the tests hold them to."""
