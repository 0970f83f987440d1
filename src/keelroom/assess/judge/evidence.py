"""The level follows the evidence: what hangs on nothing but assumed entries is a question that names what would settle
it, never a problem."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import BaseModel

from keelroom.assess.findings import Finding
from keelroom.core.kept import by_identity
from keelroom.document.fields import get, measured_fields, owner_and_spec
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.errors import InputError

Path = tuple[str, ...]
GUESSED = ("assumed", "derived")
CHARGED = ("supply.charge_wire.size", "brief.accessories.alternator_rating")
HANGS_ON: dict[str, tuple[str, ...]] = {
    "alternator_short": ("brief.accessories.alternator_rating", "brief.accessories.idle_voltage"),
    "battery_down": ("brief.accessories.alternator_rating", "brief.accessories.idle_voltage"),
    "over_speed": ("supply.pulley_ratio", "supply.redline"),
    "charge_cable_hot": CHARGED,
    "charge_cable": CHARGED,
    "charge_place": ("supply.charge_wire.ambient", "supply.charge_wire.size"),
}
"""Codes that hang on fewer entries than they rest on: an engine's idle speed by the catalogue is no evidence of its
alternator."""

DECIDED = {
    "cut_checks",
    "panel_fault",
    "slot_long",
    "opening_crosses",
    "opening_corners",
    "pump_curve",
    "fan_curve",
}
"""Codes of what was decided, or belies itself whatever anybody measures."""


def weighed(build: Build, finding: Finding) -> Finding:
    """The finding as it stands by its evidence."""
    if finding.level != "problem" or finding.code in DECIDED:
        return finding
    paths = tuple(tuple(words.split(".")) for words in HANGS_ON.get(finding.code, ())) or finding.rests_on
    told: dict[str, None] = {}
    for path in paths:
        for label, origin in _measures(build, path):
            if origin not in GUESSED:
                return finding
            told[label] = None
    return finding._replace(level="doubt", assumed=tuple(told)) if told else finding


def _measures(build: Build, path: Path) -> Iterator[tuple[str, str]]:
    """Label and origin of the entry at a path, or of every entry in the section there; a choice is as it was chosen."""
    try:
        value = get(build, path)
        if value is None:
            return
        if isinstance(value, Quantity):
            _, spec = owner_and_spec(build, path)
            yield (spec.label if spec else path[-1]), value.origin
            return
    except InputError:
        return
    if isinstance(value, str | bool):
        yield path[-1], "chosen"
        return
    yield from _all_in(value)


@by_identity(256)
def _all_in(section: object) -> tuple[tuple[str, str], ...]:
    """Label and origin of every entry of a section or a list: the same as long as nobody touches it."""
    return tuple(
        (spec.label, inner.origin)
        for part in (section if isinstance(section, tuple) else (section,))
        if isinstance(part, BaseModel)
        for _, spec, inner in measured_fields(part)
        if inner is not None
    )
