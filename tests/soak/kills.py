"""A real window in its own event loop, edited at a pace and killed: how much work is lost. `python -m tests.soak.kills 40`."""

from __future__ import annotations

import os
import random
import signal
import subprocess
import sys
import time
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import NamedTuple

from keelroom.document.autosave import Autosave
from keelroom.document.file import load
from tests.conftest import DEMO

HERE = Path(__file__).parents[2]
PACES = (0.05, 0.35, 0.8, 1.5)
EDITED = """
import sys, time
from pathlib import Path
from PyQt6.QtCore import QTimer
from keelroom.document.edits import set_value
from keelroom.document.quantity import quantity
from keelroom.gui.app import application, make_window
app = application()
window = make_window(Path(sys.argv[1]))
window.show()
count = 0
def edit():
    global count
    count += 1
    window.session.attempt(set_value(("brief", "vehicle", "mass"), quantity(f"{2000 + count} lb", "mass", "measured"), "Mass"))
    print(count, time.clock_gettime(time.CLOCK_MONOTONIC), flush=True)
timer = QTimer()
timer.timeout.connect(edit)
timer.start(int(float(sys.argv[2]) * 1000))
app.exec()
"""


class Kill(NamedTuple):
    """One kill: pace [s] between edits, edits made, and the seconds of work that were lost."""

    pace: float
    edits: int
    lost: float


def kill_one(pace: float, after: float, least: int = 1) -> Kill:
    """Kill a window `after` seconds past its first `least` edits and see what its recovery copy holds."""
    with TemporaryDirectory() as folder:
        path = Path(folder) / "van.keelroom"
        path.write_bytes(DEMO.read_bytes())
        environment = {
            **os.environ,
            "XDG_STATE_HOME": str(Path(folder) / "state"),
            "XDG_CONFIG_HOME": folder,
            "QT_QPA_PLATFORM": "offscreen",
        }
        child = subprocess.Popen(
            [sys.executable, "-c", EDITED, str(path), str(pace)], cwd=HERE, env=environment, stdout=subprocess.PIPE, text=True
        )
        assert child.stdout is not None
        first = [child.stdout.readline() for _ in range(least)]  # however slow the machine is
        time.sleep(after)  # a person at work; nothing is waited for
        killed = time.clock_gettime(time.CLOCK_MONOTONIC)
        child.send_signal(signal.SIGKILL)
        lines = [*first, *child.stdout.read().splitlines()]
        child.wait()
        made = {int(count): float(when) for count, when in (line.split() for line in lines if len(line.split()) == 2)}
        assert load(path) == load(DEMO), "the file itself is whole"
        found = Autosave(Path(folder) / "state/keelroom").left_behind()
        kept = int(found[0].build.brief.vehicle.mass.as_typed.split()[0]) - 2000 if found else 0
        lost = [when for count, when in made.items() if count > kept]
        return Kill(pace, len(made), killed - min(lost) if lost else 0.0)


def run(count: int, seed: int = 3) -> list[Kill]:
    """So many kills at changing paces and moments."""
    dice = random.Random(seed)
    return [kill_one(PACES[k % len(PACES)], dice.uniform(0.3, 4.0)) for k in range(count)]


if __name__ == "__main__":
    kills = run(int(sys.argv[1]))
    for pace in PACES:
        mine = [kill for kill in kills if kill.pace == pace]
        if mine:
            print(
                f"an edit each {pace} s: {len(mine)} kills, {sum(k.edits for k in mine)} edits, most lost {max(k.lost for k in mine):.2f} s of work"
            )
    sys.exit(max(kill.lost for kill in kills) > 2.0)
