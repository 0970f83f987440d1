"""A package driven through a schedule: the run with its band, and what it says."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.moments import Moment, moments_of
from keelroom.assess.drives.situations import (
    THERMOSIPHON,
    Situations,
    doubts_of,
    redline_broken,
    situations_of,
    with_doubts,
)
from keelroom.assess.drives.stores import lumps_of
from keelroom.assess.inputs.electrical.system import cells_of
from keelroom.assess.inputs.needs import needs_of_car
from keelroom.assess.inputs.translate import car_of
from keelroom.assess.mended import judged_on
from keelroom.assess.outcome import Stopped, attempted
from keelroom.core.answer import LEAST_HEAT
from keelroom.core.arrays import Floats, take
from keelroom.core.drive import figures, places
from keelroom.core.drive.figures import Creep, Cycling, Peak
from keelroom.core.drive.lumps import Lumps
from keelroom.core.drive.records import Legs, Run, Start, told
from keelroom.core.drive.run import drive, level
from keelroom.core.kept import in_one_go
from keelroom.core.plant import CEILING, Doubts
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Schedule
from keelroom.document.schema.electrical import Control
from keelroom.document.schema.package import Package

SETTLES, ROUGHLY = 1200.0, 0.05
"""[s] a drive's first leg is held before it begins where it begins as that leg settles, and how closely: what comes
before leaves its warmth, not its moments."""
WARM_OVER = 2.0
"""[K] over the thermostat's opening a warm engine is taken at."""
FLAT_BATTERY = 0.02
"""State of charge a battery counts as flat at."""
NEARLY = 1e-3
"""[K] under boiling at which it boils."""
SHORT = 500.0
"""[W] of brake power that lack before it is told."""
LOW_VOLTS = 0.79
"""Of the nominal 12 V times cells: under it relays drop out and engines cut out (common practice: 9.5 V)."""


class Mark(NamedTuple):
    """Something that happens at a moment: its code, when [s], and a figure of it (temperature [degC], volts, rpm)."""

    code: str
    at: float
    value: float


class KeyOff(NamedTuple):
    """After the key was turned off at `at` [s]: what the outlet read then and its highest after [degC], how long to
    that and until it was back [s], inf where it was not."""

    at: float
    was: float
    peak: float
    after: float
    back: float


class Says(NamedTuple):
    """What a drive says.

    peak : of the coolant at the engine's outlet [degC];  ends : at its end;  creep [K/s] there
    limit_at [s], inf where the limit is never passed;  over [s] the limit
    fans, warm_up [s] until the thermostat's full opening less 2 K, inf;  key_off, the first
    volts : the lowest;  charge : of the battery used, as a share;  fuel [J];  gearbox, oil : their highest [degC]
    metres : the way;  off_charge [A s] : what the battery gave with the key off
    """

    peak: Peak
    ends: float
    creep: Creep
    limit_at: float
    over: float
    fans: Cycling
    warm_up: float
    key_off: KeyOff | None
    volts: Peak
    charge: float
    fuel: float
    gearbox: float
    oil: float
    metres: float
    off_charge: float
    marks: tuple[Mark, ...]


class Driven(NamedTuple):
    """One package through one schedule. low, high : the run with the doubt of its heat for it and against it

    until (n,) [s] : end of every moment;  boiling (n,) [degC] there;  limit, thermostat [degC]
    charge : of the battery at the start, 0..1;  capacity [A s]
    """

    package_id: str
    schedule_id: str
    run: Run
    low: Run | None
    high: Run | None
    moments: tuple[Moment, ...]
    until: Floats
    boiling: Floats
    limit: float
    thermostat: float
    says: Says
    charge: float
    capacity: float

    @property
    def lasts(self) -> float:
        """What it was to last [s]."""
        return float(self.until[-1])

    @property
    def ended(self) -> bool:
        """Whether it came to its end; else it boiled before."""
        return not any(mark.code == "boils" for mark in self.says.marks)


class Prepared(NamedTuple):
    """What a drive of a package is made of, before it is run."""

    build: Build
    package: Package
    schedule: Schedule
    moments: tuple[Moment, ...]
    situations: Situations
    lumps: Lumps


def lacks(build: Build, package: Package) -> bool:
    """Whether anything of the car is missing that a drive needs."""
    return any(needs_of_car(judged_on(build, package), package))


def drive_of(build: Build, package: Package, schedule: Schedule, bands: bool = True) -> Driven | Stopped:
    """The package through the schedule, or why it cannot be driven. Call only where nothing is lacking."""
    name = f"The drive “{schedule.name or schedule.id}”"
    return attempted(name, ("driving", "schedules", schedule.id), lambda: _driven(build, package, schedule, bands))


@in_one_go
def _driven(build: Build, package: Package, schedule: Schedule, bands: bool) -> Driven:
    made = prepared(build, package, schedule)
    return run_of(made, bands)


def prepared(build: Build, package: Package, schedule: Schedule) -> Prepared:
    """Everything of a drive but its runs. Raises KeelRoomError where it cannot be driven."""
    judged = judged_on(build, package)
    moments = _run_on(moments_of(judged, schedule), package.control)
    found = situations_of(judged, package, car_of(judged, package), schedule, moments)
    forced, pace = found.legs.forced.copy(), found.legs.pace.copy()
    for k, moment in enumerate(moments):
        if not moment.alive and not _runs_on(moments, k, package.control):
            # An electric pump runs on with the fans, and stops with them.
            forced[k], pace[k] = 0.0, THERMOSIPHON
    found = found._replace(legs=found.legs._replace(forced=forced, pace=pace))
    return Prepared(judged, package, schedule, moments, found, lumps_of(judged, package))


def _run_on(moments: tuple[Moment, ...], control: Control) -> tuple[Moment, ...]:
    """The moments with those after a key-off parted where the fans' run-on ends."""
    if control.coil == "always" or control.run_on.si <= 0:
        return moments
    found: list[Moment] = []
    gone = 0.0
    for moment in moments:
        if moment.alive or gone >= control.run_on.si or gone + moment.lasts <= control.run_on.si:
            found.append(moment)
        else:
            first = control.run_on.si - gone
            found += [moment._replace(lasts=first), moment._replace(lasts=moment.lasts - first)]
        gone = 0.0 if moment.alive else gone + moment.lasts
    return tuple(found)


def _runs_on(moments: tuple[Moment, ...], place: int, control: Control) -> bool:
    """Whether the fans' control still has power in a moment with the key off."""
    if control.coil == "always":
        return True
    gone, k = 0.0, place - 1
    while k >= 0 and not moments[k].alive:
        gone += moments[k].lasts
        k -= 1
    return gone + 1e-6 < control.run_on.si


def run_of(made: Prepared, bands: bool) -> Driven:
    """Its runs, and what they say. Raises SolveError where a state comes up that is none."""
    found = made.situations
    as_is = np.zeros(len(found.demands))
    run = _run(made, _start(made, as_is), as_is)
    low, high = doubtful_runs(made) if bands else (None, None)
    boiling = found.stands.fixed.boiling[list(found.row)]
    limit, thermostat = (
        float(found.stands.points.plant.limit[0]),
        float(found.stands.points.plant.circuit.thermostat[0]),
    )
    charge = made.build.supply.state.si
    return Driven(
        package_id=made.package.id,
        schedule_id=made.schedule.id,
        run=run,
        low=low,
        high=high,
        moments=made.moments,
        until=found.legs.until,
        boiling=boiling,
        limit=limit,
        thermostat=thermostat,
        says=_says(made, run, (boiling, limit, thermostat)),
        charge=charge,
        capacity=made.build.supply.capacity.si,
    )


def doubtful_runs(made: Prepared) -> tuple[Run, Run]:
    """Its runs with the doubt of its heat for it and against it. Raises SolveError as `run_of` does."""
    doubt = doubts_of(made.situations)
    low, high = (_run(made, _start(made, off), off) for off in (-doubt, doubt))
    return low, high


def run_with(made: Prepared, doubts: Doubts, finer: float = 1.0) -> tuple[Prepared, Run]:
    """A prepared drive run with other factors () on what is doubtful, and as much finer. Raises SolveError as `run_of`
    does."""
    made = made._replace(situations=with_doubts(made.situations, made.moments, doubts))
    as_is = np.zeros(len(made.situations.demands))
    return made, _run(made, _start(made, as_is), as_is, None, finer)


def _run(made: Prepared, start: Start, off: Floats, legs: Legs | None = None, finer: float = 1.0) -> Run:
    """off (R,) : share by which the heat of each situation is more than likely."""
    found = made.situations
    legs = legs or found.legs
    legs = legs._replace(more=np.maximum(1 + off[legs.row], LEAST_HEAT))
    return drive(found.stands, made.lumps, legs, found.supply, start, finer)


def _start(made: Prepared, off: Floats) -> Start:
    """Where it begins: as its first leg settles, warm, or cold."""
    found, charge = made.situations, made.build.supply.state.si
    climate, circuit = found.stands.points.situation.climate, found.stands.points.plant.circuit
    ambient = float(climate.ambient[found.row[0]])
    if made.schedule.begins == "cold":
        return level(ambient, ambient, charge)
    warm = level(float(circuit.thermostat[0]) + WARM_OVER, ambient, charge)
    if made.schedule.begins == "warm" or not made.moments[0].alive:
        return warm
    # What comes first is held long enough, the battery as it is: of its first leg what lasts longest at one speed.
    early = [k for k, moment in enumerate(made.moments) if moment.leg == made.moments[0].leg]
    longest = max(early, key=lambda k: (made.moments[k].steady, made.moments[k].lasts))
    held = take(found.legs, np.s_[longest : longest + 1])._replace(
        until=np.array([SETTLES]), drains=np.zeros(1), boils=np.full(1, CEILING)
    )
    run = _run(made, warm, off, held, ROUGHLY)
    state = run.states[-1].copy()
    for place in (places.CHARGE, places.GIVEN, places.TAKEN, places.UPPER, places.LOWER, places.PASSED):
        state[place] = 0.0
    return run.last._replace(state=state, charge=charge)


def _says(made: Prepared, run: Run, marks: tuple[Floats, float, float]) -> Says:
    boiling, limit, thermostat = marks
    time, outlet = run.time, run.outlet
    legs = made.situations.legs
    alive = legs.alive[told(run, "leg").astype(int)]
    ends = float(outlet[-1])
    volts = told(run, "volts")
    low = int(np.argmin(volts))
    spans = np.diff(np.concatenate([[0.0], legs.until]))
    charge = run.of(places.CHARGE)
    return Says(
        peak=figures.peak(time, outlet),
        ends=ends,
        creep=figures.creep(time, outlet, min(_last_leg(made), float(time[-1]))),
        limit_at=figures.crossing(time, outlet, limit),
        over=figures.time_over(time, outlet, limit),
        fans=figures.fan_cycles(time, run.share),
        warm_up=figures.crossing(time, outlet, thermostat),
        key_off=_key_off(time, outlet, alive),
        volts=Peak(float(volts[low]), float(time[low])),
        charge=float(charge.max() - charge[0]) / made.situations.supply.capacity,
        fuel=float((made.situations.fuel * spans).sum()),
        gearbox=float(run.of(places.GEARBOX).max()),
        oil=float(run.of(places.OIL).max()),
        metres=float(sum(moment.speed * moment.lasts for moment in made.moments)),
        off_charge=0.0 + max(-figures.integral(time, np.where(alive > 0, 0.0, told(run, "amps"))), 0.0),
        marks=tuple(sorted(_marks(made, run, boiling, limit), key=lambda mark: mark.at)),
    )


def _last_leg(made: Prepared) -> float:
    """When the last leg begins [s]."""
    last = made.moments[-1].leg
    first = next(k for k, moment in enumerate(made.moments) if moment.leg == last)
    return float(made.situations.legs.until[first - 1]) if first else 0.0


def _key_off(time: Floats, outlet: Floats, alive: Floats) -> KeyOff | None:
    """What follows the first time the key is turned off, until it is turned on again."""
    off = np.flatnonzero(alive <= 0)
    if not len(off) or off[0] == 0:
        return None
    first = int(off[0])
    on = np.flatnonzero(alive[first:] > 0)
    last = first + int(on[0]) if len(on) else len(time)
    span = slice(first, last)
    was, begins = float(outlet[first]), float(time[first])
    if last - first < 2:
        return None
    top = figures.peak(time[span], outlet[span])
    back = figures.back_under(time, outlet, was, begins)
    return KeyOff(begins, was, top.value, top.at - begins, back - begins)


def _marks(made: Prepared, run: Run, boiling: Floats, limit: float) -> list[Mark]:
    """What leaves the range of what is known, each where it first happens."""
    time, outlet, leg = run.time, run.outlet, told(run, "leg").astype(int)
    found: list[Mark] = []
    if outlet[-1] > boiling[leg[-1]] - NEARLY:
        found.append(Mark("boils", float(time[-1]), float(boiling[leg[-1]])))
    passed = figures.crossing(time, outlet, limit)
    if math.isfinite(passed):
        found.append(Mark("limit", passed, limit))
    supply = made.build.supply
    left = supply.state.si - run.of(places.CHARGE) / supply.capacity.si
    flat = figures.crossing(time, -left, -FLAT_BATTERY)
    if math.isfinite(flat) and flat > 0:
        found.append(Mark("battery_flat", flat, float(np.interp(flat, time, told(run, "volts")))))
    volts, least = told(run, "volts"), LOW_VOLTS * 12.0 * cells_of(supply.regulated.si)
    low = figures.crossing(time, -volts, -least)
    if math.isfinite(low):
        found.append(Mark("volts_low", low, float(volts.min())))
    broken = redline_broken(made.build, made.situations.demands)
    if broken is not None:
        rows = [k for k, demand in enumerate(made.situations.demands) if demand.rpm == broken]
        first = next(k for k, row in enumerate(made.situations.row) if row in rows)
        begins = float(made.situations.legs.until[first - 1]) if first else 0.0
        found.append(Mark("redline", begins, broken))
    # A car that is driven off is driven off as fast as it goes; what it cannot keep up, or was recorded doing, is told.
    legs = made.schedule.legs
    asked = np.array([moment.steady or legs[moment.leg].kind == "cycle" for moment in made.moments])
    short = np.flatnonzero(asked & (made.situations.short > SHORT))
    if len(short):
        k = int(short[0])
        begins = float(made.situations.legs.until[k - 1]) if k else 0.0
        found.append(Mark("short_of_power", begins, float(made.situations.short[k])))
    return found
