"""One operating point: rejection and heat in at an engine-outlet temperature, and the temperature where they meet.

Fans set the air, air and coolant set the rejection, fans load the alternator, the alternator loads the engine, the
engine heats the coolant and the bay, hot bay air comes back to the face, the coolant commands thermostat and fans.
Compiled where a C compiler was at hand (`meeting.pxd` types it).
"""

import numpy as np

from keelroom.core.coolers.exchange import SWEEPS
from keelroom.core.electrical.point import commanded_share, power_share, sensed
from keelroom.core.enclosed import Enclosed
from keelroom.core.fluids.point import conductivity, coolant_at, heat_capacity, viscosity
from keelroom.core.joint.car import ask, softened
from keelroom.core.loop.point import opening_at, weigh
from keelroom.core.plant import AS_COMMANDED, CEILING, LEAST_FLOW, LOST, SETTLES, STEPS, STUCK
from keelroom.core.thermal.point import air_conductance, air_film, tube_nusselt

TOLERANCE = 1e-10
"""Largest imbalance of heat, as a share of the heat in."""
TANK_FLOOR = 4.0
"""Times what a cooler in the tank hands over per kelvin that the coolant through the core carries at least: slower
flow is taken as that."""
LEAST_FLUX = 2e-3
"""Flux [kg/s per m2] at which the conductance of slower air is taken: the correlations say nothing of still air."""
FIRST_LEAD = 12.0
"""[K] over the thermostat's rating at which a search begins."""


class FlowRows:
    """Air flows of n paths as memory to read by rows: `network.AirFlows`, those that the joint needs."""


class BreathRows:
    """Their air: `network.Breath`."""


class HeatRows:
    """Their engines' heat: `engine_heat.EngineHeat`, what goes into fluids."""


class AirRows:
    """n air paths at one state of the fans: `plant.AirAt`, as far as the joint asks."""


class PreparedRows:
    """What does not change with the coolant's temperature: the air with the fans running and stopped, the loop's flows
    at openings of the thermostat, what their slopes there are of them, and the tubes it was worked out with."""


class PlantRows:
    """What n cars are and are asked beside their air path."""


def weighed(share, off, off_flow, on, on_flow):
    """Mean temperature of the air of two states of the fans, weighed by what is there in their off and on times."""
    off_weight, on_weight = (1 - share) * off_flow + 1e-12, share * on_flow + 1e-12
    return (off_weight * off + on_weight * on) / (off_weight + on_weight)


def mean(share, off, on):
    """A mean over the fans' off and on times. Source: mean over times."""
    return off + share * (on - off)


class Meeting:
    """One point at a time: at `evaluate` everything is worked out at an engine-outlet temperature [degC].

    blown : row of the air path with the fans running;  held, held_power : shares of full flow and power the fans are
    held at whatever the sensor reads, under 0 where they are not;  doubt : factor on the core's conductance beside the
    point's own;  pace, more : factors on the coolant's flow and on the heat
    """

    def __init__(self, car, plant, prepared, coolers, face):
        self.car, self.plant, self.prepared, self.coolers, self.face = car, plant, prepared, coolers, face
        self.classes, self.row, self.blown = self.face.classes, 0, 0
        self.flow, self.search = np.zeros(self.classes), Enclosed()
        self.held, self.held_power = AS_COMMANDED, AS_COMMANDED
        self.doubt, self.pace, self.more = 1.0, 1.0, 1.0
        self.openings = prepared.openings.shape[0]
        self.weights = np.zeros(self.openings)

    def hold(self, blown, held):
        """Say how the point is looked at."""
        self.blown, self.held, self.held_power = blown, held[0], held[1]
        self.doubt, self.pace, self.more = held[2], held[3], held[4]

    def through_loop(self, opening):
        """Flows [m3/s] through engine and core at an opening of the thermostat: a cubic between those solved."""
        weigh(self.prepared.openings, self.prepared.steepness, opening, self.weights)
        self.coolant_flow = self.core_flow = 0.0
        pace = self.pace * self.car.doubts.flow[self.row]
        for j in range(self.openings):
            self.coolant_flow += pace * self.weights[j] * self.prepared.engine[self.row, j]
            self.core_flow += pace * self.weights[j] * self.prepared.core[self.row, j]

    def felt(self, heat):
        """What the thermostat's element feels [degC]. One at the inlet feels what full flow would bring there: its own
        throttling is not followed round the circle."""
        if self.plant.circuit.at_inlet[self.row] > 0:
            last = self.prepared.engine[self.row, self.openings - 1]
            return self.temperature - heat / (last * self.per_flow)
        return self.temperature

    def drop_ahead(self):
        """Kelvin between engine outlet and lower hose at the flow the thermostat lets through; all heat is taken to
        leave in the core."""
        if self.plant.sensing.after_core[self.row] <= 0:
            return 0.0
        heat = self.prepared.stopped.into_coolant[self.row]
        self.through_loop(opening_at(self.plant.circuit, self.row, self.felt(heat)))
        return heat / (self.core_flow * self.per_flow)

    def command_fans(self):
        """What the sensor reads, and the shares of flow and power the fans are run at."""
        i = self.row
        self.reading = sensed(self.plant.sensing, i, self.temperature, self.drop_ahead())
        if self.held >= 0:
            self.command = max(self.held, self.plant.law.least[i])
            self.load = max(self.held_power, self.plant.law.least_power[i])
        else:
            self.command = commanded_share(self.plant.law, i, self.reading)
            self.load = power_share(self.plant.law, i, self.reading)

    def mix_air(self):
        """Air through the core, at the face and in the bay, in the mean over the fans' off and on times.

        Exact in the mean for fans that switch on and off. For fans that run slower instead it gives too much: through
        the core up to an eighth of the full flow at 30 % of speed, a sixteenth at 70 %, measured against the path
        solved at that speed.
        """
        i, on, share = self.row, self.blown, self.command
        self.forward = 0.0
        for k in range(self.classes):
            self.flow[k] = mean(share, self.prepared.stopped.flows.core[i, k], self.prepared.running.flows.core[on, k])
            self.forward += max(self.flow[k], 0.0)
        self.front_air = weighed(
            share,
            self.prepared.stopped.breath.front_temperature[i],
            max(self.prepared.stopped.flows.grille[i], 0.0) + self.prepared.stopped.flows.back[i],
            self.prepared.running.breath.front_temperature[on],
            max(self.prepared.running.flows.grille[on], 0.0) + self.prepared.running.flows.back[on],
        )
        self.bay_air = weighed(
            share,
            self.prepared.stopped.breath.bay_temperature[i],
            max(self.prepared.stopped.flows.exit[i], 0.0),
            self.prepared.running.breath.bay_temperature[on],
            max(self.prepared.running.flows.exit[on], 0.0),
        )

    def burn(self):
        """What the engine gives its fluids, in the mean over the fans' off and on times."""
        i, on, load = self.row, self.blown, self.load
        self.into_gearbox = self.more * mean(
            load, self.prepared.stopped.heat.gearbox[i], self.prepared.running.heat.gearbox[on]
        )
        self.into_oil = self.more * mean(load, self.prepared.stopped.heat.oil[i], self.prepared.running.heat.oil[on])
        self.into_charge = mean(load, self.prepared.stopped.heat.charge[i], self.prepared.running.heat.charge[on])
        self.charge_flow = mean(
            load, self.prepared.stopped.heat.charge_flow[i], self.prepared.running.heat.charge_flow[on]
        )
        coolant = mean(load, self.prepared.stopped.heat.coolant[i], self.prepared.running.heat.coolant[on])
        self.own = self.more * self.car.doubts.heat[i] * coolant
        self.heat_in = mean(load, self.prepared.stopped.into_coolant[i], self.prepared.running.into_coolant[on])

    def cool(self, capacity):
        """What the coolers do with the coolant of a capacity [W/K] through the core."""
        i = self.row
        ask(self.coolers, self.car, i, self.into_gearbox, self.into_oil, self.into_charge, self.charge_flow)
        # A cooler in the outlet tank lies in what the core has cooled; a core that hardly flows cools down to its air.
        carries = max(capacity, TANK_FLOOR * self.coolers.coolers.tank[i] + 1.0)
        self.coolers.outside = self.car.climate.ambient[i] + self.car.climate.grille_rise[i]
        self.coolers.front, self.coolers.bay, self.coolers.cp = self.front_air, self.bay_air, self.cp
        self.coolers.behind = self.front_air + softened(self.own / (max(self.forward, LEAST_FLOW) * self.cp))
        self.coolers.tank_warm = max(self.temperature - self.own / carries, self.front_air)
        self.coolers.tank_rise, self.coolers.block = -1 / carries, self.temperature
        self.coolers.exchange(i, self.flow, 0, self.car.fluids.own_air, SWEEPS)
        self.given = self.own + self.coolers.tank - self.coolers.from_block

    def meet_air(self):
        """What air each class of the face brings: its flux, and its temperature behind the covers ahead of it."""
        i, lead = self.row, 0.0
        for k in range(self.classes):
            warm = self.front_air
            for e in range(self.coolers.count):
                if self.coolers.coolers.ahead[i, e] > 0:
                    warm += self.coolers.coolers.covered[i, k, e] * self.coolers.rise[e]
            forward = max(self.flow[k], 0.0)
            self.face.warm[k] = warm
            self.face.flux[k] = forward / max(self.car.network.area[i, k], 1e-9)
            lead += forward * warm
        self.air_in = lead / self.forward if self.forward > 1e-9 else self.front_air

    def tube_side(self):
        """Film, fouling and bond of the coolant's side in series [m2K/W per m2 of face]. Source: TALER, SHAH_LONDON."""
        i = self.row
        warm = 0.7 * self.temperature + 0.15 * (self.temperature + self.air_in)
        rho, cp, conducts, mu = coolant_at(self.plant.coolant, i, warm)
        diameter = self.car.surfaces.coolant_diameter[i]
        section = self.prepared.tubes.number[i] * self.car.surfaces.tube_section[i]
        self.tube_reynolds, self.tube_prandtl = rho * self.core_flow / section * diameter / mu, mu * cp / conducts
        nusselt = tube_nusselt(
            self.tube_reynolds,
            self.tube_prandtl,
            self.prepared.tubes.aspect[i],
            diameter / self.prepared.tubes.length[i],
        )
        inner = self.car.surfaces.inner_area[i]
        self.film = diameter / (self.car.core.turbulator[i] * nusselt * conducts) / inner
        return (
            self.film
            + self.car.core.fouling[i] / inner
            + self.car.core.bond_resistance[i] / self.car.surfaces.tube_area[i]
        )

    def conduct(self, resistance):
        """Coolant-to-air conductance of each class per square metre of face [W/m2K]: resistances in series."""
        i, film, lead = self.row, 0.5 * (self.temperature + self.air_in), 0.0
        doubt = self.car.doubts.conductance[i] * self.doubt
        fins = air_film(
            self.car.core, self.car.surfaces, self.car.louver, i, viscosity(film), conductivity(film), self.cp
        )
        for k in range(self.classes):
            flux = max(self.face.flux[k], LEAST_FLUX)
            if k > 0 and flux == max(self.face.flux[k - 1], LEAST_FLUX):
                self.face.conductance[k] = self.face.conductance[k - 1]
            else:
                outer = air_conductance(self.car.core, self.car.surfaces, i, fins, flux)
                self.face.conductance[k] = doubt / (1 / outer + resistance)
            lead += max(self.flow[k], 0.0) * self.face.conductance[k]
        self.tube_share = self.film * lead / max(self.forward, 1e-9) / doubt

    def evaluate(self, i, temperature):
        """Rejection and heat in of point i at an engine-outlet temperature [degC].

        Source: KAYS_LONDON marching with the correlations of its parts.
        """
        self.row, self.temperature = i, temperature
        self.know_fluids()
        self.command_fans()
        self.burn()
        self.mix_air()
        self.opening = opening_at(self.plant.circuit, i, self.felt(self.heat_in))
        self.exchange()

    def know_fluids(self):
        """Capacities of the coolant's flow and of the air."""
        rho, cp, _, _ = coolant_at(self.plant.coolant, self.row, self.temperature)
        self.per_flow, self.cp = rho * cp, heat_capacity(self.car.outdoors.vapour[self.row])

    def exchange(self):
        """What the core gives the air, and the coolers, with the coolant that comes to it at `temperature`."""
        i = self.row
        self.through_loop(self.opening)
        self.cool(self.core_flow * self.per_flow)
        self.meet_air()
        self.conduct(self.tube_side())
        self.face.meet(i, self.car.surfaces.face_area[i], self.cp)
        self.face.march(i, self.core_flow * self.per_flow, self.temperature)
        self.rejection = self.face.heat + self.heat_in - self.given
        self.margin = self.rejection - self.heat_in

    def settle(self, i, first, slope):
        """Search for the engine-outlet temperature at which rejection equals heat in, from a first idea of it and of
        how the margin rises, under 0 where there is none.

        Rejection less heat in rises with temperature, so a bracketed secant cannot miss it. Where even CEILING is not
        enough the state is the one at the ceiling. Source: bracketed secant on the heat balance.
        """
        # No colder than the air at the grille: there is heat in, and nothing to take it.
        ambient = self.car.climate.ambient[i]
        low = ambient + self.car.climate.grille_rise[i]
        at = min(max(first, low + 0.5), CEILING)
        self.search.begin(low, CEILING)
        self.slope = slope
        for step in range(1, STEPS + 1):
            self.evaluate(i, at)
            self.off, self.steps = abs(self.margin) / self.heat_in, step
            if at >= CEILING and self.margin < 0:
                self.off = 0.0
                return STUCK
            if self.off < TOLERANCE:
                return SETTLES
            # A face wholly behind metal rejects nothing: its slope is taken as next to nothing, not as none.
            idea = slope if slope > 0 else max(self.rejection, 1.0) / max(at - ambient, 1.0)
            at = self.search.following(at, self.margin, idea)
            self.slope = self.search.slope
        return LOST

    def put(self, row, flux, cooler, fluids):
        """Write the state in the order of the record's fields."""
        row[0], row[1], row[2], row[3] = self.temperature, self.rejection, self.heat_in, self.given
        row[4], row[5], row[6], row[7] = self.coolant_flow, self.core_flow, self.opening, self.face.coolant_out
        row[8] = self.temperature - self.given / (self.coolant_flow * self.per_flow)
        row[9], row[10], row[11], row[12] = self.reading, self.command, self.load, self.front_air
        row[13], row[14], row[15] = self.air_in, self.air_in + self.face.heat / self.face.caught, self.bay_air
        row[16], row[17], row[18], row[19] = self.face.whole, self.tube_reynolds, self.tube_prandtl, self.tube_share
        for k in range(self.classes):
            flux[k] = self.face.flux[k]
        self.coolers.put(cooler, fluids)


def evaluate_points(one, rows, temperatures, held, states, flux, cooler, fluids):
    """States of points at engine-outlet temperatures (m) [degC], written into states (m, 20), flux (m, K), cooler (m,
    4, E) and fluids (m, 12). rows (m, 2) of the point and of its running air; held (m, 5): shares of flow and power,
    factors on conductance, on the coolant's flow and on the heat."""
    for m in range(rows.shape[0]):
        one.hold(rows[m, 1], held[m])
        one.evaluate(rows[m, 0], temperatures[m])
        one.put(states[m], flux[m], cooler[m], fluids[m])


def settle_points(one, rows, starts, held, states, flux, cooler, fluids, ends):
    """The same where rejection equals heat in. starts (m, 2): first ideas of temperature and slope, none under 0;
    ends (m, 4): how each search ended, slope, steps and what is left as a share of the heat in."""
    for m in range(rows.shape[0]):
        one.hold(rows[m, 1], held[m])
        first = starts[m, 0] if starts[m, 1] > 0 else one.plant.circuit.thermostat[rows[m, 0]] + FIRST_LEAD
        ends[m, 0] = one.settle(rows[m, 0], first, starts[m, 1])
        ends[m, 1], ends[m, 2], ends[m, 3] = one.slope, one.steps, one.off
        one.put(states[m], flux[m], cooler[m], fluids[m])


def face_at(one, row, temperature, held, meets, gives, leaves):
    """What every cell of a point's face meets and gives: meets (2, lanes, cells) capacity [W/K] and temperature
    [degC], gives (lanes, cells) [W/K], leaves (lanes, cells) [degC]."""
    one.hold(row, held)
    one.evaluate(row, temperature)
    for lane in range(one.face.lanes):
        each = one.face.of_cell(row, lane)
        for cell in range(one.face.cells):
            kind = one.face.face.which[row, lane, cell]
            meets[0, lane, cell], meets[1, lane, cell] = one.face.carried[kind] * each, one.face.met[kind]
            gives[lane, cell], leaves[lane, cell] = one.face.gives[kind] * each, one.face.air[lane, cell]
