"""`make soak`: a monkey of 3 000 acts, 40 kills, broken files, and large builds, with counts."""

from __future__ import annotations

import os
import subprocess
import sys

STEPS = (
    ("monkey", ["tests.soak.monkey", "3000", "7"]),
    ("kills", ["tests.soak.kills", "40"]),
    ("scale", ["tests.soak.scale"]),
)
failed = []
for name, arguments in STEPS:
    print(f"== {name}", flush=True)
    if subprocess.run([sys.executable, "-m", *arguments]).returncode:
        failed.append(name)
print("== broken files", flush=True)
more = {**os.environ, "KEELROOM_FUZZ": "12000"}
if subprocess.run(
    [sys.executable, "-m", "pytest", "-q", "-n", "0", "-o", "timeout=3000", "tests/properties/test_fuzz_loader.py"], env=more
).returncode:
    failed.append("broken files")
print(f"failed: {', '.join(failed)}" if failed else "all of it held")
sys.exit(bool(failed))
