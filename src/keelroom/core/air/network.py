"""The air path solved for its flows: ram, grille, two regions of the face, fans, bay exit.

One region lies under the shroud (or the bare fan discs) and breathes through the fans; the other passes
air straight into the bay. Fans of one package share the plenum. Every branch's resistance rises with its flow,
so the flows are the minimum of a convex function and the safeguarded Newton below finds it.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.core.air.fan import FanCurve, fan_pressure
from keelroom.core.arrays import Bools, Floats
from keelroom.errors import SolveError

GRILLE_LOSS = 1.5
"""Dynamic heads lost in a grille opening with its mesh (common practice)."""
EXIT_LOSS = 1.8
"""Dynamic heads lost turning under the car and leaving (common practice)."""
RAM_RECOVERY = 0.9
"""Stagnation pressure recovered at a grille facing the stream."""
BASE_PRESSURE = -0.12
"""Pressure coefficient under the car where the bay air leaves."""
THIN_CORE = -0.45
"""How the core's drop follows the density behind it, as a power: only the search direction needs it."""
TOLERANCE = 1e-8
STEPS = 120
PATIENCE = 20

Drop = Callable[[Floats, "Densities"], Floats]
"""Pressure lost [Pa] in the two regions (n, 2) or repeated (n, 4), at mass flux (same) [kg/s per m2], flux >= 0."""


class AirPath(NamedTuple):
    """n air paths, arrays (n,): speed [m/s]; grille_area, exit_area [m2]; areas under and outside the fans [m2]."""

    speed: Floats
    grille_area: Floats
    exit_area: Floats
    drawn_area: Floats
    open_area: Floats


class AirFlows(NamedTuple):
    """The solved flows. fans (n, fans), open (n,) [kg/s]; pressures (n,) [Pa] above the free stream.

    steps : iterations used, largest over the points;  residual : largest imbalance over ram and fan pressure
    """

    fans: Floats
    open: Floats
    front: Floats
    plenum: Floats
    bay: Floats
    steps: int
    residual: float

    @property
    def total(self) -> Floats:
        """All air through the core (n,) [kg/s]."""
        flows: Floats = self.fans.sum(axis=1) + self.open
        return flows


class Densities(NamedTuple):
    """Air density (n,) [kg/m3] ahead of the core and behind it, where pullers and the bay breathe."""

    ahead: Floats
    behind: Floats
    thinning: Floats
    """change of `behind` with the total flow [kg/m3 per kg/s]"""


Heating = Callable[[Floats], Densities]
"""Densities at a total flow (n,) [kg/s]: the less air, the hotter and thinner it leaves the core."""


def solve_air(
    path: AirPath, curve: FanCurve, speed: Floats, heating: Heating, drop: Drop, start: tuple[Floats, Floats] | None = None
) -> AirFlows:
    """Flows that balance every branch.

    speed : (n, fans) share of full speed;  drop : pressure lost in the regions;  heating : densities by flow
    start : flows (n, fans), (n,) of a like point, to begin from
    Raises SolveError when the imbalance does not fall under TOLERANCE of the driving pressure.
    """
    has_open, has_fan = path.open_area > 0, curve.present > 0
    area = np.stack([np.where(has_fan.any(axis=1), path.drawn_area, 1.0), np.where(has_open, path.open_area, 1.0)], axis=1)
    density = heating(np.full(len(area), np.inf))
    ram = 0.5 * density.ahead * path.speed**2 * (RAM_RECOVERY - BASE_PRESSURE)
    scale = ram + (curve.pressure * curve.present).max(axis=1, initial=0.0) + 1.0
    fans, free = _first_guess(curve, speed, density, ram, area, has_open)
    if start is not None:
        # A like point's flows are a good beginning only where they run forward; anything else is worse than a guess.
        fans = np.where((start[0] >= 0.2 * fans) & (start[0] <= 5 * fans), start[0], fans)
        free = np.where((start[1] >= 0.1 * free) & has_open, start[1], free)
    reach = (curve.flow * density.behind[:, None] * curve.present).sum(axis=1) + np.sqrt(ram) * area.sum(axis=1) + 0.05

    for step in range(1, STEPS + 1):
        total = fans.sum(axis=1) + free
        density = heating(np.abs(total))
        losses = _grille(path, density) + _exit(path, density)
        exit_loss = _exit(path, density) * total * np.abs(total)
        through, stiffness = _region_drop(drop, np.stack([fans.sum(axis=1), free], axis=1) / area, density)
        stiffness = stiffness / area
        rise, slope = fan_pressure(curve, fans / density.behind[:, None], speed, density.behind)
        back = losses * total * np.abs(total) - ram
        imbalance = np.concatenate(
            [(through[:, :1] - rise + back[:, None]) * has_fan, ((through[:, 1] + back) * has_open)[:, None]], axis=1
        )
        worst = np.abs(imbalance).max(axis=1) / scale
        if worst.max() < TOLERANCE:
            return _solved(path, density, (fans, free), through, (step, float(worst.max())))
        # Newton overshoots once at most while all flows are forward; reversed flows can make it cycle, and a
        # shorter step breaks the cycle.
        damp = 0.5 ** (step // PATIENCE)
        # Less air is hotter and thinner: every branch feels the total flow through the density behind the core.
        by_density = THIN_CORE * through / density.behind[:, None] - exit_loss[:, None] / density.behind[:, None]
        fan_by_density = (rise - slope * fans / density.behind[:, None]) / density.behind[:, None]
        shared = 2 * losses * np.abs(total)
        pull = np.concatenate([by_density[:, :1] - fan_by_density, by_density[:, 1:]], axis=1) * density.thinning[:, None]
        move = _newton_step(imbalance, slope / density.behind[:, None], stiffness, pull + shared[:, None], (has_fan, has_open))
        bound = reach[:, None] * damp * 0.5
        move = np.minimum(np.maximum(move * damp, -bound), bound)
        fans, free = fans - move[:, :-1], free - move[:, -1]
    raise SolveError("air_not_converged", f"The air path did not balance after {STEPS} steps", residual=float(worst.max()))


def _solved(path: AirPath, density: Densities, flows: tuple[Floats, Floats], through: Floats, effort: tuple[int, float]) -> AirFlows:
    fans, free = flows
    total = fans.sum(axis=1) + free
    stagnation = 0.5 * density.ahead * path.speed**2
    front = stagnation * RAM_RECOVERY - _grille(path, density) * total * np.abs(total)
    bay = stagnation * BASE_PRESSURE + _exit(path, density) * total * np.abs(total)
    return AirFlows(fans, free, front, front - through[:, 0], bay, *effort)


def _grille(path: AirPath, density: Densities) -> Floats:
    return GRILLE_LOSS / (2 * density.ahead * path.grille_area**2)


def _exit(path: AirPath, density: Densities) -> Floats:
    return EXIT_LOSS / (2 * density.behind * path.exit_area**2)


def _region_drop(drop: Drop, flux: Floats, density: Densities) -> tuple[Floats, Floats]:
    """Drop and its slope in both regions at once, odd in the flow; the slope by a small step."""
    size = np.maximum(np.abs(flux), 1e-4)
    both = drop(np.concatenate([size, size * 1.0001], axis=1), density)
    slope = (both[:, 2:] - both[:, :2]) / (size * 1e-4)
    # Under the smallest flux the drop is carried to zero along a straight line.
    return both[:, :2] * flux / size, np.where(np.abs(flux) < 1e-4, both[:, :2] / size, slope)


def _first_guess(curve: FanCurve, speed: Floats, density: Densities, ram: Floats, area: Floats, has_open: Bools) -> tuple[Floats, Floats]:
    """Flows in step with what drives them; where nothing does they are nothing, which is then the answer too."""
    driven = 0.6 * curve.flow * speed * density.behind[:, None]
    pushed = (0.15 * np.sqrt(ram) * area[:, 0] / np.maximum(curve.present.sum(axis=1), 1.0))[:, None]
    return (driven + pushed) * curve.present, np.where(has_open, 0.15 * np.sqrt(ram) * area[:, 1], 0.0)


def _newton_step(imbalance: Floats, slope: Floats, stiffness: Floats, back: Floats, exists: tuple[Bools, Bools]) -> Floats:
    has_fan, has_open = exists
    n, fans = slope.shape
    matrix = np.empty((n, fans + 1, fans + 1))
    matrix[:] = back[:, :, None]
    matrix[:, :fans, :fans] += stiffness[:, :1, None]
    diagonal = np.arange(fans)
    matrix[:, diagonal, diagonal] -= slope
    matrix[:, fans, fans] += stiffness[:, 1]
    real = np.concatenate([has_fan, has_open[:, None]], axis=1)
    matrix *= real[:, :, None] & real[:, None, :]
    every = np.arange(fans + 1)
    matrix[:, every, every] += ~real
    return np.asarray(np.linalg.solve(matrix, imbalance[:, :, None])[:, :, 0], dtype=np.float64)
