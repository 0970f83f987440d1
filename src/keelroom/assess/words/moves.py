"""How findings of moves are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "move_lost": Told(
        "Something is counted as moved that the survey does not have",
        "It was taken out of the survey: nothing is left to move.",
        "Something is counted as moved that the survey does not have",
    ),
    "move_unheld": Told(
        "{name}: no bracket holds it where it goes",
        "Plan one from it to a hole of the chassis; its strength and its holes are then worked out.",
        "Nothing holds what was moved",
    ),
    "move_caution": Told(
        "{name} is {how}: mind what it does",
        "{cautions}",
        "What to mind of something that is moved",
    ),
    "move_needed.bottle": Told(
        "{name} cannot be left out: what the coolant grows has to go somewhere. Give it a new place",
        "Count on it moved, not gone; the clearance of its new place is then judged like everything else.",
        "Something is taken away that the car cannot do without",
    ),
    "slot_long": Told(
        "{name}: slots of {far} are longer than the {most} a mount stands; a made bracket carries it further",
        "A long slot leaves too little metal beside the bolt, and the part can slide back.",
        "Slots are longer than a mount stands",
    ),
    "move_nowhere": Told(
        "{name} stands where it stood: enter how far it goes, or where to",
        "Until it goes somewhere it stands in the way as before.",
        "Something is moved and stands where it stood",
    ),
    "cap_reach": Told(
        "{name}: {room} over its cap; a hand needs {wanted}",
        "A bottle that cannot be opened is not topped up, and not looked at.",
        "A cap cannot be reached",
    ),
    "bottle_unknown": Told(
        "{name}: what it holds is not known; {wanted} is wanted",
        "Read it off its side, or fill it from a measure.",
        "What a bottle holds is not known",
    ),
    "bottle_small": Told(
        "{name} holds {holds}; the coolant grows by {growth} and wants {wanted}",
        "A replacement that is too small runs over hot and draws air when it cools: a common regret.",
        "A bottle holds less than the coolant grows by",
    ),
    "move_needed.latch_support": Told(
        "{name} cannot be taken away: the hood is held by it",
        "Count on it moved, not gone; the clearance of its new place is then judged like everything else.",
    ),
    "move_needed.brake_unit": Told(
        "{name} cannot be taken away: the brakes need it",
        "Count on it moved, not gone; the clearance of its new place is then judged like everything else.",
    ),
}
