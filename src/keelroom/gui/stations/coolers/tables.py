"""Pages of the Aux coolers station that are tables: the list, the books, ways to cool the gearbox, places for a
cooler."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.assess.figures.assessment import CaseFigures
from keelroom.assess.fit.coolers import named
from keelroom.assess.questions.cooler_places import CoolerPlace, cooler_places
from keelroom.assess.questions.gearbox_ways import Tried, gearbox_ways
from keelroom.document.act import Act
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene, heat
from keelroom.gui.session.session import Session
from keelroom.gui.stations.coolers.drawn import spots_picture
from keelroom.gui.stations.coolers.model import (
    BOOK_COLUMNS,
    LIST_COLUMNS,
    PLACE_COLUMNS,
    WAY_COLUMNS,
    book_cells,
    list_cells,
)
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.foretold import Foretold
from keelroom.gui.widgets.scene_view import Drawing, Picture
from keelroom.gui.widgets.text import button, label
from keelroom.units import KINDS, format_si

NOT_YET = "Stands here once a duty case is worked out."


def temperature(value: float | None, system: str) -> str:
    """A temperature, or that there is none."""
    return "—" if value is None or math.isnan(value) else format_si(value, KINDS["temperature"], system)


def shown_case(session: Session) -> CaseFigures | None:
    """Figures of the chosen duty case."""
    return session.assessment.figures_of(session.case)


class ListView(QWidget):
    """Every cooler in a line, and buttons that add one."""

    def __init__(self, session: Session, add: dict[str, Callable[[], Act]]) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 6)
        column.setSpacing(2)
        self.head = label("", "head", wrap=True)
        self.head.setContentsMargins(12, 0, 10, 0)
        column.addWidget(self.head)
        note = (
            "A click goes to the cooler’s fields. What a cooler does not take, the next one must: the Books page "
            "adds it up."
        )
        self.table = ChooseTable("Coolers", LIST_COLUMNS, self._choose, note, "condenser, remote …")
        column.addWidget(self.table, 1)
        holder = QWidget()
        line = FlowLayout(holder, 6)
        line.setContentsMargins(12, 0, 10, 4)
        told = Foretold(session, "Coolers to add")
        told.setContentsMargins(12, 0, 10, 0)
        for name, act in add.items():
            made = button(name, partial(self._add, act))
            told.watch(made, act)
            line.addWidget(made)
        column.addWidget(holder)
        column.addWidget(told)

    def refresh(self) -> None:
        figures = shown_case(self.session)
        name = next((case.name for case in self.session.build.duty_cases if case.id == self.session.case), "")
        self.head.setText(name if figures else NOT_YET)
        self.table.show_rows(list_cells(self.session.build, figures, self.session.system), -1)

    def _add(self, act: Callable[[], Act]) -> None:
        self.session.do(act())

    def _choose(self, row: int) -> None:
        cooler = self.session.build.package.coolers[row]
        self.session.asked_for.emit(("packages", self.session.build.active, "coolers", cooler.id, "name"))


class BooksView(ChooseTable):
    """Heat by duty case and fluid, and where it goes."""

    def __init__(self, session: Session) -> None:
        self.session = session
        note = (
            "What engine, gearbox and A/C give each fluid, and where it leaves it: in every line coolers, "
            "coolant and its own case, lines or engine add up to what was given."
        )
        super().__init__("Heat by cooler and case", BOOK_COLUMNS, lambda row: None, note, "gearbox, cruise …")

    def refresh(self) -> None:
        self.show_rows(book_cells(self.session.assessment, self.session.system), -1)


WANTED = (71.0, 93.0)
"""[degC] gearbox fluid is wanted between (common practice, 160–200 °F)"""
WAYS_NOTE = (
    "Gearbox fluid on the steepest case, at idle, and on the road on a morning of 14 °F (−10 °C); 160–200 °F "
    "(71–93 °C) is wanted. "
    "A click goes over to it; undo comes back."
)
PLACES_NOTE = (
    "Best first: clear of its neighbours, then its fluid at its hottest, then what it costs the engine, then "
    "what has to be cut. "
    "A click puts it there; undo comes back."
)


class WaysView(AskedTable[tuple[Tried, ...]]):
    """Schools of gearbox cooling."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Ways to cool the gearbox", WAY_COLUMNS, WAYS_NOTE, "tank, bypass …")

    def question(self) -> Callable[[], tuple[Tried, ...]]:
        build = self.session.build
        return lambda: gearbox_ways(build)

    def show_found(self, found: tuple[Tried, ...]) -> None:
        system, rows = self.session.system, []
        for one in found:
            heat = (
                "—"
                if one.tank is None or abs(one.tank) < 1
                else format_si(one.tank, KINDS["heat"], system).replace("-", "−")
            )
            rows.append(
                (
                    one.way.name,
                    *(temperature(value, system) for value in (one.grade, one.idle, one.cold, one.engine)),
                    heat,
                )
            )
        current = next((k for k, one in enumerate(found) if one.current), -1)
        self.table.show_rows(rows, current)
        self.why.setText(
            "The tank ties the gearbox to the coolant both ways; a cooler alone has nothing to warm it. "
            "Default: a cooler before the tank."
        )
        self.said.setText(f"Now: {found[current].way.why}" if current >= 0 else "")

    def act_at(self, row: int) -> Act | None:
        return self.found[row].act if self.found and not self.found[row].current else None

    def draw(self, found: tuple[Tried, ...]) -> Drawing:
        lanes = tuple(
            Lane(
                one.way.name,
                tuple(
                    Spot(heat(value), sort)
                    for value, sort in ((one.grade, "now"), (one.idle, "other"), (one.cold, "cold"))
                ),
                chosen=one.current,
            )
            for one in found
        )
        unit = KINDS["temperature"].shown_unit(self.session.system)
        posts = (Post(WANTED[0], "from", "rail.thermostat"), Post(WANTED[1], "to", "rail.thermostat"))
        key = (("now", "steepest case"), ("other", "idle"), ("cold", "cold morning’s road"))
        return (
            degrees_scene(lanes, posts, key, unit),
            "Gearbox fluid by each way",
            "Between the two lines it is wanted.",
        )


class PlacesView(AskedTable[tuple[CoolerPlace, ...]]):
    """Places tried for a cooler, when told to."""

    def __init__(self, session: Session) -> None:
        super().__init__(
            session, "Places for the cooler", PLACE_COLUMNS, PLACES_NOTE, "bumper, fan, floor …", words=True
        )
        self.name = ""
        self.buttons: dict[str, QWidget] = {}
        holder = QWidget()
        self.acts = FlowLayout(holder, 6)
        self.acts.setContentsMargins(12, 4, 10, 4)
        self.column.insertWidget(1, holder)

    def refresh(self) -> None:
        session = self.session
        wanted = {
            cooler.id: named(cooler)
            for cooler in session.build.package.coolers
            if cooler.kind not in ("condenser", "screen")
        }
        if list(wanted) != list(self.buttons):
            for old in self.buttons.values():
                self.acts.removeWidget(old)
                old.deleteLater()
            self.buttons = {
                ident: button(f"Find a place: {name}", partial(self.start, ident)) for ident, name in wanted.items()
            }
            for made in self.buttons.values():
                self.acts.addWidget(made)
        missing = self.missing() or (
            "" if wanted else "Add a gearbox, oil, steering or charge cooler: places for it are tried here."
        )
        if missing:
            self.why.setText(missing)
        elif not self.found:
            self.why.setText(
                "Ahead of the core, in a bumper slot, in a wheel well, under the floor, on the trunk floor, "
                "in the bay: each is solved in every duty case."
            )
        elif self.asked is not session.build:
            self.why.setText("The build has changed since: search again.")
        if self.found:
            self._show(self.found)

    @property
    def picture(self) -> Picture:
        return spots_picture(self.session)

    def start(self, ident: str) -> None:
        """Try places for a cooler of the build as it stands."""
        build = self.session.build
        self.asked, self.name = build, named(next(c for c in build.package.coolers if c.id == ident))
        self.why.setText("trying places …")
        self.worker.ask(lambda: cooler_places(build, ident))

    def show_found(self, found: tuple[CoolerPlace, ...]) -> None:
        self.why.setText(f"{self.name}: {len(found)} places tried.")
        self._show(found)

    def _show(self, found: tuple[CoolerPlace, ...]) -> None:
        system, rows = self.session.system, []
        for place in found:
            unit = KINDS["temperature difference"].shown_unit(system)
            core = (
                f"{place.core / unit.factor:+.1f} {unit.symbol}".replace("-", "−")
                if abs(place.core) > 0.05
                else "no change"
            )
            room = (
                "not measured" if place.gap is None else format_si(place.gap, KINDS["length"], system).replace("-", "−")
            )
            rows.append(
                (
                    place.words,
                    temperature(place.fluid, system),
                    core,
                    room,
                    "a slot" if place.cut else "nothing",
                    place.risk,
                )
            )
        self.table.show_rows(rows, next((k for k, place in enumerate(found) if place.current), -1))

    def act_at(self, row: int) -> Act | None:
        return self.found[row].act if self.found and self.asked is self.session.build else None

    def choose(self, row: int) -> None:
        super().choose(row)
        if self.asked is not self.session.build and self.act_at(row) is None:
            self.session.told.emit("The build has changed since these places were tried: search again")
