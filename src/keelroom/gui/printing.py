"""Printing with a preview: the sheets the program writes as PDF, put on paper page by page at their own size."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QMarginsF, QRectF, QSize, QSizeF
from PyQt6.QtGui import QPageLayout, QPageSize, QPainter
from PyQt6.QtPdf import QPdfDocument
from PyQt6.QtPrintSupport import QPrinter, QPrintPreviewDialog
from PyQt6.QtWidgets import QWidget

from keelroom.errors import ExportError

DOTS = 300
"""Dots per inch the pages are drawn at: lines of 0.2 mm stay clean, and a page takes a second."""
POINTS = 72.0


def loaded(path: Path) -> QPdfDocument:
    """A PDF ready to be drawn. Raises ExportError where it cannot be read."""
    document = QPdfDocument(None)
    if document.load(str(path)) != QPdfDocument.Error.None_ or document.pageCount() < 1:
        raise ExportError("not_printed", "The pages could not be made ready for the printer", path=str(path))
    return document


def printer_for(document: QPdfDocument, title: str) -> QPrinter:
    """A printer whose paper is the document's own, edge to edge: nothing is scaled to fit margins."""
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setDocName(title)
    printer.setResolution(DOTS)
    printer.setFullPage(True)
    _set_page(printer, document.pagePointSize(0))
    return printer


def _set_page(printer: QPrinter, size: QSizeF) -> None:
    upright = QSizeF(min(size.width(), size.height()), max(size.width(), size.height()))
    lying = size.width() > size.height()
    page = QPageSize(upright, QPageSize.Unit.Point, "", QPageSize.SizeMatchPolicy.FuzzyMatch)
    way = QPageLayout.Orientation.Landscape if lying else QPageLayout.Orientation.Portrait
    printer.setPageLayout(QPageLayout(page, way, QMarginsF(0, 0, 0, 0)))


def draw(document: QPdfDocument, printer: QPrinter) -> None:
    """Every page at 100 %: an inch of the PDF is an inch on the paper."""
    painter = QPainter()
    dots = printer.resolution()
    for number in range(document.pageCount()):
        size = document.pagePointSize(number)
        if number:
            _set_page(printer, size)
            printer.newPage()
        else:
            painter.begin(printer)
        wide, high = size.width() / POINTS * dots, size.height() / POINTS * dots
        image = document.render(number, QSize(round(wide), round(high)))
        painter.drawImage(QRectF(0, 0, wide, high), image)
    painter.end()


def print_with_preview(window: QWidget, title: str, write: Callable[[Path], object]) -> None:
    """Show what `write` writes as it will come out, to be sent to a printer or not. Raises what `write` raises, and
    ExportError."""
    with tempfile.TemporaryDirectory(prefix="keelroom-print-") as folder:
        path = Path(folder) / "pages.pdf"
        write(path)
        document = loaded(path)
        printer = printer_for(document, title)
        dialog = QPrintPreviewDialog(printer, window)
        dialog.setWindowTitle(f"Print: {title}")
        dialog.resize(900, 700)
        dialog.paintRequested.connect(lambda asked: draw(document, asked))
        dialog.exec()
        document.close()
