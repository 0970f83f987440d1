"""Findings of the coolant circuit: whether coolant gets round, its thermostat, caps, pump, pressures, air, tanks and
what runs in it."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment, CaseResult
from keelroom.assess.figures.loop_told import stands_of
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.findings import Finding, Found, Level
from keelroom.assess.fixes import choose_act, flag_act, set_act
from keelroom.assess.inputs.coolant.flows import AIR_LEFT, pump_curve
from keelroom.assess.inputs.coolant.graph import CircuitFault, Graph, gates, graph_of
from keelroom.assess.inputs.coolant.heights import (
    WEAK_CAP,
    Cap,
    caps_of,
    core_top,
    heights_of,
    holding_cap,
    hood_over,
    rated_pressure,
)
from keelroom.assess.inputs.coolant.ports import CORE_IN, part_name, places_at, ports_taken
from keelroom.assess.inputs.coolant.volumes import TANKED, holds_of, share_of, volumes_of
from keelroom.assess.loop.air import HIGHER, KEPT, VENT_BORE
from keelroom.assess.loop.figures import LoopCase
from keelroom.assess.loop.order import circuit_order, is_long
from keelroom.assess.loop.strength import weakest
from keelroom.assess.placing import stand
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Part
from keelroom.document.schema.package import Package
from keelroom.facts import fact, given
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


def circuit(build: Build, package: Package, assessment: Assessment) -> Found:
    """Whether coolant gets round, and what lets it."""
    graph = graph_of(build, package)
    yield from _faults(package, graph)
    yield from _loose(package, graph)
    yield from _thermostat(package, graph)


def caps(build: Build, package: Package, assessment: Assessment) -> Found:
    """Caps, and what stands the pressure they hold."""
    yield from _caps(build, package)
    yield from _strength(build, package, assessment)


def pumps(build: Build, package: Package, assessment: Assessment) -> Found:
    """Where pumps stand and when they run; air left in."""
    yield from _pump(build, package, graph_of(build, package))
    yield from _air_left(package)


def flows(build: Build, package: Package, assessment: Assessment) -> Found:
    """How the coolant runs in the duty cases, and where it leaves air behind."""
    yield from _bypass(package, assessment)
    yield from _suction(package, assessment)
    yield from _flow(package, assessment)
    if graph_of(build, package).whole:
        yield from _air(build, package, assessment)


def filling(build: Build, package: Package, assessment: Assessment) -> Found:
    """Tanks, room over what is filled, and what is filled in."""
    yield from _tanks(build, package, graph_of(build, package))
    yield from _hood(build, package)
    yield from _coolant(package)


def _loose(package: Package, graph: Graph) -> Found:
    """What stands beside the circuit: it holds nothing, and its cap no pressure."""
    for part in package.loop.parts:
        if part.kind != "overflow" and not {part.id, f"{part.id}:in"} & set(graph.nodes):
            yield Finding(
                "part_loose",
                "doubt",
                ("packages", package.id, "loop", "parts", part.id, "name"),
                given(name=part_name(part)),
            )


FAULT_LEVELS: dict[str, Level] = {"loop_end": "doubt"}


def _faults(package: Package, graph: Graph) -> Found:
    for fault in graph.faults:
        code = fault.code
        yield Finding(
            code,
            FAULT_LEVELS.get(code, "problem"),
            fault.path,
            fault.figures,
            form=fault.form,
            fix=_ways_on(package, graph, fault),
        )


def _ways_on(package: Package, graph: Graph, fault: CircuitFault) -> tuple[Act, ...]:
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
    return teed + tuple(
        choose_act(f"Lead it to {port.name[:1].lower()}{port.name[1:]}", fault.path, port.key) for port in free[:1]
    )


def _air_left(package: Package) -> Found:
    state, where = package.loop.air_left, ("packages", package.id, "loop", "air_left")
    if state != "bled":
        share = (AIR_LEFT[state], "share")
        yield Finding("air_left", "problem", where, given(share=share), fix=(choose_act("Bled", where, "bled"),))


def _thermostat(package: Package, graph: Graph) -> Found:
    chosen, where = package.loop, ("packages", package.id, "loop", "thermostat_state")
    housed = any(part.kind == "thermostat" for part in chosen.parts)
    if chosen.thermostat_state == "reversed":
        yield Finding(
            "thermostat_reversed",
            "problem",
            where,
            fix=(choose_act("Turn it round: spring to the engine", where, "fitted"),),
        )
    if chosen.thermostat_state == "none" and not housed:
        yield Finding("thermostat_missing", "doubt", where, fix=(choose_act("Fit one", where, "fitted"),))
    if len(gates(graph)) > 1 and chosen.thermostat_state != "none":
        yield Finding(
            "two_thermostats",
            "problem",
            where,
            fix=(choose_act("Keep only the one in line", where, "none"),),
            value=float(len(gates(graph))),
            limit=1.0,
        )


def _caps(build: Build, package: Package) -> Found:
    caps, where = caps_of(build, package), ("packages", package.id, "loop")
    pressed = [cap for cap in caps if cap.kind == "pressure"]
    holding = holding_cap(build, package)
    if not pressed:
        yield Finding(
            "no_pressure_cap",
            "doubt",
            (*where, "core_neck"),
            fix=(choose_act("A pressure cap on the core", (*where, "core_neck"), "pressure"),),
        )
    if package.loop.cap_state == "weak" and pressed:
        at = (*where, "cap_state")
        share, fix = (WEAK_CAP, "share"), (choose_act("A new cap of its rating", at, "good"),)
        yield Finding("cap_weak", "problem", at, given(share=share), fix=fix)
    for cap in pressed:
        if len(pressed) > 1 and cap is not _kept_cap(pressed):
            yield Finding(
                "second_cap",
                "problem",
                cap.path,
                given(name=cap.name, rating=(holding.rating if holding else 0.0, "pressure")),
                fix=(choose_act("A plain cap there", cap.path, "plain"),),
                value=float(len(pressed)),
                limit=1.0,
            )


def _strength(build: Build, package: Package, assessment: Assessment) -> Found:
    found, where = stands_of(build, package, assessment), ("packages", package.id, "loop")
    least, held = weakest(found), rated_pressure(package.loop)
    if held > least.stands + 1.0:
        allowed = format_si(least.stands - 50.0, KINDS["pressure"], "si")
        yield Finding(
            "cap_over_weakest",
            "problem",
            (*where, "cap_pressure"),
            given(name=least.name, held=(held, "pressure"), stands=(least.stands, "pressure")),
            fix=(set_act(f"A cap of {both(least.stands, 'pressure')}", (*where, "cap_pressure"), allowed),),
            value=held,
            limit=least.stands,
        )
    else:
        over = next((one for one in found if one.short > 0), None)
        if over is not None:
            yield Finding(
                "pump_over_part",
                "doubt",
                over.path,
                given(name=over.name, meets=(over.meets, "pressure"), stands=(over.stands, "pressure")),
                value=over.meets,
                limit=over.stands,
            )


def _kept_cap(pressed: list[Cap]) -> Cap:
    """The one to keep: the highest, for it is where air comes; one whose height is not known last."""
    return max(pressed, key=lambda cap: cap.at if cap.at is not None else -1e9)


def _pump(build: Build, package: Package, graph: Graph) -> Found:
    chosen, where = package.loop, ("packages", package.id, "loop")
    pumps = [part for part in chosen.parts if part.kind == "pump"]
    _, wrong = pump_curve(chosen)
    if wrong:
        yield Finding("pump_curve", "problem", (*where, "pump_curve"), given(wrong=wrong))
    if pumps and chosen.pump == "mechanical":
        # Alone it would have to stand in the main way: beside it, nothing would be moved.
        alone = any(branch.part in pumps for branch in graph.order if branch.part)
        only = choose_act("Only the electric one", (*where, "pump"), "electric")
        yield Finding(
            "pump_unused",
            "doubt",
            (*where, "pump"),
            given(name=part_name(pumps[0])),
            fix=(
                choose_act("Count both", (*where, "pump"), "both"),
                *((only,) if alone else ()),
            ),
        )
    if not pumps and chosen.pump == "both":
        yield Finding(
            "pump_absent",
            "problem",
            (*where, "pump"),
            fix=(choose_act("Only the engine’s", (*where, "pump"), "mechanical"),),
        )
    for part in pumps:
        yield from _pump_stands(build, package, graph, part)
    limit = build.brief.cooling.limit
    if chosen.pump != "mechanical" and chosen.pump_on and limit and chosen.pump_on.si >= limit.si - SAFE:
        usual = min(60.0, limit.si - 30)
        yield Finding(
            "pump_late",
            "problem",
            (*where, "pump_on"),
            given(pump_on=(chosen.pump_on.si, "temperature"), limit=(limit.si, "temperature")),
            fix=(set_act(f"Start it at {both(usual, 'temperature')}", (*where, "pump_on"), f"{usual:.0f} °C"),),
            value=chosen.pump_on.si,
            limit=limit.si,
        )


def _pump_stands(build: Build, package: Package, graph: Graph, part: Part) -> Found:
    where, name = ("packages", package.id, "loop", "parts", part.id), part_name(part)
    if part.lying:
        yield Finding(
            "pump_on_side",
            "problem",
            (*where, "lying"),
            given(name=name),
            fix=(flag_act("Set it upright", (*where, "lying"), False),),
        )
    if part.outlet != "up":
        yield Finding(
            "pump_outlet",
            "problem",
            (*where, "outlet"),
            given(name=name),
            fix=(choose_act("Turn its outlet up", (*where, "outlet"), "up"),),
        )
    others = [
        at for node, at in heights_of(build, package).items() if at is not None and not node.startswith(f"{part.id}:")
    ]
    if part.y is None or not others:
        return
    lowest, top = min(others), core_top(build.survey, package)
    down = (set_act(f"Lower it to {both(lowest - 0.03, 'length')}", (*where, "y"), f"{(lowest - 0.03) * 1e3:.0f} mm"),)
    if part.y.si > top:
        yield Finding(
            "pump_high",
            "problem",
            (*where, "y"),
            given(name=name, over=(part.y.si - top, "length")),
            fix=down,
            value=part.y.si,
            limit=lowest,
        )
    elif part.y.si > lowest + HIGHER:
        yield Finding(
            "pump_not_lowest",
            "doubt",
            (*where, "y"),
            given(name=name, over=(part.y.si - lowest, "length")),
            fix=down,
            value=part.y.si,
            limit=lowest,
        )


def _bypass(package: Package, assessment: Assessment) -> Found:
    """A pump in the core's line that outdoes the engine's draws coolant backwards through the bypass."""
    wrong = [
        case
        for case in assessment.cases
        if case.figures and case.figures.core_coolant_flow > 1.02 * case.figures.coolant_flow
    ]
    if wrong and package.loop.bypass == "inside":
        worst = max(
            wrong, key=lambda case: case.figures.core_coolant_flow - case.figures.coolant_flow if case.figures else 0.0
        )
        figures = worst.figures
        assert figures is not None
        path = ("packages", package.id, "loop", "bypass")
        yield Finding(
            "bypass_backwards",
            "problem",
            path,
            given(
                name=worst.name,
                core_coolant_flow=(figures.core_coolant_flow, "coolant flow"),
                coolant_flow=(figures.coolant_flow, "coolant flow"),
            ),
            fix=(choose_act("Block the bypass", path, "blocked"),),
            value=figures.core_coolant_flow,
            limit=figures.coolant_flow,
        )


def _settled(assessment: Assessment) -> list[tuple[CaseResult, LoopCase]]:
    return [
        (case, case.figures.loop)
        for case in assessment.cases
        if case.figures and case.figures.verdict != "does_not_settle"
    ]


def _suction(package: Package, assessment: Assessment) -> Found:
    found = _settled(assessment)
    if not found:
        return
    case, worst = min(found, key=lambda one: one[1].suction.margin)
    spot = worst.suction
    if spot.margin < SAFE:
        where = ("packages", package.id, "loop", "cap_pressure")
        level: Level = "problem" if spot.margin < 0 else "doubt"
        yield Finding(
            "suction_boils",
            level,
            where,
            given(
                name=case.name,
                margin=(spot.margin, "temperature difference"),
                temperature=(spot.temperature, "temperature"),
                pressure=(spot.pressure, "pressure"),
            ),
            form="boils" if spot.margin < 0 else "",
            value=spot.margin,
            limit=SAFE,
        )


def _flow(package: Package, assessment: Assessment) -> Found:
    idle = assessment.idle
    if idle is not None and idle.verdict != "does_not_settle":
        drop = idle.mean - idle.coolant_out
        if drop > MOST_DROP and idle.thermostat_opening > 0.9:
            yield Finding(
                "core_flow_small",
                "doubt",
                ("packages", package.id, "loop", "pulley_ratio"),
                given(
                    core_coolant_flow=(idle.core_coolant_flow, "coolant flow"), drop=(drop, "temperature difference")
                ),
                value=drop,
                limit=MOST_DROP,
            )
    for case in assessment.cases:
        figures = case.figures
        if (
            figures is None
            or figures.speed < 5
            or figures.tube_reynolds >= LAMINAR
            or figures.verdict == "does_not_settle"
        ):
            continue
        if figures.faster_coolant[0] > NOTICED and figures.thermostat_opening > 0.9:
            passes, pump = figures.faster_coolant
            yield Finding(
                "tubes_laminar",
                "note",
                ("duty_cases", case.case_id),
                given(
                    name=case.name,
                    reynolds=(figures.tube_reynolds, "number"),
                    passes=(passes, "temperature difference"),
                    pump=(pump, "temperature difference"),
                ),
                source="SHAH_LONDON",
                value=figures.tube_reynolds,
                limit=LAMINAR,
            )


def _air(build: Build, package: Package, assessment: Assessment) -> Found:
    found = air_in(build, package, assessment)
    for high in found.highs:
        if high.outcome not in KEPT:
            continue
        hose = _screw_at(package, build, high.key)
        fixes = (
            (flag_act("A bleed screw there", ("packages", package.id, "loop", "hoses", hose, "bleed"), True),)
            if hose
            else ()
        )
        level: Level = "problem" if high.outcome == "stays" else "doubt"
        rates = {
            name: (value, "coolant speed")
            for name, value in (("drift", high.drift), ("clears", high.clears), ("speed", high.speed))
        }
        moving = fact("bubble_climbs", **rates) if high.drift else fact("nothing_runs")
        yield Finding(
            "air_trap",
            level,
            high.path,
            given(name=high.name, at=(high.at, "length"), moving=moving),
            form=high.outcome,
            fix=fixes,
            value=high.speed,
            limit=high.clears,
        )
    necks = [cap for cap in caps_of(build, package) if cap.at is not None]
    summit = max(found.highs, key=lambda high: high.at, default=None)
    if necks and summit is not None and not any(part.kind == "filler" for part in package.loop.parts):
        best = max(necks, key=lambda cap: cap.at or 0.0)
        top = summit.at
        if best.at is not None and top > best.at + 0.05:
            yield Finding(
                "filler_low",
                "doubt",
                best.path,
                given(over=(top - best.at, "length")),
                fix=(Act("add_filler", "Put a filler neck there", package.id, (("at", summit.key),)),),
                value=best.at,
                limit=top,
            )


def _screw_at(package: Package, build: Build, key: str) -> str:
    """A hose on which a bleed screw would empty a high point; '' where no hose goes there."""
    if key.startswith("hose:"):
        return key.split("#", maxsplit=1)[0].removeprefix("hose:")
    graph = graph_of(build, package)
    nodes = places_at(CORE_IN if key == "core" else key)
    return next(
        (run.hose.id for run in graph.runs if nodes & {run.start.node, run.end.node} and run.bore >= VENT_BORE), ""
    )


def _tanks(build: Build, package: Package, graph: Graph) -> Found:
    volumes, where = volumes_of(build, package), ("packages", package.id, "loop")
    if volumes is None:
        return
    room, kept = volumes.room, [part for part in volumes.tanks if part.holds is not None]
    if volumes.tanks and len(kept) == len(volumes.tanks) and sum(map(holds_of, kept)) < room.wanted - 1e-7:
        largest = max(kept, key=holds_of)
        path, short = (*where, "parts", largest.id, "holds"), room.wanted - sum(map(holds_of, kept))
        size = f"{(holds_of(largest) + short) * 1.08e3:.2f} L"
        yield Finding(
            "tank_small",
            "problem",
            path,
            given(
                name=part_name(largest),
                holds=(sum(map(holds_of, kept)), "volume"),
                total=(volumes.total, "volume"),
                growth=(room.growth, "volume"),
                wanted=(room.wanted, "volume"),
            ),
            fix=(set_act(f"One of {size}", path, size),),
            value=sum(map(holds_of, kept)),
            limit=room.wanted,
        )
    if not graph.whole:
        return
    order = circuit_order(graph)
    if is_long(graph) and not any(part.kind in ("surge_tank", "expansion_tank") for part in package.loop.parts):
        yield Finding(
            "no_surge_tank",
            "problem",
            (*where, "parts"),
            fix=(Act("add_surge_tank", "Put a surge tank after the engine", package.id),),
        )
    for part in package.loop.parts:
        if part.kind == "surge_tank" and part.id not in order:
            yield Finding(
                "tank_aside",
                "doubt",
                (*where, "parts", part.id, "kind"),
                given(name=part_name(part)),
                fix=(choose_act("It is an expansion tank", (*where, "parts", part.id, "kind"), "expansion_tank"),),
            )
    for run in graph.runs:
        tank = next((one for one in package.loop.parts if one.kind in TANKED and one.id == run.end.node), None)
        if tank is None or tank.kind == "overflow" or run.end.key.split(":")[1] not in ("vent", "vent2"):
            continue
        line = (*where, "hoses", run.hose.id, "bore")
        if run.bore >= VENT_BORE:
            yield Finding(
                "vent_wide",
                "doubt",
                line,
                given(name=run.name, bore=(run.bore, "length")),
                fix=(set_act("3/8 in", line, "3/8 in"),),
                value=run.bore,
                limit=VENT_BORE,
            )
        low, high = run.start.at[1], run.end.at[1]
        if low is not None and high is not None and high < low - HIGHER:
            yield Finding(
                "vent_falls",
                "problem",
                (*where, "parts", tank.id, "y"),
                given(name=run.name, falls=(low - high, "length")),
                fix=(
                    set_act(
                        f"Lift it to {both(low + 0.05, 'length')}",
                        (*where, "parts", tank.id, "y"),
                        f"{(low + 0.05) * 1e3:.0f} mm",
                    ),
                ),
                value=high,
                limit=low,
            )


NECK = 0.045
"""[m] a filler neck stands up with its cap on, at most as a rule (common practice: 1 to 1 3/4 in)."""


def _neck(build: Build, package: Package) -> Found:
    """A neck nobody measured, where the hood is near enough for it to matter."""
    if package.loop.core_neck == "none" or package.core.neck_height is not None:
        return
    top, under = core_top(build.survey, package), hood_over(build.survey, stand(build.survey, package).z)
    if under is not None and top + NECK > under:
        yield Finding(
            "neck_unmeasured",
            "doubt",
            ("packages", package.id, "core", "neck_height"),
            given(room=(max(under - top, 0.0), "length"), usual=(NECK, "length")),
            value=under - top,
            limit=NECK,
        )


def _hood(build: Build, package: Package) -> Found:
    yield from _neck(build, package)
    for part in package.loop.parts:
        under = hood_over(build.survey, part.z.si) if part.y is not None and part.z is not None else None
        if part.y is not None and under is not None and part.y.si > under:
            path = ("packages", package.id, "loop", "parts", part.id, "y")
            yield Finding(
                "part_over_hood",
                "problem",
                path,
                given(name=part_name(part), y=(part.y.si, "length"), under=(under, "length")),
                fix=(set_act(f"Lower it to {both(under - 0.02, 'length')}", path, f"{(under - 0.02) * 1e3:.0f} mm"),),
                value=part.y.si,
                limit=under,
            )


def _coolant(package: Package) -> Found:
    chosen, where, share = package.loop, ("packages", package.id, "loop"), share_of(package)
    if chosen.old_coolant == "other":
        yield Finding(
            "coolant_mixed",
            "problem",
            (*where, "old_coolant"),
            given(stays=(chosen.stays.si, "share")),
            fix=(choose_act("Flush it out with water first", (*where, "old_coolant"), "water"),),
        )
    if share >= WATERLESS and chosen.old_coolant in ("water", "other") and chosen.stays.si > 0.005:
        yield Finding(
            "waterless_wet",
            "problem",
            (*where, "stays"),
            given(stays=(chosen.stays.si, "share")),
            fix=(choose_act("New and dry", (*where, "old_coolant"), "none"),),
        )
    if not package.coolant.inhibitor:
        yield Finding(
            "no_inhibitor",
            "doubt",
            ("packages", package.id, "coolant", "inhibitor"),
            fix=(flag_act("With inhibitor", ("packages", package.id, "coolant", "inhibitor"), True),),
        )
    if not chosen.ground_strap:
        yield Finding(
            "ground_by_coolant",
            "doubt",
            (*where, "ground_strap"),
            fix=(flag_act("Straps from core and engine", (*where, "ground_strap"), True),),
        )
