"""Cut or not: stages with what each gains, the biggest core that needs none, and the checks that come first."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from keelroom.assess.fit.cut_rules import CHECKS
from keelroom.assess.questions.cutting import CutPlan, CutStage, cut_plan
from keelroom.assess.report import heat_words
from keelroom.document.act import Act
from keelroom.gui.session.proofs import Proofs
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.fields import SetField
from keelroom.gui.widgets.offered import Way
from keelroom.gui.widgets.sought import SoughtPage
from keelroom.gui.widgets.text import button, label
from keelroom.units import KINDS, format_si

INTRO = "A cut cannot be taken back. Smallest first, then look again: what each stage uncovers and what it is worth."


def cut_page(session: Session) -> SoughtPage:
    """The stages for the active package."""

    def question():  # type: ignore[no-untyped-def]
        build, system = session.build, session.system
        return lambda: cut_plan(build, system)

    def fill(column: QVBoxLayout, plan: CutPlan) -> None:
        _cuts_made(session, column)
        for stage in plan.stages:
            _stage(proofs, column, stage)
        proofs.look([(None, stage.act) for stage in plan.stages if stage.act])
        if plan.uncut is not None:
            column.addSpacing(6)
            column.addWidget(label("Biggest core that needs no cut", "head"))
            column.addWidget(label(plan.uncut.words, wrap=True))
            column.addWidget(label(_heats(session, plan.uncut), "faint", wrap=True))
        column.addSpacing(6)
        choices = tuple((key, name) for key, (name, _) in CHECKS.items())
        column.addWidget(SetField(session, ("survey", "checks"), "Looked at on the vehicle", choices))
        for _, why in plan.missing:
            column.addWidget(label(f"Before any cut: {why}", "doubt", wrap=True))
        for caution in plan.cautions:
            column.addWidget(label(caution, "faint", wrap=True))

    page = SoughtPage(session, "Cut or not", INTRO, question, fill)
    proofs = Proofs(session, page)
    return page


def _cuts_made(session: Session, column: QVBoxLayout) -> None:
    package = session.build.package
    for cut in package.cuts:
        line = QHBoxLayout()
        line.addWidget(
            label(f"Planned: {cut.edge} edge, {format_si(cut.amount.si, KINDS['length'], session.system)}"), 1
        )
        words = f"Take out the cut, {cut.edge} edge"
        act = Act("remove", words, package.id, path=("packages", package.id, "cuts", cut.id))
        line.addWidget(button("Take out", partial(session.do, act), words))
        column.addLayout(line)


def _heats(session: Session, stage: CutStage) -> str:
    told = "; ".join(f"{name} {heat_words(value, session.system)}" for name, value in stage.heats)
    return f"{told}, fans held on" if told else ""


def _stage(proofs: Proofs, column: QVBoxLayout, stage: CutStage) -> None:
    session = proofs.session
    column.addSpacing(6)
    head = QHBoxLayout()
    title = f"Cut {stage.letter}: {stage.words}" if stage.letter else f"No cut: {stage.words}"
    head.addWidget(label(title, "strong", wrap=True), 1)
    column.addLayout(head)
    if stage.act is not None:
        spoken = f"Plan the cuts up to {stage.letter}"
        column.addWidget(Way(session, proofs, stage.act, f"Plan to {stage.letter}", spoken))
    column.addWidget(label(f"{stage.hidden:.1%} of the face hidden. {_heats(session, stage)}", "faint", wrap=True))
    if stage.refused:
        column.addWidget(label(stage.refused, "problem", wrap=True))
