"""How findings of driven are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "fan_too_fast": Told(
        "{name}: may turn {fastest}, safe is {safe_rpm}",
        "Blades that burst go through hood and people. A clutch lets it lag, but one that has seized does not.",
        "An engine-driven fan may turn faster than is safe",
    ),
    "clutch_late": Told(
        "{name}: its clutch engages at {engages} of air",
        "The air behind the core is {under} and more under the coolant: it would not engage before the limit "
        "of {limit}. [150–180 °F|65–82 °C] is usual.",
        "A fan's clutch engages late",
    ),
    "immersion": Told(
        "{name}: its blades stand {immersion:.0%} in the shroud",
        "Half to two thirds of their depth draws best: less and the tips draw from the bay, more and they "
        "beat against the wall.",
        "An engine-driven fan's blades stand wrongly in its shroud",
    ),
    "fan_meets_core.meets": Told(
        "{name}: its blades meet the core when the engine rocks",
        "Measured from the support plane they stand {off} off the fins, and the engine comes forward more than that in "
        "its mounts. Blades that touch tear the core open. Move the core, or fit a thinner spacer.",
        "An engine-driven fan meets the core",
    ),
    "fan_meets_core.near": Told(
        "{name}: its blades come to {left} of the core",
        "Measured from the support plane they stand {off} off the fins; what is left is with the engine rocked. "
        "[1/2 to 1 in|13 to 25 mm] is left on purpose.",
        "An engine-driven fan comes near the core",
    ),
}
