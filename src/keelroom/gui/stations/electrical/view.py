"""The Electrical station."""

from __future__ import annotations

from keelroom.drawing.charging import charging
from keelroom.drawing.scene import Scene
from keelroom.drawing.wiring import wiring
from keelroom.facts import lowered
from keelroom.gui.session.session import Session
from keelroom.gui.stations.electrical.declared import ELECTRICAL
from keelroom.gui.stations.electrical.harness import HarnessView
from keelroom.gui.stations.electrical.kits import KitsView
from keelroom.gui.stations.electrical.model import pages
from keelroom.gui.stations.electrical.schools import SchoolsView
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import Picture

READABLE = 700.0
"""[px/m] under which the words of a drawing would lie over each other: it is then scrolled instead of shrunk."""


class ElectricalStation(Form):
    """Circuits, charging, control, harness; the drawing follows the page."""

    def __init__(self, session: Session) -> None:
        makers = {
            "Kits": lambda: KitsView(session),
            "Schools": lambda: SchoolsView(session),
            "Harness": lambda: HarnessView(session),
        }
        wired = Picture("Wiring drawing", self._wiring, READABLE)
        pictures = dict.fromkeys(("Circuits", "Kits", "Control", "Harness", "Test"), wired)
        pictures["Charging"] = Picture("Charging balance", self._charging, READABLE)
        super().__init__(
            session,
            ELECTRICAL,
            lambda: pages(session.build, session.system, session.assessment, self.current),
            {},
            makers,
            pictures,
        )

    def go_to(self, path: tuple[str, ...]) -> bool:
        """Circuits and the control's marks have pages, whatever is asked of them."""
        if super().go_to(path):
            return True
        if path[2:3] == ("circuits",):
            self.choose("Circuits")
            return True
        if path[2:3] == ("control",):
            self.choose("Test" if path[-1:] in (("spun",), ("done",)) else "Control")
            return True
        return False

    def _wiring(self) -> tuple[Scene | None, str, str]:
        build, assessment = self.session.build, self.session.assessment
        scene = wiring(build, build.package, assessment, self.session.system)
        if scene is None:
            return None, "No circuit to draw yet", "Plan what is missing draws one for every motor."
        return (
            scene,
            f"Wiring, {build.package.name or build.package.id}",
            "Disconnect the battery before wiring. Number, size, colour and length stand at each wire; red "
            "outlines: something is wrong there.",
        )

    def _charging(self) -> tuple[Scene | None, str, str]:
        build = self.session.build
        scene = charging(build, build.package, self.session.assessment)
        names = ", ".join(lowered(load.name or load.id) for load in build.supply.loads)
        foot = f"From the left: fans, other motors, {names}. Green: what the alternator gives hot."
        return (
            scene,
            "Charging balance by duty case" if scene else "No duty case is worked out yet",
            foot if scene else "",
        )
