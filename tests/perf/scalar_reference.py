"""The same operating point, one at a time, written for clarity from ht, fluids and scipy's brentq.

It reads the same fluid tables through scipy's own cubic, walks the same 24 x 16 face cell by cell and layer by
layer, nests brentq for the air inside brentq for the temperature, and uses no code of keelroom's solver.
Its purpose is twofold: an independent answer to agree with, and the yardstick `make bench` measures the
vectorised solver against. No CoolProp in its loop. Fans of one package are alike, as in the catalogue.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from fluids.constants import g as gravity
from fluids.core import Prandtl, Reynolds
from ht.conv_internal import turbulent_Gnielinski
from scipy.interpolate import CubicHermiteSpline
from scipy.optimize import brentq

from keelroom.core.operating_point import Points

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

    return convert(points)


# --- fluids -----------------------------------------------------------------


def water_pressure(celsius: float) -> float:
    """IAPWS-IF97 region 4, equation 30, written out again."""
    n = (1167.0521452767, -724213.16703206, -17.073846940092, 12020.82470247, -3232555.0322333,
         14.91510861353, -4823.2657361591, 405113.40542057, -0.23855557567849, 650.17534844798)  # fmt: skip
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
    return Areas(free / cell, (fin + bare) / cell, fin / (fin + bare), 2 * c.tube_width * c.rows / pitch, perimeter * c.rows / pitch,
                 4 * free * c.depth / (fin + bare), 4 * section / perimeter, section, c.face_width * c.face_height)  # fmt: skip


def louver_j(c: Scalars, re: float) -> float:
    lp = c.louver_pitch
    return (re**-0.49 * (c.louver_angle / 90) ** 0.27 * (c.fin_pitch / lp) ** -0.14 * (c.fin_height / lp) ** -0.29
            * (c.depth / lp) ** -0.23 * (c.louver_length / lp) ** 0.68 * ((c.fin_height + c.tube_height) / lp) ** -0.28
            * (c.fin_thickness / lp) ** -0.05)  # fmt: skip


def louver_f(c: Scalars, a: Areas, re: float) -> float:
    fp, lp, fl, ll, td, ft, theta, dm = (c.fin_pitch, c.louver_pitch, c.fin_height, c.louver_length, c.depth, c.fin_thickness,
                                         c.louver_angle, c.tube_height)  # fmt: skip
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


def core_drop(p: Scalars, a: Areas, flux: float, density: float, behind: float, viscosity: float) -> float:
    c = p.core
    g, expansion = flux / a.sigma, density / behind
    f = louver_f(c, a, Reynolds(V=g, D=c.louver_pitch, rho=1.0, mu=viscosity))
    loss = 0.4 + 1 - a.sigma**2 + 2 * (expansion - 1) + f * a.air / a.sigma * 0.5 * (1 + expansion) - (1 - a.sigma**2 - 0.2) * expansion
    return g * g / (2 * density) * loss + p.ahead.loss * flux**2 / (2 * density)


# --- fans and air -----------------------------------------------------------


def fan_rise(p: Scalars, flow: float, speed: float, density: float) -> float:
    """Pressure rise of one fan; the curve's cubics are read, the laws and ends written again."""
    c = p.fans.curve
    n = max(speed, 1e-3)
    x = flow / (n * c.flow[0])
    inside = min(max(x, 0.0), 1.0) * 8
    i = min(int(inside), 7)
    a0, a1, a2, a3 = c.cubics[0][i]
    t = inside - i
    value, slope = a0 + t * (a1 + t * (a2 + t * a3)), (a1 + t * (2 * a2 + 3 * a3 * t)) * 8
    over, under = max(x - 1, 0.0), min(x, 0.0)
    value += slope * (over + under) - c.hole[0] * over**2 + c.hole[0] * under**2
    return density / 1.2 * n * n * c.pressure[0] * value


def engine_coolant_heat(p: Scalars, fan_power: float, density: float) -> float:
    e, d = p.engine, p.drive
    slope = math.atan(d.grade)
    force = d.mass * gravity * (d.rolling * math.cos(slope) + math.sin(slope)) + 0.5 * density * d.drag_area * d.speed**2
    wheels = max(force * d.speed + d.stops_per_metre * d.speed * 0.5 * d.mass * (2 * d.speed) ** 2, 0.0) / d.driveline_efficiency
    auxiliary = d.accessories + d.converter_heat + (d.electrical + fan_power) / d.alternator_efficiency
    x = min(d.rpm / e.power_rpm, 1.15)
    available = e.power * x * (1 + x - x * x) * (density / 1.225) ** (0.25 if e.boosted else 1.0)
    brake = available if d.full_power else min(wheels + auxiliary, available)
    if d.full_power:
        wheels = max(available - auxiliary, 0.0)
    load, k = brake / available, d.rpm / 1000
    diesel = e.diesel > 0
    friction = (1e5 * (0.97 + 0.15 * k + 0.05 * k * k) + (0.1e5 if diesel else 0.6e5) * (1 - load)) * e.displacement * d.rpm / 120
    best, idle = (0.45, 0.38) if diesel else (0.375, 0.30)
    rich = 1 - (0 if diesel else 0.12 * min(max((load - 0.75) / 0.25, 0), 1))
    fuel = (brake + friction) / ((best - (best - idle) * math.exp(-load / 0.15)) * rich)
    full, still = (0.22, 0.37) if diesel else (0.22, 0.40)
    gearbox = d.gearbox_to_coolant * (wheels * (1 - d.driveline_efficiency) + d.converter_heat)
    return fuel * (full + (still - full) * math.exp(-load / 0.35)) * e.heat_multiplier + gearbox


def air_flows(p: Scalars, a: Areas, air: Air, speed: float) -> tuple[float, float, float]:
    """Mass flow through the fans and past them, and the engine's heat, with the fans at a speed."""
    count = sum(1 for present in p.fans.curve.present if present)
    power = count * p.fans.power[0] * speed**3
    density = air.density(p.climate.ambient + p.climate.grille_rise)
    heat = engine_coolant_heat(p, power, density)
    grille_air = p.climate.ambient + p.climate.grille_rise
    total_heat = heat * p.doubts.heat + p.ahead.heat
    ram = 0.5 * density * p.path.speed**2 * (0.9 + 0.12)

    def state(total: float) -> tuple[float, float, float]:
        free = total_heat / (max(abs(total), 1e-3) * air.cp)
        behind = air.density(grille_air + free / (1 + free / 400.0))
        viscosity = air.viscosity(grille_air + 0.5 * (grille_air + 273.15) * (density / behind - 1))
        back = (1.5 / (2 * density * p.path.grille_area**2) + 1.8 / (2 * behind * p.path.exit_area**2)) * total * abs(total)
        return behind, viscosity, ram - back

    def drop(flux: float, behind: float, viscosity: float) -> float:
        size = max(abs(flux), 1e-4)
        return core_drop(p, a, size, density, behind, viscosity) * flux / size

    def through_fans(total: float) -> float:
        behind, viscosity, head = state(total)
        if not count:
            return 0.0

        def gap(m: float) -> float:
            return drop(m / p.path.drawn_area, behind, viscosity) - fan_rise(p, m / count / behind, speed, behind) - head

        return float(brentq(gap, -40.0, 40.0, **CFG))

    def past_fans(total: float) -> float:
        behind, viscosity, head = state(total)
        if p.path.open_area <= 0:
            return 0.0
        return float(brentq(lambda m: drop(m / p.path.open_area, behind, viscosity) - head, -40.0, 40.0, **CFG))

    total = float(brentq(lambda m: through_fans(m) + past_fans(m) - m, -40.0, 40.0, **CFG))
    return through_fans(total), past_fans(total), heat


# --- the joint answer -------------------------------------------------------


def rejection(
    p: Scalars, a: Areas, air: Air, flows: tuple[float, float], hot: float, core_flow: float, layout: tuple[bool, int, int]
) -> float:
    """Heat given off at an engine-outlet temperature, cell by cell."""
    crossflow, passes, layers = layout
    c = p.core
    drawn, free = max(flows[0] / max(p.path.drawn_area, 1e-9), 2e-3), max(flows[1] / max(p.path.open_area, 1e-9), 2e-3)
    air_in = p.climate.ambient + p.climate.grille_rise + min(p.ahead.heat / (max(sum(flows), 1e-3) * air.cp), 40.0)
    film = 0.5 * (hot + air_in)
    rho, cp, k, mu = coolant(p, 0.7 * hot + 0.3 * film)
    length, across = (c.face_width, c.face_height) if crossflow else (c.face_height, c.face_width)
    tubes = across / (c.fin_height + c.tube_height) * c.rows / passes
    re = Reynolds(V=core_flow / (tubes * a.section), D=a.tube_dh, rho=rho, mu=mu)
    pr = Prandtl(Cp=cp, k=k, mu=mu, rho=rho)
    aspect = (c.tube_height - 2 * c.tube_wall) / (c.tube_width - 2 * c.tube_wall)
    developed = 7.541 * (1 - 2.610 * aspect + 4.970 * aspect**2 - 5.119 * aspect**3 + 2.702 * aspect**4 - 0.548 * aspect**5)
    laminar = (developed**3 + 1.849**3 * min(re, 2300.0) * pr * a.tube_dh / length) ** (1 / 3)
    turbulent_re = max(re, 4000.0)
    turbulent = turbulent_Gnielinski(turbulent_re, pr, (0.79 * math.log(turbulent_re) - 1.64) ** -2)
    w = min(max((re - 2300.0) / 1700.0, 0.0), 1.0)
    inner = c.turbulator * ((1 - w) * laminar + w * turbulent) * k / a.tube_dh
    resistance = (1 / inner + c.fouling) / a.inner + c.bond_resistance / a.outer
    air_mu, air_k = air.viscosity(film), air.conductivity(film)
    air_pr = Prandtl(Cp=air.cp, k=air_k, mu=air_mu, rho=1.0)

    def cell_conductance(flux: float) -> float:
        g = flux / a.sigma
        h = louver_j(c, g * c.louver_pitch / air_mu) * g * air.cp * air_pr ** (-2 / 3)
        ml = 0.5 * c.fin_height * math.sqrt(2 * h / (c.fin_conductivity * c.fin_thickness))
        return p.doubts.conductance / (1 / ((1 - a.fin_share * (1 - math.tanh(ml) / ml)) * h * a.air) + resistance)

    coverage = p.coverage
    lanes, cells = coverage.shape
    rho_hot, cp_hot, _, _ = coolant(p, hot)
    capacity = core_flow * rho_hot * cp_hot
    cell_area = a.face / (lanes * cells)
    bounds = np.linspace(0, lanes, passes + 1).round().astype(int)
    inlet, heat = hot, 0.0
    for number in range(passes):
        members = range(bounds[number], bounds[number + 1])
        lane_capacity = capacity / len(members) / layers
        order = range(cells) if number % 2 == 0 else range(cells - 1, -1, -1)
        outlet = 0.0
        for lane in members:
            temperatures = [inlet] * layers
            for cell in order:
                share = coverage[lane][cell]
                flux = share * drawn + (1 - share) * free
                cell_capacity = flux * cell_area * air.cp
                gain = 1 - math.exp(-cell_conductance(flux) * cell_area / layers / cell_capacity)
                kept = math.exp(-min(cell_capacity * gain / lane_capacity, 25.0))
                breath = air_in
                for layer in range(layers):
                    given = (temperatures[layer] - breath) * (1 - kept) * lane_capacity
                    temperatures[layer] -= given / lane_capacity
                    breath += given / cell_capacity
            outlet += sum(temperatures) / layers / len(members)
        heat += capacity * (inlet - outlet)
        inlet = outlet
    return heat


def settle(p: Scalars, layout: tuple[bool, int, int]) -> float:
    """Engine-outlet temperature at which rejection equals heat in."""
    air, a = outdoor(p), areas(p.core)
    brushless = p.fans.brushless[0] > 0
    speed = 1.0 if brushless else p.fans.voltage / p.fans.rated_voltage[0]
    on, off = air_flows(p, a, air, speed), air_flows(p, a, air, 0.0)

    def margin(hot: float) -> float:
        command = min(max((hot - p.fans.off) / (p.fans.on - p.fans.off), 0.0), 1.0)
        fans, free, heat = (off[k] + command * (on[k] - off[k]) for k in range(3))
        heat *= p.doubts.heat
        rho, cp, _, _ = coolant(p, hot)
        pumped = p.circuit.flow_rated * p.drive.rpm / p.circuit.rpm_rated
        sensed = hot - heat / (pumped * rho * cp) if p.circuit.at_inlet else hot
        opening = 0.02 + 0.98 * min(max((sensed - p.circuit.thermostat) / 10.0, 0.0), 1.0)
        return rejection(p, a, air, (fans, free), hot, opening * pumped, layout) - heat

    low = p.climate.ambient + p.climate.grille_rise + 1.0
    if margin(190.0) < 0:
        return math.inf
    return float(brentq(margin, low, 190.0, xtol=1e-9, rtol=1e-11))
