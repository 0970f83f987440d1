"""What was done to a build, as the acts that did it."""

from typing import Annotated

from keelroom.document.act import Act
from keelroom.document.quantity import Strict, most
from keelroom.document.text import harmless

KEPT = 300
"""Steps a file keeps; older ones are forgotten."""
LABEL, VALUE = 200, 8000
"""Characters kept of a step's label, and of each thing it was given; what is longer is not kept, so that a file stays
small."""
OMITTED = "omitted"
Steps = Annotated[tuple[str, ...], most(12)]


class Given(Strict):
    """What an act needed to know, by name."""

    name: str
    value: str


class Done(Strict):
    """One step: its act, and the places of the build it changed."""

    code: str
    label: str = ""
    package: str = ""
    path: Steps = ()
    given: Annotated[tuple[Given, ...], most(60)] = ()
    touched: Annotated[tuple[Steps, ...], most(400)] = ()

    @property
    def act(self) -> Act:
        """The act as it was done."""
        return Act(self.code, self.label, self.package, tuple((one.name, one.value) for one in self.given), self.path)


def done(act: Act, touched: tuple[tuple[str, ...], ...]) -> Done:
    """A step as a file keeps it: one line each, as long as anybody reads."""
    whole = all(len(value) <= VALUE for _, value in act.given)
    given = act.given if whole else ((OMITTED, "too long to be kept"),)
    return Done(
        code=act.code,
        label=harmless(act.label[:LABEL], "label"),
        package=act.package,
        path=act.path,
        given=tuple(Given(name=name, value=harmless(value, name)) for name, value in given),
        touched=tuple(dict.fromkeys(touched)),
    )
