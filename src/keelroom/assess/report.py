"""An assessment in words: the ledger's cells and lines, and a table for a terminal."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.figures.assessment import Assessment, CaseFigures, CaseResult
from keelroom.assess.figures.outputs import OF_CASE, day_text
from keelroom.assess.fit.clearances import Fit, Gap
from keelroom.assess.words import worded
from keelroom.assess.words.calibrated import calibrated_by
from keelroom.facts import chance_words, raised
from keelroom.units import KINDS, format_si

VERDICT_WORDS = {
    "holds": "holds",
    "tight": "likely holds",
    "even": "an even chance",
    "over": "over limit",
    "does_not_settle": "does not settle",
}
VERDICT_ROLES = {"holds": "good", "tight": "doubt", "even": "doubt", "over": "problem", "does_not_settle": "problem"}
"""How a verdict is shown: one place for ledger, head and first build."""


def settles_text(figures: CaseFigures, system: str) -> str:
    """The temperature, or that there is none."""
    if figures.verdict == "does_not_settle":
        return "does not settle"
    top = format_si(figures.temperature, KINDS["temperature"], system)
    return (
        f"swings {format_si(figures.swings_from, KINDS['temperature'], system).split()[0]}–{top}"
        if figures.cycles
        else top
    )


def heat_words(value: float | None, system: str) -> str:
    """A temperature with the fans held on [degC]; inf where none settles, None where something is missing."""
    if value is None:
        return "needs more"
    return format_si(value, KINDS["temperature"], system) if math.isfinite(value) else "does not settle"


def fans_run(figures: CaseFigures, system: str) -> str:
    """How much the fans run, and the mean temperature where they cycle."""
    mean = f", {format_si(figures.mean, KINDS['temperature'], system)} in the mean" if figures.cycles else ""
    return f"{figures.fan_command:.0%} of the time{mean}"


def band_text(figures: CaseFigures, system: str) -> str:
    """The band round the temperature, 'low–high', or where its hot end has none."""
    low = format_si(figures.low, KINDS["temperature"], system)
    if figures.low > figures.boiling:
        return "none under boiling"
    if math.isinf(figures.high):
        return f"{low} to no limit"
    high = format_si(figures.high, KINDS["temperature"], system)
    # Where fans switch, the tops of the swings at both ends are the switch's own point.
    return f"{high} either way" if low == high else f"{low.split()[0]}–{high}"


def margin_text(figures: CaseFigures, system: str) -> str:
    """Degrees in hand or over, or how fast it climbs at the limit where it never settles."""
    difference = KINDS["temperature difference"]
    if figures.verdict == "does_not_settle":
        return (
            f"climbs {format_si(figures.climb * 60, difference, system)}/min at the limit"
            if figures.climb
            else "boils under the limit"
        )
    word = "in hand" if figures.margin >= 0 else "over"
    return f"{format_si(abs(figures.margin), difference, system)} {word}"


def as_table(assessment: Assessment, system: str) -> str:
    """The ledger for a terminal: one line per duty case, then totals and findings."""
    rows = ledger_rows(assessment, system)
    full = [row for row in rows if row[2]]
    widths = [max(len(row[k]) for row in full) for k in range(7)]
    lines = [f"{assessment.build.brief.title or 'Untitled build'} — {assessment.package.name}"]
    by = calibrated_by(assessment.build.calibration)
    lines += [f"Every figure is {by}.", ""] if by else [""]
    lines += ["  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)).rstrip() for row in rows]
    lines += ["", *totals_lines(assessment, system), ""]
    lines += [
        f"{finding.level.upper():8} {told.what}\n         {told.why}"
        for finding, told in ((one, worded(one, system)) for one in assessment.findings)
    ]
    return "\n".join(lines)


def case_name(case: CaseResult) -> str:
    """Its name, and that it only stands for information where it does."""
    return case.name if case.counted else f"{case.name} (for information)"


def missing_words(case: CaseResult) -> str:
    """Why a duty case has no figures: what it needs, or what stopped it."""
    if case.stopped is not None:
        return f"not worked out: {case.stopped.why}"
    named = [need.label.lower() for need in case.needs]
    return f"needs {', '.join(named[:3])}" + (f" and {len(named) - 3} more" if len(named) > 3 else "")


def _words(key: str) -> Callable[[CaseFigures, str], str]:
    return OF_CASE[key].text


LEDGER: tuple[tuple[str, Callable[[CaseFigures, str], str]], ...] = (
    ("Settles at", settles_text),
    ("Band (80 %)", band_text),
    ("Margin to limit", margin_text),
    ("Heat in", _words("heat_in_W")),
    ("Air", _words("airflow_m3_s")),
    ("Verdict", lambda figures, _system: VERDICT_WORDS[figures.verdict]),
)
"""Columns of the ledger wherever it is a table, after the duty case's name."""


def ledger_rows(assessment: Assessment, system: str) -> list[tuple[str, ...]]:
    """The ledger as a table, heading first; a duty case that needs more says so."""
    rows: list[tuple[str, ...]] = [("Duty case", *(heading for heading, _ in LEDGER))]
    for case in assessment.cases:
        figures = case.figures
        told = (
            [missing_words(case)] + [""] * (len(LEDGER) - 1)
            if figures is None
            else [cell(figures, system) for _, cell in LEDGER]
        )
        rows.append((case_name(case), *told))
    return rows


FIT_WORDS = {
    "no core": "no core is chosen yet: its face comes first",
    "not surveyed": "the bay is not surveyed",
    "not measured": "not everything near it is measured",
    "does not fit": "does not fit",
    "tight": "clears, but not by more than the tape’s doubt",
    "clears": "clears",
}


def first_needed(assessment: Assessment) -> str:
    """What must be known before any duty case is worked out, in words; '' where one is."""
    cases = assessment.cases
    if not cases or any(case.figures for case in cases):
        return ""
    return ", ".join(dict.fromkeys(need.label.lower() for case in cases for need in case.needs))


def verdict_sentence(fit: Fit) -> str:
    """The verdict by itself."""
    return raised(FIT_WORDS[fit.verdict])


def gap_size(gap: Gap, system: str) -> str:
    """How wide a clearance is, or how far the parts overlap."""
    size = format_si(abs(gap.gap), KINDS["length"], system)
    return f"overlaps {size}" if gap.gap < 0 else size


def gap_words(gap: Gap, system: str) -> str:
    """A clearance in one line: between what, how much, of what is wanted."""
    length = KINDS["length"]
    size = format_si(abs(gap.gap), length, system)
    have = f"overlap by {size}" if gap.gap < 0 else size
    return (
        f"{gap.part.name} to {gap.other.name.lower()}: {have} ± {format_si(gap.worst, length, system)}, "
        f"{format_si(gap.wanted, length, system)} wanted"
    )


def fit_line(assessment: Assessment, system: str) -> str:
    """Whether it fits, with the tightest clearance."""
    fit = assessment.fit
    if fit is None:
        return "Fit: could not be worked out"
    if not fit.surveyed:
        return "Fit: the bay is not surveyed"
    tightest = fit.tightest
    return f"Fit: {FIT_WORDS[fit.verdict]}" + (f". Tightest: {gap_words(tightest, system)}" if tightest else "")


def volts_line(assessment: Assessment) -> str:
    """Volts at the battery and at the worst motor at idle, as a sentence with its space; '' where not known."""
    idle = assessment.electrics.idle if assessment.electrics else None
    if idle is None or not idle.volts:
        return ""
    return f"At idle {idle.balance.voltage:.1f} V at the battery, {min(idle.volts.values()):.1f} V at the worst motor. "


def plain_verdict(assessment: Assessment, system: str) -> str:
    """One paragraph for a message: heat, fit and volts, and what could not be worked out."""
    build, rows = assessment.build, ledger_rows(assessment, system)[1:]
    told = [f"{row[0]} {row[1]} ({row[6]})" if row[2] else f"{row[0]} {row[1]}" for row in rows]
    heat = (
        "; ".join(told)
        if any(case.figures or case.stopped for case in assessment.cases)
        else "no duty case is worked out yet"
    )
    return (
        f"{assessment.package.name or 'Package'} in {build.brief.title or 'this build'}: {heat}. "
        f"{fit_line(assessment, system)}. {volts_line(assessment)}Planning estimates; local codes and licensed "
        "practice come first."
    )


def weather_text(assessment: Assessment, system: str) -> str:
    """How much hotter a day than its own the tightest case that counts is held on, under 0 what it lacks."""
    held = [case.figures.in_hand.weather for case in assessment.counting if case.figures]
    return day_text(min(held), system) if held else ""


def verdict_line(assessment: Assessment, system: str) -> str:
    """How a package stands, in a few words: how many duty cases hold, and the worst of them."""
    solved = [case for case in assessment.counting if case.figures]
    stuck = [case for case in assessment.counting if case.stopped]
    worst = assessment.tightest
    if worst is None or worst.figures is None:
        return f"Not worked out: {stuck[0].stopped.why}" if stuck and stuck[0].stopped else "No figures yet"
    holding = sum(case.figures.held for case in solved if case.figures)
    stand = "All hold" if holding == len(solved) + len(stuck) else f"{holding} of {len(solved) + len(stuck)} hold"
    if stuck:
        stand += f", {len(stuck)} not worked out"
    if worst.figures.verdict == "does_not_settle":
        return f"{stand}; {worst.name} does not settle"
    return (
        f"{stand}; {worst.name} {format_si(worst.figures.temperature, KINDS['temperature'], system)}, "
        f"{margin_text(worst.figures, system)}"
    )


def folded_line(assessment: Assessment, system: str, sign: str = "") -> str:
    """The ledger in one line: verdict, chance over the limit, amps at idle, tightest gap, cost and hours, as far as
    they are known.

    sign : put before costs
    """
    worst, totals, fit = assessment.tightest, assessment.totals, assessment.fit
    parts = [verdict_line(assessment, system)]
    if worst is not None and worst.figures is not None and worst.figures.verdict != "does_not_settle":
        parts.append(f"{chance_words(worst.figures.chance)} over the limit")
    if totals.amps_at_idle is not None and totals.alternator_at_idle is not None:
        parts.append(f"idle {totals.amps_at_idle:.0f} A of {totals.alternator_at_idle:.0f}")
    if fit is not None and fit.tightest is not None:
        parts.append(f"gap {gap_size(fit.tightest, system)}")
    if totals.cost is not None:
        parts.append(f"parts {sign}{totals.cost:.0f}")
    if totals.hours is not None:
        parts.append(f"{totals.hours / 3600:.0f} h")
    return " · ".join(parts)


def totals_lines(assessment: Assessment, system: str, sign: str = "") -> list[str]:
    """Totals and rules of thumb, a line each. sign: put before costs"""
    totals, rules, lines = assessment.totals, assessment.rules, [fit_line(assessment, system)]
    if totals.amps_at_idle is not None and totals.alternator_at_idle is not None:
        lines.append(
            f"Idle, everything on and the fans running: {totals.amps_at_idle:.0f} A of "
            f"{totals.alternator_at_idle:.0f} A the alternator gives hot, {totals.volts_at_idle or 0:.1f} V "
            "at the battery"
        )
    if totals.cost is not None:
        lines.append(f"Parts: {sign}{totals.cost:.0f}")
    if totals.hours is not None:
        lines.append(f"Shop hours: {format_si(totals.hours, KINDS['time'], system)} likely, all hands")
    for name, have, want, kind in (
        ("Frontal-area rule", rules.face_area, rules.face_area_wanted, "area"),
        ("CFM rule", rules.airflow, rules.airflow_wanted, "airflow"),
    ):
        if have is not None and want is not None:
            lines.append(
                f"{name}: {format_si(have, KINDS[kind], system)} against {format_si(want, KINDS[kind], system)} wanted"
            )
    return lines
