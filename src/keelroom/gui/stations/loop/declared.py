"""The Loop station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Leaf, Station

LOOP = Station(
    name="Loop",
    folder="loop",
    purpose="The coolant circuit: what stands in it and how high, its hoses, flows and pressures, where air stays, "
    "how it is filled.",
    pages=(
        Leaf("Circuit", "What stands in the circuit?", ("Circuit", "Parts")),
        Leaf("Hoses", "Which hose goes where?", ("Hoses", "Ports")),
        Leaf("Flows", "How much goes where, under what pressure?"),
        Leaf("Fill", "How is it filled, and where does air stay?", ("Fill", "Air", "Holds")),
        Leaf("Coolants", "Which coolant?"),
    ),
    owns=(
        *(("packages", ANY, section) for section in ("loop", "coolant")),
        ("packages", ANY, "core", "ports"),
    ),
    guide="coolant-loop",
    begun=lambda build, _assessment: build.brief.engine.displacement is not None and bool(build.package.loop.hoses),
)
