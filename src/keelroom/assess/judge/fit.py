"""Findings of the survey and the fit: what touches, what is not measured, what contradicts itself, what cannot be
made."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.read_off import suction
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fit.clearances import RULE_WORDS, Fit, Gap
from keelroom.assess.fit.cut_rules import belt_open, checks_missing, edge_kind
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import anchors, bracket_plans, core_growth
from keelroom.assess.fit.moves import may_go
from keelroom.assess.fit.shroud_plan import TrimPlan, pan_plan, ring_of, trim_plan
from keelroom.assess.fixes import choose_act, flag_act
from keelroom.assess.judge.evidence import GUESSED
from keelroom.assess.placing import over_tanks
from keelroom.assess.tape import may_differ, tolerance
from keelroom.core.outline import crossing
from keelroom.core.packaging.fixings import BOLTS
from keelroom.document.act import Act
from keelroom.document.fields import get, owner_and_spec, spec_of
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import HoseEnd, Survey
from keelroom.errors import InputError
from keelroom.facts import Figures, given, lowered

ROOM_SLACK = 5e-4
"""[m] a size may be over the room before it is one: less than a tape reads."""
MOST = 8
"""Clearances that get a finding of their own; the table has them all."""
RINGS_OFF, NARROW = 2e-3, 3e-3
"""[m] from which fans beside their rings, and a shroud narrower than the core, are worth a word."""


def fit(build: Build, package: Package, assessment: Assessment) -> Found:
    """Clearances under their rule, and tight ones with the reading that decides."""
    found = assessment.fit
    if found is None or not found.surveyed:
        return
    bad = [gap for gap in found.gaps if gap.state in ("overlaps", "under") and not gap.other.unknown]
    for gap in bad[:MOST]:
        yield _gap_finding(build, package, gap)
    if len(bad) > MOST:
        yield Finding("fit_more", "problem", _where(package, bad[MOST]), given(count=len(bad) - MOST))
    tight = [gap for gap in found.gaps if gap.state == "tight" and not gap.other.unknown]
    for gap in tight[:3]:
        weakest = gap.weakest
        where = (
            weakest.path
            if weakest and weakest.path[0] == "survey" and _is_field(build, weakest.path)
            else _where(package, gap)
        )
        yield Finding(
            "fit_tight",
            "doubt",
            where,
            _gap_figures(gap),
            form="" if weakest else "even",
            value=gap.gap,
            limit=gap.wanted,
        )


def _gap_finding(build: Build, package: Package, gap: Gap) -> Finding:
    form = ("hood" if gap.other.sort == "hood" else "") + ("" if gap.weakest else "even")
    guessed = _guessed(build, package, gap)
    return Finding(
        f"fit_{gap.state}",
        "doubt" if guessed else "problem",
        _where(package, gap),
        _gap_figures(gap),
        form=form,
        fix=_gap_fixes(build, package, gap),
        value=gap.gap,
        limit=gap.wanted,
        assumed=guessed,
    )


def _guessed(build: Build, package: Package, gap: Gap) -> tuple[str, ...]:
    """Where a hose of it was led from a port whose place nobody measured: those entries. A way that was guessed is no
    evidence that it does not fit."""
    told: list[str] = []
    for body in (gap.part, gap.other):
        if body.sort != "hose":
            continue
        hose = next(one for one in package.loop.hoses if one.id == body.key.split(":")[1])
        ends = {end.removeprefix("engine:") for end in (hose.start, hose.end) if end.startswith("engine:")}
        for port in build.survey.hoses:
            if port.id in ends:
                places = ((spec_of(HoseEnd, axis), getattr(port, axis)) for axis in "xyz")
                told += [spec.label for spec, at in places if spec and at is not None and at.origin in GUESSED]
    return tuple(dict.fromkeys(told))


def _gap_figures(gap: Gap) -> Figures:
    return given(
        part=gap.part.name,
        other=gap.other.name,
        gap=(gap.gap, "length"),
        over=(-gap.gap, "length"),
        rule=RULE_WORDS[gap.rule],
        wanted=(gap.wanted, "length"),
        worst=(gap.worst, "length"),
        likely=(gap.likely, "length"),
        weakest=gap.weakest.label if gap.weakest else "",
    )


def _where(package: Package, gap: Gap) -> tuple[str, ...]:
    """The place along the way the clearance lies, or the move: what would be changed to mend it."""
    if gap.part.sort == "moved":
        return gap.part.path
    axis = max(range(3), key=lambda k: abs(gap.normal[k]))
    return ("packages", package.id, "place", "xyz"[axis])


def _gap_fixes(build: Build, package: Package, gap: Gap) -> tuple[Act, ...]:
    """Moving away a neighbour that may go; anything else is for the search."""
    ident = gap.other.key.partition(":")[2]
    item = next((o for o in build.survey.obstacles if gap.other.key == f"obstacle:{o.id}" and may_go(o)), None)
    return (
        (Act("move_away", f"Count on {item.name or item.id} moved away", package.id, (("obstacle", ident),)),)
        if item
        else ()
    )


def _is_field(build: Build, path: tuple[str, ...]) -> bool:
    try:
        owner_and_spec(build, path)
    except InputError:
        return False
    return True


def survey(build: Build, package: Package, assessment: Assessment) -> Found:
    """What the survey lacks, where it contradicts itself, and the next most useful measurement."""
    found = assessment.fit
    yield from _contradictions(build.survey)
    yield from _second_readings(build)
    if found is None:
        return
    if not found.surveyed:
        yield Finding("not_surveyed", "note", ("survey", "engine", "turning"))
        return
    if found.unmeasured:
        names = tuple(lowered(item.what) for item in found.unmeasured)
        yield Finding(
            "fit_unmeasured",
            "doubt",
            found.unmeasured[0].path,
            given(count=len(found.unmeasured), names=names),
            value=float(len(found.unmeasured)),
        )
    if found.next is not None:
        yield Finding("measure_next", "note", found.next.path, given(reading=found.next.what, reason=found.next.why))
    yield from _inside_the_core(build, package, found)


def _inside_the_core(build: Build, package: Package, found: Fit) -> Found:
    """An obstacle that cannot be where it was measured as long as the core stands there."""
    for item in found.others if found.parts else ():
        if not item.key.startswith("obstacle:") or item.unknown:
            continue
        centre = item.solid.centre
        core = found.parts[0].solid
        inside = all(
            abs(sum(axis[k] * (centre[k] - core.centre[k]) for k in range(3))) < half
            for axis, half in zip(core.axes, core.half, strict=True)
        )
        if inside:
            yield Finding("obstacle_in_core", "problem", item.path, given(name=item.name))


def _contradictions(survey: Survey) -> Found:
    engine, rails = survey.engine, survey.rails
    pulley = next((item for item in engine.turning if item.id == "pulley"), None)
    if engine.block_depth and engine.pulley_stack and pulley and pulley.depth:
        total = pulley.depth.si + engine.pulley_stack.si
        doubt = tolerance(engine.block_depth) + tolerance(engine.pulley_stack) + tolerance(pulley.depth)
        if abs(total - engine.block_depth.si) > doubt:
            yield Finding(
                "depth_contradiction",
                "problem",
                ("survey", "engine", "block_depth"),
                given(
                    depth=(pulley.depth.si, "length"),
                    pulley_stack=(engine.pulley_stack.si, "length"),
                    total=(total, "length"),
                    block_depth=(engine.block_depth.si, "length"),
                    doubt=(doubt, "length"),
                ),
                form="smaller" if engine.block_depth.si < total else "larger",
                value=engine.block_depth.si,
                limit=total,
            )
    if rails.left and rails.right and rails.between:
        apart = rails.right.si - rails.left.si
        doubt = tolerance(rails.left) + tolerance(rails.right) + tolerance(rails.between)
        if abs(apart - rails.between.si) > doubt:
            yield Finding(
                "rails_contradiction",
                "problem",
                ("survey", "rails", "between"),
                given(apart=(apart, "length"), between=(rails.between.si, "length")),
                value=rails.between.si,
                limit=apart,
            )
    corners = tuple((c.x.si, c.y.si) for c in survey.opening.corners)
    faulty = crossing(corners) if len(corners) > 2 else None
    if faulty is not None:
        names = [survey.opening.corners[k].id for k in faulty]
        yield Finding(
            "opening_crosses",
            "problem",
            ("survey", "opening", "corners", names[1], "x"),
            given(first=faulty[0] + 1, second=faulty[1] + 1),
        )
    elif 0 < len(corners) < 3:
        yield Finding("opening_corners", "problem", ("survey", "opening", "corners", survey.opening.corners[0].id, "x"))


def _second_readings(build: Build) -> Found:
    for reading in build.survey.second:
        path = ("survey", *reading.id.split("."))
        try:
            first = get(build, path)
            _, spec = owner_and_spec(build, path)
        except InputError:
            continue
        if first is None or spec is None:
            continue
        apart = abs(first.si - reading.value.si)
        allowed = may_differ(first)
        if apart > allowed:
            yield Finding(
                "readings_differ",
                "doubt",
                path,
                given(
                    label=spec.label,
                    apart=(apart, "length"),
                    first=(first.si, "length"),
                    value=(reading.value.si, "length"),
                    allowed=(allowed, "length"),
                ),
                fix=(Act("set", "Take the second reading", given=(("text", reading.value.as_typed),), path=path),),
                value=apart,
                limit=allowed,
            )


def room(build: Build, package: Package, assessment: Assessment) -> Found:
    """A core that is larger with its tanks than the room that was measured for it."""
    core, survey = package.core, build.survey
    if not (core.face_width and core.face_height) or package.remote.away:
        return
    wide, high = over_tanks(core)
    for size, there, field, form in (
        (wide, survey.room_width, "face_width", "wide"),
        (high, survey.room_height, "face_height", "high"),
    ):
        if there is not None and size > there.si + ROOM_SLACK:
            yield Finding(
                "core_over_room",
                "problem",
                ("packages", package.id, "core", field),
                given(size=(size, "length"), room=(there.si, "length")),
                form=form,
                value=size,
                limit=there.si,
            )


def cuts(build: Build, package: Package, assessment: Assessment) -> Found:
    """Cuts that must not be made, or not yet."""
    where = ("packages", package.id, "cuts")
    for cut in package.cuts:
        kind = edge_kind(build.survey.opening, cut.edge)
        if kind == "no_go":
            yield Finding(
                "cut_refused",
                "problem",
                (*where, cut.id, "amount"),
                given(edge=cut.edge),
                fix=(Act("remove", "Take this cut out", path=(*where, cut.id)),),
            )
        elif kind == "stamped":
            yield Finding("cut_stamped", "doubt", (*where, cut.id, "amount"), given(edge=cut.edge))
    if package.cuts:
        missing = checks_missing(build)
        if missing:
            yield Finding(
                "cut_checks",
                "problem",
                (*where, package.cuts[0].id, "amount"),
                given(count=len(missing), checks=tuple(text for _, text in missing)),
            )
        if belt_open(build):
            yield Finding("cut_belt_open", "doubt", (*where, package.cuts[0].id, "amount"))
        if any(item.structural for item in build.survey.obstacles):
            names = tuple(item.name or item.id for item in build.survey.obstacles if item.structural)
            yield Finding("cut_structural", "note", (*where, package.cuts[0].id, "amount"), given(names=names))


def shrouding(build: Build, package: Package, assessment: Assessment) -> Found:
    """A shroud that cannot be made, or stands off its seat."""
    yield from _shroud(package, suction(assessment))


def mounting(build: Build, package: Package, assessment: Assessment) -> Found:
    """Brackets, growth, frame and remote cooler that cannot be made or would not last."""
    where = ("packages", package.id)
    for plan in bracket_plans(build, package):
        name = plan.bracket.name or plan.bracket.id
        for field, fault in plan.wrong:
            yield Finding(
                "bracket_fault", "problem", (*where, "brackets", plan.bracket.id, field), given(name=name, fault=fault)
            )
    mount = package.mounting
    if package.fans and mount.fan_to == "through_fins":
        yield Finding(
            "through_fins",
            "doubt",
            (*where, "mounting", "fan_to"),
            fix=(
                Act(
                    "choose",
                    "Fan to the core's flange",
                    given=(("choice", "core_flange"),),
                    path=(*where, "mounting", "fan_to"),
                ),
            ),
        )
    grows = core_growth(package)
    if package.brackets and mount.float_gap.si < grows:
        yield Finding(
            "no_float",
            "problem",
            (*where, "mounting", "float_gap"),
            given(grows=(grows, "length"), float_gap=(mount.float_gap.si, "length")),
            value=mount.float_gap.si,
            limit=grows,
        )
    for frame in frame_plans(package):
        for field, fault in frame.faults:
            yield Finding(
                "frame_fault",
                "problem",
                (*where, "mounting", "frames", frame.frame.id, field),
                given(fault=fault),
                form="lap" if field == "lap" else "",
            )
    points = anchors(build.survey, package) if package.brackets else {}
    for bracket in package.brackets:
        for end in (bracket.start, bracket.end):
            hole = points.get(end)
            if hole is not None and hole.sort == "hole" and BOLTS[bracket.bolt].diameter > hole.diameter + 1e-6:
                yield Finding(
                    "bolt_in_hole",
                    "problem",
                    (*where, "brackets", bracket.id, "bolt"),
                    given(
                        name=bracket.name or bracket.id,
                        bolt=BOLTS[bracket.bolt].name,
                        hole=hole.words,
                        diameter=(hole.diameter, "length"),
                    ),
                    value=hole.diameter,
                    limit=BOLTS[bracket.bolt].diameter,
                )


def _shroud(package: Package, pressure: float) -> Found:
    where = ("packages", package.id, "shroud")
    for fault in ring_of(package)[1]:
        yield Finding("ring_fault", "problem", (*where, "ring_opening"), given(fault=fault))
    plan = trim_plan(package, pressure)
    if package.shroud.joined:
        yield from _joined(package, plan)
    if plan is None:
        made = pan_plan(package) if package.shroud.kind != "none" else None
        for fault in made.faults if made else ():
            clear = choose_act("Flanges only clear of the tanks", (*where, "flanges"), "clear_of_tanks")
            fixes = (clear,) if package.shroud.flanges == "all_round" and package.shroud.kind == "full" else ()
            yield Finding("pan_fault", "problem", (*where, "flange"), given(fault=fault), fix=fixes)
        return
    for field, fault in plan.wrong:
        yield Finding("trim_fault", "problem", (*where, field), given(fault=fault))
    if math.hypot(*plan.off) > RINGS_OFF:
        yield Finding(
            "fans_off_rings",
            "doubt",
            ("packages", package.id, "fans", package.fans[0].id, "x"),
            given(off=(math.hypot(*plan.off), "length")),
            fix=(Act("fans_to_rings", "Put the fans where their rings are", package.id),),
            value=math.hypot(*plan.off),
            limit=0.0,
        )
    if not plan.now.seats:
        yield Finding(
            "shroud_proud",
            "doubt",
            (*where, "trim_left"),
            given(proud=(plan.proud, "length"), seat=(plan.seat[0], "length")),
            fix=(Act("seat_shroud", "Trim it until it seats", package.id),),
            value=plan.proud,
            limit=0.0,
        )
    if plan.blank.width < plan.seat[0] - NARROW:
        yield Finding(
            "shroud_narrow",
            "doubt",
            (*where, "blank_width"),
            given(open=(plan.seat[0] - plan.blank.width, "length"), leak=(plan.leak, "airflow")),
        )


def _joined(package: Package, plan: TrimPlan | None) -> Found:
    where = ("packages", package.id, "shroud")
    if plan is None:
        yield Finding("join_unmeasured", "doubt", (*where, "blank_width"))
    elif len(plan.blank.rings) != 2:
        yield Finding(
            "join_fans",
            "problem",
            (*where, "joined"),
            given(rings=len(plan.blank.rings)),
            fix=(flag_act("One shroud only", (*where, "joined"), False),),
        )
