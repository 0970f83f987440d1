"""The air network and the coolant loop against fluids, scipy and the fan laws."""

import numpy as np
import pytest
from fluids.core import K_from_f, dP_from_K
from fluids.flow_meter import C_Reader_Harris_Gallagher
from fluids.friction import Blasius, friction_factor
from scipy.optimize import brentq, root

from keelroom.core.air.fan import Rating, generic_curve, no_fan, typed_curve
from keelroom.core.air.network import DISCHARGE, Network, incidence
from keelroom.core.arrays import stack
from keelroom.core.loop.circuit import OPENINGS, LoopLaw, Tubes
from keelroom.core.loop.flows import loop_flows
from keelroom.core.loop.point import laminar_friction
from keelroom.core.rows import bound
from keelroom.core.thermal.geometry import core_surfaces
from keelroom.core.thermal.louver import core_drop, louver_surface
from keelroom.core.thermal.point import LouverRows
from keelroom.core.thermal.point import friction_factor as louver_friction
from tests.circuits import circuit, hoses, merged
from tests.interpreted import core_from_source
from tests.packages import rows

RHO = 1.2


def at(*values):
    return np.array([values], float)


ENTRANCE, EXIT = 0.4, 0.2
"""Kays and London's coefficients of laminar flow at sigma 0.8, read from their chart (from memory)."""
AIR = core_from_source()("air.point")


class Still(AIR.AirPath):
    """Air of one density everywhere, nothing heated, through a core of 30 Pa per (kg/s m2)²."""

    def drop(self, flux):
        return 30.0 * flux**2


def network(fan_zone, pushers, **changes):
    """One class of one square metre ahead of zone 2 (or the bay), with given fans."""
    rear = next((2 + i for i, pushes in enumerate(pushers) if not pushes), 1)
    front = next((2 + i for i, pushes in enumerate(pushers) if pushes), 0)
    zones = len(pushers)
    made = Network(
        grille_area=np.array([5.0]),
        exit_area=np.array([5.0]),
        bypass_area=np.array([0.0]),
        area=at(0.3),
        loss=at(0.0),
        leak_area=at(*[0.0] * zones),
        flap_area=at(*[0.0] * zones),
        flaps_open=at(1.0, 0.0),
        ram=np.array([0.9]),
        base=np.array([-0.12]),
        pushes=at(*[float(pushers[z - 2]) for z in fan_zone]),
        incidence=incidence(np.array([front]), np.array([rear]), fan_zone, pushers)[None],
    )
    return made._replace(**changes)


def fans(*curves):
    return stack([stack(list(curves))])


FAN = generic_curve(Rating(0.9, 220.0, "curved", 0.95, 0.1, 0.25))


def flows_of(net, curve, road=0.0):
    """The path at rest: flows by branch, and of its fans alone."""
    path = Still(bound(AIR.NetworkRows, net), bound(AIR.CurveRows, curve))
    path.speed[:] = curve.present[0]
    path.load(0, road, 1.0, 1.0)
    assert path.solve()
    return path


def blown(path):
    return path.flow[path.blown :]


def test_two_fans_side_by_side_are_one_of_twice_the_flow():
    """Fan laws (textbook): in parallel flows add at one pressure."""
    two = flows_of(network((2, 2), (False,)), fans(FAN, FAN))
    wide = FAN._replace(flow=2 * FAN.flow)
    one = flows_of(network((2,), (False,)), fans(wide))
    assert blown(two).sum() == pytest.approx(blown(one).sum(), rel=1e-6)


def test_a_fan_ahead_and_one_behind_are_one_of_twice_the_pressure():
    """Fan laws (textbook): in series pressures add at one flow."""
    both = flows_of(network((2, 3), (False, True)), fans(FAN, FAN))
    strong = FAN._replace(pressure=2 * FAN.pressure)
    one = flows_of(network((2,), (False,)), fans(strong))
    assert blown(both)[0] == pytest.approx(blown(one)[0], rel=1e-6)
    assert blown(both)[0] == pytest.approx(blown(both)[1], rel=1e-9)


@pytest.mark.parametrize("speed", [5.0, 20.0, 40.0])
def test_ram_through_a_bare_core_is_scipys_root(speed):
    """One path without fans: ram against grille, core and exit, by brentq on the same laws written with fluids."""
    net = network((2,), (False,), grille_area=np.array([0.15]), exit_area=np.array([0.2]))
    net = net._replace(incidence=incidence(np.array([0]), np.array([1]), (2,), (False,))[None])
    found = flows_of(net, fans(no_fan()), road=speed)
    stagnation = dP_from_K(1.0, rho=RHO, V=speed)

    def gap(m):
        grille, leaving = dP_from_K(1.5, rho=RHO, V=m / RHO / 0.15), dP_from_K(1.8, rho=RHO, V=m / RHO / 0.2)
        return (0.9 + 0.12) * stagnation - grille - leaving - 30.0 * (m / 0.3) ** 2

    assert found.forward() == pytest.approx(brentq(gap, 0.0, 20.0, xtol=1e-13), rel=1e-6)


def test_a_gap_is_a_sharp_edged_orifice():
    """ISO 5167 coefficient as in fluids for a small bore in a large pipe; and the law itself from fluids."""
    coefficient = C_Reader_Harris_Gallagher(D=0.5, Do=0.1, rho=RHO, mu=1.85e-5, m=0.1, taps="corner")
    assert pytest.approx(coefficient, abs=0.02) == DISCHARGE
    net = network((2,), (False,), leak_area=at(0.004))
    found = flows_of(net, fans(FAN))
    suction, leak = found.pressure[1] - found.pressure[2], found.flow[3]
    assert dP_from_K(1 / DISCHARGE**2, rho=RHO, V=leak / RHO / 0.004) == pytest.approx(suction, rel=1e-4)


def test_core_drop_without_heating_is_entrance_friction_and_exit(demo):
    """Kays & London's form with one density is Kc + Ke + 4 f L/Dh heads: the heads from fluids."""
    points = next(iter(rows(demo, 1).values()))[0].points
    core = stack([points.plant.core])
    surfaces = core_surfaces(core)
    surface = louver_surface(core, surfaces)
    for flux in (1.5, 3.0, 6.0):
        mu = 1.9e-5
        G = flux / float(surfaces.free_ratio[0])
        f = louver_friction(bound(LouverRows, surface), 0, G * float(core.louver_pitch[0]) / mu)
        friction = K_from_f(fd=4 * f, L=float(core.depth[0]), D=float(surfaces.air_diameter[0]))
        expected = dP_from_K(ENTRANCE + EXIT + friction, rho=RHO, V=G / RHO)
        found = core_drop(core, surfaces, surface, at(flux), (at(RHO), at(mu), at(1.0)))
        assert float(found[0, 0]) == pytest.approx(expected, rel=1e-9)


@pytest.mark.parametrize(("aspect", "fanning"), [(1e-9, 24.0), (1 / 8, 20.6), (1.0, 14.2)])
def test_laminar_friction_of_flat_ducts(aspect, fanning):
    """Shah & London, Laminar Flow Forced Convection in Ducts: f Re (Fanning) of plates, 1:8 rectangle, square."""
    assert laminar_friction(aspect) == pytest.approx(4 * fanning, rel=0.004)


def test_turbulent_tube_friction_is_blasius():
    assert Blasius(2e4) == pytest.approx(0.3164 / 2e4**0.25, rel=1e-3)
    assert friction_factor(2e4) == pytest.approx(Blasius(2e4), rel=0.03)


def loop(extra=None, **changes):
    tubes = Tubes(*(np.array([v]) for v in (90.0, 1.0, 0.66, 3.1e-5, 2.6e-3, 0.06, 1.0)))
    made = circuit(columns=merged(hoses(), extra or {}), **changes)
    return LoopLaw(made, tubes, np.array([2500.0]), np.array([13.5]), np.array([1025.0]), np.array([8.5e-4]))


def test_loop_flow_balances_by_brentq():
    """The open loop: pump curve against engine, bypass, thermostat, hoses and tubes, heads from fluids."""
    found = loop_flows(loop())
    flow = float(found.core[0, -1])
    rho, mu, section, area = 1025.0, 8.5e-4, 90 * 3.1e-5, np.pi / 4 * 0.038**2

    def branch(q):
        v = q / section
        re = rho * v * 2.6e-3 / mu
        laminar, rough = laminar_friction(0.06) / re, Blasius(re)
        tube = dP_from_K(K_from_f(fd=(laminar**4 + rough**4) ** 0.25, L=0.66, D=2.6e-3) + 1.5, rho=rho, V=v)
        round_re = rho * q / area * 0.038 / mu
        smooth = ((64 / round_re) ** 4 + Blasius(round_re) ** 4) ** 0.25
        hose = dP_from_K(K_from_f(fd=smooth, L=1.2, D=0.038) + 1.5 + 0.3 * 4, rho=rho, V=q / area)
        # The open valve's bore, and the 4 mm one that is always there (discharge 0.7): what each lets through adds up.
        valve = 0.002 / np.sqrt(0.2 * 80e3) + 0.7 * np.pi / 4 * 0.004**2 * np.sqrt(2 / rho)
        return tube + hose + (q / valve) ** 2

    def gap(q):
        total = q + np.sqrt(branch(q) / (0.5 * 80e3 / (0.3 * 0.002 * 0.05) ** 2))
        top = 80e3 / (1 - 1 / 1.6**2)
        return top * 0.25 - (top / 0.0032**2 + 0.5 * 80e3 / 0.002**2) * total**2 - branch(q)

    assert flow == pytest.approx(brentq(gap, 1e-6, 0.004, xtol=1e-14), rel=2e-3)


def test_the_loop_answers_as_a_builder_expects():
    """Invariants: more with a faster pulley, less with a worn impeller, less through a shut thermostat, idle far
    under the rating."""
    base, fast, worn = (loop_flows(loop(**c)) for c in ({}, {"pulley": 1.2}, {"impeller": 0.6}))
    assert worn.core[0, -1] < base.core[0, -1] < fast.core[0, -1]
    assert base.core[0, 0] < 0.15 * base.core[0, -1]
    idle = loop_flows(loop()._replace(rpm=np.array([700.0])))
    assert idle.core[0, -1] < 0.35 * base.core[0, -1]
    assert np.all(np.diff(base.core[0]) > 0)
    assert len(OPENINGS) == base.core.shape[1]
    pumped = {"head": {"engine": 60e3}, "fall": {"engine": 60e3 / 0.002**2}}
    electric = loop_flows(loop(pumped, electric=1.0, mechanical=0.0)._replace(rpm=np.array([1.0])))
    assert electric.core[0, -1] > idle.core[0, -1], "an electric pump does not know the engine idles"


def test_a_closed_thermostats_leak_is_a_small_bore_and_not_a_share_of_its_pump():
    """Worked by hand: a 4 mm bore with 0.7 discharge passes 0.7 x 12.57 mm2 x sqrt(2 dp / rho): at twice the pump
    speed and so near four times the head, twice as much; a pump made for twice the flow at the same head passes next
    to no more."""
    slow, fast = (loop_flows(loop()._replace(rpm=np.array([rpm]))).core[0, 0] for rpm in (2000.0, 4000.0))
    assert fast == pytest.approx(2 * slow, rel=0.05)
    larger = loop_flows(loop(flow_rated=0.004)).core[0, 0]
    assert larger == pytest.approx(loop_flows(loop()).core[0, 0], rel=0.10)
    assert 0.5e-3 / 60 < slow < 6e-3 / 60, "litres a minute, not gallons"


@pytest.mark.parametrize("swept", [0.05, 0.12, 0.28])
@pytest.mark.parametrize("speed", [0.0, 8.0])
def test_a_bare_fan_on_a_larger_core_is_scipys_network_of_resistances(swept, speed):
    """A fan that sweeps part of a face: five square resistances, a straight fan curve and three pressures, written
    apart and solved by scipy. Standing, some of what it pulls goes back through what it does not sweep, and what
    comes in by the grille is the rest."""
    whole, leak, grille, leaving = 0.3, 0.006, 0.15, 0.2
    net = network(
        (2,),
        (False,),
        grille_area=np.array([grille]),
        exit_area=np.array([leaving]),
        area=at(swept, whole - swept),
        loss=at(0.0, 0.0),
        leak_area=at(leak),
        incidence=incidence(np.array([0, 0]), np.array([2, 1]), (2,), (False,))[None],
    )
    found = flows_of(net, fans(typed_curve(((0.0, 180.0), (0.9, 0.0)), 0.09)), road=speed)
    stagnation = 0.5 * RHO * speed**2

    def square(drop, area, heads):
        return np.sign(drop) * area * np.sqrt(2 * RHO * abs(drop) / heads)

    def flows(pressures):
        front, zone, bay = pressures
        core = np.sign(front - zone) * swept * np.sqrt(abs(front - zone) / 30.0)
        rest = np.sign(front - bay) * (whole - swept) * np.sqrt(abs(front - bay) / 30.0)
        slot = square(bay - zone, leak, 1 / 0.6**2)
        fan = RHO * 0.9 * (1 - (bay - zone) / 180.0)
        return (
            square(0.9 * stagnation - front, grille, 1.5),
            core,
            rest,
            slot,
            fan,
            square(bay + 0.12 * stagnation, leaving, 1.8),
        )

    def imbalance(pressures):
        came, core, rest, slot, fan, left = flows(pressures)
        return [came - core - rest, core + slot - fan, fan + rest - slot - left]

    solved = root(imbalance, [-20.0 + 0.5 * stagnation, -60.0, 5.0], method="hybr", tol=1e-12)
    assert solved.success
    came, core, rest, _, fan, _ = flows(solved.x)
    assert blown(found)[0] == pytest.approx(fan, rel=1e-5)
    assert found.flow[found.core : found.core + 2] == pytest.approx([core, rest], rel=1e-4, abs=1e-6)
    if speed == 0:
        assert rest < 0 < came
        assert came == pytest.approx(core + rest, rel=1e-6)
