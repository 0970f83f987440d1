"""All coolers of one car at one state of its air: what each takes, what air it meets, where every fluid settles.

Every cooler takes per kelvin between the fluid and the air that enter it, so a circuit is linear in the temperature
of its fluid and is solved in closed form; only a bypass thermostat bends it, along a straight ramp.
Compiled where a C compiler was at hand (`point.pxd` types it).
"""

import math

import numpy as np

from keelroom.core.coolers.circuits import NEVER, OPENING_SPAN
from keelroom.core.coolers.condenser import CUT_OUT, EVAPORATES, KELVIN

VELOCITY = 3.0
"""[m/s] of the air at the face at which a cooler's conductance is stated."""
AIR_EXPONENT = 0.6
"""How the air side's conductance rises with the air's speed (common practice: 0.5 to 0.7 for louvered and offset
fins)."""
AIR_DENSITY = 1.15
"""[kg/m3] of the air the stated speed is of."""
SLOWEST = 0.02
"""Share of VELOCITY below which the air side's conductance falls no further: natural convection."""
HALVINGS = 14
"""Times the opening of a bypass thermostat is halved down on."""
ENDLESS = 1e9
"""[W/K] capacity of a fluid that condenses."""
LINES = 10.0
"""[W/K] that lines and case of a power steering shed by themselves (common practice)."""
ROUNDED = 32
"""How sharply the pressure switch ends what an air conditioner gives up."""
AIR_TO_WATER, WATER = 0.85, 900.0
"""Effectiveness of the exchanger between charge air and water, and capacity of the water's flow [W/K] (common
practice)."""


class CoolerRows:
    """n cars' coolers as memory to read by rows: `exchange.Coolers`, field by field."""


def effectiveness(ntu, ratio):
    """Share of what could be handed over in cross-flow, both sides unmixed; ntu >= 0, ratio 0..1 of the capacities.

    Source: KAYS_LONDON, the usual closed form (within 4 % of the series); at ratio 0 it is 1 - exp(-ntu).
    """
    least, units = max(ratio, 1e-6), max(ntu, 1e-12)
    return -math.expm1(units**0.22 / least * math.expm1(-least * units**0.78))


def conductance_at(stated, air_share, flow, area):
    """Fluid to air [W/K] of a whole face at an air flow [kg/s]: the fluid's side stays, the air's goes with the speed.

    stated [W/K per m2] at VELOCITY;  air_share of the resistance there that is the air's;  area [m2].
    Source: resistances in series; AIR_EXPONENT common practice.
    """
    speed = max(flow / (AIR_DENSITY * max(area, 1e-9)) / VELOCITY, SLOWEST)
    return stated / (air_share * speed**-AIR_EXPONENT + 1 - air_share) * area


def handed_over(conductance, air, fluid):
    """Heat per kelvin between the entering fluid and the entering air [W/K], from the exchanger's own, the capacity of
    the air, and of the fluid. Source: KAYS_LONDON, effectiveness and units of transfer."""
    least, most = min(air, fluid), max(air, fluid)
    return effectiveness(conductance / max(least, 1e-9), least / max(most, 1e-9)) * least


def condensed(shaft, share, per_kelvin, air):
    """Condensing temperature at which what is given up goes into the air; heat [W] given up; cooling per shaft power;
    share of the time it runs, under 1 where the pressure switch cuts in.

    shaft [W] of the compressor; share of Carnot; per_kelvin [W/K] from the refrigerant to the air that enters at
    `air` [degC]. shaft (1 + share T/(condensing - EVAPORATES)) = per_kelvin (condensing - air), solved in closed
    form; never over CUT_OUT, near which it runs only part of the time. Source: heat balance with a share of Carnot.
    """
    k = max(per_kelvin, 1e-9)
    b = k * (EVAPORATES - air) - shaft
    lift = (-b + math.sqrt(b * b + 4 * k * shaft * share * (EVAPORATES + KELVIN))) / (2 * k)
    wanted, condensing, heat, runs = EVAPORATES + lift, air, 0.0, 1.0
    if shaft > 0:
        condensing = min(max(wanted, EVAPORATES + 1.0), CUT_OUT)
    cop = share * (EVAPORATES + KELVIN) / max(condensing - EVAPORATES, 1.0)
    full = shaft * (1 + cop)
    if shaft > 0:
        # What can leave at the cut-out bounds what is given up, without a corner: head and fan surge about the switch.
        most = max(k * (CUT_OUT - air), 0.0)
        heat = full * (1 + (full / max(most, 1e-3 * full)) ** ROUNDED) ** (-1.0 / ROUNDED)
        heat = min(heat, most)
        condensing = air + heat / k
        runs = heat / full
    return condensing, heat, cop, runs


class CarCoolers:
    """The coolers of one car at a time.

    What the fluids are given, before `exchange`: gearbox, oil, charge, steering [W] and their flows [W/K]; shaft [W]
    and cop_share of the A/C; case [W/K]. What is round the coolers [degC]: outside, front, bay, behind, tank with
    tank_rise [K/W], block; cp of the air. After it, by cooler (E): heat [W], air_in [degC], air [kg/s], rise [K]; and
    what `exchange.Exchanged` names beside them.
    """

    def __init__(self, coolers, deep):
        self.coolers, self.deep, self.count = coolers, deep, coolers.area.shape[1]
        self.heat, self.air_in, self.air, self.rise, self.takes, self.meets = (np.zeros(self.count) for _ in range(6))
        self.stage, self.stages = np.zeros(self.count + 1, np.intc), 0
        self.taken, self.against, self.opens, self.given = (np.zeros(self.count + 1) for _ in range(4))

    def exchange(self, i, core, first, own_air, sweeps):
        """Every cooler's heat at air flows [kg/s] through the core's classes, `core` from place `first` on.

        What a fluid is given it leaves in its coolers, in the tank, in the block, or from its case: nothing is lost.
        own_air (n, E) : through those away from the core;  sweeps : how often the air's heating is taken on from
        cooler to cooler. Source: KAYS_LONDON and heat balances.
        """
        forward = 0.0
        for k in range(self.coolers.covered.shape[1]):
            forward += max(core[first + k], 0.0)
        for e in range(self.count):
            self.breathe(i, e, core, first, forward, own_air)
            self.take(i, e)
            self.air_in[e] = self.meets[e]
        for _ in range(min(sweeps, self.deep[i])):
            self.circuits(i)
            for e in range(self.count):
                self.rise[e] = self.heat[e] / max(self.air[e] * self.cp, 1e-9)
            for e in range(self.count):
                self.air_in[e] = self.meets[e]
                if self.coolers.ahead[i, e] > 0:
                    for other in range(self.count):
                        self.air_in[e] += self.coolers.upstream[i, e, other] * self.rise[other]

    def breathe(self, i, e, core, first, forward, own_air):
        """The air through a cooler, and what it meets before any other has heated it."""
        if self.coolers.ahead[i, e] > 0:
            self.air[e] = 0.0
            for k in range(self.coolers.covered.shape[1]):
                self.air[e] += max(core[first + k], 0.0) * self.coolers.covered[i, k, e]
            self.meets[e] = self.front
        elif self.coolers.from_core[i, e] > 0:
            self.air[e], self.meets[e] = self.coolers.from_core[i, e] * forward, self.behind
        else:
            self.air[e] = own_air[i, e]
            self.meets[e] = self.bay if self.coolers.from_bay[i, e] > 0 else self.outside

    def take(self, i, e):
        """What a cooler takes per kelvin between its fluid and its air."""
        capacity = max(self.air[e] * self.cp, 1e-9)
        own = conductance_at(
            self.coolers.conductance[i, e], self.coolers.air_share[i, e], self.air[e], self.coolers.area[i, e]
        )
        water = self.coolers.water[i, e] * self.coolers.charge[i, e] > 0
        fluid = self.coolers.gearbox[i, e] * self.gearbox_flow + self.coolers.oil[i, e] * self.oil_flow
        fluid += self.coolers.steering[i, e] * self.steering_flow + self.coolers.refrigerant[i, e] * ENDLESS
        fluid += self.coolers.charge[i, e] * (WATER if self.coolers.water[i, e] > 0 else self.charge_flow)
        self.takes[e] = handed_over(own, capacity, max(fluid, 1e-9)) if fluid > 0 else 0.0
        if water:
            first = AIR_TO_WATER * max(self.charge_flow, 1e-9)
            self.takes[e] = min(1 / (1 / first + 1 / max(self.takes[e], 1e-9) - 1 / WATER), first)

    def circuits(self, i):
        """All fluids at one state of the air."""
        for e in range(self.count):
            self.heat[e] = 0.0
        self.settle_gearbox(i)
        self.stages = 0
        for e in range(self.count):
            self.put_stage(i, e, self.coolers.oil[i, e])
        self.settle(self.oil_given, self.oil_flow, self.coolers.oil_to_block[i], self.block)
        self.oil, self.from_block = self.fluid, self.oil_given - self.case_sheds
        self.hand_in()
        self.stages = 0
        for e in range(self.count):
            self.put_stage(i, e, self.coolers.steering[i, e])
        self.settle(self.steering_given, self.steering_flow, LINES, self.bay)
        self.steering, self.steering_shed = self.fluid, self.case_sheds
        self.hand_in()
        self.charge = self.outside + self.charge_given / max(self.charge_flow, 1e-9)
        for e in range(self.count):
            given = self.takes[e] * self.coolers.charge[i, e] * (self.charge - self.air_in[e])
            self.heat[e] += given
            self.charge -= given / max(self.charge_flow, 1e-9)
        self.settle_refrigerant(i)

    def put_stage(self, i, e, which):
        """Put a cooler in the way of a fluid where it is that fluid's."""
        if which > 0:
            s = self.stages
            self.stage[s], self.taken[s], self.against[s] = e, self.takes[e] * which, self.air_in[e]
            self.opens[s], self.stages = self.coolers.opens[i, e], s + 1

    def hand_in(self):
        """Put what the stages of the circuit just settled give into the coolers' heat."""
        for s in range(self.stages):
            if self.stage[s] >= 0:
                self.heat[self.stage[s]] += self.given[s]

    def settle_gearbox(self, i):
        """The gearbox's circuit: coolers ahead of the tank, the tank, coolers after it."""
        self.stages = 0
        for e in range(self.count):
            self.put_stage(i, e, self.coolers.gearbox[i, e] * (1 - self.coolers.after_tank[i, e]))
        # The coolant the tank's cooler lies in moves with what it is given: per kelvin to the coolant as it would be
        # without.
        tank = self.stages
        self.stage[tank], self.against[tank], self.opens[tank] = -1, self.tank_warm, NEVER
        self.taken[tank] = self.coolers.tank[i] / (1 + self.coolers.tank[i] * self.tank_rise)
        self.stages = tank + 1
        for e in range(self.count):
            self.put_stage(i, e, self.coolers.gearbox[i, e] * self.coolers.after_tank[i, e])
        self.settle(self.gearbox_given, self.gearbox_flow, self.case, self.outside)
        self.gearbox, self.gearbox_leaving, self.shed = self.fluid, self.leaving, self.case_sheds
        self.tank = self.given[tank]
        self.hand_in()

    def settle_refrigerant(self, i):
        """Where the refrigerant settles in all condensers together."""
        whole, lead, parts, shaft, air = 0.0, 0.0, 0.0, 0.0, self.front
        for e in range(self.count):
            mine = self.takes[e] * self.coolers.refrigerant[i, e]
            whole += mine
            lead += mine * self.air_in[e]
        if whole > 0:
            shaft, air = self.shaft, lead / max(whole, 1e-9)
        self.condensing, given_up, self.cop, self.runs = condensed(shaft, self.cop_share, whole, air)
        for e in range(self.count):
            lead = max(self.condensing - self.air_in[e], 0.0)
            parts += self.takes[e] * self.coolers.refrigerant[i, e] * lead
        for e in range(self.count):
            part = self.takes[e] * self.coolers.refrigerant[i, e] * max(self.condensing - self.air_in[e], 0.0)
            self.heat[e] += part * given_up / max(parts, 1e-9)

    def settle_open(self, heat, capacity, sheds, around, open_):
        """Let the stages' fluid settle with its bypass thermostat open by a share.

        Source: heat balance of every stage.
        """
        a, b, rise = 1.0, 0.0, heat / capacity
        slope, left = sheds, heat + sheds * around
        for s in range(self.stages):
            taken = self.taken[s] * (open_ if self.opens[s] > NEVER + 1 else 1.0)
            slope += taken * a
            left -= taken * (a * rise + b - self.against[s])
            share = taken / capacity
            a, b = a * (1 - share), b * (1 - share) + share * self.against[s]
        self.fluid = left / max(slope, 1e-9)
        self.leaving, self.case_sheds = self.fluid + rise, sheds * (self.fluid - around)
        a, b = 1.0, 0.0
        for s in range(self.stages):
            taken = self.taken[s] * (open_ if self.opens[s] > NEVER + 1 else 1.0)
            self.given[s] = taken * (a * self.leaving + b - self.against[s])
            share = taken / capacity
            a, b = a * (1 - share), b * (1 - share) + share * self.against[s]

    def settle(self, heat, capacity, sheds, around):
        """A circuit whose fluid is given `heat` [W], goes through the stages in order and comes back.

        capacity [W/K] of the fluid's flow;  sheds [W/K] by its sump itself, into `around` [degC].
        The heat of all stages and of the case is the heat given. OPENING_SPAN common practice.
        """
        opens = NEVER
        for s in range(self.stages):
            opens = max(opens, self.opens[s])
        if opens <= NEVER + 1:
            self.settle_open(heat, capacity, sheds, around, 1.0)
            return
        # The hotter the sump the wider it opens, the wider the colder: one crossing, found by halving.
        low, high = 0.0, 1.0
        for _ in range(HALVINGS):
            middle = 0.5 * (low + high)
            self.settle_open(heat, capacity, sheds, around, middle)
            if (self.fluid - opens) / OPENING_SPAN > middle:
                low = middle
            else:
                high = middle
        self.settle_open(heat, capacity, sheds, around, high)
        over = min(max((self.fluid - opens) / OPENING_SPAN, 0.0), 1.0) - high
        self.settle_open(heat, capacity, sheds, around, low)
        under = min(max((self.fluid - opens) / OPENING_SPAN, 0.0), 1.0) - low
        share = under / (1.0 if abs(under - over) < 1e-12 else under - over)
        share = min(max(share, 0.0), 1.0)
        self.settle_open(heat, capacity, sheds, around, low + share * (high - low))

    def put(self, cooler, row):
        """Write the answer in the order of the record's fields: `cooler` (4, E), `row` (12)."""
        for e in range(self.count):
            cooler[0, e], cooler[1, e], cooler[2, e] = self.heat[e], self.air_in[e], self.air[e]
            cooler[3, e] = self.rise[e]
        row[0], row[1], row[2], row[3] = self.tank, self.from_block, self.gearbox, self.gearbox_leaving
        row[4], row[5], row[6], row[7] = self.oil, self.charge, self.condensing, self.steering
        row[8], row[9], row[10], row[11] = self.shed, self.runs, self.cop, self.steering_shed
