"""Outside values of the packaging: sheet metal, holes, stacks, straps, growth, and what the trade does with a
shroud."""

from __future__ import annotations

from keelroom.assess.fit.moves import SLOT_MOST
from keelroom.core.packaging.fixings import BOLTS, SIDE, Beam, Section, growth, play, strap
from keelroom.core.packaging.foam import push
from keelroom.core.packaging.joined import Halves
from keelroom.core.packaging.sheet import METALS, bend_allowance, bend_deduction, smallest_radius
from keelroom.core.packaging.shroud import EDGE_TRIM, trims_to_seat
from keelroom.core.packaging.stack import Link, root_sum_square, worst_case
from tests.reference.check import Check

INCH = 0.0254
BENDS = "Machinery's Handbook, L = 0.64 T + 1.57 R (memory)"
RADII = "Machinery's Handbook, aluminium tables, upper ends"
ISO = "ISO 273"
ROARK = "Roark, cantilever with end load"


def _radius(metal: str, inches: float) -> float:
    return smallest_radius(METALS[metal], inches * INCH) / (inches * INCH)


def _chain(*tolerances: float) -> list[Link]:
    return [Link(str(k), (), t) for k, t in enumerate(tolerances)]


def seated(offset: float = 0.0) -> dict[str, float]:
    """A shroud 3/4 in wider than the room between the tanks."""
    return trims_to_seat((24.75 * INCH, 19 * INCH), (24 * INCH, 19 * INCH), (offset, 0.0))


def packaging_checks() -> list[Check]:
    steel = METALS["steel"]
    beam = strap(steel, Beam(Section(1.0 * INCH, 0.125 * INCH)), 4 * INCH, 5.0, 5.0)
    force = 5.0 * 5.0 * 9.80665
    inertia = INCH * (0.125 * INCH) ** 3 / 12
    found = [
        Check(
            "90° bend, 1/16 sheet, 1/16 radius [in]",
            "memory",
            BENDS,
            0.64 / 16 + 1.57 / 16,
            lambda: bend_allowance(METALS["al_5052"], INCH / 16, INCH / 16) / INCH,
            1e-3,
        ),
        Check(
            "90° bend, 1/8 steel, 1/4 radius [in]",
            "memory",
            BENDS,
            0.4725,
            lambda: bend_allowance(steel, INCH / 8, INCH / 4) / INCH,
            1e-3,
        ),
        Check(
            "L of 2 × 3 in outside, 1/8, 1/4 radius, blank [in]",
            "memory",
            BENDS,
            1.625 + 2.625 + 0.4725,
            lambda: (5 * INCH - bend_deduction(steel, INCH / 8, INCH / 4)) / INCH,
            1e-3,
        ),
        Check(
            "3003-H14 radius at 1/16, × thickness",
            "citation",
            RADII,
            0.0,
            lambda: _radius("al_3003", 1 / 16),
            1e-9,
            True,
        ),
        Check(
            "5052-H32 radius at 1/16, × thickness",
            "citation",
            RADII,
            1.0,
            lambda: _radius("al_5052", 1 / 16),
            1e-9,
            True,
        ),
        Check(
            "5052-H32 radius at 1/8, × thickness", "citation", RADII, 1.5, lambda: _radius("al_5052", 1 / 8), 1e-9, True
        ),
        Check(
            "6061-T6 radius at 1/32, × thickness",
            "citation",
            RADII,
            1.0,
            lambda: _radius("al_6061", 1 / 32),
            1e-9,
            True,
        ),
        Check(
            "6061-T6 radius at 1/16, × thickness",
            "citation",
            RADII,
            1.5,
            lambda: _radius("al_6061", 1 / 16),
            1e-9,
            True,
        ),
        Check(
            "6061-T6 radius at 1/8, × thickness", "citation", RADII, 3.0, lambda: _radius("al_6061", 1 / 8), 1e-9, True
        ),
        Check(
            "mild steel radius at 1/8, × thickness", "citation", RADII, 1.0, lambda: _radius("steel", 1 / 8), 1e-9, True
        ),
        Check(
            "M6 in a 1/4 in hole, room each way [mm]",
            "citation",
            ISO,
            0.175,
            lambda: play(BOLTS["m6"], INCH / 4) * 1e3,
            1e-6,
        ),
        Check(
            "core 700 mm, 80 K, growth [mm]",
            "citation",
            "handbook: 23.6e-6 per K",
            1.3,
            lambda: growth(0.7, 80.0, 23.6e-6) * 1e3,
            0.02,
        ),
        Check(
            "four parts ± 0.1, worst case",
            "memory",
            "tolerance handbook example",
            0.4,
            lambda: worst_case(_chain(0.1, 0.1, 0.1, 0.1)),
            1e-9,
        ),
        Check(
            "four parts ± 0.1, root sum of squares",
            "memory",
            "tolerance handbook example",
            0.2,
            lambda: root_sum_square(_chain(0.1, 0.1, 0.1, 0.1)),
            1e-9,
        ),
        Check(
            "± 3, 4 and 12, root sum of squares",
            "invariant",
            "Pythagoras",
            13.0,
            lambda: root_sum_square(_chain(3.0, 4.0, 12.0)),
            1e-9,
        ),
        Check(
            "1/8 × 1 strap 4 in, 25 kg·g: stress [MPa]",
            "memory",
            ROARK,
            6 * force * 4 * INCH / (INCH * (0.125 * INCH) ** 2) / 1e6,
            lambda: beam.stress / 1e6,
            1e-6,
        ),
        Check(
            "1/8 × 1 strap 4 in, 25 kg·g: sag [mm]",
            "memory",
            ROARK,
            force * (4 * INCH) ** 3 / (3 * 205e9 * inertia) * 1e3,
            lambda: beam.sag * 1e3,
            1e-6,
        ),
        Check(
            "trim per side to seat a shroud 3/4 in too wide [in]",
            "practice",
            "common practice",
            0.375,
            lambda: seated()["left"] / INCH,
            1e-9,
        ),
        Check(
            "trim all on one side to move the fan [in]",
            "practice",
            "common practice",
            0.75,
            lambda: seated(0.375 * INCH)["right"] / INCH,
            1e-9,
        ),
        Check(
            "sponge of grade 2A1 a quarter squeezed, middle of its range [psi]",
            "memory",
            "ASTM D1056: 2A1 is 2 to 5 psi",
            3.5,
            lambda: push("medium", 0.25) / 6894.76,
            0.02,
        ),
        Check(
            "sponge of grade 2A2 a quarter squeezed, middle of its range [psi]",
            "memory",
            "ASTM D1056: 2A2 is 5 to 9 psi",
            7.0,
            lambda: push("firm", 0.25) / 6894.76,
            0.03,
        ),
        Check(
            "least metal from a hole to a strip's side [diameters]",
            "memory",
            "EN 1993-1-8 table 3.3",
            1.2,
            lambda: SIDE,
            1e-9,
        ),
        Check(
            "a mount's hole is slotted by at most [in]",
            "practice",
            "common practice",
            1.0,
            lambda: SLOT_MOST / INCH,
            1e-9,
        ),
        Check(
            "a strap of 1/8 × 1 in, 4 in and 2 kg at 5 g: half the stress held level",
            "memory",
            ROARK,
            0.5,
            lambda: (
                strap(steel, Beam(Section(INCH, INCH / 8)), 4 * INCH, 2.0, 5.0, True).stress
                / strap(steel, Beam(Section(INCH, INCH / 8)), 4 * INCH, 2.0, 5.0).stress
            ),
            1e-9,
        ),
        Check(
            "two 14 in shrouds, an inch off each, lapped 3/4 in: one pan [in]",
            "invariant",
            "28 − 2 − 3/4",
            25.25,
            lambda: Halves((14 * INCH, 14 * INCH), 13 * INCH, INCH, 0.75 * INCH).width / INCH,
            1e-9,
        ),
        Check("edge trim takes [in]", "practice", "common practice", 0.125, lambda: EDGE_TRIM / INCH, 1e-9),
    ]
    for key, holes in (("m5", (5.3, 5.5, 5.8)), ("m6", (6.4, 6.6, 7.0)), ("m8", (8.4, 9.0, 10.0))):
        for name, k, size in zip(("close", "medium", "coarse"), range(3), holes, strict=True):
            kind = "citation" if key == "m6" else "memory"
            found.append(
                Check(
                    f"{key.upper()} {name} hole [mm]",
                    kind,
                    ISO,
                    size,
                    lambda key=key, k=k: BOLTS[key].holes[k] * 1e3,
                    1e-6,
                )
            )
    return found
