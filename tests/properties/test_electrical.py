"""What must hold of any circuit, battery and controller, tried on many."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from keelroom.assess.electrical.figures import RUNS, advice, electrics
from keelroom.assess.electrical.planner import as_advised
from keelroom.assess.inputs.electrical.loads import Motored
from keelroom.assess.inputs.electrical.system import Planned, fault_of, path_of
from keelroom.core.arrays import stack
from keelroom.core.electrical import charging, control
from keelroom.core.electrical.circuit import Path, WireRun, flow_through
from keelroom.core.electrical.motor import Motor, current_at
from keelroom.core.electrical.protection import CONTINUOUS
from keelroom.core.electrical.wire import CABLES, ampacity, conductor, conductor_temperature, resistance_at
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.electrical import Circuit, Supply, Wire
from keelroom.gauges import AWG_SIZES, METRIC_SIZES, awg_text, metric_text, read_size
from tests.floors import FLOOR
from tests.typed import shares

SIZES = st.one_of(st.sampled_from(AWG_SIZES).map(awg_text), st.sampled_from(METRIC_SIZES).map(metric_text))
MOTORS = st.builds(Motor, st.sampled_from((12.0, 12.5, 13.0, 13.5)), st.floats(40, 450), st.booleans(), st.booleans())


def copper(text, cable):
    size, unit, _ = read_size(text, "AWG")
    return conductor(size, unit == "mm²", cable)


RUN = st.builds(
    lambda text, cable, length, air, loaded: WireRun(copper(text, cable), length, air, loaded),
    SIZES,
    st.sampled_from(sorted(CABLES)),
    st.floats(0.0, 4.0),
    st.floats(-20.0, 70.0),
    st.integers(1, 6),
)


@given(
    RUN, RUN, RUN, st.booleans(), st.floats(0.0, 0.02), st.lists(MOTORS, min_size=1, max_size=3), st.floats(9.0, 15.0)
)
def test_no_volt_and_no_watt_is_lost_on_the_way(feed, branch, back, shared, contacts, motors, volts):
    """What leaves the source is what the motors take and the wires warm by; nothing rises above the source."""
    path = Path(feed, branch, back, shared, contacts)
    flow = flow_through(path, tuple(motors), volts)
    assert all(0.0 <= v <= volts + 1e-9 for v in flow.voltages)
    if min(flow.voltages) < 7.0 or max(flow.warm) > 150.0:
        return  # past every insulation, or next to a dead short, no steady state need exist
    assert volts - flow.drop <= max(flow.voltages) + 1e-4
    total, most = flow.current, max(flow.currents)
    ohms = [run.length * resistance_at(run.wire, at) for run, at in zip((feed, branch, back), flow.warm, strict=True)]
    own = sum(a * a for a in flow.currents) * (ohms[1] + (0.0 if shared else ohms[2]))
    lost = total**2 * (ohms[0] + contacts + (ohms[2] if shared else 0.0)) + own
    taken = sum(v * a for v, a in zip(flow.voltages, flow.currents, strict=True))
    assert volts * total == pytest.approx(lost + taken, rel=2e-4)
    assert flow.warm[0] >= feed.ambient
    assert flow.warm[0] == pytest.approx(conductor_temperature(feed.wire, total, feed.ambient, feed.loaded), abs=0.1)
    assert most <= total + 1e-12


@FLOOR.at_least(8)
@given(RUN, st.floats(1.0, 30.0), MOTORS)
def test_a_longer_wire_never_gives_a_motor_more(run, more, motor):
    nothing = run._replace(length=0.0)
    near, far = (
        flow_through(Path(run._replace(length=length), nothing, nothing, False, 0.0), (motor,), 13.5)
        for length in (1.0, 1.0 + more)
    )
    assert far.voltages[0] <= near.voltages[0] + 1e-6
    if FLOOR.met(not motor.brushless):
        assert far.currents[0] <= near.currents[0] + 1e-6


@given(SIZES, st.sampled_from(sorted(CABLES)), st.floats(-30.0, 140.0), st.integers(1, 30))
def test_a_wire_at_its_ampacity_is_as_hot_as_its_insulation_stands(text, cable, ambient, loaded):
    wire = copper(text, cable)
    amps = ampacity(wire, ambient, loaded)
    if amps == 0.0:
        assert ambient >= wire.limit
        return
    assert conductor_temperature(wire, amps, ambient, loaded) == pytest.approx(wire.limit, abs=1e-6)
    assert ampacity(wire, ambient + 5.0, loaded) < amps
    assert ampacity(wire, ambient, loaded + 10) <= amps


LENGTHS = st.floats(0.1, 5.0)


@given(
    LENGTHS,
    LENGTHS,
    LENGTHS,
    st.lists(MOTORS, min_size=1, max_size=2),
    st.booleans(),
    st.floats(20.0, 90.0),
    st.booleans(),
)
def test_what_is_advised_keeps_every_rule_or_says_that_nothing_does(feed, branch, back, motors, shared, air, metric):
    def wire(length):
        size = "2.5 mm²" if metric else "12 AWG"
        return Wire(
            length=from_si(length, "length", "si", "measured"),
            size=quantity(size, "wire size"),
            cable="iso_c" if metric else "j1128_crosslinked",
            ambient=from_si(air, "temperature", "si", "measured"),
        )

    supply = Supply()
    fed = tuple(Motored(f"m{k}", f"Motor {k}", motor, True) for k, motor in enumerate(motors))
    circuit = Circuit(
        id="c",
        feeds=tuple(m.id for m in fed),
        shared_ground=shared,
        feed=wire(feed),
        branch=wire(branch),
        back=wire(back),
    )
    made = as_advised(circuit, fed, supply)
    planned = Planned(made, fed, path_of(made, len(fed)), fault_of(made, supply))
    found = advice(planned, supply)
    if not found.sizes or found.fuse is None:
        return
    flow = flow_through(planned.path, tuple(motors), supply.regulated.si)
    assert flow.drop <= supply.drop_limit.si + 1e-6
    assert found.fuse >= CONTINUOUS * flow.current - 1e-6
    for key in RUNS:
        run = getattr(planned.path, key)
        assert ampacity(run.wire, run.ambient, run.loaded) >= found.fuse - 1e-6


@FLOOR.at_least(8)
@given(st.floats(0.0, 150.0), st.floats(0.05, 1.0), st.floats(30.0, 120.0), st.floats(10.0, 160.0))
def test_a_balance_balances_and_more_load_never_lifts_it(available, state, capacity, amps):
    battery = charging.Battery(capacity, state, 1.2)

    def wanted(share):
        return lambda volts: share * amps * (volts / 13.5) ** 1.3

    found = charging.balance(available, 14.2, battery, wanted(1.0))
    heavier = charging.balance(available, 14.2, battery, wanted(1.2))
    assert heavier.voltage <= found.voltage + 1e-6
    if FLOOR.met(6.01 < found.voltage < 14.2):
        assert found.wanted + found.battery == pytest.approx(available, abs=1e-3)
    assert (found.battery < 0) == (found.lasts < math.inf)


@given(st.floats(70, 100), st.floats(2, 12), st.floats(3, 15), st.sampled_from(sorted(control.LOW)), st.floats(0, 1))
def test_a_controller_asks_for_more_as_it_gets_warmer_and_power_never_beats_time(on, span, step, low, least):
    laws = (
        control.law(control.switched(on, on - span)),
        control.law(control.staged((on, on - span), (on + step, on + step - span), control.LOW[low]), (least, least)),
        control.law(control.ramped(((on - span, 0.3), (on, 0.6), (on + step, 1.0)))),
    )
    readings = np.linspace(60, 130, 71)
    for law in laws:
        many = stack([law] * len(readings))
        share, power = shares(many, readings)
        assert (np.diff(share) >= -1e-12).all()
        assert (np.diff(power) >= -1e-12).all()
        assert ((share >= 0) & (share <= 1 + 1e-12)).all()
        assert (power <= share + 1e-9).all()
        assert share[-1] == pytest.approx(1.0)


def test_currents_of_the_demo_add_up(demo):
    """Kirchhoff at the battery: what the loads list says is what is wanted."""
    found = electrics(demo, demo.package)
    for system in (found.idle, found.cruise):
        assert sum(amps for _, amps in system.loads) == pytest.approx(system.balance.wanted)
        assert system.fan_amps == pytest.approx(sum(system.amps[fan.id] for fan in demo.package.fans))
        for one in found.circuits:
            for motored in one.motors:
                assert system.amps[motored.id] == pytest.approx(
                    current_at(motored.motor, system.volts[motored.id]), rel=1e-4
                )
