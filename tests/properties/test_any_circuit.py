"""Circuits joined at random: each is either whole and balances, or says what it still needs; nothing raises, all of
it can be saved and drawn."""

import random
from pathlib import Path

import numpy as np
import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.loop_told import loop_told
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.inputs.coolant.flows import circuit_of
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.ports import KIND_WORDS, ports_of
from keelroom.document.file import load, parse, serialised
from keelroom.document.quantity import quantity
from keelroom.document.schema.loop import Hose, Part
from keelroom.document.schema.package import CorePort
from keelroom.drawing.loop import loop_scene
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
LOOP = ("packages", "p1", "loop")
COUNT = 60


def joined(seed):
    """The demo with parts and hoses of all sorts, joined as they come."""
    dice = random.Random(seed)

    def maybe(text, kind, share=0.6):
        return quantity(text, kind) if dice.random() < share else None

    parts = tuple(
        Part(
            id=f"part{k}",
            kind=dice.choice(list(KIND_WORDS)),
            y=maybe(f"{dice.randint(-10, 30)} in", "length"),
            x=maybe("10 in", "length"),
            z=maybe(f"{dice.randint(2, 60)} in", "length"),
            bore=maybe(dice.choice(("1/4 in", "1 in", "1 1/2 in")), "length", 0.4),
            cap=dice.choice(("none", "none", "pressure", "plain")),
            holds=maybe("1 L", "volume"),
        )
        for k in range(dice.randint(0, 5))
    )
    core = tuple(
        CorePort(id=f"port{k}", use=dice.choice(("vent", "other", "inlet", "outlet")))
        for k in range(dice.randint(0, 2))
    )
    ported = on(BUILD, ((*LOOP, "parts"), parts), (("packages", "p1", "core", "ports"), core))
    keys = ["", "gone:in", *ports_of(ported, ported.package)]
    kept = list(BUILD.packages[0].loop.hoses) if dice.random() < 0.7 else []
    more = [
        Hose(
            id=f"more{k}",
            start=dice.choice(keys),
            end=dice.choice(keys),
            bore=maybe(dice.choice(("1/4 in", "5/8 in", "1 1/2 in")), "length"),
            length=maybe("3 ft", "length"),
            kind=dice.choice(("moulded", "hard", "silicone")),
            bends=maybe("2", "count"),
        )
        for k in range(dice.randint(0, 7))
    ]
    hoses = [hose for hose in kept if dice.random() < 0.9] + more
    return on(
        ported,
        ((*LOOP, "hoses"), tuple(hoses)),
        ((*LOOP, "pump"), dice.choice(("mechanical", "electric", "both"))),
        ((*LOOP, "thermostat_state"), dice.choice(("fitted", "none"))),
        ((*LOOP, "thermostat_place"), dice.choice(("outlet", "inlet"))),
    )


@pytest.fixture(scope="module")
def builds():
    return [joined(seed) for seed in range(COUNT)]


def test_any_circuit_is_whole_and_balances_or_says_what_it_needs(builds):
    whole = 0
    for build in builds:
        found = first_wave(build)
        graph = graph_of(build, build.package)
        figures = found.cases[0].figures
        assert (figures is not None) or found.cases[0].needs
        if figures is None:
            assert not graph.whole or any(branch.run and branch.run.length is None for branch in graph.branches)
            continue
        whole += 1
        flows = np.array([one.flow for one in figures.loop.through])
        left = circuit_of(build, build.package).incidence.T @ flows
        assert np.abs(left).max() < 1e-5, "what comes to a place leaves it, between the openings that were solved"
        assert all(np.isfinite([spot.temperature, spot.pressure, spot.margin]).all() for spot in figures.loop.spots)
    assert whole > COUNT // 4, "the whole ones are worth the name"


def test_any_circuit_is_told_drawn_saved_and_read_back(builds):
    for build in builds[::3]:
        found = first_wave(build)
        figures = found.cases[0].figures
        air = air_in(build, build.package, found) if graph_of(build, build.package).whole else None
        assert loop_scene(build, build.package, figures.loop if figures else None, air, "us").shapes
        assert loop_told(build, found, "us")["fill"]
        assert parse(serialised(build), Path("held")) == build
