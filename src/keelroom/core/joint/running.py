"""One car over time: the joint point's heat, core, air, loop and coolers at every step, with what stores heat between.

Lumps: metal that coolant touches and the rest of the engine, coolant on its hot and on its cold side, core, engine oil,
gearbox fluid, the bay's air; hoses delay what goes through them. What comes to a steady end ends where `meeting` says:
every rate here is nothing there. Compiled where a C compiler was at hand (`running.pxd` types it).
"""

import math

import numpy as np

from keelroom.core.drive.places import (
    BAY,
    BOILED,
    BROKEN,
    CHARGE,
    COLD,
    CORE,
    DONE,
    ELEMENT,
    FANS,
    FULL,
    GEARBOX,
    GIVEN,
    HOT,
    JOINED,
    JUDGED,
    LOAD,
    LONGEST,
    LOWER,
    METAL,
    NEAR,
    NEEDLE,
    OIL,
    PASSED,
    READ,
    REST,
    SENDER,
    SHORTEST,
    SIZE,
    TAKEN,
    UPPER,
    WARM,
)
from keelroom.core.electrical.point import commanded_share, power_share, sensed
from keelroom.core.joint.meeting import Meeting, mean, weighed
from keelroom.core.loop.point import opening_at
from keelroom.core.plant import LEAST_FLOW

PER_SHARE = 4.0
"""What a share of the fans counts of what a kelvin does where a step is judged."""
SAFETY, GROWS, SHRINKS = 0.9, 3.0, 0.2
PART, LATER = 1 / (2 + math.sqrt(2)), 6 + math.sqrt(2)
"""Coefficients of the step's formula."""
SOON = 2.0
"""[s] a hose may hold the coolant back and still count as following at once, where slopes are guessed."""
STANDING_FILM = 0.12
"""Share of its rated conductance the jacket's film keeps in coolant that stands (common practice, no source)."""
MANY_UNITS = 20.0
"""Units of transfer past which the coolant leaves the core as warm as its air."""
LONG_AGO, NO_STATE = -1e6, 1e9
"""[s] the last change of a contact before a drive; an error of a step that came to no state."""
NEXT_LEG, SWITCHED = 1.5, 0.7
"""[s] the first step after what is asked has changed, and after a contact has, at most."""
SEARCHES = 40
"""Halvings by which the moment of a switch is found."""


class LumpRows:
    """Capacities [J/K] and conductances [W/K] of one car's lumps, its hoses' volumes [m3], and its lags [s]: fields of
    `core.drive.lumps.Lumps`."""


class LegRows:
    """What is asked in n stretches of a drive, one after another: fields of `drive.records.Legs`."""


class SupplyRows:
    """What the electrical system does in every situation at a battery's states of charge: `drive.records.Supply`."""


class StageRows:
    """The contacts of n controllers: fields of `control.SpeedStage`, (n, STAGES)."""


class Running(Meeting):
    """One drive of one car; `run` writes what it does.

    y, goes (SIZE): where it stands, and how that goes [1/s];  steep (SIZE, JUDGED) : about how the latter goes with the
    former, each flow of heat in all it takes part in, so that no step loses any
    """

    def __init__(self, car, plant, prepared, coolers, face):
        Meeting.__init__(self, car, plant, prepared, coolers, face)
        self.y, self.next, self.trial, self.goes, self.went, self.comes = (np.zeros(SIZE) for _ in range(6))
        self.k1, self.k2, self.k3 = (np.zeros(SIZE) for _ in range(3))
        self.steep, self.whole = np.zeros((SIZE, JUDGED)), np.zeros((JOINED, JOINED))
        self.contact = np.zeros(2, np.intc)
        self.leg, self.kept = 0, 0
        self.since, self.time, self.seat, self.charged = 0.0, 0.0, 0.0, 1.0
        self.volts, self.amps, self.near, self.longest = 12.0, 0.0, NEAR, LONGEST

    def ready(self, lumps, legs, supply, stages):
        """Say what is driven."""
        self.lumps, self.legs, self.supply, self.stages = lumps, legs, supply, stages

    def burn(self):
        """What the engine gives in this stretch: by its own power, not by that of the situation it stands in."""
        leg, load, doubt = self.leg, self.load, self.car.doubts.heat[self.row]
        Meeting.burn(self)
        prepared = max(self.own, 1e-9)
        self.own = self.more * doubt * mean(load, self.legs.heats[leg, 0, 0], self.legs.heats[leg, 1, 0])
        self.into_gearbox = self.more * mean(load, self.legs.heats[leg, 0, 1], self.legs.heats[leg, 1, 1])
        self.into_oil = self.more * mean(load, self.legs.heats[leg, 0, 2], self.legs.heats[leg, 1, 2])
        self.into_charge = mean(load, self.legs.heats[leg, 0, 3], self.legs.heats[leg, 1, 3])
        self.charge_flow = mean(load, self.legs.heats[leg, 0, 4], self.legs.heats[leg, 1, 4])
        self.into_bay = mean(load, self.legs.heats[leg, 0, 5], self.legs.heats[leg, 1, 5])
        self.prepared_bay = mean(load, self.legs.bay[leg, 0], self.legs.bay[leg, 1])
        self.usual = self.heat_in
        self.heat_in *= self.own / prepared

    def mix_air(self):
        """Air as in the steady point, its recirculated part from a bay that warms and cools in its own time."""
        i, on, share = self.row, self.blown, self.command
        Meeting.mix_air(self)
        grille = self.car.climate.ambient[i] + self.car.climate.grille_rise[i]
        back_off = recirculated(
            self.prepared.stopped.breath.front_temperature[i], self.prepared.stopped.breath.bay_temperature[i], grille
        )
        back_on = recirculated(
            self.prepared.running.breath.front_temperature[on], self.prepared.running.breath.bay_temperature[on], grille
        )
        back = weighed(
            share,
            back_off,
            max(self.prepared.stopped.flows.grille[i], 0.0) + self.prepared.stopped.flows.back[i],
            back_on,
            max(self.prepared.running.flows.grille[on], 0.0) + self.prepared.running.flows.back[on],
        )
        self.leaving = max(
            mean(share, self.prepared.stopped.flows.exit[i], self.prepared.running.flows.exit[on]), LEAST_FLOW
        )
        self.steady_bay, self.grille = self.bay_air, grille
        self.bay_air = self.bay_now
        self.front_air += (self.bay_air - self.steady_bay) * back

    def system(self, charge):
        """Volts of the running fans over those their air was worked out at, and what the battery takes [A]."""
        i, last = self.row, self.supply.states.shape[0] - 1
        state = min(max(self.charged - charge / self.supply.capacity, 0.0), 1.0)
        along = state * last
        k = 0
        while k < last - 1 and k + 1 <= along:
            k += 1
        part = along - k
        on = mean(part, self.supply.volts[i, k], self.supply.volts[i, k + 1])
        self.volts = mean(self.load, self.supply.idle_volts[i], on)
        off = mean(part, self.supply.rests[i, k], self.supply.rests[i, k + 1])
        self.amps = mean(self.load, off, mean(part, self.supply.amps[i, k], self.supply.amps[i, k + 1]))
        self.drain = mean(
            self.load,
            mean(part, self.supply.rest_drained[i, k], self.supply.rest_drained[i, k + 1]),
            mean(part, self.supply.drained[i, k], self.supply.drained[i, k + 1]),
        )
        if (state >= 1 and self.drain < 0) or (state <= 0 and self.drain > 0):
            self.drain = 0.0
        return on / max(self.supply.blown_at[i], 1e-9)

    def hose(self, place, volume, now, enters):
        """What leaves a hose [degC] of a volume [m3]: what went in so much ago, by a column of what was told; `enters`
        goes in now."""
        if volume <= 0 or self.kept == 0:
            return enters
        wanted, newest = now[PASSED] - volume, self.kept - 1
        if wanted <= self.passed[0]:
            return self.entered[0, place]
        if wanted >= self.passed[newest]:
            span = now[PASSED] - self.passed[newest]
            share = (wanted - self.passed[newest]) / span if span > 0 else 1.0
            return mean(share, self.entered[newest, place], enters)
        low, high = 0, newest
        while high - low > 1:
            middle = (low + high) // 2
            if self.passed[middle] <= wanted:
                low = middle
            else:
                high = middle
        span = self.passed[high] - self.passed[low]
        share = (wanted - self.passed[low]) / span if span > 0 else 1.0
        return mean(share, self.entered[low, place], self.entered[high, place])

    def look(self, now):
        """The joint point at a state."""
        leg = self.leg
        self.row = self.blown = self.legs.row[leg]
        self.pace, self.more = self.legs.pace[leg], self.legs.more[leg]
        # A step may leave a hair under nothing of fans that have come to rest.
        self.load = max(now[LOAD], 0.0)
        self.command = max(now[FANS], 0.0) * self.system(now[CHARGE])
        self.hot, self.bay_now, self.cold_now = now[HOT], now[BAY], now[COLD]
        self.temperature = self.hose(0, self.lumps.upper_hose, now, now[HOT])
        self.know_fluids()
        self.burn()
        self.mix_air()
        play = 0.5 * self.lumps.hysteresis
        self.felt_now = min(max(self.seat, now[ELEMENT] - play), now[ELEMENT] + play)
        self.opening = opening_at(self.plant.circuit, self.row, self.felt_now)
        self.exchange()

    def element_feels(self):
        """[degC] round the thermostat's element."""
        if self.plant.circuit.at_inlet[self.row] > 0:
            last = self.pace * self.car.doubts.flow[self.row] * self.prepared.engine[self.row, self.openings - 1]
            return max(self.hot - self.heat_in / max(last * self.per_flow, 1.0), self.cold_now)
        return self.hot

    def begin_again(self):
        """How it goes from where it stands, after what is asked of it has changed."""
        self.rates(self.y, self.goes)
        self.know_slopes()

    def core_lump(self, now):
        """What leaves the core [degC], and what it gives the air [W], from its own mean temperature."""
        capacity, air = self.core_flow * self.per_flow, self.air_in
        into, out = self.temperature - air, self.face.coolant_out - air
        units = MANY_UNITS
        if into * out > 0 and abs(into) > 1e-9:
            units = min(math.log(into / out), MANY_UNITS)
        gives, share = capacity * units, 1.0
        if units >= MANY_UNITS or units <= 0:
            gives = self.face.whole * self.face.caught / max(self.face.whole + self.face.caught, 1e-9)
        if units > 1e-9:
            share = units * math.exp(-units) / -math.expm1(-units)
        self.leaves, self.giving = share, gives
        self.core_out = air + (now[CORE] - air) * share
        self.core_heat = gives * (now[CORE] - air)

    def commanded(self, now):
        """Shares of flow and power the fans are told to run at."""
        i, forced = self.row, self.legs.forced[self.leg]
        share, power = self.plant.law.least[i], self.plant.law.least_power[i]
        if forced >= 0:
            share = power = forced
        elif self.legs.switched[self.leg] > 0:
            for stage in range(2):
                if self.contact[stage] > 0:
                    share = max(share, self.stages.above[i, stage])
                    power = max(power, self.stages.above_power[i, stage])
        else:
            share, power = commanded_share(self.plant.law, i, now[READ]), power_share(self.plant.law, i, now[READ])
        self.wanted, self.wanted_power = share, power

    def rates(self, now, rate):
        """How a state goes [1/s]."""
        self.look(now)
        self.core_lump(now)
        i, alive = self.row, self.legs.alive[self.leg]
        # What does not go through the core goes round it, by bypass and heater, and meets what comes back.
        capacity, engine = self.core_flow * self.per_flow, self.coolant_flow * self.per_flow
        back = self.hose(1, self.lumps.lower_hose, now, self.core_out)
        share = min(self.coolant_flow / self.plant.circuit.flow_rated[i], 1.5)
        film = self.lumps.film * (STANDING_FILM + (1 - STANDING_FILM) * share)
        soaks, inside = film * (now[METAL] - now[HOT]), self.lumps.inside * (now[METAL] - now[REST])
        lost = (1 - alive) * self.lumps.outside * (now[REST] - now[BAY])
        by_oil, by_gearbox = self.coolers.coolers.oil_to_block[i], self.coolers.case
        for e in range(self.coolers.count):
            by_oil += self.coolers.takes[e] * self.coolers.coolers.oil[i, e]
            by_gearbox += self.coolers.takes[e] * self.coolers.coolers.gearbox[i, e]
        tank = self.coolers.coolers.tank[i]
        by_gearbox += tank
        self.soaking, self.by_oil, self.by_gearbox = film, by_oil, by_gearbox
        oil_stores, off = by_oil * (self.coolers.oil - now[OIL]), now[GEARBOX] - self.coolers.gearbox
        self.heats_cabin()
        cabin = self.heater * (now[HOT] - self.car.climate.ambient[i])
        from_tank, sheds = self.coolers.tank + tank * off, self.into_gearbox + by_gearbox * off
        rate[METAL] = (self.own - self.coolers.from_block - oil_stores - soaks - inside) / self.lumps.metal
        rate[REST] = (inside - lost) / self.lumps.rest
        rate[HOT] = (soaks + engine * (now[COLD] - now[HOT])) / self.lumps.hot
        rate[CORE] = (capacity * (self.temperature - self.core_out) - self.core_heat) / self.lumps.core
        comes = capacity * (back - now[HOT]) + engine * (now[HOT] - now[COLD]) + from_tank - cabin
        rate[COLD] = comes / self.lumps.cold
        rate[OIL] = oil_stores / self.lumps.oil
        rate[GEARBOX] = (self.into_gearbox - sheds) / self.lumps.gearbox
        rate[GIVEN] = self.own + self.into_gearbox
        rate[TAKEN] = self.core_heat + self.coolers.from_block + lost + sheds - from_tank + cabin
        rate[UPPER] = capacity * (now[HOT] - self.temperature)
        rate[LOWER] = capacity * (self.core_out - back)
        rate[PASSED] = self.core_flow
        self.warm_bay(now, rate, lost)
        self.sense(now, rate)

    def heats_cabin(self):
        """What the cabin's heater takes per kelvin its coolant is over the day [W/K]. Source: an exchanger whose air
        is the weaker stream, KAYS_LONDON."""
        self.heater = 0.0
        if self.legs.heater[self.leg] > 0:
            flow = self.lumps.heater_flow * self.coolant_flow / self.plant.circuit.flow_rated[self.row]
            carries = max(flow * self.per_flow, 1e-6)
            self.heater = carries * -math.expm1(-self.legs.heater[self.leg] * self.lumps.heater / carries)

    def warm_bay(self, now, rate, lost):
        """The bay's air: as warm as the steady point has it where it is given what that point gives it."""
        beside = 0.0
        for e in range(self.coolers.count):
            beside += self.coolers.heat[e] * (
                self.coolers.coolers.ahead[self.row, e] + self.coolers.coolers.into_bay[self.row, e]
            )
        beside = max(beside, 0.0)
        usual = max(self.usual + self.prepared_bay + beside, 1.0)
        gets = self.core_heat + self.heat_in - self.given + self.into_bay + lost + beside
        ends = self.grille + (self.steady_bay - self.grille) * max(gets, 0.0) / usual
        rate[BAY] = self.leaving * self.cp * (ends - now[BAY]) / self.lumps.bay

    def sense(self, now, rate):
        """Element, sensor, sender, needle, fans and battery follow in their own time."""
        reads = sensed(self.plant.sensing, self.row, now[HOT], now[HOT] - self.core_out)
        self.commanded(now)
        rate[ELEMENT] = (self.element_feels() - now[ELEMENT]) / self.lumps.element_lag
        rate[READ] = (reads - now[READ]) / self.lumps.sensor_lag
        rate[SENDER] = (now[HOT] - now[SENDER]) / self.lumps.sender_lag
        rate[NEEDLE] = (now[SENDER] - now[NEEDLE]) / self.lumps.needle_lag
        rate[FANS] = (self.wanted - now[FANS]) / self.lumps.spin_up
        rate[LOAD] = (self.wanted_power - now[LOAD]) / self.lumps.spin_up
        rate[CHARGE] = self.drain * self.legs.drains[self.leg]

    def know_slopes(self):
        """About how the rates go with the state: what is stiff is in it, what is left out costs steps, no truth."""
        for n in range(SIZE):
            for k in range(JUDGED):
                self.steep[n, k] = 0.0
        capacity = self.core_flow * self.per_flow
        self.flow_of(METAL, HOT, self.soaking)
        self.flow_of(METAL, REST, self.lumps.inside)
        lost = (1 - self.legs.alive[self.leg]) * self.lumps.outside
        self.steep[REST, REST] -= lost / self.lumps.rest
        self.steep[TAKEN, REST] += lost
        self.steep[METAL, OIL] += self.by_oil / self.lumps.metal
        self.steep[OIL, OIL] -= self.by_oil / self.lumps.oil
        tank = self.coolers.coolers.tank[self.row]
        self.steep[GEARBOX, GEARBOX] -= self.by_gearbox / self.lumps.gearbox
        self.steep[COLD, GEARBOX] += tank / self.lumps.cold
        self.steep[TAKEN, GEARBOX] += self.by_gearbox - tank
        # Round the circuit; what a long hose holds back does not follow within a step.
        soon = 1.0 if self.lumps.upper_hose < SOON * self.core_flow else 0.0
        later = self.leaves if self.lumps.lower_hose < SOON * self.core_flow else 0.0
        self.flow_of(HOT, COLD, self.coolant_flow * self.per_flow)
        self.steep[COLD, HOT] -= (capacity + self.heater) / self.lumps.cold
        self.steep[TAKEN, HOT] += self.heater
        self.steep[UPPER, HOT] += capacity * (1 - soon)
        self.steep[CORE, HOT] += capacity * soon / self.lumps.core
        self.steep[CORE, CORE] -= (capacity * self.leaves + self.giving) / self.lumps.core
        self.steep[TAKEN, CORE] += self.giving
        self.steep[LOWER, CORE] += capacity * (self.leaves - later)
        self.steep[COLD, CORE] += capacity * later / self.lumps.cold
        self.steep[BAY, BAY] -= self.leaving * self.cp / self.lumps.bay
        self.lag(ELEMENT, HOT, self.lumps.element_lag)
        self.lag(READ, HOT, self.lumps.sensor_lag)
        self.lag(SENDER, HOT, self.lumps.sender_lag)
        self.lag(NEEDLE, SENDER, self.lumps.needle_lag)
        self.steep[FANS, FANS] = self.steep[LOAD, LOAD] = -1 / self.lumps.spin_up

    def lag(self, place, first, seconds):
        """What follows another in its own time: coolant at the engine's outlet, or who feels that."""
        self.steep[place, place] -= 1 / seconds
        self.steep[place, first] += 1 / seconds

    def flow_of(self, first, second, conductance):
        """Heat that goes to and fro between two lumps of the engine [W/K]."""
        self.steep[first, first] -= conductance / self.holds(first)
        self.steep[first, second] += conductance / self.holds(first)
        self.steep[second, second] -= conductance / self.holds(second)
        self.steep[second, first] += conductance / self.holds(second)

    def holds(self, place):
        """Capacity [J/K] of a lump of the engine."""
        if place > REST:
            return self.lumps.hot if place == HOT else self.lumps.cold
        return self.lumps.metal if place == METAL else self.lumps.rest

    def factorise(self, h):
        """The triangles of one less h times the slopes of what is joined. No row is changed for another: each is
        largest on itself."""
        whole, steep = self.whole, self.steep
        for row in range(JOINED):
            for column in range(JOINED):
                whole[row, column] = (1.0 if row == column else 0.0) - h * steep[row, column]
        for pivot in range(JOINED):
            for row in range(pivot + 1, JOINED):
                share = whole[row, pivot] / whole[pivot, pivot]
                whole[row, pivot] = share
                if share != 0:
                    for column in range(pivot + 1, JOINED):
                        whole[row, column] -= share * whole[pivot, column]

    def resolve(self, h, asked):
        """Let `asked` (SIZE) become what h times the slopes take from it."""
        whole, steep = self.whole, self.steep
        for row in range(JOINED):
            for column in range(row):
                asked[row] -= whole[row, column] * asked[column]
        for row in range(JOINED - 1, -1, -1):
            for column in range(row + 1, JOINED):
                asked[row] -= whole[row, column] * asked[column]
            asked[row] /= whole[row, row]
        # What follows gives nothing back: each by itself, after those it follows.
        for row in range(JOINED, SIZE):
            for column in range(min(row, JUDGED)):
                asked[row] += h * steep[row, column] * asked[column]
            if row < JUDGED:
                asked[row] /= 1 - h * steep[row, row]

    def step(self, h):
        """A step of h [s] from `y` with how it goes known: `next`, how that goes (`comes`), and how far it may err over
        what is let. Source: SHAMPINE_REICHELT, of order 2 with slopes that are about right."""
        self.factorise(PART * h)
        for n in range(SIZE):
            self.k1[n] = self.goes[n]
        self.resolve(PART * h, self.k1)
        for n in range(SIZE):
            self.trial[n] = self.y[n] + 0.5 * h * self.k1[n]
        self.rates(self.trial, self.went)
        for n in range(SIZE):
            self.k2[n] = self.went[n] - self.k1[n]
        self.resolve(PART * h, self.k2)
        for n in range(SIZE):
            self.k2[n] += self.k1[n]
            self.next[n] = self.y[n] + h * self.k2[n]
        self.rates(self.next, self.comes)
        for n in range(SIZE):
            self.k3[n] = self.comes[n] - LATER * (self.k2[n] - self.went[n]) - 2 * (self.k1[n] - self.goes[n])
        self.resolve(PART * h, self.k3)
        worst = 0.0
        for n in range(JUDGED):
            off = h / 6 * abs(self.k1[n] - 2 * self.k2[n] + self.k3[n])
            if not off < NO_STATE:
                return NO_STATE
            worst = max(worst, off * (PER_SHARE if n >= WARM else 1.0) / self.near)
        return worst

    def switches(self, reading, past):
        """Which contact changes at a reading [degC] after so many seconds past the last change: 1 the first, 2 the
        second, 0 none."""
        i = self.row
        if self.legs.switched[self.leg] <= 0 or self.legs.forced[self.leg] >= 0:
            return 0
        for stage in range(2):
            if self.contact[stage] == 0 and reading >= self.stages.on[i, stage]:
                return stage + 1
            if self.contact[stage] > 0 and reading <= self.stages.off[i, stage] and past >= self.lumps.least_on:
                return stage + 1
        return 0

    def moment(self, h):
        """The part of a step of h [s] at which a contact changes, found on the cubic through both its ends."""
        low, high = 0.0, h
        for _ in range(SEARCHES):
            at = 0.5 * (low + high)
            if self.switches(self.reading_in(at, h), self.time + at - self.since) > 0:
                high = at
            else:
                low = at
        return high

    def reading_in(self, at, h):
        """The sensor's reading [degC] within the step just taken. Source: Hermite's cubic."""
        s = at / h
        was, goes, comes, went = self.y[READ], h * self.goes[READ], self.next[READ], h * self.comes[READ]
        rest = 1 - s
        return (
            (1 + 2 * s) * rest * rest * was + s * rest * rest * goes + s * s * (3 - 2 * s) * comes - s * s * rest * went
        )

    def accept(self, h):
        """Take the step."""
        self.time += h
        for n in range(SIZE):
            self.y[n], self.goes[n] = self.next[n], self.comes[n]
        self.seat = self.felt_now
        self.know_slopes()

    def tell(self):
        """Write where it stands, and what goes into the hoses."""
        k = self.kept
        self.times[k] = self.time
        for n in range(SIZE):
            self.states[k, n] = self.y[n]
        self.passed[k] = self.y[PASSED]
        self.entered[k, 0], self.entered[k, 1] = self.y[HOT], self.core_out
        self.told[k, 0], self.told[k, 1], self.told[k, 2], self.told[k, 3] = (
            self.temperature,
            self.core_out,
            self.opening,
            self.own,
        )
        self.told[k, 4], self.told[k, 5], self.told[k, 6], self.told[k, 7] = (
            self.core_heat,
            self.forward,
            self.front_air,
            self.air_in,
        )
        self.told[k, 8], self.told[k, 9], self.told[k, 10] = self.volts, self.amps, self.core_flow
        self.told[k, 11], self.told[k, 12] = self.contact[0], self.contact[1]
        self.told[k, 13], self.told[k, 14], self.told[k, 15] = self.leg, self.wanted, self.coolant_flow
        self.kept = k + 1

    def run(self, start, first, out):
        """Drive all legs from a state; how it ends.

        start (SIZE);  first : contacts (2) as they are at the start, the thermostat's seat [degC], charge's share
        out : times (m), states (m, SIZE), told (m, TOLD), passed (m), entered (m, 2) to write in; `kept` says how many
        """
        self.times, self.states, self.told, self.passed, self.entered = out
        for n in range(SIZE):
            self.y[n] = start[n]
        self.contact[0], self.contact[1] = first[0] > 0, first[1] > 0
        self.seat, self.charged = first[2], first[3]
        self.leg = self.kept = 0
        self.time, self.since = 0.0, LONG_AGO
        return self.drive()

    def drive(self):
        """Step by step, each as long as its error lets it, none over a switch."""
        h, legs = 0.2, self.legs.until.shape[0]
        self.begin_again()
        self.tell()
        while self.leg < legs:
            left = self.legs.until[self.leg] - self.time
            if left <= 1e-9:
                self.leg += 1
                if self.leg < legs:
                    self.begin_again()
                    h = min(h, NEXT_LEG)
                continue
            if self.kept >= self.times.shape[0]:
                return FULL
            change = self.switches(self.y[READ], self.time - self.since)
            if change > 0:
                self.contact[change - 1] = 1 - self.contact[change - 1]
                self.since = self.time
                self.begin_again()
                self.tell()
                h = min(h, SWITCHED)
                continue
            h = min(h, left)
            h = min(h, self.longest)
            off = self.step(h)
            if off > 1 and h > SHORTEST:
                h = max(h * max(SAFETY * off ** (-1.0 / 3), SHRINKS), SHORTEST)
                continue
            if off >= NO_STATE:
                return BROKEN
            if self.switches(self.next[READ], self.time + h - self.since) > 0:
                # The step ends where the contact changes; a second one is taken to there.
                h = max(self.moment(h), 1e-6)
                self.step(h)
            self.accept(h)
            self.tell()
            if self.y[HOT] > self.legs.boils[self.leg]:
                return BOILED
            h *= min(max(SAFETY * max(off, 1e-6) ** (-1.0 / 3), SHRINKS), GROWS)
        return DONE


def recirculated(front, bay, grille):
    """Share of a path's air at the face that came back from the bay, from the temperatures [degC] of face, bay and
    grille. Source: mixing."""
    warmer = bay - grille
    return min(max((front - grille) / warmer, 0.0), 1.0) if abs(warmer) > 1e-6 else 0.0
