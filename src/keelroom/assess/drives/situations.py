"""The situations a drive's moments stand in: each worked out once, with what the engine gives and the system does."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.moments import Moment, asked_in
from keelroom.assess.inputs.demand import Demand, demand_of
from keelroom.assess.inputs.doors import stop_at_doors
from keelroom.assess.inputs.electrical.system import Key, balance_at, battery_of
from keelroom.assess.inputs.translate import Car, PointRow, row_at, stacked
from keelroom.assess.made import made_brief
from keelroom.core.answer import WITHIN, steady_answer
from keelroom.core.arrays import Floats, take
from keelroom.core.coupling import prepare
from keelroom.core.drive.records import Legs, Stands, Supply
from keelroom.core.drive.run import has_contacts
from keelroom.core.electrical.charging import Balance, Battery, discharge_time
from keelroom.core.plant import Doubts, Fixed, Points
from keelroom.core.thermal.engine_heat import EngineHeat, engine_heat
from keelroom.document.quantity import Quantity
from keelroom.document.schema.brief import Brief
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.drive import Fails, Leg, Schedule
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

NEAR = 1.0
"""[m/s] within which moments of a changing speed share a situation; what the engine gives is its own in each."""
SLOW = 0.5
"""[m/s] the same under CRAWLS, where the road's air is little and the fans' much."""
CRAWLS = 6.0
STATES: Floats = np.linspace(0.0, 1.0, 5)
"""States of charge the electrical system is worked out at."""
THERMOSIPHON = 0.02
"""Share of its flow coolant keeps without a pump (common practice, no source)."""
TAKEN_UP = 0.95
"""Share of the charge given to a battery that is in it after (common practice, lead-acid)."""
JUDGED = 12
"""Situations a doubt is worked out in at most; the others have that of the nearest."""
WARMEST = 2.5
"""[K] within which a day that warms is one."""


class Asks(NamedTuple):
    """What makes one situation, hashable."""

    leg: int
    speed: float
    grade: float
    ambient: float | None
    alive: bool
    ac: bool
    failed: tuple[Fails, ...]


class Situations(NamedTuple):
    """Of one package and schedule: R situations as they are solved, what each is in plain numbers, the situation of
    every moment (n,), what the engine burns in it [W] with the fans running, and what it falls short by."""

    stands: Stands
    demands: tuple[Demand, ...]
    row: tuple[int, ...]
    legs: Legs
    supply: Supply
    fuel: Floats
    short: Floats
    rows: tuple[PointRow, ...]


def situations_of(
    build: Build, package: Package, car: Car, schedule: Schedule, moments: Sequence[Moment]
) -> Situations:
    """All of them. Raises KeelRoomError where one has no answer, InputError where an engine is asked past its law."""
    failed = _failed(schedule)
    asked = [_asks(moment, failed[moment.leg]) for moment in moments]
    kinds = list(dict.fromkeys(asked))
    place = {kind: k for k, kind in enumerate(kinds)}
    for kind in kinds:
        _held_to_laws(build, package, schedule, kind)
    demands = tuple(_demand(build, schedule, kind) for kind in kinds)
    rows = [
        _broken(row_at(build, package, car, demand), kind, package) for kind, demand in zip(kinds, demands, strict=True)
    ]
    points, _ = stacked(rows)
    layout = rows[0].layout
    fixed = prepare(points, layout)
    row = tuple(place[ask] for ask in asked)
    heats, fuel, short, bay = _burnt(points, fixed, moments, row)
    until = np.cumsum([moment.lasts for moment in moments])
    legs = Legs(
        until=until,
        row=np.array(row),
        pace=np.array([_pace(package, moment, failed[moment.leg]) for moment in moments]),
        more=np.ones(len(moments)),
        alive=np.array([float(moment.alive) for moment in moments]),
        forced=np.array([-1.0 if "fans" not in failed[moment.leg] else 0.0 for moment in moments]),
        switched=has_contacts(points)[list(row)],
        heater=np.array([float(moment.alive and heater_on(package, schedule.legs[moment.leg])) for moment in moments]),
        drains=np.ones(len(moments)),
        boils=fixed.boiling[list(row)],
        heats=heats,
        bay=bay,
    )
    supply = _supply(build, package, kinds, demands)
    return Situations(Stands(points, fixed, layout), demands, row, legs, supply, fuel, short, tuple(rows))


def _failed(schedule: Schedule) -> list[tuple[Fails, ...]]:
    """What has failed by each leg: it stays so."""
    found: list[tuple[Fails, ...]] = []
    gone: tuple[Fails, ...] = ()
    for leg in schedule.legs:
        gone = (*gone, leg.fails) if leg.fails and leg.fails not in gone else gone
        found.append(gone)
    return found


def _asks(moment: Moment, failed: tuple[Fails, ...]) -> Asks:
    speed, grade = moment.speed, moment.grade
    if not moment.steady:
        step = SLOW if speed < CRAWLS else NEAR
        speed = round(speed / step) * step
        grade = round(grade, 2)
    ambient = None if moment.ambient is None else round(moment.ambient / WARMEST) * WARMEST
    if moment.ambient is not None and moment.steady and moment.lasts > 60:
        ambient = moment.ambient
    return Asks(moment.leg, speed, grade, ambient, moment.alive, moment.ac, tuple(f for f in failed if f == "fan"))


def _demand(build: Build, schedule: Schedule, ask: Asks) -> Demand:
    """What a situation asks, as a duty case of it would."""
    leg = schedule.legs[ask.leg]
    brief = made_brief(build.brief)
    demand = demand_of(brief, case_of(leg, ask))
    if not ask.alive:
        return demand._replace(ac=False, in_gear=False)
    if leg.kind == "idle" and leg.rpm is not None:
        # An idle that is held up by hand is held in neutral.
        return demand._replace(in_gear=leg.in_gear and 60 * leg.rpm.si < 1.3 * _idle(brief))
    return demand


def _idle(brief: Brief) -> float:
    return 60 * brief.engine.idle_rpm.si if brief.engine.idle_rpm else 700.0


def case_of(leg: Leg, ask: Asks) -> DutyCase:
    """A moment of a leg as a duty case; where it names no day, on that of the leg or the brief."""
    stands = leg.kind in ("idle", "off") or ask.speed <= 0
    return DutyCase.model_construct(
        id=leg.id,
        speed=_plain(0.0 if stands else ask.speed),
        grade=_plain(ask.grade),
        stops_per_km=_plain(0.0),
        ambient=leg.ambient if ask.ambient is None else _plain(ask.ambient),
        **asked_in(leg, stands, ask.ac),
    )


def heater_on(package: Package, leg: Leg) -> bool:
    """Whether the cabin's heater is on in a leg, and there is one: a circuit nobody laid out is taken to have one."""
    parts = package.loop.parts
    return leg.heater_on and (not parts or any(part.kind == "heater" for part in parts))


def _plain(si: float) -> Quantity:
    return Quantity.model_construct(si=si, as_typed="", unit="", origin="derived", doubt=None)


def _broken(row: PointRow, ask: Asks, package: Package) -> PointRow:
    """The row with the fan that leads standing still, where it failed: a stopped fan is a hole."""
    if "fan" not in ask.failed:
        return row
    fans = row.points.plant.fans
    runs = fans.runs.copy()
    places = [k for k, fan in enumerate(package.fans[: len(runs)]) if fan.id == package.control.lead]
    runs[places[0] if places else 0] = 0.0
    plant = row.points.plant._replace(fans=fans._replace(runs=runs))
    return row._replace(points=row.points._replace(plant=plant))


def _pace(package: Package, moment: Moment, failed: tuple[Fails, ...]) -> float:
    """Share of its flow the coolant keeps."""
    if "pump" in failed:
        return THERMOSIPHON
    electric = package.loop.pump != "mechanical"
    return 1.0 if moment.alive or electric else THERMOSIPHON


def _burnt(
    points: Points, fixed: Fixed, moments: Sequence[Moment], row: tuple[int, ...]
) -> tuple[Floats, Floats, Floats, Floats]:
    """What the engine gives in each moment (n, 2, 6), its fuel and what it falls short by (n,) [W], and the bay's heat
    its situation's air was worked out with (n, 2)."""
    at = np.array(row)
    steady = np.array([moment.steady for moment in moments])
    alive = np.array([float(moment.alive) for moment in moments])
    heats = np.empty((len(at), 2, 6))
    bay = np.empty((len(at), 2))
    fuel = short = np.zeros(len(at))
    for k, air in enumerate((fixed.stopped, fixed.running)):
        own = take(air.heat, at)
        if not steady.all():
            own = _as_driven(points, fixed, air.power, (moments, at, steady), own)
        parts = (own.coolant, own.gearbox, own.oil, own.charge, own.charge_flow, own.bay)
        heats[:, k] = np.stack(parts, axis=1) * alive[:, None]
        bay[:, k] = air.heat.bay[at]
        fuel, short = own.fuel * alive, own.short * alive
    return heats, fuel, short, bay


def _as_driven(
    points: Points,
    fixed: Fixed,
    power: Floats,
    driven: tuple[Sequence[Moment], Floats, Floats],
    own: EngineHeat,
) -> EngineHeat:
    """The heat of moments that are sped up or slowed down: their situation's, with what the change of power adds."""
    moments, at, steady = driven
    car = take(points.plant.engine, at), take(points.plant.vehicle, at)
    drive = take(points.situation.drive, at)
    climate = points.situation.climate
    air = fixed.outdoor_density[at], fixed.air.pressure[at], climate.ambient[at]
    usual = engine_heat(car, drive, power[at], air)
    speed = np.array([moment.speed for moment in moments])
    slope = np.array([moment.slope for moment in moments])
    now = engine_heat(car, drive._replace(speed=speed, grade=slope), power[at], air)
    found = []
    for mine, was, is_now in zip(own, usual, now, strict=True):
        found.append(np.where(steady, mine, np.maximum(mine + is_now - was, 0.0)))
    return EngineHeat(*found)


def with_doubts(found: Situations, moments: Sequence[Moment], doubts: Doubts) -> Situations:
    """The same with other factors (), alike in all situations, on what is doubtful.

    Raises SolveError where an air path does not balance.
    """
    stands = found.stands
    alike = Doubts(*(np.full(len(found.demands), float(value)) for value in doubts))
    points = stands.points._replace(doubts=alike)
    fixed = prepare(points, stands.layout, stands.fixed)
    heats, fuel, short, bay = _burnt(points, fixed, moments, found.row)
    legs = found.legs._replace(heats=heats, bay=bay)
    return found._replace(stands=Stands(points, fixed, stands.layout), legs=legs, fuel=fuel, short=short)


def doubts_of(found: Situations) -> Floats:
    """What is in doubt of the heat balance as a share of the heat into the coolant, WITHIN standard doubts, (R,)."""
    rows, count = found.rows, len(found.rows)
    chosen = sorted({round(k * (count - 1) / max(JUDGED - 1, 1)) for k in range(min(JUDGED, count))})
    points, unsure = stacked([rows[k] for k in chosen])
    answer = steady_answer(points, unsure, found.stands.layout)
    share = WITHIN * answer.band.worth.together / np.maximum(answer.solution.state.heat_in, 1.0)
    nearest = np.abs(np.arange(count)[:, None] - np.array(chosen)).argmin(axis=1)
    doubt: Floats = np.minimum(share[nearest], 0.9)
    return doubt


def _supply(build: Build, package: Package, kinds: list[Asks], demands: tuple[Demand, ...]) -> Supply:
    """The electrical system of every situation at STATES of charge."""
    known: dict[object, _System] = {}
    columns = []
    for kind, demand in zip(kinds, demands, strict=True):
        key = (round(demand.rpm), demand.ac, demand.moves, kind.alive)
        if key not in known:
            known[key] = _system(build, package, demand, kind.alive)
        columns.append(known[key])
    tables = [np.array(column) for column in zip(*columns, strict=True)]
    return Supply(build.supply.capacity.si, STATES, *tables)


class _System(NamedTuple):
    """Of one situation, as `Supply` names it."""

    idle_volts: float
    blown_at: float
    volts: list[float]
    amps: list[float]
    rests: list[float]
    drained: list[float]
    rest_drained: list[float]


def _system(build: Build, package: Package, demand: Demand, alive: bool) -> _System:
    charge, battery = build.supply.state.si, battery_of(build.supply)

    def at(state: float, fans: bool, turns: bool = alive) -> Balance:
        return balance_at(build, package, demand.at, Key(state, fans, turns))

    running, resting = ([at(float(state), fans) for state in STATES] for fans in (True, False))
    turning = running if alive else [at(float(state), True, True) for state in STATES]
    return _System(
        idle_volts=at(charge, False).voltage,
        # As it is read between the states; where the engine stands the fans' air was worked out as it idles.
        blown_at=float(np.interp(charge, STATES, [one.voltage for one in turning])),
        volts=[one.voltage for one in running],
        amps=[one.battery for one in running],
        rests=[one.battery for one in resting],
        drained=[_drained(battery, one.battery) for one in running],
        rest_drained=[_drained(battery, one.battery) for one in resting],
    )


def _drained(battery: Battery, amps: float) -> float:
    """Charge a second [A] a battery loses while it takes `amps`: more than it gives where it gives much.

    Source: Peukert (1897) where it gives, SAE J537 where its reserve is known.
    """
    if amps >= 0:
        return -TAKEN_UP * amps
    return battery.capacity * 3600 / discharge_time(battery._replace(state=1.0), -amps)


def redline_broken(build: Build, demands: tuple[Demand, ...]) -> float | None:
    """The highest engine speed [rpm] asked past its redline; None where none is."""
    most = max(demand.rpm for demand in demands)
    return most if most > 60 * build.supply.redline.si else None


def _held_to_laws(build: Build, package: Package, schedule: Schedule, ask: Asks) -> None:
    """Raises InputError, its path in it, where a law the situation needs would be left: by the doors of a duty case;
    entries of the leg are named where it is they that are far out."""
    leg = schedule.legs[ask.leg]
    case = case_of(leg, ask)
    stop = stop_at_doors(build.model_copy(update={"duty_cases": (case,)}), package, case)
    if stop is not None:
        own = stop.where[:1] == ("duty_cases",)
        where = ("driving", "schedules", schedule.id, "legs", *stop.where[1:]) if own else stop.where
        raise InputError("drive_past_law", stop.why, path=where)
