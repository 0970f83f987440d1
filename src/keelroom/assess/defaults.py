"""What a new build starts from: default duty cases made from the brief, and the first package."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.document.quantity import quantity
from keelroom.document.schema.brief import Brief, Engine, EngineKind
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.electrical import Load, Supply, usual_loads
from keelroom.document.schema.package import Package


def default_duty_cases(brief: Brief) -> tuple[DutyCase, ...]:
    """Idle, stop-and-go, cruise and grade with load, as this brief would meet them."""
    ac = brief.accessories.ac_fitted
    with_ac = ", A/C on" if ac else ""
    return (
        DutyCase(id="idle", name=f"Idle{with_ac}", demand="idle", ac_on=ac),
        DutyCase(
            id="traffic",
            name="Stop-and-go",
            speed=quantity("8 mph", "speed"),
            gear_step=quantity("3", "number"),
            stops_per_km=quantity("3", "number"),
            ac_on=ac,
        ),
        DutyCase(id="cruise", name="Steady cruise", speed=quantity("65 mph", "speed"), ac_on=ac),
        DutyCase(
            id="grade",
            name="Grade with load",
            speed=quantity("45 mph", "speed"),
            grade=quantity("6 %", "share"),
            towed_mass=quantity("1500 lb", "mass"),
            gear_step=quantity("1.5", "number"),
            ac_on=ac,
        ),
    )


FULL_POWER = DutyCase(id="full", name="Sustained full power", demand="full_power", speed=quantity("60 mph", "speed"))
"""What few cars ever do for longer than a pull: judged where it is asked for."""


REDLINE_OVER_POWER = 1.1
"""Times the speed of greatest power an engine is turned to where its redline is not known (common practice)."""


def fastest_named(engine: Engine) -> float:
    """The fastest speed [1/s] the engine is said to run at, idle or greatest power; 0 where neither is known."""
    return max((value.si for value in (engine.idle_rpm, engine.power_rpm) if value), default=0.0)


def usual_redline(engine: Engine) -> str | None:
    """The redline such an engine has, as it would be typed; None where its speeds are not known."""
    speed = fastest_named(engine)
    return f"{REDLINE_OVER_POWER * speed * 60:.0f} rpm" if speed else None


class Wired(NamedTuple):
    """What an engine of a kind is wired with: watts of ignition and control, and of the fuel's electric pump (0: the
    engine's own), amps of the alternator of a small one (under SMALL) and of a larger, and the rpm that stands."""

    spark: float
    pump: float
    small: float
    large: float
    limit: float


SMALL = 2.5e-3
"""[m3] of displacement under which an engine has the small alternator of its kind (common practice)."""
WIRED: dict[EngineKind, Wired] = {
    "carburetted": Wired(45, 0, 45, 63, 15000),
    "injected": Wired(90, 90, 105, 120, 18000),
    "modern": Wired(110, 150, 120, 160, 18000),
    "boosted": Wired(100, 150, 105, 160, 18000),
    "diesel": Wired(120, 60, 105, 120, 15000),
}
"""Common practice, no source: a carburettor's pump is the engine's own, and such cars were built with small
generators."""


BY_DAY = 45.0
"""[W] of lamps that are on by day: the hottest hour of the year is not at night (common practice, no source)."""


def usual_wired(engine: Engine) -> tuple[tuple[Load, ...], str]:
    """The loads a car with such an engine has beside fans, and its alternator's rating as it would be typed."""
    wired = WIRED[engine.kind]
    watts = {"ignition": wired.spark, "fuel_pump": wired.pump, "lamps": BY_DAY}
    loads = tuple(
        load.model_copy(update={"power": quantity(f"{watts[load.id]:g} W", "electrical power")})
        if load.id in watts
        else load
        for load in usual_loads()
        if watts.get(load.id, 1.0) > 0
    )
    small = engine.displacement is not None and engine.displacement.si < SMALL
    return loads, f"{wired.small if small else wired.large:g} A"


STOCK_K = ((1.8e-3, 200.0), (5.7e-3, 140.0))
"""K [rpm/sqrt(lbf ft)] of the converter behind a small engine and behind a large one, by displacement [m3]: stock 140
to 200, the smaller the looser, so that each stalls near 2 000 rpm (common practice)."""


def usual_converter(engine: Engine) -> str | None:
    """The K of the converter such an engine has, as it would be typed; None where its size is not known."""
    if engine.displacement is None:
        return None
    return f"{_between(engine.displacement.si, STOCK_K):.0f}"


COMPRESSOR = ((1.8e-3, 1.6), (5.0e-3, 2.5))
"""[kW] a compressor takes at idle in the car of a small engine and of a large one, by displacement [m3]: some 130 cm3
against 200, by the size of their cabins (common practice)."""
ON_THE_ROAD = 1.28
"""Times that on the road (common practice)."""


def usual_compressor(engine: Engine) -> tuple[str, str]:
    """What the compressor of a car with such an engine takes at idle and on the road, as it would be typed; '' where
    its size is not known."""
    if engine.displacement is None:
        return "", ""
    idle = _between(engine.displacement.si, COMPRESSOR)
    return f"{idle:.1f} kW", f"{ON_THE_ROAD * idle:.1f} kW"


def _between(displacement: float, ends: tuple[tuple[float, float], tuple[float, float]]) -> float:
    """What goes with an engine's size, between a small one and a large one."""
    (small, low), (large, high) = ends
    return low + min(max((displacement - small) / (large - small), 0.0), 1.0) * (high - low)


FASTEST_PULLEY = 3.0
"""Alternator turns per crank turn a car is built with at most (common practice: 2 to 3)."""


def usual_limit(engine: Engine) -> str:
    """The speed the alternator of such an engine stands, as it would be typed."""
    return f"{WIRED[engine.kind].limit:g} rpm"


def usual_pulley(engine: Engine, supply: Supply) -> str | None:
    """The pulley such an engine is built with, as it would be typed: as fast as its redline lets the alternator turn;
    None where the engine's speeds are not known."""
    speed = fastest_named(engine)
    if not speed:
        return None
    most = supply.speed_limit.si / (REDLINE_OVER_POWER * speed)
    return f"{min(FASTEST_PULLEY, math.floor(most * 100) / 100):.2f}"


def new_build() -> Build:
    """An empty build: a brief with assumed defaults where they are credible, one package to fill, four duty cases."""
    brief = Brief()
    return Build(
        brief=brief, packages=(Package(id="p1", name="Package A"),), active="p1", duty_cases=default_duty_cases(brief)
    )
