"""What stores heat in a package's car: proposed from its size, with what somebody knows better put over it."""

from __future__ import annotations

from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.volumes import volumes_of
from keelroom.assess.placing import core_depth, size_of
from keelroom.core.drive.lumps import Lumps, Sizes, proposed
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

USUAL_HOSE = 0.6e-3
"""[m3] of a hose nobody measured (common practice: 0.6 m of 36 mm)."""
USUAL_CORE = 3.0e-3


def lumps_of(build: Build, package: Package) -> Lumps:
    """The lumps of a package in this vehicle. Call only when nothing of the car is missing."""
    stores, engine, core = build.driving.stores, build.brief.engine, package.core
    held = volumes_of(build, package)
    parts = {part.name: part.volume for part in held.parts} if held else {}
    wide, high = size_of(core)
    hoses = [run for run in graph_of(build, package).runs if run.hose.id in ("upper", "lower")]
    volumes = {run.hose.id: parts.get(run.name, USUAL_HOSE) for run in hoses}
    displacement = engine.displacement.si if engine.displacement else 1e-3
    lumps = proposed(
        Sizes(
            displacement=displacement,
            make=stores.make,
            gearbox=build.brief.vehicle.gearbox,
            jacket=parts.get("Engine with its heater", 1.3 * displacement),
            in_core=parts.get("Core", USUAL_CORE),
            upper=volumes.get("upper", USUAL_HOSE),
            lower=volumes.get("lower", USUAL_HOSE),
            core=wide * high * core_depth(core),
            core_make="aluminium" if core.material == "aluminium" else "copper",
            oil=stores.oil.si if stores.oil else None,
        )
    )
    more = stores.times.si
    return lumps._replace(
        metal=more * lumps.metal,
        rest=more * lumps.rest,
        inside=more * lumps.inside,
        sensor_lag=stores.sensor_lag.si,
        sender_lag=stores.sender_lag.si,
        needle_lag=stores.needle_lag.si,
        least_on=stores.least_on.si,
    )
