"""What each panel is worth, with and without it, as a table."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.questions.panel_worth import TOGETHER, PanelState, PanelWorth, panel_worth
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.units import KINDS, format_si

TITLE = "What panels are worth"
COLUMNS = ("Panel", "Idle", "Face air", "Vents", "Bay air", "Comes back", "On the road", "Goes round")
NOTE = (
    "Change with it, the rest as it is: engine outlet, air at the face and A/C vents standing, air in the bay "
    "and what of it comes back; outlet at speed, and air that goes round the core."
)
NONE = "No panel yet: the Panels page plans them, Survey, Air gaps measures what they close."


class PanelsView(AskedTable[tuple[PanelWorth, ...]]):
    """A click goes to the panel."""

    does = False

    def __init__(self, session: Session) -> None:
        super().__init__(session, TITLE, COLUMNS, NOTE, "top, strip …")
        self.column.addStretch(0)

    def missing(self) -> str:
        return super().missing() or ("" if self.session.build.package.panels else NONE)

    def question(self) -> Callable[[], tuple[PanelWorth, ...]]:
        build = self.session.build
        return lambda: panel_worth(build)

    def show_found(self, found: tuple[PanelWorth, ...]) -> None:
        self.table.show_rows([cells(one, self.session.system) for one in found], -1)
        self.why.setText(said(found, self.session.system))

    def draw(self, found: tuple[PanelWorth, ...]) -> Drawing:
        lanes = tuple(Lane(one.name, tuple(_spots(one))) for one in found)
        if not any(lane.spots for lane in lanes):
            return None, TITLE, "It is drawn once a duty case at idle or on the road is worked out."
        unit = KINDS["temperature difference"].shown_unit(self.session.system)
        key = (
            ("now", "outlet, standing"),
            ("cold", "air at the face"),
            ("other", "outlet on the road"),
        )
        scene = degrees_scene(lanes, (Post(0.0, "without it", "rail.thermostat"),), key, unit)
        return scene, TITLE, "Change with each panel, the rest as it is. Left is cooler."

    def choose(self, row: int) -> None:
        panels = self.session.build.package.panels
        if row < len(panels):
            self.session.asked_for.emit(("packages", self.session.build.active, "panels", panels[row].id, "name"))


def _spots(worth: PanelWorth) -> list[Spot]:
    """Changes [K] with a panel, those that are known."""
    told = ((worth.idle, "outlet", "now"), (worth.idle, "front", "cold"), (worth.road, "outlet", "other"))
    changes = [
        (getattr(pair[1], field) - getattr(pair[0], field), sort) for pair, field, sort in told if pair is not None
    ]
    return [Spot(change, sort) for change, sort in changes if math.isfinite(change)]


def cells(worth: PanelWorth, system: str) -> tuple[str, ...]:
    """One panel in a line."""
    name = worth.name if worth.fitted or worth.name == TOGETHER else f"{worth.name} (not fitted)"
    return (
        name,
        _step(worth.idle, "outlet", system),
        _step(worth.idle, "front", system),
        _step(worth.idle, "vents", system),
        _step(worth.idle, "bay", system),
        _share(worth.idle, "back"),
        _step(worth.road, "outlet", system),
        _share(worth.road, "round"),
    )


def _step(pair: tuple[PanelState, PanelState] | None, field: str, system: str) -> str:
    if pair is None:
        return "—"
    before, after = (getattr(state, field) for state in pair)
    if math.isnan(before) or math.isnan(after):
        return "settles" if math.isnan(before) and not math.isnan(after) else "—"
    unit = KINDS["temperature difference"].shown_unit(system)
    return (
        f"{(after - before) / unit.factor:+.1f} {unit.symbol}".replace("-", "−")
        .replace("+0.0", "0.0")
        .replace("−0.0", "0.0")
    )


def _share(pair: tuple[PanelState, PanelState] | None, field: str) -> str:
    return "—" if pair is None else f"{getattr(pair[0], field):.0%} → {getattr(pair[1], field):.0%}"


def said(found: tuple[PanelWorth, ...], system: str) -> str:
    """All of them in a sentence."""
    if not found or found[-1].idle is None:
        return ""
    before, after = found[-1].idle
    kind = KINDS["temperature"]
    words = (
        f"Standing with {'all of them' if len(found) > 1 else 'it'} the face breathes "
        f"{format_si(after.front, kind, system)} instead of {format_si(before.front, kind, system)}"
    )
    if not math.isnan(before.vents) and not math.isnan(after.vents):
        words += (
            f", and the A/C blows {format_si(after.vents, kind, system)} instead of "
            f"{format_si(before.vents, kind, system)}"
        )
    return words + "."
