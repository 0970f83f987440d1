"""The window: tape over stations, the bay drawing in the middle, panels beside it, the ledger under all of them."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING, Protocol, cast

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QAction, QCloseEvent, QKeySequence
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QMainWindow,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from keelroom.document.autosave import Left
from keelroom.drawing.scene import Scene
from keelroom.gui.files import Files
from keelroom.gui.header import HeadActs, Header
from keelroom.gui.outputs import Outputs
from keelroom.gui.registry import STATIONS, named, station_at
from keelroom.gui.session.session import Session
from keelroom.gui.theme.dress import dress, dress_application
from keelroom.gui.theme.palette import Palette, palette_of
from keelroom.gui.widgets.bay import BayDrawing
from keelroom.gui.widgets.column import packed
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.ledger import Ledger
from keelroom.gui.widgets.map_bar import MapBar
from keelroom.gui.widgets.panels.acts import Command, CommandsPanel
from keelroom.gui.widgets.panels.findings import FindingsPanel
from keelroom.gui.widgets.panels.trail import TrailPanel
from keelroom.gui.widgets.panels.why import WhyPanel
from keelroom.gui.widgets.recovery import RecoveryOffer
from keelroom.gui.widgets.response_strip import ResponseStrip
from keelroom.gui.widgets.splitter import Splitter
from keelroom.gui.widgets.start_page import StartPage
from keelroom.gui.widgets.text import chip

if TYPE_CHECKING:
    from keelroom.gui.bench import Bench, Walk

PANELS = ("Findings", "Why", "Trail", "Acts")
STATION_WIDTH, SIDE_WIDTH, LEDGER_HEIGHT = 420, 304, 200


class Drawn(Protocol):
    """What may stand in the middle of the window."""

    def set_palette(self, palette: Palette) -> None: ...

    def as_scene(self) -> Scene | None: ...


class Window(QMainWindow):
    """One build, one window."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.palette_now: Palette = palette_of(session.settings.theme)
        dress_application(self.palette_now)  # before there are widgets: dressing them again costs more
        self.files = Files(self, session, self._opened)
        self.out = Outputs(self, session, self)
        self.stations: dict[str, Form] = {}
        self.resize(1280, 800)
        self.setMinimumSize(1024, 640)
        self.commands = self._commands()
        self._actions()
        self.pages = QStackedWidget()
        self.setCentralWidget(self.pages)
        self.work = self._workspace()
        self.pages.addWidget(self.work)
        self.start: StartPage | None = None
        self.bench_page: Bench | None = None
        status = self.statusBar()
        assert status is not None
        status.setSizeGripEnabled(False)
        dress(status, session)
        session.told.connect(lambda text: status.showMessage(text, 12000))
        session.changed.connect(self._refresh)
        session.saved.connect(self._refresh)
        session.asked_for.connect(self.go_to)
        session.explained.connect(lambda _headline: self.show_panel("Why"))
        session.display_changed.connect(self._display)
        # The answer first: drawing and ledger are painted before the forms beside them are made.
        self.bay.painted.connect(self._furnish, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self._display()
        self._restore()

    # building

    def _workspace(self) -> QWidget:
        body, column = packed("paper")
        column.addWidget(self._top())
        self.offers: list[RecoveryOffer] = []
        self.offer_column = QVBoxLayout()
        column.addLayout(self.offer_column)
        self.station_stack = QStackedWidget()
        self.bay = BayDrawing(self.session, self.palette_now)
        self.across = Splitter(Qt.Orientation.Horizontal)
        for widget in (self._left(), self._middle(), self._side()):
            self.across.addWidget(widget)
        self.across.setSizes([STATION_WIDTH, 1280 - STATION_WIDTH - SIDE_WIDTH, SIDE_WIDTH])
        self.across.setStretchFactor(1, 1)
        self.across.setChildrenCollapsible(False)
        self.ledger = Ledger(self.session, self.palette_now)
        self.ledger.chosen.connect(lambda _case: self.show_panel("Why"))
        self.down = Splitter(Qt.Orientation.Vertical)
        self.down.addWidget(self.across)
        self.down.addWidget(self.ledger)
        self.down.setSizes([800 - LEDGER_HEIGHT - 70, LEDGER_HEIGHT])
        self.down.setStretchFactor(0, 1)
        self.down.setChildrenCollapsible(False)
        column.addWidget(self.down, 1)
        for region in (self.strip, self.map_bar, self.ledger, self.bay):
            dress(region, self.session)
        return body

    def _left(self) -> QWidget:
        """Stations, and under them how the temperature answers the focused number."""
        left, column = packed("panel")
        column.addWidget(self.station_stack, 1)
        self.strip = ResponseStrip(self.session)
        column.addWidget(self.strip)
        return left

    def _middle(self) -> QWidget:
        """The drawing the shown page asks for, and at the Air station the choice of map under it."""
        middle, column = packed("paper")
        self.middle_stack = QStackedWidget()
        self.middle_stack.addWidget(self.bay)
        column.addWidget(self.middle_stack, 1)
        self.map_bar = MapBar(self.session, self.bay)
        self.map_bar.hide()
        column.addWidget(self.map_bar)
        return middle

    def _top(self) -> Header:
        acts = HeadActs(self.show_station, self.toggle_response, self.switch_units, self.switch_theme, lambda: self.show_panel("Acts"))
        self.header = Header(self.session, self.palette_now, acts)
        dress(self.header, self.session)
        return self.header

    def _side(self) -> QWidget:
        side, column = packed("panel")
        head = QWidget()
        head.setObjectName("panel")
        chips = QHBoxLayout(head)
        chips.setContentsMargins(6, 2, 6, 2)
        chips.setSpacing(0)
        column.addWidget(head)
        self.panel_stack = QStackedWidget()
        column.addWidget(self.panel_stack, 1)
        self.panels: dict[str, QWidget] = {}
        self.panel_chips = {}
        for name in PANELS:
            self.panel_chips[name] = chip(name, partial(self.show_panel, name))
            chips.addWidget(self.panel_chips[name])
        chips.addStretch(1)
        dress(head, self.session)
        return side

    def _commands(self) -> tuple[Command, ...]:
        stations = tuple(
            Command(f"Go to {name}", partial(self.show_station, name), f"Ctrl+{i}")
            for i, name in enumerate((declared.name for declared in STATIONS), 1)
        )
        return (
            Command("New build", self.files.new, "Ctrl+N"),
            Command("Open a build…", self.files.choose_file, "Ctrl+O"),
            Command("Save", self.files.save, "Ctrl+S"),
            Command("Save as…", self.files.save_as, "Ctrl+Shift+S"),
            Command("Write the build sheet (PDF)…", self.out.write_sheet, "Ctrl+P"),
            Command("Export the drawing (PNG or SVG)…", self.out.export_drawing),
            Command("Write the blank survey sheet (PDF)…", self.out.write_survey_sheet),
            Command("Bench mode: large type for entry at the car", self.bench, "F8"),
            Command("Copy the verdict in one plain paragraph", self.out.copy_verdict),
            Command("Copy the page's table or chart as text", self.out.copy_page, "Ctrl+Shift+T"),
            Command("Save the page's table or chart as CSV…", self.out.save_page),
            Command("Save the ledger as CSV…", self.out.save_ledger),
            Command("Copy the ledger as text", self.out.copy_ledger, "Ctrl+Shift+C"),
            Command("Undo", self.session.store.undo, "Ctrl+Z"),
            Command("Redo", self.session.store.redo, "Ctrl+Shift+Z"),
            *stations,
            Command("Show findings", lambda: self.show_panel("Findings"), "F2"),
            Command("Show why", lambda: self.show_panel("Why"), "F3"),
            Command("Show the trail", lambda: self.show_panel("Trail"), "F4"),
            Command("Every act by name", lambda: self.show_panel("Acts"), "F1"),
            Command("Switch units", self.switch_units, "Ctrl+U"),
            Command("Light or dark", self.switch_theme, "F9"),
            Command("Hold or let go of the held state", self.session.toggle_hold, "F6"),
            Command("Response of the temperature to the focused number", self.toggle_response, "F7"),
            Command("Make duty cases from the brief", self.session.remake_duty_cases),
        )

    def _actions(self) -> None:
        for command in self.commands:
            if command.shortcut:
                action = QAction(command.name, self)
                action.setShortcut(QKeySequence(command.shortcut))
                action.triggered.connect(lambda _checked=False, command=command: command.act())
                self.addAction(action)

    def show_start(self, recovered: Left) -> None:
        """The page of a first start; the workspace takes over once there is a build."""
        acts = {"Start from a new brief": self.enter, "Open the demo": self.files.open_demo, "Open a file…": self.files.choose_file}
        self.start = StartPage(acts, recovered, self.files.take_over, self.session.autosave.forget)
        dress(self.start, self.session)
        self.pages.addWidget(self.start)
        self.pages.setCurrentWidget(self.start)

    def enter(self) -> None:
        """Show the workspace, at the brief."""
        self.pages.setCurrentWidget(self.work)
        self._refresh()
        if self.bay.seen:
            self._furnish()

    def _opened(self) -> None:
        """Another build is there: show it, and what waits to be recovered for its file."""
        self.enter()
        self.offer_recovery()

    def offer_recovery(self) -> None:
        """Offer, above the work, the recovery copies that wait for the open file."""
        for offer in self.offers:
            offer.hide()
        left = self.session.waiting() if self.session.path else Left()
        self.offers = [RecoveryOffer(found, self.files.take_over, self.session.autosave.forget) for found in left]
        for offer in self.offers:
            dress(offer, self.session)
            self.offer_column.addWidget(offer)

    def _furnish(self) -> None:
        self.show_station(STATIONS[0].name)
        if not self.panels:
            self.show_panel(PANELS[0])
        self.station_stack.setFocus()

    # moving about

    def show_station(self, name: str) -> None:
        if name not in self.stations:
            self.stations[name] = named(name).make(self.session)
            self.stations[name].turned.connect(self._place_middle)
            self.station_stack.addWidget(self.stations[name])
        self.station_stack.setCurrentWidget(self.stations[name])
        self.stations[name].catch_up()
        self.header.tape.marks[name].setChecked(True)
        self.map_bar.setVisible(named(name).maps)
        self._place_middle()

    def _place_middle(self) -> None:
        """Show the drawing that goes with the shown page."""
        shown = self.station_stack.currentWidget()
        wanted = shown.drawing() if isinstance(shown, Form) else None
        wanted = wanted or self.bay
        if self.middle_stack.indexOf(wanted) < 0:
            dress(wanted, self.session)
            self.middle_stack.addWidget(wanted)
        self.middle_stack.setCurrentWidget(wanted)

    def middle_scene(self) -> Scene | None:
        """The scene of what stands in the middle, for an export."""
        shown = self.middle_stack.currentWidget()
        return cast(Drawn, shown).as_scene()

    def walk(self) -> Walk:
        """Every reading of the tape walk, for the sheet and for bench mode."""
        from keelroom.gui.stations.survey.model import walk

        return walk(self.session.build)

    def bench(self) -> None:
        """Bench mode, or back from it."""
        if self.bench_page is not None and self.pages.currentWidget() is self.bench_page:
            self.pages.setCurrentWidget(self.work)
            self.show_station("Survey")
            return
        from keelroom.gui.bench import Bench

        if self.bench_page is None:
            self.bench_page = Bench(self.session, self.walk, self.bench)
            dress(self.bench_page, self.session)
            self.pages.addWidget(self.bench_page)
        self.pages.setCurrentWidget(self.bench_page)
        self.bench_page.start()

    def toggle_response(self) -> None:
        """Whether the response strip comes up under a focused number."""
        self.strip.toggle()

    def show_panel(self, name: str) -> None:
        if name not in self.panels:
            self.panels[name] = self._panel(name)
            dress(self.panels[name], self.session)
            self.panel_stack.addWidget(self.panels[name])
        self.panel_stack.setCurrentWidget(self.panels[name])
        self.panel_chips[name].setChecked(True)

    def _panel(self, name: str) -> QWidget:
        if name == "Acts":
            return CommandsPanel(self.commands)
        return {"Findings": FindingsPanel, "Why": WhyPanel, "Trail": TrailPanel}[name](self.session)

    def go_to(self, path: tuple[str, ...]) -> None:
        """Go to what a figure or finding speaks of."""
        if path[:1] == ("duty_cases",) and len(path) == 2:
            self.session.select(path[1])
            self.show_panel("Why")
            return
        name = station_at(path).name
        self.show_station(name)
        if not self.stations[name].go_to(path):
            self.session.told.emit(f"That is decided at {name}")

    # looks

    def _display(self) -> None:
        self.palette_now = palette_of(self.session.settings.theme)
        dress_application(self.palette_now)
        boards = [cast(Drawn, self.middle_stack.widget(k)) for k in range(self.middle_stack.count())]
        self.header.restyle(self.palette_now)
        self.ledger.set_palette(self.palette_now)
        for board in boards:
            board.set_palette(self.palette_now)
        self._refresh()

    def switch_units(self) -> None:
        self.session.set_units("si" if self.session.system == "us" else "us")

    def switch_theme(self) -> None:
        self.session.set_theme("dark" if self.session.settings.theme == "light" else "light")

    def _refresh(self) -> None:
        build, store = self.session.build, self.session.store
        name = self.session.path.name if self.session.path else "not saved yet"
        self.setWindowTitle(f"{build.brief.title or 'Untitled build'} — {name}{' (changed)' if store.dirty else ''} — Keel Room")
        self.header.refresh()
        findings = self.session.assessment.findings
        problems = sum(finding.level == "problem" for finding in findings)
        self.panel_chips["Findings"].setText(f"Findings ({problems})" if problems else "Findings")

    # leaving

    def closeEvent(self, event: QCloseEvent | None) -> None:
        assert event is not None
        if not self.files.may_leave():
            event.ignore()
            return
        for name, thing in (("geometry", self.saveGeometry()), ("across", self.across.saveState()), ("down", self.down.saveState())):
            self.session.settings.remember(name, thing)
        self.session.close()
        event.accept()

    def _restore(self) -> None:
        for name, restore in (("geometry", self.restoreGeometry), ("across", self.across.restoreState), ("down", self.down.restoreState)):
            state = self.session.settings.remembered(name)
            if state is not None:
                restore(state)
