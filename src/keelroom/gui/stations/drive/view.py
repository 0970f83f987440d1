"""The Drive station."""

from __future__ import annotations

from functools import cached_property, partial

from keelroom.assess.acts.registry import offer
from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.cycles import CyclesView
from keelroom.gui.stations.drive.declared import DRIVE
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.stations.drive.model import pages
from keelroom.gui.stations.drive.packages import RacedView
from keelroom.gui.stations.drive.planned import ScheduleBoard
from keelroom.gui.stations.drive.run import RunView
from keelroom.gui.stations.drive.what_if import WhatIfView
from keelroom.gui.widgets.act_menu import ActMenu, Entry
from keelroom.gui.widgets.form import Form


class DriveStation(Form):
    """Runs a package through a schedule, and tells what happens when."""

    def __init__(self, session: Session) -> None:
        self.drives = Drives(session)
        makers = {
            "Run": lambda: RunView(session, self.drives),
            "What if": lambda: WhatIfView(session, self.drives),
            "Packages": lambda: RacedView(session, self.drives),
            "Cycles": lambda: CyclesView(session, self.drives),
        }
        super().__init__(
            session,
            DRIVE,
            lambda: pages(session.build, self.drives.schedule, session.system),
            {"which": self._which, "case": self._case},
            makers,
            {"Schedule": ScheduleBoard(session, self.drives)},
        )
        self.drives.turned.connect(self.changed)

    @cached_property
    def menu(self) -> ActMenu:
        return ActMenu(self, self.session, "Drives")

    def _which(self) -> None:
        """Another drive to look at."""
        there = self.session.build.driving.schedules
        self.menu.put_up([Entry(one.name or one.id, partial(self.drives.choose, one.id)) for one in there])

    def _case(self) -> None:
        """A duty case to run as a drive."""
        self.menu.put_up(
            [Entry(case.name or case.id, partial(self._drive, case.id)) for case in self.session.build.duty_cases]
        )

    def _drive(self, case: str) -> None:
        if self.session.do(offer("drive_case", case=case)):
            self.drives.choose(self.session.build.driving.schedules[-1].id)

    def go_to(self, path: tuple[str, ...]) -> bool:
        """A schedule's own fields, whichever is looked at."""
        if path[:2] == ("driving", "schedules") and len(path) > 2:
            self.drives.choose(path[2])
        if super().go_to(path):
            return True
        if path[:2] == ("driving", "traces"):
            self.choose("Cycles")
            return True
        if path[:1] == ("driving",):
            self.choose("Schedule")
            return True
        return False
