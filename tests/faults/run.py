"""Applies one deliberate fault to a copy of the sources and runs the tests that must notice. `python -m tests.faults.run` does all."""

import os
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from tests.faults.catalogue import FAULTS, Fault

ROOT = Path(__file__).parents[2]


def red_tests(fault: Fault) -> tuple[int, str]:
    """How many of the named tests failed with the fault in place, and pytest's closing line."""
    with tempfile.TemporaryDirectory(prefix="keelroom-fault-") as folder:
        source = Path(folder) / "src"
        shutil.copytree(ROOT / "src", source)  # with what was compiled: only the changed file is compiled anew
        file = source / "keelroom" / fault.file
        text = file.read_text(encoding="utf-8")
        assert text.count(fault.old) == 1, f"{fault.name}: its line is not, or not once, in {fault.file}"
        file.write_text(text.replace(fault.old, fault.new), encoding="utf-8")
        done = subprocess.run(
            [sys.executable, "-m", "pytest", "-p", "no:cacheprovider", "-n", "0", "-x", *fault.tests],
            cwd=ROOT, env={**os.environ, "PYTHONPATH": str(source)}, capture_output=True, text=True,
        )  # fmt: skip
    closing = done.stdout.strip().splitlines()[-1] if done.stdout.strip() else done.stderr
    found = re.search(r"(\d+) failed", closing)
    return (int(found.group(1)) if found else 0), closing


def main() -> int:
    survived = 0
    for fault in FAULTS:
        red, closing = red_tests(fault)
        survived += not red
        print(f"{'red' if red else 'SURVIVED':9}{fault.name}: {', '.join(t.rsplit('::', 1)[-1] for t in fault.tests)} ({closing})")
    return int(survived > 0)


if __name__ == "__main__":
    sys.exit(main())
