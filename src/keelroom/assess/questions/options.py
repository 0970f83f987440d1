"""Options searched: what each has in hand in every duty case, and what nothing beats."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from typing import NamedTuple, Protocol

import numpy as np

from keelroom.assess.figures.batch import Asked, each_batch, in_hand, rows_for
from keelroom.assess.figures.in_hand import hand_of, within_far
from keelroom.assess.inputs.translate import PointRow, stacked
from keelroom.assess.options.space import Bounds, Option, Priced, Space, bounded, options_of, priced, with_option
from keelroom.core.answer import WITHIN, steady_answer
from keelroom.core.arrays import Floats
from keelroom.core.choice.fronts import beats, front, knee
from keelroom.core.kept import in_one_go
from keelroom.document.schema.build import Build

SHARED = ("heat", "road", "flow", "air")
"""Causes of doubt that are the car's, alike for every package in it; the others are the package's own."""
FIRST, AT_ONCE = 48, 120
"""Options solved before a first front is shown, and between two words of how far it has come."""
Aim = str
AIMS: dict[Aim, str] = {
    "hand": "Weather in hand",
    "money": "Money",
    "hours": "Hours",
    "amps": "Amps of the fans",
    "undone": "What cannot be undone",
}


class Hand(NamedTuple):
    """One duty case: how much hotter a day [K] is held, its doubt that is the car's and that is the package's; nan
    where nobody asked for them."""

    day: float
    shared: float = math.nan
    own: float = math.nan


class Judged(NamedTuple):
    """hands : by duty case that counts, in their order, None where it is not worked out"""

    priced: Priced
    hands: tuple[Hand | None, ...]
    tell: tuple[int, ...] = ()
    """places of the cases it is judged by: those some option holds"""

    @property
    def option(self) -> Option:
        """What is judged."""
        return self.priced.option

    @property
    def worst(self) -> Hand | None:
        """Of the case that holds least; None where one is not worked out."""
        tell = self.tell or range(len(self.hands))
        known = [hand for place in tell if (hand := self.hands[place]) is not None]
        return min(known, key=lambda hand: hand.day) if known and len(known) == len(tell) else None

    @property
    def hardest(self) -> int:
        """The place of the case that holds least, of those it is judged by."""
        days = {place: hand.day for place, hand in enumerate(self.hands) if hand is not None}
        told = [place for place in self.tell or range(len(self.hands)) if place in days]
        return min(told, key=lambda place: days[place])

    @property
    def band(self) -> tuple[float, float]:
        """80 of 100 such cars hold a day [K] between these in that case; nan where it is not worked out."""
        worst = self.worst
        off = WITHIN * float(np.hypot(worst.shared, worst.own)) if worst is not None else float("nan")
        day = worst.day if worst is not None else float("nan")
        return day - off, day + off

    @property
    def doubted(self) -> bool:
        """Whether its doubts are worked out."""
        return self.worst is not None and not math.isnan(self.worst.own)

    @property
    def holds(self) -> int:
        """Cases that hold their limit on their day."""
        return sum(hand is not None and hand.day >= 0 for hand in self.hands)

    def aim(self, name: Aim) -> float:
        """How far from an aim, less is better."""
        worst = self.worst
        if name == "hand":
            return -within_far(worst.day) if worst is not None else float("inf")
        told = {
            "money": self.priced.money,
            "hours": self.priced.hours,
            "amps": self.priced.amps,
            "undone": self.priced.undone,
        }
        return float(told[name])


class Found(NamedTuple):
    """cases : ids of the duty cases that count;  space : what bounds left and threw out;  judged : of those left
    front : of those the build has not, what none of them beats in the aims, the knee first
    whole : the search came to its end
    hopeless : duty cases no option holds: nothing is judged by them
    """

    cases: tuple[str, ...]
    space: Space
    judged: tuple[Judged, ...]
    front: tuple[Judged, ...]
    aims: tuple[Aim, ...]
    whole: bool
    hopeless: tuple[str, ...] = ()

    @property
    def beside(self) -> tuple[Judged, ...]:
        """What the build has: leaving it as it is is always a choice."""
        return tuple(one for one in self.judged if one.option.sort != "new")

    def beaten_by(self, own: Judged) -> int:
        """How many of the front something the build has beats: no worse in any aim, better in one."""
        return int(beats(aims_of((own,), self.aims), aims_of(self.front, self.aims)).sum())


def aims_of(judged: Sequence[Judged], aims: tuple[Aim, ...]) -> Floats:
    """How far each is from each aim (n, k), less is better."""
    return np.array([[one.aim(name) for name in aims] for one in judged]).reshape(len(judged), len(aims))


class SoFar(Protocol):
    """Told how far a search has come, and at times what was found so far; answers whether to go on."""

    def __call__(self, share: float, found: Found | None = None) -> bool: ...


def going_on(share: float, found: Found | None = None) -> bool:
    return True


class Shard(NamedTuple):
    """A part of a search that can be worked out by itself, in another process or on another machine: places of its
    options among all of the build."""

    build: Build
    bounds: Bounds
    places: tuple[int, ...]


class Tally(NamedTuple):
    """An option in figures, as a shard answers it. days : weather in hand [K] by duty case that counts, None where it
    is not worked out; empty where a bound throws it out"""

    place: int
    amps: float
    money: float
    hours: float
    undone: int
    cut: bool
    days: tuple[float | None, ...]


Shared = Callable[[Callable[[Shard], list[Tally]], Sequence[Shard]], Iterable[list[Tally]]]
"""What works out shards, in their order: `map`, or the like of it over processes or machines."""


@in_one_go
def tallied(shard: Shard) -> list[Tally]:
    """The options of a shard, priced, and solved where they keep to the bounds."""
    build, options, cases = shard.build, options_of(shard.build), counted(shard.build)
    prices = [priced(build, options[place]) for place in shard.places]
    inside = {one.option.key for one in bounded(tuple(prices), shard.bounds).inside}
    builds = [with_option(build, one.option) for one in prices if one.option.key in inside]
    hands = iter(in_hand([Asked(own, case) for own in builds for case in cases]))
    found = []
    for place, one in zip(shard.places, prices, strict=True):
        took = [next(hands) for _ in cases] if one.option.key in inside else []
        found.append(Tally(place, *one[1:], tuple(hand.weather if hand else None for hand in took)))
    return found


def counted(build: Build) -> tuple[str, ...]:
    """Duty cases that count."""
    return tuple(case.id for case in build.duty_cases if case.counted)


def shards_of(build: Build, bounds: Bounds, options: Sequence[Option], places: Sequence[int]) -> list[Shard]:
    """A search in parts: what the build has and a spread of all others first, so that a front stands at once."""
    step = max(len(places) // FIRST, 1)
    first = [place for n, place in enumerate(places) if options[place].sort != "new" or n % step == 0]
    rest = sorted(set(places) - set(first))
    parts = [first, *(rest[begin : begin + AT_ONCE] for begin in range(0, len(rest), AT_ONCE))]
    return [Shard(build, bounds, tuple(part)) for part in parts if part]


@in_one_go
def searched(
    build: Build,
    bounds: Bounds,
    aims: tuple[Aim, ...] = ("hand", "money", "hours"),
    tell: SoFar = going_on,
    places: Sequence[int] | None = None,
    shared: Shared = map,
) -> Found:
    """All options that keep to the bounds, judged, and their front. Stopped midway, what was found so far stays.

    places : of the options that are looked at, all where None;  shared : what works out the shards
    """
    options = options_of(build)
    looked = range(len(options)) if places is None else places
    tallies: list[Tally] = []
    show = 0
    for part in shared(tallied, shards_of(build, bounds, options, looked)):
        tallies += part
        so_far = None
        if len(tallies) >= show:
            show = 3 * len(tallies)
            so_far = _found(build, (bounds, aims), options, tallies)._replace(whole=False)
        if not tell(len(tallies) / len(looked), so_far):
            break
    found = _found(build, (bounds, aims), options, tallies)._replace(whole=len(tallies) == len(looked))
    return _doubted(build, found)


def _found(
    build: Build, asked: tuple[Bounds, tuple[Aim, ...]], options: Sequence[Option], tallies: Sequence[Tally]
) -> Found:
    """What the tallies come to, doubts left out."""
    (bounds, aims), cases = asked, counted(build)
    ordered = sorted(tallies, key=lambda one: one.place)
    prices = {one.place: Priced(options[one.place], *one[1:-1]) for one in ordered}
    judged = [
        Judged(prices[one.place], tuple(Hand(day) if day is not None else None for day in one.days))
        for one in ordered
        if one.days
    ]
    tells = _telling(judged, len(cases))
    judged = [one._replace(tell=tells) for one in judged]
    hopeless = tuple(case for place, case in enumerate(cases) if tells and place not in tells)
    space = bounded(tuple(prices.values()), bounds)
    stands = front_of([one for one in judged if one.option.sort == "new"], aims)
    return Found(cases, space, tuple(judged), stands, aims, True, hopeless)


def _doubted(build: Build, found: Found) -> Found:
    """With their doubts for the front and for what the build has: what regrets go by."""
    wanted = list({one.option.key: one for one in (*found.front, *found.beside)}.values())
    builds = [with_option(build, one.option) for one in wanted]
    hands = hands_of([Asked(own, case) for own in builds for case in found.cases])
    count = len(found.cases)
    known = {
        one.option.key: one._replace(hands=tuple(hands[n * count : (n + 1) * count])) for n, one in enumerate(wanted)
    }
    judged = tuple(known.get(one.option.key, one) for one in found.judged)
    return found._replace(judged=judged, front=tuple(known[one.option.key] for one in found.front))


def _telling(judged: Sequence[Judged], count: int) -> tuple[int, ...]:
    """Places of the cases at least one option holds; all where none is held."""
    hands = ((place, one.hands[place]) for one in judged for place in range(count))
    holds = {place for place, hand in hands if hand is not None and hand.day >= 0}
    held = tuple(sorted(holds))
    return held or tuple(range(count))


@in_one_go
def hands_of(asked: Sequence[Asked]) -> list[Hand | None]:
    """What each question has in hand with its doubts; None where something is missing.

    Source: the bands' own causes, as kelvins of weather.
    """
    found: list[Hand | None] = [None] * len(asked)

    def work(places: list[int], rows: list[PointRow]) -> None:
        points, doubt = stacked(rows)
        answer = steady_answer(points, doubt, rows[0].layout)
        worth = answer.band.worth
        for k, place in enumerate(places):
            hand = hand_of(points, answer, k)
            each = {name: float(getattr(worth, name)[k]) / max(hand.per_kelvin, 1.0) for name in CAUSES}
            shared = float(np.hypot.reduce([each[name] for name in SHARED]))
            own = float(np.hypot.reduce([each[name] for name in CAUSES if name not in SHARED]))
            found[place] = Hand(hand.weather, shared, own)

    each_batch(rows_for(asked), work)
    return found


CAUSES = ("heat", "core", "fans", "leaks", "road", "flow", "air")


def front_of(judged: Sequence[Judged], aims: tuple[Aim, ...]) -> tuple[Judged, ...]:
    """What nothing beats in all aims, the knee of the front first."""
    known = [one for one in judged if one.worst is not None]
    if not known:
        return ()
    table = aims_of(known, aims)
    stays = np.flatnonzero(front(table))
    at = knee(table[stays])
    best = known[int(stays[at])]
    rest = sorted((known[int(k)] for k in stays if int(k) != int(stays[at])), key=lambda one: one.aim(aims[0]))
    return (best, *rest)
