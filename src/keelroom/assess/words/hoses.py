"""How findings of hoses are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "hose_kink": Told(
        "{name} kinks",
        "Bent to a radius of {radius}; {make} of {bore} wants {wanted} at least. A hose that has gone flat "
        "lets half through and is sucked shut at revs.",
        "A hose kinks",
    ),
    "near_exhaust.hose": Told(
        "{part} passes {gap} from {pipe:low}",
        "{least} at least, or half of it with a shield that has air on both sides: rubber bakes hard, and coolant that "
        "runs onto a hot pipe burns, glycol without water first of all.",
        "Something that burns or melts stands near the exhaust",
    ),
    "near_exhaust.plastic": Told(
        "{part} stands {gap} from {pipe:low}",
        "{least} at least, or half of it with a shield that has air on both sides: its plastic sags, and a blade then "
        "meets its ring.",
    ),
    "near_exhaust.cooler": Told(
        "{part} stands {gap} from {pipe:low}",
        "{least} at least, or half of it with a shield that has air on both sides: gearbox fluid, oil and refrigerant "
        "oil burn when a line or a fitting lets go.",
    ),
    "near_exhaust.bottle": Told(
        "{part} stands {gap} from {pipe:low}",
        "{least} at least, or half of it with a shield that has air on both sides: it melts, and what it "
        "holds runs out.",
    ),
    "steam_open": Told(
        "{port} is open-ended",
        "Steam gathers at the back of a head and cooks it: every steam port is plumbed, rising, with a [1/4 "
        "in|6 mm] line to the tank or the core’s top.",
        "A steam port is open",
    ),
    "heater_unplumbed": Told(
        "{port}: nothing is joined to it",
        "Without the heater’s branch its port loses coolant, and on many engines the flow past the "
        "thermostat while it is shut.",
        "A heater port is joined to nothing",
    ),
    "engine_port_open": Told(
        "{port} is open",
        "A second {role} is used or closed.",
        "A port of the engine is open",
    ),
    "bores_differ.sleeve": Told(
        "{name} does not meet {port:low}",
        "The hose is {bore}, the neck {neck}. A sleeve cut from an offcut of a smaller hose, pushed over the "
        "neck first, makes it meet.",
        "A hose does not meet its port's bore",
    ),
    "bores_differ.reducer": Told(
        "{name} does not meet {port:low}",
        "The hose is {bore}, the neck {neck}. A hose stretches by about {stretch}; more wants a reducer or a "
        "stepped joiner.",
    ),
    "hose_old.soft": Told(
        "{name}: to be renewed",
        "It is gone soft: squeezed, it feels like a sponge and is sucked flat at revs. A new one before the "
        "core is blamed.",
        "A hose is to be renewed",
    ),
    "hose_old.swollen": Told(
        "{name}: to be renewed",
        "It is swollen: oil has got at it; at its clamp it lets go. A new one before the core is blamed.",
    ),
    "hose_old.cracked": Told(
        "{name}: to be renewed",
        "It is cracked: it bursts hot and under pressure. A new one before the core is blamed.",
    ),
    "hose_old": Told(
        "{name}: past its age",
        "{years:.0f} years; rubber hardens and cracks from inside, {life:.0f} years is what it is given.",
    ),
    "core_port_open": Told(
        "{name} is open",
        "{bore} of it lets all coolant out. Its plug has the thread {thread}.",
        "A port of the core is open",
    ),
    "core_port_open.unread": Told(
        "{name} is open",
        "{bore} of it lets all coolant out. Read its thread before a plug is bought.",
    ),
    "core_port_closing.aluminium": Told(
        "{name} is to be closed",
        "A plate cut to cover it, welded by somebody who welds thin aluminium: cleaned bright, the core dry "
        "and open to the air. Plastic tanks take a plug in the thread, nothing else. Epoxy is a stopgap. "
        "Then test at or under the cap’s rating, regulated air, behind a shield, before it is trusted.",
        "A port of the core is to be closed",
    ),
    "core_port_closing.copper_brass": Told(
        "{name} is to be closed",
        "A cap or plate in brass or steel, tacked at about 35–41 A, left to cool, then short runs, "
        "back-stepped: the solder beside it may run, so the seams next to it are kept wet. Silver brazing "
        "wants the whole port away from soldered seams; a neck is left for a later owner. Then test at or "
        "under the cap’s rating, regulated air, behind a shield, before it is trusted.",
    ),
}
