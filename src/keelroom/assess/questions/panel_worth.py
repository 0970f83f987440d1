"""What each panel is worth: the build with and without it, standing and at speed, at the engine and at the A/C
vents."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.fit.panels import panel_name
from keelroom.assess.inputs.cases import idle_case, road_case
from keelroom.core.kept import in_one_go
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.panels import Panel

TOGETHER = "All of them together"


class PanelState(NamedTuple):
    """One case with or without a panel: outlet, air at the face, in the bay, vents [degC] (nan where there is none),
    shares come back and gone round."""

    outlet: float
    front: float
    bay: float
    vents: float
    back: float
    round: float


class PanelWorth(NamedTuple):
    """One panel, or all of them: standing and at speed, without and with it. None where there is no such case, or it
    is not worked out."""

    name: str
    fitted: bool
    idle: tuple[PanelState, PanelState] | None
    road: tuple[PanelState, PanelState] | None


@in_one_go
def panel_worth(build: Build) -> tuple[PanelWorth, ...]:
    """Every panel by itself, the others as they are, and all of them together."""
    package = build.package
    cases = idle_case(build.duty_cases), road_case(build.duty_cases)
    now = first_wave(build)
    found = []
    for panel in package.panels:
        other = first_wave(_with(build, {panel.id: not panel.fitted}))
        pair = (other, now) if panel.fitted else (now, other)
        found.append(_worth(panel_name(panel), panel.fitted, pair, cases))
    if len(package.panels) > 1:
        none, every = (
            first_wave(_with(build, dict.fromkeys((panel.id for panel in package.panels), fitted)))
            for fitted in (False, True)
        )
        found.append(_worth(TOGETHER, all(panel.fitted for panel in package.panels), (none, every), cases))
    return tuple(found)


def _with(build: Build, fitted: dict[str, bool]) -> Build:
    panels: tuple[Panel, ...] = tuple(
        panel.model_copy(update={"fitted": fitted.get(panel.id, panel.fitted)}) for panel in build.package.panels
    )
    return apply(build, Edit("", (Change(("packages", build.active, "panels"), panels),)))


def _worth(
    name: str, fitted: bool, pair: tuple[Assessment, Assessment], cases: tuple[DutyCase | None, DutyCase | None]
) -> PanelWorth:
    def states(case: DutyCase | None) -> tuple[PanelState, PanelState] | None:
        figures = [assessment.figures_of(case.id) if case else None for assessment in pair]
        if figures[0] is None or figures[1] is None:
            return None
        return _state(figures[0]), _state(figures[1])

    return PanelWorth(name, fitted, states(cases[0]), states(cases[1]))


def _state(figures: CaseFigures) -> PanelState:
    outlet = figures.mean if figures.verdict != "does_not_settle" else math.nan
    vents = figures.fluids.vents if figures.fluids.vents else math.nan
    return PanelState(outlet, figures.front_air, figures.bay_air, vents, figures.recirculated, figures.bypassed)
