"""Findings about circuits, control and charging."""

from __future__ import annotations

import math

from keelroom.assess.electrical.charge import fan_current_alone, share_taken
from keelroom.assess.electrical.figures import Electrics, own_relays
from keelroom.assess.electrical.signals import alone, parts_of, takes_override
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.inputs.coolant.sensor import adapter_of
from keelroom.assess.inputs.electrical.controller import HOSED, NEAR_LIMIT, place_of, set_for_lower_hose
from keelroom.assess.inputs.electrical.system import battery_of
from keelroom.assess.inputs.electrical.ways import WAYS, way_of
from keelroom.assess.judge.charging import charging
from keelroom.assess.judge.circuits import circuits
from keelroom.assess.wording import Found, choose_act, flag_act, set_act
from keelroom.core.electrical.charging import discharge_time
from keelroom.core.electrical.control import FIN_SHARE, outlet_for
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Strategy
from keelroom.document.schema.package import Package
from keelroom.units import both

COOL_DAY = (60.0 - 32) / 1.8
"""[degC] of the day a knob set on a hot one is asked about."""
RUN_ON_SHARE = 0.10
"""Share of the battery a run-on may take before a start in the morning is in doubt (common practice)."""
LOW_VOLTAGE = 12.0
"""Volts at the battery, engine running, under which it is being emptied."""
SOLD = tuple((fahrenheit - 32) / 1.8 for fahrenheit in (175, 180, 185, 190, 195))
"""[degC] fan switches are sold for (common practice)."""


def electrical(build: Build, package: Package, assessment: Assessment) -> Found:
    """Everything electrical."""
    found = assessment.electrics
    if found is None:
        return
    yield from circuits(build, package, found)
    yield from _curves(build, package)
    for check in (_control, _leads, _sensor, _fan_on, _run_on, _direction):
        yield from check(build, package, assessment)
    yield from charging(build, assessment, found)


def _control(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control")
    if not package.fans:
        return
    place = place_of(control)
    if place == "none" and not way_of(control).by_hand:
        yield Finding("no_sensor", "problem", (*where, "sensor"), "The controller has no sensor", "It cannot know when to start the fans: they never run.",
                      (choose_act("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),))  # fmt: skip
    if way_of(control).by_hand:
        yield Finding("toggle_alone", "doubt", (*where, "strategy"), "The fans depend on somebody remembering",
                      "A toggle alone cooks an engine the day it is forgotten, and empties the battery the night it is left on. As an override beside a switch it is welcome.",
                      (choose_act("A thermoswitch, the toggle as override", (*where, "strategy"), "ground_switch"),))  # fmt: skip
    on, second = control.fan_on, control.second_on
    if way_of(control).staged and on and second.si < on.si + 1:
        text = f"{on.si + 5:.0f} °C"
        yield Finding("stages", "problem", (*where, "second_on"), "Second speed must come on above the first", f"First at {both(on.si, 'temperature')}, second at {both(second.si, 'temperature')}.",
                      (set_act(f"Second speed at {both(on.si + 5, 'temperature')}", (*where, "second_on"), text),), value=second.si, limit=on.si)  # fmt: skip
    electrics = assessment.electrics
    yield from _stages(package, electrics)
    yield from _told(package, electrics)
    yield from _override(package, electrics)
    if control.coil == "always" and not way_of(control).by_computer:
        hours = discharge_time(battery_of(build.supply), fan_current_alone(build, electrics)) / 3600
        until = f"about {hours:.1f} h" if hours < 48 else "days"
        yield Finding("always_hot", "doubt", (*where, "coil"), "The relays are fed with the key off",
                      f"A hot engine, a stuck switch or a forgotten toggle then runs the fans on the battery: flat in {until}. Feed the coils from the key, or let a timer end it.",
                      (choose_act("Coils fed by the key", (*where, "coil"), "key"),))  # fmt: skip
    if build.brief.accessories.ac_fitted and not control.ac_request and not way_of(control).by_hand:
        yield Finding("no_ac_request", "note", (*where, "ac_request"), "The A/C does not ask for the fans",
                      "Standing, the condenser has only the fans’ air; without it the head pressure rises until the A/C cuts out.", (flag_act("A/C asks for the fans", (*where, "ac_request"), True),))  # fmt: skip


def _stages(package: Package, electrics: Electrics | None) -> Found:
    """Whether two stages have what they need, and do not meet where they must not."""
    control, at = package.control, ("packages", package.id, "control", "low_speed")
    if not way_of(control).staged or electrics is None:
        return
    fed = [one for one in electrics.circuits if one.cools]
    if control.low_speed == "tied":
        yield Finding("outputs_tied", "problem", at, "Both outputs are tied to one wire",
                      "The one that is off feeds or grounds the one that is on: the computer reads a fault, or burns an output. A contact of its own for each: both on one relay box, or two relays.",
                      (choose_act("Both on one relay box", at, "merged"),))  # fmt: skip
    elif control.low_speed == "merged":
        whole = len(fed) == 1 and fed[0].circuit.switch == "parallel"
        if whole:
            yield Finding("stages_merged", "note", at, "Both stages work one relay box",
                          "Allowed: each output has a contact of its own, so neither feeds the other. The contacts share the load, one and a half times one of them; fuse, feed and ground carry all of it. There is no low speed left: either stage starts everything.")  # fmt: skip
        elif fed:
            yield Finding("merged_apart", "doubt", at, "Both stages are to work one relay box, and the fans have circuits of their own",
                          "Merged, all fans hang on both contacts of one box.", (Act("merge_stages", "One circuit on both contacts", package.id),))  # fmt: skip
    if control.low_speed == "one_fan" and len(package.fans) > 1 and not own_relays(electrics):
        circuit = fed[0].circuit if fed else None
        fixes = (Act("split_circuit", "A circuit of its own for each motor", package.id, (("circuit", circuit.id),)),) if circuit else ()  # fmt: skip
        yield Finding("stages_one_relay", "problem", at, "Both fans hang on one relay: there are no stages", "One after the other takes a relay for each.", fixes)  # fmt: skip


def _told(package: Package, electrics: Electrics | None) -> Found:
    """Whether what commands speaks a language each motor's electronics take."""
    control, where = package.control, ("packages", package.id)
    way = way_of(control)
    for one in electrics.circuits if electrics else ():
        fans = [motored for motored in one.motors if motored.fan]
        if not fans:
            continue
        chopped = [m.name for m in fans if m.controller == "none" and m.motor.brushless]
        if way.varies and chopped:
            yield Finding("brushless_chopped", "problem", (*where, "control", "strategy"), f"{', '.join(chopped)}: a brushless motor on two leads cannot be slowed by chopping its supply",
                          "Its electronics want steady volts; they need a signal lead to be slowed. Switch it, or fit one that has the lead.",
                          (choose_act("A switch and a relay", (*where, "control", "strategy"), "ground_switch"),))  # fmt: skip
        elif way.varies and one.circuit.switch not in ("controller", "own", "none"):
            at = (*where, "circuits", one.circuit.id, "switch")
            yield Finding("ramp_through_relay", "problem", at, f"{one.circuit.name or one.circuit.id}: a variable speed does not go through a relay",
                          "The controller chops the current thousands of times a second; a contact only knows on and off. The controller itself has to carry it.",
                          (choose_act("The controller carries it", at, "controller"),))  # fmt: skip
        for motored in fans:
            if motored.controller != "none" and not way.alone and motored.signal != way.gives:
                suits = next(name for name in SUITS if WAYS[name].gives == motored.signal)
                yield Finding("signal_unlike", "doubt", (*where, "fans", motored.id, "signal"), f"{motored.name} listens to {SIGNALS[motored.signal]}, and gets {SIGNALS[way.gives]}",
                              "It stands still or runs at full speed only. Its sheet says what its signal lead takes; what commands it has to give that.",
                              (choose_act(f"{WAYS[suits].title} commands it", (*where, "control", "strategy"), suits),))  # fmt: skip


def _override(package: Package, electrics: Electrics | None) -> Found:
    """A driver's switch that nothing listens to."""
    control, where = package.control, ("packages", package.id, "control", "override")
    parts = parts_of(electrics) if electrics else []
    if control.override and parts and alone(control, parts) and not any(takes_override(part) for part in parts):
        yield Finding("override_nowhere", "doubt", where, "The override in the cab has nowhere to go",
                      "Each fan's own module decides, and none has a lead that runs it at full speed: no wire is laid for the switch.",
                      (flag_act("No override", where, False),))  # fmt: skip


SIGNALS = {"pulses": "a pulsed signal", "level": "12 V", "ground": "a ground"}
SUITS: tuple[Strategy, ...] = ("variable", "feed_switch", "ground_switch")


def _leads(build: Build, package: Package, assessment: Assessment) -> Found:
    """Which fan starts first: the one with more room behind, for it runs most; and the ones the A/C asks for."""
    control, fit, where = package.control, assessment.fit, ("packages", package.id, "control")
    ids = [fan.id for fan in package.fans]
    gone = [ident for ident in (*control.ac_fans, control.lead) if ident and ident not in ids]
    if gone:
        yield Finding("fan_gone", "note", (*where, "ac_fans" if gone[0] in control.ac_fans else "lead"), "The control names a fan that is no longer there",
                      "It counts as not named.")  # fmt: skip
    one_by_one = way_of(control).staged and control.low_speed == "one_fan"
    alone = bool(control.ac_fans) and control.ac_request
    if fit is None or len(ids) < 2 or not (one_by_one or alone):
        return
    room = {ident: min((gap.gap for gap in fit.gaps if gap.part.key in (f"motor:{ident}", f"ring:{ident}") and abs(gap.normal[2]) > BEHIND), default=math.inf) for ident in ids}  # fmt: skip
    best = max(ids, key=lambda ident: room[ident])
    if one_by_one:
        lead = control.lead if control.lead in ids else ids[0]
        if room[best] > room[lead] + ROOMIER:
            number = ids.index(best) + 1
            yield Finding("lead_fan", "doubt", (*where, "lead"), f"Fan {ids.index(lead) + 1} starts first, fan {number} has more room behind it",
                          f"{both(room[lead], 'length')} behind the one, {'nothing near' if math.isinf(room[best]) else both(room[best], 'length')} behind the other: its air gets away, and it runs most.",
                          (choose_act(f"Fan {number} first", (*where, "lead"), best),), value=room[lead])  # fmt: skip
    if alone and way_of(control).varies and not way_of(control).alone and set(control.ac_fans) & set(ids) < set(ids):
        yield Finding("ac_one_controller", "doubt", (*where, "ac_fans"), "One controller for all fans cannot start one of them alone for the A/C",
                      "It has one output. A module in each fan, or a switch with relays, keeps them apart.", (choose_act("A module in each fan", (*where, "strategy"), "module"),))  # fmt: skip


BEHIND = 0.5
"""Share of a gap's direction that has to point to the rear for it to be room behind a fan."""
ROOMIER = 3e-3
"""[m] by which one fan has to have more room behind it than another to be worth a word."""


def _curves(build: Build, package: Package) -> Found:
    for where, points, without in ((("supply", "curve"), build.supply.curve, "the usual one for its rating"), (("packages", package.id, "control", "curve"), package.control.curve, "a straight ramp between the set points")):  # fmt: skip
        if len(points) == 1:
            yield Finding("curve_of_one", "doubt", where, "One point is no curve", f"Two points at least; until then {without} counts.")


def _sensor(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control")
    place = place_of(control)
    if not package.fans or control.fan_on is None or way_of(control).by_hand:
        return
    if place == "fins":
        late = outlet_for(control.fan_on.si - FIN_SHARE * (control.fan_on.si - control.set_on_day.si), "fins", COOL_DAY, 0.0)
        yield Finding("sensor_fins", "doubt", (*where, "sensor"), "A probe in the fins reads the weather too",
                      f"Set on a {both(control.set_on_day.si, 'temperature')} day, it starts the fans at {both(late, 'temperature')} of coolant on one of {both(COOL_DAY, 'temperature')} instead of {both(control.fan_on.si, 'temperature')}.",
                      (choose_act("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),), value=late, limit=control.fan_on.si)  # fmt: skip
    if place == "lower_hose" and not set_for_lower_hose(package):
        yield Finding("sensor_lower", "doubt", (*where, "sensor"), "A switch for the upper hose sits in the lower one",
                      f"Behind the core the coolant is 9–27 °F (5–15 K) cooler: it starts at {both(control.fan_on.si, 'temperature')} there, when the engine is that much hotter. "
                      f"In the lower hose it wants about {both(control.fan_on.si - 10, 'temperature')}; the core works first and the fan runs less.",
                      (choose_act("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),))  # fmt: skip
    adapter = adapter_of(build, package)
    if adapter is not None and adapter.fault:
        yield Finding(
            "adapter_short",
            "problem",
            (*where, "adapter"),
            "The sensor adapter is too short for its hose ends",
            adapter.fault + ".",
            value=control.adapter.si,
        )
    if way_of(control).sold_by_degrees and control.fan_on.si < SOLD[-1] + 1 and min(abs(control.fan_on.si - sold) for sold in SOLD) > 0.6:
        near = min(SOLD, key=lambda sold: abs(sold - control.fan_on.si))  # type: ignore[union-attr]
        yield Finding("switch_sold", "note", (*where, "fan_on"), f"No fan switch is sold for {both(control.fan_on.si, 'temperature')}",
                      "Switches come for 175, 180, 185, 190 and 195 °F; an adjustable controller takes any.", (set_act(f"Fans on at {both(near, 'temperature')}", (*where, "fan_on"), f"{near * 1.8 + 32:.0f} °F"),))  # fmt: skip
    if place in HOSED and way_of(control).grounds and not control.strap:
        yield Finding("ground_through_coolant", "problem", (*where, "strap"), "The switch grounds through the coolant",
                      "Its adapter sits between two rubber hoses: without a strap its only way to ground is the coolant. It switches when it likes, and the current eats the core.",
                      (flag_act("A ground strap on the adapter", (*where, "strap"), True),))  # fmt: skip


def _fan_on(build: Build, package: Package, assessment: Assessment) -> Found:
    """A switch whose on point the gauge reaches at every cycle has to lie well under the limit."""
    known = [case.figures for case in assessment.cases if case.figures]
    limit, on = assessment.limit, max((f.fan_on_at for f in known if math.isfinite(f.fan_on_at)), default=None)
    if not package.fans or limit is None or on is None or on < limit - NEAR_LIMIT:
        return
    over = on >= limit
    what = "The fans come on over the limit" if over else "The fans come on just under the limit"
    yield Finding("fan_on_near_limit", "problem" if over else "doubt", ("packages", package.id, "control", "fan_on"), what,
                  f"They start at {both(on, 'temperature')} of engine outlet, and the gauge climbs there before every start; the limit is {both(limit, 'temperature')}. "
                  f"{both(NEAR_LIMIT, 'temperature difference')} at least belong between: a sensor lags.",
                  (Act("set_points", "Set points in between", package.id),), value=on, limit=limit)  # fmt: skip


def _run_on(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control", "run_on")
    seconds, boost = control.run_on.si, build.brief.engine.boost
    if not package.fans:
        return
    if seconds > 0:
        amps = fan_current_alone(build, assessment.electrics)
        share = share_taken(build, assessment.electrics, seconds)
        if share > RUN_ON_SHARE:
            yield Finding("run_on_long", "doubt", where, "The run-on takes much of the battery", f"{seconds / 60:.0f} min at {amps:.0f} A is {share:.0%} of it, every stop.",
                          (set_act("3 minutes", where, "3 min"),), "PEUKERT", value=share, limit=RUN_ON_SHARE)  # fmt: skip
        if control.coil == "key":
            yield Finding("run_on_dead", "problem", where, "The run-on has no feed", "The relays’ coils are fed by the key: with it off nothing runs on. It takes a timer fed always.",
                          (choose_act("Coils fed always, the timer ends it", ("packages", package.id, "control", "coil"), "always"),))  # fmt: skip
    elif boost and boost.si > 1e3:
        cost = share_taken(build, assessment.electrics, 180)
        yield Finding(
            "no_run_on",
            "note",
            where,
            "Nothing runs on after key-off",
            f"A turbocharger’s heat soaks into a still engine: the gauge climbs after a stop. Three minutes of fan cost {cost:.1%} of the battery.",
            source="PEUKERT",
        )


def _direction(build: Build, package: Package, assessment: Assessment) -> Found:
    unknown = [(k, fan) for k, fan in enumerate(package.fans, 1) if fan.id not in package.control.spun]
    if unknown and len(package.fans) > 1:
        names = " and ".join(f"fan {k}" for k, _ in unknown)
        yield Finding("spin", "doubt", ("packages", package.id, "control", "spun"), f"Direction of {names} not felt by hand yet",
                      "Two fans bought together are often wired opposite: the second then blows into the first and the core gets nothing. Power each by hand, feel the air, before the harness is built.")  # fmt: skip
    for fan in package.fans:
        if fan.reversed_blade and fan.mount == "puller":
            yield Finding("spins_backwards", "problem", ("packages", package.id, "fans", fan.id, "reversed_blade"), f"{fan.name or 'A fan'} turns backwards",
                          f"A one-way blade run the wrong way moves {fan.reversed_share.si:.0%} of its air. Swap its two wires, then key the connectors: one male, one female a side.",
                          (flag_act("It turns the right way", ("packages", package.id, "fans", fan.id, "reversed_blade"), False),))  # fmt: skip
