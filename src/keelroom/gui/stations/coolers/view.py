"""The Aux coolers station."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from keelroom.assess.acts.coolers import KINDS_OF_COOLER
from keelroom.assess.acts.registry import offer
from keelroom.document.act import Act
from keelroom.document.schema.coolers import CoolerKind
from keelroom.gui.session.session import Session
from keelroom.gui.stations.coolers.declared import AUX_COOLERS
from keelroom.gui.stations.coolers.drawn import fluids_picture, lines_picture
from keelroom.gui.stations.coolers.model import pages
from keelroom.gui.stations.coolers.tables import BooksView, ListView, PlacesView, WaysView
from keelroom.gui.stations.coolers.told import LinesPage, NoisePage
from keelroom.gui.widgets.form import Form


class AuxCoolersStation(Form):
    """Coolers, their fluids, ways, places, lines and noise, each beside its picture."""

    def __init__(self, session: Session) -> None:
        makers = {
            "List": lambda: ListView(session, self._added()),
            "Books": lambda: BooksView(session),
            "Gearbox": lambda: WaysView(session),
            "Find": lambda: PlacesView(session),
            "Lines": lambda: LinesPage(session, "Lines of the coolers"),
            "Noise": lambda: NoisePage(session),
        }
        fluids = fluids_picture(session)
        pictures = {"List": fluids, "Books": fluids, "Fluids": fluids, "Lines": lines_picture(session)}
        super().__init__(
            session,
            AUX_COOLERS,
            lambda: pages(session.build, session.system, session.assessment, self.current, session.case),
            {},
            makers,
            pictures,
        )
        session.selected.connect(lambda _case: self.refresh())

    def _added(self) -> dict[str, Callable[[], Act]]:
        """The coolers that can be added, by what their buttons are called."""
        return {
            f"Add {words[0].lower() if words[1].islower() else words[0]}{words[1:]}": partial(self._adds, kind)
            for kind, words in KINDS_OF_COOLER
        }

    def _adds(self, kind: CoolerKind) -> Act:
        return offer("add_cooler", self.session.build.active, kind=kind)
