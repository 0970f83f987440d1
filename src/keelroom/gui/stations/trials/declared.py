"""The Trials station, as the rest of the program knows it."""

from keelroom.gui.station import Leaf, Station

TRIALS = Station(
    name="Trials",
    folder="trials",
    purpose="What a test should read, what was read, and what that tells of the hot day.",
    pages=(
        Leaf("Logbook", "What was tried, and what came of it?"),
        Leaf("Protocol", "How is it done, and what should it read?"),
        Leaf("Log", "What did the logger write?"),
        Leaf("Learn", "What do the readings tell?"),
        Leaf("Next", "What should be read next?"),
    ),
    owns=(("logbook",), ("calibration",)),
    guide="trials",
    begun=lambda build, _assessment: bool(build.logbook.trials),
)
