"""The Core station."""

from __future__ import annotations

from keelroom.assess.questions.compare import fit_core
from keelroom.catalogue.load import cores, keep_own, own_parts
from keelroom.document.packages import duplicated, without
from keelroom.document.schema.package import Core
from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.core.compare import CompareView, sweeps_page
from keelroom.gui.stations.core.model import COLUMNS, Choice, choices, pages
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.form import Form


class CoreTable(ChooseTable):
    """Cores to choose from, the user's own first."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.offered: tuple[Choice, ...] = ()
        note = "A click puts the core into this package; every figure below follows. Your own parts say “mine”."
        super().__init__("Cores", COLUMNS, self._choose, note)

    def refresh(self) -> None:
        self.offered = choices(cores(), self._own(), self.session.system)
        name = self.session.build.package.core.name
        current = next((i for i, choice in enumerate(self.offered) if choice.core.name == name), -1)
        self.show_rows([choice.cells for choice in self.offered], current)

    def _own(self) -> tuple[Core, ...]:
        try:
            return (
                *self.session.build.own_cores,
                *(c for c in own_parts().cores if c.name not in {k.name for k in self.session.build.own_cores}),
            )
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            return self.session.build.own_cores

    def _choose(self, row: int) -> None:
        core = self.offered[row].core
        if core != self.session.build.package.core:
            self.session.attempt(fit_core(self.session.build, core, self.session.system))


class CoreStation(Form):
    """Chooses the core, or describes one that is on the bench."""

    def __init__(self, session: Session) -> None:
        actions = {"keep": self._keep, "copy_package": self._copy, "remove_package": self._remove}
        makers = {"Choose": lambda: CoreTable(session), "Compare": lambda: CompareView(session), "Sweeps": lambda: sweeps_page(session)}
        super().__init__(session, lambda: pages(session.build), actions, makers)
        session.selected.connect(lambda _case: self.refresh())

    def _keep(self) -> None:
        core = self.session.build.package.core
        if not core.name:
            self.session.told.emit("Give the core a name first; it is kept under it")
            return
        others = tuple(c for c in self.session.build.own_cores if c.name != core.name)
        if self.session.set(("own_cores",), (*others, core), f"Keep “{core.name}” in my parts"):
            try:
                keep_own(core)
            except (KeelRoomError, OSError) as error:
                self.session.told.emit(f"Kept with this build only: {getattr(error, 'message', error)}")
            else:
                self.session.told.emit(f"“{core.name}” is kept with this build and in your own catalogue")

    def _copy(self) -> None:
        self.session.attempt(duplicated(self.session.build))

    def _remove(self) -> None:
        try:
            self.session.attempt(without(self.session.build, self.session.build.active))
        except KeelRoomError as error:
            self.session.told.emit(error.message)
