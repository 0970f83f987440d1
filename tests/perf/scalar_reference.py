"""The same operating point, one at a time, written for clarity from ht, fluids and scipy's brentq.

It reads the same fluid tables through scipy's own cubic, walks the same 24 x 16 face cell by cell and layer by
layer, finds node pressures by the hybrid method with every branch inverted on its own, and uses no code of keelroom's
solver.
Its purpose is twofold: an independent answer to agree with, and the yardstick `make bench` measures the
vectorised solver against. No CoolProp in its loop.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from fluids.constants import g as gravity
from fluids.core import Prandtl, Reynolds
from ht import effectiveness_from_NTU
from scipy.interpolate import CubicHermiteSpline
from scipy.optimize import brentq, root

from keelroom.core.plant import Points

RELATIVE = 1e-12
CFG = {"xtol": 1e-13, "rtol": 1e-13, "maxiter": 200}


@dataclass
class Scalars:
    """One point's inputs as plain floats: attribute access by section."""

    sections: dict[str, Any]

    def __getattr__(self, name: str) -> Any:
        return self.sections[name]


def scalars(points: Points, i: int) -> Scalars:
    """Row i of stacked points as floats (arrays for coverage, coolant knots and fan cubics)."""

    def convert(item: Any) -> Any:
        found = {}
        for name in item._fields:
            value = getattr(item, name)
            if isinstance(value, np.ndarray):
                found[name] = float(value[i]) if value[i].ndim == 0 else value[i]
            else:
                found[name] = convert(value)
        return Scalars(found)

    plant, situation = convert(points.plant), convert(points.situation)
    return Scalars({**plant.sections, **situation.sections, "doubts": convert(points.doubts)})


# --- fluids -----------------------------------------------------------------


def water_pressure(celsius: float) -> float:
    """IAPWS-IF97 region 4, equation 30, written out again."""
    n = (
        1167.0521452767,
        -724213.16703206,
        -17.073846940092,
        12020.82470247,
        -3232555.0322333,
        14.91510861353,
        -4823.2657361591,
        405113.40542057,
        -0.23855557567849,
        650.17534844798,
    )
    kelvin = celsius + 273.15
    v = kelvin + n[8] / (kelvin - n[9])
    a, b, c = v * v + n[0] * v + n[1], n[2] * v * v + n[3] * v + n[4], n[5] * v * v + n[6] * v + n[7]
    return 1e6 * (2 * c / (-b + math.sqrt(b * b - 4 * a * c))) ** 4


@dataclass
class Air:
    pressure: float
    vapour: float

    def density(self, celsius: float) -> float:
        gas = 287.05287 + self.vapour * (461.52 - 287.05287)
        return self.pressure / (gas * (celsius + 273.15))

    @property
    def cp(self) -> float:
        return 1006.5 + self.vapour * 860.0

    @staticmethod
    def viscosity(celsius: float) -> float:
        kelvin = celsius + 273.15
        return 1.458e-6 * kelvin**1.5 / (kelvin + 110.4)

    @staticmethod
    def conductivity(celsius: float) -> float:
        kelvin = celsius + 273.15
        return 2.64638e-3 * kelvin**1.5 / (kelvin + 245.4 * 10 ** (-12.0 / kelvin))


def outdoor(p: Scalars) -> Air:
    pressure = 101325.0 * (1 - 2.25577e-5 * p.climate.altitude) ** 5.25588
    partial = p.climate.humidity * water_pressure(p.climate.ambient)
    ratio = 0.62198 * partial / (pressure - partial)
    return Air(pressure, ratio / (1 + ratio))


@lru_cache(maxsize=512)
def _spline(first: float, step: float, data: bytes, rows: int) -> CubicHermiteSpline:
    knots = np.frombuffer(data).reshape(rows, 4)
    at = first + step * np.arange(rows)
    return CubicHermiteSpline(at, knots, np.gradient(knots, axis=0) / step)


def coolant(p: Scalars, celsius: float) -> tuple[float, float, float, float]:
    """Density, heat capacity, conductivity, viscosity."""
    c = p.coolant
    celsius = min(max(celsius, c.first), c.first + c.step * (len(c.knots) - 1))
    rho, cp, k, ln_mu = _spline(c.first, c.step, np.ascontiguousarray(c.knots).tobytes(), len(c.knots))(celsius)
    return float(rho), float(cp), float(k), math.exp(ln_mu)


# --- core -------------------------------------------------------------------


@dataclass
class Areas:
    sigma: float
    air: float
    fin_share: float
    outer: float
    inner: float
    air_dh: float
    tube_dh: float
    section: float
    face: float


def areas(c: Scalars) -> Areas:
    pitch = c.fin_height + c.tube_height
    gap = c.fin_pitch - c.fin_thickness
    fin = 2 * c.fin_height * c.depth
    bare = 2 * gap * c.tube_width * c.rows
    cell = pitch * c.fin_pitch
    h, w = c.tube_height - 2 * c.tube_wall, c.tube_width - 2 * c.tube_wall
    section, perimeter = (w - h) * h + math.pi * h * h / 4, 2 * (w - h) + math.pi * h
    free = c.fin_height * gap
    return Areas(
        free / cell,
        (fin + bare) / cell,
        fin / (fin + bare),
        2 * c.tube_width * c.rows / pitch,
        perimeter * c.rows / pitch,
        4 * free * c.depth / (fin + bare),
        4 * section / perimeter,
        section,
        c.face_width * c.face_height,
    )


def louver_j(c: Scalars, re: float) -> float:
    lp = c.louver_pitch
    return (
        re**-0.49
        * (c.louver_angle / 90) ** 0.27
        * (c.fin_pitch / lp) ** -0.14
        * (c.fin_height / lp) ** -0.29
        * (c.depth / lp) ** -0.23
        * (c.louver_length / lp) ** 0.68
        * ((c.fin_height + c.tube_height) / lp) ** -0.28
        * (c.fin_thickness / lp) ** -0.05
    )


def louver_f(c: Scalars, a: Areas, re: float) -> float:
    fp, lp, fl, ll, td, ft, theta, dm = (
        c.fin_pitch,
        c.louver_pitch,
        c.fin_height,
        c.louver_length,
        c.depth,
        c.fin_thickness,
        c.louver_angle,
        c.tube_height,
    )
    tp, dh = fl + dm, a.air_dh

    def low(r: float) -> float:
        f1 = 14.39 * r ** (-0.805 * fp / fl) * math.log(1 + fp / lp) ** 3.04
        f2 = math.log((ft / fp) ** 0.48 + 0.9) ** -1.435 * (dh / lp) ** -3.01 * math.log(0.5 * r) ** -3.01
        return f1 * f2 * (fp / ll) ** -0.308 * (td / ll) ** -0.308 * math.exp(-0.1167 * tp / dm) * theta**0.35

    def high(r: float) -> float:
        f1 = 4.97 * r ** (0.6049 - 1.064 / theta**0.2) * math.log((ft / fp) ** 0.5 + 0.9) ** -0.527
        f2 = (dh / lp * math.log(0.3 * r)) ** -2.966 * (fp / ll) ** (-0.7931 * tp / fl)
        return f1 * f2 * (tp / dm) ** -0.0446 * math.log(1.2 + (lp / fp) ** 1.4) ** -3.553 * theta**-0.477

    if re < 100:
        return low(100.0) * (re / 100) ** -(0.805 * fp / fl + 3.01 / math.log(50))
    x = min(max(math.log(re / 100) / math.log(225 / 100), 0.0), 1.0)
    w = x * x * (3 - 2 * x)
    return (1 - w) * low(re) + w * high(re)


def core_drop(p: Scalars, a: Areas, flux: float, breath: Breath, loss: float) -> float:
    c = p.core
    g, expansion = flux / a.sigma, breath.ahead / breath.behind
    viscosity = Air.viscosity(0.5 * (breath.front_t + breath.behind_t))
    f = louver_f(c, a, Reynolds(V=g, D=c.louver_pitch, rho=1.0, mu=viscosity))
    kays = (
        0.4
        + 1
        - a.sigma**2
        + 2 * (expansion - 1)
        + f * a.air / a.sigma * 0.5 * (1 + expansion)
        - (1 - a.sigma**2 - 0.2) * expansion
    )
    return g * g / (2 * breath.ahead) * kays + loss * flux**2 / (2 * breath.ahead)


# --- fans and air -----------------------------------------------------------


def fan_rise(p: Scalars, k: int, flow: float, speed: float, density: float) -> float:
    """Pressure rise of one fan; the curve's cubics are read, the laws and ends written again."""
    c, weaker = p.fans.curve, p.doubts.fan_pressure
    n = max(speed, 1e-3)
    x = flow / (n * c.flow[k])
    inside = min(max(x, 0.0), 1.0) * 8
    i = min(int(inside), 7)
    a0, a1, a2, a3 = c.cubics[k][i]
    t = inside - i
    value, slope = a0 + t * (a1 + t * (a2 + t * a3)), (a1 + t * (2 * a2 + 3 * a3 * t)) * 8
    over, under = max(x - 1, 0.0), min(x, 0.0)
    value += slope * (over + under) - c.hole[k] / weaker * over**2 + c.hole[k] / weaker * under**2
    return density / 1.2 * n * n * c.pressure[k] * weaker * value


@dataclass
class Heat:
    coolant: float
    gearbox: float
    oil: float
    charge: float
    charge_flow: float
    bay: float


def engine_heat(p: Scalars, fan_power: float, density: float, pressure: float) -> Heat:
    e, d, v = p.engine, p.drive, p.vehicle
    slope = math.atan(d.grade)
    force = (v.mass + d.towed) * gravity * (
        v.rolling * math.cos(slope) + math.sin(slope)
    ) + 0.5 * density * v.drag_area * d.speed**2
    wheels = (
        max(force * d.speed + d.stops_per_metre * d.speed * 0.5 * (v.mass + d.towed) * (2 * d.speed) ** 2, 0.0)
        / v.driveline_efficiency
    )
    auxiliary = d.accessories + d.driven_fan + d.converter_heat + (d.electrical + fan_power) / v.alternator_efficiency
    assert not d.slips, "the sample has no converter that slips on the road"
    x = min(d.rpm / e.power_rpm, 1.15)
    available = e.power * x * (1 + x - x * x) * (density / 1.225) ** (0.25 if e.boost else 1.0)
    brake = available if d.full_power else min(wheels + auxiliary, available)
    if d.full_power:
        wheels = max(available - auxiliary, 0.0)
    load, k = brake / available, d.rpm / 1000
    kind = e.law
    friction = (
        (kind.friction * 1e5 * (0.97 + 0.15 * k + 0.05 * k * k) + kind.pumping * (1 - load))
        * e.displacement
        * d.rpm
        / 120
    )
    best, idle = kind.efficient, kind.idling
    rich = 1 - kind.rich * min(max((load - 0.75) / 0.25, 0), 1)
    fuel = (brake + friction) / ((best - (best - idle) * math.exp(-load / 0.10)) * rich)
    lean = kind.to_coolant / (fuel / e.displacement / kind.dense) ** kind.falls
    share = 1 / (lean**-6 + kind.most**-6) ** (1 / 6)
    gearbox = wheels * (1 - v.driveline_efficiency) * v.gearbox_part + d.converter_heat
    oil = fuel * e.oil_share * e.heat_multiplier
    ratio = 1 + e.boost / pressure * min(max((load - 0.3) / 0.6, 0), 1)
    intake = fuel * kind.air_per_fuel / kind.heating
    charge = intake * 1006.0 * (p.climate.ambient + 273.15) * (ratio**0.2857 - 1) / 0.70
    coolant = fuel * share * e.heat_multiplier
    return Heat(coolant, gearbox, oil, charge, intake * 1006.0, fuel * e.bay_share)


@dataclass
class Breath:
    ahead: float
    behind: float
    bay: float
    front_t: float
    behind_t: float
    bay_t: float


@dataclass
class AirPath:
    """One solved state of the fans: flow of every class [kg/s], air at the face, and the engine's heat."""

    core: list[float]
    front_t: float
    at_face: float
    heat: Heat
    into_coolant: float
    bay_t: float
    leaving: float


def softened(rise: float) -> float:
    return rise * (1 + (rise / 400.0) ** 4) ** -0.25


def square_flow(head: float, factor: float) -> float:
    """Flow whose factor m sqrt(m2 + still2) is the head: the square law with its straight foot, solved in closed
    form."""
    y, still = abs(head) / factor, 1e-4
    return math.copysign(math.sqrt((-(still**2) + math.sqrt(still**4 + 4 * y * y)) / 2), head)


@dataclass
class Around:
    """Air and coolant round the coolers; rise: how the coolant of the tank moves with the gearbox's heat [K/W]."""

    outside: float
    front: float
    bay: float
    behind: float
    tank: float
    rise: float
    block: float


@dataclass
class Coolers:
    heat: list[float]
    rise: list[float]
    tank: float
    from_block: float


def per_kelvin(p: Scalars, k: int, flow: float, fluid: float, cp: float) -> float:
    """ht's cross-flow effectiveness on the cooler's two capacities."""
    c = p.coolers
    speed = max(flow / (1.15 * max(c.area[k], 1e-9)) / 3.0, 0.02)
    own = c.conductance[k] * c.area[k] / (c.air_share[k] * speed**-0.6 + 1 - c.air_share[k])
    air = max(flow * cp, 1e-9)
    least, most = min(air, fluid), max(air, fluid)
    if own <= 0:
        return 0.0
    return least * float(
        effectiveness_from_NTU(own / least, Cr=max(least / most, 1e-6), subtype="crossflow approximate")
    )


def circuit(
    heat: float, stages: list[tuple[float, float, float]], capacity: float, case: tuple[float, float]
) -> tuple[float, list[float]]:
    """Sump temperature by brentq: what every stage and the case take of a fluid that hot is what it is given. stages:
    W/K, air, K/W of rise."""

    def taken(sump: float) -> tuple[float, list[float]]:
        fluid, each = sump + heat / capacity, []
        for takes, against, rise in stages:
            each.append(takes * (fluid - against) / (1 + takes * rise))
            fluid -= each[-1] / capacity
        return sum(each) + case[0] * (sump - case[1]), each

    sump = float(brentq(lambda t: taken(t)[0] - heat, -500.0, 3000.0, xtol=1e-12, rtol=1e-14))
    return sump, taken(sump)[1]


def coolers(p: Scalars, heat: Heat, core: list[float], around: Around, air: Air, sweeps: int) -> Coolers:
    """Every cooler with the fluid it is in, air taken on from one to the next until nothing moves."""
    c, d, count = p.coolers, p.drive, len(p.coolers.area)
    doubt = p.doubts.heat
    gearbox_flow = (4 + 7 * min(d.rpm / 2500.0, 1.0)) / 60e3 * 825 * 2100
    oil_flow = (8 + 22 * min(d.rpm / 4000.0, 1.0)) / 60e3 * 850 * 2130
    steering_flow = 5 / 60e3 * 825 * 2100
    total = sum(max(m, 0.0) for m in core)
    flow, takes, meets = [], [], []
    for k in range(count):
        under = sum(max(m, 0.0) for m, row in zip(core, c.covered, strict=True) if row[k])
        flow.append(under if c.ahead[k] else c.from_core[k] * total if c.from_core[k] else p.fluids.own_air[k])
        fluid = (
            c.gearbox[k] * gearbox_flow
            + c.oil[k] * oil_flow
            + c.steering[k] * steering_flow
            + c.refrigerant[k] * 1e9
            + c.charge[k] * (900.0 if c.water[k] else heat.charge_flow)
        )
        found = per_kelvin(p, k, flow[-1], fluid, air.cp) if fluid else 0.0
        if c.water[k] and c.charge[k]:
            first = 0.85 * heat.charge_flow
            found = min(1 / (1 / first + 1 / found - 1 / 900.0), first)
        takes.append(found)
        alone = around.behind if c.from_core[k] else around.bay if c.from_bay[k] else around.outside
        meets.append(around.front if c.ahead[k] else alone)
    inlet = list(meets)
    for _ in range(sweeps):
        given = [0.0] * count

        def stages(which: list[float], inlet: list[float] = inlet) -> list[tuple[float, float, float]]:
            return [(takes[k] * which[k], inlet[k], 0.0) for k in range(count)]

        first = [c.gearbox[k] * (1 - c.after_tank[k]) for k in range(count)]
        last = [c.gearbox[k] * c.after_tank[k] for k in range(count)]
        _, each = circuit(
            heat.gearbox * doubt,
            [*stages(first), (c.tank, around.tank, around.rise), *stages(last)],
            gearbox_flow,
            (12.0 + 1.5 * d.speed, around.outside),
        )
        tank = each[count]
        given = [q + each[k] + each[count + 1 + k] for k, q in enumerate(given)]
        _, each = circuit(heat.oil * doubt, stages(c.oil), oil_flow, (c.oil_to_block, around.block))
        from_block = sum(each)
        given = [q + each[k] for k, q in enumerate(given)]
        _, each = circuit(p.fluids.steering, stages(c.steering), steering_flow, (10.0, around.bay))
        given = [q + each[k] for k, q in enumerate(given)]
        hot = around.outside + heat.charge / max(heat.charge_flow, 1e-9)
        for k in range(count):
            each_charge = takes[k] * c.charge[k] * (hot - inlet[k])
            given[k] += each_charge
            hot -= each_charge / heat.charge_flow
        condensing = [takes[k] * c.refrigerant[k] for k in range(count)]
        if sum(condensing) > 0 and p.fluids.compressor > 0:
            share, shaft = p.fluids.cop_share, p.fluids.compressor

            def left(
                t: float,
                shaft: float = shaft,
                share: float = share,
                inlet: list[float] = inlet,
                condensing: list[float] = condensing,
            ) -> float:
                return sum(x * (t - inlet[k]) for k, x in enumerate(condensing)) - shaft * (
                    1 + share * 278.15 / (t - 5.0)
                )

            at = min(float(brentq(left, 5.0 + 1e-9, 1e12, xtol=1e-12, rtol=1e-14)), 85.0)
            most = sum(x * (85.0 - inlet[k]) for k, x in enumerate(condensing))
            full = shaft * (1 + share * 278.15 / (at - 5.0))
            reached = min(full * (1 + (full / max(most, 1e-3 * full)) ** 32) ** (-1 / 32), max(most, 0.0))
            at = sum(x * inlet[k] for k, x in enumerate(condensing)) / sum(condensing) + reached / sum(condensing)
            part = [x * max(at - inlet[k], 0.0) for k, x in enumerate(condensing)]
            given = [q + part[k] * reached / max(sum(part), 1e-9) for k, q in enumerate(given)]
        rise = [q / max(f * air.cp, 1e-9) for q, f in zip(given, flow, strict=True)]
        inlet = [
            meets[k] + (sum(c.upstream[k][j] * rise[j] for j in range(count)) if c.ahead[k] else 0.0)
            for k in range(count)
        ]
    return Coolers(given, rise, tank, from_block)


def air_path(p: Scalars, a: Areas, air: Air, speeds: list[float]) -> AirPath:
    """The network's flows with the fans at `speeds`: node pressures by scipy's hybrid method, each branch by its own
    inverse."""
    net, grille_air = p.network, p.climate.ambient + p.climate.grille_rise
    outdoor = air.density(grille_air)
    f = p.fans
    rows = zip(f.power, speeds, f.curve.present, p.command.voltage, f.rated_voltage, f.brushless, strict=True)
    power = sum(w * (n**3 if held else n * n * v / rated) * present for w, n, present, v, rated, held in rows)
    heat = engine_heat(p, power, outdoor, air.pressure)
    coolant = heat.coolant * p.doubts.heat
    nominal = Around(grille_air, grille_air, grille_air, grille_air, 95.0 - 8.0, 0.0, 95.0)
    classes, zones = len(net.area), len(net.leak_area)
    first = 3 + 2 * zones
    ends = [tuple((list(row).index(v) if v in row else None) for v in (1.0, -1.0)) for row in net.incidence]

    def breathe(flows: list[float]) -> Breath:
        core = flows[first : first + classes]
        found = coolers(p, heat, core, nominal, air, 1)
        given = (
            coolant
            + found.tank
            - found.from_block
            + sum(q * on for q, on in zip(found.heat, p.coolers.ahead, strict=True))
        )
        beside = sum(q * on for q, on in zip(found.heat, p.coolers.into_bay, strict=True))
        bay = grille_air + softened((given + heat.bay + power + beside) / (max(flows[1], 1e-3) * air.cp))
        back = max(-flows[2], 0.0) + sum(max(-m, 0.0) for m in core)
        front = grille_air + (bay - grille_air) * back / max(max(flows[0], 0.0) + back, 1e-9)
        behind = front + softened(given / (max(sum(max(m, 0.0) for m in core), 1e-3) * air.cp))
        return Breath(air.density(front), air.density(behind), air.density(bay), front, behind, bay)

    def branch(b: int, head: float, breath: Breath) -> float:
        """Flow of branch b at its driving head."""
        if b < first:
            opening = b
            area = [
                net.grille_area,
                net.exit_area,
                net.bypass_area * p.doubts.leaks,
                *net.leak_area * p.doubts.leaks,
                *net.flap_area,
            ][opening]
            if area <= 0:
                return 0.0
            leak, flap = 3 <= opening < 3 + zones, opening >= 3 + zones
            lost = 1.5 if opening == 0 else 1.8 if opening == 1 else 1.5 if flap else 1 / 0.6**2
            forward = head >= 0
            density = (
                breath.ahead
                if opening == 0
                else breath.bay
                if opening == 1
                else (breath.ahead if forward else breath.bay)
                if opening == 2
                else (breath.bay if forward else breath.behind)
                if leak
                else (breath.behind if forward else breath.bay)
            )
            return square_flow(
                head,
                lost / (2 * density * area**2) * (400.0 if flap and not net.flaps_open[0 if forward else 1] else 1.0),
            )
        if b < first + classes:
            kind = b - first
            area = net.area[kind]
            if area <= 0:
                return 0.0
            least = core_drop(p, a, 1e-4, breath, net.loss[kind])
            if abs(head) <= least:
                return area * 1e-4 * head / least
            flux = float(brentq(lambda g: core_drop(p, a, g, breath, net.loss[kind]) - abs(head), 1e-5, 200.0, **CFG))
            return math.copysign(flux * area, head)
        k = b - first - classes
        if not p.fans.curve.present[k]:
            return 0.0
        density = breath.ahead if net.pushes[k] else breath.behind
        return float(brentq(lambda m: -fan_rise(p, k, m / density, speeds[k], density) - head, -60.0, 60.0, **CFG))

    def flows_at(pressures: np.ndarray, breath: Breath) -> list[float]:
        stagnation = 0.5 * breath.ahead * p.air_speed**2
        found = []
        for b, (leaves, arrives) in enumerate(ends):
            head = (pressures[leaves] if leaves is not None else 0.0) - (
                pressures[arrives] if arrives is not None else 0.0
            )
            found.append(
                branch(
                    b,
                    head
                    + (float(net.ram) * stagnation if b == 0 else -float(net.base) * stagnation if b == 1 else 0.0),
                    breath,
                )
            )
        return found

    def open_ends(pressures: np.ndarray, breath: Breath) -> np.ndarray:
        left = np.zeros(len(pressures))
        for m, (leaves, arrives) in zip(flows_at(pressures, breath), ends, strict=True):
            if leaves is not None:
                left[leaves] += m
            if arrives is not None:
                left[arrives] -= m
        return left

    ram = 0.5 * outdoor * p.air_speed**2
    drawn = max(
        (pr * n * n * on for pr, n, on in zip(p.fans.curve.pressure, speeds, p.fans.curve.present, strict=True)),
        default=0.0,
    )
    pressures = np.array(
        [0.7 * ram - 0.1 * drawn, 0.1 * drawn, *[0.3 * ram - 0.6 * drawn] * (net.incidence.shape[1] - 2)]
    )
    flows = [0.3] * len(ends)
    for _ in range(60):
        breath = breathe(flows)
        solved = root(open_ends, pressures, args=(breath,), method="hybr", options={"xtol": 1e-13})
        if np.abs(solved.fun).max() > 1e-9:
            solved = root(open_ends, pressures, args=(breath,), method="lm", options={"xtol": 1e-14, "ftol": 1e-14})
        previous, pressures = flows, solved.x
        flows = flows_at(pressures, breath)
        if max(abs(x - y) for x, y in zip(flows, previous, strict=True)) < 1e-10:
            break
    back = max(-flows[2], 0.0) + sum(max(-m, 0.0) for m in flows[first : first + classes])
    core = flows[first : first + classes]
    found = coolers(p, heat, core, nominal, air, 1)
    into = coolant + found.tank - found.from_block
    return AirPath(core, breath.front_t, max(flows[0], 0.0) + back, heat, into, breath.bay_t, max(flows[1], 0.0))


# --- the coolant loop -------------------------------------------------------

OPENINGS = (0.0, 0.12, 0.3, 0.6, 1.0)


def loop_table(p: Scalars, a: Areas, layout: tuple[bool, int, int]) -> list[tuple[float, float]]:
    """Flow through engine and core at each thermostat opening."""
    c, q = p.circuit, p.core
    crossflow, passes, _ = layout
    rho, _, _, mu = coolant(p, 95.0)
    length, across = (q.face_width, q.face_height) if crossflow else (q.face_height, q.face_width)
    section = across / (q.fin_height + q.tube_height) * q.rows / passes * a.section
    aspect = (q.tube_height - 2 * q.tube_wall) / (q.tube_width - 2 * q.tube_wall)
    laminar = 96 * (
        1 - 1.3553 * aspect + 1.9467 * aspect**2 - 1.7012 * aspect**3 + 0.9564 * aspect**4 - 0.2537 * aspect**5
    )
    rated = c.flow_rated
    run = p.pump_voltage / c.electric_voltage if c.electric else 0.0
    top = 80e3 / (1 - 1 / 1.6**2) * c.impeller * c.mechanical
    source = np.array(c.head) * c.impeller * run**2
    source[0] += top * (p.drive.rpm / c.rpm_rated * c.pulley) ** 2
    jiggle = 0.7 * math.pi * 2e-3**2 * math.sqrt(2 / rho)

    def loss(b: int, flow: float, opening: float) -> float:
        """What branch b loses; 0 engine, 1 core, 2 thermostat, 3 bypass."""
        found = (
            1e3 * flow
            + c.square[b] * flow * abs(flow)
            + c.linear[b] * c.impeller * run * flow
            + c.fall[b] * c.impeller * flow * abs(flow)
        )
        if c.bore[b]:
            speed = flow / (math.pi / 4 * c.bore[b] ** 2)
            re = max(Reynolds(V=abs(speed), D=c.bore[b], rho=rho, mu=mu), 1e-9)
            f = ((64 / re) ** 4 + (0.3164 / re**0.25) ** 4) ** 0.25 if c.length[b] else 0.0
            found += rho / 2 * speed * abs(speed) * (f * c.length[b] / c.bore[b] + c.heads[b])
        if b == 0:
            found += (0.5 * 80e3 / rated**2 + top / (1.6 * rated) ** 2) * flow * abs(flow)
        if b == 1:
            speed = flow / section
            re = max(Reynolds(V=abs(speed), D=a.tube_dh, rho=rho, mu=mu), 1e-9)
            f = ((laminar / re) ** 4 + (0.3164 / re**0.25) ** 4) ** 0.25 * q.turbulator
            found += rho / 2 * speed * abs(speed) * passes * (f * length / a.tube_dh + 1.5)
        if b == 3:
            found += (
                (0.5 * 80e3 / (0.3 * rated * (1 - 0.95 * opening * c.covers)) ** 2 if c.bypassed else 1e17)
                * flow
                * abs(flow)
            )
        if c.gate[b]:
            found += flow * abs(flow) / (opening * rated / math.sqrt(0.2 * 80e3) + jiggle) ** 2
        return float(found)

    table = []
    joined = np.array(c.incidence)
    branches, nodes = joined.shape
    begin = np.concatenate([np.full(branches, 0.3 * rated), np.zeros(nodes)])
    for opening in OPENINGS:

        def gaps(x: Any, opening: float = opening) -> Any:
            flows, pressures = x[:branches] * rated, x[branches:] * 1e4
            over = joined @ pressures + source - np.array([loss(b, flow, opening) for b, flow in enumerate(flows)])
            return np.concatenate([over / 1e4, joined.T @ flows / rated])

        start = np.concatenate([begin[:branches] / rated, begin[branches:] / 1e4])
        found = root(gaps, start, method="hybr", options={"xtol": 1e-13})
        if np.abs(found.fun).max() > 1e-8:
            found = root(gaps, start, method="lm", options={"xtol": 1e-14, "ftol": 1e-14})
        begin = np.concatenate([found.x[:branches] * rated, found.x[branches:] * 1e4])
        table.append((float(found.x[0] * rated), float(found.x[1] * rated)))
    return table


# --- the joint answer -------------------------------------------------------


@dataclass
class Meeting:
    """What the evaluation brings to the face."""

    core: list[float]
    front_t: float
    cooler_rise: list[float]
    hot: float
    core_flow: float


def rejection(p: Scalars, a: Areas, air: Air, m: Meeting, layout: tuple[bool, int, int]) -> float:
    """Heat given off at an engine-outlet temperature, cell by cell."""
    crossflow, passes, layers = layout
    c = p.core
    rises = [rise * on for rise, on in zip(m.cooler_rise, p.coolers.ahead, strict=True)]
    class_air = [
        m.front_t + sum(rise * under for rise, under in zip(rises, row, strict=True)) for row in p.coolers.covered
    ]
    forward = [max(flow, 0.0) for flow in m.core]
    air_in = (
        sum(f * t for f, t in zip(forward, class_air, strict=True)) / sum(forward) if sum(forward) > 1e-9 else m.front_t
    )
    film = 0.5 * (m.hot + air_in)
    rho, cp, k, mu = coolant(p, 0.7 * m.hot + 0.3 * film)
    length, across = (c.face_width, c.face_height) if crossflow else (c.face_height, c.face_width)
    tubes = across / (c.fin_height + c.tube_height) * c.rows / passes
    re = Reynolds(V=m.core_flow / (tubes * a.section), D=a.tube_dh, rho=rho, mu=mu)
    pr = Prandtl(Cp=cp, k=k, mu=mu, rho=rho)
    aspect = (c.tube_height - 2 * c.tube_wall) / (c.tube_width - 2 * c.tube_wall)
    developed = 7.541 * (
        1 - 2.610 * aspect + 4.970 * aspect**2 - 5.119 * aspect**3 + 2.702 * aspect**4 - 0.548 * aspect**5
    )

    def slow(at: float) -> float:
        return (developed**3 + 1.849**3 * at * pr * a.tube_dh / length) ** (1 / 3)

    def fast(at: float) -> float:
        xi = 1 / (1.2776 * math.log10(at) - 0.406) ** 2.246
        rise = xi / 8 * (at - 2300) * pr**1.008 / (1.08 + 12.39 * math.sqrt(xi / 8) * (pr ** (2 / 3) - 1))
        return slow(2300.0) + rise * (1 + (a.tube_dh / length) ** (2 / 3))

    if re <= 1000.0:
        nusselt = slow(re)
    elif re >= 6000.0:
        nusselt = fast(re)
    else:
        nusselt = math.exp(
            np.interp(
                math.log(re), [math.log(1000.0), math.log(6000.0)], [math.log(slow(1000.0)), math.log(fast(6000.0))]
            )
        )
    inner = c.turbulator * nusselt * k / a.tube_dh
    resistance = (1 / inner + c.fouling) / a.inner + c.bond_resistance / a.outer
    air_mu, air_k = air.viscosity(film), air.conductivity(film)
    air_pr = Prandtl(Cp=air.cp, k=air_k, mu=air_mu, rho=1.0)

    def class_conductance(flux: float) -> float:
        g = max(flux, 2e-3) / a.sigma
        h = louver_j(c, g * c.louver_pitch / air_mu) * g * air.cp * air_pr ** (-2 / 3)
        ml = 0.5 * c.fin_height * math.sqrt(2 * h / (c.fin_conductivity * c.fin_thickness))
        return p.doubts.conductance / (1 / ((1 - a.fin_share * (1 - math.tanh(ml) / ml)) * h * a.air) + resistance)

    fluxes = [f / max(area, 1e-9) for f, area in zip(forward, p.network.area, strict=True)]
    conductances = [class_conductance(flux) for flux in fluxes]
    mix = p.face.kinds[p.face.which.astype(int)]
    lanes, cells, kinds = mix.shape
    rho_hot, cp_hot, _, _ = coolant(p, m.hot)
    capacity = m.core_flow * rho_hot * cp_hot
    cell_area = a.face / (lanes * cells)
    bounds = np.linspace(0, lanes, passes + 1).round().astype(int)
    inlet, heat = m.hot, 0.0
    for number in range(passes):
        members = range(bounds[number], bounds[number + 1])
        lane_capacity = capacity / len(members) / layers
        order = range(cells) if number % 2 == 0 else range(cells - 1, -1, -1)
        outlet = 0.0
        for lane in members:
            temperatures = [inlet] * layers
            for cell in order:
                shares = mix[lane, cell]
                flux = sum(shares[k] * fluxes[k] for k in range(kinds))
                carried = max(flux, 1e-9)
                breath = (
                    sum(shares[k] * fluxes[k] * class_air[k] for k in range(kinds)) / carried
                    if flux > 1e-9
                    else class_air[0]
                )
                given_per_kelvin = sum(shares[k] * conductances[k] for k in range(kinds)) * cell_area
                cell_capacity = carried * cell_area * air.cp
                gain = 1 - math.exp(-given_per_kelvin / layers / cell_capacity)
                kept = math.exp(-min(cell_capacity * gain / lane_capacity, 25.0))
                for layer in range(layers):
                    given = (temperatures[layer] - breath) * (1 - kept) * lane_capacity
                    temperatures[layer] -= given / lane_capacity
                    breath += given / cell_capacity
            outlet += sum(temperatures) / layers / len(members)
        heat += capacity * (inlet - outlet)
        inlet = outlet
    return heat


def brushed_speed(ratio: float) -> float:
    """Speed share at which back-voltage and the drop over a motor's own resistance (a fifth when stalled five times
    over) use up the volts."""
    return float(brentq(lambda x: 0.2 * x * x + 0.8 * x - ratio, 0.0, 3.0, xtol=1e-14))


def settle(p: Scalars, layout: tuple[bool, int, int]) -> float:
    """Engine-outlet temperature at which rejection equals heat in."""
    air, a = outdoor(p), areas(p.core)
    full = [
        (min(v / rated / 0.72, 1.0) if held else brushed_speed(v / rated)) * present * runs
        for held, v, rated, present, runs in zip(
            p.fans.brushless, p.command.voltage, p.fans.rated_voltage, p.fans.curve.present, p.fans.runs, strict=True
        )
    ]
    on, off = air_path(p, a, air, full), air_path(p, a, air, [0.0] * len(full))
    table = loop_table(p, a, layout)
    core_flows = [flow for _, flow in table]
    core_flow_at = CubicHermiteSpline(OPENINGS, core_flows, np.gradient(core_flows, OPENINGS, edge_order=2))

    def opened(over: float) -> float:
        share = min(max(over / 10.0, 0.0), 1.0)
        return share * share * (3 - 2 * share)

    def margin(hot: float) -> float:
        law, sensing = p.command.law, p.command.sensing
        rho, cp, _, _ = coolant(p, hot)
        reading = hot
        if sensing.after_core:
            still = off.into_coolant
            felt = hot - (still / (table[-1][0] * rho * cp) if p.circuit.at_inlet else 0.0)
            reading = max(hot - still / (core_flow_at(opened(felt - p.circuit.thermostat)) * rho * cp), sensing.air)
        reading -= sensing.fins * (reading - sensing.air)
        command = max(float(np.interp(reading, law.temperatures, law.shares)), law.least)
        load = max(float(np.interp(reading, law.temperatures, law.powers)), law.least_power)

        def mean(was: float, then: float) -> float:
            return was + command * (then - was)

        nominal = off.into_coolant + load * (on.into_coolant - off.into_coolant)
        weights = (1 - command) * off.at_face + 1e-12, command * on.at_face + 1e-12
        front = (weights[0] * off.front_t + weights[1] * on.front_t) / sum(weights)
        sensed = hot - nominal / (table[-1][0] * rho * cp) if p.circuit.at_inlet else hot
        core_flow = core_flow_at(opened(sensed - p.circuit.thermostat))
        core = [mean(*pair) for pair in zip(off.core, on.core, strict=True)]
        leaves = (1 - command) * off.leaving + 1e-12, command * on.leaving + 1e-12
        bay = (leaves[0] * off.bay_t + leaves[1] * on.bay_t) / sum(leaves)
        engine = Heat(
            *(
                was + load * (then - was)
                for was, then in zip(vars(off.heat).values(), vars(on.heat).values(), strict=True)
            )
        )
        own, carries = engine.coolant * p.doubts.heat, max(core_flow * rho * cp, 4 * p.coolers.tank + 1.0)
        outside = p.climate.ambient + p.climate.grille_rise
        behind = front + softened(own / (max(sum(max(m, 0.0) for m in core), 1e-3) * air.cp))
        around = Around(outside, front, bay, behind, max(hot - own / carries, front), -1 / carries, hot)
        found = coolers(p, engine, core, around, air, 30)
        meeting = Meeting(core, front, found.rise, hot, core_flow)
        return rejection(p, a, air, meeting, layout) - (own + found.tank - found.from_block)

    low = p.climate.ambient + p.climate.grille_rise + 1e-6
    if margin(190.0) < 0:
        return math.inf
    return float(brentq(margin, low, 190.0, xtol=1e-9, rtol=1e-11))
