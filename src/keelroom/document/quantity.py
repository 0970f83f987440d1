"""A stored measure, and what a field of the document allows it to be."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, Literal, get_args

from pydantic import BaseModel, ConfigDict, Field, GetCoreSchemaHandler
from pydantic_core import PydanticCustomError, core_schema

from keelroom.errors import InputError
from keelroom.gauges import size_text
from keelroom.units import KINDS, Kind, format_si, number_text, parse, with_unit

Origin = Literal["measured", "catalogue", "assumed", "derived"]
ORIGINS: tuple[Origin, ...] = get_args(Origin)


class Strict(BaseModel):
    """Base of everything stored: frozen, nothing extra, nothing converted, no infinities; sequences are tuples."""

    model_config = ConfigDict(frozen=True, extra="forbid", strict=True, allow_inf_nan=False, defer_build=True)


def most(count: int) -> Any:
    """How long a list may be: more than anybody has, and few enough that a window stays quick with all of it."""
    return Field(max_length=count)


class Quantity(Strict):
    """A measure as it was typed and what it means.

    si : value in SI (temperature in degrees Celsius);  as_typed, unit : the text and the unit it was read in
    origin : where it came from;  doubt : standard doubt in SI, None where not stated
    """

    si: float
    as_typed: str
    unit: str
    origin: Origin = "measured"
    doubt: Annotated[float, Field(ge=0, le=1e9)] | None = None

    @property
    def words(self) -> str:
        """As typed, with the unit it was read in."""
        if not self.unit or self.as_typed.endswith(self.unit):
            return self.as_typed
        return f"{self.as_typed}{'' if self.unit == '°' else ' '}{self.unit}"


@dataclass(frozen=True)
class Spec:
    """What one measured field is: its kind, its label, its limits in SI, and whether anything is computed from it."""

    kind_name: str
    label: str
    gt: float | None = None
    ge: float | None = None
    le: float | None = None
    help: str = ""
    descriptive: bool = False
    whole: bool = False

    @property
    def kind(self) -> Kind:
        return KINDS[self.kind_name]

    def range_words(self, system: str) -> str:
        """Between what it means something, in shown units; '' where it has no limits."""
        low = self.gt if self.gt is not None else self.ge
        if low is None and self.le is None:
            return ""
        least = (
            ""
            if low is None
            else f"more than {format_si(low, self.kind, system)}"
            if self.gt is not None
            else f"{format_si(low, self.kind, system)} or more"
        )
        most = "" if self.le is None else f"{format_si(self.le, self.kind, system)} at most"
        return ", ".join(part for part in (least, most) if part)

    def refusal(self, si: float) -> str | None:
        """Why `si` means nothing in this field, or None."""

        def shown(limit: float) -> str:
            unit = self.kind.shown_unit("si")
            if not limit and unit.offset == 0:
                return "0"  # nought is nought in any unit
            return format_si(limit, self.kind, "si") + (
                f" ({format_si(limit, self.kind, 'us')})" if self.kind.us != self.kind.si and unit.offset == 0 else ""
            )

        if self.whole and si != round(si):
            return f"{self.label} is a whole number"
        if self.gt is not None and si <= self.gt:
            return f"{self.label} must be more than {shown(self.gt)}"
        if self.ge is not None and si < self.ge:
            return f"{self.label} must be at least {shown(self.ge)}"
        if self.le is not None and si > self.le:
            return f"{self.label} must be at most {shown(self.le)}"
        return None

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> core_schema.CoreSchema:
        return core_schema.no_info_after_validator_function(self._validated, handler(source))

    def _validated(self, value: Quantity | None) -> Quantity | None:
        if value is None:
            return None
        try:
            reading = parse(value.as_typed, self.kind, value.unit)
        except InputError as error:
            raise PydanticCustomError("quantity", "{reason}", {"reason": error.message}) from None
        if abs(reading.si - value.si) > 1e-9 * max(1.0, abs(value.si)):
            raise PydanticCustomError(
                "quantity",
                "si is {si} but “{text}” reads as {read}",
                {"si": value.si, "text": value.as_typed, "read": reading.si},
            )
        refused = self.refusal(value.si)
        if refused:
            raise PydanticCustomError("quantity", "{reason}", {"reason": refused})
        return value


def typed(text: str, spec: Spec, unit: str, origin: Origin = "measured") -> Quantity:
    """The quantity a text typed into a field means. Raises InputError saying what was expected."""
    reading = parse(text, spec.kind, unit)
    refused = spec.refusal(reading.si)
    if refused:
        raise InputError("out_of_range", refused, value=reading.si, field=spec.label)
    return Quantity(si=reading.si, as_typed=reading.text, unit=reading.unit, origin=origin)


def quantity(text: str, kind_name: str, origin: Origin = "assumed") -> Quantity:
    """A quantity from a text that carries its unit; for defaults and catalogue rows."""
    reading = parse(text, KINDS[kind_name], KINDS[kind_name].units[0].symbol)
    return Quantity(si=reading.si, as_typed=text, unit=reading.unit, origin=origin)


def from_si(si: float, kind_name: str, system: str, origin: Origin) -> Quantity:
    """A quantity computed or dragged rather than typed, to six digits; its text reads back as exactly its value."""
    unit = KINDS[kind_name].shown_unit(system)
    if KINDS[kind_name].named:
        reading = parse(size_text(si), KINDS[kind_name], unit.symbol)
        return Quantity(si=reading.si, as_typed=reading.text, unit=reading.unit, origin=origin)
    text = f"{(si - unit.offset) / unit.factor:.6g}"
    return Quantity(si=parse(text, KINDS[kind_name], unit.symbol).si, as_typed=text, unit=unit.symbol, origin=origin)


def as_read(si: float, kind_name: str, system: str, origin: Origin) -> Quantity:
    """A quantity an act sets, rounded as its unit is read: whole degrees, sixteenths of an inch."""
    kind = KINDS[kind_name]
    reading = parse(format_si(si, kind, system).replace("−", "-"), kind, kind.shown_unit(system).symbol)
    return Quantity(si=reading.si, as_typed=reading.text, unit=reading.unit, origin=origin)


SMALL = 0.5
"""[in] below which a sixteenth is too coarse for what was given in another unit"""


def shown(value: Quantity, kind: Kind, system: str) -> str:
    """How a field shows the quantity: as typed where typed in the shown unit, else converted; without the unit."""
    if kind.named:
        return value.as_typed
    unit = kind.shown_unit(system)
    if value.unit == unit.symbol and value.origin != "derived":
        bare = value.as_typed
        for name in (unit.symbol, *unit.names):
            if name and bare.endswith(name):
                return bare[: -len(name)].strip()
        return bare
    inches = value.si / unit.factor if unit.symbol == "in" else 1.0
    if abs(inches) < SMALL and abs(inches * 16 - round(inches * 16)) > 0.06:
        return f"{inches:.3f}"  # a hole of 7 mm is no quarter inch
    return number_text(value.si, unit)


def described(value: Quantity, kind: Kind, system: str) -> str:
    """The quantity with its unit, for sentences and sheets."""
    words = shown(value, kind, system)
    return words if kind.named else with_unit(words, kind.shown_unit(system))
