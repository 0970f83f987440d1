"""Ids: one rule over every list of the document, found in its classes."""

import pytest

from keelroom.document.edits import Change, Edit, apply
from keelroom.document.fields import get, id_lists
from keelroom.document.file import load
from keelroom.errors import InputError
from tests.conftest import DEMO

BUILD = load(DEMO)
LISTS = [
    ("packages",),
    ("duty_cases",),
    ("gaps",),
    ("brief", "causes"),
    ("supply", "sources"),
    ("supply", "loads"),
    ("survey", "obstacles"),
    ("survey", "hoses"),
    ("survey", "holes"),
    ("survey", "second"),
    ("survey", "engine", "turning"),
    ("packages", "p1", "fans"),
    ("packages", "p1", "coolers"),
    ("packages", "p1", "brackets"),
    ("packages", "p1", "mounting", "frames"),
    ("packages", "p1", "circuits"),
    ("packages", "p1", "loop", "hoses"),
    ("packages", "p1", "loop", "parts"),
    ("logbook", "sensors"),
    ("logbook", "trials"),
    ("logbook", "trials", "soak2", "logs"),
]


@pytest.mark.parametrize("path", LISTS)
def test_a_list_with_one_id_twice_is_refused(path):
    items = get(BUILD, path)
    with pytest.raises(InputError, match="unique"):
        apply(BUILD, Edit("", (Change(path, (*items, items[0])),)))


def test_every_list_of_the_demo_is_looked_at():
    """Counted by hand: six of the survey and its opening's corners, gaps, causes, sources and loads, packages, duty
    cases; of each of four packages eight, ports of its core,
    parts and hoses of its circuit and what each of four hoses goes by; drives with the legs of three, and cycles;
    sensors, trials, and legs, readings, logs and photos of three trials; what they told; ticks with the photos of each,
    things to buy, steps of one's own and paces of the work."""
    own = 6 + 1 + 1 + 1 + 2 + 1 + 1 + 4 * (8 + 3 + 4) + 5
    work = 4 + len(BUILD.work.ticks)
    assert len(list(id_lists(BUILD, apart=("own_fans",)))) == own + 2 + 3 * 4 + 1 + work


def test_own_parts_are_known_by_name():
    fans = [package.fans[0] for package in BUILD.packages]
    assert len({fan.id for fan in fans}) == 1
    assert apply(BUILD, Edit("", (Change(("own_fans",), tuple(fans)),))).own_fans == tuple(fans)
