"""How every package of the build stands: worked out beside the window, one package after the other, and kept as long
as nothing it is made of changes. A build of many packages holds nothing up: what is not known yet is said to be so.
"""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.document.schema.build import Build
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker

Made = tuple[object, ...]
"""The very sections a package's verdict is made of."""


def made_of(build: Build, ident: str) -> Made:
    """What a package's assessment reads of a build."""
    package = build.with_id(ident)
    return package, build.brief, build.survey, build.gaps, build.supply, build.duty_cases


class Verdicts(QObject):
    """`of` gives what is known of a package as it stands; `come` says that another one is. Lives as long as somebody
    looks."""

    come = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.known: dict[str, tuple[Made, Assessment]] = {}
        self.asked: tuple[str, Made] = ("", ())
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(lambda _why: self._go_on())

    def of(self, ident: str) -> Assessment | None:
        """The assessment of a package as it stands; None while it is not worked out."""
        build = self.session.build
        if ident == build.active:
            return self.session.assessment
        made, found = self.known.get(ident, ((), None))
        return found if found is not None and _same(made, made_of(build, ident)) else None

    def look(self) -> None:
        """Work out what is not known, unless the very thing is being worked out already."""
        ident, made = self.asked
        there = {package.id for package in self.session.build.packages}
        self.known = {one: known for one, known in self.known.items() if one in there}
        if not (self.worker.busy and ident in there and _same(made, made_of(self.session.build, ident))):
            self._go_on()

    def _go_on(self) -> None:
        build = self.session.build
        ident = next((package.id for package in build.packages if self.of(package.id) is None), "")
        if not ident:
            self.worker.cancel()
            return
        self.asked = (ident, made_of(build, ident))
        self.worker.ask(lambda: first_wave(build, ident))

    def _answered(self, found: Assessment) -> None:
        ident, made = self.asked
        # Where the search begins is of no use to a verdict, and large.
        self.known[ident] = (made, found._replace(start=None, refused=()))
        self.come.emit()
        self._go_on()

    def leave(self) -> None:
        """Nobody looks any more."""
        self.worker.cancel()


def _same(one: Made, other: Made) -> bool:
    return len(one) == len(other) and all(a is b for a, b in zip(one, other, strict=True))
