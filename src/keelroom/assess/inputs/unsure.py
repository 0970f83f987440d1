"""How far what is entered may be off, by what it is and where it came from: standard doubts, common practice, no
source, unless said."""

from __future__ import annotations

import math

from keelroom.assess.inputs.air_parts import AirParts
from keelroom.core.arrays import scalars
from keelroom.core.unsure import Unsure
from keelroom.document.quantity import Quantity
from keelroom.document.schema.brief import Climate, Engine, Vehicle
from keelroom.document.schema.panels import EDGES

GAPS = 0.25, 0.5
"""Of the area of gaps: measured, and where nobody has measured them."""
CORE = 0.10, 0.12, 0.18
"""Of a core's conductance: fins counted and measured, by the catalogue, and assumed (±15 % on j, fouling and makers'
tolerances from memory)."""
ROAD = 0.18
"""Of what the road's air brings, over its dynamic pressure: recovery at a grille 0.6 to 1.0, under the car 0 to -0.2
(from memory)."""
ROAD_AWAY = 0.30
"""The same for a core that stands away from the nose."""
OPENINGS = 0.07, 0.15
"""Of the area of grille and exit: measured, and as such cars have it."""
COOLANT = 0.15, 0.25
"""Of a mechanical pump's flow: typed off a test, and as such engines have it."""
LOAD = 0.06, 0.10
"""Of the power at the wheels: on a car that was weighed, and as such cars weigh."""
GRILLE = 0.7, 2.0
"""[K] of the air at the grille over the weather's, standing: measured, and as it usually is over asphalt (3–8 K)."""


def unsure_of(brief: tuple[Engine, Vehicle], package: AirParts, fans: float) -> Unsure:
    """Of a package in a vehicle, whatever it is asked. fans: of their shut-off pressure."""
    engine, vehicle = brief
    edges = [getattr(package.sealing, edge).gap for edge in EDGES]
    gaps = [*edges, package.shroud.edge_gap] if package.shroud.kind != "none" else edges
    known = sum(map(_measured, gaps)) / len(gaps)
    return scalars(
        Unsure,
        fans=fans,
        leaks=GAPS[1] + known * (GAPS[0] - GAPS[1]),
        core=_of_core(package),
        road=ROAD_AWAY if package.remote.away else ROAD,
        openings=_openings(vehicle, package),
        flow=COOLANT[not _measured(engine.pump_flow)],
        load=LOAD[not _measured(vehicle.mass)],
        grille=0.0,
    )


def at_grille(climate: Climate, share: float) -> float:
    """[K] of the air at the grille where it gets a share of what it does over standing asphalt."""
    return GRILLE[not _measured(climate.asphalt_rise)] * share


def _measured(value: Quantity | None) -> bool:
    return value is not None and value.origin == "measured"


def _of_core(package: AirParts) -> float:
    core = package.core
    origins = {value.origin for value in (core.fin_density, core.fin_height, core.depth) if value}
    return CORE[2] if "assumed" in origins else CORE[0] if origins == {"measured"} else CORE[1]


def _openings(vehicle: Vehicle, package: AirParts) -> float:
    remote = package.remote
    both = (remote.inlet_area, remote.exit_area) if remote.away else (vehicle.grille_area, vehicle.exit_area)
    return math.sqrt(sum(OPENINGS[not _measured(area)] ** 2 for area in both) / 2)
