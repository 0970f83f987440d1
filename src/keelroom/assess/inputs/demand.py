"""What a car is asked to do at one moment, in plain numbers: of a duty case, a step of a drive, a line of a log."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.cases import STANDS
from keelroom.assess.inputs.electrical.system import At
from keelroom.assess.inputs.gearing import engine_rpm, geared
from keelroom.assess.made import made_brief
from keelroom.core.kept import by_identity
from keelroom.document.schema.brief import Brief
from keelroom.document.schema.build import DutyCase


class Demand(NamedTuple):
    """One moment.

    speed [m/s] of the road, 0 where it stands;  grade : rise over run;  towed [kg];  rpm [1/min] of the engine
    ambient [degC] outdoors;  full_power : all the engine has;  ac : the A/C is on;  in_gear : an automatic that is in
    a gear while it stands
    stops_per_metre : starts and stops on the way;  air_speed [m/s] of the air met, where the car stands in wind; the
                      road's where None
    turbine [rpm] of the gearbox's input while it moves, by gearing; None where it is not known
    """

    speed: float
    grade: float
    towed: float
    rpm: float
    ambient: float
    full_power: bool = False
    ac: bool = False
    in_gear: bool = True
    stops_per_metre: float = 0.0
    air_speed: float | None = None
    turbine: float | None = None

    @property
    def moves(self) -> bool:
        """Whether the car moves, as far as air, loads and advice are concerned."""
        return self.speed >= STANDS

    @property
    def met(self) -> float:
        """Speed [m/s] of the air it meets."""
        return self.speed if self.air_speed is None else self.air_speed

    @property
    def at(self) -> At:
        """What its electrical system hangs on."""
        return At(self.rpm, self.ac, self.moves)


def demand_of(brief: Brief, case: DutyCase) -> Demand:
    """What a duty case asks; the hottest day of the brief where it names none, 1 °C where nobody did, which
    `needs_of` catches."""
    return _demand(made_brief(brief), case)


@by_identity(64)
def _demand(brief: Brief, case: DutyCase) -> Demand:
    ambient = case.ambient or brief.climate.ambient
    idles = case.demand == "idle"
    return Demand(
        speed=0.0 if idles else case.speed.si,
        grade=case.grade.si,
        towed=case.towed_mass.si,
        rpm=engine_rpm(brief, case),
        ambient=ambient.si if ambient else 1.0,
        full_power=case.demand == "full_power",
        ac=case.ac_on and brief.accessories.ac_fitted,
        in_gear=case.in_gear,
        stops_per_metre=case.stops_per_km.si / 1000.0,
        air_speed=case.speed.si if idles else None,
        turbine=geared(brief, case),
    )
