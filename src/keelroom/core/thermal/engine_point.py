"""The heat of one engine in one duty case: `engine_heat` and `gearbox`, written once.

Compiled where a C compiler was at hand (`engine_point.pxd` types it).
"""

import math

GRAVITY = 9.80665
LIGHT = 0.10
"""Share of full load over which efficiency rises from idle (common practice)."""
COMPRESSOR_EFFICIENCY, AIR_CP, AIR_EXPONENT = 0.70, 1006.0, 0.2857
SLIP_STEPS, MOST_SLIP = 6, 0.5
"""Times a converter's slip is worked out from the power it takes, and the most it is let lose: past it one would
change down."""
SPEED_STEPS = 50
"""Halvings a converter's speed is found by: past the last digit."""
POUND_FEET = 1.3558179
"""[N m]"""
COUPLING = 0.88
"""Speed ratio from which on the converter no longer multiplies torque (common practice)."""
STALL_RATIO = 2.0
"""Torque ratio at stall (common practice: 1.8 to 2.3)."""
PER_RPM = math.pi / 30
STANDARD_DENSITY = 1.225
"""[kg/m3] at sea level, which engines' ratings go with."""
CASE, CASE_BY_SPEED = 12.0, 1.5
"""[W/K] a gearbox case sheds standing, and more of it per m/s (common practice)."""
FLOW_IDLE, FLOW_FULL, FLOW_RPM = 4.0 / 60e3, 11.0 / 60e3, 2500.0
"""[m3/s] through the cooler lines at no speed and from FLOW_RPM on (common practice: 4 to 12 L/min)."""
OIL_IDLE, OIL_FULL, OIL_RPM = 8.0 / 60e3, 30.0 / 60e3, 4000.0
"""[m3/s] of engine oil through a cooler at no speed and from OIL_RPM on (common practice)."""


class LawRows:
    """n kinds of engine as memory to read by rows: `engine_laws.EngineLaw`, field by field."""


class EngineRows:
    """n engines: `engine_heat.Engines`, field by field."""


class VehicleRows:
    """n vehicles: `engine_heat.Vehicles`, field by field."""


class DriveRows:
    """What is asked of n engines: `engine_heat.Drive`, field by field."""


def road_power(vehicle, drive, i, density):
    """Power at the wheels [W] of one car in its case. Source: ROAD_LOAD."""
    mass, ahead = vehicle.mass[i] + drive.towed[i], density * vehicle.drag_area[i]
    return wheel_power(mass, vehicle.rolling[i], ahead, drive.grade[i], drive.speed[i], drive.stops_per_metre[i])


def wheel_power(mass, rolling, ahead, grade, speed, stops_per_metre):
    """Power at the wheels [W], never negative. mass [kg]; ahead: air density by drag area [kg/m]; grade: rise over run;
    speed [m/s]. Source: ROAD_LOAD; stops as kinetic energy lost."""
    slope = math.atan(grade)
    force = mass * GRAVITY * (rolling * math.cos(slope) + math.sin(slope)) + 0.5 * ahead * speed * speed
    stops = stops_per_metre * speed * 0.5 * mass * (2 * speed) ** 2
    return max(force * speed + stops, 0.0)


def full_power(engine, i, rpm, density_ratio):
    """Brake power at full throttle [W]; falls with air density, far less where boosted. Shape common practice."""
    x = min(max(rpm / engine.power_rpm[i], 0.0), 1.15)
    return engine.power[i] * x * (1 + x - x * x) * density_ratio ** (0.25 if engine.boost[i] > 0 else 1.0)


def friction_pressure(rpm):
    """Motored friction mean effective pressure [Pa] at wide-open throttle. Source: HEYWOOD, ±0.2 bar."""
    thousands = rpm / 1000.0
    return 1e5 * (0.97 + 0.15 * thousands + 0.05 * thousands * thousands)


def coolant_share(law, i, dense):
    """Share of the fuel that goes into the coolant. dense [W/m3]: fuel by displacement.

    Source: TAYLOR, heat by the 0.75 power of the mass flow; towards none it comes to the law's most.
    """
    share = law.to_coolant[i] * (dense / law.dense[i]) ** -law.falls[i]
    return share * (1 + (share / law.most[i]) ** 6) ** (-1.0 / 6)


def stall_torque(rpm, factor):
    """Torque [N m] a stalled converter asks of the engine. factor: its K [rpm/sqrt(lbf ft)]. Source: CONVERTER."""
    return (rpm / factor) ** 2 * POUND_FEET


def stall_heat(rpm, factor):
    """Heat [W] of a converter in gear whose car stands: all that goes in. Source: torque by speed."""
    return stall_torque(rpm, factor) * rpm * PER_RPM


def capacity(ratio):
    """Share of the stall torque a converter still asks of the engine at a speed ratio 0..1. Source: CONVERTER; the
    curve of passenger cars' converters from memory, ±10 % of it."""
    cubed = ratio * ratio * ratio
    return 1 - cubed * cubed


def torque_ratio(ratio):
    """Torque out of a converter over torque in: from STALL_RATIO straight to 1 at COUPLING. Source: CONVERTER."""
    return max(STALL_RATIO - (STALL_RATIO - 1) * ratio / COUPLING, 1.0)


def converter_speed(turbine, power, factor):
    """Speed [rpm] an engine comes to before an unlocked converter whose turbine turns at `turbine` [rpm], over 0, and
    gives a power [W]. Source: CONVERTER; both speeds solved together."""
    torque = power / (turbine * PER_RPM)
    low, high = turbine, turbine + factor * math.sqrt(max(torque, 0.0) / POUND_FEET) + 1e-6
    for _ in range(SPEED_STEPS):
        rpm = 0.5 * (low + high)
        ratio = turbine / rpm
        if stall_torque(rpm, factor) * capacity(ratio) * torque_ratio(ratio) < torque:
            low = rpm
        else:
            high = rpm
    return 0.5 * (low + high)


def slip_loss(power, rpm, factor):
    """Share of the power [W] that goes into an unlocked converter and does not come out. Source: CONVERTER."""
    torque = power / (max(rpm, 1.0) * PER_RPM)
    asked = min(max(torque / stall_torque(rpm, factor), 0.0), 0.995)
    ratio = (1 - asked) ** (1.0 / 6)
    return min(max(1 - ratio * torque_ratio(ratio), 0.0), 1.0)


def slip(vehicle, drive, i, out, most):
    """Share of the power an unlocked converter loses. out [W]: what has to come out of it; most [W]: what the engine
    can put in."""
    if drive.slips[i] == 0:
        return 0.0
    all_of_it, lost = drive.full_power[i] > 0, 0.0
    into = most if all_of_it else out
    for _ in range(SLIP_STEPS):
        lost = drive.slips[i] * min(slip_loss(max(into, 0.0), drive.rpm[i], vehicle.converter_factor[i]), MOST_SLIP)
        into = most if all_of_it else min(out / (1 - lost), max(most, out))
    return lost


def line_flow(rpm):
    """Fluid [m3/s] through a gearbox's cooler lines. Source: common practice."""
    return FLOW_IDLE + (FLOW_FULL - FLOW_IDLE) * min(rpm / FLOW_RPM, 1.0)


def oil_flow(rpm):
    """Engine oil [m3/s] through its cooler. Source: common practice."""
    return OIL_IDLE + (OIL_FULL - OIL_IDLE) * min(rpm / OIL_RPM, 1.0)


def case_sheds(speed):
    """[W/K] a gearbox's case sheds at a road speed [m/s]. Source: common practice."""
    return CASE + CASE_BY_SPEED * speed


class HeatBalance:
    """Where the fuel of one engine goes [W]: `engine_heat.EngineHeat`, field by field."""

    def burn(self, engine, vehicle, drive, i, fan_power, driven_fan, outdoors, pressure, ambient):
        """Work out engine i in its case.

        fan_power : electrical [W];  driven_fan : shaft [W] of a fan on the engine;  outdoors : density [kg/m3] there
        Source : ROAD_LOAD, HEYWOOD friction and heat balance; part-load shape from common practice
        """
        wheels = road_power(vehicle, drive, i, outdoors) / vehicle.driveline_efficiency[i]
        self.alternator = (drive.electrical[i] + fan_power) / vehicle.alternator_efficiency[i]
        self.accessories = drive.accessories[i] + driven_fan + drive.converter_heat[i]
        auxiliary = self.accessories + self.alternator
        available = full_power(engine, i, drive.rpm[i], outdoors / STANDARD_DENSITY)
        lost = slip(vehicle, drive, i, wheels, available - auxiliary)
        wheels /= 1 - lost
        asked = available if drive.full_power[i] > 0 else wheels + auxiliary
        self.brake = min(asked, available)
        self.short = asked - self.brake
        self.wheels = max(available - auxiliary, 0.0) if drive.full_power[i] > 0 else wheels
        load = self.brake / available
        self.fuel = self.burnt(engine, i, drive.rpm[i], load)
        share = coolant_share(engine.law, i, self.fuel / engine.displacement[i])
        slipping = self.wheels * lost + drive.converter_heat[i]
        rubbing = self.wheels * (1 - lost) * (1 - vehicle.driveline_efficiency[i])
        self.gearbox, self.driveline = vehicle.gearbox_part[i] * rubbing + slipping, rubbing + slipping
        self.oil = self.fuel * engine.oil_share[i] * engine.heat_multiplier[i]
        self.bay = self.fuel * engine.bay_share[i]
        self.coolant = self.fuel * share * engine.heat_multiplier[i]
        self.compress(engine, i, load, pressure, ambient)

    def burnt(self, engine, i, rpm, load):
        """Power in the fuel [W] at a share of full load."""
        friction = engine.law.friction[i] * friction_pressure(rpm) + engine.law.pumping[i] * (1 - load)
        friction *= engine.displacement[i] * rpm / 120.0
        # Close to full load a petrol engine is run rich; the extra fuel leaves unburnt and does little work.
        rich = 1 - engine.law.rich[i] * min(max((load - 0.75) / 0.25, 0.0), 1.0)
        light = (engine.law.efficient[i] - engine.law.idling[i]) * math.exp(-load / LIGHT)
        return (self.brake + friction) / ((engine.law.efficient[i] - light) * rich)

    def compress(self, engine, i, load, pressure, ambient):
        """What the compressor adds to the intake air above the outdoor temperature, and that air's capacity [W/K].

        Boost rises from a third of full load on. Source: isentropic compression of air with COMPRESSOR_EFFICIENCY
        (textbook identity).
        """
        ratio = 1 + engine.boost[i] / pressure * min(max((load - 0.3) / 0.6, 0.0), 1.0)
        rise = (ambient + 273.15) * (ratio**AIR_EXPONENT - 1) / COMPRESSOR_EFFICIENCY
        self.charge_flow = self.fuel * engine.law.air_per_fuel[i] / engine.law.heating[i] * AIR_CP
        self.charge = self.charge_flow * rise

    def put(self, row):
        """Write it in the order of the record's fields."""
        row[0], row[1], row[2], row[3], row[4] = self.wheels, self.accessories, self.alternator, self.brake, self.fuel
        row[5], row[6], row[7], row[8] = self.gearbox, self.driveline, self.oil, self.charge
        row[9], row[10], row[11], row[12] = self.charge_flow, self.bay, self.coolant, self.short


def burnt_by(engine, vehicle, drive, fan_power, air, out):
    """The balance of n engines in rows of `out` (n, 13). air (n, 3): outdoor density, pressure [Pa], ambient [degC]."""
    balance = HeatBalance()
    for i in range(len(fan_power)):
        balance.burn(engine, vehicle, drive, i, fan_power[i], drive.driven_fan[i], air[i, 0], air[i, 1], air[i, 2])
        balance.put(out[i])
