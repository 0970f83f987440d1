"""Town and highway driving second by second against what a duty case makes of them: EPA's UDDS and HWFET, taken from
the package fastsim (Apache-2.0; see the catalogue's data/cycles/NOTICE)."""

import numpy as np
import pytest

from keelroom.assess.inputs.gearing import STANDS_PER_STOP, stands_for
from keelroom.catalogue.cycles import cycle_named
from keelroom.core.thermal.engine_point import wheel_power

MASS, ROLLING, AREA, AIR, GRAVITY = 1700.0, 0.012, 0.8, 1.2, 9.80665


def speeds(name):
    return np.array(cycle_named(name).speeds)


def at_the_wheels(speed):
    """Mean power [W] that has to come from the engine, second by second: what braking gives back is lost."""
    mean = (speed[1:] + speed[:-1]) / 2
    force = MASS * np.diff(speed) + MASS * GRAVITY * ROLLING * (mean > 0) + 0.5 * AIR * AREA * mean**2
    return np.maximum(force * mean, 0.0).mean()


def seen(name):
    speed = speeds(name)
    stops = int(((speed[1:] == 0) & (speed[:-1] > 0)).sum())
    return speed, stops, float(np.trapezoid(speed))


def test_the_cycles_are_what_they_are_published_to_be():
    """UDDS 1 369 s, 7.45 mi, 19.6 mph; HWFET 765 s, 10.26 mi, 48.3 mph (40 CFR). WLTC class 3b 1 800 s, 23.266 km, 46.5
    km/h (UN GTR 15); NEDC 1 180 s, 11.0 km,
    33.6 km/h (UN ECE R83): the package ends it a second early."""
    for name, seconds, miles, mph in (
        ("udds", 1369, 7.45, 19.59),
        ("hwfet", 765, 10.26, 48.3),
        ("wltc3", 1800, 23.266 / 1.609344, 46.5 / 1.609344),
        ("nedc", 1179, 11.0 / 1.609344, 33.6 / 1.609344),
    ):
        speed, _, metres = seen(name)
        assert len(speed) == seconds + 1
        assert metres / 1609.344 == pytest.approx(miles, rel=2e-3)
        assert metres / seconds * 2.23694 == pytest.approx(mph, rel=2e-3)


def test_standing_at_each_stop_is_a_towns():
    """Of the UDDS 15 s at each of its 17 stops; the New York cycle 11.6 (from memory): 13 is between."""
    speed, stops, metres = seen("udds")
    assert stops == 17
    each = float((speed == 0).sum()) / stops
    assert pytest.approx(each, rel=0.2) == STANDS_PER_STOP
    assert stands_for(metres / 1369, stops / metres) == pytest.approx(float((speed == 0).mean()), abs=0.04)


@pytest.mark.parametrize(("name", "within"), [("udds", 0.25), ("hwfet", 0.08)])
def test_a_duty_case_asks_for_what_the_cycle_does(name, within):
    """A car of 1 700 kg: mean speed and stops stand for every second, never for less than it takes: in town a fifth
    more, as each stop is taken from twice the mean speed; on the highway a twentieth."""
    speed, stops, metres = seen(name)
    mean = metres / (len(speed) - 1)
    ours = wheel_power(MASS, ROLLING, AIR * AREA, 0.0, mean, stops / metres)
    assert 0.0 < ours / at_the_wheels(speed) - 1 < within
