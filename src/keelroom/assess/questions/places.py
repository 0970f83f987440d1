"""Find a place: where the package would stand clear of everything, and with what changed; or what would have to give
way."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from keelroom.assess.acts.places import Option, options_for, with_option
from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.batch import Asked, temperatures
from keelroom.assess.fit.clearances import RULE_WORDS, Gap, fit_up, surveyed
from keelroom.assess.fit.poses import ENOUGH, best_pose, reach_of
from keelroom.assess.placing import Stand, stand
from keelroom.assess.questions.worth import telling_cases
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.units import INCH, both

Tell = Callable[[float], bool]
"""Told how far it has come (0 to 1); answers whether to go on."""
MOST_SHOWN = 5
RELAX_STEP, RELAX_MOST = INCH / 8, 2 * INCH
FITS = -1e-4
"""[m] a margin that is short by less fits: it is rounding."""


class Found(NamedTuple):
    """A place that clears everything. margin [m] over what is wanted at the tightest pair; temperatures of the
    telling cases [degC], inf where one does not settle, None where something is missing."""

    words: str
    act: Act
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
                "nothing round the package is measured yet",
                ("walk the tape at Survey first: engine, hood, rails and what is in the way",),
            ),
            0,
            False,
        )
    options = list(options_for(build, build.package))
    good: list[tuple[Option, Build, float, Gap | None]] = []
    best: tuple[float, Option, Stand] | None = None
    tried = 0
    for number, option in enumerate(options):
        if not tell(number / (len(options) + 2)):
            return Search((), None, tried, True)
        changed = with_option(build, option, None, system)
        rough, at, count = best_pose(changed, reach_of(changed.package.place))
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
    placed_build = with_option(build, base, _stand_of(build), system)
    tightest = fit_up(placed_build, placed_build.package).tightest
    margin = tightest.margin if tightest else math.inf
    return [(base, placed_build, margin, tightest)] if margin >= FITS else []


def _measured(build: Build, option: Option, at: Stand, system: str) -> list[tuple[Option, Build, float, Gap | None]]:
    """The option where its place truly clears, with no more moved away than it takes; nothing where it does not
    clear."""

    def margin_of(tried: Option) -> tuple[float, Gap | None, Build]:
        placed_build = with_option(build, tried, at, system)
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
            else f"{tightest.part.name} to {tightest.other.name} {both(tightest.gap, 'length')}, "
            f"{both(tightest.wanted, 'length')} wanted"
        )
        act = _act(build, option, _stand_of(changed))
        told = tuple((case.name, heat) for case, heat in zip(cases, mine, strict=True))
        found.append(
            Found(
                _words(option, now, _stand_of(changed)),
                act,
                margin,
                words,
                option.work,
                option.removals,
                bool(option.parts),
                slots,
                told,
            )
        )
    # What cannot be undone first, then work and other parts, then room as far as it is worth anything, then heat.
    found.sort(
        key=lambda item: (
            item.removals,
            item.work,
            item.swaps,
            item.slots > INCH / 8,
            -round(min(item.margin, ENOUGH), 3),
            _heat(item),
        )
    )
    return tuple(found[:MOST_SHOWN])


def _heat(item: Found) -> float:
    return max((heat if heat is not None else 0.0) for _, heat in item.temperatures) if item.temperatures else 0.0


def _stand_of(build: Build) -> Stand:
    return stand(build.survey, build.package)


def _act(build: Build, option: Option, at: Stand) -> Act:
    given = {name: repr(value) for name, value in zip(("x", "y", "z", "lean"), at, strict=True)}
    away = " ".join(item.id for item in option.loose)
    return offer("take_place", build.active, f"Place: {option.words}", parts=option.parts, away=away, **given)


def _words(option: Option, now: Stand, at: Stand) -> str:
    moves = []
    for have, was, low, high in (
        (at.x, now.x, "left", "right"),
        (at.y, now.y, "down", "up"),
        (at.z, now.z, "forward", "back"),
    ):
        if abs(have - was) > 5e-4:
            moves.append(f"{both(abs(have - was), 'length')} {high if have > was else low}")
    if abs(at.lean - now.lean) > 1e-3:
        moves.append("upright" if abs(at.lean) < 1e-3 else f"leaning back {math.degrees(at.lean):.0f}°")
    return f"{option.words}; " + (", ".join(moves) if moves else "where it stands")


def _no_place(build: Build, best: tuple[float, Option, Stand], system: str) -> NoPlace:
    """What binds in the nearest miss, and the least that each mount or part would have to give."""
    _, option, at = best
    changed = with_option(build, option, at, system)
    tightest = fit_up(changed, changed.package).tightest
    binding = "nothing near it is measured"
    relax: list[str] = []
    if tightest is not None:
        short = -tightest.margin
        way = max(range(3), key=lambda k: abs(tightest.normal[k]))
        room = ("width", "height", "depth")[way]
        binding = (
            f"{option.words}: {tightest.part.name} to {tightest.other.name} lacks {both(short, 'length')} of "
            f"{room} ({RULE_WORDS[tightest.rule]})"
        )
        relax.append(
            f"{both(short, 'length')} less {room} in {tightest.part.name.lower()}, or "
            f"{tightest.other.name.lower()} that much further away"
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
    reach = list(reach_of(build.package.place))
    least = reach[axis]

    def enough(extra: float) -> bool:
        reach[axis] = least + extra
        return best_pose(build, (reach[0], reach[1], reach[2], reach[3]))[0] >= FITS

    # Mostly no reach helps at all: that is asked first, and only then halved.
    if not enough(RELAX_MOST):
        return None
    low, high = 0, round(RELAX_MOST / RELAX_STEP)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if enough(middle * RELAX_STEP) else (middle, high)
    return high * RELAX_STEP
