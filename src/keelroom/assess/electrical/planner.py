"""Circuits planned by the tool: one for every motor that has none, and the mending of one that is there."""

from __future__ import annotations

from typing import Literal

from keelroom.assess.electrical.figures import RUNS, CircuitFigures, advice, electrics
from keelroom.assess.electrical.loads import Motored, motors_of
from keelroom.assess.electrical.system import Planned, fault_of, path_of, planned_circuits, wanted_switch
from keelroom.document.edits import Change, Edit, fresh_id
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Circuit, Control, Supply, Switch
from keelroom.document.schema.package import Package
from keelroom.errors import InputError


def _at(package: Package, circuit_id: str) -> tuple[str, ...]:
    return ("packages", package.id, "circuits", circuit_id)


def as_advised(
    circuit: Circuit, motors: tuple[Motored, ...], supply: Supply, staged: bool = False, wanted: Switch | Literal[""] = ""
) -> Circuit:
    """The circuit with the advised wire, fuse and relay; what no standard part can do stays as it is.

    staged : started one by one;  wanted : how its motors want to be switched
    """
    found = advice(Planned(circuit, motors, path_of(circuit, len(motors)), fault_of(circuit, supply), staged, wanted), supply)
    update: dict[str, object] = {"switch": found.switch, "fuse_form": found.form}
    if found.fuse:
        update["fuse"] = quantity(f"{found.fuse:g} A", "current", "derived")
    if found.relay:
        update["relay"] = quantity(f"{found.relay:g} A", "current", "derived")
    for run, size in zip(RUNS, found.sizes, strict=False):
        update[run] = getattr(circuit, run).model_copy(update={"size": quantity(size, "wire size", "derived")})
    if circuit.connector and found.connector and circuit.connector.si != found.connector:
        update["connector"] = quantity(f"{found.connector:g} A", "current", "derived")
    return circuit.model_copy(update=update)


def planned_for(motors: tuple[Motored, ...], ident: str, supply: Supply, control: Control) -> Circuit:
    """A circuit for these motors, as the tool would wire it under this control."""
    name = motors[0].name if len(motors) == 1 else "Both stages on one box"
    circuit = Circuit(id=ident, name=name, feeds=tuple(motored.id for motored in motors))
    return as_advised(circuit, motors, supply, wanted=wanted_switch(motors, control))


def _together(loose: tuple[Motored, ...], supply: Supply, control: Control) -> tuple[tuple[Motored, ...], ...]:
    """Which motors share a circuit: those merged on both contacts of one relay box where one is made for them, else each has its own."""
    fans = tuple(motored for motored in loose if motored.fan)
    alone = tuple((motored,) for motored in loose if not motored.fan)
    if len(fans) > 1 and wanted_switch(fans, control) == "parallel":
        tried = planned_for(fans, "tried", supply, control)
        found = advice(Planned(tried, fans, path_of(tried, len(fans)), fault_of(tried, supply), False, "parallel"), supply)
        if found.fuse and found.relay and found.sizes:
            return (fans, *alone)
    return (*((motored,) for motored in fans), *alone)


def plan_missing(build: Build, package: Package) -> Edit:
    """One circuit for every motor that has none. Raises InputError where all have one."""
    _, loose = planned_circuits(build, package)
    if not loose:
        raise InputError("all_planned", "Every motor has a circuit already")
    circuits = package.circuits
    shared = _together(loose, build.supply, package.control)
    for motors in shared:
        circuits = (*circuits, planned_for(motors, fresh_id(circuits, "circuit"), build.supply, package.control))
    count = "a circuit" if len(shared) == 1 else f"{len(shared)} circuits"
    return Edit(f"Plan {count}", (Change(("packages", package.id, "circuits"), circuits),))


def mended(package: Package, figures: CircuitFigures, supply: Supply) -> tuple[Change, ...]:
    """The changes that give a circuit the advised wire, fuse and relay; a drop measured on the old wire goes with it."""
    new = as_advised(
        figures.circuit.model_copy(update={"measured_drop": None}), figures.motors, supply, figures.staged, figures.planned.wanted
    )
    return tuple(
        Change((*_at(package, new.id), name), getattr(new, name))
        for name in ("fuse", "fuse_form", "relay", "switch", "connector", "measured_drop", *RUNS)
        if getattr(new, name) != getattr(figures.circuit, name)
    )


def mend_circuit(build: Build, package: Package, circuit_id: str) -> Edit:
    """Wire, fuse and relay of one circuit as advised. Raises InputError where it is gone or as advised already."""
    figures = next((one for one in electrics(build, package).circuits if one.circuit.id == circuit_id), None)
    if figures is None:
        raise InputError("no_such_circuit", "That circuit is no longer in the package")
    changes = mended(package, figures, build.supply)
    if not changes:
        raise InputError("already_mended", "Wire, fuse and relay are as advised already")
    return Edit(f"Wire, fuse and relay of {figures.circuit.name or circuit_id} as advised", changes)


def split_circuit(build: Build, package: Package, circuit_id: str) -> Edit:
    """One circuit per motor instead of one for all, each as advised. Raises InputError where it is gone or feeds one motor."""
    figures = next((one for one in electrics(build, package).circuits if one.circuit.id == circuit_id), None)
    if figures is None or len(figures.motors) < 2:
        raise InputError("nothing_to_split", "That circuit no longer feeds several motors")
    circuits: list[Circuit] = []
    for circuit in package.circuits:
        if circuit.id != circuit_id:
            circuits.append(circuit)
            continue
        for motored in figures.motors:
            ident = circuit_id if motored is figures.motors[0] else fresh_id((*package.circuits, *circuits), "circuit")
            own = circuit.model_copy(
                update={
                    "id": ident,
                    "name": motored.name,
                    "feeds": (motored.id,),
                    "shared_ground": False,
                    "switch": "relay",
                    "measured_drop": None,
                }
            )
            circuits.append(as_advised(own, (motored,), build.supply, wanted=wanted_switch((motored,), package.control)))
    return Edit("A circuit of its own for each motor", (Change(("packages", package.id, "circuits"), tuple(circuits)),))


def merge_stages(build: Build, package: Package) -> Edit:
    """One circuit for all the package's fans, on both contacts of one relay box. Raises InputError where no box is made for them."""
    fans = tuple(motored for motored in motors_of(build, package) if motored.fan)
    control = package.control
    if not fans or _together(fans, build.supply, control)[0] != fans:
        raise InputError("no_box", "No relay box, fuse or wire is made for all of them together: one circuit each")
    fed = {motored.id for motored in fans}
    others = tuple(
        circuit.model_copy(update={"feeds": tuple(ident for ident in circuit.feeds if ident not in fed)}) for circuit in package.circuits
    )
    others = tuple(circuit for circuit in others if circuit.feeds)
    made = planned_for(fans, fresh_id(others, "circuit"), build.supply, control)
    return Edit("Both stages on one relay box", (Change(("packages", package.id, "circuits"), (made, *others)),))


ALIKE = ("feed", "branch", "back")
"""Runs of wire whose sizes alike circuits share."""


def sized_alike(build: Build, package: Package) -> Edit:
    """Wire, fuse and relay of every circuit as those of the first that feeds the same: as many motors of the same watts. Lengths stay.

    Raises InputError where no two circuits are alike, or they are sized alike already.
    """
    first: dict[tuple[float, ...], Circuit] = {}
    changes: list[Change] = []
    alike = 0
    for figures in electrics(build, package).circuits:
        key = tuple(sorted(motored.motor.power for motored in figures.motors))
        circuit = figures.circuit
        if not key:
            continue
        model = first.setdefault(key, circuit)
        if model is circuit:
            continue
        alike += 1
        where = ("packages", package.id, "circuits", circuit.id)
        for run in ALIKE:
            size = getattr(model, run).size
            if size.si != getattr(circuit, run).size.si:
                changes.append(Change((*where, run, "size"), size))
        changes += [
            Change((*where, name), getattr(model, name))
            for name in ("fuse", "fuse_form", "relay")
            if getattr(model, name) != getattr(circuit, name)
        ]
    if not changes:
        raise InputError("sized_alike", "Alike circuits are sized alike already" if alike else "No two circuits feed alike motors")
    return Edit("Alike circuits sized alike", tuple(changes))
