"""The schedule as a strip whose legs are made longer and shorter by hand."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QToolTip

from keelroom.assess.drives.moments import moments_of
from keelroom.assess.drives.words import clock
from keelroom.assess.outcome import Stopped, attempted
from keelroom.document.edits import set_value
from keelroom.document.quantity import from_si
from keelroom.drawing.schedule import Edge, Planned, planned
from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.stations.drive.strips import READABLE
from keelroom.gui.widgets.scene_view import Drawing, SceneView

NEAR, SNAP = 7.0, 30.0
"""[px] an end is taken hold of from, and [s] it goes by"""
FOOT = (
    "Drag the end of a leg: it lasts longer or shorter. Drag a leg itself: it goes before or after another. With the "
    "keys: up and down choose a leg, left and right change its length, with Ctrl its place."
)


class ScheduleBoard(SceneView):
    """A drag is one step of the trail."""

    def __init__(self, session: Session, drives: Drives) -> None:
        self.drives = drives
        self.plan: Planned | None = None
        self.holds: Edge | None = None
        self.carries = ""
        """the leg that is carried to another place"""
        self.whole = 0.0
        super().__init__(session, "Schedule as a strip", self._drawn, READABLE)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.leg = ""
        """the leg the arrow keys change"""
        drives.turned.connect(self.changed)

    def _drawn(self) -> Drawing:
        schedule = self.drives.schedule
        self.plan = None
        if schedule is None:
            return None, "", self.drives.missing
        moments = attempted("The schedule", (), lambda: moments_of(self.session.build, schedule))
        if isinstance(moments, Stopped):
            return None, schedule.name or schedule.id, f"{moments.why}."
        self.plan = planned(schedule, moments, self.session.system, self.whole)
        lasts = clock(sum(moment.lasts for moment in moments))
        return self.plan.scene, f"{schedule.name or schedule.id}, {lasts}", FOOT

    def _edge(self, event: QMouseEvent) -> Edge | None:
        if self.plan is None:
            return None
        seen = self.view()
        at = event.position().x()
        near = [(abs(seen.m11() * edge.x + seen.dx() - at), edge) for edge in self.plan.edges]
        found = min(near, key=lambda one: one[0], default=None)
        return found[1] if found and found[0] <= NEAR and self._can(found[1].leg) else None

    def _can(self, leg: str) -> bool:
        """A cycle that runs once has no length to drag."""
        schedule = self.drives.schedule
        return schedule is not None and any(one.id == leg and one.lasts.si > 0 for one in schedule.legs)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self.holds = self._edge(event)
        if self.holds is not None and self.plan is not None:
            self.leg = self.holds.leg
            whole = max(edge.x for edge in self.plan.edges)
            self.whole = self.plan.time(whole)
        elif (under := self._under(event)) is not None:
            self.leg = self.carries = under.leg

    def _under(self, event: QMouseEvent) -> Edge | None:
        """The leg under the pointer."""
        back, fine = self.view().inverted()
        if self.plan is None or not fine or not self.plan.edges:
            return None
        at = back.map(event.position()).x()
        first = self.plan.left
        if not first <= at <= max(edge.x for edge in self.plan.edges):
            return None
        return min((edge for edge in self.plan.edges if edge.x >= at), key=lambda edge: edge.x)

    def _carry(self, leg: str, place: int) -> None:
        """Put a leg at another place in the drive's order."""
        schedule = self.drives.schedule
        assert schedule is not None
        names = [one.id for one in schedule.legs]
        if leg not in names or not 0 <= place < len(names) or names.index(leg) == place:
            return
        legs = list(schedule.legs)
        moved = legs.pop(names.index(leg))
        legs.insert(place, moved)
        path = ("driving", "schedules", schedule.id, "legs")
        self.session.apply(set_value(path, tuple(legs), f"{moved.name or leg} moved"))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self.holds is None or self.plan is None:
            hand = Qt.CursorShape.ClosedHandCursor if self.carries else Qt.CursorShape.ArrowCursor
            shape = Qt.CursorShape.SizeHorCursor if self._edge(event) else hand
            self.setCursor(shape)
            return
        back, fine = self.view().inverted()
        if fine:
            at = self.plan.time(back.map(event.position()).x())
            self._last(self.holds.leg, at - self.holds.begins, f"drag {self.holds.leg}")
            QToolTip.showText(event.globalPosition().toPoint(), clock(max(at - self.holds.begins, SNAP)), self)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        carried, under = self.carries, self._under(event) if event is not None else None
        self.holds, self.whole, self.carries = None, 0.0, ""
        schedule = self.drives.schedule
        if carried and under is not None and schedule is not None and under.leg != carried:
            self._carry(carried, [leg.id for leg in schedule.legs].index(under.leg))
        self.changed()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        ways = {Qt.Key.Key_Right: SNAP, Qt.Key.Key_Left: -SNAP}
        way = next((seconds for key, seconds in ways.items() if key == event.key()), None)
        schedule = self.drives.schedule
        if schedule is None or way is None:
            if event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down) and schedule is not None and schedule.legs:
                self._walk(1 if event.key() == Qt.Key.Key_Down else -1)
                return
            super().keyPressEvent(event)
            return
        leg = next((one for one in schedule.legs if one.id == self.leg), schedule.legs[0] if schedule.legs else None)
        if leg is not None and event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._carry(leg.id, schedule.legs.index(leg) + (1 if way > 0 else -1))
        elif leg is not None and self._can(leg.id):
            self._last(leg.id, leg.lasts.si + way, f"keys {leg.id}")

    def _walk(self, way: int) -> None:
        """The arrow keys up and down choose the leg that left and right change."""
        schedule = self.drives.schedule
        assert schedule is not None
        names = [leg.id for leg in schedule.legs]
        place = (names.index(self.leg) + way) % len(names) if self.leg in names else 0
        self.leg = names[place]
        self.session.told.emit(f"{schedule.legs[place].name or self.leg}: left and right change how long it lasts")

    def _last(self, leg: str, seconds: float, merge: str) -> None:
        schedule = self.drives.schedule
        assert schedule is not None
        lasts = max(SNAP, round(seconds / SNAP) * SNAP)
        path = ("driving", "schedules", schedule.id, "legs", leg, "lasts")
        self.session.apply(set_value(path, from_si(lasts, "minutes", "us", "measured"), "Lasts", merge))
