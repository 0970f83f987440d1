"""The plan of the package in use and what it costs: shared by the station's pages."""

from __future__ import annotations

import datetime

from PyQt6.QtCore import QObject, pyqtSignal

from keelroom.assess.drives.words import clock
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.work.money import HOUR, Estimate, estimated
from keelroom.assess.work.plan import Plan, before_needed, evenings, hours_of, planned
from keelroom.assess.work.shopping import amount_words
from keelroom.assess.work.steps import Step, table_fault
from keelroom.core.plan.network import DAY
from keelroom.gui.rows import Said
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.units import money_text

NO_WORK = "This package is the car as it was found: nothing is done to it."


class Plans(QObject):
    """`come` when the estimate has been worked out, `turned` when another step is looked at."""

    come = pyqtSignal()
    turned = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.estimate: Estimate | None = None
        self.asked: object = None
        self.step = ""
        """the key of the step that is looked at"""
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)

    @property
    def plan(self) -> Plan | Stopped:
        """As the build stands; worked out once for each."""
        build = self.session.build
        return attempted("The plan of the work", ("work",), lambda: planned(build, build.package))

    def ask(self) -> None:
        """Work the estimate out where the build is another."""
        build = self.session.build
        if self.asked is build:
            return
        self.asked = build
        self.worker.ask(lambda: estimated(build, build.package, planned(build, build.package)))

    def _answered(self, found: Estimate) -> None:
        self.estimate = found
        self.come.emit()

    def look_at(self, key: str) -> None:
        """Look at another step."""
        if key != self.step:
            self.step = key
            self.turned.emit()


def shortened(words: str, most: int) -> str:
    """Words cut at one's end, with a sign that they go on."""
    return words if len(words) <= most else f"{words[: most - 1].rsplit(' ', 1)[0].rstrip(' ,:;')}…"


def when(plan: Plan, moment: float) -> str:
    """A moment of the plan in words."""
    day, minutes = int(moment // DAY), round((moment % DAY) / 60)
    hour = f"{minutes // 60}:{minutes % 60:02d}"
    if plan.first is None:
        return f"day {day + 1}, {hour}"
    date = plan.first + datetime.timedelta(days=day)
    return f"{date:%a} {date.day} {date:%b}, {hour}"


def plan_words(session: Session, plan: Plan, estimate: Estimate | None) -> Said:
    """The plan in sentences."""
    if not plan.steps:
        return (("", NO_WORK),)
    said: list[tuple[str, str]] = []
    people = int(session.build.work.people.si)
    if estimate is not None:
        band = estimate.hours
        words = f"{band.middle / HOUR:.0f} h of work, {band.low / HOUR:.0f} to {band.high / HOUR:.0f} in 80 of 100"
        said.append(("strong", f"{words}, all hands together."))
    if plan.spans:
        by = f"{people} people" if people > 1 else "one person"
        first, last = when(plan, plan.spans[0].begins), when(plan, plan.ends)
        said.append(("", f"By {by}, from {first} to {last}."))
    off = plan.off_road
    if off is not None:
        said.append(("doubt", f"The car cannot be driven from {when(plan, off[0])} to {when(plan, off[1])}."))
    if plan.done:
        said.append(("good", f"{len(plan.done)} of {len(plan.steps)} steps are done."))
    for tick in plan.gone:
        said.append(("doubt", f"Done, and no longer in the plan: {tick.words}"))
    said += _needed(session, plan)
    said += _evenings(plan)
    hands = [step for step in plan.left if step.hands > people]
    if hands:
        said.append(("doubt", f"{len(hands)} steps want a second pair of hands: {hands[0].words}"))
    fault = table_fault(session.build.work)
    if fault:
        said.append(("problem", f"{fault}. The table that ships stands for it."))
    return tuple(said)


def _evenings(plan: Plan) -> list[tuple[str, str]]:
    """What each day ends on: something that works, or what then stands open."""
    said = []
    for one in evenings(plan)[:3]:
        day = when(plan, one.day * DAY).partition(",")[0]
        if one.on is None:
            said.append(("doubt", f"{day} ends on nothing that can be checked."))
            continue
        stays = f" {one.open[0].job.name} stays begun overnight." if one.open else ""
        said.append(("doubt" if stays else "", f"{day} ends on {one.on.job.name.lower()}: {one.on.check}{stays}"))
    return said


def _needed(session: Session, plan: Plan) -> list[tuple[str, str]]:
    """What can still be done before the car is needed."""
    stop = before_needed(session.build, plan)
    if stop is None:
        return []
    needed = session.build.work.needed
    if stop.drivable and not stop.not_begun:
        return [("good", f"All of it is done before the car is needed on {needed}.")]
    if not stop.ends_by:
        return [("problem", f"Nothing is begun before {needed}: the car would stand open that day.")]
    words = f"Before {needed} only: {', '.join(step.job.name for step in stop.ends_by[:4])}"
    return [("problem", f"{words}. The front stays on: what opens the car does not end by then.")]


def money_words(session: Session, plan: Plan, estimate: Estimate | None) -> Said:
    """Hours and money in sentences."""
    if not plan.steps:
        return (("", NO_WORK),)
    if estimate is None:
        return (("", "working it out …"),)
    sign, hours = session.settings.currency, estimate.hours
    said: list[tuple[str, str]] = [
        ("strong", f"{hours.middle / HOUR:.1f} h, {hours.low / HOUR:.1f} to {hours.high / HOUR:.1f} in 80 of 100.")
    ]
    if estimate.whole is not None and estimate.labour is not None:
        low, middle, high = (money_text(value, sign) for value in estimate.whole)
        said.append(("strong", f"{middle} in all, {low} to {high} in 80 of 100."))
        labour, more = money_text(estimate.labour.middle, sign), money_text(estimate.contingency, sign)
        said.append(("", f"Hours {labour}, parts {money_text(estimate.parts, sign)}, contingency {more}."))
    else:
        said.append(("", f"Parts {money_text(estimate.parts, sign)}. What an hour costs is not said yet."))
    if estimate.unpriced:
        names, more_ = ", ".join(estimate.unpriced[:5]), len(estimate.unpriced) - 5
        said.append(("doubt", f"Without a price: {names}{f' and {more_} more' if more_ > 0 else ''}."))
    moves = [f"{name} ({share:.0%})" for name, share in estimate.moves[:3] if share >= 0.02]
    if moves:
        said.append(("", f"What moves it most: {', '.join(moves)}."))
    if estimate.took:
        over = estimate.took / max(estimate.planned, 1.0)
        took, wanted = clock(estimate.took), clock(estimate.planned)
        said.append(("", f"Done so far: {took} against {wanted} planned, {over:.2f} times."))
    return tuple(said)


def step_said(plan: Plan, step: Step, system: str) -> Said:
    """All that is to be known of a step at the bench; its cautions are said with them."""
    said: list[tuple[str, str]] = []
    if step.tools:
        said.append(("", f"Tools: {', '.join(step.tools)}."))
    if step.uses:
        said.append(("", f"Uses: {', '.join(f'{what} {amount_words(much, system)}' for what, much in step.uses)}."))
    waiting = [one.words for one in plan.left if one.key in step.needs]
    more = f" and {len(waiting) - 1} more" if len(waiting) > 1 else ""
    if waiting and not step.keeps:
        said.append(("problem", f"Do not begin it: it cannot be undone. First: {waiting[0]}{more}"))
    elif waiting:
        said.append(("doubt", f"First: {waiting[0]}{more}"))
    elif not step.keeps:
        said.append(("problem", "It cannot be undone."))
    if step.hands > 1:
        said.append(("", f"{step.hands} people."))
    if step.waits >= 60:
        said.append(("", f"Then it waits {clock(step.waits)}; something else is done meanwhile."))
    if step.check:
        said.append(("good", f"Before the next: {step.check}"))
    if step.forgotten:
        said.append(("doubt", f"Forgotten again and again: {step.forgotten}"))
    if step.again >= 0.05:
        said.append(("faint", f"Made twice in {step.again:.0%} of cases."))
    return tuple(said)


def opens_at(session: Session) -> float:
    """When a day begins [s]."""
    return hours_of(session.build.work).begins
