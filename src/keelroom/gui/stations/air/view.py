"""The Air station."""

from __future__ import annotations

from PyQt6.QtWidgets import QGridLayout, QLabel

from keelroom.assess.acts.fans import offered_fans
from keelroom.assess.acts.registry import offer
from keelroom.catalogue.load import FanAssembly
from keelroom.document.act import Act
from keelroom.gui.keeping import kept_words
from keelroom.gui.session.session import Session
from keelroom.gui.stations.air.curves import curves_page
from keelroom.gui.stations.air.declared import AIR
from keelroom.gui.stations.air.model import COLUMNS, cells, figure_rows, pages
from keelroom.gui.stations.air.panels import PanelsView
from keelroom.gui.stations.air.swap import SwapView
from keelroom.gui.stations.air.worth import worth_page
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.text import label, replace_body


class FanTable(ChooseTable):
    """Fans and twin assemblies to choose from."""

    def __init__(self, session: Session) -> None:
        self.session = session
        note = (
            "A click fits the fans over the face. Twin assemblies bring their own shroud. Advertised flow is free air."
        )
        super().__init__("Fans", COLUMNS, self.do, note, columns_are="named")
        self.foretell(session, self._act_at)

    def refresh(self) -> None:
        present = self.session.build.package.fans
        name = present[0].name if present else ""
        offered = self._offered()
        current = next((i for i, assembly in enumerate(offered) if assembly.name == name), -1)
        sign = self.session.settings.currency
        self.show_rows([cells(assembly, self.session.system, sign) for assembly in offered], current)

    def _offered(self) -> tuple[FanAssembly, ...]:
        return offered_fans(self.session.build)

    def _act_at(self, row: int) -> Act | None:
        assembly, build = self._offered()[row], self.session.build
        present = build.package.fans
        if present and present[0].name == assembly.name and len(present) == assembly.count:
            return None
        given = {"name": assembly.name, "count": str(assembly.count)}
        return offer("fit_fans", build.active, f"Fans: {assembly.name}", **given)


class AirStation(Form):
    """Chooses fans and shroud and shows what air they move."""

    def __init__(self, session: Session) -> None:
        actions = {"keep": self._keep}
        makers = {
            "Choose": lambda: FanTable(session),
            "Curve": lambda: curves_page(session),
            "Figures": lambda: FiguresView(session),
            "Worth": lambda: worth_page(session),
            "Panels": lambda: PanelsView(session),
            "Swap": lambda: SwapView(session),
        }
        super().__init__(session, AIR, lambda: pages(session.build), actions, makers)
        session.selected.connect(lambda _case: self.refresh())

    def _keep(self) -> None:
        build = self.session.build
        if self.session.do(offer("keep_fan", build.active)):
            fan = build.package.fans[0]
            self.session.told.emit(kept_words(fan))


class FiguresView(ScrolledColumn):
    """The air figures of the chosen duty case."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Air figures")
        body, column = self.blank()
        self.head = label("", "head", wrap=True)
        column.addWidget(self.head)
        column.addWidget(
            label(
                "Four figures: the rating, the hot flow at the blades, what a meter shows, the flow into the core.",
                "faint",
                wrap=True,
            )
        )
        self.grid = QGridLayout()
        self.grid.setColumnStretch(0, 1)
        column.addLayout(self.grid)
        column.addStretch(1)
        replace_body(self, body)
        self.cells: list[tuple[QLabel, ...]] = []

    def refresh(self) -> None:
        name, rows = figure_rows(self.session.build, self.session.assessment, self.session.case, self.session.system)
        self.head.setText(
            f"Air: {name}" if rows else f"{name or 'No duty case'}: needs more before air can be worked out"
        )
        while len(self.cells) < len(rows):
            pair = (label("", wrap=True), label(""))
            for column, cell in enumerate(pair):
                self.grid.addWidget(cell, len(self.cells), column)
            self.cells.append(pair)
        for i, (what, value) in enumerate(self.cells):
            what.setVisible(i < len(rows))
            value.setVisible(i < len(rows))
            if i < len(rows):
                what.setText(rows[i][0])
                value.setText(rows[i][1])
