"""Air, water and coolant at one temperature: the formulas of `air`, `water` and `coolant`, written once.

Compiled where a C compiler was at hand (`point.pxd` types it), the same source interpreted where none was.
"""

import math

R_DRY, R_VAPOUR = 287.05287, 461.52
"""[J/kgK]"""
VAPOUR_SHARE = 0.62198
"""molar mass of water over that of dry air"""
N1, N2, N3, N4, N5 = (
    0.11670521452767e4,
    -0.72421316703206e6,
    -0.17073846940092e2,
    0.12020824702470e5,
    -0.32325550322333e7,
)
N6, N7, N8 = 0.14915108613530e2, -0.48232657361591e4, 0.40511340542057e6
N9, N10 = -0.23855557567849, 0.65017534844798e3
MMHG = 133.322
COLDEST, HOTTEST, BOILED = 20.0, 300.0, 1e-7
"""[degC] between which a boiling point is sought, and [K] it is found to"""
ROUNDS, NUDGE = 12, 0.01


class CoolantRows:
    """Curves of n mixes as memory to read by rows: `coolant.CoolantCurves`, field by field."""


def saturation_pressure(celsius):
    """Vapour pressure of water [Pa]. Source: IF97, region 4, equation 30."""
    kelvin = celsius + 273.15
    theta = kelvin + N9 / (kelvin - N10)
    a = theta * theta + N1 * theta + N2
    b = N3 * theta * theta + N4 * theta + N5
    c = N6 * theta * theta + N7 * theta + N8
    return 1e6 * (2.0 * c / (-b + math.sqrt(b * b - 4.0 * a * c))) ** 4


def standard_pressure(altitude):
    """Static pressure [Pa] at an altitude [m]. Source: ISA, troposphere."""
    return 101325.0 * (1.0 - 2.25577e-5 * altitude) ** 5.25588


def vapour_share(pressure, ambient, humidity):
    """kg of vapour per kg of moist air at a pressure [Pa], temperature [degC] and relative humidity 0..1."""
    there = humidity * saturation_pressure(ambient)
    ratio = VAPOUR_SHARE * there / (pressure - there)
    return ratio / (1.0 + ratio)


def density(pressure, vapour, celsius):
    """Density [kg/m3] of moist air. Source: ideal gas of dry air and vapour."""
    return pressure / ((R_DRY + vapour * (R_VAPOUR - R_DRY)) * (celsius + 273.15))


def heat_capacity(vapour):
    """cp [J/kgK], taken constant over -40..120 degC. Source: COOLPROP within 0.5 %."""
    return 1006.5 + vapour * 860.0


def viscosity(celsius):
    """Dynamic viscosity of air [Pa s]. Source: SUTHERLAND (air, 110.4 K)."""
    kelvin = celsius + 273.15
    return 1.458e-6 * kelvin**1.5 / (kelvin + 110.4)


def conductivity(celsius):
    """Thermal conductivity of air [W/mK]. Source: SUTHERLAND form (US standard atmosphere 1976)."""
    kelvin = celsius + 273.15
    return 2.64638e-3 * kelvin**1.5 / (kelvin + 245.4 * 10.0 ** (-12.0 / kelvin))


def coolant_at(mix, i, celsius):
    """Density, heat capacity, conductivity and viscosity of mix i; held at the table's ends beyond them.

    Source: COOLPROP tables through cubics.
    """
    count = mix.cubics.shape[1]
    x, k = min(max((celsius - mix.first[i]) / mix.step[i], 0.0), 1.0 * count), 0
    while x > 1 and k < count - 1:
        x, k = x - 1, k + 1
    rho, cp, conducts, ln_mu = 0.0, 0.0, 0.0, 0.0
    for power in range(3, -1, -1):
        rho = mix.cubics[i, k, power, 0] + x * rho
        cp = mix.cubics[i, k, power, 1] + x * cp
        conducts = mix.cubics[i, k, power, 2] + x * conducts
        ln_mu = mix.cubics[i, k, power, 3] + x * ln_mu
    return rho, cp, conducts, math.exp(ln_mu)


def log_pressure(mix, i, celsius):
    """Logarithm of what mix i boils against. Source: RAOULT with IF97 water and Antoine's line of the glycol."""
    share = mix.water_moles[i]
    glycol = MMHG * 10.0 ** (mix.antoine[i, 0] - mix.antoine[i, 1] / (mix.antoine[i, 2] + celsius))
    return math.log(share * saturation_pressure(celsius) + (1 - share) * glycol)


def boiling_point(mix, i, pressure, guess):
    """Temperature [degC] at which mix i boils at an absolute pressure [Pa], sought from a guess."""
    wanted, celsius = math.log(pressure), guess
    for _ in range(ROUNDS):
        here = log_pressure(mix, i, celsius)
        move = (wanted - here) * NUDGE / (log_pressure(mix, i, celsius + NUDGE) - here)
        celsius = min(max(celsius + move, COLDEST), HOTTEST)
        if abs(move) < BOILED:
            break
    return celsius
