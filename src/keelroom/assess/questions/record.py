"""The record that is handed over: what was done, fitted, cut, wired, filled, tested; what stays open, what to watch."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import NamedTuple

from keelroom.assess.drives.words import clock
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.outcome import Stopped
from keelroom.assess.safety import cautions, known
from keelroom.assess.trials.expected import foretold
from keelroom.assess.trials.judged import judged
from keelroom.assess.trials.words import expect_words, trial_words
from keelroom.assess.words import worded
from keelroom.assess.words.calibrated import calibrated_by
from keelroom.assess.work.jobs import jobs_of
from keelroom.assess.work.money import HOUR, Band, Estimate, hours_by
from keelroom.assess.work.plan import FINISHED, Plan
from keelroom.assess.work.shopping import shopping
from keelroom.document.difference import differences
from keelroom.document.difference import worded as difference_words
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Control
from keelroom.document.schema.package import Package
from keelroom.document.schema.trials import Photo
from keelroom.document.schema.work import Tick
from keelroom.document.snapshot import unpacked
from keelroom.units import KINDS, format_si, money_text

WENT = {"done": "as planned", "twice": "made twice", "other": "with another part", "stopped": "stopped before its end"}
FITTED = ("core", "fan", "fan_bare", "engine_fan", "condenser", "cooler", "part", "pump", "panel", "bracket", "frame")
CUT, MOVED = ("cut", "port", "core_away"), ("move",)
AFTER_DRIVE = (
    "Cold: level in the tank and the overflow bottle; what it took is noted.",
    "Under the car: no drop at clamps, ports, drain and pump; a lamp behind the pump.",
    "Hand on every connector and fuse after idling with everything on: none too warm to hold.",
    "Bolts of core, fans and brackets once more, cold.",
)
AFTER_WEEK = (
    "Clamps once more, cold: new hoses settle.",
    "Brackets and pads for cracks and rub marks; edge trim in its place.",
    "Hood shut over clay or paper: nothing has moved.",
    "Battery’s rest volts in the morning; belt’s tension.",
    "What the gauge reads at the same light on a like day.",
)
MOST_OPEN, MOST_CHANGES = 20, 40


class Section(NamedTuple):
    """A part of the record: its heading, its lines, photos that belong to it."""

    title: str
    lines: tuple[str, ...]
    photos: tuple[Photo, ...] = ()


def record(assessment: Assessment, plan: Plan, system: str, sign: str = "") -> tuple[Section, ...]:
    """All of the record, for the next shop; parts that have nothing are left out."""
    build, package = assessment.build, assessment.package
    found = (
        Section("What was done", tuple(_done(plan, build.work.ticks, package.id))),
        Section("Otherwise than planned", tuple(_otherwise(plan, build, package.id))),
        Section("Fitted", tuple(_of(build, package, FITTED))),
        Section("Cut, closed, moved", tuple(_of(build, package, (*CUT, *MOVED)))),
        Section("Wired", tuple(_wired(package, system))),
        Section("Filled", tuple(_filled(package, system))),
        *_tests(build, system),
        Section("Bought", tuple(_bought(build, package, sign))),
        Section("Changed since the last record", _changed(build, package)),
        Section("Open", tuple(_open(assessment, plan))),
        Section("After the first drive", AFTER_DRIVE),
        Section("After a week", AFTER_WEEK),
        Section("Templates kept", tuple(_templates(package))),
        Section("Notes, and what one would do otherwise", tuple(_lines(build.work.notes))),
        Section("Photos", (), tuple(photo for tick in build.work.ticks for photo in tick.photos)),
    )
    return tuple(one for one in found if one.lines or one.photos)


def owners_page(assessment: Assessment, plan: Plan, system: str) -> tuple[Section, ...]:
    """A page for the owner, in plain words."""
    build, package = assessment.build, assessment.package
    by = calibrated_by(build.calibration)
    worst = assessment.tightest
    cool = [f"The package is {package.name or package.id}."]
    if worst is not None and worst.figures is not None:
        top = format_si(worst.figures.temperature, KINDS["temperature"], system)
        limit = format_si(assessment.limit, KINDS["temperature"], system) if assessment.limit else "its limit"
        cool.append(
            f"Hardest for it is {worst.name}: {top} are reckoned there{', ' + by if by else ''}; limit {limit}."
        )
    control = package.control
    if control.fan_on is not None:
        on, off = _set_points(control, system)
        cool.append(f"The fans start at {on} and stop at {off}; they may start by themselves, with the key off too.")
    watch = (
        "Never open a cap on a warm engine.",
        "A gauge that climbs past where it always stood: stop, let it cool, call the shop.",
        *AFTER_DRIVE[:2],
    )
    return (
        Section("What your car got", tuple(job.name for job in jobs_of(build, package) if set(job.acts) & set(FITTED))),
        Section("How it keeps cool", tuple(cool)),
        Section("What to watch", watch),
        Section("Come back", ("After the first hundred miles and after a week: ten minutes of looking.",)),
        Section("Still open", tuple(step.words for step in plan.left[:MOST_OPEN]) if plan.ticks else ()),
    )


def why_hours(build: Build, package: Package, plan: Plan, estimate: Estimate) -> tuple[str, ...]:
    """Why it takes so long, for a customer: where the hours go, what of them nobody sees, and how sure they are."""
    taken = hours_by(build, package)
    whole = sum(hours for _, hours in taken)
    if not taken:
        return ("There is no work in this package.",)
    groups, largest = _grouped(plan), sorted(taken, key=lambda one: -one[1])[:5]
    said = [
        f"{whole:.0f} hours are likely; in 80 of 100 such jobs it is {_span(estimate.hours)}.",
        *(f"{words}: {hours:.1f} h." for words, hours in groups if hours >= 0.1),
        f"Largest: {', '.join(f'{name} {hours:.1f} h' for name, hours in largest)}.",
        "What is made is tried, taken off, finished and put back: one made part in three is made twice.",
    ]
    if plan.off_road is not None:
        said.append("The car stands open from its first bolt to the bled circuit: parts are here before that.")
    waits = [step for step in plan.steps if step.waits >= HOUR / 2]
    if waits:
        waited = sum(step.waits for step in waits) / HOUR
        said.append(f"Paint, sealant and cooling down wait {waited:.0f} h by themselves.")
    return tuple(said)


SEEN = {
    "Taking out and opening": ("front_off", "drained", "bare"),
    "Trying, measuring and making": ("mocked_up",),
    "Wiring": ("wired",),
    "Filling and bleeding": ("filled",),
    "Proving it": ("proven",),
    "Before and after": ("drivable",),
}


def _grouped(plan: Plan) -> list[tuple[str, float]]:
    found = dict.fromkeys(SEEN, 0.0)
    for step in plan.steps:
        words = next(words for words, states in SEEN.items() if step.state in states)
        found[words] += step.likely * step.hands * (1 + step.again) / HOUR
    return list(found.items())


def _span(band: Band) -> str:
    return f"{band.low / HOUR:.0f} to {band.high / HOUR:.0f}"


def _done(plan: Plan, ticks: Iterable[Tick], package: str) -> Iterator[str]:
    order = {step.key: place for place, step in enumerate(plan.steps)}
    own = [tick for tick in ticks if tick.package == package and tick.went in FINISHED]
    for tick in sorted(own, key=lambda one: (one.day, order.get(one.step, len(order)))):
        took = f", {clock(tick.took.si)}" if tick.took else ""
        who = f", {tick.who}" if tick.who else ""
        note = f" {tick.note}" if tick.note else ""
        yield f"{tick.day or 'undated'}: {tick.words} ({WENT[tick.went]}{took}{who}).{note}"


def _otherwise(plan: Plan, build: Build, package: str) -> Iterator[str]:
    """Made twice, with another part, stopped; done and no longer planned; much longer than planned."""
    for tick in build.work.ticks:
        if tick.package != package:
            continue
        if tick.went != "done":
            yield f"{WENT[tick.went].capitalize()}: {tick.words} {tick.note}".strip()
        elif tick.took is not None and tick.planned and tick.took.si > LONGER * tick.planned:
            yield f"{clock(tick.took.si)} instead of {clock(tick.planned)}: {tick.words}"
    for tick in plan.gone:
        yield f"Done, and no longer in the plan: {tick.words}"


LONGER = 1.5
"""Times planned from which a step is told to have taken longer."""


def _of(build: Build, package: Package, acts: tuple[str, ...]) -> Iterator[str]:
    for job in jobs_of(build, package):
        if set(job.acts) & set(acts):
            told = dict(job.words)
            more = told.get("how") or told.get("state") or told.get("length") or ""
            yield f"{job.name}{', ' + more if more else ''}"


def _wired(package: Package, system: str) -> Iterator[str]:
    for number, circuit in enumerate(package.circuits, 1):
        fuse = f"{circuit.fuse.si:.0f} A fuse" if circuit.fuse else "no fuse"
        size, feeds = circuit.feed.size.as_typed, ", ".join(circuit.feeds) or "nothing"
        yield f"Wire {number}, {circuit.name or circuit.id}: {fuse}, {size}, {circuit.switch}, feeds {feeds}"
    control = package.control
    if package.fans:
        on, off = _set_points(control, system)
        yield f"Set points: on {on}, off {off}; sensor in {control.sensor.replace('_', ' ')}"


def _set_points(control: Control, system: str) -> tuple[str, str]:
    on, off = (
        format_si(one.si, KINDS["temperature"], system) if one else "its own"
        for one in (control.fan_on, control.fan_off)
    )
    return on, off


def _filled(package: Package, system: str) -> Iterator[str]:
    coolant, loop = package.coolant, package.loop
    share = f"{coolant.glycol_share.si:.0%} " if coolant.glycol_share else ""
    cap = f", cap {format_si(loop.cap_pressure.si, KINDS['pressure'], system)}" if loop.cap_pressure else ""
    yield f"{share}{coolant.glycol.replace('_', ' ')}{cap}; filled by {loop.fill_way}"


def _tests(build: Build, system: str) -> Iterator[Section]:
    for trial in build.logbook.trials:
        lines = [words for _, words in trial_words(build, trial, judged(build, trial), system)]
        found = foretold(build, trial)
        if not isinstance(found, Stopped):
            read = [one for one in found.expects if one.read is not None]
            lines += [f"{one.sensor.name}: foretold {expect_words(one, system)}" for one in read]
        lines += [f"Verdict: {trial.verdict}"] if trial.verdict else []
        yield Section(f"Tested: {trial.name or trial.id}, {trial.day or 'undated'}", tuple(lines), trial.photos)


def _bought(build: Build, package: Package, sign: str) -> Iterator[str]:
    for one in shopping(build, package):
        receipt = next((item.receipt for item in build.work.items if item.id == one.key), "")
        if one.in_hand or receipt:
            price = money_text(one.price, sign) if one.price is not None else ""
            yield ", ".join(word for word in (one.name, one.amount, price, one.source, receipt) if word)


def _changed(build: Build, package: Package) -> tuple[str, ...]:
    """What is another in the package than when the record was written last."""
    was = unpacked(build.work.recorded)
    if was is None or was.id != package.id:
        return ()
    before = build.model_copy(update={"packages": tuple(was if one.id == was.id else one for one in build.packages)})
    return tuple(difference_words(one) for one in differences(before, build))[:MOST_CHANGES]


def _open(assessment: Assessment, plan: Plan) -> Iterator[str]:
    for finding in assessment.findings:
        if finding.level == "problem":
            yield worded(finding, "us").what
    for step in plan.left[:MOST_OPEN]:
        yield f"To do: {step.words}"
    if len(plan.left) > MOST_OPEN:
        yield f"and {len(plan.left) - MOST_OPEN} more steps"


def _templates(package: Package) -> Iterator[str]:
    for bracket in package.brackets:
        yield f"Bracket {bracket.name or bracket.id}: its template, DXF and drawing"
    for panel in package.panels:
        if panel.fitted:
            yield f"{panel.name or panel.id}: its template"
    if package.shroud.kind != "none" and not package.shroud.supplied:
        yield "Shroud: its template with the fans’ rings"


def _lines(text: str) -> Iterator[str]:
    return (line.strip() for line in text.splitlines() if line.strip())


def work_data(plan: Plan, estimate: Estimate) -> dict[str, object]:
    """The plan and what it costs in machine form: seconds from midnight before the first day, hours in seconds."""
    by_key = {step.key: step for step in plan.steps}
    return {
        "first_day": plan.first.isoformat() if plan.first else None,
        "hours_s": list(estimate.hours),
        "money": list(estimate.whole) if estimate.whole else None,
        "parts": estimate.parts,
        "done": sorted(plan.done),
        "steps": [
            {
                "key": span.key,
                "words": by_key[span.key].words,
                "state": by_key[span.key].state,
                "begins_s": span.begins,
                "ends_s": span.ends,
                "ready_s": span.ready,
                "who": list(span.who),
                "slack_s": plan.slacks[span.key].late - plan.slacks[span.key].early,
            }
            for span in plan.spans
        ],
    }


def cautions_of(plan: Plan) -> tuple[str, ...]:
    """Every caution of the plan's steps once, in the order it is met."""
    return cautions(*known(dict.fromkeys(one for step in plan.steps for one in step.cautions)))
