"""Every field of the document at its ends and beyond them, through everything that reads it. `python -m
tests.soak.walk [share] [pairs]`.

One field at a time: its limits, just inside and outside of them, nought, next to nothing, far too much, empty; every
                     choice, every flag,
names of all sorts. Then drawn pairs of such. Each either is refused in our own words and changes nothing, or makes a
build that can be saved, opened, assessed, told as JSON and as a table, every so often written as a sheet; nothing may
raise or come out without a value, and what cannot be worked out has a sentence, never a report.
"""

from __future__ import annotations

import json
import random
import sys
import time
import typing
import warnings
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from datetime import date
from itertools import islice
from pathlib import Path
from typing import Any, NamedTuple

from pydantic import BaseModel

from keelroom.assess.assess import assess
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.machine_form import as_json
from keelroom.assess.report import as_table, plain_verdict
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.fields import Path as Where
from keelroom.document.fields import spec_of
from keelroom.document.file import load, parse, serialised
from keelroom.document.quantity import Quantity, Spec, from_si
from keelroom.document.schema.build import Build
from keelroom.errors import InputError
from tests.conftest import DEMO
from tests.told import what_of

LIBRARY = ("Input should", "Extra inputs", "Field required", "pydantic", "Value error", "Traceback")
"""Wording that is none of ours."""
NAMES = (
    "",
    "x" * 3000,
    "\x1b[2J\nnext",
    "<b>bold</b> &amp; <a href='x'>y</a>",
    "=1+1",
    "half \ud800",
    "\u202eback",
    "²³½",
)
DAY = date(2026, 1, 1)


class Tried(NamedTuple):
    """One change: where, what it sets, in words."""

    path: Where
    value: Any
    words: str


class Outcome(NamedTuple):
    """What became of a change: refused, worked out, or stopped with so many sentences; and all that must not be."""

    sort: str
    faults: tuple[str, ...]


def small() -> Build:
    """The demo with one package, one of most things and two duty cases: what a field is read by is all there."""
    build = load(DEMO)
    survey = build.survey.model_copy(update={"obstacles": build.survey.obstacles[:2], "holes": build.survey.holes[:1]})
    package = build.package.model_copy(update={"brackets": build.package.brackets[:2]})
    kept = {"packages": (package,), "survey": survey, "duty_cases": (build.duty_cases[0], build.duty_cases[3])}
    return build.model_copy(update=kept)


def fields(node: BaseModel, path: Where = ()) -> Iterator[tuple[Where, type[BaseModel], str]]:
    """Every field below a section that holds a value of its own."""
    for name in type(node).model_fields:
        value, at = getattr(node, name), (*path, name)
        if isinstance(value, tuple) and value and all(hasattr(item, "id") for item in value):
            for item in value:
                yield from fields(item, (*at, item.id))
        elif isinstance(value, BaseModel) and not isinstance(value, Quantity):
            yield from fields(value, at)
        elif name not in ("id", "format", "version", "revision"):
            yield at, type(node), name


def values(build: Build) -> Iterator[Tried]:
    """What is tried, field by field."""
    for path, model, name in fields(build):
        spec = spec_of(model, name)
        if spec is not None:
            yield from (Tried(path, value, words) for value, words in measures(spec, _at(build, path)))
            continue
        annotation: Any = model.model_fields[name].annotation
        if typing.get_origin(annotation) is typing.Literal:
            yield from (Tried(path, choice, str(choice)) for choice in (*typing.get_args(annotation), "nonsense"))
        elif annotation is bool:
            yield from (Tried(path, flag, str(flag)) for flag in (True, False))
        elif annotation is str:
            yield from (Tried(path, text, repr(text[:20])) for text in NAMES)
        yield Tried(path, None, "None")


def _at(build: Build, path: Where) -> Any:
    from keelroom.document.fields import get

    return get(build, path)


def measures(spec: Spec, now: Quantity | None) -> Iterator[tuple[Quantity | None, str]]:
    """Values of a measured field: its ends, beside them, nought, tiny, huge, ten times and a tenth of what stands,
    nothing."""
    low, high = spec.gt if spec.gt is not None else spec.ge, spec.le
    found = [0.0, 1e-6, 1e9, -1.0]
    for end in (low, high):
        if end is not None:
            step = abs(end) * 1e-6 + 1e-9
            found += [end, end - step, end + step]
    if now is not None:
        found += [now.si * 10, now.si / 10, now.si * 2, now.si / 2]
    for si in dict.fromkeys(round(v) if spec.whole else v for v in found):
        for system in ("us",) if abs(si) else ("us", "si"):
            with suppress(InputError):  # no such wire is made
                yield from_si(si, spec.kind_name, system, "measured"), f"{si:g}"
    yield None, "None"


def everything(build: Build, sheet: bool) -> tuple[Assessment, list[str]]:
    """All that is said of a build, and what must not be in it."""
    faults = []
    if parse(serialised(build), Path("walked")) != build:
        faults.append("reads back otherwise")
    found = assess(build)
    told = as_json(found)
    for text in (
        json.dumps(told, allow_nan=False),
        as_table(found, "us"),
        as_table(found, "si"),
        plain_verdict(found, "us"),
    ):
        if " nan" in text or "Traceback" in text:
            faults.append("a figure without a value")
    faults += [
        f"{what_of(f)}: {f.report.splitlines()[1]} {f.report.splitlines()[-1].strip()}"
        for f in found.findings
        if f.report
    ]
    faults += [
        part["stopped"]["report"] for part in (told[name] for name in ("fit", "loop", "electrics")) if "stopped" in part
    ]
    if found.build is not build:
        faults.append("another build's")
    if sheet:
        from keelroom.export.sheet import sheet_bytes

        if not sheet_bytes(found, "us", (DAY, "A4", "")).startswith(b"%PDF"):
            faults.append("no sheet")
    return found, faults


def outcome(build: Build, tried: tuple[Tried, ...], sheet: bool) -> Outcome:
    """What becomes of a change."""
    try:
        changed = apply(build, Edit("", tuple(Change(one.path, one.value) for one in tried)))
    except InputError as error:
        return Outcome(
            "refused", tuple(f"library wording: {error.message}" for word in LIBRARY if word in error.message)
        )
    except Exception as error:
        return Outcome("refused", (f"raised {type(error).__name__} at the edit: {error}",))
    try:
        found, faults = everything(changed, sheet)
    except Exception as error:
        return Outcome("raised", (f"{type(error).__name__}: {error}",))
    return Outcome("stopped" if found.all_stopped else "worked out", tuple(faults))


def part(asked: tuple[int, int, int]) -> tuple[Counter[str], list[str]]:
    """One process's share: its place, how many there are, and how many pairs each draws."""
    place, count, pairs = asked
    warnings.simplefilter("ignore")
    build, counted, broke = small(), Counter[str](), []
    single = list(values(build))
    dice = random.Random(1000 + place)
    drawn = [tuple(dice.sample(single, 2)) for _ in range(pairs)]
    for number, tried in enumerate([*((one,) for one in islice(single, place, None, count)), *drawn]):
        begun = time.process_time()
        got = outcome(build, tried, number % 40 == 0)
        counted[got.sort] += 1
        taken = time.process_time() - begun
        name = " + ".join(f"{'/'.join(one.path)} = {one.words}" for one in tried)
        broke += [f"{name}: {fault}" for fault in got.faults]
        if taken > 5:
            broke.append(f"{name}: took {taken:.1f} s of processor time")
    return counted, broke


def run(share: int = 1, pairs: int = 0, processes: int = 2) -> tuple[Counter[str], list[str]]:
    """Every `share`-th value and so many pairs, on so many processes; counts, and what broke."""
    asked = [(k, processes * share, pairs // processes) for k in range(processes)]
    counted, broke = Counter[str](), []
    with ProcessPoolExecutor(processes) as pool:
        for found, faults in pool.map(part, asked):
            counted += found
            broke += faults
    return counted, broke


if __name__ == "__main__":
    given = [int(text) for text in sys.argv[1:]]
    counted, broke = run(*given)
    print(f"{sum(counted.values())} changes: {dict(counted)}; {len(broke)} broke")
    print("\n".join(broke))
    sys.exit(bool(broke))
