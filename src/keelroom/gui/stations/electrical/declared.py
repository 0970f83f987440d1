"""The Electrical station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Station

ELECTRICAL = Station(
    name="Electrical",
    folder="electrical",
    purpose="Circuits, charging and control of the fans: judged, planned, drawn, listed wire by wire.",
    pages=("Circuits", "Charging", "Control", "Kits", "Schools", "Harness", "Test"),
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
