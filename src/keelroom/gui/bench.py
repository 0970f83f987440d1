"""Bench mode: one reading at a time in type that is read from the car, a number pad and a sixteenths keypad."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import QRectF, Qt, QTimer
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from keelroom.document.edits import set_value
from keelroom.document.fields import get, owner_and_spec
from keelroom.document.quantity import described, typed
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.walks import Walked
from keelroom.gui.widgets.inks import inks
from keelroom.gui.widgets.reading import by_eye, way_of
from keelroom.gui.widgets.scene_paint import ScenePainter, body_font, fitted
from keelroom.gui.widgets.text import button, label, restyle
from keelroom.units import format_si, inches, parse

TICK = 500
"""[ms] of the clock"""
DIGITS = ("7", "8", "9", "4", "5", "6", "1", "2", "3", "−", "0", ".")
ACCEPTED = "0123456789 ./-"


class BenchPicture(QWidget):
    """Where the tape goes, large."""

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench = bench
        self.setMinimumSize(320, 200)
        self.setAccessibleName("Where the tape goes")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        palette = palette_of(self.bench.session.settings.theme)
        painter.fillRect(self.rect(), QColor(palette.paper))
        scene = self.bench.walked.drawn(self.bench.path, self.bench.text)
        if scene is not None:
            painter.setFont(body_font(13))
            view = fitted(scene.bounds, QRectF(self.rect()).adjusted(10, 10, -10, -10))
            ScenePainter(palette, view).scene(painter, scene, inks(palette))


class Bench(QWidget):
    """Walks the readings; `leave` goes back to the window."""

    def __init__(self, session: Session, walked: Walked, leave: Callable[[], object]) -> None:
        super().__init__()
        self.session, self.walked, self.leave = session, walked, leave
        self.setObjectName("panel")
        self.setAccessibleName("Bench mode")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.at, self.text, self.by_eye = 0, "", False
        self.section, self.watch = label("", "bench"), label("", "bench-figure")
        self.timer = QTimer(self)
        self.timer.setInterval(TICK)
        self.timer.timeout.connect(self._tick)
        self.prompt = label("", "bench-prompt", wrap=True)
        self.typed = label("", "bench-figure")
        self.echo = label("", "bench")
        self.echo.setWordWrap(True)
        self.known = label("", "bench")
        self.picture = BenchPicture(self)
        row = QHBoxLayout(self)
        row.setContentsMargins(20, 14, 20, 14)
        row.setSpacing(20)
        left = QVBoxLayout()
        for widget in (self.section, self.watch, self.prompt, self.typed, self.echo, self.known):
            left.addWidget(widget)
        left.addWidget(self.picture, 1)
        row.addLayout(left, 1)
        row.addLayout(self._pads())
        session.display_changed.connect(self.show_reading)
        session.changed.connect(self._after_edit)

    def _pads(self) -> QVBoxLayout:
        column = QVBoxLayout()
        column.setSpacing(10)
        pads = QHBoxLayout()
        pads.setSpacing(14)
        numbers, fractions = QGridLayout(), QGridLayout()
        for k, digit in enumerate(DIGITS):
            numbers.addWidget(self._key(digit, partial(self.put, "-" if digit == "−" else digit)), k // 3, k % 3)
        numbers.addWidget(self._key("Back one", self.rub_out), 4, 0, 1, 3)
        self.sixteenths: list[QPushButton] = []
        for k in range(1, 16):
            top, below = k, 16
            while top % 2 == 0:
                top, below = top // 2, below // 2
            made = self._key(f"{top}/{below}", partial(self.put_fraction, f"{top}/{below}"))
            self.sixteenths.append(made)
            fractions.addWidget(made, (k - 1) // 3, (k - 1) % 3)
        pads.addLayout(numbers)
        pads.addLayout(fractions)
        column.addLayout(pads)
        self.eye = self._key("By eye: no", self._toggle_eye, "By eye")
        lines = (
            (
                self._key("Before", self.back, "Reading before"),
                self._key("Not measured", self.clear),
                self._key("Skip", self.on, "Skip this reading"),
            ),
            (self.eye, self._key("Next", self.enter, "Enter and go on", "main")),
            (self._key("Back to the window (F8)", self.leave, "Leave bench mode"),),
        )
        for keys in lines:
            line = QHBoxLayout()
            for key in keys:
                line.addWidget(key)
            column.addLayout(line)
        column.addStretch(1)
        return column

    def _key(self, text: str, act: Callable[[], object], name: str = "", role: str = "bench") -> QPushButton:
        made = button(text, act, name or text, role="bench-main" if role == "main" else "bench")
        made.setMinimumSize(76, 56)
        made.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        return made

    # where we are

    @property
    def readings(self) -> list[tuple[str, str, tuple[str, ...]]]:
        return [(title, words, path) for title, rows in self.walked.readings() for words, path in rows]

    @property
    def path(self) -> tuple[str, ...]:
        return self.readings[self.at][2]

    def start(self, walked: Walked) -> None:
        """Begin a walk at the first of its readings that is not measured."""
        self.walked = walked
        readings = self.readings
        self.at = next((k for k, (_, _, path) in enumerate(readings) if get(self.session.build, path) is None), 0)
        self.show_reading()
        self._tick()
        self.timer.start()
        self.setFocus()

    def _tick(self) -> None:
        """The clock of the walk, where one runs; it stands still with the page."""
        words = self.walked.watch()
        self.watch.setText(words)
        self.watch.setVisible(bool(words))
        if not self.isVisible():
            self.timer.stop()

    def _after_edit(self) -> None:
        """An undo may have taken away the very reading that is asked for."""
        if self.isVisible():
            self.show_reading()

    def show_reading(self) -> None:
        readings = self.readings
        if not readings:
            self.leave()
            return
        self.at = min(self.at, len(readings) - 1)
        title, words, path = readings[self.at]
        _, spec = owner_and_spec(self.session.build, path)
        assert spec is not None
        value = get(self.session.build, path)
        self.section.setText(f"{title} · reading {self.at + 1} of {len(readings)}")
        self.prompt.setText(words)
        self.known.setText(
            f"stands at {described(value, spec.kind, self.session.system)}, {way_of(value)}"
            if value is not None
            else "not measured yet"
        )
        self.text = ""
        self.by_eye = False
        by_tape = spec.kind_name == "length"
        for made in self.sixteenths:
            made.setVisible(by_tape and inches(self.session.system))
        self.eye.setVisible(by_tape)
        self._show_text()

    def _show_text(self, wrong: str = "") -> None:
        _, spec = owner_and_spec(self.session.build, self.path)
        assert spec is not None
        unit = self.session.unit(spec.kind)
        self.typed.setText(f"{self.text or '–'} {unit.symbol}")
        self.typed.setAccessibleName(f"Typed: {self.text}")
        said = wrong
        if self.text and not wrong:
            try:
                reading = parse(self.text, spec.kind, unit.symbol)
                said = "reads as " + " = ".join(format_si(reading.si, spec.kind, system) for system in ("us", "si"))
            except InputError:
                said = ""
        restyle(self.echo, "role", "bench-wrong" if wrong else "bench")
        self.echo.setText(said or " ")
        self.eye.setText(f"By eye: {'yes, ±1/4' if self.by_eye else 'no'}")
        self.picture.update()

    # hands

    def put(self, text: str) -> None:
        self.text += text
        self._show_text()

    def put_fraction(self, text: str) -> None:
        whole = self.text.split("/")[0].rsplit(" ", 1)[0] if "/" in self.text else self.text
        self.text = f"{whole.strip()} {text}".strip()
        self._show_text()

    def rub_out(self) -> None:
        self.text = self.text[:-1].rstrip()
        self._show_text()

    def _toggle_eye(self) -> None:
        self.by_eye = not self.by_eye
        self._show_text()

    def enter(self) -> None:
        """Enter the reading and go on; one that means nothing stays and says what was expected."""
        if not self.text:
            self.on()
            return
        _, spec = owner_and_spec(self.session.build, self.path)
        assert spec is not None
        try:
            value = (
                by_eye(self.text, spec, self.session)
                if self.by_eye
                else typed(self.text, spec, self.session.unit(spec.kind).symbol)
            )
            self.session.apply(set_value(self.path, value, f"{spec.label} {value.as_typed}"))
        except InputError as error:
            self._show_text(error.message)
            return
        self.on()

    def clear(self) -> None:
        self.session.set(self.path, None, "Not measured")
        self.on()

    def on(self) -> None:
        self.at = min(self.at + 1, len(self.readings) - 1)
        self.show_reading()

    def back(self) -> None:
        self.at = max(self.at - 1, 0)
        self.show_reading()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        key = event.key()
        acts = {
            Qt.Key.Key_Return: self.enter,
            Qt.Key.Key_Enter: self.enter,
            Qt.Key.Key_Backspace: self.rub_out,
            Qt.Key.Key_Escape: self.leave,
            Qt.Key.Key_Down: self.on,
            Qt.Key.Key_Up: self.back,
        }
        if Qt.Key(key) in acts:
            acts[Qt.Key(key)]()
        elif event.text() and event.text() in ACCEPTED:
            self.put(event.text())
        elif event.text() == "~":
            self._toggle_eye()
        else:
            super().keyPressEvent(event)
