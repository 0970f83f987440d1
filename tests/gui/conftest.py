"""Windows the interface tests share."""

import pytest

from tests.conftest import DEMO
from tests.gui.driver import opened


@pytest.fixture
def demo_window(tmp_path):
    path = tmp_path / "demo.keelroom"
    path.write_bytes(DEMO.read_bytes())
    driver = opened(path)
    yield driver
    driver.dispose()
