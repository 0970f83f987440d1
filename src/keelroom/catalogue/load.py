"""The shipped catalogue as parts of the build schema, and the user's own catalogue file."""

from __future__ import annotations

import csv
import difflib
import os
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any, TypeVar

from pydantic import BaseModel, TypeAdapter, ValidationError

from keelroom.document.fields import spec_of
from keelroom.document.quantity import Quantity, from_si, typed
from keelroom.document.schema.brief import Engine, Vehicle
from keelroom.document.schema.electrical import Circuit, Control, Wire
from keelroom.document.schema.loop import Glycol
from keelroom.document.schema.package import Core, Fan, Shroud
from keelroom.document.writing import write_atomically
from keelroom.errors import CatalogueError, InputError

M = TypeVar("M", bound=BaseModel)
DATA = Path(__file__).parent / "data"


@dataclass(frozen=True)
class FanAssembly:
    """A fan as sold: one or two alike fans, with or without their own shroud."""

    name: str
    count: int
    fan: Fan
    shrouded: bool
    cost: float


def by_itself(fan: Fan) -> FanAssembly:
    """A single fan as one buys or has it: without a shroud."""
    return FanAssembly(fan.name, 1, fan, False, fan.cost.si if fan.cost else 0.0)


@dataclass(frozen=True)
class NamedMix:
    """A mix by its usual name."""

    name: str
    glycol: Glycol
    glycol_share: Quantity


def _rows(name: str) -> list[dict[str, str]]:
    text = (DATA / f"{name}.csv").read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


def _part(model: type[M], row: dict[str, str], **more: Any) -> M:
    """A schema part from a row of texts. Raises CatalogueError naming row and column."""
    values: dict[str, Any] = dict(more)
    for field in model.model_fields:
        text = row.get(field)
        if text is None:
            continue
        spec = spec_of(model, field)
        try:
            values[field] = typed(text, spec, "", "catalogue") if spec else text
        except InputError as error:
            raise CatalogueError("bad_row", f"Catalogue row “{row['name']}”, column {field}: {error.message}") from None
    return model.model_validate(values)


@cache
def cores() -> tuple[Core, ...]:
    """Generic cores, small to large."""
    return tuple(_part(Core, row) for row in _rows("cores"))


@cache
def fan_assemblies() -> tuple[FanAssembly, ...]:
    """Generic fans and twin assemblies, small to large."""
    nowhere = from_si(0.0, "length", "si", "catalogue")
    return tuple(
        FanAssembly(
            row["name"],
            int(row["count"]),
            _part(Fan, row, id="fan", x=nowhere, y=nowhere),
            row["shroud"] == "full",
            float(row["cost"]),
        )
        for row in _rows("fans")
    )


@cache
def engines() -> tuple[Engine, ...]:
    """Engines of descriptive kinds."""
    return tuple(_part(Engine, row) for row in _rows("engines"))


@cache
def vehicles() -> tuple[Vehicle, ...]:
    """Vehicles of descriptive kinds."""
    return tuple(_part(Vehicle, row) for row in _rows("vehicles"))


@cache
def coolants() -> tuple[NamedMix, ...]:
    """Coolant mixes by name."""
    return tuple(
        NamedMix(
            row["name"],
            TypeAdapter(Glycol).validate_python(row["glycol"]),
            typed(row["glycol_share"], _share_spec(), "%", "catalogue"),
        )
        for row in _rows("coolants")
    )


@dataclass(frozen=True)
class WiringKit:
    """A kit as sold: how it decides, and the circuit it makes. fans: how many it feeds; each: a circuit to each."""

    name: str
    fans: int
    control: dict[str, Any]
    circuit: dict[str, Any]
    cost: float

    @property
    def each(self) -> bool:
        """Whether every fan has a circuit of its own: relay kits have, a controller feeds all of them."""
        return bool(self.circuit["switch"] != "controller")


@cache
def kits() -> tuple[WiringKit, ...]:
    """Generic wiring kits, the smallest first."""
    return tuple(_kit(row) for row in _rows("kits"))


def _kit(row: dict[str, str]) -> WiringKit:
    def part(model: type[BaseModel], *names: str, of: str = "") -> dict[str, Any]:
        found: dict[str, Any] = {}
        for name in names:
            spec, text = spec_of(model, name), row[of + name]
            found[name] = text if not spec else typed(text, spec, "", "catalogue") if text else None
        return found

    control = part(Control, "strategy", "sensor", "fan_on", "fan_off")
    control |= {name: row[name] == "yes" for name in ("ac_request", "override")}
    circuit = part(Circuit, "spare", "switch", "fuse", "fuse_form", "relay", "lead_length", "lead_size")
    for run in ("feed", "branch", "back"):
        circuit[run] = part(Wire, "length", "size", "colour", of=f"{run}_")
    return WiringKit(row["name"], int(row["fans"]), control, circuit, float(row["cost"]))


def _share_spec() -> Any:
    from keelroom.document.schema.loop import Coolant as Section

    return spec_of(Section, "glycol_share")


def named(items: tuple[M, ...], name: str) -> M:
    """The member called `name`. Raises CatalogueError with near matches."""
    for item in items:
        if getattr(item, "name", "") == name:
            return item
    near = difflib.get_close_matches(name, [getattr(item, "name", "") for item in items], 3, 0.4)
    raise CatalogueError(
        "unknown_part", f"No part called “{name}”" + (f"; near it: {', '.join(near)}" if near else ""), near=near
    )


def placed(assembly: FanAssembly, core: Core, system: str) -> tuple[tuple[Fan, ...], Shroud]:
    """The assembly's fans spread evenly over a core's face, and the shroud it comes with (none: bare fans)."""
    width = core.face_width.si if core.face_width else 0.6
    height = core.face_height.si if core.face_height else 0.4
    return placed_on(assembly, (width, height), system)


def placed_on(assembly: FanAssembly, face: tuple[float, float], system: str) -> tuple[tuple[Fan, ...], Shroud]:
    """The same on a face so wide and high [m]."""
    width, height = face
    fans = tuple(
        assembly.fan.model_copy(
            update={
                "id": f"fan{i + 1}",
                "name": assembly.name,
                "x": from_si(round(width * (2 * i + 1) / (2 * assembly.count), 6), "length", system, "derived"),
                "y": from_si(round(height / 2, 6), "length", system, "derived"),
                "cost": from_si(assembly.cost / assembly.count, "money", system, "catalogue"),
            }
        )
        for i in range(assembly.count)
    )
    return fans, Shroud(kind="full" if assembly.shrouded else "none", supplied=assembly.shrouded)


class OwnParts(BaseModel):
    """The user's own catalogue: parts kept across builds, in their own words and figures."""

    cores: tuple[Core, ...] = ()
    fans: tuple[Fan, ...] = ()


def own_file() -> Path:
    """Where the user's own catalogue lives: XDG_DATA_HOME or its default."""
    base = os.environ.get("XDG_DATA_HOME") or str(Path.home() / ".local" / "share")
    return Path(base) / "keelroom" / "own-parts.json"


def own_parts(path: Path | None = None) -> OwnParts:
    """The user's own catalogue, empty where there is none. Raises CatalogueError where it cannot be read."""
    path = path or own_file()
    if not path.exists():
        return OwnParts()
    try:
        return OwnParts.model_validate_json(path.read_bytes())
    except (OSError, ValidationError) as error:
        raise CatalogueError(
            "own_unreadable", f"Your own parts ({path.name}) cannot be read: {str(error).splitlines()[0]}"
        ) from None


def keep_own(part: Core | Fan, path: Path | None = None) -> None:
    """Add a part to the user's own catalogue, replacing one of the same name."""
    path = path or own_file()
    known = own_parts(path)
    path.parent.mkdir(parents=True, exist_ok=True)
    if isinstance(part, Core):
        known = known.model_copy(update={"cores": (*(c for c in known.cores if c.name != part.name), part)})
    else:
        known = known.model_copy(update={"fans": (*(f for f in known.fans if f.name != part.name), part)})
    write_atomically(path, known.model_dump_json(indent=2).encode())
