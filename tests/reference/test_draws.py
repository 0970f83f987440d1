"""The band holds what it says: everything that is not known of a car off at once, each draw solved whole."""

import random

import numpy as np
import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.first_build import Answers, first_build, fitting
from keelroom.assess.inputs.translate import car_of, row_of, stacked
from keelroom.catalogue.load import cores, engines, vehicles
from keelroom.core import rules
from keelroom.core.answer import steady_answer
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from tests.changes import on
from tests.conftest import DEMO
from tests.reference.draws import drawn, free, share_inside

DRAWS, CARS = 100, 30


def any_car(dice):
    """A vehicle, an engine, a core not far under the rule and fans that go onto it."""
    vehicle, engine = dice.choice(vehicles()), dice.choice(engines())
    wanted = 0.8 * rules.face_area_wanted(engine.displacement.si)
    core = dice.choice([one for one in cores() if one.face_width.si * one.face_height.si >= wanted])
    fans = dice.choice(fitting(core))
    return first_build(Answers(vehicle.name, engine.name, core=core.name, fans=fans.name), "us")


def inside(build, dice):
    """Share of draws inside the band, of each duty case that has one of its own, by name."""
    package = build.package
    car = car_of(build, package)
    rows = [row_of(build, package, car, case) for case in build.duty_cases]
    points, unsure = stacked(rows)
    answer = steady_answer(points, unsure, rows[0].layout)
    found = drawn(points, unsure, rows[0].layout, answer.solution.state, dice, DRAWS)
    names = [case.id for case, own in zip(build.duty_cases, free(answer), strict=True) if own]
    return dict(zip(names, share_inside(answer, found)[free(answer)], strict=True))


def test_four_in_five_of_all_that_could_be_lie_inside_the_band():
    dice, numbers = random.Random(7), np.random.default_rng(7)
    cars = [inside(any_car(dice), numbers) for _ in range(CARS)]
    shares = [share for car in cars for share in car.values()]
    means = [float(np.mean(list(car.values()))) for car in cars if car]
    assert 0.76 < np.mean(shares) < 0.84
    assert sum(0.72 <= mean <= 0.88 for mean in means) >= 0.9 * len(means) > 20
    demo = inside(load(DEMO), numbers)
    assert 0.72 <= demo["cruise"] <= 0.88


MEASURED = (
    (("brief", "engine", "pump_flow"), "61 gpm", "coolant flow", "coolant flow", 0.15 / 0.25),
    (("brief", "climate", "asphalt_rise"), "5 K", "temperature difference", "air at the core", None),
    (("brief", "vehicle", "mass"), "4300 lb", "mass", "heat to coolant", None),
)


def test_what_is_measured_is_in_less_doubt():
    """The same value measured instead of as such cars have it: the coolant's flow in three fifths of the doubt (15 %
    for 25 %, common practice), the others in less."""
    build = load(DEMO)
    for path, text, kind, cause, share in MEASURED:
        section = build
        for name in path:
            section = getattr(section, name)
        for case in ("idle", "grade"):
            if (cause, case) in (("air at the core", "grade"), ("heat to coolant", "idle")):
                continue
            same = quantity(section.as_typed, kind) if section else quantity(text, kind)
            known, usual = (
                dict(of_case(first_wave(on(build, (path, same.model_copy(update={"origin": origin})))), case))[cause]
                for origin in ("measured", "catalogue")
            )
            assert known < usual, (path, case)
            if share:
                assert known == pytest.approx(share * usual, rel=1e-6)


def of_case(found, case):
    return next(one.figures.doubt_by_cause for one in found.cases if one.case_id == case)
