"""Findings of the coolant circuit: whether coolant gets round, its thermostat, caps, pump, pressures, air, tanks and what runs in it."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment, CaseResult
from keelroom.assess.figures.loop_told import stands_of
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.findings import Finding, Level
from keelroom.assess.inputs.coolant.flows import pump_curve
from keelroom.assess.inputs.coolant.graph import Fault, Graph, gates, graph_of
from keelroom.assess.inputs.coolant.heights import Cap, caps_of, core_top, heights_of, held_pressure, holding_cap, hood_over
from keelroom.assess.inputs.coolant.ports import CORE_IN, part_name, places_at, ports_taken
from keelroom.assess.inputs.coolant.volumes import TANKED, holds_of, share_of, volumes_of
from keelroom.assess.loop.air import HIGHER, VENT_BORE
from keelroom.assess.loop.figures import LoopCase
from keelroom.assess.loop.order import circuit_order, is_long
from keelroom.assess.loop.strength import weakest
from keelroom.assess.wording import Found, choose_act, flag_act, set_act
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Part
from keelroom.document.schema.package import Package
from keelroom.units import KINDS, both, format_si

SAFE = 5.0
"""[K] the pump's inlet should stay under boiling there (common practice)."""
MOST_DROP = 17.0
"""[K] the coolant may lose in the core at idle before its flow is called too small (common practice: 10 to 15)."""
LAMINAR = 1500.0
NOTICED = 2.0
"""[K] a gain that is worth a word."""
WATERLESS = 0.95
"""Share of glycol from which on a coolant counts as one without water."""


def loop(build: Build, package: Package, assessment: Assessment) -> Found:
    """Everything there is to say of the circuit but its hoses and ports."""
    graph = graph_of(build, package)
    yield from _faults(package, graph)
    yield from _loose(package, graph)
    yield from _thermostat(package, graph)
    yield from _caps(build, package, assessment)
    yield from _pump(build, package, graph)
    yield from _bypass(package, assessment)
    yield from _suction(package, assessment)
    yield from _flow(package, assessment)
    if graph.whole:
        yield from _air(build, package, assessment)
    yield from _tanks(build, package, graph)
    yield from _hood(build, package)
    yield from _coolant(package)


def _loose(package: Package, graph: Graph) -> Found:
    """What stands beside the circuit: it holds nothing, and its cap no pressure."""
    for part in package.loop.parts:
        if part.kind != "overflow" and not {part.id, f"{part.id}:in"} & set(graph.nodes):
            yield Finding("part_loose", "doubt", ("packages", package.id, "loop", "parts", part.id, "name"), f"{part_name(part)} is not joined to the circuit",
                          "No hose leads to it from what the engine’s coolant goes through: it does nothing yet, though its cap is counted. Its hoses are at Hoses; a port that is taken takes a tee.")  # fmt: skip


FAULT_LEVELS: dict[str, Level] = {"loop_end": "doubt"}


def _faults(package: Package, graph: Graph) -> Found:
    for fault in graph.faults:
        code = fault.code
        yield Finding(code, FAULT_LEVELS.get(code, "problem"), fault.path, fault.what, fault.why, _ways_on(package, graph, fault))


def _ways_on(package: Package, graph: Graph, fault: Fault) -> tuple[Act, ...]:
    """A port that is free and would take the hose; the usual hoses where a way is missing."""
    if fault.code == "loop_open":
        return (Act("usual_hoses", "Put the usual hoses in", package.id),)
    if fault.code == "pump_aside":
        return (choose_act("The engine’s pump as well", ("packages", package.id, "loop", "pump"), "both"),)
    hose = next((one for one in package.loop.hoses if one.id == fault.path[-2]), None)
    if hose is None:
        return ()
    taken = ports_taken([one for one in package.loop.hoses if one.id != hose.id])
    other = graph.ports.get(hose.end if fault.path[-1] == "start" else hose.start)
    wanted = -other.sense if other is not None and other.sense else None
    free = [
        port
        for key, port in graph.ports.items()
        if key not in taken
        and key not in (hose.start, hose.end)
        and (wanted is None or port.sense == wanted)
        and (other is None or port.node != other.node)
    ]
    tee = Act("add_tee", "Put a tee between them", package.id, (("hose", hose.id), ("end", fault.path[-1])))
    teed = (tee,) if fault.code == "loop_taken" else ()
    return teed + tuple(choose_act(f"Lead it to {port.name[:1].lower()}{port.name[1:]}", fault.path, port.key) for port in free[:1])


def _thermostat(package: Package, graph: Graph) -> Found:
    chosen, where = package.loop, ("packages", package.id, "loop", "thermostat_state")
    housed = any(part.kind == "thermostat" for part in chosen.parts)
    if chosen.thermostat_state == "reversed":
        yield Finding("thermostat_reversed", "problem", where, "The thermostat is in the wrong way round",
                      "Its spring and wax belong on the engine’s side: the other way they feel coolant that has been through the core, or none, and it opens far too late.",
                      (choose_act("Turn it round: spring to the engine", where, "fitted"),))  # fmt: skip
    if chosen.thermostat_state == "none" and not housed:
        yield Finding("thermostat_missing", "doubt", where, "No thermostat in the circuit",
                      "All coolant goes through the core all the time: the engine runs cold on a cool day, and a hot day gains hardly anything, for it would be full open then.",
                      (choose_act("Fit one", where, "fitted"),))  # fmt: skip
    if len(gates(graph)) > 1 and chosen.thermostat_state != "none":
        yield Finding("two_thermostats", "problem", where, "Two thermostats, one after the other",
                      "The hotter one decides, both throttle, and the flow through the core is that of two half-shut valves. Keep one: the one in line, or the engine’s.",
                      (choose_act("Keep only the one in line", where, "none"),), value=float(len(gates(graph))), limit=1.0)  # fmt: skip


def _caps(build: Build, package: Package, assessment: Assessment) -> Found:
    caps, where = caps_of(build, package), ("packages", package.id, "loop")
    pressed = [cap for cap in caps if cap.kind == "pressure"]
    holding = holding_cap(build, package)
    if not pressed:
        yield Finding("no_pressure_cap", "doubt", (*where, "core_neck"), "No pressure cap in the circuit",
                      "Without one the coolant boils as in an open pot, and grows out of it at every warm-up.",
                      (choose_act("A pressure cap on the core", (*where, "core_neck"), "pressure"),))  # fmt: skip
    for cap in pressed:
        if len(pressed) > 1 and cap is not _kept_cap(pressed):
            yield Finding("second_cap", "problem", cap.path, f"A second pressure cap: {cap.name[:1].lower()}{cap.name[1:]}",
                          f"One cap holds the pressure of a circuit; of two the weaker vents first, here at {both(holding.rating if holding else 0.0, 'pressure')}, "
                          "and coolant is drawn back past the other. One pressure cap, at the highest point; any other neck gets a plain one.",
                          (choose_act("A plain cap there", cap.path, "plain"),), value=float(len(pressed)), limit=1.0)  # fmt: skip
    found = stands_of(build, package, assessment)
    least, held = weakest(found), held_pressure(package.loop)
    if held > least.stands + 1.0:
        allowed = format_si(least.stands - 50.0, KINDS["pressure"], "si")
        yield Finding("cap_over_weakest", "problem", (*where, "cap_pressure"), f"The cap is over what the weakest part stands: {least.name[:1].lower()}{least.name[1:]}",
                      f"{both(held, 'pressure')} on a part that stands {both(least.stands, 'pressure')}. Never a higher cap than the weakest part allows.",
                      (set_act(f"A cap of {both(least.stands, 'pressure')}", (*where, "cap_pressure"), allowed),), value=held, limit=least.stands)  # fmt: skip
    else:
        over = next((one for one in found if one.short > 0), None)
        if over is not None:
            yield Finding("pump_over_part", "doubt", over.path, f"{over.name}: the pump presses more into it than it stands",
                          f"{both(over.meets, 'pressure')} with cap and pump at the highest revs, {both(over.stands, 'pressure')} is what it stands.", value=over.meets, limit=over.stands)  # fmt: skip


def _kept_cap(pressed: list[Cap]) -> Cap:
    """The one to keep: the highest, for it is where air comes; one whose height is not known last."""
    return max(pressed, key=lambda cap: cap.at if cap.at is not None else -1e9)


def _pump(build: Build, package: Package, graph: Graph) -> Found:
    chosen, where = package.loop, ("packages", package.id, "loop")
    pumps = [part for part in chosen.parts if part.kind == "pump"]
    _, wrong = pump_curve(chosen)
    if wrong:
        yield Finding(
            "pump_curve", "problem", (*where, "pump_curve"), "The pump’s curve is not one", f"{wrong}. Its rating is used instead."
        )
    if pumps and chosen.pump == "mechanical":
        yield Finding("pump_unused", "doubt", (*where, "pump"), f"{part_name(pumps[0])} stands in the circuit, but only the engine’s pump is counted",
                      "A pump that stands still is one more thing to push through.",
                      (choose_act("Count both", (*where, "pump"), "both"), choose_act("Only the electric one", (*where, "pump"), "electric")))  # fmt: skip
    if not pumps and chosen.pump == "both":
        yield Finding("pump_absent", "problem", (*where, "pump"), "An electric pump is counted on that stands nowhere",
                      "Add it to what stands in the circuit, with the hoses to it.", (choose_act("Only the engine’s", (*where, "pump"), "mechanical"),))  # fmt: skip
    for part in pumps:
        yield from _pump_stands(build, package, graph, part)
    limit = build.brief.cooling.limit
    if chosen.pump != "mechanical" and chosen.pump_on and limit and chosen.pump_on.si >= limit.si - SAFE:
        usual = min(60.0, limit.si - 30)
        yield Finding("pump_late", "problem", (*where, "pump_on"), "The electric pump starts at the limit",
                      f"It starts at {both(chosen.pump_on.si, 'temperature')}, the limit is {both(limit.si, 'temperature')}: until then nothing goes through the core.",
                      (set_act(f"Start it at {both(usual, 'temperature')}", (*where, "pump_on"), f"{usual:.0f} °C"),), value=chosen.pump_on.si, limit=limit.si)  # fmt: skip


def _pump_stands(build: Build, package: Package, graph: Graph, part: Part) -> Found:
    where, name = ("packages", package.id, "loop", "parts", part.id), part_name(part)
    if part.lying:
        yield Finding("pump_on_side", "problem", (*where, "lying"), f"{name} lies on its side",
                      "Air gathers in its housing, and it spins in it without moving anything. Upright, its outlet the highest place of it.",
                      (flag_act("Set it upright", (*where, "lying"), False),))  # fmt: skip
    if part.outlet != "up":
        yield Finding("pump_outlet", "problem", (*where, "outlet"), f"{name}: its outlet does not point up",
                      "Air that comes to it stays in it. Turn it so that the outlet is the highest place.", (choose_act("Turn its outlet up", (*where, "outlet"), "up"),))  # fmt: skip
    others = [at for node, at in heights_of(build, package).items() if at is not None and not node.startswith(f"{part.id}:")]
    if part.y is None or not others:
        return
    lowest, top = min(others), core_top(build.survey, package)
    down = (set_act(f"Lower it to {both(lowest - 0.03, 'length')}", (*where, "y"), f"{(lowest - 0.03) * 1e3:.0f} mm"),)
    if part.y.si > top:
        yield Finding("pump_high", "problem", (*where, "y"), f"{name} stands above the core",
                      f"By {both(part.y.si - top, 'length')}: it runs dry after every filling and has to be bled each time, about half an hour more with every coolant change. It belongs at the lowest point, its outlet up.",
                      down, value=part.y.si, limit=lowest)  # fmt: skip
    elif part.y.si > lowest + HIGHER:
        yield Finding("pump_not_lowest", "doubt", (*where, "y"), f"{name} is not the lowest place of the circuit",
                      f"{both(part.y.si - lowest, 'length')} over it: what stands lower empties into nothing when it is drained, and air can come to it.", down, value=part.y.si, limit=lowest)  # fmt: skip


def _bypass(package: Package, assessment: Assessment) -> Found:
    """A pump in the core's line that outdoes the engine's draws coolant backwards through the bypass."""
    wrong = [case for case in assessment.cases if case.figures and case.figures.core_coolant_flow > 1.02 * case.figures.coolant_flow]
    if wrong and package.loop.bypass == "inside":
        worst = max(wrong, key=lambda case: case.figures.core_coolant_flow - case.figures.coolant_flow if case.figures else 0.0)
        figures = worst.figures
        assert figures is not None
        path = ("packages", package.id, "loop", "bypass")
        yield Finding("bypass_backwards", "problem", path, f"{worst.name}: coolant goes backwards through the bypass",
                      f"{both(figures.core_coolant_flow, 'coolant flow')} through the core, {both(figures.coolant_flow, 'coolant flow')} through the engine: the pump in line draws the rest round it, "
                      "so the engine is hotter than what goes to the core, and than the figures here. With a pump in line the bypass is blocked, or a hole of 1/8 in is left.",
                      (choose_act("Block the bypass", path, "blocked"),), value=figures.core_coolant_flow, limit=figures.coolant_flow)  # fmt: skip


def _settled(assessment: Assessment) -> list[tuple[CaseResult, LoopCase]]:
    return [(case, case.figures.loop) for case in assessment.cases if case.figures and case.figures.verdict != "does_not_settle"]


def _suction(package: Package, assessment: Assessment) -> Found:
    found = _settled(assessment)
    if not found:
        return
    case, worst = min(found, key=lambda one: one[1].suction.margin)
    spot = worst.suction
    if spot.margin < SAFE:
        where = ("packages", package.id, "loop", "cap_pressure")
        level: Level = "problem" if spot.margin < 0 else "doubt"
        what = "boils" if spot.margin < 0 else f"is {both(spot.margin, 'temperature difference')} from boiling"
        yield Finding("suction_boils", level, where, f"{case.name}: the coolant at the pump’s inlet {what}",
                      f"{both(spot.temperature, 'temperature')} at {both(spot.pressure, 'pressure')} there: the pump fills with vapour, its flow falls off, and the engine climbs. "
                      "A tank that feeds the suction side, a lower pump, wider lines to it, or a stronger cap as far as the weakest part allows.",
                      value=spot.margin, limit=SAFE)  # fmt: skip


def _flow(package: Package, assessment: Assessment) -> Found:
    idle = assessment.idle
    if idle is not None and idle.verdict != "does_not_settle":
        drop = idle.mean - idle.coolant_out
        if drop > MOST_DROP and idle.thermostat_opening > 0.9:
            yield Finding("core_flow_small", "doubt", ("packages", package.id, "loop", "pulley_ratio"), "Little coolant goes through the core at idle",
                          f"{both(idle.core_coolant_flow, 'coolant flow')}: it loses {both(drop, 'temperature difference')} in the core, so its far half works with half-cold coolant. "
                          "A faster pump, wider lines, or a core with wider tubes.", value=drop, limit=MOST_DROP)  # fmt: skip
    for case in assessment.cases:
        figures = case.figures
        if figures is None or figures.speed < 5 or figures.tube_reynolds >= LAMINAR or figures.verdict == "does_not_settle":
            continue
        if figures.faster_coolant[0] > NOTICED and figures.thermostat_opening > 0.9:
            passes, pump = (both(gain, "temperature difference") for gain in figures.faster_coolant)
            yield Finding("tubes_laminar", "note", ("duty_cases", case.case_id), f"{case.name}: the coolant runs smooth through the tubes",
                          f"Re {figures.tube_reynolds:.0f}: laminar, its heat has to creep to the wall. Two passes would be worth about {passes}, a pump turned a fifth faster about {pump}.",
                          source="SHAH_LONDON", value=figures.tube_reynolds, limit=LAMINAR)  # fmt: skip


def _air(build: Build, package: Package, assessment: Assessment) -> Found:
    found = air_in(build, package, assessment)
    for high in found.highs:
        if high.outcome not in ("stays", "revs"):
            continue
        hose = _screw_at(package, build, high.key)
        fixes = (flag_act("A bleed screw there", ("packages", package.id, "loop", "hoses", hose, "bleed"), True),) if hose else ()
        level: Level = "problem" if high.outcome == "stays" else "doubt"
        moving = (
            f"A bubble climbs at {both(high.drift, 'coolant speed')} in that line, the coolant that leaves it at idle runs at {both(high.speed, 'coolant speed')}."
            if high.drift
            else "Nothing runs through it that could take air along."
        )
        yield Finding("air_trap", level, high.path, f"Air stays at a high point: {high.name[:1].lower()}{high.name[1:]}",
                      f"At {both(high.at, 'length')}, higher than what leads to it. {moving} "
                      + ("More revs carry it out; until then the engine heats round a bubble." if high.outcome == "revs" else "It has to be bled by hand each time."),
                      fixes, value=high.speed, limit=high.drift)  # fmt: skip
    necks = [cap for cap in caps_of(build, package) if cap.at is not None]
    summit = max(found.highs, key=lambda high: high.at, default=None)
    if necks and summit is not None and not any(part.kind == "filler" for part in package.loop.parts):
        best = max(necks, key=lambda cap: cap.at or 0.0)
        top = summit.at
        if best.at is not None and top > best.at + 0.05:
            yield Finding("filler_low", "doubt", best.path, "The filler is not the highest point",
                          f"{both(top - best.at, 'length')} of the circuit stand over it: it cannot be filled by pouring. A filler neck at the highest point, or vacuum filling.",
                          (Act("add_filler", "Put a filler neck there", package.id, (("at", summit.key),)),), value=best.at, limit=top)  # fmt: skip


def _screw_at(package: Package, build: Build, key: str) -> str:
    """A hose on which a bleed screw would empty a high point; '' where no hose goes there."""
    if key.startswith("hose:"):
        return key.split("#", maxsplit=1)[0].removeprefix("hose:")
    graph = graph_of(build, package)
    nodes = places_at(CORE_IN if key == "core" else key)
    return next((run.hose.id for run in graph.runs if nodes & {run.start.node, run.end.node} and run.bore >= VENT_BORE), "")


def _tanks(build: Build, package: Package, graph: Graph) -> Found:
    volumes, where = volumes_of(build, package), ("packages", package.id, "loop")
    if volumes is None:
        return
    room, kept = volumes.room, [part for part in volumes.tanks if part.holds is not None]
    if volumes.tanks and len(kept) == len(volumes.tanks) and sum(map(holds_of, kept)) < room.wanted - 1e-7:
        largest = max(kept, key=holds_of)
        path, short = (*where, "parts", largest.id, "holds"), room.wanted - sum(map(holds_of, kept))
        size = f"{(holds_of(largest) + short) * 1.08e3:.2f} L"
        yield Finding("tank_small", "problem", path, f"{part_name(largest)} is too small",
                      f"It holds {both(sum(map(holds_of, kept)), 'volume')}; {both(volumes.total, 'volume')} of coolant grow by {both(room.growth, 'volume')} and want {both(room.wanted, 'volume')}. "
                      "A foot-long tube holds too little: what does not fit is thrown out hot and drawn back as air.",
                      (set_act(f"One of {size}", path, size),), value=sum(map(holds_of, kept)), limit=room.wanted)  # fmt: skip
    if not graph.whole:
        return
    order = circuit_order(graph)
    if is_long(graph) and not any(part.kind in ("surge_tank", "expansion_tank") for part in package.loop.parts):
        yield Finding("no_surge_tank", "problem", (*where, "parts"), "Long lines and no tank in the circuit",
                      "Air that comes with the filling has nowhere to part from the coolant: it goes round, and the heat stays. In line at the top of the hot side, engine → tank → core, is how such systems were cured.",
                      (Act("add_surge_tank", "Put a surge tank after the engine", package.id),))  # fmt: skip
    for part in package.loop.parts:
        if part.kind == "surge_tank" and part.id not in order:
            yield Finding("tank_aside", "doubt", (*where, "parts", part.id, "kind"), f"{part_name(part)} is not in the flow",
                          "An in-line tank parts air from all the coolant; one beside the flow is an expansion tank with a vent line to it and a feed to the suction side.",
                          (choose_act("It is an expansion tank", (*where, "parts", part.id, "kind"), "expansion_tank"),))  # fmt: skip
    for run in graph.runs:
        tank = next((one for one in package.loop.parts if one.kind in TANKED and one.id == run.end.node), None)
        if tank is None or tank.kind == "overflow" or run.end.key.split(":")[1] not in ("vent", "vent2"):
            continue
        line = (*where, "hoses", run.hose.id, "bore")
        if run.bore >= VENT_BORE:
            yield Finding("vent_wide", "doubt", line, f"{run.name} is wide for a vent line",
                          f"{both(run.bore, 'length')}: coolant takes that way round the core instead of air. 1/4 to 3/8 in, with a restrictor where it is more.",
                          (set_act("3/8 in", line, "3/8 in"),), value=run.bore, limit=VENT_BORE)  # fmt: skip
        low, high = run.start.at[1], run.end.at[1]
        if low is not None and high is not None and high < low - HIGHER:
            yield Finding("vent_falls", "problem", (*where, "parts", tank.id, "y"), f"{run.name} falls to its tank",
                          f"By {both(low - high, 'length')}: air does not go down a vent line. The tank’s vent port belongs over everything it vents.",
                          (set_act(f"Lift it to {both(low + 0.05, 'length')}", (*where, "parts", tank.id, "y"), f"{(low + 0.05) * 1e3:.0f} mm"),), value=high, limit=low)  # fmt: skip


def _hood(build: Build, package: Package) -> Found:
    for part in package.loop.parts:
        under = hood_over(build.survey, part.z.si) if part.y is not None and part.z is not None else None
        if part.y is not None and under is not None and part.y.si > under:
            path = ("packages", package.id, "loop", "parts", part.id, "y")
            yield Finding("part_over_hood", "problem", path, f"{part_name(part)} stands above the hood",
                          f"{both(part.y.si, 'length')} where the hood’s underside is at {both(under, 'length')}.",
                          (set_act(f"Lower it to {both(under - 0.02, 'length')}", path, f"{(under - 0.02) * 1e3:.0f} mm"),), value=part.y.si, limit=under)  # fmt: skip


def _coolant(package: Package) -> Found:
    chosen, where, share = package.loop, ("packages", package.id, "loop"), share_of(package)
    if chosen.old_coolant == "other":
        yield Finding("coolant_mixed", "problem", (*where, "old_coolant"), "Another sort of coolant stays in the block",
                      f"About {chosen.stays.si:.0%} of it does not drain: unlike inhibitors can gel or drop out. Flush with water until it comes clear; then water is what stays, and it counts in the mix.",
                      (choose_act("Flush it out with water first", (*where, "old_coolant"), "water"),))  # fmt: skip
    if share >= WATERLESS and chosen.old_coolant in ("water", "other") and chosen.stays.si > 0.005:
        yield Finding("waterless_wet", "problem", (*where, "stays"), "A coolant without water wants the circuit bone dry",
                      f"{chosen.stays.si:.0%} of the circuit is still water: it boils at water’s temperature and takes the coolant’s freedom from pressure away. Blow block and heater dry, drive its preparation fluid through, and measure the water left.",
                      (choose_act("New and dry", (*where, "old_coolant"), "none"),))  # fmt: skip
    if not package.coolant.inhibitor:
        yield Finding("no_inhibitor", "doubt", ("packages", package.id, "coolant", "inhibitor"), "Nothing keeps this coolant from corroding the core",
                      "Glycol turns acid in two to five years; plain water has no inhibitor at all. Aluminium and old solder go first.",
                      (flag_act("With inhibitor", ("packages", package.id, "coolant", "inhibitor"), True),))  # fmt: skip
    if not chosen.ground_strap:
        yield Finding("ground_by_coolant", "doubt", (*where, "ground_strap"), "The ground goes through the coolant",
                      "A core on rubber with fans grounded to it, or an engine without its strap, sends current through the coolant: it eats aluminium from inside. Under 0.1 V between coolant and battery post with everything on is sound.",
                      (flag_act("Straps from core and engine", (*where, "ground_strap"), True),))  # fmt: skip
