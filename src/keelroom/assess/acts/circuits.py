"""Acts on circuits: planned for what has none, wired as advised, split, merged, sized alike, added."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.electrical.figures import CircuitFigures, electrics
from keelroom.assess.electrical.planner import as_advised, mended, planned_for, reaching, together
from keelroom.assess.inputs.electrical.loads import Motored, motors_of
from keelroom.assess.inputs.electrical.system import planned_circuits, wanted_switch
from keelroom.assess.judge.circuits import circuits as judged_circuits
from keelroom.assess.safety import cautions
from keelroom.document.edits import Change, Edit, added, apply, fresh_id, set_value
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Circuit, Load, Source
from keelroom.document.schema.package import Package
from keelroom.errors import InputError


def plan_missing(build: Build, package: Package) -> Edit:
    """One circuit for every motor that has none. Raises InputError where all have one."""
    _, loose = planned_circuits(build, package)
    if not loose:
        raise InputError("all_planned", "Every motor has a circuit already")
    circuits = package.circuits
    shared = together(loose, build.supply, package.control)
    for motors in shared:
        circuits = (
            *circuits,
            planned_for(motors, fresh_id(circuits, "circuit"), build.supply, package.control, package),
        )
    count = "a circuit" if len(shared) == 1 else f"{len(shared)} circuits"
    return Edit(f"Plan {count}", (Change(("packages", package.id, "circuits"), circuits),))


def _figures(build: Build, package: Package, circuit_id: str) -> CircuitFigures | None:
    return next((one for one in electrics(build, package).circuits if one.circuit.id == circuit_id), None)


def mend_circuit(build: Build, package: Package, circuit_id: str) -> Edit:
    """Wire, fuse and relay of one circuit as advised. Raises InputError where it is gone or as advised already."""
    figures = _figures(build, package, circuit_id)
    if figures is None:
        raise InputError("no_such_circuit", "That circuit is no longer in the package")
    changes = mended(package, figures, build.supply)
    if not changes:
        raise InputError("already_mended", "Wire, fuse and relay are as advised already")
    return Edit(f"Wire, fuse and relay of {figures.circuit.name or circuit_id} as advised", changes)


def split_circuit(build: Build, package: Package, circuit_id: str) -> Edit:
    """One circuit per motor instead of one for all, each as advised. Raises InputError where it is gone or feeds one
    motor."""
    figures = _figures(build, package, circuit_id)
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
            placed = reaching(package, own, (motored,))
            circuits.append(
                as_advised(placed, (motored,), build.supply, wanted=wanted_switch((motored,), package.control))
            )
    return Edit("A circuit of its own for each motor", (Change(("packages", package.id, "circuits"), tuple(circuits)),))


def merge_stages(build: Build, package: Package) -> Edit:
    """One circuit for all the package's fans, on both contacts of one relay box. Raises InputError where no box is
    made for them."""
    fans = tuple(motored for motored in motors_of(build, package) if motored.fan)
    control = package.control
    if not fans or together(fans, build.supply, control)[0] != fans:
        raise InputError("no_box", "No relay box, fuse or wire is made for all of them together: one circuit each")
    others = without(package.circuits, fans)
    made = planned_for(fans, fresh_id(others, "circuit"), build.supply, control, package)
    return Edit("Both stages on one relay box", (Change(("packages", package.id, "circuits"), (made, *others)),))


def without(circuits: tuple[Circuit, ...], motors: tuple[Motored, ...]) -> tuple[Circuit, ...]:
    """The circuits that feed something else than these motors, and only that."""
    gone = {motored.id for motored in motors}
    left = tuple(
        circuit.model_copy(update={"feeds": tuple(ident for ident in circuit.feeds if ident not in gone)})
        for circuit in circuits
    )
    return tuple(circuit for circuit in left if circuit.feeds)


ALIKE = ("feed", "branch", "back")
"""Runs of wire whose sizes alike circuits share."""


def sized_alike(build: Build, package: Package) -> Edit:
    """Wire, fuse and relay of every circuit as those of the first that feeds the same: as many motors of the same
    watts. Lengths stay.

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
        raise InputError(
            "sized_alike", "Alike circuits are sized alike already" if alike else "No two circuits feed alike motors"
        )
    return Edit("Alike circuits sized alike", tuple(changes))


def _circuit(do: Doing) -> Circuit:
    found = next((one for one in do.package.circuits if one.id == do.given("circuit")), None)
    if found is None:
        raise InputError("no_such_circuit", "That circuit is no longer in the package")
    return found


def _known_feeds(do: Doing) -> Edit:
    circuit = _circuit(do)
    known = {motored.id for motored in motors_of(do.build, do.package)}
    return set_value(
        (*do.where, "circuits", circuit.id, "feeds"), tuple(one for one in circuit.feeds if one in known), do.act.label
    )


def _switched(do: Doing) -> Edit:
    """Another switch, and the wire, fuse and rating that go with it: a fuse ahead of a smaller contact is none."""
    circuit = _circuit(do)
    where = (*do.where, "circuits", circuit.id)
    chosen = set_value((*where, "switch"), do.given("switch"), do.act.label)
    package = apply(do.build, chosen).with_id(do.package.id)
    figures = _figures(do.build, package, circuit.id)
    return Edit(do.act.label, (*chosen.changes, *(mended(package, figures, do.build.supply) if figures else ())))


def still_carried(build: Build, package_id: str, edit: Edit) -> Edit:
    """An edit of what circuits feed, with each circuit it would be too much for wired as advised, or split where that
    is not enough; what was wrong before is left to its own finding."""
    done, more = apply(build, edit), list(edit.changes)
    known = _wrong(build, package_id)

    def worse(tried: Build) -> set[str]:
        return {ident for ident, _ in _wrong(tried, package_id) - known}

    for ident in sorted(worse(done)):
        ways = [_tried(way, done, package_id, ident) for way in (mend_circuit, split_circuit)]
        cures = [way for way in ways if way and ident not in worse(way[1])]
        for way in (cures or list(filter(None, ways)))[:1]:
            more += way[0].changes
            done = way[1]
    return replace(edit, changes=tuple(more))


def _tried(
    way: Callable[[Build, Package, str], Edit], build: Build, package_id: str, ident: str
) -> tuple[Edit, Build] | None:
    """A way to mend a circuit, with the build it makes; None where it cannot be done."""
    try:
        edit = way(build, build.with_id(package_id), ident)
        return edit, apply(build, edit)
    except InputError:
        return None


def _wrong(build: Build, package_id: str) -> set[tuple[str, str]]:
    """Circuits by id with the code of each problem they have."""
    package = build.with_id(package_id)
    found = judged_circuits(build, package, electrics(build, package))
    return {(one.where[3], one.code) for one in found if one.level == "problem" and one.where[2:3] == ("circuits",)}


def _tied_to_battery(do: Doing) -> Edit:
    """The circuit on the battery post alone; what else it is made of stays."""
    battery, where = "battery", (*do.where, "circuits", do.given("circuit"), "sources")
    if all(source.id != battery for source in do.build.supply.sources):
        raise InputError("no_battery", "The build has no battery post among its sources")
    return set_value(where, (battery,), do.act.label)


def _within_drop(do: Doing) -> Edit:
    """Every circuit that loses more than its limit as advised."""
    over = [
        one
        for one in electrics(do.build, do.package).circuits
        if one.motors and one.drop > do.build.supply.drop_limit.si
    ]
    changes = tuple(change for figures in over for change in mended(do.package, figures, do.build.supply))
    if not changes:
        raise InputError("within_drop", "No circuit loses more than its limit")
    return Edit(do.act.label, changes)


def _add(do: Doing) -> Edit:
    ident = fresh_id(do.package.circuits, "circuit")
    circuit = Circuit(id=ident, name=f"Circuit {ident.removeprefix('circuit')}")
    return added(do.build, (*do.where, "circuits"), circuit, "Add a circuit")


def _add_source(do: Doing) -> Edit:
    source = Source(id=fresh_id(do.build.supply.sources, "source"), name="Another source")
    return added(do.build, ("supply", "sources"), source, "Add a source")


def _add_load(do: Doing) -> Edit:
    load = Load(id=fresh_id(do.build.supply.loads, "load"), name="Another load")
    return added(do.build, ("supply", "loads"), load, "Add a load")


LIVE = cautions("wire")
LOOKED = (
    "The motor’s volts with a meter, running: no more lost than planned",
    "Fuse, relay and joints by hand after ten minutes: warm, not hot",
)
AMPS = (("packages", "*", "fans"), ("supply", "drop_limit"))
KINDS = (
    ActKind(
        "plan_circuits",
        "A circuit, as advised, for every motor that has none",
        lambda do: plan_missing(do.build, do.package),
        "Plan a circuit for each",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind(
        "mend_circuit",
        "Wire, fuse and relay of a circuit as advised",
        lambda do: mend_circuit(do.build, do.package, do.given("circuit")),
        "Wire, fuse and relay as advised",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind(
        "split_circuit",
        "One circuit for each motor instead of one for all",
        lambda do: split_circuit(do.build, do.package, do.given("circuit")),
        "A circuit of its own for each motor",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind(
        "merge_stages",
        "One circuit for all the fans, on both contacts of one relay box",
        lambda do: merge_stages(do.build, do.package),
        "One circuit on both contacts",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind(
        "sized_alike",
        "Circuits that feed the same are sized the same",
        lambda do: sized_alike(do.build, do.package),
        "Size alike circuits alike",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind(
        "switch_circuit",
        "A circuit switched another way, its wire, fuse and rating with it",
        _switched,
        "Switched another way",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind(
        "tie_to_battery",
        "A circuit fed from the battery post alone",
        _tied_to_battery,
        "Tied to the battery post",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind(
        "known_feeds",
        "A circuit feeds only what there is",
        _known_feeds,
        "Only what is there",
        rests_on=(("packages", "*", "fans"),),
    ),
    ActKind(
        "wire",
        "Every circuit that loses too much as advised",
        _within_drop,
        "Wire that keeps within its drop",
        cautions=LIVE,
        after=LOOKED,
        rests_on=AMPS,
    ),
    ActKind("add_circuit", "A circuit to describe", _add, "Add a circuit", first=""),
    ActKind("add_source", "A source to describe", _add_source, "Add a source", first=""),
    ActKind("add_load", "A load to describe", _add_load, "Add a load", first=""),
)
