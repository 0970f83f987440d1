"""An engine, a car and what is asked of them, to hold laws against published figures with."""

from typing import Any

import numpy as np

from keelroom.core.thermal.engine_heat import Drive, Engines, Vehicles
from keelroom.core.thermal.engine_laws import LAWS, EngineLaw


def at(value: float) -> np.ndarray:
    """One value as an array."""
    return np.array([value])


def engine_with(**changes: float | str) -> Engines:
    """A 5.7 L engine of 240 kW at 5 200 rpm, or what is changed of it."""
    values: dict[str, Any] = {
        "displacement": 5.7e-3,
        "power": 240e3,
        "power_rpm": 5200.0,
        "law": "injected",
        "boost": 0.0,
        "heat_multiplier": 1.0,
        "oil_share": 0.0,
        "bay_share": 0.05,
    } | changes
    law = EngineLaw(*(at(value) for value in LAWS[values.pop("law")]))
    return Engines(law=law, **{k: at(v) for k, v in values.items()})


CAR = Vehicles(
    mass=at(1700.0),
    drag_area=at(0.8),
    rolling=at(0.012),
    driveline_efficiency=at(0.88),
    alternator_efficiency=at(0.55),
    gearbox_part=at(0.0),
    converter_factor=at(160.0),
)


def drive_with(**changes: float) -> Drive:
    """Idling at 700 rpm with 300 W of steering and of loads, or what is changed of it."""
    values: dict[str, Any] = {
        "speed": 0.0,
        "grade": 0.0,
        "towed": 0.0,
        "full_power": 0.0,
        "rpm": 700.0,
        "stops_per_metre": 0.0,
        "accessories": 300.0,
        "electrical": 300.0,
        "converter_heat": 0.0,
        "slips": 0.0,
        "driven_fan": 0.0,
    }
    return Drive(**{k: at(v) for k, v in (values | changes).items()})
