"""Under the focused number: the hot-day temperature over its range, with where you are; and the question backwards."""

from __future__ import annotations

import math

from PyQt6.QtWidgets import QApplication, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from keelroom.assess.inputs.needs import needs_of
from keelroom.assess.questions.response import Backwards, Response, response, stretches, switches, value_for
from keelroom.document.edits import set_value
from keelroom.document.fields import Path, owner_and_spec
from keelroom.document.quantity import from_si
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.chart import Chart, ChartMark, ChartPicture, Series, Stripe
from keelroom.gui.widgets.fields import QuantityField
from keelroom.gui.widgets.text import button, label, restyle
from keelroom.units import KINDS, format_si, number_text, parse

ROOMY = 940
"""[px] of window height from which on it comes up without being asked."""
HEIGHT = 172
TEMPERATURE, HOTTER = KINDS["temperature"], KINDS["temperature difference"]


def _only_fit(path: tuple[str, ...]) -> bool:
    """Fields that decide clearances and made parts, and no temperature."""
    if path[:1] == ("survey",):
        return path[1:2] not in (("opening",), ("air_holes",))
    if path[:1] == ("packages",) and path[2:3] == ("panels",):
        return path[-1] not in SEALING
    return path[:1] == ("gaps",) or (
        path[:1] == ("packages",) and path[2:3] in (("place",), ("moves",), ("brackets",), ("mounting",))
    )


SEALING = ("length", "depth", "foam", "foam_gap")
"""fields of a panel that decide how much air it lets past"""


class ResponseStrip(QWidget):
    """Follows the focused field of a pane; worked out beside the window, newest question wins."""

    def __init__(self, session: Session, pane: QWidget) -> None:
        super().__init__()
        self.session, self.pane = session, pane
        self.setObjectName("panel")
        self.setFixedHeight(HEIGHT)
        self.path: Path = ()
        self.asked_for = False
        self.hide()
        self.worker, self.searcher = Worker(self), Worker(self)
        self.worker.answered.connect(self._show)
        self.worker.failed.connect(self._say)
        self.searcher.answered.connect(self._found)
        self.searcher.failed.connect(lambda why: self._tell(why, "error"))
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 4, 10, 6)
        column.setSpacing(2)
        self.head = label("", "faint")
        column.addWidget(self.head)
        self.subject = ""
        self.chart = Chart(session, "Response of the temperature to the focused number")
        column.addWidget(self.chart, 1)
        column.addLayout(self._backwards())
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.focusChanged.connect(self._focus)
        session.changed.connect(self.refresh)
        session.selected.connect(lambda _case: self.refresh())
        session.display_changed.connect(self.refresh)
        self._say("Click into a number: its effect on the chosen duty case is drawn here.")

    def _backwards(self) -> QHBoxLayout:
        line = QHBoxLayout()
        line.setSpacing(6)
        self.question = label("Backwards: to settle at", "faint")
        line.addWidget(self.question)
        self.wanted = QLineEdit()
        self.wanted.setFixedWidth(74)
        self.wanted.setAccessibleName("Wanted temperature")
        self.wanted.setPlaceholderText("220 °F")
        self.wanted.returnPressed.connect(self._ask)
        line.addWidget(self.wanted)
        self.find_button = button("Find", self._ask, "Find the value for it")
        line.addWidget(self.find_button)
        self.told = label("", "faint", wrap=True)
        line.addWidget(self.told, 1)
        self.use = button("Use it", self._use, "Use the value found", role="main")
        self.use.hide()
        line.addWidget(self.use)
        self.answer: Backwards | None = None
        self.asked: object = None
        self.answers: object = None
        """the builds asked about last, and the one the curve was worked out for"""
        return line

    def _focus(self, _old: QWidget | None, now: QWidget | None) -> None:
        if now is None or not self.pane.isAncestorOf(now):
            return
        field = now.parentWidget()
        if not isinstance(field, QuantityField) or _only_fit(field.path):
            self.hide()
            return
        if field.path != self.path:
            self.path = field.path
            self._tell("")
        if self._wanted:
            self.show()
            self.refresh()

    @property
    def _wanted(self) -> bool:
        """Asked for, or there is room for it beside the picture."""
        window = self.window()
        return self.asked_for or (window is not None and window.height() >= ROOMY)

    def toggle(self) -> None:
        """Whether the strip comes up when a number is focused."""
        self.asked_for = not self.isVisible() if self.path else not self.asked_for
        self.setVisible(self.asked_for and bool(self.path))
        self.refresh()

    def refresh(self) -> None:
        """Ask again for the same number: the build, the case or the units moved."""
        if not self.path or not self.isVisible():
            return
        build, path, case = self.session.build, self.path, self.session.case
        try:
            _, spec = owner_and_spec(build, path)
        except InputError:
            self.path = ()
            self._say("Click into a number: its effect on the chosen duty case is drawn here.")
            return
        name = next((c.name for c in build.duty_cases if c.id == case), "")
        how = "at the top of the swing" if switches(path) else "with the fans held on"
        self.subject = f"{spec.label if spec else ''} against {name or 'no duty case'}"
        self.head.setText(f"{self.subject}, {how}")
        if case:
            needs = needs_of(build, build.package, build.duty_case(case))
            if needs:
                # Nothing is worked out, and so nothing settles or does not.
                self._say(f"This duty case first needs {', '.join(need.label.lower() for need in needs[:4])}.")
                return
            self.chart.setEnabled(self.answers is build)
            self.asked = build
            self.worker.ask(lambda: response(build, path, case))

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _say(self, text: str) -> None:
        self.chart.setEnabled(True)
        self.chart.show_picture(ChartPicture(note=text))

    def _show(self, answer: Response) -> None:
        if answer.path != self.path:
            return
        self.answers = self.asked
        self.chart.setEnabled(self.answers is self.session.build)
        if not answer.moves:
            settles = any(math.isfinite(t) for t in answer.temperatures)
            never = self.session.stopped or "This duty case never settles, whatever it is."
            self._say(f"{answer.label} does not move this duty case." if settles else never)
            return
        kind = KINDS[answer.kind_name]
        unit = kind.units[0] if kind.named else self.session.unit(kind)
        heat = self.session.unit(HOTTER if answer.weather else TEMPERATURE)

        def shown(si: float) -> float:
            return (si - unit.offset) / unit.factor

        def hot(celsius: float) -> float:
            return (celsius - heat.offset) / heat.factor

        xs, ys = tuple(map(shown, answer.values)), tuple(map(hot, answer.told))
        now = hot(next((t for v, t in zip(answer.values, answer.told, strict=True) if v == answer.now), math.nan))
        limit, mark = self.session.assessment.limit, "limit"
        if answer.weather:
            limit, mark = 0.0, "held"
            self.head.setText(f"{self.subject}: never settles. How much hotter a day it is held on, under 0 what lacks")
        self.chart.show_picture(
            ChartPicture(
                series=(Series("", xs, ys),),
                marks=(
                    ChartMark(
                        shown(answer.now), now, "you are here" if math.isfinite(now) else "does not settle here", "now"
                    ),
                )
                if not math.isnan(now)
                else (),
                stripes=tuple(Stripe(shown(s.start), shown(s.end), s.sort) for s in stretches(answer)),
                level=(hot(limit), mark) if limit is not None else None,
                across=unit.symbol,
                up=heat.symbol,
            ),
            lambda value: number_text(value * unit.factor + unit.offset, unit) if unit.symbol == "in" else f"{value:g}",
        )

    def _tell(self, text: str, role: str = "faint") -> None:
        self.told.setText(text)
        restyle(self.told, "role", role)
        self.use.hide()

    def _ask(self) -> None:
        restyle(self.wanted, "wrong", False)
        if not self.path or not self.session.case:
            self._tell("click into a number first")
            return
        try:
            wanted = parse(self.wanted.text(), TEMPERATURE, self.session.unit(TEMPERATURE).symbol).si
        except InputError as error:
            restyle(self.wanted, "wrong", True)
            self._tell(error.message, "error")
            return
        build, path, case = self.session.build, self.path, self.session.case
        self._tell("working it out …")
        self.searcher.ask(lambda: (path, value_for(build, path, case, wanted)))

    def _found(self, result: tuple[Path, Backwards]) -> None:
        path, answer = result
        if path != self.path:
            return
        self.answer = answer
        if answer.value is None:
            nearest = (
                f" {format_si(answer.temperature, TEMPERATURE, self.session.system)}"
                if math.isfinite(answer.temperature)
                else ""
            )
            self._tell(f"{answer.why}{nearest}")
            return
        _, spec = owner_and_spec(self.session.build, path)
        assert spec is not None
        self._tell(f"{format_si(answer.value, spec.kind, self.session.system)}")
        self.use.show()

    def _use(self) -> None:
        if self.answer is None or self.answer.value is None:
            return
        _, spec = owner_and_spec(self.session.build, self.path)
        assert spec is not None
        value = from_si(self.answer.value, spec.kind_name, self.session.system, "derived")
        self.use.hide()
        self.session.attempt(set_value(self.path, value, f"{spec.label} for {self.wanted.text()}"))
