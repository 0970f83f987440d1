"""What typed modules work out of one point, asked from tests: through their own source, where compiled code keeps it to
itself."""

from types import SimpleNamespace

import numpy as np

from keelroom.core.electrical import point as controller
from keelroom.core.electrical.point import ControlRows
from keelroom.core.rows import bound
from tests.interpreted import core_from_source


def shares(law, readings):
    """Shares of flow and power stacked laws command at a reading each."""
    rows = ControlRows()
    for name in ("temperatures", "shares", "powers", "least", "least_power"):
        setattr(rows, name, getattr(law, name))
    each = list(enumerate(readings))
    return tuple(
        np.array([asked(rows, i, float(at)) for i, at in each])
        for asked in (controller.commanded_share, controller.power_share)
    )


def circuit_at_rest(heat, stages, capacity, case=(0.0, 0.0)):
    """A cooler's circuit settled: stages as (takes, against, opens), case as [W/K] it sheds and [degC] round it."""
    coolers = SimpleNamespace(area=np.zeros((1, len(stages))))
    one = core_from_source()("coolers.point").CarCoolers(coolers, None)
    for k, (takes, against, opens) in enumerate(stages):
        one.taken[k], one.against[k], one.opens[k] = takes, against, opens
    one.stages = len(stages)
    one.settle(heat, capacity, *case)
    return one


def loop_at(law, opening):
    """The branches of a loop at an opening of its thermostat."""
    typed = core_from_source()("loop.point")
    rest = SimpleNamespace(rpm=law.rpm, voltage=law.voltage, density=law.density, viscosity=law.viscosity)
    one = typed.Loop(bound(typed.CircuitRows, law.circuit), bound(typed.TubeRows, law.tubes), rest)
    one.load(0, opening)
    return one


def charged(engine, fuel, load, outdoors):
    """Heat [W] and capacity [W/K] of the intake air of an engine that burns so much. outdoors: pressure, degC."""
    balance = core_from_source()("thermal.engine_point").HeatBalance()
    balance.fuel = fuel
    balance.compress(engine, 0, load, *outdoors)
    return balance.charge, balance.charge_flow
