"""Applies one deliberate fault to a copy of the sources and runs the tests that must notice. `python -m
tests.faults.run` does all."""

import json
import re
import shutil
import subprocess
import sys
import tempfile
from functools import cache
from pathlib import Path

from tests.faults.catalogue import FAULTS, Fault

ROOT = Path(__file__).parents[2]


class Nursery:
    """A process that has everything but our own code imported; each fault is tried in a child of it, which begins
    there."""

    def __init__(self) -> None:
        self.process = subprocess.Popen(
            [sys.executable, "-c", NURSERY], cwd=ROOT, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
        )

    def closing_line(self, source: Path, tests: tuple[str, ...]) -> str:
        """pytest's closing line for some tests with the sources in `source`."""
        assert self.process.stdin is not None
        assert self.process.stdout is not None
        self.process.stdin.write(json.dumps([str(source), list(tests)]) + "\n")
        self.process.stdin.flush()
        said: str = json.loads(self.process.stdout.readline())
        return said


NURSERY = """
import importlib, json, os, sys, tempfile
import pytest
for name in (
    "numpy scipy.optimize scipy.integrate scipy.spatial hypothesis.strategies pydantic ht fluids iapws pint shapely "
    "CoolProp.CoolProp ezdxf reportlab.platypus pypdf jsonschema"
).split():
    try:
        importlib.import_module(name)
    except ImportError:
        pass
for line in sys.stdin:
    source, tests = json.loads(line)
    with tempfile.TemporaryFile("w+") as out:
        child = os.fork()
        if child == 0:
            os.dup2(out.fileno(), 1)
            os.dup2(out.fileno(), 2)
            os.environ["PYTHONPATH"] = source
            sys.path[:0] = [source, os.getcwd()]
            code = pytest.main(["-p", "no:cacheprovider", "-n", "0", "-x", "--hypothesis-profile=unshrunk", *tests])
            sys.stdout.flush()
            os._exit(int(code))
        os.waitpid(child, 0)
        out.seek(0)
        lines = out.read().strip().splitlines()
    print(json.dumps(lines[-1] if lines else ""), flush=True)
"""


@cache
def nursery() -> Nursery:
    """The one of this process."""
    return Nursery()


def from_source(file: Path, source: Path) -> None:
    """Run all of the core from its source where a fault is in what was compiled: what was built of it has none, and
    building it anew takes longer than the slower run of a few tests."""
    if list(file.parent.glob(f"{file.stem}.*.so")):
        for built in source.rglob("*.so"):
            built.unlink()


def red_tests(fault: Fault) -> tuple[int, str]:
    """How many of the named tests failed with the fault in place, and pytest's closing line."""
    with tempfile.TemporaryDirectory(prefix="keelroom-fault-") as folder:
        source = Path(folder) / "src"
        shutil.copytree(ROOT / "src", source)
        file = source / "keelroom" / fault.file
        text = file.read_text(encoding="utf-8")
        assert text.count(fault.old) == 1, f"{fault.name}: its line is not, or not once, in {fault.file}"
        file.write_text(text.replace(fault.old, fault.new), encoding="utf-8")
        from_source(file, source)
        closing = nursery().closing_line(source, fault.tests)
    found = re.search(r"(\d+) failed", closing)
    return (int(found.group(1)) if found else 0), closing


def main() -> int:
    survived = 0
    for fault in FAULTS:
        red, closing = red_tests(fault)
        survived += not red
        print(
            f"{'red' if red else 'SURVIVED':9}{fault.name}: "
            f"{', '.join(t.rsplit('::', 1)[-1] for t in fault.tests)} ({closing})"
        )
    return int(survived > 0)


if __name__ == "__main__":
    sys.exit(main())
