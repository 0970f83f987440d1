"""The running totals beside the ledger: each goes to what limits it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.report import gap_size
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.text import button
from keelroom.units import KINDS, format_si, inches, money_text

TOTALS_WIDTH = 212


class TotalsLines(QWidget):
    """Amps at idle, face and airflow against the rules of thumb, tightest gap, cost and hours."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        self.setFixedWidth(round(TOTALS_WIDTH * self.font().pointSizeF() / 10.0))
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 2, 6, 2)
        column.setSpacing(0)
        self.amps = self._total("amps", lambda: ("brief", "accessories", "alternator_rating"), "the alternator")
        self.area = self._total(
            "face", lambda: ("packages", self.session.build.active, "core", "face_width"), "the core face"
        )
        self.cfm = self._total("airflow", lambda: ("packages", self.session.build.active, "fans"), "the fans")
        self.gap = self._total("", self._gap_path, "the tightest clearance")
        self.money = self._total("", lambda: ("work", "rate"), "cost and hours")
        for made in (self.amps, self.area, self.cfm, self.gap, self.money):
            column.addWidget(made)
        column.addStretch(1)

    def _gap_path(self) -> tuple[str, ...]:
        """Where the tightest clearance is decided; without a survey, where it begins."""
        finding = next((f for f in self.session.assessment.findings if f.code.startswith("fit_")), None)
        if finding is not None:
            return finding.where
        fit = self.session.assessment.fit
        return (
            ("packages", self.session.build.active, "place", "x")
            if fit and fit.surveyed
            else ("survey", "opening", "width")
        )

    def _total(self, headline: str, where: Callable[[], tuple[str, ...]], what: str) -> QPushButton:
        """A running total: a click goes to what limits it and opens its working."""

        def act() -> None:
            self.session.asked_for.emit(where())
            if headline:
                self.session.explain(headline)

        return button("", act, role="total", tip=f"Why, and go to {what}" if headline else f"Go to {what}")

    def show_totals(self, assessment: Assessment) -> None:
        """Show what an assessment adds up to."""
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
        money = [f"Parts {money_text(totals.cost, self.session.settings.currency)}"] if totals.cost is not None else []
        if totals.hours is not None:
            money.append(f"{totals.hours / 3600:.0f} h")
        airflow = KINDS["airflow"].shown_unit(system)
        texts = (
            idle + self._since(totals.amps_at_idle, lambda a: a.totals.amps_at_idle, 1.0, "A"),
            against("Face", rules.face_area, rules.face_area_wanted, "area"),
            against("CFM" if inches(system) else "Air", rules.airflow, rules.airflow_wanted, "airflow")
            + self._since(rules.airflow, lambda a: a.rules.airflow, airflow.factor, ""),
            self._tightest(assessment),
            (" · ".join(money) or "Cost and hours: not entered")
            + self._since(totals.cost, lambda a: a.totals.cost, 1.0, ""),
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
