"""Every act that findings offer, over drawn builds: tried, pressed, judged anew from nothing, undone. `python -m
tests.soak.offers 400` prints what became of each finding's acts.

Builds are a first build of any engine, vehicle, core and fans or the demo, with up to three rows of the finding table
done to it, or entries anywhere in their ranges.
"""

from __future__ import annotations

import random
import sys
import warnings
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from typing import NamedTuple

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.first_build import Answers, first_build, fitting
from keelroom.assess.questions.proof import Proof, prove
from keelroom.catalogue.load import cores, engines, vehicles
from keelroom.core.kept import Kept
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.document.file import serialised
from keelroom.document.schema.build import Build
from keelroom.document.store import Store
from keelroom.errors import InputError
from tests.changes import on
from tests.soak.fuzz import drawn
from tests.unit.assess.test_findings import BUILD, TABLE, telling

AGAIN = 8
"""One offer in so many is pressed, judged from nothing and undone."""


class Seen(NamedTuple):
    """What became of acts, by finding, label and outcome; how many were pressed; what broke."""

    outcomes: Counter[tuple[str, str, str]]
    pressed: int
    broke: list[str]


def any_build(dice: random.Random) -> Build:
    """A build that is wrong in up to three ways, or in none."""
    build = telling(BUILD)
    if dice.random() < 0.5:
        core = dice.choice(cores())
        fans = dice.choice(["", *(one.name for one in fitting(core))])
        ac, flat_out = dice.random() < 0.7, dice.random() < 0.2
        kinds = dice.choice(vehicles()).name, dice.choice(engines()).name
        build = first_build(Answers(*kinds, core=core.name, fans=fans, ac=ac, flat_out=flat_out), "us")
    for row in dice.sample(sorted(TABLE), dice.choice((0, 1, 1, 2, 3))):
        with suppress(InputError):
            build = on(build, *TABLE[row][0])
    return (dice.random() < 0.2 and drawn(build, dice)) or build


def outcome(proof: Proof) -> str:
    """In a word or two."""
    if not proof.offered:
        why = "stopped" if proof.stopped else "lost" if proof.lost else "harm" if proof.fallen else "stays"
        return f"withheld: {why}"
    brings = sorted({one.code for one in proof.brings})
    return f"brings {', '.join(brings)}" if brings else "cures" if proof.goes else "helps"


def problems(judged: Assessment) -> set[tuple[str, tuple[str, ...]]]:
    return {one.key for one in judged.findings if one.level == "problem"}


def pressed_faults(before: Assessment, finding: Finding, act: Act, said: Proof) -> list[str]:
    """What pressing does beside what was said, with the bytes undo gives back."""
    store = Store(before.build)
    bytes_before = serialised(store.build)
    store.apply(edit_for(store.build, act))
    with Kept().at_work():
        after = first_wave(store.build, before.package_id)
    new = problems(after) - problems(before)
    new -= {("over_limit", where) for code, where in problems(before) if code == "does_not_settle"}
    store.undo()
    faults = []
    if {code for code, _ in new} != {one.code for one in said.brings}:
        faults.append(f"{finding.code}: {act.label}: brought {sorted(new)}, said {[one.code for one in said.brings]}")
    if said.goes is (finding.key in {one.key for one in after.findings}):
        faults.append(f"{finding.code}: {act.label}: gone or not is not as said")
    if serialised(store.build) != bytes_before:
        faults.append(f"{finding.code}: {act.label}: undo does not give the bytes back")
    return faults


def share(asked: tuple[int, int]) -> Seen:
    """One process's share: its seed, and how many builds it draws."""
    seed, count = asked
    warnings.simplefilter("ignore")
    dice, seen, pressed, broke = random.Random(seed), Counter[tuple[str, str, str]](), 0, list[str]()
    for _ in range(count):
        with Kept().at_work():
            before = first_wave(any_build(dice))
            for finding in before.findings:
                for act in finding.fix:
                    with suppress(InputError):
                        if apply(before.build, edit_for(before.build, act)) == before.build:
                            continue
                    said = prove(before, finding, act)
                    seen[finding.code, act.label, outcome(said)] += 1
                    if said.offered and dice.randrange(AGAIN) == 0:
                        pressed += 1
                        broke += pressed_faults(before, finding, act, said)
    return Seen(seen, pressed, broke)


def run(count: int, seed: int = 27, processes: int = 2) -> Seen:
    """So many builds drawn and every act they offer tried."""
    outcomes, pressed, broke = Counter[tuple[str, str, str]](), 0, list[str]()
    parts = 10 * processes
    with ProcessPoolExecutor(processes) as pool:
        for part in pool.map(share, [(seed + k, max(count // parts, 1)) for k in range(parts)]):
            outcomes += part.outcomes
            pressed += part.pressed
            broke += part.broke
    return Seen(outcomes, pressed, broke)


def table(outcomes: Counter[tuple[str, str, str]]) -> list[str]:
    """Finding × act: how many were tried, and what became of them, the most often first."""
    acts: dict[tuple[str, str], Counter[str]] = {}
    for (code, label, what), number in outcomes.items():
        acts.setdefault((code, label), Counter())[what] += number
    return [
        f"{code:24} {label:38} " + "; ".join(f"{number} {what}" for what, number in told.most_common())
        for (code, label), told in sorted(acts.items())
    ]


if __name__ == "__main__":
    seen = run(int(sys.argv[1]) if len(sys.argv) > 1 else 400)
    print(*table(seen.outcomes), sep="\n")
    total = Counter[str]()
    for (_, _, what), number in seen.outcomes.items():
        total[what.split(" ")[0]] += number
    print(f"{sum(total.values())} acts tried: {dict(total)}; {seen.pressed} pressed; {len(seen.broke)} broke")
    print("\n".join(seen.broke[:40]))
    sys.exit(bool(seen.broke))
