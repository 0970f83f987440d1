"""The Survey, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Leaf, Station

SURVEY = Station(
    name="Survey",
    folder="survey",
    purpose="The bay as it is: a tape walk from the opening through the gaps for the air to the hoses, each reading "
    "with its picture and its doubt.",
    pages=(
        Leaf("Opening", "How big is the opening?"),
        Leaf("Engine", "How near does the engine come?"),
        Leaf("Hood, rails", "How high and how wide may it be?"),
        Leaf("In the way", "What is in the way?"),
        Leaf("Gaps", "Where do air and coolant pass, and what can hold it?", ("Air gaps", "Hoses", "Holes")),
    ),
    owns=(("survey",), ("packages", ANY, "sealing")),
    guide="will-it-fit",
    begun=lambda _build, assessment: assessment.fit is not None and assessment.fit.surveyed,
)
