"""Findings: what is wrong, doubtful or unmeasured, with figures, a reason and what would mend it."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.figures.assessment import Assessment, CaseFigures, CaseResult
from keelroom.assess.findings import LEVELS, Finding
from keelroom.assess.inputs.airside import fan_curve, in_shroud
from keelroom.assess.inputs.coolant.flows import pump_flow_rated
from keelroom.assess.judge.air import air, causes, face
from keelroom.assess.judge.claims import claims
from keelroom.assess.judge.coolers import coolers
from keelroom.assess.judge.driven import driven
from keelroom.assess.judge.electrical import electrical
from keelroom.assess.judge.entries import entries
from keelroom.assess.judge.fit import cuts, fit, mounting, survey
from keelroom.assess.judge.hoses import hoses
from keelroom.assess.judge.loop import loop
from keelroom.assess.judge.moves import moves
from keelroom.assess.judge.panels import panels
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.wording import Found, chance_words, raised, set_act
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.air.fan import CREDIBLE_EFFICIENCY
from keelroom.core.fluids.coolant import freezing_point
from keelroom.core.thermal.louver import RANGES
from keelroom.document.act import Act
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package
from keelroom.errors import InputError
from keelroom.units import both, fine_both

SEATED = 1e-4
"""[m] less than this over an edge is rounding, not a misfit."""


def judge(build: Build, package: Package, assessment: Assessment) -> tuple[Finding, ...]:
    """All findings, gravest first, in the order of the work within a level."""
    checks: tuple[Check, ...] = (
        _stopped,
        causes,
        _missing,
        _cooling,
        _parts,
        _fans,
        face,
        air,
        coolers,
        driven,
        fit,
        survey,
        cuts,
        moves,
        panels,
        mounting,
        loop,
        hoses,
        results,
        electrical,
        entries,
        claims,
        _sources,
        _rules,
        _assumed,
    )
    found = [finding for check in checks for finding in _judged(check, build, package, assessment)]
    return tuple(sorted(found, key=lambda finding: LEVELS.index(finding.level)))


Check = Callable[[Build, Package, Assessment], Found]


def _judged(check: Check, build: Build, package: Package, assessment: Assessment) -> list[Finding]:
    """What one part of the judgement finds; where it stops, what it found before that, and the stop itself."""
    found: list[Finding] = []
    name = check.__name__.strip("_").replace("_", " ")
    stop = attempted(f"The judgement of {name}", ("packages", package.id), lambda: found.extend(check(build, package, assessment)))
    return [*found, _stop(stop)] if isinstance(stop, Stopped) else found


def _stopped(build: Build, package: Package, assessment: Assessment) -> Found:
    yield from stops(assessment)


def stops(assessment: Assessment) -> tuple[Finding, ...]:
    """What could not be worked out for this build, each reason once."""
    return tuple(map(_stop, assessment.all_stopped))


def _stop(stop: Stopped) -> Finding:
    advice = "Everything else stands without it. Mend the entry, or undo the last step; a report to send stands behind this finding."
    return Finding(
        "not_worked_out", "problem", stop.where, f"{raised(stop.part)} could not be worked out",
        f"{raised(stop.why.rstrip('.'))}. {advice if stop.report else advice.partition(';')[0] + '.'}", report=stop.report,
    )  # fmt: skip


def reworded(build: Build, package: Package, assessment: Assessment) -> tuple[Finding, ...]:
    """The assessment's findings with those of its results as its figures say them now: nothing else is judged again."""
    again = {(finding.code, finding.where): finding for finding in results(build, package, assessment)}
    return tuple(again.get((finding.code, finding.where), finding) for finding in assessment.findings)


def _missing(build: Build, package: Package, assessment: Assessment) -> Found:
    wanted: dict[tuple[str, ...], str] = {}
    for case in assessment.cases:
        for need in case.needs:
            wanted.setdefault(need.path, need.label)
    for path, label in wanted.items():
        yield Finding(
            "missing", "doubt", path, f"Needs {label.lower()}", "Duty cases that depend on it are not worked out until it is known."
        )
    if not package.fans:
        yield Finding(
            "no_fans",
            "doubt",
            ("packages", package.id, "fans"),
            "No fan in this package",
            "Only road speed moves air through the core; at a light there is none.",
        )
    if build.brief.engine.pump_flow is None and build.brief.engine.power is not None:
        flow = both(pump_flow_rated(build.brief.engine), "coolant flow")
        yield Finding("pump_assumed", "doubt", ("brief", "engine", "pump_flow"), f"Coolant flow assumed: {flow} at power rpm",
                      "Taken as 0.28 gpm per hp (1.4 L/min per kW): the engine then warms its coolant by 11–18 °F (6–10 K) at full power. Flow at idle is far less and shows in the idle temperature.",
                      (set_act(f"Take {flow} as assumed", ("brief", "engine", "pump_flow"), f"{pump_flow_rated(build.brief.engine) * 6e4:.0f} L/min"),))  # fmt: skip


def _cooling(build: Build, package: Package, assessment: Assessment) -> Found:
    limit, climate = build.brief.cooling.limit, build.brief.climate
    thermostat, control, where = package.loop.thermostat, package.control, ("packages", package.id)
    at_limit = ("brief", "cooling", "limit")
    if _less(limit, thermostat, 5.0):
        assert limit
        assert thermostat
        wanted = thermostat.si + 25
        yield Finding("limit_under_thermostat", "problem", at_limit, "The limit is at or under the thermostat",
                      f"Limit {both(limit.si, 'temperature')}; the thermostat only starts to open at {both(thermostat.si, 'temperature')} and is full open {both(10.0, 'temperature difference')} later. "
                      "No package can hold the engine under its own thermostat.",
                      (set_act(f"Set the limit to {both(wanted, 'temperature')}", at_limit, f"{wanted:.0f} °C"),),
                      value=limit.si, limit=thermostat.si)  # fmt: skip
    if climate.ambient and limit and climate.ambient.si >= limit.si:
        yield Finding("ambient_over_limit", "problem", ("brief", "climate", "ambient"), "The hottest day is over the limit",
                      f"Air at {both(climate.ambient.si, 'temperature')} cannot cool anything below that.", value=climate.ambient.si, limit=limit.si)  # fmt: skip
    if _less(control.fan_off, thermostat, 0.0):
        assert control.fan_off
        assert thermostat
        off = thermostat.si + 4
        yield Finding("fan_never_stops", "problem", (*where, "control", "fan_off"), "The fans never stop",
                      f"Fans off at {both(control.fan_off.si, 'temperature')} lies under the thermostat's opening at {both(thermostat.si, 'temperature')}: "
                      "the thermostat holds the engine above it.",
                      (set_act(f"Set fans off to {both(off, 'temperature')}", (*where, "control", "fan_off"), f"{off:.0f} °C"),),
                      value=control.fan_off.si, limit=thermostat.si)  # fmt: skip
    if _less(control.fan_on, control.fan_off, 1.0):
        assert control.fan_on
        assert control.fan_off
        on = control.fan_off.si + 5
        yield Finding("fan_set_points", "problem", (*where, "control", "fan_on"), "Fans on must lie above fans off",
                      f"On at {both(control.fan_on.si, 'temperature')}, off at {both(control.fan_off.si, 'temperature')}: the switch would chatter.",
                      (set_act(f"Set fans on to {both(on, 'temperature')}", (*where, "control", "fan_on"), f"{on:.0f} °C"),))  # fmt: skip
    if package.coolant.glycol_share is not None:
        freezing = freezing_point(glycol_table(package.coolant.glycol), package.coolant.glycol_share.si)
        if freezing > package.coolant.coldest.si:
            yield Finding(
                "freezes", "note", (*where, "coolant", "glycol_share"), f"This coolant freezes at {both(freezing, 'temperature')}, the coldest night is {both(package.coolant.coldest.si, 'temperature')}",
                "A frozen core or block cracks. More water carries more heat; drain it or add glycol before the frost.", source="COOLPROP", value=freezing,
            )  # fmt: skip
    if assessment.boiling is not None and limit and limit.si > assessment.boiling:
        yield Finding("limit_over_boiling", "problem", at_limit, "The limit lies above boiling",
                      f"This coolant boils at {both(assessment.boiling, 'temperature')} under this cap at this altitude.",
                      value=limit.si, limit=assessment.boiling)  # fmt: skip


def _less(a: Quantity | None, b: Quantity | None, lead: float) -> bool:
    return a is not None and b is not None and a.si < b.si + lead


def _parts(build: Build, package: Package, assessment: Assessment) -> Found:
    core, shroud = package.core, package.shroud
    where = ("packages", package.id)
    if core.depth and core.rows and core.tube_height and core.depth.si / core.rows.si < 1.5 * core.tube_height.si:
        yield Finding("rows_do_not_fit", "problem", (*where, "core", "rows"), "The tube rows do not fit the core depth",
                      f"{core.rows.si:.0f} rows in {both(core.depth.si, 'length')} leave no width for a tube.")  # fmt: skip
    if core.face_width and core.face_height:
        for fan in package.fans:
            yield from _fan_on_face(package, fan, core.face_width.si, core.face_height.si)
        if shroud.kind == "partial":
            yield from _shroud_on_face(package, core.face_width.si, core.face_height.si)
    if package.fans and shroud.kind == "none":
        share = "Only the disc behind each fan is swept while standing; with the same fan a sealed shroud wins by a wide margin at idle."
        yield Finding(
            "no_shroud",
            "doubt",
            (*where, "shroud", "kind"),
            "Fans without a shroud",
            share,
            (Act("full_shroud", "Fit a full shroud", package.id),),
        )


def _fan_on_face(package: Package, fan: Fan, width: float, height: float) -> Found:
    if fan.diameter is None:
        return
    where, radius = ("packages", package.id, "fans", fan.id), fan.diameter.si / 2
    if fan.diameter.si > min(width, height) + SEATED:
        yield Finding("fan_larger_than_face", "problem", (*where, "diameter"), "The fan is larger than the core face",
                      f"{both(fan.diameter.si, 'length')} fan on a face {both(width, 'length')} × {both(height, 'length')}: what hangs over draws no air through the core.",
                      (Act("fit_fan", "The strongest catalogue fan that fits", package.id, (("fan", fan.id),)),),
                      value=fan.diameter.si, limit=min(width, height))  # fmt: skip
        return
    over = max(radius - fan.x.si, fan.x.si + radius - width, radius - fan.y.si, fan.y.si + radius - height)
    if over > SEATED:
        yield Finding("fan_off_face", "problem", (*where, "x"), "The fan hangs over the edge of the face",
                      f"It stands {both(over, 'length')} beyond the finned face.",
                      (Act("onto_face", "Slide it onto the face", package.id, (("fan", fan.id),)),), value=over, limit=0.0)  # fmt: skip
    for other in package.fans:
        if other.id > fan.id and other.diameter:
            gap = math.hypot(fan.x.si - other.x.si, fan.y.si - other.y.si) - radius - other.diameter.si / 2
            if gap < -SEATED:
                yield Finding("fans_overlap", "problem", (*where, "x"), "Two fans overlap", f"Their rings cut into each other by {both(-gap, 'length')}.",
                              (Act("spread", "Spread the fans over the face", package.id),), value=gap, limit=0.0)  # fmt: skip


def _shroud_on_face(package: Package, width: float, height: float) -> Found:
    shroud, where = package.shroud, ("packages", package.id, "shroud")
    right = shroud.left.si + (shroud.width.si if shroud.width else width - shroud.left.si)
    top = shroud.bottom.si + (shroud.height.si if shroud.height else height - shroud.bottom.si)
    over = max(-shroud.left.si, -shroud.bottom.si, right - width, top - height)
    if over > SEATED:
        yield Finding("shroud_off_face", "doubt", (*where, "width"), "The shroud stands over the edge of the face",
                      f"By {both(over, 'length')}; it seats on the tanks there instead of sealing on the core.", value=over, limit=0.0)  # fmt: skip
    for fan in package.fans:
        if fan.mount != "pusher" and not in_shroud(package, fan):
            yield Finding("fan_outside_shroud", "problem", ("packages", package.id, "fans", fan.id, "x"), "A fan sits outside the shroud",
                          "It would draw from the bay, not from the core.")  # fmt: skip


def _fans(build: Build, package: Package, assessment: Assessment) -> Found:
    for fan in package.fans:
        where = ("packages", package.id, "fans", fan.id)
        if fan.hub_diameter and fan.diameter and fan.hub_diameter.si >= 0.8 * fan.diameter.si:
            yield Finding(
                "hub_too_large",
                "doubt",
                (*where, "hub_diameter"),
                "The hub fills the fan",
                "A hub over 80 % of the diameter leaves no blade; check the reading.",
            )
        if not fan.curve:
            if fan.free_air_flow and fan is next(f for f in package.fans if f.name == fan.name):
                yield Finding("fan_rating_only", "doubt", (*where, "free_air_flow"), f"{fan.name or 'Fan'}: only its free-air rating is known",
                              "Advertised airflow is free air and optimistic; the pressure it can make is derived from motor power, ±30 %. Curve points or an anemometer reading narrow it.")  # fmt: skip
            continue
        try:
            curve = fan_curve(fan)
        except InputError as error:
            yield Finding(
                "fan_curve", "problem", (*where, "curve"), "The fan curve is not a curve", f"{error.message}. Its rating is used instead."
            )
            continue
        if fan.power:
            best = max(float(curve.flow) * x * float(curve.pressure) * y for x, y in ((0.5, 0.55), (0.6, 0.45), (0.7, 0.35)))
            if best > CREDIBLE_EFFICIENCY * fan.power.si:
                yield Finding("fan_too_good", "doubt", (*where, "power"), "More air power than the motor can give",
                              f"The curve's best air power {best:.0f} W is over 40 % of the motor's {fan.power.si:.0f} W.", value=best, limit=CREDIBLE_EFFICIENCY * fan.power.si)  # fmt: skip


def results(build: Build, package: Package, assessment: Assessment) -> Found:
    """What comes out of the duty cases; all that the second wave words anew."""
    for case in assessment.cases:
        if case.figures is not None and assessment.limit is not None:
            yield from _case_verdict(case, case.figures, assessment.limit)


TRANSITION = (1500.0, 4500.0)
"""Re between which coolant in flat tubes is neither laminar nor turbulent."""
NOTICED = 2.0
"""[K] a gain that is worth a word."""
COLDEST = -30.0
"""[degC] an ambient colder than this is no comfort to anybody."""


def _duration(seconds: float) -> str:
    return f"{seconds:.0f} s" if seconds < 90 else f"{seconds / 60:.0f} min"


def _held(figures: CaseFigures) -> str:
    if figures.ambients is None:
        return " This package holds the limit up to … ambient here."
    if figures.ambients.holds < COLDEST:
        return " No weather is cold enough for this package to hold it."
    return f" This package holds the limit up to {both(figures.ambients.holds, 'temperature')} ambient here."


def _settles(figures: CaseFigures) -> str:
    if figures.cycles:
        return f"Swings between {both(figures.swings_from, 'temperature')} and {both(figures.temperature, 'temperature')} as the fans stop and start"
    return f"Settles at {both(figures.temperature, 'temperature')}"


def _case_verdict(case: CaseResult, figures: CaseFigures, limit: float) -> Found:
    where = ("duty_cases", case.case_id)
    held = _held(figures)
    if figures.verdict == "does_not_settle":
        climb = figures.climb * 60
        when = (
            f"from a full-open thermostat it reaches the limit in {_duration(figures.time_to_limit)}"
            if math.isfinite(figures.time_to_limit)
            else "it boils first"
        )
        yield Finding("does_not_settle", "problem", where, f"{case.name}: does not settle",
                      f"At the limit it still climbs {both(climb, 'temperature difference')} per minute; {when}. Heat in {both(figures.heat_in, 'heat')}, "
                      f"rejection at the limit {both(figures.rejection_at_limit, 'heat')}.{held}", value=figures.temperature, limit=limit)  # fmt: skip
    elif figures.verdict == "over":
        yield Finding("over_limit", "problem", where, f"{case.name}: over the limit by {both(figures.temperature - limit, 'temperature difference')}",
                      f"{_settles(figures)}; {chance_words(figures.chance)} that it passes the limit.{held}", value=figures.temperature, limit=limit)  # fmt: skip
    elif figures.verdict == "tight":
        top = "does not settle" if math.isinf(figures.high) else f"reaches {both(figures.high, 'temperature')}"
        yield Finding("band_over_limit", "doubt", where, f"{case.name}: likely holds; {chance_words(figures.chance)} that it passes the limit",
                      f"{_settles(figures)}; its hot end {top}. The largest doubt is "
                      f"{max(figures.doubt_by_cause, key=lambda part: part[1])[0]}.", value=figures.high, limit=limit)  # fmt: skip
    if (
        TRANSITION[0] < figures.tube_reynolds < TRANSITION[1]
        and figures.verdict != "does_not_settle"
        and figures.faster_coolant[0] > NOTICED
    ):
        passes, pump = (both(gain, "temperature difference") for gain in figures.faster_coolant)
        yield Finding("tubes_in_transition", "note", where, f"{case.name}: the coolant is neither smooth nor turbulent in the tubes",
                      f"Re {figures.tube_reynolds:.0f}: there a tube's heat transfer is the least certain, and its band counts that. Twice the speed, as with two passes, would be worth about {passes}, "
                      f"a pump turned a fifth faster about {pump}; what they cost in flow is not in it.", source="TALER", value=figures.tube_reynolds)  # fmt: skip
    if figures.power_short > 500:
        yield Finding("power_short", "doubt", where, f"{case.name}: the engine cannot do this",
                      f"It lacks {both(figures.power_short, 'power')} at {figures.rpm:.0f} rpm; full throttle was assumed. Choose a lower gear or speed.",
                      value=figures.power_short)  # fmt: skip


def _sources(build: Build, package: Package, assessment: Assessment) -> Found:
    core, where = package.core, ("packages", package.id, "core")
    pitch = 1 / core.fin_density.si if core.fin_density else None
    for name, field, value in (("depth", "depth", core.depth.si if core.depth else None), ("fin_pitch", "fin_density", pitch),
                               ("louver_pitch", "louver_pitch", core.louver_pitch.si if core.louver_pitch else None),
                               ("louver_angle", "louver_angle", math.degrees(core.louver_angle.si) if core.louver_angle else None)):  # fmt: skip
        low, high = RANGES[name]
        if value is not None and not low <= value <= high * 1.001:
            shown = f"{value:.0f}°" if name == "louver_angle" else both(value, "length") if value > 5e-3 else fine_both(value)
            yield Finding("outside_correlation", "doubt", (*where, field), f"Outside the tested range: {name.replace('_', ' ')} {shown}",
                          "The fin correlations rest on cores up to 2 1/4 in (57 mm) deep with fin and louver pitches of 0.02–0.13 in (0.5–3.3 mm); expect rejection within ±10 % rather than ±5 %.",
                          source="CHANG_WANG", value=value, limit=high)  # fmt: skip
    slow = [case for case in assessment.cases if case.figures and case.figures.louver_reynolds < 100]
    if slow:
        yield Finding("slow_air", "note", ("duty_cases", slow[0].case_id), f"{', '.join(c.name for c in slow)}: air slower than the tests",
                      "Louver Reynolds number under 100; the slope at 100 is carried on below it.", source="CHANG_HSU")  # fmt: skip


def _rules(build: Build, package: Package, assessment: Assessment) -> Found:
    rules = assessment.rules
    idle = assessment.idle
    for field, have, want, kind, name in (
        ("face_width", rules.face_area, rules.face_area_wanted, "area", "frontal-area rule"),
        ("name", rules.airflow, rules.airflow_wanted, "airflow", "CFM rule"),
    ):
        if have is None or want is None or idle is None:
            continue
        rule_holds, balance_holds = have >= want, idle.verdict in ("holds", "tight")
        if rule_holds != balance_holds:
            says = "is content" if rule_holds else "wants more"
            yield Finding("rule_differs", "note", ("packages", package.id, "core", field), f"The {name} {says}; the heat balance at idle does not agree",
                          f"Rule: {both(have, kind)} against {both(want, kind)}. Heat balance: idle settles at {both(idle.temperature, 'temperature')}. "
                          "The heat balance decides here; the rule knows neither climate nor load.", value=have, limit=want)  # fmt: skip


def _assumed(build: Build, package: Package, assessment: Assessment) -> Found:
    vehicle = build.brief.vehicle
    guessed = [name for name, value in (("grille opening", vehicle.grille_area), ("bay exit", vehicle.exit_area), ("drag area", vehicle.drag_area))
               if value and value.origin == "assumed"]  # fmt: skip
    if guessed:
        yield Finding("assumed", "note", ("brief", "vehicle", "grille_area"), f"Assumed, not measured: {', '.join(guessed)}",
                      "They set the air at road speed and the climb. A tape measure settles them.")  # fmt: skip
