"""The Drive station, as the rest of the program knows it."""

from keelroom.gui.station import Leaf, Station

DRIVE = Station(
    name="Drive",
    folder="drive",
    purpose="What happens over the minutes: a light, traffic, a hill, the key turned off.",
    pages=(
        Leaf("Run", "What happens over the minutes?"),
        Leaf("Schedule", "What is driven, leg after leg?"),
        Leaf("What if", "What if one thing were other?"),
        Leaf("Packages", "Which package does the same drive better?"),
        Leaf("Cycles", "What was recorded on the road?"),
    ),
    owns=(("driving",),),
    guide="drive",
    begun=lambda build, _assessment: bool(build.driving.schedules),
)
