"""What charging asks for and what cures it: pulley, alternator, cable, and the battery on its own."""

from __future__ import annotations

import math

from keelroom.assess.electrical.figures import Electrics, sizes_like
from keelroom.assess.electrical.system import alternator_of, battery_of, run_of
from keelroom.assess.wording import set_fix
from keelroom.build.edits import Edit, set_value
from keelroom.build.quantity import quantity
from keelroom.build.schema.build import Build
from keelroom.core.electrical.charging import rating_for, ratio_for
from keelroom.core.electrical.circuit import Run
from keelroom.core.electrical.motor import current_at
from keelroom.core.electrical.wire import ampacity, conductor, conductor_temperature, wire_voltage_drop
from keelroom.core.findings import Fix
from keelroom.errors import InputError
from keelroom.gauges import is_metric

LARGEST = 320.0
"""[A] of the largest alternator on sale for a car."""
STEP = 5.0
"""[A] alternators are told apart by."""


def fan_current_alone(build: Build, found: Electrics | None) -> float:
    """Amps of the fans on the battery alone, at 12 V."""
    motors = (
        [m for one in found.circuits for m in one.motors if m.fan and not one.fault] + [m for m in found.loose if m.fan] if found else []
    )
    return sum(current_at(motored.motor, 12.0 * battery_of(build.supply).cells) for motored in motors)


def cure_words(build: Build, found: Electrics, need: float) -> str:
    """What cures an alternator that is short at idle: pulley or rating, and what the pulley does to belt and speed limit."""
    alternator, supply = found.alternator, build.supply
    idle = build.brief.engine.idle_rpm
    if alternator is None or idle is None:
        return ""
    rpm, redline, limit = idle.si * 60, supply.redline.si * 60, supply.speed_limit.si * 60
    ratio, rating = ratio_for(alternator, need, rpm), rating_for(alternator, need, rpm)
    words = [f"To hold {supply.regulated.si:g} V with everything on it takes {need:.0f} A"]
    if ratio is not None:
        top = ratio * redline
        fits = f"within its {limit:.0f} rpm" if top <= limit else f"over its {limit:.0f} rpm limit"
        words.append(
            f"a pulley of {ratio:.2f} instead of {alternator.ratio:.2f} gives it ({top:.0f} rpm at the redline, {fits}; the belt wraps {1 - alternator.ratio / ratio:.0%} less pulley and slips sooner)"
        )
    else:
        words.append("no pulley gives it")
    if rating is not None and rating <= LARGEST:
        words.append(f"a {math.ceil(rating / 5) * 5:.0f} A unit of its kind does")
    return "; ".join(words) + "."


def cures(build: Build, found: Electrics, need: float) -> tuple[Fix, ...]:
    """The alternator of its kind, and the pulley within the speed limit, that give `need` [A] hot at idle; each where there is one."""
    alternator, supply, idle = found.alternator, build.supply, build.brief.engine.idle_rpm
    if alternator is None or idle is None:
        return ()
    fixes: tuple[Fix, ...] = ()
    rating, ratio = rating_for(alternator, need, idle.si * 60), ratio_for(alternator, need, idle.si * 60)
    if rating is not None and rating <= LARGEST:
        fixes = (Fix("larger_alternator", "An alternator that feeds it", (("wanted", f"{need:.0f}"),)),)
    if ratio is not None and alternator.idle_share is None and ratio * supply.redline.si <= supply.speed_limit.si:
        text = f"{math.ceil(ratio * 100) / 100:.2f}"
        fixes = (*fixes, set_fix(f"A pulley of {text}", ("supply", "pulley_ratio"), text))
    return fixes


def charge_drop(run: Run, rating: float) -> float:
    """Volts lost on one run at `rating` [A], the wire as warm as that makes it."""
    return wire_voltage_drop(rating, run.length, run.wire, conductor_temperature(run.wire, rating, run.ambient, run.loaded)) / 2


def cable_for(build: Build, rating: float) -> str | None:
    """The smallest charge cable that carries an alternator's rating [A] within its drop; None where none does."""
    supply, wire = build.supply, build.supply.charge_wire
    run, metric = run_of(wire), is_metric(wire.size.unit)
    for text, area in sizes_like(metric):
        tried = run._replace(wire=conductor(area, metric, wire.cable))
        if ampacity(tried.wire, run.ambient, run.loaded) >= rating and charge_drop(tried, rating) <= supply.charge_limit.si:
            return text
    return None


def larger_alternator(build: Build, wanted: float) -> Edit:
    """An alternator of the same kind that gives `wanted` [A] hot at idle. Raises InputError where none does."""
    alternator, idle = alternator_of(build.brief.accessories, build.brief.engine, build.supply), build.brief.engine.idle_rpm
    rating = rating_for(alternator, wanted, idle.si * 60) if alternator and idle else None
    if rating is None or rating > LARGEST:
        raise InputError("no_alternator", "No alternator of its kind gives that at this idle speed and pulley")
    text = f"{math.ceil(rating / STEP) * STEP:g} A"
    return set_value(("brief", "accessories", "alternator_rating"), quantity(text, "current"), f"Alternator of {text}")


def larger_cable(build: Build) -> Edit:
    """The smallest charge cable that will do. Raises InputError where none does."""
    rating = build.brief.accessories.alternator_rating
    size = cable_for(build, rating.si) if rating else None
    if size is None:
        raise InputError("no_cable", "No single cable keeps within that drop: shorten it or run two")
    return set_value(("supply", "charge_wire", "size"), quantity(size, "wire size", "derived"), f"Charge cable {size}")
