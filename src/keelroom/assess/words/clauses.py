"""Clauses that stand inside sentences: what a duty case does, what a circuit is advised, what the battery and the
alternator give."""

from __future__ import annotations

CLAUSES = {
    "rests_on_assumed": "It rests on what is assumed ({entries:first4}): {first:inside}, measured, settles it.",
    # an act tried on a copy
    "tried.goes": "Tried on a copy: this goes.",
    "astray": "Farthest from what such cars measure: {names}.",
    "tried.done": "Tried on a copy.",
    "tried.same": "Tried on a copy: every duty case, the fit and the amps stand as they did.",
    "tried.fit": "Fit: {was} → {now}.",
    "tried.less": "Tried on a copy: it becomes less.",
    "tried.stays": "Tried on a copy: this stays.",
    "tried.stopped": "Tried on a copy: cannot be done. {why}",
    "tried.hotter": "Held on hotter days, by: {moved:semicolons}.",
    "tried.cooler": "Only on cooler days, by: {moved:semicolons}.",
    "tried.day": "{name} {by}",
    "tried.far": "{name} more than {by}",
    "tried.held": "{name} is held then.",
    "tried.fallen": "{name} is held no more.",
    "tried.lost": "Not worked out any more: {names}.",
    "tried.amps": "{was:.0f} → {now:.0f} A at idle.",
    "tried.volts": "{was:.1f} → {now:.1f} V at the battery then.",
    # what the car was seen to do
    "saw.hot": "climbed to {saw}",
    "saw.stayed": "stayed at {saw}",
    "saw.under": "never ran hot, at most {saw}",
    "seen.reads": "it reads {expected} there",
    "seen.boils": "it boils there",
    # duty cases
    "settles": "Settles at {top}",
    "swings": "Swings between {low} and {top} as the fans stop and start",
    "never_settles": "does not settle",
    "reaches": "reaches {top}",
    "reaches_limit": "from a full-open thermostat it reaches the limit in {time:duration}",
    "boils_first": "it boils first",
    "holds_to": "This package holds the limit up to {ambient} ambient here.",
    "holds_anywhere": "This package holds the limit in any weather here.",
    "holds_to_find": "This package holds the limit up to … ambient here.",
    "holds_nowhere": "No weather is cold enough for this package to hold it.",
    # beliefs
    "less_heat": "Here it takes {less:.0%} less heat off at the limit than half water.",
    "less_and_hotter": "Here it takes {less:.0%} less heat off at the limit and the engine runs {hotter} hotter "
    "than half water.",
    # the coolant circuit
    "bubble_climbs": "A bubble climbs at {drift} in that line and {clears} clears it; the coolant that leaves it at "
    "idle runs at {speed}.",
    "nothing_runs": "Nothing runs through it that could take air along.",
    "renew": "to be renewed",
    "past_its_age": "past its age",
    # circuits
    "source_of": "{name} {volts:g} V",
    "parallel_contacts": "; two contacts in parallel carry one and a half times one, not twice",
    "advice": "{sizes}, {fuse}, {switch}",
    "sizes.none": "no wire that keeps the drop goes into its terminals",
    "sizes.alike": "{size}",
    "sizes.each": "{feed} feed, {motor} to the motor, {back} return",
    "fuse_of": "{amps:g} A fuse",
    "fuse_of.none": "no fuse fits",
    "switched_inside": "no relay: its own electronics switch it",
    "switched_by": "{amps:g} A {device}",
    "switched_by.several": "{many} × {amps:g} A {device}",
    "switched_by.none": "no single {device} is large enough",
    "hose_ends_meet": "The hose ends would meet over it: a longer adapter, or less of it inside each end",
    # alternator and battery
    "wanted": "With what is on, {wanted:.0f} A are wanted {when}; {given}{short}.",
    "wanted.fans": "With what is on and the fans running, {wanted:.0f} A are wanted {when}; {given}{short}.",
    "at_idle": "at idle",
    "in_case": "in “{name}”",
    "gives": "the alternator gives {amps:.0f} A hot",
    "gives.measured": "the alternator gives {amps:.0f} A, as the measured voltage tells",
    "battery_makes_up": ", the battery makes up {amps:.0f} A and is down in {time:minutes}",
    "mean_wanted": "In the mean of the fans’ cycle {amps:.0f} A are wanted.",
    "measure_again": "The voltage was measured: after any change, measure again.",
    "takes": "For the mean of it the alternator has to give {amps:.0f} A at {volts:g} V; {cures:semicolons}.",
    "takes.none": "For the mean of it the alternator has to give {amps:.0f} A at {volts:g} V.",
    "cure.no_alternator": "no alternator of its kind up to {amps:.0f} A gives that at this idle speed",
    "cure.alternator": "a {amps:.0f} A unit of its kind does",
    "cure.idle": "so does idling at {speed} with the A/C on instead of {now}",
    "cure.no_pulley": "no pulley gives it",
    "cure.pulley_over": "a pulley of {ratio:.2f} would, but over-speeds it: {top} at the redline, its limit is {limit}",
    "cure.pulley": "so does a pulley of {ratio:.2f} instead of {now:.2f} ({top} at the redline, within its {limit}; "
    "the "
    "belt wraps {less:.0%} less pulley and slips sooner)",
    "cure.lamps_help": "LED lamps give back {saved:.0f} A of the {lacks:.0f} A that lack",
    "cure.lamps": "so do LED lamps",
    "cure.charger": "shedding load and a battery-side charger overnight put back what it gives, {charge} for half "
    "an hour of "
    "such idling",
}
