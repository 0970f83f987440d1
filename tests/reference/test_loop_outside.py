"""The coolant circuit against independent packages: a branched network by a general root finder with heads from
fluids, fittings, curves."""

import math

import fluids
import numpy as np
import pytest
from scipy.optimize import root

from keelroom.assess.assess import assess
from keelroom.assess.inputs.coolant.ports import Port
from keelroom.assess.inputs.coolant.routes import BEND_HEADS, heads_of, run_of
from keelroom.core.arrays import one_of_each, take
from keelroom.core.loop.circuit import LoopLaw, Tubes
from keelroom.core.loop.flows import MANY, loop_flows
from keelroom.core.loop.pump import typed_curve
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.loop import Hose
from tests.circuits import circuit
from tests.conftest import DEMO

RHO, MU = 1030.0, 8e-4
BRANCHES = (
    ("engine", 3, 0),
    ("core", 1, 2),
    ("thermostat", 0, 4),
    ("bypass", 0, 3),
    ("upper", 4, 5),
    ("onward", 5, 1),
    ("lower", 2, 3),
    ("heater", 0, 3),
    ("vent", 5, 3),
)
"""a heater beside the engine, and a vent line from a tank in the upper hose to the pump's inlet"""
PIPES = {
    "upper": (0.038, 0.5, 1.2),
    "onward": (0.032, 0.4, 1.0),
    "lower": (0.038, 0.6, 1.4),
    "heater": (0.016, 3.0, 32.0),
    "vent": (0.006, 0.8, 2.0),
}


def columns():
    return {
        name: {pipe: sizes[k] for pipe, sizes in PIPES.items()} for k, name in enumerate(("bore", "length", "heads"))
    }


def test_a_branched_circuit_is_what_a_general_solver_finds():
    """Heater and vent line beside the core: flows by scipy's root over all branches and nodes, pipe losses from
    fluids; ours within their friction laws' two per cent."""
    made = circuit(BRANCHES, columns())
    tubes = Tubes(*(np.array([v]) for v in (90.0, 1.0, 0.66, 3.1e-5, 2.6e-3, 0.06, 1.0)))
    found = loop_flows(LoopLaw(made, tubes, np.array([2800.0]), np.array([13.5]), np.array([RHO]), np.array([MU])))
    names = [name for name, _, _ in BRANCHES]
    top = 80e3 / (1 - 1 / 1.6**2)

    def pipe(name, q):
        bore, length, heads = PIPES[name]
        speed = q / (math.pi / 4 * bore**2)
        factor = fluids.friction_factor(Re=max(abs(speed) * bore * RHO / MU, 1e-6))
        return math.copysign(
            fluids.dP_from_K(fluids.K_from_f(fd=factor, L=length, D=bore) + heads, rho=RHO, V=abs(speed)), q
        )

    def lost(name, q):
        if name == "engine":
            return (0.5 * 80e3 / 0.002**2 + top / 0.0032**2) * q * abs(q) - top * 0.56**2
        if name == "core":
            speed = q / (90 * 3.1e-5)
            re = max(abs(speed) * 2.6e-3 * RHO / MU, 1e-6)
            factor = ((89.3 / re) ** 4 + fluids.friction.Blasius(re) ** 4) ** 0.25
            return math.copysign(
                fluids.dP_from_K(fluids.K_from_f(fd=factor, L=0.66, D=2.6e-3) + 1.5, rho=RHO, V=abs(speed)), q
            )
        if name == "thermostat":
            return q * abs(q) / (0.002 / math.sqrt(0.2 * 80e3) + 0.7 * math.pi * 0.002**2 * math.sqrt(2 / RHO)) ** 2
        if name == "bypass":
            return 0.5 * 80e3 / (0.3 * 0.002 * 0.05) ** 2 * q * abs(q)
        return pipe(name, q)

    used = [0, 1, 2, 4, 5]

    def gaps(x):
        flows, pressures = x[: len(names)] * 1e-3, dict(zip(used, x[len(names) :] * 1e4, strict=True)) | {3: 0.0}
        over = [
            (pressures[a] - pressures[b] - lost(name, q)) / 1e4 for (name, a, b), q in zip(BRANCHES, flows, strict=True)
        ]
        left = [
            sum((q if a == node else -q if b == node else 0.0) for (_, a, b), q in zip(BRANCHES, flows, strict=True))
            * 1e3
            for node in used
        ]
        return np.array(over + left)

    solved = root(gaps, np.array([0.8] * len(names) + [1.0] * len(used)), method="lm")
    assert np.abs(solved.fun).max() < 1e-8
    for name, expected in zip(names, solved.x, strict=False):
        ours = float(found.branches[0, -1, names.index(name)]) * 1e3
        assert ours == pytest.approx(expected, rel=0.02, abs=2e-4), name


def test_flows_balance_at_every_place_and_round_every_way():
    """Invariants: what comes to a place leaves it; thermostat shut, half and full open."""
    made = circuit(BRANCHES, columns())
    tubes = Tubes(*(np.array([v]) for v in (90.0, 1.0, 0.66, 3.1e-5, 2.6e-3, 0.06, 1.0)))
    found = loop_flows(LoopLaw(made, tubes, np.array([900.0]), np.array([13.5]), np.array([RHO]), np.array([MU])))
    for k in range(5):
        left = made.incidence[0].T @ found.branches[0, k]
        assert np.abs(left).max() < 1e-9
    assert np.all(np.diff(found.core[0]) > 0)


@pytest.mark.parametrize("narrow", [0.5, 0.7, 0.875])
def test_a_narrow_fitting_is_a_contraction_and_an_enlargement(narrow):
    """fluids' diffuser_sharp for the enlargement and its Crane contraction at a right angle, both brought to the
    hose's own bore."""
    inch = 0.0254
    hose = Hose(
        id="h",
        bore=quantity("1 in", "length"),
        necks=quantity(f"{narrow} in", "length"),
        length=quantity("1 ft", "length"),
        bends=quantity("0", "count"),
    )
    ports = [Port(f"engine:{k}", "", "a", 0, (None, None, None), None, None, ()) for k in range(2)]
    heads = heads_of(run_of(hose, *ports)) - 0.75
    enlarged = fluids.fittings.diffuser_sharp(narrow * inch, inch) * (1 / narrow) ** 4
    squeezed = fluids.fittings.contraction_conical_Crane(inch, narrow * inch, angle=180.0) * (1 / narrow) ** 4
    assert heads == pytest.approx(squeezed + enlarged, rel=1e-6)


def test_a_right_angle_of_hose_loses_what_a_smooth_bend_does():
    """fluids' rounded bend at radii of one and a half to four bores: 0.18 to 0.35; the trade's 0.3 lies between."""
    heads = [
        fluids.fittings.bend_rounded(Di=0.038, angle=90, bend_diameters=r, Re=1e5, method="Rennels") for r in (1.5, 4.0)
    ]
    assert min(heads) < BEND_HEADS < 1.6 * max(heads)


def test_a_typed_pump_curve_is_the_parabola_by_its_points():
    """Points off 60 kPa - 1e7 q - 2e10 q^2 give it back; numpy's polyfit agrees."""
    flows = np.array([0.0, 4e-4, 8e-4, 1.2e-3])
    pressures = 60e3 - 1e7 * flows - 2e10 * flows**2
    curve = typed_curve(list(zip(flows, pressures, strict=True)))
    square, linear, head = np.polyfit(flows, pressures, 2)
    assert curve.head == pytest.approx(head, rel=1e-9)
    assert curve.linear == pytest.approx(-linear, rel=1e-6)
    assert curve.square == pytest.approx(-square, rel=1e-6)


def test_the_engine_warms_its_coolant_by_what_the_trade_says():
    """Common practice: 6 to 10 K over the engine at rated power; a straight hose of a size 16 line costs flow."""
    found = assess(load(DEMO))
    full = next(case.figures for case in found.cases if case.case_id == "full")
    assert 6.0 < full.loop.rise < 10.0


def test_loops_that_are_alike_are_solved_once_and_told_to_all():
    """Of many points the flows of each are those it has alone, whichever others stand beside it."""
    dice = np.random.default_rng(7)
    made = circuit(BRANCHES, columns())
    tubes = Tubes(*(np.array([v]) for v in (90.0, 1.0, 0.66, 3.1e-5, 2.6e-3, 0.06, 1.0)))
    count = MANY + 16
    rpm = dice.choice([900.0, 1800.0, 2800.0], count)
    one = LoopLaw(made, tubes, np.array([900.0]), np.array([13.5]), np.array([RHO]), np.array([MU]))
    law = take(one, np.zeros(count, int))._replace(rpm=rpm)
    first, kind = one_of_each(law)
    assert len(first) == 3
    assert (rpm[first][kind] == rpm).all()
    found = loop_flows(law)
    for point in (0, 5, count - 1):
        alone = loop_flows(take(law, np.array([point])))
        assert found.branches[point] == pytest.approx(alone.branches[0], rel=1e-12)
        assert found.pressures[point] == pytest.approx(alone.pressures[0], rel=1e-12)
