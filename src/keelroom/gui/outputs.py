"""What leaves the window: the build sheet, the drawing, tables and charts as text and files."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QPainter, QPixmap
from PyQt6.QtWidgets import QApplication, QFileDialog, QMessageBox, QWidget

from keelroom.assess.report import as_table, ledger_rows
from keelroom.errors import KeelRoomError
from keelroom.gui.widgets.chart import Chart
from keelroom.gui.widgets.choose_table import ChooseTable

if TYPE_CHECKING:
    from keelroom.gui.window import Window


class Outputs:
    """Acts of one window; a failure is said there and leaves older files as they were."""

    def __init__(self, window: Window) -> None:
        self.window, self.session = window, window.session

    def write_sheet(self) -> None:
        from keelroom.export.sheet import write_sheet

        start = self.window.folder() / f"{self.session.build.brief.title or 'build'} sheet.pdf"
        name, _ = QFileDialog.getSaveFileName(self.window, "Write the build sheet", str(start), "PDF (*.pdf)")
        if name:
            self._export(lambda: write_sheet(self.session.build, self.session.assessment, Path(name), self.session.system), name)

    def _export(self, act: Callable[[], object], name: str) -> None:
        try:
            act()
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            QMessageBox.warning(self.window, "Not written", error.message)
        else:
            self.session.told.emit(f"Wrote {Path(name).name}")

    def export_drawing(self) -> None:
        name, _ = QFileDialog.getSaveFileName(
            self.window, "Export the drawing", str(self.window.folder() / "elevation.png"), "PNG (*.png);;SVG at 1:1 (*.svg)"
        )
        if not name:
            return
        if name.lower().endswith(".svg"):
            from keelroom.export.svg import write_svg

            self._export(lambda: write_svg(self.window.bay.scene, Path(name)), name)
        elif not self.drawing_picture().save(name, "PNG"):
            self.session.told.emit(f"{Path(name).name} could not be written; choose another place")

    def page_rows(self) -> list[list[str]]:
        """The tables and charts of the page that is seen, one under the other; empty where it has none."""
        seen = [w for w in self.window.station_stack.findChildren(QWidget) if isinstance(w, (ChooseTable, Chart)) and w.isVisible()]
        return [row for widget in seen for row in widget.as_rows()]

    def copy_page(self) -> None:
        from keelroom.export.tables import as_text

        rows, clipboard = self.page_rows(), QApplication.clipboard()
        if rows and clipboard is not None:
            clipboard.setText(as_text(rows))
        self.session.told.emit("The page's figures are on the clipboard" if rows else "This page has no table or chart")

    def save_page(self) -> None:
        rows = self.page_rows()
        if rows:
            self._save_rows(rows, "table.csv")
        else:
            self.session.told.emit("This page has no table or chart")

    def save_ledger(self) -> None:
        self._save_rows(ledger_rows(self.session.assessment, self.session.system), "ledger.csv")

    def _save_rows(self, rows: Sequence[Sequence[str]], suggested: str) -> None:
        from keelroom.export.tables import write_csv

        name, _ = QFileDialog.getSaveFileName(self.window, "Save as CSV", str(self.window.folder() / suggested), "CSV (*.csv)")
        if name:
            self._export(lambda: write_csv(rows, Path(name)), name)

    def drawing_picture(self) -> QPixmap:
        """The elevation at twice the screen's size."""
        picture = QPixmap(self.window.bay.size() * 2)
        picture.fill(self.window.bay.palette().window().color())
        painter = QPainter(picture)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.scale(2, 2)
        painter.fillRect(QRectF(self.window.bay.rect()), self.window.bay.palette().base())
        self.window.bay.render_scene(painter)
        painter.end()
        return picture

    def copy_ledger(self) -> None:
        clipboard = QApplication.clipboard()
        if clipboard is not None:
            clipboard.setText(as_table(self.session.build, self.session.assessment, self.session.system))
            self.session.told.emit("The ledger is on the clipboard")
