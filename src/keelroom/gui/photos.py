"""Photos of a build: asked for, and looked at."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QPixmap
from PyQt6.QtWidgets import QFileDialog, QWidget

from keelroom.document.photos import folder_of, state_of
from keelroom.document.schema.trials import Photo
from keelroom.gui.dialogs import Dialog
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.text import label

SIZE = (760, 560)
"""[px] of the dialog a photo is looked at in"""


def ask_for_photo(parent: QWidget, session: Session, where: tuple[str, ...]) -> bool:
    """Ask for a picture and take it in at a list of photos; whether one was."""
    if session.path is None:
        session.told.emit("Save the build first: photos stand in a folder beside its file")
        return False
    name, _ = QFileDialog.getOpenFileName(parent, "Add a photo", str(session.folder), "Pictures (*.jpg *.jpeg *.png)")
    return bool(name) and session.keep_photo(where, Path(name))


def show_photo(parent: QWidget, session: Session, photo: Photo) -> None:
    """A photo, large; what is wrong with it where it cannot be shown as it was."""
    dialog = Dialog(parent, session, photo.note or photo.file, SIZE)
    state = state_of(session.path, photo)
    if state != "there":
        words = "is not in the folder beside the build" if state == "missing" else "is another than was taken in"
        dialog.column.addWidget(label(f"{photo.file} {words}.", "problem", wrap=True))
    if session.path is not None and state != "missing":
        picture = QPixmap(str(folder_of(session.path) / photo.file))
        shown = label("")
        shown.setAccessibleName(f"Photo: {photo.note or photo.file}")
        if picture.isNull():
            shown.setText(f"{photo.file} cannot be shown.")
        else:
            fits = Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
            shown.setPixmap(picture.scaled(SIZE[0] - 60, SIZE[1] - 120, *fits))
        dialog.column.addWidget(shown, 1)
    dialog.close_button()
    dialog.exec()
