"""Drives of a car: from a state through its stretches, by the joint point at every step."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.drive import places
from keelroom.core.drive.lumps import Lumps
from keelroom.core.drive.records import Legs, Run, Stands, Start, Supply
from keelroom.core.electrical.control import ABSENT
from keelroom.core.joint.running import LegRows, LumpRows, Running, StageRows, SupplyRows
from keelroom.core.kept import by_identity
from keelroom.core.operating_point import joined_rows
from keelroom.core.plant import Points
from keelroom.errors import SolveError

ROOM = 6.0
"""Moments per stretch or second there is room for at first."""
BAY_OVER, GEARBOX_OVER = 10.0, 25.0
"""[K] over the day the bay's air and a gearbox's fluid are taken at in a warm car (common practice)."""
MOST = 2_000_000
"""Moments a drive is told in at most."""


@by_identity(8)
def runner(stands: Stands) -> Running:
    """The situations (n,) of one car as a drive goes through them. It has scratch room: one thread at a time.

    Source: definition.
    """
    return Running(*joined_rows(*stands))


def drive(stands: Stands, lumps: Lumps, legs: Legs, supply: Supply, start: Start, finer: float = 1.0) -> Run:
    """What a car does through `legs`.

    stands : the situations that legs stand in;  finer : how many times less a step may err
    Raises SolveError where a state came up that is none, or a drive has more to tell than there is room for.
    Source: Shampine and Reichelt's pair of orders 2 and 3, contacts found within their steps.
    """
    one = runner(stands)
    one.near, one.longest = places.NEAR / finer, places.LONGEST / finer ** (1 / 3)
    one.ready(_lump_rows(lumps), _leg_rows(legs), _supply_rows(supply), _stage_rows(stands.points))
    first = np.array([*map(float, start.contacts), start.seat, start.charge])
    room = int(ROOM * len(legs.until) + ROOM * finer * legs.until[-1] / 4 + 200)
    while True:
        out = _room(room)
        ends = one.run(np.ascontiguousarray(start.state, float), first, out)
        if ends != places.FULL:
            break
        if room >= MOST:
            raise SolveError("drive_too_long", "The drive has too many moments to be told", moments=room)
        room = min(4 * room, MOST)
    if ends == places.BROKEN:
        raise SolveError("drive_broke", "The drive came to a state that is none", at=float(out[0][one.kept - 1]))
    time, states, told = (part[: one.kept].copy() for part in out[:3])
    return Run(time, states, told)


def _room(count: int) -> tuple[Floats, Floats, Floats, Floats, Floats]:
    sides = ((count,), (count, places.SIZE), (count, places.TOLD), (count,), (count, 2))
    first, second, third, fourth, fifth = (np.empty(side) for side in sides)
    return first, second, third, fourth, fifth


def level(temperature: float, ambient: float, charge: float = 1.0) -> Start:
    """A car whose engine is `temperature` [degC] all through on a day of `ambient`, fans at rest; bay and gearbox no
    warmer than usual.

    Source: definition; BAY_OVER and GEARBOX_OVER common practice.
    """
    state = np.zeros(places.SIZE)
    state[: places.WARM] = temperature
    state[places.BAY] = min(temperature, ambient + BAY_OVER)
    state[places.GEARBOX] = min(temperature, ambient + GEARBOX_OVER)
    return Start(state, (False, False), temperature, charge)


def has_contacts(points: Points) -> Floats:
    """1 where a controller (n,) switches contacts, 0 where it varies.

    Source: definition.
    """
    there: Floats = (points.situation.command.law.stages.on < ABSENT).any(axis=1).astype(float)
    return there


def _lump_rows(lumps: Lumps) -> LumpRows:
    rows = LumpRows()
    for name, value in lumps._asdict().items():
        setattr(rows, name, value)
    return rows


def _leg_rows(legs: Legs) -> LegRows:
    rows = LegRows()
    for name, value in legs._asdict().items():
        setattr(rows, name, np.ascontiguousarray(value, np.int_ if name == "row" else float))
    return rows


def _supply_rows(supply: Supply) -> SupplyRows:
    rows = SupplyRows()
    for name, value in supply._asdict().items():
        setattr(rows, name, value if name == "capacity" else np.ascontiguousarray(value, float))
    return rows


def _stage_rows(points: Points) -> StageRows:
    stages, rows = points.situation.command.law.stages, StageRows()
    for name in ("off", "on", "above", "above_power"):
        setattr(rows, name, np.ascontiguousarray(getattr(stages, name), float))
    return rows
