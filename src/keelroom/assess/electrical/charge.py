"""What charging asks for and what cures it: pulley, alternator, cable, and the battery on its own."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.electrical.figures import Electrics, sizes_like
from keelroom.assess.electrical.system import alternator_of, battery_of, run_of
from keelroom.assess.wording import set_fix
from keelroom.build.edits import Edit, set_value
from keelroom.build.quantity import quantity
from keelroom.build.schema.build import Build
from keelroom.build.schema.electrical import Supply
from keelroom.core.electrical.charging import Alternator, discharge_time, rating_for, ratio_for
from keelroom.core.electrical.circuit import Run
from keelroom.core.electrical.motor import current_at
from keelroom.core.electrical.protection import fuse_sizes
from keelroom.core.electrical.wire import ampacity, conductor, conductor_temperature, wire_voltage_drop
from keelroom.core.findings import Fix
from keelroom.errors import InputError
from keelroom.gauges import is_metric

LARGEST = 320.0
"""[A] of the largest alternator on sale for a car."""
CHARGE_FUSE = 1.15
"""Times the alternator's rating its cable's fuse is at least: cold it gives some more than that (common practice)."""
STEP = 5.0
"""[A] alternators are told apart by."""


def fan_current_alone(build: Build, found: Electrics | None) -> float:
    """Amps of the fans on the battery alone, at 12 V."""
    motors = (
        [m for one in found.circuits for m in one.motors if m.fan and not one.fault] + [m for m in found.loose if m.fan] if found else []
    )
    return sum(current_at(motored.motor, 12.0 * battery_of(build.supply).cells) for motored in motors)


def share_taken(build: Build, found: Electrics | None, seconds: float) -> float:
    """Share of a full battery the fans alone take in so many seconds."""
    amps, battery = fan_current_alone(build, found), battery_of(build.supply)
    return seconds / discharge_time(battery, amps) * battery.state if amps else 0.0


class Cures(NamedTuple):
    """What gives the wanted amps hot at idle: a pulley ratio, the rating [A] of an alternator of its kind; None where none does."""

    wanted: float
    ratio: float | None
    rating: float | None


def cures_for(build: Build, alternator: Alternator, wanted: float) -> Cures:
    """Pulley and alternator that would give `wanted` [A] hot at idle."""
    idle = build.brief.engine.idle_rpm
    if idle is None:
        return Cures(wanted, None, None)
    rpm = idle.si * 60
    rating = rating_for(alternator, wanted, rpm)
    return Cures(wanted, ratio_for(alternator, wanted, rpm), rating if rating is not None and rating <= LARGEST else None)


def cure_words(build: Build, alternator: Alternator, cures: Cures) -> str:
    """What cures an alternator that is short at idle, and what a pulley does to belt and speed limit."""
    supply = build.supply
    limit = supply.speed_limit.si * 60
    words = [f"To hold {supply.regulated.si:g} V with everything on it takes {cures.wanted:.0f} A"]
    if cures.ratio is not None:
        top = cures.ratio * supply.redline.si * 60
        fits = f"within its {limit:.0f} rpm" if top <= limit else f"over its {limit:.0f} rpm limit"
        words.append(
            f"a pulley of {cures.ratio:.2f} instead of {alternator.ratio:.2f} gives it ({top:.0f} rpm at the redline, {fits}; the belt wraps {1 - alternator.ratio / cures.ratio:.0%} less pulley and slips sooner)"
        )
    else:
        words.append("no pulley gives it")
    if cures.rating is not None:
        words.append(f"a {math.ceil(cures.rating / STEP) * STEP:.0f} A unit of its kind does")
    return "; ".join(words) + "."


def cure_fixes(build: Build, alternator: Alternator, cures: Cures) -> tuple[Fix, ...]:
    """The acts that cure it, each where there is one: the alternator, and the pulley within the speed limit."""
    fixes: tuple[Fix, ...] = ()
    if cures.rating is not None:
        fixes = (Fix("larger_alternator", "An alternator that feeds it", (("wanted", f"{cures.wanted:.0f}"),)),)
    ratio, supply = cures.ratio, build.supply
    if ratio is not None and alternator.idle_share is None and ratio * supply.redline.si <= supply.speed_limit.si:
        text = f"{math.ceil(ratio * 100) / 100:.2f}"
        fixes = (*fixes, set_fix(f"A pulley of {text}", ("supply", "pulley_ratio"), text))
    return fixes


class ChargeCable(NamedTuple):
    """The charge cable at an alternator's rating [A]: volts it loses and may lose, its ampacity [A] where it lies, copper and insulation
    limit [degC], its fuse [A] (None: none) and the one it ought to have (None: none is made)."""

    rating: float
    drop: float
    drop_limit: float
    ampacity: float
    warm: float
    limit: float
    fuse: float | None
    fuse_wanted: float | None

    @property
    def carries(self) -> float:
        """Amps it must stand: what flows, and what its fuse lets through."""
        return max(self.rating, self.fuse or 0.0)

    @property
    def fits(self) -> bool:
        """Whether it neither loses too much nor is worked too hard."""
        return self.drop <= self.drop_limit and self.ampacity >= self.carries


def charge_cable(supply: Supply, rating: float, run: Run | None = None) -> ChargeCable:
    """The supply's charge cable, or another `run` in its place, at `rating` [A]."""
    run = run or run_of(supply.charge_wire)
    warm = conductor_temperature(run.wire, rating, run.ambient, run.loaded)
    return ChargeCable(
        rating=rating,
        drop=wire_voltage_drop(rating, run.length, run.wire, warm) / 2,
        drop_limit=supply.charge_limit.si,
        ampacity=ampacity(run.wire, run.ambient, run.loaded),
        warm=warm,
        limit=run.wire.limit,
        fuse=supply.charge_fuse.si if supply.charge_fuse else None,
        fuse_wanted=charge_fuse_for(rating),
    )


def charge_fuse_for(rating: float) -> float | None:
    """The smallest bolt-down fuse [A] an alternator of `rating` [A] never opens while it charges."""
    return next((size for size in fuse_sizes("bolt_down") if size >= CHARGE_FUSE * rating), None)


def cable_for(supply: Supply, rating: float) -> str | None:
    """The smallest charge cable that carries an alternator's rating [A] and its fuse within its drop; None where none does."""
    wire = supply.charge_wire
    run, metric = run_of(wire), is_metric(wire.size.unit)
    for text, area in sizes_like(metric):
        if charge_cable(supply, rating, run._replace(wire=conductor(area, metric, wire.cable))).fits:
            return text
    return None


def larger_alternator(build: Build, wanted: float) -> Edit:
    """An alternator of the same kind that gives `wanted` [A] hot at idle. Raises InputError where none does."""
    alternator = alternator_of(build.brief.accessories, build.brief.engine, build.supply)
    rating = cures_for(build, alternator, wanted).rating if alternator else None
    if rating is None:
        raise InputError("no_alternator", "No alternator of its kind gives that at this idle speed and pulley")
    text = f"{math.ceil(rating / STEP) * STEP:g} A"
    return set_value(("brief", "accessories", "alternator_rating"), quantity(text, "current"), f"Alternator of {text}")


def larger_cable(build: Build) -> Edit:
    """The smallest charge cable that will do. Raises InputError where none does."""
    rating = build.brief.accessories.alternator_rating
    size = cable_for(build.supply, rating.si) if rating else None
    if size is None:
        raise InputError("no_cable", "No single cable keeps within that drop: shorten it or run two")
    return set_value(("supply", "charge_wire", "size"), quantity(size, "wire size", "derived"), f"Charge cable {size}")
