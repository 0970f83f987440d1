"""What each thing is worth for this build, each with a button that does it."""

from __future__ import annotations

import math

from PyQt6.QtWidgets import QVBoxLayout

from keelroom.assess.questions.worth import Worth, telling_cases, worth_table
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.gui.session.proofs import Proofs
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.offered import Way
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.gui.widgets.sought import SoughtPage
from keelroom.gui.widgets.text import label
from keelroom.units import KINDS

DIFFERENCE = KINDS["temperature difference"]
TITLE = "What each thing is worth"
INTRO = (
    "Each act tried on this build and solved anew: how much hotter a day it then holds its limit on, with the range "
    "over the doubt in the heat. Over 0 is better, whether the fans run or rest."
)


def change_text(change: tuple[float, float, float], system: str) -> str:
    """How much hotter a day, with its range, or that there is no figure."""
    unit = DIFFERENCE.shown_unit(system)
    if math.isnan(change[0]):
        return "not worked out"
    middle, low, high = (v / unit.factor for v in change)
    if abs(middle) < 0.05:
        return f"0.0 {unit.symbol}"
    return f"{middle:+.1f} {unit.symbol} ({low:+.1f} to {high:+.1f})".replace("-", "−")


def worth_page(session: Session) -> SoughtPage:
    """The page."""

    def question():  # type: ignore[no-untyped-def]
        build = session.build
        return lambda: worth_table(build)

    def fill(column: QVBoxLayout, found: tuple[Worth, ...]) -> None:
        idle, grade = telling_cases(session.build)
        names = [case.name for case in (idle, grade) if case is not None]
        column.addWidget(label(" · ".join(names), "head", wrap=True))
        if not found:
            column.addWidget(label(session.stopped or "Nothing applies: the package needs more first.", wrap=True))
        for worth in found:
            _one(column, worth, proofs, (idle is not None, grade is not None))
        proofs.look([(None, worth.act) for worth in found if not worth.nothing])

    page = SoughtPage(session, "What each thing is worth", INTRO, question, fill, lambda found: drawn(session, found))
    proofs = Proofs(session, page)
    return page


def drawn(session: Session, found: tuple[Worth, ...]) -> Drawing:
    """Every act that moves something, on one scale of how much hotter a day is held with it."""
    idle, grade = telling_cases(session.build)
    cases = ((idle, "now"), (grade, "other"))
    lanes = tuple(
        Lane(
            one.act.label,
            tuple(
                Spot(change[0], sort, *change[1:])
                for change, (case, sort) in zip((one.idle, one.grade), cases, strict=True)
                if case is not None
            ),
        )
        for one in found
        if not one.nothing
    )
    if not lanes:
        return None, TITLE, session.stopped or "Nothing here moves a day worth drawing."
    key = tuple((sort, case.name) for case, sort in cases if case is not None)
    scene = degrees_scene(
        lanes, (Post(0.0, "as it is", "rail.thermostat"),), key, DIFFERENCE.shown_unit(session.system)
    )
    return (
        scene,
        TITLE,
        "How much hotter a day its limit is held on; bars: over the doubt in the heat. Right is better.",
    )


def _one(words: QVBoxLayout, worth: Worth, proofs: Proofs, told: tuple[bool, bool]) -> None:
    session = proofs.session
    words.addWidget(label(worth.act.label, "" if worth.nothing else "strong", wrap=True))
    system = session.system
    changes = zip(told, ("idle", "grade"), (worth.idle, worth.grade), strict=True)
    figures = "\n".join(f"{name} {change_text(change, system)}" for there, name, change in changes if there)
    if worth.cures:
        figures += "\nwith it the hottest day is held that was not"
    shown = label("worth nothing here" if worth.nothing else figures, "faint")
    shown.setAccessibleName(f"{worth.act.label}: {figures}")
    words.addWidget(shown)
    why_not = session.why_not(worth.act)
    if why_not:
        words.addWidget(label(why_not, "faint", wrap=True))
    if why_not or not worth.nothing:
        words.addWidget(Way(session, proofs, worth.act, "Do it"))
    words.addSpacing(5)
