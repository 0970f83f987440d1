"""Engine oil, standing for gearbox fluid too where it flows in lines."""

from __future__ import annotations

import numpy as np

KELVIN = (273.0, 280.0, 290.0, 300.0, 310.0, 320.0, 330.0, 340.0, 350.0, 360.0, 370.0, 380.0, 390.0, 400.0)
DENSITY = (899.1, 895.3, 890.0, 884.1, 877.9, 871.8, 865.8, 859.9, 853.9, 847.8, 841.8, 836.0, 830.6, 825.1)
HEAT_CAPACITY = (
    1796.0,
    1827.0,
    1868.0,
    1909.0,
    1951.0,
    1993.0,
    2035.0,
    2076.0,
    2118.0,
    2161.0,
    2206.0,
    2250.0,
    2294.0,
    2337.0,
)
KINEMATIC = (
    4280e-6,
    2430e-6,
    1120e-6,
    550e-6,
    288e-6,
    161e-6,
    96.6e-6,
    61.7e-6,
    41.7e-6,
    29.7e-6,
    22.0e-6,
    16.9e-6,
    13.3e-6,
    10.6e-6,
)
"""[m2/s]"""


def density(celsius: float) -> float:
    """[kg/m3], held to 0..127 degC. Source: TABLE_OIL."""
    return float(np.interp(celsius + 273.15, KELVIN, DENSITY))


def heat_capacity(celsius: float) -> float:
    """[J/kgK], held to 0..127 degC. Source: TABLE_OIL."""
    return float(np.interp(celsius + 273.15, KELVIN, HEAT_CAPACITY))


def kinematic_viscosity(celsius: float) -> float:
    """[m2/s], between rows straight in its logarithm, held to 0..127 degC. Source: TABLE_OIL."""
    return float(np.exp(np.interp(celsius + 273.15, KELVIN, np.log(KINEMATIC))))
