"""The own air of a cooler that hangs away from the core: opening, face, fans, way out, and the pressure of the road
at its place."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.air.fan import FanCurve, fan_pressure
from keelroom.core.arrays import Bools, Floats
from keelroom.core.network import incidence_of, solve_network

OPENING_LOSS, OUT_LOSS = 1.5, 1.8
"""Dynamic heads lost in an opening with its mesh, and turning out behind (common practice)."""
LEAST_LOSS = 0.05
"""Dynamic heads a face loses at least: without any the air's flow has no slope, and a mere opening has more."""
STILL = 1e-5
"""Flow [kg/s] under which a square law is carried to zero along a straight line."""


class OwnPath(NamedTuple):
    """n paths, (n,) unless said. opening, face, out [m2]: what feeds the face, the face, the way out behind it

    loss : dynamic heads of the face's own speed lost in it (guards too);  curve (n, 1): one fan;  fans : how many
           alike, side by side
    pressed, drawn : pressure coefficients of the road's air at the opening and where it leaves
    """

    opening: Floats
    face: Floats
    out: Floats
    loss: Floats
    curve: FanCurve
    fans: Floats
    pressed: Floats
    drawn: Floats


ENDS: tuple[tuple[int | None, int | None], ...] = ((None, 0), (0, 1), (1, 2), (2, None))
"""opening, face, fans, way out"""


class _OwnAirLaws:
    """Branches of n own paths; one density throughout: the air's heating is left to the doubt of the place."""

    def __init__(self, path: OwnPath, road: Floats, speed: Floats, density: Floats) -> None:
        self.path, self.speed, self.density = path, speed, density
        count = len(path.opening)
        self.present: Bools = np.ones((count, len(ENDS)), bool)
        self.stagnation = 0.5 * density * road**2
        drawing = (path.curve.pressure * path.curve.present)[:, 0] * speed**2
        self.scale = self.stagnation + drawing + 1.0
        area = np.minimum(path.opening, path.face)
        self.reach = (
            1.5 * density * (path.curve.flow * path.curve.present)[:, 0] * path.fans
            + area * np.sqrt(4 * density * self.stagnation)
            + 1e-3
        )
        areas = np.stack([path.opening, path.face, path.out], axis=1)
        heads = np.stack([np.full(count, OPENING_LOSS), path.loss, np.full(count, OUT_LOSS)], axis=1)
        self.factor = heads / (2 * density[:, None] * np.maximum(areas, 1e-6) ** 2)

    def state(self, flow: Floats, pressure: Floats) -> None:
        """Nothing changes with the flow."""

    def first_guess(self) -> Floats:
        """What drives it through its resistance."""
        driven = np.sqrt(0.5 * self.scale / self.factor.sum(axis=1))
        return np.repeat(np.minimum(driven, self.reach)[:, None], len(ENDS), axis=1)

    def at(self, flow: Floats, state: None) -> tuple[Floats, Floats, Floats]:
        source, loss, slope = np.zeros_like(flow), np.zeros_like(flow), np.full_like(flow, 1e-3)
        source[:, 0], source[:, 3] = self.path.pressed * self.stagnation, -self.path.drawn * self.stagnation
        for branch, column in ((0, 0), (1, 1), (3, 2)):
            size = np.sqrt(flow[:, branch] ** 2 + STILL**2)
            loss[:, branch] = self.factor[:, column] * flow[:, branch] * size
            slope[:, branch] = self.factor[:, column] * (size + flow[:, branch] ** 2 / size)
        blown = self.path.curve.present[:, 0] > 0
        each = (flow[:, 2] / (self.density * np.maximum(self.path.fans, 1.0)))[:, None]
        rise, steepness = fan_pressure(self.path.curve, each, self.speed[:, None], self.density[:, None])
        loss[:, 2] = np.where(blown, -rise[:, 0], 1e-3 * flow[:, 2])
        slope[:, 2] = np.where(blown, -steepness[:, 0] / (self.density * np.maximum(self.path.fans, 1.0)), 1e-3)
        return source, loss, slope

    def foreseen(self, step: tuple[Floats, Floats], lost: tuple[Floats, Floats], state: None) -> Floats:
        return np.zeros_like(step[0])

    def moved(self, step: tuple[Floats, Floats], head: Floats, loss: Floats) -> Floats:
        flow, move = step
        most = self.reach[:, None]
        after: Floats = np.clip(flow + np.clip(move, -most, most), -most, most)
        return after


def own_flow(path: OwnPath, road: Floats, speed: Floats, density: Floats) -> Floats:
    """Air [kg/s] through the face of n remote coolers, positive from the opening on.

    road (n,) [m/s] of the air met; speed (n,) share of full of its fans; density (n,) [kg/m3].
    Raises SolveError where it does not balance. Source: nodal Newton with FAN_LAWS and square losses.
    """
    incidence = np.broadcast_to(incidence_of(ENDS, 3), (len(road), len(ENDS), 3))
    found = solve_network(incidence, _OwnAirLaws(path, road, speed, density), None, "own air")
    return found.flow[:, 1]
