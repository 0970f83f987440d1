"""The Aux coolers station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Leaf, Station

AUX_COOLERS = Station(
    name="Aux coolers",
    folder="coolers",
    purpose="Condenser, gearbox, oil, steering and charge coolers: where each stands, what air it gets, how hot its "
    "fluid runs.",
    pages=(
        Leaf("Coolers", "Which coolers, and where does the heat go?", ("List", "Each", "Books")),
        Leaf("Gearbox", "How is the gearbox cooled?", ("Gearbox", "Fluids")),
        Leaf("On the car", "Where does a cooler go, and what do its lines want?", ("Find", "Lines")),
        Leaf("Noise", "How loud are the fans?"),
    ),
    owns=(
        ("packages", ANY, "coolers"),
        *(("brief", "vehicle", name) for name in ("in_tank_cooler", "converter_factor", "lockup")),
        *(("brief", "accessories", name) for name in ("converter_power", "refrigerant")),
    ),
    guide="coolers",
    begun=lambda build, _assessment: bool(build.package.coolers),
)
