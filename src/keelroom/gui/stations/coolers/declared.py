"""The Aux coolers station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Station

AUX_COOLERS = Station(
    name="Aux coolers",
    folder="coolers",
    purpose="Condenser, gearbox, oil, steering and charge coolers: where each stands, what air it gets, how hot its "
    "fluid runs.",
    pages=("List", "Each", "Fluids", "Books", "Gearbox", "Find", "Lines", "Noise"),
    owns=(
        ("packages", ANY, "coolers"),
        *(("brief", "vehicle", name) for name in ("in_tank_cooler", "converter_factor", "lockup")),
        *(("brief", "accessories", name) for name in ("converter_power", "refrigerant")),
    ),
    guide="coolers",
    begun=lambda build, _assessment: bool(build.package.coolers),
)
