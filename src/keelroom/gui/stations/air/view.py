"""The Air station."""

from __future__ import annotations

from PyQt6.QtWidgets import QGridLayout, QLabel

from keelroom.assess.fixes import spread_changes
from keelroom.assess.placing import face_size
from keelroom.catalogue.load import FanAssembly, fan_assemblies, keep_own, own_parts
from keelroom.document.edits import Edit, added, fresh_id
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.package import Fan
from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.air.curves import curves_page
from keelroom.gui.stations.air.model import COLUMNS, cells, choose, figure_rows, pages
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
        note = "A click fits the fans over the face. Twin assemblies bring their own shroud. Advertised flow is free air."
        super().__init__("Fans", COLUMNS, self._choose, note)

    def refresh(self) -> None:
        present = self.session.build.package.fans
        name = present[0].name if present else ""
        offered = self._offered()
        current = next((i for i, assembly in enumerate(offered) if assembly.name == name), -1)
        self.show_rows([cells(assembly, self.session.system) for assembly in offered], current)

    def _offered(self) -> tuple[FanAssembly, ...]:
        try:
            mine = {fan.name: fan for fan in (*own_parts().fans, *self.session.build.own_fans)}
        except KeelRoomError:
            mine = {fan.name: fan for fan in self.session.build.own_fans}
        own = tuple(FanAssembly(fan.name, 1, fan, False, fan.cost.si if fan.cost else 0.0) for fan in mine.values())
        return (*own, *fan_assemblies())

    def _choose(self, row: int) -> None:
        assembly = self._offered()[row]
        present = self.session.build.package.fans
        if not present or present[0].name != assembly.name or len(present) != assembly.count:
            self.session.attempt(choose(self.session.build, assembly, self.session.system))


class AirStation(Form):
    """Chooses fans and shroud and shows what air they move."""

    def __init__(self, session: Session) -> None:
        actions = {"add_fan": self._add, "spread": self._spread, "keep": self._keep}
        makers = {
            "Choose": lambda: FanTable(session),
            "Curve": lambda: curves_page(session),
            "Figures": lambda: FiguresView(session),
            "Worth": lambda: worth_page(session),
            "Swap": lambda: SwapView(session),
        }
        super().__init__(session, lambda: pages(session.build), actions, makers)
        session.selected.connect(lambda _case: self.refresh())

    def _add(self) -> None:
        package = self.session.build.package
        width, height = face_size(package)
        middle = [from_si(size / 2, "length", self.session.system, "derived") for size in (width, height)]
        fan = Fan(id=fresh_id(package.fans, "fan"), x=middle[0], y=middle[1], diameter=quantity("12 in", "length"),
                  free_air_flow=quantity("1300 CFM", "airflow"), power=quantity("120 W", "electrical power"))  # fmt: skip
        self.session.attempt(added(self.session.build, ("packages", package.id, "fans"), fan, "Add a fan"))

    def _spread(self) -> None:
        package = self.session.build.package
        if package.fans:
            self.session.attempt(Edit("Spread the fans over the face", spread_changes(package, self.session.system)))

    def _keep(self) -> None:
        fans = self.session.build.package.fans
        if not fans or not fans[0].name:
            self.session.told.emit("Give the fan a name first; it is kept under it")
            return
        others = tuple(fan for fan in self.session.build.own_fans if fan.name != fans[0].name)
        if self.session.set(("own_fans",), (*others, fans[0]), f"Keep “{fans[0].name}” in my parts"):
            try:
                keep_own(fans[0])
            except (KeelRoomError, OSError) as error:
                self.session.told.emit(f"Kept with this build only: {getattr(error, 'message', error)}")
            else:
                self.session.told.emit(f"“{fans[0].name}” is kept with this build and in your own catalogue")


class FiguresView(ScrolledColumn):
    """The air figures of the chosen duty case."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Air figures")
        body, column = self.blank()
        self.head = label("", "head", wrap=True)
        column.addWidget(self.head)
        column.addWidget(
            label("Rating, flow into the core and flow at the fan are three figures: the fan breathes hot, thin air.", "faint", wrap=True)
        )
        self.grid = QGridLayout()
        self.grid.setColumnStretch(0, 1)
        column.addLayout(self.grid)
        column.addStretch(1)
        replace_body(self, body)
        self.cells: list[tuple[QLabel, ...]] = []

    def refresh(self) -> None:
        name, rows = figure_rows(self.session.build, self.session.assessment, self.session.case, self.session.system)
        self.head.setText(f"Air: {name}" if rows else f"{name or 'No duty case'}: needs more before air can be worked out")
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
