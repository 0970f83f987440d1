"""Sheets of the work: the record that is handed over, the owner's page, the shopping list, the steps for the bench."""

from __future__ import annotations

import io
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from reportlab.lib.units import mm
from reportlab.platypus import Flowable, PageBreak, Paragraph, SimpleDocTemplate, Spacer

from keelroom.assess.questions.record import Section, cautions_of
from keelroom.assess.work.plan import Plan
from keelroom.assess.work.shopping import Wanted, amount_words
from keelroom.export.pdf import PAPERS, STYLES, fonts, safe
from keelroom.export.sheet import photos
from keelroom.export.tables import Rows
from keelroom.export.whole import write_whole
from keelroom.units import money_text

SHOP_HEADS = ("what", "how much", "price", "days", "from", "instead", "in hand", "when")


def write_record(
    path: Path, title: str, parts: Sequence[tuple[str, Sequence[Section]]], plan: Plan, given: tuple[str, Path | None]
) -> None:
    """The record: pages with their titles, each of sections;  given : paper, and the build's file beside which photos
    stand. Raises ExportError."""
    fonts()
    paper, file = given
    story: list[Flowable] = []
    for number, (name, sections) in enumerate(parts):
        if number:
            story.append(PageBreak())
        story += [Paragraph(safe(title), STYLES["title"]), Paragraph(safe(name), STYLES["verdict"]), Spacer(1, 4)]
        for section in sections:
            story.append(Paragraph(safe(section.title), STYLES["head"]))
            story += [Paragraph("• " + safe(line), STYLES["body"]) for line in section.lines]
            story += photos(section.photos, file)
    story.append(Paragraph("Cautions", STYLES["head"]))
    story += [Paragraph("• " + safe(text), STYLES["small"]) for text in cautions_of(plan)]
    _write(path, title, story, paper, "record_not_written")


def write_shopping(path: Path, title: str, wanted: Sequence[Wanted], given: tuple[str, str, str]) -> None:
    """The two lists, to be ticked with a pen. given: currency's sign, paper, units. Raises ExportError."""
    fonts()
    sign, paper, system = given
    story: list[Flowable] = [Paragraph(safe(title), STYLES["title"])]
    for name, own in lists(wanted):
        story.append(Paragraph(safe(name), STYLES["head"]))
        for one in own:
            price = f", {money_text(one.price, sign)}" if one.price is not None else ""
            days = f", {one.lead:.0f} days" if one.lead else ""
            box = "[x]" if one.in_hand else "[  ]"
            source = f", {one.source}" if one.source else ""
            words = f"{box} {one.name}, {amount_words(one.amount, system)}{price}{days}{source}"
            story.append(Paragraph(safe(words + (f" — after {one.after}" if one.after else "")), STYLES["body"]))
    _write(path, title, story, paper, "shopping_not_written")


def lists(wanted: Sequence[Wanted]) -> list[tuple[str, list[Wanted]]]:
    """What is wanted in two lists: sure now, and after a measurement."""
    sure = [one for one in wanted if one.sure]
    later = [one for one in wanted if not one.sure]
    return [(name, own) for name, own in (("Sure now", sure), ("After a measurement", later)) if own]


def shopping_rows(wanted: Sequence[Wanted], sign: str, system: str) -> Rows:
    """The same as rows of a table."""
    rows: list[tuple[Any, ...]] = [SHOP_HEADS]
    for one in wanted:
        price = money_text(one.price, sign) if one.price is not None else ""
        days = f"{one.lead:.0f}" if one.lead is not None else ""
        when = f"after {one.after}" if one.after else "now"
        rows.append(
            (
                one.name,
                amount_words(one.amount, system),
                price,
                days,
                one.source,
                one.instead,
                "yes" if one.in_hand else "",
                when,
            )
        )
    return tuple(rows)


def record_rows(sections: Sequence[Section]) -> Rows:
    """The record as rows: heading, line."""
    return (("part", "line"), *((section.title, line) for section in sections for line in section.lines))


def _write(path: Path, title: str, story: list[Flowable], paper: str, code: str) -> None:
    buffer = io.BytesIO()
    edge = {"leftMargin": 15 * mm, "rightMargin": 15 * mm, "topMargin": 14 * mm, "bottomMargin": 16 * mm}
    SimpleDocTemplate(buffer, pagesize=PAPERS[paper], title=title, author="Keel Room", invariant=1, **edge).build(story)
    write_whole(path, buffer.getvalue(), code)
