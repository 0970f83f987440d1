"""The two rules of thumb, computed beside the heat balance and never mixed into it (common practice, no source)."""

from __future__ import annotations

CFM = 0.3048**3 / 60
CUBIC_INCH = 0.0254**3
SQUARE_INCH = 0.0254**2
SIX_CYLINDERS, SMALL_EIGHT, LARGE_EIGHT = 2500 * CFM, 2800 * CFM, 5000 * CFM
SMALL_EIGHT_LIMIT, LARGE_EIGHT_AT = 5.0e-3, 7.5e-3


def face_area_wanted(displacement: float) -> float:
    """Face area [m2] the frontal-area rule asks for: as many square inches as the engine has cubic inches.

    Source: PRACTICE.
    """
    return displacement / CUBIC_INCH * SQUARE_INCH


def airflow_wanted(displacement: float, cylinders: float) -> float:
    """Airflow [m3/s] through the core by engine class: V6 2 500 CFM, small V8 2 800, larger V8 rising to 5 000.

    displacement [m3], > 0. Engines of up to six cylinders take the V6 figure; a V8 over 5 L is placed on
    the straight line from 2 800 CFM at 5 L to 5 000 CFM at 7.5 L.
    Source: PRACTICE.
    """
    if cylinders <= 6:
        return SIX_CYLINDERS
    share = (displacement - SMALL_EIGHT_LIMIT) / (LARGE_EIGHT_AT - SMALL_EIGHT_LIMIT)
    return SMALL_EIGHT + (LARGE_EIGHT - SMALL_EIGHT) * min(max(share, 0.0), 1.0)
