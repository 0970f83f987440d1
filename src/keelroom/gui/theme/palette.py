"""Our own light and dark palettes, and the style sheet made from one. Colours never carry meaning alone."""

from __future__ import annotations

from functools import cache
from typing import NamedTuple

from keelroom import ASSETS

ICONS = (ASSETS / "icons").as_posix()


class Palette(NamedTuple):
    """Named inks of one theme, as '#rrggbb'."""

    name: str
    paper: str
    panel: str
    raised: str
    ink: str
    faint: str
    rule: str
    accent: str
    on_accent: str
    tape: str
    tape_ink: str
    good: str
    doubt: str
    bad: str
    face: str
    tube: str
    steel: str
    steel_fill: str
    fan: str
    fan_fill: str
    band: str


LIGHT = Palette(
    name="light",
    paper="#f3f1ec",
    panel="#fbfaf7",
    raised="#ffffff",
    ink="#1d2429",
    faint="#56616a",
    rule="#cfcbc2",
    accent="#0d6470",
    on_accent="#ffffff",
    tape="#f0c53c",
    tape_ink="#1d2429",
    good="#1f6b3a",
    doubt="#8a5a00",
    bad="#a8201a",
    face="#e8eef0",
    tube="#c3d0d5",
    steel="#41525c",
    steel_fill="#d5dcdf",
    fan="#0d6470",
    fan_fill="#ffffff",
    band="#a9c9cd",
)
DARK = Palette(
    name="dark",
    paper="#171c20",
    panel="#1e252a",
    raised="#273037",
    ink="#e9ecee",
    faint="#a6b1b8",
    rule="#3a454d",
    accent="#5cc3cf",
    on_accent="#10181b",
    tape="#d9ae2b",
    tape_ink="#14181b",
    good="#7fd29a",
    doubt="#f0bd5e",
    bad="#ff9b91",
    face="#2b363d",
    tube="#3c4a53",
    steel="#9fb0ba",
    steel_fill="#36424a",
    fan="#5cc3cf",
    fan_fill="#1e252a",
    band="#2f5d63",
)


CONTRAST = Palette(
    name="contrast",
    paper="#ffffff",
    panel="#ffffff",
    raised="#ffffff",
    ink="#000000",
    faint="#1c1c1c",
    rule="#5a5a5a",
    accent="#00324d",
    on_accent="#ffffff",
    tape="#ffe94a",
    tape_ink="#000000",
    good="#00420f",
    doubt="#5c3a00",
    bad="#8a0000",
    face="#ffffff",
    tube="#6f6f6f",
    steel="#000000",
    steel_fill="#dcdcdc",
    fan="#00324d",
    fan_fill="#ffffff",
    band="#9fd0e8",
)
"""Black on white, every ink at 7 to 1 or more on every ground."""


def palette_of(theme: str) -> Palette:
    """The palette of a theme by name."""
    return {"dark": DARK, "contrast": CONTRAST}.get(theme, LIGHT)


def level_colour(palette: Palette, level: str) -> str:
    """The ink of a finding's level."""
    return {"problem": palette.bad, "doubt": palette.doubt}.get(level, palette.faint)


@cache
def style_sheet(p: Palette) -> str:
    """The style sheet of a region; ink and type are the application's own."""
    return f"""
    QWidget#paper {{ background: {p.paper}; }}
    QWidget#panel, QScrollArea, QScrollArea > QWidget > QWidget, QStackedWidget {{ background: {p.panel}; }}
    QWidget#mark {{ color: {p.ink}; }}
    QLabel {{ background: transparent; }}
    QLabel[role="head"] {{ font-weight: 600; font-size: 11pt; }}
    QLabel[role="picked"] {{ font-weight: 600; font-size: 11pt; border-bottom: 2px solid {p.accent}; }}
    QLabel[role="strong"] {{ font-weight: 600; }}
    QLabel[role="faint"] {{ color: {p.faint}; font-size: 9pt; }}
    QLabel[role="error"] {{ color: {p.bad}; font-size: 9pt; font-weight: 600; }}
    QLabel[role="good"] {{ color: {p.good}; font-weight: 600; }}
    QLabel[role="problem"] {{ color: {p.bad}; font-weight: 600; }}
    QLabel[role="doubt"] {{ color: {p.doubt}; font-weight: 600; }}
    QLabel[role="note"] {{ color: {p.faint}; font-weight: 600; }}
    QLabel[role="bench"] {{ color: {p.faint}; font-size: 15pt; }}
    QLabel[role="bench-wrong"] {{ color: {p.bad}; font-size: 15pt; font-weight: 600; }}
    QLabel[role="bench-prompt"] {{ font-size: 26pt; font-weight: 600; }}
    QLabel[role="bench-step"] {{ font-size: 15pt; font-weight: 600; }}
    QLabel[role="bench-figure"] {{ font-size: 44pt; font-weight: 600; color: {p.accent}; }}
    QPushButton[role="bench"] {{ font-size: 17pt; padding: 4px 10px; }}
    QPushButton[role="bench-main"] {{ font-size: 17pt; font-weight: 600; background: {p.accent};
        color: {p.on_accent}; }}
    QLineEdit, QPlainTextEdit, QComboBox {{ color: {p.ink}; background: {p.raised}; border: 1px solid {p.rule};
        border-radius: 3px; padding: 2px 5px;
        selection-background-color: {p.accent}; selection-color: {p.on_accent}; }}
    QLineEdit:focus, QPlainTextEdit:focus, QComboBox:focus {{ border: 2px solid {p.accent}; padding: 1px 4px; }}
    QLineEdit[wrong="true"] {{ border: 2px solid {p.bad}; padding: 1px 4px; }}
    QComboBox QAbstractItemView {{ background: {p.raised}; border: 1px solid {p.rule};
        selection-background-color: {p.accent}; selection-color: {p.on_accent}; }}
    QComboBox::drop-down {{ border: none; width: 18px; }}
    QComboBox::down-arrow {{ image: none; }}
    QPushButton, QToolButton {{ color: {p.ink}; background: {p.raised}; border: 1px solid {p.rule};
        border-radius: 3px; padding: 3px 9px; }}
    QPushButton:hover, QToolButton:hover {{ border-color: {p.accent}; }}
    QPushButton:focus, QToolButton:focus, QCheckBox:focus {{ border: 2px solid {p.accent}; padding: 2px 8px; }}
    QPushButton:disabled, QToolButton:disabled {{ color: {p.faint}; }}
    QPushButton[role="total"] {{ border: none; background: transparent; text-align: left; padding: 1px 4px; }}
    QPushButton[role="total"]:hover {{ color: {p.accent}; }}
    QPushButton[role="total"]:focus {{ border: 1px solid {p.accent}; padding: 0 3px; }}
    QPushButton[role="main"] {{ background: {p.accent}; color: {p.on_accent}; border-color: {p.accent};
        font-weight: 600; }}
    QPushButton[role="main"]:disabled {{ background: {p.rule}; color: {p.faint}; border-color: {p.rule}; }}
    QToolButton[role="chip"] {{ border: none; border-bottom: 3px solid transparent; border-radius: 0;
        padding: 4px 5px; background: transparent; }}
    QToolButton[role="chip"]:checked {{ border-bottom: 3px solid {p.accent}; font-weight: 600; }}
    QToolButton[role="chip"]:focus {{ background: {p.raised}; }}
    QToolButton[role="origin"] {{ border: none; background: transparent; color: {p.faint}; font-size: 9pt;
        padding: 0 2px; text-align: left; }}
    QToolButton[role="origin"]:focus {{ border: 1px solid {p.accent}; }}
    QToolButton[role="origin"]::menu-indicator {{ image: none; width: 0; }}
    QCheckBox {{ background: transparent; spacing: 6px; border: 2px solid transparent; }}
    QCheckBox::indicator {{ width: 14px; height: 14px; border: 1px solid {p.faint}; border-radius: 3px;
        background: {p.raised}; }}
    QCheckBox::indicator:hover {{ border-color: {p.accent}; }}
    QCheckBox::indicator:checked {{ background: {p.accent}; border-color: {p.accent};
        image: url({ICONS}/tick-{p.name}.svg); }}
    QMenuBar {{ background: {p.paper}; color: {p.ink}; border-bottom: 1px solid {p.rule}; }}
    QMenuBar::item {{ padding: 3px 9px; background: transparent; }}
    QMenuBar::item:selected {{ background: {p.accent}; color: {p.on_accent}; }}
    QMenu::separator {{ height: 1px; background: {p.rule}; margin: 3px 8px; }}
    QMenu::item:disabled {{ color: {p.faint}; }}
    QMenu {{ background: {p.raised}; border: 1px solid {p.rule}; }}
    QMenu::item {{ padding: 4px 18px 4px 8px; }}
    QMenu::icon {{ padding-left: 8px; }}
    QMenu::item:selected {{ background: {p.accent}; color: {p.on_accent}; }}
    QTableWidget, QListWidget {{ background: {p.raised}; border: 1px solid {p.rule}; gridline-color: {p.rule};
        selection-background-color: {p.accent}; selection-color: {p.on_accent}; }}
    QTableWidget {{ font-size: 9pt; }}
    QTableWidget::item, QListWidget::item {{ padding: 2px 3px; }}
    QHeaderView {{ background: {p.panel}; }}
    QHeaderView::section {{ background: {p.panel}; color: {p.faint}; border: none; border-bottom: 1px solid {p.rule};
        padding: 3px 4px; font-size: 9pt; }}
    QScrollBar:vertical {{ background: {p.panel}; width: 11px; margin: 0; }}
    QScrollBar::handle:vertical {{ background: {p.rule}; min-height: 24px; border-radius: 4px; margin: 2px; }}
    QScrollBar:horizontal {{ background: {p.panel}; height: 11px; margin: 0; }}
    QScrollBar::handle:horizontal {{ background: {p.rule}; min-width: 24px; border-radius: 4px; margin: 2px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QScrollArea, QFrame {{ border: none; }}
    QSlider::groove:horizontal {{ height: 4px; background: {p.rule}; border-radius: 2px; }}
    QSlider::handle:horizontal {{ width: 12px; margin: -6px 0; background: {p.accent}; border-radius: 4px; }}
    QStatusBar {{ background: {p.paper}; color: {p.faint}; }}
    QToolTip {{ background: {p.raised}; color: {p.ink}; border: 1px solid {p.rule}; }}
    """
