"""Every step of the work with its figures: the jobs of a package by the table of steps."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from keelroom.assess.safety import STEPS as CAUTION_STEPS
from keelroom.assess.work.jobs import Job, jobs_of
from keelroom.assess.work.reach import reached
from keelroom.catalogue.steps import STATES, State, StepRule, parsed, shipped
from keelroom.core.kept import by_identity
from keelroom.core.plan.doubt import Doubtful, pert_mean
from keelroom.core.plan.network import Task
from keelroom.document.fields import Path
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.work import OwnStep, Pace, Work
from keelroom.document.snapshot import unfolded
from keelroom.errors import InputError


class Step(NamedTuple):
    """One step of the work. key : its own, for good;  about : what it is about
    low, likely, high [s] of one hand's work, as long as it takes with `hands`;  needs : keys of others;  waits [s]
    keeps : it can be undone;  again : share it is made twice;  uses : (what, how much)
    """

    key: str
    job: Job
    state: State
    words: str
    low: float
    likely: float
    high: float
    hands: int
    needs: tuple[str, ...]
    waits: float
    keeps: bool
    again: float
    tools: tuple[str, ...]
    uses: tuple[tuple[str, str], ...]
    check: str
    forgotten: str
    cautions: tuple[str, ...]
    reads: str

    @property
    def about(self) -> Path:
        """The path of what it is about."""
        return self.job.about

    @property
    def billed(self) -> float:
        """Likely hours of all its hands [s]."""
        return self.likely * self.hands


def mean_of(step: Step | StepRule) -> float:
    """[s] of all its hands in the mean, made twice as often as it is."""
    return pert_mean(step.low, step.likely, step.high) * (1 + step.again) * step.hands


def rules_of(work: Work) -> tuple[StepRule, ...]:
    """The table of steps a build goes by: the shop's own where it has one, the one that ships where that cannot be read
    any more."""
    return _rules(work.table)


@by_identity(8)
def _rules(table: str) -> tuple[StepRule, ...]:
    if not table:
        return shipped()
    try:
        return parsed(unfolded(table), "the shop’s own table")
    except InputError:
        return shipped()


def table_fault(work: Work) -> str:
    """What is wrong with the shop's own table; '' where nothing is, or it has none."""
    try:
        parsed(unfolded(work.table), "the shop’s own table") if work.table else None
    except InputError as error:
        return error.message
    return ""


@by_identity(32)
def _worded(build: Build, package: Package) -> tuple[Job, ...]:
    """The jobs with what only their steps say: how a bracket's bolts are reached. Hours and money go by none of it."""
    brackets = {bracket.id: bracket for bracket in package.brackets}

    def told(job: Job) -> Job:
        if job.acts != ("bracket",):
            return job
        return job._replace(words=(*job.words, *reached(build.survey, package, brackets[job.about[-1]])))

    return tuple(map(told, jobs_of(build, package)))


def steps_of(build: Build, package: Package) -> tuple[Step, ...]:
    """All steps of a package's work, as its table orders them."""
    return _steps(_worded(build, package), rules_of(build.work), build.work.own, build.work.pace)


@by_identity(32)
def _steps(
    jobs: tuple[Job, ...], rules: tuple[StepRule, ...], own: tuple[OwnStep, ...], pace: tuple[Pace, ...]
) -> tuple[Step, ...]:
    times = {one.id: one.times.si for one in pace}
    by_act = _by_act(rules)
    made: list[tuple[int, StepRule, Step]] = []
    of_rule: dict[str, list[str]] = {}
    for job in jobs:
        for act in job.acts:
            for place, rule in by_act.get(act, ()):
                if job.figure(rule.per) > 0:
                    step = _step(job, rule, times.get(act, 1.0))
                    made.append((place, rule, step))
                    of_rule.setdefault(rule.name, []).append(step.key)
    made.sort(key=lambda one: one[0])
    ordered = [step._replace(needs=_needs(step, rule, of_rule)) for _, rule, step in made]
    return (*ordered, *own_steps(own, ordered))


def undone(build: Build, package: Package) -> int:
    """How many steps of a package's work cannot be undone."""
    return sum(_told(rule.keeps, job) == "no" for job, rule, _ in ruled(build, jobs_of(build, package)))


def ruled(build: Build, jobs: Iterable[Job]) -> Iterator[tuple[Job, StepRule, float]]:
    """Each job's rules, and how many times their hours it takes."""
    times = {one.id: one.times.si for one in build.work.pace}
    by_act = _by_act(rules_of(build.work))
    for job in jobs:
        for act in job.acts:
            for _, rule in by_act.get(act, ()):
                much = job.figure(rule.per)
                if much > 0:
                    yield job, rule, times.get(act, 1.0) * much


def _told(text: str, job: Job) -> str:
    """A text of the table in a job's words."""
    return text.format_map(_Told(job.words)) if "{" in text else text


@by_identity(8)
def _by_act(rules: tuple[StepRule, ...]) -> dict[str, list[tuple[int, StepRule]]]:
    """Steps of the table by their act, each with its place."""
    found: dict[str, list[tuple[int, StepRule]]] = {}
    for place, rule in enumerate(rules):
        found.setdefault(rule.act, []).append((place, rule))
    return found


def _needs(step: Step, rule: StepRule, of_rule: dict[str, list[str]]) -> tuple[str, ...]:
    """Keys of what it needs: of its own job's steps where the job has them, else of all that are of that name."""
    found: dict[str, None] = {}
    begins = f"{step.job.ident}/"
    for need in rule.needs:
        there = of_rule.get(need, ())
        mates = [key for key in there if key.startswith(begins)] if need.partition(".")[0] in step.job.acts else []
        found.update(dict.fromkeys(mates or there))
    found.pop(step.key, None)
    return tuple(found)


class _Told(dict[str, str]):
    def __missing__(self, key: str) -> str:
        return ""


@lru_cache(4096)
def _step(job: Job, rule: StepRule, times: float) -> Step:
    """One step of one job, what it needs left out: the very same while both are."""

    def say(text: str) -> str:
        return _told(text, job)

    more = times * job.figure(rule.per)
    uses = [_use(say(what), say(amount)) for what, amount in rule.uses]
    cautions = [one for text in rule.cautions if (one := say(text)) in CAUTION_STEPS]
    step = rule.step if rule.act == job.acts[0] else f"{rule.act}.{rule.step}"
    return Step(
        key=f"{job.ident}/{step}",
        job=job,
        state=rule.state,
        words=say(rule.words),
        low=rule.low * more,
        likely=rule.likely * more,
        high=rule.high * more,
        hands=rule.hands,
        needs=(),
        waits=rule.waits,
        keeps=say(rule.keeps) != "no",
        again=rule.again,
        tools=tuple(one for text in rule.tools if (one := say(text))),
        uses=tuple(one for one in uses if one[0]),
        check=say(rule.check),
        forgotten=say(rule.forgotten),
        cautions=tuple(dict.fromkeys(cautions)),
        reads=rule.reads,
    )


def _use(what: str, amount: str) -> tuple[str, str]:
    """What is used and how much; a job that says both in one word has them parted."""
    if amount:
        return what, amount
    name, _, much = what.partition("=")
    return name, much


def own_steps(own: Iterable[OwnStep], before: Iterable[Step] = ()) -> list[Step]:
    """Steps added by hand."""
    return [_own(one, before) for one in own]


def _own(own: OwnStep, before: Iterable[Step]) -> Step:
    """A step added by hand: after all that leave the car in an earlier state, before nothing."""
    order = list(STATES)
    at = order.index(own.state)
    earlier = [step.key for step in before if order.index(step.state) < at]
    cost = (("cost", f"{own.cost.si:g}"),) if own.cost else ()
    job = Job(f"own:{own.id}", ("own",), ("work", "own", own.id), own.name, cost)
    low, likely, high = sorted((own.low.si, own.likely.si, own.high.si))
    return Step(
        f"own:{own.id}/do", job, own.state, own.name, low, likely, high, int(own.hands.si),
        tuple(earlier), 0.0, True, 0.0, (), (), "", "", (), "",
    )  # fmt: skip


def tasks_of(steps: Iterable[Step]) -> tuple[Task, ...]:
    """The steps as tasks that need each other, each as long as it is likely to be, made twice as often as it is."""
    return tuple(Task(step.key, step.likely * (1 + step.again), step.hands, step.waits, step.needs) for step in steps)


def doubts_of(steps: Iterable[Step]) -> Doubtful:
    """Their hours in doubt, of all hands (n,)."""
    rows = [(step.low, step.likely, step.high, step.again, float(step.hands)) for step in steps]
    low, likely, high, again, hands = np.array(rows).T if rows else np.zeros((5, 0))
    return Doubtful(low * hands, likely * hands, high * hands, again)
