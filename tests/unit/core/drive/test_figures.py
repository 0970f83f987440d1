"""Figures of lines over time, worked by hand."""

import math

import numpy as np
import pytest

from keelroom.core.drive import figures

TIME = np.array([0.0, 100.0, 200.0, 300.0, 400.0])


def test_a_peak_is_the_highest_and_when():
    assert figures.peak(TIME, np.array([80.0, 85.0, 97.0, 90.0, 88.0])) == (97.0, 200.0)


def test_a_level_is_passed_between_moments():
    line = np.array([80.0, 90.0, 100.0, 90.0, 80.0])
    assert figures.crossing(TIME, line, 95.0) == 150.0
    assert figures.crossing(TIME, line, 70.0) == 0.0
    assert figures.crossing(TIME, line, 101.0) == math.inf
    # Up at 150, down at 250.
    assert figures.time_over(TIME, line, 95.0) == pytest.approx(100.0)
    assert figures.time_over(TIME, line, 70.0) == pytest.approx(400.0)
    assert figures.time_over(TIME, line, 101.0) == 0.0


def test_back_under_after_a_climb():
    line = np.array([80.0, 90.0, 100.0, 90.0, 80.0])
    assert figures.back_under(TIME, line, 85.0, 100.0) == 400.0
    assert figures.back_under(TIME, line, 70.0, 100.0) == math.inf
    assert figures.back_under(TIME, np.full(5, 60.0), 70.0, 100.0) == 100.0


def test_a_line_that_rises_evenly_creeps_by_its_slope():
    time = np.linspace(0, 600, 61)
    found = figures.creep(time, 80 + 0.01 * time)
    assert found.slope == pytest.approx(0.01)
    assert found.doubt == pytest.approx(0.0, abs=1e-9)
    assert found.span == pytest.approx(300.0)
    assert found.creeps
    assert not figures.creep(time, 80 + 0.001 * time).creeps  # 0.06 K a minute


def test_a_swing_is_told_by_its_tops():
    """A swing of 5 K whose tops rise by 0.6 K a minute, whatever part of it comes last."""
    time = np.linspace(0, 900, 1801)
    for shift in (0.0, 11.0, 29.0):
        line = 90 + 2.5 * np.sin(2 * np.pi * (time + shift) / 60) + 0.01 * time
        found = figures.creep(time, line)
        assert found.slope == pytest.approx(0.01, rel=0.02)
    flat = figures.creep(time, 90 + 2.5 * np.sin(2 * np.pi * time / 60))
    assert abs(flat.slope) < 1e-5


def test_what_came_before_the_last_leg_is_no_part_of_it():
    time = np.linspace(0, 600, 121)
    line = np.where(time < 500, 120 - 0.05 * time, 95.0)
    assert figures.creep(time, line, since=500.0).slope == pytest.approx(0.0, abs=1e-9)


def test_how_fans_run():
    """On from 100 to 200 and from 300 to the end of 400 s: two starts, half the time."""
    found = figures.fan_cycles(TIME, np.array([0.0, 1.0, 0.0, 1.0, 1.0]))
    assert found == pytest.approx((18.0, 0.5, 100.0, 100.0))
    assert figures.fan_cycles(TIME, np.zeros(5)) == (0.0, 0.0, 0.0, math.inf)
    assert figures.fan_cycles(TIME, np.ones(5)) == (0.0, 1.0, 400.0, 0.0)


def test_a_line_is_summed_straight_between_moments():
    assert figures.integral(TIME, np.array([0.0, 2.0, 2.0, 0.0, 0.0])) == pytest.approx(400.0)
