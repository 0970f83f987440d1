"""Acts on whole packages: a copy beside one, one taken out, renamed, made active, and the car as it was found and as
it was mended."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.mended import well
from keelroom.document.edits import Change, Edit, fresh_id, fresh_name, set_value
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package, PackageKind
from keelroom.errors import InputError

AS_FOUND, DRIVEN, AS_MENDED = "As found", "As found: engine-driven fan", "As mended"


def _beside(build: Build, package: Package, kind: PackageKind, name: str, **update: object) -> Package:
    """A package made of another one, beside it."""
    taken = [one.name for one in build.packages]
    return package.model_copy(
        update={"id": fresh_id(build.packages, "p"), "name": fresh_name(taken, name), "kind": kind} | update
    )


def duplicated(build: Build, package: Package) -> Edit:
    """A planned copy of a package, which is active from then on; of the car as found, with what was found mended."""
    made = well(build, package).model_copy(
        update={"id": fresh_id(build.packages, "p"), "name": f"{package.name} (copy)", "kind": "planned"}
    )
    return Edit(f"Copy {package.name}", (Change(("packages",), (*build.packages, made)), Change(("active",), made.id)))


def without(build: Build, package: Package) -> Edit:
    """A package taken out; the one before it is active where it was. Raises InputError for the last one."""
    left = tuple(one for one in build.packages if one.id != package.id)
    if not left:
        raise InputError("last_package", "A build keeps at least one package")
    at = [one.id for one in build.packages].index(package.id)
    active = build.active if build.active != package.id else left[max(at - 1, 0)].id
    return Edit(f"Remove {package.name}", (Change(("active",), active), Change(("packages",), left)))


def as_found(build: Build, package: Package) -> Edit:
    """The car as it came: a copy of a package as it stands, kept beside what is planned. Raises InputError where
    there is one."""
    _none_yet(build, "as_found", "The car as found is among the packages already: delete that one first")
    return _added(build, _beside(build, package, "as_found", AS_FOUND), "Keep the car as found")


def as_mended(build: Build) -> Edit:
    """The car as found, to be put right: active from then on. Raises InputError where it was not kept, or is there
    already."""
    _none_yet(build, "as_mended", "The car as mended is among the packages already")
    found = build.of_kind("as_found")
    if found is None:
        raise InputError("not_found_yet", "Keep the car as found first: what is mended is mended on it")
    made = _beside(build, well(build, found), "as_mended", AS_MENDED)
    edit = _added(build, made, "Begin the car as mended")
    return Edit(edit.label, (*edit.changes, Change(("active",), made.id)))


def with_engine_fan(build: Build, package: Package) -> Edit:
    """The car as found where an engine-driven fan was what it had: a package with its electric fans off and a generic
    one on.

    A clutch fan of 0.9 of the face's height at most in the middle of it, in the same shroud; no circuits.
    """
    _none_yet(build, "as_found", "The car as found is among the packages already: delete that one first")
    core = package.core
    width, height = (v.si if v else 0.45 for v in (core.face_width, core.face_height))
    size = min(0.9 * height, 0.9 * width, 0.48)
    annulus = (size / 0.43) ** 3
    fan = Fan(
        id="fan1",
        name="Clutch fan",
        diameter=from_si(size, "length", "us", "assumed"),
        depth=quantity("5 in", "length"),
        hub_diameter=quantity("6 in", "length"),
        x=from_si(width / 2, "length", "us", "derived"),
        y=from_si(height / 2, "length", "us", "derived"),
        free_air_flow=from_si(1.9 * annulus, "airflow", "us", "assumed"),
        derate=quantity("100 %", "share"),
        motor="engine",
        blade="straight",
        drag=from_si(2200.0 * annulus * (size / 0.43) ** 2, "power", "us", "assumed"),
    )
    made = _beside(build, package, "as_found", DRIVEN, fans=(fan,), circuits=())
    return _added(build, made, "Add the package as found")


def _none_yet(build: Build, kind: PackageKind, refusal: str) -> None:
    if build.of_kind(kind) is not None:
        raise InputError("kind_taken", refusal)


def _added(build: Build, package: Package, label: str) -> Edit:
    return Edit(label, (Change(("packages",), (*build.packages, package)),))


def _named(do: Doing) -> Edit:
    name = do.given("name")
    return set_value((*do.where, "name"), name, f"Package: {name[:30]}")


KINDS = (
    ActKind(
        "copy_package",
        "A copy of a package beside it, to change",
        lambda do: duplicated(do.build, do.package),
        "Copy this package",
    ),
    ActKind(
        "remove_package",
        "A package taken out",
        lambda do: without(do.build, do.package),
        "Delete this package",
        cautions=("Undo brings it back until the program is left.",),
    ),
    ActKind("name_package", "A package under another name", _named),
    ActKind(
        "activate",
        "Another package active: all figures are then its own",
        lambda do: set_value(("active",), do.package.id, f"Package: {do.package.name}"),
        "Make it active",
    ),
    ActKind(
        "as_found",
        "The car as found kept beside what is planned: a copy of a package as it stands",
        lambda do: as_found(do.build, do.package),
        "Keep as the car as found",
    ),
    ActKind(
        "as_mended",
        "The car as found once more, to be put right",
        lambda do: as_mended(do.build),
        "Begin the car as mended",
    ),
    ActKind(
        "as_found_driven",
        "The car as found with a generic engine-driven fan",
        lambda do: with_engine_fan(do.build, do.package),
        "Add the package as found",
        rests_on=(("packages", "*", "core", "face_height"),),
    ),
)
