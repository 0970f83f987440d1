"""Saturation line of water. Source: IF97, region 4 (IAPWS-IF97, equations 30 and 31)."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats

_N = (
    0.11670521452767e4,
    -0.72421316703206e6,
    -0.17073846940092e2,
    0.12020824702470e5,
    -0.32325550322333e7,
    0.14915108613530e2,
    -0.48232657361591e4,
    0.40511340542057e6,
    -0.23855557567849,
    0.65017534844798e3,
)


def saturation_pressure(temperature: Floats | float) -> Floats:
    """Vapour pressure of water [Pa] at `temperature` (n,) [degC], 0..370; used from -40 by extrapolation.

    Source: IF97.
    """
    kelvin = np.asarray(temperature, float) + 273.15
    theta = kelvin + _N[8] / (kelvin - _N[9])
    a = theta**2 + _N[0] * theta + _N[1]
    b = _N[2] * theta**2 + _N[3] * theta + _N[4]
    c = _N[5] * theta**2 + _N[6] * theta + _N[7]
    return 1e6 * (2.0 * c / (-b + np.sqrt(b * b - 4.0 * a * c))) ** 4
