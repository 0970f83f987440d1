"""All coolers of a car at once: what each takes from its fluid, what air it meets, where every fluid settles."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats, Ints
from keelroom.core.coolers.point import CarCoolers, CoolerRows
from keelroom.core.kept import by_identity
from keelroom.core.rows import bound

SWEEPS = 4
"""Times the air is taken from cooler to cooler: heat in front reaches the one behind it."""


class Coolers(NamedTuple):
    """n cars' coolers, E of each, (n, E) unless said; one stand-in of no fluid where there is none.

    gearbox, oil, charge, refrigerant, steering : 1 where that is its fluid;  water : 1 where charge air reaches it by
    way of water conductance [W/K per m2] at exchanger.VELOCITY;  air_share of that resistance;  area [m2] of its face
    ahead : 1 where it stands ahead of the core and breathes the classes it covers;  covered (n, K, E)
    upstream (n, E, E) : share of a cooler's face (row) that lies behind another (column)
    after_tank : 1 where its fluid has been through the tank's cooler;  opens [degC] of its bypass thermostat
    into_bay : 1 where its air ends in the bay
    from_bay : 1 where it breathes the bay's air;  from_core : share of the air behind the core that goes through it,
               0 elsewhere
    tank (n,) [W/K] : handed over by a gearbox cooler in the core's tank, 0 without
    oil_to_block (n,) [W/K] : between the engine's oil and its coolant
    """

    gearbox: Floats
    oil: Floats
    charge: Floats
    refrigerant: Floats
    steering: Floats
    water: Floats
    conductance: Floats
    air_share: Floats
    area: Floats
    ahead: Floats
    covered: Floats
    upstream: Floats
    after_tank: Floats
    opens: Floats
    into_bay: Floats
    from_bay: Floats
    from_core: Floats
    tank: Floats
    oil_to_block: Floats


class Exchanged(NamedTuple):
    """heat (n, E) [W] to the air, negative where the air warms the fluid; air_in (n, E) [degC]; air (n, E) [kg/s]
    through each

    rise (n, E) [K] of that air;  tank (n,) [W] from the gearbox into the coolant;  from_block (n,) [W] that oil
    coolers keep from the coolant gearbox, gearbox_leaving, oil, charge, condensing, steering (n,) [degC];
    shed (n,) [W] by the gearbox's case runs, cop (n,) : share of the time the compressor runs, cooling per shaft
    power;  steering_shed (n,) [W]
    """

    heat: Floats
    air_in: Floats
    air: Floats
    rise: Floats
    tank: Floats
    from_block: Floats
    gearbox: Floats
    gearbox_leaving: Floats
    oil: Floats
    charge: Floats
    condensing: Floats
    steering: Floats
    shed: Floats
    runs: Floats
    cop: Floats
    steering_shed: Floats


def car_coolers(coolers: Coolers) -> CarCoolers:
    """The coolers of n cars, worked out one car at a time. It has scratch room: one thread at a time.

    Source: definition.
    """
    return CarCoolers(*_rows(coolers))


@by_identity(4)
def _rows(coolers: Coolers) -> tuple[CoolerRows, Ints]:
    """The coolers to read by rows, and how often the air's heating must be taken on from one to the next in each car
    (n,)."""
    behind: Floats = (coolers.upstream > 0).astype(float)
    deep, chain = np.ones(len(behind), np.intc), behind
    while chain.any():
        deep[chain.any(axis=(1, 2))] += 1
        chain = np.minimum(chain @ behind, 1.0) if deep.max() < SWEEPS else np.zeros_like(chain)
    # Where one fluid goes through two coolers, what the one does is felt in the other too.
    fluids = (coolers.gearbox, coolers.oil, coolers.charge, coolers.refrigerant, coolers.steering)
    twice = np.max([(which > 0).sum(axis=1) for which in fluids], axis=0) > 1
    sweeps = np.where(twice & (deep > 1), np.minimum(deep + 1, SWEEPS), deep)
    return bound(CoolerRows, coolers), sweeps.astype(np.intc)
