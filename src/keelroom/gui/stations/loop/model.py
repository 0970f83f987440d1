"""The Loop station without a window: fields of the circuit, of what stands in it and of its hoses, and what is said
of them."""

from __future__ import annotations

from keelroom.assess.acts.loop import KINDS_OF_PART
from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.figures.loop_told import fill_steps, stands_of
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.figures.remote import heat_lost, line_words, off_words
from keelroom.assess.fit.hose_ways import hoses_to_lead_anew
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.ports import PORTS, part_name, ports_of, ports_taken
from keelroom.assess.inputs.coolant.routes import hose_name
from keelroom.assess.inputs.coolant.volumes import TANKED, holds_of, purchase_of, volumes_of
from keelroom.assess.loop.air import OUTCOME_WORDS, bleed_list
from keelroom.assess.loop.hose_plans import INSTALL, hose_plans, rod_words
from keelroom.assess.loop.order import TANK_SCHOOLS, order_words
from keelroom.assess.loop.renewal import renewal
from keelroom.assess.loop.strength import proof_pressure, weakest
from keelroom.assess.safety import caution
from keelroom.assess.words import clause, clauses
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Hose, Part
from keelroom.document.schema.package import CorePort
from keelroom.gui.rows import Group, Page, Path, Row, Said, quantities
from keelroom.units import KINDS, format_si

PUMPS = (("mechanical", "The engine’s"), ("electric", "Electric, in its place"), ("both", "Both, one in line"))
IMPELLERS = (("good", "Good"), ("worn", "Worn or corroded"))
AIR_LEFT = (("bled", "Bled"), ("some", "Some: it gurgles"), ("locked", "A pocket stops it"))
PLACES = (("outlet", "Engine outlet"), ("inlet", "Engine inlet"))
STATES = (
    ("fitted", "In, spring to the engine"),
    ("reversed", "In, the wrong way round"),
    ("none", "None in the engine"),
)
BYPASSES = (("inside", "Inside the engine"), ("blocked", "Blocked"))
CAP_STATES = (("good", "At its rating"), ("weak", "Lets go early"))
CAPS = (("none", "No neck"), ("pressure", "Pressure cap"), ("plain", "Plain cap"))
GLYCOLS = (("ethylene_glycol", "Ethylene glycol"), ("propylene_glycol", "Propylene glycol"))
OLD = (
    ("none", "Nothing: new and dry"),
    ("water", "Water, flushed"),
    ("same", "The same sort"),
    ("other", "Another sort, or unknown"),
    ("glycol_only", "Glycol without water"),
)
WAYS = (("vacuum", "Vacuum filler"), ("funnel", "Sealed funnel"))
TESTS = (("pressure", "Pressure-test first"), ("water", "Fill with water and look"))
OUTLETS = (("up", "Up"), ("side", "Sideways"), ("down", "Down"))
VALVES = (("open", "Open"), ("closed", "Shut"))
HOSE_KINDS = (
    ("moulded", "Moulded"),
    ("reinforced", "Straight, with fabric"),
    ("silicone", "Silicone, no wire"),
    ("convoluted", "Convoluted"),
    ("hard", "Hard line"),
)
HOSE_STATES = (("good", "Good"), ("soft", "Soft"), ("swollen", "Swollen"), ("cracked", "Cracked"))
CLAMPS = (("worm", "Worm-drive"), ("t_bolt", "T-bolt"), ("spring", "Spring"), ("crimp", "Crimped"))
PIECES = (("none", "Nothing"), ("sleeve", "A sleeve from an offcut"), ("reducer", "A reducer"))
USES = (
    ("inlet", "Inlet"),
    ("outlet", "Outlet"),
    ("vent", "Vent"),
    ("drain", "Drain"),
    ("filler", "Filler"),
    ("sensor", "Sensor"),
    ("cooler", "In-tank cooler"),
    ("other", "Something else"),
)
TANKS = (("inlet", "Inlet tank"), ("outlet", "Outlet tank"))
PORT_STATES = (
    ("open", "Nothing on it"),
    ("used", "In use"),
    ("plugged", "Plugged"),
    ("to_close", "To be closed for good"),
)
FLOW_COLUMNS = ("Way", "Flow", "Enters at", "Speed", "Pressure", "To boiling")


def pages(build: Build, system: str, assessment: Assessment, shown: str, case: str) -> tuple[Page, ...]:
    """Of the pages only the shown one is worded."""
    words = {
        "Hoses": _hoses_said,
        "Air": _air_said,
        "Holds": _holds_said,
        "Fill": _fill_said,
        "Circuit": _circuit_said,
        "Ports": _ports_said,
    }
    said = words[shown](build, system, assessment, case) if shown in words else ()
    advice = (lambda path: hose_advice(build, path, system, assessment.figures_of(case))) if shown == "Hoses" else None
    part_said = (lambda path: part_advice(build, path, system)) if shown == "Parts" else None

    def of(name: str) -> Said:
        return said if shown == name else ()

    wanting = hoses_to_lead_anew(build, build.package, assessment.fit) if shown == "Hoses" else ()
    wider = tuple(
        (way := f"A wider way: {run.name}", offer("wider_way", build.active, way, hose=run.hose.id)) for run in wanting
    )
    where: Path = ("packages", build.active)
    return (
        Page(
            "Circuit",
            _circuit(build, where),
            actions=(("From a usual coolant…", "coolant_kind"),),
            said=of("Circuit"),
            leading=(("Make an ordinary circuit", offer("ordinary_circuit", build.active)),),
        ),
        Page(
            "Parts",
            _parts(build, where),
            tuple(
                (f"Add {words[0].lower()}{words[1:]}", offer("add_part", build.active, kind=kind))
                for kind, words in KINDS_OF_PART
            ),
            advice=part_said,
        ),
        Page(
            "Hoses",
            _hoses(build, where),
            (("Add a hose", offer("add_hose", build.active)), *wider),
            said=of("Hoses"),
            advice=advice,
        ),
        Page("Flows", ()),
        Page("Air", (), said=of("Air")),
        Page(
            "Ports",
            _ports(build, where),
            (
                ("Add a port of the core", offer("add_core_port", build.active)),
                ("Add a port of the engine", offer("add_engine_port")),
            ),
            said=of("Ports"),
        ),
        Page(
            "Holds",
            (
                Group("Circuit", quantities((*where, "loop"), "hold", "stays")),
                Group("What was in it", (Row("choice", (*where, "loop", "old_coolant"), "In it before", OLD),)),
            ),
            said=of("Holds"),
        ),
        Page(
            "Fill",
            (
                Group(
                    "How",
                    (
                        Row("choice", (*where, "loop", "fill_way"), "Filled by", WAYS),
                        Row("choice", (*where, "loop", "first_test"), "Tested first", TESTS),
                    ),
                ),
            ),
            said=of("Fill"),
        ),
        Page("Coolants", ()),
    )


def _circuit(build: Build, where: Path) -> tuple[Group, ...]:
    loop, chosen, coolant = (*where, "loop"), build.package.loop, (*where, "coolant")
    electric = chosen.pump != "mechanical"
    pump = (
        Row("choice", (*loop, "pump"), "Pump", PUMPS),
        *(quantities(loop, "pulley_ratio") if chosen.pump != "electric" else ()),
        *(
            quantities(loop, "electric_flow", "electric_pressure", "electric_voltage", "electric_power", "pump_on")
            if electric
            else ()
        ),
        Row("choice", (*loop, "impeller"), "Impeller", IMPELLERS),
        Row("choice", (*loop, "air_left"), "Air in the coolant", AIR_LEFT),
    )
    return (
        Group("Pump", pump),
        Group(
            "Thermostat",
            (
                *quantities(loop, "thermostat"),
                Row("choice", (*loop, "thermostat_place"), "Thermostat place", PLACES),
                Row("choice", (*loop, "thermostat_state"), "How it is in", STATES),
                Row("choice", (*loop, "bypass"), "Bypass", BYPASSES),
            ),
        ),
        Group(
            "Cap",
            (
                *quantities(loop, "cap_pressure"),
                Row("choice", (*loop, "cap_state"), "How it holds", CAP_STATES),
                Row("choice", (*loop, "core_neck"), "On the core’s neck", CAPS),
                *quantities(loop, "core_stands"),
            ),
        ),
        Group(
            "Coolant",
            (
                Row("choice", (*coolant, "glycol"), "Glycol", GLYCOLS),
                *quantities(coolant, "glycol_share", "coldest"),
                Row("flag", (*coolant, "inhibitor"), "Its inhibitor is good"),
                Row("flag", (*loop, "ground_strap"), "Core and engine have ground straps"),
            ),
        ),
        *(
            (Group("Electric pump’s curve", (Row("curve", (*loop, "pump_curve"), "Pump curve"),), rare=True),)
            if electric
            else ()
        ),
    )


def _parts(build: Build, where: Path) -> tuple[Group, ...]:
    found = tuple(_part(part, (*where, "loop", "parts", part.id)) for part in build.package.loop.parts)
    return found or (
        Group(
            "Nothing stands in the circuit but engine and core",
            (),
            note="Heater, tank, bottle, electric pump, filler, tee: add what there is, or make an ordinary circuit.",
        ),
    )


def _part(part: Part, path: Path) -> Group:
    name = part_name(part)
    own: tuple[Row, ...] = ()
    if part.kind == "pump":
        own = (
            Row("choice", (*path, "outlet"), "Its outlet points", OUTLETS, name),
            Row("flag", (*path, "lying"), "It lies on its side", said=name),
        )
    if part.kind == "heater":
        own = (Row("choice", (*path, "valve"), "Its valve", VALVES, name), *quantities(path, "loss", "stands", of=name))
    if part.kind == "thermostat":
        own = quantities(path, "opens", of=name)
    if part.kind in TANKED:
        own = quantities(path, "holds", of=name)
    if part.kind in ("surge_tank", "expansion_tank", "filler"):
        own = (
            *own,
            Row("choice", (*path, "cap"), "Its neck", CAPS, name),
            *(quantities(path, "cap_rating", of=name) if part.cap == "pressure" else ()),
        )
    bored = () if part.kind == "overflow" else quantities(path, "bore", of=name)
    return Group(
        name,
        (
            Row("text", (*path, "name"), "Name", said=name),
            Row("choice", (*path, "kind"), "Kind", KINDS_OF_PART, name),
            *quantities(path, "y", "x", "z", of=name),
            *bored,
            *own,
            *quantities(path, "cost", of=name),
        ),
        remove=path,
    )


def port_choices(build: Build, own: Hose) -> tuple[tuple[str, str], ...]:
    """Ports a hose can be joined to, taken ones with who has them."""
    ports = ports_of(build, build.package)
    others = [hose for hose in build.package.loop.hoses if hose.id != own.id]
    taken = {key: hose_name(hose) for key, hose in ports_taken(others).items()}
    found = [
        (key, port.name + (f" (has the {taken[key][:1].lower()}{taken[key][1:]})" if key in taken else ""))
        for key, port in ports.items()
    ]
    for key in (own.start, own.end):
        if key not in ports:
            found.insert(0, (key, "Not joined yet" if not key else "No longer there"))
    return tuple(dict(found).items())


def _hoses(build: Build, where: Path) -> tuple[Group, ...]:
    found = []
    for hose in build.package.loop.hoses:
        path, name = (*where, "loop", "hoses", hose.id), hose_name(hose)
        choices = port_choices(build, hose)
        found.append(
            Group(
                name,
                (
                    Row("text", (*path, "name"), "Name", said=name),
                    Row("choice", (*path, "start"), "From", choices, name),
                    Row("choice", (*path, "end"), "To", choices, name),
                    Row("choice", (*path, "kind"), "Made as", HOSE_KINDS, name),
                    *quantities(path, "bore", "length", "bends", of=name),
                    Row("choice", (*path, "piece"), "Meets its necks with", PIECES, name),
                ),
                remove=path,
            )
        )
        points = tuple(
            row for via in hose.via for row in quantities((*path, "via", via.id), "x", "y", "z", of=f"{name}, {via.id}")
        )
        found.append(
            Group(
                f"{name}: how it runs and is",
                (
                    *quantities(path, "tightest", "necks", "stock", "years", of=name),
                    Row("choice", (*path, "state"), "Its state", HOSE_STATES, name),
                    Row("choice", (*path, "clamp"), "Clamps", CLAMPS, name),
                    Row("flag", (*path, "bleed"), "A bleed screw at its top", said=name),
                    *quantities(path, "cost", of=name),
                    *points,
                ),
                rare=True,
            )
        )
    return tuple(found) or (
        Group("No hose yet", (), note="Make an ordinary circuit, or add one hose after the other."),
    )


def _ports(build: Build, where: Path) -> tuple[Group, ...]:
    return tuple(_core_port(port, (*where, "core", "ports", port.id)) for port in build.package.core.ports) or (
        Group(
            "The core has its two necks",
            (),
            note="Add what else is in its tanks: vents, drains, sensor bungs, ports of another car’s hoses.",
        ),
    )


def _core_port(port: CorePort, path: Path) -> Group:
    name = port.name or f"Core {port.use}"
    rows = (
        Row("text", (*path, "name"), "Name", said=name),
        Row("choice", (*path, "use"), "What it is for", USES, name),
        Row("choice", (*path, "tank"), "In the", TANKS, name),
        *quantities(path, "up", "bore", of=name),
        Row("text", (*path, "thread"), "Thread", said=name),
        Row("choice", (*path, "state"), "It is", PORT_STATES, name),
    )
    return Group(name, rows, remove=path)


# said


def _circuit_said(build: Build, system: str, assessment: Assessment, case: str) -> Said:
    graph, package = graph_of(build, build.package), build.package
    if not graph.whole:
        return tuple(
            ("problem" if fault.code != "loop_end" else "doubt", clause(fault.fact, system)) for fault in graph.faults
        )
    lines: list[tuple[str, str]] = [
        ("strong", order_words(graph, package.loop.thermostat_state != "none").capitalize() + ".")
    ]
    figures = assessment.figures_of(case)
    if figures is not None and figures.verdict == "does_not_settle":
        lines.append(
            (
                "doubt",
                "This case does not settle: flows stand, temperatures and pressures are those at the end of "
                "the search.",
            )
        )
    elif figures is not None:
        suction = figures.loop.suction
        lines.append(
            (
                "",
                f"{_flow(figures.coolant_flow, system)} through the engine, "
                f"{_flow(figures.core_coolant_flow, system)} through the core; "
                f"+{_kelvin(figures.loop.rise, system)} over the engine; "
                f"{'the electric pump makes' if _in_line(build) else 'the circuit round the engine takes'} "
                f"{_pressure(figures.loop.made, system)}; the pump’s inlet at "
                f"{_pressure(suction.pressure, system)}, {_kelvin(suction.margin, system)} under boiling.",
            )
        )
    lines += [("", text) for text in off_words(build, package, figures, system)]
    if any(part.kind in ("surge_tank", "expansion_tank") for part in package.loop.parts):
        lines += [("faint", f"{name}: {what}") for name, what in TANK_SCHOOLS]
    place = package.loop.thermostat_place
    gauge = (
        "At the outlet it holds what the gauge shows."
        if place == "outlet"
        else "At the inlet it holds what goes in: the gauge, at the outlet, shows 9–22 °F (5–12 K) more."
    )
    return (*lines, ("faint", gauge))


def _hoses_said(build: Build, system: str, assessment: Assessment, case: str) -> Said:
    """Which are to be renewed; how they go on where it is tight."""
    due = [
        f"{hose_name(hose)}: {clause(found.fact, system)}"
        for hose in build.package.loop.hoses
        if (found := renewal(hose)) is not None
    ]
    return (
        *((("doubt", f"To renew: {'; '.join(due)}. Heater hoses too."),) if due else ()),
        ("faint", " ".join(INSTALL[:3])),
    )


def _in_line(build: Build) -> bool:
    return any(part.kind == "pump" for part in build.package.loop.parts)


def _air_said(build: Build, system: str, assessment: Assessment, case: str) -> Said:
    graph = graph_of(build, build.package)
    if not graph.whole:
        return (("doubt", "Where air stays stands here once coolant gets round: join the hoses first."),)
    found = air_in(build, build.package, assessment)
    lines: list[tuple[str, str]] = []
    for high in reversed(found.highs):
        role = {"stays": "problem", "revs": "doubt", "may": "doubt"}.get(high.outcome, "")
        drift = (
            f" (a bubble climbs at {_speed(high.drift, system)}, {_speed(high.clears, system)} clears it, coolant "
            f"leaves at {_speed(high.speed, system)} at idle)"
            if high.drift
            else ""
        )
        lines.append((role, f"{high.name}, {_length(high.at, system)} up: air {OUTCOME_WORDS[high.outcome]}{drift}."))
    lines += [
        ("doubt", f"{low.name}, {_length(low.at, system)}: lower than the core’s drain, does not empty by it.")
        for low in found.lows
    ]
    if found.unknown:
        lines.append(("doubt", f"Heights not known: {', '.join(found.unknown)}. What stands there is not judged."))
    lines.append(("head", "Bleed in this order"))
    lines += [("", f"{k}. {step.name}: {clause(step.how, system)}.") for k, step in enumerate(bleed_list(found), 1)]
    return (*lines, ("faint", caution("hoses")))


def _holds_said(build: Build, system: str, assessment: Assessment, case: str) -> Said:
    volumes, package = volumes_of(build, build.package), build.package
    if volumes is None:
        return (("", "How much it holds stands here once engine and core are known."),)
    room = volumes.room
    lines = [
        (
            "strong",
            f"About {_volume(volumes.total, system)} in "
            f"all{'' if package.loop.hold else ', worked out: ±15 %'}; from cold to hot it grows by "
            f"{_volume(room.growth, system)} ({volumes.growth:.1%}).",
        )
    ]
    lines.append(("", "; ".join(f"{held.name} {_volume(held.volume, system)}" for held in volumes.parts) + "."))
    for part in volumes.tanks:
        holds = holds_of(part)
        role = "problem" if part.holds is not None and len(volumes.tanks) == 1 and holds < room.wanted else ""
        lines.append(
            (
                role,
                f"{part_name(part)} holds {_volume(holds, system)}{'' if part.holds else ' (assumed)'}; "
                f"{_volume(room.wanted, system)} is wanted. Cold mark at {room.mark(holds):.0%} of its "
                "height.",
            )
        )
    bought = purchase_of(package, volumes.total)
    lines.append(
        (
            "",
            f"To buy: {_volume(bought.glycol, system)} of glycol, {_volume(bought.water, system)} of distilled water"
            + ("." if bought.reached else f"; what stays keeps it at {bought.share:.0%}."),
        )
    )
    found = stands_of(build, package, assessment)
    least = weakest(found)
    lines.append(("head", "Cap and test"))
    lines.append(
        (
            "",
            f"Weakest: {least.name[:1].lower()}{least.name[1:]}, "
            f"{_pressure(least.stands, system)}{' (usual)' if least.assumed else ''}. Test cold at "
            f"{_pressure(proof_pressure(package, found), system)} at most.",
        )
    )
    lines += [
        (
            "faint" if one.short <= 0 else "doubt",
            f"{one.name}: stands {_pressure(one.stands, system)}, meets {_pressure(one.meets, system)}",
        )
        for one in found
    ]
    return tuple(lines)


def _fill_said(build: Build, system: str, assessment: Assessment, case: str) -> Said:
    lines: list[tuple[str, str]] = []
    last = ""
    for step in fill_steps(build, assessment):
        if step.stage != last:
            lines.append(("head", step.stage))
            last = step.stage
        lines.append(("doubt" if step.caution else "", clause(step.fact, system)))
    return tuple(lines)


def _ports_said(build: Build, system: str, assessment: Assessment, case: str) -> Said:
    joined = {key: hose_name(hose) for key, hose in ports_taken(build.package.loop.hoses).items()}
    lines = [("head", "Ports of the engine and who has them")]
    for key, port in ports_of(build, build.package).items():
        if key.startswith(("engine:", "core:")):
            end = next((one for one in build.survey.hoses if f"engine:{one.id}" == key), None)
            state = joined.get(key) or ("closed" if end is not None and end.plugged else "nothing")
            role = "doubt" if state == "nothing" and port.sense and not (end and end.plugged) else ""
            bore = f", {_length(port.bore, system)}" if port.bore else ""
            lines.append((role, f"{port.name}{bore}: {state}"))
    return (*lines, ("faint", "Where the engine’s ports are is measured at Survey, Hoses."))


def hose_advice(build: Build, path: Path, system: str, figures: CaseFigures | None = None) -> Said:
    """One hose in figures: its length, its cut, its clamps, its rod."""
    plan = next((one for one in hose_plans(build, build.package) if one.run.hose.id == path[-1]), None)
    if plan is None:
        return ()
    run = plan.run
    radius = (
        ""
        if run.radius is None
        else f", tightest bend {_length(run.radius, system)} ({_length(run.wanted, system)} wanted)"
    )
    lines: list[tuple[str, str]] = []
    if run.length is not None:
        role = "problem" if run.radius is not None and run.radius < run.wanted - 5e-4 else "strong"
        lines.append(
            (
                role,
                f"{_length(run.bore, system)} bore, {_length(run.length, system)} long, "
                f"{run.right_angles:.1f} right angles{radius}.",
            )
        )
    if plan.clamps:
        clamps = " and ".join(dict.fromkeys(clamp.name for clamp in plan.clamps))
        lines.append(("", f"{clamps}; {plan.clips} clips." if plan.clips else f"{clamps}."))
    lines += [("", note) for note in clauses(plan.notes, system)]
    if plan.steps and len(plan.steps) > 1:
        lines.append(("faint", "Rod: " + "; ".join(rod_words(plan.steps, system)) + "."))
    lines += [("", text) for text in line_words(run, figures, system)]
    lost = heat_lost(run)
    if lost > 200:
        lines.append(
            (
                "faint",
                f"It gives off about {format_si(lost, KINDS['heat'], system)} hot on the way; that is not counted.",
            )
        )
    return tuple(lines)


def part_advice(build: Build, path: Path, system: str) -> Said:
    """What to mind of one part."""
    part = next((one for one in build.package.loop.parts if one.id == path[-1]), None)
    if part is None:
        return ()
    joined = ports_taken(build.package.loop.hoses)
    open_ports = [
        words
        for end, words, _ in PORTS.get(part.kind, (("in", "inlet", 0), ("out", "outlet", 0)))
        if f"{part.id}:{end}" not in joined
    ]
    lines: list[tuple[str, str]] = []
    if open_ports and part.kind != "overflow":
        needed = [words for words in open_ports if "vent" not in words and "second" not in words]
        if needed:
            lines.append(("doubt", f"Not joined yet: {', '.join(needed)}. Hoses are at Hoses."))
    if part.y is None:
        lines.append(
            (
                "doubt",
                "Its height is not known: it is drawn half way up, and air there is not judged. Drag it in "
                "the drawing, or type it.",
            )
        )
    return tuple(lines)


def flow_cells(build: Build, assessment: Assessment, case: str, system: str) -> list[tuple[str, ...]]:
    """A line per way of the circuit in the chosen case."""
    figures = assessment.figures_of(case)
    if figures is None:
        return []
    loop, graph = figures.loop, graph_of(build, build.package)
    rows: list[tuple[str, ...]] = []
    for branch in graph.branches:
        one = loop.of(branch.key)
        spot = loop.spot(branch.start)
        if one is None or spot is None:
            continue
        speed = "" if one.speed is None else _speed(one.speed, system)
        rows.append(
            (
                one.name,
                "stands" if one.flow == 0 else _flow(one.flow, system),
                format_si(one.temperature, KINDS["temperature"], system),
                speed,
                _pressure(spot.pressure, system),
                _kelvin(spot.margin, system),
            )
        )
    return rows


def _flow(value: float, system: str) -> str:
    return format_si(value, KINDS["coolant flow"], system).replace("-", "−")


def _kelvin(value: float, system: str) -> str:
    return format_si(value, KINDS["temperature difference"], system).replace("-", "−")


def _pressure(value: float, system: str) -> str:
    return format_si(value, KINDS["pressure"], system).replace("-", "−")


def _volume(value: float, system: str) -> str:
    return format_si(value, KINDS["volume"], system)


def _length(value: float, system: str) -> str:
    return format_si(value, KINDS["length"], system).replace("-", "−")


def _speed(value: float, system: str) -> str:
    return format_si(value, KINDS["coolant speed"], system)
