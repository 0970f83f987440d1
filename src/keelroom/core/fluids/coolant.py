"""Coolant properties against temperature, from tables made by CoolProp, and boiling under a cap."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.fluids import point
from keelroom.core.rows import bound

MOLAR_MASS = {"ethylene_glycol": 62.068e-3, "propylene_glycol": 76.094e-3, "water": 18.01528e-3}
DENSITY_20 = {"ethylene_glycol": 1113.0, "propylene_glycol": 1036.0, "water": 998.2}
# log10(p / mmHg) = A - B / (C + degC); from memory, checked against the handbook boiling points.
ANTOINE = {"ethylene_glycol": (8.09083, 2088.936, 203.454), "propylene_glycol": (8.2082, 2085.9, 203.5396)}
USUAL_BOILING = 120.0
"""[degC] where a boiling point is first looked for."""


class GlycolTable(NamedTuple):
    """One glycol: rows of rho, cp, k, ln mu on (mass fraction, temperature) grids, and freezing points."""

    glycol: str
    mass_fraction: Floats
    temperature: Floats
    values: Floats
    """(fractions, temperatures, 4): density, heat capacity, conductivity, ln viscosity; SI."""
    freezing: Floats
    """(fractions,) [degC]"""


class CoolantCurves(NamedTuple):
    """A mix as curves over temperature: cubic Hermite through evenly spaced knots, per point.

    first, step : [degC]; knots (K, 4) of rho, cp, k, ln mu; cubics (K - 1, 4, 4) between them, powers 0..3 of the place
    in the step first (leading n when stacked)
    water_moles : mole fraction of water;  antoine : (3,)
    """

    first: Floats | float
    step: Floats | float
    knots: Floats
    cubics: Floats
    water_moles: Floats | float
    antoine: Floats


class CoolantState(NamedTuple):
    """Properties at one temperature per point, all (n,): kg/m3, J/kgK, W/mK, Pa s."""

    density: Floats
    heat_capacity: Floats
    conductivity: Floats
    viscosity: Floats


def mass_fraction(glycol: str, volume_fraction: float) -> float:
    """Glycol mass fraction of a mix made by volume at 20 degC, contraction neglected (under 1 %).

    0..1 both. Source: densities at 20 degC.
    """
    glycol_mass = volume_fraction * DENSITY_20[glycol]
    return glycol_mass / (glycol_mass + (1.0 - volume_fraction) * DENSITY_20["water"])


def curves(table: GlycolTable, volume_fraction: float) -> CoolantCurves:
    """The mix's curves. volume_fraction 0..1 (1: glycol-only coolant). Linear in mass fraction between rows.

    Source: COOLPROP tables, RAOULT for boiling.
    """
    share = mass_fraction(table.glycol, volume_fraction)
    i = int(np.clip(np.searchsorted(table.mass_fraction, share, side="right") - 1, 0, len(table.mass_fraction) - 2))
    low, high = table.mass_fraction[i : i + 2]
    weight = (share - low) / (high - low)
    knots = (1 - weight) * table.values[i] + weight * table.values[i + 1]
    moles_water = (1 - share) / MOLAR_MASS["water"]
    moles = moles_water + share / MOLAR_MASS[table.glycol]
    return CoolantCurves(
        first=float(table.temperature[0]),
        step=float(table.temperature[1] - table.temperature[0]),
        knots=knots,
        cubics=_cubics(knots, np.gradient(knots, axis=0)),
        water_moles=moles_water / moles,
        antoine=np.array(ANTOINE[table.glycol]),
    )


def _cubics(knots: Floats, slopes: Floats) -> Floats:
    y0, y1, d0, d1 = knots[:-1], knots[1:], slopes[:-1], slopes[1:]
    return np.stack([y0, d0, 3 * (y1 - y0) - 2 * d0 - d1, 2 * (y0 - y1) + d0 + d1], axis=1)


def freezing_point(table: GlycolTable, volume_fraction: float) -> float:
    """Temperature at which ice first forms [degC]; linear between the table's rows.

    Source: COOLPROP.
    """
    return float(np.interp(mass_fraction(table.glycol, volume_fraction), table.mass_fraction, table.freezing))


def coolant_state(curve: CoolantCurves, temperature: Floats) -> CoolantState:
    """Properties of stacked curves at `temperature` (n,) [degC]; held at the table's ends beyond them.

    Source: COOLPROP tables through cubics.
    """
    rows = bound(point.CoolantRows, curve)
    found = np.array([point.coolant_at(rows, i, celsius) for i, celsius in enumerate(temperature.tolist())])
    return CoolantState(*found.T)


def boiling_point(curve: CoolantCurves, pressure: Floats, guess: Floats | None = None) -> Floats:
    """Temperature at which stacked mixes boil at absolute `pressure` (n,) [Pa].

    Source: RAOULT with IF97 water. Range about 50..260 degC; a glycol-only mix boils on its own Antoine line.
    """
    rows = bound(point.CoolantRows, curve)
    begin = np.full_like(pressure, USUAL_BOILING) if guess is None else guess
    found = [
        point.boiling_point(rows, i, *asked)
        for i, asked in enumerate(zip(pressure.tolist(), begin.tolist(), strict=True))
    ]
    return np.array(found)
