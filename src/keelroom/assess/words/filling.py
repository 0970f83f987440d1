"""Steps of filling a circuit, and what to mind with each hose."""

from __future__ import annotations

from keelroom.assess.safety import STEPS, caution

FILLING = {
    **{f"safety.{step}": caution(step) for step in STEPS},
    "step.rinse": "New and dry: rinse swarf and flux out of core and lines with clean water before they are joined.",
    "step.drain": "Cold: open the drains of core and block, heater open. About {stays:.0%} stays in block and heater.",
    "step.all_out": "All of the old coolant has to come out: water in, warm until the thermostat opens, cool, "
    "drain; again "
    "until it runs clear and a test strip shows none of it.",
    "step.water_in": "Water is in it: run it warm once, drain, look whether it comes clear. What stays counts in "
    "the mix "
    "below.",
    "step.clear": "Water first, until it runs clear, where the old coolant was brown; otherwise only drain.",
    "step.dry": "Without water: blow block, heater and core dry, drive the preparation fluid through, drain; under 3 % "
    "of water may stay.",
    "step.not_known": "How much coolant it takes stands here once engine and core are known.",
    "step.buy": "The circuit holds about {total}: {glycol} of glycol and {water} of distilled water go in.",
    "step.mix_kept": "What stays in the block keeps the mix at {share:.0%}: drain the block too, or flush with the "
    "mix.",
    "step.held": "Cold: {test} on the closed circuit, never over the cap or the weakest part. It holds for ten "
    "minutes, "
    "or the leak is looked for with soap.",
    "step.air_finds": "Air finds what water does not, and nothing has to be dried: a repaired core is tested so "
    "before it goes "
    "in.",
    "step.water_look": "Fill with water and look: every joint dry under a lamp, cold and then warm. It flushes at "
    "once; a "
    "pinhole may not show.",
    "step.then_pressure": "Then pressure, at most {test}, before the mix goes in.",
    "step.heater_open": "Heater on hot, so that its valve is open.",
    "step.vacuum": "{heater:before}Vacuum filler on {where}: pull {pull}; hoses go flat, that is right.",
    "step.creeps": "Shut the valve and wait five minutes: a needle that creeps back is a leak, to be found before a "
    "drop "
    "goes in.",
    "step.draws": "Hose in the mix with its end under, air bled out of it; open: the circuit draws itself full.",
    "step.funnel": "{heater:before}Sealed funnel on {where}, its level over everything else; nose of the car up "
    "where that "
    "is not the highest point.",
    "step.pour": "Pour slowly, squeeze the hoses, until the level stands.",
    "step.long_lines": "Filled at the front, the lines alone swallow {lines}, and their air comes back in gulps: "
    "fill, let the "
    "pump turn in bursts, wait, fill again, before the engine is started.",
    "step.bled": "{name}: {how}.",
    "step.pump_bursts": "Engine off, key on: run the electric pump ten seconds, stop ten, until the level stops "
    "falling; never "
    "dry for longer.",
    "step.opens": "{at}",
    "step.working": "working temperature",
    "step.limit": "{at}",
    "step.its_limit": "its limit",
    "step.warm_up": "Cap on. Idle until past {until}: the upper hose gets hot at once when the thermostat opens, "
    "the heater "
    "blows hot. Stop at {stop}, whatever else.",
    "step.cool_down": "Off, let it fall under {safe} and until the hose gives when squeezed; only then open, top "
    "up, close.",
    "step.again": "Again, two or three times, until a cycle takes less than a cupful.",
    "step.no_more_air": "No more air looks like this: the level stands, no bubbles with the revs held at 2,000, the "
    "heater hot "
    "at idle, the gauge without jumps.",
    "step.pump_comes": "The electric pump comes on at {pump_on} and the gauge falls at once: cycle it by hand until "
    "no air "
    "comes back.",
    "step.cold_mark": "{name}: cold mark at {mark:.0%} of its height (at {cold}); the growth of {growth} fits over it.",
    "step.first_drive": "After the first drive, cold: level, every clamp a quarter turn, under each joint with a "
    "dry rag. Again "
    "after a week.",
    "step.meter": "Meter from coolant to battery post, everything on: under 0.1 V.",
    "hose.ends_unknown": "Where its ends are is not measured: its length is not known.",
    "hose.one_cut": "{off} too long: one cut, along a band of tape wrapped round it as a straight edge.",
    "hose.two_cuts": "{off} too long: take {first} off first, try it, then the last {last} along a band of tape "
    "wrapped round "
    "it as a straight edge.",
    "hose.short": "{off} too short: another hose, or a joiner in its straight piece.",
    "hose.cut_to": "Cut to {cut}: {over} go over each neck.",
    "hose.bead": "A neck wants a bead {bead:fine} high, the clamp behind it; a screw faces where a driver reaches it.",
    "hose.sleeve": "The sleeve: a ring of the next smaller hose, pushed over the small neck first, the clamp over "
    "both.",
    "hose.reducer": "A reducer with a clamp at each side: two more to buy.",
    "hose.hard": "A hard line wants a rubber joint at each end: engine and core move against each other.",
    "hose.slide": "Slide it fully onto the loose end first, turn it to the other, then back to the middle; grease that "
    "does not hurt rubber.",
    "bleed.itself": "fill here until it stands; it bleeds itself",
    "bleed.vented": "follow its vent line by hand: it rises all the way to the tank",
    "bleed.screw": "open the bleed screw until coolant comes without bubbles, then close it",
    "bleed.carried": "nothing: the flow at idle carries its air on to the next high point",
    "bleed.revs": "hold 2,000–2,500 rpm for a minute once it is warm; the flow at idle leaves a bubble standing",
    "bleed.may": "hold 2,000–2,500 rpm for a minute once it is warm, then top up: it may take several turns",
    "bleed.stays": "bleed by hand, cold: loosen the highest clamp of it, or raise that end, until no air comes; the "
    "flow "
    "does not carry it out",
    "hose.adapter": "Sensor adapter in its straightest piece: {adapter} come out of it.",
    "hose.adapter_long": "Sensor adapter in its straightest piece: {adapter} come out of it; its longest straight "
    "piece is "
    "{straight}, too short for it and its clamps.",
}
