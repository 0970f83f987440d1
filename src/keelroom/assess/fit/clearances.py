"""Does it fit: every clearance with its rule and its stack-up, the verdict, and what to measure next."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Literal, NamedTuple

import numpy as np

from keelroom.assess.fit.bodies import Body, Path, Sort
from keelroom.assess.fit.moves import moved_bodies, unmoved
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.fit.survey_bodies import neighbours, panel_edges
from keelroom.assess.reads import reads, while_same
from keelroom.core.arrays import Ints
from keelroom.core.kept import by_identity, by_value, in_one_go, shelf
from keelroom.core.packaging.solids import Vector, chosen, clearance, parted, stacked
from keelroom.core.packaging.stack import Link, chance_under, dominant, root_sum_square, worst_case
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import USUAL_GAPS, GapRule, Survey
from keelroom.units import KINDS, parse

GapState = Literal["overlaps", "under", "tight", "clear"]
FitVerdict = Literal["no core", "not surveyed", "not measured", "does not fit", "tight", "clears"]
NEAR = 0.03
"""[m] beyond what is wanted, out to which a clearance is worked out and shown."""
RULES: dict[tuple[str, str], str] = {
    ("part", "static"): "static",
    ("part", "turning"): "belt",
    ("part", "hood"): "hood",
    ("part", "panel"): "static",
    ("fan", "static"): "moving",
    ("fan", "turning"): "belt",
    ("fan", "hood"): "hood",
    ("fan", "panel"): "moving",
    ("hose", "turning"): "hose",
    ("hose", "fan"): "hose",
    ("part", "moved"): "static",
    ("fan", "moved"): "moving",
    ("moved", "static"): "static",
    ("moved", "turning"): "belt",
    ("moved", "hood"): "hood",
    ("moved", "moved"): "static",
}
"""Which rule a pair of sorts falls under; pairs that are not here may touch."""
RULE_WORDS = {
    "moving": "moving to static",
    "static": "static to static",
    "hood": "hood",
    "belt": "belt and pulley, engine rocked",
    "hose": "hose sweep",
}
SQUARE = 0.02
"""Share of a gap's direction under which an axis does not count in its chain."""
AS_BEFORE = 1e-4
"""[m] by which a gap has to be less than it was before a neighbour was moved, to be the move's doing."""
AHEAD = 1e-3
"""[m] a part that does not come this far ahead of the plane stands behind the panel, where its metal is a seat and no
obstacle."""


class Gap(NamedTuple):
    """One clearance. gap, wanted, worst, likely (±) [m]; a, b: the nearest points; normal: from the part to the
    other."""

    part: Body
    other: Body
    rule: str
    gap: float
    wanted: float
    worst: float
    likely: float
    links: tuple[Link, ...]
    normal: Vector
    a: Vector
    b: Vector

    @property
    def state(self) -> GapState:
        """overlaps, under what is wanted, tight (the worst case is under it), or clear."""
        if self.gap < 0:
            return "overlaps"
        if self.gap < self.wanted - 1e-6:
            return "under"
        return "tight" if self.gap - self.worst < self.wanted else "clear"

    @property
    def margin(self) -> float:
        return self.gap - self.wanted

    @property
    def weakest(self) -> Link | None:
        """The reading that dominates."""
        return dominant(self.links)


class Unmeasured(NamedTuple):
    """Something the verdict needs and nobody measured."""

    path: Path
    what: str
    why: str


class NextReading(NamedTuple):
    """The measurement whose doubt changes the verdict most. chance: that it does."""

    path: Path
    what: str
    why: str
    chance: float


class Fit(NamedTuple):
    """How the package fits. gaps: the tightest first."""

    parts: tuple[Body, ...]
    others: tuple[Body, ...]
    gaps: tuple[Gap, ...]
    unmeasured: tuple[Unmeasured, ...]
    next: NextReading | None
    surveyed: bool
    chosen: bool = True
    """a core is: without one nothing stands in the bay"""
    moved: tuple[Body, ...] = ()
    """neighbours where the package moves them to"""

    @property
    def verdict(self) -> FitVerdict:
        """What is sure comes first: a part that cannot fit does not, whatever else is unknown."""
        if not self.chosen:
            return "no core"
        if not self.surveyed:
            return "not surveyed"
        states = {gap.state for gap in self.gaps if not gap.other.unknown}
        if states & {"overlaps", "under"}:
            return "does not fit"
        if self.unmeasured:
            return "not measured"
        return "tight" if "tight" in states else "clears"

    @property
    def tightest(self) -> Gap | None:
        """The clearance with the least margin over what is wanted."""
        known = [gap for gap in self.gaps if not gap.other.unknown]
        return min(known, key=lambda gap: gap.margin, default=None)


@in_one_go
def fit_up(build: Build, package: Package) -> Fit:
    """Every clearance of a package in this bay."""
    return while_same("fit", READS, (build, package), lambda: _fit_up(build.survey, build.gaps, package))


READS = reads(
    "build.survey build.gaps package.coolers laid.core package.cuts made.fans package.loop package.mounting "
    "package.moves package.place package.remote package.shroud"
)


def _fit_up(survey: Survey, rules: tuple[GapRule, ...], package: Package) -> Fit:
    if package.core.face_width is None or package.core.face_height is None:
        # Nothing stands in the bay before a core is chosen: no size is guessed for one.
        missing = unmeasured(survey)
        return Fit((), neighbours(survey), (), missing, _next_reading((), missing), surveyed(survey), False)
    parts, moved = parts_of_package(survey, package), moved_bodies(survey, package.moves, package.id)
    others = (*unmoved(survey, package), *panel_edges(survey.opening, package.cuts, package.core))
    wanted = wanted_gaps(rules)
    gaps = _not_as_found(survey, found_gaps((*parts, *moved), others, wanted))
    known = {move.id for move in package.moves if move.how == "removed"} | {
        body.key.partition(":")[2] for body in moved if not body.unknown
    }
    missing = tuple(
        item for item in unmeasured(survey) if item.path[:2] != ("survey", "obstacles") or item.path[2] not in known
    )
    return Fit(parts, others, gaps, missing, _next_reading(gaps, missing), surveyed(survey), moved=moved)


def _not_as_found(survey: Survey, gaps: tuple[Gap, ...]) -> tuple[Gap, ...]:
    """Without what stood as near before a neighbour was moved: it came so from the factory."""
    if not any(gap.part.sort == "moved" for gap in gaps):
        return gaps
    found = {body.key: body for body in neighbours(survey)}

    def before(gap: Gap) -> float:
        was, other = found[f"obstacle:{gap.part.key.partition(':')[2]}"], found.get(gap.other.key)
        if other is None:
            return math.inf
        return _apart(was, other)

    return tuple(
        gap for gap in gaps if gap.part.sort != "moved" or gap.margin >= 0 or gap.gap < before(gap) - AS_BEFORE
    )


@by_identity(512)
def _apart(first: Body, second: Body) -> float:
    """Clearance of two bodies [m]; those of a survey stay the same objects."""
    return float(clearance(stacked([first.solid]), stacked([second.solid])).gap[0])


def wanted_gaps(rules: tuple[GapRule, ...]) -> Mapping[str, float]:
    """Least gap [m] by rule; the default where a file leaves a rule out."""
    usual: dict[str, float] = {ident: parse(gap, KINDS["length"], "in").si for ident, (gap, _) in USUAL_GAPS.items()}
    return usual | {rule.id: rule.gap.si for rule in rules}


class _Pair(NamedTuple):
    """Two bodies that are held against each other."""

    part: Body
    other: Body
    rule: str
    wanted: float


class _Table(NamedTuple):
    """Which bodies are held against each other, by their places in parts and others laid end to end."""

    first: Ints
    second: Ints
    rules: tuple[str, ...]


@by_value(64)
def _table(parts: tuple[tuple[Sort, bool], ...], others: tuple[Sort, ...]) -> _Table:
    """The pairs a rule speaks of. parts: sort of each, and whether it stands ahead of the panel's plane."""
    sorts = (*(sort for sort, _ in parts), *others)
    found = [
        (i, k, rule)
        for i, (sort, ahead) in enumerate(parts)
        for k, other in enumerate(sorts)
        if (rule := RULES.get((sort, other))) is not None
        and (ahead or other != "panel")
        and (sort, other, i >= k) != ("moved", "moved", True)
    ]
    first, second = (np.array([pair[n] for pair in found], int) for n in (0, 1))
    return _Table(first, second, tuple(rule for _, _, rule in found))


def _ahead(part: Body) -> bool:
    solid = part.solid
    return solid.centre[2] - abs(solid.axes[2][2]) * solid.half[2] - abs(solid.axes[1][2]) * solid.half[1] < -AHEAD


MOST_KNOWN = 2000


def found_gaps(parts: tuple[Body, ...], others: tuple[Body, ...], wanted: Mapping[str, float]) -> tuple[Gap, ...]:
    """The clearances worth showing, least margin first."""
    table = _table(tuple((part.sort, _ahead(part)) for part in parts), tuple(other.sort for other in others))
    if not table.rules:
        return ()
    bodies = (*parts, *others)
    solids = stacked([body.solid for body in bodies])
    least = np.array([wanted[rule] for rule in table.rules])
    bound, _ = parted(chosen(solids, table.first), chosen(solids, table.second))
    near = [
        _Pair(bodies[table.first[k]], bodies[table.second[k]], table.rules[k], float(least[k]))
        for k in np.flatnonzero(bound < least + NEAR)
    ]
    # A drag moves few bodies: clearances are found again by the very bodies they lie between.
    known = shelf("clearances", MOST_KNOWN)
    told: list[tuple[Gap | None] | None] = [known.get((pair.part, pair.other), pair.wanted) for pair in near]
    fresh = [k for k, gap in enumerate(told) if gap is None]
    for k, gap in zip(fresh, _measured_gaps([near[k] for k in fresh]), strict=True):
        told[k] = (gap,)
        known.put((near[k].part, near[k].other), near[k].wanted, told[k])
    found = [one[0] for one in told if one is not None and one[0] is not None]
    return tuple(sorted(found, key=lambda gap: gap.margin))


def _measured_gaps(pairs: list[_Pair]) -> list[Gap | None]:
    """The clearance of each pair; None where they are further apart than is worth showing."""
    found: list[Gap | None] = [None] * len(pairs)
    if not pairs:
        return found
    mine, theirs = stacked([pair.part.solid for pair in pairs]), stacked([pair.other.solid for pair in pairs])
    at = clearance(mine, theirs)
    shares = [np.matmul(solids.axes, at.normal[:, :, None])[:, :, 0].tolist() for solids in (mine, theirs)]
    gaps, normals, on_a, on_b = at.gap.tolist(), at.normal.tolist(), at.a.tolist(), at.b.tolist()
    for k, (part, other, rule, wanted) in enumerate(pairs):
        if gaps[k] < wanted + NEAR:
            links = (*_links(part, shares[0][k], 1.0), *_links(other, shares[1][k], -1.0))
            found[k] = Gap(
                part,
                other,
                rule,
                gaps[k],
                float(wanted),
                worst_case(links),
                root_sum_square(links),
                links,
                tuple(normals[k]),
                tuple(on_a[k]),
                tuple(on_b[k]),
            )
    return found


def _links(body: Body, shares: list[float], sign: float) -> list[Link]:
    """The readings the face that meets the gap depends on, weighed by how squarely it meets it."""
    found: dict[Path, Link] = {}
    for share, low, high in zip(shares, body.low, body.high, strict=True):
        if abs(share) < SQUARE:
            continue
        for item in high if sign * share > 0 else low:
            if item.tolerance > 0:
                known, moved = found.get(item.path), abs(share) * item.share
                # One reading that acts along two axes, such as a diameter, counts by both together.
                found[item.path] = Link(
                    item.label, item.path, item.tolerance, moved if known is None else math.hypot(known.share, moved)
                )
    return list(found.values())


def surveyed(survey: Survey) -> bool:
    """Whether anybody has measured anything that a part could meet."""
    hood, rails, engine = survey.hood, survey.rails, survey.engine
    known = (
        hood.front,
        hood.back,
        rails.left,
        rails.right,
        engine.block_depth,
        *(t.depth for t in engine.turning),
        *(h.x for h in survey.hoses),
    )
    return bool(survey.obstacles) or any(value is not None for value in known)


@by_identity(16)
def unmeasured(survey: Survey) -> tuple[Unmeasured, ...]:
    """What the verdict cannot do without, in the order of the tape walk."""
    found: list[Unmeasured] = []

    def want(section: object, field: str, path: Path, what: str, why: str) -> None:
        value = getattr(section, field)
        if value is None or value.origin == "assumed":
            found.append(Unmeasured((*path, field), what, why))

    engine = ("survey", "engine")
    for item in survey.engine.turning:
        for field, what in (("depth", "depth"), ("x", "place across"), ("y", "height"), ("diameter", "diameter")):
            want(
                item,
                field,
                (*engine, "turning", item.id),
                f"{item.name or item.id}: {what}",
                "the fan motor meets the pulley more often than anything else",
            )
    want(
        survey.engine,
        "rock_forward",
        engine,
        "Engine rock forward",
        "the belt comes as far forward as the engine rocks",
    )
    for field, what in (("front", "Hood at the support plane"), ("back", "Hood further back")):
        want(survey.hood, field, ("survey", "hood"), what, "a hood that touches comes open or dents")
    for field, what in (("left", "Left frame rail"), ("right", "Right frame rail"), ("top", "Top of the rails")):
        want(survey.rails, field, ("survey", "rails"), what, "tanks and brackets stand between the rails")
    for obstacle in survey.obstacles:
        for field in ("left", "bottom", "front", "width", "height", "depth"):
            want(
                obstacle,
                field,
                ("survey", "obstacles", obstacle.id),
                f"{obstacle.name or obstacle.id}: {field}",
                "it is in the way and not fully measured",
            )
    for hose in survey.hoses:
        for field, what in (("x", "across"), ("y", "height"), ("z", "depth")):
            want(
                hose,
                field,
                ("survey", "hoses", hose.id),
                f"{hose.id.capitalize()} hose end: {what}",
                "a hose must not sweep the fan",
            )
    return tuple(found)


def _next_reading(gaps: tuple[Gap, ...], missing: tuple[Unmeasured, ...]) -> NextReading | None:
    """What is missing comes first, that of the nearest neighbour before the rest; then the reading that may turn the
    verdict."""
    if missing:
        nearest = {gap.other.key: gap for gap in reversed(gaps) if gap.other.unknown}
        close = [
            item
            for item in missing
            if any(
                gap.other.path[:4] == item.path[:4] or gap.other.path[:3] == item.path[:3] for gap in nearest.values()
            )
        ]
        first = (close or list(missing))[0]
        return NextReading(first.path, first.what, f"not measured: {first.why}", 0.5)
    best: NextReading | None = None
    for gap in gaps:
        link = gap.weakest
        if link is None or gap.likely <= 0:
            continue
        under = chance_under(gap.gap, gap.wanted, gap.likely)
        chance = min(under, 1 - under) * link.effect / gap.likely
        if chance > (best.chance if best else 0.02):
            best = NextReading(
                link.path,
                link.label,
                f"it dominates {gap.part.name} to {gap.other.name} and may turn its verdict",
                chance,
            )
    return best
