"""Options judged: what each has in hand in every duty case, what nothing beats, what would be regretted, and the ladder
of cheapest steps."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

import numpy as np

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.figures.batch import Asked, each_batch, rows_for
from keelroom.assess.figures.in_hand import hand_of, within_far
from keelroom.assess.inputs.translate import PointRow, stacked
from keelroom.assess.options.space import Bounds, Option, Priced, Space, bounded, options_of, priced, with_option
from keelroom.assess.questions.worth import offered_acts
from keelroom.assess.work.money import HOUR, likely_hours
from keelroom.assess.work.shopping import parts_cost
from keelroom.assess.work.steps import steps_of
from keelroom.core.answer import WITHIN, steady_answer
from keelroom.core.arrays import Floats
from keelroom.core.choice.fronts import front, knee
from keelroom.core.choice.regret import Regret, cooler_chance, margins, regrets
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.document.schema.build import Build

SHARED = ("heat", "road", "flow", "air")
"""Causes of doubt that are the car's, alike for every package in it; the others are the package's own."""
AT_ONCE = 40
"""Options solved between two words of how far it has come."""
RATE = 60.0
"""Money an hour is weighed with where nobody said what it costs (common practice)."""
FAILING = 1000.0
"""Money a car that overheats costs beside, in what would be regretted (common practice: towed, taken apart again)."""
Aim = str
AIMS: dict[Aim, str] = {
    "hand": "Weather in hand",
    "money": "Money",
    "hours": "Hours",
    "amps": "Amps of the fans",
    "undone": "What cannot be undone",
}
MOST_STEPS = 6
"""of a ladder"""
LEAST_GAIN = 0.3
"""[K] of weather under which a step is none"""


class Hand(NamedTuple):
    """One duty case: how much hotter a day [K] is held, its doubt that is the car's and that is the package's."""

    day: float
    shared: float
    own: float


class Judged(NamedTuple):
    """hands : by duty case that counts, in their order, None where it is not worked out;  undone : steps of its work
    that cannot be undone"""

    priced: Priced
    hands: tuple[Hand | None, ...]
    undone: int
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
    def band(self) -> tuple[float, float]:
        """80 of 100 such cars hold a day [K] between these in that case; nan where it is not worked out."""
        worst = self.worst
        off = WITHIN * float(np.hypot(worst.shared, worst.own)) if worst is not None else float("nan")
        day = worst.day if worst is not None else float("nan")
        return day - off, day + off

    @property
    def holds(self) -> int:
        """Cases that hold their limit on their day."""
        return sum(hand is not None and hand.day >= 0 for hand in self.hands)

    def aim(self, name: Aim) -> float:
        """How far from an aim, less is better."""
        worst = self.worst
        if name == "hand":
            return -within_far(worst.day) if worst is not None else float("inf")
        told = {"money": self.priced.money, "hours": self.priced.hours, "amps": self.priced.amps, "undone": self.undone}
        return float(told[name])


class Found(NamedTuple):
    """cases : ids of the duty cases that count;  space : what bounds left and threw out;  judged : of those left
    front : those nothing beats in the aims, the knee first;  whole : the search came to its end
    hopeless : duty cases no option holds: nothing is judged by them
    """

    cases: tuple[str, ...]
    space: Space
    judged: tuple[Judged, ...]
    front: tuple[Judged, ...]
    aims: tuple[Aim, ...]
    whole: bool
    hopeless: tuple[str, ...] = ()


Tell = Callable[[float], bool]


def every_option(build: Build) -> tuple[Priced, ...]:
    """All options with what bounds go by."""
    return _every(build)


@in_one_go
def _every(build: Build) -> tuple[Priced, ...]:
    return tuple(priced(build, option) for option in options_of(build))


def searched(
    build: Build,
    bounds: Bounds,
    aims: tuple[Aim, ...] = ("hand", "money", "hours"),
    tell: Tell = lambda _share: True,
    options: tuple[Priced, ...] | None = None,
) -> Found:
    """All options that keep to the bounds, judged, and their front. Stopped midway, what was found so far stays.

    tell : told how far it has come, answers whether to go on
    """
    space = bounded(options if options is not None else every_option(build), bounds)
    cases = tuple(case.id for case in build.duty_cases if case.counted)
    judged: list[Judged] = []
    whole = True
    for begins in range(0, len(space.inside), AT_ONCE):
        if not tell(begins / len(space.inside)):
            whole = False
            break
        judged += _judged(build, space.inside[begins : begins + AT_ONCE], cases)
    tells = _telling(judged, len(cases))
    judged = [one._replace(tell=tells) for one in judged]
    hopeless = tuple(case for place, case in enumerate(cases) if tells and place not in tells)
    return Found(cases, space, tuple(judged), front_of(judged, aims), aims, whole, hopeless)


def _telling(judged: Sequence[Judged], count: int) -> tuple[int, ...]:
    """Places of the cases at least one option holds; all where none is held."""
    best = [max((one.hands[place].day for one in judged if one.hands[place]), default=-1.0) for place in range(count)]  # type: ignore[union-attr]
    held = tuple(place for place, day in enumerate(best) if day >= 0)
    return held or tuple(range(count))


@in_one_go
def _judged(build: Build, some: Sequence[Priced], cases: tuple[str, ...]) -> list[Judged]:
    builds = [with_option(build, one.option) for one in some]
    hands = hands_of([Asked(own, case) for own in builds for case in cases])
    found = []
    for n, (one, own) in enumerate(zip(some, builds, strict=True)):
        undone = sum(not step.keeps for step in steps_of(own, own.package))
        found.append(Judged(one, tuple(hands[n * len(cases) : (n + 1) * len(cases)]), undone))
    return found


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
    table = np.array([[one.aim(name) for name in aims] for one in known])
    stays = np.flatnonzero(front(table))
    at = knee(table[stays])
    best = known[int(stays[at])]
    rest = sorted((known[int(k)] for k in stays if int(k) != int(stays[at])), key=lambda one: one.aim(aims[0]))
    return (best, *rest)


def regret_of(judged: Sequence[Judged], rate: float | None = None) -> tuple[Regret, Floats]:
    """What would be regretted of each, and the draws it goes by: one car for all of them."""
    worst = [one.worst for one in judged]
    hand, shared, own = (np.array([getattr(one, name) if one else -60.0 for one in worst]) for name in Hand._fields)
    drawn = margins(hand, shared, own)
    hourly = RATE if rate is None else rate
    cost = np.array([one.priced.money + hourly * one.priced.hours / HOUR for one in judged])
    return regrets(drawn, cost, FAILING), drawn


def cooler_than(drawn: Floats, one: int, other: int) -> float:
    """The chance that one option holds a hotter day than another in the same car."""
    return cooler_chance(drawn, one, other)


class Chosen(NamedTuple):
    """A front with what would be regretted. rows : the front, then what the build has beside it;  now : the place of
    the package in use among them, -1 where it is not worked out;  drawn (draws, n) [K] in hand, of one car each

    """

    found: Found
    everything: tuple[Priced, ...]
    rows: tuple[Judged, ...]
    now: int
    regret: Regret
    drawn: Floats


def chosen(found: Found, everything: tuple[Priced, ...]) -> Chosen:
    """What there is to choose from."""
    beside = [one for one in found.judged if one.option.sort != "new" and one not in found.front]
    rows = (*found.front, *(one for one in beside if one.worst is not None))
    now = next((place for place, one in enumerate(rows) if one.option.sort == "now"), -1)
    regret, drawn = regret_of(rows)
    return Chosen(found, everything, rows, now, regret, drawn)


def as_data(told: Chosen) -> dict[str, object]:
    """The front in machine form: kelvins of weather, money, seconds, amps."""
    return {
        "options": told.found.space.whole,
        "inside": len(told.found.space.inside),
        "out": {name: len(out) for name, out in told.found.space.out.items()},
        "hopeless": list(told.found.hopeless),
        "front": [one.option.key for one in told.found.front],
        "rows": [
            {
                "key": one.option.key,
                "words": one.option.words,
                "sort": one.option.sort,
                "hotter_day_K": one.worst.day if one.worst else None,
                "band_K": list(one.band),
                "money": one.priced.money,
                "hours_s": one.priced.hours,
                "amps": one.priced.amps,
                "undone": one.undone,
                "too_small": float(told.regret.too_small[n]),
                "regret": float(told.regret.expected[n]),
                "most_regret": float(told.regret.most[n]),
            }
            for n, one in enumerate(told.rows)
        ],
    }


class Rung(NamedTuple):
    """One step of the ladder: the act, what it gains [K] of weather in the worst case, what it takes, and where the
    build stands after it [K]."""

    act: Act
    gain: float
    money: float
    hours: float
    stands: float


@in_one_go
def ladder(build: Build, aim: float = 0.0, tell: Tell = lambda _share: True) -> tuple[Rung, ...]:
    """The cheapest next step from the build as it is, and the next, until its worst case holds `aim` [K] of weather
    more than it must, or nothing gains any more. No act is done twice."""
    rate = build.work.rate.si if build.work.rate else RATE
    cases, _ = within_reach(build)
    stands, rungs = _worst(build, cases), list[Rung]()
    # What was done once is not done again, in another session neither.
    done = {_named(step.act) for step in build.trail if step.act is not None}
    while len(rungs) < MOST_STEPS and stands is not None and stands < aim and tell(len(rungs) / MOST_STEPS):
        tried = [(act, changed) for act, changed in offered_acts(build) if _named(act) not in done]
        hands = hands_of([Asked(changed, case) for _, changed in tried for case in cases])
        best: tuple[float, Rung, Build] | None = None
        for n, (act, changed) in enumerate(tried):
            own = [hand.day for hand in hands[n * len(cases) : (n + 1) * len(cases)] if hand is not None]
            if len(own) < len(cases) or min(own) - stands < LEAST_GAIN:
                continue
            money, hours = _takes(build, changed)
            rung = Rung(act, min(own) - stands, money, hours, min(own))
            ratio = rung.gain / (max(money, 0.0) + rate * max(hours, 0.0) / HOUR + 5.0)
            if best is None or ratio > best[0]:
                best = ratio, rung, changed
        if best is None:
            break
        _, rung, build = best
        rungs.append(rung)
        done.add(_named(rung.act))
        stands = rung.stands
    return tuple(rungs)


OUT_OF_REACH = 25.0
"""[K] of weather a case lacks from which on no ladder leads to it: it is left out of one, and said"""


def within_reach(build: Build) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Counted duty cases a ladder is judged by, and those out of its reach."""
    cases = tuple(case.id for case in build.duty_cases if case.counted)
    hands = hands_of([Asked(build, case) for case in cases])
    far = tuple(case for case, hand in zip(cases, hands, strict=True) if hand is not None and hand.day < -OUT_OF_REACH)
    near = tuple(case for case in cases if case not in far)
    return (near, far) if near else (cases, ())


def _worst(build: Build, cases: tuple[str, ...]) -> float | None:
    days = [hand.day if hand else None for hand in hands_of([Asked(build, case) for case in cases])]
    known = [day for day in days if day is not None]
    return min(known) if known and len(known) == len(days) else None


def _named(act: Act) -> str:
    """What it does, whatever it is called."""
    return f"{act.code} {act.package} {act.given}"


def _takes(before: Build, after: Build) -> tuple[float, float]:
    """Money and hours [s] a change takes."""
    money = (parts_cost(after, after.package) or 0.0) - (parts_cost(before, before.package) or 0.0)
    hours = (likely_hours(after, after.package) or 0.0) - (likely_hours(before, before.package) or 0.0)
    return money, hours


def climbed(build: Build, rungs: Sequence[Rung]) -> Build:
    """The build with the steps of a ladder done. Raises InputError where one no longer applies."""
    for rung in rungs:
        build = apply(build, edit_for(build, rung.act))
    return build
