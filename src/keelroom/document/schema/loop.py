"""What a package chooses of the coolant circuit, and what runs in it."""

from __future__ import annotations

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, quantity

Maybe = Quantity | None
ThermostatPlace = Literal["outlet", "inlet"]
Glycol = Literal["ethylene_glycol", "propylene_glycol"]
PumpKind = Literal["mechanical", "electric"]
Impeller = Literal["good", "worn"]


class Loop(Strict):
    """The coolant circuit outside engine and core: pump and its drive, thermostat, cap, hoses."""

    pump: PumpKind = "mechanical"
    pulley_ratio: Annotated[
        Maybe, Spec("number", "Pump speed over stock", gt=0.2, le=3, help="1 stock pulleys; a smaller pump pulley gives more, 1.15–1.3")
    ] = quantity("1", "number")
    impeller: Impeller = "good"
    electric_flow: Annotated[Maybe, Spec("coolant flow", "Electric pump, free flow", gt=0, le=0.02)] = quantity("35 gpm", "coolant flow")
    electric_pressure: Annotated[Maybe, Spec("pressure", "Electric pump, shut off", gt=0, le=5e5)] = quantity("9 psi", "pressure")
    electric_voltage: Annotated[Maybe, Spec("voltage", "Electric pump rated at", gt=0, le=60)] = quantity("13.5 V", "voltage")
    electric_power: Annotated[Maybe, Spec("electrical power", "Electric pump draws", gt=0, le=2000)] = quantity("100 W", "electrical power")
    hose_bore: Annotated[Maybe, Spec("length", "Hose bore", gt=0.005, le=0.1)] = quantity("1 1/2 in", "length")
    hose_length: Annotated[Maybe, Spec("length", "Hoses, both together", ge=0, le=20)] = quantity("48 in", "length")
    hose_bends: Annotated[Maybe, Spec("count", "Right-angle bends in them", ge=0, le=40, whole=True)] = quantity("4", "count")
    thermostat: Annotated[Maybe, Spec("temperature", "Thermostat starts to open", ge=30, le=120)] = quantity("180 °F", "temperature")
    thermostat_place: ThermostatPlace = "outlet"
    cap_pressure: Annotated[Maybe, Spec("pressure", "Cap", ge=0, le=3e5)] = quantity("15 psi", "pressure")


class Coolant(Strict):
    """What runs in the circuit."""

    glycol: Glycol = "ethylene_glycol"
    glycol_share: Annotated[Maybe, Spec("share", "Glycol, by volume", ge=0, le=1, help="50 % usual; 100 % is glycol-only (waterless)")] = (
        quantity("50 %", "share")
    )
