"""The Core station, as the rest of the program knows it."""

from keelroom.gui.station import Leaf, Station

CORE = Station(
    name="Core",
    folder="core",
    purpose="The radiator core: chosen from the catalogue or described, compared with others.",
    pages=(
        Leaf("Choose", "Which core, how big, and how do they compare?", guide="how-big"),
        Leaf("Size", "What is it, to the fin?"),
        Leaf("Sweeps", "Would more fins or more depth help?"),
    ),
    owns=(("packages",),),
    guide="compare",
    begun=lambda build, _assessment: build.package.core.face_width is not None,
)
