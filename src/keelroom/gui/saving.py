"""Asking where a file goes and writing it, the same way everywhere in the window."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QMessageBox, QWidget

from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session

SHOWN = 6
"""Differences told before the rest is folded away."""


def ask_about_change(window: QWidget, message: str, differences: Sequence[str]) -> str:
    """What to do where another program changed the open file: 'beside', 'replace', or '' for neither.

    differences : what the build here says differently, a sentence each; the first are shown, all of them behind a button
    """
    box = QMessageBox(QMessageBox.Icon.Warning, "Changed by another program", message, parent=window)
    told = "\n".join(differences[:SHOWN]) or "Both say the same."
    more = f"\n… and {len(differences) - SHOWN} more" if len(differences) > SHOWN else ""
    box.setInformativeText(f"Here, against the file as it is now:\n{told}{more}")
    if more:
        box.setDetailedText("\n".join(differences))
    return _chosen(box, ("Save beside it…", "beside"), "Replace it")


def ask_about_typed(window: QWidget, what: str, labels: Sequence[str]) -> str:
    """What becomes of figures somebody measured where a usual kind is put in their place: 'keep', 'replace', or '' for neither."""
    box = QMessageBox(QMessageBox.Icon.Question, what, f"{what} would replace figures that were measured here.", parent=window)
    box.setInformativeText("Measured: " + ", ".join(labels[:SHOWN]) + (f" and {len(labels) - SHOWN} more" if len(labels) > SHOWN else ""))
    return _chosen(box, ("Keep what was measured", "keep"), "Replace them too")


def _chosen(box: QMessageBox, safe: tuple[str, str], replacing: str) -> str:
    """What is chosen of a way that loses nothing (its words, its answer), which Enter takes, of 'replace' by its words, or '' for neither."""
    words, answer = safe
    kept = box.addButton(words, QMessageBox.ButtonRole.AcceptRole)
    replaced = box.addButton(replacing, QMessageBox.ButtonRole.DestructiveRole)
    box.addButton(QMessageBox.StandardButton.Cancel)
    box.setDefaultButton(kept)
    box.exec()
    clicked = box.clickedButton()
    return answer if clicked is kept else "replace" if clicked is replaced else ""


def ask_and_write(window: QWidget, session: Session, ask: tuple[str, str, str], act: Callable[[Path], object]) -> None:
    """Ask for a file and write it; a failure is said and leaves older files as they were.

    ask: the dialog's title, the suggested name, and the kinds of file
    """
    title, suggested, kinds = ask
    name, _ = QFileDialog.getSaveFileName(window, title, str(session.folder / suggested), kinds)
    if not name:
        return
    try:
        act(Path(name))
    except KeelRoomError as error:
        session.told.emit(error.message)
        QMessageBox.warning(window, "Not written", error.message)
    else:
        session.told.emit(f"Wrote {Path(name).name}")
