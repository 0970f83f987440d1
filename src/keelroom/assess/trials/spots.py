"""What is read once and by the way, and no line over time foretells: volts at a motor, amps of a start, vents, fins,
pressure, sound, air at the marks of a face. What each should read as the trial ends."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.assess.assess import first_wave
from keelroom.assess.drives.driven import Prepared
from keelroom.assess.drives.situations import Asks, case_of
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.figures.coolernoise import loudness
from keelroom.assess.inputs.coolant.heights import rated_pressure
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.system import System, system_at
from keelroom.assess.placing import size_of
from keelroom.core.air.face import GRID
from keelroom.core.arrays import Floats
from keelroom.core.trials.traverse import Flow, flow_through, places
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import ReadAt, Trial

KELVIN = 273.15
MOTOR_VOLTS, RUNNING, START, VENT, FIN, SOUND = 0.4, 0.10, 0.25, 4.0, 4.0, 5.0
"""Standard doubts beside the meter's: volts at a plug, share of running and starting amps, vents and fins [K], sound
[dB] (common practice, no source)."""
HELD_FROM = 0.5
"""Share of its cap's pressure a warm circuit has come to at least, where no air is left in it (common practice)."""
FALLS = 7e3
"""[Pa] a pressure test may fall by and hold: a pound, a needle's width (common practice)."""


class Spot(NamedTuple):
    """value and its standard doubt beside the sensor's own, in SI; temperatures [degC]."""

    value: float
    doubt: float


class Seen(NamedTuple):
    """The end of a trial as a duty case: the judgement of the package in it, the case's figures, and the electrical
    system with the fans running."""

    whole: Assessment
    figures: CaseFigures
    system: System


def seen_at_end(made: Prepared, trial: Trial) -> Seen | None:
    """The last moment of a trial in which the engine runs, judged; None where nothing can be told of it."""
    alive = [moment for moment in made.moments if moment.alive]
    if not alive or not trial.legs:
        return None
    last = alive[-1]
    asks = Asks(last.leg, last.speed, last.slope, last.ambient, True, last.ac, ())
    case = case_of(made.schedule.legs[last.leg], asks)
    build = made.build.model_copy(update={"duty_cases": (case,), "active": made.package.id})
    whole = first_wave(build, made.package.id)
    figures = whole.figures_of(case.id)
    if figures is None:
        return None
    return Seen(whole, figures, system_at(build, made.package, demand_of(build.brief, case).at))


def spot_of(place: ReadAt, seen: Seen) -> Spot | None:
    """What a place should read; None where this car has nothing to read there."""
    return SPOTS[place](seen)


def _motor(seen: Seen) -> Spot | None:
    volts = [value for value in _of_fans(seen, seen.system.volts) if value > 0]
    return Spot(min(volts), MOTOR_VOLTS) if volts else None


def _of_fans(seen: Seen, by_motor: dict[str, float]) -> list[float]:
    return [by_motor[fan.id] for fan in seen.whole.package.fans if fan.id in by_motor]


def _running(seen: Seen) -> Spot | None:
    amps = sum(_of_fans(seen, seen.system.amps))
    return Spot(amps, RUNNING * amps) if amps > 0 else None


def _start(seen: Seen) -> Spot | None:
    """The largest start of one circuit, all its motors together; what starts softly draws no more than running."""
    electrics = seen.whole.electrics
    peaks = [one.starting.current for one in electrics.circuits if not one.fault] if electrics else []
    most = max([*peaks, *_of_fans(seen, seen.system.amps)], default=0.0)
    return Spot(most, START * most) if most > 0 else None


def _vent(seen: Seen) -> Spot | None:
    if not seen.whole.build.brief.accessories.ac_fitted:
        return None
    vents = seen.figures.fluids.vents
    return Spot(vents, VENT) if math.isfinite(vents) and seen.figures.fluids.runs > 0 else None


def _fin(seen: Seen) -> Spot | None:
    """Between coolant and air, nearer the coolant: fins are nearly as warm as their tubes."""
    middle = (seen.figures.mean + seen.figures.coolant_out) / 2
    return Spot(middle - 0.1 * (middle - seen.figures.air_in), FIN)


def _held(seen: Seen) -> Spot | None:
    cap = rated_pressure(seen.whole.package.loop)
    if cap <= 0:
        return None
    middle = (1 + HELD_FROM) / 2
    return Spot(middle * cap, (1 - HELD_FROM) / 4 * cap)


def _sound(seen: Seen) -> Spot | None:
    fans = [one for one in loudness(seen.whole.build, seen.figures, 1.0) if one.name.startswith("Cooling fan")]
    return Spot(fans[0].ahead, SOUND) if fans and fans[0].ahead > 0 else None


def _mark(seen: Seen) -> Spot | None:
    """The mean over the face; what each mark should read is told by `speeds_at_marks`."""
    figures = seen.figures
    wide, high = size_of(seen.whole.package.core)
    if figures.airflow_fans_on <= 0 or wide * high <= 0:
        return None
    mean = figures.airflow_fans_on / (wide * high)
    return Spot(mean, 0.1 * mean)


SPOTS: dict[ReadAt, Callable[[Seen], Spot | None]] = {
    "motor": _motor,
    "running": _running,
    "start": _start,
    "vent": _vent,
    "fin": _fin,
    "held": _held,
    "sound": _sound,
    "mark": _mark,
}


def speeds_at_marks(speed: Floats, width: float, height: float) -> tuple[float, ...]:
    """[m/s] at the marks of a face (GRID) in the order they are walked; its row 0 at the top. Hidden cells read 0."""
    found = []
    for x, y in places(width, height):
        row = min(int((1 - y / height) * GRID[0]), GRID[0] - 1)
        column = min(int(x / width * GRID[1]), GRID[1] - 1)
        value = float(speed[row, column])
        found.append(0.0 if math.isnan(value) else value)
    return tuple(found)


def flow_of_marks(build: Build, trial: Trial, seen: Seen | None) -> Flow | None:
    """What the marks of a trial come to as air behind the core, warm and thin as it is there; None where none was read.

    The vane stands before the face: the wake of a pusher swirls past it, a puller's does not.
    """
    marks = {one.mark: one.wind.si for one in trial.readings if one.wind is not None and one.mark > 0}
    if not marks:
        return None
    package = seen.whole.package if seen else build.package
    wide, high = size_of(package.core)
    warmer = (seen.figures.air_in + KELVIN) / (seen.figures.air_out + KELVIN) if seen else 1.0
    pushed = any(fan.mount == "pusher" and fan.runs for fan in package.fans)
    return flow_through(np.array(list(marks.values())), wide * high, pushed, warmer)
