"""Drives a real window as a person would: finds what is visible by its accessible name, points, clicks, types."""

from __future__ import annotations

import gc
import sys
import time
from collections.abc import Callable
from types import UnionType

from PyQt6.QtCore import QEvent, QPoint, Qt, QThreadPool, QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QCheckBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QMessageBox,
    QPlainTextEdit,
    QTableWidget,
    QToolButton,
    QWidget,
)

from keelroom.assess.findings import Finding
from keelroom.gui.app import application, make_window
from keelroom.gui.registry import named
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.offered import Way
from keelroom.gui.widgets.part_head import PartHead
from keelroom.gui.widgets.section import FormSection
from keelroom.gui.window import Window


def shown(widget: QWidget, kind: type[QWidget] | UnionType = QWidget) -> list[QWidget]:
    """What is seen of a kind, at any depth. What is hidden is not walked into: pages once built stay, by the
    thousand."""
    found: list[QWidget] = []
    for child in widget.children():
        if isinstance(child, QWidget) and child.isVisible():
            found += [child] if isinstance(child, kind) else []
            found += shown(child, kind)
    return found


class Driver:
    """One window and a pair of hands."""

    def __init__(self, window: Window) -> None:
        self.window = window
        window.session.settings.shown_round = True  # the marks of a first screen have a test of their own
        window.resize(1280, 800)
        window.show()
        window.activateWindow()
        self.until(
            lambda: window.isVisible() and window.isActiveWindow() and (window.start is not None or window.furnished)
        )
        QApplication.processEvents()  # what came with the furniture is laid out
        window.drawers.pull("Findings")

    def until(self, condition: Callable[[], object], limit: float = 20.0) -> None:
        """Let the event loop run until something is true; no fixed waits."""
        end = time.monotonic() + limit
        while not condition():
            QApplication.processEvents()
            assert time.monotonic() < end, "the window never got there"

    def settle(self) -> None:
        """Let all that was begun be finished, and the second wave, which else comes when it will."""
        QApplication.processEvents()
        self.window.session.whole()
        self.calm()

    def calm(self) -> None:
        """Let what is under way be finished; what waits for a pause goes on waiting."""
        QApplication.processEvents()
        QThreadPool.globalInstance().waitForDone()
        QApplication.processEvents()

    def find(self, name: str, kind: type[QWidget] | UnionType = QWidget) -> QWidget:
        """The visible widget whose accessible name is `name`, or begins with it."""
        found = self._named(name, kind) or (self.unfold(name) and self._named(name, kind))
        assert found, f"nothing visible is called “{name}”"
        return found[0]

    def _named(self, name: str, kind: type[QWidget] | UnionType) -> list[QWidget]:
        seen = shown(self.window, kind)
        exact = [w for w in seen if w.accessibleName() == name]
        return exact or [w for w in seen if w.accessibleName().startswith(name)]

    def unfold(self, name: str) -> bool:
        """Open the folded line that holds a field of that name, by its mark."""
        for section in shown(self.window, FormSection):
            if section.folded and section.folds:
                section.fill()
                for more in section.under:
                    more.fill()
                inside = [*section.fields, *(field for more in section.under for field in more.fields)]
                if any(w.accessibleName().startswith(name) for f in inside for w in f.findChildren(QWidget)):
                    QTest.mouseClick(section.fold_mark, Qt.MouseButton.LeftButton)
                    QApplication.processEvents()
                    return True
        return False

    def shows(self, text: str) -> bool:
        return any(text in w.text() for w in shown(self.window, QLabel))

    def click(self, name: str, kind: type[QWidget] = QWidget) -> None:
        widget = self.find(name, kind)
        if isinstance(widget.parent(), Way):
            self.until(widget.isEnabled)  # as a user waits for an act that is being tried
        # A check box answers on its box and words, which stand at its left.
        spot = QPoint(10, widget.height() // 2) if isinstance(widget, QCheckBox) else widget.rect().center()
        QTest.mouseClick(widget, Qt.MouseButton.LeftButton, pos=spot)
        QApplication.processEvents()

    def turn(self, part: str) -> None:
        """Turn the shown station to a part: the chip of its page, and its heading where the page holds several."""
        name = self.window.shown_station
        leaf = named(name).leaf(part)
        self.click(leaf.title, QToolButton)
        if leaf.parts and self.window.stations[name].current != part:
            self.click(part, PartHead)

    def enter(self, name: str, text: str, key: Qt.Key = Qt.Key.Key_Return) -> QWidget:
        """Click into a field, replace what stands there, and press Enter or Tab."""
        field = self.find(name, QLineEdit | QPlainTextEdit)
        QTest.mouseClick(field, Qt.MouseButton.LeftButton)
        QTest.keyClick(field, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
        QTest.keyClicks(field, text)
        QTest.keyClick(field, key)
        QApplication.processEvents()
        return field

    def open_finding(self, wanted: Callable[[Finding], bool]) -> None:
        """Click the row of the first finding that is wanted, where it is folded."""
        panel = self.window.drawers.panels["Findings"]
        card = next(card for card in panel.cards if card.isVisible() and wanted(card.finding))
        panel.ensureWidgetVisible(card)
        if card.body.isHidden():
            QTest.mouseClick(card.head, Qt.MouseButton.LeftButton)
            QApplication.processEvents()

    def mend(self, words: str) -> None:
        """Open the finding that offers an act of that name, wait until it was tried, and press it."""
        self.open_finding(lambda finding: any(fix.label.startswith(words) for fix in finding.fix))
        made = self.find(f"Mend: {words}")
        self.window.drawers.panels["Findings"].ensureWidgetVisible(made)
        self.until(made.isEnabled)
        assert made.isVisible(), "tried, and held back"
        QTest.mouseClick(made, Qt.MouseButton.LeftButton)
        QApplication.processEvents()

    def key(self, key: Qt.Key, modifier: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
        if not self.window.isActiveWindow():  # keys go to the window in front
            self.window.activateWindow()
            self.until(self.window.isActiveWindow)
        QTest.keyClick(self.window.focusWidget() or self.window, key, modifier)
        QApplication.processEvents()

    def ctrl(self, key: Qt.Key, shift: bool = False) -> None:
        modifier = Qt.KeyboardModifier.ControlModifier | (
            Qt.KeyboardModifier.ShiftModifier if shift else Qt.KeyboardModifier.NoModifier
        )
        self.key(key, modifier)

    def pick_row(self, table_name: str, text: str) -> None:
        """Click the table row whose first cell begins with `text`."""
        table = self.find(table_name, QTableWidget)
        row = next(r for r in range(table.rowCount()) if table.item(r, 0).text().startswith(text))
        table.scrollToItem(table.item(row, 0))
        QApplication.processEvents()
        QTest.mouseClick(
            table.viewport(), Qt.MouseButton.LeftButton, pos=table.visualItemRect(table.item(row, 0)).center()
        )
        QApplication.processEvents()

    def choose(self, name: str, words: str) -> None:
        """Choose in a combo box by keys: focus it and type the choice's first letters."""
        box = self.find(name, QComboBox)
        target = box.findText(words)
        box.setFocus()
        step = Qt.Key.Key_Down if target > box.currentIndex() else Qt.Key.Key_Up
        for _ in range(abs(target - box.currentIndex())):
            QTest.keyClick(self.find(name, QComboBox), step)
            QApplication.processEvents()

    def answering(self, *answers: str | Callable[[QWidget], object]) -> list[str]:
        """The next dialogs, each in its own event loop, are answered in turn: by the button of that name, or by what
        a function does.

        Returns a list that fills with what each dialog said. Call before the act that opens the first.
        """
        said: list[str] = []
        waiting = list(answers)
        timer = QTimer(self.window)

        def look() -> None:
            dialog = QApplication.activeModalWidget()
            if dialog is None or not waiting or not dialog.isActiveWindow():
                return
            if not dialog.property("seen"):
                dialog.setProperty("seen", True)  # laid out by the next turn
                return
            answer = waiting.pop(0)
            if not waiting:
                timer.stop()
            if isinstance(dialog, QMessageBox):
                said.append(f"{dialog.text()}\n{dialog.informativeText()}".strip())
            if callable(answer):
                answer(dialog)
                return
            made = next(b for b in dialog.findChildren(QAbstractButton) if b.text().replace("&", "") == answer)
            QTest.mouseClick(made, Qt.MouseButton.LeftButton)

        timer.timeout.connect(look)
        timer.start(5)
        return said

    def drag(self, widget: QWidget, start: QPoint, end: QPoint, steps: int = 8) -> None:
        QTest.mousePress(widget, Qt.MouseButton.LeftButton, pos=start)
        for i in range(1, steps + 1):
            QTest.mouseMove(widget, start + (end - start) * i / steps)
            QApplication.processEvents()
        QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, pos=end)
        QApplication.processEvents()

    def close_unsaved(self) -> None:
        """Close without a question: what changed is given up."""
        self.window.session.store.mark_saved(self.window.session.build)
        self.window.close()

    def dispose(self) -> None:
        """Close the window once its work has ended and the last answers have come, and let go of it: every window
        that stays is dressed anew whenever another one changes its looks."""
        for worker in self.window.findChildren(Worker):
            worker.cancel()  # a search asked for by the last step is not waited for to its end
        QThreadPool.globalInstance().waitForDone()
        self.close_unsaved()
        QApplication.processEvents()
        QThreadPool.globalInstance().waitForDone()
        self.window.deleteLater()
        QApplication.sendPostedEvents(self.window, QEvent.Type.DeferredDelete)
        QApplication.processEvents()  # what was connected to it learns that it is gone
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        # What was asked for on the way out is done before its job goes with the window: a thread that comes to a job
        # that is gone takes the process with it.
        QThreadPool.globalInstance().waitForDone()
        # What stands in Python for widgets Qt made itself, scrolled areas' among them, is not told that they are gone:
        # held on, it would be taken for whatever lies at their place next. (From a core: a layout taken for a widget.)
        del self.window
        sys.excepthook = sys.__excepthook__  # the window's own holds it
        gc.collect()

    def ledger(self) -> dict[str, str]:
        """What each ledger row says, by duty case."""
        from keelroom.gui.widgets.ledger.row import CaseRow

        rows = [row.accessibleName() for row in self.window.findChildren(CaseRow) if row.isVisible()]
        return {text.split(":")[0]: text for text in rows}


APP: list[QApplication] = []
"""Kept, because a QApplication nobody holds is collected with everything on it."""


def opened(path=None, as_copy=False) -> Driver:
    APP.append(application())
    gc.freeze()  # what was there before the window is not looked through when it goes
    gc.set_threshold(700, 10, 1000)  # nor is the window while it stands: in the program it is set aside
    return Driver(make_window(path, as_copy))
