"""Tasks that need each other: their order, the longest way through them, and who does what when."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Mapping, Sequence
from graphlib import CycleError, TopologicalSorter
from typing import NamedTuple

from keelroom.errors import InputError

DAY = 86400.0


class Task(NamedTuple):
    """One step. works [s] of its people's time;  hands : people it takes;  waits [s] that pass before what needs it may
    begin, while anybody does something else;  needs : keys;  after [s] : it is not begun before, for want of a part"""

    key: str
    works: float
    hands: int = 1
    waits: float = 0.0
    needs: tuple[str, ...] = ()
    after: float = 0.0


class Slack(NamedTuple):
    """A task with as many hands as wished. early : when it can begin [s];  late : when it must, for the whole to end no
    later;  tail [s] : from its beginning to the end of all that hangs on it"""

    early: float
    late: float
    tail: float

    @property
    def critical(self) -> bool:
        """Whether the whole ends later where it does."""
        return self.late - self.early < 1e-6


class Hours(NamedTuple):
    """When is worked: from `begins` [s of a day] for `lasts` [s], on days of the week (0 Monday), the first day being
    `first`."""

    begins: float = 9 * 3600.0
    lasts: float = 8 * 3600.0
    days: frozenset[int] = frozenset(range(7))
    first: int = 0


class Span(NamedTuple):
    """When a task is done, [s] from midnight before the first day. begins, ends: of the work;  ready: its waiting over
    who : places of the people"""

    key: str
    begins: float
    ends: float
    ready: float
    who: tuple[int, ...]


def ordered(tasks: Sequence[Task]) -> tuple[str, ...]:
    """Keys so that each comes after what it needs, else as they stand. Needs that are no task are let go.

    Raises InputError naming a ring. Source: graphlib.
    """
    known = {task.key: place for place, task in enumerate(tasks)}
    sorter = TopologicalSorter({task.key: [need for need in task.needs if need in known] for task in tasks})
    try:
        sorter.prepare()
    except CycleError as error:
        ring = " → ".join(str(one) for one in error.args[1])
        raise InputError("plan_ring", f"These steps wait for each other: {ring}", ring=ring) from None
    found: list[str] = []
    ready: list[int] = []
    keys = [task.key for task in tasks]
    while sorter.is_active():
        for key in sorter.get_ready():
            heapq.heappush(ready, known[key])
        place = heapq.heappop(ready)
        found.append(keys[place])
        sorter.done(keys[place])
    return tuple(found)


def slacks(tasks: Sequence[Task]) -> dict[str, Slack]:
    """Every task on its own longest way, hands without end and nights left out.

    Raises InputError as `ordered`. Source: critical path method (Kelley and Walker, 1959).
    """
    by_key = {task.key: task for task in tasks}
    order = ordered(tasks)
    early: dict[str, float] = {}
    for key in order:
        task = by_key[key]
        early[key] = max((_ready(early, by_key[need]) for need in task.needs if need in by_key), default=0.0)
    whole = max((_ready(early, task) for task in tasks), default=0.0)
    tails: dict[str, float] = {key: 0.0 for key in order}
    for key in reversed(order):
        task = by_key[key]
        tails[key] += task.works + task.waits
        for need in task.needs:
            if need in tails:
                tails[need] = max(tails[need], tails[key])
    return {key: Slack(early[key], whole - tails[key], tails[key]) for key in order}


def _ready(early: Mapping[str, float], task: Task) -> float:
    return early[task.key] + task.works + task.waits


def scheduled(
    tasks: Sequence[Task], people: int, hours: Hours, done: Iterable[str] = (), begins: float = 0.0
) -> tuple[Span, ...]:
    """Who does what when: of what can begin first the task with most hanging on it. A task that fits in no rest of a
    day is begun on the next, unless it is longer than a day. Waiting goes on over night.

    people : at work, 1 at least; a task that takes more is done by all there are
    done : keys that need not be done any more;  begins [s] : not before
    Raises InputError as `ordered`; ValueError where nobody ever works. Source: serial list scheduling by tail.
    """
    if not hours.days or hours.lasts <= 0:
        raise ValueError("nobody ever works")
    left = [task for task in tasks if task.key not in set(done)]
    tails, by_key = slacks(left), {task.key: task for task in left}
    missing = {task.key: sum(need in by_key for need in task.needs) for task in left}
    after: dict[str, list[str]] = {}
    for task in left:
        for need in task.needs:
            if need in by_key:
                after.setdefault(need, []).append(task.key)
    free = [max(begins, 0.0)] * max(people, 1)
    ready: dict[str, float] = {key: begins for key, count in missing.items() if count == 0}
    spans: list[Span] = []
    while ready:
        key, who, at = _next(ready, by_key, tails, free, hours)
        task = by_key[key]
        ends = worked(at, task.works, hours)
        for person in who:
            free[person] = ends
        spans.append(Span(key, at, ends, ends + task.waits, who))
        del ready[key]
        for follower in after.get(key, ()):
            missing[follower] -= 1
            if missing[follower] == 0:
                done_at = {span.key: span.ready for span in spans}
                ready[follower] = max(done_at[need] for need in by_key[follower].needs if need in done_at)
    return tuple(sorted(spans, key=lambda span: (span.begins, span.ends, span.key)))


def _next(
    ready: Mapping[str, float],
    by_key: Mapping[str, Task],
    tails: Mapping[str, Slack],
    free: Sequence[float],
    hours: Hours,
) -> tuple[str, tuple[int, ...], float]:
    best: tuple[float, float, str] | None = None
    chosen: tuple[int, ...] = ()
    soonest = sorted(range(len(free)), key=lambda person: (free[person], person))
    for key, can in ready.items():
        task = by_key[key]
        who = tuple(sorted(soonest[: min(max(task.hands, 1), len(free))]))
        at = opening(max(can, task.after, *(free[person] for person in who)), task.works, hours)
        rank = (at, -tails[key].tail, key)
        if best is None or rank < best:
            best, chosen = rank, who
    assert best is not None
    return best[2], chosen, best[0]


def opening(at: float, works: float, hours: Hours) -> float:
    """The first moment from `at` [s] a task can be begun at: in working hours, with the rest of the day long enough for
    it where a day is.

    Source: definition.
    """
    day = int(at // DAY)
    while True:
        if (hours.first + day) % 7 in hours.days:
            opens = day * DAY + hours.begins
            moment = max(at, opens)
            left = opens + hours.lasts - moment
            if left > 1e-6 and (works <= left + 1e-6 or (works > hours.lasts and left > 0.25 * hours.lasts)):
                return moment
        day += 1
        at = max(at, day * DAY)


def worked(at: float, works: float, hours: Hours) -> float:
    """When a task begun at `at` [s] is done, nights and free days left out.

    Source: definition.
    """
    left, moment = works, at
    while True:
        day = int(moment // DAY)
        if (hours.first + day) % 7 in hours.days:
            opens = day * DAY + hours.begins
            moment = max(moment, opens)
            room = opens + hours.lasts - moment
            if left <= room + 1e-9:
                return moment + left
            left -= max(room, 0.0)
        moment = (day + 1) * DAY
