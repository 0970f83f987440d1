"""The Core station, as the rest of the program knows it."""

from keelroom.gui.station import Station

CORE = Station(
    name="Core",
    folder="core",
    purpose="The radiator core: chosen from the catalogue or described, compared with others.",
    pages=("Choose", "Size", "Fins", "Compare", "Sweeps"),
    owns=(("packages",),),
    guide="compare",
    begun=lambda build, _assessment: build.package.core.face_width is not None,
)
