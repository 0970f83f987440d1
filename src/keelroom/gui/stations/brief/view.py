"""The Brief station."""

from __future__ import annotations

from PyQt6.QtGui import QCursor
from PyQt6.QtWidgets import QMenu

from keelroom.assess.defaults import engine_edit
from keelroom.document.edits import Change, Edit, added, fresh_id
from keelroom.document.fields import measured_fields
from keelroom.document.schema.brief import Engine, Vehicle
from keelroom.document.schema.build import DutyCase
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
            "add_case": self._add_case,
            "remake_cases": session.remake_duty_cases,
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
        present = getattr(self.session.build.brief, section)
        measured = {
            path[-1]: (spec.label, value)
            for path, spec, value in measured_fields(present)
            if value is not None and value.origin == "measured"
        }
        label = f"{section.capitalize()}: {kind.name}"
        if measured:
            answer = ask_about_typed(self, label, [words for words, _ in measured.values()])
            if not answer:
                return
            if answer == "keep":
                kept = {name: value for name, (_, value) in measured.items()}
                kind = kind.model_copy(update=kept | ({"name": present.name} if present.name else {}))
        if isinstance(kind, Engine):
            self.session.attempt(engine_edit(self.session.build, kind, label))
        else:
            self.session.attempt(Edit(label, (Change(("brief", section), kind),)))

    def _add_case(self) -> None:
        cases = self.session.build.duty_cases
        case = DutyCase(id=fresh_id(cases, "case"), name=f"Duty case {len(cases) + 1}")
        self.session.attempt(added(self.session.build, ("duty_cases",), case, "Add a duty case"))
