"""The work hung on a tape: the car's states along it, every step where it is begun, what cannot be undone as a gate."""

from __future__ import annotations

import datetime
import math
from typing import NamedTuple

from keelroom.assess.drives.words import clock
from keelroom.assess.work.money import HOUR, Estimate
from keelroom.assess.work.plan import Plan, hours_of, states_of
from keelroom.assess.work.steps import Step
from keelroom.catalogue.steps import STATES
from keelroom.core.plan.network import DAY, Span
from keelroom.document.schema.build import Build
from keelroom.drawing.degrees import Lane, Spot, degrees_scene
from keelroom.drawing.scene import MM, Circle, Label, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.units import Unit

ROW, HEAD, FOOT = 17.0, 26.0, 14.0
TAPE_LEFT, TAPE_RIGHT, HANGS, WORDS, WIDE = 96.0, 122.0, 156.0, 168.0, 660.0
"""[mm] of the sheet: the tape between its edges, where steps hang, where their words begin"""
LETTERS = 60
"""of a step's words that are shown; the list beside has them whole"""
MARK = 3.6
HOURS_UNIT = Unit("h", 3600.0, decimals=1)
MOST_JOBS = 14


class Hung(NamedTuple):
    """A drawing of the work, and which step hangs at which height [m] of the sheet."""

    scene: Scene
    rows: tuple[tuple[float, str], ...]


def work_scene(build: Build, plan: Plan) -> Hung:
    """The plan from its first step to its last, those done over it."""
    by_key = {step.key: step for step in plan.steps}
    done = [step for step in plan.steps if step.key in plan.done]
    shapes: list[Shape] = []
    rows: list[tuple[float, str]] = []
    y = -HEAD
    for step in done:
        shapes += _hung(step, y, None, _done_words(plan, step), True)
        rows.append((y * MM, step.key))
        y -= ROW
    if done and plan.spans:
        shapes.append(Polyline("rail", (on_sheet(HANGS, y + ROW / 2), on_sheet(WIDE, y + ROW / 2))))
    top, tall = y, ROW * max(len(plan.spans), 1)
    at = _Along(build, plan, top, tall)
    shapes += at.tape()
    for span in plan.spans:
        step = by_key[span.key]
        when = f"{at.clock(span.begins)}, {_minutes(span)}"
        critical = span.key in plan.slacks and plan.slacks[span.key].critical
        shapes += _hung(step, y, (at.y(span.begins), at.y(span.ends), critical), when, False)
        if span.ready > span.ends + 60:
            line = (on_sheet(TAPE_RIGHT + 3, at.y(span.ends)), on_sheet(TAPE_RIGHT + 3, at.y(span.ready)))
            shapes.append(Polyline("fit.was", line))
        rows.append((y * MM, step.key))
        y -= ROW
    shapes += at.states()
    deep = -y + FOOT
    return Hung(Scene(tuple(shapes), (0.0, -deep * MM, WIDE * MM, deep * MM)), tuple(rows))


def _hung(step: Step, y: float, hangs: tuple[float, float, bool] | None, when: str, done: bool) -> list[Shape]:
    """One step: where it hangs from the tape, its mark, its words."""
    critical = hangs is not None and hangs[2]
    shapes: list[Shape] = []
    if hangs is not None:
        role = "el.mark" if critical else "el.rule"
        shapes.append(Polyline(role, (on_sheet(TAPE_RIGHT, hangs[0]), on_sheet(HANGS - MARK, y))))
    filled = "span.held" if done else "loop.plain"
    if step.keeps:
        shapes.append(Circle(filled, on_sheet(HANGS, y), MARK * MM))
    else:  # a gate: what comes after it cannot go back
        corners = ((HANGS - 5, y), (HANGS, y + 5), (HANGS + 5, y), (HANGS, y - 5))
        shapes.append(Polyline("el.alarm", tuple(on_sheet(*one) for one in corners), closed=True))
        shapes.append(Circle(filled, on_sheet(HANGS, y), 0.5 * MARK * MM))
    words = step.words if len(step.words) <= LETTERS else f"{step.words[: LETTERS - 1].rstrip(' ,:')}…"
    shapes.append(Label("el.value" if critical else "el.words", on_sheet(WORDS, y), words, "start"))
    shapes.append(Label("el.words", on_sheet(WIDE, y), when, "end"))
    return shapes


def _minutes(span: Span) -> str:
    lasts = max(round((span.ends - span.begins) / 60), 1) * 60.0
    return clock(lasts) if lasts < 4 * HOUR else f"to {(span.ends % DAY) / HOUR:.0f}:00"


def _done_words(plan: Plan, step: Step) -> str:
    tick = plan.ticks[step.key]
    took = f", {clock(tick.took.si)}" if tick.took else ""
    went = {"twice": "made twice", "other": "other part"}.get(tick.went, "done")
    return f"{went}{took}"


class _Along:
    """Places along the tape: worked hours alone, nights left out."""

    def __init__(self, build: Build, plan: Plan, top: float, tall: float) -> None:
        self.plan, self.hours, self.top, self.tall = plan, hours_of(build.work), top, tall
        days = sorted({int(moment // DAY) for span in plan.spans for moment in (span.begins, span.ends)})
        self.days = days or [0]
        ends = max((self._worked(span.ends) for span in plan.spans), default=0.0)
        begins = min((self._worked(span.begins) for span in plan.spans), default=0.0)
        self.begins, self.lasts = begins, max(ends - begins, 1.0)

    def _worked(self, moment: float) -> float:
        """Hours worked before a moment [s]."""
        day = int(moment // DAY)
        before = sum(one < day for one in self.days) * self.hours.lasts
        inside = min(max(moment - day * DAY - self.hours.begins, 0.0), self.hours.lasts) if day in self.days else 0.0
        return before + inside

    def y(self, moment: float) -> float:
        """[mm] on the sheet."""
        share = (self._worked(moment) - self.begins) / self.lasts
        return self.top + ROW / 2 - self.tall * min(max(share, 0.0), 1.0)

    def clock(self, moment: float) -> str:
        """A moment as a shop says it: the hour, and the day where there are several."""
        minutes = round((moment % DAY) / 60)
        return f"{self.day(int(moment // DAY))} {minutes // 60}:{minutes % 60:02d}".strip()

    def day(self, number: int) -> str:
        """A day by its date, or its number where nobody said when it begins."""
        if self.plan.first is not None:
            day = self.plan.first + datetime.timedelta(days=number)
            return f"{day:%a} {day.day} {day:%b}"
        return f"day {self.days.index(number) + 1}" if len(self.days) > 1 and number in self.days else ""

    def tape(self) -> list[Shape]:
        """The tape with a mark each half hour, the hour written, each day named where it begins."""
        top, foot = self.top + ROW / 2, self.top + ROW / 2 - self.tall
        shapes: list[Shape] = [
            Rect("span.hot", TAPE_LEFT * MM, foot * MM, (TAPE_RIGHT - TAPE_LEFT) * MM, self.tall * MM)
        ]
        half = HOUR / 2
        for day in self.days:
            opens = day * DAY + self.hours.begins
            last = int(self.hours.lasts // half)
            for k in range(last + 1):
                moment = opens + k * half
                if not self.begins - 1 <= self._worked(moment) <= self.begins + self.lasts + 1:
                    continue
                y, whole = self.y(moment), k % 2 == 0
                shapes.append(
                    Polyline("el.flag", (on_sheet(TAPE_LEFT, y), on_sheet(TAPE_LEFT + (9 if whole else 5), y)))
                )
                if whole and k < last and self.tall / self.lasts * HOUR > 11:
                    shapes.append(Label("bar.word", on_sheet(TAPE_RIGHT - 2, y), f"{(moment % DAY) / HOUR:.0f}", "end"))
            if self.begins <= self._worked(opens) <= self.begins + self.lasts:
                y = min(self.y(opens), top)
                shapes.append(Polyline("rail.limit", (on_sheet(TAPE_LEFT - 6, y), on_sheet(TAPE_RIGHT + 6, y))))
        return shapes

    def states(self) -> list[Shape]:
        """The car's states beside the tape, and from when to when it cannot be driven."""
        shapes: list[Shape] = []
        free = math.inf
        for state, begins, _ in states_of(self.plan):
            y = min(self.y(begins), free - 13)
            free = y
            shapes.append(Label("rail.name", on_sheet(TAPE_LEFT - 14, y), STATES[state], "end"))
            shapes.append(Polyline("el.rule", (on_sheet(TAPE_LEFT - 12, y), on_sheet(TAPE_LEFT, self.y(begins)))))
        off = self.plan.off_road
        if off is not None:
            x = TAPE_LEFT - 4
            shapes.append(Polyline("bar.short", (on_sheet(x, self.y(off[0])), on_sheet(x, self.y(off[1])))))
        return shapes


def hours_scene(plan: Plan, estimate: Estimate) -> Scene:
    """What takes the hours, the jobs that are most in doubt first: likely, from low to high."""
    lanes = []
    spread = dict(estimate.moves)
    by_job: dict[str, list[Step]] = {}
    for step in plan.steps:
        by_job.setdefault(step.job.name, []).append(step)
    for name in sorted(by_job, key=lambda one: -spread.get(one, 0.0))[:MOST_JOBS]:
        own = by_job[name]
        low, likely, high = (
            sum(getattr(step, part) * step.hands for step in own) for part in ("low", "likely", "high")
        )
        lanes.append(Lane(name, (Spot(likely, "now", low, high),), f"{100 * spread.get(name, 0.0):.0f} % of the doubt"))
    return degrees_scene(tuple(lanes), (), (("now", "likely"),), HOURS_UNIT)
