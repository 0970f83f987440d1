"""What is wrong, said at the field it is wrong in."""

from __future__ import annotations

from collections.abc import Mapping

from keelroom.assess.assessment import Assessment
from keelroom.assess.wording import raised
from keelroom.gui.rows import Page, Path


def marks_of(assessment: Assessment, page: Page, owners: Mapping[str, str]) -> tuple[tuple[Path, str], ...]:
    """Problems of a page's fields; what they belong to is plain from their place. owners: names of the list members a sentence may begin with"""
    rows = {row.path for group in page.groups for row in group.rows}
    said: dict[Path, list[str]] = {}
    for finding in assessment.findings:
        if finding.level == "problem" and finding.where in rows:
            owner = next((owners[step] for step in finding.where if step in owners), "")
            said.setdefault(finding.where, []).append(raised(finding.what.removeprefix(f"{owner}: ")))
    return tuple((path, "\n".join(texts)) for path, texts in said.items())
