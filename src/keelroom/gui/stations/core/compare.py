"""Candidate cores side by side for this build, both schools of sizing, and sweeps with the best for these fans."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout

from keelroom.assess.figures.outputs import day_text
from keelroom.assess.questions.compare import Candidate, Sweep, candidates, sweep
from keelroom.catalogue.load import cores
from keelroom.document.act import Act
from keelroom.gui.session.session import Session
from keelroom.gui.stations.core.model import fit_core_act
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.chart import Chart, ChartMark, ChartPicture, Series
from keelroom.gui.widgets.sought import SoughtPage
from keelroom.gui.widgets.text import label
from keelroom.units import KINDS, format_si, number_text

COLUMNS = ("Core", "Holds", "Hotter day", "Rejects", "Air drop", "Depth", "Area rule", "Tightest")
NOTE = (
    "Every core with this package’s fans, solved: how many duty cases hold; how much hotter a day than its own the "
    "tightest is held on, under 0 what it lacks; rejection at the limit and air drop in the first one. A click fits "
    "the core."
)


def cells(found: Candidate, wanted: float | None, system: str) -> tuple[str, ...]:
    """One line of the table."""
    core = found.core
    area = core.face_width.si * core.face_height.si if core.face_width and core.face_height else None
    rule = "?" if area is None or wanted is None else "content" if area >= wanted else "wants more"
    if math.isnan(found.margin):
        return (core.name, "?", "needs more", "?", "?", "?", rule, "")
    depth = format_si(core.depth.si, KINDS["length"], system) if core.depth else "?"
    return (
        core.name,
        f"{found.holding} of {found.cases}",
        day_text(found.margin, system),
        format_si(found.rejection, KINDS["heat"], system),
        format_si(found.drop, KINDS["fan pressure"], system),
        depth,
        rule,
        found.tightest,
    )


class CompareView(AskedTable[tuple[Candidate, ...]]):
    """The table, with both schools said above it."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Cores compared", COLUMNS, NOTE, "copper, 24 ×, twin …")

    def missing(self) -> str:
        needed = self.session.needed
        return f"First needed: {needed}. Every core is then solved here with this package’s fans." if needed else ""

    def question(self) -> Callable[[], tuple[Candidate, ...]]:
        build = self.session.build
        own = tuple(core for core in build.own_cores if core.name not in {c.name for c in cores()})
        return lambda: candidates(build, (*own, *cores()))

    def _schools(self) -> str:
        """The face-area rule and the heat balance, and whether they agree."""
        rules, tightest = self.session.assessment.rules, self.session.assessment.tightest
        if rules.face_area is None or rules.face_area_wanted is None or tightest is None or tightest.figures is None:
            return "Both schools of sizing stand here once engine, core and fans are known."
        system = self.session.system
        area = (
            f"{format_si(rules.face_area, KINDS['area'], system)} against "
            f"{format_si(rules.face_area_wanted, KINDS['area'], system)}"
        )
        content, holds = rules.face_area >= rules.face_area_wanted, tightest.figures.held
        agree = (
            "They agree."
            if content == holds
            else "They differ: the rule knows neither climate, load, depth nor fans; the heat balance decides here."
        )
        return (
            f"Frontal-area rule: {area}, {'content' if content else 'wants more'}. "
            f"Heat balance: {tightest.name} {'holds' if holds else 'does not hold'}. {agree}"
        )

    def show_found(self, found: tuple[Candidate, ...]) -> None:
        self.why.setText(self._schools())
        wanted = self.session.assessment.rules.face_area_wanted
        name = self.session.build.package.core.name
        current = next((i for i, c in enumerate(found) if c.core.name == name), -1)
        self.table.show_rows([cells(c, wanted, self.session.system) for c in found], current)

    def act_at(self, row: int) -> Act | None:
        core = self.found[row].core if self.found else self.session.build.package.core
        return fit_core_act(self.session.build, core)


def sweeps_page(session: Session) -> SoughtPage:
    """Fin density and depth swept for the chosen duty case."""

    def question():  # type: ignore[no-untyped-def]
        build, case = session.build, session.case
        if session.needed:
            return lambda: ()
        return lambda: tuple(sweep(build, field, case) for field in ("fin_density", "depth"))

    def fill(column: QVBoxLayout, found: tuple[Sweep, ...]) -> None:
        name = next((c.name for c in session.build.duty_cases if c.id == session.case), "")
        if not found:
            column.addWidget(label(f"First needed: {session.needed}.", wrap=True))
        for swept in found:
            column.addWidget(label(_head(swept, session), "head", wrap=True))
            chart = Chart(session, f"{swept.answer.label} swept against {name}")
            chart.setMinimumHeight(176)
            chart.show_picture(_picture(swept, session), _words(swept, session))
            column.addWidget(chart)

    intro = (
        "On given fans more fins and more depth win less and less, then lose: the air pays for them. The chosen "
        "duty case's temperature with the fans held on:"
    )
    return SoughtPage(session, "Fin density and depth swept", intro, question, fill)


def _head(swept: Sweep, session: Session) -> str:
    answer, system = swept.answer, session.system
    if not answer.temperatures:
        return f"{answer.label}: {session.stopped or 'this duty case is not worked out yet'}"
    if math.isnan(swept.best):
        return f"{answer.label}: this duty case never settles"
    gain = (
        format_si(swept.gain, KINDS["temperature difference"], system)
        if math.isfinite(swept.gain)
        else "a steady temperature"
    )
    best = format_si(swept.best, KINDS[answer.kind_name], system)
    if answer.weather:
        gain = f"{gain} of weather; it never settles on its own day"
    edge = " or more" if swept.best == answer.values[-1] else ""
    return f"{answer.label}: best for these fans {best}{edge}, worth {gain}"


def _words(swept: Sweep, session: Session):  # type: ignore[no-untyped-def]
    unit = session.unit(KINDS[swept.answer.kind_name])
    return lambda value: number_text(value * unit.factor, unit) if unit.symbol == "in" else f"{value:g}"


def _picture(swept: Sweep, session: Session) -> ChartPicture:
    answer = swept.answer
    unit = session.unit(KINDS[answer.kind_name])
    heat = session.unit(KINDS["temperature difference" if answer.weather else "temperature"])
    xs = tuple(v / unit.factor for v in answer.values)
    ys = tuple((t - heat.offset) / heat.factor for t in answer.told)
    by_x = dict(zip(answer.values, ys, strict=True))
    marks = [ChartMark(answer.now / unit.factor, by_x[answer.now], "now", "now")] if answer.now in by_x else []
    if not math.isnan(swept.best):
        marks.append(ChartMark(swept.best / unit.factor, by_x[swept.best], "best", "best"))
    limit = session.assessment.limit
    level = ((limit - heat.offset) / heat.factor, "limit") if limit is not None else None
    if answer.weather:
        level = (0.0, "held")
    return ChartPicture((Series("", xs, ys),), tuple(marks), level=level, across=unit.symbol, up=heat.symbol)
