"""Which test calls which function of core and assess: a pytest plugin that writes {test: [seconds, [function, …]]} as
JSON."""

from __future__ import annotations

import json
import os
import sys
import time
from pathlib import Path
from types import FrameType

import pytest

from keelroom.core.kept import Kept
from tests.mutants.sites import ROOT

ROOMS = tuple(str(ROOT / room) for room in ("core", "assess"))


class Seen:
    """Profiles every test alone, with nothing kept from the one before."""

    def __init__(self, target: Path) -> None:
        self.target, self.tests = target, {}

    @pytest.hookimpl(hookwrapper=True)
    def pytest_runtest_call(self, item: pytest.Item):
        calls: set[str] = set()

        def watch(frame: FrameType, event: str, _argument: object) -> None:
            if event == "call":
                code = frame.f_code
                if code.co_filename.startswith(ROOMS):
                    calls.add(f"{os.path.relpath(code.co_filename, ROOT)}:{code.co_qualname}")

        Kept().stay()
        start = time.monotonic()
        sys.setprofile(watch)
        try:
            yield
        finally:
            sys.setprofile(None)
        self.tests[item.nodeid] = [time.monotonic() - start, sorted(calls)]

    def pytest_sessionfinish(self) -> None:
        self.target.write_text(json.dumps(self.tests))


def pytest_configure(config: pytest.Config) -> None:
    config.pluginmanager.register(Seen(Path(os.environ["KEELROOM_SEEN"])))
