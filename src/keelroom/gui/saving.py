"""Asking where a file goes and writing it, the same way everywhere in the window."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QMessageBox, QWidget

from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session


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
