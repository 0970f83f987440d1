"""Findings of the survey and the fit: what touches, what is not measured, what contradicts itself, what cannot be made."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.read_off import suction
from keelroom.assess.findings import Finding
from keelroom.assess.fit.clearances import RULE_WORDS, Fit, Gap
from keelroom.assess.fit.cut_rules import CAUTION, checks_missing, edge_kind
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import FAN_MOUNTS, anchors, bracket_plans, core_growth
from keelroom.assess.fit.shroud_plan import TrimPlan, pan_plan, ring_of, trim_plan
from keelroom.assess.tape import may_differ, tolerance
from keelroom.assess.wording import Found, choose_act, flag_act, lowered, raised
from keelroom.core.outline import crossing
from keelroom.core.packaging.fixings import BOLTS
from keelroom.document.act import Act
from keelroom.document.fields import get, owner_and_spec
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import Survey
from keelroom.errors import InputError
from keelroom.units import both

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
        yield Finding(
            "fit_more",
            "problem",
            _where(package, bad[MOST]),
            f"{len(bad) - MOST} more clearances under their rule",
            "The table at Fit-up has them all.",
        )
    tight = [gap for gap in found.gaps if gap.state == "tight" and not gap.other.unknown]
    for gap in tight[:3]:
        weakest = gap.weakest
        why = f"{both(gap.gap, 'length')} ± {both(gap.worst, 'length')} worst case, ± {both(gap.likely, 'length')} likely (root sum of squares); {both(gap.wanted, 'length')} wanted."
        where = weakest.path if weakest and weakest.path[0] == "survey" and _is_field(build, weakest.path) else _where(package, gap)
        yield Finding("fit_tight", "doubt", where, f"{gap.part.name} to {gap.other.name}: clears, but not by more than the tape's doubt",
                      why + (f" {weakest.label} dominates: measure it again." if weakest else ""), value=gap.gap, limit=gap.wanted)  # fmt: skip


def _gap_finding(build: Build, package: Package, gap: Gap) -> Finding:
    how = f"overlap by {both(-gap.gap, 'length')}" if gap.gap < 0 else f"{both(gap.gap, 'length')} apart"
    why = f"Rule for {RULE_WORDS[gap.rule]}: {both(gap.wanted, 'length')}. As measured ± {both(gap.worst, 'length')} worst case"
    if gap.weakest:
        why += f", most of it from {gap.weakest.label.lower()}"
    if gap.other.sort == "hood":
        why += ". A hood that may touch the package can come open or damage the latch"
    return Finding(f"fit_{gap.state}", "problem", _where(package, gap), f"{gap.part.name} and {gap.other.name}: {how}", why + ".", _gap_fixes(build, package, gap), value=gap.gap, limit=gap.wanted)  # fmt: skip


def _where(package: Package, gap: Gap) -> tuple[str, ...]:
    """The place along the way the clearance lies, or the move: what would be changed to mend it."""
    if gap.part.sort == "moved":
        return gap.part.path
    axis = max(range(3), key=lambda k: abs(gap.normal[k]))
    return ("packages", package.id, "place", "xyz"[axis])


def _gap_fixes(build: Build, package: Package, gap: Gap) -> tuple[Act, ...]:
    """Moving away a movable neighbour; anything else is for the search."""
    ident = gap.other.key.partition(":")[2]
    item = next((o for o in build.survey.obstacles if gap.other.key == f"obstacle:{o.id}" and o.mobility != "fixed"), None)
    return (Act("move_away", f"Count on {item.name or item.id} moved away", package.id, (("obstacle", ident),)),) if item else ()


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
        yield Finding("not_surveyed", "note", ("survey", "engine", "turning"), "The bay is not surveyed yet",
                      "Whether the package fits is not known: nothing around it is measured. The tape walk at Survey asks for it in order.")  # fmt: skip
        return
    if found.unmeasured:
        names = ", ".join(lowered(item.what) for item in found.unmeasured[:4])
        more = f" and {len(found.unmeasured) - 4} more" if len(found.unmeasured) > 4 else ""
        yield Finding("fit_unmeasured", "doubt", found.unmeasured[0].path, f"{len(found.unmeasured)} measurement{' is' if len(found.unmeasured) == 1 else 's are'} missing or only assumed",
                      f"{names}{more}. Until they are taken nothing can be said to clear.", value=float(len(found.unmeasured)))  # fmt: skip
    if found.next is not None:
        yield Finding("measure_next", "note", found.next.path, f"Measure next: {lowered(found.next.what)}", raised(found.next.why) + ".")  # fmt: skip
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
            yield Finding("obstacle_in_core", "problem", item.path, f"{item.name} lies inside the core",
                          "Its middle is within the core as placed: check the reading and the datum it was taken from, or move the core.")  # fmt: skip


def _contradictions(survey: Survey) -> Found:
    engine, rails = survey.engine, survey.rails
    pulley = next((item for item in engine.turning if item.id == "pulley"), None)
    if engine.block_depth and engine.pulley_stack and pulley and pulley.depth:
        total = pulley.depth.si + engine.pulley_stack.si
        doubt = tolerance(engine.block_depth) + tolerance(engine.pulley_stack) + tolerance(pulley.depth)
        if abs(total - engine.block_depth.si) > doubt:
            less = "smaller" if engine.block_depth.si < total else "larger"
            yield Finding("depth_contradiction", "problem", ("survey", "engine", "block_depth"), f"Depth to the block is {less} than the sum of its parts",
                          f"Plane to pulley {both(pulley.depth.si, 'length')} and pulley to block {both(engine.pulley_stack.si, 'length')} make {both(total, 'length')}; "
                          f"plane to block reads {both(engine.block_depth.si, 'length')}. They may differ by {both(doubt, 'length')}. One of the three was misread.",
                          value=engine.block_depth.si, limit=total)  # fmt: skip
    if rails.left and rails.right and rails.between:
        apart = rails.right.si - rails.left.si
        doubt = tolerance(rails.left) + tolerance(rails.right) + tolerance(rails.between)
        if abs(apart - rails.between.si) > doubt:
            yield Finding("rails_contradiction", "problem", ("survey", "rails", "between"), "The rails do not add up",
                          f"Left and right from the datum make {both(apart, 'length')}, between them reads {both(rails.between.si, 'length')}. "
                          "One of the three was misread, or taken from another datum.", value=rails.between.si, limit=apart)  # fmt: skip
    corners = tuple((c.x.si, c.y.si) for c in survey.opening.corners)
    faulty = crossing(corners) if len(corners) > 2 else None
    if faulty is not None:
        names = [survey.opening.corners[k].id for k in faulty]
        yield Finding("opening_crosses", "problem", ("survey", "opening", "corners", names[1], "x"), "The opening's outline crosses itself",
                      f"The edges after corner {faulty[0] + 1} and after corner {faulty[1] + 1} cross. Go round the opening in one direction; nothing else is lost.")  # fmt: skip
    elif 0 < len(corners) < 3:
        yield Finding("opening_corners", "problem", ("survey", "opening", "corners", survey.opening.corners[0].id, "x"), "An opening needs three corners or more",
                      "Go round it in one direction, or take the corners out and give width and height.")  # fmt: skip


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
            yield Finding("readings_differ", "doubt", path, f"{spec.label}: two readings differ by {both(apart, 'length')}",
                          f"First {both(first.si, 'length')}, second {both(reading.value.si, 'length')}; {both(allowed, 'length')} would be the tape's own doubt. Take it a third time.",
                          (Act("set", "Take the second reading", given=(("text", reading.value.as_typed),), path=path),),
                          value=apart, limit=allowed)  # fmt: skip


def cuts(build: Build, package: Package, assessment: Assessment) -> Found:
    """Cuts that must not be made, or not yet."""
    where = ("packages", package.id, "cuts")
    for cut in package.cuts:
        kind = edge_kind(build.survey.opening, cut.edge)
        if kind == "no_go":
            yield Finding("cut_refused", "problem", (*where, cut.id, "amount"), f"The {cut.edge} edge is marked no-go: this cut must not be made",
                          CAUTION, (Act("remove", "Take this cut out", path=(*where, cut.id)),))  # fmt: skip
        elif kind == "stamped":
            yield Finding(
                "cut_stamped", "doubt", (*where, cut.id, "amount"), f"The {cut.edge} edge is stamped: it stiffens the support", CAUTION
            )
    if package.cuts:
        missing = checks_missing(build)
        if missing:
            said = "; ".join(text for _, text in missing)
            yield Finding("cut_checks", "problem", (*where, package.cuts[0].id, "amount"), f"{len(missing)} cheap checks come before the cut",
                          f"A cut cannot be taken back. {said}.")  # fmt: skip
        if any(item.structural for item in build.survey.obstacles):
            names = ", ".join(item.name or item.id for item in build.survey.obstacles if item.structural)
            yield Finding(
                "cut_structural", "note", (*where, package.cuts[0].id, "amount"), f"Marked structural near the cut: {names}", CAUTION
            )


def mounting(build: Build, package: Package, assessment: Assessment) -> Found:
    """Shroud, brackets, growth, frame and remote cooler that cannot be made or would not last."""
    yield from _shroud(package, suction(assessment))
    where = ("packages", package.id)
    for plan in bracket_plans(build, package):
        name = plan.bracket.name or plan.bracket.id
        for field, fault in plan.wrong:
            yield Finding("bracket_fault", "problem", (*where, "brackets", plan.bracket.id, field), f"{name}: {lowered(fault)}",
                          "As drawn this bracket cannot be made or would not hold; the planner gives the figures.")  # fmt: skip
    mount = package.mounting
    if package.fans and mount.fan_to == "through_fins":
        yield Finding("through_fins", "doubt", (*where, "mounting", "fan_to"), "Fans hang on ties through the fins", FAN_MOUNTS["through_fins"] + " Zip ties are not a structural mount.",
                      (Act("choose", "Fan to the core's flange", given=(("choice", "core_flange"),), path=(*where, "mounting", "fan_to")),))  # fmt: skip
    grows = core_growth(package)
    if package.brackets and mount.float_gap.si < grows:
        yield Finding("no_float", "problem", (*where, "mounting", "float_gap"), "The core has no room to grow",
                      f"Hot it is {both(grows, 'length')} longer than cold, its mounts leave {both(mount.float_gap.si, 'length')}: it pushes its own tanks apart. Let one end slide.",
                      value=mount.float_gap.si, limit=grows)  # fmt: skip
    for frame in frame_plans(package):
        for field, fault in frame.faults:
            yield Finding("frame_fault", "problem", (*where, "mounting", "frames", frame.frame.id, field), f"Frame of angle: {lowered(fault)}",
                          "Rows behind metal give no heat." if field == "lap" else "As entered it hangs nothing.")  # fmt: skip
    points = anchors(build.survey, package) if package.brackets else {}
    for bracket in package.brackets:
        for end in (bracket.start, bracket.end):
            hole = points.get(end)
            if hole is not None and hole.sort == "hole" and BOLTS[bracket.bolt].diameter > hole.diameter + 1e-6:
                yield Finding("bolt_in_hole", "problem", (*where, "brackets", bracket.id, "bolt"), f"{bracket.name or bracket.id}: {BOLTS[bracket.bolt].name} does not pass the surveyed hole",
                              f"{hole.words} is {both(hole.diameter, 'length')}.", value=hole.diameter, limit=BOLTS[bracket.bolt].diameter)  # fmt: skip


def _shroud(package: Package, pressure: float) -> Found:
    where = ("packages", package.id, "shroud")
    for fault in ring_of(package)[1]:
        yield Finding(
            "ring_fault", "problem", (*where, "ring_opening"), f"Adapter ring: {lowered(fault)}", "Another shroud, or a smaller fan."
        )
    plan = trim_plan(package, pressure)
    if package.shroud.joined:
        yield from _joined(package, plan)
    if plan is None:
        made = pan_plan(package) if package.shroud.kind != "none" else None
        for fault in made.faults if made else ():
            yield Finding(
                "pan_fault",
                "problem",
                (*where, "flange"),
                f"Shroud from sheet: {lowered(fault)}",
                "It cannot be folded, or does not seat, as entered; templates and cut list say so.",
                (choose_act("Flanges only clear of the tanks", (*where, "flanges"), "clear_of_tanks"),)
                if package.shroud.flanges == "all_round" and package.shroud.kind == "full"
                else (),
            )
        return
    for field, fault in plan.wrong:
        yield Finding(
            "trim_fault",
            "problem",
            (*where, field),
            fault,
            "The ring carries the fan and seals its blades: the shroud would be scrap.",
        )
    if math.hypot(*plan.off) > RINGS_OFF:
        yield Finding("fans_off_rings", "doubt", ("packages", package.id, "fans", package.fans[0].id, "x"), f"The fans stand {both(math.hypot(*plan.off), 'length')} from where the shroud's rings are",
                      "Trimmed like this the shroud sits elsewhere on the core than the fans are drawn; airflow and clearances are those of the fans as drawn.",
                      (Act("fans_to_rings", "Put the fans where their rings are", package.id),), value=math.hypot(*plan.off), limit=0.0)  # fmt: skip
    if not plan.now.seats:
        gained = both(plan.proud, "length")
        yield Finding("shroud_proud", "doubt", (*where, "trim_left"), f"The shroud stands {gained} proud of the fins",
                      f"It is wider than the {both(plan.seat[0], 'length')} between the tanks: it rests on them and leaks all round. Trimmed until it seats it seals, and gains {gained} at the pump.",
                      (Act("seat_shroud", "Trim it until it seats", package.id),), value=plan.proud, limit=0.0)  # fmt: skip
    if plan.blank.width < plan.seat[0] - NARROW:
        yield Finding("shroud_narrow", "doubt", (*where, "blank_width"), "The shroud is narrower than the core",
                      f"{both(plan.seat[0] - plan.blank.width, 'length')} of the face stays open beside it: {both(plan.leak, 'airflow')} leak through at the fans' suction.")  # fmt: skip


def _joined(package: Package, plan: TrimPlan | None) -> Found:
    where = ("packages", package.id, "shroud")
    if plan is None:
        yield Finding("join_unmeasured", "doubt", (*where, "blank_width"), "Two shrouds are to be joined and neither is measured",
                      "Width over the flange of each, and what comes off where they meet, give the pan they make.")  # fmt: skip
    elif len(plan.blank.rings) != 2:
        yield Finding("join_fans", "problem", (*where, "joined"), f"Two shrouds joined carry two fans; {len(plan.blank.rings)} stand in this one",
                      "Each brings its own ring.", (flag_act("One shroud only", (*where, "joined"), False),))  # fmt: skip
