"""The act of fitting a wiring kit as sold: its fuse, relay, leads and sensor, whatever the fans would ask for."""

from __future__ import annotations

from keelroom.assess.acts.circuits import LOOKED, without
from keelroom.assess.acts.kind import HOUR, ActKind, Doing
from keelroom.assess.inputs.electrical.loads import Motored, motors_of
from keelroom.assess.safety import cautions
from keelroom.catalogue.load import WiringKit, kits
from keelroom.document.edits import Change, Edit, fresh_id
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Circuit
from keelroom.document.schema.package import Package
from keelroom.errors import InputError


def fit_kit(build: Build, package: Package, kit: WiringKit) -> Edit:
    """The package's fans on a kit as sold; circuits of other motors stay. Raises InputError where it has no fan the kit
    can switch, or more of them than the kit feeds."""
    fans = tuple(motored for motored in motors_of(build, package) if motored.fan)
    if not fans:
        raise InputError("no_fan", "The package has no electric fan for a kit to feed")
    if len(fans) > kit.fans:
        raise InputError("kit_small", f"This kit feeds {kit.fans} fan; the package has {len(fans)}")
    others = without(package.circuits, fans)
    for motors in tuple((one,) for one in fans) if kit.each else (fans,):
        others = (*others, _circuit(kit, motors, fresh_id((*package.circuits, *others), "circuit")))
    control = package.control.model_copy(update=kit.control)
    where = ("packages", package.id)
    return Edit(f"Kit: {kit.name}", (Change((*where, "circuits"), others), Change((*where, "control"), control)))


def _circuit(kit: WiringKit, motors: tuple[Motored, ...], ident: str) -> Circuit:
    usual = Circuit(id=ident, name=" and ".join(motored.name for motored in motors))
    runs = {run: getattr(usual, run).model_copy(update=kit.circuit[run]) for run in ("feed", "branch", "back")}
    update = {**kit.circuit, **runs, "feeds": tuple(motored.id for motored in motors), "kit": kit.name}
    return usual.model_copy(update=update)


def _fit(do: Doing) -> Edit:
    kit = next((one for one in kits() if one.name == do.given("name")), None)
    if kit is None:
        raise InputError("no_such_kit", f"No kit is called “{do.given('name')}”")
    return fit_kit(do.build, do.package, kit)


KINDS = (
    ActKind(
        "fit_kit",
        "A wiring kit as sold",
        _fit,
        "A kit as sold",
        hours=2 * HOUR,
        parts=("The kit",),
        cautions=cautions("wire"),
        before=("What its leads are marked and what colour each is, against its sheet",),
        after=("Leads left over insulated and tied back", *LOOKED),
        rests_on=(("packages", "*", "fans"),),
    ),
)
