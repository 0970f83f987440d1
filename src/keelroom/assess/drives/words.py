"""What a drive says, in sentences."""

from __future__ import annotations

import math

import numpy as np

from keelroom.assess.drives.driven import Driven, Mark
from keelroom.assess.drives.lines import lines_of
from keelroom.core.drive.figures import crossing
from keelroom.units import KINDS, format_si, inches

Said = tuple[tuple[str, str], ...]
"""role and sentence"""
SOON = 1.0
"""[s] from which on a moment has a time worth telling."""
WORTH_A_SLOPE, NEAR_PEAK = 90.0, 3.0
"""[s] a slope is told over at least; [K] from the hottest within which what rises still creeps."""
DRAWN = 180.0
"""[A s] with the key off worth a word."""
SURGE = 3.0
"""[K] after key-off worth a sentence."""


def clock(seconds: float) -> str:
    """A time of a drive: 45 s, 12 min 30 s, 1 h 05 min."""
    whole = round(seconds)
    if whole < 60:
        return f"{whole} s"
    minutes, left = divmod(whole, 60)
    if minutes < 60:
        return f"{minutes} min {left} s" if left and minutes < 20 else f"{round(seconds / 60)} min"
    hours, minutes = divmod(minutes, 60)
    return f"{hours} h {minutes:02d} min"


def degrees(value: float, system: str) -> str:
    """A temperature [degC]."""
    return format_si(value, KINDS["temperature"], system)


def kelvin(value: float, system: str) -> str:
    """A difference of temperatures [K]."""
    return format_si(value, KINDS["temperature difference"], system)


def verdict(driven: Driven, system: str) -> tuple[str, str]:
    """The drive in one sentence, and how bad it is: 'good', 'doubt' or 'problem'."""
    says = driven.says
    first = {mark.code: mark for mark in reversed(says.marks)}
    if "boils" in first:
        boils = (
            f"Boils after {clock(first['boils'].at)}, at {degrees(first['boils'].value, system)}; the drive ends there."
        )
        over = f" Its limit is passed after {clock(says.limit_at)}." if math.isfinite(says.limit_at) else ""
        return "problem", boils + over
    limit = degrees(driven.limit, system)
    peak = f"{degrees(says.peak.value, system)} after {clock(says.peak.at)}"
    if math.isfinite(says.limit_at):
        return (
            "problem",
            f"Passes its limit of {limit} after {clock(says.limit_at)} and stands over it for {clock(says.over)}; "
            f"hottest {peak}.",
        )
    left = kelvin(driven.limit - says.peak.value, system)
    worst = against(driven)
    if worst is not None:
        return (
            "doubt",
            f"Stays {left} under its limit of {limit}, hottest {peak}; with the doubt of its heat against it, it "
            f"passes after {clock(worst)}.",
        )
    return "good", f"Holds: hottest {peak}, {left} under its limit of {limit}."


def against(driven: Driven) -> float | None:
    """When the limit is passed with the doubt of the heat against it [s]; None where it is not."""
    if driven.high is None:
        return None
    at = crossing(driven.high.time, driven.high.outlet, driven.limit)
    return at if math.isfinite(at) else None


def headline(driven: Driven, system: str) -> Said:
    """All a drive says, the verdict first."""
    found = [verdict(driven, system), *_band(driven, system), *_creeps(driven, system), *_fans(driven)]
    found += _key_off(driven, system) + _supply(driven) + _besides(driven, system)
    found += [("problem" if mark.code in GRAVE else "doubt", mark_words(mark, system)) for mark in _others(driven)]
    return tuple(found)


GRAVE = ("battery_flat", "volts_low")
MARKS = {
    "boils": "boils",
    "limit": "passes its limit",
    "battery_flat": "the battery is flat",
    "volts_low": "volts too low for relays and ignition",
    "redline": "over the redline",
    "short_of_power": "the engine has not the power asked",
}
"""what happens at a mark, in few words"""


def mark_words(mark: Mark, system: str) -> str:
    """What happened, when."""
    when = clock(mark.at)
    if mark.code == "battery_flat":
        return f"The battery is flat after {when}: the fans slow down, relays drop out, and the engine stalls."
    if mark.code == "volts_low":
        return f"Down to {mark.value:.1f} V after {when}: relays chatter under that."
    if mark.code == "redline":
        return f"From {when} on the engine is asked for {mark.value:.0f} rpm, past its redline."
    if mark.code == "short_of_power":
        power = format_si(mark.value, KINDS["power"], system)
        return f"From {when} on the engine has not the power that is asked of it, by {power}: it would fall behind."
    return f"{MARKS[mark.code].capitalize()} after {when}."


def _others(driven: Driven) -> list[Mark]:
    return [mark for mark in driven.says.marks if mark.code not in ("boils", "limit")]


def _band(driven: Driven, system: str) -> list[tuple[str, str]]:
    if driven.low is None or driven.high is None:
        return []
    # A run that boils is told no further: its last moment is before the drive's end.
    boils = [float(run.time[-1]) if run.time[-1] < driven.lasts - 1 else None for run in (driven.low, driven.high)]
    if not driven.ended:
        words = "it does not" if boils[0] is None else f"after {clock(boils[0])}"
        return [("", f"With the doubt of its heat in its favour {words}.")]
    ends = sorted(float(run.outlet.max()) for run in (driven.run, driven.low, driven.high))
    high = degrees(ends[-1], system) if boils[1] is None else f"boiling after {clock(boils[1])}"
    return [("", f"With the doubt of its heat the hottest is {degrees(ends[0], system)} to {high}.")]


def _creeps(driven: Driven, system: str) -> list[tuple[str, str]]:
    """Whether the needle has come to rest at the end, told where the engine runs there."""
    if not driven.moments[-1].alive or not driven.ended:
        return []
    creep = driven.says.creep
    if creep.span < WORTH_A_SLOPE:
        return []
    unit = KINDS["temperature difference"].shown_unit(system)
    slope, doubt = (60 * value / unit.factor for value in (creep.slope, creep.doubt))
    rate = f"{slope:+.1f} ± {doubt:.1f} {unit.symbol} a minute over the last {clock(creep.span)}".replace("-", "−")
    if creep.creeps and driven.says.ends < driven.thermostat:
        return [("", f"Still warming up at its end, {degrees(driven.says.ends, system)}: {rate}.")]
    if creep.creeps and driven.says.ends < driven.says.peak.value - NEAR_PEAK:
        return [("", f"Rising at its end, {degrees(driven.says.ends, system)}: {rate}.")]
    if creep.creeps:
        return [("doubt", f"Still creeping at its end: {rate}.")]
    falls = creep.slope + creep.doubt < -0.15 / 60
    return [("", f"{'Falling' if falls else 'Flat'} at its end, {degrees(driven.says.ends, system)}: {rate}.")]


def _fans(driven: Driven) -> list[tuple[str, str]]:
    fans = driven.says.fans
    if fans.share <= 0:
        return [("", "The fans never run.")]
    if fans.share > 0.999:
        return [("", "The fans run all the time.")]
    starts = f"{fans.per_hour:.0f} starts an hour" if fans.per_hour >= 0.5 else "one start"
    first = "Fans run from the start" if fans.first < SOON else f"Fans first start after {clock(fans.first)}"
    return [("", f"{first}; {starts}, on {fans.share:.0%} of the time, {clock(fans.longest)} at the longest.")]


def _key_off(driven: Driven, system: str) -> list[tuple[str, str]]:
    off = driven.says.key_off
    if off is None or not driven.ended:
        return []
    climbs = off.peak - off.was
    if climbs < SURGE:
        return [("", "After key-off it does not climb.")]
    back = f"back after {clock(off.back)}" if math.isfinite(off.back) else "not back before the end"
    role = "doubt" if off.peak > driven.limit else ""
    return [
        (
            role,
            f"After key-off it climbs {kelvin(climbs, system)} to {degrees(off.peak, system)} in {clock(off.after)}, "
            f"and is {back}.",
        )
    ]


def _supply(driven: Driven) -> list[tuple[str, str]]:
    says = driven.says
    used = f"; the battery gives {says.charge:.0%} of its charge" if says.charge >= 0.01 else ""
    off = f" With the key off {says.off_charge / 3600:.1f} A h are drawn." if says.off_charge > DRAWN else ""
    return [("", f"Lowest {says.volts.value:.1f} V, after {clock(says.volts.at)}{used}.{off}")]


def _besides(driven: Driven, system: str) -> list[tuple[str, str]]:
    says = driven.says
    way = f", {format_way(says.metres, system)}" if says.metres > 100 else ""
    warm = f"Warm after {clock(says.warm_up)}. " if SOON < says.warm_up < math.inf else ""
    return [
        (
            "",
            f"{warm}Hottest oil {degrees(says.oil, system)}, gearbox {degrees(says.gearbox, system)}. "
            f"Fuel {says.fuel / 1e6:.0f} MJ in {clock(driven.lasts)}{way}.",
        )
    ]


def format_way(metres: float, system: str) -> str:
    """A way driven."""
    return f"{metres / 1609.344:.1f} mi" if inches(system) else f"{metres / 1000:.1f} km"


COLUMNS = (
    ("time s", None),
    ("speed", "speed"),
    ("grade", "share"),
    ("coolant out", "temperature"),
    ("coolant back", "temperature"),
    ("gauge", "temperature"),
    ("gearbox", "temperature"),
    ("oil", "temperature"),
    ("fan share", None),
    ("volts", None),
    ("battery A", None),
    ("charge", None),
    ("thermostat open", None),
    ("air through core kg/s", None),
)


def table(driven: Driven, system: str) -> list[list[str]]:
    """The drive moment by moment, its heading first, in the units of a system."""

    def head(name: str, kind: str | None) -> str:
        return f"{name} {KINDS[kind].shown_unit(system).symbol}" if kind else name

    found = [[head(*column) for column in COLUMNS]]
    lines = lines_of(driven)
    values = [lines[name] for name, _ in COLUMNS]
    for k in range(len(driven.run.time)):
        row = []
        for (_, kind), line in zip(COLUMNS, values, strict=True):
            unit = KINDS[kind].shown_unit(system) if kind else None
            value = float(line[k])
            row.append(f"{(value - unit.offset) / unit.factor if unit else value:.6g}")
        found.append(row)
    return found


def at_moment(driven: Driven, at: float, system: str) -> tuple[tuple[str, str], ...]:
    """What everything reads at a moment [s], by name."""
    lines, time = lines_of(driven), driven.run.time
    found = [("Time", clock(at))]
    for name, kind in COLUMNS[1:]:
        value = float(np.interp(at, time, lines[name]))
        if kind:
            words = format_si(value, KINDS[kind], system)
        elif name in ("fan share", "charge", "thermostat open"):
            words = f"{max(value, 0.0):.0%}"
        else:
            words = f"{value:.1f}" if "kg" not in name else f"{value:.2f}"
        found.append((name.capitalize(), words))
    return tuple(found)


def as_data(driven: Driven, system: str) -> dict[str, object]:
    """What a drive says, for machines: SI, temperatures in degrees Celsius, None where something never happens."""
    says = driven.says

    def known(value: float) -> float | None:
        return round(value, 6) if math.isfinite(value) else None

    off = says.key_off
    return {
        "schedule": driven.schedule_id,
        "package": driven.package_id,
        "verdict": verdict(driven, system)[1],
        "lasts_s": driven.lasts,
        "peak_degC": known(says.peak.value),
        "peak_at_s": known(says.peak.at),
        "ends_degC": known(says.ends),
        "creep_K_per_s": known(says.creep.slope),
        "limit_passed_s": known(says.limit_at),
        "over_limit_s": known(says.over),
        "fan_starts_per_hour": known(says.fans.per_hour),
        "fan_share": known(says.fans.share),
        "fan_longest_s": known(says.fans.longest),
        "fan_first_s": known(says.fans.first),
        "warm_s": known(says.warm_up),
        "after_key_off_degC": known(off.peak) if off else None,
        "lowest_V": known(says.volts.value),
        "charge_used": known(says.charge),
        "fuel_J": known(says.fuel),
        "oil_degC": known(says.oil),
        "gearbox_degC": known(says.gearbox),
        "metres": known(says.metres),
        "marks": [{"code": mark.code, "at_s": known(mark.at), "value": known(mark.value)} for mark in says.marks],
    }
