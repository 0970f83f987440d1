"""The What if page: the drive with one thing other at a time, and how much hotter it runs for it."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.drives.driven import Driven
from keelroom.assess.drives.words import clock, degrees, kelvin
from keelroom.assess.outcome import Stopped
from keelroom.assess.questions.what_if import WhatIf, what_if
from keelroom.document.act import Act
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.driven_table import DrivenTable
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.units import KINDS

COLUMNS = (
    "What if",
    "Hottest",
    "Against now",
    "Over the limit",
    "Starts/h",
    "Fans on",
    "Fan h/100 mi",
    "Longest on",
    "Battery",
    "Key off",
    "After key-off",
)
ALIKE = 0.3
"""[K] of the hottest within which a thing makes no difference"""
NOTE = (
    "The drive of the Run page with one thing other at a time. A set point is set by a click, and undo comes back; "
    "failures, days and what the driver does are told only. Never try a failure on the road."
)


def cells(row: WhatIf, system: str) -> tuple[str, ...]:
    """One line of the table."""
    if isinstance(row.found, Stopped):
        return (row.name, "—", row.found.why, *[""] * (len(COLUMNS) - 3))
    says = row.found.says
    against = says.peak.value - row.was
    apart = (
        "—"
        if row.sort == "now" or abs(against) < ALIKE
        else f"{'+' if against > 0 else '−'}{kelvin(abs(against), system)}"
    )
    starts = f"{says.fans.per_hour:.0f}{', chatters' if row.chatters else ''}"
    ended = row.found.ended
    return (
        row.name,
        degrees(says.peak.value, system) if ended else "boils",
        apart if ended else "",
        "never" if math.isinf(row.left) else f"after {clock(max(row.left, 0.0))}",
        starts,
        f"{says.fans.share:.0%}",
        "" if math.isnan(row.fan_hours) else f"{row.fan_hours:.1f}",
        clock(says.fans.longest),
        f"{says.charge:.0%}",
        f"{says.off_charge / 3600:.1f} A h" if says.key_off else "",
        degrees(says.key_off.peak, system) if says.key_off else "",
    )


class WhatIfView(DrivenTable[tuple[WhatIf, ...]]):
    """Asks for the build as it stands and the schedule that is looked at."""

    def __init__(self, session: Session, drives: Drives) -> None:
        super().__init__(session, drives, "One thing other", COLUMNS, NOTE)

    def question(self) -> Callable[..., tuple[WhatIf, ...]]:
        build, schedule, system = self.session.build, self.drives.schedule, self.session.system
        assert schedule is not None
        return lambda tell: what_if(build, schedule, system, tell)

    def show_found(self, found: tuple[WhatIf, ...]) -> None:
        self.show_lines([cells(row, self.session.system) for row in found], 0)

    def act_at(self, row: int) -> Act | None:
        return self.found[row].act if self.found is not None else None

    def draw(self, found: tuple[WhatIf, ...]) -> Drawing:
        driven = [row for row in found if isinstance(row.found, Driven)]
        if not driven:
            return None, "", "Nothing can be driven yet."
        unit = KINDS["temperature"].shown_unit(self.session.system)
        lanes = tuple(_lane(row, self.session.system) for row in driven)
        first = driven[0].found
        assert isinstance(first, Driven)
        posts = (
            Post(first.thermostat, "thermostat", "rail.thermostat"),
            Post(first.limit, "limit", "rail.limit"),
        )
        scene = degrees_scene(lanes, posts, (("now", "hottest"), ("was", "as it is")), unit)
        return (
            scene,
            "Hottest on the drive",
            "Beside each: how long the fans run, or when the limit is passed, from a failure on where one is tried.",
        )


def _lane(row: WhatIf, system: str) -> Lane:
    assert isinstance(row.found, Driven)
    hottest = Spot(row.found.says.peak.value)
    alike = row.sort == "now" or abs(row.found.says.peak.value - row.was) < ALIKE
    spots = (hottest,) if alike else (Spot(row.was, "was"), hottest)
    if not row.found.ended:
        return Lane(row.name, spots, f"boils after {clock(float(row.found.run.time[-1]) - row.since)}")
    note = "" if math.isinf(row.left) else f"over after {clock(max(row.left, 0.0))}"
    return Lane(
        row.name,
        spots,
        note or f"fans on {row.found.says.fans.share:.0%}{', chatter' if row.chatters else ''}",
        row.sort == "now",
    )
