"""Templates and lists: what is printed at 1:1, cut by a machine, or bought."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from keelroom.assess.figures.templates import cut_list, patterns
from keelroom.assess.handed_out import minds_of_made
from keelroom.assess.work.hardware import hardware_list
from keelroom.drawing.fitup import section_sheet
from keelroom.drawing.pattern import Patterns, gallery, pattern_scene
from keelroom.drawing.scene import Scene
from keelroom.errors import InputError, KeelRoomError
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.session.settings import PAPERS
from keelroom.gui.stations.fitup.ruler import Ruler
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.scene_view import SceneView
from keelroom.gui.widgets.text import ChoiceBox, button, label, restyle
from keelroom.units import KINDS, format_si

NOTE = "Mock-ups first. A click shows one; print at 100 % and measure the bar on the sheet before you cut."
COLUMNS = ("Template", "Size", "Sheets")
DIGITS = 6
"""Digits of a number of sheets."""
MOST = 60


class MakeView(QWidget):
    """The list of templates and what can be made of them."""

    come = pyqtSignal()
    """never: its picture is brought up to date with its list"""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        self.shown: Patterns = ()
        self.current = 0
        self.view = self.picture = SceneView(session, "Template at 1:1", self._picture)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 6)
        column.setSpacing(4)
        self.table = ChooseTable("Templates", COLUMNS, self._choose, NOTE, "bracket, fan, shroud …")
        column.addWidget(self.table, 1)
        self.ruler = Ruler(session, self.view)
        below = QVBoxLayout()
        below.setContentsMargins(12, 0, 10, 0)
        below.addLayout(self._paper_line())
        below.addWidget(self.said)
        below.addLayout(self._buttons())
        below.addWidget(self.ruler)
        column.addLayout(below)

    def _paper_line(self) -> QHBoxLayout:
        line = QHBoxLayout()
        self.paper = ChoiceBox()
        self.paper.setAccessibleName("Paper")
        for name in PAPERS:
            self.paper.addItem(name, name)
        self.paper.setCurrentIndex(self.paper.findData(self.session.settings.paper))
        self.paper.activated.connect(lambda _index: self.refresh())
        self.which = ChoiceBox()
        self.which.setAccessibleName("Which templates")
        for words, value in (("All templates", "all"), ("The one shown", "one")):
            self.which.addItem(words, value)
        self.most = QLineEdit(str(MOST))
        self.most.setFixedWidth(52)
        self.most.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.most.setAccessibleName("At most sheets")
        self.said = label("", "error", wrap=True)
        self.said.hide()
        for widget in (self.paper, self.which, label("at most"), self.most, label("sheets")):
            line.addWidget(widget)
        line.addStretch(1)
        return line

    def _buttons(self) -> QGridLayout:
        grid = QGridLayout()
        grid.setSpacing(4)
        acts: tuple[tuple[str, Callable[[], object]], ...] = (
            ("Print PDF…", self._pdf),
            ("DXF…", self._dxf),
            ("SVG…", self._svg),
            ("Cut list…", self._cut_list),
            ("Hardware…", self._hardware),
            ("Section…", self._section),
        )
        names = (
            "Print templates as PDF",
            "Write templates as DXF",
            "Write templates as SVG",
            "Cut list as CSV",
            "Hardware list as CSV",
            "Elevation and section as SVG",
        )
        for k, ((text, act), name) in enumerate(zip(acts, names, strict=True)):
            grid.addWidget(button(text, act, name, tip=name), k // 3, k % 3)
        return grid

    def refresh(self) -> None:
        from keelroom.export.tiles import tiling

        build, system = self.session.build, self.session.system
        self.shown = patterns(build, build.package)
        self.current = min(self.current, max(len(self.shown) - 1, 0))
        rows = []
        for pattern in self.shown:
            _, _, wide, high = pattern.bounds
            size = " × ".join(format_si(value, KINDS["length"], system) for value in (wide, high))
            rows.append((pattern.name, size, str(tiling(pattern, self.paper.currentData()).sheets)))
        self.table.show_rows(rows, self.current)
        self.view.changed()

    def _choose(self, row: int) -> None:
        self.current = row
        self.refresh()

    def _picture(self) -> tuple[Scene | None, str, str]:
        if not self.shown:
            return None, "No template yet", ""
        pattern = self.shown[min(self.current, len(self.shown) - 1)]
        copies = f", cut {pattern.copies}" if pattern.copies > 1 else ""
        foot = f"{pattern.material}{copies}. Solid: cut. Dashed: bend. Thin: mark."
        return pattern_scene(pattern, self.session.system), pattern.name, foot

    def chosen(self) -> Patterns:
        return self.shown if self.which.currentData() == "all" else self.shown[self.current : self.current + 1]

    # writing

    def _allowed(self) -> int:
        """How many sheets may be printed. Raises InputError saying what was expected."""
        text = self.most.text().strip()
        # Digits as a keyboard has them: ² is one to some, and no number to anybody.
        if not (text.isascii() and text.isdigit() and len(text) <= DIGITS and int(text) >= 1):
            raise InputError("sheets", f"“{text}” is no number of sheets; write one such as {MOST}")
        return int(text)

    def _refused(self, why: str) -> None:
        self.said.setText(why)
        self.said.setVisible(bool(why))
        restyle(self.most, "wrong", bool(why))

    def _ask(self, title: str, name: str, kinds: str, act: Callable[[Path], object]) -> None:
        ask_and_write(self.window() or self, self.session, (title, name, kinds), act)

    def _pdf(self) -> None:
        """Refused beside the number of sheets before a file is asked for."""
        from keelroom.export.tiles import allow_sheets, write_tiles

        paper, minds = self.paper.currentData(), minds_of_made(self.session.assessment, self.session.system)
        try:
            most = self._allowed()
            allow_sheets(self.chosen(), paper, most)
        except KeelRoomError as error:
            self._refused(error.message)
            return
        self._refused("")
        self._ask(
            "Print templates",
            "templates.pdf",
            "PDF (*.pdf)",
            lambda path: write_tiles(self.chosen(), path, paper, most, self.session.system, minds),
        )

    def _dxf(self) -> None:
        from keelroom.export.dxf import write_dxf

        self._ask(
            "Write DXF",
            "templates.dxf",
            "DXF (*.dxf)",
            lambda path: write_dxf(self.chosen(), path, self.session.system),
        )

    def _svg(self) -> None:
        from keelroom.export.svg import write_svg

        scene = gallery(self.chosen(), self.session.system, dimensions=False)  # a machine follows every line of it
        if scene is not None:
            self._ask("Write SVG", "templates.svg", "SVG at 1:1 (*.svg)", lambda path: write_svg(scene, path))

    def _cut_list(self) -> None:
        self._rows("cut list.csv", cut_list(self.session.build, self.session.build.package, self.session.system))

    def _hardware(self) -> None:
        self._rows(
            "hardware list.csv", hardware_list(self.session.build, self.session.build.package, self.session.system)
        )

    def _rows(self, name: str, rows: list[tuple[str, ...]]) -> None:
        from keelroom.export.tables import on_its_face, write_csv

        told = on_its_face(rows, minds_of_made(self.session.assessment, self.session.system))
        self._ask("Save as CSV", name, "CSV (*.csv)", lambda path: write_csv(told, path))

    def _section(self) -> None:
        from keelroom.export.svg import write_svg

        build, fit = self.session.build, self.session.assessment.fit
        if fit is not None:
            self._ask(
                "Elevation and section",
                "elevation and section.svg",
                "SVG at 1:1 (*.svg)",
                lambda path: write_svg(section_sheet(build, build.package, fit, self.session.system), path),
            )
