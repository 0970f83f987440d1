"""The Trials station."""

from __future__ import annotations

from datetime import date
from functools import cached_property, partial

from keelroom.assess.acts.registry import offer
from keelroom.catalogue.protocols import PROTOCOLS
from keelroom.gui.rows import Page
from keelroom.gui.session.session import Session
from keelroom.gui.stations.trials.board import TrialBoard
from keelroom.gui.stations.trials.declared import TRIALS
from keelroom.gui.stations.trials.learn import LearnView
from keelroom.gui.stations.trials.log import LogView
from keelroom.gui.stations.trials.model import Known, pages
from keelroom.gui.stations.trials.next_view import NextView
from keelroom.gui.stations.trials.protocol import ProtocolView
from keelroom.gui.stations.trials.tries import Tries
from keelroom.gui.widgets.act_menu import ActMenu, Entry
from keelroom.gui.widgets.form import Form


class TrialsStation(Form):
    """Foretells a test, takes its readings in, and learns from them."""

    def __init__(self, session: Session) -> None:
        self.tries = Tries(session)
        makers = {
            "Protocol": lambda: ProtocolView(session, self.tries),
            "Log": lambda: LogView(session, self.tries),
            "Learn": lambda: LearnView(session),
            "Next": lambda: NextView(session),
        }
        super().__init__(
            session,
            TRIALS,
            self._pages,
            {"which": self._which, "protocol": self._protocol, "told": self._told, "again": self._again},
            makers,
            {"Logbook": TrialBoard(session, self.tries)},
        )
        self.tries.turned.connect(self.changed)
        self.tries.come.connect(self.changed)

    def _pages(self) -> tuple[Page, ...]:
        tries, trial = self.tries, self.tries.trial
        known = Known(tries.before(trial), tries.found, tries.against) if trial is not None else Known()
        return pages(self.session.build, trial, known, self.session.system)

    @cached_property
    def menu(self) -> ActMenu:
        return ActMenu(self, self.session, "Trials")

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
