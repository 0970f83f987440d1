"""What is wrong, said at the field it is wrong in."""

from __future__ import annotations

from collections.abc import Mapping

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.words import worded
from keelroom.facts import raised
from keelroom.gui.rows import Page, Path


def marks_of(
    assessment: Assessment, page: Page, owners: Mapping[str, str], system: str
) -> tuple[tuple[Path, str], ...]:
    """Problems of a page's fields; what they belong to is plain from their place. owners: names of the list members a
    sentence may begin with"""
    rows = {row.path for group in page.groups for row in group.rows}
    said: dict[Path, list[str]] = {}
    for finding in assessment.findings:
        if finding.level == "problem" and finding.where in rows and finding.code != "not_worked_out":
            owner = next((owners[step] for step in finding.where if step in owners), "")
            said.setdefault(finding.where, []).append(raised(worded(finding, system).what.removeprefix(f"{owner}: ")))
    return tuple((path, "\n".join(texts)) for path, texts in said.items())


def stop_marks(assessment: Assessment, page: Page) -> tuple[tuple[Path, str], ...]:
    """What a field's entry keeps from being worked out, said under the field itself."""
    rows = {row.path for group in page.groups for row in group.rows}
    return tuple(
        (stop.where, f"Too far out for what is worked out from it: {stop.why}")
        for stop in assessment.all_stopped
        if stop.where in rows
    )
