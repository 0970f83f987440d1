"""How the window bears large builds: load, first visit of every page, an edit, theme, units, memory. `python -m
tests.soak.scale`."""

from __future__ import annotations

import sys
import time
from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory

import tests.conftest  # noqa: F401  (a home of its own, offscreen)
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import load, save
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.survey import Obstacle
from tests.conftest import DEMO

P = ("packages", "p1")


def with_circuits(count: int) -> Build:
    """The demo with so many circuits, each like its first but feeding nothing past the fans it has."""
    build = load(DEMO)
    first = build.package.circuits[0]
    more = tuple(
        first.model_copy(update={"id": f"more{n}", "name": f"Circuit {n}", "feeds": first.feeds if n % 2 else ()})
        for n in range(count - 1)
    )
    return apply(build, Edit("", (Change((*P, "circuits"), (first, *more)),)))


def with_packages(count: int) -> Build:
    build = load(DEMO)
    more = tuple(
        build.package.model_copy(update={"id": f"q{n}", "name": f"Package {n}"})
        for n in range(count - len(build.packages))
    )
    return apply(build, Edit("", (Change(("packages",), (*build.packages, *more)),)))


def with_obstacles(count: int) -> Build:
    build = load(DEMO)
    have = build.survey.obstacles
    more = tuple(
        (have[n % len(have)] if have else Obstacle(id="o")).model_copy(
            update={"id": f"obst{n}", "name": f"Obstacle {n}"}
        )
        for n in range(count - len(have))
    )
    return apply(build, Edit("", (Change(("survey", "obstacles"), (*have, *more)),)))


def with_cases(count: int) -> Build:
    build = load(DEMO)
    have = build.duty_cases
    more = tuple(
        have[n % len(have)].model_copy(update={"id": f"case{n + 100}", "name": f"Case {n}"})
        for n in range(count - len(have))
    )
    return apply(build, Edit("", (Change(("duty_cases",), (*have, *more)),)))


def at_every_limit() -> Build:
    """The demo with every list of the car and of its package as long as it may be."""
    build, package = load(DEMO), load(DEMO).package
    long = {
        "fans": 12,
        "coolers": 20,
        "circuits": 200,
        "panels": 40,
        "brackets": 80,
    }
    lists = {name: _longer(getattr(package, name), count) for name, count in long.items()}
    full = package.model_copy(update=lists)
    survey = build.survey.model_copy(
        update={"obstacles": _longer(build.survey.obstacles, 300), "holes": _longer(build.survey.holes, 100)}
    )
    others = tuple(package.model_copy(update={"id": f"q{n}", "name": f"Package {n}"}) for n in range(119))
    cases = _longer(build.duty_cases, 60)
    return build.model_copy(
        update={"packages": (full, *others), "active": full.id, "survey": survey, "duty_cases": cases}
    )


def _longer(items: tuple, count: int) -> tuple:
    """Members repeated under ids of their own; what feeds something feeds it once."""
    more = tuple(items[n % len(items)].model_copy(update={"id": f"more{n}"}) for n in range(count - len(items)))
    return (*items, *(one.model_copy(update={"feeds": ()}) if hasattr(one, "feeds") else one for one in more))


BUILDS: dict[str, Callable[[], Build]] = {
    "demo": lambda: load(DEMO),
    "40 circuits": lambda: with_circuits(40),
    "200 circuits": lambda: with_circuits(200),
    "100 packages": lambda: with_packages(100),
    "300 obstacles": lambda: with_obstacles(300),
    "60 cases": lambda: with_cases(60),
    "every limit": at_every_limit,
}


class Watch:
    """Seconds of processor time an act took, the window's late work included."""

    def __init__(self) -> None:
        self.taken: dict[str, float] = {}

    def time(self, name: str, act: Callable[[], object]) -> None:
        from PyQt6.QtWidgets import QApplication

        start = time.thread_time()
        act()
        for _ in range(3):
            QApplication.processEvents()
        self.taken[name] = max(self.taken.get(name, 0.0), time.thread_time() - start)


def peak_memory() -> float:
    """The most this process has held [MB]. Its own: what getrusage tells begins with that of whoever started it."""
    line = next(line for line in Path("/proc/self/status").read_text().splitlines() if line.startswith("VmHWM"))
    return int(line.split()[1]) / 1024


def measure(build: Build) -> dict[str, float]:
    """What the acts take on this build [s], and the memory in use at the end [MB]."""
    from keelroom.gui.app import application, make_window
    from keelroom.gui.registry import STATIONS

    app, watch = application(), Watch()
    with TemporaryDirectory() as folder:
        path = Path(folder) / "large.keelroom"
        save(build, path)
        made = []

        def start() -> None:
            window = make_window(path)
            window.resize(1280, 800)
            window.show()
            made.append(window)

        watch.time("load", start)
        window = made[0]
        for name in (station.name for station in STATIONS):
            watch.time(f"first visit {name}", lambda name=name: window.show_station(name))
            for page in window.stations[name].pages():
                watch.time(f"first visit {name}", lambda name=name, page=page: window.stations[name].choose(page.title))
        for number, name in enumerate(station.name for station in STATIONS):
            window.show_station(name)
            app.processEvents()
            changes = (Change(("brief", "vehicle", "mass"), quantity(f"{4400 + number} lb", "mass", "measured")),)
            watch.time(f"edit at {name}", lambda changes=changes: window.session.attempt(Edit("Mass", changes)))
            size = ("10 AWG", "8 AWG")[number % 2]
            circuit = window.session.build.package.circuits[0].id
            wire = (Change((*P, "circuits", circuit, "feed", "size"), quantity(size, "wire size", "measured")),)
            watch.time(f"gauge at {name}", lambda wire=wire: window.session.attempt(Edit("Gauge", wire)))
        for _ in range(2):
            watch.time("theme", window.switch_theme)
            watch.time("units", window.switch_units)
        watch.taken["memory MB"] = peak_memory()
        window.session.store.mark_saved(window.session.build)
        window.close()
    return watch.taken


def main(names: list[str]) -> None:
    """Print a line per build asked for, each in a process of its own so that its memory is its own."""
    import subprocess

    if len(names) == 1:
        found = measure(BUILDS[names[0]]())
        visits = {k: v for k, v in found.items() if k.startswith("first visit")}
        edits = {k: v for k, v in found.items() if " at " in k}
        slow, worst = max(visits, key=lambda k: visits[k]), max(edits, key=lambda k: edits[k])
        print(
            f"{names[0]:>14}: load {found['load']:.2f}  {slow} {visits[slow]:.2f}  electrical "
            f"{visits['first visit Electrical']:.2f}  "
            f"worst edit ({worst}) {edits[worst]:.2f}  theme {found['theme']:.2f}  units "
            f"{found['units']:.2f} s  {found['memory MB']:.0f} MB",
            flush=True,
        )
        return
    for name in names or list(BUILDS):
        subprocess.run([sys.executable, "-m", "tests.soak.scale", name], check=True)


if __name__ == "__main__":
    main(sys.argv[1:])
