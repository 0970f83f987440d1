"""The electrical system at one duty case: voltage at the battery, volts and amps of every motor, the balance."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Literal, NamedTuple

from keelroom.assess.inputs.electrical.loads import Motored, motors_of
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.assess.inputs.gearing import belt_turns
from keelroom.assess.made import made_circuits
from keelroom.assess.outcome import Stopped, attempted
from keelroom.core.arrays import between
from keelroom.core.electrical.charging import (
    LOWEST,
    Alternator,
    Balance,
    Battery,
    alone,
    balance,
    battery_current,
    discharge_time,
    output,
)
from keelroom.core.electrical.circuit import Flow, Path, WireRun, flow_through
from keelroom.core.electrical.motor import Motor, current_at
from keelroom.core.electrical.protection import CONTACT, FUSE_LOSS, TERMINAL
from keelroom.core.electrical.wire import conductor, resistance_at
from keelroom.core.kept import as_before, by_identity, by_identity_at, by_value, one_of_equals
from keelroom.document.schema.brief import Accessories, Engine
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import EACH, UNRELAYED, Circuit, Control, Supply, Switch, Wire
from keelroom.document.schema.package import Package
from keelroom.errors import SolveError
from keelroom.gauges import is_metric

ASSUMED_DROP = 0.3
"""Volts lost on the way to a motor no circuit is planned for (common practice)."""
LOAD_VOLTAGE = 13.5
"""Volts the other loads' watts are stated at."""
SLOW = 1500.0
"""Engine rpm under which the voltage measured at idle counts."""
NEARLY_FLAT = 11.8
"""Volts of a 12 V battery under load below which it is nearly flat, whatever state was entered (common practice)."""
TABLE = (8.0, 11.0, 12.0, 12.6, 13.2, 13.8, 14.4, 15.2)
"""Volts per 12 V battery at which the circuits' current is worked out while the balance is sought."""


def alternator_of(accessories: Accessories, engine: Engine, supply: Supply) -> Alternator | None:
    """The alternator in core terms; None where its rating is not known."""
    idle = engine.idle_rpm
    if accessories.alternator_rating is None:
        return None
    share = accessories.alternator_idle_share
    return Alternator(
        rating=accessories.alternator_rating.si,
        ratio=supply.pulley_ratio.si,
        air=supply.alternator_air.si,
        regulated=supply.regulated.si,
        curve=tuple((point.speed.si * 60, point.current.si) for point in supply.curve),
        idle_share=share.si if share else None,
        known_at=(idle.si * 60 if idle else 700.0) * supply.pulley_ratio.si,
        dynamo=supply.charger == "generator",
        slip=belt_turns(supply),
    )


def cells_of(volts: float) -> float:
    """12 V batteries in line, by the volts a regulator holds or a source is named by: half a one in a 6 V car."""
    return 2.0 if volts > 20 else 0.5 if volts < 9 else 1.0


def battery_of(supply: Supply) -> Battery:
    """The battery in core terms."""
    return Battery(
        capacity=supply.capacity.si / 3600,
        state=supply.state.si,
        peukert=supply.peukert.si,
        reserve=supply.reserve.si if supply.reserve else None,
        cells=cells_of(supply.regulated.si),
    )


def run_of(wire: Wire) -> WireRun:
    """A run of wire in core terms."""
    copper = conductor(wire.size.si, is_metric(wire.size.unit), wire.cable)
    return WireRun(copper, wire.length.si, wire.ambient.si, int(wire.bundle.si))


def contacts_of(circuit: Circuit, motors: int) -> float:
    """Ohms of fuse, relay and terminals, as the current of all motors sees them: what each has to itself stands side
    by side."""
    fuse = FUSE_LOSS / circuit.fuse.si if circuit.fuse else 0.0
    contact = 0.0 if circuit.switch in UNRELAYED else CONTACT / {"relays": motors, "parallel": 2}.get(circuit.switch, 1)
    plugs = 2 * TERMINAL / motors if circuit.connector else 0.0
    ground = TERMINAL / circuit.grounds.si / (1 if circuit.shared_ground else motors)
    return fuse + contact + plugs + ground + _lead(circuit)


def lead_of(circuit: Circuit) -> WireRun | None:
    """The controller's own leads as a run of wire; None where nothing switches by a box, or it has none."""
    if circuit.switch != "controller" or circuit.lead_length is None or circuit.lead_size is None:
        return None
    copper = conductor(circuit.lead_size.si, is_metric(circuit.lead_size.unit), circuit.feed.cable)
    return WireRun(copper, circuit.lead_length.si, circuit.relay_air.si)


def _lead(circuit: Circuit) -> float:
    """Ohms of the controller's own leads, in and out."""
    lead = lead_of(circuit)
    return 2 * lead.length * resistance_at(lead.wire, lead.ambient) if lead else 0.0


def path_of(circuit: Circuit, motors: int) -> Path:
    """What the current of a circuit with so many motors goes through, in core terms."""
    fixed = circuit.measured_drop.si if circuit.measured_drop else None
    return Path(
        run_of(circuit.feed),
        run_of(circuit.branch),
        run_of(circuit.back),
        circuit.shared_ground,
        contacts_of(circuit, max(motors, 1)),
        fixed,
    )


def fault_of(circuit: Circuit, supply: Supply) -> str:
    """Why no current flows at all: 'source' (tied to none, or to unlike ones), 'return'; '' where it does."""
    known = {source.id: source.voltage.si for source in supply.sources}
    tied = [known[name] for name in circuit.sources if name in known]
    if not tied or max(tied) - min(tied) > 0.5:
        return "source"
    return "return" if circuit.ground == "none" else ""


class Planned(NamedTuple):
    """A circuit with what it really feeds. fault: why no current flows, '' where it does; staged: its motors start
    one after the other;
    wanted: how its motors and the control want it switched, '' where any relay will do."""

    circuit: Circuit
    motors: tuple[Motored, ...]
    path: Path
    fault: str
    staged: bool = False
    wanted: Switch | Literal[""] = ""


def wanted_switch(motors: tuple[Motored, ...], control: Control) -> Switch | Literal[""]:
    """How these motors want to be switched under this control: by their own electronics, a box, both contacts of one
    relay box, or '' any relay.

    A motor of two leads with electronics inside it is not chopped by a box: it stays on a relay, and is found wanting
    there.
    """
    fans = [motored for motored in motors if motored.fan]
    if not fans:
        return ""
    if all(motored.controller == "inside" for motored in fans):
        return "own"
    if any(motored.controller == "beside" for motored in fans):
        return "controller"
    if way_of(control).varies and not any(motored.motor.brushless for motored in fans):
        return "controller"
    return "parallel" if way_of(control).staged and control.low_speed == "merged" else ""


Circuits = tuple[tuple[Planned, ...], tuple[Motored, ...]]
"""Every circuit with its motors, and the motors no circuit feeds."""


def planned_circuits(build: Build, package: Package) -> Circuits:
    """Every circuit with its motors, and the motors no circuit feeds."""
    return _planned(package.circuits, build.supply, motors_of(build, package), package.control, stands_wired(package))


def stands_wired(package: Package) -> bool:
    """Whether it is a car as it stands with its circuits entered, not a plan: what none of them feeds does not turn."""
    return package.kind != "planned" and bool(package.circuits)


@by_identity(64)
def _planned(
    circuits: tuple[Circuit, ...], supply: Supply, motors: tuple[Motored, ...], control: Control, stands: bool
) -> Circuits:
    """stands : as `stands_wired` says"""
    one_by_one = way_of(control).staged and control.low_speed == "one_fan"
    left = list(motors)
    found = []
    for circuit in circuits:
        own = tuple(motored for motored in left if motored.id in circuit.feeds)
        left = [motored for motored in left if motored not in own]
        found.append(_plan(circuit, supply, one_by_one and circuit.switch in EACH, wanted_switch(own, control), *own))
    return one_of_equals((tuple(found), tuple(motored._replace(runs=motored.runs and not stands) for motored in left)))


@by_identity(1024)
def _plan(circuit: Circuit, supply: Supply, staged: bool, wanted: Switch | Literal[""], *own: Motored) -> Planned:
    """One circuit; the same object, with all that is kept of it, while only others change."""
    return Planned(circuit, own, path_of(circuit, len(own)), fault_of(circuit, supply), staged, wanted)


Currents = tuple[tuple[float, ...], tuple[float, ...]]
"""Volts, and the amps of all motors at them."""


class At(NamedTuple):
    """What an electrical system hangs on besides its build: engine speed [rpm], A/C on, moving."""

    rpm: float
    ac: bool
    moving: bool


class System(NamedTuple):
    """The system with everything of a duty case on.

    balance : at the battery;  flows : of each planned circuit, in order;  volts, amps : of each motor by id while it
              runs
    loads : (name, A) of everything, motors by circuit;  measured : the battery's voltage was measured, not worked out
    watts : of all loads but the cooling fans;  fan_amps : of the cooling fans, running
    belt : share of its speed the belt turns what hangs on it
    modelled : amps the alternator could give by its rating and speed; where the voltage is measured,
               balance.available is what it
        must be giving for that
    """

    balance: Balance
    flows: tuple[Flow, ...]
    volts: dict[str, float]
    amps: dict[str, float]
    loads: tuple[tuple[str, float], ...]
    measured: bool
    watts: float
    fan_amps: float
    modelled: float
    belt: float

    @property
    def short(self) -> float:
        """Amps the battery makes up with everything on and the fans running; 0 where it makes up none."""
        return max(-self.balance.battery, 0.0)


def system_at(build: Build, package: Package, at: At) -> System:
    """The electrical system of a package in any state, fans running: its balance, and what the battery gives or takes
    then."""
    try:
        return _system_of(build, _planned_alike(build, package), at)
    except SolveError:
        # Worked out whatever its circuits are called; which one cannot be is said by its name.
        return _system_of(build, planned_circuits(build, package), at)


def _planned_alike(build: Build, package: Package) -> Circuits:
    """The circuits without their names: the very ones while only those change."""
    made = made_circuits(package.circuits)
    return _planned(made, build.supply, motors_of(build, package), package.control, stands_wired(package))


def _system_of(build: Build, planned: Circuits, at: At) -> System:
    table = _current_table(planned, build.supply)
    return _system(build.brief.accessories, build.brief.engine, build.supply, planned, table, at)


@by_identity(64)
def _current_table(planned: Circuits, supply: Supply) -> Currents:
    volts = tuple(v * battery_of(supply).cells for v in TABLE)
    return volts, tuple(
        sum(sum(flow.currents) for flow in flows_at(planned[0], v)) + _loose(planned[1], v) for v in volts
    )


@by_identity(64)
def _still_table(planned: Circuits, supply: Supply) -> Currents:
    """The same with the cooling fans at rest."""
    volts, whole = _current_table(planned, supply)
    circuits, loose = planned
    off = []
    for volt in volts:
        flows = zip(circuits, flows_at(circuits, volt), strict=True)
        fans = sum(
            amps for one, flow in flows for motored, amps in zip(one.motors, flow.currents, strict=True) if motored.fan
        )
        off.append(fans + _loose(tuple(motored for motored in loose if motored.fan), volt))
    return volts, tuple(max(every - fan, 0.0) for every, fan in zip(whole, off, strict=True))


@by_identity_at(512)
def flows_at(circuits: tuple[Planned, ...], voltage: float) -> tuple[Flow, ...]:
    """Every circuit at a voltage of the source; several duty cases share one."""
    return tuple(flow_at(planned, voltage) for planned in circuits)


def flow_at(planned: Planned, voltage: float) -> Flow:
    """One circuit; nothing flows where it has a fault, and none in a motor that does not run. Raises SolveError that
    names it where it cannot be
    worked out: what hangs on its motors cannot be either."""
    running = [motored.runs for motored in planned.motors]
    motors = tuple(motored.motor for motored in planned.motors if motored.runs)
    found = attempted(
        f"the circuit “{planned.circuit.name or planned.circuit.id}”",
        (),
        lambda: _flow(planned.path, motors, voltage),
    )
    if isinstance(found, Stopped):
        raise SolveError("circuit", found.sentence, circuit=planned.circuit.id)
    flow = found
    if planned.fault:
        return flow._replace(voltages=(0.0,) * len(running), currents=(0.0,) * len(running))
    volts, amps = iter(flow.voltages), iter(flow.currents)
    voltages = tuple(next(volts) if runs else voltage for runs in running)
    return flow._replace(voltages=voltages, currents=tuple(next(amps) if runs else 0.0 for runs in running))


@by_value(1024)
def _flow(path: Path, motors: tuple[Motor, ...], voltage: float) -> Flow:
    """Found again by what a circuit is made of, whatever it is called."""
    return flow_through(path, motors, voltage)


def _loose(motors: tuple[Motored, ...], voltage: float) -> float:
    return sum(current_at(motored.motor, voltage - ASSUMED_DROP) for motored in motors if motored.runs)


Charging = tuple[Accessories, Engine, Supply]
"""Sections the charging side is made from."""


@by_identity_at(256)
def _system(
    accessories: Accessories, engine: Engine, supply: Supply, planned: Circuits, table: Currents, at: At
) -> System:
    return as_before("systems", at, _solved((accessories, engine, supply), planned, table, at))


def loads_on(supply: Supply, at: At) -> tuple[tuple[str, float], ...]:
    """(name, watts at LOAD_VOLTAGE) of the other loads that are on."""
    on = {"always": True, "with_ac": at.ac, "moving": at.moving, "standing": not at.moving}
    return tuple((load.name or load.id, load.power.si) for load in supply.loads if on[load.when])


def _wanted(supply: Supply, table: Currents, at: At) -> Callable[[float], float]:
    """Amps of everything that is on, the fans running, at a voltage of the system."""
    power = sum(watts for _, watts in loads_on(supply, at))
    nominal = LOAD_VOLTAGE * battery_of(supply).cells
    return lambda voltage: power * voltage / nominal**2 + between(voltage, *table)


def _solved(charging: Charging, planned: Circuits, table: Currents, at: At) -> System:
    accessories, engine, supply = charging
    alternator, battery = alternator_of(accessories, engine, supply), battery_of(supply)
    nominal = LOAD_VOLTAGE * battery.cells
    others, wanted = loads_on(supply, at), _wanted(supply, table, at)
    measured = accessories.idle_voltage if at.rpm < SLOW else accessories.road_voltage
    available = output(alternator, at.rpm) if alternator else math.inf
    if measured is not None:
        found = _as_measured(battery, measured.si, wanted(measured.si), available)
    else:
        found = balance(available, supply.regulated.si, battery, wanted)
    circuits, loose = planned
    flows = flows_at(circuits, found.voltage)
    volts = {
        m.id: v
        for planned_, flow in zip(circuits, flows, strict=True)
        for m, v in zip(planned_.motors, flow.voltages, strict=True)
    }
    amps_of = {
        m.id: a
        for planned_, flow in zip(circuits, flows, strict=True)
        for m, a in zip(planned_.motors, flow.currents, strict=True)
    }
    for motored in loose:
        volts[motored.id] = max(found.voltage - ASSUMED_DROP, 0.0) if motored.runs else 0.0
        amps_of[motored.id] = current_at(motored.motor, volts[motored.id]) if motored.runs else 0.0
    motors = [motored for planned_ in circuits for motored in planned_.motors] + list(loose)
    shown = [(motored.name, amps_of[motored.id]) for motored in motors]
    listed = [(name, watts * found.voltage / nominal**2) for name, watts in others]
    fan_amps = sum(amps_of[motored.id] for motored in motors if motored.fan)
    rest = sum(amps for _, amps in listed) + sum(amps_of[motored.id] for motored in motors if not motored.fan)
    total = rest + fan_amps
    found = found._replace(wanted=total)
    return System(
        found,
        flows,
        volts,
        amps_of,
        (*shown, *listed),
        measured is not None,
        rest * found.voltage,
        fan_amps,
        available,
        belt_turns(supply),
    )


class Key(NamedTuple):
    """How a system is looked at beside its situation: the battery's charge 0..1, the cooling fans running, the engine
    turning the alternator."""

    charge: float
    fans: bool
    alive: bool


def balance_at(build: Build, package: Package, at: At, key: Key) -> Balance:
    """The system's balance whatever stands in the build of its battery's charge; with the key off nothing draws but
    the fans that run on."""
    supply, planned = build.supply, _planned_alike(build, package)
    battery = battery_of(supply)._replace(state=key.charge)
    motors = _wanted(supply, _current_table(planned, supply), at)
    still = _wanted(supply, _still_table(planned, supply), at)

    def drawn(volts: float) -> float:
        rest = still(volts) if key.alive else 0.0
        return rest + (max(motors(volts) - still(volts), 0.0) if key.fans else 0.0)

    alternator = alternator_of(build.brief.accessories, build.brief.engine, supply)
    available = (output(alternator, at.rpm) if alternator else math.inf) if key.alive else 0.0
    return balance(available, supply.regulated.si, battery, drawn)


def held_alone(build: Build, package: Package, at: At) -> float:
    """Volts at which everything on takes what the alternator gives, the battery flat."""
    supply, table = build.supply, _current_table(_planned_alike(build, package), build.supply)
    ends = LOWEST * battery_of(supply).cells, supply.regulated.si
    return alone(system_at(build, package, at).modelled, ends, _wanted(supply, table, at))


def _as_measured(battery: Battery, voltage: float, wanted: float, modelled: float) -> Balance:
    """The balance a measured voltage tells: what the battery gives or takes at it, and what the alternator then must
    give.

    Under NEARLY_FLAT volts a battery is not in the state that was entered, and its line tells nothing: the alternator
    is taken as worked out, up to all that is wanted.
    """
    if voltage < NEARLY_FLAT * battery.cells:
        available = min(modelled, wanted)
        amps = available - wanted
    else:
        amps = battery_current(battery, voltage)
        available = max(wanted + amps, 0.0)
    return Balance(voltage, available, wanted, amps, discharge_time(battery, -amps))
