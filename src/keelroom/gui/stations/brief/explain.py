"""What would explain it: the cheap causes held against what the car did, by odds, with where to look first."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout

from keelroom.assess.acts.registry import offer
from keelroom.assess.causes import CAUSES, RISKS, Cause
from keelroom.assess.faults import Fault, size_words
from keelroom.assess.figures.seen import seen_cases
from keelroom.assess.mended import entered
from keelroom.assess.questions.explain import BOILS, FITS, Explained, Explanation, explained
from keelroom.assess.trials.seen_in import with_trials
from keelroom.assess.words import worded
from keelroom.gui.session.session import Session
from keelroom.gui.stations.brief.causes import marking
from keelroom.gui.stations.brief.drawn import seen_drawing
from keelroom.gui.widgets.sought import SoughtPage
from keelroom.gui.widgets.text import button, label
from keelroom.units import KINDS, format_si

INTRO = (
    "Each cheap cause, alone and in pairs, entered in the car as found and held against what it did and what it did "
    "not. Odds are those of common practice before, and of these readings after; temperatures are planning estimates. "
    "Hot coolant under pressure scalds: never open a cap on a hot system. Fans start without warning: disconnect "
    "before hands go in."
)
NOTHING = (
    "Nothing is said yet of what the car did. On the Before page, mark a symptom, or say for each duty case whether it "
    "ran hot or stayed, what the gauge read, after how many minutes, on what day. Where a cause was found and mended, "
    "drive it again first."
)
UNANSWERED = (
    "What the car did is said, but the car as found cannot be worked out in those cases yet: an entry is missing, or "
    "one leaves a law. The ledger and Findings name it, with the car as found in use."
)
TEMPERATURE = KINDS["temperature"]
MISFIT = (
    "Even the likeliest does not read all that was seen: two readings may not belong together, a day or a gauge may be "
    "wrong, or it is something that is not on this list. Read it again before anything is bought."
)
EXPLAINED = "What was found explains what was seen. Mend it, drive it again, and say what it does then."
UNLIKELY = 0.02
"""Odds under which no look is worth its minutes."""
BY_ID = {cause.id: cause for cause in CAUSES}


def explain_page(session: Session) -> SoughtPage:
    """The page."""

    def question() -> Callable[[], Explained | None]:
        build = session.build
        return lambda: explained(build)

    def fill(column: QVBoxLayout, found: Explained | None) -> None:
        _entered(column, session)
        if found is None:
            column.addWidget(
                label(session.stopped or (UNANSWERED if seen_cases(with_trials(session.build)) else NOTHING), wrap=True)
            )
            return
        _verdict(column, session, found)
        _look(column, session, found)
        column.addWidget(label("What would explain it, the likeliest first", "head", wrap=True))
        for number, one in enumerate(found.explanations, 1):
            _one(column, session, number, one)
        column.addWidget(label(f"{found.tried} ways held against it.", "faint"))

    return SoughtPage(
        session, "What would explain it", INTRO, question, fill, lambda found: seen_drawing(session, found)
    )


def _verdict(column: QVBoxLayout, session: Session, found: Explained) -> None:
    """Whether the build as entered could do what was seen."""
    unlike = [finding for finding in session.assessment.findings if finding.code == "unlike_seen"]
    for finding in unlike:
        column.addWidget(label(f"{worded(finding, session.system).what}.", "strong", wrap=True))
    if not unlike:
        column.addWidget(label("What was seen is within the doubt of the build as entered.", "strong", wrap=True))
    share = f"{found.met:.0%}" if found.met >= 0.01 else "under 1%"
    against = f"As entered, what was seen is {share} as likely as with the likeliest of what would explain it."
    column.addWidget(label(against, "faint", wrap=True))
    if found.fits < FITS:
        column.addWidget(label(MISFIT, "doubt", wrap=True))
    column.addSpacing(6)


def _entered(column: QVBoxLayout, session: Session) -> None:
    """Causes that were found and stand in the car as found, each with what mends it."""
    there = entered(session.build)
    if there:
        column.addWidget(label("Found, and entered in the car as found", "head"))
        column.addWidget(
            label(
                "The car as found has it until it is mended. Other packages are judged on the car as mended.",
                wrap=True,
            )
        )
    for check in there:
        cause = BY_ID.get(check.id)
        if cause is None:
            continue
        line = QHBoxLayout()
        line.addWidget(label(f"{cause.name} ({size_words(check.size, session.system)})", "strong", wrap=True), 1)
        for words, act in (("Mended", marking(cause, "mended")), ("It was none", marking(cause, "open"))):
            line.addWidget(button(words, partial(session.do, act), f"{cause.name}: {words.lower()}"))
        column.addLayout(line)
    if there:
        column.addSpacing(8)


def _look(column: QVBoxLayout, session: Session, found: Explained) -> None:
    """Where a look tells most for its minutes, and what cannot be told by any temperature."""
    look = found.look
    if entered(session.build) and not found.explanations[0].faults:
        column.addWidget(label(EXPLAINED, "strong", wrap=True))
        column.addSpacing(8)
        return
    if look is None or look.odds < UNLIKELY:
        return
    cause = BY_ID[look.cause]
    column.addWidget(label("Look here first", "head"))
    risk, _ = RISKS[cause.risk]
    column.addWidget(label(f"{cause.name}, {cause.minutes:.0f} min, {risk}: odds {look.odds:.0%}", "strong", wrap=True))
    column.addWidget(label(cause.test, wrap=True))
    line = QHBoxLayout()
    line.addWidget(_fine(session, cause))
    line.addStretch(1)
    column.addLayout(line)
    if found.alike:
        names = "; ".join(_words(one.faults, session.system) for one in found.alike)
        column.addWidget(
            label(f"No temperature here tells the likeliest from: {names}. Only a look does.", "doubt", wrap=True)
        )
    if found.level:
        names = ", ".join(BY_ID[one.cause].name.lower() for one in found.level)
        column.addWidget(
            label(f"These readings hardly part {len(found.level)} causes: {names}. Looks decide.", "doubt", wrap=True)
        )
    column.addSpacing(8)


def _fine(session: Session, cause: Cause) -> QPushButton:
    act = marking(cause, "fine")
    return button("Looked at, fine", partial(session.do, act), act.label)


def _words(faults: tuple[Fault, ...], system: str, unlike: bool = False) -> str:
    """An explanation in words. unlike: what was seen is past what the build could do as entered"""
    if not faults:
        where = "at the far end of the doubt of its heat" if unlike else "within the doubt of its heat"
        return f"As it is entered, {where}"
    return " and ".join(f"{BY_ID[fault.cause].name} ({size_words(fault.size, system)})" for fault in faults)


def _one(column: QVBoxLayout, session: Session, number: int, one: Explanation) -> None:
    """One explanation: its odds, what it reads in each case, and the acts that enter it."""
    words = _words(one.faults, session.system, bool(session.assessment.unlike))
    head = QHBoxLayout()
    head.addWidget(label(f"{number}. {words}", "strong", wrap=True), 1)
    odds = label(f"{one.odds:.0%}", "strong")
    odds.setAccessibleName(f"{words}: odds {one.odds:.0%}")
    head.addWidget(odds)
    column.addLayout(head)
    column.addLayout(_readings(session, one))
    for fault in one.faults:
        if fault.changes:
            column.addLayout(_found(session, fault, len(one.faults) > 1))
    column.addSpacing(8)


def _found(session: Session, fault: Fault, several: bool) -> QHBoxLayout:
    """The button that enters a cause that was found; with its size where it is one of several."""
    size = size_words(fault.size, session.system)
    told = f"{BY_ID[fault.cause].name}: {size}"
    act = offer("enter_cause", "", f"Found: {told}", cause=fault.cause, size=fault.size)
    line = QHBoxLayout()
    name = f"Found, {size}: enter it" if several else "Found: enter it"
    line.addWidget(button(name, partial(session.do, act), f"{told}: found, enter it"))
    line.addStretch(1)
    return line


def _readings(session: Session, one: Explanation) -> QGridLayout:
    """What it would read in each duty case, those that were seen marked."""
    grid = QGridLayout()
    grid.setHorizontalSpacing(14)
    build = with_trials(session.build)
    cases = [case for case in build.duty_cases if case.id in one.readings]
    told = {case.id: case.seen for case in seen_cases(build)}
    for row, case in enumerate(cases):
        reads = one.readings[case.id]
        shown = format_si(reads, TEMPERATURE, session.system) if reads < BOILS else "boils"
        seen = {"hot": "ran hot", "fine": "stayed"}.get(told.get(case.id, ""), "")
        for place, text in enumerate((case.name or case.id, shown, seen)):
            grid.addWidget(label(text, "faint"), row, place)
    grid.setColumnStretch(3, 1)
    return grid
