"""Makes the shipped coolant tables from CoolProp and IAPWS. Run by `make tables`; never at run time.

CoolProp's glycol solutions end near 0.6 mass fraction and 100 degC. Beyond 100 degC the mix's ratio to
water (IAPWS-IF97 at 5 bar) changes slowly, so that ratio is carried on by its straight line over 70..100 degC;
ln viscosity is carried the same way. Glycol-only rows are typed handbook values (Incropera, table A.5 for
ethylene glycol; manufacturers' common data for propylene glycol), from memory.
"""

import json
from pathlib import Path

import numpy as np
from CoolProp.CoolProp import PropsSI
from iapws import IAPWS97

OUT = Path(__file__).parents[1] / "src/keelroom/catalogue/data/fluid_tables.json"
TEMPERATURE = np.arange(-40.0, 201.0, 5.0)
FRACTIONS = [0.0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6]
GLYCOLS = {"ethylene_glycol": "MEG", "propylene_glycol": "MPG"}
PURE = {
    # degC: density, heat capacity, conductivity, viscosity
    "ethylene_glycol": {
        0: (1127, 2294, 0.242, 57e-3),
        20: (1113, 2380, 0.249, 20.0e-3),
        40: (1099, 2474, 0.256, 9.1e-3),
        60: (1085, 2562, 0.260, 4.95e-3),
        80: (1070, 2650, 0.261, 3.02e-3),
        100: (1055, 2742, 0.263, 2.0e-3),
        140: (1024, 2920, 0.262, 1.07e-3),
        180: (990, 3100, 0.259, 0.67e-3),
    },
    "propylene_glycol": {
        0: (1051, 2400, 0.203, 243e-3),
        20: (1036, 2490, 0.200, 56e-3),
        40: (1022, 2590, 0.198, 18.6e-3),
        60: (1007, 2690, 0.197, 8.4e-3),
        80: (991, 2790, 0.195, 4.5e-3),
        100: (975, 2890, 0.193, 2.7e-3),
        140: (940, 3090, 0.189, 1.25e-3),
        180: (902, 3290, 0.184, 0.75e-3),
    },
}
FREEZE_PURE = {"ethylene_glycol": -13.0, "propylene_glycol": -59.0}
KEYS = ("D", "C", "L", "V")


def water(celsius: float) -> np.ndarray:
    """Liquid water at 5 bar, held at 0 degC below freezing and at 150 degC beyond the 5 bar boiling point."""
    pressure = 0.5 if celsius <= 150 else 2.0
    state = IAPWS97(T=max(celsius, 0.1) + 273.15, P=pressure)
    return np.array([state.rho, state.cp * 1e3, state.k, np.log(state.mu)])


def mix(fluid: str, fraction: float, celsius: float) -> np.ndarray:
    name = f"INCOMP::{fluid}[{fraction}]"
    row = np.array([PropsSI(key, "T", celsius + 273.15, "P", 5e5, name) for key in KEYS])
    row[3] = np.log(row[3])
    return row


def freezing(fluid: str, fraction: float) -> float:
    return 0.0 if fraction == 0 else PropsSI("T_FREEZE", "T", 300, "P", 1e5, f"INCOMP::{fluid}[{fraction}]") - 273.15


def mixed_row(fluid: str, fraction: float) -> np.ndarray:
    """(T, 4) of one mass fraction: CoolProp between freezing and 100 degC, extended at both ends."""
    if fraction == 0:
        return np.array([water(t) for t in TEMPERATURE])
    start = max(TEMPERATURE[0], 5 * np.ceil((freezing(fluid, fraction) + 0.5) / 5))
    inside = TEMPERATURE[(start <= TEMPERATURE) & (TEMPERATURE <= 100)]
    known = {t: mix(fluid, fraction, t) for t in inside}
    fit_at = np.array([t for t in inside if t >= 70])
    ratio = np.array([relative(known[t], water(t)) for t in fit_at])
    lines = np.polyfit(fit_at, ratio, 1)
    rows = []
    for t in TEMPERATURE:
        if t < start:
            rows.append(known[start])  # frozen: never a steady state of a running engine
        elif t <= 100:
            rows.append(known[t])
        else:
            anchor = relative(known[100.0], water(100.0))
            rows.append(absolute(anchor + lines[0] * (t - 100), water(t)))
    return np.array(rows)


def relative(row: np.ndarray, base: np.ndarray) -> np.ndarray:
    return np.array([*(row[:3] / base[:3]), row[3] - base[3]])


def absolute(ratio: np.ndarray, base: np.ndarray) -> np.ndarray:
    return np.array([*(ratio[:3] * base[:3]), ratio[3] + base[3]])


def pure_row(glycol: str) -> np.ndarray:
    points = PURE[glycol]
    at = np.array(sorted(points), float)
    values = np.array([points[int(t)] for t in at])
    values[:, 3] = np.log(values[:, 3])
    inverse = -1.0 / (TEMPERATURE + 273.15)  # viscosity is nearly straight against 1/T
    columns = [np.interp(TEMPERATURE, at, values[:, i]) for i in range(3)]
    columns.append(np.interp(inverse, -1.0 / (at + 273.15), values[:, 3]))
    return np.stack(columns, axis=1)


def main() -> None:
    tables = {}
    for glycol, fluid in GLYCOLS.items():
        rows = [mixed_row(fluid, f) for f in FRACTIONS] + [pure_row(glycol)]
        tables[glycol] = {
            "mass_fraction": [*FRACTIONS, 1.0],
            "freezing_degC": [round(freezing(fluid, f), 3) for f in FRACTIONS] + [FREEZE_PURE[glycol]],
            "density_kg_m3": [[round(v, 3) for v in row[:, 0]] for row in rows],
            "heat_capacity_J_kgK": [[round(v, 3) for v in row[:, 1]] for row in rows],
            "conductivity_W_mK": [[round(v, 6) for v in row[:, 2]] for row in rows],
            "ln_viscosity_Pa_s": [[round(v, 6) for v in row[:, 3]] for row in rows],
        }
    source = (__doc__ or "").split("\n\n")[1].replace("\n", " ")
    document = {
        "source": f"CoolProp incompressible MEG and MPG by mass fraction; IAPWS-IF97 water. {source}",
        "temperature_degC": TEMPERATURE.tolist(),
        "glycols": tables,
    }
    OUT.write_text(json.dumps(document, separators=(",", ":")) + "\n")
    print(f"wrote {OUT.name}: {OUT.stat().st_size} bytes")


if __name__ == "__main__":
    main()
