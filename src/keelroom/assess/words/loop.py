"""How findings of loop are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "part_loose": Told(
        "{name} is not joined to the circuit",
        "No hose leads to it from what the engine’s coolant goes through: it does nothing yet, though its "
        "cap is counted. Its hoses are at Hoses; a port that is taken takes a tee.",
        "A part is not joined to the circuit",
    ),
    "neck_unmeasured": Told(
        "The filler neck and its cap are not measured, and the hood is near",
        "{room} from the core’s top to the hood; a neck with its cap on stands up by as much as {usual}. Measured over "
        "its tank at Core, it stands in the bay like everything else.",
        "A filler neck near the hood is not measured",
    ),
    "cap_weak": Told(
        "The pressure cap lets go early",
        "It holds about {share:.0%} of its rating: the coolant boils sooner, and goes into the bottle before it does. "
        "Engine cold: a new one of the same rating, never a higher one.",
        "The pressure cap is weak",
    ),
    "air_left": Told(
        "Air stands in the coolant",
        "The pump makes about {share:.0%} of its head on what is half air, and where a bubble stands no metal is "
        "cooled. Before anything is bought: cold, the cap off, the heater open, and bled at every high point until no "
        "more comes, through two heat cycles.",
        "Air stands in the coolant",
    ),
    "thermostat_reversed": Told(
        "The thermostat is in the wrong way round",
        "Its spring and wax belong on the engine’s side: the other way they feel coolant that has been "
        "through the core, or none, and it opens far too late.",
        "The thermostat is in the wrong way round",
    ),
    "thermostat_missing": Told(
        "No thermostat in the circuit",
        "All coolant goes through the core all the time: the engine runs cold on a cool day, and a hot day "
        "gains hardly anything, for it would be full open then.",
        "No thermostat in the circuit",
    ),
    "two_thermostats": Told(
        "Two thermostats, one after the other",
        "The hotter one decides, both throttle, and the flow through the core is that of two half-shut "
        "valves. Keep one: the one in line, or the engine’s.",
        "Two thermostats, one after the other",
    ),
    "no_pressure_cap": Told(
        "No pressure cap in the circuit",
        "Without one the coolant boils as in an open pot, and grows out of it at every warm-up.",
        "No pressure cap in the circuit",
    ),
    "second_cap": Told(
        "A second pressure cap: {name:inside}",
        "One cap holds the pressure of a circuit; of two the weaker vents first, here at {rating}, and "
        "coolant is drawn back past the other. One pressure cap, at the highest point; any other neck gets a "
        "plain one.",
        "A second pressure cap",
    ),
    "cap_over_weakest": Told(
        "The cap is over what the weakest part stands: {name:inside}",
        "{held} on a part that stands {stands}. Never a higher cap than the weakest part allows.",
        "The cap is over what the weakest part stands",
    ),
    "pump_over_part": Told(
        "{name}: the pump presses more into it than it stands",
        "{meets} with cap and pump at the highest revs, {stands} is what it stands.",
        "A pump presses more into a part than it stands",
    ),
    "pump_curve": Told(
        "The pump’s curve is not one",
        "{wrong}. Its rating is used instead.",
        "A pump's curve is not one",
    ),
    "pump_unused": Told(
        "{name} stands in the circuit, but only the engine’s pump is counted",
        "A pump that stands still is one more thing to push through.",
        "An electric pump stands in the circuit and is not counted",
    ),
    "pump_absent": Told(
        "An electric pump is counted on that stands nowhere",
        "Add it to what stands in the circuit, with the hoses to it.",
        "An electric pump is counted and stands nowhere",
    ),
    "pump_late": Told(
        "The electric pump starts at the limit",
        "It starts at {pump_on}, the limit is {limit}: until then nothing goes through the core.",
        "The electric pump starts at the limit",
    ),
    "pump_on_side": Told(
        "{name} lies on its side",
        "Air gathers in its housing, and it spins in it without moving anything. Upright, its outlet the "
        "highest place of it.",
        "An electric pump lies on its side",
    ),
    "pump_outlet": Told(
        "{name}: its outlet does not point up",
        "Air that comes to it stays in it. Turn it so that the outlet is the highest place.",
        "An electric pump's outlet does not point up",
    ),
    "pump_high": Told(
        "{name} stands above the core",
        "By {over}: it runs dry after every filling and has to be bled each time, about half an hour more "
        "with every coolant change. It belongs at the lowest point, its outlet up.",
        "An electric pump stands above the core",
    ),
    "pump_not_lowest": Told(
        "{name} is not the lowest place of the circuit",
        "{over} over it: what stands lower empties into nothing when it is drained, and air can come to it.",
        "An electric pump is not the lowest place",
    ),
    "bypass_backwards": Told(
        "{name}: coolant goes backwards through the bypass",
        "{core_coolant_flow} through the core, {coolant_flow} through the engine: the pump in line draws the "
        "rest round it, so the engine is hotter than what goes to the core, and than the figures here. With "
        "a pump in line the bypass is blocked, or a hole of [1/8 in|3 mm] is left.",
        "Coolant goes backwards through the bypass",
    ),
    "core_flow_small": Told(
        "Little coolant goes through the core at idle",
        "{core_coolant_flow}: it loses {drop} in the core, so its far half works with half-cold coolant. A "
        "faster pump, wider lines, or a core with wider tubes.",
        "Little coolant goes through the core at idle",
    ),
    "tubes_laminar": Told(
        "{name}: the coolant runs smooth through the tubes",
        "Re {reynolds:.0f}: laminar, its heat has to creep to the wall. Two passes would be worth about "
        "{passes}, a pump turned a fifth faster about {pump}.",
        "The coolant runs smooth through the tubes",
    ),
    "filler_low": Told(
        "The filler is not the highest point",
        "{over} of the circuit stand over it: it cannot be filled by pouring. A filler neck at the highest "
        "point, or vacuum filling.",
        "The filler is not the highest point",
    ),
    "tank_small": Told(
        "{name} is too small",
        "It holds {holds}; {total} of coolant grow by {growth} and want {wanted}. A [foot-long|30 cm] tube "
        "holds too little: what does not fit is thrown out hot and drawn back as air.",
        "A tank is too small for what the coolant grows",
    ),
    "no_surge_tank": Told(
        "Long lines and no tank in the circuit",
        "Air that comes with the filling has nowhere to part from the coolant: it goes round, and the heat "
        "stays. In line at the top of the hot side, engine → tank → core, is how such systems were cured.",
        "Long lines and no tank in the circuit",
    ),
    "tank_aside": Told(
        "{name} is not in the flow",
        "An in-line tank parts air from all the coolant; one beside the flow is an expansion tank with a "
        "vent line to it and a feed to the suction side.",
        "A tank is not in the flow",
    ),
    "vent_wide": Told(
        "{name} is wide for a vent line",
        "{bore}: coolant takes that way round the core instead of air. [1/4 to 3/8 in|6 to 10 mm], with a "
        "restrictor where it is more.",
        "A vent line is wide",
    ),
    "vent_falls": Told(
        "{name} falls to its tank",
        "By {falls}: air does not go down a vent line. The tank’s vent port belongs over everything it vents.",
        "A vent line falls to its tank",
    ),
    "part_over_hood": Told(
        "{name} stands above the hood",
        "{y} where the hood’s underside is at {under}.",
        "A part stands above the hood",
    ),
    "coolant_mixed": Told(
        "Another sort of coolant stays in the block",
        "About {stays:.0%} of it does not drain: unlike inhibitors can gel or drop out. Flush with water "
        "until it comes clear; then water is what stays, and it counts in the mix.",
        "Another sort of coolant stays in the block",
    ),
    "waterless_wet": Told(
        "A coolant without water wants the circuit bone dry",
        "{stays:.0%} of the circuit is still water: it boils at water’s temperature and takes the coolant’s "
        "freedom from pressure away. Blow block and heater dry, drive its preparation fluid through, and "
        "measure the water left.",
        "A coolant without water wants the circuit dry",
    ),
    "no_inhibitor": Told(
        "Nothing keeps this coolant from corroding the core",
        "Glycol turns acid in two to five years; plain water has no inhibitor at all. Aluminium and old "
        "solder go first.",
        "Nothing keeps the coolant from corroding the core",
    ),
    "ground_by_coolant": Told(
        "The ground goes through the coolant",
        "A core on rubber with fans grounded to it, or an engine without its strap, sends current through "
        "the coolant: it eats aluminium from inside. Under 0.1 V between coolant and battery post with "
        "everything on is sound.",
        "A ground goes through the coolant",
    ),
    "suction_boils": Told(
        "{name}: the coolant at the pump’s inlet is {margin} from boiling",
        "{temperature} at {pressure} there: the pump fills with vapour, its flow falls off, and the engine "
        "climbs. A tank that feeds the suction side, a lower pump, wider lines to it, or a stronger cap as "
        "far as the weakest part allows.",
        "Coolant boils at the pump's inlet, or nearly",
    ),
    "suction_boils.boils": Told(
        "{name}: the coolant at the pump’s inlet boils",
        "{temperature} at {pressure} there: the pump fills with vapour, its flow falls off, and the engine "
        "climbs. A tank that feeds the suction side, a lower pump, wider lines to it, or a stronger cap as "
        "far as the weakest part allows.",
    ),
    "air_trap.revs": Told(
        "Air stays at a high point: {name:inside}",
        "At {at}, higher than what leads to it. {moving} More revs carry it out; until then the engine heats "
        "round a bubble.",
        "Air stays at a high point",
    ),
    "air_trap.may": Told(
        "Air may stay at a high point: {name:inside}",
        "At {at}, higher than what leads to it. {moving} Bleed it by hand after each filling, and look again once it "
        "has been driven.",
    ),
    "air_trap.stays": Told(
        "Air stays at a high point: {name:inside}",
        "At {at}, higher than what leads to it. {moving} It has to be bled by hand each time.",
    ),
    "loop_end": Told(
        "{name} needs an end",
        "Choose the port it is joined to.",
        "A hose leads to nothing",
    ),
    "loop_end.gone": Told(
        "{name} leads to something that is no longer there",
        "Choose the port it is joined to.",
    ),
    "loop_taken": Told(
        "{name} and {other} are both on one port: {port:low}",
        "A port takes one hose: a tee between them, or another port.",
        "Two hoses want one port",
    ),
    "loop_same": Told(
        "{name} begins and ends at one port",
        "Its other end leads somewhere else.",
        "A hose leads from a port to itself",
    ),
    "loop_joined.outlets": Told(
        "{name} joins two outlets: {first} and {last}",
        "Coolant comes out of one end of a hose and goes in at the other: nothing would flow here.",
        "A hose joins two ports that are alike",
    ),
    "loop_joined.inlets": Told(
        "{name} joins two inlets: {first} and {last}",
        "Coolant comes out of one end of a hose and goes in at the other: nothing would flow here.",
    ),
    "pump_aside": Told(
        "{name} is not in the coolant’s way",
        "Nothing else drives the coolant: put it into the line from the core to the engine.",
        "An electric pump is not in the flow",
    ),
    "loop_open.there": Told(
        "Nothing leads from the engine’s outlet to the core’s inlet",
        "Flows and temperatures wait until a hose is there: the rest can be entered and saved meanwhile.",
        "The circuit does not close",
    ),
    "loop_open.back": Told(
        "There is no way back from the core’s outlet to the engine’s inlet",
        "Flows and temperatures wait until a hose is there: the rest can be entered and saved meanwhile.",
    ),
}
