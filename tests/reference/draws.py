"""Cars drawn with everything that is not known of them off at once, each solved whole: what a band is held against.
How far things may be off is of common practice, as the band's own; how it comes to a temperature is not."""

import numpy as np

from keelroom.core.arrays import take
from keelroom.core.cycling import settle
from keelroom.core.thermal.tube_side import nusselt_doubt
from keelroom.core.unsure import AHEAD, GEARBOX
from tests.changes import varied

LEAST = 0.2
"""Share of itself nothing is drawn under."""


def drawn(points, unsure, layout, state, dice, count):
    """What the gauge reads (count, n) of n points drawn so many times. state: of the points as they are."""
    n = len(points.plant.limit)
    rows = np.tile(np.arange(n), count)
    many, known, state = take(points, rows), take(unsure, rows), take(state, rows)

    def off(doubt):
        return np.maximum(1 + doubt * dice.standard_normal(n * count), LEAST)

    plant, vehicle, network = many.plant, many.plant.vehicle, many.plant.network
    load, film = off(known.load), off(nusselt_doubt(state.tube_reynolds))
    changes = {
        "doubts.heat": off(plant.engine.law.doubt),
        "doubts.conductance": off(known.core),
        "doubts.fan_pressure": off(known.fans),
        "doubts.leaks": off(known.leaks),
        "plant.core.turbulator": plant.core.turbulator * film,
        "plant.network.ram": network.ram + known.road * dice.standard_normal(n * count),
        "plant.network.grille_area": network.grille_area * off(known.openings),
        "plant.network.exit_area": network.exit_area * off(known.openings),
        "plant.circuit.flow_rated": plant.circuit.flow_rated * off(known.flow),
        "plant.vehicle.mass": vehicle.mass * load,
        "plant.vehicle.drag_area": vehicle.drag_area * load,
        "plant.vehicle.gearbox_part": vehicle.gearbox_part * off(GEARBOX),
        "situation.climate.grille_rise": many.situation.climate.grille_rise
        + known.grille * dice.standard_normal(n * count),
        "situation.fluids.compressor": many.situation.fluids.compressor * off(AHEAD),
    }
    return settle(varied(many, changes), layout).top.reshape(count, n)


def free(answer):
    """Which of n answers have a band of their own: with two ends, not both at a switch or a thermostat, where most of
    what is drawn ends at one temperature."""
    band = answer.band
    return np.isfinite(band.high) & (band.high - band.low > WIDE) & ~answer.settled_at.cycles


WIDE = 2.0
"""[K]"""


def share_inside(answer, found):
    """Share (n,) of what was found inside the band."""
    return ((found >= answer.band.low) & (found <= answer.band.high)).mean(axis=0)
