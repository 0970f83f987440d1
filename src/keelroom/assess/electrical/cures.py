"""What cures an alternator that is short at idle: each a sentence, and where an act in the build does it, the fix that reaches what it says."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.inputs.electrical.system import LOAD_VOLTAGE, System, battery_of
from keelroom.assess.inputs.gearing import engine_rpm
from keelroom.assess.wording import set_act
from keelroom.core.electrical.charging import Alternator, idle_for, rating_for, ratio_for
from keelroom.document.act import Act
from keelroom.document.schema.build import Build, DutyCase

LED_LAMPS = 45.0
"""[W] a car's lamps draw as LED (common practice)."""
MOST_IDLE_RISE = 350.0
"""[rpm] an idle can be raised with the A/C on before the car creeps (common practice)."""
LARGEST = 320.0
"""[A] of the largest alternator on sale for a car."""
STEP = 5.0
"""[A] alternators are told apart by."""


class Cure(NamedTuple):
    """One way to give the amps that are wanted at idle: what it does in words, the fix that does it; None where hands have to."""

    words: str
    fix: Act | None


def cures_for(build: Build, found: System, alternator: Alternator, case: DutyCase | None) -> tuple[Cure, ...]:
    """What makes the system hold its voltage at idle with everything on, best first; what a fix says, applied, it reaches."""
    wanted, rpm = found.full, engine_rpm(build.brief, case) if case else 0.0
    if not rpm or found.measured:
        # A measured voltage stands until it is measured again.
        return ()
    cures = (
        _other_alternator(alternator, wanted, rpm),
        _faster_idle(build, alternator, wanted, (rpm, case)),
        _other_pulley(build, alternator, wanted, rpm),
        _led_lamps(build, found),
        _charger(build, found),
    )
    return tuple(cure for cure in cures if cure)


def cure_words(build: Build, found: System, cures: tuple[Cure, ...]) -> str:
    """What it takes, and what gives it."""
    if found.measured:
        return "The voltage was measured: after any change, measure again."
    needs = f"To hold {build.supply.regulated.si:g} V with everything on, and the battery taking its charge, takes {found.full:.0f} A"
    return "; ".join((needs, *(cure.words for cure in cures))) + "."


def _other_alternator(alternator: Alternator, wanted: float, rpm: float) -> Cure:
    rating = larger_rating(alternator, wanted, rpm)
    if rating is None:
        return Cure(f"no alternator of its kind up to {LARGEST:.0f} A gives that at this idle speed", None)
    return Cure(
        f"a {rating:.0f} A unit of its kind does",
        Act("larger_alternator", f"A {rating:.0f} A alternator", given=(("rating", f"{rating:.0f}"),)),
    )


def larger_rating(alternator: Alternator, wanted: float, rpm: float) -> float | None:
    """The rating on sale [A] whose like gives `wanted` [A] hot at an engine speed; None where none up to LARGEST does."""
    rating = rating_for(alternator, wanted, rpm)
    if rating is None:
        return None
    sold = math.ceil(rating / STEP - 1e-9) * STEP
    return sold if sold <= LARGEST else None


def _faster_idle(build: Build, alternator: Alternator, wanted: float, at: tuple[float, DutyCase | None]) -> Cure | None:
    """A higher idle speed while the A/C is on."""
    rpm, case = at
    idle = idle_for(alternator, wanted, rpm, rpm + MOST_IDLE_RISE)
    if idle is None or case is None:
        return None
    text = f"{math.ceil(idle / 10) * 10:.0f} rpm"
    words = f"so does idling at {text} with the A/C on instead of {rpm:.0f}"
    if case.rpm is not None:
        return Cure(words, set_act(f"Idle at {text}", ("duty_cases", case.id, "rpm"), text))
    return Cure(words, Act("faster_idle", f"Idle at {text}", given=(("rpm", text.split(maxsplit=1)[0]),)))


def _other_pulley(build: Build, alternator: Alternator, wanted: float, rpm: float) -> Cure | None:
    """A pulley that turns it faster; over its speed limit it is named as what it is, and never offered."""
    ratio, supply = ratio_for(alternator, wanted, rpm), build.supply
    if ratio is None:
        return Cure("no pulley gives it", None)
    ratio = math.ceil(ratio * 100 - 1e-9) / 100
    top, limit = ratio * supply.redline.si * 60, supply.speed_limit.si * 60
    if top > limit:
        return Cure(f"a pulley of {ratio:.2f} would, but over-speeds it: {top:.0f} rpm at the redline, its limit is {limit:.0f}", None)
    wrap = f"the belt wraps {1 - alternator.ratio / ratio:.0%} less pulley and slips sooner"
    words = (
        f"so does a pulley of {ratio:.2f} instead of {alternator.ratio:.2f} ({top:.0f} rpm at the redline, within its {limit:.0f}; {wrap})"
    )
    return Cure(words, Act("faster_pulley", f"A pulley of {ratio:.2f}", given=(("ratio", f"{ratio:.2f}"),)))


def _led_lamps(build: Build, found: System) -> Cure | None:
    """Lamps that draw less: named with what they give back, offered where that is enough."""
    lamps = next((load for load in build.supply.loads if load.id == "lamps" and load.when != "moving"), None)
    if lamps is None or lamps.power.si <= LED_LAMPS:
        return None
    volts = build.supply.regulated.si
    saved = (lamps.power.si - LED_LAMPS) * volts / (LOAD_VOLTAGE * battery_of(build.supply).cells) ** 2
    lacks = found.full - found.modelled
    words = f"LED lamps give back {saved:.0f} A of the {lacks:.0f} A that lack" if lacks > saved else "so do LED lamps"
    path = ("supply", "loads", "lamps", "power")
    return Cure(words, set_act("LED lamps", path, f"{LED_LAMPS:.0f} W") if saved >= lacks else None)


def _charger(build: Build, found: System) -> Cure | None:
    """What the battery gave has to come back: a charger on its posts."""
    if found.short <= 0:
        return None
    return Cure(
        f"shedding load and a battery-side charger overnight put back what it gives, {found.short / 2:.0f} Ah for half an hour of such idling",
        None,
    )
