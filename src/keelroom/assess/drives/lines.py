"""Every line of a drive over its moments, by name: strips, tables and the cursor read them here."""

from __future__ import annotations

import numpy as np

from keelroom.assess.drives.driven import Driven
from keelroom.core.arrays import Floats
from keelroom.core.drive import places
from keelroom.core.drive.records import told


def lines_of(driven: Driven) -> dict[str, Floats]:
    """Lines (m,) by name: temperatures [degC], speed [m/s], shares 0..1, volts, amps, kg/s."""
    run = driven.run
    leg = told(run, "leg").astype(int)
    moments = driven.moments
    begins = np.concatenate([[0.0], driven.until[:-1]])
    gains = np.array([moment.gains for moment in moments])
    middle = np.array([moment.speed for moment in moments])
    half = 0.5 * (driven.until - begins)
    speed = middle[leg] + gains[leg] * (run.time - begins[leg] - half[leg])
    grade = np.array([moment.grade for moment in moments])[leg]
    charge = driven.charge - run.of(places.CHARGE) / driven.capacity
    return {
        "time s": run.time,
        "speed": np.maximum(speed, 0.0),
        "grade": grade,
        "coolant out": run.outlet,
        "coolant back": run.inlet,
        "gauge": run.gauge,
        "gearbox": run.of(places.GEARBOX),
        "oil": run.of(places.OIL),
        "fan share": run.share,
        "volts": told(run, "volts"),
        "battery A": told(run, "amps"),
        "charge": np.clip(charge, 0.0, 1.0),
        "thermostat open": told(run, "opening"),
        "air through core kg/s": told(run, "air"),
        "boiling": driven.boiling[leg],
    }
