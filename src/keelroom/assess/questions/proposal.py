"""What a first build ends in: the smallest core and fans of the catalogue that hold every duty case, with the next
smaller and the next larger beside it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import count
from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.batch import Asked, answers, rows_for
from keelroom.assess.figures.casefigures import EVEN
from keelroom.assess.figures.in_hand import hand_of
from keelroom.assess.first_build import Answers, core_of, first_build, fitting, within
from keelroom.catalogue.load import FanAssembly, cores
from keelroom.core.kept import in_one_go
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core

STRONGEST = 2
"""Fans a core is first tried with: a core that these do not hold on is passed over."""
CLEAR, LIKELY = 0.0, EVEN
"""Chance of passing the limit up to which a package is proposed: its hot end is held too; else held more likely than
not, by the verdict's own mark."""


class Standing(NamedTuple):
    """How a package stands in its worst duty case: the chance of passing the limit, 0 where the hot end of every case
    is held, and how much hotter a day [K] than its own that case is held on, under 0 what it lacks."""

    chance: float
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
    strong = [[span.build(core, fans) for fans in span.fans(core)[-STRONGEST:]] for core in span.cores]
    flat = [build for builds in strong for build in builds]
    if not flat:
        return None
    stood = dict(zip(map(id, flat), standings(flat), strict=True))
    for bound in (CLEAR, LIKELY):
        able = [k for k, builds in enumerate(strong) if any(stood[id(one)].chance <= bound for one in builds)]
        found = _held(span, able, bound)
        if found is not None:
            at, one = found
            larger = next(_held_at(span, [k for k in able if k > at], bound), None)
            return Proposal(
                one,
                _judged(_below(span, strong, stood, at, one)),
                larger[1] if larger else _judged(_above(span, at, one)),
                True,
            )
    best = max(flat, key=lambda build: stood[id(build)].in_hand)
    at = next(k for k, builds in enumerate(strong) if any(one is best for one in builds))
    one = first_wave(best)
    return Proposal(one, _judged(_below(span, strong, stood, at, one)), _judged(_above(span, at, one)), False)


def standings(builds: Sequence[Build]) -> list[Standing]:
    """How packages stand, worked out together."""
    asked = [Asked(build, case.id) for build in builds for case in build.duty_cases if case.counted]
    rows = list(rows_for(asked))
    found: dict[int, list[Standing]] = {id(build): [] for build in builds}
    for question, row, answered in zip(asked, rows, answers(rows), strict=True):
        if row is None or answered is None:
            found[id(question.build)].append(Standing(1.0, float("-inf")))
            continue
        answer, at = answered
        settles = bool(answer.settled[at])
        clear = settles and answer.band.high[at] <= float(row.points.plant.limit)
        found[id(question.build)].append(
            Standing(
                0.0 if clear else float(answer.band.chance[at]) if settles else 1.0,
                hand_of(row.points, answer, at).weather,
            )
        )
    return [
        Standing(max(one.chance for one in cases), min(one.in_hand for one in cases))
        for cases in (found[id(build)] for build in builds)
    ]


def _held(span: _Range, able: Sequence[int], bound: float) -> tuple[int, Assessment] | None:
    return next(_held_at(span, able, bound), None)


def _held_at(span: _Range, able: Sequence[int], bound: float) -> Iterator[tuple[int, Assessment]]:
    """Packages that hold, from the smallest core and its weakest fans on, judged whole: none that has a problem."""
    for at in able:
        builds = [span.build(span.cores[at], fans) for fans in span.fans(span.cores[at])]
        for build, stands in zip(builds, standings(builds), strict=True):
            judged = first_wave(build) if stands.chance <= bound else None
            if judged and not any(one.level == "problem" for one in judged.findings):
                yield at, judged
                break


def _judged(build: Build | None) -> Assessment | None:
    return first_wave(build) if build else None


def _below(
    span: _Range, strong: list[list[Build]], stood: dict[int, Standing], at: int, one: Assessment
) -> Build | None:
    """The next smaller: the core before with the fans it does best with; of a core that stands, the fans before."""
    if at > 0:
        return max(strong[at - 1], key=lambda build: stood[id(build)].in_hand, default=None)
    return _neighbour(span, at, one, -1)


def _above(span: _Range, at: int, one: Assessment) -> Build | None:
    """The next stronger fans on the same core, where no larger core holds."""
    return _neighbour(span, at, one, 1)


def _neighbour(span: _Range, at: int, one: Assessment, step: int) -> Build | None:
    fans = span.fans(span.cores[at])
    own = next((fan.name for fan in one.package.fans), "")
    place = next((k for k, name in zip(count(), fans) if name == own), None)
    if place is None or not 0 <= place + step < len(fans):
        return None
    return span.build(span.cores[at], fans[place + step])
