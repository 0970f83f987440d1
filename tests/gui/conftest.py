"""Windows the interface tests share."""

import pytest
from PyQt6.QtCore import QSettings

from tests.conftest import DEMO
from tests.gui.driver import opened


@pytest.fixture
def demo_window(tmp_path):
    path = tmp_path / "demo.keelroom"
    path.write_bytes(DEMO.read_bytes())
    driver = opened(path)
    yield driver
    driver.dispose()


@pytest.fixture
def settled_demo(demo_window):
    """The demo's window once all it began is finished."""
    demo_window.settle()
    return demo_window


@pytest.fixture(autouse=True)
def as_first_started():
    """What one test set, units and open drawers among it, is not the next one's."""
    QSettings("keelroom", "keelroom").clear()
