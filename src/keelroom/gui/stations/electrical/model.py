"""The Electrical station's pages, said without a widget."""

from __future__ import annotations

from typing import get_args

from keelroom.assess.acts.registry import offer
from keelroom.assess.electrical.bench import bench_steps
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.inputs.coolant.sensor import THREADS
from keelroom.assess.inputs.electrical.controller import seat_of
from keelroom.assess.inputs.electrical.loads import label_words, motors_of
from keelroom.assess.inputs.electrical.seats import SEATS
from keelroom.assess.inputs.electrical.ways import WAYS, way_of
from keelroom.assess.safety import caution
from keelroom.assess.shelf import CABLE_CHOICES, FORM_CHOICES
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import UNRELAYED, Circuit, Colour, usual_sources
from keelroom.gui.marks import marks_of
from keelroom.gui.rows import Group, Page, Path, Row, Sort, quantities
from keelroom.gui.stations.electrical.sentences import charging_said, circuit_said, circuits_said, control_said

SWITCHES = (
    ("relay", "One relay for all"),
    ("relays", "One relay per motor"),
    ("parallel", "Two contacts in parallel"),
    ("controller", "Controller carries it"),
    ("own", "The motor’s own electronics"),
    ("switch", "Switch carries it"),
    ("none", "Nothing"),
)
GROUNDS = (
    ("battery", "Battery’s negative post"),
    ("chassis", "Chassis"),
    ("engine", "Engine block"),
    ("core", "The core"),
    ("none", "None"),
)
STRATEGIES = tuple((name, way.title) for name, way in WAYS.items())
SENSOR_PLACES = tuple((name, seat.title) for name, seat in SEATS.items())
SENSOR_STATES = (
    ("works", "Works"),
    ("lost_runs", "Unplugged: the fans run"),
    ("lost_stands", "Unplugged: the fans stand"),
)
CHARGERS = (("alternator", "An alternator"), ("generator", "A generator (direct current)"))
BELTS = (("good", "Good"), ("slips", "Slips"))
LOW_SPEEDS = (
    ("one_fan", "One fan of two"),
    ("series", "Resistor in series"),
    ("winding", "Winding of its own"),
    ("merged", "None: both stages on one relay box"),
    ("tied", "None: both outputs tied together"),
)
COLOURS = (("", "By the tool"), *((name, name.capitalize()) for name in get_args(Colour) if name))
COILS = (("key", "Key"), ("always", "Always live"))
WHENS = (("always", "Always"), ("with_ac", "With the A/C"), ("moving", "On the road"), ("standing", "Standing"))
THREAD_CHOICES = tuple(THREADS.items())
USUAL_SOURCES = tuple(source.id for source in usual_sources())


def pages(build: Build, system: str, assessment: Assessment, shown: str = "") -> tuple[Page, ...]:
    """Circuits, charging, control, schools, harness, bench. shown: the page whose sentences and marks are worked
    out."""
    found = assessment.electrics
    said = {
        "Circuits": lambda: circuits_said(found),
        "Charging": lambda: charging_said(build, assessment, system),
        "Control": lambda: control_said(build, assessment, system),
    }
    circuits = _circuits(build, assessment)
    made = (
        circuits._replace(
            advice=lambda path: circuit_said(found, path[-1], system) if path[2:3] == ("circuits",) else ()
        )
        if shown == "Circuits"
        else circuits,
        _charging(build),
        _control(build),
        Page("Kits", ()),
        Page("Schools", ()),
        Page("Harness", ()),
        _bench(build, assessment, system),
    )
    return tuple(
        page._replace(
            marks=marks_of(
                assessment, page, {circuit.id: circuit.name or circuit.id for circuit in build.package.circuits}, system
            ),
            said=said[page.title]() if page.title in said else (),
        )
        if page.title == shown
        else page
        for page in made
    )


def _circuits(build: Build, assessment: Assessment) -> Page:
    package = build.package
    where = ("packages", package.id, "circuits")
    motors = tuple((motored.id, motored.name) for motored in motors_of(build, package))
    sources = tuple(
        (source.id, f"{source.name or source.id}, {source.voltage.si:g} V") for source in build.supply.sources
    )
    groups: list[Group] = []
    for circuit in package.circuits:
        groups += _circuit(circuit, (*where, circuit.id), motors, sources)
    if not groups:
        groups = [
            Group(
                "No circuit yet",
                (),
                note="Plan them by the tool, or add one and enter what is there."
                if motors
                else "Nothing to feed yet: the Air station fits a fan.",
            )
        ]
    if package.circuits:
        groups += _labels(build)
        groups.append(Group("Rule", quantities(("supply",), "drop_limit")))
        groups += [
            Group(
                source.name or source.id,
                (
                    Row("text", ("supply", "sources", source.id, "name"), "Source"),
                    *quantities(("supply", "sources", source.id), "voltage", of=source.name or source.id),
                    Row("flag", ("supply", "sources", source.id, "always"), "Live with the key off"),
                    *quantities(("supply", "sources", source.id), "holds", of=source.name or source.id),
                    Row("flag", ("supply", "sources", source.id, "channel"), "A solid-state channel"),
                ),
                remove=() if source.id in USUAL_SOURCES else ("supply", "sources", source.id),
                rare=source.id in USUAL_SOURCES,
            )
            for source in build.supply.sources
        ]
    return Page(
        "Circuits",
        tuple(groups),
        (
            ("Plan what is missing", offer("plan_circuits", build.active)),
            ("Add a circuit", offer("add_circuit", build.active)),
            ("Add a source", offer("add_source")),
            ("Size alike circuits alike", offer("sized_alike", build.active)),
        ),
        brief=lambda path: next((circuit_words(one) for one in package.circuits if one.id == path[-1]), ""),
    )


def circuit_words(circuit: Circuit) -> str:
    """A circuit in a few words."""
    told = (("fuse", circuit.fuse), ("feed", circuit.feed.size))
    return ", ".join(f"{value.as_typed} {what}" for what, value in told if value is not None)


def _circuit(
    circuit: Circuit, path: Path, motors: tuple[tuple[str, str], ...], sources: tuple[tuple[str, str], ...]
) -> list[Group]:
    name = circuit.name or circuit.id

    def choice(field: str, label: str, choices: tuple[tuple[str, str], ...], sort: Sort = "choice") -> Row:
        return Row(sort, (*path, field), label, choices, name)

    def wire(run: str, words: str) -> tuple[Row, ...]:
        at, of = (*path, run), f"{name}, {words}"
        return (
            *quantities(at, "length", "size", of=of),
            Row("choice", (*at, "cable"), "Cable", CABLE_CHOICES, of),
            *quantities(at, "ambient", "bundle", of=of),
            Row("choice", (*at, "colour"), "Colour", COLOURS, of),
        )

    switched = circuit.switch not in UNRELAYED
    own = (
        Row("text", (*path, "name"), "Name", said=name),
        choice("feeds", "Feeds", motors, "set"),
        choice("sources", "Tied to", sources, "set"),
        *quantities(path, "fuse", of=name),
        choice("fuse_form", "Fuse form", FORM_CHOICES),
        *quantities(path, "fuse_at", of=name),
        choice("switch", "Switched by", SWITCHES),
        *(quantities(path, "relay", "relay_air", of=name) if switched else ()),
        *(quantities(path, "lead_length", "lead_size", of=name) if circuit.switch == "controller" else ()),
        *(quantities(path, "spare", of=name) if circuit.kit else ()),
        *quantities(path, "connector", of=name),
        choice("ground", "Ground", GROUNDS),
        *quantities(path, "grounds", of=name),
        Row("flag", (*path, "shared_ground"), "One ground wire for all its motors", said=name),
        *quantities(path, "measured_drop", of=name),
    )
    return [
        Group(name, own, remove=path),
        Group(f"{name}: feed, source to relay", wire("feed", "feed")),
        Group(f"{name}: relay to the motor", wire("branch", "to the motor")),
        Group(f"{name}: return, motor to ground", wire("back", "return")),
    ]


def _labels(build: Build) -> list[Group]:
    """What stands on each motor's label: two of watts, volts and amps give the third."""
    package = build.package
    groups = []
    for number, fan in enumerate(package.fans, 1):
        at = ("packages", package.id, "fans", fan.id)
        rows = quantities(at, "power", "rated_voltage", "rated_current", of=f"Fan {number}")
        groups.append(Group(f"Fan {number}, its label", rows, note=label_words(fan)))
    if build.package.loop.pump != "mechanical":
        groups.append(
            Group(
                "Coolant pump, its label",
                quantities(("packages", build.active, "loop"), "electric_power", "electric_voltage", of="Pump"),
            )
        )
    for cooler in package.coolers:
        if cooler.fans.si >= 1 and cooler.stands != "ahead":
            rows = quantities(
                ("packages", package.id, "coolers", cooler.id), "fan_power", "fan_voltage", of=f"{cooler.name} fan"
            )
            groups.append(Group(f"{cooler.name} fan, its label", rows))
    return groups


def _charging(build: Build) -> Page:
    accessories, supply = ("brief", "accessories"), ("supply",)
    loads = tuple(
        Group(
            load.name or load.id,
            (
                Row("text", ("supply", "loads", load.id, "name"), "Load"),
                *quantities(("supply", "loads", load.id), "power", of=load.name or load.id),
                Row("choice", ("supply", "loads", load.id, "when"), "On", WHENS),
            ),
            remove=("supply", "loads", load.id),
        )
        for load in build.supply.loads
    )
    charge = ("supply", "charge_wire")
    return Page(
        "Charging",
        (
            Group(
                "Alternator",
                (
                    *quantities(accessories, "alternator_rating", "alternator_idle_share"),
                    *quantities(supply, "pulley_ratio", "speed_limit", "redline", "alternator_air", "regulated"),
                    Row("choice", ("supply", "charger"), "Charged by", CHARGERS),
                    Row("choice", ("supply", "belt"), "Its belt", BELTS),
                    Row("curve", ("supply", "curve"), "Output cold"),
                ),
            ),
            Group(
                "Battery",
                (
                    *quantities(supply, "capacity", "reserve", "state", "peukert"),
                    *quantities(accessories, "idle_voltage", "road_voltage"),
                ),
            ),
            Group(
                "Charge cable",
                (
                    *quantities(charge, "length", "size"),
                    Row("choice", (*charge, "cable"), "Cable", CABLE_CHOICES),
                    *quantities(charge, "ambient", "bundle"),
                    *quantities(supply, "charge_fuse", "charge_limit"),
                ),
            ),
            *loads,
        ),
        (("Add a load", offer("add_load")),),
    )


def _control(build: Build) -> Page:
    where = ("packages", build.active, "control")
    control = build.package.control
    sensing = not way_of(control).by_hand
    placed = sensing and not way_of(control).by_computer
    rows = [Row("choice", (*where, "strategy"), "Who decides", STRATEGIES)]
    if way_of(control).by_hand:
        rows.append(Row("flag", (*where, "toggle_on"), "Toggle is on"))
    if placed:
        rows.append(Row("choice", (*where, "sensor"), "Sensor", SENSOR_PLACES))
    if sensing:
        rows.append(Row("choice", (*where, "sensor_state"), "Sensor’s state", SENSOR_STATES))
    rows += quantities(where, "fan_on", "fan_off") if sensing else ()
    if way_of(control).staged:
        rows += [
            *quantities(where, "second_on", "second_off"),
            Row("choice", (*where, "low_speed"), "Low speed by", LOW_SPEEDS),
        ]
    if way_of(control).varies:
        rows.append(Row("curve", (*where, "curve"), "Speed over temperature"))
    if placed and control.sensor == "fins":
        rows += quantities(where, "set_on_day")
    habits = (
        Row("choice", (*where, "coil"), "Coils fed by", COILS),
        Row("flag", (*where, "soft_start"), "Soft start"),
        Row("flag", (*where, "ac_request"), "A/C asks for the fans"),
        *_which_fans(build, where),
        Row("flag", (*where, "override"), "Override in the cab"),
        *quantities(where, "run_on"),
    )
    groups = [Group("Control", tuple(rows)), Group("Besides", habits)]
    if placed and seat_of(control).floats:
        thread = Row("choice", (*where, "thread"), "Thread", THREAD_CHOICES)
        strap = Row("flag", (*where, "strap"), "Ground strap to its seat")
        cut = quantities(where, "adapter", "adapter_push") if seat_of(control).hosed else ()
        title = "Sensor adapter in the hose" if seat_of(control).hosed else "Sensor in the core’s bung"
        groups.append(Group(title, (*cut, thread, strap)))
    return Page("Control", tuple(groups))


def _which_fans(build: Build, where: Path) -> tuple[Row, ...]:
    """Which fan starts first, and which the A/C asks for, where there are several."""
    control, fans = build.package.control, tuple((fan.id, f"Fan {k}") for k, fan in enumerate(build.package.fans, 1))
    if len(fans) < 2:
        return ()
    rows = [Row("set", (*where, "ac_fans"), "It asks for (none: all)", fans)] if control.ac_request else []
    if way_of(control).staged and control.low_speed == "one_fan":
        rows.append(Row("choice", (*where, "lead"), "First to start", (("", "The first of them"), *fans)))
    return tuple(rows)


def _bench(build: Build, assessment: Assessment, system: str) -> Page:
    package, found = build.package, assessment.electrics
    where = ("packages", package.id, "control")
    if found is None:
        return Page("Test", ())
    steps = bench_steps(build, package, found, system)
    fans = tuple((fan.id, f"Fan {k} blows the right way") for k, fan in enumerate(package.fans, 1))
    groups = [
        Group(
            f"{k}. {step.name}",
            (Row("set", (*where, "spun"), "Felt by hand", fans),) if step.key == "spin" and fans else (),
            note=f"{step.how}\nExpect: {step.expected}" + (f"\nMind: {step.mind}" if step.mind else ""),
        )
        for k, step in enumerate(steps, 1)
    ]
    done = Row("set", (*where, "done"), "Done", tuple((step.key, step.name) for step in steps))
    return Page(
        "Test",
        (
            Group(
                "In this order",
                (),
                note=caution("wire"),
            ),
            *groups,
            Group("", (done,)),
        ),
    )
