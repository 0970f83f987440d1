"""The Core station."""

from __future__ import annotations

from keelroom.assess.acts.core import own_cores
from keelroom.assess.acts.registry import offer
from keelroom.catalogue.load import cores
from keelroom.document.act import Act
from keelroom.document.schema.package import Core
from keelroom.errors import KeelRoomError
from keelroom.gui.keeping import kept_words
from keelroom.gui.session.session import Session
from keelroom.gui.stations.core.compare import CompareView, sweeps_page
from keelroom.gui.stations.core.model import COLUMNS, Choice, choices, fit_core_act, pages
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.form import Form


class CoreTable(ChooseTable):
    """Cores to choose from, the user's own first."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.offered: tuple[Choice, ...] = ()
        note = "A click puts the core into this package; every figure below follows. Your own parts say “mine”."
        super().__init__("Cores", COLUMNS, self.do, note, columns_are="named")
        self.foretell(session, self._act_at)

    def refresh(self) -> None:
        self.offered = choices(cores(), self._own(), self.session.system)
        name = self.session.build.package.core.name
        current = next((i for i, choice in enumerate(self.offered) if choice.core.name == name), -1)
        self.show_rows([choice.cells for choice in self.offered], current)

    def _own(self) -> tuple[Core, ...]:
        try:
            return own_cores(self.session.build)
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            return self.session.build.own_cores

    def _act_at(self, row: int) -> Act | None:
        return fit_core_act(self.session.build, self.offered[row].core)


class CoreStation(Form):
    """Chooses the core, or describes one that is on the bench."""

    def __init__(self, session: Session) -> None:
        actions = {"keep": self._keep}
        makers = {
            "Choose": lambda: CoreTable(session),
            "Compare": lambda: CompareView(session),
            "Sweeps": lambda: sweeps_page(session),
        }
        super().__init__(session, lambda: pages(session.build), actions, makers)
        session.selected.connect(lambda _case: self.refresh())

    def _keep(self) -> None:
        build = self.session.build
        if self.session.do(offer("keep_core", build.active)):
            self.session.told.emit(kept_words(build.package.core))
