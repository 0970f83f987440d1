"""The window: the tape of stations down its edge, the form, the picture, drawers at its right, the ledger under all
of them."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING, Protocol, cast

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QGuiApplication, QResizeEvent
from PyQt6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QLineEdit,
    QMainWindow,
    QMessageBox,
    QPlainTextEdit,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from keelroom import __version__
from keelroom.assess.acts.registry import offer
from keelroom.assess.findings import Finding
from keelroom.assess.safety import caution
from keelroom.document.autosave import LeftBehind
from keelroom.drawing.scene import Scene
from keelroom.gui.asked import every_answer, make_another
from keelroom.gui.commands import commands_of
from keelroom.gui.files import Files, dropped
from keelroom.gui.header import HeadActs, Header
from keelroom.gui.menus import Menus
from keelroom.gui.outputs import Outputs
from keelroom.gui.registry import STATIONS, by_station, named, station_at
from keelroom.gui.saving import message
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.side import DRAWER_WIDTH, Drawers
from keelroom.gui.theme.dress import dress, dress_application
from keelroom.gui.theme.palette import Palette, palette_of
from keelroom.gui.widgets.bay import BayDrawing
from keelroom.gui.widgets.column import packed
from keelroom.gui.widgets.fields import field_round
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.ledger.ledger import Ledger
from keelroom.gui.widgets.map_bar import MapBar
from keelroom.gui.widgets.panels.ask import AskPanel
from keelroom.gui.widgets.panels.findings import FindingsPanel
from keelroom.gui.widgets.panels.trail import TrailPanel
from keelroom.gui.widgets.panels.why import WhyPanel
from keelroom.gui.widgets.recovery import RecoveryOffer
from keelroom.gui.widgets.response_strip import ResponseStrip
from keelroom.gui.widgets.splitter import Splitter
from keelroom.gui.widgets.start_page import Offers, StartPage
from keelroom.gui.widgets.tape import Tape
from keelroom.gui.widgets.text import by_type, set_quietly
from keelroom.units import inches

if TYPE_CHECKING:
    from keelroom.gui.bench import Bench
    from keelroom.gui.guide import Guide
    from keelroom.gui.walks import Walk, Walked

DRAWERS = {
    "Findings": ("F2", "What is wrong, doubtful or not measured, with what would mend it"),
    "Why": ("F3", "The working of the figure you chose: inputs, formula, sources, what moves it most"),
    "Trail": ("F4", "Every step you made, with the temperature and gap it left"),
    "Ask": ("Ctrl+E", "Any page, field, part, finding, act or topic of the guide, by its words"),
}
USUAL_SIZE, LEAST_SIZE = QSize(1280, 800), QSize(1000, 560)
LEAST_WORK = 430
"""[px] of height that form and picture want beside the header"""
FORM_WIDTH, LEAST_FORM, TWO_COLUMNS = 364, 362, 720


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
        self.files = Files(self, session, self._opened, self._list_recent)
        self.out = Outputs(self, session, self)
        self.stations: dict[str, Form] = {}
        self._fit_the_screen()
        self.setAcceptDrops(True)
        self.pages = QStackedWidget()
        self.setCentralWidget(self.pages)
        self.work = self._workspace()
        self.commands = commands_of(self)
        self.menus = Menus(self, self.commands)
        dress(self.menus.bar, session)
        self.pages.addWidget(self.work)
        self.start: StartPage | None = None
        self.bench_page: Bench | None = None
        self.benched = "Survey"
        """the station bench mode was entered from"""
        self.guide_window: Guide | None = None
        self.furnished = False
        """whether a station is shown"""
        self.folded_for_room = False
        """whether the ledger folded by itself"""
        self.first = STATIONS[0].name
        """the station it is furnished with"""
        self.shown_station = ""
        session.told.connect(self.header.say)
        session.changed.connect(self._refresh)
        session.saved.connect(self._refresh)
        session.asked_for.connect(self.go_to)
        session.picked.connect(self._show_picked)
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.focusChanged.connect(self._pick_focused)
        session.explained.connect(lambda _headline: self.show_panel("Why"))
        session.display_changed.connect(self._display)
        # The answer first: drawing and ledger are painted before the forms beside them are made.
        self.bay.painted.connect(self._furnish, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self._display()
        self._list_recent()
        self._restore()

    # building

    def _fit_the_screen(self) -> None:
        """As large as is usual, or as the screen has room for; not smaller than the smallest that is worked on."""
        screen = QGuiApplication.primaryScreen()
        room = screen.availableGeometry().size() if screen is not None else USUAL_SIZE
        self.setMinimumSize(LEAST_SIZE.boundedTo(room))
        self.resize(USUAL_SIZE.boundedTo(room).expandedTo(LEAST_SIZE.boundedTo(room)))

    def _workspace(self) -> QWidget:
        body, column = packed("paper")
        acts = HeadActs(self.toggle_response, self.switch_units, self.switch_theme)
        self.header = Header(self.session, acts)
        column.addWidget(self.header)
        self.offers: list[RecoveryOffer] = []
        self.offer_column = QVBoxLayout()
        column.addLayout(self.offer_column)
        below = QHBoxLayout()
        below.setContentsMargins(0, 0, 0, 0)
        below.setSpacing(0)
        column.addLayout(below, 1)
        self.tape = Tape(self.palette_now, STATIONS, self.show_station)
        below.addWidget(self.tape)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(0)
        below.addLayout(work, 1)
        work.addLayout(self._across(), 1)
        self.ledger = Ledger(self.session, self.palette_now)
        self.ledger.chosen.connect(lambda _case: self.show_panel("Why"))
        work.addWidget(self.ledger)
        for region in (self.header, self.drawers.strip, self.strip, self.map_bar, self.ledger, self.bay):
            dress(region, self.session)
        return body

    def _across(self) -> QHBoxLayout:
        """Form, picture and drawer side by side, and the strip of drawers at the edge."""
        line = QHBoxLayout()
        line.setSpacing(0)
        self.station_stack = QStackedWidget()
        self.station_stack.setMinimumWidth(self._least_form())
        self.bay = BayDrawing(self.session, self.palette_now)
        make: dict[str, Callable[[], QWidget]] = {
            "Findings": lambda: FindingsPanel(self.session, self.shown_station),
            "Why": lambda: WhyPanel(self.session),
            "Trail": lambda: TrailPanel(self.session),
            "Ask": lambda: AskPanel(partial(every_answer, self), partial(make_another, self)),
        }
        self.drawers = Drawers(self.session, self.palette_now, DRAWERS, make)
        self.across = Splitter(Qt.Orientation.Horizontal)
        for widget in (self.station_stack, self._middle(), self.drawers):
            self.across.addWidget(widget)
        self.across.setSizes([FORM_WIDTH, 1280 - FORM_WIDTH - DRAWER_WIDTH, DRAWER_WIDTH])
        self.across.setStretchFactor(1, 1)
        self.across.setChildrenCollapsible(False)
        line.addWidget(self.across, 1)
        line.addWidget(self.drawers.strip)
        return line

    def _least_form(self) -> int:
        """Wide enough for a field with its unit and its mark, whatever the size of the type."""
        return by_type(LEAST_FORM)

    def _middle(self) -> QWidget:
        """The drawing the shown page asks for; under it the choice of map, and how the temperature answers the
        focused number."""
        middle, column = packed("paper")
        self.middle_stack = QStackedWidget()
        self.middle_stack.setMinimumWidth(320)
        self.middle_stack.addWidget(self.bay)
        column.addWidget(self.middle_stack, 1)
        self.map_bar = MapBar(self.session, self.bay)
        self.map_bar.hide()
        column.addWidget(self.map_bar)
        self.strip = ResponseStrip(self.session, self.station_stack)
        column.addWidget(self.strip)
        return middle

    def show_start(self, recovered: LeftBehind) -> None:
        """The page of a first start; the workspace takes over once there is a build."""
        acts: dict[str, Callable[[], object]] = {
            "First build, step by step": self.files.guide_first_build,
            "Start from a new brief": self.enter,
            "Open the demo": self.files.open_demo,
            "Open a file…": self.files.choose_file,
        }
        template = self.files.template()
        if template is not None:
            acts["Start from my template"] = self.files.start_from_template
        forget = self.session.autosave.forget
        last, samples = self.files.last(), self.files.samples()
        self.start = StartPage(
            Offers(acts, recovered, self.files.take_over, forget, last, self.files.open_recent, samples)
        )
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
        if self.furnished:
            self.offer_recovery()

    def _list_recent(self) -> None:
        """The builds used last in their menu: looked for on the disc, so only when they are others."""
        self.menus.list_recent(self.files.recent(), self.files.open_recent)

    def offer_recovery(self) -> None:
        """Offer, above the work, the recovery copies that wait for the open file."""
        for line in self.offers:
            line.hide()
        left = self.session.waiting() if self.session.path else LeftBehind()
        self.offers = [RecoveryOffer(found, self.files.take_over, self.session.autosave.forget) for found in left]
        for line in self.offers:
            dress(line, self.session)
            self.offer_column.addWidget(line)

    def _furnish(self) -> None:
        """All that the first picture did not wait for."""
        self.session.painted()
        self.show_station(self.first)
        if not self.furnished:
            self.offer_recovery()
        self.furnished = True
        self.station_stack.setFocus()
        self._make_room()
        if not self.session.settings.shown_round:
            self.show_round()

    def show_round(self) -> None:
        """The first screen explained in four marks, until the next press."""
        from keelroom.gui.widgets.first_marks import FirstMarks

        over = {
            "tape": self.tape,
            "form": self.station_stack,
            "picture": self.middle_stack,
            "ledger": self.ledger,
        }
        FirstMarks(self, self.session, over, self._was_shown_round)

    def _was_shown_round(self) -> None:
        self.session.settings.shown_round = True
        self.station_stack.setFocus()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._make_room()

    def _make_room(self) -> None:
        """The ledger to its line where its rows would leave the work no room, and open again where there is; unless it
        was folded by hand."""
        wanted = self.ledger.height_open() if self.furnished else 0
        tight = self.work.height() - wanted < LEAST_WORK
        if tight and not self.ledger.folded:
            self.folded_for_room = True
            self.ledger.fold(True)
        elif not tight and self.folded_for_room:
            self.folded_for_room = False
            self.ledger.fold(False)

    # moving about

    def visit(self, name: str) -> None:
        """A station, from the start page too."""
        if self.pages.currentWidget() is not self.work:
            self.enter()
        self.first = name
        if self.furnished:
            self.show_station(name)
            self.station(name).take_focus()

    def station(self, name: str) -> Form:
        """A station, made when it is first wanted."""
        if name not in self.stations:
            self.stations[name] = named(name).make(self.session)
            self.stations[name].turned.connect(self._place_middle)
            self.stations[name].benched.connect(self.bench)
            self.station_stack.addWidget(self.stations[name])
        return self.stations[name]

    def turn(self, station: str, part: str) -> None:
        """A part of a page of a station."""
        self.visit(station)
        if self.furnished:
            self.station(station).choose(part)

    def show_finding(self, finding: Finding) -> None:
        """A finding: the field it speaks of, and its card, open."""
        self.go_to(finding.where)
        self.show_panel("Findings")
        panel = self.drawers.panels["Findings"]
        assert isinstance(panel, FindingsPanel)
        panel.open(finding)

    def show_station(self, name: str) -> None:
        self.station_stack.setCurrentWidget(self.station(name))
        self.stations[name].catch_up()
        set_quietly(self.tape.marks[name], True)
        self.shown_station = name
        self._tell_findings()
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
        self.map_bar.setVisible(wanted is self.bay and named(self.shown_station).maps)

    def middle_scene(self) -> Scene | None:
        """The scene of what stands in the middle, for an export."""
        shown = self.middle_stack.currentWidget()
        return cast(Drawn, shown).as_scene()

    def walk(self) -> Walk:
        """Every reading of the tape walk."""
        from keelroom.gui.stations.survey.model import walk

        return walk(self.session.build)

    def bench(self) -> None:
        """Bench mode, or back from it."""
        if self.bench_page is not None and self.pages.currentWidget() is self.bench_page:
            self.pages.setCurrentWidget(self.work)
            self.show_station(self.benched)
            return
        from keelroom.gui.bench import Bench

        own = self.stations[self.shown_station].walked() if self.shown_station in self.stations else None
        self.benched, walked = (self.shown_station, own) if own else ("Survey", self._tape_walk())
        if self.bench_page is None:
            self.bench_page = Bench(self.session, walked, self.bench)
            dress(self.bench_page, self.session)
            self.pages.addWidget(self.bench_page)
        self.pages.setCurrentWidget(self.bench_page)
        self.bench_page.start(walked)

    def _tape_walk(self) -> Walked:
        """The readings of the survey, each with where its tape goes."""
        from keelroom.drawing.survey import picture
        from keelroom.gui.walks import Walked

        return Walked(self.walk, lambda path, text: picture(path, text or "measure"), lambda: "")

    def toggle_response(self) -> None:
        """Whether the response strip comes up under a focused number."""
        self.strip.toggle()

    def show_panel(self, name: str) -> None:
        """Pull a drawer out."""
        self.drawers.pull(name)

    def _tell_findings(self) -> None:
        """The findings' drawer puts those of the shown station first."""
        panel = self.drawers.panels.get("Findings")
        if isinstance(panel, FindingsPanel):
            panel.show_station(self.shown_station)

    def toggle_form(self) -> None:
        """The form away, so that the picture has its room, or back."""
        self.station_stack.setVisible(self.station_stack.isHidden())

    def widen_form(self) -> None:
        """Room for two columns of fields in the form, or one again."""
        self.station_stack.show()
        form, middle, drawer = self.across.sizes()
        wanted = by_type(FORM_WIDTH) if form >= by_type(TWO_COLUMNS) else by_type(TWO_COLUMNS)
        if form + middle - wanted < self.middle_stack.minimumWidth():
            self.drawers.pull("")
        self.across.setSizes([wanted, form + middle - wanted, drawer])

    def toggle_ledger(self) -> None:
        """The ledger in one line, or open."""
        self.folded_for_room = False
        self.ledger.fold(not self.ledger.folded)

    def zoom(self, step: int) -> None:
        """Zoom the picture in or out by a step; 0 fits it."""
        zoom = getattr(self.middle_stack.currentWidget(), "zoom", None)
        if zoom is not None:
            zoom.by(step)

    def edit_text(self, act: str) -> None:
        """Cut, copy or paste where the cursor is."""
        focused = QApplication.focusWidget()
        if isinstance(focused, QLineEdit | QPlainTextEdit):
            getattr(focused, act)()

    def show_packages(self) -> None:
        """All packages with their verdicts, and two of them compared."""
        from keelroom.gui.packages import Packages

        Packages(self, self.session).open()

    def preferences(self) -> None:
        """What holds for every build."""
        from keelroom.gui.preferences import Preferences

        Preferences(self, self.session).open()

    def guide(self) -> None:
        """The guide, at what the shown page is about."""
        station = named(self.shown_station or STATIONS[0].name)
        shown = self.stations.get(station.name)
        self.open_guide(station.topic(shown.current) if shown else station.guide)

    def open_guide(self, topic: str) -> None:
        """The guide at a topic."""
        from keelroom.gui.guide import Guide

        if self.guide_window is None:
            self.guide_window = Guide(self, self.session, self.turn)
        self.guide_window.open_at(topic)

    def about(self) -> None:
        """Name, version, and what the figures are."""
        told = (
            f"Keel Room {__version__}\n\nSizes a core and fans against an engine's heat, and fits, wires and "
            f"proves the package.\n\n{caution('plan')}"
        )
        message(self, QMessageBox.Icon.Information, "About Keel Room", told).exec()

    def duplicate_package(self) -> None:
        """A copy of the active package beside it, and active."""
        self.session.do(offer("copy_package", self.session.build.active))

    def _pick_focused(self, _old: QWidget | None, now: QWidget | None) -> None:
        """The part the cursor is at is the chosen one."""
        field = field_round(now)
        if field is not None and self.station_stack.isAncestorOf(field):
            self.session.pick(field.path)

    def _show_picked(self) -> None:
        """The chosen part in the form, where the shown station is the one it is described at."""
        if station_at(self.session.part).name == self.shown_station:
            self.stations[self.shown_station].point_out(self.session.part)

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
        self.menus.ink(self.palette_now.ink)
        self.tape.set_palette(self.palette_now)
        self.drawers.set_palette(self.palette_now)
        self.ledger.set_palette(self.palette_now)
        for board in boards:
            board.set_palette(self.palette_now)
        self._refresh()

    def switch_units(self) -> None:
        self.session.set_units("si" if inches(self.session.system) else "us")

    def switch_theme(self) -> None:
        self.session.set_theme("dark" if self.session.settings.theme != "dark" else "light")

    def _refresh(self) -> None:
        build, store = self.session.build, self.session.store
        name = self.session.path.name if self.session.path else "not saved yet"
        self.setWindowTitle(
            f"{build.brief.title or 'Untitled build'} — {name}{' (changed)' if store.dirty else ''} — Keel Room"
        )
        self.header.refresh()
        self.menus.name_steps(store.undo_label, store.redo_label)
        assessment = self.session.assessment
        if assessment.judged or assessment.findings:  # no counts of what is not judged yet
            self.drawers.show_findings(assessment.findings)
        own = by_station(assessment.findings)
        for station in STATIONS:
            self.tape.marks[station.name].show_state(station.state(build, assessment, own[station.name]))

    # leaving

    def closeEvent(self, event: QCloseEvent | None) -> None:
        assert event is not None
        if not self.files.may_leave():
            event.ignore()
            return
        settings = self.session.settings
        settings.remember("geometry", self.saveGeometry())
        settings.remember("panes", self.across.saveState())
        settings.folded = self.ledger.folded and not self.folded_for_room
        settings.drawer = self.drawers.out
        for worker in self.findChildren(Worker):
            worker.cancel()  # a long search ends with its window, not after it
        self.session.close()
        event.accept()

    def _restore(self) -> None:
        settings = self.session.settings
        for name, restore in (("geometry", self.restoreGeometry), ("panes", self.across.restoreState)):
            state = settings.remembered(name)
            if state is not None:
                restore(state)
        self.ledger.fold(settings.folded)
        if settings.drawer in DRAWERS:
            self.drawers.pull(settings.drawer)

    # files dropped

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        assert event is not None
        if dropped(event.mimeData()) is not None:
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        assert event is not None
        path = dropped(event.mimeData())
        if path is not None and self.files.may_leave():
            self.files.open(path)
