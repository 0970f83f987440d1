"""The Core station."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.gui.keeping import kept_words
from keelroom.gui.session.session import Session
from keelroom.gui.stations.core.compare import CoresView, sweeps_page
from keelroom.gui.stations.core.declared import CORE
from keelroom.gui.stations.core.model import pages
from keelroom.gui.widgets.form import Form


class CoreStation(Form):
    """Chooses the core, or describes one that is on the bench."""

    def __init__(self, session: Session) -> None:
        actions = {"keep": self._keep}
        makers = {"Choose": lambda: CoresView(session), "Sweeps": lambda: sweeps_page(session)}
        super().__init__(session, CORE, lambda: pages(session.build), actions, makers)
        session.selected.connect(lambda _case: self.refresh())

    def _keep(self) -> None:
        build = self.session.build
        if self.session.do(offer("keep_core", build.active)):
            self.session.told.emit(kept_words(build.package.core))
