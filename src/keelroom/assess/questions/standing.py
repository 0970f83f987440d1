"""Where every option stands: on the front, beaten and by what, or out and by which bounds; in words and figures."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from keelroom.assess.figures.in_hand import FAR, within_far
from keelroom.assess.figures.outputs import day_text
from keelroom.assess.options.space import Bounds, Priced, broken
from keelroom.assess.questions.options import Aim, Found, Hand, Judged, aims_of
from keelroom.assess.work.money import HOUR
from keelroom.core.choice.fronts import beats
from keelroom.document.fields import spec_of
from keelroom.document.schema.choosing import Choosing
from keelroom.units import KINDS, format_si, money_text

LEFT = 1e-9
SAID = {"width": "{} wide", "height": "{} high", "amps": "draws {}", "budget": "costs {}", "hours": "takes {}"}
"""of a bound that is broken, by its name"""


class Standing(NamedTuple):
    """One option. judged : None where a bound throws it out;  over : the bounds it breaks, with what it would take
    by : what of the front beats it, None where nothing does
    """

    priced: Priced
    judged: Judged | None
    over: dict[str, float | None]
    by: Judged | None

    @property
    def known(self) -> bool:
        """Whether all its cases are worked out."""
        return self.judged is not None and self.judged.worst is not None


def standings(found: Found, bounds: Bounds) -> tuple[Standing, ...]:
    """Every option looked at: those judged first, by how hot a day they hold, then those that are out."""
    known = [one for one in found.judged if one.worst is not None]
    by = dict(zip((one.option.key for one in known), _beaten(known, found.front, found.aims), strict=True))
    inside = [Standing(one.priced, one, {}, by.get(one.option.key)) for one in found.judged]
    inside.sort(key=_cooler_first)
    judged = {one.priced.option.key for one in inside}
    out = [one for one in found.space.all if one.option.key not in judged]
    return (*inside, *(Standing(one, None, broken(one, bounds), None) for one in out))


def _cooler_first(one: Standing) -> float:
    worst = one.judged.worst if one.judged is not None else None
    return -worst.day if worst is not None else float("inf")


def _beaten(known: list[Judged], front: tuple[Judged, ...], aims: tuple[Aim, ...]) -> Iterator[Judged | None]:
    """Of the front, what beats each the most; None where nothing does."""
    if not front:
        yield from (None for _ in known)
        return
    mine, best = aims_of(known, aims), aims_of(front, aims)
    span = np.maximum(np.ptp(mine, axis=0), LEFT)
    for row, beaten in zip(mine, beats(best, mine), strict=True):
        most = int(np.argmax(np.where(beaten, ((row - best) / span).sum(axis=1), -np.inf)))
        yield front[most] if beaten[most] else None


def standing_words(one: Standing, bounds: Bounds, system: str, sign: str) -> str:
    """Why it is on the front, beaten or out."""
    if one.over:
        return "; ".join(_over(name, value, bounds, (system, sign)) for name, value in one.over.items())
    if one.judged is None or one.judged.worst is None:
        return "could not be worked out"
    if one.by is None:
        return "no other beats it" if one.priced.option.sort == "new" else "in the build"
    return f"beaten by {one.by.option.words}: {_gains(one.judged, one.by, system, sign)}"


def day_words(worst: Hand | None, system: str) -> str:
    """How much hotter a day is held, with its sign; past what weather there is only that it is more."""
    if worst is None:
        return "—"
    if abs(worst.day) > FAR:
        return day_text(worst.day, system)
    unit = KINDS["temperature difference"].shown_unit(system)
    return f"{worst.day / unit.factor:+.0f} {unit.symbol}".replace("-", "−")


def _over(name: str, value: float | None, bounds: Bounds, shown: tuple[str, str]) -> str:
    spec, (system, sign) = spec_of(Choosing, name), shown
    if value is None or spec is None:
        return {"no_cut": "the panel would be cut", "own_only": "not in the build"}[name]
    most = float(getattr(bounds, name))
    told = [money_text(si, sign) if name == "budget" else format_si(si, spec.kind, system) for si in (value, most)]
    return f"{SAID[name].format(told[0])}, {told[1]} kept to"


def _gains(one: Judged, by: Judged, system: str, sign: str) -> str:
    """What the other is better by."""
    assert one.worst is not None
    assert by.worst is not None
    unit = KINDS["temperature difference"].shown_unit(system)
    day = (within_far(by.worst.day) - within_far(one.worst.day)) / unit.factor
    money, hours = one.priced.money - by.priced.money, (one.priced.hours - by.priced.hours) / HOUR
    amps, undone = one.priced.amps - by.priced.amps, one.priced.undone - by.priced.undone
    parts = [
        f"{day:.0f} {unit.symbol} hotter a day" if day >= 0.5 else "",
        f"{money_text(money, sign)} less" if money >= 0.5 else "",
        f"{hours:.1f} h less" if hours >= 0.05 else "",
        f"{amps:.0f} A less" if amps >= 0.5 else "",
        f"{undone} fewer steps that cannot be undone" if undone > 0 else "",
    ]
    return ", ".join(part for part in parts if part) or "as good in all, a little better in one"
