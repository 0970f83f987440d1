"""The pose of a package that leaves most room: a coarse grid refined where it is best."""

from __future__ import annotations

import math
from typing import Any, NamedTuple

import numpy as np

from keelroom.assess.fit.clearances import AHEAD, RULES, wanted_gaps
from keelroom.assess.fit.moves import moved_bodies, unmoved
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.fit.survey_bodies import panel_edges
from keelroom.assess.placing import Stand, stand
from keelroom.core.arrays import Bools, Floats
from keelroom.core.packaging.solids import Solids, chosen, leaned, parted, stacked
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Place
from keelroom.units import INCH

STEPS = (5, 3, 3, 2)
"""Places tried across, in height, in depth, and leans, in the first sweep."""
REFINED = 3
ENOUGH = 0.004
"""[m] margin over what is wanted beyond which more is not worth moving for."""
ROUND_ABOUT = np.array(
    [(x, y, z, 0) for x in (-1, 0, 1) for y in (-1, 0, 1) for z in (-1, 0, 1)] + [(0, 0, 0, -1), (0, 0, 0, 1)], float
)
Reach = tuple[float, float, float, float]


def reach_of(place: Place) -> Reach:
    return place.reach_x.si, place.reach_y.si, place.reach_z.si, place.reach_lean.si


class _Scene(NamedTuple):
    """Parts in the core's own frame against their neighbours: one row per pair that has a rule."""

    parts: Solids
    others: Solids
    wanted: Floats
    panel: Bools
    """pairs with the panel's metal, which counts only for what stands ahead of its plane"""


def _scene(build: Build, reach: Reach) -> _Scene | None:
    package, survey = build.package, build.survey
    at = stand(survey, package)
    frame = np.array(leaned(at.lean))
    bodies = [
        body
        for body in (*unmoved(survey, package), *moved_bodies(survey, package.moves, package.id))
        if not body.unknown
    ]
    bodies += panel_edges(survey.opening, package.cuts, package.core)
    parts = [part for part in parts_of_package(survey, package) if part.sort != "hose"]
    wanted = wanted_gaps(build.gaps)
    pairs = [
        (part, other, wanted[rule])
        for part in parts
        for other in bodies
        if (rule := RULES.get((part.sort, other.sort)))
    ]
    if not pairs:
        return None
    mine, theirs = stacked([part.solid for part, _, _ in pairs]), stacked([other.solid for _, other, _ in pairs])
    # What no pose can bring near is left out: the longest slide, and the swing of a lean over the part's distance from
    # its foot.
    swing = (
        2
        * reach[3]
        * np.sqrt(((mine.centre - np.array([at.x, at.y, at.z])) ** 2).sum(axis=1) + (mine.half**2).sum(axis=1))
    )
    bound, _ = parted(mine, theirs)
    near = bound - np.array([want for _, _, want in pairs]) < math.hypot(*reach[:3]) + swing + ENOUGH
    if not near.any():
        return None
    pairs = [pair for pair, keep in zip(pairs, near, strict=True) if keep]
    mine, theirs = chosen(mine, near), chosen(theirs, near)
    centre = (mine.centre - np.array([at.x, at.y, at.z])) @ frame.T
    own = mine._replace(centre=centre, axes=np.matmul(mine.axes, frame.T))
    return _Scene(
        own,
        theirs,
        np.array([want for _, _, want in pairs]),
        np.array([other.sort == "panel" for _, other, _ in pairs]),
    )


def _margins(scene: _Scene, poses: Floats) -> Floats:
    """A margin that is surely there at the tightest pair of each pose (m, 4: x, y, z, lean)."""
    count, pairs = len(poses), len(scene.wanted)
    c, s = np.cos(poses[:, 3]), np.sin(poses[:, 3])
    frames = np.zeros((count, 3, 3))
    frames[:, 0, 0] = 1
    frames[:, 1, 1], frames[:, 1, 2], frames[:, 2, 1], frames[:, 2, 2] = c, s, -s, c
    centre = np.einsum("pi,mij->mpj", scene.parts.centre, frames) + poses[:, None, :3]
    axes = np.einsum("pki,mij->mpkj", scene.parts.axes, frames)

    def spread(values: Any) -> Any:
        return np.broadcast_to(values, (count, *values.shape)).reshape(count * pairs, *values.shape[1:])

    parts = Solids(centre.reshape(-1, 3), spread(scene.parts.half), axes.reshape(-1, 3, 3), spread(scene.parts.round))
    others = Solids(*(spread(values) for values in scene.others))
    bound, _ = parted(parts, others)
    apart = bound.reshape(count, pairs) - scene.wanted
    if scene.panel.any():
        foremost = centre[:, :, 2] - (np.abs(axes[:, :, :, 2]) * scene.parts.half).sum(axis=2)
        apart = np.where(scene.panel & (foremost >= -AHEAD), math.inf, apart)
    margins: Floats = apart.min(axis=1)
    return margins


def best_pose(build: Build, reach: Reach) -> tuple[float, Stand, int]:
    """The pose with the most margin, ties to the least moved."""
    now = stand(build.survey, build.package)
    scene = _scene(build, reach)
    if scene is None:
        return math.inf, now, 0
    centre = np.array([now.x, now.y, now.z, now.lean])
    width = np.array(reach)
    axes = [np.linspace(-r, r, n) if n > 2 else np.array([0.0, r]) for r, n in zip(reach, STEPS, strict=True)]
    poses = centre + np.array(np.meshgrid(*axes, indexing="ij")).reshape(4, -1).T
    poses = np.vstack([centre, poses])
    tried = 0
    best, margin = centre, -math.inf
    step = width / np.array([max(n - 1, 1) for n in STEPS])
    for _ in range(REFINED + 1):
        margins = _margins(scene, poses)
        tried += len(poses)
        moved = (np.abs(poses - centre) / np.maximum(width, 1e-9)).sum(axis=1)
        # A millimetre of margin over what is wanted is not worth an inch of moving.
        worth = np.minimum(margins, ENOUGH) - 0.002 * moved
        k = int(worth.argmax())
        if worth[k] > -math.inf and (margin == -math.inf or margins[k] >= min(margin, ENOUGH) - 1e-9):
            best, margin = poses[k], float(margins[k])
        poses = np.clip(best + ROUND_ABOUT * step, centre - width, centre + width)
        step = step / 2
    grain = INCH / 16
    rounded = [round(v / grain) * grain for v in best[:3]]
    snapped = np.array([[*rounded, best[3]], best])
    margins = _margins(scene, snapped)
    pick = 0 if margins[0] >= min(margins[1], 0.0) - 1e-9 else 1
    x, y, z, lean = (float(v) for v in snapped[pick])
    return float(margins[pick]), Stand(x, y, z, lean), tried
