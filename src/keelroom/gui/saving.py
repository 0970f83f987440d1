"""Asking where a file goes and writing it, the same way everywhere in the window."""

from __future__ import annotations

import os
import re
from collections.abc import Callable, Sequence
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFileDialog, QLabel, QMessageBox, QWidget

from keelroom.document.file import ENDING
from keelroom.document.writing import named, one_file
from keelroom.errors import ExportError, KeelRoomError
from keelroom.export.whole import not_a_build
from keelroom.gui.session.session import Session

SHOWN = 6
"""Differences told before the rest is folded away."""
_ENDINGS = re.compile(r"\*(\.\w+)")
Ask = tuple[str, str, str]
"""A dialog's title, the suggested name, and the kinds of file."""


def message(window: QWidget, icon: QMessageBox.Icon, title: str, text: str, more: str = "") -> QMessageBox:
    """A box that shows what it says for what it is: names of files and builds are no marks of layout, and nothing in
    it is a link."""
    box = QMessageBox(icon, title, text, parent=window)
    if more:
        box.setInformativeText(more)
    for words in box.findChildren(QLabel):
        words.setTextFormat(Qt.TextFormat.PlainText)
        words.setOpenExternalLinks(False)
    return box


def warn(window: QWidget, title: str, text: str) -> None:
    """Say what could not be done."""
    message(window, QMessageBox.Icon.Warning, title, text).exec()


def ask_about_change(window: QWidget, why: str, differences: Sequence[str]) -> str:
    """What to do where the open file holds something else than this build grew from: 'beside', 'replace', or '' for
    neither.

    differences : what the build here says differently, a sentence each; the first are shown, all of them behind a
                  button
    """
    told = "\n".join(differences[:SHOWN]) or "Both say the same."
    more = f"\n… and {len(differences) - SHOWN} more" if len(differences) > SHOWN else ""
    box = message(
        window, QMessageBox.Icon.Warning, "Changed since", why, f"Here, against the file as it is now:\n{told}{more}"
    )
    if more:
        box.setDetailedText("\n".join(differences))
    return _chosen(box, ("Save beside it…", "beside"), "Replace it")


def ask_about_typed(window: QWidget, what: str, labels: Sequence[str]) -> str:
    """What becomes of figures somebody measured where a usual kind is put in their place: 'keep', 'replace', or ''
    for neither."""
    more = (
        "Measured: " + ", ".join(labels[:SHOWN]) + (f" and {len(labels) - SHOWN} more" if len(labels) > SHOWN else "")
    )
    box = message(
        window, QMessageBox.Icon.Question, what, f"{what} would replace figures that were measured here.", more
    )
    return _chosen(box, ("Keep what was measured", "keep"), "Replace them too")


def _chosen(box: QMessageBox, safe: tuple[str, str], replacing: str) -> str:
    """What is chosen of a way that loses nothing (its words, its answer), which Enter takes, of 'replace' by its
    words, or '' for neither."""
    words, answer = safe
    kept = box.addButton(words, QMessageBox.ButtonRole.AcceptRole)
    replaced = box.addButton(replacing, QMessageBox.ButtonRole.DestructiveRole)
    box.addButton(QMessageBox.StandardButton.Cancel)
    box.setDefaultButton(kept)
    box.exec()
    clicked = box.clickedButton()
    return answer if clicked is kept else "replace" if clicked is replaced else ""


def with_ending(path: Path, kinds: str, kind: str = "") -> Path:
    """The path with an ending of its kind: what is typed without one gets it before anything is asked about the file
    of that name.

    kinds : all the dialog offers;  kind : the one that was chosen, '' for the first
    """
    known = _ENDINGS.findall(kinds)
    if not known or path.suffix.lower() in known:
        return path
    return path.with_name(path.name + (_ENDINGS.findall(kind) or known)[0])


def ask_where(window: QWidget, session: Session, ask: Ask) -> Path | None:
    """Where a file is to go, with its ending, asked about where one of that very name is there; None where it is to
    go nowhere."""
    title, suggested, kinds = ask
    start = session.folder / suggested
    while True:
        name, kind = QFileDialog.getSaveFileName(
            window, title, str(start), kinds, "", QFileDialog.Option.DontConfirmOverwrite
        )
        if not name:
            return None
        start = with_ending(Path(name), kinds, kind)
        if not os.path.lexists(start):
            return start
        box = message(
            window,
            QMessageBox.Icon.Question,
            "Replace it?",
            f"{named(start)} is there already.",
            "What it holds would be lost.",
        )
        answer = _chosen(box, ("Choose another name…", "again"), "Replace it")
        if answer != "again":
            return start if answer == "replace" else None


def ask_and_write(window: QWidget, session: Session, ask: Ask, act: Callable[[Path], object]) -> None:
    """Ask for a file and write it; a failure is said and leaves older files as they were. No output goes onto a
    build."""
    path = ask_where(window, session, ask)
    if path is None:
        return
    try:
        if ENDING in ask[2]:
            not_open(path, session.path)
        else:
            not_a_build(path, session.path)
        act(path)
    except KeelRoomError as error:
        session.told.emit(error.message)
        warn(window, "Not written", error.message)
    else:
        session.told.emit(f"Wrote {named(path)}")


def not_open(path: Path, open_file: Path | None) -> None:
    """A copy does not go onto the file that is open: what is unsaved would be there and the window would not know.
    Raises ExportError."""
    if open_file is not None and one_file(path, open_file):
        raise ExportError("onto_itself", f"{named(path)} is the build that is open: use Save", path=str(path))
