"""Which sections of a build something reads: every look at one is written down."""

import sys
from contextlib import contextmanager

from keelroom.assess.figures.assessment import Assessment
from keelroom.document.schema.brief import Brief
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

WHERE = {Build: "build", Brief: "brief", Package: "package", Assessment: "assessment"}
BY_THEIR_PARTS = {"build.brief", "assessment.build"}
ONE_OF_THEM = {"with_id", "get", "of_kind"}
"""What looks through all packages for the one that is asked for."""


@contextmanager
def reads_of():
    """Names of the sections that are looked at within, as a set that fills."""
    seen, before = set(), {kind: kind.__getattribute__ for kind in WHERE}

    def watched(kind, where):
        plain, fields = before[kind], set(getattr(kind, "model_fields", None) or kind._fields)

        def look(self, name):
            if name in fields and not (name == "packages" and sys._getframe(1).f_code.co_name in ONE_OF_THEM):
                seen.add(f"{where}.{name}")
            return plain(self, name)

        return look

    for kind, where in WHERE.items():
        kind.__getattribute__ = watched(kind, where)
    try:
        yield seen
    finally:
        for kind, plain in before.items():
            kind.__getattribute__ = plain
        seen -= BY_THEIR_PARTS
