"""Wiring kits as sold: a table, told beforehand what each would do to this package."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.catalogue.load import WiringKit, kits
from keelroom.document.act import Act
from keelroom.document.quantity import described
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.units import KINDS, money_text

NOTE = "A click wires this package’s fans with the kit as it is sold: its fuse, relay, leads, sensor and set points."
COLUMNS = ("Kit", "Fans", "Fuse", "Feed", "On", "Cost", "To the motor", "Left over")


def cells(kit: WiringKit, system: str, sign: str) -> tuple[str, ...]:
    """One line of the table."""
    circuit = kit.circuit
    length = KINDS["length"]
    runs = [
        f"{described(circuit[run]['length'], length, system)} {circuit[run]['size'].as_typed}"
        for run in ("feed", "branch")
    ]
    spare = int(circuit["spare"].si)
    return (
        kit.name,
        str(kit.fans),
        circuit["fuse"].as_typed,
        runs[0],
        described(kit.control["fan_on"], KINDS["temperature"], system),
        money_text(kit.cost, sign),
        runs[1],
        f"{spare} lead{'s' if spare != 1 else ''}",
    )


class KitsView(ChooseTable):
    """Kits to choose from."""

    def __init__(self, session: Session) -> None:
        self.session = session
        super().__init__("Wiring kits", COLUMNS, self.do, NOTE, "relay, variable …", columns_are="named")
        self.foretell(session, self._act_at)

    def refresh(self) -> None:
        names = {circuit.kit for circuit in self.session.build.package.circuits}
        current = next((k for k, kit in enumerate(kits()) if kit.name in names), -1)
        self.show_rows([cells(kit, self.session.system, self.session.settings.currency) for kit in kits()], current)

    def _act_at(self, row: int) -> Act:
        kit = kits()[row]
        return offer("fit_kit", self.session.build.active, f"Kit: {kit.name}", name=kit.name)
