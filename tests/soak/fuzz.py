"""Files with several entries drawn from anywhere in their ranges: loaded, and what loads is assessed. `python -m
tests.soak.fuzz 20000`.

Beside the broken files of `tests/properties/test_fuzz_loader.py`, most of which are refused: here nearly all are
files a person could have saved, one to six entries away from an ordinary car, so that the assessment is what is
tried.
"""

from __future__ import annotations

import json
import math
import random
import sys
import warnings
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from pathlib import Path

from keelroom.assess.assess import assess, first_wave
from keelroom.assess.machine_form import as_json
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import parse, serialised
from keelroom.document.quantity import Spec, from_si
from keelroom.document.schema.build import Build
from keelroom.errors import InputError
from tests.soak.walk import fields as fields_of
from tests.soak.walk import measures, small

WHOLE = 10
"""One in so many is told whole, as JSON."""


def drawn(build: Build, dice: random.Random) -> Build | None:
    """The build with one to six measures anywhere in their ranges, or at their ends; None where no such build can
    be."""
    from keelroom.document.fields import get, spec_of

    places = [(path, spec) for path, model, name in fields_of(build) if (spec := spec_of(model, name)) is not None]
    changes = []
    for path, spec in dice.sample(places, dice.choice((1, 1, 2, 2, 3, 6))):
        with suppress(InputError):
            value = (
                anywhere(spec, dice) if dice.random() < 0.7 else dice.choice(list(measures(spec, get(build, path))))[0]
            )
            changes.append(Change(path, value))
    with suppress(InputError):
        return apply(build, Edit("", tuple(changes)))
    return None


def anywhere(spec: Spec, dice: random.Random):
    """A measure anywhere in its range, evenly over its powers of ten where it has more than one."""
    low = spec.gt if spec.gt is not None else spec.ge if spec.ge is not None else 0.0
    high = spec.le if spec.le is not None else max(10 * abs(low), 100.0)
    if low >= 0 and high > 0:
        least = max(low, high * 1e-5)
        si = math.exp(dice.uniform(math.log(least), math.log(high)))
    else:
        si = dice.uniform(low, high)
    return from_si(round(si) if spec.whole else si, spec.kind_name, "us", "measured")


def part(asked: tuple[int, int]) -> tuple[Counter[str], list[str]]:
    """One process's share: its seed, and how many it assesses."""
    seed, count = asked
    warnings.simplefilter("ignore")
    dice, build, found, broke = random.Random(seed), small(), Counter[str](), []
    while found["assessed"] < count:
        made = drawn(build, dice)
        if made is None:
            found["refused"] += 1
            continue
        try:
            loaded = parse(serialised(made), Path("fuzzed"))
            whole = found["assessed"] % WHOLE == 0
            told = assess(loaded) if whole else first_wave(loaded)
            if whole:
                json.dumps(as_json(told), allow_nan=False)
            reports = [f.report for f in told.findings if f.report]
        except Exception as error:
            reports = [f"{type(error).__name__}: {error}"]
        else:
            found["assessed"] += 1
            found["stopped" if told.all_stopped else "worked out"] += 1
        if reports:
            broke.append(f"seed {seed}, file {found['assessed']}: {reports[0]}\n{_differs(build, made)}")
    return found, broke


def _differs(build: Build, made: Build) -> str:
    from keelroom.document.difference import differences, worded

    return "; ".join(map(worded, differences(build, made)))


def run(count: int, seed: int = 50, processes: int = 2) -> tuple[Counter[str], list[str]]:
    """So many assessed; counts, and what broke."""
    counted, broke = Counter[str](), []
    with ProcessPoolExecutor(processes) as pool:
        for found, faults in pool.map(part, [(seed + k, count // processes) for k in range(processes)]):
            counted += found
            broke += faults
    return counted, broke


if __name__ == "__main__":
    counted, broke = run(int(sys.argv[1]))
    print(f"{dict(counted)}; {len(broke)} broke")
    print("\n".join(broke[:40]))
    sys.exit(bool(broke))
