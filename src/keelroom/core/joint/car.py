"""A car's air path with what heats its air and what its core takes from it: where the disciplines meet in the air.

Compiled where a C compiler was at hand (`car.pxd` types it).
"""

import math

from keelroom.core.air.point import AirPath
from keelroom.core.fluids.point import density, heat_capacity, viscosity
from keelroom.core.plant import LEAST_FLOW, LOOP_TEMPERATURE
from keelroom.core.thermal.engine_point import HeatBalance, case_sheds, line_flow, oil_flow
from keelroom.core.thermal.point import core_drop

LOOP_DROP = 8.0
"""Kelvin the coolant has lost by the core's outlet tank while the air path is solved (common practice)."""
ENGINE_OIL, GEARBOX_FLUID = 850.0 * 2130.0, 825.0 * 2100.0
"""[J/m3K] of hot oils: TABLE_OIL at 80 and 90 degC."""
STEERING_FLOW = 5.0 / 60e3
"""[m3/s] round a power steering (common practice)."""
MOST_AIR_RISE = 400.0
"""Kelvin of air heating that the air tends to where hardly any moves."""
GRILLE, EXIT = 0, 1


class WeatherRows:
    """n cars' weather as memory to read by rows: `plant.Weather`, field by field."""


class FluidRows:
    """What fluids of n cars' coolers are given: `plant.Fluids`, field by field."""


class DoubtRows:
    """Factors on what is doubtful: `plant.Doubts`, field by field."""


class OutdoorRows:
    """The air outdoors of n cars: pressure [Pa], vapour [kg/kg], density [kg/m3] at the grille, air_speed [m/s]."""


class CarRows:
    """n cars in their situations as memory to read by rows, as far as the air path asks."""


def softened(rise):
    """A rise of air temperature [K] that tends to MOST_AIR_RISE where hardly any air moves, and is itself where any
    does: 100 K within a thousandth.

    Source: a form of our own.
    """
    return rise * (1 + (rise / MOST_AIR_RISE) ** 4) ** -0.25


def ask(coolers, car, i, gearbox, oil, charge, charge_flow):
    """Say to the coolers of car i what its fluids are given: of the engine, into gearbox, oil and charge air [W], and
    that air's capacity [W/K]. Source: flows of the fluids common practice, their heat capacities TABLE_OIL."""
    rpm, doubt = car.drive.rpm[i], car.doubts.heat[i]
    coolers.gearbox_given, coolers.gearbox_flow = gearbox * doubt, line_flow(rpm) * GEARBOX_FLUID
    coolers.oil_given, coolers.oil_flow = oil * doubt, oil_flow(rpm) * ENGINE_OIL
    coolers.charge_given, coolers.charge_flow = charge, charge_flow
    coolers.steering_given, coolers.steering_flow = car.fluids.steering[i], STEERING_FLOW * GEARBOX_FLUID
    coolers.shaft, coolers.cop_share = car.fluids.compressor[i], car.fluids.cop_share[i]
    coolers.case = case_sheds(car.drive.speed[i])


class CarAir(AirPath):
    """The air path of one car at a time, its air heated by what enters coolant, covers and bay."""

    def __init__(self, car, coolers):
        AirPath.__init__(self, car.network, car.curve)
        self.car, self.coolers, self.heat = car, coolers, HeatBalance()
        self.cp, self.grille_air, self.own, self.power, self.given = 1006.0, 20.0, 0.0, 0.0, 0.0

    def set_off(self, i, asked):
        """Make ready for car i, its fans at `speed`. asked: as `solve_airs` takes it, one path's."""
        pressure, ambient = self.car.outdoors.pressure[i], self.car.climate.ambient[i]
        outdoors = self.car.outdoors.density[i]
        self.heat.burn(
            self.car.engine, self.car.vehicle, self.car.drive, i, asked[0], asked[1], outdoors, pressure, ambient
        )
        self.grille_air = ambient + self.car.climate.grille_rise[i]
        self.cp, self.power = heat_capacity(self.car.outdoors.vapour[i]), asked[0]
        self.own = self.heat.coolant * self.car.doubts.heat[i]
        ask(self.coolers, self.car, i, self.heat.gearbox, self.heat.oil, self.heat.charge, self.heat.charge_flow)
        # With the coolant as warm as the loop is solved at: how much a little more or less goes here or there hardly
        # moves the air.
        self.coolers.outside = self.coolers.front = self.coolers.bay = self.coolers.behind = self.grille_air
        self.coolers.tank_warm, self.coolers.tank_rise = LOOP_TEMPERATURE - LOOP_DROP, 0.0
        self.coolers.block, self.coolers.cp = LOOP_TEMPERATURE, self.cp
        thrust, leaks = self.car.doubts.fan_pressure[i] * asked[2], self.car.doubts.leaks[i] * asked[3]
        self.load(i, self.car.outdoors.air_speed[i] * math.sqrt(asked[4]), thrust, leaks)

    def state(self):
        """The air at the flows: the less, the hotter and thinner it leaves the core."""
        i, pressure, vapour = self.row, self.car.outdoors.pressure[self.row], self.car.outdoors.vapour[self.row]
        self.coolers.exchange(i, self.flow, self.core, self.car.fluids.own_air, 1)
        self.given = self.own + self.coolers.tank - self.coolers.from_block
        heated, beside = self.given, 0.0
        for e in range(self.coolers.count):
            heated += self.coolers.heat[e] * self.coolers.coolers.ahead[i, e]
            beside += self.coolers.heat[e] * self.coolers.coolers.into_bay[i, e]
        into_bay = heated + self.heat.bay + self.power + beside
        self.bay_warm = self.grille_air + softened(into_bay / (max(self.flow[EXIT], LEAST_FLOW) * self.cp))
        back = self.back()
        mixed = back / max(max(self.flow[GRILLE], 0.0) + back, 1e-9)
        self.ahead_warm = self.grille_air + (self.bay_warm - self.grille_air) * mixed
        self.behind_warm = self.ahead_warm + softened(heated / (max(self.forward(), LEAST_FLOW) * self.cp))
        self.ahead = density(pressure, vapour, self.ahead_warm)
        self.behind = density(pressure, vapour, self.behind_warm)
        self.bay = density(pressure, vapour, self.bay_warm)
        self.thickness = viscosity(0.5 * (self.ahead_warm + self.behind_warm))

    def drop(self, flux):
        """Pressure lost in the core [Pa] at a flux [kg/s per m2]."""
        return core_drop(
            self.car.core,
            self.car.surfaces,
            self.car.louver,
            self.row,
            flux,
            self.ahead,
            self.thickness,
            self.ahead / self.behind,
        )

    def begin_like(self, flows):
        """Begin at the flows of a like path, those of the core per area: its areas may differ."""
        for b in range(self.count):
            self.last[b] = flows[b]
        for k in range(self.classes):
            self.last[self.core + k] *= self.network.area[self.row, k]
        self.begin_at(self.last)

    def put(self, flows, pressures, breath, heat):
        """Write flows by branch with those of the core after them per area, node pressures, densities and
        temperatures, and the engine's heat with what enters the coolant behind it."""
        for b in range(self.count):
            flows[b] = flows[self.count + b] = self.flow[b]
        for k in range(self.classes):
            flows[self.count + self.core + k] /= max(self.network.area[self.row, k], 1e-9)
        for node in range(self.nodes):
            pressures[node] = self.pressure[node]
        breath[0], breath[1], breath[2] = self.ahead, self.behind, self.bay
        breath[3], breath[4], breath[5] = self.ahead_warm, self.behind_warm, self.bay_warm
        self.heat.put(heat)
        heat[13] = self.given


def solve_airs(air, rows, speed, asked, start, flows, pressures, breath, heat):
    """The air paths of cars rows (m), written into flows (m, 2 B), pressures (m, N), breath (m, 6), heat (m, 14).

    speed (m, F) of the fans;  asked (m, 5): power [W] they take and shaft power [W] of one on the engine, factors on
    the fans' pressure and on leaks beside the car's own, and on the pressure of the road's air;  start (m, B) : flows
    of like paths, none where its first side is empty.  Steps and the largest imbalance; 0 steps where a path does not
    balance.
    """
    steps, worst = 0, 0.0
    for m in range(rows.shape[0]):
        for k in range(air.fans):
            air.speed[k] = speed[m, k]
        air.set_off(rows[m], asked[m])
        if start.shape[0] > 0:
            air.begin_like(start[m])
        taken = air.solve()
        if taken == 0:
            return 0, air.worst
        steps, worst = max(steps, taken), max(worst, air.worst)
        air.put(flows[m], pressures[m], breath[m], heat[m])
    return steps, worst
