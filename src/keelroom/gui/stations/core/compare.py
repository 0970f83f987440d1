"""Candidate cores side by side for this build, both schools of sizing, and sweeps with the best for these fans."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout

from keelroom.assess.acts.core import own_cores
from keelroom.assess.figures.outputs import day_text
from keelroom.assess.questions.compare import Candidate, Sweep, candidates, sweep
from keelroom.catalogue.load import cores
from keelroom.document.act import Act
from keelroom.document.schema.package import Core
from keelroom.drawing.cores import Card, cores_scene, drawable
from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.core.model import Choice, choices, fit_core_act
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.chart import Chart, ChartMark, ChartPicture, Series
from keelroom.gui.widgets.chart_board import ChartBoard
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.gui.widgets.sought import SoughtPage
from keelroom.gui.widgets.text import label
from keelroom.units import KINDS, format_si, number_text

COLUMNS = (
    "Core",
    "Holds",
    "Hotter day",
    "Depth",
    "Face",
    "Fins",
    "Rejects",
    "Air drop",
    "Cost",
    "Area rule",
    "Tightest",
)
NOTE = (
    "Every core with this package’s fans, solved: how many duty cases hold, and how much hotter a day than its own the "
    "tightest is held on, under 0 what it lacks. A click fits the core; your own parts say “mine”."
)
UNSOLVED = "…"
SHOWN = 6
"""cores drawn side by side: the package's and the best"""


def cells(choice: Choice, found: Candidate | None, wanted: float | None, system: str) -> tuple[str, ...]:
    """One line of the table: what the core is, and how it does in this build where that is worked out."""
    name, depth, face, fins, cost = choice.cells
    core = choice.core
    area = core.face_width.si * core.face_height.si if core.face_width and core.face_height else None
    rule = "?" if area is None or wanted is None else "content" if area >= wanted else "wants more"
    if found is None or math.isnan(found.margin):
        unknown = UNSOLVED if found is None else "?"
        return (name, unknown, unknown, depth, face, fins, unknown, unknown, cost, rule, "")
    return (
        name,
        f"{found.holding} of {found.cases}",
        day_text(found.margin, system),
        depth,
        face,
        fins,
        format_si(found.rejection, KINDS["heat"], system),
        format_si(found.drop, KINDS["fan pressure"], system),
        cost,
        rule,
        found.tightest,
    )


class CoresView(AskedTable[tuple[Candidate, ...]]):
    """Cores to choose from, the user's own first, each solved in this build; both schools of sizing are said above
    them, and the best stand side by side in the picture."""

    columns_are = "named"

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Cores", COLUMNS, NOTE, "copper, 24 ×, twin …")
        self.offered: tuple[Choice, ...] = ()

    def question(self) -> Callable[[], tuple[Candidate, ...]]:
        build, offered = self.session.build, tuple(choice.core for choice in self.offered)
        return lambda: candidates(build, offered)

    def refresh(self) -> None:
        """The list is there at once; how each does follows, where there is enough to work it out."""
        self.offered = choices(cores(), self._own(), self.session.system, self.session.settings.currency)
        super().refresh()
        self.table.show()
        if self.asked is None or self.answers is not self.session.build:
            self._show(None)

    def _own(self) -> tuple[Core, ...]:
        try:
            return own_cores(self.session.build)
        except KeelRoomError as error:
            self.session.told.emit(error.message)
            return self.session.build.own_cores

    def mark(self) -> None:
        """What a core is can be chosen from before it is known how it does."""

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
        self._show(found)

    def _show(self, found: tuple[Candidate, ...] | None) -> None:
        wanted, system = self.session.assessment.rules.face_area_wanted, self.session.system
        solved = found if found and len(found) == len(self.offered) else (None,) * len(self.offered)
        rows = [cells(choice, one, wanted, system) for choice, one in zip(self.offered, solved, strict=True)]
        name = self.session.build.package.core.name
        self.table.show_rows(rows, next((i for i, one in enumerate(self.offered) if one.core.name == name), -1))

    def act_at(self, row: int) -> Act | None:
        return fit_core_act(self.session.build, self.offered[row].core)

    def draw(self, found: tuple[Candidate, ...]) -> Drawing:
        own, system = self.session.build.package.core, self.session.system
        known = [one for one in found if drawable(one.core) and not math.isnan(one.margin)]
        now = [one for one in known if one.core.name == own.name]
        best = sorted((one for one in known if one not in now), key=lambda one: (-one.holding, -sum(one.days)))
        cases = [case.id for case in self.session.build.duty_cases]
        at = cases.index(self.session.case) if self.session.case in cases else 0
        cards = tuple(
            Card(one.core, one.days, at, f"{one.holding} of {one.cases} hold", one in now)
            for one in (*now, *best)[:SHOWN]
        )
        if not cards:
            return None, "Cores side by side", "They are drawn once one can be worked out."
        case = self.session.build.duty_cases[at].name
        foot = (
            f"At one scale. Under each: how much hotter a day than its own it is held on, right of the red "
            f"mark; diamond: {case}, rings: the other cases."
        )
        return cores_scene(cards, system), "Cores side by side", foot


def sweeps_page(session: Session) -> SoughtPage:
    """Fin density and depth swept for the chosen duty case: what was found in words, and large beside them."""
    board = ChartBoard("Fin density and depth swept, drawn")

    def question():  # type: ignore[no-untyped-def]
        build, case = session.build, session.case
        if session.needed:
            return lambda: ()
        return lambda: tuple(sweep(build, field, case) for field in ("fin_density", "depth"))

    def fill(column: QVBoxLayout, found: tuple[Sweep, ...]) -> None:
        if not found:
            column.addWidget(label(f"First needed: {session.needed}.", wrap=True))
        else:
            column.addWidget(label(_case_name(session), "head", wrap=True))
        for swept in found:
            column.addWidget(label(_head(swept, session), wrap=True))
        board.show_charts(tuple((swept.answer.label, _chart(swept, session)) for swept in found))

    intro = (
        "On given fans more fins and more depth win less and less, then lose: the air pays for them. The chosen "
        "duty case's temperature with the fans held on:"
    )
    return SoughtPage(session, "Fin density and depth swept", intro, question, fill, board)


def _case_name(session: Session) -> str:
    return next((case.name for case in session.build.duty_cases if case.id == session.case), "")


def _chart(swept: Sweep, session: Session) -> Chart:
    made = Chart(session, f"{swept.answer.label} swept against {_case_name(session)}")
    made.show_picture(_picture(swept, session), _words(swept, session))
    return made


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
