"""The Air station, as the rest of the program knows it."""

from keelroom.gui.station import ANY, Leaf, Station

AIR = Station(
    name="Air",
    folder="air",
    purpose="Fans, shroud and seals: the air through the face as it really goes, and what each change is worth.",
    pages=(
        Leaf("Choose", "Which fan, and how many?", guide="which-fan"),
        Leaf("Fans", "What are they, and where do they sit?"),
        Leaf("Shroud", "What leads the air to them?"),
        Leaf("Air path", "How much air goes through, and what holds it back?", ("Curve", "Figures")),
        Leaf("Worth", "What is each change worth?", ("Worth", "Panels", "Swap")),
    ),
    owns=tuple(("packages", ANY, part) for part in ("fans", "shroud")),
    guide="climbs-at-lights",
    begun=lambda build, _assessment: bool(build.package.fans),
    maps=True,
)
