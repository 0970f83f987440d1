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
SHUTOFF_DOUBT = 0.30
"""Standard doubt of a generic curve's shut-off pressure; typed points have TYPED_DOUBT."""
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


@by_value(512)
def generic_curve(free_air_flow: float, power: float, blade: str, derate: float, annulus: float) -> FanCurve:
    """A fan known only by its rating.

    free_air_flow [m3/s] as advertised; power [W] electrical; blade 'curved' or 'straight'; derate 0..1
    annulus [m2] between hub and ring.  Shut-off from air power; doubt SHUTOFF_DOUBT must be carried with it.
    flow [m3/s] free air, power [W], all > 0. Source: FAN_LAWS; its shape common practice, shut-off by motor power.
    """
    flow = free_air_flow * derate
    pressure = EFFICIENCY[blade] * power / (PEAK_OF_SHAPE * flow)
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
