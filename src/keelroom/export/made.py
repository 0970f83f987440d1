"""What is made and moved for a package, as rows for the sheet: panels, brackets, neighbours, and how the work is
done."""

from __future__ import annotations

from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.moves import HOW_WORDS, moves_of
from keelroom.assess.fit.panels import KIND_WORDS, WORK_NOTES, panel_plans
from keelroom.assess.words import clauses
from keelroom.document.schema.build import Build
from keelroom.units import KINDS, format_si

Rows = list[tuple[str, ...]]


def panel_rows(build: Build, system: str) -> Rows:
    """Every panel, heading first; () where there is none."""
    rows: Rows = [("Panel", "Is a", "Length", "Foam", "Fitted", "Can be made")]
    for plan in panel_plans(build, build.package):
        own = plan.panel
        foam = (
            f"{format_si(own.foam.si, KINDS['length'], system)}, squeezed {max(plan.share, 0.0):.0%}"
            if own.foam and plan.foam_length
            else "none"
        )
        wrong = "; ".join(clauses((one.fact for one in plan.faults), system))
        rows.append(
            (
                plan.name,
                KIND_WORDS[own.kind].lower(),
                format_si(plan.length, KINDS["length"], system),
                foam,
                "yes" if own.fitted else "no",
                wrong or "yes",
            )
        )
    return rows if len(rows) > 1 else []


def bracket_rows(build: Build, system: str) -> Rows:
    """Every bracket, heading first, with how its holes are carried over."""
    rows: Rows = [("Bracket", "Is a", "Developed", "Safe", "Its holes", "Can be made")]
    for plan in bracket_plans(build, build.package):
        made = plan.made
        rows.append(
            (
                plan.bracket.name or plan.bracket.id,
                made.kind if made else "not known yet",
                format_si(made.developed, KINDS["length"], system) if made else "",
                f"{plan.strap.safety:.1f} times" if plan.strap else "",
                ". ".join(clauses(plan.transfer, system)),
                "; ".join(clauses(plan.faults, system)) or "yes",
            )
        )
    return rows if len(rows) > 1 else []


def move_rows(build: Build, system: str) -> Rows:
    """Every neighbour that is moved, heading first, with its cautions."""
    rows: Rows = [("Neighbour", "What becomes of it", "Hours", "Mind")]
    for moved in moves_of(build, build.package):
        mind = clauses((*(one.fact for one in moved.faults), *moved.notes, *moved.cautions), system)
        rows.append(
            (
                moved.obstacle.name or moved.obstacle.id,
                HOW_WORDS[moved.move.how],
                format_si(moved.seconds, KINDS["time"], system),
                " ".join(mind),
            )
        )
    return rows if len(rows) > 1 else []


def work_notes(build: Build) -> tuple[str, ...]:
    """How panels are taken off and fitted; () where there is none."""
    return WORK_NOTES if build.package.panels else ()
