"""What the work takes and costs, with its doubt; what it took, and what the shop's own times make of the next."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterable
from typing import NamedTuple

import numpy as np

from keelroom.assess.work.jobs import jobs_of
from keelroom.assess.work.plan import FINISHED, Plan, hours_in_doubt
from keelroom.assess.work.shopping import Wanted, shopping
from keelroom.assess.work.steps import Step, mean_of, own_steps, ruled, steps_of
from keelroom.core.plan.doubt import HIGH, LOW
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.work import Work
from keelroom.errors import InputError

HOUR = 3600.0
SLOW = 4.0
"""Steps' worth of the table's own figures a shop's times are weighed against: three finished ones count less than
half (common practice: one build is no rule)."""
MOST_TIMES = 20.0
"""Times planned a step that took longer is taken as"""
TIMES_HEADS = ("act", "step", "planned minutes", "took minutes", "day", "build")


class Band(NamedTuple):
    """80 of 100 lie between low and high; half under middle."""

    low: float
    middle: float
    high: float


class Estimate(NamedTuple):
    """hours [s] of all hands;  labour, parts, whole in money, labour and whole None without a rate
    unpriced : names without a price;  contingency in money;  moves : what is in doubt, by job, shares of it
    took, planned [s] : of the steps that are done, and what they were likely to take
    """

    hours: Band
    labour: Band | None
    parts: float
    unpriced: tuple[str, ...]
    contingency: float
    whole: Band | None
    moves: tuple[tuple[str, float], ...]
    took: float
    planned: float


def likely_hours(build: Build, package: Package) -> float | None:
    """Hours [s] of all hands in the mean, made twice as often as it is; None where there is no work.

    The sum of its steps' means, without making the steps: it is asked of thousands of packages.
    """
    means = [mean_of(rule) * times for _, rule, times in ruled(build, jobs_of(build, package))]
    means += [mean_of(step) for step in own_steps(build.work.own)]
    return math.fsum(means) if means else None


def hours_by(build: Build, package: Package) -> tuple[tuple[str, float], ...]:
    """Likely hours [h] by job, in the order of the work, a job's steps together."""
    steps = steps_of(build, package)
    found: dict[str, float] = {}
    for step in steps:
        found[step.job.name] = found.get(step.job.name, 0.0) + mean_of(step) / HOUR
    return tuple(found.items())


def estimated(build: Build, package: Package, plan: Plan) -> Estimate:
    """The whole of a package's work in hours and money."""
    work, steps = build.work, plan.steps
    total = hours_in_doubt(steps)
    wanted = shopping(build, package)
    parts = math.fsum(one.price for one in wanted if one.price is not None and not one.in_hand)
    unpriced = tuple(one.name for one in wanted if one.price is None and not one.in_hand and one.group != "material")
    more = 1 + work.contingency.si
    labour = whole = None
    contingency = work.contingency.si * parts
    if work.rate is not None:
        rate = work.rate.si / HOUR
        labour = Band(rate * total.low, rate * total.middle, rate * total.high)
        contingency += work.contingency.si * labour.middle
        low, middle, high = (float(v) for v in np.quantile(rate * total.draws + parts, (LOW, 0.5, HIGH)))
        whole = Band(more * low, more * middle, more * high)
    done = [tick for tick in plan.ticks.values() if tick.went in FINISHED and tick.took is not None]
    return Estimate(
        hours=Band(total.low, total.middle, total.high),
        labour=labour,
        parts=parts,
        unpriced=unpriced,
        contingency=contingency,
        whole=whole,
        moves=_moves(steps, total.moves),
        took=math.fsum(tick.took.si for tick in done if tick.took),
        planned=math.fsum(tick.planned for tick in done),
    )


def _moves(steps: Iterable[Step], shares: Iterable[float]) -> tuple[tuple[str, float], ...]:
    found: dict[str, float] = {}
    for step, share in zip(steps, shares, strict=True):
        found[step.job.name] = found.get(step.job.name, 0.0) + float(share)
    return tuple(sorted(found.items(), key=lambda one: -one[1]))


class Priced(NamedTuple):
    """One part of a quote. price : None where nobody has priced it"""

    name: str
    price: float | None


def priced(build: Build, package: Package) -> tuple[Priced, ...]:
    """Every part a package's work buys or has made, in the order of the work; what is in hand left out."""
    wanted: tuple[Wanted, ...] = shopping(build, package)
    return tuple(
        Priced(one.name, one.price)
        for one in wanted
        if not one.in_hand and (one.group == "part" or one.price is not None)
    )


def own_times(work: Work, plan: Plan, title: str) -> list[tuple[str, ...]]:
    """What was done of a build as rows of a table of the shop's own, TIMES_HEADS over it."""
    rows: list[tuple[str, ...]] = []
    by_key = {step.key: step for step in plan.steps}
    for tick in work.ticks:
        step = by_key.get(tick.step)
        if step is not None and tick.took is not None and tick.went in FINISHED and tick.planned > 0:
            act = step.job.acts[0]
            told = (f"{tick.planned / 60:.0f}", f"{tick.took.si / 60:.0f}")
            rows.append((act, tick.words[:60], *told, tick.day, title[:60]))
    return rows


def read_times(text: str, name: str) -> dict[str, tuple[float, int]]:
    """A shop's own times by act: times planned they took, weighed against the table's own figures, and of how many
    steps. Raises InputError naming the line and what was expected.

    Source: mean of logarithms, SLOW steps as planned added.
    """
    rows = list(csv.reader(io.StringIO(text)))
    heads = [cell.strip().lower() for cell in rows[0]] if rows else []
    if not {"act", "planned minutes", "took minutes"} <= set(heads):
        raise InputError("times_heads", f"{name}: columns act, planned minutes and took minutes were expected")
    at = {head: place for place, head in enumerate(heads)}
    logs: dict[str, list[float]] = {}
    for number, row in enumerate(rows[1:], 2):
        if not any(row):
            continue
        try:
            planned, took = (float(row[at[head]]) for head in ("planned minutes", "took minutes"))
            act = row[at["act"]].strip()
        except (ValueError, IndexError):
            raise InputError("times_row", f"{name}, line {number}: minutes planned and taken were expected") from None
        if not planned > 0 or not took > 0:
            raise InputError("times_row", f"{name}, line {number}: minutes over 0 were expected")
        logs.setdefault(act, []).append(max(min(math.log(took / planned), math.log(MOST_TIMES)), -math.log(MOST_TIMES)))
    return {act: (math.exp(sum(told) / (len(told) + SLOW)), len(told)) for act, told in logs.items()}
