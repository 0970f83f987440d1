"""Every package through the same drive: a table, and their outlets on one axis."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.drives.driven import Driven
from keelroom.assess.drives.words import clock, degrees
from keelroom.assess.outcome import Stopped
from keelroom.assess.questions.drives import Raced, raced
from keelroom.document.act import Act
from keelroom.drawing.strips import together
from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.driven_table import DrivenTable
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.stations.drive.strips import READABLE
from keelroom.gui.widgets.scene_view import Drawing, Picture
from keelroom.units import KINDS

COLUMNS = (
    "Package",
    "Hottest",
    "Passes limit",
    "At the end",
    "Creeps",
    "Fans on",
    "Starts/h",
    "Longest on",
    "Lowest V",
    "Battery",
    "After key-off",
)
NOTE = "The same drive for every package. A click makes one the package in use; undo comes back."


def cells(row: Raced, system: str) -> tuple[str, ...]:
    """One line of the table."""
    if isinstance(row.found, Stopped):
        return (row.name, "—", row.found.why, *[""] * (len(COLUMNS) - 3))
    says = row.found.says
    unit = KINDS["temperature difference"].shown_unit(system)
    return (
        row.name,
        degrees(says.peak.value, system) if row.found.ended else f"boils after {clock(row.found.run.time[-1])}",
        "never" if math.isinf(says.limit_at) else f"after {clock(says.limit_at)}",
        degrees(says.ends, system),
        f"{60 * says.creep.slope / unit.factor:+.1f} {unit.symbol}/min".replace("-", "−"),
        f"{says.fans.share:.0%}",
        f"{says.fans.per_hour:.0f}",
        clock(says.fans.longest),
        f"{says.volts.value:.1f}",
        f"{says.charge:.0%}",
        degrees(says.key_off.peak, system) if says.key_off else "",
    )


class RacedView(DrivenTable[tuple[Raced, ...]]):
    """Asks for the build as it stands and the schedule that is looked at."""

    def __init__(self, session: Session, drives: Drives) -> None:
        super().__init__(session, drives, "Packages on the same drive", COLUMNS, NOTE)

    def question(self) -> Callable[..., tuple[Raced, ...]]:
        build, schedule = self.session.build, self.drives.schedule
        assert schedule is not None
        return lambda tell: raced(build, schedule, tell)

    def show_found(self, found: tuple[Raced, ...]) -> None:
        current = next((k for k, row in enumerate(found) if row.act is None), -1)
        self.show_lines([cells(row, self.session.system) for row in found], current)

    @property
    def picture(self) -> Picture:
        return super().picture._replace(readable=READABLE)

    def act_at(self, row: int) -> Act | None:
        return self.found[row].act if self.found is not None else None

    def draw(self, found: tuple[Raced, ...]) -> Drawing:
        driven = [(row.name, row.found) for row in found if isinstance(row.found, Driven)]
        if not driven:
            return None, "", "No package can be driven yet."
        scene = together(tuple(driven), self.session.system, self.session.build.active)
        return scene, f"Coolant out, {self.named}", "Strong: the package in use."
