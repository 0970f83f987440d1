"""The space of packages: every core with every set of fans that fits it, bare or in its shroud, beside those the build
has; and what each bound throws out."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from keelroom.assess.placing import size_of
from keelroom.assess.work.money import likely_hours
from keelroom.assess.work.shopping import parts_cost
from keelroom.catalogue.load import FanAssembly, cores, fan_assemblies, placed
from keelroom.document.schema.build import Build
from keelroom.document.schema.choosing import Choosing
from keelroom.document.schema.package import Core, Fan, Package, Shroud

RING_ROOM = 0.98
"""Share of its face's side a set of fans may take (common practice: a ring has a lip)."""
FAN_VOLTS = 13.0
"""[V] amps of fans are told at"""
NOW, FOUND, MENDED = "now", "as_found", "as_mended"


class Bounds(NamedTuple):
    """What a package has to keep to; None and False leave it free.

    width, height [m] : of its core's face at most;  no_cut : the panel's opening stays as it is;  amps : its fans draw
    at most;  budget : money for parts;  hours [s] of work;  own_only : only what is in the build already
    """

    width: float | None = None
    height: float | None = None
    no_cut: bool = False
    amps: float | None = None
    budget: float | None = None
    hours: float | None = None
    own_only: bool = False


def bounds_of(choosing: Choosing) -> Bounds:
    """The bounds a build keeps."""
    sides = {name: one.si if (one := getattr(choosing, name)) else None for name in MEASURED}
    return Bounds(no_cut=choosing.no_cut, own_only=choosing.own_only, **sides)


MEASURED = ("width", "height", "amps", "budget", "hours")


class Option(NamedTuple):
    """One package that could be. sort: what it is of (`now`, `as_found`, `as_mended`, `new`)"""

    package: Package
    sort: str
    words: str

    @property
    def key(self) -> str:
        """Its own, for good."""
        return self.package.id


class Priced(NamedTuple):
    """An option with what bounds go by: amps of its fans, money for its parts, hours [s], whether its face is wider or
    higher than the opening."""

    option: Option
    amps: float
    money: float
    hours: float
    hidden: bool


class Space(NamedTuple):
    """Options that keep to every bound, and what each bound throws out, by its name."""

    inside: tuple[Priced, ...]
    out: dict[str, tuple[Priced, ...]]

    @property
    def whole(self) -> int:
        """How many there are in all."""
        return len({one.option.key for part in (self.inside, *self.out.values()) for one in part})


def fits(assembly: FanAssembly, core: Core) -> bool:
    """Whether a set of fans is no larger than the core's face: a fan larger than its core is never proposed."""
    wide, high = size_of(core)
    size = assembly.fan.diameter.si if assembly.fan.diameter else 0.3
    return assembly.count * size <= RING_ROOM * wide and size <= RING_ROOM * high


def options_of(build: Build) -> Iterator[Option]:
    """Every option: the package in use and the car as found and as mended first, then each core with each set of fans
    that fits it, in its own shroud, in a made one, or bare."""
    now = build.package
    yield Option(now, NOW, f"{now.name or now.id}, as planned now")
    for kind in (FOUND, MENDED):
        own = build.of_kind(kind)  # type: ignore[arg-type]
        if own is not None and own.id != now.id:
            yield Option(own, kind, "the car as found" if kind == FOUND else "the car, mended only")
    here = [now.core, *(core for core in build.own_cores)]
    number = 0
    for core in (*here, *cores()):
        if core is not now.core and core.name == now.core.name:
            continue
        for assembly in fan_assemblies():
            if not fits(assembly, core):
                continue
            fans, shroud = placed(assembly, core, "us")
            for words, guide in _shrouds(shroud):
                number += 1
                yield _option(now, (core, fans, guide), f"o{number}", f"{core.name}; {assembly.name}{words}")


def _shrouds(own: Shroud) -> tuple[tuple[str, Shroud], ...]:
    """In its own shroud, or bare and in one that is made."""
    if own.kind != "none":
        return (("", own),)
    return ((", bare", own), (", in a made shroud", Shroud(kind="full")))


def _option(now: Package, parts: tuple[Core, tuple[Fan, ...], Shroud], ident: str, words: str) -> Option:
    """The package in use with another core, fans and shroud; circuits that fed fans which are gone go with them."""
    core, fans, shroud = parts
    kept = {fan.id for fan in fans} | {cooler.id for cooler in now.coolers}
    circuits = tuple(one for one in now.circuits if set(one.feeds) <= kept)
    control = now.control.model_copy(update={"lead": "", "ac_fans": (), "spun": (), "done": ()})
    package = now.model_copy(
        update={
            "id": ident,
            "name": words,
            "kind": "planned",
            "core": core,
            "fans": fans,
            "shroud": shroud,
            "circuits": circuits,
            "control": control,
        }
    )
    return Option(package, "new", words)


def with_option(build: Build, option: Option) -> Build:
    """The build with an option in use."""
    there = any(one.id == option.key for one in build.packages)
    packages = build.packages if there else (*build.packages, option.package)
    return build.model_copy(update={"packages": packages, "active": option.key})


def priced(build: Build, option: Option) -> Priced:
    """What the bounds go by."""
    own, package = with_option(build, option), option.package
    opening = build.survey.opening
    wide, high = size_of(package.core)
    hidden = any(
        side is not None and size > side.si + 1e-4 for side, size in ((opening.width, wide), (opening.height, high))
    )
    amps = sum(_amps(fan) for fan in package.fans if fan.runs and fan.motor != "engine")
    money = parts_cost(own, package) or 0.0
    return Priced(option, amps, money, likely_hours(own, package) or 0.0, hidden and not package.remote.away)


def _amps(fan: Fan) -> float:
    return fan.rated_current.si if fan.rated_current else fan.power.si / FAN_VOLTS if fan.power else 0.0


RULES: dict[str, Callable[[Priced, Bounds], bool]] = {
    "width": lambda one, held: held.width is None or size_of(one.option.package.core)[0] <= held.width + 1e-6,
    "height": lambda one, held: held.height is None or size_of(one.option.package.core)[1] <= held.height + 1e-6,
    "no_cut": lambda one, held: not held.no_cut or not (one.hidden or one.option.package.cuts),
    "amps": lambda one, held: held.amps is None or one.amps <= held.amps + 1e-6,
    "budget": lambda one, held: held.budget is None or one.money <= held.budget + 1e-6,
    "hours": lambda one, held: held.hours is None or one.hours <= held.hours + 1e-6,
    "own_only": lambda one, held: not held.own_only or one.option.sort != "new",
}
"""Whether an option keeps to a bound, by the bound's name."""


def bounded(all_of_them: tuple[Priced, ...], bounds: Bounds) -> Space:
    """Those that keep to every bound, and what each throws out by itself."""
    out = {name: tuple(one for one in all_of_them if not keeps(one, bounds)) for name, keeps in RULES.items()}
    thrown = {one.option.key for part in out.values() for one in part}
    return Space(tuple(one for one in all_of_them if one.option.key not in thrown), {k: v for k, v in out.items() if v})


def why_out(one: Priced, bounds: Bounds) -> tuple[str, ...]:
    """Names of the bounds an option does not keep to."""
    return tuple(name for name, keeps in RULES.items() if not keeps(one, bounds))


def loosest(all_of_them: tuple[Priced, ...], bounds: Bounds) -> tuple[str, int]:
    """Of bounds that leave nothing, the one to loosen first: without it most are left; and how many."""
    free = Bounds()
    counts = {
        name: len(bounded(all_of_them, bounds._replace(**{name: getattr(free, name)})).inside)
        for name in Bounds._fields
    }
    best = max(counts, key=lambda name: counts[name])
    return best, counts[best]
