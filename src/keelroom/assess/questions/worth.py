"""What each thing is worth for this build: every usual act tried, its change at idle and on the grade, sorted."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from keelroom.assess.electrical.figures import electrics
from keelroom.assess.electrical.planner import mended
from keelroom.assess.fit.panel_edits import closing
from keelroom.assess.inputs.cases import grade_case, idle_case
from keelroom.assess.inputs.doors import stop_at_doors
from keelroom.assess.placing import cuts_for, hidden_strips
from keelroom.assess.questions.batch import Asked, temperatures
from keelroom.core.kept import in_one_go
from keelroom.core.thermal.engine_laws import LAWS
from keelroom.document.edits import Change, Edit, apply, fresh_id
from keelroom.document.quantity import Quantity, from_si, quantity
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import Edge
from keelroom.errors import InputError

INCH = 0.0254
SEATED_GAP = quantity("1/32 in", "length")
NOTHING_MOVES = 0.3
"""Kelvin under which a change is worth nothing: it would not show on a gauge."""


class Act(NamedTuple):
    """Something a builder could do. `changes` gives its changes for a build, () where it is done already or does not apply."""

    code: str
    label: str
    changes: Callable[[Build, Package, tuple[str, ...]], tuple[Change, ...]]


class Worth(NamedTuple):
    """What one act changes [K], at idle and on the grade: as computed, and least and most over the band of the heat.

    Not a number where the case does not settle before or after; `cures` where it settles only after.
    """

    code: str
    label: str
    edit: Edit
    idle: tuple[float, float, float]
    grade: tuple[float, float, float]
    cures: bool

    @property
    def nothing(self) -> bool:
        """Whether it would not show on a gauge in either case."""
        middle = [v for v in (self.idle[0], self.grade[0]) if not math.isnan(v)]
        return not self.cures and all(abs(v) < NOTHING_MOVES for v in middle)


def _set(path: tuple[str, ...], text: str, kind: str) -> Change:
    return Change(path, quantity(text, kind))


def _full_shroud(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    return (Change((*where, "shroud", "kind"), "full"),) if package.fans and package.shroud.kind != "full" else ()


def _gap(field: tuple[str, str], target: Quantity) -> Callable[[Build, Package, tuple[str, ...]], tuple[Change, ...]]:
    def changes(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
        present: Quantity = getattr(getattr(package, field[0]), field[1])
        shrouded = package.shroud.kind != "none" and bool(package.fans)
        return (Change((*where, *field), target),) if shrouded and present.si > target.si + 1e-6 else ()

    return changes


def _closed(*edges: Edge) -> Callable[[Build, Package, tuple[str, ...]], tuple[Change, ...]]:
    return lambda build, package, _where: closing(package, build.survey.air_holes, edges)


def _flaps(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    if package.shroud.kind == "none" or not package.fans or package.shroud.flap_area.si > 0:
        return ()
    return (_set((*where, "shroud", "flap_area"), "70 in²", "area"),)


def _second_fan(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    """Another fan like the first, both spread over the face, where they fit side by side."""
    width = package.core.face_width
    if not package.fans or width is None or package.fans[0].diameter is None:
        return ()
    count = len(package.fans) + 1
    if count * package.fans[0].diameter.si > width.si + 0.5 * INCH or count > 4:
        return ()
    another = package.fans[0].model_copy(update={"id": fresh_id(package.fans, "fan")})
    spread = tuple(
        fan.model_copy(update={"x": from_si(width.si * (2 * i + 1) / (2 * count), "length", "us", "derived")})
        for i, fan in enumerate((*package.fans, another))
    )
    return (Change((*where, "fans"), spread),)


def _deeper(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    core = package.core
    if core.depth is None or core.rows is None or core.rows.si >= 6:
        return ()
    rows = core.rows.si + 1
    depth = core.depth.si * rows / core.rows.si
    return (
        Change((*where, "core", "rows"), quantity(f"{rows:.0f}", "count")),
        Change((*where, "core", "depth"), from_si(min(depth, 0.25), "length", "us", "derived")),
    )


def _denser(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    fins = package.core.fin_density
    return (Change((*where, "core", "fin_density"), from_si(fins.si + 2 / INCH, "fin density", "us", "derived")),) if fins else ()


def _copper(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    if package.core.material == "copper_brass" or package.core.fin_density is None:
        return ()
    fins = from_si(max(package.core.fin_density.si, 16 / INCH), "fin density", "us", "derived")
    return (
        Change((*where, "core", "material"), "copper_brass"),
        Change((*where, "core", "fin_density"), fins),
        _set((*where, "core", "fin_height"), "6.5 mm", "length"),
    )


def _clean_core(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    return (Change((*where, "core", "condition"), "clean"),) if package.core.condition != "clean" else ()


def _pulley(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    ratio = package.loop.pulley_ratio
    if package.loop.pump == "electric" or ratio is None:
        return ()
    return (Change((*where, "loop", "pulley_ratio"), quantity(f"{min(1.2 * ratio.si, 3):.2f}", "number")),)


def _thermostat(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    present = package.loop.thermostat
    if present is None or present.si < 75:
        return ()
    return (Change((*where, "loop", "thermostat"), from_si(present.si - 8.0, "temperature", "us", "derived")),)


def _water(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    share = package.coolant.glycol_share
    return (_set((*where, "coolant", "glycol_share"), "30 %", "share"),) if share and share.si > 0.31 else ()


def _cut(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    strips = hidden_strips(build.survey, package)
    return (Change((*where, "cuts"), (*package.cuts, *cuts_for(package.cuts, strips, "us"))),) if strips else ()


def _wire(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    """Every circuit that loses more than its limit as advised."""
    over = [one for one in electrics(build, package).circuits if one.motors and one.drop > build.supply.drop_limit.si]
    return tuple(change for figures in over for change in mended(package, figures, build.supply))


def _divide(build: Build, package: Package, where: tuple[str, ...]) -> tuple[Change, ...]:
    shared = package.shroud.plenum == "shared" and package.shroud.kind != "none" and len(package.fans) > 1
    return (Change((*where, "shroud", "plenum"), "divided"),) if shared and any(not fan.runs for fan in package.fans) else ()


ACTS = (
    Act("full_shroud", "Full shroud", _full_shroud),
    Act("seat", "Trim the shroud until it seats on the core", _gap(("shroud", "edge_gap"), SEATED_GAP)),
    Act("edge_seal", "Seal the shroud's edge with foam or split hose", _gap(("shroud", "edge_gap"), quantity("0 in", "length"))),
    Act("side_seals", "Side strips between core and supports", _closed("left", "right")),
    Act("top_panel", "Panels over and under core and condenser", _closed("bottom", "top")),
    Act("flaps", "Flaps in the shroud, 70 in²", _flaps),
    Act("divide", "Divide the shroud between the fans", _divide),
    Act("second_fan", "One more fan of the same kind", _second_fan),
    Act("wire", "Wire that keeps within its drop", _wire),
    Act("deeper", "One more tube row, core that much deeper", _deeper),
    Act("denser", "Two more fins per inch", _denser),
    Act("copper", "Re-core in copper/brass with a denser core", _copper),
    Act("clean", "Clean the core inside", _clean_core),
    Act("pulley", "Pump 20 % faster by its pulley", _pulley),
    Act("thermostat", "Thermostat 14 °F (8 K) cooler", _thermostat),
    Act("water", "More water in the coolant (30 % glycol)", _water),
    Act("cut", "Cut the panel clear of the face", _cut),
)


def telling_cases(build: Build) -> tuple[DutyCase | None, DutyCase | None]:
    """The case that stands for idle, and the one that stands for the grade, as far as no law is left there."""
    told = (idle_case(build.duty_cases), grade_case(build.duty_cases))
    idle, grade = (case if case and stop_at_doors(build, build.package, case) is None else None for case in told)
    return idle, grade


@in_one_go
def worth_table(build: Build) -> tuple[Worth, ...]:
    """Every act that applies, with what it changes, the largest gain first and what is worth nothing last.

    None where neither case is worked out: nothing is worth nothing then.
    """
    idle, grade = telling_cases(build)
    where = ("packages", build.active)
    tried: list[tuple[Act, Edit, Build]] = []
    for act in ACTS:
        try:
            edit = Edit(act.label, act.changes(build, build.package, where))
            if edit.changes:
                tried.append((act, edit, apply(build, edit)))
        except InputError:
            continue  # what no field allows is nothing to offer
    cases = [case for case in (idle, grade) if case is not None]
    doubt = float(LAWS[build.brief.engine.kind].doubt)
    factors = (1.0, 1 - doubt, 1 + doubt)
    builds = [build, *(changed for _, _, changed in tried)]
    found = temperatures([Asked(b, case.id, heat) for b in builds for case in cases for heat in factors])
    width = len(cases) * len(factors)
    table = [_Settled(found[i * width : (i + 1) * width], [case.id for case in cases]) for i in range(len(builds))]
    before = table[0]
    if all(temperature is None for temperature in found[:width]):
        return ()
    worths = [
        Worth(act.code, act.label, edit, after.change(before, idle), after.change(before, grade), after.cures(before))
        for (act, edit, _), after in zip(tried, table[1:], strict=True)
    ]
    return tuple(sorted(worths, key=_rank))


def _rank(worth: Worth) -> tuple[bool, bool, float]:
    gains = [v for v in (worth.idle[0], worth.grade[0]) if not math.isnan(v)]
    return (worth.nothing, not worth.cures, min(gains, default=0.0) + 1e-3 * sum(gains))


class _Settled:
    """Temperatures of one build: per case at the likely, the low and the high heat."""

    def __init__(self, found: list[float | None], cases: list[str]) -> None:
        self.by_case = {case: found[3 * k : 3 * k + 3] for k, case in enumerate(cases)}

    def change(self, before: _Settled, case: DutyCase | None) -> tuple[float, float, float]:
        """Change at the likely heat, and least and most over the band [K]; nan where either does not settle."""
        pairs = zip(self.by_case[case.id], before.by_case[case.id], strict=True) if case else ()
        steps = [a - b for a, b in pairs if a is not None and b is not None and math.isfinite(a) and math.isfinite(b)]
        if len(steps) < 3:
            likely = self._likely(before, case)
            return (likely, likely, likely)
        return (steps[0], min(steps), max(steps))

    def _likely(self, before: _Settled, case: DutyCase | None) -> float:
        a, b = (s.by_case[case.id][0] if case else None for s in (self, before))
        return a - b if a is not None and b is not None and math.isfinite(a) and math.isfinite(b) else math.nan

    def cures(self, before: _Settled) -> bool:
        """Whether some case settles only with the act."""
        return any(
            now[0] is not None and math.isfinite(now[0]) and was[0] is not None and not math.isfinite(was[0])
            for now, was in zip(self.by_case.values(), before.by_case.values(), strict=True)
        )
