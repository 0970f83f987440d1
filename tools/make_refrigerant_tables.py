"""Makes the shipped saturation tables of refrigerants from CoolProp. Run by `make tables`; never at run time."""

import json
from pathlib import Path

import numpy as np
from CoolProp.CoolProp import PropsSI

OUT = Path(__file__).parents[1] / "src/keelroom/catalogue/data/refrigerants.json"
TEMPERATURE = np.arange(-20.0, 93.0, 2.0)
FLUIDS = {"r134a": "R134a", "r1234yf": "R1234yf"}


def main() -> None:
    tables = {
        name: [round(float(PropsSI("P", "T", t + 273.15, "Q", 1, fluid))) for t in TEMPERATURE]
        for name, fluid in FLUIDS.items()
    }
    made = {
        "source": "CoolProp saturated vapour",
        "first_degC": float(TEMPERATURE[0]),
        "step_K": 2.0,
        "pressure_Pa": tables,
    }
    OUT.write_text(json.dumps(made, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
