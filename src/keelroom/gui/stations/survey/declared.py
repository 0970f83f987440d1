"""The Survey, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Station

SURVEY = Station(
    name="Survey",
    folder="survey",
    purpose="The bay as it is: a tape walk from the opening through the gaps for the air to the hoses, each reading "
    "with its picture and its doubt.",
    pages=("Opening", "Engine", "Hood, rails", "In the way", "Air gaps", "Hoses", "Holes"),
    owns=(("survey",), ("packages", ANY, "sealing")),
    guide="will-it-fit",
    begun=lambda _build, assessment: assessment.fit is not None and assessment.fit.surveyed,
)
