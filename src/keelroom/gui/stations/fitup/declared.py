"""The Fit-up station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Station

MADE = (
    "blank_width",
    "blank_height",
    "trim_left",
    "trim_right",
    "trim_bottom",
    "trim_top",
    "ears",
    "hole_inset",
    "metal",
    "thickness",
    "joined",
    "second_width",
    "join_trim",
    "lap",
    "join_seal",
    "ring_opening",
    "ring_x",
    "ring_y",
    "gasket",
    "bend_radius",
    "flange",
    "bead",
    "sheet_width",
    "sheet_height",
)
"""what of a shroud is planned here: how it is made"""

FIT_UP = Station(
    name="Fit-up",
    folder="fitup",
    purpose="The package in the bay: clearances, a place for it, cuts in stages, neighbours, panels, shroud, "
    "brackets, templates.",
    pages=("Gaps", "Place", "Find", "Cut", "Neighbours", "Panels", "Worth", "Shroud", "Brackets", "Mounts", "Make"),
    owns=(
        ("gaps",),
        *(("packages", ANY, part) for part in ("place", "remote", "cuts", "moves", "panels", "brackets", "mounting")),
        *(("packages", ANY, "shroud", field) for field in MADE),
    ),
    guide="will-it-fit",
    begun=lambda _build, assessment: assessment.fit is not None and assessment.fit.surveyed,
)
