"""What is not known of operating points, and what that is worth: standard doubts of the entries, in watts of heat
margin."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.plant import AirAt, Fixed, Points, State
from keelroom.core.thermal.tube_side import nusselt_doubt

FAN_STEP, LEAK_STEP, ROAD_STEP, FLOW_STEP = 0.25, 0.5, 0.25, 0.25
"""Shares by which the fans, the coolant and what the road's air brings are weakened, and leak areas widened, to find
what their doubt is worth."""
VARIED = ((1 - FAN_STEP, 1.0, 1.0), (1.0, 1 + LEAK_STEP, 1.0), (1.0, 1.0, 1 - ROAD_STEP))
"""What the air is looked at with beside as it is entered: factors on the fans' pressure, on the area of leaks, and on
the pressure of the road's air."""
GEARBOX = 0.25
"""Standard doubt of what a gearbox gives the coolant in the tank, as a share (common practice)."""
AHEAD = 0.2
"""Standard doubt of how far what stands ahead of the core warms its air, as a share: the heat of an air conditioner
and the coolers' conductance (common practice)."""
HOTTER = np.array([1.0, -1.0, -1.0, 1.0, -1.0])
"""Which way more of heat, core, fans, leaks and flow moves the heat left over."""
LEAST_LEFT = 0.01
"""Share of the doubts squared that is left whatever ties them: a fit errs too."""
STILL = 1.0
"""[m/s] of air met under which openings count against the fans instead of against the road."""


class Unsure(NamedTuple):
    """Standard doubts of n points, (n,), shares of what they are of unless said.

    fans : of the shut-off pressure of the fans;  leaks : of the area of gaps;  core : of the core's conductance, beside
    what the film in its tubes has of its own
    road : of the pressure the road's air brings, ahead and behind, over its dynamic pressure;  openings : of the areas
    it comes in and leaves by
    flow : of the coolant's flow;  load : of the power at the wheels;  grille [K] : of the air at the grille
    tied (n, 5, 5) : correlations of heat, core, fans, leaks and flow; of nothing but themselves until a fit ties them
    """

    fans: Floats
    leaks: Floats
    core: Floats
    road: Floats
    openings: Floats
    flow: Floats
    load: Floats
    grille: Floats
    tied: Floats = np.eye(5)


class Looks(NamedTuple):
    """Rejection [W] by which points fall short, (n,): with the core and the fans weakened, leaks widened, the road's
    air weakened, the coolant slowed, by the steps above."""

    core: Floats
    fans: Floats
    leaks: Floats
    road: Floats
    flow: Floats


class Worth(NamedTuple):
    """Doubts in heat margin [W], one standard each, (n,): of what enters the coolant, of the core, its fans, the gaps,
    the road's air with its openings, the coolant's flow, and the air at the grille with what warms it there.

    Within one everything errs together (all fans of a package, all its gaps); shared [W2] : what heat, core, fans,
    leaks and flow have in common where a fit has tied them, under nought where they make up for each other.
    """

    heat: Floats
    core: Floats
    fans: Floats
    leaks: Floats
    road: Floats
    flow: Floats
    air: Floats
    shared: Floats

    @property
    def together(self) -> Floats:
        """All at once. Source: first-order propagation."""
        alone = sum(part**2 for part in self[:-1])
        whole: Floats = np.sqrt(np.maximum(alone + self.shared, LEAST_LEFT * alone))
        return whole


def worth_of(points: Points, fixed: Fixed, state: State, unsure: Unsure, looks: Looks) -> Worth:
    """What the doubts of n points are worth at their solved states.

    Source: first-order propagation; what is given by a look is in proportion to its step.
    """
    of_core = np.hypot(unsure.core, state.tube_share * nusselt_doubt(state.tube_reynolds))
    per_kelvin = state.rejection / np.maximum(state.temperature - state.air_in, 1.0)
    warmed = np.maximum(state.air_in - state.front_air, 0.0)
    fans, road = _air_worth(points, fixed, unsure, looks)
    # Only what was fitted is tied: of heat and fans that is the part the fit knows.
    law = points.plant.engine.law.doubt * state.heat_in
    core, leaks = looks.core * (of_core / FAN_STEP), looks.leaks * (unsure.leaks / LEAK_STEP)
    flow = looks.flow * (unsure.flow / FLOW_STEP)
    fitted = (law, looks.core * (unsure.core / FAN_STEP), looks.fans * (unsure.fans / FAN_STEP), leaks, flow)
    return Worth(
        heat=_heat_worth(points, fixed, state, unsure),
        core=core,
        fans=fans,
        leaks=leaks,
        road=road,
        flow=flow,
        shared=_shared(np.stack(fitted, axis=1) * HOTTER, unsure.tied),
        air=per_kelvin * np.hypot(unsure.grille, AHEAD * warmed),
    )


def _shared(worth: Floats, tied: Floats) -> Floats:
    """[W2] (n,) that n points' doubts (n, 5) [W] have in common by their correlations (n, 5, 5)."""
    return np.einsum("ni,nij,nj->n", worth, tied, worth) - (worth**2).sum(axis=1)  # type: ignore[no-any-return]


def _heat_worth(points: Points, fixed: Fixed, state: State, unsure: Unsure) -> Floats:
    """[W] of the engine's own law, of the load at the wheels, of the gearbox."""
    law, heat = points.plant.engine.law, fixed.running.heat
    # Fuel goes with brake power and friction together; the coolant's part with the fuel less its fall.
    asked = np.where(points.situation.drive.full_power > 0, 0.0, heat.wheels)
    loaded = state.heat_in * (1 - law.falls) * unsure.load * asked / np.maximum(heat.fuel * law.efficient, 1.0)
    whole: Floats = np.sqrt((law.doubt * state.heat_in) ** 2 + loaded**2 + (GEARBOX * state.exchanged.tank) ** 2)
    return whole


def _air_worth(points: Points, fixed: Fixed, unsure: Unsure, looks: Looks) -> tuple[Floats, Floats]:
    """[W] of the fans and of the road's air. What the openings are unsure of is a pressure: against the road's where
    the car moves, against the fans' where it stands."""
    network = points.plant.network
    head = 0.5 * fixed.outdoor_density * points.situation.air_speed**2
    moves, lost = points.situation.air_speed > STILL, _lost(fixed.running, network.ram * head, network.base * head)
    at_openings = 2 * unsure.openings * lost
    brought = np.maximum(head * (network.ram - network.base), 1e-3)
    against_road = np.hypot(unsure.road * head, at_openings) / brought
    thrust = np.maximum(_thrust(fixed.running), 1.0)
    against_fans = np.hypot(unsure.fans, np.where(moves, 0.0, at_openings / thrust))
    return looks.fans * (against_fans / FAN_STEP), np.where(moves, looks.road * (against_road / ROAD_STEP), 0.0)


def _lost(air: AirAt, ahead: Floats, behind: Floats) -> Floats:
    """[Pa] lost in the openings, in and out together as two that are independent. ahead, behind [Pa]: the road's."""
    front, bay = air.flows.pressures[:, 0], air.flows.pressures[:, 1]
    lost: Floats = np.hypot(np.maximum(ahead - front, 0.0), np.maximum(bay - behind, 0.0))
    return lost


def _thrust(air: AirAt) -> Floats:
    """[Pa] the strongest fan lifts from behind the core into the bay."""
    pressures = air.flows.pressures
    lifted: Floats = (pressures[:, 1:2] - pressures[:, 2:]).max(axis=1, initial=0.0)
    return lifted
