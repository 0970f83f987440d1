"""`make bench`: each budget against a reference in the same run. Prints what it measured; timings are not tests of
the suite."""

import gc
import itertools
import os
import random
import resource
import statistics
import subprocess
import sys
import time

import numpy as np
import pytest

from keelroom.assess.assess import assess, completed, first_wave
from keelroom.assess.drives.driven import drive_of, prepared, run_of
from keelroom.assess.figures.batch import CHUNK, Asked, batches, held, row_for
from keelroom.assess.figures.templates import patterns
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.panels import panel_plans
from keelroom.assess.inputs.translate import stacked
from keelroom.assess.options.space import Bounds, options_of, with_option
from keelroom.assess.outcome import Stopped
from keelroom.assess.questions.airmap import air_map
from keelroom.assess.questions.compare import candidates
from keelroom.assess.questions.cooler_places import cooler_places
from keelroom.assess.questions.hot_day import learn
from keelroom.assess.questions.options import searched
from keelroom.assess.questions.places import find_places
from keelroom.assess.questions.schools import compare_schools
from keelroom.assess.questions.worth import worth_table
from keelroom.assess.report import as_table
from keelroom.assess.trials.read_log import guess, read
from keelroom.assess.work.plan import planned
from keelroom.assess.work.steps import doubts_of, steps_of
from keelroom.catalogue.load import cores
from keelroom.core.coupling import prepare
from keelroom.core.kept import Kept
from keelroom.core.operating_point import evaluate, solve
from keelroom.core.plan.doubt import simulated as simulated_hours
from keelroom.document.edits import apply, set_value
from keelroom.document.fields import owner_and_spec
from keelroom.document.file import load
from keelroom.document.quantity import from_si, quantity, typed
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.moves import Move
from keelroom.document.schema.survey import Obstacle
from keelroom.document.schema.work import OwnStep
from keelroom.document.store import Store
from keelroom.drawing.pattern import gallery
from keelroom.drawing.wiring import wiring
from keelroom.drawing.work import work_scene
from tests.changes import on
from tests.conftest import DEMO
from tests.drives import leg
from tests.packages import packages, rows
from tests.perf.budgets import BARE, take, take_time
from tests.perf.scalar_reference import scalars, settle
from tests.reference.test_scalar_agreement import _spread
from tests.soak.scale import with_cases, with_circuits, with_obstacles
from tests.trials import simulated, trial, with_trials

EDITS = [
    (("packages", "p1", "core", "face_width"), ("25 7/8", "26", "26 1/4", '24-3/8"')),
    (("packages", "p1", "core", "fin_density"), ("13", "14", "15", "16 fpi")),
    (("brief", "climate", "ambient"), ("99", "104 °F", "38 °C", "102")),
    (("brief", "vehicle", "mass"), ("4300", "2000 kg", "4400", "4350")),
    (("packages", "p1", "fans", "fan1", "x"), ("6 1/2", "6 9/16", "6 5/8", "165 mm")),
    (("packages", "p1", "coolant", "glycol_share"), ("48", "50 %", "45", "52")),
    (("packages", "p1", "fans", "fan2", "power"), ("170", "180 W", "190", "185")),
    (("duty_cases", "grade", "grade"), ("5", "6 %", "6.5", "5.5")),
    (("packages", "p1", "circuits", "circuit1", "feed", "size"), ("14 AWG", "12 AWG", "10 AWG", "2.5 mm²")),
    (("brief", "accessories", "alternator_rating"), ("105", "120 A", "140", "160")),
]


WAVE_ONE, NO_PHYSICS, DRAG, LARGE_EDIT = 0.036, 0.013, 0.073, 0.25
"""Shares of the time a bare window of the same libraries takes in the same run."""


def say(text: str) -> None:
    print(f"\n    {text}")


def percentiles(times: list[float]) -> str:
    return (
        f"median {statistics.median(times) * 1e3:.1f} ms, 95th percentile "
        f"{sorted(times)[int(0.95 * len(times))] * 1e3:.1f} ms over {len(times)}"
    )


def test_wave_one(benchmark):
    """From raw typed text to formatted figures, six duty cases, bands included, each iteration another edit."""
    times, told = wave_one(load(DEMO), benchmark)
    say(f"wave one: {percentiles(times)} edits")
    take_time("wave one, the demo", statistics.median(times), WAVE_ONE)
    start = time.perf_counter()
    assert completed(*told).complete
    say(f"its second wave: {(time.perf_counter() - start) * 1e3:.1f} ms")


NAMED = (
    ("packages", "p1", "core", "name"),
    ("packages", "p1", "fans", "fan1", "name"),
    ("packages", "p1", "circuits", "circuit1", "name"),
    ("duty_cases", "idle", "name"),
    ("brief", "title"),
)


def test_an_edit_that_touches_no_physics():
    """Another name of a core, a fan, a circuit, a duty case, another title; each by itself."""
    for path in NAMED:
        store, times = Store(load(DEMO)), []
        with Kept().at_work():
            state = assess(store.build)
            for k in range(30):
                start = time.perf_counter()
                store.apply(set_value(path, f"Called {k}", "Name"))
                state = first_wave(store.build, previous=state)
                times.append(time.perf_counter() - start)
        take_time(f"another name: {'/'.join(path[-2:])}", statistics.median(times), NO_PHYSICS)


def test_wave_one_with_four_coolers_and_an_engine_fan():
    """The same with an oil cooler ahead, one cooler remote, and one of the fans turned by the engine; and the places
    for a cooler."""
    build = load(DEMO)
    oil = Cooler(
        id="oil",
        kind="oil_cooler",
        width=quantity("8 in", "length"),
        height=quantity("5 in", "length"),
        stand_off=quantity("3 in", "length"),
    )
    more = apply(build, set_value(("packages", "p1", "coolers"), (*build.package.coolers, oil), ""))
    more = apply(more, set_value(("packages", "p1", "fans", "fan1", "motor"), "engine", ""))
    assert len(more.package.coolers) == 4
    times, _ = wave_one(more)
    say(f"wave one, four coolers and an engine-driven fan: {percentiles(times)} edits")
    take_time("wave one, four coolers and an engine-driven fan", statistics.median(times), WAVE_ONE)
    start = time.perf_counter()
    assert len(cooler_places(more, "cooler")) >= 8
    take("places for a cooler", time.perf_counter() - start, 3.0, "s")


def crowned():
    """The demo with twelve brackets, four panels fitted and six neighbours moved."""
    build = load(DEMO)
    package = build.package
    brackets = tuple(
        package.brackets[k % 4].model_copy(update={"id": f"b{k}", "stiffener": quantity("3/16 in", "length")})
        for k in range(12)
    )
    panels = tuple(panel.model_copy(update={"fitted": True}) for panel in package.panels)
    half = quantity("1/2 in", "length", "measured")
    moves = tuple(Move(id=item.id, how="slotted", by_y=half) for item in build.survey.obstacles if item.id != "brace")[
        :6
    ]
    changes = (("brackets", brackets), ("panels", panels), ("moves", moves))
    for name, value in changes:
        build = apply(build, set_value(("packages", "p1", name), value, ""))
    assert (len(build.package.brackets), len(build.package.panels), len(build.package.moves)) == (12, 4, 6)
    return build


def test_wave_one_with_brackets_panels_and_moved_neighbours():
    """Twelve brackets, four panels and six moved neighbours; and one pattern drawn anew (50 ms)."""
    build = crowned()
    times, _ = wave_one(build)
    plain, _ = wave_one(load(DEMO))
    say(
        f"wave one, 12 brackets, 4 panels, 6 moves: {percentiles(times)} edits; the demo in the same run "
        f"{percentiles(plain)}"
    )
    take_time("wave one, 12 brackets, 4 panels, 6 moves", statistics.median(times), WAVE_ONE)
    anew = []
    for k in range(20):
        changed = apply(
            build,
            set_value(
                ("packages", "p1", "panels", "panel1", "depth"),
                from_si(0.15 + 1e-3 * k, "length", "us", "measured"),
                "",
            ),
        )
        start = time.perf_counter()
        made = [pattern for plan in panel_plans(changed, changed.package) for pattern in plan.patterns]
        scene = gallery(tuple(made), "us")
        anew.append(time.perf_counter() - start)
        assert scene is not None
    take("a panel's patterns drawn anew", statistics.median(anew) * 1e3, 50.0, "ms")
    anew = []
    for k in range(20):
        changed = apply(
            build,
            set_value(
                ("packages", "p1", "brackets", "b0", "width"), from_si(0.03 + 1e-4 * k, "length", "us", "measured"), ""
            ),
        )
        start = time.perf_counter()
        gallery(
            tuple(
                pattern
                for plan in bracket_plans(changed, changed.package)
                if plan.made
                for pattern in plan.made.patterns
            ),
            "us",
        )
        anew.append(time.perf_counter() - start)
    take("twelve brackets' patterns drawn anew", statistics.median(anew) * 1e3, 50.0, "ms")


def wave_one(build, benchmark=None):
    """Times of 200 edits of a build, and the build with its assessment at the end."""
    store, state = Store(build), {}
    kept = Kept()
    with kept.at_work():
        state["assessment"] = assess(store.build)
    texts = itertools.cycle([(path, texts[i]) for i in range(4) for path, texts in EDITS])

    def one() -> None:
        path, text = next(texts)
        _, spec = owner_and_spec(store.build, path)
        store.apply(set_value(path, typed(text, spec, spec.kind.shown_unit("us").symbol), spec.label))
        with kept.at_work():  # as a session does
            state["assessment"] = first_wave(store.build, previous=state["assessment"])
        as_table(state["assessment"], "us")

    # As the window does once it is up: what lasts is set aside, so that the collector need not look through it again.
    gc.collect()
    gc.freeze()
    times = []
    for _ in range(200):
        start = time.perf_counter()
        one()
        times.append(time.perf_counter() - start)
    assert len(state["assessment"].cases) == 6
    assert all(case.figures for case in state["assessment"].cases)
    if benchmark is not None:
        benchmark.pedantic(one, rounds=30)
    return times, (store.build, state["assessment"])


def test_wiring_and_schools():
    """The wiring drawing after a change of gauge, and the nine schools of control on five days."""
    build = load(DEMO)
    times, spent = [], []
    for size in ("14 AWG", "12 AWG", "10 AWG", "8 AWG") * 10:
        changed = apply(
            build,
            set_value(("packages", "p1", "circuits", "circuit1", "feed", "size"), quantity(size, "wire size"), ""),
        )
        assessment = assess(changed)
        start = time.perf_counter()
        assert wiring(changed, changed.package, assessment, "us")
        times.append(time.perf_counter() - start)
    for power in range(4):
        changed = apply(
            build,
            set_value(
                ("packages", "p1", "fans", "fan1", "power"), quantity(f"{170 + power} W", "electrical power"), ""
            ),
        )
        start = time.perf_counter()
        compare_schools(changed, "idle")
        spent.append(time.perf_counter() - start)
    take("the wiring drawing", statistics.median(times) * 1e3, 50.0, "ms")
    say(f"schools compared: median {statistics.median(spent) * 1e3:.0f} ms")


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
    driver.dispose()


@pytest.mark.timeout(900)
def test_batch_against_the_scalar_reference():
    """10 000 packages x 6 duty cases in one batch, against the scalar reference on a sample, agreeing at every
    sampled point."""
    build, count = load(DEMO), 10_000
    made = time.perf_counter()
    groups = rows(build, count)
    made = time.perf_counter() - made
    points_all = sum(len(members) for members in groups.values())
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    found, solved_in, order = [], 0.0, []
    for _places, members in batches(row for group in groups.values() for row in group):
        start = time.perf_counter()
        points, _ = stacked(members)
        solution = solve(points, members[0].layout)
        solved_in += time.perf_counter() - start
        found += list(zip(solution.state.temperature.tolist(), solution.settles.tolist(), strict=True))
        order += members
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    worst, spent = 0.0, 0.0
    sample = np.random.default_rng(3).choice(len(order), 60, replace=False)
    for i in sample:
        single, _ = stacked([order[i]])
        inputs = _spread(scalars(single, 0))
        start = time.perf_counter()
        expected = settle(inputs, order[i].layout)
        spent += time.perf_counter() - start
        temperature, settles = found[i]
        if np.isfinite(expected):
            worst = max(worst, abs(temperature / expected - 1))
        else:
            assert not settles
    assert worst <= 1e-6
    each, reference = solved_in / points_all, spent / len(sample)
    say(
        f"batch: {points_all} points in {solved_in:.1f} s ({1 / each:.0f} a second, {each * 1e3:.3f} ms "
        f"each); inputs made from documents in {made:.1f} s"
    )
    say(
        f"scalar reference {reference * 1e3:.0f} ms each on {len(sample)} sampled points: ratio "
        f"{reference / each:.0f}; largest disagreement {worst:.1e}"
    )
    take("batch, times the scalar reference", reference / each, 3000.0, more=True)
    say(
        f"memory: {before // 1024} MB with all inputs made, {peak // 1024} MB at the peak of the solve "
        f"({CHUNK} points at a time)"
    )


def test_what_an_exact_step_of_a_drive_costs():
    """The air path past running and standing fans solved from the last step's, and the heat at one temperature: a
    thousand road speeds of one duty case. No budget of its own; drives stand on it."""
    row = row_for(Asked(load(DEMO), "grade"))
    points, _ = stacked([row] * 1000)
    situation, road = points.situation, np.linspace(0.0, 30.0, 1000)
    points = points._replace(situation=situation._replace(air_speed=road, drive=situation.drive._replace(speed=road)))
    fixed, hot = prepare(points, row.layout), np.full(1000, 95.0)

    def spent(work) -> float:
        times = []
        for _ in range(7):
            start = time.perf_counter()
            work()
            times.append(time.perf_counter() - start)
        return statistics.median(times)

    air = spent(lambda: prepare(points, row.layout, fixed))
    heat = spent(lambda: evaluate(points, fixed, hot, row.layout))
    say(f"an exact step of a drive: air and loop {air * 1e3:.0f} µs, heat {heat * 1e3:.0f} µs")


def test_drives():
    """A drive against real time: one package on the demo's longest schedule, its bands too, a thousand packages on a
    soak on two processors, a first curve after a change."""
    build = load(DEMO)
    longest = max(build.driving.schedules, key=lambda one: sum(leg.lasts.si for leg in one.legs))
    with Kept().at_work():
        parts = []
        for _ in range(7):
            start = time.perf_counter()
            made = prepared(build, build.package, longest)
            ready = time.perf_counter()
            run = run_of(made, False)
            plain = time.perf_counter()
            drive_of(build, build.package, longest)
            parts.append((ready - start, plain - ready, time.perf_counter() - plain))
    inputs, ran, banded = (statistics.median(column) for column in zip(*parts, strict=True))
    say(
        f"drive: {run.lasts / 60:.0f} min in {len(run.run.time)} moments; inputs {inputs * 1e3:.0f} ms, run with what "
        f"comes before it {ran * 1e3:.0f} ms, all with bands {banded * 1e3:.0f} ms"
    )
    take("drive, times real time", run.lasts / ran, 50_000.0, more=True)
    take("drive with bands, times real time", run.lasts / banded, 5_000.0, more=True)
    take_time("first curve of a drive after a change", inputs + ran, 0.6)
    soak = build.driving.schedules[0]
    several = _other_faces(build, 40)
    with Kept().at_work():  # as a search has it: what the packages share is worked out once
        start = time.perf_counter()
        for one in several:
            assert not isinstance(drive_of(one, one.package, soak, bands=False), Stopped)
        each = (time.perf_counter() - start) / len(several)
    say(f"drive: a package's 25 min soak {each * 1e3:.0f} ms")
    take("1 000 packages over a 25 min soak, two processors", 1000 * each / 2, 30.0, "s")


def test_trials():
    """Three trials of 25 minutes at a reading a second: a first answer, and all of it; a log of a million lines seen
    and read."""
    build = load(DEMO)
    legs = [leg("idle", "25 min", id="a"), leg("idle", "25 min", id="b", ac_on=True), leg("hold", "25 min", id="c")]
    legs[2] = leg("hold", "25 min", id="c", speed="45 mph", grade="4 %", gear_step="1.4")
    dice = np.random.default_rng(1)
    trials = [
        simulated(build, trial(one, ident=one.id, begins="warm"), {"heat": 1.05}, dice, every=1.0) for one in legs
    ]
    build = with_trials(build, *trials)
    with Kept().at_work():
        start = time.perf_counter()
        learn(build, quick=True)
        first = time.perf_counter()
        learn(build)
        ended = time.perf_counter()
    take("trials, a first answer", first - start, 2.0, "s")
    take("trials, the whole posterior", ended - first, 10.0, "s")
    lines = "\n".join(f"{k},{180 + k % 7},{160 + k % 5},13.{k % 9}" for k in range(1_000_000))
    text = f"time,ECT (F),lower hose,volts\n{lines}\n"
    start = time.perf_counter()
    how = guess(text, build.logbook.sensors)
    seen = time.perf_counter()
    read(text, how, build.logbook.sensors, "bench")
    take("a log of 1 000 000 lines, previewed", seen - start, 1.0, "s")
    take("a log of 1 000 000 lines, read", time.perf_counter() - seen, 5.0, "s")


def test_work():
    """The plan of the demo's largest package anew at an edit, 10 000 draws of its hours, and 400 steps drawn."""
    build = load(DEMO).model_copy(update={"active": "p3"})
    with Kept().at_work():
        planned(build, build.package)
        took = []
        for k in range(9):
            edited = on(build, (("packages", "p3", "fans", "fan1", "name"), f"Fan {k}"))
            start = time.perf_counter()
            planned(edited, edited.package)
            took.append(time.perf_counter() - start)
    take("the plan of the work anew at an edit", sorted(took)[4], 0.030, "s")
    steps = steps_of(build, build.package)
    start = time.perf_counter()
    simulated_hours(doubts_of(steps))
    take("10 000 draws of its hours", time.perf_counter() - start, 0.3, "s")
    many = on(build, (("work", "own"), tuple(OwnStep(id=f"o{k}", name=f"Step {k}") for k in range(60))))
    plan = planned(many, many.package)
    plan = plan._replace(steps=plan.steps * 4, spans=plan.spans * 4)
    start = time.perf_counter()
    hung = work_scene(many, plan)
    take(f"{len(hung.rows)} steps drawn", time.perf_counter() - start, 0.1, "s")
    assert len(hung.rows) >= 400


def _other_faces(build, count):
    """Builds whose cores are all of another width."""
    package = build.package
    width = package.core.face_width.si
    return [
        apply(
            build,
            set_value(
                ("packages", package.id, "core", "face_width"),
                from_si(width * (0.8 + 0.4 * k / count), "length", "si", "derived"),
                "",
            ),
        )
        for k in range(count)
    ]


@pytest.mark.timeout(900)
def test_ten_thousand_packages():
    """10 000 packages x 6 duty cases from their documents to where each settles, switching fans followed: the
    program's own path."""
    build, count = load(DEMO), 10_000
    asked = [
        Asked(changed, case.id)
        for package in packages(count)
        for changed in [build.model_copy(update={"packages": (package,), "active": package.id})]
        for case in build.duty_cases
    ]
    start = time.perf_counter()
    found = held(asked)
    spent = time.perf_counter() - start
    assert all(point is not None for point in found)
    say(f"{count} packages x {len(build.duty_cases)} duty cases, inputs and all: {spent:.1f} s")
    take_time("10 000 different packages x 6", spent, 33.0)


def test_options():
    """Every option of the demo priced, solved and judged: a first front, all of them, and against one by one."""
    build, shown = load(DEMO), []

    def tell(share, found=None):
        if found is not None:
            shown.append(time.perf_counter())
        return True

    options_of(load(DEMO))  # the catalogue is read before
    start = time.perf_counter()
    found = searched(build, Bounds(), tell=tell)
    took = time.perf_counter() - start
    take("a first front of all options", shown[0] - start, 1.5, "s")
    count = len(found.judged)
    whole = took / count * 10_000
    take(f"10 000 options x {len(found.cases)}, by {count}", whole, 15.0, "s")
    alone = []
    for one in found.judged[:: count // 9]:
        own = with_option(load(DEMO), one.option)
        begin = time.perf_counter()
        assess(own)
        alone.append(time.perf_counter() - begin)
    take("options, times one by one", statistics.median(alone) / (took / count), 100.0, more=True)


def test_worker_answers():
    """What is asked of the worker: the worth table, the map at rest, every catalogue core compared (budget 2 s
    each)."""
    build = load(DEMO)
    for name, work in (
        ("worth table", lambda: worth_table(build)),
        ("map at rest", lambda: air_map(build, "idle")),
        ("cores compared", lambda: candidates(build, cores())),
    ):
        times = []
        for _ in range(5):
            start = time.perf_counter()
            work()
            times.append(time.perf_counter() - start)
        take(name, statistics.median(times), 2.0, "s")


def test_dragging_a_fan():
    """Each move of a drag: new place, assessment, drawing and ledger repainted; the window's own path, mouse to
    pixels."""
    from PyQt6.QtCore import QPoint, Qt
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QApplication

    from tests.gui.driver import opened

    driver = opened(DEMO)
    bay, fan = driver.window.bay, driver.window.session.build.package.fans[0]
    at = bay.view.map(fan.x.si, fan.y.si)
    QTest.mousePress(bay, Qt.MouseButton.LeftButton, pos=QPoint(int(at[0]), int(at[1])))
    times = []
    for i in range(60):
        start = time.perf_counter()
        QTest.mouseMove(bay, QPoint(int(at[0]) + i % 30, int(at[1]) - (i * 7) % 23))
        QApplication.processEvents()
        times.append(time.perf_counter() - start)
    QTest.mouseRelease(bay, Qt.MouseButton.LeftButton, pos=QPoint(int(at[0]), int(at[1])))
    say(f"dragging a fan, move to pixels: {percentiles(times)}")
    take_time("dragging a fan, move to pixels", statistics.median(times), DRAG)
    driver.dispose()


def crowded():
    """The demo with 40 obstacles round the package, boxes and cylinders near enough to count."""
    build, chance = load(DEMO), random.Random(8)
    made = list(build.survey.obstacles)
    shapes = ("box", "cylinder_across", "cylinder_upright", "cylinder_along")
    while len(made) < 40:
        number = len(made)
        side = chance.choice((-1, 1))
        left = chance.uniform(-0.15, -0.09) if side < 0 else chance.uniform(0.70, 0.78)
        box = {
            "left": left,
            "bottom": chance.uniform(-0.1, 0.4),
            "front": chance.uniform(0.0, 0.3),
            "width": 0.03,
            "height": chance.uniform(0.02, 0.1),
            "depth": chance.uniform(0.02, 0.1),
        }
        sides = {name: from_si(value, "length", "us", "measured") for name, value in box.items()}
        made.append(Obstacle(id=f"extra{number}", name=f"Extra {number}", shape=shapes[number % 4], **sides))
    return apply(build, set_value(("survey", "obstacles"), tuple(made), ""))


def _alone(build) -> list[float]:
    """How long one assessment takes whose fit is known already, as after a small edit: the reference for a drag in
    the same run."""
    state, times = assess(build), []
    for i in range(15):
        changed = apply(
            build,
            set_value(
                ("packages", build.active, "fans", "fan1", "x"),
                from_si(0.16 + 1e-4 * i, "length", "us", "measured"),
                "",
            ),
        )
        fit_up(changed, changed.package)
        start = time.perf_counter()
        state = assess(changed, previous=state)
        times.append(time.perf_counter() - start)
    return times


def test_dragging_the_package_among_40_obstacles(tmp_path):
    """Each move in the side view and from the front: all clearances, findings, board and ledger; mouse to pixels."""
    from PyQt6.QtCore import QPoint, QPointF, Qt
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QApplication

    from keelroom.document.file import save
    from keelroom.drawing.fitup import flat
    from tests.gui.driver import opened

    save(crowded(), tmp_path / "crowded.keelroom")
    driver = opened(tmp_path / "crowded.keelroom")
    driver.click("Fit-up station")
    driver.turn("Place")
    driver.settle()
    board = driver.window.stations["Fit-up"].board
    assert len(driver.window.session.build.survey.obstacles) == 40
    for view, tag in (("front", "package"), ("side", "package"), ("front", "fan1")):
        core = next(body for body in board.fit.parts if body.key == ("core" if tag == "package" else "ring:fan1"))
        at = board.views[view].map(QPointF(*flat(view, core.solid.centre)))
        at = QPoint(int(at.x()), int(at.y()))
        update, paint, pairs = [], [], []
        QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=at)
        for i in range(60):
            start = time.perf_counter()
            QTest.mouseMove(board, at + QPoint(i % 12, -((i * 5) % 9)))
            done = time.perf_counter()
            QApplication.processEvents()
            update.append(done - start)
            paint.append(time.perf_counter() - done)
            pairs.append(len(driver.window.session.assessment.fit.gaps))
        QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=at)
        solve = statistics.median(_alone(driver.window.session.build))
        whole = [a + b for a, b in zip(update, paint, strict=True)]
        say(f"dragging {tag} {view}, 40 obstacles, {max(pairs)} clearances: move to pixels {percentiles(whole)}")
        take_time(f"dragging {tag} {view}, 40 obstacles, move to pixels", statistics.median(whole), DRAG)
        say(
            f"    of which clearances, ledger and form {percentiles(update)}; a whole assessment takes "
            f"{solve * 1e3:.1f} ms in this run"
        )
    driver.dispose()


def test_search_and_templates(tmp_path):
    """Find a place over each package of the demo (budget 3 s), and every template written (budget 1 s)."""
    from keelroom.export.dxf import write_dxf
    from keelroom.export.tiles import write_tiles

    for package in load(DEMO).packages:
        build = apply(load(DEMO), set_value(("active",), package.id, ""))
        start = time.perf_counter()
        found = find_places(build)
        spent = time.perf_counter() - start
        say(f"find a place, {package.name}: {found.tried} places tried, {len(found.found)} shown")
        take(f"find a place, {package.name}", spent, 3.0, "s")
    build = load(DEMO)
    write_dxf(patterns(build, build.package)[:1], tmp_path / "first.dxf", "us")  # loads the writer
    for name, write in (
        ("PDF in A4", lambda: write_tiles(patterns(build, build.package), tmp_path / "t.pdf", "A4", 200, "us")),
        ("DXF", lambda: write_dxf(patterns(build, build.package), tmp_path / "t.dxf", "us")),
    ):
        start = time.perf_counter()
        write()
        take(f"templates as {name}", time.perf_counter() - start, 1.0, "s")


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
                [sys.executable, "-c", script, str(DEMO)],
                capture_output=True,
                text=True,
                check=True,
                env=dict(os.environ),
            )
            times[name].append(time.perf_counter() - start)
            memory[name] = int(done.stdout.split()[-1]) // 1024
    bare, ours = (statistics.median(times[name]) for name in ("bare", "ours"))
    say(f"first window: ours {ours:.2f} s, bare PyQt6 + NumPy + pyqtgraph {bare:.2f} s")
    take("first window, times a bare one", ours / bare, 1.8)
    take("idle memory", memory["ours"], 150.0, "MB")


LARGE_BUILDS = {
    "200 circuits": (lambda: with_circuits(200), ("packages", "p1", "circuits", "circuit1", "fuse"), "current"),
    "60 duty cases": (lambda: with_cases(60), ("brief", "vehicle", "mass"), "mass"),
    "300 obstacles": (lambda: with_obstacles(300), ("survey", "obstacles", "horn", "left"), "length"),
}


def test_an_edit_of_a_large_build():
    """One entry of it typed anew, as far as the window follows the typing."""
    for what, (made, path, kind) in LARGE_BUILDS.items():
        store, times = Store(made()), []
        with Kept().at_work():
            state = first_wave(store.build)
            for k in range(8):
                value = {"current": f"{30 + k % 2 * 5} A", "mass": f"{5000 + k} lb", "length": f"{20 + k / 8} in"}[kind]
                start = time.perf_counter()
                store.apply(set_value(path, quantity(value, kind, "measured"), "Edit"))
                state = first_wave(store.build, previous=state)
                times.append(time.perf_counter() - start)
        take_time(f"an edit of {what}", statistics.median(times), LARGE_EDIT)


@pytest.mark.timeout(300)
def test_large_builds():
    """Load, first visits, edits, theme and units on the demo and on 40 and 200 circuits, a process each."""
    for name in ("demo", "40 circuits", "200 circuits"):
        done = subprocess.run(
            [sys.executable, "-m", "tests.soak.scale", name],
            capture_output=True,
            text=True,
            check=True,
            env=dict(os.environ),
        )
        say(done.stdout.strip())
