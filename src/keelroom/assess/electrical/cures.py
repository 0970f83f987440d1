"""What cures an alternator that is short at idle: each a sentence, and where an act in the build does it, the fix
that reaches what it says."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.fixes import set_act
from keelroom.assess.inputs.cases import stands
from keelroom.assess.inputs.electrical.system import LOAD_VOLTAGE, System, battery_of
from keelroom.assess.inputs.gearing import engine_rpm
from keelroom.core.electrical.charging import Alternator, idle_for, rating_for, ratio_for, rest_voltage
from keelroom.document.act import Act
from keelroom.document.schema.build import Build, DutyCase
from keelroom.facts import Fact, fact

LED_LAMPS = 45.0
"""[W] a car's lamps draw as LED (common practice)."""
MOST_IDLE_RISE = 350.0
"""[rpm] an idle can be raised with the A/C on before the car creeps (common practice)."""
LARGEST = 320.0
"""[A] of the largest alternator on sale for a car."""
STEP = 5.0
"""[A] alternators are told apart by."""


class Cure(NamedTuple):
    """One way to give the amps that are wanted at idle: what it does, the fix that does it; None where hands have
    to."""

    told: Fact
    fix: Act | None


def cures_for(build: Build, found: System, alternator: Alternator, case: DutyCase) -> tuple[Cure, ...]:
    """What feeds all that is on in a case, so that the battery gives nothing while the fans run, best first; what a
    fix says, applied, it reaches."""
    wanted, rpm = found.needed, engine_rpm(build.brief, case)
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


def takes(found: System, cures: tuple[Cure, ...]) -> Fact:
    """What it takes, and what gives it."""
    if found.measured:
        return fact("measure_again")
    told = tuple(cure.told for cure in cures)
    needed = (found.needed, "current")
    return fact("takes", amps=needed, cures=told) if told else fact("takes.none", amps=needed)


def _other_alternator(alternator: Alternator, wanted: float, rpm: float) -> Cure:
    rating = larger_rating(alternator, wanted, rpm)
    if rating is None:
        return Cure(fact("cure.no_alternator", amps=(LARGEST, "current")), None)
    return Cure(
        fact("cure.alternator", amps=(rating, "current")),
        Act("larger_alternator", f"A {rating:.0f} A alternator", given=(("rating", f"{rating:.0f}"),)),
    )


def larger_rating(alternator: Alternator, wanted: float, rpm: float) -> float | None:
    """The rating on sale [A] whose like gives `wanted` [A] hot at an engine speed; None where none up to LARGEST
    does."""
    rating = rating_for(alternator, wanted, rpm)
    if rating is None:
        return None
    sold = math.ceil(rating / STEP - 1e-9) * STEP
    return sold if sold <= LARGEST else None


def _faster_idle(build: Build, alternator: Alternator, wanted: float, at: tuple[float, DutyCase]) -> Cure | None:
    """A higher idle speed while the A/C is on."""
    rpm, case = at
    idle = idle_for(alternator, wanted, rpm, rpm + MOST_IDLE_RISE) if stands(case) else None
    if idle is None:
        return None
    text = f"{math.ceil(idle / 10) * 10:.0f} rpm"
    told = fact("cure.idle", speed=text, now=(rpm / 60, "turning speed"))
    if case.rpm is not None:
        return Cure(told, set_act(f"Idle at {text}", ("duty_cases", case.id, "rpm"), text))
    return Cure(told, Act("faster_idle", f"Idle at {text}", given=(("rpm", text.split(maxsplit=1)[0]),)))


def _other_pulley(build: Build, alternator: Alternator, wanted: float, rpm: float) -> Cure | None:
    """A pulley that turns it faster; over its speed limit it is named as what it is, and never offered."""
    ratio, supply = ratio_for(alternator, wanted, rpm), build.supply
    if ratio is None:
        return Cure(fact("cure.no_pulley"), None)
    ratio = math.ceil(ratio * 100 - 1e-9) / 100
    top, limit = ratio * supply.redline.si, supply.speed_limit.si
    speeds = {"top": (top, "turning speed"), "limit": (limit, "turning speed")}
    if top > limit:
        return Cure(fact("cure.pulley_over", ratio=ratio, **speeds), None)
    less = (1 - alternator.ratio / ratio, "share")
    told = fact("cure.pulley", ratio=ratio, now=alternator.ratio, **speeds, less=less)
    return Cure(told, Act("faster_pulley", f"A pulley of {ratio:.2f}", given=(("ratio", f"{ratio:.2f}"),)))


def _led_lamps(build: Build, found: System) -> Cure | None:
    """Lamps that draw less: named with what they give back, offered where that is enough."""
    lamps = next((load for load in build.supply.loads if load.id == "lamps" and load.when != "moving"), None)
    if lamps is None or lamps.power.si <= LED_LAMPS:
        return None
    volts = rest_voltage(battery_of(build.supply))
    saved = (lamps.power.si - LED_LAMPS) * volts / (LOAD_VOLTAGE * battery_of(build.supply).cells) ** 2
    lacks = found.needed - found.modelled
    amps = {"saved": (saved, "current"), "lacks": (lacks, "current")}
    told = fact("cure.lamps_help", **amps) if lacks > saved else fact("cure.lamps")
    path = ("supply", "loads", "lamps", "power")
    return Cure(told, set_act("LED lamps", path, f"{LED_LAMPS:.0f} W") if saved >= lacks else None)


def _charger(build: Build, found: System) -> Cure | None:
    """What the battery gave has to come back: a charger on its posts."""
    if found.short <= 0:
        return None
    charge = (found.short / 2 * 3600, "charge")
    return Cure(fact("cure.charger", charge=charge), None)
