"""The air of one solved point in figures a person understands: where each fan's air comes from, covers, pressures."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.assessment import CoverFigures, FanFigures
from keelroom.assess.inputs.airside import AirSide
from keelroom.core.air.network import BASE_PRESSURE
from keelroom.core.answer import Answer
from keelroom.core.coupling import commanded, cover_rise
from keelroom.core.electrical.motor import motor_power
from keelroom.core.fluids import air as moist_air
from keelroom.core.plant import Points
from keelroom.document.schema.package import Cover, Fan


class Origins(NamedTuple):
    """Shares of a zone's air: through the core, round the edge and through holes, back through a stopped fan."""

    core: float
    edge: float
    hole: float


def zone_origins(side: AirSide, answer: Answer, i: int) -> list[Origins]:
    """Where each zone's air comes from while the fans run."""
    flows = answer.solution.fixed.running.flows
    rear = side.classes.rear
    origins = []
    for number, zone in enumerate(side.zones):
        node = 2 + number
        through = sum(max(float(flows.core[i, k]), 0.0) for k in range(len(rear)) if rear[k] == node)
        if zone.pusher:
            origins.append(Origins(1.0, 0.0, 0.0))
            continue
        edge = max(float(flows.leaks[i, number]), 0.0) + max(-float(flows.flaps[i, number]), 0.0)
        back = sum(max(-float(flows.fans[i, f]), 0.0) for f, place in enumerate(side.fan_zone) if place == node)
        total = max(through + edge + back, 1e-12)
        origins.append(Origins(through / total, edge / total, back / total))
    return origins


def fan_figures(fans: tuple[Fan, ...], side: AirSide, points: Points, answer: Answer, i: int) -> tuple[FanFigures, ...]:
    """Every fan at point i. Flows are those while it runs, each at its own density; current and power are means over on and off."""
    running = answer.solution.fixed.running
    load = float(answer.solution.state.load[i])
    ahead, behind = float(answer.solution.fixed.outdoor_density[i]), float(running.breath.behind[i])
    total = max(float(np.maximum(running.flows.core[i], 0.0).sum()), 1e-9)
    origins = zone_origins(side, answer, i)
    own = points.plant.fans
    drawn = motor_power(own.power[i], running.speed[i], points.situation.command.voltage[i] / own.rated_voltage[i], own.brushless[i])
    found = []
    for k, fan in enumerate(fans[: len(side.fan_zone)]):
        node = side.fan_zone[k]
        pushes = fan.mount == "pusher"
        flow = float(running.flows.fans[i, k])
        origin = origins[node - 2]
        through = max(flow, 0.0) * origin.core
        voltage = float(points.situation.command.voltage[i, k])
        power = float(drawn[k])
        pressure = float(running.flows.pressures[i, node] - running.flows.pressures[i, 0 if pushes else 1])
        found.append(
            FanFigures(
                fan_id=fan.id,
                flow_at_fan=flow / (ahead if pushes else behind),
                flow_into_core=through / ahead,
                share=through / total,
                from_core=origin.core,
                from_edge=origin.edge,
                from_hole=origin.hole,
                pressure=pressure if pushes else -pressure,
                voltage=voltage,
                current=power / max(voltage, 1e-9) * load,
                power=power * load,
            )
        )
    return tuple(found)


def cover_figures(covers: tuple[Cover, ...], points: Points, answer: Answer) -> list[tuple[CoverFigures, ...]]:
    """Every cover at every point: heat given, air in and out, and the temperature its own fluid must have to give it.

    The fluid is taken as of one temperature over the cover (condensing refrigerant, or a small cooler's mean).
    """
    fixed, state = answer.solution.fixed, answer.solution.state
    cp = moist_air.heat_capacity(fixed.air)
    off, on = fixed.stopped.cover_heat, fixed.running.cover_heat
    heat = off + state.command[:, None] * (on - off)
    rise, flow = cover_rise(points.plant.covers, heat, commanded(fixed, state.command, "core"), cp)
    area = (points.plant.network.area[:, None, :] @ points.plant.covers.covered)[:, 0, :]
    capacity = np.maximum(flow * cp[:, None], 1e-6)
    given = rise * capacity
    effectiveness = 1 - np.exp(-points.plant.covers.conductance * area / capacity)
    lead = given / np.maximum(effectiveness * capacity, 1e-6)
    before = np.array([[float(_breathes_after(cover, other)) for other in covers] for cover in covers]).reshape(len(covers), len(covers))
    air_in = state.front_air[:, None] + rise[:, : len(covers)] @ before.T
    return [
        tuple(
            CoverFigures(cover.id, cover.kind, float(given[i, k]), float(flow[i, k]), float(air_in[i, k]), float(air_in[i, k] + rise[i, k]), float(air_in[i, k] + lead[i, k]))
            for k, cover in enumerate(covers)
        )
        for i in range(len(flow))
    ]  # fmt: skip


ORDER = ("screen", "charge_cooler", "oil_cooler", "gearbox_cooler", "condenser")
"""Front to back, where covers stand one behind another (common practice: what must be coolest breathes first)."""


def _breathes_after(cover: Cover, other: Cover) -> bool:
    """Whether `other` stands further forward and overlaps: its heat is in the air already."""
    return ORDER.index(other.kind) < ORDER.index(cover.kind) and _overlap(cover, other)


def _overlap(a: Cover, b: Cover) -> bool:
    def spans(low: float, size: float | None) -> tuple[float, float]:
        return low, low + (size if size is not None else 10.0)

    pairs = (
        (spans(a.left.si, a.width.si if a.width else None), spans(b.left.si, b.width.si if b.width else None)),
        (spans(a.bottom.si, a.height.si if a.height else None), spans(b.bottom.si, b.height.si if b.height else None)),
    )
    return all(p[0] < q[1] and q[0] < p[1] for p, q in pairs)


def pressure_ladder(side: AirSide, answer: Answer, points: Points, i: int) -> tuple[tuple[str, float], ...]:
    """Pressures [Pa] above the still outdoor air from the grille to under the car, fans running."""
    running = answer.solution.fixed.running
    pressures = running.flows.pressures[i]
    stagnation = 0.5 * float(running.breath.ahead[i]) * float(points.situation.air_speed[i]) ** 2
    ladder = [("at the grille", stagnation), ("ahead of the core", float(pressures[0]))]
    for number, zone in enumerate(side.zones):
        place = (
            "in front of the pusher's core"
            if zone.pusher
            else "behind the core, in the shroud"
            if zone.rectangle
            else "behind the core, bare fan"
        )
        ladder.append((place if len(side.zones) == 1 else f"{place} {number + 1}", float(pressures[2 + number])))
    return (*ladder, ("in the bay", float(pressures[1])), ("under the car", BASE_PRESSURE * stagnation))
