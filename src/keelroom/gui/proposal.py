"""The proposal at the end of a first build: three packages side by side, each case's temperature and chance, amps and
cost, and a choice among them."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.questions.proposal import Proposal
from keelroom.assess.report import VERDICT_ROLES, missing_words, settles_text, verdict_line
from keelroom.assess.words import worded
from keelroom.facts import chance_words
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.text import chip, label, restyle, set_quietly
from keelroom.units import money_text

NAMES, CELLS = 118, 156
"""[px] of the names' column and each package's"""
PLACES = (("smaller", "Next smaller"), ("one", "Proposed"), ("larger", "Next larger"))


class ProposalView(QWidget):
    """`picked` is the package that was chosen of the proposal it shows."""

    chosen = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.found: Proposal | None = None
        self.place = "one"
        self.chips: dict[str, QToolButton] = {}
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.head = label("", "head", wrap=True)
        self.head.setAccessibleName("First verdict")
        self.column.addWidget(self.head)
        self.why = label("", "", wrap=True)
        self.column.addWidget(self.why)
        self.table = QWidget()
        self.column.addWidget(self.table)
        self.stand = label("", "", wrap=True)
        self.stand.setAccessibleName("How the chosen package stands")
        self.column.addWidget(self.stand)
        self.column.addStretch(1)

    @property
    def picked(self) -> Assessment | None:
        return getattr(self.found, self.place) if self.found else None

    def wait(self) -> None:
        """The answers are others: what stands is of the ones before."""
        self.found = None
        self.say("Cores and fans of the catalogue are being tried …", "")

    def say(self, text: str, role: str) -> None:
        """A sentence in place of a proposal."""
        self._clear()
        self.head.setText(text)
        restyle(self.head, "role", role)

    def show_found(self, found: Proposal | None) -> None:
        self.found, self.place = found, "one"
        if found is None:
            self.say("No core of the catalogue goes into the room there is", "problem")
            self._explain("Type more room, or choose a core by name and measure later what is in its way.")
            return
        self.say(self._title(found), "good" if found.holds else "problem")
        self._explain("" if found.holds else self._what_fails(found.one))
        self._fill(found)
        self._pick("one")

    def _title(self, found: Proposal) -> str:
        if found.holds:
            return "The smallest core and fans that hold every case; below each, its chance of passing the limit"
        return "Nothing of what is left open holds every case; this does best"

    def _what_fails(self, judged: Assessment) -> str:
        """Problems of the best there is, and what would help."""
        whats = [worded(one, self.session.system).what for one in judged.findings if one.level == "problem"]
        return (
            f"{'; '.join(dict.fromkeys(whats))}. Leave core or fans open, give it more room, tow less or type a cooler"
            " day to see what would hold; the duty cases and the limit are the brief’s to change afterwards."
        )

    def _explain(self, text: str) -> None:
        self.why.setText(text)
        self.why.setVisible(bool(text))

    def _clear(self) -> None:
        self._explain("")
        self.stand.setText("")
        fresh = QWidget()
        self.column.replaceWidget(self.table, fresh)
        self.table.hide()
        self.table.deleteLater()
        self.table = fresh

    def _fill(self, found: Proposal) -> None:
        grid = QGridLayout(self.table)
        grid.setContentsMargins(0, 6, 0, 0)
        grid.setHorizontalSpacing(14)
        grid.setVerticalSpacing(7)
        grid.setColumnStretch(len(PLACES) + 1, 1)
        self.chips = {}
        for row, name in enumerate(self._names(found.one), 1):
            grid.addWidget(_wide(label(name, "faint", wrap=True), NAMES), row, 0, Qt.AlignmentFlag.AlignTop)
        for column, (place, heading) in enumerate(PLACES, 1):
            judged: Assessment | None = getattr(found, place)
            if judged is None:
                grid.addWidget(_wide(label(f"{heading}: none", "faint"), CELLS), 0, column)
                continue
            self.chips[place] = chip(heading, partial(self._pick, place))
            grid.addWidget(self.chips[place], 0, column, Qt.AlignmentFlag.AlignLeft)
            for row, cell in enumerate(self._cells(judged), 1):
                grid.addWidget(_wide(cell, CELLS), row, column, Qt.AlignmentFlag.AlignTop)

    def _names(self, judged: Assessment) -> list[str]:
        return ["Core", "Fans", *(case.name for case in judged.cases), "Amps at idle", "Cost, core and fans"]

    def _cells(self, judged: Assessment) -> list[QLabel]:
        package, totals = judged.package, judged.totals
        cells = [
            label(package.core.name, "strong", wrap=True),
            label(package.fans[0].name if package.fans else "none", "strong", wrap=True),
        ]
        for case in judged.cases:
            figures = case.figures
            if figures is None:
                cells.append(label(missing_words(case), "doubt", wrap=True))
                continue
            text = settles_text(figures, self.session.system)
            if figures.verdict != "does_not_settle":
                text = f"{text}\n{chance_words(figures.chance)}"
            cells.append(label(text, VERDICT_ROLES[figures.verdict], wrap=True))
        amps = totals.amps_at_idle
        drawn, over = "not known" if amps is None else f"{amps:.0f} A", False
        if amps is not None and totals.alternator_at_idle is not None:
            drawn += f", alternator {totals.alternator_at_idle:.0f}"
            over = amps > totals.alternator_at_idle
        cost = "not known" if totals.cost is None else money_text(totals.cost, self.session.settings.currency)
        return [*cells, label(drawn, "doubt" if over else "", wrap=True), label(cost)]

    def _pick(self, place: str) -> None:
        self.place = place
        set_quietly(self.chips[place], True)
        judged = self.picked
        assert judged is not None
        worst = judged.tightest
        verdict = worst.figures.verdict if worst and worst.figures else ""
        self.stand.setText(f"Chosen: {verdict_line(judged, self.session.system)}")
        restyle(self.stand, "role", VERDICT_ROLES.get(verdict, "problem"))
        self.chosen.emit()


def _wide(cell: QLabel, width: int) -> QLabel:
    cell.setFixedWidth(width)
    return cell
