"""How findings of electrical are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "no_sensor": Told(
        "The controller has no sensor",
        "It cannot know when to start the fans: they never run.",
        "The controller has no sensor",
    ),
    "two_outputs": Told(
        "Two outputs and one fan",
        "Low speed by one fan of two takes two. With one, low speed is a resistor or a winding of its own; or both "
        "outputs work one relay box, a contact each, never one wire, and the fan has one speed. A resistor is taken "
        "here.",
        "Two outputs command one fan",
    ),
    "sensor_lost": Told(
        "The sensor is unplugged, and the fans stand",
        "What commands them hears nothing and starts nothing: the gauge climbs at every stop. Plug it in, or find the "
        "break with a meter from plug to plug.",
        "The sensor is unplugged",
    ),
    "sensor_lost.runs": Told(
        "The sensor is unplugged, and the fans run all the time",
        "What commands them runs them to be safe: it keeps the engine cool and draws their full current at every "
        "moment. Plug it in, or find the break with a meter from plug to plug.",
    ),
    "toggle_alone": Told(
        "The fans depend on somebody remembering",
        "A toggle alone cooks an engine the day it is forgotten, and empties the battery the night it is "
        "left on. As an override beside a switch it is welcome.",
        "The fans depend on somebody remembering",
    ),
    "stages": Told(
        "Second speed must come on above the first",
        "First at {on}, second at {second}.",
        "The second speed must come on above the first",
    ),
    "always_hot": Told(
        "The relays are fed with the key off",
        "A hot engine, a stuck switch or a forgotten toggle then runs the fans on the battery: flat in "
        "{until}. Feed the coils from the key, or let a timer end it.",
        "Relays are fed with the key off",
    ),
    "no_ac_request": Told(
        "The A/C does not ask for the fans",
        "Standing, the condenser has only the fans’ air; without it the head pressure rises until the A/C cuts out.",
        "The A/C does not ask for the fans",
    ),
    "outputs_tied": Told(
        "Both outputs are tied to one wire",
        "The one that is off feeds or grounds the one that is on: the computer reads a fault, or burns an "
        "output. A contact of its own for each: both on one relay box, or two relays.",
        "Two outputs are tied to one wire",
    ),
    "stages_merged": Told(
        "Both stages work one relay box",
        "Allowed: each output has a contact of its own, so neither feeds the other. The contacts share the "
        "load, one and a half times one of them; fuse, feed and ground carry all of it. There is no low "
        "speed left: either stage starts everything.",
        "Both stages work one relay box",
    ),
    "merged_apart": Told(
        "Both stages are to work one relay box, and the fans have circuits of their own",
        "Merged, all fans hang on both contacts of one box.",
        "Both stages are to work one box, and the fans have circuits of their own",
    ),
    "stages_one_relay": Told(
        "Both fans hang on one relay: there are no stages",
        "One after the other takes a relay for each.",
        "Both fans hang on one relay: there are no stages",
    ),
    "brushless_chopped": Told(
        "{chopped}: a brushless motor on two leads cannot be slowed by chopping its supply",
        "Its electronics want steady volts; they need a signal lead to be slowed. Switch it, or fit one that "
        "has the lead.",
        "A brushless motor on two leads cannot be slowed",
    ),
    "ramp_through_relay": Told(
        "{name}: a variable speed does not go through a relay",
        "The controller chops the current thousands of times a second; a contact only knows on and off. The "
        "controller itself has to carry it.",
        "A variable speed does not go through a relay",
    ),
    "signal_unlike": Told(
        "{name} listens to {takes}, and gets {gets}",
        "It stands still or runs at full speed only. Its sheet says what its signal lead takes; what "
        "commands it has to give that.",
        "A motor's signal is not what it gets",
    ),
    "override_nowhere": Told(
        "The override in the cab has nowhere to go",
        "Each fan's own module decides, and none has a lead that runs it at full speed: no wire is laid for "
        "the switch.",
        "The override has nowhere to go",
    ),
    "fan_gone": Told(
        "The control names a fan that is no longer there",
        "It counts as not named.",
        "The control names a fan that is no longer there",
    ),
    "ac_one_controller": Told(
        "One controller for all fans cannot start one of them alone for the A/C",
        "It has one output. A module in each fan, or a switch with relays, keeps them apart.",
        "One controller cannot start one fan alone for the A/C",
    ),
    "curve_of_one": Told(
        "One point is no curve",
        "Two points at least; until then {without} counts.",
        "A curve of one point",
    ),
    "sensor_fins": Told(
        "A probe in the fins reads the weather too",
        "Set on a {set_on_day} day, it starts the fans at {late} of coolant on one of {cool_day} instead of {fan_on}.",
        "A probe in the fins reads the weather",
    ),
    "sensor_lower": Told(
        "A switch for hot coolant sits behind the core",
        "Behind the core the coolant is [9–27 °F|5–15 K] cooler: it starts at {fan_on} there, when the "
        "engine is that much hotter. There it wants about {lower}; the core works first and the "
        "fan runs less.",
        "A switch for hot coolant sits behind the core",
    ),
    "adapter_short": Told(
        "The sensor adapter is too short for its hose ends",
        "{fault}.",
        "A sensor's adapter is too short for its hose ends",
    ),
    "switch_sold": Told(
        "No fan switch is sold for {fan_on}",
        "Switches come for [175, 180, 185, 190 and 195 °F|79, 82, 85, 88 and 91 °C]; an adjustable "
        "controller takes any.",
        "No switch is sold for that temperature",
    ),
    "ground_through_coolant": Told(
        "The switch grounds through the coolant",
        "It sits between rubber, hoses or mounts: without a strap its only way to ground is the coolant. "
        "It switches when it likes, and the current eats the core.",
        "A switch grounds through the coolant",
    ),
    "run_on_long": Told(
        "The run-on takes much of the battery",
        "{time:minutes} at {amps:.0f} A is {share:.0%} of it, every stop.",
        "The run-on takes much of the battery",
    ),
    "run_on_dead": Told(
        "The run-on has no feed",
        "The relays’ coils are fed by the key: with it off nothing runs on. It takes a timer fed always.",
        "The run-on has no feed",
    ),
    "no_run_on": Told(
        "Nothing runs on after key-off",
        "A turbocharger’s heat soaks into a still engine: the gauge climbs after a stop. Three minutes of "
        "fan cost {cost:.1%} of the battery.",
        "Nothing runs on after key-off",
    ),
    "spin": Told(
        "Direction of {fans:fan|fans} {fans:and .0f} not felt by hand yet",
        "Two fans bought together are often wired opposite: the second then blows into the first and the "
        "core gets nothing. Power each by hand, feel the air, before the harness is built.",
        "Which way fans turn was not felt by hand",
    ),
    "spins_backwards": Told(
        "{name} turns backwards",
        "A one-way blade run the wrong way moves {reversed_share:.0%} of its air. Swap its two wires, then "
        "key the connectors: one male, one female a side.",
        "A fan turns backwards",
    ),
    "lead_fan": Told(
        "Fan {first:.0f} starts first, fan {second:.0f} has more room behind it",
        "{room} behind the one, {more} behind the other: its air gets away, and it runs most.",
        "Another fan had better start first",
    ),
    "lead_fan.free": Told(
        "Fan {first:.0f} starts first, fan {second:.0f} has more room behind it",
        "{room} behind the one, nothing near behind the other: its air gets away, and it runs most.",
    ),
    "fan_on_near_limit": Told(
        "The fans come on just under the limit",
        "They start at {on} of engine outlet, and the gauge climbs there before every start; the limit is "
        "{limit}. {apart} at least belong between: a sensor lags.",
        "The fans come on near the limit or over it",
    ),
    "fan_on_near_limit.over": Told(
        "The fans come on over the limit",
        "They start at {on} of engine outlet, and the gauge climbs there before every start; the limit is "
        "{limit}. {apart} at least belong between: a sensor lags.",
    ),
}
