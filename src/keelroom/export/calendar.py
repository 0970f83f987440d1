"""The work as appointments of a calendar, in the open format every calendar reads (iCalendar, RFC 5545)."""

from __future__ import annotations

import datetime
from pathlib import Path

from icalendar import Calendar, Event

from keelroom.assess.questions.record import cautions_of
from keelroom.assess.work.plan import Plan
from keelroom.assess.work.steps import Step
from keelroom.catalogue.steps import STATES
from keelroom.core.plan.network import DAY
from keelroom.errors import ExportError, readable
from keelroom.export.whole import write_whole


def calendar_bytes(plan: Plan, title: str, now: datetime.datetime) -> bytes:
    """One appointment for each stretch the car stays in one state, its steps in its text, times as the shop's clock has
    them. Raises ExportError where nobody said on which day the work begins."""
    if plan.first is None:
        raise ExportError("no_first_day", "The calendar wants the day the work begins: Work, Hours")
    calendar = Calendar()
    calendar.add("prodid", "-//Keel Room//Work//EN")
    calendar.add("version", "2.0")
    midnight = datetime.datetime.combine(plan.first, datetime.time())
    by_key = {step.key: step for step in plan.steps}
    for number, (begins, ends, steps) in enumerate(_stretches(plan, by_key)):
        event = Event()
        state = STATES[steps[0].state]
        event.add("uid", f"{plan.first.isoformat()}-{number}@keelroom")
        event.add("dtstamp", now)
        event.add("dtstart", midnight + datetime.timedelta(seconds=round(begins)))
        event.add("dtend", midnight + datetime.timedelta(seconds=round(ends)))
        event.add("summary", readable(f"{title}: {state}", 200))
        event.add("description", "\n".join(readable(step.words, 400) for step in steps))
        calendar.add_component(event)
    if plan.steps:
        calendar.add("comment", "\n".join(cautions_of(plan)))
    found: bytes = calendar.to_ical()
    return found


def _stretches(plan: Plan, by_key: dict[str, Step]) -> list[tuple[float, float, list[Step]]]:
    """Steps one after another on one day in one state, together."""
    found: list[tuple[float, float, list[Step]]] = []
    for span in plan.spans:
        step = by_key[span.key]
        if found:
            begins, ends, steps = found[-1]
            if steps[-1].state == step.state and int(begins // DAY) == int(span.begins // DAY):
                found[-1] = (begins, max(ends, span.ends), [*steps, step])
                continue
        found.append((span.begins, span.ends, [step]))
    return found


def write_calendar(plan: Plan, title: str, path: Path) -> None:
    """Write it. Raises ExportError saying why where it cannot be; an older one then stays."""
    now = datetime.datetime.now(datetime.UTC)
    write_whole(path, calendar_bytes(plan, title, now), "calendar_not_written")
