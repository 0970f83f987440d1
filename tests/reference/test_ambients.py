"""Highest ambient, air-to-boil, bands and chances, against whole solves at the figures they name.

Class: worked numerically; the chance against a normal distribution's own table.
"""

import numpy as np
import pytest
from scipy.stats import norm

from keelroom.assess.assess import assess
from keelroom.assess.figures.batch import Asked, row_for
from keelroom.assess.inputs.translate import stacked
from keelroom.core.operating_point import solve
from keelroom.document.file import load
from keelroom.facts import chance_words
from tests.changes import on, varied
from tests.conftest import DEMO

BUILD = load(DEMO)
GRADE = ("duty_cases", "grade")
COOLING = ("brief", "cooling")


def at(build, case, celsius):
    changed = on(build, (("duty_cases", case, "ambient"), f"{celsius:.6f} °C", "temperature"))
    return next(c.figures for c in assess(changed).cases if c.case_id == case)


@pytest.mark.parametrize(
    ("case", "mass", "limit"),
    [("grade", "1900 lb", "225 °F"), ("grade", "5800 lb", "225 °F"), ("cruise", "1900 lb", "205 °F")],
)
def test_at_the_highest_ambient_the_limit_is_just_reached(case, mass, limit):
    build = on(BUILD, ((*GRADE, "towed_mass"), mass, "mass"), ((*COOLING, "limit"), limit, "temperature"))
    figures = next(c.figures for c in assess(build).cases if c.case_id == case)
    there = at(build, case, figures.ambients.holds)
    assert there.temperature == pytest.approx(figures.temperature + figures.margin, abs=0.35)


@pytest.mark.parametrize("mass", ["1900 lb", "5800 lb"])
def test_at_the_air_to_boil_it_boils(mass):
    build = on(
        BUILD, (("packages", "p1", "loop", "cap_pressure"), "0 psi", "pressure"), ((*GRADE, "towed_mass"), mass, "mass")
    )
    figures = next(c.figures for c in assess(build).cases if c.case_id == "grade")
    there = at(build, "grade", figures.ambients.boils)
    assert there.mean == pytest.approx(there.boiling, abs=0.4)


def test_a_switch_over_the_limit_is_no_help_at_it():
    """Fans on at 230 °F with a limit of 225: standing, no ambient with heat for the fans holds it, so it is that of
    the fans stopped."""
    high = on(
        BUILD,
        (("packages", "p1", "control", "fan_on"), "230 °F", "temperature"),
        (("packages", "p1", "control", "fan_off"), "200 °F", "temperature"),
    )
    low = on(
        BUILD,
        (("packages", "p1", "control", "fan_on"), "200 °F", "temperature"),
        (("packages", "p1", "control", "fan_off"), "190 °F", "temperature"),
    )
    assert assess(high).idle.ambients.holds < assess(low).idle.ambients.holds - 10
    assert assess(high).idle.chance == 1.0


def test_the_band_holds_four_of_five_and_the_chance_is_the_normal_ones():
    """A limit put at the hot end of the band is passed by one in ten: 80 % of cases lie within, half of the rest
    above."""
    figures = next(
        c.figures for c in assess(on(BUILD, ((*GRADE, "towed_mass"), "1900 lb", "mass"))).cases if c.case_id == "grade"
    )
    limited = on(
        BUILD,
        ((*GRADE, "towed_mass"), "1900 lb", "mass"),
        ((*COOLING, "limit"), f"{figures.high + 0.05:.4f} °C", "temperature"),
    )
    again = next(c.figures for c in assess(limited).cases if c.case_id == "grade")
    assert again.chance == pytest.approx(1 - norm.cdf(norm.ppf(0.9)), abs=0.02)
    assert again.verdict == "holds"
    warmer = on(limited, ((*COOLING, "limit"), f"{figures.temperature:.4f} °C", "temperature"))
    assert next(c.figures for c in assess(warmer).cases if c.case_id == "grade").chance == pytest.approx(0.5, abs=0.02)


@pytest.mark.parametrize(
    ("chance", "words"),
    [
        (0.166, "about 1 in 6"),
        (0.333, "about 1 in 3"),
        (0.1, "about 1 in 10"),
        (0.7, "about 7 in 10"),
        (0.99, "near certain"),
        (0.001, "next to no chance"),
        (0.011, "about 1 in 90"),
    ],
)
def test_chances_as_one_says_them(chance, words):
    assert chance_words(chance) == words


def test_a_point_settles_however_little_heat_there_is():
    """A thousandth of the heat: what lies within a kelvin of the air is found too."""
    row = row_for(Asked(BUILD, "night"))
    points, _ = stacked([row])
    faint = varied(points.doubted(heat=np.array([1e-3])), {"plant.circuit.thermostat": np.array([-40.0])})
    found = solve(faint, row.layout)
    air = float(points.situation.climate.ambient[0] + points.situation.climate.grille_rise[0])
    assert found.settles[0]
    assert (
        air - 1e-9
        <= float(found.state.air_in[0])
        < float(found.state.temperature[0])
        < float(found.state.air_in[0]) + 1
    )
