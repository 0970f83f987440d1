"""Edits of whole packages."""

import pytest

from keelroom.assess.acts.packages import duplicated, without
from keelroom.assess.acts.registry import edit_for, offer
from keelroom.document.difference import between_packages
from keelroom.document.edits import apply
from keelroom.document.file import load
from keelroom.errors import InputError
from tests.acts import done
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)


def test_a_copy_is_alike_but_for_its_name_and_is_active():
    after = apply(BUILD, duplicated(BUILD, BUILD.packages[1]))
    copy = after.package
    assert after.active == copy.id == "p5"
    assert copy.name == f"{BUILD.packages[1].name} (copy)"
    assert copy.model_copy(update={"id": "p2", "name": BUILD.packages[1].name}) == BUILD.packages[1]
    assert after.packages[:4] == BUILD.packages


def test_taking_out_the_active_one_makes_the_one_before_it_active():
    there = done(BUILD, "activate", "p3")
    after = done(there, "remove_package", "p3")
    assert (after.active, [package.id for package in after.packages]) == ("p2", ["p1", "p2", "p4"])
    first = done(BUILD, "remove_package", "p1")
    assert first.active == "p2"
    other = done(BUILD, "remove_package", "p3")
    assert other.active == "p1", "an inactive one goes without moving anything"


def test_the_last_package_stays():
    alone = BUILD
    for ident in ("p2", "p3", "p4"):
        alone = done(alone, "remove_package", ident)
    assert len(alone.packages) == 1
    with pytest.raises(InputError, match="at least one"):
        without(alone, alone.package)


def test_a_name_is_one_step_of_the_trail():
    edit = edit_for(BUILD, offer("name_package", "p2", name="The cheap one"))
    assert edit.label == "Package: The cheap one"
    assert apply(BUILD, edit).packages[1].name == "The cheap one"


def test_the_car_as_found_stands_beside_what_is_planned():
    """A copy under its own kind; a second one is refused; the car as mended begins from it and is active."""
    planned = done(BUILD, "remove_package", "p4")
    assert planned.of_kind("as_found") is None
    with pytest.raises(InputError, match="Keep the car as found first"):
        done(planned, "as_mended")
    kept = done(planned, "as_found", "p3")
    found = kept.of_kind("as_found")
    assert (found.name, found.core, kept.active) == ("As found", BUILD.packages[2].core, "p1")
    with pytest.raises(InputError, match="already"):
        done(kept, "as_found", "p1")
    with pytest.raises(InputError, match="already"):
        done(kept, "as_found_driven", "p1")
    mended = done(kept, "as_mended")
    assert mended.package.kind == "as_mended"
    assert mended.package.fans == found.fans
    assert done(mended, "copy_package", found.id).package.kind == "planned", "a copy is a plan"


def test_older_files_know_what_was_found():
    """Version 8 took the first package beside the active one whose fans the engine turns; nothing else is marked."""
    for version, kinds in ((8, ["planned"] * 3 + ["as_found"]), (9, ["planned"] * 3 + ["as_found"])):
        build = load(DEMO.parents[3] / f"tests/golden/version-{version}.keelroom")
        assert [package.kind for package in build.packages] == kinds


def test_what_differs_of_two_packages_leaves_nothing_of_the_car_out():
    """What a package stands for is no change of the car; what kind of shroud it has is one, and so is a cooler's."""
    other = done(BUILD, "copy_package", "p1")
    assert between_packages(other, "p1", other.active) == ()
    bare = on(
        other, (("packages", other.active, "shroud", "kind"), "none"), (("packages", other.active, "kind"), "as_mended")
    )
    assert [(one.path[2:], one.was, one.now) for one in between_packages(bare, "p1", other.active)] == [
        (("shroud", "kind"), "full", "none")
    ]
