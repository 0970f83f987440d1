"""The Survey, as the rest of the program knows it."""

from keelroom.gui.station import Station

SURVEY = Station(
    name="Survey",
    folder="survey",
    purpose="The bay as it is: a tape walk from the opening to the hoses, each reading with its picture and its doubt.",
    pages=("Opening", "Engine", "Hood, rails", "In the way", "Hoses", "Holes"),
    owns=(("survey",),),
    guide="will-it-fit",
    begun=lambda _build, assessment: assessment.fit is not None and assessment.fit.surveyed,
)
