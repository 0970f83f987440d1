"""Every act of the window by name, with its keys and its menu: menu bar, list of acts and shortcuts all read this."""

from __future__ import annotations

from functools import partial
from typing import Protocol

from keelroom.gui.files import Files
from keelroom.gui.outputs import Outputs
from keelroom.gui.registry import STATIONS
from keelroom.gui.session.session import Session
from keelroom.gui.side import Drawers
from keelroom.gui.widgets.panels.acts import Command


class Window(Protocol):
    """What acts ask of the window they are made for."""

    session: Session
    files: Files
    out: Outputs
    drawers: Drawers

    def close(self) -> bool: ...
    def visit(self, name: str) -> None: ...
    def edit_text(self, act: str) -> None: ...
    def preferences(self) -> None: ...
    def toggle_form(self) -> None: ...
    def widen_form(self) -> None: ...
    def toggle_ledger(self) -> None: ...
    def toggle_response(self) -> None: ...
    def zoom(self, step: int) -> None: ...
    def bench(self) -> None: ...
    def switch_theme(self) -> None: ...
    def switch_units(self) -> None: ...
    def show_packages(self) -> None: ...
    def duplicate_package(self) -> None: ...
    def guide(self) -> None: ...
    def about(self) -> None: ...


MENUS = ("File", "Edit", "View", "Package", "Help")
"""Menus of the menu bar, in order."""
GAP = Command("", lambda: None)
"""a line between acts of a menu"""


def commands_of(window: Window) -> tuple[Command, ...]:
    """The acts of one window, in the order of their menus."""
    return (*_file(window), *_edit(window), *_view(window), *_package(window), *_help(window))


def _file(window: Window) -> tuple[Command, ...]:
    files, out = window.files, window.out
    return (
        Command("New build", files.new, "Ctrl+N", "File", "new"),
        Command("First build, step by step…", files.guide_first_build, "Ctrl+Shift+N", "File", "first"),
        Command("Open a build…", files.choose_file, "Ctrl+O", "File", "open"),
        Command("Open the demo", files.open_demo, "", "File"),
        GAP._replace(menu="File"),
        Command("Save", files.save, "Ctrl+S", "File", "save"),
        Command("Save as…", files.save_as, "Ctrl+Shift+S", "File"),
        Command("Save a copy…", files.save_copy, "", "File"),
        GAP._replace(menu="File"),
        Command("Write the build sheet (PDF)…", out.write_sheet, "", "File/Export", "export"),
        Command("Write the blank survey sheet (PDF)…", out.write_survey_sheet, "", "File/Export"),
        Command("Export the drawing (PNG or SVG)…", out.export_drawing, "", "File/Export"),
        Command("Save the page's table or chart as CSV…", out.save_page, "", "File/Export"),
        Command("Save the ledger as CSV…", out.save_ledger, "", "File/Export"),
        Command("Print the build sheet…", out.print_sheet, "Ctrl+P", "File", "print"),
        Command("Print the survey sheet…", out.print_survey_sheet, "", "File"),
        Command("Print the templates at full size…", out.print_templates, "", "File"),
        GAP._replace(menu="File"),
        Command("Close this build", files.new, "Ctrl+W", "File", "close"),
        Command("Quit", window.close, "Ctrl+Q", "File", "quit"),
    )


def _edit(window: Window) -> tuple[Command, ...]:
    store, out = window.session.store, window.out
    return (
        Command("Undo", store.undo, "Ctrl+Z", "Edit", "undo"),
        Command("Redo", store.redo, "Ctrl+Shift+Z", "Edit", "redo"),
        GAP._replace(menu="Edit"),
        Command("Cut", partial(window.edit_text, "cut"), "", "Edit"),
        Command("Copy", partial(window.edit_text, "copy"), "", "Edit"),
        Command("Paste", partial(window.edit_text, "paste"), "", "Edit"),
        GAP._replace(menu="Edit"),
        Command("Copy the verdict in one plain paragraph", out.copy_verdict, "", "Edit", "copy"),
        Command("Copy the ledger as text", out.copy_ledger, "Ctrl+Shift+C", "Edit"),
        Command("Copy the page's table or chart as text", out.copy_page, "Ctrl+Shift+T", "Edit"),
        GAP._replace(menu="Edit"),
        Command("Preferences…", window.preferences, "Ctrl+,", "Edit", "settings"),
    )


def _view(window: Window) -> tuple[Command, ...]:
    stations = tuple(
        Command(
            f"Go to {station.name}",
            partial(window.visit, station.name),
            f"Ctrl+{number}" if number < 10 else "",
            "View/Stations",
        )
        for number, station in enumerate(STATIONS, 1)
    )
    return (
        *stations,
        GAP._replace(menu="View"),
        Command("Findings", partial(window.drawers.toggle, "Findings"), "F2", "View", "findings"),
        Command("Why: the working of a figure", partial(window.drawers.toggle, "Why"), "F3", "View", "why"),
        Command("Trail of steps", partial(window.drawers.toggle, "Trail"), "F4", "View", "trail"),
        GAP._replace(menu="View"),
        Command("Form beside the picture", window.toggle_form, "F5", "View"),
        Command("Form in two columns", window.widen_form, "Shift+F5", "View"),
        Command("Ledger in one line", window.toggle_ledger, "Ctrl+L", "View"),
        Command("Response of the temperature to the focused number", window.toggle_response, "F7", "View"),
        Command("Fit the picture", partial(window.zoom, 0), "Ctrl+0", "View"),
        Command("Zoom in", partial(window.zoom, 1), "Ctrl++", "View", "zoom"),
        Command("Zoom out", partial(window.zoom, -1), "Ctrl+-", "View"),
        GAP._replace(menu="View"),
        Command("Bench mode: large type for entry at the car", window.bench, "F8", "View"),
        Command("Light or dark", window.switch_theme, "F9", "View"),
        Command("Switch units", window.switch_units, "Ctrl+U", "View"),
    )


def _package(window: Window) -> tuple[Command, ...]:
    session = window.session
    return (
        Command("Packages: list, duplicate, compare…", window.show_packages, "Ctrl+K", "Package", "packages"),
        Command("Duplicate this package", window.duplicate_package, "Ctrl+D", "Package"),
        GAP._replace(menu="Package"),
        Command("Hold or let go of the held state", session.toggle_hold, "F6", "Package", "hold"),
        Command("Make duty cases from the brief", session.remake_duty_cases, "", "Package"),
    )


def _help(window: Window) -> tuple[Command, ...]:
    return (
        Command("Guide to this page", window.guide, "F1", "Help", "guide"),
        Command("Every act by name", partial(window.drawers.pull, "Acts"), "Ctrl+E", "Help", "acts"),
        Command("About Keel Room", window.about, "", "Help"),
    )
