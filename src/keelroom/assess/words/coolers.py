"""How findings of coolers are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "cooler_fault": Told(
        "{name}: {fault:low}",
        "A cooler hung away from the core needs its own air and room.",
        "A cooler's mount is wrong",
    ),
    "gearbox_cold": Told(
        "{name}: gearbox fluid stays at {gearbox}",
        "Under {cold_gearbox} it drags and keeps its water. A bypass thermostat of [160–180 °F|71–82 °C] "
        "leaves the cooler out until it is warm.",
        "The gearbox fluid stays cold",
    ),
    "ac_cuts_out": Told(
        "{name}: the A/C cuts out on head pressure",
        "Its condenser gets so little air that the pressure switch lets the compressor run {runs:.0%} of the "
        "time; the vents are at {vents}, the cabin at {cabin}. More air at idle, or recirculation stopped, is the "
        "cure.",
        "The A/C cuts out on head pressure",
    ),
    "cooler_shut": Told(
        "{name}: its fan has no way out for the air",
        "It stands on what is behind it. Spacers of [3/4 in|19 mm] are the least that has been seen to do.",
        "A cooler's fan has no way out for its air",
    ),
    "cooler_choked": Told(
        "{name}: its air leaves through {slot:.0%} of its face",
        "The slot its spacers of {spacer} leave all round is the narrowest of its way.",
        "A cooler's air leaves through a narrow slot",
    ),
    "opening_larger": Told(
        "{name}: the opening is larger than the face it feeds",
        "The face is {area}, {place}: what more is let in goes round it. Was another opening meant?",
        "A cooler's opening is larger than its face",
    ),
    "no_own_air": Told(
        "{name}: nothing moves air through it {place}",
        "The road presses no air there and it has no fan: it gives next to nothing.",
        "Nothing moves air through a cooler",
    ),
    "hose_kinks": Told(
        "{name}: {fault:low}",
        "An elbow at the fitting takes the bend: 90° fittings go where a straight hose would kink.",
        "A cooler's line is bent tighter than it stands",
    ),
    "lines_long": Told(
        "{name}: lines of {line_length} are longer than the car there and back",
        "Was a unit missed, or is it one way?",
        "A cooler's lines are long",
    ),
    "lines_narrow": Told(
        "{name}: its lines lose {pressure}",
        "At {flow} of warm fluid; the pump has some [30–60 psi|2–4 bar] for lines and cooler. A size more bore.",
        "A cooler's lines lose much pressure",
    ),
    "coolers_meet": Told(
        "{name} and {other:low} stand in one place",
        "They cannot both be there: move one, or set it further ahead.",
        "Two coolers stand in one place",
    ),
    "gearbox_hot": Told(
        "{name}: gearbox fluid at {value}",
        "It is given {heat} there; {hot} is wanted at most. Each {halves} over halves its life: {left:.0%} "
        "of it is left here. A larger cooler, a better place, or one more before or after.",
        "The gearbox fluid runs hot",
    ),
    "cooler_fan_late": Told(
        "{name}: its own fan starts late",
        "Its switch starts it at {on}; {hot} is wanted at most, and a fan takes some minutes to pull it back.",
        "A cooler's own fan starts late",
    ),
    "cooler_fan_rests": Told(
        "{name}: its own fan rests where its fluid is cooler than its switch",
        "With it running the fluid settles under {on} in {cases:and}: there it stays near {on}, the fan going on and "
        "off, and what is told of it is the fan’s running.",
        "A cooler's own fan rests in some cases",
    ),
    "oil_hot": Told(
        "{name}: engine oil at {value}",
        "It is given {heat} there; {hot} is wanted at most. A larger cooler, a better place, or one more "
        "before or after.",
        "The engine oil runs hot",
    ),
    "charge_hot": Told(
        "{name}: intake air at {value}",
        "It is given {heat} there; {hot} is wanted at most. A larger cooler, a better place, or one more "
        "before or after.",
        "The charge air enters the engine hot",
    ),
    "steering_hot": Told(
        "{name}: power steering fluid at {value}",
        "It is given {heat} there; {hot} is wanted at most. A larger cooler, a better place, or one more "
        "before or after.",
        "The power-steering fluid runs hot",
    ),
    "cooler_no_heat": Told(
        "{name} has no heat to take",
        "Nothing gives its fluid heat in any duty case. It only costs air and room.",
        "A cooler has no heat to take",
    ),
    "cooler_no_heat.charge": Told(
        "{name} has no heat to take",
        "The engine has no boost: nothing heats its intake air. It only costs air and room.",
    ),
    "cooler_no_heat.refrigerant": Told(
        "{name} has no heat to take",
        "The A/C is off in every duty case. It only costs air and room.",
    ),
}
