"""The Options station."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache

from PyQt6.QtWidgets import QWidget

from keelroom.assess.questions.options import AIMS
from keelroom.gui.rows import Group, Page, Row, quantities
from keelroom.gui.session.session import Session
from keelroom.gui.stations.options.declared import OPTIONS
from keelroom.gui.stations.options.every import EveryView
from keelroom.gui.stations.options.front import FLAGS, FrontView
from keelroom.gui.stations.options.ladder import LadderView
from keelroom.gui.widgets.form import Form

AT = ("choosing",)


class OptionsStation(Form):
    """Searches what could be, and tells what nothing beats."""

    def __init__(self, session: Session) -> None:
        @cache
        def front() -> FrontView:
            return FrontView(session)

        makers: dict[str, Callable[[], QWidget]] = {
            "Front": front,
            "Every one": lambda: EveryView(session, front()),
            "Ladder": lambda: LadderView(session),
        }
        super().__init__(session, OPTIONS, pages, None, makers)


def pages() -> tuple[Page, ...]:
    """The station's pages."""
    bounds = Group(
        "Kept to",
        (
            *quantities(AT, "width", "height", "amps", "budget", "hours"),
            *(Row("flag", (*AT, name), words) for name, words in FLAGS.items()),
        ),
        note="Empty: free. What each bound throws out is counted on the Front page.",
    )
    aims = Group("Judged by", (Row("set", (*AT, "aims"), "Aims", tuple(AIMS.items())),), note="Up to four.")
    return Page("Front", ()), Page("Every one", ()), Page("Bounds", (bounds, aims)), Page("Ladder", ())
