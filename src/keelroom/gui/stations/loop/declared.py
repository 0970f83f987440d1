"""The Loop station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Station

LOOP = Station(
    name="Loop",
    folder="loop",
    purpose="The coolant circuit: what stands in it and how high, its hoses, flows and pressures, where air stays, "
    "how it is filled.",
    pages=("Circuit", "Parts", "Hoses", "Flows", "Air", "Ports", "Holds", "Fill", "Coolants"),
    owns=(
        *(("packages", ANY, section) for section in ("loop", "coolant")),
        ("packages", ANY, "core", "ports"),
    ),
    guide="coolant-loop",
    begun=lambda build, _assessment: build.brief.engine.displacement is not None and bool(build.package.loop.hoses),
)
