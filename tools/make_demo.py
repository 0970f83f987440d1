"""Makes the shipped demo build: an invented parcel van with a turbocharged five-cylinder. Run when the schema changes."""

from pathlib import Path

from keelroom.assess.defaults import default_duty_cases
from keelroom.build.file import serialised
from keelroom.build.quantity import quantity
from keelroom.build.schema.brief import Accessories, Brief, CauseCheck, Climate, Cooling
from keelroom.build.schema.build import Build, DutyCase
from keelroom.build.schema.package import Core, Cover, Package, Shroud
from keelroom.build.schema.survey import Opening, Survey
from keelroom.catalogue.load import cores, engines, fan_assemblies, named, placed, vehicles

OUT = Path(__file__).parents[1] / "src/keelroom/assets/demo.keelroom"


def package(ident: str, name: str, core_name: str, fan_name: str, shroud: Shroud | None = None, hours: str = "8 h") -> Package:
    core: Core = named(cores(), core_name)
    assembly = next(a for a in fan_assemblies() if a.name == fan_name)
    fans, own = placed(assembly, core, "us")
    covers = (
        Cover(id="condenser", name="Condenser", left=quantity("2 in", "length"), bottom=quantity("2 1/2 in", "length"), width=quantity("20 in", "length"), height=quantity("13 in", "length")),
        Cover(id="charge", name="Charge-air core", kind="charge_cooler", left=quantity("0 in", "length"), bottom=quantity("0 in", "length"), height=quantity("6 in", "length"),
              loss=quantity("5", "number"), conductance=quantity("1500 W/m²K", "face conductance")),
    )  # fmt: skip
    return Package(covers=covers, id=ident, name=name, core=core, fans=fans, shroud=shroud or own, hours=quantity(hours, "time"))


def brief() -> Brief:
    engine = named(engines(), "Five-cylinder 2.5, turbocharged").model_copy(
        update={"power": quantity("235 hp", "power", "measured"), "heat_multiplier": quantity("1.05", "number")}
    )
    vehicle = named(vehicles(), "Parcel van, forward control").model_copy(
        update={
            "name": "Larch Lane parcel van, 1984 chassis",
            "mass": quantity("4350 lb", "mass", "measured"),
            "grille_area": quantity("250 in²", "area", "measured"),
            "exit_area": quantity("350 in²", "area", "assumed"),
        }
    )
    return Brief(
        title="Larch Lane van: five-cylinder turbo swap",
        use="Parcel rounds on weekdays, hill-climb paddock and trailer at weekends",
        symptoms=("climbs_at_idle", "climbs_with_ac"),
        causes=(CauseCheck(id="pump", state="fine"), CauseCheck(id="fan_direction", state="fine"), CauseCheck(id="timing", state="fine")),
        notes="Old core was 20 × 15 in behind a bare 14 in fan: climbed past 225 °F at the level crossing with the A/C on. "
        "Bay exit area is a guess until the belly pan is off.",
        vehicle=vehicle,
        engine=engine,
        accessories=Accessories(alternator_rating=quantity("120 A", "current", "catalogue")),
        climate=Climate(ambient=quantity("102 °F", "temperature", "measured"), altitude=quantity("1800 ft", "altitude", "measured")),
        cooling=Cooling(thermostat=quantity("180 °F", "temperature", "catalogue")),
    )


def survey() -> Survey:
    return Survey(opening=Opening(width=quantity("24 1/2 in", "length", "measured"), height=quantity("19 1/2 in", "length", "measured")))


def main() -> None:
    about = brief()
    cases = {case.id: case for case in default_duty_cases(about)}
    cases["grade"] = cases["grade"].model_copy(
        update={"name": "Quarry hill with trailer", "towed_mass": quantity("1900 lb", "mass", "measured")}
    )
    cases["full"] = cases["full"].model_copy(update={"name": "Hill-climb, full power"})
    night = DutyCase(
        id="night",
        name="Night haul, A/C off",
        speed=quantity("60 mph", "speed"),
        towed_mass=quantity("1900 lb", "mass"),
        ambient=quantity("70 °F", "temperature"),
    )
    build = Build(
        brief=about,
        survey=survey(),
        packages=(
            package(
                "p1",
                "Twin 12s on the 26 × 17",
                "Crossflow 26 × 17, 2 row, aluminium",
                "Twin 12 in straight-blade, shrouded, 2 × 180 W",
                hours="9 h",
            ),
            package(
                "p2", "One 16 bare on the re-core", "Downflow 22 × 19, 3 row, copper/brass", "16 in curved-blade puller, 225 W", hours="6 h"
            ),
            package(
                "p3",
                "Stock-type 17 on the 24 × 19",
                "Crossflow 24 × 19, 2 row, aluminium",
                "17 in stock-type deep, shrouded, 350 W",
                hours="10 h",
            ),
        ),
        active="p1",
        duty_cases=(*cases.values(), night),
    )
    OUT.write_bytes(serialised(build))
    print(f"wrote {OUT.name}: {OUT.stat().st_size} bytes")


if __name__ == "__main__":
    main()
