"""The running session: store, assessment, units and theme in one place that widgets listen to."""

from __future__ import annotations

import math
import os
from pathlib import Path
from typing import NamedTuple

from PyQt6.QtCore import QObject, pyqtSignal

from keelroom.assess.acts.registry import edit_for, kind_of, offer
from keelroom.assess.assess import completed, first_wave, not_worked_out
from keelroom.assess.defaults import new_build
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.fit.cut_rules import barred
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.questions.proof import done_words
from keelroom.assess.report import first_needed
from keelroom.core.kept import Kept
from keelroom.document.act import Act
from keelroom.document.autosave import Autosave, Keeper, LeftBehind, Origin, Recovered
from keelroom.document.difference import came, differences, worded
from keelroom.document.edits import Edit, set_value
from keelroom.document.fields import get, part_of
from keelroom.document.file import Stored, read, save
from keelroom.document.photos import carry, take_in
from keelroom.document.schema.build import Build
from keelroom.document.store import Store
from keelroom.document.writing import clear_abandoned
from keelroom.errors import DocumentError, KeelRoomError
from keelroom.gui.session.settings import Settings
from keelroom.gui.session.timing import one_shot
from keelroom.gui.session.worker import Worker
from keelroom.units import KINDS, Kind, Unit


class Held(NamedTuple):
    """A state frozen as reference."""

    build: Build
    assessment: Assessment

    def figures(self, case_id: str) -> CaseFigures | None:
        return self.assessment.figures_of(case_id)


UNKNOWN = "unknown"
"""Digest of a file nobody knows what it held: no file has it."""
PAUSE = 150
"""[ms] without an edit before the second wave of an assessment is begun, so that it takes nothing from typing and
dragging."""


class Session(QObject):
    """Wave one is synchronous: when `changed` is emitted the assessment belongs to the build."""

    changed = pyqtSignal()
    deepened = pyqtSignal()
    """the same assessment has its second wave"""
    saved = pyqtSignal()
    """the build as it stands is in its file"""
    selected = pyqtSignal(str)
    """a duty case was chosen"""
    explained = pyqtSignal(str)
    """somebody wants the working of a headline figure: 'temperature' or a key of `HEADLINES`"""
    asked_for = pyqtSignal(tuple)
    """somebody wants to see the field at this path"""
    picked = pyqtSignal()
    """another part is chosen, in a drawing, a table or a form: all of them show it"""
    glanced = pyqtSignal()
    """a moment of a drive stands under its cursor, or none any more"""
    told = pyqtSignal(str)
    """a sentence for the status line"""
    display_changed = pyqtSignal()
    """units or theme"""

    def __init__(self, settings: Settings, autosave: Autosave, first: Build | None = None) -> None:
        """first : the build it will go on with, where that is known: no empty one is made to be put aside"""
        super().__init__()
        self.settings, self.autosave = settings, autosave
        self.keeper = Keeper(autosave, self.told.emit)
        # Stages of this session's assessments and pages, all made in the window's thread; workers keep their own.
        self.kept = Kept()
        self.kept.stay()
        self.store = Store(first or new_build())
        self.path: Path | None = None
        self._digest = ""
        """of the file as it was read or written last"""
        self.case_id = ""
        self.headline = "temperature"
        self.part: tuple[str, ...] = ()
        """the part chosen last, by its path"""
        self.held: Held | None = None
        self.moment: tuple[str, float] | None = None
        """what the cursor of a drive stands on: in words, and its coolant [degC] at the engine's outlet"""
        self._assessment: Assessment | None = None  # of an empty build nobody looks at it is never made
        self._hurried = first is not None
        """whether a window waits to be painted: its figures first, what they are judged to be right after"""
        self.pause = one_shot(self, PAUSE, self._deepen)
        self.worker = Worker(self)
        self.worker.answered.connect(self._deepened)
        self.worker.failed.connect(self.told)
        self.marks: list[tuple[str, float | None, float | None]] = []
        """the trail's temperature and tightest gap after each step"""
        self.store.listen(self._swapped)

    @property
    def build(self) -> Build:
        return self.store.build

    @property
    def assessment(self) -> Assessment:
        """What is worked out for the build as it stands: the very build, or there is a fault in this program. It
        never lags behind."""
        if self._assessment is None:
            self._assess(moving=False)
        assert self._assessment is not None
        assert self._assessment.build is self.store.build, "the assessment is another build's"
        return self._assessment

    @property
    def folder(self) -> Path:
        """Where files are looked for and written first."""
        return self.path.parent if self.path else Path.home()

    @property
    def system(self) -> str:
        return self.settings.system

    def unit(self, kind: Kind) -> Unit:
        return kind.shown_unit(self.system)

    def apply(self, edit: Edit) -> None:
        """Apply an edit. Raises InputError for the field that made it to show."""
        self.store.apply(edit)

    def attempt(self, edit: Edit) -> bool:
        """Apply an edit that comes from no field; a refusal goes to the status line, and so does what must not be
        done yet."""
        try:
            why_not = barred(self.build, edit)
            if why_not:
                self.told.emit(why_not)
                return False
            self.store.apply(edit)
        except KeelRoomError as error:
            self.told.emit(error.message)
            return False
        return True

    def set(self, path: tuple[str, ...], value: object, label: str) -> bool:
        return self.attempt(set_value(path, value, label))

    def do(self, act: Act) -> bool:
        """Do an act to the build as it stands; whether it was done. What it adds is gone to where there is more to
        say of it."""
        before, was = self.build, self.assessment
        try:
            edit, first = edit_for(before, act, self.system), kind_of(act).first
        except KeelRoomError as error:
            self.told.emit(error.message)
            return False
        if not self.attempt(edit):
            return False
        new = came(before, self.build) if first is not None else None
        if new:
            self.asked_for.emit((*new, first) if first else new)
        brought = done_words(act, was, self.assessment, self.system) if before.active == self.build.active else ""
        if brought:
            self.told.emit(brought)
        return True

    def why_not(self, act: Act) -> str:
        """Why an act must not be done yet, or cannot be; '' where nothing stands against it."""
        try:
            return barred(self.build, edit_for(self.build, act, self.system))
        except KeelRoomError as error:
            return error.message

    def pick(self, path: tuple[str, ...]) -> None:
        """Choose the part a path lies in."""
        part = part_of(path)
        if part != self.part:
            self.part = part
            self.picked.emit()

    def _assess(self, *, moving: bool) -> None:
        """Wave one of the build as it stands; what cannot be worked out stands in it with its reason."""
        build, previous = self.build, self._assessment
        if previous is not None and previous.build is build and (previous.judged or moving):
            return  # it came with the file
        with self.kept.at_work():
            found = attempted("The build", ("brief",), lambda: first_wave(build, previous=previous, moving=moving))
        self._assessment = not_worked_out(build, build.package, found) if isinstance(found, Stopped) else found

    def _swapped(self) -> None:
        self._assess(moving=self.store.merging or self._hurried)
        if self.case_id not in {case.id for case in self.build.duty_cases}:
            self.case_id = ""
        if not self.case_id and self.assessment.telling:
            # Chosen once: whatever becomes the tightest later, what is looked at does not jump.
            self.case_id = self.assessment.telling.case_id
        self._mark_trail()
        if self.store.dirty:
            self.keeper.offer(self.build, self._origin)
        self.worker.cancel()
        if not self._hurried:  # a window that takes longer than the pause to come is not judged before it stands
            self._rest()
        self.changed.emit()

    def _rest(self) -> None:
        """After a pause the second wave, where it is not there."""
        if not self.assessment.complete:
            self.pause.start()

    def let_go(self) -> None:
        """What was dragged rests: one step of the trail, and judged."""
        self.store.end_merge()
        self._judge()

    def painted(self) -> None:
        """The first window stands: what it shows is judged now."""
        self._judge()
        self._rest()

    def _judge(self) -> None:
        self._hurried = False
        if self.assessment.judged:
            return
        self._assess(moving=False)
        self.changed.emit()

    def _deepen(self) -> None:
        self._judge()
        if self.assessment.complete:
            return
        build, first = self.build, self.assessment
        self.worker.ask(lambda: (first, completed(build, first)))

    def _deepened(self, waves: tuple[Assessment, Assessment]) -> None:
        first, whole = waves
        if first is self.assessment:
            self._assessment = whole
            self.deepened.emit()

    def whole(self) -> Assessment:
        """The assessment with its second wave, made now if it has not been: for what leaves the window."""
        self._judge()
        if not self.assessment.complete:
            with self.kept.at_work():
                self._deepened((self.assessment, completed(self.build, self.assessment)))
        return self.assessment

    def _mark_trail(self) -> None:
        trail, tightest = self.store.trail, self.assessment.tightest
        figures = tightest.figures if tightest else None
        temperature = (
            None if figures is None else math.inf if figures.verdict == "does_not_settle" else figures.temperature
        )
        self.marks = [*self.marks[: max(len(trail) - 1, 0)]]
        if trail:
            fit = self.assessment.fit
            self.marks.append((trail[-1], temperature, fit.tightest.gap if fit and fit.tightest else None))

    def explain(self, headline: str) -> None:
        """Show the working of a headline figure."""
        self.headline = headline
        self.explained.emit(headline)

    def select(self, case_id: str) -> None:
        self.case_id = case_id
        self.headline = "temperature"
        self.selected.emit(case_id)

    def glance(self, moment: tuple[str, float] | None) -> None:
        """Say which moment of a drive is looked at; the ledger marks it."""
        if moment != self.moment:
            self.moment = moment
            self.glanced.emit()

    @property
    def stopped(self) -> str:
        """What stopped the chosen duty case, as a sentence; '' where it is worked out or needs something."""
        stop = next((case.stopped for case in self.assessment.cases if case.case_id == self.case), None)
        return f"This duty case could not be worked out: {stop.why}." if stop else ""

    @property
    def needed(self) -> str:
        """What must be known before any duty case is worked out, in words; '' where one is."""
        return first_needed(self.assessment)

    @property
    def needed_first(self) -> tuple[str, ...]:
        """Where the first of it is typed; () where nothing is needed."""
        cases = self.assessment.cases if self.needed else ()
        return next((need.path for case in cases for need in case.needs), ())

    @property
    def case(self) -> str:
        """The chosen duty case, or the one that tells most, or the first."""
        if self.case_id:
            return self.case_id
        telling = self.assessment.telling
        return telling.case_id if telling else (self.build.duty_cases[0].id if self.build.duty_cases else "")

    def toggle_hold(self) -> None:
        """Freeze the present state as reference, or let the frozen one go."""
        self.held = None if self.held else Held(self.build, self.assessment)
        self.changed.emit()

    def set_units(self, system: str) -> None:
        self.settings.units = system
        self.display_changed.emit()

    def set_theme(self, name: str) -> None:
        self.settings.theme = name
        self.display_changed.emit()

    def start_new(self) -> None:
        self._begin(Stored(new_build(), ""), None)

    def start_from(self, build: Build) -> None:
        """Go on with a build that was just made and is saved nowhere."""
        self.keeper.rest()
        self.autosave.discard()
        self._forget_the_last()
        self.path, self._digest = None, ""
        self.store.replace(build, saved=False)

    def remake_duty_cases(self) -> None:
        """Make the default duty cases anew from the brief as it stands."""
        self.do(offer("usual_cases"))

    def open(self, path: Path) -> None:
        """Open a file. Raises DocumentError and keeps what is open."""
        self.open_read(read(path), path)

    def open_read(self, stored: Stored, path: Path) -> None:
        """Open a file that was read."""
        clear_abandoned(path.parent, path)
        self.begin(stored, path)

    def begin(self, stored: Stored, path: Path, first: Assessment | None = None) -> None:
        """Go on with a file that was read. first: the judgement of its build, where it was worked out with the
        reading"""
        if first is not None:
            self._assessment = first
        self._begin(stored, path.absolute())

    def open_copy(self, path: Path) -> None:
        """Open what is in a file as a build that has no file yet, so that saving asks where. Raises DocumentError."""
        self.begin_copy(read(path))

    def begin_copy(self, stored: Stored) -> None:
        """Go on with a copy of a file that was read."""
        self._begin(Stored(stored.build, ""), None)

    def _begin(self, stored: Stored, path: Path | None) -> None:
        self.keeper.rest()
        self.autosave.discard()
        self._forget_the_last()
        self.path, self._digest = path, stored.digest
        self.store.replace(stored.build, saved=True)

    def waiting(self) -> LeftBehind:
        """Recovery copies that wait for the open file; all that wait where none is open."""
        return self.autosave.left_behind(self.path)

    def recover(self, recovered: Recovered) -> None:
        """Go on with a recovery copy as unsaved work on the file it came from. Raises DocumentError and changes
        nothing."""
        self.keeper.rest()
        self.autosave.adopt(recovered)
        self._forget_the_last()
        self.path = Path(recovered.origin) if recovered.origin else None
        # What the copy grew from: where the file holds something else by now, saving asks. A note that does not know
        # asks too.
        self._digest = (recovered.grew_from or UNKNOWN) if self.path else ""
        self.store.replace(recovered.build, saved=False)

    def save(self, path: Path, *, replacing: bool = False) -> None:
        """Write the file. Raises DocumentError and loses nothing; code “changed_on_disk” where another program wrote
        the open file meanwhile and `replacing` does not say that this is known."""
        same = self.path is not None and os.path.realpath(path) == os.path.realpath(self.path)
        before = self.path
        stored = save(self.store.to_write(), path, self._digest if same and not replacing else "", self.store.saved)
        self.keeper.rest()
        self.autosave.discard()
        self.path, self._digest = path.absolute(), stored.digest
        self.store.mark_saved(stored.build)
        self.saved.emit()
        lost = carry(stored.build, before, self.path)
        gone = f"; photos that could not come along: {', '.join(lost)}" if lost else ""
        self.told.emit(f"Saved {path.name}" + (f": {stored.note}" if stored.note else "") + gone)

    def keep_photo(self, where: tuple[str, ...], source: Path) -> bool:
        """Take a photo in at a list of photos; whether it was done. What was wrong is told."""
        if self.path is None:
            self.told.emit("Save the build first: photos stand in a folder beside its file")
            return False
        there = get(self.build, where)
        try:
            photo = take_in(self.path, source, there)
        except KeelRoomError as error:
            self.told.emit(error.message)
            return False
        return self.attempt(set_value(where, (*there, photo), f"Photo {photo.file}"))

    def differences_from(self, path: Path) -> tuple[str, ...]:
        """What this build says differently from a file as it stands now. One sentence where the file cannot be read."""
        try:
            return tuple(map(worded, differences(read(path).build, self.build)))
        except DocumentError as error:
            return (error.message,)

    @property
    def _origin(self) -> Origin:
        return Origin(str(self.path), self._digest) if self.path else Origin()

    def keep_recovery_copy(self) -> bool:
        """Keep what is not saved anywhere before returning; whether nothing is in danger now."""
        return not self.store.dirty or self.keeper.write_now(self.build, self._origin)

    def _forget_the_last(self) -> None:
        self.case_id = ""
        self.marks = []
        self.held = None

    def close(self) -> None:
        """The window closes in good order: no recovery copy stays behind."""
        self.pause.stop()
        self.worker.cancel()
        self.keeper.end()
        self.autosave.discard()

    def kind(self, name: str) -> Kind:
        return KINDS[name]
