"""Findings about circuits, control and charging."""

from __future__ import annotations

import math

from keelroom.assess.electrical.charge import fan_current_alone, share_taken
from keelroom.assess.electrical.figures import Electrics, own_relays
from keelroom.assess.electrical.signals import alone, parts_of, takes_override
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fixes import choose_act, flag_act, set_act
from keelroom.assess.inputs.coolant.sensor import adapter_of
from keelroom.assess.inputs.electrical.controller import NEAR_LIMIT, seat_of, set_for_lower_hose
from keelroom.assess.inputs.electrical.system import battery_of
from keelroom.assess.inputs.electrical.ways import WAYS, way_of
from keelroom.assess.judge.charging import alternator, belt, charging, generator, mean_currents
from keelroom.assess.judge.circuits import circuits
from keelroom.assess.judge.part import Part
from keelroom.assess.reads import reads
from keelroom.core.electrical.charging import discharge_time
from keelroom.core.electrical.control import outlet_for, reading_at
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Strategy
from keelroom.document.schema.package import Package
from keelroom.facts import given
from keelroom.units import both

COOL_DAY = (60.0 - 32) / 1.8
"""[degC] of the day a knob set on a hot one is asked about."""
RUN_ON_SHARE = 0.10
"""Share of the battery a run-on may take before a start in the morning is in doubt (common practice)."""
LOW_VOLTAGE = 12.0
"""Volts at the battery, engine running, under which it is being emptied."""
SOLD = tuple((fahrenheit - 32) / 1.8 for fahrenheit in (175, 180, 185, 190, 195))
"""[degC] fan switches are sold for (common practice)."""


def _circuits(build: Build, package: Package, assessment: Assessment) -> Found:
    if assessment.electrics is not None:
        yield from circuits(build, package, assessment.electrics)


def _control(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control")
    if not package.fans:
        return
    if not seat_of(control).feels and not way_of(control).by_hand:
        yield Finding(
            "no_sensor",
            "problem",
            (*where, "sensor"),
            fix=(choose_act("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),),
        )
    if control.sensor_state != "works" and seat_of(control).feels and not way_of(control).by_hand:
        at = (*where, "sensor_state")
        form = "runs" if control.sensor_state == "lost_runs" else ""
        yield Finding("sensor_lost", "problem", at, form=form, fix=(choose_act("Plugged in, it reads", at, "works"),))
    if way_of(control).by_hand:
        yield Finding(
            "toggle_alone",
            "doubt",
            (*where, "strategy"),
            fix=(choose_act("A thermoswitch, the toggle as override", (*where, "strategy"), "ground_switch"),),
        )
    on, second = control.fan_on, control.second_on
    if way_of(control).staged and on and second.si < on.si + 1:
        text = f"{on.si + 5:.0f} °C"
        yield Finding(
            "stages",
            "problem",
            (*where, "second_on"),
            given(on=(on.si, "temperature"), second=(second.si, "temperature")),
            fix=(set_act(f"Second speed at {both(on.si + 5, 'temperature')}", (*where, "second_on"), text),),
            value=second.si,
            limit=on.si,
        )
    electrics = assessment.electrics
    yield from _stages(package, electrics)
    yield from _told(package, electrics)
    yield from _override(package, electrics)
    # A timer ends what the key does not: to feed the coils by the key would take its run-on away.
    if control.coil == "always" and control.run_on.si <= 0 and not way_of(control).by_computer:
        hours = discharge_time(battery_of(build.supply), fan_current_alone(build, electrics)) / 3600
        until = f"about {hours:.1f} h" if hours < 48 else "days"
        yield Finding(
            "always_hot",
            "doubt",
            (*where, "coil"),
            given(until=until),
            fix=(choose_act("Coils fed by the key", (*where, "coil"), "key"),),
        )
    if build.brief.accessories.ac_fitted and not control.ac_request and not way_of(control).by_hand:
        yield Finding(
            "no_ac_request",
            "note",
            (*where, "ac_request"),
            fix=(flag_act("A/C asks for the fans", (*where, "ac_request"), True),),
        )


def _stages(package: Package, electrics: Electrics | None) -> Found:
    """Whether two stages have what they need, and do not meet where they must not."""
    control, at = package.control, ("packages", package.id, "control", "low_speed")
    if not way_of(control).staged or electrics is None:
        return
    fed = [one for one in electrics.circuits if one.cools]
    if control.low_speed == "tied":
        yield Finding("outputs_tied", "problem", at, fix=(choose_act("Both on one relay box", at, "merged"),))
    elif control.low_speed == "merged":
        whole = len(fed) == 1 and fed[0].circuit.switch == "parallel"
        if whole:
            yield Finding("stages_merged", "note", at)
        elif fed:
            yield Finding(
                "merged_apart", "doubt", at, fix=(Act("merge_stages", "One circuit on both contacts", package.id),)
            )
    if control.low_speed == "one_fan" and len(package.fans) == 1:
        # The figures take a resistor for it: one fan of one is none of two.
        series, merged = (choose_act(words, at, way) for words, way in ONE_FAN_WAYS)
        yield Finding("two_outputs", "doubt", at, fix=(merged, series))
    if control.low_speed == "one_fan" and len(package.fans) > 1 and not own_relays(electrics):
        circuit = fed[0].circuit if fed else None
        fixes = (
            (Act("split_circuit", "A circuit of its own for each motor", package.id, (("circuit", circuit.id),)),)
            if circuit
            else ()
        )
        yield Finding("stages_one_relay", "problem", at, fix=fixes)


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
            yield Finding(
                "brushless_chopped",
                "problem",
                (*where, "control", "strategy"),
                given(chopped=tuple(chopped)),
                fix=(choose_act("A switch and a relay", (*where, "control", "strategy"), "ground_switch"),),
            )
        elif way.varies and one.circuit.switch not in ("controller", "own", "none"):
            at = (*where, "circuits", one.circuit.id, "switch")
            yield Finding(
                "ramp_through_relay",
                "problem",
                at,
                given(name=one.circuit.name or one.circuit.id),
                fix=(choose_act("The controller carries it", at, "controller"),),
            )
        for motored in fans:
            if motored.controller != "none" and not way.alone and motored.signal != way.gives:
                suits = next(name for name in SUITS if WAYS[name].gives == motored.signal)
                yield Finding(
                    "signal_unlike",
                    "doubt",
                    (*where, "fans", motored.id, "signal"),
                    given(name=motored.name, takes=SIGNALS[motored.signal], gets=SIGNALS[way.gives]),
                    fix=(choose_act(f"{WAYS[suits].title} commands it", (*where, "control", "strategy"), suits),),
                )


def _override(package: Package, electrics: Electrics | None) -> Found:
    """A driver's switch that nothing listens to."""
    control, where = package.control, ("packages", package.id, "control", "override")
    parts = parts_of(electrics) if electrics else []
    if control.override and parts and alone(control, parts) and not any(takes_override(part) for part in parts):
        yield Finding("override_nowhere", "doubt", where, fix=(flag_act("No override", where, False),))


ONE_FAN_WAYS = (("A resistor for low speed", "series"), ("Both outputs on one relay box", "merged"))
SIGNALS = {"pulses": "a pulsed signal", "level": "12 V", "ground": "a ground"}
SUITS: tuple[Strategy, ...] = ("variable", "feed_switch", "ground_switch")


def _leads(build: Build, package: Package, assessment: Assessment) -> Found:
    """Which fan starts first: the one with more room behind, for it runs most; and the ones the A/C asks for."""
    control, fit, where = package.control, assessment.fit, ("packages", package.id, "control")
    ids = [fan.id for fan in package.fans]
    gone = [ident for ident in (*control.ac_fans, control.lead) if ident and ident not in ids]
    if gone:
        yield Finding("fan_gone", "note", (*where, "ac_fans" if gone[0] in control.ac_fans else "lead"))
    one_by_one = way_of(control).staged and control.low_speed == "one_fan"
    alone = bool(control.ac_fans) and control.ac_request
    if fit is None or len(ids) < 2 or not (one_by_one or alone):
        return
    room = {
        ident: min(
            (
                gap.gap
                for gap in fit.gaps
                if gap.part.key in (f"motor:{ident}", f"ring:{ident}") and abs(gap.normal[2]) > BEHIND
            ),
            default=math.inf,
        )
        for ident in ids
    }
    best = max(ids, key=lambda ident: room[ident])
    if one_by_one:
        lead = control.lead if control.lead in ids else ids[0]
        if room[best] > room[lead] + ROOMIER:
            number = ids.index(best) + 1
            yield Finding(
                "lead_fan",
                "doubt",
                (*where, "lead"),
                given(
                    first=ids.index(lead) + 1,
                    second=number,
                    room=(room[lead], "length"),
                    more=(room[best], "length") if math.isfinite(room[best]) else None,
                ),
                form="" if math.isfinite(room[best]) else "free",
                fix=(choose_act(f"Fan {number} first", (*where, "lead"), best),),
                value=room[lead],
            )
    if alone and way_of(control).varies and not way_of(control).alone and set(control.ac_fans) & set(ids) < set(ids):
        yield Finding(
            "ac_one_controller",
            "doubt",
            (*where, "ac_fans"),
            fix=(choose_act("A module in each fan", (*where, "strategy"), "module"),),
        )


BEHIND = 0.5
"""Share of a gap's direction that has to point to the rear for it to be room behind a fan."""
ROOMIER = 3e-3
"""[m] by which one fan has to have more room behind it than another to be worth a word."""


def _curves(build: Build, package: Package, assessment: Assessment) -> Found:
    for where, points, without in (
        (("supply", "curve"), build.supply.curve, "the usual one for its rating"),
        (("packages", package.id, "control", "curve"), package.control.curve, "a straight ramp between the set points"),
    ):
        if len(points) == 1:
            yield Finding("curve_of_one", "doubt", where, given(without=without))


def _sensor(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control")
    seat = seat_of(control)
    if not package.fans or control.fan_on is None or way_of(control).by_hand:
        return
    if seat.fins:
        late = outlet_for(
            reading_at(control.fan_on.si, control.set_on_day.si, fins=seat.fins), COOL_DAY, fins=seat.fins
        )
        yield Finding(
            "sensor_fins",
            "doubt",
            (*where, "sensor"),
            given(
                set_on_day=(control.set_on_day.si, "temperature"),
                late=(late, "temperature"),
                cool_day=(COOL_DAY, "temperature"),
                fan_on=(control.fan_on.si, "temperature"),
            ),
            fix=(choose_act("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),),
            value=late,
            limit=control.fan_on.si,
        )
    if seat.after_core and not set_for_lower_hose(package):
        yield Finding(
            "sensor_lower",
            "doubt",
            (*where, "sensor"),
            given(fan_on=(control.fan_on.si, "temperature"), lower=(control.fan_on.si - 10, "temperature")),
            fix=(
                Act("set_points", "Set points for this place", package.id),
                choose_act("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),
            ),
        )
    adapter = adapter_of(build, package)
    if adapter is not None and adapter.fault:
        yield Finding(
            "adapter_short", "problem", (*where, "adapter"), given(fault=adapter.fault), value=control.adapter.si
        )
    if (
        way_of(control).sold_by_degrees
        and control.fan_on.si < SOLD[-1] + 1
        and min(abs(control.fan_on.si - sold) for sold in SOLD) > 0.6
    ):
        near = min(SOLD, key=lambda sold: abs(sold - control.fan_on.si))  # type: ignore[union-attr]
        yield Finding(
            "switch_sold",
            "note",
            (*where, "fan_on"),
            given(fan_on=(control.fan_on.si, "temperature")),
            fix=(set_act(f"Fans on at {both(near, 'temperature')}", (*where, "fan_on"), f"{near * 1.8 + 32:.0f} °F"),),
        )
    if seat.floats and way_of(control).grounds and not control.strap:
        yield Finding(
            "ground_through_coolant",
            "problem",
            (*where, "strap"),
            fix=(flag_act("A ground strap on the adapter", (*where, "strap"), True),),
        )


def _fan_on(build: Build, package: Package, assessment: Assessment) -> Found:
    """A switch whose on point the gauge reaches at every cycle has to lie well under the limit; a case that never
    wakes the fans and stays cool is none of it."""
    known = [case.figures for case in assessment.cases if case.figures]
    limit = assessment.limit
    woken = [f for f in known if f.fan_command > 0 or f.cycles or limit is None or f.temperature > limit - NEAR_LIMIT]
    on = max((f.fan_on_at for f in woken if math.isfinite(f.fan_on_at)), default=None)
    if not package.fans or limit is None or on is None or on < limit - NEAR_LIMIT:
        return
    over = on >= limit
    yield Finding(
        "fan_on_near_limit",
        "problem" if over else "doubt",
        ("packages", package.id, "control", "fan_on"),
        given(on=(on, "temperature"), limit=(limit, "temperature"), apart=(NEAR_LIMIT, "temperature difference")),
        form="over" if over else "",
        fix=(Act("set_points", "Set points in between", package.id),),
        value=on,
        limit=limit,
    )


def _run_on(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control", "run_on")
    seconds, boost = control.run_on.si, build.brief.engine.boost
    if not package.fans:
        return
    if seconds > 0:
        amps = fan_current_alone(build, assessment.electrics)
        share = share_taken(build, assessment.electrics, seconds)
        if share > RUN_ON_SHARE:
            yield Finding(
                "run_on_long",
                "doubt",
                where,
                given(time=(seconds, "minutes"), amps=(amps, "current"), share=(share, "share")),
                fix=(set_act("3 minutes", where, "3 min"),),
                source="PEUKERT",
                value=share,
                limit=RUN_ON_SHARE,
            )
        if control.coil == "key":
            yield Finding(
                "run_on_dead",
                "problem",
                where,
                fix=(
                    choose_act(
                        "Coils fed always, the timer ends it", ("packages", package.id, "control", "coil"), "always"
                    ),
                ),
            )
    elif boost and boost.si > 1e3:
        cost = share_taken(build, assessment.electrics, 180)
        yield Finding("no_run_on", "note", where, given(cost=(cost, "share")), source="PEUKERT")


def _direction(build: Build, package: Package, assessment: Assessment) -> Found:
    unknown = [(k, fan) for k, fan in enumerate(package.fans, 1) if fan.id not in package.control.spun]
    if unknown and len(package.fans) > 1:
        fans = tuple(float(k) for k, _ in unknown)
        yield Finding("spin", "doubt", ("packages", package.id, "control", "spun"), given(fans=fans))
    for fan in package.fans:
        if fan.reversed_blade and fan.mount == "puller":
            yield Finding(
                "spins_backwards",
                "problem",
                ("packages", package.id, "fans", fan.id, "reversed_blade"),
                given(name=fan.name or "A fan", reversed_share=(fan.reversed_share.si, "share")),
                fix=(
                    flag_act(
                        "It turns the right way", ("packages", package.id, "fans", fan.id, "reversed_blade"), False
                    ),
                ),
            )


ELECTRICAL = (
    Part(
        _circuits,
        reads("build.supply package.coolers package.fans package.kind package.loop package.place assessment.electrics"),
    ),
    Part(_curves, reads("build.supply package.control")),
    Part(_control, reads("brief.accessories package.control package.fans assessment.electrics")),
    Part(_leads, reads("package.control package.fans assessment.fit")),
    Part(
        _sensor,
        reads("build.survey package.control laid.core package.fans package.loop package.place package.remote"),
    ),
    Part(_fan_on, reads("package.fans assessment.cases assessment.limit")),
    Part(_run_on, reads("brief.engine build.supply package.control package.fans assessment.electrics")),
    Part(_direction, reads("package.control package.fans")),
    Part(belt, reads("build.supply")),
    Part(generator, reads("brief.accessories build.supply")),
    Part(
        charging,
        reads(
            "brief.accessories brief.causes brief.climate brief.engine brief.vehicle build.duty_cases build.supply "
            "package.circuits package.control package.coolers package.fans package.kind package.loop "
            "assessment.electrics"
        ),
        mean_currents,
    ),
    Part(alternator, reads("brief.engine build.supply assessment.electrics")),
)
"""Everything electrical."""
