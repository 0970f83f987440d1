"""What leaves the window: the build sheet, the drawing, tables and charts as text and files."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Protocol

from PyQt6.QtCore import QBuffer
from PyQt6.QtGui import QPixmap
from PyQt6.QtWidgets import QApplication, QStackedWidget, QWidget

from keelroom.assess.report import as_table, ledger_rows, plain_verdict
from keelroom.drawing.scene import Scene
from keelroom.errors import ExportError, KeelRoomError
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.chart import Chart
from keelroom.gui.widgets.choose_table import ChooseTable

if TYPE_CHECKING:
    from keelroom.gui.walks import Walk


MOST_SHEETS = 200
"""Sheets of templates that are printed in one go; Fit-up, Make prints fewer of them."""


NO_TABLE = "This page has no table or chart that is worked out for the build as it stands"


class Shows(Protocol):
    """What the outputs ask of the window: what it shows now, and the tape walk."""

    station_stack: QStackedWidget
    middle_stack: QStackedWidget

    def middle_scene(self) -> Scene | None: ...

    def walk(self) -> Walk: ...


class Outputs:
    """Acts of one window, which dialogs stand over; shown: what it shows."""

    def __init__(self, window: QWidget, session: Session, shown: Shows) -> None:
        self.window, self.session, self.shown = window, session, shown

    def _ask(self, title: str, suggested: str, kinds: str, act: Callable[[Path], object]) -> None:
        ask_and_write(self.window, self.session, (title, suggested, kinds), act)

    def _sheet(self, path: Path) -> None:
        from keelroom.export.sheet import write_sheet

        session = self.session
        write_sheet(session.whole(), path, session.system, paper=session.settings.paper, file=session.path)

    def _survey_sheet(self, path: Path) -> None:
        from keelroom.export.survey_sheet import write_survey_sheet

        session = self.session
        write_survey_sheet(session.build, self.shown.walk(), path, session.system, session.settings.paper)

    def write_sheet(self) -> None:
        from keelroom.export.whole import file_name

        self._ask(
            "Write the build sheet",
            f"{file_name(self.session.build.brief.title, 'build')} sheet.pdf",
            "PDF (*.pdf)",
            self._sheet,
        )

    def write_survey_sheet(self) -> None:
        self._ask("Write the survey sheet", "survey sheet.pdf", "PDF (*.pdf)", self._survey_sheet)

    def _print(self, title: str, write: Callable[[Path], object]) -> None:
        """Print what would be written; what cannot be made is said and nothing is printed."""
        from keelroom.gui.printing import print_with_preview

        try:
            print_with_preview(self.window, title, write)
        except KeelRoomError as error:
            self.session.told.emit(error.message)

    def print_sheet(self) -> None:
        self._print("Build sheet", self._sheet)

    def print_survey_sheet(self) -> None:
        self._print("Survey sheet", self._survey_sheet)

    def print_templates(self) -> None:
        """At full size, whatever the printer's margins are: the bar on every sheet is measured before anything is
        cut."""
        from keelroom.assess.figures.templates import patterns
        from keelroom.assess.handed_out import minds_of_made
        from keelroom.export.tiles import write_tiles

        build = self.session.build
        found, paper = patterns(build, build.package), self.session.settings.paper
        if not found:
            self.session.told.emit("There is no template yet: shroud, brackets and frames make them, at Fit-up")
            return
        minds = minds_of_made(self.session.assessment, self.session.system)
        self._print(
            "Templates at 100 %", lambda path: write_tiles(found, path, paper, MOST_SHEETS, self.session.system, minds)
        )

    def export_drawing(self) -> None:
        self._ask("Export the drawing", "drawing.png", "PNG (*.png);;SVG at 1:1 (*.svg)", self._write_drawing)

    def _write_drawing(self, path: Path) -> None:
        if path.suffix.lower() == ".svg":
            from keelroom.export.svg import write_svg

            scene = self.shown.middle_scene()
            if scene is None:
                raise ExportError("nothing_drawn", "There is nothing drawn on this page")
            write_svg(scene, path)
            return
        from keelroom.export.whole import write_whole

        picture = QBuffer()
        if not self.drawing_picture().save(picture, "PNG"):
            raise ExportError(
                "drawing_not_made", "The picture could not be made; make the window smaller", path=str(path)
            )
        write_whole(path, bytes(picture.data().data()), "drawing_not_written")

    def page_rows(self) -> list[list[str]]:
        """The tables and charts of the page that is seen, one under the other; empty where it has none."""
        seen = [
            w
            for side in (self.shown.station_stack, self.shown.middle_stack)
            for w in side.findChildren(QWidget)
            if isinstance(w, (ChooseTable, Chart)) and w.isVisible()
        ]
        # What is faded was worked out for the build before the last change.
        return [row for widget in seen if widget.isEnabled() for row in widget.as_rows()]

    def copy_page(self) -> None:
        from keelroom.export.tables import as_text

        rows, clipboard = self.page_rows(), QApplication.clipboard()
        if rows and clipboard is not None:
            clipboard.setText(as_text(rows))
        self.session.told.emit("The page's figures are on the clipboard" if rows else NO_TABLE)

    def save_page(self) -> None:
        rows = self.page_rows()
        if rows:
            self._save_rows(rows, "table.csv")
        else:
            self.session.told.emit(NO_TABLE)

    def save_ledger(self) -> None:
        self._save_rows(ledger_rows(self.session.whole(), self.session.system), "ledger.csv")

    def _save_rows(self, rows: Sequence[Sequence[str]], suggested: str) -> None:
        from keelroom.export.tables import write_csv

        self._ask("Save as CSV", suggested, "CSV (*.csv)", lambda path: write_csv(rows, path))

    def drawing_picture(self) -> QPixmap:
        """What stands in the middle at twice the screen's size."""
        shown = self.shown.middle_stack.currentWidget()
        assert shown is not None
        picture = QPixmap(shown.size() * 2)
        picture.setDevicePixelRatio(2)
        shown.render(picture)
        return picture

    def copy_verdict(self) -> None:
        """One plain paragraph for a message."""
        clipboard = QApplication.clipboard()
        if clipboard is not None:
            clipboard.setText(plain_verdict(self.session.whole(), self.session.system))
            self.session.told.emit("The verdict is on the clipboard")

    def copy_ledger(self) -> None:
        clipboard = QApplication.clipboard()
        if clipboard is not None:
            clipboard.setText(as_table(self.session.whole(), self.session.system))
            self.session.told.emit("The ledger is on the clipboard")
