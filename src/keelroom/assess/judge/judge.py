"""Findings: what is wrong, doubtful or unmeasured, with figures, a reason and what would mend it."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import COLDEST, HOTTEST, Assessment, CaseFigures, CaseResult
from keelroom.assess.figures.read_off import suction
from keelroom.assess.findings import LEVELS, Finding, Found, Level
from keelroom.assess.fixes import set_act
from keelroom.assess.inputs.airside import in_shroud
from keelroom.assess.inputs.coolant.flows import pump_flow_rated
from keelroom.assess.inputs.coolant.graph import CIRCUIT
from keelroom.assess.inputs.electrical.controller import seat_of
from keelroom.assess.inputs.fans import fan_curve
from keelroom.assess.judge.air import air, causes, face, unlike
from keelroom.assess.judge.charging import battery
from keelroom.assess.judge.claims import claims
from keelroom.assess.judge.coolers import coolers
from keelroom.assess.judge.driven import driven
from keelroom.assess.judge.electrical import ELECTRICAL
from keelroom.assess.judge.entries import entries, kinds
from keelroom.assess.judge.evidence import weighed
from keelroom.assess.judge.fit import cuts, fit, mounting, room, shrouding, survey
from keelroom.assess.judge.heat import heat
from keelroom.assess.judge.hoses import hoses
from keelroom.assess.judge.likely import farthest, likely
from keelroom.assess.judge.loop import caps, circuit, filling, flows, pumps
from keelroom.assess.judge.moves import moves
from keelroom.assess.judge.panels import panels
from keelroom.assess.judge.part import Part
from keelroom.assess.judge.rests import with_rests
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.reads import reads, while_same
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.air.fan import CREDIBLE_EFFICIENCY
from keelroom.core.fluids.coolant import freezing_point
from keelroom.core.thermal.louver import RANGES
from keelroom.document.act import Act
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package
from keelroom.errors import InputError
from keelroom.facts import Fact, fact, given
from keelroom.units import both

SEATED = 1e-4
"""[m] less than this over an edge is rounding, not a misfit."""


def judge(build: Build, package: Package, assessment: Assessment) -> tuple[Finding, ...]:
    """All findings, gravest first, in the order of the work within a level."""
    found = [weighed(build, finding) for part in PARTS for finding in _judged(part, build, package, assessment)]
    return tuple(sorted(found, key=lambda finding: LEVELS.index(finding.level)))


def _judged(part: Part, build: Build, package: Package, assessment: Assessment) -> tuple[Finding, ...]:
    """What one part of the judgement finds; where what it reads is what it was, what it found then."""

    def anew() -> tuple[Finding, ...]:
        return tuple(with_rests(finding, package.id) for finding in _found(part, build, package, assessment))

    if part.reads is None:
        return anew()
    also = part.also(assessment) if part.also else None
    return while_same(f"judged: {part.name}", part.reads, (build, package, assessment), anew, also)


def _found(part: Part, build: Build, package: Package, assessment: Assessment) -> list[Finding]:
    """What one part finds now; where it stops, what it found before that, and the stop itself."""
    found: list[Finding] = []
    stop = attempted(
        f"The judgement of {part.name}",
        ("packages", package.id),
        lambda: found.extend(part.check(build, package, assessment)),
    )
    return [*found, _stop(stop, None)] if isinstance(stop, Stopped) else found


def _stopped(build: Build, package: Package, assessment: Assessment) -> Found:
    yield from stops(assessment)


def stops(assessment: Assessment) -> tuple[Finding, ...]:
    """What could not be worked out for this build, each reason once, with the entries that are the farthest from what
    such cars measure."""
    stopped = assessment.all_stopped
    names = farthest(assessment.build, assessment.package) if stopped else ()
    astray = fact("astray", names=names) if names else None
    return tuple(_stop(stop, astray) for stop in stopped)


def _stop(stop: Stopped, astray: Fact | None) -> Finding:
    return Finding(
        "not_worked_out",
        "problem",
        stop.where,
        given(part=stop.part, reason=stop.why.rstrip("."), astray=astray),
        form="inside" if stop.report else "",
        report=stop.report,
    )


def deepened(build: Build, package: Package, assessment: Assessment) -> tuple[Finding, ...]:
    """The assessment's findings with those of its results as its figures say them now: nothing else is judged again,
    but where the second wave has found more than figures."""
    if assessment.down or assessment.unlike:
        return judge(build, package, assessment)
    again = {
        finding.key: weighed(build, with_rests(finding, package.id)) for finding in results(build, package, assessment)
    }
    return tuple(again.get(finding.key, finding) for finding in assessment.findings)


def _missing(build: Build, package: Package, assessment: Assessment) -> Found:
    wanted: dict[tuple[str, ...], str] = {}
    for case in assessment.cases:
        for need in case.needs:
            wanted.setdefault(need.path, need.label)
    for path, label in wanted.items():
        yield Finding("missing", "doubt", path, given(entry=label.lower()))
    if not package.fans:
        yield Finding("no_fans", "doubt", ("packages", package.id, "fans"))
    if build.brief.engine.pump_flow is None and build.brief.engine.power is not None:
        flow = both(pump_flow_rated(build.brief.engine), "coolant flow")
        yield Finding(
            "pump_assumed",
            "doubt",
            ("brief", "engine", "pump_flow"),
            given(flow=(pump_flow_rated(build.brief.engine), "coolant flow")),
            fix=(
                set_act(
                    f"Take {flow} as assumed",
                    ("brief", "engine", "pump_flow"),
                    f"{pump_flow_rated(build.brief.engine) * 6e4:.0f} L/min",
                ),
            ),
        )


def _cooling(build: Build, package: Package, assessment: Assessment) -> Found:
    limit, climate = build.brief.cooling.limit, build.brief.climate
    thermostat, control, where = package.loop.thermostat, package.control, ("packages", package.id)
    at_limit = ("brief", "cooling", "limit")
    if _less(limit, thermostat, 5.0):
        assert limit
        assert thermostat
        wanted = thermostat.si + 25
        yield Finding(
            "limit_under_thermostat",
            "problem",
            at_limit,
            given(
                limit=(limit.si, "temperature"),
                thermostat=(thermostat.si, "temperature"),
                later=(10.0, "temperature difference"),
            ),
            fix=(set_act(f"Set the limit to {both(wanted, 'temperature')}", at_limit, f"{wanted:.0f} °C"),),
            value=limit.si,
            limit=thermostat.si,
        )
    if climate.ambient and limit and climate.ambient.si >= limit.si:
        yield Finding(
            "ambient_over_limit",
            "problem",
            ("brief", "climate", "ambient"),
            given(ambient=(climate.ambient.si, "temperature")),
            value=climate.ambient.si,
            limit=limit.si,
        )
    # What the core has cooled already may lie under the thermostat; under the day's air nothing does.
    behind = seat_of(control).cooled
    floor = climate.ambient if behind else thermostat
    if _less(control.fan_off, floor, 0.0):
        assert control.fan_off
        assert floor
        yield Finding(
            "fan_never_stops",
            "problem",
            (*where, "control", "fan_off"),
            given(fan_off=(control.fan_off.si, "temperature"), floor=(floor.si, "temperature")),
            form="air" if behind else "",
            fix=(Act("set_points", "Set points in between", package.id),),
            value=control.fan_off.si,
            limit=floor.si,
        )
    if _less(control.fan_on, control.fan_off, 1.0):
        assert control.fan_on
        assert control.fan_off
        on = control.fan_off.si + 5
        yield Finding(
            "fan_set_points",
            "problem",
            (*where, "control", "fan_on"),
            given(fan_on=(control.fan_on.si, "temperature"), fan_off=(control.fan_off.si, "temperature")),
            fix=(
                Act("set_points", "Set points in between", package.id),
                set_act(f"Set fans on to {both(on, 'temperature')}", (*where, "control", "fan_on"), f"{on:.0f} °C"),
            ),
        )
    if package.coolant.glycol_share is not None:
        freezing = freezing_point(glycol_table(package.coolant.glycol), package.coolant.glycol_share.si)
        if freezing > package.coolant.coldest.si:
            yield Finding(
                "freezes",
                "note",
                (*where, "coolant", "glycol_share"),
                given(freezing=(freezing, "temperature"), coldest=(package.coolant.coldest.si, "temperature")),
                source="COOLPROP",
                value=freezing,
            )
    if assessment.boiling is not None and limit and limit.si > assessment.boiling:
        yield Finding(
            "limit_over_boiling",
            "problem",
            at_limit,
            given(boiling=(assessment.boiling, "temperature")),
            value=limit.si,
            limit=assessment.boiling,
        )


def _less(a: Quantity | None, b: Quantity | None, lead: float) -> bool:
    return a is not None and b is not None and a.si < b.si + lead


def _parts(build: Build, package: Package, assessment: Assessment) -> Found:
    core, shroud = package.core, package.shroud
    where = ("packages", package.id)
    if core.depth and core.rows and core.tube_height and core.depth.si / core.rows.si < 1.5 * core.tube_height.si:
        yield Finding(
            "rows_do_not_fit",
            "problem",
            (*where, "core", "rows"),
            given(rows=(core.rows.si, "count"), depth=(core.depth.si, "length")),
        )
    if core.face_width and core.face_height:
        for fan in package.fans:
            yield from _fan_on_face(package, fan, core.face_width.si, core.face_height.si)
        if shroud.kind == "partial":
            yield from _shroud_on_face(package, core.face_width.si, core.face_height.si)
    if package.fans and shroud.kind == "none":
        plain = Act("full_shroud", "Fit a full shroud", package.id)
        # At speed a shroud without flaps stands in the wind's way.
        flapped = Act("full_shroud", "Fit a full shroud with flaps", package.id, (("flaps", "yes"),))
        yield Finding("no_shroud", "doubt", (*where, "shroud", "kind"), fix=(plain, flapped))


def _fan_on_face(package: Package, fan: Fan, width: float, height: float) -> Found:
    if fan.diameter is None:
        return
    where, radius = ("packages", package.id, "fans", fan.id), fan.diameter.si / 2
    if fan.diameter.si > min(width, height) + SEATED:
        yield Finding(
            "fan_larger_than_face",
            "problem",
            (*where, "diameter"),
            given(diameter=(fan.diameter.si, "length"), width=(width, "length"), height=(height, "length")),
            fix=(Act("fit_fan", "The strongest catalogue fan that fits", package.id, (("fan", fan.id),)),),
            value=fan.diameter.si,
            limit=min(width, height),
        )
        return
    over = max(radius - fan.x.si, fan.x.si + radius - width, radius - fan.y.si, fan.y.si + radius - height)
    if over > SEATED:
        yield Finding(
            "fan_off_face",
            "problem",
            (*where, "x"),
            given(over=(over, "length")),
            fix=(Act("onto_face", "Slide it onto the face", package.id, (("fan", fan.id),)),),
            value=over,
            limit=0.0,
        )
    for other in package.fans:
        if other.id > fan.id and other.diameter:
            gap = math.hypot(fan.x.si - other.x.si, fan.y.si - other.y.si) - radius - other.diameter.si / 2
            if gap < -SEATED:
                yield Finding(
                    "fans_overlap",
                    "problem",
                    (*where, "x"),
                    given(gap=(-gap, "length")),
                    fix=(Act("spread", "Spread the fans over the face", package.id),),
                    value=gap,
                    limit=0.0,
                )


def _shroud_on_face(package: Package, width: float, height: float) -> Found:
    shroud, where = package.shroud, ("packages", package.id, "shroud")
    right = shroud.left.si + (shroud.width.si if shroud.width else width - shroud.left.si)
    top = shroud.bottom.si + (shroud.height.si if shroud.height else height - shroud.bottom.si)
    over = max(-shroud.left.si, -shroud.bottom.si, right - width, top - height)
    if over > SEATED:
        yield Finding(
            "shroud_off_face", "doubt", (*where, "width"), given(over=(over, "length")), value=over, limit=0.0
        )
    for fan in package.fans:
        if fan.mount != "pusher" and not in_shroud(package, fan):
            yield Finding("fan_outside_shroud", "problem", ("packages", package.id, "fans", fan.id, "x"))


def _fans(build: Build, package: Package, assessment: Assessment) -> Found:
    for fan in package.fans:
        where = ("packages", package.id, "fans", fan.id)
        if fan.hub_diameter and fan.diameter and fan.hub_diameter.si >= 0.8 * fan.diameter.si:
            yield Finding("hub_too_large", "doubt", (*where, "hub_diameter"))
        if not fan.curve:
            if fan.free_air_flow and fan is next(f for f in package.fans if f.name == fan.name):
                yield Finding("fan_rating_only", "doubt", (*where, "free_air_flow"), given(name=fan.name or "Fan"))
            continue
        try:
            curve = fan_curve(fan)
        except InputError as error:
            yield Finding("fan_curve", "problem", (*where, "curve"), given(reason=error.message))
            continue
        if fan.power:
            best = max(
                float(curve.flow) * x * float(curve.pressure) * y for x, y in ((0.5, 0.55), (0.6, 0.45), (0.7, 0.35))
            )
            if best > CREDIBLE_EFFICIENCY * fan.power.si:
                yield Finding(
                    "fan_too_good",
                    "doubt",
                    (*where, "power"),
                    given(best=(best, "electrical power"), power=(fan.power.si, "electrical power")),
                    value=best,
                    limit=CREDIBLE_EFFICIENCY * fan.power.si,
                )


def results(build: Build, package: Package, assessment: Assessment) -> Found:
    """What comes out of the duty cases; all that the second wave words anew."""
    for case in assessment.cases:
        if case.figures is not None and assessment.limit is not None:
            yield from _case_verdict(case, case.figures, assessment.limit)


TRANSITION = (1500.0, 4500.0)
"""Re between which coolant in flat tubes is neither laminar nor turbulent."""
NOTICED = 2.0
"""[K] a gain that is worth a word."""


def _held(figures: CaseFigures) -> Fact:
    if figures.ambients is None:
        return fact("holds_to_find")
    if figures.ambients.holds < COLDEST:
        return fact("holds_nowhere")
    if figures.ambients.holds > HOTTEST:
        return fact("holds_anywhere")
    return fact("holds_to", ambient=(figures.ambients.holds, "temperature"))


def _settles(figures: CaseFigures) -> Fact:
    top = (figures.temperature, "temperature")
    return (
        fact("swings", low=(figures.swings_from, "temperature"), top=top)
        if figures.cycles
        else fact("settles", top=top)
    )


def _case_verdict(case: CaseResult, figures: CaseFigures, limit: float) -> Found:
    where = ("duty_cases", case.case_id)
    held = _held(figures)
    grave: Level = "problem" if case.counted else "note"
    if figures.verdict == "does_not_settle":
        climb = figures.climb * 60
        when = (
            fact("reaches_limit", time=figures.time_to_limit)
            if math.isfinite(figures.time_to_limit)
            else fact("boils_first")
        )
        yield Finding(
            "does_not_settle",
            grave,
            where,
            given(
                name=case.name,
                climb=(climb, "temperature difference"),
                when=when,
                heat_in=(figures.heat_in, "heat"),
                rejection_at_limit=(figures.rejection_at_limit, "heat"),
                held=held,
            ),
            value=figures.temperature,
            limit=limit,
        )
    elif figures.verdict == "over":
        yield Finding(
            "over_limit",
            grave,
            where,
            given(
                name=case.name,
                over=(figures.temperature - limit, "temperature difference"),
                settles=_settles(figures),
                chance=(figures.chance, "share"),
                held=held,
            ),
            value=figures.temperature,
            limit=limit,
        )
    elif figures.verdict in ("tight", "even"):
        top = fact("never_settles") if math.isinf(figures.high) else fact("reaches", top=(figures.high, "temperature"))
        yield Finding(
            "band_over_limit",
            "doubt" if case.counted else "note",
            where,
            given(
                name=case.name,
                chance=(figures.chance, "share"),
                settles=_settles(figures),
                top=top,
                largest=max(figures.doubt_by_cause, key=lambda part: part[1])[0],
            ),
            form="even" if figures.verdict == "even" else "",
            value=figures.high,
            limit=limit,
        )
    if (
        TRANSITION[0] < figures.tube_reynolds < TRANSITION[1]
        and figures.verdict != "does_not_settle"
        and figures.faster_coolant[0] > NOTICED
    ):
        passes, pump = figures.faster_coolant
        yield Finding(
            "tubes_in_transition",
            "note",
            where,
            given(
                name=case.name,
                reynolds=(figures.tube_reynolds, "number"),
                passes=(passes, "temperature difference"),
                pump=(pump, "temperature difference"),
            ),
            source="TALER",
            value=figures.tube_reynolds,
        )
    if figures.power_short > 500:
        yield Finding(
            "power_short",
            "doubt",
            where,
            given(name=case.name, lacks=(figures.power_short, "power"), speed=(figures.rpm / 60, "turning speed")),
            value=figures.power_short,
        )


def _sources(build: Build, package: Package, assessment: Assessment) -> Found:
    core, where = package.core, ("packages", package.id, "core")
    pitch = 1 / core.fin_density.si if core.fin_density else None
    for name, field, value in (
        ("depth", "depth", core.depth.si if core.depth else None),
        ("fin_pitch", "fin_density", pitch),
        ("louver_pitch", "louver_pitch", core.louver_pitch.si if core.louver_pitch else None),
        ("louver_angle", "louver_angle", math.degrees(core.louver_angle.si) if core.louver_angle else None),
    ):
        low, high = RANGES[name]
        if value is not None and not low <= value <= high * 1.001:
            form = "angle" if name == "louver_angle" else "" if value > 5e-3 else "fine"
            read = (math.radians(value), "angle") if form == "angle" else (value, "length")
            yield Finding(
                "outside_correlation",
                "doubt",
                (*where, field),
                given(entry=name.replace("_", " "), value=read),
                form=form,
                source="CHANG_WANG",
                value=value,
                limit=high,
            )
    slow = [case for case in assessment.cases if case.figures and case.figures.louver_reynolds < 100]
    if slow:
        yield Finding(
            "slow_air",
            "note",
            ("duty_cases", slow[0].case_id),
            given(cases=tuple(c.name for c in slow)),
            source="CHANG_HSU",
        )


def _rules(build: Build, package: Package, assessment: Assessment) -> Found:
    rules = assessment.rules
    idle = assessment.idle
    for field, have, want, kind, name in (
        ("face_width", rules.face_area, rules.face_area_wanted, "area", "frontal-area rule"),
        ("name", rules.airflow, rules.airflow_wanted, "airflow", "CFM rule"),
    ):
        if have is None or want is None or idle is None:
            continue
        rule_holds, balance_holds = have >= want, idle.held
        if rule_holds != balance_holds:
            yield Finding(
                "rule_differs",
                "note",
                ("packages", package.id, "core", field),
                given(rule=name, have=(have, kind), want=(want, kind), idle=(idle.temperature, "temperature")),
                form="content" if rule_holds else "wants",
                value=have,
                limit=want,
            )


def _assumed(build: Build, package: Package, assessment: Assessment) -> Found:
    vehicle = build.brief.vehicle
    guessed = [
        name
        for name, value in (
            ("grille opening", vehicle.grille_area),
            ("bay exit", vehicle.exit_area),
            ("drag area", vehicle.drag_area),
        )
        if value and value.origin == "assumed"
    ]
    if guessed:
        yield Finding("assumed", "note", ("brief", "vehicle", "grille_area"), given(guessed=tuple(guessed)))


PARTS: tuple[Part, ...] = (
    Part(_stopped),
    Part(unlike, reads("brief.cooling assessment.unlike")),
    Part(causes, reads("brief.causes brief.symptoms")),
    Part(_missing, reads("brief.engine package.fans assessment.cases")),
    Part(
        _cooling,
        reads("brief.climate brief.cooling package.control package.coolant package.loop assessment.boiling"),
    ),
    Part(_parts, reads("made.core package.fans package.shroud")),
    Part(_fans, reads("package.fans")),
    Part(
        face,
        reads(
            "build.survey package.coolers laid.core package.cuts made.fans package.place package.remote package.shroud"
        ),
    ),
    Part(
        air,
        reads(
            "build.survey laid.core made.fans package.panels package.sealing package.shroud "
            "assessment.cases assessment.idle_id"
        ),
    ),
    Part(
        coolers,
        reads(
            "brief.accessories brief.vehicle build.survey package.coolers laid.core assessment.cases assessment.stopped"
        ),
    ),
    Part(
        driven,
        reads("brief.engine build.survey laid.core package.fans package.place package.shroud assessment.boiling"),
    ),
    Part(fit, reads("build.survey package.loop assessment.fit")),
    Part(survey, reads("build.survey assessment.fit")),
    Part(cuts, reads("build.survey package.cuts")),
    Part(room, reads("build.survey laid.core package.remote")),
    Part(
        moves,
        reads(
            "brief.engine build.survey package.brackets package.coolant package.coolers laid.core made.fans "
            "package.loop package.mounting package.moves package.place package.remote package.shroud"
        ),
    ),
    Part(
        panels,
        reads(
            "build.survey package.coolers laid.core made.fans package.panels package.remote package.sealing "
            "package.shroud"
        ),
    ),
    Part(
        shrouding,
        reads(
            "package.coolers laid.core made.fans package.name package.panels package.remote package.sealing "
            "package.shroud"
        ),
        suction,
    ),
    Part(
        mounting,
        reads(
            "brief.engine build.survey package.brackets package.coolers laid.core made.fans "
            "package.mounting package.moves package.name package.panels package.place package.remote "
            "package.sealing package.shroud"
        ),
    ),
    Part(circuit, reads(CIRCUIT)),
    Part(caps, reads(f"{CIRCUIT} assessment.cases")),
    Part(pumps, reads(f"brief.cooling {CIRCUIT}")),
    Part(flows, reads(f"{CIRCUIT} assessment.cases assessment.idle_id")),
    Part(filling, reads(f"brief.engine package.coolant {CIRCUIT}")),
    Part(hoses, reads("build.survey package.control laid.core package.loop package.place package.remote")),
    Part(heat, reads("build.survey")),
    Part(results, reads("assessment.cases assessment.limit")),
    Part(battery, reads("assessment.down assessment.limit build.duty_cases")),
    *ELECTRICAL,
    Part(
        entries,
        reads(
            "brief.accessories brief.engine build.supply package.circuits package.control package.coolers "
            "package.fans package.kind package.loop package.shroud assessment.electrics"
        ),
    ),
    Part(kinds, reads("build.packages")),
    Part(likely),
    Part(claims, reads("package.coolant assessment.beliefs")),
    Part(_sources, reads("made.core assessment.cases")),
    Part(_rules, reads("assessment.cases assessment.idle_id assessment.rules")),
    Part(_assumed, reads("brief.vehicle")),
)
"""The judgement, in the order of the work."""
