"""A schedule's legs as moments: stretches in which nothing is asked anew, at most a few seconds where speed changes."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any, NamedTuple

from keelroom.assess.drives.traces import Recorded, recorded
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Leg, Schedule
from keelroom.errors import InputError

GAINS, BRAKES = 1.1, 1.5
"""[m/s2] a car is driven off and braked with in traffic (common practice, no source)."""
PIECE = 2.5
"""[s] of a moment while the speed changes."""
ROTATES = 1.05
"""What turns with the wheels adds so much to a car's mass where it is sped up (common practice)."""
GRAVITY = 9.80665
CLUTCH_ON, CLUTCH_LEAST = 20.0, 5.0
"""[s] an A/C's clutch stays closed where it cycles, and closed or open at least (common practice, no source: a switch
on the cold side opens it a few times a minute on a mild day, and not at all on a hot one at a light)."""
LEAST = 0.05
"""[s] of a moment: shorter ones are left out."""
STEEPEST = 1.2
"""Rise over run an acceleration and a grade may come to together: past it no tyre holds."""


class Moment(NamedTuple):
    """lasts [s];  speed [m/s] in the mean;  gains [m/s2];  leg: its place in the schedule;  ambient [degC] or None for
    the brief's;  alive: the engine runs;  steady: nothing changes in it;  ac: the A/C's clutch is closed"""

    lasts: float
    speed: float
    gains: float
    grade: float
    leg: int
    ambient: float | None
    alive: bool
    steady: bool
    ac: bool = False

    @property
    def slope(self) -> float:
        """The grade that asks for as much as grade and acceleration do. Source: force balance."""
        lifts = math.sin(math.atan(self.grade)) + ROTATES * self.gains / GRAVITY
        held = min(max(lifts, -0.9), math.sin(math.atan(STEEPEST)))
        return math.tan(math.asin(held))


def moments_of(build: Build, schedule: Schedule) -> tuple[Moment, ...]:
    """All moments of a schedule, in order.

    Raises InputError, its path in it, where a leg cannot be driven or nothing is left to drive.
    """
    found: list[Moment] = []
    speed, ambient = 0.0, None
    if schedule.begins == "settled" and schedule.legs and schedule.legs[0].kind == "hold":
        speed = schedule.legs[0].speed.si  # it has been on the road for long
    for place, leg in enumerate(schedule.legs):
        part = list(_leg(build, schedule, (place, leg), speed))
        ends = leg.ambient.si if leg.ambient else ambient
        found += _clutched(_warming(part, ambient, ends), leg)
        ambient = ends
        speed = 0.0 if leg.kind in ("idle", "off", "stops") else _ends_at(part, leg, speed)
    if sum(moment.lasts for moment in found) < 1:
        where = ("driving", "schedules", schedule.id)
        raise InputError(
            "schedule_empty",
            f"“{schedule.name or schedule.id}” lasts no time at all: give its legs minutes",
            path=where,
        )
    return tuple(found)


def _clutched(part: Iterator[Moment], leg: Leg) -> Iterator[Moment]:
    """The moments parted where the A/C's clutch opens and closes by itself."""
    share = leg.ac_share.si
    if not leg.ac_on or leg.kind == "off" or share >= 1:
        on = leg.ac_on and leg.kind != "off"
        yield from (moment._replace(ac=on) for moment in part)
        return
    closed = max(CLUTCH_ON, CLUTCH_LEAST * share / (1 - share)) if share >= 0.5 else CLUTCH_ON
    opened = max(closed * (1 - share) / share, CLUTCH_LEAST)
    closed = opened * share / (1 - share)
    on, left = True, closed
    for moment in part:
        rest = moment.lasts
        while rest > 0:
            lasts = left if rest - left > LEAST else rest
            yield moment._replace(lasts=lasts, ac=on)
            rest, left = rest - lasts, left - lasts
            if left <= LEAST:
                on = not on
                left += closed if on else opened


def asked_in(leg: Leg, stands: bool, ac: bool) -> dict[str, Any]:
    """What a duty case of a moment has of its leg; speed, grade, day and A/C are the moment's own. Engine speed as
    typed counts while it stands only where the leg itself stands, or keeps one speed."""
    kept = leg.kind in ("idle", "hold", "pull") or not stands
    return {
        "demand": "idle" if stands else "full_power" if leg.kind == "pull" else "road_load",
        "towed_mass": leg.towed,
        "gear_step": leg.gear_step,
        "rpm": leg.rpm if kept else None,
        "ac_on": ac,
        "in_gear": leg.in_gear,
    }


def _ends_at(part: Sequence[Moment], leg: Leg, before: float) -> float:
    if leg.kind == "cycle" and part:
        return part[-1].speed
    return leg.speed.si if part else before


def _warming(part: list[Moment], begins: float | None, ends: float | None) -> Iterator[Moment]:
    """The moments of a leg over which the day goes from one temperature to another, [degC]."""
    if begins is None or ends is None or begins == ends:
        yield from (moment._replace(ambient=ends) for moment in part)
        return
    whole, gone = sum(moment.lasts for moment in part), 0.0
    for moment in part:
        pieces = max(1, round(8 * moment.lasts / max(whole, 1e-9)))
        for k in range(pieces):
            share = (gone + (k + 0.5) * moment.lasts / pieces) / whole
            warm = begins + share * (ends - begins)
            yield moment._replace(lasts=moment.lasts / pieces, ambient=warm)
        gone += moment.lasts


def _leg(build: Build, schedule: Schedule, placed: tuple[int, Leg], speed: float) -> Iterator[Moment]:
    place, leg = placed
    lasts, still = leg.lasts.si, Moment(leg.lasts.si, 0.0, 0.0, leg.grade.si, place, None, True, True)
    if leg.kind == "cycle":
        yield from _cycle(build, schedule, placed)
    elif lasts < LEAST:
        return
    elif leg.kind == "idle":
        yield still._replace(grade=0.0)
    elif leg.kind == "off":
        yield still._replace(grade=0.0, alive=False)
    elif leg.kind == "stops":
        yield from _stops(schedule, placed)
    elif leg.kind == "change":
        yield from _ramp(speed, leg.speed.si, lasts, still)
    else:
        change = leg.speed.si - speed if leg.kind == "hold" else 0.0
        takes = min(abs(change) / (GAINS if change > 0 else BRAKES), lasts)
        yield from _ramp(speed, speed + change, takes, still)
        if lasts - takes >= LEAST:
            yield still._replace(lasts=lasts - takes, speed=leg.speed.si)


def _ramp(begins: float, ends: float, lasts: float, like: Moment) -> Iterator[Moment]:
    """A speed that changes evenly."""
    if lasts < LEAST:
        return
    pieces = max(1, math.ceil(lasts / PIECE))
    for k in range(pieces):
        speed = begins + (k + 0.5) / pieces * (ends - begins)
        yield like._replace(lasts=lasts / pieces, speed=speed, gains=(ends - begins) / lasts, steady=ends == begins)


def _stops(schedule: Schedule, placed: tuple[int, Leg]) -> Iterator[Moment]:
    """From light to light: off, along, on the brakes, standing; again and again as long as the leg lasts."""
    place, leg = placed
    goes, stands, left = leg.goes.si, leg.stands.si, leg.lasts.si
    if goes + stands < 1:
        raise InputError(
            "stops_stand_still",
            "From light to light takes no time: give it time to go, or to stand",
            path=("driving", "schedules", schedule.id, "legs", leg.id, "goes"),
        )
    still = Moment(stands, 0.0, 0.0, leg.grade.si, place, None, True, True)
    # No faster than it can be, off and on the brakes, in the time there is.
    top = min(leg.speed.si, goes / (1 / GAINS + 1 / BRAKES))
    up, down = top / GAINS, top / BRAKES
    once = [
        *_ramp(0.0, top, up, still),
        *([still._replace(lasts=goes - up - down, speed=top)] if goes - up - down >= LEAST else ()),
        *_ramp(top, 0.0, down, still),
        *([still] if stands >= LEAST else ()),
    ]
    while left > LEAST and once:
        for moment in once:
            if left <= LEAST:
                return
            yield moment._replace(lasts=min(moment.lasts, left))
            left -= moment.lasts


def _cycle(build: Build, schedule: Schedule, placed: tuple[int, Leg]) -> Iterator[Moment]:
    """A recorded drive, over and over where the leg lasts longer."""
    place, leg = placed
    found = recorded(build, leg.trace)
    if found is None:
        raise InputError(
            "no_such_trace",
            "This leg names no recorded cycle: choose one, or bring one in from a CSV file",
            path=("driving", "schedules", schedule.id, "legs", leg.id, "trace"),
        )
    left = leg.lasts.si if leg.lasts.si > 0 else found.lasts
    while left > LEAST:
        for moment in _pieces(found, leg, place):
            if left <= LEAST:
                return
            yield moment._replace(lasts=min(moment.lasts, left))
            left -= moment.lasts


def _pieces(found: Recorded, leg: Leg, place: int) -> Iterator[Moment]:
    """Its seconds, those that go on alike put together."""
    k, last = 0, len(found.seconds) - 1
    while k < last:
        end = k + 1
        while end < last and found.seconds[end] - found.seconds[k] < PIECE:
            end += 1
        while end < last and found.speeds[end + 1] == found.speeds[k] == found.speeds[end]:
            end += 1
        lasts = found.seconds[end] - found.seconds[k]
        gains = (found.speeds[end] - found.speeds[k]) / lasts
        between = range(k, end)
        metres = sum(
            0.5 * (found.speeds[n] + found.speeds[n + 1]) * (found.seconds[n + 1] - found.seconds[n]) for n in between
        )
        grade = sum(found.grades[k:end]) / (end - k) if found.grades else leg.grade.si
        yield Moment(lasts, metres / lasts, gains, grade, place, None, True, gains == 0.0)
        k = end
