"""Shared by all tests: Qt offscreen unless told otherwise, a home of its own, and small builds to start from."""

import atexit
import os
import shutil
import tempfile

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
_HOME = tempfile.mkdtemp(prefix="keelroom-tests-")
atexit.register(shutil.rmtree, _HOME, ignore_errors=True)
for _name in ("HOME", "XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME"):
    os.environ[_name] = _HOME

from pathlib import Path  # noqa: E402

import pytest  # noqa: E402
from hypothesis import HealthCheck, Phase, settings  # noqa: E402

from keelroom.core.kept import Kept  # noqa: E402
from keelroom.document.file import load  # noqa: E402
from keelroom.document.schema.build import Build  # noqa: E402
from tests.long import long  # noqa: E402

settings.register_profile(
    "repeatable",
    derandomize=True,
    deadline=None,
    max_examples=long("draws", 25),
    suppress_health_check=list(HealthCheck),
)
# Where it is enough that a test fails, the smallest case for it is not sought.
settings.register_profile("unshrunk", settings.get_profile("repeatable"), phases=(Phase.explicit, Phase.generate))
settings.load_profile("repeatable")

Kept().stay()  # as a session does; what holds without it is told by the tests of what is kept

DEMO = Path(__file__).parents[1] / "src/keelroom/assets/demo.keelroom"


@pytest.fixture(scope="session")
def demo() -> Build:
    return load(DEMO)


def pytest_terminal_summary(terminalreporter):
    """Counts a test recorded are printed at the end, from whichever worker they came."""
    for report in terminalreporter.getreports("passed"):
        for name, value in getattr(report, "user_properties", ()):
            if name == "counts":
                terminalreporter.write_line(str(value))
