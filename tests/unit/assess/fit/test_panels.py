"""Panels in the lists: what is fitted is cut and bought, what is only thought of is not."""

from keelroom.assess.figures.templates import cut_list, patterns, sheet_list
from keelroom.assess.fit.panels import panel_name
from keelroom.assess.work.hardware import hardware_list
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.panels import Panel
from tests.changes import on
from tests.conftest import DEMO

P1 = ("packages", "p1")
PANEL = Panel(id="over", name="Over the top", length=quantity("20 in", "length"), depth=quantity("6 in", "length"))
BUILD = on(load(DEMO), ((*P1, "panels"), (PANEL,)))


def test_a_panel_that_is_only_thought_of_is_in_no_list():
    def lists(build):
        package = build.package
        rows = [
            *cut_list(build, package, "us"),
            *hardware_list(build, package, "us"),
            *sheet_list(build, package, "us"),
        ]
        return " ".join(" ".join(row) for row in rows) + " ".join(one.name for one in patterns(build, package))

    own = BUILD.package.panels[0]
    name = panel_name(own)
    where = (*P1, "panels", own.id, "fitted")
    assert name in lists(on(BUILD, (where, True)))
    assert name not in lists(on(BUILD, (where, False)))
