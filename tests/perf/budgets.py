"""What the bench measured against what it may take: one table at the end, and an end that tells whether all was kept.

Machines differ by more than a budget does: time is told as a share of a bare window of the same libraries in the same
run.
"""

import os
import statistics
import subprocess
import sys
import time
from typing import NamedTuple

from tests.conftest import DEMO

BARE = """
import time, os, sys
import numpy, pyqtgraph
from PyQt6.QtWidgets import QApplication, QMainWindow
app = QApplication([]); w = QMainWindow(); w.setCentralWidget(pyqtgraph.PlotWidget()); w.resize(1280, 800); w.show()
while not w.windowHandle().isExposed(): app.processEvents()
app.processEvents()
print("painted", open('/proc/self/status').read().split('VmRSS:')[1].split()[0]); sys.stdout.flush(); os._exit(0)
"""


BARES: list[float] = []
"""Seconds every bare window of this run took, in turn."""


def bare_window() -> float:
    """Seconds from process start to a bare window painted, as it is about now: the median of three just opened and of
    the three before. A machine others work on too may be half as quick a minute later."""
    for _ in range(3):
        start = time.perf_counter()
        subprocess.run([sys.executable, "-c", BARE, str(DEMO)], capture_output=True, check=True, env=dict(os.environ))
        BARES.append(time.perf_counter() - start)
    return statistics.median(BARES[-6:])


class Held(NamedTuple):
    """One figure against its budget. more: a figure that has to be at least its budget, not at most."""

    what: str
    figure: float
    budget: float
    unit: str
    more: bool = False

    @property
    def kept(self) -> bool:
        return self.figure >= self.budget if self.more else self.figure <= self.budget


MEASURED: list[Held] = []


def take_time(what: str, seconds: float, share: float) -> None:
    """Seconds against a share of a bare window's, opened before and after."""
    MEASURED.append(Held(what, seconds * 1e3, share * bare_window() * 1e3, "ms"))


def take(what: str, figure: float, budget: float, unit: str = "", more: bool = False) -> None:
    """Any other figure against its budget."""
    MEASURED.append(Held(what, figure, budget, unit, more))


def table() -> list[str]:
    """Budget, figure and how much of the budget it is, the missed ones last."""
    rows = [f"{'what':58} {'budget':>12} {'measured':>12}  of it"]
    for one in sorted(MEASURED, key=lambda one: not one.kept):
        part = one.budget / one.figure if one.more else one.figure / one.budget
        sense = "≥" if one.more else "≤"
        sizes = [f"{value:,.0f}" if value >= 100 else f"{value:.2f}" for value in (one.budget, one.figure)]
        rows.append(
            f"{one.what:58} {f'{sense} {sizes[0]} {one.unit}'.strip():>12} {f'{sizes[1]} {one.unit}'.strip():>12}  "
            f"{part:.0%}{'' if one.kept else '  MISSED'}"
        )
    return rows
