"""Every act proved before it is pressed: done on a copy and judged, what it cures, what it brings, how much hotter a
day is held in every duty case, and the amps."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment, CaseFigures, CaseResult
from keelroom.assess.figures.in_hand import FAR
from keelroom.assess.findings import LEVELS, Finding
from keelroom.assess.words import worded
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.errors import KeelRoomError
from keelroom.facts import Fact, fact

HARDLY = 0.3
"""Kelvin of weather under which a case is left as it was."""
VOLTS_MATTER = 0.2
"""Volts at the battery at idle under which a change is not told."""
AMPS_MATTER = 1.0
"""[A] at idle under which a change is not told."""


class Moved(NamedTuple):
    """A duty case an act moves: how much hotter a day [K] is held with it, whether it is held in its own weather
    before and after, and whether it counts."""

    name: str
    hotter: float
    held: bool
    then_held: bool
    counted: bool = True


class Proof(NamedTuple):
    """What an act was seen to do to a copy of the build.

    goes : the finding it is offered for is gone, None where it is offered for none;  less : it stays, but is less
           grave or has less of it
    brings : problems that were not there, one a code;  bares : they may have been there: what could not be worked out
             before now is
    moved : duty cases it moves, in their order;  lost : names of those nothing can be told of any more
    amps, volts : everything on at idle [A], and at the battery then, before and after; None where not known
    fit : how the package fits, before and after, None where that stays;  stopped : why it could not be tried
    """

    goes: bool | None
    less: bool = False
    brings: tuple[Finding, ...] = ()
    bares: bool = False
    moved: tuple[Moved, ...] = ()
    lost: tuple[str, ...] = ()
    amps: tuple[float, float] | None = None
    volts: tuple[float, float] | None = None
    fit: tuple[str, str] | None = None
    stopped: str = ""

    @property
    def fallen(self) -> bool:
        """Whether a case that was held is held no more."""
        return any(case.counted and case.held and not case.then_held for case in self.moved)

    @property
    def offered(self) -> bool:
        """Whether it may be offered: it helps what it is offered for, and no duty case falls by it. What else it brings
        is told beside it."""
        return (self.goes is not False or self.less) and not (self.lost or self.stopped or self.fallen)

    @property
    def sound(self) -> bool:
        """Whether it does what it is offered for and makes nothing worse that was right."""
        return self.goes is not False and self.offered and not self.brings


class Trial(NamedTuple):
    """An act done to a copy. after: the copy as it is judged, None where it was stopped;  seen: what it was seen to do,
    for no finding yet. One trial serves every finding the act is offered for."""

    after: Assessment | None
    seen: Proof

    def proof(self, finding: Finding | None) -> Proof:
        """What it does for a finding; None for a way among others."""
        if self.after is None or finding is None:
            return self.seen if finding is None else self.seen._replace(goes=False)
        left = next((one for one in self.after.findings if one.key == finding.key), None)
        return self.seen._replace(goes=left is None, less=left is not None and _less(left, finding))


@in_one_go
def try_out(before: Assessment, act: Act, system: str = "us") -> Trial:
    """Do an act to a copy of the build `before` judges and judge it anew. An act that does not apply is stopped, with
    the reason."""
    build = before.build
    try:
        changed = apply(build, edit_for(build, act, system))
    except KeelRoomError as error:
        return Trial(None, Proof(None, stopped=error.message))
    after = first_wave(changed, before.package_id, before)
    if after.stopped and not before.stopped:
        return Trial(None, Proof(None, stopped=after.stopped[0].why))
    moved, lost = _cases(before, after)
    seen = Proof(
        goes=None,
        brings=_new_problems(before, after),
        bares=_unknown(before) > _unknown(after),
        moved=moved,
        lost=lost,
        amps=_both(before.totals.amps_at_idle, after.totals.amps_at_idle),
        volts=_both(before.totals.volts_at_idle, after.totals.volts_at_idle),
        fit=_fits(before, after),
    )
    return Trial(after, seen)


def prove(before: Assessment, finding: Finding | None, act: Act, system: str = "us") -> Proof:
    """What an act does to the build `before` judges, for the finding it is offered for, or as a way among others."""
    return try_out(before, act, system).proof(finding)


def _both(was: float | None, now: float | None) -> tuple[float, float] | None:
    return None if was is None or now is None else (was, now)


def _fits(before: Assessment, after: Assessment) -> tuple[str, str] | None:
    if before.fit is None or after.fit is None or before.fit.verdict == after.fit.verdict:
        return None
    return before.fit.verdict, after.fit.verdict


def _less(left: Finding, was: Finding) -> bool:
    if left.level != was.level:
        return LEVELS.index(left.level) > LEVELS.index(was.level)
    return left.value is not None and was.value is not None and abs(left.value) < abs(was.value) - 1e-9


def _unknown(judged: Assessment) -> int:
    """How much of a build could not be worked out."""
    unsolved = sum(case.figures is None for case in judged.cases)
    return unsolved + len(judged.stopped) + (judged.electrics is None or judged.electrics.idle is None)


def _new_problems(before: Assessment, after: Assessment) -> tuple[Finding, ...]:
    """The first of each code: what an act says twice is one thing to mind."""
    known = {one.key for one in before.findings if one.level == "problem"}
    # What settles at last, over its limit, is no worse than what did not.
    known |= {("over_limit", one.where) for one in before.findings if one.code == "does_not_settle"}
    new = {one.code: one for one in reversed(after.findings) if one.level == "problem" and one.key not in known}
    return tuple(reversed(new.values()))


def _cases(before: Assessment, after: Assessment) -> tuple[tuple[Moved, ...], tuple[str, ...]]:
    """Duty cases that are moved, and those lost; by the weather in hand, which tells right where fans switch too."""
    then = {case.case_id: case.figures for case in after.cases}
    both = [(case, case.figures, then.get(case.case_id)) for case in before.cases if case.figures]
    moved = tuple(_moved(case, was, now) for case, was, now in both if now)
    lost = tuple(case.name for case, _, now in both if not now)
    return tuple(case for case in moved if abs(case.hotter) >= HARDLY or case.held != case.then_held), lost


def _moved(case: CaseResult, was: CaseFigures, now: CaseFigures) -> Moved:
    return Moved(case.name, now.in_hand.hotter(was.in_hand) or 0.0, was.held, now.held, case.counted)


def proof_told(proof: Proof) -> tuple[Fact, ...]:
    """What was seen, in short: gone or not, how the cases are moved, the amps."""
    if proof.stopped:
        return (fact("tried.stopped", why=proof.stopped),)
    first = fact(_seen(proof))
    days = {
        code: tuple(_day(case) for case in proof.moved if sense * case.hotter >= HARDLY)
        for code, sense in (("tried.hotter", 1), ("tried.cooler", -1))
    }
    turned = tuple(
        fact("tried.held" if case.then_held else "tried.fallen", name=case.name)
        for case in proof.moved
        if case.held != case.then_held
    )
    lost = (fact("tried.lost", names=proof.lost),) if proof.lost else ()
    drawn = tuple(
        fact(code, was=pair[0], now=pair[1])
        for code, pair, least in (
            ("tried.amps", proof.amps, AMPS_MATTER),
            ("tried.volts", proof.volts, VOLTS_MATTER),
        )
        if pair is not None and abs(pair[1] - pair[0]) >= least
    )
    fits = (fact("tried.fit", was=proof.fit[0], now=proof.fit[1]),) if proof.fit else ()
    if proof.goes is None and not (proof.moved or lost or drawn or fits or proof.brings):
        return (fact("tried.same"),)
    told = (fact(code, moved=moved) for code, moved in days.items() if moved)
    return (first, *told, *turned, *lost, *fits, *drawn)


def _day(case: Moved) -> Fact:
    if abs(case.hotter) > FAR:
        return fact("tried.far", name=case.name, by=(FAR, "temperature difference"))
    return fact("tried.day", name=case.name, by=(abs(case.hotter), "temperature difference"))


def _seen(proof: Proof) -> str:
    if proof.goes is None:
        return "tried.done"
    return "tried.goes" if proof.goes else "tried.less" if proof.less else "tried.stays"


def brought_words(proof: Proof, system: str) -> str:
    """The problems it brings, in one sentence; '' where it brings none."""
    whats = "; ".join(f"“{worded(one, system).what}”" for one in proof.brings)
    return f"{'Then shown' if proof.bares else 'It brings'}: {whats}." if whats else ""


def done_words(act: Act, was: Assessment, now: Assessment, system: str) -> str:
    """What an act that was done brought, with the way back; '' where it brought no problem."""
    brought = _new_problems(was, now) if now.judged else ()
    if not brought:
        return ""
    more = f" and {len(brought) - 1} more" if len(brought) > 1 else ""
    return f"{act.label}: now “{worded(brought[0], system).what}”{more}. Undo takes it back."
