"""What is better never ranks or reads worse, whatever the fans' switch makes of it: more air, less gap, a bigger core,
a cooler day, over drawn builds."""

import random

import pytest

from keelroom.assess.figures.batch import Asked, in_hand, temperatures
from keelroom.assess.first_build import Answers, first_build, fitting
from keelroom.catalogue.load import cores, engines, vehicles
from keelroom.document.quantity import from_si
from tests.changes import on
from tests.long import long

STANDING = ("more air", "sealed on the core")
"""better where the car stands"""
ROUNDING = 0.05
"""[K]"""


def drawn(dice):
    core = dice.choice(cores()[2:])
    fans = dice.choice([one.name for one in fitting(core)])
    kinds = dice.choice(vehicles()).name, dice.choice(engines()).name
    return first_build(Answers(*kinds, core=core.name, fans=fans, ac=dice.random() < 0.7), "us")


def scaled(build, path, factor, kind):
    from keelroom.document.fields import get

    return on(build, (path, from_si(get(build, path).si * factor, kind, "si", "measured")))


def better(build):
    """Ways that can only help, by name."""
    package = build.package
    where = ("packages", package.id)
    stronger = build
    for fan in package.fans:
        stronger = scaled(stronger, (*where, "fans", fan.id, "power"), 1.2, "electrical power")
    yield "more air", stronger
    yield "sealed on the core", on(build, ((*where, "shroud", "edge_gap"), from_si(0.0, "length", "si", "measured")))
    cooler = from_si(build.brief.climate.ambient.si - 4.0, "temperature", "si", "measured")
    yield "a cooler day", on(build, (("brief", "climate", "ambient"), cooler))
    yield "a pump a tenth faster", scaled(build, (*where, "loop", "pulley_ratio"), 1.1, "number")
    yield "a larger grille", scaled(build, ("brief", "vehicle", "grille_area"), 1.2, "area")


@pytest.mark.parametrize("seed", range(long("draws", 8)))
def test_what_is_better_never_reads_worse(seed):
    dice = random.Random(1000 + seed)
    build = drawn(dice)
    for name, helped in better(build):
        for case in build.duty_cases:
            if name in STANDING and case.speed.si > 5.0:
                continue  # at speed a gap lets ram air past as flaps do, and fans stand in it
            before, after = in_hand([Asked(one, case.id) for one in (build, helped)])
            # On a cooler day its own weather moves with it: the heat that is left is what counts.
            gained = after.heat - before.heat if name == "a cooler day" else after.hotter(before)
            assert gained >= -ROUNDING - 0.005 * abs(before.weather), (name, case.name, before, after)
            cold, warm = temperatures([Asked(helped, case.id), Asked(build, case.id)])
            # A stronger fan's watts load the engine: where the thermostat holds already, that is all there is of it.
            own = 0.6 if name == "more air" else 0.0
            assert cold <= warm + ROUNDING + own, (name, case.name, cold, warm)
