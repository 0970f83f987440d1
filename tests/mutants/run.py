"""A seeded mutation run: small things made wrong one at a time, and whether any test notices. `make mutants`.

The tests of core and assess are run once to see which function each calls. Then, for every wrong thing, a child
process has the function's code replaced in memory and runs the tests that call it, those that call least first, until
one is red.
"""

from __future__ import annotations

import json
import os
import random
import re
import signal
import subprocess
import sys
import tempfile
import time
from collections import Counter
from pathlib import Path
from types import CodeType, FunctionType
from typing import Any

from tests.mutants.sites import ROOT, Site, mutated, sites, words

HERE = Path(__file__).parents[2]
SUITES = ("tests/unit", "tests/reference", "tests/properties")
SLOW = ("test_fuzz_loader.py", "test_pure.py", "test_exports.py", "test_recovery.py")
"""files whose tests say nothing about a figure, or take long to say it"""
MOST_SECONDS = 90.0
"""of tests as they ran when they were seen, nothing kept between them: together they run in about a third"""
BY_HAND = (
    "test_core_values.py",
    "test_single_values.py",
    "test_values_again.py",
    "test_by_hand.py",
    "test_sentences.py",
    "test_circuits.py",
    "test_findings.py",
    "test_fit.py",
    "test_assess.py",
    "test_chains.py",
)
"""files that hold single values and sentences: three of their tests are asked for one of another file"""
ORACLE = "tests/reference/test_scalar_agreement.py::test_every_point_agrees_to_a_millionth"
"""holds the whole solve against one written apart; long, and always asked"""
LONG = 3.0
"""[s] a test this long is asked last"""
DEADLINE = 240


def seen(target: Path) -> dict[str, tuple[float, list[str]]]:
    """What each test calls."""
    parts = []
    files = sorted(
        str(p.relative_to(HERE)) for suite in SUITES for p in (HERE / suite).rglob("test_*.py") if p.name not in SLOW
    )
    for turn in range(2):
        part = target.with_suffix(f".{turn}.json")
        command = [
            sys.executable,
            "-m",
            "pytest",
            "-q",
            "-p",
            "tests.mutants.seen",
            "-p",
            "no:xdist",
            "-o",
            "addopts=",
            "-o",
            "timeout=900",
            *files[turn::2],
        ]
        parts.append(
            (
                part,
                subprocess.Popen(
                    command, cwd=HERE, env={**os.environ, "KEELROOM_SEEN": str(part)}, stdout=subprocess.DEVNULL
                ),
            )
        )
    found: dict[str, tuple[float, list[str]]] = {}
    for part, process in parts:
        process.wait()
        found |= json.loads(part.read_text())
    return found


def functions_with(code_name: str, path: str) -> list[FunctionType]:
    """Every live function made from that code."""
    import gc

    file = str(ROOT / path)
    return [
        f
        for f in gc.get_objects()
        if isinstance(f, FunctionType) and f.__code__.co_qualname == code_name and f.__code__.co_filename == file
    ]


def put_wrong(site: Site) -> bool:
    """Replace the code of the function at the site in this process; whether it was found."""
    outer = site.function.split(".<locals>.")[0]
    inner = mutated(site)
    done = False
    for function in functions_with(outer, site.path):
        function.__code__ = inner if outer == site.function else _with_inner(function.__code__, inner)
        done = True
    if outer != site.function:  # those made already when the module was read hold a code of their own
        for function in functions_with(site.function, site.path):
            function.__code__ = inner
    return done


def _with_inner(code: CodeType, inner: CodeType) -> CodeType:
    """The outer function's code with one of the functions made in it replaced."""
    consts: list[Any] = [
        inner
        if isinstance(c, CodeType) and c.co_qualname == inner.co_qualname
        else _with_inner(c, inner)
        if isinstance(c, CodeType)
        else c
        for c in code.co_consts
    ]
    return code.replace(co_consts=tuple(consts))


def verdict(site: Site, tests: list[str]) -> str:
    """'killed', 'survived', 'timeout' or 'unseen' for one wrong thing, found out in a child process."""
    if not tests:
        return "unseen"
    child = os.fork()
    if child == 0:
        signal.alarm(DEADLINE)
        quiet = os.open(os.devnull, os.O_WRONLY)
        os.dup2(quiet, 1)
        os.dup2(quiet, 2)
        import pytest

        from keelroom.core.kept import Kept

        Kept().stay()
        code = 3
        if put_wrong(site):
            code = pytest.main(["-x", "-q", "-p", "no:xdist", "-p", "no:cacheprovider", "-o", "addopts=", *tests])
        os._exit(int(code) if int(code) < 4 else 1)
    _, status = os.waitpid(child, 0)
    if os.WIFSIGNALED(status):
        return "timeout"
    return {0: "survived", 3: "not found"}.get(os.WEXITSTATUS(status), "killed")


def chosen(tests: dict[str, tuple[float, list[str]]], site: Site) -> list[str]:
    """The tests that call the function: those that name something it says first, then of each file the most
    particular, file by file in turn, as many as the time allows."""
    name = f"{site.path}:{site.function}"
    calling = sorted((len(calls), seconds, test) for test, (seconds, calls) in tests.items() if name in calls)
    said = words(site)
    turns: Counter[str] = Counter()
    ordered = []
    for calls, seconds, test in calling:
        file = test.split("::")[0]
        turns[file] += 1
        turn = -(-turns[file] // 3) if file.endswith(BY_HAND) else turns[file]
        ordered.append((not any(f"[{word}" in test for word in said), seconds > LONG, turn, calls, seconds, test))
    picked, left = [], MOST_SECONDS
    for *_, seconds, test in sorted(ordered):
        if seconds <= left:
            left -= seconds
            picked.append(test)
    if ORACLE not in picked and name in tests.get(ORACLE, (0.0, []))[1]:
        picked.append(ORACLE)
    return picked


def _sample(count: int, seed: int, earlier: list[str]) -> list[Site]:
    """The places tried: all that were drawn, or those of them that no test noticed in an earlier run."""
    drawn = random.Random(seed).sample(sites(), count)
    if not earlier:
        return drawn
    told = Path(earlier[0]).read_text()
    return [
        site
        for site in drawn
        if re.search(rf"(survived|unseen) +{re.escape(f'{site.path}:{site.line} {site.function}: {site.what}')}", told)
    ]


def work(
    sample: list[Site], share: tuple[int, int], tests: dict[str, tuple[float, list[str]]]
) -> list[tuple[Site, str]]:
    """Verdicts of one worker's share of the sample."""
    found = []
    for site in sample[share[0] :: share[1]]:
        said = verdict(site, chosen(tests, site))
        found.append((site, said))
        print(f"{said:>9}  {site.path}:{site.line} {site.function}: {site.what}", flush=True)
    return found


def main(arguments: list[str]) -> int:
    """Run `count` mutations from `seed`; exit 1 under the wanted share. A fourth argument names what was seen by an
    earlier run, a fifth that run's output, of which only what survived is tried again."""
    count, seed, wanted = map(int, arguments[:3])
    begun = time.monotonic()
    os.chdir(HERE)
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    target = Path(tempfile.gettempdir()) / "keelroom-seen.json"
    tests = json.loads(Path(arguments[3]).read_text()) if len(arguments) > 3 else seen(target)
    print(
        f"{len(tests)} tests seen in {time.monotonic() - begun:.0f} s; {count} of {len(sites())} places, seed {seed}",
        flush=True,
    )
    _import_everything(tests)
    reader, writer = os.pipe()
    child = os.fork()
    mine = work(_sample(count, seed, arguments[4:]), (0 if child else 1, 2), tests)
    if not child:
        os.write(writer, json.dumps([(list(site), said) for site, said in mine]).encode())
        os._exit(0)
    os.close(writer)
    with os.fdopen(reader) as stream:
        theirs = [(Site(*site), said) for site, said in json.loads(stream.read())]
    os.waitpid(child, 0)
    verdicts = [*mine, *theirs]
    counts = Counter(said for _, said in verdicts)
    killed = counts["killed"] + counts["timeout"]
    counted = len(verdicts) - counts["not found"]
    print(
        f"\nkilled {killed} of {counted} ({killed / counted:.0%}), in {time.monotonic() - begun:.0f} s; {dict(counts)}"
    )
    for site, said in sorted(verdicts):
        if said in ("survived", "unseen"):
            print(f"{said}: {site.path}:{site.line} {site.function}: {site.what}")
    return 0 if killed >= wanted / 100 * counted else 1


def _import_everything(tests: dict[str, tuple[float, list[str]]]) -> None:
    """So that a child begins with all modules made, and only has to run."""
    import importlib

    for path in sorted(ROOT.rglob("*.py")):
        if path.relative_to(ROOT).parts[0] in ("core", "assess", "catalogue", "document", "drawing", "export"):
            importlib.import_module(
                "keelroom." + ".".join(path.relative_to(ROOT).with_suffix("").parts).removesuffix(".__init__")
            )
    import pytest  # noqa: F401

    importlib.import_module("tests.conftest")
    for file in sorted({test.split("::")[0] for test in tests}):
        importlib.import_module(file.removesuffix(".py").replace("/", "."))


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
