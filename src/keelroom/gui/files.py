"""The build's file: new, opened, recovered, saved, and what is asked before work is left."""

from __future__ import annotations

import datetime
import sys
from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QMimeData, QProcess
from PyQt6.QtWidgets import QApplication, QFileDialog, QMessageBox, QWidget

from keelroom import ASSETS
from keelroom.assess.report import verdict_line
from keelroom.document.autosave import Recovered
from keelroom.document.file import ENDING
from keelroom.document.file import save as write_copy
from keelroom.document.writing import named
from keelroom.errors import KeelRoomError
from keelroom.export.whole import file_name
from keelroom.gui.opening import read_beside
from keelroom.gui.saving import ask_about_change, ask_and_write, ask_where, message, warn
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.start_page import Last, Sample

LAST_SHOWN = 5
"""Builds used last that the start page lists."""
KINDS_OF_FILE = "Keel Room builds (*.keelroom)"


def dropped(data: QMimeData | None) -> Path | None:
    """The build among what was dropped on a window; None where there is none."""
    found = [Path(url.toLocalFile()) for url in (data.urls() if data is not None else []) if url.isLocalFile()]
    return next((path for path in found if path.suffix == ENDING), None)


def _day(path: Path) -> str:
    """When a file was written last; '' where that is not known."""
    try:
        return datetime.date.fromtimestamp(path.stat().st_mtime).isoformat()
    except (OSError, ValueError, OverflowError):
        return ""


class Files:
    """Acts of one window on the session's file.

    opened : done once another build is there;  used : done once a file stands at the head of those used last
    """

    def __init__(
        self, window: QWidget, session: Session, opened: Callable[[], object], used: Callable[[], object]
    ) -> None:
        self.window, self.session, self.opened, self.used = window, session, opened, used

    def new(self) -> None:
        """Leave this build for an empty one."""
        if self.may_leave():
            self.session.start_new()
            self.opened()

    def guide_first_build(self) -> None:
        """Twelve questions to a build of one's own; what is open is asked about first."""
        from keelroom.gui.first_build import FirstBuild

        if not self.may_leave():
            return
        asked = FirstBuild(self.window, self.session)
        if asked.exec() and asked.build is not None:
            self.session.start_from(asked.build)
            self.opened()

    def open_demo(self) -> None:
        """The demo as a build of its own."""
        self._open_copy(ASSETS / "demo.keelroom")

    def _open_copy(self, path: Path) -> None:
        """A file as a build that has none yet; what is open is asked about first."""
        if self.may_leave():
            self._open(lambda: self.session.open_copy(path))

    def open_sample(self, name: str) -> None:
        """A sample as a build of its own."""
        self._open_copy(ASSETS / "samples" / f"{name}.keelroom")

    def samples(self) -> tuple[Sample, ...]:
        """Shipped builds of different kinds, with their pictures."""
        told = (
            ("demo", "A parcel van, tuned", "Towing, hill-climbs: work in hand", self.open_demo),
            ("coupe", "A coupé with a 6.2 swap", "Street and A/C: it holds", partial(self.open_sample, "coupe")),
            ("rear", "A roadster, engine behind", "Its core at the tail", partial(self.open_sample, "rear")),
        )
        return tuple(Sample(title, words, ASSETS / "samples" / f"{name}.png", act) for name, title, words, act in told)

    def keep_template(self) -> None:
        """Begin new builds from the open file, until another is kept."""
        if self.session.path is None:
            self.session.told.emit("Save the build first: its file is the template")
            return
        self.session.settings.template = str(self.session.path)
        self.session.told.emit(f"New builds can begin from {self.session.path.name}: File, Start from my template")

    def template(self) -> Path | None:
        """The shop's own file to begin from, where it is still there."""
        path = self.session.settings.template
        return Path(path) if path and Path(path).is_file() else None

    def start_from_template(self) -> None:
        """A copy of the shop's own template; what is open is asked about first."""
        path = self.template()
        if path is None:
            self.session.told.emit("No template is kept yet: open the build it should be and keep it as that")
        else:
            self._open_copy(path)

    def new_window(self) -> None:
        """Another build beside this one, in a window and a process of its own: neither waits for the other, and each
        keeps its own recovery copies."""
        QProcess.startDetached(sys.executable, ["-m", "keelroom"])

    def choose_file(self) -> None:
        if not self.may_leave():
            return
        name, _ = QFileDialog.getOpenFileName(self.window, "Open a build", str(self.session.folder), KINDS_OF_FILE)
        if name:
            self.open(Path(name))

    def open(self, path: Path) -> bool:
        """Open a file; what is open stays where it cannot be, or where somebody would not wait."""
        try:
            found = read_beside(self.window, self.session, path)
        except KeelRoomError as error:
            return self._not_opened(error)
        if found is None:
            self.session.told.emit(f"{named(path)} was not opened; what was open stays")
            return False
        return self._open(lambda: self.session.begin(found.stored, path, found.first))

    def open_recent(self, path: Path) -> None:
        """A file used before; what is open is asked about first."""
        if self.may_leave():
            self.open(path)

    def recent(self) -> list[Path]:
        """Files used last that are still there."""
        return [path for path in map(Path, self.session.settings.recent) if path.is_file()]

    def last(self) -> list[Last]:
        """Builds used last, as they were left: read from what is kept of them, not from the files, so that the start
        does not wait."""
        settings = self.session.settings
        return [Last(path, *settings.told_of(str(path)), _day(path)) for path in self.recent()[:LAST_SHOWN]]

    def _remember(self) -> None:
        """Put the open file at the head of those used last, with how it stands where nothing in it is unsaved."""
        if self.session.path is None:
            return
        settings, path = self.session.settings, str(self.session.path)
        settings.add_recent(path)
        if not self.session.store.dirty:
            settings.tell_of(
                path, self.session.build.brief.title, verdict_line(self.session.assessment, self.session.system)
            )
        self.used()

    def _open(self, act: Callable[[], None]) -> bool:
        try:
            act()
        except KeelRoomError as error:
            return self._not_opened(error)
        self._remember()
        self.opened()
        return True

    def _not_opened(self, error: KeelRoomError) -> bool:
        self.session.told.emit(error.message)
        warn(self.window, "Not opened", error.message)
        return False

    def take_over(self, recovered: Recovered) -> None:
        """Go on with what a killed window left behind."""
        if self.may_leave() and self._open(lambda: self.session.recover(recovered)):
            self.session.told.emit("Recovered; save it to keep it")

    def save(self) -> bool:
        if self.session.path is None:
            return self.save_as()
        return self._save(self.session.path)

    def save_as(self) -> bool:
        suggested = f"{file_name(self.session.build.brief.title, 'build')}{ENDING}"
        path = ask_where(self.window, self.session, ("Save the build", suggested, KINDS_OF_FILE))
        return path is not None and self._save(path)

    def save_copy(self) -> None:
        """Write the build to another file and go on with this one."""
        self._leave_field()
        title = f"{file_name(self.session.build.brief.title, 'build')} copy.keelroom"
        ask_and_write(
            self.window,
            self.session,
            ("Save a copy", title, KINDS_OF_FILE),
            lambda path: write_copy(self.session.store.to_write(), path),
        )

    def _save(self, path: Path, *, replacing: bool = False) -> bool:
        self._leave_field()
        try:
            self.session.save(path, replacing=replacing)
        except KeelRoomError as error:
            if error.code == "changed_on_disk":
                return self._changed_behind(path, error.message)
            self.session.told.emit(error.message)
            warn(self.window, "Not saved", error.message)
            return False
        self._remember()
        return True

    def _changed_behind(self, path: Path, message: str) -> bool:
        """Another program wrote the open file: both versions are kept unless this one is told to replace it."""
        answer = ask_about_change(self.window, message, self.session.differences_from(path))
        if answer == "replace":
            return self._save(path, replacing=True)
        return answer == "beside" and self.save_as()

    def _leave_field(self) -> None:
        """What stands typed in a field is entered before it is saved."""
        focused = QApplication.focusWidget()
        if focused is not None:
            focused.clearFocus()

    def may_leave(self) -> bool:
        if not self.session.store.dirty:
            return True
        buttons = QMessageBox.StandardButton
        box = message(
            self.window, QMessageBox.Icon.Question, "Save first?", "This build has changes that are not saved."
        )
        box.setStandardButtons(buttons.Save | buttons.Discard | buttons.Cancel)
        box.setDefaultButton(buttons.Save)
        answer = box.exec()
        return answer == buttons.Discard or (answer == buttons.Save and self.save())
