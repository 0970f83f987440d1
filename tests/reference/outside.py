"""Every figure that comes from outside the project, with its class. `python -m tests.reference.outside` prints the
table.

Classes: package (an independent package computes it), citation (a published table or standard), practice (a fact
of the trade, no source), memory (recalled, not confirmed: does not count as an outside check), invariant.
"""

from __future__ import annotations

import math
from collections import Counter

import numpy as np

from keelroom.catalogue.fluids import glycol_table
from keelroom.core import rules
from keelroom.core.arrays import stack
from keelroom.core.fluids import air, coolant
from keelroom.core.fluids.water import saturation_pressure
from keelroom.core.thermal import tube_side
from keelroom.core.thermal.engine_point import friction_pressure
from keelroom.core.thermal.march import march
from keelroom.core.thermal.point import developed_nusselt, entering_nusselt
from tests.reference.cars import at
from tests.reference.check import Check
from tests.reference.outside_electrical import electrical_checks
from tests.reference.outside_engine import engine_checks
from tests.reference.outside_loop import loop_checks
from tests.reference.outside_packaging import packaging_checks


def effectiveness(ntu: float, ratio: float, layers: int, cells: int = 24) -> float:
    """Effectiveness on the air (smaller capacity) of a uniform face of one pass."""
    flow = 1000.0
    face = np.full((1, 16, cells), flow / (16 * cells))
    found = march(
        (face, face * 0 + 30.0),
        face * ntu,
        (np.array([flow / ratio]), np.array([100.0])),
        np.full((1, 16), 1 / 16),
        (1, layers),
    )
    return float(found.heat[0] / (flow * 70.0))


def boils(glycol: str, share: float, gauge_psi: float, altitude: float = 0.0) -> float:
    curve = stack([coolant.curves(glycol_table(glycol), share)])
    return float(coolant.boiling_point(curve, air.standard_pressure(at(altitude)) + gauge_psi * 6894.757)[0])


def mix(share: float, celsius: float, field: str) -> float:
    curve = stack([coolant.curves(glycol_table("ethylene_glycol"), share)])
    return float(getattr(coolant.coolant_state(curve, at(celsius)), field)[0])


def dry_density(altitude: float, celsius: float) -> float:
    state = air.air_state(at(altitude), at(celsius), at(0.0))
    return float(air.density(state, at(celsius))[0])


def standard_density(altitude: float) -> float:
    return dry_density(altitude, 15.0 - 0.0065 * altitude)


MIXED = {1: (0.585, 0.542, 0.503, 0.469), 2: (0.778, 0.702, 0.636, 0.579), 3: (0.846, 0.756, 0.680, 0.613)}
UNMIXED = {1: (0.588, 0.548, 0.510, 0.476), 2: (0.797, 0.732, 0.671, 0.614), 3: (0.889, 0.820, 0.749, 0.681)}
RATIOS = (0.25, 0.5, 0.75, 1.0)
KL = "Kays & London, Compact Heat Exchangers, crossflow table"
CAPS = {"water": (100.0, 111.3, 118.8, 121.0, 124.0), "half": (107.8, 119.6, 127.4, 129.7, 132.9)}


def _checks() -> list[Check]:
    found: list[Check] = []
    for table, layers, tolerance in ((MIXED, 1, 0.0015), (UNMIXED, 12, 0.005)):
        for ntu, values in table.items():
            for ratio, value in zip(RATIOS, values, strict=True):
                name = f"effectiveness NTU {ntu} Cr {ratio} layers {layers}"
                found.append(
                    Check(
                        name, "citation", KL, value, lambda n=ntu, r=ratio, k=layers: effectiveness(n, r, k), tolerance
                    )
                )
    for psi, water, half in zip((0, 7, 13, 15, 18), CAPS["water"], CAPS["half"], strict=True):
        found.append(
            Check(
                f"water boils, {psi} psi cap",
                "citation",
                "IAPWS steam tables",
                water,
                lambda p=psi: boils("ethylene_glycol", 0.0, p),
                0.2,
                True,
            )
        )
        found.append(
            Check(
                f"50 % glycol boils, {psi} psi",
                "citation",
                "Raoult with steam tables",
                half,
                lambda p=psi: boils("ethylene_glycol", 0.5, p),
                0.4,
                True,
            )
        )
    for psi, low, high in ((0, 106.0, 108.0), (15, 129.0, 130.0)):
        middle, half_width = (low + high) / 2, (high - low) / 2 + 0.5
        found.append(
            Check(
                f"50 % glycol, published, {psi} psi",
                "citation",
                "common coolant tables",
                middle,
                lambda p=psi: boils("ethylene_glycol", 0.5, p),
                half_width,
                True,
            )
        )
    found.append(
        Check(
            "50 % glycol, 15 psi, 2000 m",
            "citation",
            "ISA with steam tables",
            126.0,
            lambda: boils("ethylene_glycol", 0.5, 15, 2000.0),
            0.5,
            True,
        )
    )
    found.append(
        Check(
            "pure ethylene glycol boils",
            "citation",
            "handbook 197 degC",
            197.0,
            lambda: boils("ethylene_glycol", 1.0, 0),
            1.0,
            True,
        )
    )
    for altitude, density, hot in (
        (0, 1.2250, 1.127),
        (1000, 1.1117, 1.000),
        (1500, 1.0581, 0.941),
        (2000, 1.0065, 0.884),
        (3000, 0.9091, 0.780),
    ):
        found.append(
            Check(
                f"air at {altitude} m, standard",
                "citation",
                "ISA 1976",
                density,
                lambda a=altitude: standard_density(a),
                0.0006,
            )
        )
        found.append(
            Check(
                f"air at {altitude} m, 40 degC",
                "citation",
                "ISA 1976 pressure",
                hot,
                lambda a=altitude: dry_density(a, 40.0),
                0.001,
            )
        )
    found += [
        Check(
            "50 % glycol density 90 degC",
            "citation",
            "ASHRAE, CoolProp",
            1025.0,
            lambda: mix(0.5, 90, "density"),
            6,
            True,
        ),
        Check(
            "50 % glycol heat capacity 90 degC",
            "citation",
            "ASHRAE, CoolProp",
            3585.0,
            lambda: mix(0.5, 90, "heat_capacity"),
            20,
            True,
        ),
        Check(
            "50 % glycol conductivity 90 degC",
            "citation",
            "ASHRAE, CoolProp",
            0.415,
            lambda: mix(0.5, 90, "conductivity"),
            0.006,
            True,
        ),
        Check(
            "50 % glycol viscosity 90 degC",
            "citation",
            "ASHRAE, CoolProp",
            0.835e-3,
            lambda: mix(0.5, 90, "viscosity"),
            0.04e-3,
            True,
        ),
        Check(
            "50 % glycol freezes",
            "citation",
            "ASHRAE",
            -37.0,
            lambda: coolant.freezing_point(glycol_table("ethylene_glycol"), 0.5),
            3.5,
            True,
        ),
        Check(
            "50 % by volume is 0.527 by mass",
            "citation",
            "handbook densities",
            0.527,
            lambda: coolant.mass_fraction("ethylene_glycol", 0.5),
            0.001,
            True,
        ),
    ]
    for Re, Pr, value, scatter in ((1e4, 7.0, 79.5, 0.12), (4000.0, 7.0, 31.7, 0.25)):
        found.append(
            Check(
                f"turbulent tube Re {Re:.0f} Pr {Pr} against Gnielinski",
                "citation",
                "Incropera; the two correlations differ by their own scatter",
                value,
                lambda r=Re, p=Pr: float(tube_side.tube_nusselt(at(r), at(p), at(1e-9), at(1e-9))[0]),
                scatter,
            )
        )
    for name, aspect, value in (("parallel plates", 0.0, 7.54), ("1:8 rectangle", 0.125, 5.60), ("square", 1.0, 2.98)):
        found.append(
            Check(
                f"laminar Nu_T {name}",
                "citation",
                "Shah & London",
                value,
                lambda a=aspect: entering_nusselt(developed_nusselt(a), 1e-9),
                0.004,
            )
        )
    found += [
        Check(
            "water boils at one atmosphere",
            "citation",
            "IAPWS-IF97",
            101418.0,
            lambda: float(saturation_pressure(100.0)),
            1e-4,
        ),
        Check(
            "frontal-area rule, 454 in3",
            "practice",
            "common practice",
            454.0,
            lambda: rules.face_area_wanted(454 * 0.0254**3) / 0.0254**2,
            1e-9,
        ),
        Check(
            "CFM class, V6",
            "practice",
            "common practice",
            2500.0,
            lambda: rules.airflow_wanted(3.6e-3, 6) / rules.CFM,
            1e-9,
        ),
        Check(
            "CFM class, small V8",
            "practice",
            "common practice",
            2800.0,
            lambda: rules.airflow_wanted(5.0e-3, 8) / rules.CFM,
            1e-9,
        ),
        Check(
            "CFM class, largest V8",
            "practice",
            "common practice",
            5000.0,
            lambda: rules.airflow_wanted(8.2e-3, 8) / rules.CFM,
            1e-9,
        ),
        Check(
            "FMEP at 2000 rpm [bar]",
            "memory",
            "Heywood's line",
            1.47,
            lambda: friction_pressure(2000.0) / 1e5,
            1e-6,
        ),
        Check(
            "FMEP at 6000 rpm [bar]",
            "memory",
            "Heywood's line",
            3.67,
            lambda: friction_pressure(6000.0) / 1e5,
            1e-6,
        ),
    ]
    return found


CHECKS = [*_checks(), *packaging_checks(), *electrical_checks(), *loop_checks(), *engine_checks()]


def main() -> None:
    for check in CHECKS:
        print(
            f"{check.kind:9} {check.name:46} expected {check.expected:10.5g} got {check.ours():10.5g} "
            f"tolerance {check.tolerance:g}"
            f"{' abs' if check.absolute else ''}  {'holds' if check.holds() else 'FAILS'}  [{check.source}]"
        )
    counts = Counter(check.kind for check in CHECKS)
    print(
        ", ".join(f"{kind}: {count}" for kind, count in sorted(counts.items())),
        f"of {len(CHECKS)}; all hold: {all(c.holds() for c in CHECKS)}",
    )
    assert not math.isnan(sum(check.error() for check in CHECKS))


if __name__ == "__main__":
    main()
