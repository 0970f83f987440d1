"""How findings of claims are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "waterless": Told(
        "Waterless coolant does not run cooler",
        "{here:before}Glycol alone carries less heat and is thicker. The claim rests on its boiling point: "
        "it boils far later and needs no pressure, which hides the heat and does not remove it. The system "
        "has to be bone dry for it.",
        "A coolant without water does not run cooler",
    ),
    "copper_claim.more": Told(
        "This copper/brass core takes off {gain:.0%} more heat than a usual aluminium one of its size",
        "Re-cores are sold as 30–35 % better. That rests on a denser core against an old, thin one, fins "
        "counted without the fans that have to pull through them: copper conducts better, but a fin is "
        "hardly ever what limits, and solder and narrow tubes cost.",
        "What this copper/brass core is worth against a usual aluminium one",
    ),
    "copper_claim.less": Told(
        "This copper/brass core takes off {gain:.0%} less heat than a usual aluminium one of its size",
        "Re-cores are sold as 30–35 % better. That rests on a denser core against an old, thin one, fins "
        "counted without the fans that have to pull through them: copper conducts better, but a fin is "
        "hardly ever what limits, and solder and narrow tubes cost.",
    ),
    "copper_claim.alike": Told(
        "This copper/brass core takes off as much heat as a usual aluminium one of its size",
        "Re-cores are sold as 30–35 % better. That rests on a denser core against an old, thin one, fins "
        "counted without the fans that have to pull through them: copper conducts better, but a fin is "
        "hardly ever what limits, and solder and narrow tubes cost.",
    ),
}
