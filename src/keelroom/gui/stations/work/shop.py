"""The Shopping list: what is sure now, what after a measurement, what is in hand; prices brought in from a list."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QApplication, QFileDialog, QVBoxLayout, QWidget

from keelroom.assess.acts.registry import offer
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.work.shopping import Wanted, amount_words, matched, read_prices, shopping
from keelroom.document.edits import Change, Edit
from keelroom.document.quantity import quantity
from keelroom.document.schema.work import Item
from keelroom.errors import KeelRoomError
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.brought import text_of
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.text import Whole, button
from keelroom.units import money_text

MOST_FAULTS = 4
"""told of a price list one by one"""


class ShopView(QWidget):
    """Two lists in one table, those that are sure first."""

    come = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        self.rows: tuple[Wanted, ...] = ()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 6)
        column.setSpacing(0)
        self.why = Whole("", "")
        self.why.setContentsMargins(12, 8, 10, 0)
        column.addWidget(self.why)
        self.table = ChooseTable(
            "Shopping list",
            ("What", "When", "How much", "Price", "Days", "From", "In hand"),
            self._choose,
            "A click chooses a row for the buttons below.",
            "part, material …",
            words=True,
        )
        column.addWidget(self.table, 1)
        line = FlowLayout()
        line.setContentsMargins(12, 4, 10, 2)
        self.hand = button("In hand", self._in_hand, "The chosen row is in hand")
        self.known = button("Price, source…", self._describe, "What is known of the chosen row")
        self.there = button("Go there", self._go, "Go to what it is for")
        for made in (self.hand, self.known, self.there):
            line.addWidget(made)
        line.addWidget(button("Price list…", self.prices, "Bring in a price list"))
        line.addWidget(button("CSV…", self._csv, "Save the list as a table"))
        line.addWidget(button("PDF…", self._pdf, "Save the list to print"))
        line.addWidget(button("Copy", self._copy, "Copy the list"))
        column.addLayout(line)
        self.key = ""

    picture = None

    def refresh(self) -> None:
        """Write it."""
        build = self.session.build
        found = attempted("The shopping list", ("work",), lambda: shopping(build, build.package))
        if isinstance(found, Stopped):
            self.rows = ()
            self.why.setText(f"{found.sentence}.")
        else:
            self.rows = tuple(sorted(found, key=lambda one: not one.sure))
            sure, later = sum(one.sure for one in found), sum(not one.sure for one in found)
            hand = sum(one.in_hand for one in found)
            self.why.setText(f"{sure} sure now, {later} after a measurement; {hand} in hand.")
        at = next((n for n, one in enumerate(self.rows) if one.key == self.key), -1)
        self.table.show_rows([self._row(one) for one in self.rows], at)
        self._enable()
        self.come.emit()

    def _row(self, one: Wanted) -> tuple[str, ...]:
        price = money_text(one.price, self.session.settings.currency) if one.price is not None else "—"
        days = f"{one.lead:.0f}" if one.lead is not None else "—"
        when = f"after {one.after}" if one.after else "now"
        return (
            one.name,
            when,
            amount_words(one.amount, self.session.system),
            price,
            days,
            one.source,
            "yes" if one.in_hand else "",
        )

    def _choose(self, row: int) -> None:
        if 0 <= row < len(self.rows):
            self.key = self.rows[row].key
        self._enable()

    @property
    def chosen(self) -> Wanted | None:
        """The row the buttons are for."""
        return next((one for one in self.rows if one.key == self.key), None)

    def _enable(self) -> None:
        one = self.chosen
        for made in (self.hand, self.known, self.there):
            made.setEnabled(one is not None)
        self.hand.setText("Not in hand" if one is not None and one.in_hand else "In hand")

    def _in_hand(self) -> None:
        if self.chosen is not None:
            self.session.do(offer("in_hand", self.session.build.active, item=self.chosen.key))

    def _describe(self) -> None:
        one = self.chosen
        if one is None:
            return
        if all(item.id != one.key for item in self.session.build.work.items):
            self.session.do(offer("describe_item", self.session.build.active, item=one.key))
        self.session.asked_for.emit(("work", "items", one.key, "price"))

    def _go(self) -> None:
        if self.chosen is not None:
            self.session.asked_for.emit(self.chosen.about)

    def prices(self) -> None:
        """Bring in a price list: what it says of things on the list is taken, the rest is told."""
        name, _ = QFileDialog.getOpenFileName(
            self, "Price list", str(self.session.folder), "Tables (*.csv *.tsv *.txt)"
        )
        if not name:
            return
        path = Path(name)
        try:
            found = read_prices(text_of(path), path.name)
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            return
        by_key, unused = matched(self.rows, found)
        items = {item.id: item for item in self.session.build.work.items}
        names = {one.key: one.name for one in self.rows}
        for key, price in by_key.items():
            item = items.get(key, Item(id=key, name=names[key]))
            lead = quantity(f"{price.lead:g}", "number", "catalogue") if price.lead is not None else item.lead
            told = {"price": quantity(f"{price.price:g}", "money", "catalogue"), "lead": lead}
            items[key] = item.model_copy(update=told | {"source": price.source or item.source or path.stem})
        if by_key:
            self.session.attempt(Edit(f"Prices of {path.name}", (Change(("work", "items"), tuple(items.values())),)))
        said = [f"{len(by_key)} prices of {path.name} are taken"]
        said += [f"{len(unused)} of its lines are of nothing on the list"] if unused else []
        said += list(found.faults[:MOST_FAULTS])
        more = len(found.faults) - MOST_FAULTS
        said += [f"and {more} more faults"] if more > 0 else []
        self.session.told.emit("; ".join(said))
        self.why.setText(f"{self.why.text()} {'. '.join(said)}.")

    def _csv(self) -> None:
        from keelroom.export.tables import write_csv
        from keelroom.export.work_sheets import shopping_rows

        rows = shopping_rows(self.rows, self.session.settings.currency, self.session.system)

        def write(path: Path) -> None:
            write_csv(rows, path)

        ask_and_write(self, self.session, ("Save the list", "shopping.csv", "CSV (*.csv)"), write)

    def _pdf(self) -> None:
        settings, title = self.session.settings, self.session.build.brief.title or "Shopping"

        def write(path: Path) -> None:
            from keelroom.export.work_sheets import write_shopping

            write_shopping(path, title, self.rows, (settings.currency, settings.paper, self.session.system))

        ask_and_write(self, self.session, ("Save the list", "shopping.pdf", "PDF (*.pdf)"), write)

    def _copy(self) -> None:
        from keelroom.export.work_sheets import shopping_rows

        board = QApplication.clipboard()
        if board is not None:
            rows = shopping_rows(self.rows, self.session.settings.currency, self.session.system)
            board.setText("\n".join("\t".join(row) for row in rows))
            self.session.told.emit(f"{len(self.rows)} rows are on the clipboard")
