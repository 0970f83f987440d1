"""What a first build ends in: the smallest core and fans of the catalogue that hold every duty case, with the next
smaller and the next larger beside it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import islice
from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import HOLDING, Assessment, Verdict
from keelroom.assess.figures.batch import Asked, answers, rows_for
from keelroom.assess.figures.casefigures import verdict_of
from keelroom.assess.figures.in_hand import hand_of
from keelroom.assess.first_build import Answers, core_of, first_build, fitting, within
from keelroom.assess.inputs.translate import PointRow
from keelroom.catalogue.load import FanAssembly, cores
from keelroom.core.answer import Answer
from keelroom.core.kept import in_one_go
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core

STRONGEST = 2
"""Fans a core is first tried with: a core that these do not hold on is passed over."""
BOUNDS: tuple[frozenset[Verdict], ...] = (frozenset({"holds"}), frozenset(HOLDING))
"""Verdicts every case of what is proposed has: its hot end is held too; where none is, held as verdicts count it."""


class Tried(NamedTuple):
    """A package by its duty cases that count: their verdicts, and how much hotter a day [K] than its own the tightest
    is held on, under 0 what it lacks."""

    build: Build
    verdicts: frozenset[Verdict]
    in_hand: float


class Proposal(NamedTuple):
    """Packages judged whole: the one proposed, and the next smaller and larger of the catalogue; None where there is
    none.

    holds : every case of the one proposed holds, and nothing else about it is a problem
    """

    one: Assessment
    smaller: Assessment | None
    larger: Assessment | None
    holds: bool


class _Range:
    """Cores from small to large, each with the fans that go onto it, as far as the answers leave them open."""

    def __init__(self, answers: Answers, system: str) -> None:
        self.answers, self.system = answers, system
        open_ = answers.core is None and answers.own_core is None
        self.cores = [one for one in cores() if within(one, answers.room)] if open_ else [core_of(answers)]
        self.cores.sort(key=_size)

    def fans(self, core: Core) -> list[str]:
        """From weak to strong; what was chosen stands alone."""
        if self.answers.fans is not None:
            return [self.answers.fans]
        return [one.name for one in sorted(fitting(core), key=_flow)]

    def build(self, core: Core, fans: str) -> Build:
        return first_build(self.answers._replace(core=core.name, fans=fans), self.system)


def _size(core: Core) -> tuple[float, float]:
    """Face [m2], then depth [m]."""
    face = core.face_width.si * core.face_height.si if core.face_width and core.face_height else 0.0
    return face, core.depth.si if core.depth else 0.0


def _flow(assembly: FanAssembly) -> float:
    return assembly.count * assembly.fan.free_air_flow.si if assembly.fan.free_air_flow else 0.0


@in_one_go
def proposal(given: Answers, system: str) -> Proposal | None:
    """The proposal of these answers; None where nothing of the catalogue goes there. A core or fans that are named in
    them stand, and only the other is looked for."""
    span = _Range(given, system)
    if not span.cores:
        return None
    built = [[span.build(core, fans) for fans in span.fans(core)[-STRONGEST:]] for core in span.cores]
    stood = iter(tried([build for builds in built for build in builds]))
    strong = [[next(stood) for _ in builds] for builds in built]
    if not any(strong):
        return None
    for bound in BOUNDS:
        able = [at for at, ways in enumerate(strong) if any(one.verdicts <= bound for one in ways)]
        held = _held(span, able, bound)
        at, one = next(held, (0, None))
        if one is not None:
            _, larger = next(held, (0, None))
            return Proposal(one, _smaller(span, strong, at, one), larger or _beside(span, at, one, 1), True)
    best = max((way for ways in strong for way in ways), key=_in_hand)
    at = next(at for at, ways in enumerate(strong) if any(way is best for way in ways))
    one = first_wave(best.build)
    return Proposal(one, _smaller(span, strong, at, one), _beside(span, at, one, 1), False)


def tried(builds: Sequence[Build]) -> list[Tried]:
    """How packages stand, worked out together."""
    asked = [Asked(build, case.id) for build in builds for case in build.counting]
    rows = list(rows_for(asked))
    stood = map(_stands, rows, answers(rows))
    found = ((build, [next(stood) for _ in build.counting]) for build in builds)
    return [Tried(build, frozenset(one for one, _ in cases), min(left for _, left in cases)) for build, cases in found]


def _stands(row: PointRow | None, found: tuple[Answer, int] | None) -> tuple[Verdict, float]:
    if row is None or found is None:
        return "does_not_settle", float("-inf")
    return verdict_of(row, *found), hand_of(row.points, *found).weather


def _in_hand(one: Tried) -> float:
    return one.in_hand


def _held(span: _Range, able: Sequence[int], bound: frozenset[Verdict]) -> Iterator[tuple[int, Assessment]]:
    """Packages that hold, by core, from the smallest and its weakest fans on, judged whole: none that has a problem."""
    for at in able:
        ways = tried([span.build(span.cores[at], fans) for fans in span.fans(span.cores[at])])
        judged = (first_wave(one.build) for one in ways if one.verdicts <= bound)
        sound = (one for one in judged if all(finding.level != "problem" for finding in one.findings))
        yield from ((at, one) for one in islice(sound, 1))


def _smaller(span: _Range, strong: list[list[Tried]], at: int, one: Assessment) -> Assessment | None:
    """The next smaller: the core before with the fans it does best with; of a core that stands, the fans before."""
    if at > 0:
        best = max(strong[at - 1], key=_in_hand, default=None)
        return first_wave(best.build) if best else None
    return _beside(span, at, one, -1)


def _beside(span: _Range, at: int, one: Assessment, step: int) -> Assessment | None:
    """The same core with the next weaker or stronger fans."""
    fans = span.fans(span.cores[at])
    own = next((fan.name for fan in one.package.fans), "")
    place = fans.index(own) + step if own in fans else -1
    return first_wave(span.build(span.cores[at], fans[place])) if 0 <= place < len(fans) else None
