"""How findings of panels are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "gap_assumed": Told(
        "The gap {edges} of the core is assumed, not measured",
        "{most} is taken. A gap over the core of [2 in instead of 3/8 in|5 cm instead of 1 cm] brings an "
        "idle up by some [10 °F|6 K]: the tape walk asks for each, Survey, Air gaps.",
        "Gaps beside the core are assumed",
    ),
    "air_hole_unmeasured": Told(
        "{name}: its size is not measured",
        "Air goes through it past the core; it counts as shut until it is measured.",
        "A hole that lets air past is not measured",
    ),
    "flaps_upside_down": Told(
        "The flaps hang upside down",
        "Hinged at the bottom they fall open: standing, {flap_area} of bay air goes to the fans past the "
        "core. They hang from their upper edge, and open away from the core at speed.",
        "Flaps hang upside down",
    ),
    "flaps_reversed": Told(
        "The flaps open toward the core",
        "The fans' own suction pulls them open at a light, and road speed shuts them: just the wrong way "
        "round. They open away from the core.",
        "Flaps open toward the core",
    ),
    "panel_nothing": Told(
        "{name}: {fault:low}",
        "What closes nothing is work for nothing.",
        "A panel closes nothing",
    ),
    "panel_short": Told(
        "{name}: {fault:low}",
        "Air takes what is left open.",
        "A panel leaves part of its gap open",
    ),
    "foam_thin": Told(
        "{name}: {fault:low}",
        "The air goes through under it as if it were not there.",
        "Foam is too thin for its gap",
    ),
    "panel_fault": Told(
        "{name}: {fault:low}",
        "As drawn it cannot be made; templates and cut list say so.",
        "A panel cannot be made as entered",
    ),
}
