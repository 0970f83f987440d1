"""The Work station, as the rest of the program knows it."""

from keelroom.gui.station import Leaf, Station

WORK = Station(
    name="Work",
    folder="work",
    purpose="What is done to the car, in which order, how long it takes, what it costs, and what was done.",
    pages=(
        Leaf("Order", "What is done when, and what must not be begun yet?"),
        Leaf("Hours", "How long does it take, and what does it cost?"),
        Leaf("Shopping", "What is bought now, and what after a measurement?", ("List", "Known of them")),
        Leaf("Bench", "What is the next step, and how did it go?"),
        Leaf("Record", "What is handed over?"),
    ),
    owns=(("work",),),
    guide="work",
    begun=lambda build, _assessment: bool(build.work.ticks or build.work.start or build.work.rate),
)
