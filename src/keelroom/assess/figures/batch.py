"""Many builds at once for one duty case or several: temperatures in as few solves as their array shapes allow."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from functools import partial
from typing import NamedTuple

import numpy as np

from keelroom.assess.figures.in_hand import InHand, in_hand_at
from keelroom.assess.figures.shared_out import on_all_processors
from keelroom.assess.inputs.doors import stop_at_doors
from keelroom.assess.inputs.needs import case_lacks, needs_of_car
from keelroom.assess.inputs.translate import Car, PointRow, car_of, row_of, stacked
from keelroom.assess.mended import judged_on
from keelroom.assess.outcome import Stopped, attempted
from keelroom.core.answer import Answer, at_limit, steady_answer
from keelroom.core.arrays import Floats
from keelroom.core.coupling import prepare
from keelroom.core.cycling import Settled, fans_held, settle
from keelroom.core.kept import in_one_go
from keelroom.core.loop.circuit import THERMOSTAT_SPAN
from keelroom.core.operating_point import evaluate, looked_at, solve, thermal_mass
from keelroom.document.schema.build import Build

CHUNK = 256
"""Points solved in one call: more fall out of the processor's cache."""

SHARED = 5000
"""Questions from which on it pays to start other processes."""
SHARE = 2500
"""Questions a process is given at a time, about: one that is done early takes the next."""

SENSOR_STEPS = 61
"""Outlet temperatures a sensor's reading is worked out at."""


class Asked(NamedTuple):
    """One question: a duty case of a build's active package, with a factor on the heat into the coolant."""

    build: Build
    case_id: str
    heat: float = 1.0


def row_for(asked: Asked) -> PointRow | None:
    """The operating point of a question; None where something is missing."""
    return next(rows_for([asked]))


def rows_for(asked: Iterable[Asked]) -> Iterator[PointRow | None]:
    """The operating point of each question, None where something is missing, a law would be left or no inputs can be
    made; the car is made once for all that follow each other about one build."""
    asked_of: Build | None = None
    build, package, lacks = None, None, False
    car: Car | Stopped | None = None
    for question in asked:
        if question.build is not asked_of:
            asked_of, car = question.build, None
            package = asked_of.package
            build = judged_on(asked_of, package)
            lacks = any(needs_of_car(build, package))
        assert build
        case = build.duty_case(question.case_id)
        if package is None or lacks or case_lacks(build, case) or stop_at_doors(build, package, case):
            yield None
            continue
        if car is None:
            car = attempted("", (), partial(car_of, build, package))
        row = car if isinstance(car, Stopped) else attempted("", (), partial(row_of, build, package, car, case))
        if isinstance(row, Stopped):
            yield None
            continue
        yield row if question.heat == 1.0 else row._replace(points=row.points.doubted(heat=np.array(question.heat)))


def each_batch(asked: Iterable[PointRow | None], work: Callable[[list[int], list[PointRow]], object]) -> None:
    """Do `work` for the places and rows of every batch; one row that finds no answer costs only itself: its batch is
    parted until it stands alone."""
    for places, rows in batches(asked):
        _parted(places, rows, work)


def _parted(places: list[int], rows: list[PointRow], work: Callable[[list[int], list[PointRow]], object]) -> None:
    done = attempted("", (), lambda: work(places, rows))
    if isinstance(done, Stopped) and len(rows) > 1:
        half = len(rows) // 2
        _parted(places[:half], rows[:half], work)
        _parted(places[half:], rows[half:], work)


def batches(rows: Iterable[PointRow | None]) -> Iterator[tuple[list[int], list[PointRow]]]:
    """Places and rows of alike shape, at most CHUNK together, as soon as so many are there; missing rows are passed
    over."""
    alike: dict[tuple[object, ...], tuple[list[int], list[PointRow]]] = {}
    for place, row in enumerate(rows):
        if row is None:
            continue
        places, members = alike.setdefault(row.batch, ([], []))
        places.append(place)
        members.append(row)
        if len(members) == CHUNK:
            yield alike.pop(row.batch)
    yield from alike.values()


class HeldAt(NamedTuple):
    """Where a point settles: engine-outlet temperature [degC], at the top of the swing where fans cycle (inf where it
    does not settle), shares of the fans' flow and power; where it would end did nothing boil [degC], what it comes
    from warmed up, its thermostat open [degC], and how fast: the time constant [s] by what is left over there."""

    temperature: float
    command: float
    load: float
    ends: float
    warm: float
    lag: float


def held(asked: Sequence[Asked]) -> list[HeldAt | None]:
    """Where each question settles; None where something is missing. Thousands are worked out on all of the
    processor's cores."""
    if len(asked) < SHARED:
        return _held(asked)
    return [point for part in on_all_processors(_held, by_builds(asked)) for point in part]


def by_builds(asked: Sequence[Asked]) -> list[list[Asked]]:
    """Parts of about SHARE questions; what follows each other about one build stays together."""
    parts: list[list[Asked]] = [[]]
    for question in asked:
        if len(parts[-1]) >= SHARE and question.build is not parts[-1][-1].build:
            parts.append([])
        parts[-1].append(question)
    return parts


def _held(asked: Sequence[Asked]) -> list[HeldAt | None]:
    return [heats[0] if heats else None for heats in held_at_heats(asked, (1.0,))]


@in_one_go
def held_at_heats(
    asked: Sequence[Asked], heats: tuple[float, ...], timed: bool = False
) -> list[tuple[HeldAt, ...] | None]:
    """Where each question settles with so many times its heat into the coolant, for each of `heats`; None where
    something is missing. What its air and coolant do is worked out once for all of them.

    timed : whether it counts how fast it gets there; else that is at once
    """
    found: list[tuple[HeldAt, ...] | None] = [None] * len(asked)

    def work(places: list[int], rows: list[PointRow]) -> None:
        (points, _), n, layout = stacked(rows), len(rows), rows[0].layout
        looked = looked_at(np.tile(np.arange(n), len(heats)))._replace(heat=np.repeat(heats, n))
        fixed = prepare(points, layout)
        settled = settle(points, layout, fixed, looked=looked)
        open_at = points.plant.circuit.thermostat + THERMOSTAT_SPAN
        at = np.tile(open_at, len(heats))
        left = -evaluate(points, fixed, at, layout, looked).margin if timed else np.full(len(at), np.inf)
        told = _told(settled, np.tile(thermal_mass(points), len(heats)), at, left)
        for k, place in enumerate(places):
            found[place] = tuple(told[k::n])

    each_batch(rows_for(asked), work)
    return found


def _told(settled: Settled, mass: Floats, open_at: Floats, left: Floats) -> list[HeldAt]:
    """Where points settle, one by one. mass [J/K] of each; open_at [degC] its thermostat stands open, left [W] is left
    over then"""
    solution, state = settled.solution, settled.solution.state
    past = state.temperature - state.margin / np.maximum(solution.slope, 1e-3)
    ends = np.where(solution.settles, settled.top, past)
    top = np.where(solution.settles, settled.top, np.inf)
    warm = np.minimum(open_at, ends)
    lag = mass * (ends - warm) / np.maximum(left, 1.0)
    return [HeldAt(*map(float, one)) for one in zip(top, state.command, state.load, ends, warm, lag, strict=True)]


@in_one_go
def readings_at(asked: Sequence[Asked], outlet: float, share: float) -> list[float | None]:
    """What each question's sensor reads [degC] at an engine outlet [degC], the fans held at a share of full; None where
    something is missing."""
    found: list[float | None] = [None] * len(asked)

    def work(places: list[int], rows: list[PointRow]) -> None:
        points, _ = stacked(rows)
        fixed = prepare(points, rows[0].layout)
        held_at = fans_held(len(rows), share)
        seen = evaluate(points, fixed, np.full(len(rows), outlet), rows[0].layout, held_at).reading
        for k, place in enumerate(places):
            found[place] = float(seen[k])

    each_batch(rows_for(asked), work)
    return found


@in_one_go
def outlets_at(
    asked: Sequence[Asked], readings: Sequence[Sequence[float]], between: tuple[float, float]
) -> list[tuple[float, ...] | None]:
    """Engine-outlet temperatures [degC] at which each question's sensor gives its readings, nan where none between
    two temperatures does.

    readings : per question, as many as wanted;  between : lowest and highest outlet temperature looked at
    """
    grid = np.linspace(*between, SENSOR_STEPS)
    found: list[tuple[float, ...] | None] = [None] * len(asked)

    def work(places: list[int], rows: list[PointRow]) -> None:
        points, _ = stacked(rows)
        fixed = prepare(points, rows[0].layout)
        n = len(rows)
        every = looked_at(np.repeat(np.arange(n), SENSOR_STEPS))
        seen = evaluate(points, fixed, np.tile(grid, n), rows[0].layout, every).reading.reshape(n, SENSOR_STEPS)
        for k, place in enumerate(places):
            wanted = np.array(readings[place])
            outlets = np.interp(wanted, np.maximum.accumulate(seen[k]), grid)
            inside = (wanted >= seen[k][0]) & (wanted <= seen[k][-1])
            found[place] = tuple(float(v) for v in np.where(inside, outlets, np.nan))

    each_batch(rows_for(asked), work)
    return found


@in_one_go
def temperatures(asked: Sequence[Asked], share: float = 1.0) -> list[float | None]:
    """Engine-outlet temperature [degC] per question with every fan held on, or at a share of full, inf where none
    settles under boiling, None where something is missing.

    What ways are told apart by: a switch's hysteresis and the top of its swing are not in it.
    """
    found: list[float | None] = [None] * len(asked)

    def work(places: list[int], rows: list[PointRow]) -> None:
        points, _ = stacked(rows)
        fixed = prepare(points, rows[0].layout)
        solution = solve(points, rows[0].layout, fixed, held=fans_held(len(rows), share))
        stays = solution.settles & (solution.state.temperature <= fixed.boiling)
        for k, place in enumerate(places):
            found[place] = float(solution.state.temperature[k]) if stays[k] else float("inf")

    each_batch(rows_for(asked), work)
    return found


@in_one_go
def in_hand(asked: Sequence[Asked]) -> list[InHand | None]:
    """What each question has in hand; None where something is missing. Source: rejection goes with the outlet less the
    weather, near enough for what acts are told apart by."""
    found: list[InHand | None] = [None] * len(asked)

    def work(places: list[int], rows: list[PointRow]) -> None:
        points, _ = stacked(rows)
        told = at_limit(points, rows[0].layout)
        for k, place in enumerate(places):
            found[place] = in_hand_at(points, told, k)

    each_batch(rows_for(asked), work)
    return found


@in_one_go
def answers(rows: Sequence[PointRow | None]) -> list[tuple[Answer, int] | None]:
    """The whole steady answer and the place in it per row; None where a row is missing."""
    found: list[tuple[Answer, int] | None] = [None] * len(rows)

    def work(places: list[int], members: list[PointRow]) -> None:
        points, doubt = stacked(members)
        answer = steady_answer(points, doubt, members[0].layout)
        for at, place in enumerate(places):
            found[place] = (answer, at)

    each_batch(rows, work)
    return found
