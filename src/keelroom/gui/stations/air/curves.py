"""Fan curve, system curve and working points; and the pressure ladder from grille to under the car."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.assess.questions.airmap import FanChart, fan_chart
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.widgets.chart import Chart, ChartMark, ChartPicture, Series
from keelroom.gui.widgets.chart_board import ChartBoard
from keelroom.gui.widgets.sought import SoughtPage
from keelroom.gui.widgets.text import label
from keelroom.units import KINDS, Unit

INTRO = (
    "The fan breathes hot, thin air: its flow here is at its own density. Where its curve meets what core, "
    "grille and bay ask, it works."
)
ROW = 22


def curves_page(session: Session) -> SoughtPage:
    """What the curves say in words; the curves and the pressures large beside them."""
    board = ChartBoard("Fan curve and pressures, drawn")

    def question():  # type: ignore[no-untyped-def]
        build, case = session.build, session.case
        return lambda: fan_chart(build, case)

    def fill(column: QVBoxLayout, found: FanChart | None) -> None:
        charts: list[tuple[str, QWidget]] = []
        if found is None:
            column.addWidget(label("No running fan yet.", wrap=True))
        else:
            cases = [p.label for p in found.points if not p.label.endswith(" V")]
            for number, name in enumerate(cases, 1):
                column.addWidget(label(f"{number}  {name}", wrap=True))
            column.addWidget(label("Rings: the chosen case at 10, 12 and 14 V.", "faint", wrap=True))
            chart = Chart(session, "Fan curve with the system's curve")
            chart.show_picture(picture(found, session))
            charts.append((found.title, chart))
        figures = session.assessment.figures_of(session.case)
        if figures is not None:
            name = next(c.name for c in session.assessment.cases if c.case_id == session.case)
            charts.append((f"Pressure from grille to exit: {name}", Ladder(session, figures.pressures)))
        board.show_charts(tuple(charts))

    return SoughtPage(session, "Fan curve and pressures", INTRO, question, fill, board)


def picture(found: FanChart, session: Session) -> ChartPicture:
    """The chart in shown units."""
    flow, pressure = (session.unit(KINDS[name]) for name in ("airflow", "fan pressure"))

    def shown(values: tuple[float, ...], unit: Unit) -> tuple[float, ...]:
        return tuple(v / unit.factor for v in values)

    lines = [
        Series(name, shown(xs, flow), shown(ys, pressure), "main" if name == "14 V" else "faint")
        for name, xs, ys in found.curves
    ]
    if len(found.system[0]) > 1:
        lines.append(Series("asked for", shown(found.system[0], flow), shown(found.system[1], pressure), "other"))
    marks, number = [], 0
    for point in found.points:
        volts = point.label.endswith(" V")
        number += not volts
        marks.append(
            ChartMark(
                point.flow / flow.factor,
                point.pressure / pressure.factor,
                "" if volts else str(number),
                "volts" if volts else "point",
            )
        )
    return ChartPicture(
        tuple(lines), tuple(marks), across=f"flow at the fan, {flow.symbol}", up=f"pressure rise, {pressure.symbol}"
    )


class Ladder(QWidget):
    """Pressures along the air's way as rungs off a zero line."""

    def __init__(self, session: Session, rungs: tuple[tuple[str, float], ...]) -> None:
        super().__init__()
        self.session, self.rungs = session, rungs
        self.setFixedHeight(ROW * len(rungs) + 6)
        unit = session.unit(KINDS["fan pressure"])
        self.setAccessibleName(
            "Pressure ladder: " + ", ".join(f"{name} {value / unit.factor:.2f} {unit.symbol}" for name, value in rungs)
        )

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p = palette_of(self.session.settings.theme)
        painter.setFont(QFont("Open Sans", 9))
        unit = self.session.unit(KINDS["fan pressure"])
        low, high = min(0.0, *(v for _, v in self.rungs)), max(0.0, *(v for _, v in self.rungs))
        reach = max(high - low, 1e-6)
        left, right = 186.0, self.width() - 64.0
        zero = left + (right - left) * (0.0 - low) / reach
        painter.setPen(QPen(QColor(p.rule), 1))
        painter.drawLine(int(zero), 0, int(zero), self.height())
        last = None
        for i, (name, value) in enumerate(self.rungs):
            y = 3 + ROW * i + ROW / 2
            x = left + (right - left) * (value - low) / reach
            painter.setPen(QColor(p.ink))
            painter.drawText(
                QRectF(0, y - 9, left - 6, 18), Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, name
            )
            painter.fillRect(
                QRectF(min(x, zero), y - 5, max(abs(x - zero), 1.5), 10), QColor(p.accent if value >= 0 else p.doubt)
            )
            painter.drawText(
                QRectF(right + 4, y - 9, 60, 18),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                f"{value / unit.factor:.2f}".replace("-", "−"),
            )
            if last is not None:
                painter.setPen(QPen(QColor(p.faint), 1))
                painter.drawLine(int(last[0]), int(last[1]), int(x), int(y))
            last = (x, y)
