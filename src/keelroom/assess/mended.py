"""A cause that was found: entered with what stood before, put back when it is mended, and left out of what is planned.

The entries of the car are those of the car as it is. Of them those that belong to all packages, ignition, belt, volts,
weather and brakes, are not what a planned package will be driven with: that is judged on the car as mended.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from keelroom.assess.causes import checked
from keelroom.assess.faults import Fault, mends
from keelroom.core.kept import by_identity
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.fields import get
from keelroom.document.schema.brief import CauseCheck, Stood
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

SHARED = ("brief", "supply")
"""Where entries stand that belong to all packages."""


def as_found(build: Build) -> Package | None:
    """The package what was seen is said of: the car as found, else the one in use."""
    return build.of_kind("as_found") or (build.package if build.active else None)


def check_of(build: Build, fault: Fault) -> CauseCheck:
    """A cause that was found, with the entries its fault changes as they stand. A list of parts is not among them: who
    mends it takes out what was put in, and leaves what came since."""
    there = ((change.path, get(build, change.path)) for change in fault.changes)
    stood = tuple(Stood(path=path, value=value) for path, value in there if not isinstance(value, tuple))
    return CauseCheck(id=fault.cause, state="found", size=fault.size, stood=stood)


def mending(build: Build, package: Package | None, cause: str) -> tuple[Change, ...]:
    """The entries of a cause as they stand once it is mended: as they did before it was entered, or as all is well
    where nobody entered it here."""
    check = checked(build.brief, cause)
    back = tuple(_put_back(build, check.stood)) if check else ()
    paths = {change.path for change in back}
    well = mends(build, package, cause) if package else ()
    return (*back, *(change for change in well if change.path not in paths))


def well(build: Build, package: Package) -> Package:
    """A package with what was found of the car mended in it: what a copy of the car as found is planned from."""
    inside = ("packages", package.id)
    for check in entered(build):
        own = tuple(change for change in mending(build, package, check.id) if change.path[:2] == inside)
        build = apply(build, Edit("", own)) if own else build
    return build.with_id(package.id)


def _put_back(build: Build, stood: Iterable[Stood]) -> Iterator[Change]:
    """What stood before, where there is still such an entry."""
    for one in stood:
        try:
            now = get(build, one.path)
        except InputError:
            continue
        if now != one.value:
            yield Change(one.path, one.value)


def judged_on(build: Build, package: Package) -> Build:
    """The build a package is judged on: as it is for the car as found, with what was found mended for any other."""
    if not any(check.state == "found" for check in build.brief.causes) or as_found(build) is package:
        return build
    return _mended(build)


@by_identity(8)
def _mended(build: Build) -> Build:
    """The build with what was found of all packages mended; those of one package stay in it."""
    found = [check for check in build.brief.causes if check.state == "found"]
    shared = [one for check in found for one in check.stood if one.path[0] in SHARED]
    changes = tuple(_put_back(build, shared))
    rest = tuple(
        CauseCheck(id=check.id, state="mended", size=check.size) if check in found else check
        for check in build.brief.causes
    )
    try:
        return apply(build, Edit("", (*changes, Change(("brief", "causes"), rest))))
    except InputError:
        return build


def entered(build: Build) -> tuple[CauseCheck, ...]:
    """Causes that were found and are entered."""
    return tuple(check for check in build.brief.causes if check.state == "found")
