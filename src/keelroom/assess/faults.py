"""Each cheap cause as it would stand in the build: entries that move the model as the fault moves the car.

Sizes common practice, no source.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from typing import NamedTuple

from keelroom.document.edits import Change, fresh_id
from keelroom.document.fields import Path, get
from keelroom.document.quantity import Quantity, from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import EDGES
from keelroom.units import KINDS, format_si


class Fault(NamedTuple):
    """One size of a cause. changes: the entries that say it;  reads_high [K]: what a gauge shows over the coolant."""

    cause: str
    size: str
    changes: tuple[Change, ...]
    reads_high: float = 0.0


WIDE = ("1 in", "3 in")
"""Gaps that were left open all round."""
RETARDED = (("a little late or lean", "1.2"), ("very late or lean", "1.5"))
DIRTY = (("a quarter of the face", 0.25), ("half of the face", 0.5))
DIRT = "Dirt in the core"
STOPPED = "60"
"""Dynamic heads of a core whose fins are full of dirt."""
STARVED = ("12 V", "10.5 V")
"""At the battery, everything on: half a charge, and nearly flat."""
CLUTCH_SLIPS = 0.5
"""Share of its speed a fan keeps whose clutch has lost its oil."""
HOT_AIR = ("5 K", "11 K")
GAUGE = ("4 K", "8 K")
DRAGS = 2.5
"""Times the rolling resistance with a brake that drags."""
SLIPS = 0.75
"""Share of the power a gearbox still passes on whose plates slip."""
PROUD = ("1/2 in", "1 in")
"""Of a shroud that is not down on the core."""


_SIZED = re.compile(r"(\d+(?:/\d+)?) (K|in)\b")
_KIND_OF = {"K": "temperature difference", "in": "length"}


def size_words(size: str, system: str) -> str:
    """A size as it is kept, in the units somebody reads."""

    def shown(match: re.Match[str]) -> str:
        kind = _KIND_OF[match[2]]
        return format_si(quantity(match[0], kind, "assumed").si, KINDS[kind], system)

    return _SIZED.sub(shown, size)


def faults_of(build: Build, package: Package) -> tuple[Fault, ...]:
    """Every size of every cause this build could have and is not said to have already."""
    where: Path = ("packages", package.id)
    found = [fault for make in _MAKERS for fault in make(build, package, where)]
    return tuple(found)


def _air(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    if package.loop.air_left == "bled":
        yield Fault("air_lock", "it gurgles", (Change((*where, "loop", "air_left"), "some"),))
        yield Fault("air_lock", "a pocket stands", (Change((*where, "loop", "air_left"), "locked"),))


def _thermostat(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    loop = package.loop
    if loop.thermostat_state == "fitted":
        yield Fault("thermostat", "backwards", (Change((*where, "loop", "thermostat_state"), "reversed"),))
        if loop.thermostat is not None:
            late = from_si(loop.thermostat.si + 15.0, "temperature", "si", "assumed")
            yield Fault("thermostat", "opens 15 K late", (Change((*where, "loop", "thermostat"), late),))


def _hoses(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    soft = tuple(
        Change((*where, "loop", "hoses", hose.id, "state"), "soft")
        for hose in package.loop.hoses
        if hose.state == "good"
    )
    if soft:
        yield Fault("hoses", "soft, drawn flat", soft)


def _cap(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    if package.loop.cap_state == "good":
        yield Fault("cap", "lets go early", (Change((*where, "loop", "cap_state"), "weak"),))


def _pump(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    if package.loop.impeller == "good":
        yield Fault("pump", "a worn impeller", (Change((*where, "loop", "impeller"), "worn"),))
    if build.supply.belt == "good":
        yield Fault("pump", "a belt that slips", (Change(("supply", "belt"), "slips"),))


def _fans(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    running = [fan for fan in package.fans if fan.runs and fan.motor != "engine"]
    backwards = tuple(
        Change((*where, "fans", fan.id, "reversed_blade"), True) for fan in running if not fan.reversed_blade
    )
    if backwards:
        yield Fault("fan_direction", "runs backwards", backwards)
    if running:
        yield Fault(
            "fan_dead",
            "one of them" if len(running) > 1 else "it stands",
            (Change((*where, "fans", running[0].id, "runs"), False),),
        )
    if len(running) > 1:
        yield Fault(
            "fan_dead", "all of them", tuple(Change((*where, "fans", fan.id, "runs"), False) for fan in running)
        )
    for fan in package.fans:
        if fan.motor == "engine" and fan.runs:
            slow = from_si(max(fan.ratio.si * CLUTCH_SLIPS, 0.25), "number", "si", "assumed")
            yield Fault("fan_dead", "a clutch that slips", (Change((*where, "fans", fan.id, "ratio"), slow),))
    if running and build.brief.accessories.idle_voltage is None:
        for volts in STARVED:
            low = quantity(volts, "voltage", "assumed")
            yield Fault("fan_volts", f"{volts} at idle", (Change(("brief", "accessories", "idle_voltage"), low),))


def _gaps(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    for text in WIDE:
        wide = quantity(text, "length", "assumed")
        changes = tuple(
            Change((*where, "sealing", edge, "gap"), wide)
            for edge in EDGES
            if getattr(package.sealing, edge).gap.si < wide.si
        )
        if changes:
            yield Fault("sealing", f"{text} open all round", changes)
    if package.shroud.kind == "full":
        yield Fault("shroud_off", "none", (Change((*where, "shroud", "kind"), "none"),))
    if package.shroud.kind != "none":
        for text in PROUD:
            off = quantity(text, "length", "assumed")
            if package.shroud.edge_gap.si < off.si:
                yield Fault("shroud_off", f"{text} off the core", (Change((*where, "shroud", "edge_gap"), off),))


def _heat(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    entered = build.brief.engine.heat_multiplier
    for size, factor in RETARDED:
        if entered is None or entered.si < float(factor):
            more = quantity(factor, "number", "assumed")
            yield Fault("timing", size, (Change(("brief", "engine", "heat_multiplier"), more),))


def _core(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    states = ("clean", "some_scale", "bad")
    words = {"some_scale": "some", "bad": "bad"}
    for state in states[states.index(package.core.condition) + 1 :]:
        yield Fault("scale", words[state], (Change((*where, "core", "condition"), state),))
    if package.core.face_width is not None:
        for size, share in DIRTY:
            yield Fault("blocked", size, (Change((*where, "coolers"), (*package.coolers, _dirt(package, share))),))


def _dirt(package: Package, share: float) -> Cooler:
    """What stops so much of the face."""
    assert package.core.face_width
    return Cooler(
        id=fresh_id(package.coolers, "dirt"),
        name=DIRT,
        kind="screen",
        width=from_si(package.core.face_width.si * share, "length", "si", "assumed"),
        loss=quantity(STOPPED, "number", "assumed"),
        thickness=quantity("1 mm", "length", "assumed"),
        stand_off=quantity("0 mm", "length", "assumed"),
    )


def _mix(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    share = package.coolant.glycol_share
    if share is not None and share.si < 0.8:
        much = quantity("85 %", "share", "assumed")
        yield Fault("mix", "85 % glycol", (Change((*where, "coolant", "glycol_share"), much),))


def _around(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    rise: Quantity | None = build.brief.climate.asphalt_rise
    for text in HOT_AIR:
        more = from_si((rise.si if rise else 0.0) + float(text.split()[0]), "temperature difference", "si", "assumed")
        yield Fault("hot_air", f"{text} more", (Change(("brief", "climate", "asphalt_rise"), more),))
    rolling = build.brief.vehicle.rolling
    if rolling is not None:
        drags = from_si(min(rolling.si * DRAGS, 0.1), "number", "si", "assumed")
        yield Fault("brakes", "drags", (Change(("brief", "vehicle", "rolling"), drags),))
    for text in GAUGE:
        yield Fault("gauge", f"{text} high", (), float(text.split()[0]))


def _gearbox(build: Build, package: Package, where: Path) -> Iterator[Fault]:
    vehicle = build.brief.vehicle
    if vehicle.gearbox == "automatic" and vehicle.lockup:
        yield Fault("gearbox", "never locks", (Change(("brief", "vehicle", "lockup"), False),))
    passed = vehicle.driveline_efficiency
    if vehicle.gearbox == "automatic" and passed is not None and passed.si > SLIPS:
        less = from_si(SLIPS, "share", "si", "assumed")
        yield Fault("gearbox", "its plates slip", (Change(("brief", "vehicle", "driveline_efficiency"), less),))


_MAKERS: tuple[Callable[[Build, Package, Path], Iterator[Fault]], ...] = (
    _air,
    _thermostat,
    _hoses,
    _cap,
    _pump,
    _fans,
    _gaps,
    _heat,
    _core,
    _mix,
    _around,
    _gearbox,
)


WELL: tuple[tuple[str, str, tuple[str | bool, ...], str | bool], ...] = (
    ("air_lock", "loop.air_left", ("some", "locked"), "bled"),
    ("thermostat", "loop.thermostat_state", ("reversed",), "fitted"),
    ("hoses", "loop.hoses.*.state", ("soft", "swollen", "cracked"), "good"),
    ("cap", "loop.cap_state", ("weak",), "good"),
    ("pump", "loop.impeller", ("worn",), "good"),
    ("fan_direction", "fans.*.reversed_blade", (True,), False),
    ("fan_dead", "fans.*.runs", (False,), True),
    ("scale", "core.condition", ("some_scale", "bad"), "clean"),
)
"""Entries of the package that are well again of themselves once a cause is mended: where, what is wrong, what is well;
`*` for each member of a list. Gaps, shroud, volts, weather and brakes go back to what stood where they were entered as
found."""


def mends(build: Build, package: Package, cause: str) -> tuple[Change, ...]:
    """The entries of a cause that was mended, as they stand when all is well; none where nothing of it is entered."""
    where: Path = ("packages", package.id)
    found = [
        Change(path, well)
        for of, there, wrong, well in WELL
        if of == cause
        for path in _each(build, where, there.split("."))
        if get(build, path) in wrong
    ]
    return (*found, *_MADE_WELL[cause](build, package, where)) if cause in _MADE_WELL else tuple(found)


def _each(build: Build, where: Path, steps: list[str]) -> Iterator[Path]:
    """Paths of an entry, or of that entry of each member of a list."""
    if "*" not in steps:
        yield (*where, *steps)
        return
    at = steps.index("*")
    for member in get(build, (*where, *steps[:at])):
        yield (*where, *steps[:at], member.id, *steps[at + 1 :])


def _tightened(build: Build, package: Package, where: Path) -> Iterator[Change]:
    if build.supply.belt != "good":
        yield Change(("supply", "belt"), "good")


def _tuned(build: Build, package: Package, where: Path) -> Iterator[Change]:
    entered = build.brief.engine.heat_multiplier
    # A head of iron or a turbo's water is not what was mended.
    if entered is not None and entered.si in [float(factor) for _, factor in RETARDED]:
        yield Change(("brief", "engine", "heat_multiplier"), quantity("1", "number", "assumed"))


def _washed(build: Build, package: Package, where: Path) -> Iterator[Change]:
    left = tuple(cooler for cooler in package.coolers if cooler.name != DIRT)
    if len(left) < len(package.coolers):
        yield Change((*where, "coolers"), left)


def _mixed(build: Build, package: Package, where: Path) -> Iterator[Change]:
    share = package.coolant.glycol_share
    if share is not None and share.si > 0.7:
        yield Change((*where, "coolant", "glycol_share"), quantity("50 %", "share", "assumed"))


_MADE_WELL: dict[str, Callable[[Build, Package, Path], Iterator[Change]]] = {
    "pump": _tightened,
    "timing": _tuned,
    "blocked": _washed,
    "mix": _mixed,
}
"""What is well again by more than a word."""
