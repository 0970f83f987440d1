"""The coolant circuit's budgets, beside a reference of the same run: `make bench`."""

import time
from statistics import median

import numpy as np

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.fit.hose_ways import detour
from keelroom.core.kept import Kept
from keelroom.core.loop.circuit import LoopLaw, Tubes
from keelroom.core.loop.flows import loop_flows
from keelroom.document.file import load
from keelroom.drawing.loop import loop_scene
from tests.changes import on
from tests.circuits import circuit, hoses
from tests.conftest import DEMO
from tests.remote import rear_mounted

ROUNDS = 15
UPPER = ("packages", "p1", "loop", "hoses", "upper", "length")


def timed(act, rounds=ROUNDS):
    """Median [ms]."""
    found = []
    for k in range(rounds):
        begin = time.perf_counter()
        act(k)
        found.append(time.perf_counter() - begin)
    return median(found) * 1e3


def test_loop_budgets(capsys):
    """Solve of the loop, an edit of a hose through wave one against an edit of the limit, a hose's way, the drawing."""
    demo = load(DEMO)
    tubes = Tubes(*(np.full(18, v) for v in (90.0, 1.0, 0.66, 3.1e-5, 2.6e-3, 0.06, 1.0)))
    made = circuit(columns=hoses())
    many = type(made)(*(np.repeat(value, 18, axis=0) for value in made))
    loop = LoopLaw(many, tubes, np.linspace(700, 6000, 18), np.full(18, 13.5), np.full(18, 1025.0), np.full(18, 8e-4))
    solve = timed(lambda _k: loop_flows(loop))
    with Kept().at_work():
        before = first_wave(demo)

        def edited(path, texts, kind):
            def act(k):
                first_wave(on(demo, (path, texts[k % len(texts)], kind)), previous=before)

            return act

        hose = timed(edited(UPPER, [f"{20 + k} in" for k in range(ROUNDS)], "length"))
        limit = timed(edited(("brief", "cooling", "limit"), [f"{215 + k} °F" for k in range(ROUNDS)], "temperature"))
        rear = rear_mounted(demo)
        found = first_wave(rear)
        way = max(timed(lambda _k, h=h: detour(demo, demo.package, h), 5) for h in ("upper", "lower"))
        figures = found.figures_of("idle").loop
        drawing = timed(lambda _k: loop_scene(rear, rear.package, figures, air_in(rear, rear.package, found), "us"))
    with capsys.disabled():
        print(
            f"\nloop, 18 points: {solve:.1f} ms; edit of a hose {hose:.1f} ms, of the limit in the same run "
            f"{limit:.1f} ms; a hose's way {way:.0f} ms; drawing {drawing:.1f} ms"
        )
    assert drawing < hose, "the drawing is the smaller part of an edit"
