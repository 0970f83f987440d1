"""Edits of whole packages."""

import pytest

from keelroom.document.edits import apply
from keelroom.document.file import load
from keelroom.document.packages import activated, duplicated, named, without
from keelroom.errors import InputError
from tests.conftest import DEMO

BUILD = load(DEMO)


def test_a_copy_is_alike_but_for_its_name_and_is_active():
    after = apply(BUILD, duplicated(BUILD, "p2"))
    copy = after.package
    assert after.active == copy.id == "p5"
    assert copy.name == f"{BUILD.packages[1].name} (copy)"
    assert copy.model_copy(update={"id": "p2", "name": BUILD.packages[1].name}) == BUILD.packages[1]
    assert after.packages[:4] == BUILD.packages


def test_taking_out_the_active_one_makes_the_one_before_it_active():
    there = apply(BUILD, activated(BUILD, "p3"))
    after = apply(there, without(there, "p3"))
    assert (after.active, [package.id for package in after.packages]) == ("p2", ["p1", "p2", "p4"])
    first = apply(BUILD, without(BUILD, "p1"))
    assert first.active == "p2"
    other = apply(BUILD, without(BUILD, "p3"))
    assert other.active == "p1", "an inactive one goes without moving anything"


def test_the_last_package_stays():
    alone = BUILD
    for ident in ("p2", "p3", "p4"):
        alone = apply(alone, without(alone, ident))
    assert len(alone.packages) == 1
    with pytest.raises(InputError, match="at least one"):
        without(alone, alone.active)


def test_a_name_is_one_step_of_the_trail():
    edit = named(BUILD, "p2", "The cheap one")
    assert edit.label == "Package: The cheap one"
    assert apply(BUILD, edit).packages[1].name == "The cheap one"
