"""Every circuit in figures: currents, volts, drop, warmth, and the wire, fuse and relay it ought to have."""

from __future__ import annotations

import math
from functools import partial
from typing import NamedTuple

from keelroom.assess.inputs.cases import idle_case, road_case
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.loads import Motored
from keelroom.assess.inputs.electrical.system import (
    Circuits,
    Planned,
    System,
    alternator_of,
    contacts_of,
    flow_at,
    planned_circuits,
    system_at,
)
from keelroom.assess.made import made_circuit
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.reads import reads, while_same
from keelroom.core.electrical.charging import Alternator
from keelroom.core.electrical.circuit import Flow, Path, WireRun, flow_through
from keelroom.core.electrical.motor import Motor, current_at, stall_current, start_current
from keelroom.core.electrical.protection import (
    CONTINUOUS,
    FORMS,
    FUSES,
    PARALLEL,
    RELAY_MAKES,
    RELAYS,
    Starting,
    connector_share,
    fuse_for,
    neighbours,
    relay_for,
    relay_share,
    stands,
    starting,
)
from keelroom.core.electrical.wire import ampacity, conductor
from keelroom.core.kept import as_before, by_identity, in_one_go, one_of_equals
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.electrical import EACH, RELAYED, UNRELAYED, Circuit, Supply
from keelroom.document.schema.package import Package
from keelroom.gauges import AWG_SIZES, METRIC_SIZES, awg_area, awg_text, is_metric, metric_text

RUNS = ("feed", "branch", "back")
RUN_NAMES = {"feed": "feed wire", "branch": "wire to the motor", "back": "return"}
CONNECTORS = (20.0, 30.0, 40.0, 60.0, 80.0, 100.0)
"""Ratings [A] of sealed two-way connectors on sale (common practice)."""
NARROW_RATING, NARROW_TERMINAL, WIDE_TERMINAL = 40.0, 6.1e-6, 13.5e-6
"""Relays and plugs up to so many amps have 1/4 in terminals, which take 10 AWG or 6 mm2 at most; larger ones 3/8 in,
6 AWG (common practice)."""
BOXES = (*RELAYS, 80.0, 100.0, 120.0)
"""Ratings [A] of controllers and modules on sale (common practice)."""
LEAST_LOSS = 0.1
"""Volts that terminals, relay and fuse lose however thick the wire."""


class Advice(NamedTuple):
    """What a circuit ought to have: size of each run as written (() where none will do), fuse [A] and its form, relay
    [A] each, how switched, connector [A] at each motor (None: it has none)."""

    sizes: tuple[str, ...]
    fuse: float | None
    form: str
    relay: float | None
    switch: str
    connector: float | None = None


class RunFigures(NamedTuple):
    """One run: amps it carries, its ampacity where it lies, the copper's temperature [degC], its insulation's limit."""

    key: str
    current: float
    ampacity: float
    warm: float
    limit: float


class CircuitFigures(NamedTuple):
    """One circuit at the voltage the regulator holds, all its motors running, unless said.

    continuous, starting, stalled [A]; begins: of that through one contact [A]; staged: its motors start one after the
    other
    at_idle, at_cruise: volts at its worst motor, source_idle, source_cruise: at the battery
    drop: volts there and back; worked: the same by its wires and contacts, whatever was measured; lost: by place;
          runs: its wires;  relay_holds, connector_holds [A] where they sit, None: none fitted
    stands: whether its fuse stands the start: 'yes', 'barely', 'no', '' without a fuse
    """

    circuit: Circuit
    motors: tuple[Motored, ...]
    fault: str
    continuous: float
    each: float
    starting: Starting
    begins: float
    staged: bool
    stalled: float
    at_idle: float
    at_cruise: float
    source_idle: float
    source_cruise: float
    drop: float
    worked: float
    lost: tuple[tuple[str, float], ...]
    runs: tuple[RunFigures, ...]
    relay_holds: float | None
    relay_makes: float | None
    through_relay: float
    connector_holds: float | None
    stands: str
    planned: Planned
    supply: Supply

    def suits(self, fuse: float) -> bool:
        """Whether a fuse [A] of its form runs on, stands the start and protects the weakest wire."""
        starts = stands(fuse, self.starting, self.circuit.fuse_form) != "no"
        return starts and CONTINUOUS * self.continuous - 1e-6 <= fuse <= self.weakest.ampacity + 0.05

    @property
    def advice(self) -> Advice:
        """What it ought to have: worked out when it is asked for."""
        return advice(self.planned, self.supply)

    @property
    def cools(self) -> bool:
        """Whether it feeds a cooling fan, and so is under the fans' control."""
        return any(motored.fan for motored in self.motors)

    @property
    def weakest(self) -> RunFigures:
        """The run whose copper may carry least."""
        return min(self.runs, key=lambda run: run.ampacity)


class Electrics(NamedTuple):
    """All circuits, the motors none of them feeds, and the system standing and moving; None where no duty case is
    such."""

    circuits: tuple[CircuitFigures, ...]
    loose: tuple[Motored, ...]
    idle: System | None
    cruise: System | None
    alternator: Alternator | None
    stopped: tuple[Stopped, ...] = ()
    """circuits, and the system standing or moving, that could not be worked out"""


READS = reads(
    "brief.accessories brief.climate brief.engine brief.vehicle build.duty_cases build.supply package.circuits "
    "package.control package.coolers package.fans package.kind package.loop"
)


@in_one_go
def electrics(build: Build, package: Package) -> Electrics:
    """The package's circuits in figures."""
    return while_same(
        "electrics", READS, (build, package), lambda: as_before("circuits", package.id, _electrics(build, package))
    )


def _electrics(build: Build, package: Package) -> Electrics:
    idle, road = idle_case(build.duty_cases), road_case(build.duty_cases)
    where = ("packages", package.id, "circuits")

    def system(name: str, case: DutyCase | None) -> System | Stopped | None:
        return (
            attempted(name, where, lambda: system_at(build, package, demand_of(build.brief, case).at)) if case else None
        )

    systems = [system("The electrical system standing", idle), system("The electrical system on the road", road)]
    at_idle, at_cruise = (None if isinstance(found, Stopped) else found for found in systems)
    alternator = alternator_of(build.brief.accessories, build.brief.engine, build.supply)
    found, loose = _circuits(build.supply, planned_circuits(build, package), at_idle, at_cruise)
    circuits = tuple(one for one in found if not isinstance(one, Stopped))
    stopped = [one._replace(where=(*where, *one.where)) for one in found if isinstance(one, Stopped)]
    stopped += [one for one in systems if isinstance(one, Stopped)]
    return Electrics(circuits, loose, at_idle, at_cruise, alternator, tuple(stopped))


@by_identity(32)
def _circuits(
    supply: Supply, planned: Circuits, idle: System | None, cruise: System | None
) -> tuple[tuple[CircuitFigures | Stopped, ...], tuple[Motored, ...]]:
    circuits, loose = planned
    systems = (idle, cruise)

    def figures(k: int, one: Planned) -> CircuitFigures | Stopped:
        return _figures(supply, one, flow_at(one, supply.regulated.si), [_place(system, k) for system in systems])

    named = [f"The circuit “{one.circuit.name or one.circuit.id}”" for one in circuits]
    found = (attempted(named[k], (one.circuit.id,), partial(figures, k, one)) for k, one in enumerate(circuits))
    return tuple(found), loose


def _place(system: System | None, k: int) -> tuple[float, float]:
    """Volts at a circuit's worst motor, and at the battery."""
    return (min(system.flows[k].voltages, default=0.0), system.balance.voltage) if system else (0.0, 0.0)


def _figures(supply: Supply, planned: Planned, full: Flow, volts: list[tuple[float, float]]) -> CircuitFigures:
    circuit, path = planned.circuit, planned.path
    each = max(full.currents, default=0.0)
    relays = max(len(planned.motors), 1) if circuit.switch in EACH else 1
    share = PARALLEL if circuit.switch == "parallel" else 1.0
    motors = tuple(motored.motor for motored in planned.motors)
    starts = [start_current(motor, at) for motor, at in zip(motors, full.voltages, strict=True)]
    start = start_of(motors, list(full.currents), starts, planned.staged)
    (at_idle, source_idle), (at_cruise, source_cruise) = volts
    rating = circuit.relay.si if circuit.relay and circuit.switch not in UNRELAYED else None
    return CircuitFigures(
        circuit=circuit,
        motors=planned.motors,
        fault=planned.fault,
        continuous=full.current,
        each=each,
        starting=start,
        begins=max(starts, default=0.0) if circuit.switch in EACH else start.current,
        staged=planned.staged,
        stalled=sum(stall_current(motored.motor, v) for motored, v in zip(planned.motors, full.voltages, strict=True)),
        at_idle=at_idle,
        at_cruise=at_cruise,
        source_idle=source_idle,
        source_cruise=source_cruise,
        drop=full.drop,
        worked=full.drop if path.fixed is None else worked_drop(planned, supply),
        lost=full.lost,
        runs=_runs(path, full, each, circuit.shared_ground),
        relay_holds=rating * share * relay_share(circuit.relay_air.si) if rating else None,
        relay_makes=rating * RELAY_MAKES if rating else None,
        through_relay=full.current / relays,
        connector_holds=circuit.connector.si * connector_share(circuit.branch.ambient.si)
        if circuit.connector
        else None,
        stands=stands(circuit.fuse.si, start, circuit.fuse_form) if circuit.fuse and planned.motors else "",
        planned=planned,
        supply=supply,
    )


def worked_drop(planned: Planned, supply: Supply) -> float:
    """Volts a circuit ought to lose by its wires and contacts."""
    return flow_through(
        planned.path._replace(fixed=None), tuple(m.motor for m in planned.motors if m.runs), supply.regulated.si
    ).drop


def start_of(motors: tuple[Motor, ...], amps: list[float], starts: list[float], staged: bool) -> Starting:
    """The worst start of a circuit: all its motors together, or where staged the worst of one while the others run.
    [A] of each"""
    if not staged or len(motors) < 2:
        return starting(motors, 0.0, tuple(starts))
    worst = max(range(len(motors)), key=lambda k: starts[k] - amps[k])
    return starting((motors[worst],), sum(amps) - amps[worst], (starts[worst],))


def _runs(path: Path, full: Flow, each: float, shared: bool) -> tuple[RunFigures, ...]:
    carried = {"feed": full.current, "branch": each, "back": full.current if shared else each}
    wires = {"feed": path.feed, "branch": path.branch, "back": path.back}
    return tuple(
        RunFigures(key, carried[key], ampacity(run.wire, run.ambient, run.loaded), warm, run.wire.limit)
        for (key, run), warm in zip(wires.items(), full.warm, strict=True)
    )


def own_relays(found: Electrics) -> bool:
    """Whether the cooling fans have relays or electronics of their own, as staging them wants."""
    fed = [one for one in found.circuits if one.cools]
    return len(fed) > 1 or any(one.circuit.switch in EACH for one in fed)


@by_identity(512)
def advice(planned: Planned, supply: Supply) -> Advice:
    """The smallest wire that meets drop and ampacity, the fuse that stands the start, the relay that carries it.

    Fuse and relay are chosen for the current at the least drop (brushless: at all that is allowed), so that they do not
    depend on the wire; the wire then for them.
    """
    return _advice(one_of_equals(planned._replace(circuit=made_circuit(planned.circuit))), supply)


@by_identity(512)
def _advice(planned: Planned, supply: Supply) -> Advice:
    """The same of a circuit whatever it is called."""
    circuit = planned.circuit
    motors = tuple(motored.motor for motored in planned.motors)
    many, volts = max(len(motors), 1), supply.regulated.si - LEAST_LOSS
    low = max(supply.regulated.si - supply.drop_limit.si, 1.0)
    amps = [current_at(motor, low if motor.brushless else volts) for motor in motors]
    total, each = sum(amps), max(amps, default=0.0)
    starts = [start_current(motor, low if motor.brushless else volts) for motor in motors]
    start = start_of(motors, amps, starts, planned.staged)
    # The form at hand unless another is smaller: a slower one stands the start at less, and lets the wire be thinner.
    fits = [
        (size, name != circuit.fuse_form, name)
        for name in dict.fromkeys((circuit.fuse_form, *FORMS))
        if (size := fuse_for(total, start, name)) is not None
    ]
    fuse, _, form = min(fits) if fits else (None, False, circuit.fuse_form)
    # One relay per motor: they share the load and the start.
    switch = switch_of(planned, many)
    relay = _relay_of(
        switch, (total, each), (start.current, max(starts, default=0.0)), (circuit.relay_air.si, fuse or 0.0)
    )
    fused = quantity(f"{fuse:g} A", "current") if fuse else circuit.fuse
    contacts = contacts_of(circuit.model_copy(update={"fuse": fused, "switch": switch}), many)
    plug = connector_for(circuit, each, fuse or 0.0)
    sizes = smallest_wires(planned, supply, (fuse or CONTINUOUS * total, contacts), (switch, relay or 0.0, plug or 0.0))
    return Advice(sizes, fuse, form, relay, switch, plug)


def switch_of(planned: Planned, many: int) -> str:
    """How a circuit ought to be switched: as its motors want it; else as it is where that is no relay, or a relay per
    motor, which share the load and the start."""
    if planned.wanted:
        return planned.wanted
    chopped = any(motored.fan and motored.motor.brushless for motored in planned.motors)
    kept = planned.circuit.switch == "switch" or (planned.circuit.switch == "controller" and not chopped)
    return planned.circuit.switch if kept else "relays" if many > 1 else "relay"


def _relay_of(
    switch: str, amps: tuple[float, float], starts: tuple[float, float], given: tuple[float, float]
) -> float | None:
    """The relay or box [A] to fit. amps: all together, one; starts: the same [A]; given: air at it [degC], fuse [A]

    A fuse all motors share has to protect each relay by itself, two contacts of one box together.
    """
    (total, each), (begins, one), (air, fuse) = amps, starts, given
    if switch in UNRELAYED:
        return None
    if switch == "parallel":
        needed, fuse = relay_for(total / PARALLEL, begins, air), fuse / PARALLEL
    elif switch in ("relay", "relays"):
        needed = relay_for(each, one, air)
    else:
        needed = CONTINUOUS * total / relay_share(air)
        return next((size for size in BOXES if size >= max(needed, fuse)), None)
    return next((size for size in RELAYS if needed is not None and size >= max(needed, fuse)), None)


def connector_for(circuit: Circuit, each: float, fuse: float) -> float | None:
    """The connector [A] at each motor: the one at hand where it will do, else the smallest on sale its fuse protects
    and its heat allows."""
    if circuit.connector is None:
        return None
    share = connector_share(circuit.branch.ambient.si)
    needed = max(fuse, each / share if share > 0 else math.inf)
    return next((size for size in (circuit.connector.si, *CONNECTORS) if size >= needed - 1e-9), CONNECTORS[-1])


def terminal_takes(run: str, planned: Planned, parts: tuple[str, float, float]) -> float:
    """The largest section [m2] that goes into what a run ends in: a relay's socket, a motor's plug; nothing binds a
    return or a splice.

    parts : how it is switched, and the ratings [A] of relay and connector, 0 where there is none
    """
    switch, rating, plug = parts
    socket = NARROW_TERMINAL if rating <= NARROW_RATING else WIDE_TERMINAL
    ends = []
    if switch in RELAYED and (run == "branch" or (run == "feed" and len(planned.motors) < 2)):
        ends.append(socket)
    if run == "branch" and plug:
        ends.append(NARROW_TERMINAL if plug <= NARROW_RATING else WIDE_TERMINAL)
    return min(ends, default=math.inf)


def sizes_like(metric: bool) -> tuple[tuple[str, float], ...]:
    """Sizes cable is sold in, thin to thick: as written, and nominal section [m2]."""
    if metric:
        return tuple((metric_text(section), section * 1e-6) for section in METRIC_SIZES)
    return tuple((awg_text(number), awg_area(number)) for number in AWG_SIZES)


def smallest_wires(
    planned: Planned, supply: Supply, given: tuple[float, float], parts: tuple[str, float, float]
) -> tuple[str, ...]:
    """The smallest size of each run that the fuse protects and that together keep the drop; () where no size does.

    given : the fuse [A], and the ohms of fuse, relay and terminals;  parts : how it is switched, and the ratings [A]
            of relay and connector
    Each begins as thin as the fuse allows; then whichever loses most is made thicker until the limit is kept.
    """
    (fuse, contacts), circuit, path = given, planned.circuit, planned.path
    motors = tuple(motored.motor for motored in planned.motors)
    made: dict[str, list[tuple[str, WireRun]]] = {}
    for key in RUNS:
        wire, old = getattr(circuit, key), getattr(path, key)
        metric = is_metric(wire.size.unit)
        tried = [(text, old._replace(wire=conductor(area, metric, wire.cable))) for text, area in sizes_like(metric)]
        largest = terminal_takes(key, planned, parts)
        made[key] = [
            (text, run)
            for (text, run), (_, area) in zip(tried, sizes_like(metric), strict=True)
            if ampacity(run.wire, run.ambient, run.loaded) >= fuse and area <= largest
        ]
        if not made[key]:
            return ()
    at = dict.fromkeys(RUNS, 0)
    while True:
        chosen = [made[key][at[key]] for key in RUNS]
        feed, branch, back = (run for _, run in chosen)
        flow = flow_through(Path(feed, branch, back, path.back_shared, contacts), motors, supply.regulated.si)
        if flow.drop <= supply.drop_limit.si:
            return tuple(text for text, _ in chosen)
        thicker = [
            (volts, key) for key, (_, volts) in zip(RUNS, flow.lost, strict=False) if at[key] + 1 < len(made[key])
        ]
        if not thicker:
            return ()
        at[max(thicker)[1]] += 1


def odd_fuse(circuit: Circuit) -> tuple[float, ...]:
    """Standard fuses next to one that is not made in its form; () where it is made."""
    if circuit.fuse is None or circuit.fuse.si in FUSES[circuit.fuse_form].sizes:
        return ()
    return neighbours(circuit.fuse.si, FUSES[circuit.fuse_form].sizes)
