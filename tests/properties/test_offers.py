"""Acts offered on drawn builds: each tried, some pressed and judged from nothing, undone to the byte; none leads back
to a build that was left."""

import random

import pytest

from keelroom.assess.acts.registry import offer
from keelroom.assess.assess import first_wave
from keelroom.assess.first_build import Answers, first_build, fitting
from keelroom.assess.questions.proof import prove
from keelroom.catalogue.load import cores, engines, vehicles
from tests.long import long
from tests.soak.offers import share
from tests.soak.rings import drawn_rings


@pytest.mark.parametrize("seed", range(2))
def test_what_is_offered_does_what_was_said_and_undo_gives_the_bytes_back(seed):
    seen = share((700 + seed, long("offers", 4)))
    assert sum(seen.outcomes.values()) > 20
    assert not seen.broke
    cured = sum(number for (_, _, what), number in seen.outcomes.items() if what in ("cures", "helps"))
    # A shroud stands in the road's wind: it is withheld where that costs more than it brings at a light.
    assert cured > 0.8 * sum(seen.outcomes.values()), seen.outcomes


def test_no_acts_of_drawn_builds_lead_in_a_circle():
    walked, rings = drawn_rings(31, long("offers", 3))
    assert walked
    assert not rings


@pytest.mark.parametrize("seed", range(4))
def test_an_ordinary_circuit_passes_its_own_judgement(seed):
    """On a first build of any kind: its bottle is large enough, its hoses do not kink, and nothing counts as a problem
    that rests on the places it assumed."""
    dice = random.Random(seed)
    core = dice.choice(cores())
    kinds = dice.choice(vehicles()).name, dice.choice(engines()).name
    fans = dice.choice(["", *(one.name for one in fitting(core))])
    build = first_build(Answers(*kinds, core=core.name, fans=fans), "us")
    before = first_wave(build)
    seen = prove(before, None, offer("ordinary_circuit", build.active))
    assert not seen.stopped
    assert not [one for one in seen.brings if one.where[2:3] == ("loop",) or one.code.startswith("fit_")]
