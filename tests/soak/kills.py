"""A real window in its own event loop, edited at a pace and killed: how much work is lost. `python -m
tests.soak.kills 300`.

On an ordinary disk, on one that takes its time, and on one that is full from the third copy on: there nothing more
can be kept, and what was kept before has to be whole.
"""

from __future__ import annotations

import os
import random
import signal
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import NamedTuple

from keelroom.document.autosave import Autosave
from keelroom.document.file import load
from tests.conftest import DEMO

HERE = Path(__file__).parents[2]
PACES = (0.05, 0.35, 0.8, 1.5)
DISKS = ("ordinary", "ordinary", "slow", "full")
SLOW = 0.4
"""[s] a slow disk takes for each file."""
EDITED = """
import errno, os, sys, time
from pathlib import Path
from PyQt6.QtCore import QTimer
from keelroom.document.edits import set_value
from keelroom.document.quantity import quantity
from keelroom.gui.app import application, make_window
real, synced = os.fsync, 0
def fsync(handle):
    global synced
    synced += 1
    if sys.argv[3] == "slow":
        time.sleep(float(sys.argv[4]))
    if sys.argv[3] == "full" and synced > 6:
        raise OSError(errno.ENOSPC, "No space left on device")
    real(handle)
os.fsync = fsync
app = application()
window = make_window(Path(sys.argv[1]))
window.show()
count = 0
def edit():
    global count
    count += 1
    mass = quantity(f"{2000 + count} lb", "mass", "measured")
    window.session.attempt(set_value(("brief", "vehicle", "mass"), mass, "Mass"))
    print(count, time.clock_gettime(time.CLOCK_MONOTONIC), flush=True)
timer = QTimer()
timer.timeout.connect(edit)
timer.start(int(float(sys.argv[2]) * 1000))
app.exec()
"""


class Kill(NamedTuple):
    """One kill: pace [s] between edits, edits made, the seconds of work that were lost, and what disk it was."""

    pace: float
    edits: int
    lost: float
    disk: str = "ordinary"


def kill_one(pace: float, after: float, least: int = 1, disk: str = "ordinary") -> Kill:
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
            [sys.executable, "-c", EDITED, str(path), str(pace), disk, str(SLOW)],
            cwd=HERE,
            env=environment,
            stdout=subprocess.PIPE,
            text=True,
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
        return Kill(pace, len(made), killed - min(lost) if lost else 0.0, disk)


def run(count: int, seed: int = 3) -> list[Kill]:
    """So many kills at changing paces and moments."""
    dice = random.Random(seed)
    asked = [
        (PACES[k % len(PACES)], dice.uniform(0.3, 3.0), DISKS[(k // len(PACES)) % len(DISKS)]) for k in range(count)
    ]
    with ThreadPoolExecutor(2) as pool:
        return list(pool.map(lambda one: kill_one(one[0], one[1], disk=one[2]), asked))


if __name__ == "__main__":
    kills = run(int(sys.argv[1]))
    for disk in dict.fromkeys(DISKS):
        for pace in PACES:
            mine = [kill for kill in kills if kill.pace == pace and kill.disk == disk]
            if mine:
                print(
                    f"{disk} disk, an edit each {pace} s: {len(mine)} kills, {sum(k.edits for k in mine)} "
                    f"edits, most lost {max(k.lost for k in mine):.2f} s of work"
                )
    kept = (
        [kill.lost for kill in kills if kill.disk == "ordinary"],
        [kill.lost for kill in kills if kill.disk == "slow"],
    )
    sys.exit(max(kept[0], default=0.0) > 2.0 or max(kept[1], default=0.0) > 2.0 + 4 * SLOW)
