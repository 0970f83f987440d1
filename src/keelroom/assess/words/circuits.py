"""How findings of circuits are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "motor_label": Told(
        "{name}: its label’s amps contradict its watts",
        "{power:.0f} W at {voltage:g} V is {contradiction:amps}, the label says {current:amps}. Watts and "
        "volts are used; a clamp meter settles it.",
        "A motor's label contradicts itself",
    ),
    "circuit_empty": Told(
        "{name}: feeds nothing",
        "Choose what it drives, or take it out.",
        "A circuit feeds nothing",
    ),
    "run_assumed": Told(
        "{name}: {assumed} not measured",
        "Lay a string along the way the loom will go, through every grommet, and measure that.",
        "Lengths of wire are assumed",
    ),
    "mixed_motors": Told(
        "{name}: motors with electronics of their own and motors without hang on it together",
        "The ones want steady power, the others something that switches it: a circuit for each.",
        "Motors with electronics and motors without hang together",
    ),
    "own_of_none": Told(
        "{name}: {names} has no electronics to switch it",
        "A signal is wired to a motor that takes none: it runs as long as its source is live. A relay, or a "
        "box beside it.",
        "A motor without electronics is to switch itself",
    ),
    "no_source": Told(
        "{name}: tied to no source",
        "Nothing feeds it; choose the battery post or a fused post of the alternator.",
        "A circuit is tied to no source",
    ),
    "sources_differ": Told(
        "{name}: sources of different voltage are tied together",
        "{volts:and}: the higher drives current into the lower until something melts. Choose one; battery "
        "and alternator of one voltage belong together.",
        "Sources of different voltage are tied together",
    ),
    "source_unlike": Told(
        "{name}: a {nominal:g} V source on a {rated:g} V motor",
        "It runs far too fast and burns. A converter, or a motor for that voltage.",
        "A source's voltage is not its motor's",
    ),
    "no_return": Told(
        "{name}: no way back",
        "Current that goes out has to come back: without a ground the motor stands still. A wire to the "
        "battery’s negative post or to clean chassis metal.",
        "A motor has no way back",
    ),
    "ground_through_core": Told(
        "{name}: grounded through the core",
        "The core hangs in rubber: the current comes back through the coolant, loses volts and eats the "
        "core. Ground the motor to chassis or battery.",
        "A motor is grounded through the core",
    ),
    "no_fuse": Told(
        "{name}: no fuse at the source",
        "A chafed wire then takes all the battery gives, hundreds of amps, and burns along its length. {advice}.",
        "No fuse at the source",
    ),
    "fuse_size": Told(
        "{name}: no {fuse:g} A fuse is made in this form",
        "The sizes next to it are {near:and g} A.",
        "A fuse of that size is not made",
    ),
    "wire_short": Told(
        "{name}: its wire does not reach its motors",
        "{there} to them, and they stand {least} away along the car. Its volts are worked out for the short wire.",
        "A circuit's wire does not reach its motors",
    ),
    "fuse_far": Told(
        "{name}: the fuse sits too far from the source",
        "{fuse_at} of wire before it is protected by nothing; {most} at most.",
        "A fuse sits far from its source",
    ),
    "fuse_over_wire": Told(
        "{name}: the fuse does not protect the {run}",
        "A {fuse:g} A fuse passes {passes:.0f} A for hours; this wire carries {ampacity:.0f} A where it lies "
        "before its insulation ({limit}) goes.",
        "A fuse does not protect its wire",
    ),
    "fuse_over_relay": Told(
        "{name}: a {fuse:g} A fuse ahead of a {relay:g} A {device}",
        "It no longer protects the {device}: between {held:g} and {passes:.0f} A the contact cooks and the "
        "fuse holds: it welds shut, or burns. A fuse of the {device}’s own rating, or a larger {device}.",
        "A fuse is larger than what switches behind it",
    ),
    "fuse_small": Told(
        "{name}: the fuse is too small to run on",
        "{continuous:.1f} A run on at {regulated:g} V; a fuse wants 1.25 times that, {fuse_of:.0f} A.",
        "A fuse is too small to run on",
    ),
    "fuse_start": Told(
        "{name}: the fuse does not stand the start",
        "{current:.0f} A for {seconds:.1f} s is {times:.1f} times its rating: it opens now and then. A soft "
        "start brings it down.",
        "A fuse does not stand the start",
    ),
    "relay_unknown": Told(
        "{name}: the rating of what switches it is not known",
        "A 15 A fan wants a 30 A relay of its own.",
        "The rating of what switches is not known",
    ),
    "relay_small": Told(
        "{name}: the {device} is too small to run on",
        "{through_relay:.0f} A go through it; rated {relay:g} A at [73 °F|23 °C], it carries {holds:.0f} A "
        "at {air}{note}.",
        "What switches is too small to run on",
    ),
    "relay_under_start": Told(
        "{name}: the start is too much for its contact",
        "{begins:.0f} A at the moment it closes; a {relay:g} A contact stands about {makes:g} times its "
        "rating, {contact:.0f} A, or it welds shut. One relay per motor halves it.",
        "The start is too much for a contact",
    ),
    "drains": Told(
        "{name}: always live and never switched",
        "{continuous:.0f} A with the key off empty the battery in {time:minutes}. Switch it, or feed it from the key.",
        "A circuit is always live and never switched",
    ),
    "no_relay": Told(
        "{name}: nothing switches it",
        "It runs whenever the key is on, warm or cold.",
        "Nothing switches a circuit",
    ),
    "drop_over": Told(
        "{name}: {drop:.2f} V lost there and back",
        "{limit:g} V is the limit; most of it, {most:.2f} V, in the {place}. The motor turns slower and the "
        "air with it. {advice}.",
        "A circuit loses more volts than it should",
    ),
    "drop_unexplained": Told(
        "{name}: its wires do not explain the drop that was measured",
        "{drop:.2f} V measured, {worked:.2f} V by length, size and contacts: a bad crimp, a green ground, a "
        "burnt relay or a thinner wire than written. Measure across each in turn with the motor running.",
        "A measured drop is more than the wires explain",
    ),
    "wire_place": Told(
        "{name}: insulation not made for that place",
        "The air round the {run} is as hot as its insulation stands ({limit}).",
        "A wire's insulation is not made for its place",
    ),
    "wire_hot": Told(
        "{name}: the {run} runs hotter than its insulation stands",
        "{current:.0f} A bring the copper to {warm}; the insulation ends at {limit}.",
        "A wire runs hotter than its insulation stands",
    ),
    "connector_small": Told(
        "{name}: the connector is too small",
        "{each:.0f} A through it; rated {connector:g} A at room temperature, {connector_holds:.0f} A where it sits.",
        "A connector is too small",
    ),
    "fuse_over_connector": Told(
        "{name}: the fuse does not protect the connector",
        "A {fuse:g} A fuse ahead of a {connector:g} A connector.",
        "A fuse does not protect a connector",
    ),
    "no_circuit": Told(
        "No circuit feeds {names}",
        "0.3 V are assumed lost on the way. Wire, fuse and relay decide the volts at the motor, and with them the air.",
        "Motors no circuit feeds",
    ),
    "no_circuit.dead": Told(
        "No circuit feeds {names:and}: it does not turn",
        "As the car stands nothing feeds it, and the figures leave it standing. A fan that stands in its ring still "
        "lets air past, and draws none.",
    ),
    "relay_before_electronics.own": Told(
        "{name}: a {device} belongs to no motor with a controller",
        "Fed through a fuse, its own electronics switch it, softly; cut off ahead of it, it starts hard, "
        "forgets its run-on and its fault. Only the key lead wakes it.",
        "A relay stands ahead of a motor with a controller",
    ),
    "relay_before_electronics.controller": Told(
        "{name}: a {device} belongs to no motor with a controller",
        "Fed through a fuse, the box beside it switches it, softly; cut off ahead of it, it starts hard, "
        "forgets its run-on and its fault. Only the key lead wakes it.",
    ),
    "fuse_over_lead": Told(
        "{name}: the fuse does not protect the controller’s own leads",
        "A {fuse:g} A fuse; its leads as sold carry {stands:.0f} A where it sits. A controller with thicker leads, or "
        "one on each fan.",
        "A fuse does not protect a controller's own leads",
    ),
    "source_over": Told(
        "{name}: more is tied to it than it gives",
        "{drawn:.0f} A run on a {holds:g} A fuse, which runs on at four fifths of that, {most:.0f} A: warm first, then "
        "open. Fans belong on the battery post, with a fuse of their own.",
        "More is tied to a source than it gives",
    ),
    "source_over.channel": Told(
        "{name}: more is tied to it than it gives",
        "{drawn:.0f} A run on a channel of {holds:g} A: it shuts itself off, and the fans with it.",
    ),
    "channel_trips": Told(
        "{name}: the start shuts the channel off",
        "{begins:.0f} A flow as the motor starts; about {lets:.0f} A is what such a channel lets through for a moment. "
        "A soft start, a channel to each fan, or the battery post and a relay.",
        "A start shuts a solid-state channel off",
    ),
    "fuse_over_slot": Told(
        "{name}: the slot’s fuse opens before its own",
        "Its fuse has {fuse:g} A, the one of “{slot}” {holds:g} A: that one opens first, and whatever else hangs on "
        "it goes dark too.",
        "A slot's fuse opens before the circuit's own",
    ),
    "feeds_joined": Told(
        "{name}: two feeds on one wire",
        "{feeds:and}: each fuse carries half of what flows, and a wire chafed through is fed by both. One feed, one "
        "fuse, sized for the wire.",
        "Two feeds meet on one wire",
    ),
    "feeds_joined.key": Told(
        "{name}: a live feed and a switched one on one wire",
        "{feeds:and}: with the key off the live one feeds everything behind the other, from the wrong end of its "
        "fuse. One feed, one fuse, sized for the wire.",
    ),
}
