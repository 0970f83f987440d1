"""The air over the face, cell by cell, at a moment of a drive: speed, air behind the core, heat per area."""

from __future__ import annotations

from typing import Literal, NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Prepared
from keelroom.assess.figures.airfigures import Origins
from keelroom.assess.inputs.airside import AirSide, air_side
from keelroom.core.air.face import GRID, lane_of_rows
from keelroom.core.arrays import Floats
from keelroom.core.drive import places
from keelroom.core.drive.records import Run, Stands, told
from keelroom.core.kept import in_one_go
from keelroom.core.operating_point import Held, face_heat, looked_at

Quantity = Literal["speed", "air", "heat"]


class AirMap(NamedTuple):
    """Figures over the face, arrays of GRID with row 0 at the top; nan where the panel hides the cell.

    speed [m/s] of the air into the face (below 0: it runs backwards);  air [degC] behind the core;  heat [W/m2]
    origins : per fan, where its air comes from;  temperature [degC] the engine settles at;  road_speed [m/s]
    """

    speed: Floats
    air: Floats
    heat: Floats
    origins: tuple[Origins, ...]
    temperature: float
    settles: bool
    road_speed: float

    def of(self, what: Quantity) -> Floats:
        values: Floats = {"speed": self.speed, "air": self.air, "heat": self.heat}[what]
        return values


LAGS_BY = 15.0
"""[K] the coolant may be off what a thermostat that does not lag would make of it."""
HALVINGS = 16
"""steps to that coolant: to 0.5 mK"""


@in_one_go
def air_in_drive(made: Prepared, run: Run, at: float, blown: float | None = None) -> AirMap:
    """The map `at` a moment [s] of a drive: the air the drive goes by, between that of fans stopped and running, and
    the coolant with which the face gives what the core gave then.

    blown : the fans at another share of their flow than they were
    """
    found = made.situations
    temperature, share = (float(np.interp(at, run.time, run.of(line))) for line in (places.HOT, places.FANS))
    share = share if blown is None else blown
    gives = float(np.interp(at, run.time, told(run, "core_heat")))
    place = min(int(np.searchsorted(found.legs.until, at)), len(found.row) - 1)
    row, stands = int(found.row[place]), found.stands
    stopped, running = stands.fixed.stopped, stands.fixed.running
    share = min(max(share, 0.0), 1.0)
    flow = stopped.flows.core[row] + share * (running.flows.core[row] - stopped.flows.core[row])
    ahead = stopped.breath.ahead[row] + share * (running.breath.ahead[row] - stopped.breath.ahead[row])
    held = looked_at(np.array([row]), share, share)

    # The thermostat lags in a drive, at a steady point it does not: a coolant that opens it as far gives as much.
    low, high = temperature - LAGS_BY, temperature + LAGS_BY
    for _ in range(HALVINGS):
        as_warm = (low + high) / 2
        much = face_heat(stands.points, stands.fixed, stands.layout, as_warm, held).heat > gives
        low, high = (low, as_warm) if much else (as_warm, high)
    laid = laid_out(stands, air_side(made.build, made.package), (flow, float(ahead)), (as_warm, held))
    return AirMap(*laid, (), temperature, True, float(stands.points.situation.air_speed[row]))


def laid_out(
    stands: Stands, side: AirSide, air: tuple[Floats, float], held: tuple[float, Held]
) -> tuple[Floats, Floats, Floats]:
    """Speed [m/s], air behind [degC] and heat [W/m2] over the face.

    air : flow per class of the face [kg/s] and density ahead of it [kg/m3];  held : temperature [degC] out of the
    engine, and the one point that is looked at
    """
    points, fixed, layout = stands
    met = face_heat(points, fixed, layout, *held)
    row = int(held[1].rows[0])
    order = lane_of_rows(side.classes.mix, layout.crossflow, layout.passes)
    cell_area = float(fixed.surfaces.face_area[row]) / (GRID[0] * GRID[1])
    flux = air[0] / np.maximum(points.plant.network.area[row], 1e-9)
    speeds = side.classes.mix @ (flux[: side.classes.mix.shape[2]] / air[1])

    def on_face(lanes: Floats) -> Floats:
        laid: Floats = lanes[order]
        return laid if layout.crossflow else laid.T

    per_lane = met.capacity * (met.air_out - met.temperature)
    shares = points.plant.face.weight[row] * len(order)
    heat = on_face(per_lane / np.maximum(shares, 1e-9)[:, None]) / cell_area
    hidden = side.classes.mix.sum(axis=2) < 0.02
    speed, behind, given = (np.where(hidden, np.nan, one) for one in (speeds, on_face(met.air_out), heat))
    return speed, behind, given
