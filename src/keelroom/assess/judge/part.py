"""A part of the judgement, and what it reads: it is asked again only where some of that is another."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import NamedTuple

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Found
from keelroom.assess.reads import Reads
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

Check = Callable[[Build, Package, Assessment], Found]


class Part(NamedTuple):
    """check : what it finds;  reads : the sections that hangs on, None where it is asked every time;  also : what it
    takes of the assessment that is the same where its figures are, whatever object holds them."""

    check: Check
    reads: Reads | None = None
    also: Callable[[Assessment], Hashable] | None = None

    @property
    def name(self) -> str:
        return self.check.__name__.strip("_").replace("_", " ")
