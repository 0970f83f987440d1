"""What the circuit holds part by part, how much it grows, what a tank must hold, and what is bought to fill it."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import Graph, graph_of
from keelroom.assess.inputs.coolant.ports import part_name
from keelroom.assess.placing import core_depth, size_of, tank_size
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.fluids.coolant import curves
from keelroom.core.kept import by_identity, by_value
from keelroom.core.loop.volume import (
    JACKET,
    Purchase,
    TankRoom,
    bought,
    core_volume,
    expansion,
    line_volume,
    room_wanted,
)
from keelroom.document.quantity import Quantity
from keelroom.document.schema.brief import Engine
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Loop, Part
from keelroom.document.schema.package import Core, Package

TANKED = ("surge_tank", "expansion_tank", "overflow")
"""parts that take what the coolant grows by"""
FULL_SHARE = {"surge_tank": 0.7, "expansion_tank": 0.5, "overflow": 0.33}
"""of what a tank holds, coolant in it cold (common practice)"""
USUAL_HOLDS = {"surge_tank": 1.5e-3, "expansion_tank": 2.0e-3, "overflow": 1.5e-3}
"""[m3] where nothing was entered (common practice)"""


class TankHeld(NamedTuple):
    """What one part holds [m3]; assumed: not measured."""

    name: str
    volume: float
    assumed: bool


class Volumes(NamedTuple):
    """What the circuit holds [m3]: its parts, and all of it, as measured where it was; growth: share from cold to hot;
    room: what a tank must have; tank: what takes the growth, with what it holds, None where there is none or it is
          not known."""

    parts: tuple[TankHeld, ...]
    total: float
    growth: float
    room: TankRoom
    tanks: tuple[Part, ...]


def volumes_of(build: Build, package: Package) -> Volumes | None:
    """What the circuit holds; None where engine or core are not known yet."""
    return _volumes(build.brief.engine, package, graph_of(build, package))


@by_identity(64)
def _volumes(engine: Engine, package: Package, graph: Graph) -> Volumes | None:
    core = package.core
    if engine.displacement is None or core.face_width is None or core.face_height is None:
        return None
    parts = (
        TankHeld("Engine with its heater", JACKET * engine.displacement.si, True),
        TankHeld("Core", core_volume((*size_of(core), core_depth(core)), _tanks(core)), True),
        *(
            TankHeld(run.name, line_volume(run.bore, run.length or 0.0), run.hose.length is None and run.route is None)
            for run in graph.runs
        ),
        *(_held(part) for part in package.loop.parts if part.kind in TANKED),
    )
    worked_out = sum(held.volume for held in parts)
    total = package.loop.hold.si if package.loop.hold else worked_out
    growth = growth_of(package.coolant.glycol, share_of(package))
    tanks = tuple(part for part in package.loop.parts if part.kind in TANKED)
    return Volumes(parts, total, growth, room_wanted(total, growth), tanks)


def _held(part: Part) -> TankHeld:
    holds = part.holds.si if part.holds else USUAL_HOLDS[part.kind]
    return TankHeld(part_name(part), FULL_SHARE[part.kind] * holds, part.holds is None)


def _tanks(core: Core) -> float:
    """Both tanks' room [m3]."""
    wide, high = size_of(core)
    return 2 * tank_size(core) * (core_depth(core) + core.tank_proud.si) * (high if core.flow == "crossflow" else wide)


AIR_IN = ("surge_tank", "expansion_tank")
"""parts whose air is under the cap's pressure: an overflow's is the outdoors'"""


def air_over(loop: Loop) -> float:
    """Air [m3] over the coolant, filled cold, that is under the cap's pressure."""
    return sum((1 - FULL_SHARE[part.kind]) * holds_of(part) for part in loop.parts if part.kind in AIR_IN)


def share_of(package: Package) -> float:
    """Share of glycol by volume, 0 where it is not known."""
    return si(package.coolant.glycol_share, 0.0)


def si(value: Quantity | None, otherwise: float) -> float:
    """The figure of a measure, or what stands in for it."""
    return otherwise if value is None else value.si


@by_value(16)
def growth_of(glycol: str, share: float) -> float:
    """Share by which a mix grows from cold to hot."""
    return expansion(curves(glycol_table(glycol), share))


def bottle_wanted(build: Build, package: Package) -> tuple[float, float, float] | None:
    """Coolant in the circuit, what it grows, and what a bottle has to hold [m3]; None where engine or core are not
    known yet."""
    found = volumes_of(build, package)
    return None if found is None else (found.total, found.room.growth, found.room.wanted)


OLD_SHARE = {"none": 0.0, "water": 0.0, "other": 0.0, "glycol_only": 1.0}
"""share of glycol in what stays in a drained circuit; of another sort all is flushed out with water first"""


def purchase_of(package: Package, total: float) -> Purchase:
    """Glycol and water to buy: what stays in a drained block counts, water where it was flushed."""
    loop, wanted = package.loop, share_of(package)
    stays = 0.0 if loop.old_coolant == "none" else loop.stays.si
    return bought(total, wanted, stays, OLD_SHARE.get(loop.old_coolant, wanted))


def holds_of(part: Part) -> float:
    """What a tank holds [m3], as entered or usual."""
    return si(part.holds, USUAL_HOLDS.get(part.kind, 0.0))
