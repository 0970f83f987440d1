"""Circuits planned by the tool: one for every motor that has none, and the mending of one that is there."""

from __future__ import annotations

from typing import Literal

from keelroom.assess.electrical.figures import RUNS, CircuitFigures, advice
from keelroom.assess.inputs.electrical.loads import PUMP, Motored
from keelroom.assess.inputs.electrical.system import Planned, fault_of, path_of, wanted_switch
from keelroom.document.edits import Change
from keelroom.document.quantity import as_read, quantity
from keelroom.document.schema.electrical import Circuit, Control, Supply, Switch
from keelroom.document.schema.package import Package


def _at(package: Package, circuit_id: str) -> tuple[str, ...]:
    return ("packages", package.id, "circuits", circuit_id)


def as_advised(
    circuit: Circuit,
    motors: tuple[Motored, ...],
    supply: Supply,
    staged: bool = False,
    wanted: Switch | Literal[""] = "",
) -> Circuit:
    """The circuit with the advised wire, fuse and relay; what no standard part can do stays as it is.

    staged : started one by one;  wanted : how its motors want to be switched
    """
    found = advice(
        Planned(circuit, motors, path_of(circuit, len(motors)), fault_of(circuit, supply), staged, wanted), supply
    )
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


BAY = 0.9
"""[m] behind the core support that runs of usual length reach (common practice: the front of an engine bay)."""
LAID = 1.2
"""Times the distance a wire takes along rails and round corners (common practice)."""


def beyond_bay(package: Package, motors: tuple[Motored, ...]) -> float:
    """How much longer [m] a run to these motors is than one in the bay: by where core, coolers and pump stand."""
    pumps = [part.z.si for part in package.loop.parts if part.kind == "pump" and part.z is not None]
    places = {PUMP: max(pumps, default=0.0)}
    places |= {cooler.id: cooler.front.si for cooler in package.coolers if cooler.front is not None}
    places |= {fan.id: package.place.z.si for fan in package.fans}
    return LAID * max((places.get(motored.id, 0.0) - BAY for motored in motors), default=0.0)


def reaching(package: Package, circuit: Circuit, motors: tuple[Motored, ...]) -> Circuit:
    """The circuit with runs nobody measured made long enough for where its motors stand."""
    extra = beyond_bay(package, motors)
    if extra <= 0:
        return circuit
    usual = Circuit(id="usual")
    runs = ("branch", "back") if circuit.ground == "battery" else ("branch",)
    update = {}
    for run in runs:
        wire = getattr(circuit, run)
        longer = as_read(getattr(usual, run).length.si + extra, "length", "us", "assumed")
        if wire.length.origin == "assumed" and wire.length.si < longer.si:
            update[run] = wire.model_copy(update={"length": longer})
    return circuit.model_copy(update=update)


def planned_for(
    motors: tuple[Motored, ...], ident: str, supply: Supply, control: Control, package: Package | None = None
) -> Circuit:
    """A circuit for these motors, as the tool would wire it under this control, to where they stand in the package."""
    name = motors[0].name if len(motors) == 1 else "Both stages on one box"
    circuit = Circuit(id=ident, name=name, feeds=tuple(motored.id for motored in motors))
    if package is not None:
        circuit = reaching(package, circuit, motors)
    return as_advised(circuit, motors, supply, wanted=wanted_switch(motors, control))


def together(loose: tuple[Motored, ...], supply: Supply, control: Control) -> tuple[tuple[Motored, ...], ...]:
    """Which motors share a circuit: those merged on both contacts of one relay box where one is made for them, else
    each has its own."""
    fans = tuple(motored for motored in loose if motored.fan)
    alone = tuple((motored,) for motored in loose if not motored.fan)
    if len(fans) > 1 and wanted_switch(fans, control) == "parallel":
        tried = planned_for(fans, "tried", supply, control)
        found = advice(
            Planned(tried, fans, path_of(tried, len(fans)), fault_of(tried, supply), False, "parallel"), supply
        )
        if found.fuse and found.relay and found.sizes:
            return (fans, *alone)
    return (*((motored,) for motored in fans), *alone)


def mended(package: Package, figures: CircuitFigures, supply: Supply) -> tuple[Change, ...]:
    """The changes that give a circuit the advised wire, fuse and relay; a drop measured on the old wire goes with
    it."""
    new = as_advised(
        reaching(package, figures.circuit.model_copy(update={"measured_drop": None}), figures.motors),
        figures.motors,
        supply,
        figures.staged,
        figures.planned.wanted,
    )
    return tuple(
        Change((*_at(package, new.id), name), getattr(new, name))
        for name in ("fuse", "fuse_form", "relay", "switch", "connector", "measured_drop", *RUNS)
        if getattr(new, name) != getattr(figures.circuit, name)
    )
