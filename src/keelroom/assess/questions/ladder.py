"""The ladder: the cheapest next step from the car as it is, and the next."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.figures.batch import Asked
from keelroom.assess.questions.chosen import rate_of
from keelroom.assess.questions.options import SoFar, going_on, hands_of
from keelroom.assess.questions.worth import offered_acts
from keelroom.assess.work.money import HOUR, likely_hours
from keelroom.assess.work.shopping import parts_cost
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.document.schema.build import Build

MOST_STEPS = 6
"""of a ladder"""
LEAST_GAIN = 0.3
"""[K] of weather under which a step is none"""


class Rung(NamedTuple):
    """One step of the ladder: the act, what it gains [K] of weather in the worst case, what it takes, and where the
    build stands after it [K]."""

    act: Act
    gain: float
    money: float
    hours: float
    stands: float


@in_one_go
def ladder(build: Build, aim: float = 0.0, tell: SoFar = going_on) -> tuple[Rung, ...]:
    """The cheapest next step from the build as it is, and the next, until its worst case holds `aim` [K] of weather
    more than it must, or nothing gains any more. No act is done twice."""
    rate = rate_of(build.work)
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
