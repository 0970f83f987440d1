"""Electric fans as pressure-flow curves: typed points or a generic curve, fan laws, every quadrant that occurs."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.air import point
from keelroom.core.arrays import Floats
from keelroom.core.fluids.air import STANDARD_DENSITY
from keelroom.core.kept import by_value
from keelroom.core.rows import bound
from keelroom.errors import InputError

KNOTS = 9
PUSHED = 0.9
"""Flow a fan keeps that blows into a core instead of drawing from it (common practice)."""
GENERIC_SHAPE = 0.35
"""Generic axial curve p/p0 = 1 - a x - (1 - a) x2 with x flow over free-air flow (common practice)."""
PEAK_OF_SHAPE = 0.3357
"""Largest x (p/p0) of that shape: best air power over p0 times Q0."""
EFFICIENCY = {"curved": 0.30, "straight": 0.32}
"""Best air power over electrical power of a generic fan; credible fans stay under 0.40."""
CREDIBLE_EFFICIENCY = 0.40
SLIM, PER_DEPTH, SLIM_AT = 3.0, 6.0, 0.20
"""Shut-off pressure of a propeller fan over the dynamic head of its free-air flow through its annulus: of one as deep
as SLIM_AT of its diameter, and more per diameter of depth (pressure coefficient 0.3 to 0.4 at shut-off, flow
coefficient 0.28 to 0.35 in free air, from memory; ±25 %)."""
DEPTHS = (0.12, 0.45)
"""Depth over diameter that law is asked at."""
BY_RATING = 2 / 3
"""Power by which a fan's speed goes with its rating where that and its watts disagree; the watts have the rest."""
KNEE = 12
"""How sharply the watts end what a rating promises."""
SHUTOFF_DOUBT, DISAGREES = 0.30, 0.35
"""Standard doubt of a generic curve's shut-off pressure, and how much more per ln of how far rating and watts
disagree; typed points have TYPED_DOUBT."""
TYPED_DOUBT = 0.08
HOLE_LOSS = 2.5
"""Loss of a stopped or over-driven fan in dynamic heads of its annulus (from memory)."""


class FanCurve(NamedTuple):
    """Fans as arrays (n, fans); absent fans have `present` 0.

    flow, pressure : free-air flow [m3/s] and shut-off pressure [Pa] at full speed and 1.2 kg/m3
    cubics         : (n, fans, KNOTS - 1, 4) p/p0 between evenly spaced flow shares, powers 0..3 of the place in the
                     segment
    hole           : loss beyond both ends of the curve, as share of `pressure` per flow share squared
    """

    present: Floats
    flow: Floats
    pressure: Floats
    cubics: Floats
    hole: Floats


class Rating(NamedTuple):
    """What is known of a fan without a curve. flow [m3/s] of free air as advertised; power [W] electrical; blade
    'curved' or 'straight'; derate 0..1 of the flow that is believed; annulus [m2] between hub and ring; deep : its
    depth over its diameter. All > 0."""

    flow: float
    power: float
    blade: str
    derate: float
    annulus: float
    deep: float


def _head_of(rating: Rating) -> float:
    """Shut-off pressure [Pa] per square of the free-air flow [m3/s]."""
    deep = min(max(rating.deep, DEPTHS[0]), DEPTHS[1])
    return (SLIM + PER_DEPTH * (deep - SLIM_AT)) * 0.5 * STANDARD_DENSITY / rating.annulus**2


def _by_watts(rating: Rating) -> float:
    """Free-air flow [m3/s] the watts turn such blades to."""
    return float((EFFICIENCY[rating.blade] * rating.power / (PEAK_OF_SHAPE * _head_of(rating))) ** (1 / 3))


def disagreement(rating: Rating) -> float:
    """The rated flow that is believed over what the watts are good for. Source: FAN_LAWS, air power by its peak."""
    return rating.flow * rating.derate / _by_watts(rating)


def shutoff_doubt(rating: Rating) -> float:
    """Standard doubt of the shut-off pressure. Source: common practice, SHUTOFF_DOUBT and DISAGREES."""
    return float(np.hypot(SHUTOFF_DOUBT, DISAGREES * np.log(disagreement(rating))))


@by_value(512)
def generic_curve(rating: Rating) -> FanCurve:
    """A fan known only by its rating: blades of such depth, turned as fast as rating and watts together say.

    A better rating, or more watts, never gives less air at any pressure; no rating is believed past the flow at which
    the air's power were over CREDIBLE_EFFICIENCY of the watts.  shutoff_doubt must be carried with it.
    Source: FAN_LAWS; its shape and the blades' coefficients common practice.
    """
    watts, cap = _by_watts(rating), (CREDIBLE_EFFICIENCY / EFFICIENCY[rating.blade]) ** (1 / 3)
    told = (1 - cap**-KNEE) ** (-1 / KNEE) * disagreement(rating) ** BY_RATING
    flow = float(watts * told / (1 + (told / cap) ** KNEE) ** (1 / KNEE))
    pressure, annulus = _head_of(rating) * flow**2, rating.annulus
    x = np.linspace(0.0, 1.0, KNOTS)
    a = GENERIC_SHAPE
    return _curve(flow, pressure, 1 - a * x - (1 - a) * x * x, -a - 2 * (1 - a) * x, annulus)


def typed_curve(points: tuple[tuple[float, float], ...], annulus: float) -> FanCurve:
    """A fan by typed (flow [m3/s], pressure [Pa]) points, at least two, pressure falling as flow rises.

    The ends are carried to zero flow and zero pressure by the outer straight lines; between points a
    shape-preserving cubic. Raises InputError naming the point that breaks the order.
    Source: monotone cubic (Fritsch and Carlson, from memory).
    """
    flow, pressure = (np.array(column, float) for column in zip(*sorted(points), strict=True))
    if len(flow) < 2:
        raise InputError("curve_points", "A fan curve needs at least two points of flow and pressure")
    for i in range(1, len(flow)):
        if flow[i] <= flow[i - 1] or pressure[i] >= pressure[i - 1]:
            raise InputError("curve_points", f"Fan curve point {i + 1}: pressure must fall as flow rises", point=i)
    if pressure[-1] > 0:
        slope = (pressure[-1] - pressure[-2]) / (flow[-1] - flow[-2])
        flow, pressure = np.append(flow, flow[-1] - pressure[-1] / slope), np.append(pressure, 0.0)
    if flow[0] > 0:
        slope = (pressure[1] - pressure[0]) / (flow[1] - flow[0])
        flow, pressure = np.insert(flow, 0, 0.0), np.insert(pressure, 0, pressure[0] - slope * flow[0])
    share, head = flow / flow[-1], pressure / pressure[0]
    x = np.linspace(0.0, 1.0, KNOTS)
    knots = _monotone(share, head, x)
    return _curve(float(flow[-1]), float(pressure[0]), knots, _monotone_slopes(x, knots), annulus)


def _curve(flow: float, pressure: float, knots: Floats, slopes: Floats, annulus: float) -> FanCurve:
    hole = HOLE_LOSS * 0.5 * STANDARD_DENSITY * (flow / annulus) ** 2 / pressure
    return FanCurve(np.array(1.0), np.array(flow), np.array(pressure), _cubics(knots, slopes), np.array(hole))


def _cubics(knots: Floats, slopes: Floats) -> Floats:
    y0, y1, d0, d1 = knots[:-1], knots[1:], slopes[:-1] / (KNOTS - 1), slopes[1:] / (KNOTS - 1)
    return np.stack([y0, d0, 3 * (y1 - y0) - 2 * d0 - d1, 2 * (y0 - y1) + d0 + d1], axis=1)


def no_fan() -> FanCurve:
    """The stand-in for a place in the array with no fan.

    Flow and pressure 1 so that nothing divides by nothing; present 0.
    """
    one = np.array(1.0)
    return FanCurve(np.array(0.0), one, one, _cubics(np.linspace(1, 0, KNOTS), -np.ones(KNOTS)), one)


def _monotone_slopes(x: Floats, y: Floats) -> Floats:
    """Slopes of a shape-preserving cubic (Fritsch & Carlson's harmonic mean), one-sided at the ends."""
    secant = np.diff(y) / np.diff(x)
    inner = np.where(secant[1:] * secant[:-1] > 0, 2 * secant[1:] * secant[:-1] / (secant[1:] + secant[:-1]), 0.0)
    return np.concatenate([secant[:1], inner, secant[-1:]])


def _monotone(x: Floats, y: Floats, at: Floats) -> Floats:
    d = _monotone_slopes(x, y)
    i = np.clip(np.searchsorted(x, at, side="right") - 1, 0, len(x) - 2)
    h = x[i + 1] - x[i]
    t = (at - x[i]) / h
    return (
        (1 + 2 * t) * (1 - t) ** 2 * y[i]
        + t * (1 - t) ** 2 * h * d[i]
        + t * t * (3 - 2 * t) * y[i + 1]
        + t * t * (t - 1) * h * d[i + 1]
    )


def fan_pressure(curve: FanCurve, flow: Floats, speed: Floats, density: Floats) -> tuple[Floats, Floats]:
    """Static pressure rise and its slope.

    flow  : (n, fans) [m3/s] at the fan, either sign;  speed : (n, fans) share of full speed, >= 0
    density : (n, fans) [kg/m3] at the fan.  Returns [Pa] and [Pa per m3/s], (n, fans).
    Source : FAN_LAWS. Past free air and in back-flow the curve goes on as the loss of a hole, so a
    stopped fan (speed 0) is a hole and nothing blows up at road speed.
    """
    rows = bound(point.CurveRows, curve)
    cars, fans = np.indices(curve.flow.shape)
    wide = np.broadcast_arrays(cars, fans, flow, speed, density)
    each = zip(*(value.ravel().tolist() for value in wide), strict=True)
    found = np.array([point.fan_pressure(rows, i, k, 1.0, *at) for i, k, *at in each])
    return found[:, 0].reshape(cars.shape), found[:, 1].reshape(cars.shape)
