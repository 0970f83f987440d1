"""The Every one page: each option there is, why it is out or beaten, and a closer look at one."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from keelroom.assess.acts.registry import offer
from keelroom.assess.options.space import bounds_of, package_of
from keelroom.assess.questions.closer import Closer, closer, closer_lines
from keelroom.assess.questions.standing import Standing, day_words, standing_words, standings
from keelroom.assess.work.money import HOUR
from keelroom.drawing.elevation import elevation
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.stations.options.front import FrontView
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.scene_view import Drawing, Picture
from keelroom.gui.widgets.text import Whole, button
from keelroom.units import money_text

COLUMNS = ("Package", "Hotter day", "Money", "Hours", "Amps", "Stands")
NOTE = "Type part of a name to find one. A click looks at it closer, beside the package in use."


class EveryView(QWidget):
    """What the Front page has found, all of it: it searches for both."""

    come = pyqtSignal()
    """another one is looked at"""

    def __init__(self, session: Session, front: FrontView) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.session, self.front = session, front
        self.rows: tuple[Standing, ...] = ()
        self.at: Standing | None = None
        self.worker = Worker(self)
        self.worker.answered.connect(self._looked)
        self.why = _words()
        self.table = ChooseTable("Every option", COLUMNS, self._choose, NOTE, "31 × 19, twin, bare …", True, "named")
        self.table.by_name = True
        self.closer = _words()
        self.make = button(
            "Make it a package", self._make, "Make the option a package", "", "Undone like any other step"
        )
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 6)
        column.setSpacing(0)
        column.addWidget(self.why)
        column.addWidget(self.table, 1)
        column.addWidget(self.closer)
        row = QHBoxLayout()
        row.setContentsMargins(12, 4, 10, 0)
        row.addWidget(self.make)
        row.addStretch(1)
        column.addLayout(row)
        front.come.connect(self._show)
        session.changed.connect(self._mark)

    @property
    def picture(self) -> Picture:
        """The one that is looked at, on the bay."""
        return Picture("The option on the bay", self._drawn)

    def refresh(self) -> None:
        self.front.refresh()
        self._show()

    def _mark(self) -> None:
        """Of another build than the one that stands nothing can be chosen."""
        stands = self.front.answers is self.session.build
        self.table.setEnabled(stands)
        new = self.at is not None and self.at.priced.option.sort != "now"
        self.make.setVisible(stands and new)

    def _show(self) -> None:
        if not self.isVisible():
            return  # shown again, it is refreshed
        found = self.front.found
        self.why.setText(self.front.why.text())
        key = self.at.priced.option.key if self.at else ""
        self.rows = standings(found.found, bounds_of(self.session.build.choosing)) if found is not None else ()
        place = next((n for n, one in enumerate(self.rows) if one.priced.option.key == key), -1)
        self.table.show_rows([self._row(one) for one in self.rows], place)
        self._look_at(self.rows[place] if place >= 0 else None)

    def _row(self, one: Standing) -> tuple[str, ...]:
        system, sign, priced = self.session.system, self.session.settings.currency, one.priced
        day = day_words(one.judged.worst if one.judged else None, system)
        takes = money_text(priced.money, sign), f"{priced.hours / HOUR:.0f} h", f"{priced.amps:.0f} A"
        return priced.option.words, day, *takes, self._stands(one)

    def _stands(self, one: Standing) -> str:
        return standing_words(
            one, bounds_of(self.session.build.choosing), self.session.system, self.session.settings.currency
        )

    def _choose(self, row: int) -> None:
        if 0 <= row < len(self.rows):
            self._look_at(self.rows[row])

    def _look_at(self, one: Standing | None) -> None:
        self.at = one
        self.worker.cancel()
        self.closer.setText("a closer look is worked out …" if one else "")
        if one is not None:
            build, option = self.session.build, one.priced.option
            self.worker.ask(lambda: closer(build, option))
        self._mark()
        self.come.emit()

    def _looked(self, look: Closer) -> None:
        lines = closer_lines(look, self.session.assessment, self.session.system)
        self.closer.setText(". ".join(lines) + ".")

    def _make(self) -> None:
        if self.at is not None:
            self.session.do(offer("take_option", option=self.at.priced.option.key))

    def _drawn(self) -> Drawing:
        if self.at is None:
            return None, "", "Click a row: the package is drawn here, over the panel’s opening."
        build, option = self.session.build, self.at.priced.option
        scene = elevation(package_of(build, option), self.session.system, build.survey)
        return scene, "Front elevation", option.words


def _words() -> Whole:
    made = Whole("", "")
    made.setContentsMargins(12, 8, 10, 0)
    return made
