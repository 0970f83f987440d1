"""A front to choose from: what would be regretted of each, in figures and plain words, and a few that tell it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

import numpy as np

from keelroom.assess.questions.options import Found, Hand, Judged
from keelroom.assess.work.money import HOUR
from keelroom.core.arrays import Floats
from keelroom.core.choice.regret import Regret, cooler_chance, margins, regrets
from keelroom.document.schema.build import Build
from keelroom.document.schema.work import Work
from keelroom.units import money_text

RATE = 60.0
"""Money an hour is weighed with where nobody said what it costs (common practice)."""
FAILING = 1000.0
"""Money a car that overheats costs beside, in what would be regretted (common practice: towed, taken apart again)."""
NEAR = 30.0
"""[K] of weather under the best within which an option is worth a picture"""


def rate_of(work: Work) -> float:
    """What an hour is weighed with."""
    return work.rate.si if work.rate else RATE


def regret_of(judged: Sequence[Judged], rate: float) -> tuple[Regret, Floats]:
    """What would be regretted of each, and the draws it goes by: one car for all of them."""
    worst = [one.worst for one in judged]
    hand, shared, own = (np.array([getattr(one, name) if one else -60.0 for one in worst]) for name in Hand._fields)
    drawn = margins(hand, shared, own)
    cost = np.array([one.priced.money + rate * one.priced.hours / HOUR for one in judged])
    return regrets(drawn, cost, FAILING), drawn


def cooler_than(drawn: Floats, one: int, other: int) -> float:
    """The chance that one option holds a hotter day than another in the same car."""
    return cooler_chance(drawn, one, other)


class Chosen(NamedTuple):
    """A front with what would be regretted. rows : the front, then what the build has beside it;  now : the place of
    the package in use among them, -1 where it is not worked out;  drawn (draws, n) [K] in hand, of one car each

    """

    found: Found
    rows: tuple[Judged, ...]
    now: int
    regret: Regret
    drawn: Floats


def chosen(found: Found, build: Build) -> Chosen:
    """What there is to choose from."""
    beside = [one for one in found.beside if one not in found.front]
    rows = (*found.front, *(one for one in beside if one.worst is not None))
    now = next((place for place, one in enumerate(rows) if one.option.sort == "now"), -1)
    regret, drawn = regret_of(rows, rate_of(build.work))
    return Chosen(found, rows, now, regret, drawn)


class Plainly(NamedTuple):
    """Regret in one sentence, by places among the rows. least : what would be regretted least
    smaller : of those that cost less, the one regretted least, None where none does;  case : the id of its hardest case
    """

    least: int
    smaller: int | None
    case: str


def plainly(told: Chosen) -> Plainly | None:
    """What to choose by regret, and what the next smaller would have saved and risked; None where nothing is doubted
    yet."""
    known = [n for n, one in enumerate(told.rows) if one.doubted]
    if not known:
        return None
    regret = told.regret.expected
    least = min(known, key=lambda n: regret[n])
    cost = told.rows[least].priced.money
    cheaper = [n for n in known if told.rows[n].priced.money < cost - 0.5]
    smaller = min(cheaper, key=lambda n: regret[n], default=None)
    hardest = told.rows[least if smaller is None else smaller].hardest
    return Plainly(least, smaller, told.found.cases[hardest])


def picked(told: Chosen, most: int) -> tuple[Judged, ...]:
    """A few of the rows that tell the trade, cheapest first: what is named, what the build has, the hottest day, and a
    spread of the rest."""
    rows = [n for n, one in enumerate(told.rows) if one.worst is not None]
    if not rows:
        return ()
    plain = plainly(told)
    days = {n: one.worst.day for n in rows if (one := told.rows[n]).worst is not None}
    named = [plain.least, plain.smaller] if plain else []
    kept = [n for n in rows if told.rows[n].option.sort != "new"]
    best = max(rows, key=days.__getitem__)
    first = list(dict.fromkeys(n for n in (*named, *kept, best) if n is not None))[:most]
    near = sorted((n for n in rows if n not in first and days[n] > days[best] - NEAR), key=days.__getitem__)
    left = min(most - len(first), len(near))
    spread = [near[(2 * k + 1) * len(near) // (2 * left)] for k in range(left)]
    chosen_rows = [told.rows[n] for n in (*first, *spread)]
    return tuple(sorted(chosen_rows, key=lambda one: (one.priced.money, one.priced.hours)))


def plain_words(told: Chosen, build: Build, sign: str) -> Iterator[str]:
    """What to choose by regret, in sentences."""
    plain = plainly(told)
    if plain is None:
        return
    best, many = told.rows[plain.least], told.regret.too_small
    yield f"Least to be regretted: {best.option.words}, too small in {100 * many[plain.least]:.0f} of 100 such cars."
    if plain.smaller is not None:
        less = told.rows[plain.smaller]
        money = money_text(best.priced.money - less.priced.money, sign)
        hours = (best.priced.hours - less.priced.hours) / HOUR
        work = f" and {abs(hours):.0f} h {'less' if hours > 0 else 'more'}" if abs(hours) >= 0.5 else ""
        where = build.duty_case(plain.case).name
        risk = f"in {100 * many[plain.smaller]:.0f} of 100 it would not have held {where}"
        yield f"{less.option.words} costs {money} less{work}: {risk}."


def as_data(told: Chosen) -> dict[str, object]:
    """The front in machine form: kelvins of weather, money, seconds, amps."""
    plain = plainly(told)
    return {
        "options": told.found.space.whole,
        "inside": len(told.found.space.inside),
        "out": {name: len(out) for name, out in told.found.space.out.items()},
        "hopeless": list(told.found.hopeless),
        "least_regret": told.rows[plain.least].option.key if plain else None,
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
                "undone": one.priced.undone,
                "too_small": float(told.regret.too_small[n]),
                "regret": float(told.regret.expected[n]),
                "most_regret": float(told.regret.most[n]),
            }
            for n, one in enumerate(told.rows)
        ],
    }
