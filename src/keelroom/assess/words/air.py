"""How findings of air are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "unlike_seen.hot": Told(
        "{name}: your car does what this build says it cannot",
        "It {saw}, and as entered {expected}: something in it is not as entered. Brief, Explain holds every cheap "
        "cause against what was seen and says where to look first. What is advised before that is for another car.",
        "The car ran hotter than the build as entered could",
    ),
    "unlike_seen.cool": Told(
        "{name}: this build says it runs hotter than your car did",
        "It {saw}, and as entered {expected}: an entry is worse than what stands in the car. Look at the entries that "
        "are assumed first; what is advised before that is for another car.",
        "The car ran cooler than the build as entered could",
    ),
    "lies_at_grille": Told(
        "The core lies, and is taken to have the grille’s air",
        "Leaning by {lean} it does not face the road: what blows onto the grille does not go through it by itself. Say "
        "where its air comes in and leaves at Fit-up, Place.",
        "A core that lies is taken to have the grille's air",
    ),
    "judged_mended": Told(
        "Judged on the car as mended: {names:first4}",
        "What was found is entered in the car as found, and counts there alone until it is mended; other packages are "
        "worked out with what stood before. Say that it is mended at Brief, Explain.",
        "A package judged on the car as mended",
    ),
    "cheap_cause": Told(
        "Rule out {count} cheap {count:cause|causes} before buying anything",
        "The symptoms could be {names:first4}. Begin with {first}: {test}",
        "Cheap causes of the symptoms that nobody has ruled out",
    ),
    "panel_hides": Told(
        "The panel hides {hidden:.0%} of the face",
        "Cells behind uncut metal get no air. Judge by what the cut gains, and do the cheap checks (hood, "
        "belt, latch, structure) before cutting: a structural panel, bumper beam or latch support is work "
        "for qualified advice.",
        "The panel hides part of the face",
    ),
    "cover_off_face": Told(
        "{name}: stands {over} over the edge of the face",
        "What hangs over heats and hinders no air of this core; check its place.",
        "A cooler ahead stands over the edge of the face",
    ),
    "cover_over_opening": Told(
        "{name}: larger than the panel's opening",
        "{wide} × {high} against an opening of {wide_open} × {high_open}: its edges see no air.",
        "A cooler ahead is larger than the panel's opening",
    ),
    "shroud_without_fan": Told(
        "No fan breathes from the shroud",
        "A shroud with no fan in it only hides the face. Move a fan into it or take it off.",
        "No fan breathes from the shroud",
    ),
    "fan_beside_face": Told(
        "A fan stands beside the face altogether",
        "It moves bay air in a circle and none through the core.",
        "A fan stands beside the face altogether",
    ),
    "stopped_fan": Told(
        "A stopped fan is a hole in the shroud",
        "{lost:.0%} of the running fan's air comes back through it at a standstill. Get it running, or close "
        "its ring; a divided shroud stops the leak but leaves half the face without air (see Worth).",
        "A stopped fan is a hole in the shroud",
    ),
    "reversed_blade": Told(
        "A one-way blade run backwards is no pusher",
        "Taken as {reversed_share:.0%} of its flow. A fan made for the direction moves far more.",
        "A one-way blade run backwards",
    ),
    "pusher_alone": Told(
        "A pusher as the main fan",
        "A puller behind the core moves more and does not stand in the ram air at speed.",
        "A pusher is the main fan",
    ),
    "edge_leak": Told(
        "{edge:.0%} of a fan's air comes round the shroud's edge",
        "Suction lost through the edge gap and holes never passes the core. Trim until it seats on the core, "
        "then seal with foam or split hose.",
        "Air comes round the shroud's edge",
    ),
    "recirculation": Told(
        "{recirculated:.0%} of the air at the face is hot bay air come back",
        "Standing, the face breathes air {rise} over ambient. Side strips and a panel over core and "
        "condenser stop it; panels alone have given about [10 °F|6 K] at the A/C vents.",
        "Hot bay air comes back to the face",
    ),
    "bypass": Told(
        "At speed {bypassed:.0%} of the air goes round the core",
        "Air takes the gap if it can. Side seals send it through the core.",
        "At speed air goes round the core",
    ),
}
