"""`assess(build)`: a pure function of the build."""

from __future__ import annotations

from operator import is_

import numpy as np

from keelroom.assess.airfigures import fan_figures, pressure_ladder
from keelroom.assess.assessment import Assessment, CaseAmbients, CaseFigures, CaseResult, RulesOfThumb, Start, Totals, Verdict
from keelroom.assess.coolerfigures import cooler_figures, fluid_figures
from keelroom.assess.effort import cost, effort
from keelroom.assess.electrical.figures import electrics
from keelroom.assess.electrical.system import system_at
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.inputs.airside import air_side
from keelroom.assess.inputs.cases import idle_case
from keelroom.assess.inputs.coolers import fitted
from keelroom.assess.inputs.needs import needs_of
from keelroom.assess.inputs.translate import Row, car_of, row_of, stacked
from keelroom.assess.judge.judge import judge, reworded
from keelroom.assess.loop.figures import loop_cases
from keelroom.core import rules
from keelroom.core.ambients import holding_ambients
from keelroom.core.answer import Answer, following, steady_answer, worth_of_flow
from keelroom.core.coupling import commanded
from keelroom.core.kept import in_one_go
from keelroom.core.operating_point import face_reynolds
from keelroom.core.plant import Points
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.package import Package


@in_one_go
def assess(build: Build, package_id: str | None = None, previous: Assessment | None = None) -> Assessment:
    """The judgement of one package (the active one) over every duty case, whole.

    previous : an earlier assessment of a like build; the search starts there, the answer does not depend on it
    Raises SolveError as `first_wave` does.
    """
    return completed(build, first_wave(build, package_id, previous))


@in_one_go
def completed(build: Build, first: Assessment) -> Assessment:
    """An assessment with what takes longer: ambients that hold the limit, and the findings that tell them. Itself where it has them.

    Raises SolveError as `first_wave` does.
    """
    if not first.judged:
        first = first_wave(build, first.package_id, first)
    if first.complete or first.start is None:
        return first
    points, _ = stacked(list(first.start.rows))
    found = holding_ambients(points, first.start.answer, first.start.rows[0].layout)
    told = (CaseAmbients(float(holds), float(boils)) for holds, boils in zip(*found, strict=True))
    cases = tuple(case._replace(figures=case.figures._replace(ambients=next(told))) if case.figures else case for case in first.cases)
    package = next(p for p in build.packages if p.id == first.package_id)
    whole = first._replace(cases=cases)
    return whole._replace(findings=reworded(build, package, whole))


@in_one_go
def first_wave(build: Build, package_id: str | None = None, previous: Assessment | None = None, *, moving: bool = False) -> Assessment:
    """The judgement as far as it can follow the typing: all but what `completed` adds.

    previous : as `assess` takes it;  moving : something is dragged: every figure follows, the findings wait for the hand to rest
    Raises SolveError where a point that has a solution was not found; never returns an unconverged figure.
    """
    package = next(p for p in build.packages if p.id == (package_id or build.active))
    needs = {case.id: needs_of(build, package, case) for case in build.duty_cases}
    ready = [case for case in build.duty_cases if not needs[case.id]]
    car = car_of(build, package) if ready else None
    rows = [row_of(build, package, car, case) for case in ready] if car else []
    solved, start = _solved(build, package, ready, rows, (previous, moving))
    cases = tuple(CaseResult(case.id, case.name, solved.get(case.id), needs[case.id]) for case in build.duty_cases)
    idling = idle_case(build.duty_cases)
    idle = solved.get(idling.id) if idling else None
    limit, thermostat = build.brief.cooling.limit, package.loop.thermostat
    partial = Assessment(
        package_id=package.id,
        cases=cases,
        rules=_rules(build, package, idle),
        totals=_totals(build, package, idle),
        findings=(),
        limit=limit.si if limit else None,
        thermostat=thermostat.si if thermostat else None,
        boiling=min((c.figures.boiling for c in cases if c.figures), default=None),
        start=start,
        idle_id=idling.id if idling else "",
        fit=fit_up(build, package),
        electrics=electrics(build, package),
    )
    if moving and previous is not None:
        return partial._replace(findings=previous.findings, judged=False)
    return partial._replace(findings=judge(build, package, partial))


def _solved(
    build: Build, package: Package, ready: list[DutyCase], rows: list[Row], before: tuple[Assessment | None, bool]
) -> tuple[dict[str, CaseFigures], Start | None]:
    """Figures by duty case, and where the next assessment begins. The very rows of the last time have its figures.

    before : the previous assessment, and whether something moves
    """
    if not rows:
        return {}, None
    previous, moving = before
    last = previous.start if previous else None
    if last and previous and (moving or not last.followed) and len(last.rows) == len(rows) and all(map(is_, last.rows, rows)):
        return {case.case_id: case.figures for case in previous.cases if case.figures}, last
    points, doubt = stacked(rows)
    key = (rows[0].batch, points.plant.network.incidence.shape)
    alike = last.answer if last and last.key == key else None
    followed = alike if moving else None
    answer = following(points, rows[0].layout, followed) if followed else steady_answer(points, doubt, rows[0].layout, alike)
    figures = _figures(build, package, ready, points, answer)
    return {case.id: found for case, found in zip(ready, figures, strict=True)}, Start(key, answer, tuple(rows), followed is not None)


FASTER = (2.0, 1.2)
"""Times the coolant's speed in the tubes: two passes instead of one, and a pump turned a fifth faster."""


def _figures(build: Build, package: Package, cases: list[DutyCase], points: Points, answer: Answer) -> list[CaseFigures]:
    state, fixed = answer.solution.state, answer.solution.fixed
    running = fixed.running
    side = air_side(build, package)
    core, grille, bypass = (commanded(fixed, state.command, name) for name in ("core", "grille", "bypass"))
    back = np.maximum(-bypass, 0.0) + np.maximum(-core, 0.0).sum(axis=1)
    total = np.maximum(core, 0.0).sum(axis=1)
    reynolds = face_reynolds(points, answer.solution)
    settled = answer.settled
    faster = worth_of_flow(points, answer, FASTER)
    accessories = build.brief.accessories
    there = fitted(package, accessories.ac_fitted)
    loops = loop_cases(build, package, points, answer)
    figures = []
    for i in range(len(cases)):
        fans = fan_figures(package.fans, side, points, answer, i)
        fan_current = sum(fan.current for fan in fans)
        system = system_at(build, package, cases[i])
        temperature, high = float(answer.temperature[i]), float(answer.band.high[i])
        fluids = fluid_figures(there, points, answer, accessories.refrigerant, i)
        density, taken = float(fixed.outdoor_density[i]), max(float(grille[i]), 0.0)
        figures.append(
            CaseFigures(
                temperature=temperature,
                mean=float(state.temperature[i]),
                swings_from=float(answer.settled_at.bottom[i]),
                fan_on_at=float(answer.fan_on_at[i]),
                chance=float(answer.band.chance[i]),
                low=float(answer.band.low[i]),
                high=high,
                verdict=_verdict(bool(settled[i]), temperature, high, float(points.plant.limit[i])),
                margin=float(answer.margin[i]),
                boiling=float(answer.boiling[i]),
                heat_in=float(state.given[i]),
                rejection_at_limit=float(answer.rejection_at_limit[i]),
                heat_by_cause=_heat_by_cause(points, answer, i),
                doubt_by_cause=(
                    ("heat to coolant", float(answer.band.from_heat[i])),
                    ("core conductance", float(answer.band.from_core[i])),
                    ("fan pressure", float(answer.band.from_fans[i])),
                    ("gaps and leaks", float(answer.band.from_leaks[i])),
                ),
                climb=float(answer.climb[i]),
                time_to_limit=float(answer.time_to_limit[i]),
                airflow=float(total[i]) / density,
                airflow_fans_on=float(np.maximum(running.flows.core[i], 0.0).sum()) / density,
                face_speed=float(total[i] / density / (points.plant.core.face_width[i] * points.plant.core.face_height[i])),
                front_air=float(state.front_air[i]),
                air_in=float(state.air_in[i]),
                air_out=float(state.air_out[i]),
                bay_air=float(state.bay_air[i]),
                recirculated=float(back[i]) / max(taken + float(back[i]), 1e-9),
                bypassed=max(float(bypass[i]), 0.0) / max(taken, 1e-9),
                coolant_out=float(state.coolant_out[i]),
                coolant_flow=float(state.coolant_flow[i]),
                core_coolant_flow=float(state.core_flow[i]),
                thermostat_opening=float(state.opening[i]),
                fan_command=float(state.command[i]),
                fans=fans,
                coolers=cooler_figures(there, fluids, answer, i),
                fluids=fluids,
                fan_current=fan_current,
                electrical_current=system.balance.wanted,
                mean_current=fan_current + system.balance.wanted - system.fan_amps,
                alternator_current=system.balance.available,
                system_voltage=system.balance.voltage,
                battery_current=system.balance.battery,
                battery_lasts=system.balance.lasts,
                rpm=float(points.situation.drive.rpm[i]),
                speed=float(points.situation.air_speed[i]),
                ambient=float(points.situation.climate.ambient[i]),
                brake_power=float(running.heat.brake[i]),
                fuel_power=float(running.heat.fuel[i]),
                power_short=float(running.heat.short[i]),
                louver_reynolds=float(reynolds[i]),
                tube_reynolds=float(state.tube_reynolds[i]),
                faster_coolant=(float(faster[i, 0]), float(faster[i, 1])),
                pressures=pressure_ladder(side, answer, points, i),
                loop=loops[i],
            )
        )
    return figures


def _verdict(settled: bool, temperature: float, high: float, limit: float) -> Verdict:
    if not settled:
        return "does_not_settle"
    if temperature > limit:
        return "over"
    return "tight" if high > limit else "holds"


def _heat_by_cause(points: Points, answer: Answer, i: int) -> tuple[tuple[str, float], ...]:
    """The coolant's heat split by what asked for the power, in proportion to it; sums to the heat in."""
    heat, fixed, found = answer.solution.fixed.running.heat, answer.solution.fixed, answer.solution.state.exchanged
    command = float(answer.solution.state.load[i])
    fans = float(fixed.running.power[i] / points.plant.vehicle.alternator_efficiency[i]) * command
    base = float(points.situation.drive.electrical[i] / points.plant.vehicle.alternator_efficiency[i])
    gearbox, oil = float(found.tank[i]), float(found.from_block[i])
    parts = {
        "road": float(heat.wheels[i]),
        "A/C, steering, converter": float(heat.accessories[i]),
        "electrical": base,
        "cooling fans": fans,
    }
    total = float(answer.solution.state.given[i]) - gearbox + oil
    # What the fuel does beyond brake power is the engine's own: friction, pumping and loss.
    work = sum(parts.values())
    efficiency = work / float(heat.fuel[i])
    own = max(0.0, 1.0 - efficiency / 0.36)
    scale = total * (1.0 - own) / work if work > 0 else 0.0
    split = [("engine friction and idling", total * own)]
    split += [(name, value * scale) for name, value in parts.items()]
    taken = [("taken by oil coolers", -oil)] if abs(oil) > 1e-6 else []
    return (*split, ("gearbox", gearbox), *taken)


def _rules(build: Build, package: Package, idle: CaseFigures | None) -> RulesOfThumb:
    engine, core = build.brief.engine, package.core
    area = core.face_width.si * core.face_height.si if core.face_width and core.face_height else None
    return RulesOfThumb(
        face_area=area,
        face_area_wanted=rules.face_area_wanted(engine.displacement.si) if engine.displacement else None,
        airflow=idle.airflow_fans_on if idle else None,
        airflow_wanted=rules.airflow_wanted(engine.displacement.si, engine.cylinders.si)
        if engine.displacement and engine.cylinders
        else None,
    )


def _totals(build: Build, package: Package, idle: CaseFigures | None) -> Totals:
    return Totals(
        amps_at_idle=idle.electrical_current if idle else None,
        alternator_at_idle=idle.alternator_current if idle else None,
        volts_at_idle=idle.system_voltage if idle else None,
        cost=cost(build, package),
        effort=effort(build, package),
    )
