"""A centrifugal coolant pump: its curve as a parabola, by its own speed or voltage, and the power it takes."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from keelroom.errors import InputError


class PumpCurve(NamedTuple):
    """Pressure [Pa] over flow [m3/s] at rated speed: head - linear * q - square * q^2, all >= 0."""

    head: float
    linear: float
    square: float

    def pressure(self, flow: float, speed: float = 1.0) -> float:
        """Rise [Pa] at a flow [m3/s] and a share of rated speed. Source: affinity laws."""
        return self.head * speed**2 - self.linear * speed * flow - self.square * flow * abs(flow)


def rated_curve(head: float, free_flow: float) -> PumpCurve:
    """The parabola through shut-off pressure [Pa] and free flow [m3/s]. Source: common practice for centrifugal
    pumps."""
    return PumpCurve(head, 0.0, head / free_flow**2)


def typed_curve(points: Sequence[tuple[float, float]]) -> PumpCurve:
    """The falling parabola nearest to points (flow [m3/s], pressure [Pa]).

    Raises InputError where there are fewer than two points, or the pressure rises with the flow.
    Source: least squares.
    """
    ordered = sorted(points)
    if len(ordered) < 2 or ordered[0][0] == ordered[-1][0]:
        raise InputError("pump_curve", "A pump curve needs two points at least, at different flows")
    for (q0, p0), (q1, p1) in itertools.pairwise(ordered):
        if p1 > p0 or q1 == q0:
            raise InputError(
                "pump_curve", "A pump curve falls: its pressure may not rise with the flow", flow=q1, pressure=p1
            )
    if ordered[-1][1] == ordered[0][1]:
        raise InputError(
            "pump_curve", "A pump curve falls: its last point has the pressure of its first", flow=ordered[-1][0]
        )
    flow, pressure = np.array(ordered).T
    for columns in ((True, True), (False, True), (True, False)):
        found = _fitted(flow, pressure, columns)
        if found is not None:
            return found
    raise InputError("pump_curve", "No falling pump curve goes by these points")


def _fitted(flow: np.ndarray, pressure: np.ndarray, columns: tuple[bool, bool]) -> PumpCurve | None:
    """Least squares with the linear part, the square one, or both; None where that bends the wrong way or the points
    are too few."""
    if sum(columns) + 1 > len(flow):
        return None
    basis = np.stack(
        [np.ones_like(flow), *([-flow] if columns[0] else []), *([-(flow**2)] if columns[1] else [])], axis=1
    )
    scale = np.abs(basis).max(axis=0)
    found = np.linalg.lstsq(basis / scale, pressure, rcond=None)[0] / scale
    head, rest = float(found[0]), [float(value) for value in found[1:]]
    if head <= 0 or any(value < 0 for value in rest):
        return None
    linear = rest.pop(0) if columns[0] else 0.0
    return PumpCurve(head, linear, rest.pop(0) if columns[1] else 0.0)


def water_power(pressure: float, flow: float) -> float:
    """[W] a pump gives the coolant: pressure [Pa] times flow [m3/s]. Source: definition."""
    return max(pressure, 0.0) * max(flow, 0.0)
