"""How findings of judge are worded."""

from keelroom.assess.words.told import Told

TOLD = {
    "missing": Told(
        "Needs {entry}",
        "Duty cases that depend on it are not worked out until it is known.",
        "An entry is needed before anything can be worked out",
    ),
    "no_fans": Told(
        "No fan in this package",
        "Only road speed moves air through the core; at a light there is none.",
        "The package has no fan",
    ),
    "pump_assumed": Told(
        "Coolant flow assumed: {flow} at power rpm",
        "Taken as [0.28 gpm per hp|1.4 L/min per kW]: the engine then warms its coolant by [11–18 °F|6–10 K] "
        "at full power. Flow at idle is far less and shows in the idle temperature.",
        "The coolant pump's flow is assumed",
    ),
    "limit_under_thermostat": Told(
        "The limit is at or under the thermostat",
        "Limit {limit}; the thermostat only starts to open at {thermostat} and is full open {later} later. "
        "No package can hold the engine under its own thermostat.",
        "The limit is at or under the thermostat",
    ),
    "ambient_over_limit": Told(
        "The hottest day is over the limit",
        "Air at {ambient} cannot cool anything below that.",
        "The hottest day is over the limit",
    ),
    "fan_never_stops": Told(
        "The fans never stop",
        "Fans off at {fan_off} lies under the thermostat's opening at {floor}: the thermostat holds the "
        "engine above it.",
        "The fans never stop",
    ),
    "fan_never_stops.air": Told(
        "The fans never stop",
        "Fans off at {fan_off} lies under the day's air, {floor}: nothing behind the core gets colder than that.",
    ),
    "fan_set_points": Told(
        "Fans on must lie above fans off",
        "On at {fan_on}, off at {fan_off}: the switch would chatter.",
        "Fans on must lie above fans off",
    ),
    "freezes": Told(
        "This coolant freezes at {freezing}, the coldest night is {coldest}",
        "A frozen core or block cracks. More water carries more heat; drain it or add glycol before the frost.",
        "The coolant freezes on the coldest night of the brief",
    ),
    "limit_over_boiling": Told(
        "The limit lies above boiling",
        "This coolant boils at {boiling} under this cap at this altitude.",
        "The limit lies above boiling",
    ),
    "rows_do_not_fit": Told(
        "The tube rows do not fit the core depth",
        "{rows} rows in {depth} leave no width for a tube.",
        "The tube rows do not fit the core's depth",
    ),
    "no_shroud": Told(
        "Fans without a shroud",
        "Only the disc behind each fan is swept while standing; with the same fan a sealed shroud wins by a "
        "wide margin at idle.",
        "Fans without a shroud",
    ),
    "fan_larger_than_face": Told(
        "The fan is larger than the core face",
        "{diameter} fan on a face {width} × {height}: what hangs over draws no air through the core.",
        "A fan is larger than the face",
    ),
    "fan_off_face": Told(
        "The fan hangs over the edge of the face",
        "It stands {over} beyond the finned face.",
        "A fan hangs over the edge of the face",
    ),
    "fans_overlap": Told(
        "Two fans overlap",
        "Their rings cut into each other by {gap}.",
        "Two fans overlap",
    ),
    "shroud_off_face": Told(
        "The shroud stands over the edge of the face",
        "By {over}; it seats on the tanks there instead of sealing on the core.",
        "The shroud stands over the edge of the face",
    ),
    "fan_outside_shroud": Told(
        "A fan sits outside the shroud",
        "It would draw from the bay, not from the core.",
        "A fan sits outside the shroud",
    ),
    "hub_too_large": Told(
        "The hub fills the fan",
        "A hub over 80 % of the diameter leaves no blade; check the reading.",
        "A hub fills its fan",
    ),
    "fan_rating_only": Told(
        "{name}: only its free-air rating is known",
        "Advertised airflow is free air and optimistic; the pressure it can make is derived from motor "
        "power, ±30 %. Curve points or an anemometer reading narrow it.",
        "Only a fan's free-air rating is known",
    ),
    "fan_curve": Told(
        "The fan curve is not a curve",
        "{reason}. Its rating is used instead.",
        "A fan's curve is not a curve",
    ),
    "fan_too_good": Told(
        "More air power than the motor can give",
        "The curve's best air power {best:.0f} W is over 40 % of the motor's {power:.0f} W.",
        "A fan moves more air power than its motor can give",
    ),
    "does_not_settle": Told(
        "{name}: does not settle",
        "At the limit it still climbs {climb} per minute; {when}. Heat in {heat_in}, rejection at the limit "
        "{rejection_at_limit}.{held:then}",
        "A duty case never settles: more heat comes in than can leave",
    ),
    "over_limit": Told(
        "{name}: over the limit by {over}",
        "{settles}; {chance:chance} that it passes the limit.{held:then}",
        "A duty case settles over the limit",
    ),
    "band_over_limit": Told(
        "{name}: likely holds; {chance:chance} that it passes the limit",
        "{settles}; its hot end {top}. The largest doubt is {largest}.",
        "A duty case likely holds, and may pass the limit",
    ),
    "band_over_limit.even": Told(
        "{name}: may hold or not; {chance:chance} that it passes the limit",
        "{settles}; its hot end {top}. The largest doubt is {largest}.",
    ),
    "tubes_in_transition": Told(
        "{name}: the coolant is neither smooth nor turbulent in the tubes",
        "Re {reynolds:.0f}: there a tube's heat transfer is the least certain, and its band counts that. "
        "Twice the speed, as with two passes, would be worth about {passes}, a pump turned a fifth faster "
        "about {pump}; what they cost in flow is not in it.",
        "The coolant is neither smooth nor turbulent in the tubes",
    ),
    "power_short": Told(
        "{name}: the engine cannot do this",
        "It lacks {lacks} at {speed}; full throttle was assumed. Choose a lower gear or speed.",
        "The engine has not the power a duty case asks",
    ),
    "slow_air": Told(
        "{cases}: air slower than the tests",
        "Louver Reynolds number under 100; the slope at 100 is carried on below it.",
        "The air through the core is slower than it was tested at",
    ),
    "assumed": Told(
        "Assumed, not measured: {guessed}",
        "They set the air at road speed and the climb. A tape measure settles them.",
        "Entries that stand as assumed and were not measured",
    ),
    "not_worked_out": Told(
        "{part:raised} could not be worked out",
        "{reason:raised}. {astray:before}Everything else stands without it. Mend the entry, or undo the last step.",
        "A part, a duty case or all of it could not be worked out, and why",
    ),
    "not_worked_out.inside": Told(
        "{part:raised} could not be worked out",
        "{reason:raised}. {astray:before}Everything else stands without it. Mend the entry, or undo the last step; "
        "a report to send stands behind this finding.",
    ),
    "not_worked_out.part": Told(
        "{name} could not be worked out",
        "{reason}. Everything else stands without it.",
    ),
    "not_worked_out.move": Told(
        "{reason}",
        "Everything else stands without it.",
    ),
    "not_worked_out.hose": Told(
        "{reason}",
        "The circuit stands without it, and may not be whole.",
    ),
    "outside_correlation": Told(
        "Outside the tested range: {entry} {value}",
        "The fin correlations rest on cores up to [2 1/4 in|57 mm] deep with fin and louver pitches of "
        "[0.02–0.13 in|0.5–3.3 mm]; expect rejection within ±10 % rather than ±5 %.",
        "A figure lies outside what a correlation was tested for",
    ),
    "outside_correlation.angle": Told(
        "Outside the tested range: {entry} {value}",
        "The fin correlations rest on cores up to [2 1/4 in|57 mm] deep with fin and louver pitches of "
        "[0.02–0.13 in|0.5–3.3 mm]; expect rejection within ±10 % rather than ±5 %.",
    ),
    "outside_correlation.fine": Told(
        "Outside the tested range: {entry} {value:fine}",
        "The fin correlations rest on cores up to [2 1/4 in|57 mm] deep with fin and louver pitches of "
        "[0.02–0.13 in|0.5–3.3 mm]; expect rejection within ±10 % rather than ±5 %.",
    ),
    "rule_differs.content": Told(
        "The {rule} is content; the heat balance at idle does not agree",
        "Rule: {have} against {want}. Heat balance: idle settles at {idle}. The heat balance decides here; "
        "the rule knows neither climate nor load.",
        "A rule of thumb and the heat balance do not agree",
    ),
    "rule_differs.wants": Told(
        "The {rule} wants more; the heat balance at idle does not agree",
        "Rule: {have} against {want}. Heat balance: idle settles at {idle}. The heat balance decides here; "
        "the rule knows neither climate nor load.",
    ),
}
