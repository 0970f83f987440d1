"""Trials replayed together: what they tell of heat, core, fans, gaps, the coolant's flow, and of each sensor's zero."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Prepared, run_with
from keelroom.assess.inputs.learnt import AS_ENTERED, FACTORS, PLACES
from keelroom.assess.inputs.translate import car_of
from keelroom.assess.made import made_core, made_fans
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.trials.tried import TEMPERATURES, Point, made_of, package_of, points_of, read_by, with_swings
from keelroom.core.arrays import Floats
from keelroom.core.drive.records import Run
from keelroom.core.kept import in_one_go
from keelroom.core.trials.fit import WHOLE, Fit, Pains, Seen, fitted, widened
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core, Fan, Package, Shroud
from keelroom.document.schema.panels import Sealing
from keelroom.document.schema.trials import Calibration, Factor, FactorId, Sensor, Trial
from keelroom.document.snapshot import kept
from keelroom.errors import InputError, SolveError

ALIKE: tuple[FactorId, ...] = ("heat", "flow")
"""Of the engine: alike in all packages."""
COARSE = 0.25
"""How finely a trial is driven: it errs by a tenth of a kelvin, a reading by ten times that."""
HARDEST = 2.5
"""Standard doubts before past which no factor is tried: the model would be asked what it never was made for."""


_Ready = tuple[Trial, Prepared, list[Point], str]
"""A trial ready to be driven, its points, and the kind of its package."""


class Number(NamedTuple):
    """One doubtful number of a fit: a factor with the package it is of, '' where of all; or a sensor's zero."""

    factor: FactorId | None
    of: str
    sensor: Sensor | None = None


class Replayed(NamedTuple):
    """A trial as it was read and as the model has it: points with where they stand in the fit; run as entered and as
    fitted, with the drives they are runs of."""

    trial: Trial
    points: tuple[Point, ...]
    first: int
    made: Prepared
    entered: Run
    run: Run


class Calibrated(NamedTuple):
    """What came of it. stopped: trials that could not be replayed, and why"""

    fit: Fit
    numbers: tuple[Number, ...]
    replayed: tuple[Replayed, ...]
    stopped: tuple[Stopped, ...]
    calibration: Calibration

    def place(self, factor: FactorId) -> int | None:
        """Where a factor of the package that is calibrated stands among the numbers."""
        own = (k for k, one in enumerate(self.numbers) if one.factor == factor)
        return next(own, None)


class _Replays:
    """Every trial's last run by the factors it was run with: what does not move is not driven again."""

    def __init__(self, made: list[_Ready], numbers: tuple[Number, ...]) -> None:
        self.made, self.numbers = made, numbers
        self.known: list[dict[tuple[float, ...], tuple[Prepared, Run, Floats]]] = [{} for _ in made]

    def factors(self, at: Floats, of: str) -> dict[str, float]:
        """Factors of one package at numbers (k,)."""
        return {
            one.factor: float(np.exp(value))
            for one, value in zip(self.numbers, at, strict=True)
            if one.factor is not None and one.of in ("", of)
        }

    def one(self, k: int, at: Floats) -> tuple[Prepared, Run, Floats]:
        """A trial driven with the factors at numbers (k,)."""
        _, made, points, of = self.made[k]
        factors = self.factors(at, of)
        key = tuple(round(factors[name], 12) for name in FACTORS)
        found = self.known[k].get(key)
        if found is None:
            doubts = AS_ENTERED._replace(**{PLACES[name]: np.array(factors[name]) for name in FACTORS})
            there, run = run_with(made, doubts, COARSE)
            found = there, run, read_by(there, run, points)
            self.known[k][key] = found
        return found

    def __call__(self, at: Floats) -> Floats:
        """What all points would read."""
        zeros = {one.sensor.id: float(at[k]) for k, one in enumerate(self.numbers) if one.sensor is not None}
        parts = []
        for k, (_, _, points, _) in enumerate(self.made):
            _, _, read = self.one(k, at)
            parts.append(read + np.array([zeros.get(point.sensor.id, 0.0) for point in points]))
        return np.concatenate(parts)


@in_one_go
def calibrated(build: Build, tell: Callable[[float], bool] | None = None, pains: Pains = WHOLE) -> Calibrated:
    """What the trials that count tell of the model, together.

    tell : told how far it has come, answers whether to go on; else what was found by then stands
    Raises InputError where nothing can be told: no trial counts, none has a reading, or none can be replayed.
    """
    kinds = _Kinds()
    made, stopped = _made(build, kinds)
    if not made:
        whys = " ".join(f"{one.sentence}." for one in stopped)
        raise InputError("nothing_to_fit", whys or "No trial that counts has a reading yet: enter one on the Log page")
    numbers, prior = _numbers(build, made, kinds.of(build.package))
    replays = _Replays(made, numbers)
    values = np.array([point.value for _, _, points, _ in made for point in points])
    doubt = np.array([point.doubt for _, _, points, _ in made for point in points])
    fit = fitted(
        replays, prior, Seen(values, doubt), tell, pains, np.array([one.sensor is not None for one in numbers])
    )
    shown: list[Replayed] = []
    first = 0
    for k, (trial, _, points, _) in enumerate(made):
        there, run, _ = replays.one(k, fit.at)
        _, entered, _ = replays.one(k, np.zeros(len(prior)))
        shown.append(Replayed(trial, tuple(points), first, there, entered, run))
        first += len(points)
    return Calibrated(fit, numbers, tuple(shown), tuple(stopped), _calibration(build, fit, numbers, made))


def _made(build: Build, kinds: _Kinds) -> tuple[list[_Ready], list[Stopped]]:
    """Trials ready to be driven, with their points and which package they are of."""
    found: list[_Ready] = []
    stopped: list[Stopped] = []
    for trial in build.logbook.trials:
        points = list(points_of(build, trial))
        if not trial.counts or not points:
            continue
        name = f"The trial “{trial.name or trial.id}”"
        made = attempted(name, ("logbook", "trials", trial.id), lambda t=trial: made_of(build, t))  # type: ignore[misc]
        if isinstance(made, Stopped):
            stopped.append(made)
        else:
            found.append((trial, made, _with_swings(made, points), kinds.of(package_of(build, trial))))
    return found, stopped


def _with_swings(made: Prepared, points: list[Point]) -> list[Point]:
    """Points with the doubt of where in a swing they were read; a log's means have it already."""
    if all(point.span > 0 for point in points):
        return points
    _, run = run_with(made, AS_ENTERED)
    return with_swings(made, run, points)


class _Kinds:
    """Packages by what their core, fans and gaps are, one word for all that share them."""

    def __init__(self) -> None:
        self.known: list[tuple[Core, tuple[Fan, ...], Sealing, Shroud]] = []

    def of(self, package: Package) -> str:
        """The word of a package's kind."""
        parts = (made_core(package.core), made_fans(package.fans), package.sealing, package.shroud)
        if parts not in self.known:
            self.known.append(parts)
        return f"kind {self.known.index(parts)}"


def priors(build: Build, package: Package) -> dict[FactorId, float]:
    """Standard doubts of the factors before anything was tried, as shares."""
    plain = build.model_copy(update={"calibration": Calibration()})
    car = car_of(plain, package)
    return {
        "heat": float(car.plant.engine.law.doubt),
        "core": float(car.unsure.core),
        "fans": float(car.unsure.fans),
        "leaks": float(car.unsure.leaks),
        "flow": float(car.unsure.flow),
    }


def _numbers(build: Build, made: list[_Ready], mine: str) -> tuple[tuple[Number, ...], Floats]:
    """What is fitted, the package in use, of the kind `mine`, first, or else the last that was tried."""
    kinds = {of: package_of(build, trial) for trial, _, _, of in made}
    lead = mine if mine in kinds else made[-1][3]
    order = [lead, *(of for of in kinds if of != lead)]
    numbers, prior = [], []
    for of in order:
        doubts = priors(build, kinds[of])
        for factor in FACTORS:
            if factor in ALIKE and of != lead:
                continue
            numbers.append(Number(factor, "" if factor in ALIKE else of))
            prior.append(doubts[factor])
    sensors = {p.sensor.id: p.sensor for _, _, points, _ in made for p in points if p.sensor.place in TEMPERATURES}
    for sensor in sensors.values():
        if sensor.zero.si > 0:
            numbers.append(Number(None, "", sensor))
            prior.append(sensor.zero.si)
    return tuple(numbers), np.array(prior)


def _calibration(build: Build, fit: Fit, numbers: tuple[Number, ...], made: list[_Ready]) -> Calibration:
    """What the fit says of the lead package, as the build keeps it."""
    lead = next(one.of for one in numbers if one.factor == "core")
    at = [next(k for k, one in enumerate(numbers) if one.factor == factor) for factor in FACTORS]
    covariance = widened(fit)[np.ix_(at, at)]
    doubts = np.sqrt(np.diag(covariance))
    if np.any(np.abs(fit.at[at]) > HARDEST * fit.prior[at] + 1e-9) and not fit.covers:
        raise SolveError(
            "readings_past_model",
            "The readings lie past what any likely engine, core, fans or gaps would show: look for a fault of the "
            "car or of a reading first. Nothing was taken in",
        )
    package = next(package_of(build, trial) for trial, _, _, of in made if of == lead)
    return Calibration(
        on=True,
        factors=tuple(
            Factor(id=name, value=float(np.exp(fit.at[k])), doubt=float(doubts[n]))
            for n, (name, k) in enumerate(zip(FACTORS, at, strict=True))
        ),
        ties=tuple((covariance / np.outer(doubts, doubts)).ravel().tolist()),
        package=kept(package),
        trials=tuple(trial.name or trial.id for trial, _, _, _ in made),
    )
