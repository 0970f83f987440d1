"""The space of packages: every core with every set of fans that fits it, bare or in its shroud, beside those the build
has; and what each bound throws out."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from keelroom.assess.mended import entered, well
from keelroom.assess.placing import size_of
from keelroom.assess.work.jobs import recored, same
from keelroom.assess.work.money import likely_hours
from keelroom.assess.work.shopping import parts_cost
from keelroom.assess.work.steps import undone
from keelroom.catalogue.load import FanAssembly, by_itself, cores, fan_assemblies, placed_on
from keelroom.core.kept import by_identity, by_identity_at, shelf
from keelroom.document.schema.build import Build
from keelroom.document.schema.choosing import Choosing
from keelroom.document.schema.electrical import Circuit, Control
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
    sides = {name: one.si if (one := getattr(choosing, name)) else None for name in MEASURES}
    return Bounds(no_cut=choosing.no_cut, own_only=choosing.own_only, **sides)


class Option(NamedTuple):
    """One package that could be. key : its own, for good;  sort : what it is of (`now`, `as_found`, `as_mended`, `new`)
    fans : None of a package the build has, and of the car as mended
    """

    key: str
    sort: str
    words: str
    core: Core
    fans: FanAssembly | None = None
    made_shroud: bool = False


class Priced(NamedTuple):
    """An option with what bounds go by: amps of its fans, money for its parts, hours [s], steps that cannot be undone,
    whether the panel is cut for it or would have to be: its face is wider or higher than the opening."""

    option: Option
    amps: float
    money: float
    hours: float
    undone: int
    cut: bool


class Space(NamedTuple):
    """Options that keep to every bound, and what each bound throws out, by its name."""

    inside: tuple[Priced, ...]
    out: dict[str, tuple[Priced, ...]]

    @property
    def whole(self) -> int:
        """How many there are in all."""
        return len(self.all)

    @property
    def all(self) -> tuple[Priced, ...]:
        """Every option once."""
        return tuple({one.option.key: one for part in (self.inside, *self.out.values()) for one in part}.values())

    @property
    def new(self) -> int:
        """How many there are that are not in the build."""
        return sum(one.option.sort == "new" for one in self.all)

    @property
    def left(self) -> int:
        """How many the bounds leave of those that are not in the build."""
        return sum(one.option.sort == "new" for one in self.inside)


def fits(assembly: FanAssembly, core: Core) -> bool:
    """Whether a set of fans is no larger than the core's face: a fan larger than its core is never proposed."""
    wide, high = size_of(core)
    size = assembly.fan.diameter.si if assembly.fan.diameter else 0.3
    return assembly.count * size <= RING_ROOM * wide and size <= RING_ROOM * high


@by_identity(4)
def options_of(build: Build) -> tuple[Option, ...]:
    """Every option: the package in use and the car as found and as mended first, then each core with each set of fans
    that fits it, the user's own first, in its own shroud, in a made one, or bare."""
    return (*_there(build), *_new(build))


def _there(build: Build) -> Iterator[Option]:
    """What the build has."""
    now = build.package
    yield Option(now.id, NOW, f"{now.name or now.id}, as planned now", now.core)
    for kind, words in ((FOUND, "the car as found"), (MENDED, "the car, mended only")):
        own = build.of_kind(kind)  # type: ignore[arg-type]
        if own is not None and own.id != now.id:
            yield Option(own.id, kind, words, own.core)
    found = build.of_kind("as_found")
    if found is not None and build.of_kind("as_mended") is None and any(entered(build)):
        yield Option(MENDED_ID, MENDED, "the car, mended only", well(build, found).core)


def _new(build: Build) -> Iterator[Option]:
    now, number = build.package, 0
    sets = (*map(by_itself, build.own_fans), *fan_assemblies())
    for core in (now.core, *build.own_cores, *cores()):
        if core is not now.core and core.name == now.core.name:
            continue
        for assembly in sets:
            if fits(assembly, core):
                name = f"{core.name}; {assembly.name}"
                for words, made in SHROUDS[assembly.shrouded]:
                    number += 1
                    yield Option(f"o{number}", "new", name + words, core, assembly, made)


SHROUDS = {True: (("", False),), False: ((", bare", False), (", in a made shroud", True))}
"""A set of fans by whether it comes in its shroud: in its own; bare and in one that is made."""
MENDED_ID = "mended"
"""The key of the car as it would be with what was found mended and nothing else, where it is no package yet."""
NEW_ID = "option"
"""Of an option as a package: alike for all, so that what they have alike is worked out once."""


def package_of(build: Build, option: Option) -> Package:
    """An option as a package of its build: one of it, or the package in use with another core, fans and shroud.
    Circuits that fed fans which are gone go with them."""
    found = build.of_kind("as_found")
    if option.key == MENDED_ID and found is not None:
        return well(build, found).model_copy(update={"id": NEW_ID, "name": option.words, "kind": "as_mended"})
    if option.fans is None:
        return next(one for one in build.packages if one.id == option.key)
    now, (fans, own) = _base(build), _placed(option.fans, option.core)
    kept = {fan.id for fan in fans} | {cooler.id for cooler in now.coolers}
    return now.model_copy(
        update={
            "id": NEW_ID,
            "name": option.words,
            "kind": "planned",
            "core": option.core,
            "fans": fans,
            "shroud": MADE if option.made_shroud else own,
            "circuits": _circuits(now.circuits, frozenset(kept)),
            "control": _control(now.control),
        }
    )


MADE = Shroud(kind="full")


@by_identity(4)
def _base(build: Build) -> Package:
    """What options are planned from: the package in use, what was found of it mended."""
    return well(build, build.package) if build.package.kind == "as_found" else build.package


def _placed(assembly: FanAssembly, core: Core) -> tuple[tuple[Fan, ...], Shroud]:
    return _placed_on(assembly, size_of(core))


@by_identity_at(4096)
def _placed_on(assembly: FanAssembly, size: tuple[float, float]) -> tuple[tuple[Fan, ...], Shroud]:
    """Fans on a face of a size: the very same on every core of that size."""
    return placed_on(assembly, size, "us")


@by_identity_at(64)
def _circuits(circuits: tuple[Circuit, ...], fed: frozenset[str]) -> tuple[Circuit, ...]:
    return tuple(one for one in circuits if set(one.feeds) <= fed)


@by_identity(4)
def _control(control: Control) -> Control:
    return control.model_copy(update={"lead": "", "ac_fans": (), "spun": (), "done": ()})


def with_option(build: Build, option: Option) -> Build:
    """The build with an option in use."""
    if option.fans is None and option.key != MENDED_ID:
        return build.model_copy(update={"active": option.key})
    package = package_of(build, option)
    return build.model_copy(update={"packages": (*build.packages, package), "active": package.id})


def priced(build: Build, option: Option) -> Priced:
    """What the bounds go by: as its own package's work has it, worked out once for all options whose work is alike."""
    package, opening = build.package, build.survey.opening
    wide, high = size_of(option.core)
    hidden = any(
        side is not None and size > side.si + 1e-4 for side, size in ((opening.width, wide), (opening.height, high))
    )
    if option.fans is None or any(item.price is not None for item in build.work.items):
        own = with_option(build, option)
        package, work = own.package, _work(own)
        money, amps = work.money, sum(map(_amps, package.fans))
    else:
        work, money = _alike(build, option)
        amps = option.fans.count * _amps(option.fans.fan)
    cut = bool(package.cuts) or (hidden and not package.remote.away)
    return Priced(option, amps, money, work.hours, work.undone, cut)


class Work(NamedTuple):
    """What a package's work comes to: money for its parts, hours [s], steps that cannot be undone."""

    money: float
    hours: float
    undone: int


def _work(own: Build) -> Work:
    package = own.package
    return Work(parts_cost(own, package) or 0.0, likely_hours(own, package) or 0.0, undone(own, package))


def _alike(build: Build, option: Option) -> tuple[Work, float]:
    """The work of an option, and the money its parts cost: the jobs go by what is another than in the car as found,
    not by sizes, so that thousands of options share a few dozen works."""
    assert option.fans is not None
    found, (fans, shroud) = build.of_kind("as_found"), _placed(option.fans, option.core)
    there = {fan.id: fan for fan in found.fans} if found is not None else {}
    new = tuple(not same(fan, there.get(fan.id)) for fan in fans)
    core = found is None or not same(option.core, found.core) or build.package.place != found.place
    shroud = MADE if option.made_shroud else shroud
    ports = tuple((port.id, port.state) for port in option.core.ports)
    made = recored(option.core, found.core) if found is not None else False
    kind = (core, made, option.core.material, ports, shroud.kind, shroud.supplied, new, option.fans.fan.motor)
    known = shelf("works of options", 256)
    before = known.get((build,), (*kind, option.fans.fan.mount))
    own_cost = (option.core.cost.si if core and option.core.cost else 0.0) + sum(
        fan.cost.si for fan, counts in zip(fans, new, strict=True) if counts and fan.cost
    )
    if before is None:
        work = _work(with_option(build, option))
        before = work._replace(money=work.money - own_cost)
        known.put((build,), (*kind, option.fans.fan.mount), before)
    return before, before.money + own_cost


def _amps(fan: Fan) -> float:
    if not fan.runs or fan.motor == "engine":
        return 0.0
    return fan.rated_current.si if fan.rated_current else fan.power.si / FAN_VOLTS if fan.power else 0.0


MEASURES: dict[str, Callable[[Priced], float]] = {
    "width": lambda one: size_of(one.option.core)[0],
    "height": lambda one: size_of(one.option.core)[1],
    "amps": lambda one: one.amps,
    "budget": lambda one: one.money,
    "hours": lambda one: one.hours,
}
"""What a bound of so much at most goes by, by the bound's name."""
LEAST = 1e-6


def broken(one: Priced, bounds: Bounds) -> dict[str, float | None]:
    """The bounds an option the build has not does not keep to, with what it would take; None where it is no amount."""
    over: dict[str, float | None] = {}
    for name, measured in MEASURES.items():
        most = getattr(bounds, name)
        if most is not None and (value := measured(one)) > most + LEAST:
            over[name] = value
    if bounds.no_cut and one.cut:
        over["no_cut"] = None
    if bounds.own_only:
        over["own_only"] = None
    return over


def bounded(all_of_them: tuple[Priced, ...], bounds: Bounds) -> Space:
    """Those that keep to every bound, and what each throws out by itself. What the build has stays whatever the
    bounds: leaving the car as it is, or mending it, is always a choice."""
    out: dict[str, list[Priced]] = {name: [] for name in Bounds._fields}
    inside = []
    for one in all_of_them:
        over = broken(one, bounds) if one.option.sort == "new" else {}
        for name in over:
            out[name].append(one)
        if not over:
            inside.append(one)
    return Space(tuple(inside), {name: tuple(those) for name, those in out.items() if those})


class Near(NamedTuple):
    """Of bounds that leave nothing: the option nearest to them, and what its bounds would have to be, by name."""

    one: Priced
    over: dict[str, float | None]


def nearest(all_of_them: tuple[Priced, ...], bounds: Bounds) -> Near | None:
    """The option that breaks fewest bounds, and those by the least share; None where there is none or it breaks
    none."""
    new = [Near(one, broken(one, bounds)) for one in all_of_them if one.option.sort == "new"]

    def off(near: Near) -> tuple[int, float]:
        shares = (value / max(getattr(bounds, name), LEAST) for name, value in near.over.items() if value is not None)
        return len(near.over), sum(shares)

    best = min(new, key=off, default=None)
    return best if best is not None and best.over else None
