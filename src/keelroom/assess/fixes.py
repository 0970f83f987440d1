"""From a finding's fix to the edit that does it."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from keelroom.assess.electrical.charge import larger_cable, protect_cable
from keelroom.assess.electrical.controller import usual_points
from keelroom.assess.electrical.cures import faster_idle, faster_pulley, larger_alternator
from keelroom.assess.electrical.loads import motors_of
from keelroom.assess.electrical.planner import mend_circuit, merge_stages, plan_missing, split_circuit
from keelroom.assess.fit.bracket_edits import bracket_for_move
from keelroom.assess.fit.panel_edits import closing, edges_of
from keelroom.assess.fit.shroud_plan import fans_edit, seat_edit
from keelroom.assess.loop.edits import add_filler, add_surge_tank, add_tee, plumb_heater, plumb_steam, renew_hose, usual_hoses_edit
from keelroom.assess.placing import face_size
from keelroom.core.findings import Fix
from keelroom.document.edits import Change, Edit, apply, in_our_words, removed, set_value
from keelroom.document.fields import owner_and_spec
from keelroom.document.quantity import from_si, typed
from keelroom.document.schema.build import Build
from keelroom.document.schema.moves import Move
from keelroom.document.schema.package import Fan, Package
from keelroom.errors import InputError

if TYPE_CHECKING:
    from keelroom.catalogue.load import FanAssembly


def edit_for(build: Build, fix: Fix, system: str = "us") -> Edit:
    """The edit a fix stands for. Raises InputError where the build has moved on and it no longer applies, or no field allows it."""
    with in_our_words():
        return _made(build, fix, system)


def _made(build: Build, fix: Fix, system: str) -> Edit:
    parameters = dict(fix.parameters)
    if fix.code in OF_BUILD:
        return OF_BUILD[fix.code](build, fix, parameters)
    package = next((p for p in build.packages if p.id == parameters["package"]), None)
    if package is None:
        raise InputError("no_such_package", "That package is no longer in the build")
    if fix.code in OF_PACKAGE:
        return OF_PACKAGE[fix.code](build, package, fix, system)
    fan = next((f for f in package.fans if f.id == parameters["fan"]), None)
    if fan is None:
        raise InputError("no_such_fan", "That fan is no longer in the package")
    return Edit(fix.label, (_onto_face if fix.code == "onto_face" else _fitting_fan)(package, fan, system))


def applies(build: Build, fix: Fix, system: str = "us") -> bool:
    """Whether the fix can be applied to this build and changes anything: what cannot be done, or is done already, is not offered."""
    try:
        return apply(build, edit_for(build, fix, system)) != build
    except InputError:
        return False


def _set(build: Build, fix: Fix, parameters: dict[str, str]) -> Edit:
    _, spec = owner_and_spec(build, fix.path)
    value = typed(parameters["text"], spec, "", "assumed") if spec else parameters["choice"]
    return set_value(fix.path, value, fix.label)


def _flag(build: Build, fix: Fix, parameters: dict[str, str]) -> Edit:
    return set_value(fix.path, bool(parameters["on"]), fix.label)


def _remove(build: Build, fix: Fix, parameters: dict[str, str]) -> Edit:
    *where, member = fix.path
    return removed(build, tuple(where), member, fix.label)


def _move_away(build: Build, fix: Fix, parameters: dict[str, str]) -> Edit:
    ident = parameters["obstacle"]
    if ident in build.package.moved:
        raise InputError("moved_already", "It is counted as moved already")
    return set_value(("packages", build.active, "moves"), (*build.package.moves, Move(id=ident)), fix.label)


def _close_edges(build: Build, package: Package, fix: Fix, system: str) -> Edit:
    return Edit(fix.label, closing(package, build.survey.air_holes, edges_of(fix)))


def _bracket_for(build: Build, package: Package, fix: Fix, system: str) -> Edit:
    bracket = bracket_for_move(build, package, dict(fix.parameters)["move"], system)
    return set_value(("packages", package.id, "brackets"), (*package.brackets, bracket), fix.label)


def _known_feeds(build: Build, package: Package, fix: Fix) -> Edit:
    ident = dict(fix.parameters)["circuit"]
    circuit = next((one for one in package.circuits if one.id == ident), None)
    if circuit is None:
        raise InputError("no_such_circuit", "That circuit is no longer in the package")
    known = {motored.id for motored in motors_of(build, package)}
    return set_value(("packages", package.id, "circuits", ident, "feeds"), tuple(one for one in circuit.feeds if one in known), fix.label)


def _no_trim(package: Package, fix: Fix) -> Edit:
    where = ("packages", package.id, "shroud")
    nothing = from_si(0.0, "length", "us", "assumed")
    return Edit(fix.label, tuple(Change((*where, f"trim_{side}"), nothing) for side in ("left", "right", "bottom", "top")))


def _at(package: Package, fan: Fan, x: float, y: float, system: str) -> tuple[Change, ...]:
    where = ("packages", package.id, "fans", fan.id)
    return tuple(Change((*where, axis), from_si(value, "length", system, "derived")) for axis, value in (("x", x), ("y", y)))


def spread_changes(package: Package, system: str) -> tuple[Change, ...]:
    """Fans side by side, evenly over the face, at half height."""
    width, height = face_size(package)
    count = len(package.fans)
    return tuple(
        change for i, fan in enumerate(package.fans) for change in _at(package, fan, width * (2 * i + 1) / (2 * count), height / 2, system)
    )


def _onto_face(package: Package, fan: Fan, system: str) -> tuple[Change, ...]:
    width, height = face_size(package)
    radius = fan.diameter.si / 2 if fan.diameter else 0.0
    x = min(max(fan.x.si, radius), max(width - radius, radius))
    y = min(max(fan.y.si, radius), max(height - radius, radius))
    return _at(package, fan, x, y, system)


def _fitting_fan(package: Package, fan: Fan, system: str) -> tuple[Change, ...]:
    """The strongest single catalogue fan that fits the face, centred where it has room."""
    width, height = face_size(package)

    from keelroom.catalogue.load import fan_assemblies  # only when a fan is to be changed: the parts slow the start

    def flow(assembly: FanAssembly) -> float:
        return assembly.fan.free_air_flow.si if assembly.fan.free_air_flow else 0.0

    fitting = [a for a in fan_assemblies() if a.count == 1 and a.fan.diameter and a.fan.diameter.si <= min(width, height)]
    if not fitting:
        raise InputError("no_fan_fits", "No catalogue fan is small enough for this face")
    best = max(fitting, key=flow)
    radius = best.fan.diameter.si / 2 if best.fan.diameter else 0.0
    x = min(max(fan.x.si, radius), width - radius)
    y = min(max(fan.y.si, radius), height - radius)
    new = best.fan.model_copy(update={"id": fan.id, "x": from_si(x, "length", system, "derived"), "y": from_si(y, "length", system, "derived"),
                                      "cost": from_si(best.cost, "money", system, "catalogue")})  # fmt: skip
    fans = tuple(new if f.id == fan.id else f for f in package.fans)
    return (Change(("packages", package.id, "fans"), fans),)


OF_BUILD: dict[str, Callable[[Build, Fix, dict[str, str]], Edit]] = {
    "set": _set,
    "choose": _set,
    "flag": _flag,
    "remove": _remove,
    "clear": lambda build, fix, parameters: set_value(fix.path, None, fix.label),
    "move_away": _move_away,
    "larger_alternator": lambda build, fix, parameters: larger_alternator(build, float(parameters["rating"])),
    "faster_pulley": lambda build, fix, parameters: faster_pulley(build, float(parameters["ratio"])),
    "faster_idle": lambda build, fix, parameters: faster_idle(build, float(parameters["rpm"])),
    "set_points": lambda build, fix, parameters: usual_points(build),
    "charge_cable": lambda build, fix, parameters: larger_cable(build),
    "charge_fuse": lambda build, fix, parameters: protect_cable(build),
}
OF_PACKAGE: dict[str, Callable[[Build, Package, Fix, str], Edit]] = {
    "plan_circuits": lambda build, package, fix, system: plan_missing(build, package),
    "mend_circuit": lambda build, package, fix, system: mend_circuit(build, package, dict(fix.parameters)["circuit"]),
    "split_circuit": lambda build, package, fix, system: split_circuit(build, package, dict(fix.parameters)["circuit"]),
    "merge_stages": lambda build, package, fix, system: merge_stages(build, package),
    "known_feeds": lambda build, package, fix, system: _known_feeds(build, package, fix),
    "clear_trims": lambda build, package, fix, system: _no_trim(package, fix),
    "close_edges": _close_edges,
    "bracket_for": _bracket_for,
    "seat_shroud": lambda build, package, fix, system: seat_edit(package, system),
    "fans_to_rings": lambda build, package, fix, system: fans_edit(package, system),
    "usual_hoses": lambda build, package, fix, system: usual_hoses_edit(build, package, fix.label),
    "add_surge_tank": lambda build, package, fix, system: add_surge_tank(build, package, fix.label),
    "add_filler": lambda build, package, fix, system: add_filler(build, package, fix.label, dict(fix.parameters)["at"]),
    "add_tee": lambda build, package, fix, system: add_tee(build, package, fix),
    "plumb_steam": lambda build, package, fix, system: plumb_steam(build, package, fix),
    "plumb_heater": lambda build, package, fix, system: plumb_heater(build, package, fix),
    "renew_hose": lambda build, package, fix, system: renew_hose(package, fix),
    "spread": lambda build, package, fix, system: Edit(fix.label, spread_changes(package, system)),
}
