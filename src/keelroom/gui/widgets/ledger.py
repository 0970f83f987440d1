"""The heat ledger: every duty case on one temperature rail, on every station, with running totals beside it."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from keelroom.assess.assessment import Assessment, CaseFigures, CaseResult
from keelroom.assess.report import VERDICT_WORDS, band_text, gap_size, margin_text, settles_text
from keelroom.assess.wording import chance_words
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette
from keelroom.gui.widgets.text import button, label
from keelroom.units import KINDS, Unit, format_si

NAME_WIDTH, FIGURE_WIDTH, MARGIN_WIDTH = 170, 92, 232
ROW_HEIGHT, COMPACT_HEIGHT, COMPACT_FROM = 23, 19, 8
RAIL_HEIGHT = 34
CHANGE_WIDTH, CHANGE_LEAD = 66, 8
TEMPERATURE = KINDS["temperature"]


class Rail:
    """The shared scale: temperature [degC] to a place across a width."""

    def __init__(self, assessment: Assessment) -> None:
        low = (assessment.thermostat if assessment.thermostat is not None else 80.0) - 12.0
        marks = [v for v in (assessment.limit, assessment.boiling) if v is not None]
        high = max(marks, default=110.0) + 8.0
        self.low, self.high = low, max(high, low + 30.0)

    def place(self, temperature: float, left: float, width: float) -> float:
        share = (temperature - self.low) / (self.high - self.low)
        return left + width * min(max(share, 0.0), 1.0)

    def beyond(self, temperature: float) -> bool:
        return temperature > self.high


class CaseRow(QAbstractButton):
    """One duty case: its name, its place on the rail with its band, its margin. A button, so keys and readers find it."""

    def __init__(self, ledger: Ledger) -> None:
        super().__init__(ledger)
        self.ledger = ledger
        self.case: CaseResult | None = None
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def show_case(self, case: CaseResult, chosen: bool) -> None:
        self.case = case
        self.setChecked(chosen)
        self.setAccessibleName(self.sentence())
        self.setToolTip(self.sentence())
        self.update()

    def sentence(self) -> str:
        """What the row shows, in words."""
        case, system = self.case, self.ledger.session.system
        if case is None:
            return ""
        if case.figures is None:
            return f"{case.name}: needs {', '.join(need.label.lower() for need in case.needs)}"
        f = case.figures
        change = self.ledger.change_of(case)
        held = f", {change} from what is held" if change else ""
        if f.verdict == "does_not_settle":
            return f"{case.name}: does not settle; {margin_text(f, system)}{held}"
        settles = settles_text(f, system) if f.cycles else f"settles at {settles_text(f, system)}"
        return f"{case.name}: {settles}, band {band_text(f, system)}, {margin_text(f, system)}, {VERDICT_WORDS[f.verdict]}{held}"

    def sizeHint(self) -> QSize:
        return QSize(600, self.ledger.row_height)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p, height = self.ledger.palette_now, self.height()
        if self.isChecked() or self.underMouse():
            painter.fillRect(self.rect(), QColor(p.raised))
        if self.isChecked():
            painter.fillRect(0, 0, 4, height, QColor(p.accent))
        if self.hasFocus():
            painter.setPen(QColor(p.accent))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        if self.case is None:
            return
        painter.setPen(QColor(p.ink))
        self._cell(painter, 12, NAME_WIDTH - 14, self.case.name, bold=self.isChecked())
        if self.case.figures is None:
            painter.setPen(QColor(p.doubt))
            self._cell(painter, NAME_WIDTH, self.width() - NAME_WIDTH, "needs " + ", ".join(need.label.lower() for need in self.case.needs))
            return
        left, width = self.ledger.rail_span()
        self._figures(painter, self.case.figures, left, width)

    def _cell(self, painter: QPainter, x: float, width: float, text: str, bold: bool = False, right: bool = False) -> None:
        font = QFont("Open Sans", 10)
        font.setWeight(QFont.Weight.DemiBold if bold else QFont.Weight.Normal)
        painter.setFont(font)
        text = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(width))
        side = Qt.AlignmentFlag.AlignRight if right else Qt.AlignmentFlag.AlignLeft
        painter.drawText(QRectF(x, 0, width, self.height()), side | Qt.AlignmentFlag.AlignVCenter, text)

    def _figures(self, painter: QPainter, f: CaseFigures, left: float, width: float) -> None:
        p, system, rail = self.ledger.palette_now, self.ledger.session.system, self.ledger.rail
        colour = QColor({"holds": p.good, "tight": p.doubt, "over": p.bad, "does_not_settle": p.bad}[f.verdict])
        middle = self.height() / 2
        start, end = rail.place(f.low, left, width), rail.place(f.high, left, width)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(p.band))
        if not rail.beyond(f.low):
            painter.drawRect(QRectF(start, middle - 4, max(end - start, 2), 8))
        if self.ledger.limit_place is not None:
            painter.fillRect(QRectF(self.ledger.limit_place - 0.75, 0, 1.5, self.height()), QColor(p.bad))
        if f.cycles:
            self._swing(painter, colour, (rail.place(f.swings_from, left, width), rail.place(f.temperature, left, width)))
        painter.setBrush(colour)
        self._mark(painter, f, rail.place(f.temperature if f.verdict != "does_not_settle" else math.inf, left, width), middle)
        painter.setPen(QColor(p.ink))
        x = left + width + 14
        settles = "—" if f.verdict == "does_not_settle" else format_si(f.temperature, TEMPERATURE, system)
        self._cell(painter, x, FIGURE_WIDTH - 20, settles, bold=True, right=True)
        painter.setPen(colour)
        change = self.ledger.change_of(self.case) if self.case else ""
        if change:
            painter.setPen(QColor(p.accent))
            self._cell(painter, x + FIGURE_WIDTH - CHANGE_LEAD, CHANGE_WIDTH, change, bold=True)
            painter.setPen(colour)
        lead = CHANGE_WIDTH if self.ledger.session.held and (change or f.verdict != "does_not_settle") else 0
        self._cell(painter, x + FIGURE_WIDTH + lead, MARGIN_WIDTH - lead, self._verdict(f))

    def _verdict(self, f: CaseFigures) -> str:
        if f.verdict == "tight":
            return f"{margin_text(f, self.ledger.session.system)} · {chance_words(f.chance)} passes"
        if f.verdict != "does_not_settle":
            return f"{margin_text(f, self.ledger.session.system)} · {VERDICT_WORDS[f.verdict]}"
        climb = format_si(f.climb * 60, KINDS["temperature difference"], self.ledger.session.system)
        return f"does not settle: +{climb}/min" if f.climb else "does not settle: boils first"

    def _swing(self, painter: QPainter, colour: QColor, ends: tuple[float, float]) -> None:
        """What the gauge goes through every time the fans stop and start: a stem up to the mark, a bar across its foot."""
        middle = self.height() / 2
        painter.fillRect(QRectF(ends[0], middle - 1, ends[1] - ends[0], 2), colour)
        painter.fillRect(QRectF(ends[0] - 1, middle - 5, 2, 10), colour)
        painter.setPen(Qt.PenStyle.NoPen)

    def _mark(self, painter: QPainter, f: CaseFigures, x: float, y: float) -> None:
        """Shape says the verdict: round holds, diamond likely, triangle over, arrow off the rail does not settle."""
        if f.verdict == "holds":
            painter.drawEllipse(QPointF(x, y), 5.5, 5.5)
        elif f.verdict == "tight":
            painter.drawPolygon(QPolygonF([QPointF(x, y - 7), QPointF(x + 7, y), QPointF(x, y + 7), QPointF(x - 7, y)]))
        elif f.verdict == "over":
            painter.drawPolygon(QPolygonF([QPointF(x, y - 7), QPointF(x + 7, y + 6), QPointF(x - 7, y + 6)]))
        else:
            painter.drawPolygon(QPolygonF([QPointF(x + 8, y), QPointF(x - 5, y - 7), QPointF(x - 1, y), QPointF(x - 5, y + 7)]))


class RailAxis(QWidget):
    """The rail itself: ticks, and thermostat, limit and boiling by name."""

    def __init__(self, ledger: Ledger) -> None:
        super().__init__(ledger)
        self.ledger = ledger
        self.setFixedHeight(RAIL_HEIGHT)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p, assessment = self.ledger.palette_now, self.ledger.session.assessment
        left, width = self.ledger.rail_span()
        unit: Unit = self.ledger.session.unit(TEMPERATURE)
        painter.setFont(QFont("Open Sans", 9))
        painter.fillRect(self.rect(), QColor(p.panel))
        painter.fillRect(QRectF(left, 0, width, 3), QColor(p.steel))
        self._ticks(painter, unit, left, width)
        taken: list[tuple[float, float]] = []
        painter.setFont(QFont("Open Sans", 9, QFont.Weight.DemiBold))
        for name, value, colour in (
            ("limit", assessment.limit, p.bad),
            ("thermostat", assessment.thermostat, p.good),
            ("boils", assessment.boiling, p.doubt),
        ):
            if value is None:
                continue
            x = self.ledger.rail.place(value, left, width)
            text = f"{name} {(value - unit.offset) / unit.factor:.0f}"
            wide = painter.fontMetrics().horizontalAdvance(text) + 6
            box = QRectF(min(max(x - wide / 2, left - 40), self.width() - wide), 16, wide, 17)
            if any(box.left() < end and box.right() > begin for begin, end in taken):
                box.moveLeft(max(end for _, end in taken) + 6)
            taken.append((box.left(), box.right()))
            painter.fillRect(QRectF(x - 1, 0, 2, 15), QColor(colour))
            painter.setPen(QColor(colour))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.setPen(QColor(p.faint))
        painter.setFont(QFont("Open Sans", 9))
        painter.drawText(QRectF(12, 4, NAME_WIDTH - 20, 20), Qt.AlignmentFlag.AlignVCenter, f"Outlet {unit.symbol}, bands 80 %")

    def _ticks(self, painter: QPainter, unit: Unit, left: float, width: float) -> None:
        p, rail = self.ledger.palette_now, self.ledger.rail
        low, high = ((v - unit.offset) / unit.factor for v in (rail.low, rail.high))
        step = 10 if high - low < 90 else 20
        painter.setPen(QColor(p.faint))
        for value in range(int(math.ceil(low / step) * step), int(high) + 1, step):
            x = rail.place(value * unit.factor + unit.offset, left, width)
            painter.drawLine(QPointF(x, 0), QPointF(x, 6))
            if all(abs(x - named) > 16 for named in self._named(left, width)):
                painter.drawText(QRectF(x - 24, 4, 48, 15), Qt.AlignmentFlag.AlignCenter, str(value))

    def _named(self, left: float, width: float) -> list[float]:
        """Places of the named marks, whose own figures stand under them."""
        assessment = self.ledger.session.assessment
        return [
            self.ledger.rail.place(v, left, width) for v in (assessment.limit, assessment.thermostat, assessment.boiling) if v is not None
        ]


class Ledger(QWidget):
    """Rows over the rail on the left, totals on the right; a sentence instead where there is nothing to stand on it."""

    chosen = pyqtSignal(str)

    def __init__(self, session: Session, palette: Palette) -> None:
        super().__init__()
        self.session, self.palette_now = session, palette
        self.setObjectName("panel")
        self.setAccessibleName("Heat ledger")
        self.rail = Rail(session.assessment)
        self.row_height = ROW_HEIGHT
        self.limit_place: float | None = None
        self.rows: list[CaseRow] = []
        self._build()
        session.changed.connect(self.refresh)
        session.selected.connect(lambda _case: self.refresh())
        session.display_changed.connect(self.refresh)
        self.refresh()

    def _build(self) -> None:
        outer = QHBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        main = QVBoxLayout()
        main.setContentsMargins(0, 4, 0, 0)
        main.setSpacing(0)
        self.stale = label("", "stale", wrap=True)
        self.stale.hide()
        self.empty = label("", wrap=True)
        self.empty.setContentsMargins(14, 8, 14, 8)
        self.holder = QWidget()
        self.holder.setObjectName("panel")
        self.column = QVBoxLayout(self.holder)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(0)
        self.column.addStretch(1)
        self.rows_area = QScrollArea()
        self.rows_area.setWidgetResizable(True)
        self.rows_area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.rows_area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.rows_area.setWidget(self.holder)
        self.axis = RailAxis(self)
        for widget in (self.stale, self.empty):
            main.addWidget(widget)
        main.addWidget(self.rows_area, 1)
        main.addWidget(self.axis)
        outer.addLayout(main, 1)
        outer.addWidget(self._totals())

    def _totals(self) -> QWidget:
        side = QWidget()
        side.setObjectName("panel")
        side.setFixedWidth(238)
        self.totals_column = QVBoxLayout(side)
        self.totals_column.setContentsMargins(12, 4, 10, 4)
        self.totals_column.setSpacing(1)
        self.amps = self._total("amps", lambda: ("brief", "accessories", "alternator_rating"), "the alternator")
        self.area = self._total("face", lambda: ("packages", self.session.build.active, "core", "face_width"), "the core face")
        self.cfm = self._total("airflow", lambda: ("packages", self.session.build.active, "fans"), "the fans")
        self.money = self._total("", lambda: ("packages", self.session.build.active, "hours"), "cost and hours")
        self.gap = self._total("", self._gap_path, "the tightest clearance")
        for made in (self.amps, self.area, self.cfm, self.gap, self.money):
            made.setStyleSheet("text-align: left; padding: 2px 6px;")
            self.totals_column.addWidget(made)
        self.totals_column.addStretch(1)
        return side

    def _gap_path(self) -> tuple[str, ...]:
        """Where the tightest clearance is decided; without a survey, where it begins."""
        finding = next((f for f in self.session.assessment.findings if f.code.startswith("fit_")), None)
        if finding is not None:
            return finding.where
        fit = self.session.assessment.fit
        return ("packages", self.session.build.active, "place", "x") if fit and fit.surveyed else ("survey", "opening", "width")

    def _total(self, headline: str, where: Callable[[], tuple[str, ...]], what: str) -> QPushButton:
        """A running total: a click goes to what limits it and opens its working."""

        def act() -> None:
            self.session.asked_for.emit(where())
            if headline:
                self.session.explain(headline)

        return button("", act, tip=f"Why, and go to {what}" if headline else f"Go to {what}")

    def set_palette(self, palette: Palette) -> None:
        self.palette_now = palette
        self.refresh()

    def change_of(self, case: CaseResult) -> str:
        """How far a duty case has moved from what is held; '' where nothing is held, or the case was not there."""
        held = self.session.held.figures(case.case_id) if self.session.held else None
        if held is None or case.figures is None:
            return ""
        settles = [f.verdict != "does_not_settle" for f in (held, case.figures)]
        if settles == [False, True]:
            return "now settles"
        if not settles[1]:
            return "" if settles[0] is False else f"was {format_si(held.temperature, TEMPERATURE, self.session.system)}"
        unit = self.session.unit(KINDS["temperature difference"])
        change = (case.figures.temperature - held.temperature) / unit.factor
        return f"{change:+.1f} {unit.symbol}".replace("-", "−") if abs(change) >= 0.05 else "no change"

    def rail_span(self) -> tuple[float, float]:
        """Left end and width of the rail in this widget's pixels."""
        right = FIGURE_WIDTH + MARGIN_WIDTH + 20
        return float(NAME_WIDTH + 20), max(float(self.rows_area.width() - NAME_WIDTH - 20 - right), 60.0)

    def refresh(self) -> None:
        assessment = self.session.assessment
        self.stale.setVisible(bool(self.session.failure))
        self.stale.setText(f"These figures are from before the last edit, which could not be worked out: {self.session.failure}")
        cases = assessment.cases
        solved = [case for case in cases if case.figures]
        self.empty.setVisible(not solved)
        self.axis.setVisible(bool(solved))
        if not solved:
            missing = list(dict.fromkeys(need.label.lower() for case in cases for need in case.needs))
            what = (
                f"It still needs: {', '.join(missing[:8])}" + (f" and {len(missing) - 8} more." if len(missing) > 8 else ".")
                if missing
                else "Add a duty case at the Brief."
            )
            self.empty.setText(
                f"No figures yet. The ledger shows the temperature every duty case settles at once the brief and a package are known. {what}"
            )
        self.rail = Rail(assessment)
        self.row_height = COMPACT_HEIGHT if len(cases) >= COMPACT_FROM else ROW_HEIGHT
        self._show_rows(cases if solved else ())
        self._place_limit()
        self._show_totals(assessment)
        self.axis.update()

    def _show_rows(self, cases: tuple[CaseResult, ...]) -> None:
        while len(self.rows) < len(cases):
            row = CaseRow(self)
            row.clicked.connect(lambda _checked, row=row: self._choose(row))
            self.column.insertWidget(len(self.rows), row)
            self.rows.append(row)
        while len(self.rows) > len(cases):
            self.rows.pop().deleteLater()
        for row, case in zip(self.rows, cases, strict=True):
            row.setFixedHeight(self.row_height)
            row.show_case(case, case.case_id == self.session.case)

    def _choose(self, row: CaseRow) -> None:
        if row.case is not None:
            self.session.select(row.case.case_id)
            self.chosen.emit(row.case.case_id)

    def _place_limit(self) -> None:
        limit = self.session.assessment.limit
        self.limit_place = self.rail.place(limit, *self.rail_span()) if limit is not None else None

    def resizeEvent(self, event: object) -> None:
        self._place_limit()

    def _show_totals(self, assessment: Assessment) -> None:
        totals, rules, system = assessment.totals, assessment.rules, self.session.system

        def against(name: str, have: float | None, want: float | None, kind: str) -> str:
            if have is None:
                return f"{name}: not known yet"
            if want is None:
                return f"{name}: {format_si(have, KINDS[kind], system)}"
            unit = KINDS[kind].shown_unit(system)
            number = format_si(have, KINDS[kind], system).removesuffix(unit.symbol).strip()
            wanted = format_si(want, KINDS[kind], system)
            wanted = wanted.removesuffix(name).strip()  # "CFM: 1500 of 2500", the unit said once
            return f"{name}: {number} of {wanted}" + ("" if have >= want else ", short")

        idle = "Idle amps: not known yet"
        if totals.amps_at_idle is not None and totals.alternator_at_idle is not None:
            short = ", short" if totals.amps_at_idle > totals.alternator_at_idle else ""
            volts = f", {totals.volts_at_idle:.1f} V" if totals.volts_at_idle is not None else ""
            idle = f"Idle: {totals.amps_at_idle:.0f} A of {totals.alternator_at_idle:.0f} A{volts}{short}"
        money = [f"Parts {totals.cost:.0f}"] if totals.cost is not None else []
        if totals.hours is not None:
            money.append(f"{totals.hours / 3600:.0f} h")
        airflow = KINDS["airflow"].shown_unit(system)
        texts = (
            idle + self._since(totals.amps_at_idle, lambda a: a.totals.amps_at_idle, 1.0, "A"),
            against("Face", rules.face_area, rules.face_area_wanted, "area"),
            against("CFM" if system == "us" else "Air", rules.airflow, rules.airflow_wanted, "airflow")
            + self._since(rules.airflow, lambda a: a.rules.airflow, airflow.factor, ""),
            self._tightest(assessment),
            (" · ".join(money) or "Cost and hours: not entered") + self._since(totals.cost, lambda a: a.totals.cost, 1.0, ""),
        )
        for made, text in zip((self.amps, self.area, self.cfm, self.gap, self.money), texts, strict=True):
            made.setText(text)
            made.setAccessibleName(text)

    def _tightest(self, assessment: Assessment) -> str:
        fit = assessment.fit
        if fit is None or not fit.surveyed:
            return "Clearance: not surveyed"
        if fit.tightest is None:
            return f"Clearance: {fit.verdict}"
        unit = KINDS["length"].shown_unit(self.session.system)
        have = gap_size(fit.tightest, self.session.system)
        state = {"not measured": ", not all measured", "tight": ", tight", "clears": ""}.get(
            fit.verdict, "" if fit.tightest.gap < 0 else ", too close"
        )

        def gap_of(held: Assessment) -> float | None:
            return held.fit.tightest.gap / unit.factor if held.fit and held.fit.tightest else None

        before = gap_of(self.session.held.assessment) if self.session.held else None
        change = fit.tightest.gap / unit.factor - before if before is not None else 0.0
        since = f" ({change:+.2g})".replace("-", "−") if abs(change) > 1 / 32 else ""
        return f"Gap: {have}{state}{since}"

    def _since(self, now: float | None, was: Callable[[Assessment], float | None], factor: float, unit: str) -> str:
        """A total's change from what is held, in brackets."""
        before = was(self.session.held.assessment) if self.session.held else None
        if now is None or before is None:
            return ""
        change = (now - before) / factor
        return f" ({change:+.0f} {unit})".replace("-", "−").replace(" )", ")") if abs(change) >= 0.5 else ""
