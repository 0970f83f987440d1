"""What is bought: for sure, and after a measurement; what it costs and when it comes."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Iterable, Iterator
from typing import NamedTuple, TypeVar

from pydantic import BaseModel

from keelroom.assess.inputs.coolant.routes import hose_name
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.work.hardware import hardware_list
from keelroom.assess.work.jobs import Job, jobs_of
from keelroom.assess.work.steps import Step, steps_of
from keelroom.core.kept import by_identity
from keelroom.document.fields import Path, get
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Hose
from keelroom.document.schema.package import Core, Fan, Package, Shroud
from keelroom.document.schema.work import Item
from keelroom.errors import InputError
from keelroom.units import KINDS, format_si, inches

PARTS = frozenset(
    (
        *("core", "fan", "fan_bare", "engine_fan", "condenser", "cooler", "part", "pump", "hose", "hose_run", "shroud"),
        *("shroud_made", "shroud_bought", "shroud_joined", "circuit", "control", "bracket", "frame", "panel", "move"),
    )
)
"""Acts that bring a part."""
AFTER_MOCK_UP = ("bracket", "frame", "shroud_made", "panel", "move")
"""What is bought or made only once the trial fit says its size."""
AMOUNT = re.compile(r"^(?P<number>[\d.]+)\s*(?P<unit>.*)$")
P = TypeVar("P", bound=BaseModel)
PRICES = ("part", "price", "lead time")
MOST_LINES = 5000


class Wanted(NamedTuple):
    """Something on the list. key : its own, for good;  group : part, forgotten, hardware or material;  amount in words
    after : the measurement that has to come first, '' where it is sure;  about : what it is for
    price : None where nobody knows it;  lead [days]
    """

    key: str
    name: str
    group: str
    amount: str
    after: str
    about: Path
    price: float | None
    lead: float | None
    source: str
    instead: str
    in_hand: bool

    @property
    def sure(self) -> bool:
        """Whether it can be bought before anything is measured."""
        return not self.after


def shopping(build: Build, package: Package) -> tuple[Wanted, ...]:
    """Everything to be had for a package's work: parts in the order of the work, what is forgotten with them, hardware
    by its sizes, materials."""
    return _shopping(build, package, jobs_of(build, package), steps_of(build, package))


@by_identity(16)
def _shopping(build: Build, package: Package, jobs: tuple[Job, ...], steps: tuple[Step, ...]) -> tuple[Wanted, ...]:
    known = {item.id: item for item in build.work.items}
    hardware = attempted("The hardware list", (), lambda: list(_hardware(build, package, jobs)))
    held = [] if isinstance(hardware, Stopped) else hardware
    materials = [one for one in _materials(steps) if not held or not one.name.startswith(HELD)]
    found = [*_parts(build, jobs), *_forgotten(build, jobs), *held, *materials, *_own(jobs, steps)]
    return tuple(_with(one, known.get(one.key)) for one in found)


def _with(wanted: Wanted, item: Item | None) -> Wanted:
    """With what is known of it by hand or by a price list; what the build itself says of its price goes first."""
    if item is None:
        return wanted
    price = wanted.price if wanted.price is not None else item.price.si if item.price else None
    return wanted._replace(
        price=price,
        lead=item.lead.si if item.lead else wanted.lead,
        source=item.source,
        instead=item.instead,
        in_hand=item.in_hand,
    )


def _wanted(key: str, name: str, group: str, about: Path, amount: str = "1 pc", after: str = "") -> Wanted:
    return Wanted(key, name, group, amount, after, about, None, None, "", "", False)


def _parts(build: Build, jobs: Iterable[Job]) -> Iterator[Wanted]:
    for job in jobs:
        if not PARTS & set(job.acts):
            continue
        part = _part(build, job.about)
        cost = getattr(part, "cost", None)
        after = _after(build, job, part)
        name = job.name if not isinstance(part, Core) else part.name or "Core"
        one = _wanted(job.item, name, "part", job.about, _amount(part), after)
        yield one._replace(price=cost.si if cost else None)


def _part(build: Build, about: Path) -> object:
    try:
        return get(build, about)
    except InputError:
        return None


def _amount(part: object) -> str:
    if isinstance(part, Hose) and part.length:
        return f"{part.length.si:.2f} m"
    return "1 pc"


def _after(build: Build, job: Job, part: object) -> str:
    """What has to be measured before it is bought; '' where nothing."""
    opening = build.survey.opening
    if isinstance(part, Core) and (opening.width is None or opening.width.origin == "assumed"):
        return "the panel’s opening"
    if isinstance(part, Hose) and part.length is None:
        return f"the run of {hose_name(part).lower()}"
    if any(act in AFTER_MOCK_UP for act in job.acts):
        return "the trial fit"
    return ""


def _forgotten(build: Build, jobs: Iterable[Job]) -> Iterator[Wanted]:
    """What is forgotten again and again: plugs that mate, hose ends of unlike bore, bolts for a bought pan."""
    for job in jobs:
        if job.acts[0].startswith("take_"):
            continue
        part = _part(build, job.about)
        if isinstance(part, Fan) and part.motor != "engine":
            used = " (a used one comes without)" if part.made == "used" else ""
            yield _wanted(f"{job.item}/plug", f"Mating plug for {job.name}{used}", "forgotten", job.about)
        if isinstance(part, Hose) and part.piece != "none":
            yield _wanted(f"{job.item}/piece", f"{part.piece.capitalize()} for {job.name}", "forgotten", job.about)
        if isinstance(part, Shroud) and part.kind != "none":
            yield _wanted(f"{job.item}/nuts", "1/4-20 nylon lock nuts and washers", "forgotten", job.about, "8 pc")


def _materials(steps: Iterable[Step]) -> Iterator[Wanted]:
    """What the steps use, alike things together."""
    totals: dict[tuple[str, str], float] = {}
    abouts: dict[tuple[str, str], Path] = {}
    afters: dict[tuple[str, str], bool] = {}
    for step in steps:
        for what, amount in step.uses:
            told = AMOUNT.match(amount)
            number, unit = (float(told["number"]), told["unit"].strip()) if told else (1.0, amount)
            at = what, unit
            totals[at] = totals.get(at, 0.0) + number
            abouts.setdefault(at, step.about)
            afters[at] = afters.get(at, True) and any(act in AFTER_MOCK_UP for act in step.job.acts)
    for (what, unit), number in totals.items():
        shown = f"{math.ceil(number)}" if unit in WHOLE else f"{number:.1f}"
        after = "the trial fit" if afters[what, unit] else ""
        name = what[0].upper() + what[1:]
        yield _wanted(f"use:{what}:{unit}"[:80], name, "material", abouts[what, unit], f"{shown} {unit}".strip(), after)


SAID_IN = {"m": "length", "m²": "area", "L": "volume"}


def amount_words(amount: str, system: str) -> str:
    """An amount in the user's units, where it is a length, an area or a volume."""
    told = AMOUNT.match(amount)
    kind = SAID_IN.get(told["unit"].strip()) if told else None
    if told is None or kind is None:
        return amount
    value, litres = float(told["number"]), 1e-3 if kind == "volume" else 1.0
    if inches(system) and kind != "volume":
        unit = KINDS[kind].unit("ft" if kind == "length" else "ft²")
        return f"{value / unit.factor:.1f} {unit.symbol}"
    return format_si(value * litres, KINDS[kind], system) if kind == "volume" else amount


WHOLE = ("pc", "roll", "pack", "sheet", "tube", "can")


HELD = ("Clamps", "Foam strip", "Edge trim", "Rivets")
"""Materials of the steps the hardware list has by their sizes."""


def _hardware(build: Build, package: Package, jobs: Iterable[Job]) -> Iterator[Wanted]:
    """Bolts, nuts, washers, clamps, foam and trim of what is new, by their sizes."""
    new = _only_new(package, {job.ident for job in jobs if not job.acts[0].startswith("take_")})
    hoses = {job.name for job in jobs if job.acts[0] in ("hose", "hose_run")}
    for number, (item, amount, use) in enumerate(hardware_list(build, new, "us")[1:]):
        if use in hoses:
            continue  # the hose itself stands among the parts
        after = "the trial fit" if use == "brackets" or amount == "not measured" else ""
        told = amount if not amount.isdigit() else f"{amount} pc"
        name = item if use in ("brackets", "hoses") else f"{item}, {use}"
        yield _wanted(f"hw:{item}:{use}:{number}"[:80], name, "hardware", ("packages", package.id), told, after)


def _only_new(package: Package, jobs: set[str]) -> Package:
    """The package with those of its parts that are worked on."""

    def new(kind: str, parts: Iterable[P]) -> tuple[P, ...]:
        return tuple(part for part in parts if f"{kind}:{getattr(part, 'id', '')}" in jobs)

    mounting = package.mounting.model_copy(update={"frames": new("frame", package.mounting.frames)})
    loop = (
        package.loop if any(job.startswith("hose:") for job in jobs) else package.loop.model_copy(update={"hoses": ()})
    )
    shroud = package.shroud if "shroud" in jobs else Shroud(kind="none")
    return package.model_copy(
        update={
            "brackets": new("bracket", package.brackets),
            "panels": new("panel", package.panels),
            "cuts": new("cut", package.cuts),
            "coolers": new("cooler", package.coolers),
            "mounting": mounting,
            "loop": loop,
            "shroud": shroud,
        }
    )


def _own(jobs: Iterable[Job], steps: Iterable[Step]) -> Iterator[Wanted]:
    """What steps added by hand cost."""
    for job in dict.fromkeys(step.job for step in steps if step.job.acts == ("own",)):
        cost = dict(job.words).get("cost")
        if cost:
            yield _wanted(job.ident, job.name, "part", job.about)._replace(price=float(cost))


def parts_cost(build: Build, package: Package) -> float | None:
    """What the work's parts and materials cost; None where nothing of them is priced. What is in hand costs nothing
    more."""
    items = {item.id: item for item in build.work.items}
    found = [_with(one, items.pop(one.key, None)) for one in _parts(build, jobs_of(build, package))]
    if build.work.own or any(_priced_here(item, package) for item in items.values()):
        # Materials and what is forgotten cost only what was said of them.
        found = list(shopping(build, package))
    known = [one.price for one in found if one.price is not None and not one.in_hand]
    return math.fsum(known) if known else None


def _priced_here(item: Item, package: Package) -> bool:
    """Whether what is known of an item may be of this package, and costs."""
    of, _, rest = item.id.partition("/")
    return item.price is not None and not item.in_hand and (not rest or ":" in of or of == package.id)


class Price(NamedTuple):
    """A line of a price list: what, its price, days to come, and the line it stands in."""

    part: str
    price: float
    lead: float | None
    source: str
    line: int


class PriceList(NamedTuple):
    """What a price list says, and what of it could not be read."""

    prices: tuple[Price, ...]
    faults: tuple[str, ...]


def read_prices(text: str, name: str) -> PriceList:
    """A price list: part, price, lead time in days, and where it is from. Raises InputError where it is none at all."""
    lines = text.splitlines()
    separator = next((sign for sign in (";", "\t", ",") if lines and sign in lines[0]), ",")
    rows = list(csv.reader(io.StringIO(text), delimiter=separator))
    heads = [cell.strip().lower() for cell in rows[0]] if rows else []
    places = {want: _place(heads, want) for want in (*PRICES, "source")}
    if places["part"] is None or places["price"] is None:
        told = ", ".join(heads) or "nothing"
        raise InputError("prices_heads", f"{name} has the columns {told}; part, price and lead time were expected")
    if len(rows) > MOST_LINES:
        raise InputError("prices_long", f"{name} has {len(rows):,} lines; up to {MOST_LINES:,} are read")
    found: list[Price] = []
    faults: list[str] = []
    for number, row in enumerate(rows[1:], 2):
        cells = {want: row[at].strip() if at is not None and at < len(row) else "" for want, at in places.items()}
        if not any(cells.values()):
            continue
        price, lead = _money(cells["price"]), _money(cells["lead time"])
        if not cells["part"] or price is None:
            faults.append(f"Line {number}: “{cells['price'] or cells['part']}” is no price of a part")
            continue
        if cells["lead time"] and lead is None:
            faults.append(f"Line {number}: “{cells['lead time']}” is no number of days; taken without")
        if any(one.part.casefold() == cells["part"].casefold() for one in found):
            faults.append(f"Line {number}: {cells['part']} stands twice; the first counts")
            continue
        found.append(Price(cells["part"], price, lead, cells["source"], number))
    return PriceList(tuple(found), tuple(faults))


def _place(heads: list[str], want: str) -> int | None:
    alike = {
        "part": ("part", "name", "item"),
        "price": ("price", "cost"),
        "lead time": ("lead", "days"),
        "source": ("source", "from", "shop"),
    }
    return next((k for k, head in enumerate(heads) if any(word in head for word in alike[want])), None)


def _money(text: str) -> float | None:
    plain = text.strip(" $€£").replace(" ", "")
    if plain.count(",") == 1 and "." not in plain:
        plain = plain.replace(",", ".")
    try:
        value = float(plain.replace(",", ""))
    except ValueError:
        return None
    return value if 0 <= value <= 1e6 else None


def matched(wanted: tuple[Wanted, ...], prices: PriceList) -> tuple[dict[str, Price], tuple[str, ...]]:
    """Prices by the key of what they are of: by name, else where all words of a line's name stand in the thing's; and
    what of the list is of nothing wanted."""
    found: dict[str, Price] = {}
    unused = []
    for price in prices.prices:
        plain = price.part.casefold()
        words = set(re.findall(r"\w+", plain))
        exact = [one for one in wanted if one.name.casefold() == plain]
        alike = exact or [one for one in wanted if words and words <= set(re.findall(r"\w+", one.name.casefold()))]
        if not alike:
            unused.append(price.part)
        for one in alike:
            found.setdefault(one.key, price)
    return found, tuple(unused)
