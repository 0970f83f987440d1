"""The Brief station."""

from __future__ import annotations

from functools import cached_property

from keelroom.assess.acts.brief import measured_in
from keelroom.assess.acts.registry import offer
from keelroom.document.act import Act
from keelroom.document.schema.brief import Engine, Vehicle
from keelroom.gui.saving import ask_about_typed
from keelroom.gui.session.session import Session
from keelroom.gui.stations.brief.causes import CausesView
from keelroom.gui.stations.brief.declared import BRIEF
from keelroom.gui.stations.brief.drawn import pictures_of
from keelroom.gui.stations.brief.model import pages
from keelroom.gui.widgets.act_menu import ActMenu, Entry
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.sought import SoughtPage


class BriefStation(Form):
    """Describes the vehicle, the engine and what is asked of them."""

    def __init__(self, session: Session) -> None:
        actions = {
            "vehicle_kind": self._vehicle_kind,
            "engine_kind": self._engine_kind,
        }
        super().__init__(
            session,
            BRIEF,
            lambda: pages(session.build, session.system),
            actions,
            {
                "Causes": lambda: CausesView(session),
                "Explain": self._explain,
            },
            pictures_of(session),
        )
        session.selected.connect(lambda _case: self.refresh())

    def _explain(self) -> SoughtPage:
        """Made when it is turned to: what it asks takes drives and trials in, which no first window needs."""
        from keelroom.gui.stations.brief.explain import explain_page

        return explain_page(self.session)

    @cached_property
    def kinds(self) -> ActMenu:
        return ActMenu(self, self.session, "Usual kinds")

    def _vehicle_kind(self) -> None:
        from keelroom.catalogue.load import vehicles

        self._kinds("vehicle", vehicles())

    def _engine_kind(self) -> None:
        from keelroom.catalogue.load import engines

        self._kinds("engine", engines())

    def _kinds(self, section: str, kinds: tuple[Vehicle, ...] | tuple[Engine, ...]) -> None:
        """Usual kinds to begin from; what was measured is never written over without asking."""
        asked = bool(measured_in(getattr(self.session.build.brief, section)))
        self.kinds.put_up([self._entry(section, kind, asked) for kind in kinds])

    def _entry(self, section: str, kind: Vehicle | Engine, asked: bool) -> Entry:
        """One kind; what it would do is told where choosing it asks nothing more."""
        return Entry(kind.name, lambda: self._take_kind(section, kind), None if asked else _kind_act(section, kind))

    def _take_kind(self, section: str, kind: Vehicle | Engine) -> None:
        label = _kind_label(section, kind)
        measured = measured_in(getattr(self.session.build.brief, section))
        answer = ask_about_typed(self, label, [words for words, _ in measured.values()]) if measured else "replace"
        if answer:
            keep = {"keep": "measured"} if answer == "keep" else {}
            self.session.do(_kind_act(section, kind, **keep))


def _kind_label(section: str, kind: Vehicle | Engine) -> str:
    return f"{section.capitalize()}: {kind.name}"


def _kind_act(section: str, kind: Vehicle | Engine, **keep: str) -> Act:
    """A usual kind put in; keep: what was measured stays."""
    return offer("usual_kind", "", _kind_label(section, kind), section=section, name=kind.name, **keep)
