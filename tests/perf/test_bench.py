"""`make bench`: each budget against a reference in the same run. Prints what it measured; timings are not tests of the suite."""

import gc
import itertools
import os
import statistics
import subprocess
import sys
import time

import numpy as np

from keelroom.assess.assess import assess
from keelroom.assess.report import as_table
from keelroom.assess.translate import stacked
from keelroom.build.edits import set_value
from keelroom.build.fields import owner_and_spec
from keelroom.build.file import load
from keelroom.build.quantity import typed
from keelroom.build.store import Store
from keelroom.core.operating_point import solve
from tests.conftest import DEMO
from tests.packages import rows
from tests.perf.scalar_reference import scalars, settle
from tests.reference.test_scalar_agreement import _spread

EDITS = [
    (("packages", "p1", "core", "face_width"), ("25 7/8", "26", "26 1/4", "24-3/8\"")),
    (("packages", "p1", "core", "fin_density"), ("13", "14", "15", "16 fpi")),
    (("brief", "climate", "ambient"), ("99", "104 °F", "38 °C", "102")),
    (("brief", "vehicle", "mass"), ("4300", "2000 kg", "4400", "4350")),
    (("packages", "p1", "fans", "fan1", "x"), ("6 1/2", "6 9/16", "6 5/8", "165 mm")),
    (("brief", "cooling", "glycol_share"), ("48", "50 %", "45", "52")),
    (("packages", "p1", "fans", "fan2", "power"), ("170", "180 W", "190", "185")),
    (("duty_cases", "grade", "grade"), ("5", "6 %", "6.5", "5.5")),
]  # fmt: skip


def say(text: str) -> None:
    print(f"\n    {text}")


def percentiles(times: list[float]) -> str:
    return f"median {statistics.median(times) * 1e3:.1f} ms, 95th percentile {sorted(times)[int(0.95 * len(times))] * 1e3:.1f} ms over {len(times)}"


def test_wave_one(benchmark):
    """From raw typed text to formatted figures, six duty cases, bands included, each iteration another edit."""
    store, state = Store(load(DEMO)), {}
    state["assessment"] = assess(store.build)
    texts = itertools.cycle([(path, texts[i]) for i in range(4) for path, texts in EDITS])

    def one() -> None:
        path, text = next(texts)
        _, spec = owner_and_spec(store.build, path)
        store.apply(set_value(path, typed(text, spec, spec.kind.shown_unit("us").symbol), spec.label))
        state["assessment"] = assess(store.build, previous=state["assessment"])
        as_table(store.build, state["assessment"], "us")

    times = []
    for _ in range(200):
        start = time.perf_counter()
        one()
        times.append(time.perf_counter() - start)
    assert len(state["assessment"].cases) == 6
    assert all(case.figures for case in state["assessment"].cases)
    benchmark.pedantic(one, rounds=30)
    say(f"wave one: {percentiles(times)} edits (budget 16 ms)")


def test_repaint():
    """The drawing and the ledger painted afresh, apart from the physics."""
    from tests.gui.driver import opened

    driver = opened(DEMO)
    times = []
    for _ in range(40):
        driver.window.bay.cache = None
        start = time.perf_counter()
        driver.window.bay.repaint()
        driver.window.ledger.repaint()
        times.append(time.perf_counter() - start)
    say(f"repaint of drawing and ledger: {percentiles(times)}")
    driver.window.as_demo = True
    driver.window.close()


def test_batch_against_the_scalar_reference():
    """1 000 packages x 6 duty cases together, against the scalar reference on a sample, agreeing at every sampled point."""
    groups = rows(load(DEMO), 1000)
    found, solved_in, count = {}, 0.0, 0
    for key, members in groups.items():
        points, _ = stacked(members)
        gc.collect()
        start = time.perf_counter()
        solution = solve(points, members[0].layout)
        solved_in += time.perf_counter() - start
        found[key], count = solution, count + len(members)
    sample = [(key, i) for key, members in groups.items() for i in np.random.default_rng(3).choice(len(members), 7, replace=False)]
    worst, spent = 0.0, 0.0
    for key, i in sample:
        single, _ = stacked([groups[key][i]])
        inputs = _spread(scalars(single, 0))
        start = time.perf_counter()
        expected = settle(inputs, groups[key][i].layout)
        spent += time.perf_counter() - start
        if np.isfinite(expected):
            worst = max(worst, abs(float(found[key].state.temperature[i]) / expected - 1))
        else:
            assert not found[key].settles[i]
    assert worst <= 1e-6
    each, reference = solved_in / count, spent / len(sample)
    say(
        f"batch: {count} points in {solved_in:.2f} s, {each * 1e3:.3f} ms each; scalar reference {reference * 1e3:.0f} ms each on {len(sample)} sampled points"
    )
    say(f"ratio {reference / each:.0f} (budget 100); largest disagreement {worst:.1e} relative (budget 1e-6)")


BARE = """
import time, os, sys
import numpy, pyqtgraph
from PyQt6.QtWidgets import QApplication, QMainWindow
app = QApplication([]); w = QMainWindow(); w.setCentralWidget(pyqtgraph.PlotWidget()); w.resize(1280, 800); w.show()
while not w.windowHandle().isExposed(): app.processEvents()
app.processEvents()
print("painted", open('/proc/self/status').read().split('VmRSS:')[1].split()[0]); sys.stdout.flush(); os._exit(0)
"""
OURS = """
import os, sys
from pathlib import Path
from keelroom.gui.app import application, make_window
from PyQt6.QtCore import QEvent, QObject
class Painted(QObject):
    def eventFilter(self, widget, event):
        if event.type() == QEvent.Type.Paint: unpainted.discard(widget)
        return False
app = application(); w = make_window(Path(sys.argv[1]))
assert len(w.ledger.rows) == 6 and all(row.case.figures for row in w.ledger.rows)
watch, unpainted = Painted(), {w.bay, w.ledger.axis, *w.ledger.rows}
for widget in unpainted: widget.installEventFilter(watch)
w.show()
while unpainted: app.processEvents()
print("painted", open('/proc/self/status').read().split('VmRSS:')[1].split()[0]); sys.stdout.flush(); os._exit(0)
"""


def test_first_window_and_memory():
    """Process start to the demo's ledger and elevation painted, against a bare window of the same libraries."""
    times: dict[str, list[float]] = {"bare": [], "ours": []}
    memory: dict[str, int] = {}
    for _ in range(7):
        for name, script in (("bare", BARE), ("ours", OURS)):
            start = time.perf_counter()
            done = subprocess.run(
                [sys.executable, "-c", script, str(DEMO)], capture_output=True, text=True, check=True, env=dict(os.environ)
            )
            times[name].append(time.perf_counter() - start)
            memory[name] = int(done.stdout.split()[-1]) // 1024
    bare, ours = (statistics.median(times[name]) for name in ("bare", "ours"))
    say(f"first window: ours {ours:.2f} s, bare PyQt6 + NumPy + pyqtgraph {bare:.2f} s, ratio {ours / bare:.2f} (budget 1.5)")
    say(f"idle memory: ours {memory['ours']} MB (budget 250), bare {memory['bare']} MB")
