"""The Brief, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Station

BRIEF = Station(
    name="Brief",
    folder="brief",
    purpose="What the car is and must do: vehicle, engine, limits, what was wrong before, duty cases.",
    pages=("Vehicle", "Engine", "Limits", "Before", "Explain", "Causes", "Duty cases"),
    owns=(
        ("brief",),
        ("duty_cases",),
        *(("packages", ANY, "control", point) for point in ("fan_on", "fan_off")),
    ),
    guide="first-verdict",
    begun=lambda build, _assessment: build.brief.engine.displacement is not None,
    results=(("duty_cases",),),
)
