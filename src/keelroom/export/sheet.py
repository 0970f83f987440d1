"""The build sheet: a first page to hand over, with the verdict in words, duty cases, the drawing, what matters most,
money and hours; then a table of contents and all the rest by chapter."""

from __future__ import annotations

import datetime
import io
from collections.abc import Callable
from pathlib import Path
from typing import Any

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.platypus import (
    CondPageBreak,
    Flowable,
    Image,
    KeepTogether,
    PageBreak,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Table,
    TableStyle,
)
from reportlab.platypus.tableofcontents import TableOfContents

from keelroom.assess.drives.driven import drive_of, lacks
from keelroom.assess.drives.words import headline
from keelroom.assess.electrical.bench import bench_steps, jumper_list
from keelroom.assess.electrical.harness import loom_list, parts_list, splice_list, wire_list
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.loop_told import fill_steps
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.findings import Finding
from keelroom.assess.fit.coolers import LINED, WARM, line_plan, named
from keelroom.assess.handed_out import steps_of
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolers import SPOTS
from keelroom.assess.loop.hose_plans import INSTALL, hose_plans
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.questions.hot_day import day_words, hot_days
from keelroom.assess.report import fit_line, ledger_rows, totals_lines, verdict_line, volts_line
from keelroom.assess.safety import cautions
from keelroom.assess.trials.expected import foretold
from keelroom.assess.trials.judged import Compared, compared, judged
from keelroom.assess.trials.tried import trial_before
from keelroom.assess.trials.words import compared_words, expect_words, trial_words
from keelroom.assess.words import clause, worded
from keelroom.assess.words.calibrated import calibrated_by
from keelroom.assess.work.money import hours_by, priced
from keelroom.assess.work.shopping import parts_cost
from keelroom.core.loop.hoses import MAKES
from keelroom.document.difference import between_packages, value_words
from keelroom.document.fields import measured_fields
from keelroom.document.photos import folder_of, state_of
from keelroom.document.quantity import described
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import UNRELAYED
from keelroom.document.schema.trials import Photo
from keelroom.drawing.elevation import elevation
from keelroom.drawing.fitup import STATE_WORDS, section_sheet
from keelroom.drawing.loop import loop_scene
from keelroom.drawing.strips import laid
from keelroom.drawing.trials import trial_scene
from keelroom.drawing.wiring import wiring
from keelroom.errors import readable
from keelroom.export.made import bracket_rows, move_rows, panel_rows, work_notes
from keelroom.export.pdf import (
    FAINT,
    INK,
    LONGEST_CELL,
    LONGEST_LABEL,
    PAPERS,
    RULE,
    STYLES,
    SceneFlowable,
    fonts,
    safe,
)
from keelroom.export.whole import write_whole
from keelroom.facts import raised
from keelroom.units import KINDS, format_si, money_text

WIDTH = A4[0] - 30 * mm
MOST_FINDINGS, MOST_GAPS = 12, 10
FIT_WIDTH = 0.9


def write_sheet(
    assessment: Assessment,
    path: Path,
    system: str,
    today: datetime.date | None = None,
    paper: str = "A4",
    sign: str = "",
    file: Path | None = None,
) -> None:
    """Write the sheet of the build it was made of, on a paper of PAPERS, with a currency's sign before costs.

    file : of the build, beside which its photos stand
    Raises ExportError saying why where it cannot be written; an older sheet then stays."""
    write_whole(
        path, sheet_bytes(assessment, system, (today or datetime.date.today(), paper, sign), file), "sheet_not_written"
    )


def sheet_bytes(
    assessment: Assessment, system: str, given: tuple[datetime.date, str, str], file: Path | None = None
) -> bytes:
    """The PDF's bytes. given: the day it bears, the paper, the currency's sign. A part that cannot be made says so in
    its place."""
    (today, paper, sign), build = given, assessment.build
    fonts()
    buffer = io.BytesIO()
    title = readable(build.brief.title, LONGEST_CELL) or "Untitled build"
    document = _Sheet(
        buffer,
        pagesize=PAPERS[paper],
        leftMargin=15 * mm,
        rightMargin=15 * mm,
        topMargin=14 * mm,
        bottomMargin=16 * mm,
        title=title,
        author="Keel Room",
        invariant=1,
    )
    stamp = (
        f"{today.isoformat()} · document revision {build.revision} · package: "
        f"{readable(build.package.name, LONGEST_CELL)}"
        f"{' · figures ' + by if (by := calibrated_by(build.calibration)) else ''}"
    )
    contents = TableOfContents(dotsMinLevel=0, levelStyles=[STYLES["body"]])
    story = [
        Paragraph(safe(title), STYLES["title"]),
        Paragraph(safe(stamp), STYLES["small"]),
        *_first_page(assessment, system, sign),
        PageBreak(),
        Paragraph("Contents", STYLES["verdict"]),
        contents,
        *_part("The quote", lambda: _quote(assessment, sign)),
        *_part("What is changed", lambda: _changed(build)),
        *_part("Fit-up", lambda: _fit(build, assessment, system)),
        *_part("Made parts", lambda: _made(build, system)),
        *_part("Coolers", lambda: _coolers(build, assessment, system)),
        *_part("Coolant circuit", lambda: _circuit(build, assessment, system)),
        *_part("Electrical", lambda: _electrics(build, assessment, system)),
        *_part("Drives", lambda: _drives(build, system)),
        *_part("Trials", lambda: _trials(build, system, file)),
        *_part("Brief", lambda: _brief(build, system)),
        *_findings(assessment, system),
        Paragraph("Cautions", STYLES["head"]),
        *(Paragraph("• " + safe(text), STYLES["small"]) for text in cautions(*steps_of(build))),
    ]
    document.multiBuild(_with_room(story), onFirstPage=_foot, onLaterPages=_foot)
    return buffer.getvalue()


UNDER_A_HEADING = 30 * mm
"""Room a heading wants under it, else it goes to the next page."""


def _with_room(story: list[Flowable]) -> list[Flowable]:
    """The story with no heading alone at a page's end."""
    found: list[Flowable] = []
    for one in story:
        if isinstance(one, Paragraph) and one.style is STYLES["head"]:
            found.append(CondPageBreak(UNDER_A_HEADING))
        found.append(one)
    return found


class _Sheet(SimpleDocTemplate):  # type: ignore[misc]
    """Tells the table of contents of every heading."""

    def afterFlowable(self, flowable: Flowable) -> None:
        if isinstance(flowable, Paragraph) and flowable.style is STYLES["head"]:
            self.notify("TOCEntry", (0, flowable.getPlainText(), self.page))


def _foot(canvas: Any, document: Any) -> None:
    """The build's title and the page at the foot."""
    canvas.saveState()
    canvas.setFont("Body", STYLES["small"].fontSize)
    canvas.setFillColor(FAINT)
    wide, _ = document.pagesize
    canvas.drawString(15 * mm, 9 * mm, readable(document.title, LONGEST_LABEL))
    canvas.drawRightString(wide - 15 * mm, 9 * mm, f"page {document.page}")
    canvas.restoreState()


MATTER = 5
"""Findings told on the first page."""


def _first_page(assessment: Assessment, system: str, sign: str) -> list[Flowable]:
    """The verdict in words, the duty cases, the drawing, what matters most, money and hours."""
    build = assessment.build
    said = ". ".join(filter(None, (fit_line(assessment, system), volts_line(assessment).rstrip(". "))))
    telling = _telling(assessment)
    story: list[Flowable] = [
        Paragraph(safe(f"{verdict_line(assessment, system)}."), STYLES["verdict"]),
        Paragraph(safe(f"{said}."), STYLES["body"]),
        Spacer(1, 6),
        _ledger(assessment, system),
        Paragraph(safe(" · ".join(_besides(assessment, system, sign))), STYLES["small"]),
        Spacer(1, 6),
        *_part("The drawing", lambda: [_drawing_and_package(build, system)]),
        Paragraph(f"What matters most, of {len(assessment.findings)} findings" if telling else "", STYLES["verdict"]),
    ]
    for finding in telling:
        told = worded(finding, system)
        mend = f" Mend: {safe(finding.fix[0].label)}." if finding.fix else ""
        words = f'<font name="Strong">{safe(told.what)}</font>. {safe(told.why, LONGEST_WHY)}{mend}'
        story.append(Paragraph(words, STYLES["body"]))
    story += [
        Paragraph("Money and hours", STYLES["verdict"]),
        *(Paragraph(safe(line), STYLES["body"]) for line in _costs(assessment, system, sign)),
    ]
    return story


def _besides(assessment: Assessment, system: str, sign: str) -> list[str]:
    """Of the totals what is neither money nor hours, nor said already."""
    said = {*_costs(assessment, system, sign), fit_line(assessment, system)}
    return [line for line in totals_lines(assessment, system, sign) if line.rstrip(".") not in said]


def _costs(assessment: Assessment, system: str, sign: str) -> list[str]:
    """Of the totals what it costs in money and hours."""
    return [line for line in totals_lines(assessment, system, sign) if line.startswith(("Parts", "Shop hours"))]


LONGEST_WHY = 200
"""Characters of a finding's reason on the first page."""


def _telling(assessment: Assessment) -> list[Finding]:
    """The gravest findings, of every station one before any has two."""
    found: list[Finding] = []
    left = list(assessment.findings)
    while left and len(found) < MATTER:
        seen: set[tuple[str, ...]] = set()
        for finding in list(left):
            if finding.level == left[0].level and finding.where[:3] not in seen and len(found) < MATTER:
                seen.add(finding.where[:3])
                found.append(finding)
                left.remove(finding)
    return found


def _part(name: str, made: Callable[[], list[Flowable]]) -> list[Flowable]:
    """A part of the sheet; where it cannot be made, the sentence that says why."""
    found = attempted(name, (), made)
    return [Paragraph(safe(found.sentence), STYLES["body"])] if isinstance(found, Stopped) else found


def _grid(rows: list[list[Any]], widths: list[float], header: bool = True) -> Table:
    cells = [[Paragraph(safe(str(cell), LONGEST_CELL), STYLES["body"]) for cell in row] for row in rows]
    style = [
        ("LINEBELOW", (0, 0), (-1, -1), 0.3, RULE),
        ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("TOPPADDING", (0, 0), (-1, -1), 1.5),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
        ("LEFTPADDING", (0, 0), (-1, -1), 2),
    ]
    if header:
        style.append(("LINEBELOW", (0, 0), (-1, 0), 0.9, INK))
    return Table(cells, colWidths=widths, style=TableStyle(style), hAlign="LEFT")


def _ledger(assessment: Assessment, system: str) -> Table:
    shares = (0.22, 0.13, 0.16, 0.19, 0.09, 0.10, 0.11)
    return _grid(list(map(list, ledger_rows(assessment, system))), [share * WIDTH for share in shares])


def _drawing_and_package(build: Build, system: str) -> Table:
    package = build.package
    lines = [
        [spec.label, described(value, spec.kind, system)]
        for path, spec, value in measured_fields(package.core)
        if value is not None and path[0] in ("face_width", "face_height", "depth", "rows", "fin_density", "cost")
    ]
    lines.insert(0, ["Core", package.core.name or "as entered"])
    for fan in package.fans:
        rating = (
            format_si(fan.free_air_flow.si, KINDS["airflow"], system) + " rated" if fan.free_air_flow else "curve typed"
        )
        lines.append(["Fan", f"{fan.name or 'as entered'} ({rating})"])
    lines.append(["Shroud", package.shroud.kind])
    table = _grid(lines, [0.12 * WIDTH, 0.30 * WIDTH], header=False)
    return Table(
        [[SceneFlowable(elevation(package, system, build.survey), 0.54 * WIDTH), table]],
        colWidths=[0.56 * WIDTH, 0.44 * WIDTH],
        style=TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, 0), 0)]),
    )


def _quote(assessment: Assessment, sign: str) -> list[Flowable]:
    """Parts with their prices, and the hours by what takes them."""
    build, package = assessment.build, assessment.package
    parts = priced(build, package)
    rows: list[list[Any]] = [["Part", "Price"]]
    rows += [[part.name, money_text(part.price, sign)] for part in parts if part.price is not None]
    total = parts_cost(build, package)
    if total is not None:
        rows.append(["Parts together", money_text(total, sign)])
    without = list(dict.fromkeys(part.name for part in parts if part.price is None))
    taken = hours_by(build, package)
    hours: list[list[Any]] = [["Work", "Hours"]]
    if taken:
        hours += [[safe(words), f"{number:.1f}"] for words, number in taken]
        hours.append(["Hours together, likely", f"{sum(number for _, number in taken):.1f}"])
    story: list[Flowable] = [Paragraph("Quote", STYLES["head"])]
    story += [_grid(table, [0.6 * WIDTH, 0.2 * WIDTH]) for table in (rows, hours) if len(table) > 1]
    if without:
        story.append(Paragraph(safe(f"Not priced yet: {', '.join(without)}."), STYLES["small"]))
    return [*story, Spacer(1, 6)]


MOST_CHANGES = 40
"""Changes from the car as found told on a sheet; the packages' list tells all."""


def _changed(build: Build) -> list[Flowable]:
    """What is changed from the car as found, where that was kept and is not what the sheet is of."""
    found = build.of_kind("as_found")
    if found is None or found.id == build.active:
        return []
    changes = between_packages(build, found.id, build.active)
    rows: list[list[Any]] = [["Changed", "From the car as found", "To"]]
    for change in changes[:MOST_CHANGES]:
        now, was = value_words(change)
        rows.append([raised(" / ".join(change.place)), was or "—", now])
    if len(changes) > MOST_CHANGES:
        rows.append([f"and {len(changes) - MOST_CHANGES} more", "", ""])
    if len(rows) == 1:
        rows.append(["Nothing", "", ""])
    return [
        Paragraph("What is changed from the car as found", STYLES["head"]),
        _grid(rows, [0.4 * WIDTH, 0.3 * WIDTH, 0.3 * WIDTH]),
        Spacer(1, 6),
    ]


def _fit(build: Build, assessment: Assessment, system: str) -> list[Flowable]:
    """The three views in the bay, and the clearances that are closest to their rule."""
    fit = assessment.fit
    if fit is None or not fit.surveyed:
        return []

    def length(si: float) -> str:
        return format_si(si, KINDS["length"], system).replace("-", "−")

    rows = [
        [
            f"{gap.part.name} to {gap.other.name.lower()}",
            length(gap.gap),
            f"± {length(gap.worst)}",
            length(gap.wanted),
            "not measured" if gap.other.unknown else STATE_WORDS[gap.state],
        ]
        for gap in fit.gaps[:MOST_GAPS]
    ]
    table = _grid(
        [["Clearance", "Gap", "Worst case", "Wanted", "State"], *rows],
        [share * WIDTH for share in (0.40, 0.15, 0.15, 0.15, 0.15)],
    )
    drawing = SceneFlowable(section_sheet(build, build.package, fit, system), FIT_WIDTH * WIDTH)
    return [KeepTogether([Paragraph("Fit", STYLES["head"]), drawing]), KeepTogether([table, Spacer(1, 6)])]


def _made(build: Build, system: str) -> list[Flowable]:
    """Panels, brackets, moved neighbours, and how the work is done."""
    story: list[Flowable] = []
    for title, rows, shares in (
        ("Panels and seals", panel_rows(build, system), (0.20, 0.12, 0.12, 0.20, 0.08, 0.28)),
        ("Brackets", bracket_rows(build, system), (0.16, 0.09, 0.11, 0.09, 0.40, 0.15)),
        ("Neighbours", move_rows(build, system), (0.18, 0.18, 0.10, 0.54)),
    ):
        if rows:
            story += [
                Paragraph(title, STYLES["head"]),
                _grid([list(row) for row in rows], [share * WIDTH for share in shares]),
            ]
    story += [Paragraph("• " + safe(note), STYLES["small"]) for note in work_notes(build)]
    return [*story, Spacer(1, 6)] if story else []


def _coolers(build: Build, assessment: Assessment, system: str) -> list[Flowable]:
    """Fluids of the other coolers by duty case, and what their lines want."""
    if not build.package.coolers:
        return []
    kind, rows = KINDS["temperature"], []
    for case in assessment.cases:
        if case.figures is None:
            continue
        fluids = case.figures.fluids
        ac = (
            f"{format_si(fluids.condensing, kind, system)}, "
            f"{format_si(fluids.head_pressure, KINDS['pressure'], system)}"
            if fluids.heated("refrigerant")
            else "off"
        )
        charge = format_si(fluids.charge, kind, system) if fluids.heated("charge") else "—"
        rows.append(
            [case.name, format_si(fluids.gearbox, kind, system), format_si(fluids.oil, kind, system), charge, ac]
        )
    head = ["Duty case", "Gearbox fluid", "Engine oil", "Intake air", "A/C condenses at"]
    story: list[Flowable] = [
        KeepTogether(
            [
                Paragraph("Other coolers", STYLES["head"]),
                _grid([head, *rows], [share * WIDTH for share in (0.28, 0.17, 0.17, 0.17, 0.21)]),
            ]
        )
    ]
    for cooler in build.package.coolers:
        if cooler.kind in LINED:
            plan = line_plan(build.package, cooler, *WARM)
            size, thread = plan.fitting
            words = (
                f"{named(cooler)}, {SPOTS[cooler.stands].words}: size {size} fittings ({thread}), no hose "
                f"bent under {format_si(plan.bend, KINDS['length'], system)}, "
                f"{plan.fluid * 1e3:.2f} L of fluid more; topped up warm with the engine running, by the "
                "vehicle maker's procedure."
            )
            story.append(Paragraph(safe(words), STYLES["body"]))
    return [*story, Spacer(1, 6)]


def _circuit(build: Build, assessment: Assessment, system: str) -> list[Flowable]:
    """The coolant circuit in elevation at idle, its hoses, and how it is filled, on a page of its own."""
    package = build.package
    graph = graph_of(build, package)
    if not graph.whole:
        return []
    idle = assessment.idle
    scene = loop_scene(
        build,
        package,
        idle.loop if idle and idle.verdict != "does_not_settle" else None,
        air_in(build, package, assessment),
        system,
    )
    rows = [["Hose", "Made as", "Bore", "Cut to", "Clamps"]]
    for plan in hose_plans(build, package):
        cut = format_si(plan.cut, KINDS["length"], system) if plan.cut else "not measured"
        rows.append(
            [
                plan.run.name,
                MAKES[plan.run.hose.kind],
                format_si(plan.run.bore, KINDS["length"], system),
                cut,
                " + ".join(dict.fromkeys(clamp.name for clamp in plan.clamps)),
            ]
        )
    story: list[Flowable] = [
        KeepTogether([Paragraph("Coolant circuit, idling", STYLES["head"]), SceneFlowable(scene, FIT_WIDTH * WIDTH)]),
        _grid(rows, [share * WIDTH for share in (0.22, 0.24, 0.12, 0.14, 0.28)]),
        *(Paragraph("• " + safe(note), STYLES["small"]) for note in INSTALL),
        Paragraph("Fill and bleed", STYLES["head"]),
    ]
    steps: list[list[Any]] = [["", "Stage", "What is done"]]
    steps += [
        [str(k), step.stage, clause(step.fact, system)] for k, step in enumerate(fill_steps(build, assessment), 1)
    ]
    return [*story, _grid(steps, [share * WIDTH for share in (0.05, 0.09, 0.86)]), Spacer(1, 6)]


def _electrics(build: Build, assessment: Assessment, system: str) -> list[Flowable]:
    """Circuits in figures, the wiring drawing, the harness lists and the bench tests."""
    found, package = assessment.electrics, build.package
    scene = wiring(build, package, assessment, system)
    if found is None or scene is None:
        return []
    rows = [
        [
            one.circuit.name or one.circuit.id,
            f"{one.continuous:.1f} / {one.starting.current:.0f} / {one.stalled:.0f} A",
            f"{one.at_idle:.1f} / {one.at_cruise:.1f} V",
            f"{one.drop:.2f} V",
            f"{one.circuit.fuse.si:g} A" if one.circuit.fuse else "none",
            f"{one.circuit.relay.si:g} A" if one.circuit.relay and one.circuit.switch not in UNRELAYED else "none",
        ]
        for one in found.circuits
    ]
    head = ["Circuit", "Running / start / stalled", "At the motor, idle / road", "Lost", "Fuse", "Relay"]
    table = _grid([head, *rows], [share * WIDTH for share in (0.26, 0.22, 0.22, 0.10, 0.10, 0.10)])
    story: list[Flowable] = [
        KeepTogether(
            [Paragraph("Electrical", STYLES["head"]), table, Spacer(1, 4), SceneFlowable(scene, FIT_WIDTH * WIDTH)]
        )
    ]
    lists = (
        (
            "Harness: cut list",
            [row[:-1] for row in wire_list(build, package, found, system)],
            (0.06, 0.10, 0.09, 0.10, 0.28, 0.28, 0.09),
        ),
        ("Connectors, terminals, fuses, relays", parts_list(build, package, found), (0.62, 0.08, 0.30)),
        ("Joints", splice_list(build, package, found), (0.36, 0.18, 0.12, 0.34)),
        ("Loom and shrink", loom_list(build, package, found, system), (0.40, 0.12, 0.22, 0.26)),
        ("Jumper from a three-wire vehicle plug", jumper_list(found), (0.24, 0.14, 0.18, 0.10, 0.34)),
    )
    for title, listed, shares in lists:
        if len(listed) > 1:
            story += [
                Paragraph(title, STYLES["head"]),
                _grid([list(row) for row in listed], [share * WIDTH for share in shares]),
            ]
    steps = [
        [str(k), step.name, " ".join(filter(None, (step.how, step.expected, step.mind)))]
        for k, step in enumerate(bench_steps(build, package, found, system), 1)
    ]
    story += [
        Paragraph("Bench tests, in this order", STYLES["head"]),
        _grid([["", "Test", "How, and what to expect"], *steps], [share * WIDTH for share in (0.05, 0.28, 0.67)]),
        Spacer(1, 6),
    ]
    return story


MOST_DRIVES, MOST_TRIALS, DRIVE_WIDTH = 4, 4, 0.76
"""drives a sheet shows, and the share of its width they take: two stand on a page"""


def _drives(build: Build, system: str) -> list[Flowable]:
    """What the package does over time: each drive in words, and its strips."""
    if lacks(build, build.package):
        return []
    story: list[Flowable] = []
    for schedule in build.driving.schedules[:MOST_DRIVES]:
        name, found = schedule.name or schedule.id, drive_of(build, build.package, schedule)
        head = Paragraph(safe(f"Drive: {name}"), STYLES["head"])
        if isinstance(found, Stopped):
            story += [head, Paragraph(safe(f"{found.sentence}."), STYLES["body"])]
            continue
        told = [Paragraph(safe(words), STYLES["body"]) for _, words in headline(found, system)]
        drawn = SceneFlowable(laid(found, system).scene, DRIVE_WIDTH * WIDTH)
        story.append(KeepTogether([head, *told, Spacer(1, 4), drawn, Spacer(1, 6)]))
    return story


def _trials(build: Build, system: str, file: Path | None) -> list[Flowable]:
    """The proof: what was measured against what was foretold, and what that means for the hot cases."""
    story: list[Flowable] = []
    for trial in build.logbook.trials[-MOST_TRIALS:]:
        found = foretold(build, trial)
        head = Paragraph(safe(f"Trial: {trial.name or trial.id}"), STYLES["head"])
        lines = [words for _, words in trial_words(build, trial, judged(build, trial), system)]
        if isinstance(found, Stopped):
            story += [head, *(Paragraph(safe(words), STYLES["body"]) for words in (*lines, f"{found.sentence}."))]
            story += photos(trial.photos, file)
            continue
        read = [one for one in found.expects if one.read is not None]
        before = trial_before(build, trial)
        against = compared(build, before, trial) if before else None
        if before and isinstance(against, Compared):
            lines += [words for _, words in compared_words(before, trial, against, system)]
        lines += [f"Verdict: {trial.verdict}"] if trial.verdict else []
        lines += [f"{one.sensor.name}: foretold {expect_words(one, system)}." for one in read]
        told = [Paragraph(safe(words), STYLES["body"]) for words in lines]
        drawn = SceneFlowable(trial_scene(trial, found, system, before), DRIVE_WIDTH * WIDTH)
        story.append(KeepTogether([head, *told, Spacer(1, 4), drawn, Spacer(1, 6)]))
        story += photos(trial.photos, file)
    if build.calibration.on:
        story.append(
            Paragraph(safe(f"Every figure of this sheet is {calibrated_by(build.calibration)}."), STYLES["body"])
        )
        story += [
            Paragraph(safe(words), STYLES["body"]) for words in day_words(hot_days(build, build.calibration), system)
        ]
    return story


PHOTO_WIDE, PHOTO_HIGH = 80 * mm, 60 * mm
"""A photo on the sheet is no larger."""


def photos(there: tuple[Photo, ...], file: Path | None) -> list[Flowable]:
    """Photos with their words; what is gone or another is said in its place."""
    story: list[Flowable] = []
    for one in there:
        state, words = state_of(file, one), one.note or one.file
        if file is None or state != "there":
            said = "not in the folder beside the build" if state == "missing" else "another than was taken in"
            story.append(Paragraph(safe(f"Photo “{words}”: {said}."), STYLES["small"]))
            continue
        try:
            picture = Image(str(folder_of(file) / one.file))
        except OSError:
            story.append(Paragraph(safe(f"Photo “{words}” cannot be read."), STYLES["small"]))
            continue
        scale = min(PHOTO_WIDE / picture.imageWidth, PHOTO_HIGH / picture.imageHeight)
        picture.drawWidth, picture.drawHeight = scale * picture.imageWidth, scale * picture.imageHeight
        picture.hAlign = "LEFT"
        story.append(KeepTogether([picture, Paragraph(safe(words), STYLES["small"]), Spacer(1, 4)]))
    return story


def _brief(build: Build, system: str) -> list[Flowable]:
    brief = build.brief
    texts = [f"{text}" for text in (brief.use, brief.notes) if text]
    pairs = [
        (spec.label, described(value, spec.kind, system), value.origin)
        for section in (
            brief.vehicle,
            brief.engine,
            brief.climate,
            brief.cooling,
            build.package.loop,
            build.package.coolant,
        )
        for _, spec, value in measured_fields(section)
        if value is not None
    ]
    cells = [f"{label}: {value}" + (" (assumed)" if origin == "assumed" else "") for label, value, origin in pairs]
    rows = [[*cells[i : i + 4], *[""] * (4 - len(cells[i : i + 4]))] for i in range(0, len(cells), 4)]
    return [
        Paragraph("Brief", STYLES["head"]),
        *(Paragraph(safe(text), STYLES["body"]) for text in texts),
        _grid(rows, [0.25 * WIDTH] * 4, header=False),
    ]


def _findings(assessment: Assessment, system: str) -> list[Flowable]:
    problems = sum(finding.level == "problem" for finding in assessment.findings)
    most = max(MOST_FINDINGS, problems)  # every problem; of the rest as many as there is room for
    shown = assessment.findings[:most]
    story: list[Flowable] = [Paragraph("Findings", STYLES["head"])]
    if not shown:
        story.append(Paragraph("None.", STYLES["body"]))
    story += [
        Paragraph(f'<font name="Strong">{finding.level}: {safe(told.what)}</font> — {safe(told.why)}', STYLES["body"])
        for finding, told in ((finding, worded(finding, system)) for finding in shown)
    ]
    if len(assessment.findings) > most:
        left = f"and {len(assessment.findings) - most} open questions and notes more in the application."
        story.append(Paragraph(left, STYLES["small"]))
    return story
