"""What cures an alternator that is short at idle: each a sentence, and where an act in the build does it, the fix
that reaches what it says."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.electrical.charge import Charging, Draw
from keelroom.assess.fixes import set_act
from keelroom.assess.inputs.cases import stands
from keelroom.assess.inputs.electrical.system import LOAD_VOLTAGE, battery_of
from keelroom.assess.inputs.gearing import engine_rpm
from keelroom.core.electrical.charging import Alternator, idle_for, output, rating_for, ratio_for
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.facts import Fact, articled, fact

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


class Lack(NamedTuple):
    """A duty case the alternator is short in: amps that would keep the battery from emptying, engine speed [rpm]."""

    draw: Draw
    needs: float
    rpm: float


def cures_for(build: Build, facts: Charging) -> tuple[Cure, ...]:
    """What keeps the battery from emptying in every case that counts, the smallest of each kind, best first; what a fix
    says, applied, it reaches."""
    regulated = build.supply.regulated.si
    lacks = [
        Lack(draw, draw.needs(regulated), engine_rpm(build.brief, draw.case)) for draw in facts.draws if draw.empties
    ]
    if not lacks or any(one.draw.system.measured or not one.rpm for one in lacks):
        # A measured voltage stands until it is measured again.
        return ()
    cures = (
        _other_alternator(facts.alternator, lacks),
        _faster_idle(build, facts.alternator, lacks),
        _other_pulley(build, facts.alternator, lacks),
        _led_lamps(build, lacks),
        _charger(lacks),
    )
    return tuple(cure for cure in cures if cure)


def takes(build: Build, draw: Draw, cures: tuple[Cure, ...]) -> Fact:
    """What it takes, and what gives it."""
    if draw.system.measured:
        return fact("measure_again")
    told, regulated = tuple(cure.told for cure in cures), build.supply.regulated.si
    wanted = {"amps": (draw.needs(regulated), "current"), "volts": (regulated, "voltage")}
    return fact("takes", **wanted, cures=told) if told else fact("takes.none", **wanted)


def _other_alternator(alternator: Alternator, lacks: list[Lack]) -> Cure:
    ratings = [larger_rating(alternator, one.needs, one.rpm) for one in lacks]
    rating = max((one for one in ratings if one is not None), default=None)
    if rating is None or None in ratings:
        return Cure(fact("cure.no_alternator", amps=(LARGEST, "current")), None)
    return Cure(
        fact("cure.alternator", amps=(rating, "current")),
        Act("larger_alternator", articled(f"A {rating:.0f} A alternator"), given=(("rating", f"{rating:.0f}"),)),
    )


def larger_rating(alternator: Alternator, wanted: float, rpm: float) -> float | None:
    """The rating on sale [A] whose like gives `wanted` [A] hot at an engine speed; None where none up to LARGEST
    does."""
    rating = rating_for(alternator, wanted, rpm)
    if rating is None:
        return None
    sold = math.ceil(rating / STEP - 1e-9) * STEP
    return sold if sold <= LARGEST else None


def _beyond_label(alternator: Alternator, rpm: float) -> bool:
    """Whether a share known at idle would have to be more than all of its rating at an engine speed [rpm]: what was
    entered of it belies itself."""
    return alternator.idle_share is not None and output(alternator, rpm) > alternator.rating


def _faster_idle(build: Build, alternator: Alternator, lacks: list[Lack]) -> Cure | None:
    """A higher idle speed while the A/C is on, where one idling case is all that is short."""
    (_, needs, rpm), case = lacks[0], lacks[0].draw.case
    idle = idle_for(alternator, needs, rpm, rpm + MOST_IDLE_RISE) if stands(case) and len(lacks) == 1 else None
    if idle is None or _beyond_label(alternator, idle):
        return None
    text = f"{math.ceil(idle / 10 - 1e-4) * 10:.0f} rpm"
    told = fact("cure.idle", speed=text, now=(rpm / 60, "turning speed"))
    if case.rpm is not None:
        return Cure(told, set_act(f"Idle at {text}", ("duty_cases", case.id, "rpm"), text))
    return Cure(told, Act("faster_idle", f"Idle at {text}", given=(("rpm", text.split(maxsplit=1)[0]),)))


def _other_pulley(build: Build, alternator: Alternator, lacks: list[Lack]) -> Cure | None:
    """A pulley that turns it faster; over its speed limit it is named as what it is, and never offered."""
    ratios, supply = [ratio_for(alternator, one.needs, one.rpm) for one in lacks], build.supply
    ratio = max((one for one in ratios if one is not None), default=None)
    if ratio is None or None in ratios or _beyond_label(alternator._replace(ratio=ratio), lacks[0].rpm):
        return Cure(fact("cure.no_pulley"), None)
    ratio = math.ceil(ratio * 100 - 1e-4) / 100
    top, limit = ratio * supply.redline.si, supply.speed_limit.si
    speeds = {"top": (top, "turning speed"), "limit": (limit, "turning speed")}
    if top > limit:
        return Cure(fact("cure.pulley_over", ratio=ratio, **speeds), None)
    less = (1 - alternator.ratio / ratio, "share")
    told = fact("cure.pulley", ratio=ratio, now=alternator.ratio, **speeds, less=less)
    return Cure(told, Act("faster_pulley", f"A pulley of {ratio:.2f}", given=(("ratio", f"{ratio:.2f}"),)))


def _led_lamps(build: Build, lacks: list[Lack]) -> Cure | None:
    """Lamps that draw less: named with what they give back, offered where that is enough."""
    lamps = next((load for load in build.supply.loads if load.id == "lamps" and load.when == "always"), None)
    if lamps is None or lamps.power.si <= LED_LAMPS:
        return None
    volts = build.supply.regulated.si
    saved = (lamps.power.si - LED_LAMPS) * volts / (LOAD_VOLTAGE * battery_of(build.supply).cells) ** 2
    most = max(one.needs - one.draw.system.modelled for one in lacks)
    amps = {"saved": (saved, "current"), "lacks": (most, "current")}
    told = fact("cure.lamps_help", **amps) if most > saved else fact("cure.lamps")
    path = ("supply", "loads", "lamps", "power")
    return Cure(told, set_act("LED lamps", path, f"{LED_LAMPS:.0f} W") if saved >= most else None)


def _charger(lacks: list[Lack]) -> Cure | None:
    """What the battery gave has to come back: a charger on its posts."""
    given = max(one.draw.lacks for one in lacks)
    return Cure(fact("cure.charger", charge=(given / 2 * 3600, "charge")), None)
