"""The Fit-up station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Leaf, Station

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
    pages=(
        Leaf("Gaps", "Does it fit where it stands?", ("Gaps", "Place")),
        Leaf("Room", "How is room made for it?", ("Find", "Neighbours", "Cut")),
        Leaf(
            "Shroud",
            "How are shroud and panels made?",
            ("Shroud", "Panels"),
            guide="panels-and-mounts",
        ),
        Leaf("Brackets", "What holds it?", ("Brackets", "Mounts"), guide="panels-and-mounts"),
        Leaf("Make", "What is cut, drilled and bent?", guide="templates"),
    ),
    owns=(
        ("gaps",),
        *(("packages", ANY, part) for part in ("place", "remote", "cuts", "moves", "panels", "brackets", "mounting")),
        *(("packages", ANY, "shroud", field) for field in MADE),
    ),
    guide="will-it-fit",
    begun=lambda _build, assessment: assessment.fit is not None and assessment.fit.surveyed,
)
