"""From the document to solids: the package's parts where they stand, and what the survey found round them."""

from __future__ import annotations

from typing import Literal, NamedTuple

from keelroom.assess.tape import tolerance
from keelroom.core.packaging.solids import Solid, Vector
from keelroom.document.quantity import Quantity
from keelroom.document.schema.survey import Survey
from keelroom.units import INCH

Sort = Literal["part", "fan", "hose", "static", "moved", "turning", "hood", "panel"]
Path = tuple[str, ...]
WIDE = 1.2
ROCK = INCH / 2
"""[m] how far an engine is taken to rock where nobody tried (common practice)."""


def rocks_forward(survey: Survey) -> float:
    """How far [m] the engine comes forward in its mounts."""
    rock = survey.engine.rock_forward
    return rock.si if rock else ROCK


class Term(NamedTuple):
    """One reading a face of a solid depends on, how far it may be off [m], and how far the face moves per metre of
    it."""

    label: str
    path: Path
    tolerance: float
    share: float = 1.0


Terms = tuple[Term, ...]
NONE: tuple[Terms, Terms, Terms] = ((), (), ())


class Body(NamedTuple):
    """A named solid. low, high: the readings its faces depend on, along its own three axes; unknown: not all of it is
    measured;
    assumed: some of it is only a guess."""

    key: str
    name: str
    sort: Sort
    solid: Solid
    path: Path
    low: tuple[Terms, Terms, Terms] = NONE
    high: tuple[Terms, Terms, Terms] = NONE
    unknown: bool = False
    assumed: bool = False


RADIUS = 0.5
"""A face moves by half of what its diameter is off."""


def term(label: str, path: Path, value: Quantity | None, share: float = 1.0) -> Terms:
    """The term of a reading; none where there is no reading."""
    return () if value is None else (Term(label, path, tolerance(value), share),)


def vector_of(values: object) -> Vector:
    x, y, z = (float(v) for v in values)  # type: ignore[attr-defined]
    return (x, y, z)
