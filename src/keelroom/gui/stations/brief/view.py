"""The Brief station."""

from __future__ import annotations

from PyQt6.QtGui import QCursor
from PyQt6.QtWidgets import QMenu

from keelroom.assess.acts.brief import measured_in
from keelroom.assess.acts.registry import offer
from keelroom.document.schema.brief import Engine, Vehicle
from keelroom.gui.saving import ask_about_typed
from keelroom.gui.session.session import Session
from keelroom.gui.stations.brief.causes import CausesView
from keelroom.gui.stations.brief.model import pages
from keelroom.gui.widgets.form import Form


class BriefStation(Form):
    """Describes the vehicle, the engine and what is asked of them."""

    def __init__(self, session: Session) -> None:
        actions = {
            "vehicle_kind": self._vehicle_kind,
            "engine_kind": self._engine_kind,
        }
        super().__init__(session, lambda: pages(session.build), actions, {"Causes": lambda: CausesView(session)})

    def _vehicle_kind(self) -> None:
        from keelroom.catalogue.load import vehicles

        self._kinds("vehicle", vehicles())

    def _engine_kind(self) -> None:
        from keelroom.catalogue.load import engines

        self._kinds("engine", engines())

    def _kinds(self, section: str, kinds: tuple[Vehicle, ...] | tuple[Engine, ...]) -> None:
        """Usual kinds to begin from; what was measured is never written over without asking."""
        menu = QMenu(self)
        for kind in kinds:
            action = menu.addAction(kind.name)
            assert action is not None
            action.triggered.connect(lambda _checked=False, kind=kind: self._take_kind(section, kind))
        menu.popup(QCursor.pos())

    def _take_kind(self, section: str, kind: Vehicle | Engine) -> None:
        label = f"{section.capitalize()}: {kind.name}"
        measured = measured_in(getattr(self.session.build.brief, section))
        answer = ask_about_typed(self, label, [words for words, _ in measured.values()]) if measured else "replace"
        if answer:
            keep = {"keep": "measured"} if answer == "keep" else {}
            self.session.do(offer("usual_kind", "", label, section=section, name=kind.name, **keep))
