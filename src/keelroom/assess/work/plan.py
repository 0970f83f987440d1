"""The plan of the work: when each step is done, what of it is done already, when the car can be driven."""

from __future__ import annotations

import datetime
from typing import NamedTuple

from keelroom.assess.work.steps import Step, doubts_of, steps_of, tasks_of
from keelroom.catalogue.steps import STATES, State
from keelroom.core.kept import by_identity
from keelroom.core.plan.doubt import Total, simulated
from keelroom.core.plan.network import DAY, Hours, Slack, Span, Task, scheduled, slacks
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.work import WEEKDAYS, Tick, Work

OFF_ROAD: tuple[State, ...] = ("front_off", "drained", "bare", "mocked_up", "wired", "filled")
"""States in which the car cannot be driven."""
YEARS = range(1950, 2200)
"""of days that are taken for such"""
FINISHED = ("done", "twice", "other")


AWAY = "core/recore.away"
"""The step a core goes away to be re-cored with: the lead time of the core is how long it stays there."""


class Plan(NamedTuple):
    """Steps in their order; spans of those not done, [s] from midnight before `first`;  slacks by key
    ticks : of steps, by key;  gone : ticks of steps that are in the plan no more
    """

    steps: tuple[Step, ...]
    spans: tuple[Span, ...]
    slacks: dict[str, Slack]
    ticks: dict[str, Tick]
    gone: tuple[Tick, ...]
    first: datetime.date | None

    @property
    def done(self) -> frozenset[str]:
        """Keys of steps that need not be done any more."""
        return frozenset(key for key, tick in self.ticks.items() if tick.went in FINISHED)

    @property
    def left(self) -> tuple[Step, ...]:
        """Steps still to do."""
        done = self.done
        return tuple(step for step in self.steps if step.key not in done)

    @property
    def ends(self) -> float:
        """When all is done [s]; 0 where nothing is left."""
        return max((span.ready for span in self.spans), default=0.0)

    def span(self, key: str) -> Span | None:
        """When a step is done; None where it is done already."""
        return next((span for span in self.spans if span.key == key), None)

    @property
    def stands(self) -> State:
        """The state the car is in: that of the step that comes next, once one was done that opens it; drivable before
        and after."""
        done = self.done
        if not self.spans or not any(step.key in done and step.state in OFF_ROAD for step in self.steps):
            return "drivable"
        next_one = next(step for step in self.steps if step.key == self.spans[0].key)
        return next_one.state if next_one.state != "drivable" else "proven"

    @property
    def off_road(self) -> tuple[float, float] | None:
        """From when to when the car cannot be driven [s]; None where it always can."""
        by_key = {step.key: step for step in self.steps}
        spans = [span for span in self.spans if by_key[span.key].state in OFF_ROAD]
        return (min(span.begins for span in spans), max(span.ready for span in spans)) if spans else None

    def next_steps(self, count: int = 3) -> tuple[Step, ...]:
        """What can be begun now: everything it needs is done; first what is planned first."""
        done, by_key = self.done, {step.key: step for step in self.steps}
        free = [
            span for span in self.spans if all(need in done or need not in by_key for need in by_key[span.key].needs)
        ]
        return tuple(by_key[span.key] for span in free[:count])


def planned(build: Build, package: Package) -> Plan:
    """The plan of a package as it stands. Raises InputError where its steps go in a ring."""
    steps = steps_of(build, package)
    return _planned(steps, build.work, package.id)


@by_identity(16)
def _planned(steps: tuple[Step, ...], work: Work, package: str) -> Plan:
    own = [tick for tick in work.ticks if tick.package == package]
    known = {step.key for step in steps}
    ticks = {tick.step: tick for tick in own if tick.step in known}
    gone = tuple(tick for tick in own if tick.step not in known)
    done = [key for key, tick in ticks.items() if tick.went in FINISHED]
    tasks = _with_parts(tasks_of(steps), steps, work)
    first = day_of(work.start)
    spans = scheduled(tasks, int(work.people.si), hours_of(work), done, _now(own, work, first))
    left = [task for task in tasks if task.key not in set(done)]
    return Plan(steps, spans, slacks(left), ticks, gone, first)


def _with_parts(tasks: tuple[Task, ...], steps: tuple[Step, ...], work: Work) -> tuple[Task, ...]:
    """Steps that wait for a part that is still to come; and the car is not opened before the last of those that are
    known to come is there."""
    leads = {item.id: item.lead.si * DAY for item in work.items if item.lead is not None and not item.in_hand}
    # A core that is re-cored comes back so long after it went away: it holds nothing before.
    away = {step.key: lead for step in steps if step.key == AWAY and (lead := leads.get(step.job.item))}
    tasks = tuple(task._replace(waits=away.get(task.key, task.waits)) for task in tasks)
    sent = {step.job.item for step in steps if step.key == AWAY}
    own = {step.key: 0.0 if step.job.item in sent else leads.get(step.job.item, 0.0) for step in steps}
    last = max(own.values(), default=0.0)
    if last <= 0:
        return tasks
    opens = {step.key for step in steps if step.state in ("front_off", "drained", "bare")}
    return tuple(task._replace(after=last if task.key in opens else own[task.key]) for task in tasks)


def day_of(text: str) -> datetime.date | None:
    """A day as it is kept; None where it is none, or none anybody works on."""
    try:
        day = datetime.date.fromisoformat(text)
    except ValueError:
        return None
    return day if day.year in YEARS else None


def hours_of(work: Work) -> Hours:
    """When is worked; every day where no day was chosen."""
    first = day_of(work.start)
    days = frozenset(WEEKDAYS.index(day) for day in work.days) or frozenset(range(7))
    lasts = min(work.day.si, DAY - work.begins.si)
    return Hours(work.begins.si, max(lasts, 1800.0), days, first.weekday() if first else 0)


def _now(ticks: list[Tick], work: Work, first: datetime.date | None) -> float:
    """[s] before which nothing more is begun: after what was done on the last day something was."""
    days = [day for tick in ticks if (day := day_of(tick.day)) is not None]
    if not days or first is None:
        return 0.0
    last = max(days)
    took = sum(_took(tick) for tick in ticks if day_of(tick.day) == last)
    return max((last - first).days, 0) * DAY + work.begins.si + took / int(work.people.si)


def _took(tick: Tick) -> float:
    return tick.took.si if tick.took else tick.planned


@by_identity(16)
def hours_in_doubt(steps: tuple[Step, ...]) -> Total:
    """All steps together, with their doubts."""
    return simulated(doubts_of(steps))


def states_of(plan: Plan) -> tuple[tuple[State, float, float], ...]:
    """The car's states along the work: each with when its first step is begun and its last one done [s]."""
    by_key = {step.key: step for step in plan.steps}
    found = []
    for state in STATES:
        spans = [span for span in plan.spans if by_key[span.key].state == state]
        if spans:
            found.append((state, min(span.begins for span in spans), max(span.ends for span in spans)))
    return tuple(found)


class Evening(NamedTuple):
    """How a day of the plan ends. on : the last step of it that leaves something proven, None where none does
    after : steps ended after that;  open : steps begun that day and not ended
    """

    day: int
    on: Step | None
    after: tuple[Step, ...]
    open: tuple[Step, ...]


def evenings(plan: Plan) -> tuple[Evening, ...]:
    """How each day ends but the last: on something that was checked and works, or with things standing open."""
    by_key = {step.key: step for step in plan.steps}
    spans = sorted(plan.spans, key=lambda span: span.ends)
    last = int(spans[-1].ends // DAY) if spans else 0
    found = []
    for day in sorted({int(span.begins // DAY) for span in spans}):
        ended = [by_key[span.key] for span in spans if int(span.ends // DAY) == day]
        stays = tuple(by_key[span.key] for span in spans if span.begins < (day + 1) * DAY < span.ends)
        checked = [place for place, step in enumerate(ended) if step.check]
        if day < last:
            at = checked[-1] if checked else -1
            found.append(Evening(day, ended[at] if checked else None, tuple(ended[at + 1 :]), stays))
    return tuple(found)


class Stop(NamedTuple):
    """What can still be done before the car is needed: steps that end by then, those that must not be begun, and
    whether the car can be driven then."""

    ends_by: tuple[Step, ...]
    not_begun: tuple[Step, ...]
    drivable: bool


def before_needed(build: Build, plan: Plan) -> Stop | None:
    """What of a plan is done by the day the car is needed; None where no day is known. What cannot be undone is not
    begun where the car would then stand open."""
    needed = day_of(build.work.needed)
    if needed is None or plan.first is None:
        return None
    by = (needed - plan.first).days * DAY
    by_key = {step.key: step for step in plan.steps}
    early = [span for span in plan.spans if span.ready <= by]
    late = [span for span in plan.spans if span.ready > by]
    open_then = any(by_key[span.key].state in OFF_ROAD for span in late)
    ends_by = tuple(by_key[span.key] for span in early)
    if not open_then:
        return Stop(ends_by, tuple(by_key[span.key] for span in late), drivable=True)
    # Nothing that opens the car is begun: what is left is what can be made beside it.
    kept = tuple(step for step in ends_by if step.state == "drivable" or step.job.acts[0] in BESIDE)
    return Stop(kept, tuple(step for step in plan.left if step not in kept), drivable=plan.stands == "drivable")


BESIDE = ("circuit", "begin")
"""Acts that are done at the bench while the car can still be driven."""
