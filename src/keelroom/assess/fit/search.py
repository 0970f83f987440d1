"""Find a place: where the package would stand clear of everything, and with what changed; or what would have to give way."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import Any, NamedTuple

import numpy as np

from keelroom.assess.batch import Asked, temperatures
from keelroom.assess.fit.bodies import neighbours, panel_edges, parts_of_package
from keelroom.assess.fit.clearances import AHEAD, RULE_WORDS, RULES, Gap, fit_up, surveyed, wanted_gaps
from keelroom.assess.placing import Stand, face_size, stand
from keelroom.assess.worth import telling_cases
from keelroom.catalogue.load import fan_assemblies, placed
from keelroom.core.arrays import Bools, Floats
from keelroom.core.kept import in_one_go
from keelroom.core.packaging.solids import Solids, chosen, leaned, parted, stacked
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package, Place
from keelroom.document.schema.survey import Obstacle
from keelroom.units import INCH, both

Tell = Callable[[float], bool]
"""Told how far it has come (0 to 1); answers whether to go on."""
STEPS = (5, 3, 3, 2)
"""Places tried across, in height, in depth, and leans, in the first sweep."""
REFINED = 3
ENOUGH = 0.004
"""[m] margin over what is wanted beyond which more is not worth moving for."""
OFFSETS = (-1.5 * INCH, 1.5 * INCH)
MOST_SHOWN = 5
RELAX_STEP, RELAX_MOST = INCH / 8, 2 * INCH
FITS = -1e-4
"""[m] a margin that is short by less fits: it is rounding."""


class Option(NamedTuple):
    """One way to change the package before it is placed. parts: what is changed of it; loose: obstacles moved away for it."""

    parts: str
    fans: tuple[Fan, ...]
    shroud: object
    inlet_side: str
    kept: tuple[str, ...]
    """obstacles the package counts on having moved already"""
    loose: tuple[Obstacle, ...] = ()

    @property
    def words(self) -> str:
        names = ", ".join(item.name or item.id for item in self.loose)
        if not names:
            return self.parts or "As it is"
        return f"{self.parts}, {names} moved away" if self.parts else f"{names} moved away"

    @property
    def moved(self) -> tuple[str, ...]:
        return (*self.kept, *(item.id for item in self.loose))

    @property
    def work(self) -> float:
        """[s] on obstacles"""
        return math.fsum(item.work.si for item in self.loose)

    @property
    def removals(self) -> int:
        """What is taken away for good."""
        return sum(item.mobility == "removable" for item in self.loose)


class Found(NamedTuple):
    """A place that clears everything. margin [m] over what is wanted at the tightest pair; temperatures of the telling cases [degC],
    inf where one does not settle, None where something is missing."""

    words: str
    edit: Edit
    margin: float
    tightest: str
    work: float
    removals: int
    swaps: bool
    """whether other fans or another inlet side are needed"""
    slots: float
    """[m] the mounts have to be slotted for it"""
    temperatures: tuple[tuple[str, float | None], ...]


class NoPlace(NamedTuple):
    """What stands in the way most, and what would have to give, by how much [m]."""

    binding: str
    relax: tuple[str, ...]


class Search(NamedTuple):
    """The answer: places, best first; `none` where there is no place; stopped where somebody cancelled."""

    found: tuple[Found, ...]
    none: NoPlace | None
    tried: int
    stopped: bool


@in_one_go
def find_places(build: Build, tell: Tell = lambda _share: True, system: str = "us") -> Search:
    """Search slides, heights, depths, leans, fan offsets, inlet side, slimmer fans and movable obstacles for a place.

    Poses are ranked by a separation that is never more than the true gap; what is shown is measured and solved fully.
    """
    if build.package.core.face_width is None or build.package.core.face_height is None:
        return Search((), NoPlace("no core is chosen yet", ("choose one at Core, or enter its face first",)), 0, False)
    if not surveyed(build.survey):
        return Search(
            (),
            NoPlace(
                "nothing round the package is measured yet", ("walk the tape at Survey first: engine, hood, rails and what is in the way",)
            ),
            0,
            False,
        )
    options = list(_options(build))
    good: list[tuple[Option, Build, float, Gap | None]] = []
    best: tuple[float, Option, Stand] | None = None
    tried = 0
    for number, option in enumerate(options):
        if not tell(number / (len(options) + 2)):
            return Search((), None, tried, True)
        changed = _with(build, option, None, system)
        rough, at, count = _best_pose(changed, _reach(changed.package.place))
        tried += count
        if best is None or rough > best[0]:
            best = (rough, option, at)
        if rough < -0.02:
            continue
        good += _measured(build, option, at, system)
    if not good:
        none = _no_place(build, best, system) if best else None
        return Search((), none, tried, False)
    # An option that came down to what another one asks for as well is the same place twice.
    good = list({(item[0].parts, item[0].moved): item for item in good}.values())
    good += _as_it_stands(build, options[0], system)
    good.sort(key=lambda item: (item[0].removals, item[0].work, -min(item[2], 0.02)))
    good = good[: 2 * MOST_SHOWN]
    if not tell(len(options) / (len(options) + 2)):
        return Search((), None, tried, True)
    return Search(_solved(build, good, system), None, tried, False)


def _as_it_stands(build: Build, base: Option, system: str) -> list[tuple[Option, Build, float, Gap | None]]:
    """The place as it stands, where it clears: nothing has to be moved for it."""
    placed_build = _with(build, base, _stand_of(build), system)
    tightest = fit_up(placed_build, placed_build.package).tightest
    margin = tightest.margin if tightest else math.inf
    return [(base, placed_build, margin, tightest)] if margin >= FITS else []


def _measured(build: Build, option: Option, at: Stand, system: str) -> list[tuple[Option, Build, float, Gap | None]]:
    """The option where its place truly clears, with no more moved away than it takes; nothing where it does not clear."""

    def margin_of(tried: Option) -> tuple[float, Gap | None, Build]:
        placed_build = _with(build, tried, at, system)
        tightest = fit_up(placed_build, placed_build.package).tightest
        return (tightest.margin if tightest else math.inf), tightest, placed_build

    margin, tightest, placed_build = margin_of(option)
    if margin < FITS:
        return []
    for item in sorted(option.loose, key=lambda item: -item.work.si):
        fewer = option._replace(loose=tuple(one for one in option.loose if one is not item))
        left = margin_of(fewer)
        if left[0] >= FITS:
            option, (margin, tightest, placed_build) = fewer, left
    return [(option, placed_build, margin, tightest)]


def _solved(build: Build, good: list[tuple[Option, Build, float, Gap | None]], system: str) -> tuple[Found, ...]:
    cases = [case for case in telling_cases(build) if case is not None]
    heats = temperatures([Asked(changed, case.id) for _, changed, _, _ in good for case in cases])
    found = []
    for k, (option, changed, margin, tightest) in enumerate(good):
        mine = heats[k * len(cases) : (k + 1) * len(cases)]
        place = changed.package.place
        now = stand(build.survey, build.package)
        slots = abs(place.z.si - now.z)
        words = (
            "no clearance near"
            if tightest is None
            else f"{tightest.part.name} to {tightest.other.name} {both(tightest.gap, 'length')}, {both(tightest.wanted, 'length')} wanted"
        )
        edit = Edit(f"Place: {option.words}", _changes(build, option, _stand_of(changed), system))
        told = tuple((case.name, heat) for case, heat in zip(cases, mine, strict=True))
        found.append(
            Found(
                _words(option, now, _stand_of(changed)), edit, margin, words, option.work, option.removals, bool(option.parts), slots, told
            )
        )
    # What cannot be undone first, then work and other parts, then room as far as it is worth anything, then heat.
    found.sort(
        key=lambda item: (item.removals, item.work, item.swaps, item.slots > INCH / 8, -round(min(item.margin, ENOUGH), 3), _heat(item))
    )
    return tuple(found[:MOST_SHOWN])


def _heat(item: Found) -> float:
    return max((heat if heat is not None else 0.0) for _, heat in item.temperatures) if item.temperatures else 0.0


def _stand_of(build: Build) -> Stand:
    return stand(build.survey, build.package)


def _words(option: Option, now: Stand, at: Stand) -> str:
    moves = []
    for have, was, low, high in ((at.x, now.x, "left", "right"), (at.y, now.y, "down", "up"), (at.z, now.z, "forward", "back")):
        if abs(have - was) > 5e-4:
            moves.append(f"{both(abs(have - was), 'length')} {high if have > was else low}")
    if abs(at.lean - now.lean) > 1e-3:
        moves.append("upright" if abs(at.lean) < 1e-3 else f"leaning back {math.degrees(at.lean):.0f}°")
    return f"{option.words}; " + (", ".join(moves) if moves else "where it stands")


def _options(build: Build) -> Iterator[Option]:
    """Changes to try, the least work first."""
    package = build.package
    base = Option("", package.fans, package.shroud, package.core.inlet_side, package.moved)
    fan_sets = [base, *_offset_fans(package, base), *_slimmer(package, base)]
    yield from fan_sets
    other = "right" if package.core.inlet_side == "left" else "left"
    if build.survey.hoses:
        yield base._replace(parts=f"Inlet on the {other}", inlet_side=other)
    loose = tuple(item for item in build.survey.obstacles if item.mobility != "fixed" and item.id not in package.moved)
    yield from (base._replace(loose=(item,)) for item in loose)
    if len(loose) > 1:
        yield from (option._replace(loose=loose) for option in fan_sets)
    elif loose:
        yield from (option._replace(loose=loose) for option in fan_sets[1:])


def _offset_fans(package: Package, base: Option) -> Iterator[Option]:
    width, _ = face_size(package)
    if not package.fans:
        return
    for shift in OFFSETS:
        moved = [fan.x.si + shift for fan in package.fans]
        radii = [(fan.diameter.si if fan.diameter else 0.3) / 2 for fan in package.fans]
        if all(radius <= x <= width - radius for x, radius in zip(moved, radii, strict=True)):
            fans = tuple(
                fan.model_copy(update={"x": from_si(x, "length", "us", "derived")}) for fan, x in zip(package.fans, moved, strict=True)
            )
            yield base._replace(parts=f"Fans {both(abs(shift), 'length')} to the {'right' if shift > 0 else 'left'}", fans=fans)


def _slimmer(package: Package, base: Option) -> Iterator[Option]:
    """The strongest catalogue fans that fit the face and are less deep, twins and singles."""
    width, height = face_size(package)
    depth = max((fan.depth.si for fan in package.fans if fan.depth), default=0.3)
    fitting = [
        a
        for a in fan_assemblies()
        if a.fan.diameter
        and a.fan.depth
        and a.fan.depth.si < depth - 1e-3
        and a.fan.diameter.si <= height
        and a.count * a.fan.diameter.si <= width
    ]
    fitting.sort(key=lambda a: -(a.count * (a.fan.free_air_flow.si if a.fan.free_air_flow else 0.0)))
    for count in (1, 2):
        for assembly in [a for a in fitting if a.count == count][:2]:
            fans, shroud = placed(assembly, package.core, "us")
            kept = package.shroud.model_copy(update={"kind": "full"}) if assembly.shrouded or package.shroud.kind != "none" else shroud
            yield base._replace(parts=assembly.name, fans=fans, shroud=kept)


def _changes(build: Build, option: Option, at: Stand | None, system: str) -> tuple[Change, ...]:
    where, package = ("packages", build.active), build.package
    changes = []
    for path, value, old in (
        (("fans",), option.fans, package.fans),
        (("shroud",), option.shroud, package.shroud),
        (("core", "inlet_side"), option.inlet_side, package.core.inlet_side),
        (("moved",), option.moved, package.moved),
    ):
        if value is not old and value != old:
            changes.append(Change((*where, *path), value))
    if at is not None:
        update = {name: from_si(value, "length", system, "derived") for name, value in (("x", at.x), ("y", at.y), ("z", at.z))}
        update["lean"] = from_si(at.lean, "angle", system, "derived")
        changes.append(Change((*where, "place"), package.place.model_copy(update=update)))
    return tuple(changes)


def _with(build: Build, option: Option, at: Stand | None, system: str) -> Build:
    changes = _changes(build, option, at, system)
    return apply(build, Edit("", changes)) if changes else build


ROUND_ABOUT = np.array([(x, y, z, 0) for x in (-1, 0, 1) for y in (-1, 0, 1) for z in (-1, 0, 1)] + [(0, 0, 0, -1), (0, 0, 0, 1)], float)
Reach = tuple[float, float, float, float]


def _reach(place: Place) -> Reach:
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
    gone = {f"obstacle:{ident}" for ident in package.moved}
    bodies = [body for body in neighbours(survey) if body.key not in gone and not body.unknown]
    bodies += panel_edges(survey.opening, package.cuts, package.core)
    parts = [part for part in parts_of_package(survey, package) if part.sort != "hose"]
    wanted = wanted_gaps(build.gaps)
    pairs = [(part, other, wanted[rule]) for part in parts for other in bodies if (rule := RULES.get((part.sort, other.sort)))]
    if not pairs:
        return None
    mine, theirs = stacked([part.solid for part, _, _ in pairs]), stacked([other.solid for _, other, _ in pairs])
    # What no pose can bring near is left out: the longest slide, and the swing of a lean over the part's distance from its foot.
    swing = 2 * reach[3] * np.sqrt(((mine.centre - np.array([at.x, at.y, at.z])) ** 2).sum(axis=1) + (mine.half**2).sum(axis=1))
    bound, _ = parted(mine, theirs)
    near = bound - np.array([want for _, _, want in pairs]) < math.hypot(*reach[:3]) + swing + ENOUGH
    if not near.any():
        return None
    pairs = [pair for pair, keep in zip(pairs, near, strict=True) if keep]
    mine, theirs = chosen(mine, near), chosen(theirs, near)
    centre = (mine.centre - np.array([at.x, at.y, at.z])) @ frame.T
    own = mine._replace(centre=centre, axes=np.matmul(mine.axes, frame.T))
    return _Scene(own, theirs, np.array([want for _, _, want in pairs]), np.array([other.sort == "panel" for _, other, _ in pairs]))


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


def _best_pose(build: Build, reach: Reach) -> tuple[float, Stand, int]:
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


def _no_place(build: Build, best: tuple[float, Option, Stand], system: str) -> NoPlace:
    """What binds in the nearest miss, and the least that each mount or part would have to give."""
    _, option, at = best
    changed = _with(build, option, at, system)
    tightest = fit_up(changed, changed.package).tightest
    binding = "nothing near it is measured"
    relax: list[str] = []
    if tightest is not None:
        short = -tightest.margin
        way = max(range(3), key=lambda k: abs(tightest.normal[k]))
        room = ("width", "height", "depth")[way]
        binding = f"{option.words}: {tightest.part.name} to {tightest.other.name} lacks {both(short, 'length')} of {room} ({RULE_WORDS[tightest.rule]})"
        relax.append(
            f"{both(short, 'length')} less {room} in {tightest.part.name.lower()}, or {tightest.other.name.lower()} that much further away"
        )
    for axis, words in (
        (2, "slot the mounts {} forward or back"),
        (0, "let it slide {} further sideways"),
        (1, "let it go {} further up or down"),
    ):
        more = _needed(changed, axis)
        if more is not None:
            relax.append(words.format(both(more, "length")))
    return NoPlace(binding, tuple(relax))


def _needed(build: Build, axis: int) -> float | None:
    """How much more reach [m] along one axis would give a place; None where 2 in more would not."""
    reach = list(_reach(build.package.place))
    least = reach[axis]

    def enough(extra: float) -> bool:
        reach[axis] = least + extra
        return _best_pose(build, (reach[0], reach[1], reach[2], reach[3]))[0] >= FITS

    # Mostly no reach helps at all: that is asked first, and only then halved.
    if not enough(RELAX_MOST):
        return None
    low, high = 0, round(RELAX_MOST / RELAX_STEP)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if enough(middle * RELAX_STEP) else (middle, high)
    return high * RELAX_STEP
