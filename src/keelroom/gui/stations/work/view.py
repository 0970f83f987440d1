"""The Work station."""

from __future__ import annotations

import csv
from datetime import date
from functools import cached_property, partial
from pathlib import Path

from PyQt6.QtWidgets import QApplication, QFileDialog

from keelroom.assess.acts.registry import offer
from keelroom.assess.outcome import Stopped
from keelroom.assess.questions.record import owners_page, record, why_hours
from keelroom.assess.work.money import TIMES_HEADS, estimated, own_times, read_times
from keelroom.catalogue.steps import parsed, shipped_text
from keelroom.document.edits import Change, Edit, set_value
from keelroom.document.quantity import quantity
from keelroom.document.schema.work import Pace
from keelroom.document.snapshot import kept, packed, unfolded
from keelroom.drawing.work import hours_scene
from keelroom.errors import KeelRoomError
from keelroom.gui.rows import Page
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.stations.work.bench import BenchView
from keelroom.gui.stations.work.declared import WORK
from keelroom.gui.stations.work.model import pages
from keelroom.gui.stations.work.order import OrderView, WorkBoard
from keelroom.gui.stations.work.plans import NO_WORK, Plans, money_words
from keelroom.gui.stations.work.shop import ShopView
from keelroom.gui.widgets.act_menu import ActMenu, Entry
from keelroom.gui.widgets.brought import text_of
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import Drawing, Picture

TABLES = "Tables (*.csv)"


class WorkStation(Form):
    """Plans the work, buys for it, ticks it off and hands it over."""

    def __init__(self, session: Session) -> None:
        self.plans = Plans(session)
        board = WorkBoard(session, self.plans)
        makers = {
            "Order": lambda: OrderView(session, self.plans),
            "List": lambda: ShopView(session),
            "Bench": lambda: BenchView(session, self.plans, board),
        }
        super().__init__(
            session,
            WORK,
            self._pages,
            {
                "table": self._table,
                "times": self._times,
                "prices": self._prices,
                "record": self._record,
                "rows": self._rows,
                "why": self._why,
            },
            makers,
            {"Hours": Picture("What takes the hours", self._drawn, 1150.0)},
        )
        self.plans.come.connect(self.changed)

    def _pages(self) -> tuple[Page, ...]:
        plan = self.plans.plan
        self.plans.ask()
        if isinstance(plan, Stopped):
            return pages(self.session.build, (("problem", f"{plan.sentence}."),))
        return pages(self.session.build, money_words(self.session, plan, self.plans.estimate))

    def _drawn(self) -> Drawing:
        plan, estimate = self.plans.plan, self.plans.estimate
        if isinstance(plan, Stopped):
            return None, "", f"{plan.sentence}."
        if not plan.steps:
            return None, "", NO_WORK
        if estimate is None or len(estimate.moves) == 0:
            return None, "", "working it out …"
        return (
            hours_scene(plan, estimate),
            "What takes the hours, most in doubt first",
            "Between low and high; the dot: likely.",
        )

    @cached_property
    def menu(self) -> ActMenu:
        return ActMenu(self, self.session, "Work")

    # a shop's own table of steps

    def _table(self) -> None:
        entries = [
            Entry("Save the table, to change it…", self._save_table),
            Entry("Bring in our own table…", self._bring_table),
        ]
        if self.session.build.work.table:
            entries.append(Entry("Go by the table that ships", partial(self.session.do, offer("shipped_steps"))))
        self.menu.put_up(entries)

    def _save_table(self) -> None:
        text = unfolded(self.session.build.work.table) or shipped_text()

        def write(path: Path) -> None:
            from keelroom.export.whole import write_whole

            write_whole(path, text.encode("utf-8"), "table_not_written")

        ask_and_write(self, self.session, ("Save the table of steps", "steps.csv", TABLES), write)

    def _bring_table(self) -> None:
        path = self._asked_for("Table of steps")
        if path is None:
            return
        try:
            text = text_of(path)
            rules = parsed(text, path.name)
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            return
        if self.session.attempt(set_value(("work", "table"), packed(text), f"Steps of {path.name}")):
            self.session.told.emit(f"The work goes by {path.name}: {len(rules)} steps")

    # the shop's own times

    def _times(self) -> None:
        self.menu.put_up(
            [
                Entry("Add this build to our times…", self._add_times),
                Entry("Take our times in…", self._take_times),
            ]
        )

    def _add_times(self) -> None:
        """What was done here, under the rows of a table that grows from build to build."""
        plan = self.plans.plan
        if isinstance(plan, Stopped):
            return
        rows = own_times(self.session.build.work, plan, self.session.build.brief.title)
        if not rows:
            self.session.told.emit("No step was ticked off with the minutes it took: there is nothing to add")
            return
        name, _ = QFileDialog.getSaveFileName(
            self,
            "Our times",
            str(self.session.folder / "our-times.csv"),
            TABLES,
            "",
            QFileDialog.Option.DontConfirmOverwrite,
        )
        if not name:
            return
        path = Path(name)
        try:
            before = text_of(path) if path.exists() else ""
            there = list(csv.reader(before.splitlines())) if before else [list(TIMES_HEADS)]
            if before:
                read_times(before, path.name)
            from keelroom.export.tables import write_csv

            known = {tuple(row) for row in there}
            write_csv((*there, *(row for row in rows if row not in known)), path)
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            return
        self.session.told.emit(f"{len(rows)} steps stand in {path.name}")

    def _take_times(self) -> None:
        path = self._asked_for("Our times")
        if path is None:
            return
        try:
            found = read_times(text_of(path), path.name)
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            return
        pace = tuple(
            Pace(id=act, times=quantity(f"{times:.2f}", "number", "measured"), steps=count)
            for act, (times, count) in found.items()
        )
        if self.session.attempt(Edit(f"Times of {path.name}", (Change(("work", "pace"), pace),))):
            self.session.told.emit(f"Hours go by {path.name} now: {len(pace)} kinds of work")

    def _asked_for(self, title: str) -> Path | None:
        name, _ = QFileDialog.getOpenFileName(self, title, str(self.session.folder), TABLES)
        return Path(name) if name else None

    # prices and record

    def _prices(self) -> None:
        self.choose("List")
        view = self.views["List"]
        assert isinstance(view, ShopView)
        view.prices()

    def _record(self) -> None:
        """The record as pages, for the next shop and for the owner; the package is kept to be held against the next."""
        plan, session = self.plans.plan, self.session
        if isinstance(plan, Stopped):
            session.told.emit(f"{plan.sentence}.")
            return
        whole, sign, title = session.whole(), session.settings.currency, session.build.brief.title or "Record"
        parts = (
            (f"For the next shop, {date.today().isoformat()}", record(whole, plan, session.system, sign)),
            ("For the owner", owners_page(whole, plan, session.system)),
        )
        done: list[Path] = []

        def write(path: Path) -> None:
            from keelroom.export.work_sheets import write_record

            write_record(path, title, parts, plan, (session.settings.paper, session.path))
            done.append(path)

        ask_and_write(self, session, ("Save the record", "record.pdf", "PDF (*.pdf)"), write)
        if done:
            session.attempt(set_value(("work", "recorded"), kept(session.build.package), "Record written"))

    def _rows(self) -> None:
        plan = self.plans.plan
        if isinstance(plan, Stopped):
            return
        from keelroom.export.tables import write_csv
        from keelroom.export.work_sheets import record_rows

        rows = record_rows(record(self.session.whole(), plan, self.session.system, self.session.settings.currency))

        def write(path: Path) -> None:
            write_csv(rows, path)

        ask_and_write(self, self.session, ("Save the record as a table", "record.csv", "CSV (*.csv)"), write)

    def _why(self) -> None:
        """Why it takes so long, for a customer, on the clipboard."""
        plan, build = self.plans.plan, self.session.build
        board = QApplication.clipboard()
        if isinstance(plan, Stopped) or board is None:
            return
        board.setText("\n".join(why_hours(build, build.package, plan, estimated(build, build.package, plan))))
        self.session.told.emit("Why it takes so long is on the clipboard, for a customer")

    def go_to(self, path: tuple[str, ...]) -> bool:
        """A step, a thing to be bought, a tick."""
        if path[:2] == ("work", "ticks"):
            self.choose("Record")
        if super().go_to(path):
            return True
        if path[:1] == ("work",):
            self.choose("Order")
            return True
        return False
