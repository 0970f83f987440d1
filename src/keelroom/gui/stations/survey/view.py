"""The Survey station: the tape walk, with a picture of each reading in the middle of the window."""

from __future__ import annotations

from PyQt6.QtWidgets import QApplication, QWidget

from keelroom.document.fields import get, owner_and_spec
from keelroom.document.quantity import described
from keelroom.drawing.scene import Scene
from keelroom.drawing.survey import picture
from keelroom.errors import InputError
from keelroom.facts import lowered
from keelroom.gui.session.session import Session
from keelroom.gui.stations.survey.declared import SURVEY
from keelroom.gui.stations.survey.model import label_of, pages
from keelroom.gui.widgets.fields import field_round
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.reading import ReadingField, way_of
from keelroom.gui.widgets.scene_view import SceneView


class SurveyStation(Form):
    """Asks for one reading after the other; Enter goes on."""

    def __init__(self, session: Session) -> None:
        self.shown: tuple[str, ...] = ("survey", "opening", "width")
        super().__init__(session, SURVEY, lambda: pages(session.build))
        self.board = SceneView(session, "Where the tape goes", self._picture)
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.focusChanged.connect(self._focused)
        self.turned.connect(self._page_turned)

    def drawing(self) -> QWidget:
        return self.board

    def _focused(self, _old: QWidget | None, now: QWidget | None) -> None:
        """The picture follows the cursor."""
        field = field_round(now)
        if isinstance(field, ReadingField) and self.isAncestorOf(field):
            self.shown = field.path
            self.board.changed()

    def _page_turned(self) -> None:
        """A page begins with its first reading's picture, where the shown one belongs to another page."""
        page = next(page for page in self.pages() if page.title == self.current)
        paths = [row.path for group in page.groups for row in group.rows if row.sort == "reading"]
        if paths and self.shown not in paths:
            self.shown = paths[0]
            self.board.changed()

    def _picture(self) -> tuple[Scene | None, str, str]:
        build = self.session.build
        try:
            value = get(build, self.shown)
        except InputError:
            self.shown = ("survey", "opening", "width")
            value = get(build, self.shown)
        text = "measure"
        if value is not None:
            _, spec = owner_and_spec(build, self.shown)
            assert spec is not None
            text = described(value, spec.kind, self.session.system)
        following = self.session.assessment.fit.next if self.session.assessment.fit else None
        foot = f"Most useful next: {lowered(following.what)} ({following.why})" if following else ""
        return picture(self.shown, text), f"{label_of(build, self.shown)}: {way_of(value)}", foot
