"""The duty cases of a package: worked out together, each with its figures, with what it needs, or with what stopped it.

What cannot be worked out costs only itself. A case whose inputs cannot be made is left out; where all the others
together find no answer, each is tried by itself, and those that find one are worked out together without the rest.
"""

from __future__ import annotations

from functools import partial
from typing import NamedTuple

from keelroom.assess.figures.assessment import Assessment, CaseFigures, CaseResult, Start
from keelroom.assess.figures.casefigures import case_figures
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.doors import oddest, stop_at_doors
from keelroom.assess.inputs.electrical.system import System, system_at
from keelroom.assess.inputs.needs import needs_of
from keelroom.assess.inputs.translate import Car, PointRow, car_of, row_of, stacked
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.reads import reads, sections
from keelroom.core.answer import following, steady_answer
from keelroom.core.arrays import same
from keelroom.core.plant import Points
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.package import Package

Refused = tuple[tuple[PointRow, Stopped], ...]


class Cases(NamedTuple):
    """Every duty case as it stands, where the next assessment may begin, and the points that found no answer."""

    results: tuple[CaseResult, ...]
    start: Start | None
    refused: Refused
    parts: tuple[Stopped, ...]
    """coolers that stand in the cases without their own air"""


class _Point(NamedTuple):
    case: DutyCase
    row: PointRow


def cases_of(build: Build, package: Package, before: tuple[Assessment | None, bool]) -> Cases:
    """All duty cases of a package. before: the previous assessment, and whether something moves. Raises nothing."""
    needs = {
        case.id: attempted(_named(case), _where(case), partial(needs_of, build, package, case))
        for case in build.duty_cases
    }
    stopped = {ident: found for ident, found in needs.items() if isinstance(found, Stopped)}
    ready = [case for case in build.duty_cases if not needs[case.id]]
    points, no_inputs = _points(build, package, ready)
    previous = before[0]
    known = {id(row): stop for row, stop in previous.refused} if previous else {}
    refused = {point.case.id: (point.row, known[id(point.row)]) for point in points if id(point.row) in known}
    open_now = [point for point in points if point.case.id not in refused]
    solved = attempted("", (), lambda: _solved(build, package, open_now, before))
    if isinstance(solved, Stopped):
        refused |= _refusing(build, package, open_now)
        open_now = [point for point in open_now if point.case.id not in refused]
        solved = attempted("", (), lambda: _solved(build, package, open_now, (None, False)))
    if isinstance(solved, Stopped):  # each by itself finds an answer, all together do not
        refused |= {point.case.id: (point.row, _told(build, package, point.case, solved)) for point in open_now}
        solved = ({}, None)
    figures, start = solved
    stopped |= no_inputs | {ident: stop for ident, (_, stop) in refused.items()}
    results = tuple(
        CaseResult(case.id, case.name, figures.get(case.id), _needs(needs[case.id]), stopped.get(case.id), case.counted)
        for case in build.duty_cases
    )
    if previous and _alike(previous.cases, results):
        results = previous.cases
    parts = {stop.part: _placed(package, stop) for point in points for stop in point.row.stopped}
    return Cases(results, start, tuple(refused.values()), tuple(parts.values()))


def _alike(was: tuple[CaseResult, ...], now: tuple[CaseResult, ...]) -> bool:
    """Whether all cases stand as they did, with the very figures."""
    return len(was) == len(now) and all(
        a.figures is b.figures and a._replace(figures=None) == b._replace(figures=None)
        for a, b in zip(was, now, strict=True)
    )


def _placed(package: Package, stop: Stopped) -> Stopped:
    """A cooler's stop at its own package, with what the cases make of it."""
    path = ("packages", package.id, *stop.where)
    return stop._replace(where=path, why=f"{stop.why.rstrip('.')}. The duty cases stand as if no air went through it")


def _named(case: DutyCase) -> str:
    return f"“{case.name or case.id}”"


def _where(case: DutyCase) -> tuple[str, ...]:
    return ("duty_cases", case.id)


def _needs(found: object) -> tuple:  # type: ignore[type-arg]
    return found if type(found) is tuple else ()


def _points(build: Build, package: Package, ready: list[DutyCase]) -> tuple[list[_Point], dict[str, Stopped]]:
    """Inputs of the cases that lack nothing, and what stopped those whose inputs cannot be made."""
    if not ready:
        return [], {}
    name = f"the package “{package.name or package.id}”"
    car = attempted(name, ("packages", package.id), lambda: car_of(build, package))
    points, stopped = [], {}
    for case in ready:
        found = _point(build, package, car, case)
        if isinstance(found, Stopped):
            stopped[case.id] = found
        else:
            points.append(found)
    return points, stopped


def _point(build: Build, package: Package, car: Car | Stopped, case: DutyCase) -> _Point | Stopped:
    stop = attempted(_named(case), _where(case), lambda: stop_at_doors(build, package, case))
    if stop is not None:
        return stop._replace(part=_named(case))
    if isinstance(car, Stopped):
        return _told(build, package, case, car)
    row = attempted(_named(case), _where(case), lambda: row_of(build, package, car, case))
    return _told(build, package, case, row) if isinstance(row, Stopped) else _Point(case, row)


def _refusing(build: Build, package: Package, points: list[_Point]) -> dict[str, tuple[PointRow, Stopped]]:
    """Those of the points that find no answer by themselves."""
    found = {}
    for point in points:
        alone = attempted("", (), partial(_solved, build, package, [point], (None, False)))
        if isinstance(alone, Stopped):
            found[point.case.id] = (point.row, _told(build, package, point.case, alone))
    return found


def _told(build: Build, package: Package, case: DutyCase, stop: Stopped) -> Stopped:
    """What stopped a case, at the entry that is farthest from usual: it is the likeliest cause."""
    found = attempted("", (), lambda: oddest(build, package, case))
    odd = None if isinstance(found, Stopped) else found
    return stop._replace(part=_named(case), where=odd or stop.where or _where(case))


def _solved(
    build: Build, package: Package, points: list[_Point], before: tuple[Assessment | None, bool]
) -> tuple[dict[str, CaseFigures], Start | None]:
    """Figures by duty case, and where the next assessment begins. The very rows of the last time have its figures, rows
    of the same values its answer: another name or place asks for no other air.

    Raises SolveError where a point that has a solution was not found; never returns an unconverged figure.
    """
    rows, cases = [point.row for point in points], [point.case for point in points]
    if not rows:
        return {}, None
    previous, moving = before
    last = previous.start if previous else None
    the_same = last is not None and (moving or not last.followed) and _asks_the_same(last.rows, rows)
    if previous and last and the_same and _reads_the_same(previous, build, package, cases):
        figures = (case.figures for case in previous.cases if case.figures)
        return {case.id: found for case, found in zip(cases, figures, strict=True)}, last._replace(rows=tuple(rows))
    stack, doubt = stacked(rows)
    key = (rows[0].batch, stack.plant.network.incidence.shape)
    alike = last.answer if last and last.key == key else None
    followed = alike if moving else None
    if last and the_same and not last.followed:
        answer, followed = last.answer, None
    elif followed:
        answer = following(stack, rows[0].layout, followed)
    else:
        answer = steady_answer(stack, doubt, rows[0].layout, alike)
    made = case_figures(build, package, cases, stack, answer)
    return {case.id: found for case, found in zip(cases, made, strict=True)}, Start(
        key, answer, tuple(rows), followed is not None
    )


def _asks_the_same(last: tuple[PointRow, ...], rows: list[PointRow]) -> bool:
    """Whether these rows hold the very values of the last, whatever they were made of."""
    known: dict[tuple[int, int], bool] = {}

    def alike(was: Points, now: Points) -> bool:
        # The rows of a package share its plant: it is looked at once.
        for a, b in zip(was, now, strict=True):
            pair = id(a), id(b)
            if pair not in known:
                known[pair] = a is b or same(a, b)
            if not known[pair]:
                return False
        return True

    return len(last) == len(rows) and all(
        was is now or (was.batch == now.batch and same(was.unsure, now.unsure) and alike(was.points, now.points))
        for was, now in zip(last, rows, strict=True)
    )


def _reads_the_same(previous: Assessment, build: Build, package: Package, cases: list[DutyCase]) -> bool:
    """Whether all that figures are read off beside their points is what it was: names and heights with the sections
    they stand in, and what feeds and loads the circuits by what comes of it."""
    was = previous.package
    if was.id != package.id or any(
        a is not b for a, b in zip(sections(READ, previous.build, was), sections(READ, build, package), strict=True)
    ):
        return False
    return all(
        _system(previous.build, was, before) == _system(build, package, case)
        for before, case in zip(previous.build.duty_cases, cases, strict=False)
    )


def _system(build: Build, package: Package, case: DutyCase) -> System:
    return system_at(build, package, demand_of(build.brief, case).at)


READ = reads(
    "brief.accessories brief.climate brief.cooling brief.engine brief.vehicle build.survey made.core made.fans "
    "package.coolant package.coolers package.cuts package.kind package.loop package.panels package.place "
    "package.remote package.sealing package.shroud"
)
"""What figures are read off beside their points and the circuits."""
