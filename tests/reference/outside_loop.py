"""Outside values of the coolant circuit: pipes, bends, pumps, air, clamps, with their class."""

from __future__ import annotations

import math

import fluids
import numpy as np
from iapws import IAPWS97
from scipy.optimize import brentq

from keelroom.catalogue.fluids import glycol_table
from keelroom.core.arrays import stack
from keelroom.core.fluids.coolant import curves
from keelroom.core.loop.bubbles import drift
from keelroom.core.loop.circuit import BLASIUS, ROUND
from keelroom.core.loop.hoses import bead_height, least_radius, line_bore, t_bolt_clamp, worm_clamp
from keelroom.core.loop.point import friction
from keelroom.core.loop.pressures import absolute, boiling_margins
from keelroom.core.loop.pump import rated_curve
from keelroom.core.loop.route import routed
from keelroom.core.loop.volume import bought, expansion
from tests.reference.check import Check

INCH = 0.0254
WORM, BEAD = "SAE J1508 worm-drive sizes", "SAE J962 formed tube ends"
GPM = 231 * INCH**3 / 60


def pipe_loss(flow: float, bore: float, length: float, rho: float = 1030.0, mu: float = 0.75e-3) -> float:
    """[psi] in a smooth pipe, by our friction."""
    speed = flow / (math.pi / 4 * bore**2)
    factor = friction(rho * speed * bore / mu, ROUND)
    return factor * length / bore * rho * speed**2 / 2 / 6894.757


def oracle_loss(flow: float, bore: float, length: float, rho: float = 1030.0, mu: float = 0.75e-3) -> float:
    """The same by the fluids package."""
    speed = flow / (math.pi / 4 * bore**2)
    re = fluids.Reynolds(V=speed, D=bore, rho=rho, mu=mu)
    return (
        fluids.dP_from_K(fluids.K_from_f(fd=fluids.friction_factor(Re=re), L=length, D=bore), rho=rho, V=speed)
        / 6894.757
    )


def pump_meets(square: float) -> float:
    """[gpm] a pump of 12 psi and 30 gpm moves against a square loss, by scipy."""
    pump = rated_curve(12 * 6894.757, 30 * GPM)
    return float(brentq(lambda q: pump.pressure(q) - square * q**2, 1e-7, 30 * GPM)) / GPM


def by_hand_meets(square: float) -> float:
    head, free = 12 * 6894.757, 30 * GPM
    return math.sqrt(head / (head / free**2 + square)) / GPM


def margin_of_water(kilopascals: float) -> float:
    """[degC] water boils at a pressure, as the suction's margin from 0 degC."""
    water = curves(glycol_table("ethylene_glycol"), 0.0)
    return float(boiling_margins(stack([water]), np.array([[kilopascals * 1e3]]), np.array([[0.0]]))[0, 0])


def grown(celsius: float) -> float:
    from CoolProp.CoolProp import PropsSI

    cold, hot = (PropsSI("D", "T", t + 273.15, "P", 3e5, "INCOMP::MEG[0.5273]") for t in (10.0, celsius))
    return float(cold / hot - 1)


CURVE = curves(glycol_table("ethylene_glycol"), 0.5)
BENT = routed(((0.0, 0.0, 0.0), (0.3, 0.0, 0.0), (0.3, 0.2, 0.0)), 0.08)


def loop_checks() -> tuple[Check, ...]:
    """Every outside value of the circuit."""
    return (
        Check(
            "friction of a smooth pipe, Re 20 000",
            "package",
            "fluids",
            fluids.friction_factor(Re=2e4),
            lambda: friction(2e4, ROUND),
            0.03,
        ),
        Check(
            "friction of a smooth pipe, Re 80 000",
            "package",
            "fluids",
            fluids.friction_factor(Re=8e4),
            lambda: friction(8e4, ROUND),
            0.03,
        ),
        Check(
            "friction of a pipe, Re 400",
            "package",
            "fluids",
            fluids.friction_factor(Re=400.0),
            lambda: friction(400.0, ROUND),
            0.03,
        ),
        Check("Blasius' constant", "citation", "Blasius (1913)", 0.3164, lambda: BLASIUS, 1e-4),
        Check(
            "26 ft of a size 16 line, 7/8 in, at 20 gpm [psi]",
            "package",
            "fluids",
            oracle_loss(20 * GPM, 0.0222, 26 * 0.3048),
            lambda: pipe_loss(20 * GPM, line_bore(16), 26 * 0.3048),
            0.04,
        ),
        Check(
            "the same in 1 1/2 in [psi]",
            "package",
            "fluids",
            oracle_loss(20 * GPM, 0.0381, 26 * 0.3048),
            lambda: pipe_loss(20 * GPM, 0.0381, 26 * 0.3048),
            0.04,
        ),
        Check(
            "12 psi, 30 gpm pump against 2e10 Pa per (m3/s)^2 [gpm]",
            "package",
            "scipy and by hand",
            by_hand_meets(2e10),
            lambda: pump_meets(2e10),
            1e-6,
        ),
        Check(
            "water at a pump's inlet at 60 kPa boils at [degC]",
            "package",
            "iapws",
            IAPWS97(P=0.06, x=0).T - 273.15,
            lambda: margin_of_water(60.0),
            0.05,
            True,
        ),
        Check(
            "water at 150 kPa boils at [degC]",
            "package",
            "iapws",
            IAPWS97(P=0.15, x=0).T - 273.15,
            lambda: margin_of_water(150.0),
            0.05,
            True,
        ),
        Check(
            "half glycol grows from 10 to 95 degC",
            "package",
            "CoolProp",
            grown(95.0),
            lambda: expansion(CURVE, 10.0, 95.0),
            0.01,
        ),
        Check(
            "a bubble climbs 1 1/2 in upright [m/s]",
            "memory",
            "Davies & Taylor (1950)",
            0.2140,
            lambda: drift(0.0381, math.pi / 2),
            1e-3,
        ),
        Check(
            "a bubble runs along 1 1/2 in level [m/s]",
            "memory",
            "Benjamin (1968)",
            0.3301,
            lambda: drift(0.0381, 0.0),
            1e-3,
        ),
        Check(
            "30 cm of coolant over the pump [Pa]",
            "citation",
            "hydrostatics, 1030 kg/m3",
            3030.3,
            lambda: float(absolute(np.zeros(2), np.array([0.3, 0.0]), 1030.0, (0, 0.0))[1]),
            1e-3,
        ),
        Check(
            "developed length of two legs, 80 mm bend [mm]",
            "citation",
            "geometry by hand: 500 - 160 + 125.66",
            465.66,
            lambda: BENT.length * 1e3,
            1e-4,
        ),
        Check(
            "a size 28 worm clamp closes over up to [in]",
            "memory",
            WORM,
            2.25,
            lambda: worm_clamp(1.9 * INCH).most / INCH,
            1e-6,
        ),
        Check("a 1 1/2 in neck's bead [mm]", "memory", BEAD, 2.0, lambda: bead_height(1.5 * INCH) * 1e3, 1e-6),
        Check(
            "least radius of 1 in hose with fabric [in]",
            "practice",
            "",
            4.0,
            lambda: least_radius("reinforced", INCH) / INCH,
            1e-6,
        ),
        Check(
            "a T-bolt clamp over 48 mm closes to [mm]",
            "practice",
            "",
            45.0,
            lambda: t_bolt_clamp(48e-3).least * 1e3,
            1e-6,
        ),
        Check("a size 16 line goes through [in]", "practice", "", 0.875, lambda: line_bore(16) / INCH, 2e-3),
        Check(
            "glycol for 10 L at half, 35 % water left [L]",
            "citation",
            "balance by hand: 5 - 0",
            5.0,
            lambda: bought(10.0, 0.5, 0.35, 0.0).glycol,
            1e-9,
        ),
    )
