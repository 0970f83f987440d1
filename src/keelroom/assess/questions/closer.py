"""A closer look at one option: assessed whole, and with one of its fans dead."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.figures.batch import Asked, in_hand
from keelroom.assess.figures.coolernoise import loudness
from keelroom.assess.options.space import FOUND, Option, with_option
from keelroom.assess.report import fit_line
from keelroom.core.kept import in_one_go
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.schema.build import Build
from keelroom.units import KINDS, format_si


class Closer(NamedTuple):
    """An option assessed. dead : with the fan out that is missed most, weather in hand [K] by duty case that counts, in
    their order, None where one is not worked out; empty where no electric fan runs
    """

    option: Option
    whole: Assessment
    dead: tuple[float | None, ...]


@in_one_go
def closer(build: Build, option: Option) -> Closer:
    """An option as its own package would be assessed, and what is left of it when a fan dies."""
    own = with_option(build, option)
    return Closer(option, first_wave(own), _dead(own))


def _dead(build: Build) -> tuple[float | None, ...]:
    package = build.package
    cases = tuple(case.id for case in build.duty_cases if case.counted)
    worst: tuple[float | None, ...] = ()
    for fan in package.fans:
        if not fan.runs or fan.motor == "engine":
            continue
        off = Change(("packages", package.id, "fans", fan.id, "runs"), False)
        changed = apply(build, Edit("", (off,)))
        hands = in_hand([Asked(changed, case) for case in cases])
        days = tuple(hand.weather if hand else None for hand in hands)
        if not worst or _least(days) < _least(worst):
            worst = days
    return worst


def _least(days: tuple[float | None, ...]) -> float:
    return min((day for day in days if day is not None), default=float("inf"))


def closer_lines(look: Closer, now: Assessment, system: str) -> Iterator[str]:
    """In words: the duty cases that settle elsewhere than with the package in use, fit, amps and noise at idle, and
    what a dead fan costs."""
    was = {case.case_id: case for case in now.cases}
    changed = []
    for case in look.whole.cases:
        there = was[case.case_id].figures if case.case_id in was else None
        told, before = (_settles(figures, system) for figures in (case.figures, there))
        changed += [f"{case.name} {told}, now {before}"] if told != before else []
    yield "; ".join(changed) if changed else "Every duty case as now"
    if look.option.sort != FOUND:  # what is in the car has its room there
        yield fit_line(look.whole, system)
    totals, idle = look.whole.totals, look.whole.idle
    if totals.amps_at_idle is not None and totals.alternator_at_idle is not None:
        short = ", short" if totals.amps_at_idle > totals.alternator_at_idle else ""
        yield f"At idle {totals.amps_at_idle:.0f} A of the alternator’s {totals.alternator_at_idle:.0f} A{short}"
    for loud in loudness(look.whole.build, idle) if idle else ():
        if loud.name.startswith("Cooling fan"):
            yield f"{loud.ahead:.0f} dB(A) ahead of it at idle, ±5"
    if look.dead:
        yield _dead_words(look)


def _settles(figures: CaseFigures | None, system: str) -> str:
    if figures is None:
        return "not worked out"
    if figures.verdict == "does_not_settle":
        return "does not settle"
    return format_si(figures.temperature, KINDS["temperature"], system)


def _dead_words(look: Closer) -> str:
    held = [(case.name, case.figures is not None and case.figures.held) for case in look.whole.counting]
    lost = [name for (name, holds), day in zip(held, look.dead, strict=True) if holds and day is not None and day < 0]
    many = sum(fan.runs and fan.motor != "engine" for fan in look.whole.package.fans) > 1
    which = "With one of its fans dead" if many else "With its fan dead"
    if not lost:
        return f"{which} every case that holds still holds"
    return f"{which} {', '.join(lost)} no longer hold{'' if len(lost) > 1 else 's'}"
