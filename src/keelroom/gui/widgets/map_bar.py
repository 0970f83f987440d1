"""Under the drawing at the Air station: which map is shown, and a slider of road speed the map follows."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QSlider, QVBoxLayout, QWidget

from keelroom.assess.drives.face import AirMap, Quantity
from keelroom.assess.questions.airmap import air_map
from keelroom.document.schema.build import Build
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.air_overlay import overlay_of
from keelroom.gui.widgets.bay import BayDrawing
from keelroom.gui.widgets.text import chip, label, set_quietly
from keelroom.units import KINDS, format_si

CHOICES: tuple[tuple[str, Quantity | None], ...] = (
    ("Parts", None),
    ("Air speed", "speed"),
    ("Air temperature", "air"),
    ("Heat", "heat"),
)
TOP_SPEED = 45.0
"""[m/s] at the slider's right end."""
GRAINS = 90


class MapBar(QWidget):
    """Asks for the map beside the window and hands it to the drawing; newest question wins."""

    def __init__(self, session: Session, bay: BayDrawing) -> None:
        super().__init__()
        self.session, self.bay = session, bay
        self.setObjectName("panel")
        self.what: Quantity | None = "speed"
        self.follow = True
        """the slider stands at the duty case's own speed until it is moved"""
        self.shown: tuple[AirMap | None, AirMap | None] = (None, None)
        self.asked: Build | None = None
        self.answers: Build | None = None
        """the builds asked about last, and the one the map was worked out for"""
        self.worker = Worker(self)
        self.worker.answered.connect(self._show)
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 2, 8, 4)
        column.setSpacing(0)
        column.addLayout(self._choices())
        column.addLayout(self._speed())
        self.worker.failed.connect(self._failed)
        session.changed.connect(self.refresh)
        session.selected.connect(lambda _case: self._case_chosen())
        session.display_changed.connect(self._draw)

    def _choices(self) -> QHBoxLayout:
        line = QHBoxLayout()
        line.setSpacing(0)
        self.chips = {}
        for name, what in CHOICES:
            self.chips[name] = chip(name, partial(self.choose, what))
            self.chips[name].setAccessibleName(f"Show {name.lower()} on the face")
            line.addWidget(self.chips[name])
        set_quietly(self.chips["Air speed"], True)
        line.addStretch(1)
        self.compare = chip("Against hold", self._draw)
        self.compare.setAutoExclusive(False)
        self.compare.setToolTip("Show what changed since the held state")
        line.addWidget(self.compare)
        return line

    def _speed(self) -> QHBoxLayout:
        line = QHBoxLayout()
        line.setSpacing(8)
        line.addWidget(label("Road speed", "faint"))
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, GRAINS)
        self.slider.setAccessibleName("Road speed of the map")
        self.slider.valueChanged.connect(self._moved)
        line.addWidget(self.slider, 1)
        self.said = label("")
        self.said.setMinimumWidth(210)
        line.addWidget(self.said)
        return line

    def choose(self, what: Quantity | None) -> None:
        self.what = what
        self.refresh()

    def _case_chosen(self) -> None:
        self.follow = True
        self.refresh()

    def _moved(self) -> None:
        self.follow = False
        self.refresh()

    @property
    def speed(self) -> float:
        """[m/s]"""
        return self.slider.value() / GRAINS * TOP_SPEED

    def refresh(self) -> None:
        """Ask for the map of the build as it stands; nothing while it is not seen."""
        if not self.isVisible():
            return
        self.compare.setVisible(self.session.held is not None)
        if self.what is None:
            self.bay.show_overlay(None)
            return
        build, case, held = self.session.build, self.session.case, self.session.held
        own = next((c.speed.si for c in build.duty_cases if c.id == case), 0.0)
        if self.follow:
            self.slider.blockSignals(True)
            self.slider.setValue(round(own / TOP_SPEED * GRAINS))
            self.slider.blockSignals(False)
        speed = None if self.follow else self.speed
        if not case:
            self.said.setText("no duty case")
            return

        def maps() -> tuple[AirMap | None, AirMap | None]:
            before = None
            if held is not None and any(c.id == case for c in held.build.duty_cases):
                before = air_map(held.build, case, speed)
            return air_map(build, case, speed), before

        self.asked = build
        self.worker.ask(maps)

    def _show(self, found: tuple[AirMap | None, AirMap | None]) -> None:
        self.shown, self.answers = found, self.asked
        self._draw()

    def _failed(self, why: str) -> None:
        """No map of an earlier build stays; the reason stands where its figures would."""
        self.shown, self.answers = (None, None), None
        self.bay.show_overlay(None)
        self.said.setText(f"No map: {why}")

    def _draw(self) -> None:
        now, before = self.shown
        if self.what is None or not self.isVisible():
            return
        if now is None:
            self.bay.show_overlay(None)
            if self.answers is not None:
                self.said.setText(
                    "not worked out" if self.session.stopped else "needs more before air can be worked out"
                )
            return
        system = self.session.system
        settles = format_si(now.temperature, KINDS["temperature"], system) if now.settles else "does not settle"
        self.said.setText(f"{format_si(now.road_speed, KINDS['speed'], system)}: {settles}")
        against = before if self.compare.isChecked() and self.session.held is not None else None
        self.bay.show_overlay(overlay_of(now, self.what, system, against), self.answers)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def hideEvent(self, event: object) -> None:
        self.worker.cancel()
        self.bay.show_overlay(None)
