"""The Brief, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Leaf, Station

BRIEF = Station(
    name="Brief",
    folder="brief",
    purpose="What the car is and must do: vehicle, engine, limits, what was wrong before, duty cases.",
    pages=(
        Leaf("Car", "What car is it, on how hot a day, and how hot may it get?", ("Vehicle", "Limits")),
        Leaf("Engine", "How much heat does the engine make?"),
        Leaf("Ran hot", "Why did it run hot?", ("Before", "Explain", "Causes"), guide="overheats"),
        Leaf("Duty cases", "What must it do without running hot?"),
    ),
    owns=(
        ("brief",),
        ("duty_cases",),
        *(("packages", ANY, "control", point) for point in ("fan_on", "fan_off")),
    ),
    guide="first-verdict",
    begun=lambda build, _assessment: build.brief.engine.displacement is not None,
    results=(("duty_cases",),),
)
