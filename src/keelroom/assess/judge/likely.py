"""Entries outside what such parts and cars measure: accepted, and asked about where they stand."""

from __future__ import annotations

from pydantic import BaseModel

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fixes import set_act
from keelroom.core.kept import by_identity_at
from keelroom.document.fields import Path, measured_fields
from keelroom.document.likely import Entry, improper, meant, unlikely
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import given

Looked = tuple[tuple[Entry, ...], tuple[tuple[Path, str, str, float], ...]]
"""what of a section is outside, and its fractions over a whole: path, label, as typed, SI"""
FARTHEST = 3
"""Entries named where something cannot be worked out."""


def likely(build: Build, package: Package, assessment: Assessment) -> Found:
    """Every entry of the build and the package that is outside, and every fraction over a whole."""
    read = {one.id for one in build.survey.second}
    found = [_looked_at(section, place) for place, section in _sections(build, package)]
    for entry in _farthest_first(found):
        if entry.path[0] == "survey" and ".".join(entry.path[1:]) in read:
            continue  # taken twice, and held against the first where it is compared
        kind = entry.spec.kind_name
        yield Finding(
            "unlikely",
            "doubt",
            entry.path,
            given(
                entry=entry.spec.label,
                typed=entry.value.words,
                low=(entry.likely[0], kind),
                high=(entry.likely[1], kind),
            ),
            fix=tuple(set_act(f"It is {text}", entry.path, text) for text in meant(entry)),
            value=entry.value.si,
        )
    for _, fractions in found:
        for path, label, text, si in fractions:
            yield Finding(
                "unlikely", "doubt", path, given(entry=label, typed=text, value=(si, "length")), form="fraction"
            )


def outside(build: Build, package: Package) -> tuple[Entry, ...]:
    """Entries outside what is likely, the farthest first."""
    return _farthest_first([_looked_at(section, place) for place, section in _sections(build, package)])


def farthest(build: Build, package: Package) -> tuple[str, ...]:
    """The entries farthest from likely, in words, for where something cannot be worked out."""
    return tuple(f"{entry.spec.label} {entry.value.words}" for entry in outside(build, package)[:FARTHEST])


def _sections(build: Build, package: Package) -> list[tuple[Path, BaseModel]]:
    """The sections an edit leaves untouched stay the same objects: what was found in them is kept."""
    found: list[tuple[Path, BaseModel]] = [(("survey",), build.survey), (("supply",), build.supply)]
    for name in type(build.brief).model_fields:
        section = getattr(build.brief, name)
        if isinstance(section, BaseModel):
            found.append((("brief", name), section))
    found += [(("duty_cases", case.id), case) for case in build.duty_cases]
    where = ("packages", package.id)
    for name in type(package).model_fields:
        section = getattr(package, name)
        if isinstance(section, tuple):
            found += [((*where, name, item.id), item) for item in section if hasattr(item, "id")]
        elif isinstance(section, BaseModel) and hasattr(type(section), "model_fields"):
            found.append(((*where, name), section))
    return found


@by_identity_at(256)
def _looked_at(section: BaseModel, place: Path) -> Looked:
    fractions = tuple(
        (path, spec.label, value.as_typed, value.si)
        for path, spec, value in measured_fields(section, place)
        if value is not None and spec.kind_name == "length" and improper(value)
    )
    return tuple(unlikely(section, place)), fractions


def _farthest_first(found: list[Looked]) -> tuple[Entry, ...]:
    return tuple(sorted((entry for entries, _ in found for entry in entries), key=lambda entry: -entry.astray))
