"""Reads every figure a window shows and holds it against a fresh assessment of the build as it would be saved.

Figures may differ in their last digit: a search that begins at the last answer ends a hair beside one that begins
anywhere.
"""

from __future__ import annotations

import re
from itertools import zip_longest
from pathlib import Path

from PyQt6.QtWidgets import QApplication

from keelroom.assess.assess import assess
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.report import as_table, folded_line, ledger_rows, plain_verdict, verdict_line
from keelroom.core.kept import Kept
from keelroom.document.file import parse, serialised
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.sought import SoughtPage
from keelroom.gui.window import Window

_NUMBER = re.compile(r"[−-]?\d[\d ,]*(?:\.\d+)?(?: \d+/\d+)?|\d+/\d+")
_FRACTION = re.compile(r"(?:(\d+) )?(\d+)/(\d+)$")


def _value(text: str) -> float:
    plain = text.strip().replace("−", "-").replace(",", "").replace(" ", " ").strip()
    fraction = _FRACTION.match(plain.lstrip("-"))
    if fraction and fraction[3] != "0":
        return int(fraction[1] or 0) + int(fraction[2]) / int(fraction[3])
    return float(plain.replace(" ", ""))


def alike(shown: str, fresh: str) -> bool:
    """Whether two texts say the same, a last digit apart."""
    if shown == fresh:
        return True
    if _NUMBER.sub("#", shown) != _NUMBER.sub("#", fresh):
        return False
    pairs = zip(map(_value, _NUMBER.findall(shown)), map(_value, _NUMBER.findall(fresh)), strict=True)
    return all(abs(a - b) <= max(1.01, 0.01 * abs(b)) for a, b in pairs)


def fresh(window: Window) -> Assessment:
    """The build as it would be saved, opened and assessed with nothing kept from before."""
    build = parse(serialised(window.session.build), Path("read back"))
    with Kept().at_work():
        return assess(build)


def misread(window: Window) -> list[str]:
    """Everything shown or copied that a fresh assessment does not say."""
    session, told = window.session, fresh(window)
    system, wrong = session.system, []

    def hold(what: str, shown: str, right: str) -> None:
        if not alike(shown, right):
            pairs = list(zip_longest(shown.splitlines(), right.splitlines(), fillvalue=""))
            mine, theirs = next((pair for pair in pairs if not alike(*pair)), (shown, right))
            wrong.append(f"{what} says “{mine[:300]}”, and it is “{theirs[:300]}”")

    if session.assessment.build is not session.build:
        wrong.append("the assessment is another build's")
    whole = session.whole()
    hold("the ledger as copied", as_table(whole, system), as_table(told, system))
    hold("the verdict as copied", plain_verdict(whole, system), plain_verdict(told, system))
    window.header.spoken.stop()
    window.header._verdict()
    hold("the head", window.header.words.text(), verdict_line(told, system))
    rows = {row[0]: row for row in ledger_rows(told, system)[1:]}
    for row in window.ledger.rows:
        if row.case is None or row.case.case_id not in {case.case_id for case in told.cases}:
            continue
        right = next(case for case in told.cases if case.case_id == row.case.case_id)
        if session.held is None:
            was = row.case
            row.case = right
            expected = row.sentence()
            row.case = was
            hold("a row of the ledger", row.accessibleName(), expected)
    hold("the ledger in one line", folded_line(whole, system), folded_line(told, system))
    if len(rows) != len({case.name for case in told.cases}):
        wrong.append("rows of the ledger are missing")
    for view in window.findChildren(AskedTable):
        if view.isVisible() and view.found is not None and view.table.isEnabled() and view.answers is not session.build:
            wrong.append(f"{type(view).__name__} tells of another build, unmarked")
    for page in window.findChildren(SoughtPage):
        body = page.widget()
        if (
            page.isVisible()
            and page.answer is not None
            and body is not None
            and body.isEnabled()
            and page.answers is not session.build
        ):
            wrong.append("a page tells of another build, unmarked")
    QApplication.processEvents()
    return wrong
