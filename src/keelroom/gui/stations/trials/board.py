"""The trial that is looked at, drawn: what should be read with its band, and what was."""

from __future__ import annotations

from keelroom.assess.outcome import Stopped
from keelroom.drawing.trials import trial_scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.trials.tries import Tries
from keelroom.gui.widgets.scene_view import Drawing, SceneView

READABLE = 760.0
"""[px/m] under which the words of the strips would lie on each other"""
FOOT = "Tinted: 80 of 100 such cars and sensors read within. Line and dots: what was read."


class TrialBoard(SceneView):
    """Drawn anew when it is known what should be read."""

    def __init__(self, session: Session, tries: Tries) -> None:
        self.tries = tries
        super().__init__(session, "Trial over time", self._drawn, READABLE)
        tries.come.connect(self.changed)
        tries.turned.connect(self.changed)

    def showEvent(self, event: object) -> None:
        super().showEvent(event)
        self.tries.ask()

    def _drawn(self) -> Drawing:
        trial, found = self.tries.trial, self.tries.found
        if self.tries.missing or trial is None:
            return None, "", self.tries.missing
        if isinstance(found, Stopped):
            return None, trial.name, f"{found.sentence}."
        if found is None:
            return None, "", "working it out …"
        before = self.tries.before(trial)
        scene = trial_scene(trial, found, self.session.system, before)
        against = f" against {before.name}" if before else ""
        return scene, f"{trial.name}{against}", FOOT
