"""The Electrical station."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget

from keelroom.drawing.charging import charging
from keelroom.drawing.scene import Scene
from keelroom.drawing.wiring import wiring
from keelroom.facts import lowered
from keelroom.gui.session.session import Session
from keelroom.gui.stations.electrical.harness import HarnessView
from keelroom.gui.stations.electrical.kits import KitsView
from keelroom.gui.stations.electrical.model import pages
from keelroom.gui.stations.electrical.schools import SchoolsView
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import SceneView

READABLE = 700.0
"""[px/m] under which the words of a drawing would lie over each other: it is then scrolled instead of shrunk."""


class ElectricalStation(Form):
    """Circuits, charging, control, harness; the drawing follows the page."""

    def __init__(self, session: Session) -> None:
        self.boards: dict[str, SceneView] = {}
        makers = {"Kits": lambda: KitsView(session), "Schools": self._schools, "Harness": lambda: HarnessView(session)}
        super().__init__(
            session, lambda: pages(session.build, session.system, session.assessment, self.current), {}, makers
        )

    def _schools(self) -> QWidget:
        made = SchoolsView(self.session)
        made.come.connect(lambda: self.boards["Schools"].changed() if "Schools" in self.boards else None)
        return made

    def drawing(self) -> QWidget:
        name = self.current if self.current in ("Charging", "Schools") else "Wiring"
        if name not in self.boards:
            sources = {"Charging": self._charging, "Schools": self._compared, "Wiring": self._wiring}
            said = {"Charging": "Charging balance", "Schools": "Schools of control, drawn", "Wiring": "Wiring drawing"}
            self.boards[name] = SceneView(self.session, said[name], sources[name], readable=READABLE)
        return self.boards[name]

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

    def _compared(self) -> tuple[Scene | None, str, str]:
        page = self.views.get("Schools")
        assert isinstance(page, SchoolsView)
        return page.picture()
