"""What is kept of a judgement as long as the sections it hangs on stay: each part reads what it says and nothing else,
and after any change of any field what is kept and what is made anew are the same."""

import random
import re
import typing
from contextvars import Context

import pytest

from keelroom.assess.assess import assess, first_wave
from keelroom.assess.electrical import figures as circuits
from keelroom.assess.figures import seen
from keelroom.assess.fit import clearances
from keelroom.assess.judge.judge import PARTS
from keelroom.assess.loop import air
from keelroom.assess.reads import OWNERS
from keelroom.core.kept import Kept
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.fields import get, spec_of
from keelroom.document.quantity import Quantity, from_si
from keelroom.errors import InputError
from tests.long import long
from tests.reads import reads_of
from tests.soak.offers import any_build
from tests.soak.walk import fields


def hot(build):
    """The build with all its cases seen to run hot."""
    cases = tuple(case.model_copy(update={"seen": "hot"}) for case in build.duty_cases)
    return build.model_copy(update={"duty_cases": cases})


ALWAYS = {"build.active", "package.id", "assessment.package_id"}
"""Of the package itself: told apart by its name in every part."""
SAYS = {
    **{f"judged: {part.name}": (part.reads, part.check) for part in PARTS if part.reads is not None},
    "fit": (clearances.READS, lambda build, package, _: [clearances.fit_up(build, package)]),
    "lie of the circuit": (air.READS, lambda build, package, _: [air.air_of(build, package, None, None)]),
    "unlike": (seen.SECTIONS, lambda build, package, _: [seen.unlike_seen(hot(build))]),
    "electrics": (circuits.READS, lambda build, package, _: [circuits.electrics(build, package)]),
}


def judged_builds(demo):
    yield demo
    yield from (any_build(random.Random(seed)) for seed in range(1, long("draws", 7)))


def test_every_part_reads_what_it_says_and_no_more(demo):
    """Looked on section by section, with nothing kept that could hide a look."""
    known, astray = {kind: set() for kind in SAYS}, {}
    also = {f"judged: {part.name}" for part in PARTS if part.also}
    for build in judged_builds(demo):
        judged = assess(build)
        for kind, (says, check) in SAYS.items():
            with reads_of() as looked:
                Context().run(lambda c=check, b=build, j=judged: list(c(b, b.package, j)))
            told = {
                f"{OWNERS[owner]}.{name}".replace("made", "package").replace("laid", "package") for owner, name in says
            } | ALWAYS
            told |= {"assessment.cases", "assessment.idle_id"} if kind in also else set()
            told |= {one for one in looked if one.startswith("package.") and "build.packages" in told}
            known[kind] |= looked & told
            if looked - told:
                astray[kind] = sorted(looked - told)
    assert astray == {}
    assert all(known.values()), "each of them looks at something"


def moved(build, path, model, name):
    """Another legal value of a field; None where there is none to try."""
    now, spec = get(build, path), spec_of(model, name)
    annotation = model.model_fields[name].annotation
    if isinstance(now, Quantity) and spec is not None:
        for factor in (1.15, 0.85):
            other = now.si * factor if now.si else 0.01
            if spec.refusal(other) is None and not spec.whole:
                return from_si(other, spec.kind_name, "si", "measured")
        return None
    if typing.get_origin(annotation) is typing.Literal:
        return next((choice for choice in typing.get_args(annotation) if choice != now), None)
    if annotation is bool:
        return not now
    return f"{now} two" if annotation is str else None


def figures(judged):
    """What is told of it: findings, circuits, gaps and cases."""
    gaps = (
        [(gap.part.key, gap.part.name, gap.other.name, gap.gap, gap.margin) for gap in judged.fit.gaps]
        if judged.fit
        else None
    )
    return judged.findings, judged.electrics, gaps, judged.cases, judged.totals, judged.unlike


NUMBER = re.compile(r"-?\d+\.\d+(?:e[-+]\d+)?")


def rounded(told):
    """In words, figures to the fifth digit and a millionth: where a search began shows in later ones."""
    return NUMBER.sub(lambda found: f"{round(float(found[0]), 6):.5g}", repr(told))


def where_they_part(one, other):
    names = ("findings", "circuits", "gaps", "cases", "totals", "unlike")
    pairs = zip(names, figures(one), figures(other), strict=True)
    return [name for name, a, b in pairs if rounded(a) != rounded(b)]


@pytest.mark.parametrize("share", range(2))
def test_what_is_kept_is_what_would_be_made_anew(demo, share):
    """One field after another, in a session that keeps what it can and in one that keeps nothing: cases stand still
    where no field of theirs is moved, so that only what was told to hang on it is looked at again."""
    few = demo.model_copy(update={"duty_cases": tuple(c for c in demo.duty_cases if c.id in ("idle", "grade"))})
    # None is the car as found, so that what was seen is said of the one that is moved.
    planned = tuple(package.model_copy(update={"kind": "planned"}) for package in demo.packages)
    build = hot(few.model_copy(update={"packages": planned}))
    everywhere = [one for one in fields(build) if one[0][0] != "packages" or one[0][1] == build.active]
    tried = 0
    with Kept().at_work():
        before = first_wave(build)
        for path, model, name in everywhere[share :: 2 * long("every", 6)]:
            value = moved(build, path, model, name)
            if value is None:
                continue
            try:
                other = apply(build, Edit("", (Change(path, value),)))
            except InputError:
                continue
            kept = first_wave(other, previous=before)
            anew = Context().run(first_wave, other)
            assert where_they_part(kept, anew) == [], path
            tried += 1
    assert tried > 40
