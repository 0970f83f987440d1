"""The schools of fan control side by side: a table that goes over to one with a click, and the same drawn on one
rail."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.inputs.cases import idle_case
from keelroom.assess.questions.schools import Compared, Comparison, compare_schools
from keelroom.document.act import Act
from keelroom.drawing.schools import SHOWN_DAYS, schools_scene
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.units import KINDS, both, number_text

NOTE = (
    f"Each solved at idle, from a day of {both((60 - 32) / 1.8, 'temperature')} to one of "
    f"{both((105 - 32) / 1.8, 'temperature')}. A click goes over to it; undo comes back."
)
COLUMNS = ("School", "Starts", "Holds", "Runs", "Mean A", "Start A")
COOL, HOT = 1, 4


def cells(row: Compared, system: str) -> tuple[str, ...]:
    """One line of the table: from the 60 °F to the 105 °F day."""
    unit = KINDS["temperature"].shown_unit(system)

    def span(first: float, last: float) -> str:
        if not (math.isfinite(first) and math.isfinite(last)):
            return "—"
        ends = [number_text(celsius, unit) for celsius in (first, last)]
        return f"{ends[0]} {unit.symbol}" if ends[0] == ends[1] else f"{ends[0]}–{ends[1]} {unit.symbol}"

    cool, warm = row.days[COOL], row.days[HOT]
    name = row.school.name + (" · default" if row.default else "")
    runs = f"{cool.duty:.0%}–{warm.duty:.0%}" if math.isfinite(cool.duty) else "?"
    return (name, span(cool.on, warm.on), span(cool.held, warm.held), runs, f"{row.amps:.1f}", f"{row.starting:.0f}")


class SchoolsView(AskedTable[Comparison]):
    """Asks for the build as it stands, at idle: there the fans are on their own."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Schools of control", COLUMNS, NOTE, "hose, fins, variable …")

    def missing(self) -> str:
        build = self.session.build
        case = idle_case(build.duty_cases)
        if (
            case is None
            or not build.package.fans
            or not any(c.figures for c in self.session.assessment.cases if c.case_id == case.id)
        ):
            return "The schools stand here once the package has a fan and an idle duty case is worked out."
        return ""

    def question(self) -> Callable[[], Comparison]:
        build = self.session.build
        case = idle_case(build.duty_cases)
        assert case is not None
        return lambda: compare_schools(build, case.id)

    def show_found(self, found: Comparison) -> None:
        self.why.setText(found.why)
        current = next((k for k, row in enumerate(found.rows) if row.current), -1)
        self.table.show_rows([cells(row, self.session.system) for row in found.rows], current)
        self.said.setText(f"Now: {found.rows[current].school.why}" if current >= 0 else "")

    def act_at(self, row: int) -> Act | None:
        return self.found.rows[row].act if self.found is not None and not self.found.rows[row].current else None

    def draw(self, found: Comparison) -> Drawing:
        unit = KINDS["temperature"].shown_unit(self.session.system)
        days = [number_text(found.rows[0].days[k].ambient, unit) for k, _ in SHOWN_DAYS]
        foot = (
            f"Bars: coolant leaving the engine from fans off to fans on, on a day of {', '.join(days)} "
            f"{unit.symbol} (from top). Diamonds: where it settles that day."
        )
        return schools_scene(found, self.session.system), f"Schools of control, {found.case_name}", foot
