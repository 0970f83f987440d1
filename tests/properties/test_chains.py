"""Every gap's chain, held against the bay itself: each reading moved a little, and the gap with it by what its link
says."""

import pytest

from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.placing import stand
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.fields import measured_fields
from keelroom.document.file import load
from keelroom.document.quantity import from_si
from keelroom.document.schema.survey import Corner
from tests.changes import on
from tests.conftest import DEMO

STEP = 4e-4
"""[m] a reading is moved by"""
DEMO_BUILD = load(DEMO)


def lengths(build):
    """Every length that was read of the bay and of the active package, where it is and its value."""
    for path, spec, value in measured_fields(build):
        if (
            value is not None
            and spec.kind_name == "length"
            and (path[0] == "survey" or path[:2] == ("packages", build.active))
            and (value.si > 0 or path[-1] not in ("gasket", "pads"))
        ):
            yield path, spec, value


def placed(build):
    """The build with its core set down where it stands, so that no reading moves the whole package, and every length
    off a tape: what nobody doubts has no link."""
    at = stand(build.survey, build.package)
    where = ("packages", build.active, "place")
    set_down = apply(
        build,
        Edit(
            "", tuple(Change((*where, axis), from_si(getattr(at, axis), "length", "us", "measured")) for axis in "xyz")
        ),
    )
    taped = tuple(
        Change(path, value.model_copy(update={"origin": "measured", "doubt": None}))
        for path, _, value in lengths(set_down)
    )
    return apply(set_down, Edit("", taped))


def corner(ident, x, y):
    return Corner(id=ident, x=from_si(x, "length", "us", "measured"), y=from_si(y, "length", "us", "measured"))


P1 = ("packages", "p1")
THICK = (
    ((*P1, "shroud", "gasket"), "1/4 in", "length"),
    ((*P1, "mounting", "pads"), "1/2 in", "length"),
    ((*P1, "core", "neck_height"), "1 1/2 in", "length"),
)
"""what is there counts; one that is not there is no reading"""
BUILDS = {
    "twin 12s": placed(on(DEMO_BUILD, *THICK)),
    "one bare 16": placed(on(DEMO_BUILD, (("active",), "p2"))),
    "an opening by corners": placed(
        on(
            DEMO_BUILD,
            (
                ("survey", "opening", "corners"),
                (corner("a", 0, 0), corner("b", 0.6223, 0), corner("c", 0.6, 0.4953), corner("d", 0, 0.4953)),
            ),
        )
    ),
}


def gaps(build):
    return {(gap.part.key, gap.other.key): gap for gap in fit_up(build, build.package).gaps}


ASKED = {
    "twin 12s": lambda path: True,
    "one bare 16": lambda path: path[2:3] in (("fans",), ("shroud",), ("core",)),
    "an opening by corners": lambda path: path[:2] == ("survey", "opening"),
}
"""of the second and third build only what differs from the first"""


def _same(link, path):
    """Of the hood's two readings the worse stands in the chain for both: its line is off by no more."""
    return link == path or (link[:2] == path[:2] == ("survey", "hood") and path[-1] in ("front", "back"))


@pytest.mark.parametrize("name", BUILDS)
def test_every_reading_moves_a_gap_by_no_more_than_its_link_says(name, record_property):
    """Moved up and down: what a gap gives is at most the link's share of it; a reading that is in no chain moves
    nothing.

    Left out: pairs whose nearest points jump, so that both ways give less; and overlaps, whose way out may turn.
    """
    build = BUILDS[name]
    before = {pair: gap for pair, gap in gaps(build).items() if gap.gap > 2e-3}
    held = 0
    wrong = []
    for path, spec, value in (found for found in lengths(build) if ASKED[name](found[0])):
        for sign in (1, -1):
            moved_to = value.si + sign * STEP
            if spec.refusal(moved_to) is not None:
                continue
            after = gaps(apply(build, Edit("", (Change(path, from_si(moved_to, "length", "si", "measured")),))))
            step = abs(from_si(moved_to, "length", "si", "measured").si - value.si)
            for pair, gap in before.items():
                if pair not in after:
                    continue
                given = gap.gap - after[pair].gap
                share = next((link.share for link in gap.links if _same(link.path, path)), 0.0)
                held += abs(given) > 0.1 * step
                if given > share * step * 1.1 + 0.04 * step:
                    wrong.append(
                        f"{'/'.join(path)} {sign:+d}: {pair[0]} to {pair[1]} gives {given / step:.2f}, its "
                        f"link says {share:.2f}"
                    )
    record_property("counts", f"chains, {name}: {len(before)} gaps, {held} times a reading moved one")
    assert not wrong, "\n".join(sorted(set(wrong)))
    assert held > {"twin 12s": 40}.get(name, 5)


def test_a_diameter_counts_by_half_and_a_covers_far_side_by_its_own_readings():
    """The condenser 20 in wide set 3 in from the left: its right edge at 23 in hangs on both; a pulley's rim on half
    its diameter."""
    build = on(DEMO_BUILD, (("packages", "p1", "coolers", "condenser", "left"), "3 in", "length"))
    fit = fit_up(build, build.package)
    (condenser,) = (body for body in fit.parts if body.key == "cover:condenser")
    right = {term.path[-1] for term in condenser.high[0]}
    assert right == {"x", "left", "width"}
    assert {term.path[-1] for term in condenser.high[1]} >= {"y", "bottom", "height"}
    ring = next(body for body in fit.parts if body.key == "ring:fan1")
    assert [term.share for term in ring.high[0] if term.path[-1] == "diameter"] == [0.5]
    turning = next(body for body in fit.others if body.sort == "turning")
    assert [term.share for term in turning.high[0] if term.path[-1] == "diameter"] == [0.5]


def test_an_edge_of_the_opening_hangs_on_its_own_side_alone():
    fit = fit_up(DEMO_BUILD, DEMO_BUILD.package)
    edges = {body.key: {term.path[-1] for term in body.high[1]} for body in fit.others if body.sort == "panel"}
    assert edges == {"panel:lower": set(), "panel:left": set(), "panel:right": {"width"}, "panel:upper": {"height"}}
