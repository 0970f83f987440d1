"""`assess(build)`: a pure function of the build."""

from __future__ import annotations

from collections.abc import Callable
from types import ModuleType
from typing import TypeVar

from keelroom.assess.electrical.figures import electrics
from keelroom.assess.figures.assessment import Assessment, CaseAmbients, CaseFigures, CaseResult, RulesOfThumb, Totals
from keelroom.assess.figures.beliefs import beliefs_of
from keelroom.assess.figures.down import battery_down, known_already
from keelroom.assess.figures.seen import unlike_known, unlike_seen
from keelroom.assess.figures.solving import cases_of
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.inputs.cases import idle_case
from keelroom.assess.inputs.translate import stacked
from keelroom.assess.mended import judged_on
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.work.money import likely_hours
from keelroom.assess.work.shopping import parts_cost
from keelroom.core import rules
from keelroom.core.ambients import holding_ambients
from keelroom.core.kept import in_one_go
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

R = TypeVar("R")


@in_one_go
def assess(build: Build, package_id: str | None = None, previous: Assessment | None = None) -> Assessment:
    """The judgement of one package (the active one) over every duty case, whole.

    previous : an earlier assessment of a like build; the search starts there, the answer does not depend on it
    Raises nothing that a build can say, as `first_wave` does not.
    """
    return completed(build, first_wave(build, package_id, previous))


@in_one_go
def completed(build: Build, first: Assessment) -> Assessment:
    """An assessment with what takes longer: ambients that hold the limit, and the findings that tell them. Itself
    where it has them.

    Raises nothing: ambients that could not be worked out are named among what is stopped.
    """
    if first.build is not build or not first.judged:
        first = first_wave(build, first.package_id, first)
    if first.complete or first.start is None:
        return first
    driven = first.driven
    points, answer, layout = stacked(list(first.start.rows))[0], first.start.answer, first.start.rows[0].layout
    found = attempted("The highest ambients", _where(first.package), lambda: holding_ambients(points, answer, layout))
    if isinstance(found, Stopped):
        return _stopped_at(first._replace(deepened=True), found)
    told = (CaseAmbients(float(holds), float(boils)) for holds, boils in zip(*found, strict=True))
    cases = tuple(
        case._replace(figures=case.figures._replace(ambients=next(told))) if case.figures else case
        for case in first.cases
    )
    flat = attempted("A flat battery", _where(first.package), lambda: battery_down(driven, first.package, first))
    whole = first._replace(cases=cases, deepened=True)
    if isinstance(flat, Stopped):
        return _stopped_at(whole, flat)
    seen = attempted("What was seen before", _where(first.package), lambda: unlike_seen(build))
    if isinstance(seen, Stopped):
        return _stopped_at(whole._replace(down=flat), seen)
    whole = whole._replace(down=flat, unlike=seen)
    again = attempted(
        "The judgement of results", _where(first.package), lambda: _judgement().deepened(driven, first.package, whole)
    )
    return whole if isinstance(again, Stopped) else whole._replace(findings=again)


def _stopped_at(whole: Assessment, stop: Stopped) -> Assessment:
    """An assessment with a part of its second wave that was stopped, judged with that."""
    whole = whole._replace(stopped=(*whole.stopped, stop))
    return whole._replace(findings=_judgement().judge(whole.driven, whole.package, whole))


@in_one_go
def first_wave(
    build: Build, package_id: str | None = None, previous: Assessment | None = None, *, moving: bool = False
) -> Assessment:
    """The judgement as far as it can follow the typing: all but what `completed` adds.

    previous : as `assess` takes it;  moving : every figure, and the findings it had: they wait until the hand that
               drags something rests, or the first window stands
    Raises nothing that a build can say: what cannot be worked out stands in it with its reason, and everything else
    beside it. InputError for a package that is not there.
    """
    package = next((p for p in build.packages if p.id == (package_id or build.active)), None)
    if package is None:
        raise InputError("no_such_package", f"The build has no package “{package_id}”", package=package_id)
    found = attempted("The build", _where(package), lambda: _first_wave(build, package, previous, moving))
    return not_worked_out(build, package, found) if isinstance(found, Stopped) else found


def not_worked_out(build: Build, package: Package, stop: Stopped) -> Assessment:
    """What is left of a judgement where all of it stopped: the reason in every duty case, and as a finding."""
    cases = tuple(CaseResult(case.id, case.name, None, (), stop, case.counted) for case in build.duty_cases)
    nothing = RulesOfThumb(None, None, None, None), Totals(None, None, None, None, None)
    bare = Assessment(build, package.id, cases, *nothing, (), None, None, None, deepened=True, stopped=(stop,))
    return bare._replace(findings=_judgement().stops(bare))


def _first_wave(as_it_is: Build, package: Package, previous: Assessment | None, moving: bool) -> Assessment:
    build = judged_on(as_it_is, package)
    found = cases_of(build, package, (previous, moving))
    idling, where = idle_case(build.duty_cases), _where(package)
    idle = next((case.figures for case in found.results if idling and case.case_id == idling.id), None)
    limit, thermostat = build.brief.cooling.limit, package.loop.thermostat
    stopped: list[Stopped] = []

    def part(name: str, act: Callable[[], R]) -> R | None:
        got = attempted(name, where, act)
        if isinstance(got, Stopped):
            stopped.append(got)
            return None
        return got

    rules_found = part("The rules of thumb", lambda: _rules(build, package, idle))
    totals = part("The totals", lambda: _totals(build, package, idle))
    partial = Assessment(
        build=as_it_is,
        package_id=package.id,
        cases=found.results,
        rules=rules_found or RulesOfThumb(None, None, None, None),
        totals=totals or Totals(None, None, None, None, None),
        findings=(),
        limit=limit.si if limit else None,
        thermostat=thermostat.si if thermostat else None,
        boiling=min((c.figures.boiling for c in found.results if c.figures), default=None),
        start=found.start,
        idle_id=idling.id if idling else "",
        fit=part("How it fits", lambda: fit_up(build, package)),
        electrics=part("The circuits", lambda: electrics(build, package)),
        refused=found.refused,
        # The very figures of the last time have their second wave already.
        deepened=all(case.figures is None or case.figures.ambients is not None for case in found.results),
    )
    stopped += partial.electrics.stopped if partial.electrics else ()
    partial = partial._replace(stopped=(*stopped, *found.parts))
    if moving:
        return partial._replace(findings=previous.findings if previous else (), judged=False)
    beliefs = part("What is believed of its parts", lambda: beliefs_of(build, package)) or ()
    seen = part("What was seen before", lambda: (unlike_known if partial.start else unlike_seen)(as_it_is))
    if partial.deepened:
        known = part("A flat battery", lambda: known_already(previous, partial)) or (None, True)
        partial = partial._replace(down=known[0], deepened=known[1] and seen is not None)
    partial = partial._replace(beliefs=beliefs, unlike=seen or (), stopped=(*stopped, *found.parts))
    return partial._replace(findings=_judgement().judge(build, package, partial))


def _judgement() -> ModuleType:
    """The room of the judgement, entered when something is judged: the first figures are painted before."""
    from keelroom.assess.judge import judge

    return judge


def _where(package: Package) -> tuple[str, ...]:
    return ("packages", package.id)


def _rules(build: Build, package: Package, idle: CaseFigures | None) -> RulesOfThumb:
    engine, core = build.brief.engine, package.core
    area = core.face_width.si * core.face_height.si if core.face_width and core.face_height else None
    return RulesOfThumb(
        face_area=area,
        face_area_wanted=rules.face_area_wanted(engine.displacement.si) if engine.displacement else None,
        airflow=idle.airflow_fans_on if idle else None,
        airflow_wanted=rules.airflow_wanted(engine.displacement.si, engine.cylinders.si)
        if engine.displacement and engine.cylinders
        else None,
    )


def _totals(build: Build, package: Package, idle: CaseFigures | None) -> Totals:
    return Totals(
        amps_at_idle=idle.electrical_current if idle else None,
        alternator_at_idle=idle.alternator_current if idle else None,
        volts_at_idle=idle.system_voltage if idle else None,
        cost=parts_cost(build, package),
        hours=likely_hours(build, package),
    )
