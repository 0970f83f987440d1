"""Small makers of labels and buttons, so that roles and accessible names are set the same way everywhere."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QPushButton, QToolButton, QWidget


def label(text: str, role: str = "", wrap: bool = False) -> QLabel:
    made = QLabel(text)
    made.setProperty("role", role)
    made.setWordWrap(wrap)
    made.setTextInteractionFlags(Qt.TextInteractionFlag.NoTextInteraction)
    made.setTextFormat(Qt.TextFormat.PlainText)
    return made


def button(text: str, act: Callable[[], object], name: str = "", role: str = "", tip: str = "") -> QPushButton:
    made = QPushButton(text)
    made.setProperty("role", role)
    made.setAccessibleName(name or text)
    made.setToolTip(tip)
    made.setAutoDefault(False)
    made.clicked.connect(lambda: act())
    return made


def chip(text: str, act: Callable[[], object]) -> QToolButton:
    made = QToolButton()
    made.setText(text)
    made.setCheckable(True)
    made.setAutoExclusive(True)
    made.setProperty("role", "chip")
    made.setAccessibleName(text)
    made.setFocusPolicy(Qt.FocusPolicy.TabFocus)
    made.clicked.connect(lambda: act())
    return made


def restyle(widget: QWidget, name: str, value: object) -> None:
    """Set a dynamic property the style sheet looks at, and have it looked at."""
    if widget.property(name) != value:
        widget.setProperty(name, value)
        style = widget.style()
        if style is not None:
            style.unpolish(widget)
            style.polish(widget)
