"""A screen reader gets round: every page is turned to over the accessibility bus, and what is there has a name."""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from keelroom.gui.registry import STATIONS
from tests.long import long

READER = "/usr/bin/python3"
"""the system's Python: the bus's own bindings come with it"""
LAUNCHER = next(
    (
        str(path)
        for path in map(Path, ("/usr/libexec/at-spi-bus-launcher", "/usr/lib/at-spi2-core/at-spi-bus-launcher"))
        if path.is_file()
    ),
    "",
)
RUN = """
"$1" --launch-immediately & bus=$!
"$2" -m keelroom demo & program=$!
"$3" "$4" "$5"; code=$?
kill $program $bus
exit $code
"""


def has_reader() -> bool:
    """Whether the bus and its bindings are there: `tools/system_libraries.sh` installs them."""
    tools = all(map(shutil.which, ("dbus-run-session", "xvfb-run")))
    if not (tools and LAUNCHER and Path(READER).is_file()):
        return False
    tried = ["dbus-run-session", "--", READER, "-c", "import pyatspi"]
    return subprocess.run(tried, capture_output=True, check=False).returncode == 0


@pytest.mark.skipif(
    not has_reader(), reason="no accessibility bus here: sh tools/system_libraries.sh names what is missing"
)
@pytest.mark.timeout(240)
def test_every_page_is_turned_to_and_named_over_the_accessibility_bus(tmp_path):
    walked = STATIONS[-long("access", 1) :]
    stations = {station.name: [[leaf.title, list(leaf.parts)] for leaf in station.pages] for station in walked}
    runtime = tmp_path / "run"
    runtime.mkdir(mode=0o700)
    own = {name: str(tmp_path / name) for name in ("XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME", "HOME")}
    told = {"QT_LINUX_ACCESSIBILITY_ALWAYS_ON": "1", "QT_QPA_PLATFORM": "xcb", "XDG_RUNTIME_DIR": str(runtime)}
    walk = str(Path(__file__).with_name("access_walk.py"))
    shown_round = Path(own["XDG_CONFIG_HOME"]) / "keelroom/keelroom.conf"
    shown_round.parent.mkdir(parents=True)
    shown_round.write_text("[General]\nshown_round=true\n")
    shell = ["dbus-run-session", "--", "xvfb-run", "-a", "-s", "-screen 0 1280x800x24", "sh", "-c", RUN, "sh"]
    done = subprocess.run(
        [*shell, LAUNCHER, sys.executable, READER, walk, json.dumps(stations)],
        env={**os.environ, **own, **told},
        capture_output=True,
        text=True,
        timeout=500,
        check=False,
    )
    assert done.returncode == 0, done.stderr[-600:]
    found = json.loads(done.stdout.strip().splitlines()[-1])
    parts = [f"{station.name}, {part}" for station in walked for part in station.parts]
    assert list(found["pages"]) == parts, "every part of every page"
    faults = {page: look["faults"] for page, look in found["pages"].items() if look["faults"]}
    assert not faults
    assert found["pages"]["Work, Hours"]["fields"] >= 5
    assert all(look["buttons"] > 15 for look in found["pages"].values())
    assert found["verdict"] == ["Verdict: 4 of 6 hold; Hill-climb, full power does not settle"]
    assert len(found["cases"]) == 5, "the sixth does not settle and has no band"
