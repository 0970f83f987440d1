"""The Options station, as the rest of the program knows it."""

from keelroom.gui.station import Leaf, Station

OPTIONS = Station(
    name="Options",
    folder="options",
    purpose="Every package there could be, and what nothing beats.",
    pages=(
        Leaf("Front", "What does nothing beat?"),
        Leaf("Every one", "Why is one out, or beaten?"),
        Leaf("Bounds", "What has to be kept to, and by what is it judged?"),
        Leaf("Ladder", "What is the cheapest next step?"),
    ),
    owns=(("choosing",),),
    guide="options",
    begun=lambda build, _assessment: build.choosing != type(build.choosing)(),
)
