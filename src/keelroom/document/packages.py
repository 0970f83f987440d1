"""Edits of whole packages: a copy beside one, one taken out, another name, another one active."""

from __future__ import annotations

from keelroom.document.edits import Change, Edit, added, fresh_id, set_value
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.errors import InputError


def _of(build: Build, ident: str) -> Package:
    return next(package for package in build.packages if package.id == ident)


def duplicated(build: Build, ident: str = "") -> Edit:
    """A copy of a package (the active one), which is active from then on."""
    package = _of(build, ident or build.active)
    fresh = fresh_id(build.packages, "p")
    edit = added(build, ("packages",), package.model_copy(update={"id": fresh, "name": f"{package.name} (copy)"}), f"Copy {package.name}")
    return Edit(edit.label, (*edit.changes, Change(("active",), fresh)))


def without(build: Build, ident: str) -> Edit:
    """A package taken out; the one before it is active where it was. Raises InputError for the last one."""
    left = tuple(package for package in build.packages if package.id != ident)
    if not left:
        raise InputError("last_package", "A build keeps at least one package")
    at = [package.id for package in build.packages].index(ident)
    active = build.active if build.active != ident else left[max(at - 1, 0)].id
    return Edit(f"Remove {_of(build, ident).name}", (Change(("active",), active), Change(("packages",), left)))


def named(build: Build, ident: str, name: str) -> Edit:
    """A package under another name."""
    return set_value(("packages", ident, "name"), name, f"Package: {name[:30]}")


def activated(build: Build, ident: str) -> Edit:
    """Another package active: all figures are then its own."""
    return set_value(("active",), ident, f"Package: {_of(build, ident).name}")
