"""The figures of duty cases that were solved together, read off the answer."""

from __future__ import annotations

import numpy as np

from keelroom.assess.figures.airfigures import fan_figures, pressure_ladder
from keelroom.assess.figures.assessment import CaseFigures, Verdict
from keelroom.assess.figures.coolerfigures import cooler_figures, fluid_figures
from keelroom.assess.figures.in_hand import hand_of
from keelroom.assess.inputs.airside import air_side
from keelroom.assess.inputs.coolers import fitted
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.system import system_at
from keelroom.assess.inputs.translate import PointRow
from keelroom.assess.loop.figures import loop_cases
from keelroom.core.answer import Answer, worth_of_flow
from keelroom.core.coupling import commanded
from keelroom.core.operating_point import face_reynolds, mean
from keelroom.core.plant import Points
from keelroom.core.thermal.engine_heat import EngineHeat
from keelroom.core.valueless import valueless
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.package import Package
from keelroom.errors import SolveError

FASTER = (2.0, 1.2)
"""Times the coolant's speed in the tubes: two passes instead of one, and a pump turned a fifth faster."""

DOUBTS = {
    "heat": "heat to coolant",
    "core": "core conductance",
    "fans": "fan pressure",
    "leaks": "gaps and leaks",
    "road": "air from the road",
    "flow": "coolant flow",
    "air": "air at the core",
}
"""What is in doubt of an answer, in words; in the order it is listed."""


def case_figures(
    build: Build, package: Package, cases: list[DutyCase], points: Points, answer: Answer
) -> list[CaseFigures]:
    """What each case comes to. Raises SolveError where a figure has no value: nothing that is no number leaves here."""
    state, fixed = answer.solution.state, answer.solution.fixed
    running = fixed.running
    drawn, burnt = running.flows.core, mean_heat(answer)
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
        system = system_at(build, package, demand_of(build.brief, cases[i]).at)
        temperature, high = float(answer.temperature[i]), float(answer.band.high[i])
        fluids = fluid_figures(there, points, answer, accessories.refrigerant, i)
        density, taken = float(fixed.outdoor_density[i]), max(float(grille[i]), 0.0)
        figures.append(
            sound(
                CaseFigures(
                    temperature=temperature,
                    mean=float(state.temperature[i]),
                    swings_from=float(answer.settled_at.bottom[i]),
                    fan_on_at=float(answer.fan_on_at[i]),
                    chance=float(answer.band.chance[i]),
                    low=float(answer.band.low[i]),
                    high=high,
                    verdict=_verdict(
                        bool(settled[i]),
                        (temperature, high),
                        float(points.plant.limit[i]),
                        float(answer.band.chance[i]),
                    ),
                    margin=float(answer.margin[i]),
                    in_hand=hand_of(points, answer, i),
                    boiling=float(answer.boiling[i]),
                    heat_in=float(state.given[i]),
                    rejection_at_limit=float(answer.rejection_at_limit[i]),
                    heat_by_cause=_heat_by_cause(points, answer, burnt, i),
                    doubt_by_cause=tuple(
                        (word, float(getattr(answer.band.worth, cause)[i])) for cause, word in DOUBTS.items()
                    ),
                    climb=float(answer.climb[i]),
                    time_to_limit=float(answer.time_to_limit[i]),
                    airflow=float(total[i]) / density,
                    airflow_fans_on=float(np.maximum(drawn[i], 0.0).sum()) / density,
                    face_speed=float(
                        total[i] / density / (points.plant.core.face_width[i] * points.plant.core.face_height[i])
                    ),
                    front_air=float(state.front_air[i]),
                    air_in=float(state.air_in[i]),
                    air_out=float(state.air_out[i]),
                    bay_air=float(state.bay_air[i]),
                    recirculated=float(back[i]) / max(taken + float(back[i]), 1e-9),
                    back_through=float(np.maximum(-drawn[i], 0.0).sum() / max(np.maximum(drawn[i], 0.0).sum(), 1e-9)),
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
                    brake_power=float(burnt.brake[i]),
                    fuel_power=float(burnt.fuel[i]),
                    power_short=float(running.heat.short[i]),
                    louver_reynolds=float(reynolds[i]),
                    tube_reynolds=float(state.tube_reynolds[i]),
                    faster_coolant=(float(faster[i, 0]), float(faster[i, 1])),
                    pressures=pressure_ladder(side, answer, points, i),
                    loop=loops[i],
                )
            )
        )
    return figures


def sound(figures: CaseFigures) -> CaseFigures:
    """The figures, every one of which is one. Raises SolveError naming the first that has no value."""
    if valueless(figures):
        name = next(name for name, value in zip(CaseFigures._fields, figures, strict=True) if valueless((value,)))
        raise SolveError("no_value", f"the figure “{name.replace('_', ' ')}” came out without a value", figure=name)
    return figures


EVEN = 0.35
"""Chance of passing the limit from which on a case is no longer said to hold: about one in three."""


def verdict_of(row: PointRow, answer: Answer, at: int) -> Verdict:
    """The verdict of a solved point."""
    ends = float(answer.temperature[at]), float(answer.band.high[at])
    return _verdict(bool(answer.settled[at]), ends, float(row.points.plant.limit), float(answer.band.chance[at]))


def _verdict(settled: bool, ends: tuple[float, float], limit: float, chance: float) -> Verdict:
    """ends: what it settles at and its hot end [degC]"""
    temperature, high = ends
    if not settled:
        return "does_not_settle"
    if temperature > limit:
        return "over"
    if high > limit:
        return "even" if chance > EVEN else "tight"
    return "holds"


def mean_heat(answer: Answer) -> EngineHeat:
    """The engine's powers over the fans' on and off times: fuel and heat of a case that cycles stand on one basis."""
    fixed, load = answer.solution.fixed, answer.solution.state.load
    return EngineHeat(*(mean(load, off, on) for off, on in zip(fixed.stopped.heat, fixed.running.heat, strict=True)))


def _heat_by_cause(points: Points, answer: Answer, heat: EngineHeat, i: int) -> tuple[tuple[str, float], ...]:
    """The coolant's heat split by what asked for the power, in proportion to it; sums to the heat in."""
    fixed, found = answer.solution.fixed, answer.solution.state.exchanged
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
