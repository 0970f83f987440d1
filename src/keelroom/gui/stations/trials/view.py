"""The Trials station."""

from __future__ import annotations

from datetime import date
from functools import cached_property, partial

from keelroom.assess.acts.registry import offer
from keelroom.assess.placing import size_of
from keelroom.assess.trials.expected import Foretold
from keelroom.assess.trials.tried import package_of
from keelroom.catalogue.protocols import PROTOCOLS
from keelroom.document.photos import state_of
from keelroom.drawing.scene import Scene
from keelroom.drawing.trials import traverse_scene
from keelroom.gui.photos import ask_for_photo, show_photo
from keelroom.gui.rows import Page, Path
from keelroom.gui.session.session import Session
from keelroom.gui.stations.trials.board import TrialBoard
from keelroom.gui.stations.trials.declared import TRIALS
from keelroom.gui.stations.trials.learn import LearnView
from keelroom.gui.stations.trials.log import LogView
from keelroom.gui.stations.trials.model import Known, pages, walk
from keelroom.gui.stations.trials.next_view import NextView
from keelroom.gui.stations.trials.protocol import ProtocolView
from keelroom.gui.stations.trials.tries import Tries
from keelroom.gui.walks import Walk, Walked
from keelroom.gui.widgets.act_menu import ActMenu, Entry
from keelroom.gui.widgets.form import Form


class TrialsStation(Form):
    """Foretells a test, takes its readings in, and learns from them."""

    def __init__(self, session: Session) -> None:
        self.tries = Tries(session)
        makers = {
            "Protocol": self._protocol_view,
            "Log": lambda: LogView(session, self.tries),
            "Learn": lambda: LearnView(session),
            "Next": lambda: NextView(session),
        }
        super().__init__(
            session,
            TRIALS,
            self._pages,
            {
                "which": self._which,
                "protocol": self._protocol,
                "told": self._told,
                "again": self._again,
                "photo": self._photo,
                "look": self._look,
            },
            makers,
            {"Logbook": TrialBoard(session, self.tries)},
        )
        self.tries.turned.connect(self.changed)
        self.tries.come.connect(self.changed)

    def _protocol_view(self) -> ProtocolView:
        view = ProtocolView(self.session, self.tries)
        view.benched.connect(self.benched)
        return view

    def _pages(self) -> tuple[Page, ...]:
        tries, trial = self.tries, self.tries.trial
        photos = {one.id: state_of(self.session.path, one) for one in trial.photos} if trial is not None else {}
        known = Known(tries.before(trial), tries.found, tries.against, photos) if trial is not None else Known()
        return pages(self.session.build, trial, known, self.session.system)

    @cached_property
    def menu(self) -> ActMenu:
        return ActMenu(self, self.session, "Trials")

    def walked(self) -> Walked | None:
        """The readings of the trial that is looked at; the tape walk where it has none."""
        trial = self.tries.trial
        if trial is None or not trial.readings:
            return None
        return Walked(self._walk, self._beside, lambda: self.tries.clock if self.tries.began is not None else "")

    def _walk(self) -> Walk:
        trial = self.tries.trial
        return walk(self.session.build, trial) if trial is not None else ()

    def _beside(self, path: Path, _text: str) -> Scene | None:
        """Where the vane is held, for a mark of the face."""
        trial, found = self.tries.trial, self.tries.found
        reading = next((one for one in trial.readings if one.id == path[-2]), None) if trial else None
        if trial is None or reading is None or not reading.mark:
            return None
        wide, high = size_of(package_of(self.session.build, trial).core)
        speeds = found.marks if isinstance(found, Foretold) else ()
        return traverse_scene(wide, high, speeds, self.session.system, reading.mark) if wide * high > 0 else None

    def _which(self) -> None:
        """Another trial to look at."""
        there = self.session.build.logbook.trials
        self.menu.put_up([Entry(one.name or one.id, partial(self.tries.choose, one.id)) for one in there])

    def _protocol(self) -> None:
        """A protocol to make a trial of."""
        self.menu.put_up([Entry(one.name, partial(self._add, one.key)) for one in PROTOCOLS])

    def _add(self, key: str) -> None:
        self._made(self.session.do(offer("add_trial", protocol=key, day=date.today().isoformat())))

    def _told(self) -> None:
        """A duty case something was seen in, as a trial."""
        cases = self.session.build.duty_cases
        self.menu.put_up([Entry(case.name or case.id, partial(self._from, case.id)) for case in cases])

    def _from(self, case: str) -> None:
        self._made(self.session.do(offer("told_trial", case=case)))

    def _again(self) -> None:
        trial = self.tries.trial
        if trial is not None:
            act = offer("trial_again", trial=trial.id, day=date.today().isoformat())
            self._made(self.session.do(act))

    def _photo(self) -> None:
        """Ask for a photo and take it in."""
        trial = self.tries.trial
        if trial is not None:
            ask_for_photo(self, self.session, ("logbook", "trials", trial.id, "photos"))

    def _look(self) -> None:
        """A photo to look at, large."""
        there = self.tries.trial.photos if self.tries.trial else ()
        self.menu.put_up([Entry(one.note or one.file, partial(show_photo, self, self.session, one)) for one in there])

    def _made(self, done: bool) -> None:
        if done:
            self.tries.choose(self.session.build.logbook.trials[-1].id)

    def go_to(self, path: tuple[str, ...]) -> bool:
        """A trial's own fields, whichever is looked at."""
        if path[:2] == ("logbook", "trials") and len(path) > 2:
            self.tries.choose(path[2])
        if super().go_to(path):
            return True
        if path[:1] == ("calibration",):
            self.choose("Learn")
            return True
        if path[:1] == ("logbook",):
            self.choose("Logbook")
            return True
        return False
