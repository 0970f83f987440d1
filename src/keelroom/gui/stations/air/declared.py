"""The Air station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Station

AIR = Station(
    name="Air",
    folder="air",
    purpose="Fans, shroud and seals: the air through the face as it really goes, and what each change is worth.",
    pages=("Choose", "Fans", "Shroud", "Curve", "Figures", "Worth", "Swap"),
    owns=tuple(("packages", ANY, part) for part in ("fans", "shroud")),
    guide="climbs-at-lights",
    begun=lambda build, _assessment: bool(build.package.fans),
    maps=True,
)
