"""What a kind of act is, and what its maker is handed."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from keelroom.document.act import Act
from keelroom.document.edits import Edit
from keelroom.document.fields import Path
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package
from keelroom.errors import InputError

HOUR = 3600.0


class Doing(NamedTuple):
    """One act about to be done to one build. system: units new measures are written in"""

    build: Build
    act: Act
    system: str = "us"

    @property
    def package(self) -> Package:
        """The package the act is about. Raises InputError where it is gone."""
        found = next((one for one in self.build.packages if one.id == self.act.package), None)
        if found is None:
            raise InputError("no_such_package", "That package is no longer in the build")
        return found

    @property
    def where(self) -> Path:
        """The path of that package."""
        return ("packages", self.package.id)

    def given(self, name: str) -> str:
        """What the act was given under a name. Raises InputError where it was given nothing such."""
        found = dict(self.act.given).get(name)
        if found is None:
            raise InputError("act_incomplete", f"This act says no {name.replace('_', ' ')}")
        return found

    def number(self, name: str) -> float:
        """A given number. Raises InputError where it is none."""
        try:
            return float(self.given(name))
        except ValueError:
            raise InputError("act_incomplete", f"“{self.given(name)}” is no number") from None

    @property
    def fan(self) -> Fan:
        """The fan it is about. Raises InputError where it is gone."""
        found = next((fan for fan in self.package.fans if fan.id == self.given("fan")), None)
        if found is None:
            raise InputError("no_such_fan", "That fan is no longer in the package")
        return found


class Taken(NamedTuple):
    """What the change of an entry takes, whatever else an act changes: hours [s] of work (common practice), part."""

    path: Path
    hours: float
    part: str


class ActKind(NamedTuple):
    """One kind of act, declared once.

    code     : its name, for good: files keep it
    meaning  : what it does, in a line
    edit     : makes the edit; raises InputError where it does not apply, or no longer
    label    : what it is called where nothing better is said
    hours    : [s] of work the build itself does not count (common practice)
    parts    : what it takes from the shelf, beside what the build prices
    takes    : what it takes beside both where it changes these entries too
    cautions : what can hurt somebody or cannot be taken back
    before, after : what to look at first, and what to check once it is done
    first    : what it adds is gone to, and this field of it entered first ("" the whole member); None where nothing
               is gone to
    rests_on : entries its figures come from; a step "*" is the package's id, another in "<>" is given by that name
    """

    code: str
    meaning: str
    edit: Callable[[Doing], Edit]
    label: str = ""
    hours: float = 0.0
    parts: tuple[str, ...] = ()
    takes: tuple[Taken, ...] = ()
    cautions: tuple[str, ...] = ()
    before: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    rests_on: tuple[Path, ...] = ()
    first: str | None = None
