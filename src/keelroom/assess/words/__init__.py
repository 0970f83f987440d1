"""The English of what is judged: every finding and clause by its code, one table a topic; no rule is decided here."""

from __future__ import annotations

from collections.abc import Iterable

from keelroom.assess.findings import Finding
from keelroom.assess.words import (
    air,
    charging,
    circuits,
    claims,
    coolers,
    driven,
    electrical,
    entries,
    fit,
    hoses,
    judge,
    loop,
    moves,
    panels,
)
from keelroom.assess.words.clauses import CLAUSES
from keelroom.assess.words.filling import FILLING
from keelroom.assess.words.made import MADE
from keelroom.assess.words.told import Told, Worded
from keelroom.core.packaging.pattern import Pattern
from keelroom.facts import Fact, fact, said

TOPICS = (air, charging, circuits, claims, coolers, driven, electrical, entries, fit, hoses, judge, loop, moves, panels)
SENTENCES: dict[str, Told] = {code: told for topic in TOPICS for code, told in topic.TOLD.items()}
"""What and why of each finding by its code, or by its code and form with a dot between."""
CODES: dict[str, str] = {code.partition(".")[0]: told.means for code, told in SENTENCES.items() if told.means}
"""Every code a finding can have, with what it means: other programs and the machine form's readers go by it."""
WORDED: dict[str, str] = {code: told.what for code, told in SENTENCES.items()} | CLAUSES | FILLING | MADE


def worded(finding: Finding, system: str) -> Worded:
    """A finding's sentences in one unit system, "us" or "si"."""
    told = SENTENCES[f"{finding.code}.{finding.form}" if finding.form else finding.code]
    what, why = (said(text, finding.figures, system, WORDED) for text in told[:2])
    if not finding.assumed:
        return Worded(what, why)
    rests = fact("rests_on_assumed", entries=finding.assumed, first=finding.assumed[0])
    return Worded(what, f"{why} {clause(rests, system)}")


def clause(fact: Fact, system: str) -> str:
    """A fact's clause in one unit system."""
    return said(WORDED[fact.code], fact.figures, system, WORDED)


def clauses(facts: Iterable[Fact], system: str) -> list[str]:
    """The clause of each in one unit system."""
    return [clause(fact, system) for fact in facts]


def not_to_cut(pattern: Pattern, system: str) -> str:
    """What stands on every sheet, list and file of a piece that cannot be made; '' where it can."""
    return f"DO NOT CUT: {'; '.join(clauses(pattern.faults, system))}" if pattern.faults else ""
