"""The air of one solved point in figures a person understands: where each fan's air comes from, covers, pressures."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.figures.assessment import FanFigures
from keelroom.assess.inputs.airside import AirSide
from keelroom.assess.inputs.fans import annulus_of
from keelroom.core.answer import Answer
from keelroom.core.electrical.motor import motor_power
from keelroom.core.plant import Points
from keelroom.document.schema.package import Fan


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


SWIRL = 0.95
"""Share of the air's speed along its axis a vane anemometer shows in the swirl behind a fan (common practice: good to
10–20 %)."""
READING_DOUBT = 0.15
"""Standard doubt of such a reading, as a share (common practice)."""


def read_by_hand(fan: Fan, flow: float) -> float:
    """What a vane anemometer in flow mode makes of a flow [m3/s]: held in some places round the ring of blades, and
    their mean taken for the whole disc, hub and all."""
    ring = annulus_of(fan)
    disc = math.pi / 4 * fan.diameter.si**2 if fan.diameter else ring
    return flow * SWIRL * disc / ring


def fan_figures(fans: tuple[Fan, ...], side: AirSide, points: Points, answer: Answer, i: int) -> tuple[FanFigures, ...]:
    """Every fan at point i. Flows are those while it runs, each at its own density; current and power are means over
    on and off."""
    running = answer.solution.fixed.running
    load = float(answer.solution.state.load[i])
    ahead, behind = float(answer.solution.fixed.outdoor_density[i]), float(running.breath.behind[i])
    total = max(float(np.maximum(running.flows.core[i], 0.0).sum()), 1e-9)
    origins = zone_origins(side, answer, i)
    own = points.plant.fans
    drawn = motor_power(
        own.power[i], running.speed[i], points.situation.command.voltage[i] / own.rated_voltage[i], own.brushless[i]
    )
    found = []
    for k, fan in enumerate(fans[: len(side.fan_zone)]):
        node = side.fan_zone[k]
        pushes = fan.mount == "pusher"
        flow = float(running.flows.fans[i, k])
        moved = flow / (ahead if pushes else behind)
        origin = origins[node - 2]
        through = max(flow, 0.0) * origin.core
        voltage = float(points.situation.command.voltage[i, k])
        power = float(drawn[k])
        pressure = float(running.flows.pressures[i, node] - running.flows.pressures[i, 0 if pushes else 1])
        found.append(
            FanFigures(
                fan_id=fan.id,
                flow_at_fan=moved,
                read_by_hand=read_by_hand(fan, moved),
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
    return (*ladder, ("in the bay", float(pressures[1])), ("under the car", float(side.network.base) * stagnation))
