"""Every act of the window by name, with its keys and its menu: menu bar, list of acts and shortcuts all read this."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import NamedTuple, Protocol

from keelroom.gui.files import Files
from keelroom.gui.outputs import Outputs
from keelroom.gui.registry import STATIONS
from keelroom.gui.session.session import Session
from keelroom.gui.side import Drawers


class WindowCommand(NamedTuple):
    """An act by name, with its shortcut ('' none), the menu it stands in ("File/Export" for one in another) and its
    icon ('' none)."""

    name: str
    act: Callable[[], object]
    shortcut: str = ""
    menu: str = ""
    icon: str = ""


class Commanded(Protocol):
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
    def show_round(self) -> None: ...


MENUS = ("File", "Edit", "View", "Package", "Help")
"""Menus of the menu bar, in order."""
SAMPLES = (("coupe", "an engine swap that holds"), ("rear", "a core at the tail"))
"""shipped builds besides the demo"""
GAP = WindowCommand("", lambda: None)
"""a line between acts of a menu"""


def commands_of(window: Commanded) -> tuple[WindowCommand, ...]:
    """The acts of one window, in the order of their menus."""
    return (*_file(window), *_edit(window), *_view(window), *_package(window), *_help(window))


def _file(window: Commanded) -> tuple[WindowCommand, ...]:
    files, out = window.files, window.out
    return (
        WindowCommand("New build", files.new, "Ctrl+N", "File", "new"),
        WindowCommand("First build, step by step…", files.guide_first_build, "Ctrl+Shift+N", "File", "first"),
        WindowCommand("Open a build…", files.choose_file, "Ctrl+O", "File", "open"),
        WindowCommand("Open the demo", files.open_demo, "", "File"),
        *(
            WindowCommand(f"Open a sample: {words}", partial(files.open_sample, name), "", "File/Samples")
            for name, words in SAMPLES
        ),
        WindowCommand("Start from my template", files.start_from_template, "", "File"),
        WindowCommand("Keep as my template", files.keep_template, "", "File"),
        WindowCommand("Another build in a window of its own", files.new_window, "", "File"),
        GAP._replace(menu="File"),
        WindowCommand("Save", files.save, "Ctrl+S", "File", "save"),
        WindowCommand("Save as…", files.save_as, "Ctrl+Shift+S", "File"),
        WindowCommand("Save a copy…", files.save_copy, "", "File"),
        GAP._replace(menu="File"),
        WindowCommand("Write the build sheet (PDF)…", out.write_sheet, "", "File/Export", "export"),
        WindowCommand("Write the blank survey sheet (PDF)…", out.write_survey_sheet, "", "File/Export"),
        WindowCommand("Export the drawing (PNG or SVG)…", out.export_drawing, "", "File/Export"),
        WindowCommand("Save the page's table or chart as CSV…", out.save_page, "", "File/Export"),
        WindowCommand("Save the ledger as CSV…", out.save_ledger, "", "File/Export"),
        WindowCommand("Print the build sheet…", out.print_sheet, "Ctrl+P", "File", "print"),
        WindowCommand("Print the survey sheet…", out.print_survey_sheet, "", "File"),
        WindowCommand("Print the templates at full size…", out.print_templates, "", "File"),
        GAP._replace(menu="File"),
        WindowCommand("Close this build", files.new, "Ctrl+W", "File", "close"),
        WindowCommand("Quit", window.close, "Ctrl+Q", "File", "quit"),
    )


def _edit(window: Commanded) -> tuple[WindowCommand, ...]:
    store, out = window.session.store, window.out
    return (
        WindowCommand("Undo", store.undo, "Ctrl+Z", "Edit", "undo"),
        WindowCommand("Redo", store.redo, "Ctrl+Shift+Z", "Edit", "redo"),
        GAP._replace(menu="Edit"),
        WindowCommand("Cut", partial(window.edit_text, "cut"), "", "Edit"),
        WindowCommand("Copy", partial(window.edit_text, "copy"), "", "Edit"),
        WindowCommand("Paste", partial(window.edit_text, "paste"), "", "Edit"),
        GAP._replace(menu="Edit"),
        WindowCommand("Copy the verdict in one plain paragraph", out.copy_verdict, "", "Edit", "copy"),
        WindowCommand("Copy the ledger as text", out.copy_ledger, "Ctrl+Shift+C", "Edit"),
        WindowCommand("Copy the page's table or chart as text", out.copy_page, "Ctrl+Shift+T", "Edit"),
        GAP._replace(menu="Edit"),
        WindowCommand("Preferences…", window.preferences, "Ctrl+,", "Edit", "settings"),
    )


def _view(window: Commanded) -> tuple[WindowCommand, ...]:
    stations = tuple(
        WindowCommand(
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
        WindowCommand("Findings", partial(window.drawers.toggle, "Findings"), "F2", "View", "findings"),
        WindowCommand("Why: the working of a figure", partial(window.drawers.toggle, "Why"), "F3", "View", "why"),
        WindowCommand("Trail of steps", partial(window.drawers.toggle, "Trail"), "F4", "View", "trail"),
        GAP._replace(menu="View"),
        WindowCommand("Form beside the picture", window.toggle_form, "F5", "View"),
        WindowCommand("Form in two columns", window.widen_form, "Shift+F5", "View"),
        WindowCommand("Ledger in one line", window.toggle_ledger, "Ctrl+L", "View"),
        WindowCommand("Response of the temperature to the focused number", window.toggle_response, "F7", "View"),
        WindowCommand("Fit the picture", partial(window.zoom, 0), "Ctrl+0", "View"),
        WindowCommand("Zoom in", partial(window.zoom, 1), "Ctrl++", "View", "zoom"),
        WindowCommand("Zoom out", partial(window.zoom, -1), "Ctrl+-", "View"),
        GAP._replace(menu="View"),
        WindowCommand("Bench mode: large type for entry at the car", window.bench, "F8", "View"),
        WindowCommand("Light or dark", window.switch_theme, "F9", "View"),
        WindowCommand("Switch units", window.switch_units, "Ctrl+U", "View"),
    )


def _package(window: Commanded) -> tuple[WindowCommand, ...]:
    session = window.session
    return (
        WindowCommand("Packages: list, duplicate, compare…", window.show_packages, "Ctrl+K", "Package", "packages"),
        WindowCommand("Duplicate this package", window.duplicate_package, "Ctrl+D", "Package"),
        GAP._replace(menu="Package"),
        WindowCommand("Hold or let go of the held state", session.toggle_hold, "F6", "Package", "hold"),
        WindowCommand("Make duty cases from the brief", session.remake_duty_cases, "", "Package"),
    )


def _help(window: Commanded) -> tuple[WindowCommand, ...]:
    return (
        WindowCommand("Guide to this page", window.guide, "F1", "Help", "guide"),
        WindowCommand("Ask for anything there is", partial(window.drawers.pull, "Ask"), "Ctrl+E", "Help", "acts"),
        WindowCommand("Explain the screen", window.show_round, "", "Help"),
        WindowCommand("About Keel Room", window.about, "", "Help"),
    )
