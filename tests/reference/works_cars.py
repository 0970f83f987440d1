"""Six ordinary cars with the core and fans such cars left the works with. Sizes common practice, no source."""

from typing import NamedTuple

from keelroom.assess.first_build import Answers, first_build
from keelroom.document.edits import apply, set_value
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build

HOT = quantity("38 °C", "temperature")


class WorksCar(NamedTuple):
    """Catalogue names, and what it tows on its grade."""

    vehicle: str
    engine: str
    core: str
    fans: str
    tows: str = "0 lb"
    driven: bool = False
    """its fan is the engine's: 19 in, 6 000 CFM at 2 200 rpm of the blades, on the fast pulley of an A/C"""

    def built(self) -> Build:
        build = first_build(
            Answers(
                self.vehicle,
                self.engine,
                core=self.core,
                fans=self.fans,
                hottest=HOT,
                tows=quantity(self.tows, "mass"),
            ),
            "us",
        )
        if not self.driven:
            return build
        fan = build.package.fans[0].model_copy(
            update={
                "motor": "engine",
                "diameter": quantity("19 in", "length"),
                "free_air_flow": quantity("6000 CFM", "airflow"),
                "ratio": quantity("1.4", "number"),
                "drag": quantity("3 kW", "power"),
            }
        )
        return apply(build, set_value(("packages", build.active, "fans"), (fan,), "Its own fan"))


COUPE = "Compact coupé, front engine"
WORKS = {
    "compact 1.8": WorksCar(
        COUPE,
        "Four-cylinder 1.8, naturally aspirated",
        "Crossflow 22 × 15, 2 row, aluminium",
        "Twin 11 in slim, shrouded, 2 × 130 W",
    ),
    "saloon 2.0": WorksCar(
        COUPE,
        "Four-cylinder 2.0, turbocharged",
        "Crossflow 26 × 17, 1 row plastic-tank type, aluminium",
        "Twin 12 in straight-blade, shrouded, 2 × 180 W",
        "1000 lb",
    ),
    "half-ton 5.0": WorksCar(
        "Half-ton pickup",
        "Small V8 5.0, naturally aspirated",
        "Crossflow 28 × 19, 2 row, dimpled tube, aluminium",
        "Twin 14 in stock-type, shrouded, 2 × 240 W",
        "3500 lb",
    ),
    "coupé 5.7": WorksCar(
        "Muscle-era coupé",
        "Small-block V8 350 in³, mild cam",
        "Downflow 22 × 19, 3 row, copper/brass",
        "17 in stock-type deep, shrouded, 350 W",
        driven=True,
    ),
    "swap 6.2": WorksCar(
        COUPE,
        "Modern V8 6.2, aluminium",
        "Crossflow 27 1/2 × 17 3/8, 2 row, aluminium",
        "Twin 13 in curved-blade, shrouded, 2 × 190 W",
    ),
    "van 2.8": WorksCar(
        "Parcel van, forward control",
        "Four-cylinder diesel 2.8, turbocharged",
        "Crossflow 26 × 17, 1 row plastic-tank type, aluminium",
        "17 in stock-type deep, shrouded, 350 W",
        "1500 lb",
    ),
}
