"""Where a sensor can sit, as a table: what each place is said by its properties, never by its name elsewhere."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.electrical.control import FIN_SHARE
from keelroom.document.schema.electrical import SensorPlace


class SensorSeat(NamedTuple):
    """One place of a sensor.

    title : as it is chosen;  said : as its end of a wire is named
    feels : anything is felt there;  after_core : it sees what the core has cooled already
    fins : share of the way from coolant to air that it reads;  hosed : it takes an adapter in a hose
    floats : nothing joins it to ground but coolant: rubber hoses or rubber mounts on both sides
    """

    title: str
    said: str
    feels: bool = True
    after_core: bool = False
    fins: float = 0.0
    hosed: bool = False
    floats: bool = False

    @property
    def cooled(self) -> bool:
        """Whether it reads less than the engine's outlet."""
        return self.after_core or self.fins > 0


SEATS: dict[SensorPlace, SensorSeat] = {
    "upper_hose": SensorSeat("Upper hose", "adapter in the upper hose", hosed=True, floats=True),
    "core_in": SensorSeat("Core’s own bung, tank it comes in by", "bung in the core’s inlet tank", floats=True),
    "core_out": SensorSeat(
        "Core’s own bung, tank it leaves by", "bung in the core’s outlet tank", after_core=True, floats=True
    ),
    "lower_hose": SensorSeat("Lower hose", "adapter in the lower hose", after_core=True, hosed=True, floats=True),
    "housing": SensorSeat("Thermostat housing", "thermostat housing"),
    "head": SensorSeat("Cylinder head", "port in the cylinder head"),
    "fins": SensorSeat("In the fins", "probe in the fins", fins=FIN_SHARE),
    "engine": SensorSeat("Engine’s own sensor", "engine’s own sensor"),
    "none": SensorSeat("None", "none", feels=False),
}
