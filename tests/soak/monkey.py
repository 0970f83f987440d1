"""A seeded monkey at a real window: clicks, types, drags and switches at random, and says what broke. `python -m
tests.soak.monkey 3000 7 demo`.

Every so often all figures the window shows are read back from a fresh assessment of the build as it would be saved.
"""

from __future__ import annotations

import random
import sys
import traceback
from collections import Counter
from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory

from PyQt6.QtCore import QPoint, Qt, QThreadPool, QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QCheckBox, QComboBox, QLineEdit, QTableWidget, QWidget

import tests.conftest  # noqa: F401  (a home of its own, offscreen)
from keelroom.assess.acts.registry import edit_for
from keelroom.document.edits import apply
from keelroom.document.file import load, parse, save, serialised
from keelroom.document.schema.build import Build
from keelroom.document.store import Step, same_content
from keelroom.gui.stations.loop.board import LoopBoard
from keelroom.gui.widgets.bay import BayDrawing
from keelroom.gui.widgets.fit_board import FitBoard
from tests.conftest import DEMO
from tests.soak.reader import misread
from tests.soak.walk import small

KEYS = Qt.Key
TYPED = (
    "12",
    "24 3/8",
    "1/2",
    "0",
    "-3",
    "1e9",
    "banana",
    "",
    "3/0",
    "619 mm",
    "180 °F",
    "99 %",
    "10 AWG",
    "24 3/8 - 1 1/4",
    "°",
    "1,5",
    "250 A",
    "14.2 V",
    "é\t\x00",
    "1.5 fins/in",
    "0.015 mm",
    "28.4 V",
    "1e-6",
    "²³",
    "0.5",
    "400",
    "2.6 in",
    "9" * 60,
)
PRESSED = (
    KEYS.Key_Return,
    KEYS.Key_Tab,
    KEYS.Key_Escape,
    KEYS.Key_Up,
    KEYS.Key_Down,
    KEYS.Key_Left,
    KEYS.Key_Right,
    KEYS.Key_F6,
    KEYS.Key_F7,
    KEYS.Key_F8,
    KEYS.Key_F2,
    KEYS.Key_F3,
    KEYS.Key_F4,
)
CONTROL = (*(getattr(KEYS, f"Key_{n}") for n in range(1, 7)), KEYS.Key_Z, KEYS.Key_Z, KEYS.Key_U, KEYS.Key_S)
FILES = ("…", "PDF", "DXF", "SVG", "CSV", "PNG")
"""what opens a file dialog; those have tests of their own"""


class Monkey:
    """One window, one seed."""

    def __init__(self, seed: int, path: Path) -> None:
        from keelroom.gui.app import application, make_window

        self.app = application()
        self.dice, self.path = random.Random(seed), path
        self.window = make_window(path)
        self.window.resize(1280, 800)
        self.window.show()
        self.window.activateWindow()
        self.did: Counter[str] = Counter()
        self.broke: list[str] = []
        sys.excepthook = lambda kind, error, trace: self.broke.append(
            "".join(traceback.format_exception(kind, error, trace)[-3:])
        )
        self.window.session.told.connect(lambda text: self.broke.append(text) if "went wrong" in text else None)
        self.closer = QTimer()
        self.closer.timeout.connect(self._close_dialogs)
        self.closer.start(20)
        self._turn(3)

    def _close_dialogs(self) -> None:
        """Dialogs and menus run loops of their own: whatever opens is dismissed."""
        for open_now in (QApplication.activePopupWidget(), QApplication.activeModalWidget()):
            if open_now is not None:
                open_now.close()

    def _turn(self, times: int = 1) -> None:
        for _ in range(times):
            self.app.processEvents()

    def _seen(self, *kinds: type[QWidget]) -> list[QWidget]:
        found = [w for kind in kinds for w in self.window.findChildren(kind)]
        return [w for w in found if w.isVisible() and w.isEnabled() and not w.visibleRegion().isEmpty()]

    def act(self) -> None:
        """One thing."""
        acts: tuple[Callable[[], str], ...] = (
            self.type,
            self.type,
            self.type,
            self.press,
            self.click,
            self.click,
            self.tick,
            self.choose,
            self.drag,
            self.row,
            self.switch,
        )
        did = next((did for did in (self.dice.choice(acts)() for _ in range(6)) if did), "nothing there")
        self.did[did] += 1
        self._turn()

    def _one(self, *kinds: type[QWidget]) -> QWidget | None:
        seen = self._seen(*kinds)
        return self.dice.choice(seen) if seen else None

    def type(self) -> str:
        field = self._one(QLineEdit)
        if not isinstance(field, QLineEdit):
            return ""
        field.setFocus()
        field.selectAll()
        text = self.dice.choice(TYPED)
        if text.isascii():
            QTest.keyClicks(field, text)
        else:  # no key makes it: it is pasted
            QApplication.clipboard().setText(text)
            QTest.keyClick(field, KEYS.Key_V, Qt.KeyboardModifier.ControlModifier)
        QTest.keyClick(field, self.dice.choice((KEYS.Key_Return, KEYS.Key_Tab, KEYS.Key_Escape)))
        return "typed"

    def press(self) -> str:
        target = self.window.focusWidget() or self.window
        QTest.keyClick(target, self.dice.choice(PRESSED))
        return "key"

    def switch(self) -> str:
        shift = Qt.KeyboardModifier.ShiftModifier if self.dice.random() < 0.2 else Qt.KeyboardModifier.NoModifier
        QTest.keyClick(
            self.window.focusWidget() or self.window,
            self.dice.choice(CONTROL),
            Qt.KeyboardModifier.ControlModifier | shift,
        )
        return "shortcut"

    def click(self) -> str:
        made = self._one(QAbstractButton)
        if not isinstance(made, QAbstractButton) or any(word in made.text() for word in FILES):
            return ""
        QTest.mouseClick(made, Qt.MouseButton.LeftButton)
        return "click"

    def tick(self) -> str:
        box = self._one(QCheckBox)
        if box is None:
            return ""
        QTest.mouseClick(box, Qt.MouseButton.LeftButton, pos=QPoint(10, box.height() // 2))
        return "tick"

    def choose(self) -> str:
        box = self._one(QComboBox)
        if box is None:
            return ""
        box.setFocus()
        QTest.keyClick(box, self.dice.choice((KEYS.Key_Down, KEYS.Key_Up)))
        return "choice"

    def row(self) -> str:
        table = self._one(QTableWidget)
        if not isinstance(table, QTableWidget) or not table.rowCount():
            return ""
        at = table.visualRect(table.model().index(self.dice.randrange(table.rowCount()), 0)).center()
        QTest.mouseClick(table.viewport(), Qt.MouseButton.LeftButton, pos=at)
        return "row"

    def drag(self) -> str:
        board = self._one(BayDrawing, FitBoard, LoopBoard)
        if board is None:
            return ""
        points = [QPoint(self.dice.randrange(board.width()), self.dice.randrange(board.height())) for _ in range(4)]
        QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=points[0])
        for point in points[1:]:
            QTest.mouseMove(board, point)
            if self.dice.random() < 0.1:
                self.window.session.store.undo()
        QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=points[-1])
        return "drag"

    def run(self, acts: int, each: int) -> None:
        """So many acts from inside the application's own loop, as a user's are: only there is what was done with let
        go of."""
        timer, number = QTimer(), 0

        def one() -> None:
            nonlocal number
            if number >= acts or len(self.broke) > 20:
                timer.stop()
                self.app.exit()  # quit would ask the window first
                return
            number += 1
            self.act()
            if number % each == 0:
                self.check()

        timer.timeout.connect(one)
        timer.start(0)
        self.app.exec()

    def check(self, most: int = 25) -> None:
        """What is held can be saved and read back the same, and so many steps undone and redone again."""
        store = self.window.session.store
        focused = QApplication.focusWidget()
        if focused is not None:
            focused.clearFocus()  # what is typed and not yet entered is a step of its own, as when one goes to the menu
        held = store.build
        if parse(serialised(held), Path("held")) != held:
            self.broke.append("what is held reads back otherwise")
        self.broke += [
            f"a step is not what its act does: {step.act}" for step in store.steps[-most:] if not done_again(step)
        ]
        every = len(store.trail)
        steps = min(every, most)
        for _ in range(steps):
            store.undo()
        if steps == every and store.undo_label:
            self.broke.append(f"steps are left after undoing all: {store.undo_label}")
        for _ in range(steps):
            store.redo()
        if not same_content(store.build, held):
            self.broke.append("redone it is not what it was")
        self._turn(3)
        self.broke += misread(self.window)

    def close(self) -> None:
        self.closer.stop()
        QThreadPool.globalInstance().waitForDone()
        self._turn(3)
        self.window.session.store.mark_saved(self.window.session.build)
        self.window.close()
        sys.excepthook = sys.__excepthook__


def done_again(step: Step) -> bool:
    """Whether a step's act, done to the build before it, gives the build after it; units may have been switched
    since."""
    return any(
        same_content(apply(step.before, edit_for(step.before, step.act, system)), step.after) for system in ("us", "si")
    )


def _first() -> Build:
    """A build as the guided first one makes it: hardly anything measured."""
    from keelroom.assess.first_build import Answers, first_build
    from keelroom.catalogue.load import cores, engines, fan_assemblies, vehicles

    return first_build(
        Answers(vehicles()[1].name, engines()[2].name, core=cores()[2].name, fans=fan_assemblies()[1].name), "us"
    )


def _stuck() -> Build:
    """The demo with an entry no law bears: nothing is worked out until it is mended."""
    from keelroom.document.edits import set_value
    from keelroom.document.quantity import quantity

    return apply(
        load(DEMO), set_value(("packages", "p1", "core", "fin_density"), quantity("1.5 fins/in", "fin density"), "")
    )


BUILDS: dict[str, Callable[[], Build]] = {"demo": lambda: load(DEMO), "first": _first, "small": small, "stuck": _stuck}


def run(acts: int, seed: int, each: int = 100, build: str = "demo") -> tuple[Counter[str], list[str]]:
    """So many acts from a seed on a build; what was done, and what broke."""
    with TemporaryDirectory() as folder:
        path = Path(folder) / "monkey.keelroom"
        save(BUILDS[build](), path)
        monkey = Monkey(seed, path)
        monkey.run(acts, each)
        monkey.check(acts)  # all the way back, once
        monkey.close()
        load(path)
    return monkey.did, monkey.broke


if __name__ == "__main__":
    did, broke = run(int(sys.argv[1]), int(sys.argv[2]), build=sys.argv[3] if len(sys.argv) > 3 else "demo")
    print(f"{sum(did.values())} acts: {', '.join(f'{n} {what}' for what, n in did.most_common())}; {len(broke)} broke")
    print("\n".join(broke))
    sys.exit(bool(broke))
