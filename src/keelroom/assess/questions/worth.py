"""What each thing is worth for this build: every usual act tried, how much hotter a day is held with it at idle and on
the grade, sorted."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.figures.batch import Asked, in_hand
from keelroom.assess.figures.in_hand import InHand
from keelroom.assess.inputs.cases import grade_case, idle_case
from keelroom.assess.inputs.doors import stop_at_doors
from keelroom.core.kept import in_one_go
from keelroom.core.thermal.engine_laws import LAWS
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.document.schema.build import Build, DutyCase
from keelroom.errors import InputError

NOTHING_MOVES = 0.3
"""Kelvin of weather under which an act is worth nothing."""
TRIED: tuple[tuple[str, str, dict[str, str]], ...] = (
    ("full_shroud", "", {}),
    ("seat", "", {}),
    ("edge_seal", "", {}),
    ("close_edges", "Side strips between core and supports", {"edges": "left right"}),
    ("close_edges", "Panels over and under core and condenser", {"edges": "bottom top"}),
    ("flaps", "", {}),
    ("divide", "", {}),
    ("second_fan", "", {}),
    ("wire", "", {}),
    ("deeper", "", {}),
    ("denser", "", {}),
    ("copper", "", {}),
    ("clean", "", {}),
    ("pulley", "", {}),
    ("cooler_thermostat", "", {}),
    ("water", "", {}),
    ("cut_clear", "", {}),
)
"""What a builder could do: code of the act, its label where the kind's is too general, what it is given."""


class Worth(NamedTuple):
    """How much hotter a day [K] is held with one act, at idle and on the grade: as computed, and least and most over
    the band of the heat.

    The weather in hand and not the gauge: where fans switch, the gauge swings between the same two points whatever is
    done, and fans that rest for it would read as hotter. Not a number where a case is not worked out.
    cures : the day it must live with is held only with it
    """

    act: Act
    idle: tuple[float, float, float]
    grade: tuple[float, float, float]
    cures: bool

    @property
    def nothing(self) -> bool:
        """Whether it moves no day worth a word in either case."""
        middle = [v for v in (self.idle[0], self.grade[0]) if not math.isnan(v)]
        return not self.cures and all(abs(v) < NOTHING_MOVES for v in middle)


def offered_acts(build: Build) -> tuple[tuple[Act, Build], ...]:
    """Every act that applies to the active package and changes something, with the build it makes."""
    found = []
    for code, label, given in TRIED:
        act = offer(code, build.active, label, **given)
        try:
            changed = apply(build, edit_for(build, act))
        except InputError:
            continue  # it is done already, does not apply, or no field allows it
        if changed != build:
            found.append((act, changed))
    return tuple(found)


def telling_cases(build: Build) -> tuple[DutyCase | None, DutyCase | None]:
    """The case that stands for idle, and the one that stands for the grade, as far as no law is left there."""
    told = (idle_case(build.duty_cases), grade_case(build.duty_cases))
    idle, grade = (case if case and stop_at_doors(build, build.package, case) is None else None for case in told)
    return idle, grade


@in_one_go
def worth_table(build: Build) -> tuple[Worth, ...]:
    """Every act that applies, with what it changes, the largest gain first and what is worth nothing last.

    None where neither case is worked out: nothing is worth nothing then.
    """
    idle, grade = telling_cases(build)
    tried = offered_acts(build)
    cases = [case for case in (idle, grade) if case is not None]
    doubt = float(LAWS[build.brief.engine.kind].doubt)
    factors = (1.0, 1 - doubt, 1 + doubt)
    builds = [build, *(changed for _, changed in tried)]
    found = in_hand([Asked(b, case.id, heat) for b in builds for case in cases for heat in factors])
    width = len(cases) * len(factors)
    table = [_Held(found[i * width : (i + 1) * width], [case.id for case in cases]) for i in range(len(builds))]
    before = table[0]
    if all(one is None for one in found[:width]):
        return ()
    worths = [
        Worth(act, after.change(before, idle), after.change(before, grade), after.cures(before))
        for (act, _), after in zip(tried, table[1:], strict=True)
    ]
    return tuple(sorted(worths, key=_rank))


def _rank(worth: Worth) -> tuple[bool, bool, float]:
    gains = [v for v in (worth.idle[0], worth.grade[0]) if not math.isnan(v)]
    return (worth.nothing, not worth.cures, -max(gains, default=0.0) - 1e-3 * sum(gains))


class _Held:
    """What one build has in hand: per case at the likely, the low and the high heat."""

    def __init__(self, found: list[InHand | None], cases: list[str]) -> None:
        self.by_case = {case: found[3 * k : 3 * k + 3] for k, case in enumerate(cases)}

    def change(self, before: _Held, case: DutyCase | None) -> tuple[float, float, float]:
        """Change at the likely heat, and least and most over the band [K]; nan where either is not worked out."""
        pairs = zip(self.by_case[case.id], before.by_case[case.id], strict=True) if case else ()
        found = (a.hotter(b) for a, b in pairs if a is not None and b is not None)
        steps = [step for step in found if step is not None]
        return (steps[0], min(steps), max(steps)) if steps else (math.nan,) * 3

    def cures(self, before: _Held) -> bool:
        """Whether a case is held in its own weather that was not."""
        return any(
            then is not None and now is not None and then.heat >= 0 > now.heat
            for (then, *_), (now, *_) in zip(self.by_case.values(), before.by_case.values(), strict=True)
        )
