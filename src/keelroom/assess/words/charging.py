"""How findings of charging are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "battery_low": Told(
        "{voltage:.1f} V at the battery at idle",
        "A healthy battery holds 12.0–12.3 V at 40 A: this one is nearly flat. The same reading at the fan "
        "alone would be its wire.",
        "The battery is low at idle",
    ),
    "belt_slips": Told(
        "The belt slips",
        "What hangs on it turns at about {share:.0%} of its speed under load: coolant pump, alternator and any fan of "
        "the engine together. It squeals after a start or with the lamps on, and its dust is black.",
        "The belt slips",
    ),
    "generator_rating": Told(
        "{rating:.0f} A is an alternator's rating, not a generator's",
        "A car's direct-current generator gives 22 to 45 A by its label, and all of it only well over idle: "
        "{usual:.0f} A is usual. Read the label on its case.",
        "A generator with an alternator's rating",
    ),
    "generator_pulley": Told(
        "{ratio:.2f} turns per crank turn is an alternator's pulley",
        "A generator's commutator stands some 8,000 rpm and has a larger pulley: {usual:g} turns is usual.",
        "A generator with an alternator's pulley",
    ),
    "over_speed": Told(
        "The pulley over-speeds the alternator",
        "{top} at the redline against its limit of {limit}: the rotor’s windings let go. A ratio of "
        "{ratio:.2f} keeps it; idle output then is {left:.0f} A.",
        "The pulley over-speeds the alternator",
    ),
    "charge_place": Told(
        "The charge cable’s insulation is not made for that place",
        "The air round it is as hot as its insulation stands ({limit}): another class, or another way.",
        "The charge cable's insulation is not made for its place",
    ),
    "charge_cable_hot": Told(
        "The charge cable is too thin for the alternator’s current",
        "At {rating:.0f} A its copper reaches {warm}; it carries {ampacity:.0f} A where it lies before its "
        "insulation ({limit}) goes.",
        "The charge cable is too thin",
    ),
    "charge_cable": Told(
        "The charge cable loses too much",
        "At its {rating:.0f} A it loses {drop:.2f} V on the way to the battery; {drop_limit:g} V is the limit.",
        "The charge cable loses too much",
    ),
    "charge_fuse_small": Told(
        "The charge cable’s fuse is under the alternator’s rating",
        "{fuse:g} A against {rating:.0f} A: it opens the day the battery is low, and an alternator cut off "
        "from its battery kills what hangs on it.",
        "The charge cable's fuse is under the alternator's rating",
    ),
    "charge_fuse_over": Told(
        "The fuse does not protect the charge cable",
        "A {fuse:g} A fuse; the cable carries {ampacity:.0f} A where it lies before its insulation ({limit}) goes.",
        "The charge cable's fuse does not protect it",
    ),
    "alternator_short": Told(
        "The alternator cannot feed the fans at idle",
        "{balance} The voltage sinks, and the fans with it: {voltage:.1f} V at the battery. {takes}",
        "The alternator cannot feed what is on",
    ),
    "alternator_short.other": Told(
        "The alternator cannot feed what is on at idle",
        "{balance} The voltage sinks: {voltage:.1f} V at the battery. {takes}",
    ),
    "alternator_short.moving": Told(
        "The alternator cannot feed what is on while the car moves",
        "{balance} The voltage sinks: {voltage:.1f} V at the battery. {takes}",
    ),
    "battery_down": Told(
        "{name}: flat after {time:minutes}, and the engine stays under its limit",
        "With the battery flat the alternator holds {voltage:.1f} V by itself. The fans turn so much slower, and the "
        "gauge goes to {settles}; ignition and pump may give up first.",
        "With a flat battery the engine still stays under its limit",
    ),
    "battery_down.over": Told(
        "{name}: flat after {time:minutes}, and then too hot",
        "With the battery flat the alternator holds {voltage:.1f} V by itself. The fans turn so much slower, and the "
        "gauge goes to {settles}, over its limit.",
        "With a flat battery the engine is over its limit",
    ),
    "battery_down.boils": Told(
        "{name}: flat after {time:minutes}, and then it boils",
        "With the battery flat the alternator holds {voltage:.1f} V by itself. The fans turn so much slower that the "
        "engine settles nowhere under boiling.",
        "With a flat battery the engine boils",
    ),
    "battery_works": Told(
        "The battery helps while the fans run",
        "{balance} That is within what the alternator gives: what is taken out while they run comes back while they "
        "rest. {voltage:.1f} V at the battery while they run.",
        "The battery helps while the fans run, and gets it back while they rest",
    ),
    "voltage_contradicts.more": Told(
        "{voltage:.1f} V measured at idle contradicts the alternator as entered",
        "At that voltage the battery takes {battery:.0f} A, so the alternator must be giving {gives:.0f} A; "
        "by its rating, pulley and air it could give {could:.0f} A. A larger unit than entered, a faster "
        "idle, or less on than listed. The measured voltage is used.",
        "A measured voltage contradicts the alternator as entered",
    ),
    "voltage_contradicts.drawn": Told(
        "{voltage:.1f} V measured at idle contradicts the alternator as entered",
        "At that voltage the battery gives {battery:.0f} A, so the alternator must be giving {gives:.0f} A; "
        "by its rating, pulley and air it could give {could:.0f} A. A larger unit than entered, a faster "
        "idle, or less on than listed. The measured voltage is used.",
    ),
    "voltage_contradicts.less": Told(
        "{voltage:.1f} V measured at idle contradicts the alternator as entered",
        "By its rating, pulley and air the alternator could give {could:.0f} A of the {wanted:.0f} A wanted; "
        "at that voltage it gives {gives:.0f} A. A slipping belt, a bad diode, a thin or green charge cable, "
        "or a tired battery. The measured voltage is used.",
    ),
    "charge_unfused": Told(
        "Nothing protects the charge cable",
        "Chafed through, it takes all the battery gives, hundreds of amps. A bolt-down fuse or a fusible "
        "link at the battery’s end, over what the alternator gives and under what the cable stands.",
        "Nothing protects the charge cable",
    ),
    "charge_unfused.two": Told(
        "Nothing protects the charge cable",
        "Chafed through, it takes all the battery gives, hundreds of amps. A bolt-down fuse or a fusible "
        "link at the battery’s end, over what the alternator gives and under what the cable stands. No "
        "single cable stands the fuse it needs: run two, each with a fuse of its own.",
    ),
}
