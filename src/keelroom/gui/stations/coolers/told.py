"""Pages of the Aux coolers station that tell: lines of each cooler, noise of each fan set."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.figures.coolernoise import COMPARED, DISTANCE, Loud, loudness
from keelroom.assess.fit.coolers import named
from keelroom.assess.inputs.cases import idle_case
from keelroom.drawing.noise import noise_scene
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.coolers.model import CAUTIONS, lines_said
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.scene_view import WORDED, Drawing, Picture
from keelroom.gui.widgets.text import Line, label, replace_body
from keelroom.units import KINDS, both, format_si, parse

NEAREST, FARTHEST = 0.3, 30.0
"""[m] from which fans are listened to"""


class ToldPage(ScrolledColumn):
    """A column of sentences written anew when what it tells of changes."""

    def __init__(self, session: Session, name: str) -> None:
        super().__init__(session, name)
        self.shown: tuple[Assessment, str, str] | None = None
        self.refresh()

    def refresh(self) -> None:
        state = (self.session.assessment, self.session.case, self.session.system)
        if self.shown is not None and state[0] is self.shown[0] and state[1:] == self.shown[1:]:
            return
        self.shown = state
        body, column = self.blank()
        self.fill(column)
        column.addStretch(1)
        replace_body(self, body)

    def fill(self, column: QVBoxLayout) -> None:
        """Write the sentences."""
        raise NotImplementedError


class LinesPage(ToldPage):
    """What the lines of each cooler lose, hold and want."""

    def fill(self, column: QVBoxLayout) -> None:
        session = self.session
        figures = session.assessment.figures_of(session.case)
        if figures is None:
            column.addWidget(label("Stands here once a duty case is worked out.", wrap=True))
            return
        told = False
        for cooler in session.build.package.coolers:
            said = lines_said(session.build, cooler, figures, session.system)
            if not said:
                continue
            told = True
            column.addWidget(label(named(cooler), "head", wrap=True))
            for role, words in said:
                column.addWidget(label(words, role, wrap=True))
            column.addSpacing(6)
        if not told:
            column.addWidget(label("No cooler here has lines of its own.", wrap=True))
        for caution in CAUTIONS:
            column.addWidget(label(caution, "faint", wrap=True))


class NoisePage(ToldPage):
    """How loud each fan set is at a distance one chooses, and what drowns it."""

    come = pyqtSignal()
    """somebody listens from another place"""

    def __init__(self, session: Session) -> None:
        self.distance, self.typed, self.wrong = DISTANCE, "", ""
        super().__init__(session, "Noise of the fans")

    @property
    def picture(self) -> Picture:
        return Picture("Noise with distance", self._drawn, WORDED)

    def _drawn(self) -> Drawing:
        build = self.session.build
        figures = _standing(self.session)
        told = None if figures is None else partial(loudness, build, figures)
        scene = noise_scene(told, self.distance, self.session.system) if told else None
        if scene is None:
            return None, "Noise with distance", "No fan runs while the car stands."
        return scene, "Noise with distance", "Rings: 1, 3 and 10 m ahead of the grille, every tenfold as far."

    def _listen(self, text: str) -> None:
        """From another place; what is no distance stays as it was typed, with what was expected."""
        unit = self.session.unit(KINDS["length"])
        try:
            metres = parse(text, KINDS["length"], unit.symbol).si
            self.wrong = (
                "" if NEAREST <= metres <= FARTHEST else f"From {both(NEAREST, 'length')} to {both(FARTHEST, 'length')}"
            )
        except InputError as error:
            self.wrong = error.message
        self.typed = text if self.wrong else ""
        self.distance = self.distance if self.wrong else metres
        self.shown = None
        self.refresh()
        self.come.emit()

    def _distance(self) -> QHBoxLayout:
        line = QHBoxLayout()
        line.addWidget(label("Listen at"))
        edit = Line()
        edit.setFixedWidth(84)
        edit.setAccessibleName("Listen at")
        edit.setText(self.typed or format_si(self.distance, KINDS["length"], self.session.system))
        edit.returnPressed.connect(lambda: self._listen(edit.text()))
        line.addWidget(edit)
        line.addWidget(label("ahead of the grille", "faint"))
        line.addStretch(1)
        return line

    def fill(self, column: QVBoxLayout) -> None:
        session = self.session
        figures = _standing(session)
        if figures is None:
            column.addWidget(label("Stands here once a duty case in which the car stands is worked out.", wrap=True))
            return
        found = loudness(session.build, figures, self.distance)
        column.addLayout(self._distance())
        if self.wrong:
            column.addWidget(label(self.wrong, "error", wrap=True))
        column.addWidget(
            label(
                COMPARED,
                "faint",
                wrap=True,
            )
        )
        if not found:
            column.addWidget(label("No fan runs here.", wrap=True))
        for one in found:
            column.addWidget(label(one.name, "head", wrap=True))
            for words in _words(one):
                column.addWidget(label(words, wrap=True))
            column.addSpacing(6)


def _standing(session: Session) -> CaseFigures | None:
    """Figures of the duty case in which the car stands."""
    still = idle_case(session.build.duty_cases)
    return session.assessment.figures_of(still.id if still else "")


def _words(one: Loud) -> tuple[str, ...]:
    if one.ahead <= 0:
        return ("It does not run then.",)
    told = (
        f"{one.ahead:.0f} dB(A) ahead of the grille, {one.cab:.0f} dB(A) in the cab; {one.idling} with the engine "
        "idling",
        f"Its blades sing at {one.tone:.0f} Hz",
    )
    return (
        (*told, f"Curved blades would be {one.straight:.0f} dB quieter (common practice 3–5)") if one.straight else told
    )
