"""The Electrical station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Leaf, Station

ELECTRICAL = Station(
    name="Electrical",
    folder="electrical",
    purpose="Circuits, charging and control of the fans: judged, planned, drawn, listed wire by wire.",
    pages=(
        Leaf("Circuits", "Which wire, fuse and relay?", ("Circuits", "Kits")),
        Leaf("Charging", "Does the alternator feed it?"),
        Leaf("Control", "What turns the fans on, and when?", ("Control", "Schools")),
        Leaf("Harness", "What is cut, crimped and joined?"),
        Leaf("Test", "Is it right, before the key is turned?"),
    ),
    owns=(
        ("supply",),
        ("packages", ANY, "circuits"),
        ("packages", ANY, "control"),
        *(
            ("brief", "accessories", name)
            for name in ("alternator_rating", "alternator_idle_share", "idle_voltage", "road_voltage")
        ),
    ),
    guide="which-wire",
    begun=lambda build, _assessment: bool(build.package.circuits),
)
