"""What trials say, in sentences."""

from __future__ import annotations

import math

import numpy as np

from keelroom.assess.drives.words import Said, clock, degrees
from keelroom.assess.inputs.learnt import FACTORS, package_kept
from keelroom.assess.trials.calibrate import Calibrated
from keelroom.assess.trials.expected import Expect, Fans
from keelroom.assess.trials.judged import Compared, Judged
from keelroom.assess.trials.tried import value_of
from keelroom.catalogue.protocols import protocol_of
from keelroom.core.answer import WITHIN
from keelroom.core.trials.fit import LIKE_PRIOR, TRADES
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Trial
from keelroom.units import KINDS, format_si

NAMES = {
    "heat": "Heat into the coolant",
    "core": "Core’s conductance",
    "fans": "Fans’ pressure",
    "leaks": "Gaps round the core",
    "flow": "Coolant’s flow",
}
PARTS = {
    frozenset(("heat", "core")): "an airflow reading and the lower hose on the road would part them",
    frozenset(("heat", "fans")): "an airflow reading by anemometer would part them",
    frozenset(("core", "fans")): "an airflow reading by anemometer would part them",
    frozenset(("fans", "leaks")): "an airflow reading at the face and one behind the fans would part them",
    frozenset(("heat", "flow")): "upper and lower hose read together would part them",
    frozenset(("core", "flow")): "upper and lower hose read together would part them",
}
UNLIKE = {
    "protocol": "another test",
    "day": "another day",
    "revs": "other revs",
    "ac": "the A/C",
    "speed": "another speed",
    "minutes": "other minutes",
    "sensor": "another sensor",
    "hood": "the hood",
}
SHOWN = {
    "air": "airflow",
    "running": "current",
    "start": "current",
    "held": "pressure",
    "sound": "sound level",
    "mark": "air speed",
}
"""kinds of figures by place; volts and amps of the battery are told finer, temperatures elsewhere"""
VERDICTS = {"passes": ("good", "Passes"), "fails": ("problem", "Fails"), "open": ("", "Says nothing yet")}


def figure(place: str, value: float, system: str) -> str:
    """A reading of a place in the user's units."""
    if place in ("volts", "motor"):
        return f"{value:.1f} V"
    if place == "battery":
        return f"{value:+.0f} A".replace("-", "−")
    kind = SHOWN.get(place)
    return format_si(value, KINDS[kind], system) if kind else degrees(value, system)


def kelvin(value: float, system: str) -> str:
    """A difference of temperatures [K], to a tenth where it is small."""
    unit = KINDS["temperature difference"].shown_unit(system)
    shown = value / unit.factor
    return f"{shown:.1f} {unit.symbol}" if abs(shown) < SMALL else f"{shown:.0f} {unit.symbol}"


SMALL = 9.95
"""Degrees under which a tenth is told."""


def slope_words(slope: float, margin: float, system: str) -> str:
    """A slope with its doubt, a minute."""
    unit = KINDS["temperature difference"].shown_unit(system)
    each, off = (60 * value / unit.factor for value in (slope, margin))
    return f"{each:+.2f} ± {off:.2f} {unit.symbol} a minute".replace("-", "−")


def trial_words(build: Build, trial: Trial, found: Judged, system: str) -> Said:
    """A trial by itself, its verdict first."""
    protocol = protocol_of(trial.protocol)
    if trial.ambient is None and trial.legs and not all(leg.ambient for leg in trial.legs):
        return (("problem", "How warm was the day? Without it nothing can be held against this trial."),)
    if found.sensor is None:
        if found.passes != "open":
            role, word = VERDICTS[found.passes]
            by = "volts" if protocol.passes == "volts" else "pressure"
            return ((role, f"{word} by its {by}."),)
        return (("faint", f"No reading yet. {protocol.purpose}."),)
    said: list[tuple[str, str]] = [_verdict(found, protocol.needs, system), *_loose(build, trial)]
    if found.rest is not None:
        said.append(("", _rest_words(found, system)))
    if found.top is not None:
        said.append(
            ("", f"Highest {degrees(found.top[0], system)} after {clock(found.top[1])}, by {found.sensor.name}.")
        )
    if math.isfinite(found.over_day):
        words = f"It ends {kelvin(found.over_day, system)} over the day"
        if math.isfinite(found.boils_at):
            words += f": it would boil on a day of {degrees(found.boils_at, system)}"
        said.append(("", f"{words}."))
    if trial.stopped is not None:
        said.append(("doubt", f"Stopped after {clock(trial.stopped.si)}; what came before counts."))
    return tuple(said)


def _loose(build: Build, trial: Trial) -> Said:
    """What of it can no longer be read as it was."""
    known = {one.id for one in build.logbook.sensors}
    lost = sum(one.sensor not in known for one in trial.readings) + sum(one.sensor not in known for one in trial.logs)
    empty = sum(value_of(one) is None for one in trial.readings)
    said = []
    if lost:
        said.append(("doubt", f"{lost} of its readings say no longer what they were read with: choose it."))
    if empty:
        said.append(("faint", f"{empty} of its readings have no figure yet."))
    if trial.package and package_kept(trial.package) is None:
        said.append(("doubt", "The package of that day can no longer be read: the one in use stands for it."))
    return tuple(said)


def _verdict(found: Judged, needs: float, system: str) -> tuple[str, str]:
    role, word = VERDICTS[found.passes]
    set_at, ends = degrees(found.set_at, system), degrees(found.ends, system)
    if found.passes == "open" and not found.long_enough:
        return "doubt", f"{word}: it ran {clock(found.lasted)}, {clock(needs)} are needed for it to mean something."
    if found.passes == "open":
        return "doubt", f"Settles nothing: it ends at {ends}, {_over(found, system)} what it is set to ({set_at})."
    if found.passes == "fails":
        return role, f"{word}: it ends at {ends}, {_over(found, system)} what it is set to ({set_at})."
    return role, f"{word}: at rest at {ends}, set to {set_at}."


def _over(found: Judged, system: str) -> str:
    off = found.ends - found.set_at
    return f"{kelvin(abs(off), system)} {'over' if off > 0 else 'under'}"


def _rest_words(found: Judged, system: str) -> str:
    rest = found.rest
    assert rest is not None
    told = slope_words(rest.slope, rest.margin, system)
    if rest.slope - rest.margin > 0:
        words = f"Creeping: {told}"
        if math.isfinite(rest.needed) and rest.needed > 60:
            words += f"; it tends to {degrees(rest.tends, system)}, {clock(rest.needed)} more to be there"
        return f"{words}."
    return f"Steady: {told} over its last minutes."


def expect_words(one: Expect, system: str) -> str:
    """What a sensor should read, and did."""
    place = one.sensor.place
    low, high = (figure(place, value, system) for value in (one.low, one.high))
    words = f"{figure(place, one.value, system)} ({low} to {high})"
    return words if one.read is None else f"{words}; read {figure(place, one.read, system)}"


def fan_words(fans: Fans, system: str) -> str:
    """When the fans should start and stop."""
    if math.isinf(fans.starts):
        return "The fans should stay as they are from the start."
    words = f"The fans should first start after {clock(fans.starts)}, the gauge at {degrees(fans.gauge_on, system)}"
    if math.isfinite(fans.stops):
        words += f", and stop after {clock(fans.stops)}, at {degrees(fans.gauge_off, system)}"
    return f"{words}. Much sooner or later: the sensor, where it sits, or its earth."


def compared_words(first: Trial, second: Trial, found: Compared, system: str) -> Said:
    """The second trial against the first."""
    less = "cooler" if found.measured < 0 else "hotter"
    said: list[tuple[str, str]] = [
        ("strong", f"Against “{first.name}”: {kelvin(abs(found.measured), system)} {less} as read.")
    ]
    if found.unlike:
        what = ", ".join(UNLIKE[code] for code in found.unlike)
        sign = "hotter" if found.conditions > 0 else "cooler"
        said.append(
            (
                "doubt",
                f"Not alike: {what}. The model makes that {kelvin(abs(found.conditions), system)} {sign}, "
                f"± {kelvin(found.doubt, system)}.",
            )
        )
    if abs(found.earned) > WITHIN * found.earned_doubt:
        sign = "cooler" if found.earned < 0 else "hotter"
        words = f"The change of the car earned {kelvin(abs(found.earned), system)} {sign}"
        said.append(("good" if found.earned < 0 else "problem", f"{words}, ± {kelvin(found.earned_doubt, system)}."))
    else:
        said.append(
            ("", f"What is left, {kelvin(abs(found.earned), system)}, is within its doubt: no change is shown.")
        )
    return tuple(said)


def learnt_words(found: Calibrated, system: str) -> Said:
    """What a fit says, in words: what the readings tell, what they cannot part, whether the band covers them."""
    fit = found.fit
    said: list[tuple[str, str]] = []
    count = int(fit.kept.sum())
    out = len(fit.kept) - count
    trials = len(found.replayed)
    readings = "reading" if count == 1 else "readings"
    said.append(("strong", f"{count} {readings} of {trials} trial{'s' if trials > 1 else ''} together."))
    if out:
        said.append(("doubt", f"{out} lie too far off to belong and were left out: they are drawn hollow."))
    if not fit.covers:
        said.append(
            (
                "problem",
                f"The band does not cover the readings: they scatter {math.sqrt(fit.misfit):.1f} times what their "
                "sensors let them. The doubts that are left were widened by as much. A fault of the car looks like "
                "this too: the Brief’s Explain page holds every cheap cause against what was read.",
            )
        )
    if not fit.finished and fit.runs > FEW:
        said.append(("doubt", "The search was ended before it came to rest: what stands here is the best so far."))
    for one in found.replayed:
        part = fit.off[one.first : one.first + len(one.points)]
        worst = float(np.abs(part).max(initial=0.0))
        if worst > 3:
            said.append(("doubt", f"“{one.trial.name}” has a reading {worst:.1f} doubts off."))
    said += _cannot(found)
    for stop in found.stopped:
        said.append(("problem", f"{stop.sentence}."))
    for k, number in enumerate(found.numbers):
        if number.sensor is not None and abs(fit.at[k]) > 1.5 * fit.doubts[k]:
            way = "high" if fit.at[k] > 0 else "low"
            off, doubt = kelvin(abs(float(fit.at[k])), system), kelvin(float(fit.doubts[k]), system)
            said.append(("", f"{number.sensor.name} reads {off} {way}, ± {doubt}."))
    return tuple(said)


def _cannot(found: Calibrated) -> list[tuple[str, str]]:
    """What the readings leave as it was, and what trades off."""
    fit, said = found.fit, []
    places = {name: found.place(name) for name in FACTORS}
    blind = [
        NAMES[name].lower() for name, k in places.items() if k is not None and fit.doubts[k] > LIKE_PRIOR * fit.prior[k]
    ]
    if blind:
        said.append(("faint", f"Nothing is told of: {', '.join(blind)}."))
    ties = fit.ties
    for n, first in enumerate(FACTORS):
        for second in FACTORS[n + 1 :]:
            a, b = places[first], places[second]
            if a is None or b is None or abs(ties[a, b]) < TRADES:
                continue
            if max(fit.doubts[a] / fit.prior[a], fit.doubts[b] / fit.prior[b]) < HALF:
                continue
            how = PARTS.get(frozenset((first, second)), "another kind of test would part them")
            said.append(("doubt", f"{NAMES[first]} and {NAMES[second].lower()} trade off here: {how}."))
    return said


FEW = 40
"""Runs a first answer is found in."""
HALF = 0.4
"""Share of its doubt before under which nobody minds what a factor trades off with."""
