"""The louvered flat-tube core: what the maker's sheet says, and the areas that follow from it."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats


class CoreGeometry(NamedTuple):
    """One core, or n cores as arrays (n,). Lengths in m.

    face_width, face_height : the finned face, tanks outside it
    depth        : fin depth in the direction of the air
    rows         : tube rows through the depth, each one coolant layer
    tube_width   : of one row's tube, in the direction of the air;  tube_height : outside, across the air
    fin_height   : gap between neighbouring tubes;  fin_pitch, fin_thickness
    louver_pitch, louver_length; louver_angle [degrees]
    fin_conductivity [W/mK]; bond_resistance [m2K/W of tube surface] between fin and tube
    fouling      : [m2K/W of inner tube surface];  turbulator : factor on the coolant-side coefficient
    """

    face_width: Floats
    face_height: Floats
    depth: Floats
    rows: Floats
    tube_width: Floats
    tube_height: Floats
    tube_wall: Floats
    fin_height: Floats
    fin_pitch: Floats
    fin_thickness: Floats
    louver_pitch: Floats
    louver_length: Floats
    louver_angle: Floats
    fin_conductivity: Floats
    bond_resistance: Floats
    fouling: Floats
    turbulator: Floats


class CoreSurfaces(NamedTuple):
    """Areas that follow from a CoreGeometry; per square metre of face unless said otherwise, arrays (n,)."""

    face_area: Floats
    """[m2]"""
    free_ratio: Floats
    """smallest free flow area over face area, sigma"""
    air_area: Floats
    """air-side surface, fins and bare tube"""
    fin_share: Floats
    """fin surface over air-side surface"""
    tube_area: Floats
    """outer tube surface that fins stand on"""
    inner_area: Floats
    """inner tube surface"""
    air_diameter: Floats
    """[m] hydraulic diameter of the air passages, 4 (free area) (depth) / (air-side surface): defined only here"""
    coolant_diameter: Floats
    """[m] hydraulic diameter of a tube, round-ended flat"""
    tube_section: Floats
    """[m2] inner cross-section of one tube"""


def core_surfaces(core: CoreGeometry) -> CoreSurfaces:
    """Areas of rectangular fin passages between flat tubes; corrugation slope neglected (under 3 %).

    [m], [m2]. Source: definition of the passages.
    """
    tube_pitch = core.fin_height + core.tube_height
    cell = tube_pitch * core.fin_pitch
    gap = core.fin_pitch - core.fin_thickness
    fin = 2 * core.fin_height * core.depth / cell
    bare = 2 * gap * core.tube_width * core.rows / cell
    free_ratio = core.fin_height * gap / cell
    height, width = core.tube_height - 2 * core.tube_wall, core.tube_width - 2 * core.tube_wall
    section = (width - height) * height + np.pi * height**2 / 4
    perimeter = 2 * (width - height) + np.pi * height
    return CoreSurfaces(
        face_area=core.face_width * core.face_height,
        free_ratio=free_ratio,
        air_area=fin + bare,
        fin_share=fin / (fin + bare),
        tube_area=2 * core.tube_width * core.rows / tube_pitch,
        inner_area=perimeter * core.rows / tube_pitch,
        air_diameter=4 * free_ratio * core.depth / (fin + bare),
        coolant_diameter=4 * section / perimeter,
        tube_section=section,
    )
