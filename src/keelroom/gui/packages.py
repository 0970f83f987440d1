"""All packages of the build with their verdicts: made active, copied, renamed, taken out, and two of them compared."""

from __future__ import annotations

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from keelroom.assess.acts.registry import acts, offer
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.outputs import beside
from keelroom.assess.report import missing_words, settles_text, totals_lines, verdict_line, weather_text
from keelroom.document.difference import between_packages, value_words
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import PACKAGE_KINDS, Package
from keelroom.facts import raised
from keelroom.gui.dialogs import Dialog
from keelroom.gui.session.session import Session
from keelroom.gui.session.verdicts import Verdicts
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.text import ChoiceBox, Line, button, label
from keelroom.units import money_text

AWAITED = "being worked out …"


def compared(
    build: Build,
    found: tuple[Assessment | None, Assessment | None],
    pair: tuple[str, str],
    system: str,
    case_id: str = "",
) -> list[tuple[str, str, str]]:
    """Ledger, figures of one duty case, totals and what differs of two packages, a row each: what, the one, the
    other."""
    one, other = found
    if one is None or other is None:
        mine, theirs = (AWAITED if each is None else verdict_line(each, system) for each in found)
        return [("Verdict", mine, theirs)]
    rows: list[tuple[str, str, str]] = []
    for a, b in zip(one.cases, other.cases, strict=True):
        mine, theirs = (settles_text(case.figures, system) if case.figures else missing_words(case) for case in (a, b))
        rows.append((a.name, mine, theirs))
    for a, b in zip(one.cases, other.cases, strict=True):
        if a.case_id == case_id and a.figures and b.figures:
            rows += [
                (f"{label}, {a.name}", mine, theirs) for label, mine, theirs in beside(a.figures, b.figures, system)
            ]
    for a_line, b_line in zip(totals_lines(one, system), totals_lines(other, system), strict=False):
        what = a_line.partition(":")[0] if ":" in a_line else "Fit"
        rows.append((what, a_line.partition(":")[2].strip() or a_line, b_line.partition(":")[2].strip() or b_line))
    for differs in between_packages(build, pair[1], pair[0]):
        mine, theirs = value_words(differs)
        rows.append((raised(" / ".join(differs.place)), mine, theirs or "—"))
    return rows


class Packages(Dialog):
    """Every act is an edit of the build, undone like any other."""

    def __init__(self, window: QWidget, session: Session) -> None:
        super().__init__(window, session, "Packages", (860, 640))
        self.verdicts = Verdicts(session)
        self.verdicts.come.connect(self._show)
        self.at = session.build.active
        self.table = ChooseTable(
            "Packages of this build",
            ("Package", "Stands for", "Verdict", "Hotter day", "Parts"),
            self._choose,
            "A click chooses one for the acts below.",
            "name …",
            words=True,
        )
        self.column.addWidget(self.table, 2)
        self.column.addLayout(self._acts())
        self.column.addLayout(self._pair())
        self.rows = ChooseTable(
            "Two packages compared",
            ("What", "The one", "The other"),
            lambda _row: None,
            "",
            "idle, fan, depth …",
            words=True,
            columns_are="even",
        )
        self.column.addWidget(self.rows, 3)
        self.undo = button("Undo", self.session.store.undo, "Undo the last step")
        self.foot.addWidget(self.undo)
        self.close_button()
        session.changed.connect(self.refresh)
        self.finished.connect(self._leave)
        self.refresh()

    def _acts(self) -> QHBoxLayout:
        line = QHBoxLayout()
        self.activate = button("Make it active", lambda: self._do("activate"), role="main")
        self.remove = button("Delete", lambda: self._do("remove_package"))
        self.name = Line()
        self.name.setAccessibleName("Name of the chosen package")
        self.name.editingFinished.connect(self._rename)
        for made in (self.activate, button("Duplicate", lambda: self._do("copy_package")), self.remove):
            line.addWidget(made)
        self.found = button("Keep as found", lambda: self._do("as_found"), tip=acts()["as_found"].meaning)
        self.mended = button("Begin as mended", lambda: self._do("as_mended"), tip=acts()["as_mended"].meaning)
        line.addWidget(self.found)
        line.addWidget(self.mended)
        line.addSpacing(12)
        line.addWidget(label("Name"))
        line.addWidget(self.name, 1)
        return line

    def _pair(self) -> QHBoxLayout:
        line = QHBoxLayout()
        line.addWidget(label("Compare", "strong"))
        self.boxes = (ChoiceBox(), ChoiceBox())
        for box, name in zip(self.boxes, ("The one", "The other"), strict=True):
            box.setAccessibleName(f"{name} package")
            box.activated.connect(lambda _index: self._show_pair())
            line.addWidget(box, 1)
        return line

    def _leave(self) -> None:
        self.session.changed.disconnect(self.refresh)
        self.verdicts.leave()

    def refresh(self) -> None:
        """Show the packages as they stand now; what is not known of them comes."""
        self.verdicts.look()
        self._show()

    def _row(self, package: Package) -> tuple[str, ...]:
        found, active = self.verdicts.of(package.id), package.id == self.session.build.active
        name = f"{package.name or package.id}{' (active)' if active else ''}"
        stands = PACKAGE_KINDS[package.kind]
        if found is None:
            return (name, stands, AWAITED, "", "")
        cost = money_text(found.totals.cost, self.session.settings.currency) if found.totals.cost is not None else ""
        return (name, stands, verdict_line(found, self.session.system), weather_text(found, self.session.system), cost)

    def _show(self) -> None:
        build = self.session.build
        idents = [package.id for package in build.packages]
        self.at = self.at if self.at in idents else build.active
        self.table.show_rows([self._row(package) for package in build.packages], idents.index(self.at))
        if not self.name.isModified():
            self.name.setText(build.with_id(self.at).name)
        self.activate.setEnabled(self.at != build.active)
        last = self.session.store.undo_label
        self.undo.setText(f"Undo: {last}" if last else "Undo")
        self.undo.setEnabled(bool(last))
        self.remove.setEnabled(len(idents) > 1)
        as_found = build.of_kind("as_found")
        self.found.setVisible(as_found is None)
        self.mended.setVisible(as_found is not None and build.of_kind("as_mended") is None)
        for box, usual in zip(self.boxes, self._usual_pair(), strict=True):
            chosen = box.currentData()
            box.clear()
            for package in build.packages:
                box.addItem(package.name or package.id, package.id)
            box.setCurrentIndex(box.findData(chosen if chosen in idents else usual))
        self._show_pair()

    def _usual_pair(self) -> tuple[str, str]:
        """The active package against the car as found; against the next one where that was not kept."""
        build = self.session.build
        as_found, rest = (
            build.of_kind("as_found"),
            [package.id for package in build.packages if package.id != build.active],
        )
        if as_found is not None and as_found.id != build.active:
            return build.active, as_found.id
        return build.active, next(iter(rest), build.active)

    def _choose(self, row: int) -> None:
        self.name.setModified(False)
        self.at = self.session.build.packages[row].id
        self.refresh()

    def _show_pair(self) -> None:
        one, other = (box.currentData() for box in self.boxes)
        found = self.verdicts.of(one), self.verdicts.of(other)
        self.rows.show_rows(
            compared(self.session.build, found, (one, other), self.session.system, self.session.case_id), -1
        )

    def _do(self, code: str, **given: str) -> None:
        self.session.do(offer(code, self.at, **given))

    def _rename(self) -> None:
        if self.name.isModified():
            self.name.setModified(False)
            self._do("name_package", name=self.name.text().strip())
