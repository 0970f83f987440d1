"""How findings of entries are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "unlikely": Told(
        "{entry}: {typed}, is that so?",
        "Such are {low} to {high}. It counts as it was typed.",
        "An entry outside what such parts and cars measure",
    ),
    "unlikely.fraction": Told(
        "{entry}: {typed} is more than a whole fraction",
        "It counts as {value}. Read the tape again.",
    ),
    "package_kind_twice": Told(
        "“{name}” stands for {kind} too",
        "“{first}” is taken where the two are compared; this one is left aside.",
        "Two packages stand for the same state of the car",
    ),
    "regulator_odd": Told(
        "No regulator of a {system:g} V system holds {regulated:g} V",
        "{low:g} to {high:g} V is what they hold: under it the battery never fills, over it boils.",
        "A voltage no regulator holds",
    ),
    "voltage_odd": Told(
        "{measured:g} V measured on a {system:g} V system",
        "Either it is another system, and the regulator and sources of this build are wrong, or the meter "
        "was read wrong: measure again at the battery’s posts.",
        "A measured voltage no such system has",
    ),
    "reserve_contradicts": Told(
        "Reserve minutes and amp-hours are not of one battery",
        "{capacity} would give about {by_hours:minutes} at 25 A, its label says {reserve:minutes}. The "
        "minutes are used; read the label again.",
        "Reserve minutes and amp-hours are not of one battery",
    ),
    "speed_limit_low": Told(
        "The alternator’s speed limit lies under what it turns at idle",
        "{speed_limit} against {at_idle} at idle; 15 000 and 18 000 rpm units exist. It is the alternator’s "
        "own speed, not the engine’s.",
        "The alternator's speed limit lies under what it turns",
    ),
    "redline_low": Told(
        "The redline lies under the speed the engine is said to run at",
        "{redline} against {least} at idle or greatest power: the alternator’s top speed is worked out from it.",
        "The redline lies under the engine's own speeds",
    ),
    "feeds_unknown": Told(
        "{name}: feeds what is not there",
        "{lost}: no fan, pump or cooler of that name with a motor known. It was taken out, or its label’s "
        "watts are missing.",
        "A circuit feeds what is not there",
    ),
    "drop_too_small": Told(
        "{name}: less drop was measured than its wires alone make",
        "{measured_drop:.2f} V measured, {worked:.2f} V by length and size: measured with the fan not at "
        "full speed, on one side only, or the wire is thicker than written.",
        "A measured drop is less than the wires make",
    ),
    "source_low": Told(
        "{name}: a {rated:g} V motor on a {tied:g} V source",
        "It turns at about half its speed and moves half its air. A source of {rated:g} V, or a motor for {tied:g} V.",
        "A motor hangs on a source of less than its voltage",
    ),
    "second_off_over": Told(
        "Second speed must go off below where it comes on",
        "On at {second_on}, off at {second_off}: its relay would chatter until it welds.",
        "The second speed must go off below where it comes on",
    ),
    "trim_without_blank": Told(
        "A trim without a shroud to trim",
        "{trimmed} cut, but the width of the shroud as bought is not known: nothing is cut, and none of it "
        "counts. Measure it over its flange.",
        "A trim is entered and no shroud to trim",
    ),
}
