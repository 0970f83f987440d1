"""Acts that lead in a circle: each act a build's findings offer, then those offered next that touch what it touched,
three deep. `python -m tests.soak.rings 40` tries every row of the finding table, and so many drawn builds.

None may give back a build that was left, and each, pressed after it was proved, may only bring what was said.
"""

from __future__ import annotations

import random
import sys
from collections.abc import Iterable, Iterator
from typing import Any

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.document.act import Act
from keelroom.document.difference import differences
from keelroom.document.edits import apply
from keelroom.document.fields import Path
from keelroom.document.schema.build import Build
from keelroom.errors import InputError
from tests.changes import on
from tests.soak.offers import any_build
from tests.unit.assess.test_findings import BUILD, TABLE, telling

DEEP = 3


def bare(value: Any) -> Any:
    """A dumped build by its values alone: how a measure was typed and where it came from make no other car."""
    if isinstance(value, dict):
        return value["si"] if "si" in value else {key: bare(one) for key, one in value.items()}
    return [bare(one) for one in value] if isinstance(value, list | tuple) else value


def offered(judged: Assessment) -> Iterator[tuple[Act, Build, frozenset[Path]]]:
    """What the findings offer, with the build each makes and what it touches."""
    for finding in judged.findings:
        for act in finding.fix:
            try:
                made = apply(judged.build, edit_for(judged.build, act))
            except InputError:
                continue
            touched = frozenset(one.path for one in differences(judged.build, made))
            if touched:
                yield act, made, touched


def rings_from(
    judged: Assessment, left: tuple[Any, ...], names: tuple[str, ...], touched: frozenset[Path]
) -> list[str]:
    """Chains of acts, by name, that end at a build left before."""
    found = []
    for act, made, own in offered(judged):
        if touched and not own & touched:
            continue
        chain = (*names, act.label)
        values = bare(made.model_dump())
        if values in left:
            found.append(" → ".join(chain))
        elif len(chain) < DEEP:
            found += rings_from(first_wave(made, previous=judged), (*left, values), chain, touched | own)
    return found


def rings(codes: Iterable[str]) -> tuple[int, list[str]]:
    """Builds walked from, and the rings found, over these rows of the table."""
    walked, found, last = 0, list[str](), first_wave(telling(BUILD))
    for code in codes:
        judged = first_wave(telling(on(BUILD, *TABLE[code][0])), previous=last)
        own = judged._replace(findings=tuple(one for one in judged.findings if one.code == code))
        found += [f"{code}: {ring}" for ring in rings_from(own, (bare(judged.build.model_dump()),), (), frozenset())]
        walked += 1
    return walked, found


def drawn_rings(seed: int, count: int) -> tuple[int, list[str]]:
    """The same from the first problems of drawn builds."""
    dice, walked, found = random.Random(seed), 0, list[str]()
    for _ in range(count):
        judged = first_wave(any_build(dice))
        few = judged._replace(findings=tuple(one for one in judged.findings if one.level == "problem")[:3])
        found += rings_from(few, (bare(judged.build.model_dump()),), (), frozenset())
        walked += bool(few.findings)
    return walked, found


if __name__ == "__main__":
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 40
    tried, broke = rings(TABLE)
    drawn, more = drawn_rings(31, count)
    print(f"{tried} builds of the table and {drawn} drawn ones walked from, {len(broke + more)} rings", *broke, *more)
    sys.exit(bool(broke + more))
