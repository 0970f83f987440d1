"""How the hot-day temperature answers one number: over its range, where it has cliffs and plateaus, and backwards."""

from __future__ import annotations

import itertools
import math
from typing import NamedTuple

from keelroom.assess.figures.batch import Asked, held, in_hand, temperatures
from keelroom.core.kept import in_one_go
from keelroom.document.edits import apply, set_value
from keelroom.document.fields import Path, owner_and_spec
from keelroom.document.quantity import Quantity, Spec, from_si
from keelroom.document.schema.build import Build
from keelroom.errors import InputError

STEPS = 25
LEAST_STRETCH = 0.06
"""Share of the range under which a plateau or cliff is not worth a word."""
FLAT, STEEP = 0.04, 3.5
"""A stretch is a plateau where its slope is under FLAT of the mean slope, a cliff where over STEEP of it."""


class Response(NamedTuple):
    """Temperatures [degC] of one duty case over values [SI] of one field, inf where it does not settle; where it
    stands now."""

    path: Path
    label: str
    kind_name: str
    case_id: str
    values: tuple[float, ...]
    temperatures: tuple[float, ...]
    now: float
    weather: tuple[float, ...] = ()
    """how much hotter a day [K] than its own is held, under 0 what lacks: where nothing settles"""

    @property
    def told(self) -> tuple[float, ...]:
        """What there is to show over the values: temperatures, else the weather in hand."""
        return self.weather or self.temperatures

    @property
    def moves(self) -> bool:
        """Whether the field matters to this duty case at all."""
        finite = [t for t in self.told if math.isfinite(t)]
        return bool(finite) and (len(finite) < len(self.told) or max(finite) - min(finite) > 0.05)


class Stretch(NamedTuple):
    """Part of the range that is flat or steep: 'plateau' or 'cliff', from value to value [SI]."""

    sort: str
    start: float
    end: float


def span(spec: Spec, value: float) -> tuple[float, float]:
    """The stretch of a field's range worth looking at: its legal range, cut to what a builder could mean."""
    if spec.kind_name == "temperature":
        low, high = value - 20.0, value + 20.0
    elif spec.kind_name == "temperature difference":
        low, high = 0.0, max(2.5 * value, 10.0)
    elif spec.kind_name == "share" and spec.le is not None and spec.le <= 1.0:
        low, high = 0.0, 1.0
    elif spec.kind_name == "count":
        low, high = max(value - 3, 1.0), value + 3
    else:
        low, high = 0.4 * value, 2.0 * value
        if value == 0:
            high = {"length": 0.025, "area": 0.06}.get(spec.kind_name, 1.0)
    least = spec.ge if spec.ge is not None else spec.gt + 1e-9 if spec.gt is not None else low
    most = spec.le if spec.le is not None else high
    return max(low, least), min(high, most)


@in_one_go
def response(build: Build, path: Path, case_id: str, steps: int = STEPS) -> Response:
    """The temperature of a duty case over a field's range. Raises InputError for a path that is no measured field."""
    owner, spec = owner_and_spec(build, path)
    value: Quantity | None = getattr(owner, path[-1])
    if spec is None or value is None:
        raise InputError("no_response", "That is no number the temperature could answer")
    low, high = span(spec, value.si)
    whole = spec.whole or spec.kind_name == "count"
    values = sorted(
        {*(round(v) if whole else v for v in (low + (high - low) * i / (steps - 1) for i in range(steps))), value.si}
    )
    found = _temperatures(build, path, spec, case_id, values)
    kept = [(v, t) for v, t in zip(values, found, strict=True) if t is not None]
    at, found_at = tuple(v for v, _ in kept), tuple(t for _, t in kept)
    weather: tuple[float, ...] = ()
    if kept and not any(map(math.isfinite, found_at)):
        hands = in_hand([Asked(b, case_id) for b in _changed(build, path, spec, list(at)) if b is not None])
        weather = tuple(hand.weather for hand in hands if hand)
        weather = weather if len(weather) == len(at) else ()
    return Response(path, spec.label, spec.kind_name, case_id, at, found_at, value.si, weather)


def _changed(build: Build, path: Path, spec: Spec, values: list[float]) -> list[Build | None]:
    """The build with each value of a field; None where it cannot be."""
    builds: list[Build | None] = []
    for value in values:
        try:
            builds.append(apply(build, set_value(path, from_si(value, spec.kind_name, "si", "derived"), "")))
        except InputError:
            builds.append(None)
    return builds


def _temperatures(build: Build, path: Path, spec: Spec, case_id: str, values: list[float]) -> list[float | None]:
    builds = _changed(build, path, spec, values)
    asked = [Asked(b, case_id) for b in builds if b is not None]
    if switches(path):
        points = iter(held(asked))
        settled = (next(points) if b is not None else None for b in builds)
        return [point.temperature if point else None for point in settled]
    found = iter(temperatures(asked))
    return [next(found) if b is not None else None for b in builds]


def switches(path: Path) -> bool:
    """Whether a field says when the fans run: its answer is what the gauge then shows at the most, every other's the
    temperature with the fans held on."""
    return "control" in path or path[-1] == "ac_request"


def stretches(answer: Response) -> tuple[Stretch, ...]:
    """Plateaus and cliffs of a response, neighbours of one sort joined."""
    pairs = list(zip(answer.values, answer.told, strict=True))
    slopes = [
        (a[0], b[0], abs(b[1] - a[1]) / (b[0] - a[0]))
        if math.isfinite(a[1]) and math.isfinite(b[1])
        else (a[0], b[0], math.inf)
        for a, b in itertools.pairwise(pairs)
        if b[0] > a[0] and (math.isfinite(a[1]) or math.isfinite(b[1]))
    ]
    finite = [slope for *_, slope in slopes if math.isfinite(slope)]
    mean = sum(finite) / len(finite) if finite else 0.0
    found: list[Stretch] = []
    for start, end, slope in slopes:
        sort = "cliff" if slope > STEEP * mean else "plateau" if slope <= FLAT * mean + 1e-12 else ""
        if not sort:
            continue
        if found and found[-1].sort == sort and found[-1].end == start:
            found[-1] = Stretch(sort, found[-1].start, end)
        else:
            found.append(Stretch(sort, start, end))
    reach = pairs[-1][0] - pairs[0][0] if pairs else 0.0
    return tuple(stretch for stretch in found if stretch.end - stretch.start > LEAST_STRETCH * reach)


class Backwards(NamedTuple):
    """The value [SI] that gives a wanted temperature; None with a reason where there is none in the range."""

    value: float | None
    temperature: float
    why: str


@in_one_go
def value_for(build: Build, path: Path, case_id: str, wanted: float) -> Backwards:
    """Backwards: the value of one field nearest to today's at which a duty case settles at `wanted` [degC].

    Bracketed on the response and refined by halving; the answer is solved fully, never read off a curve.
    """
    answer = response(build, path, case_id)
    pairs = list(zip(answer.values, answer.temperatures, strict=True))
    brackets = [(a, b) for a, b in itertools.pairwise(pairs) if (a[1] - wanted) * (b[1] - wanted) <= 0 and a[1] != b[1]]
    if not brackets:
        reached = [t for _, t in pairs if math.isfinite(t)]
        if not reached:
            return Backwards(None, math.inf, "no value in its range lets this duty case settle")
        best = min(reached, key=lambda t: abs(t - wanted))
        return Backwards(None, best, "no value in its range gives that; the nearest it comes")
    (low, low_t), (high, _) = min(brackets, key=lambda pair: abs(0.5 * (pair[0][0] + pair[1][0]) - answer.now))
    _, spec = owner_and_spec(build, path)
    assert spec is not None
    rising = low_t <= wanted
    middle, found = low, low_t
    for _ in range(5):
        # Eight values per round narrow the bracket as three halvings would, in one solve.
        inner = [low + (high - low) * k / 9 for k in range(10)]
        temps = [t if t is not None else math.inf for t in _temperatures(build, path, spec, case_id, inner)]
        k = next((i for i, t in enumerate(temps) if (t > wanted) == rising), len(inner) - 1)
        low, high = inner[max(k - 1, 0)], inner[k]
        middle, found = min(zip(inner, temps, strict=True), key=lambda pair: abs(pair[1] - wanted))
    return Backwards(middle, found, "")
