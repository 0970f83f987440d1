"""`make soak`: 20 000 random acts with a reader of figures, every field at its ends, 20 000 files assessed, 300
kills, broken files, and large builds, with counts. Some two hours."""

from __future__ import annotations

import os
import subprocess
import sys

SEEDS = ((7, "demo"), (11, "demo"), (23, "first"), (31, "first"), (43, "small"), (59, "small"), (71, "stuck"))
"""Seeds of the random user, and the build each is let loose on."""
STEPS = (
    *((f"monkey {seed} on {build}", ["tests.soak.monkey", "2900", str(seed), build]) for seed, build in SEEDS),
    ("every field", ["tests.soak.walk", "1", "2000"]),
    ("every page", ["tests.soak.pages", "60", "5"]),
    ("files that load", ["tests.soak.fuzz", "20000"]),
    ("kills", ["tests.soak.kills", "300"]),
    ("scale", ["tests.soak.scale"]),
    ("rings of acts", ["tests.soak.rings"]),
    ("acts offered", ["tests.soak.offers", "400"]),
)
failed = []
for name, arguments in STEPS:
    print(f"== {name}", flush=True)
    if subprocess.run([sys.executable, "-m", *arguments]).returncode:
        failed.append(name)
LONG = {
    "fuzz": "properties/test_fuzz_loader.py",
    "pure": "properties/test_pure.py",
    "orders": "properties/test_pure.py",
    "looks": "gui/test_layout.py",
    "access": "gui/test_access.py",
    "harness": "properties/test_planned_harness.py",
    "scalar": "reference/test_scalar_agreement.py",
    "draws": "properties",
    "offers": "properties/test_offers.py",
    "every": "properties/test_reads.py",
}
"""Tests of the daily run in their long forms."""
for name, module in LONG.items():
    print(f"== {name}, long", flush=True)
    test = [sys.executable, "-m", "pytest", "-q", "-n", "0", "-o", "timeout=3000", f"tests/{module}"]
    if subprocess.run(test, env={**os.environ, "KEELROOM_LONG": name}).returncode:
        failed.append(name)
print(f"failed: {', '.join(failed)}" if failed else "all of it held")
sys.exit(bool(failed))
