"""Builds at the edge of what can be saved: every page, list and file of them comes out or says why not."""

import csv
import datetime
from xml.etree import ElementTree as ET

import pytest

from keelroom.assess.acts.registry import applies, edit_for
from keelroom.assess.assess import assess
from keelroom.assess.defaults import new_build
from keelroom.assess.figures.batch import Asked, temperatures
from keelroom.assess.machine_form import as_json
from keelroom.assess.questions import airmap, compare, response, why, worth
from keelroom.assess.questions.cutting import cut_plan
from keelroom.assess.questions.places import find_places
from keelroom.assess.questions.schools import compare_schools
from keelroom.assess.report import as_table, ledger_rows, plain_verdict
from keelroom.document.act import Act
from keelroom.document.edits import Change, Edit, apply, checked, set_value
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Cut
from keelroom.drawing.elevation import elevation
from keelroom.drawing.scene import Label, Scene
from keelroom.errors import InputError
from keelroom.export.sheet import sheet_bytes
from keelroom.export.svg import svg_text
from keelroom.export.tables import as_text, harmless, write_csv
from keelroom.export.whole import file_name
from tests.conftest import DEMO

BUILD = load(DEMO)
P = ("packages", "p1")
TODAY = datetime.date(2026, 1, 2)


def everything(build):
    """What pages, command line and sheet ask of a build."""
    assessment = assess(build)
    as_json(assessment)
    plain_verdict(assessment, "us")
    as_table(assessment, "si")
    ledger_rows(assessment, "us")
    worth.worth_table(build)
    find_places(build)
    cut_plan(build)
    compare.candidates(build, (build.package.core,))
    return sheet_bytes(assessment, "us", (TODAY, "A4", ""))


def test_a_build_without_duty_cases_answers_what_it_can():
    build = apply(BUILD, set_value(("duty_cases",), (), ""))
    assert everything(build).startswith(b"%PDF")
    for ask in (
        lambda: temperatures([Asked(build, "case1")]),
        lambda: response.response(build, (*P, "core", "depth"), "case1"),
        lambda: why.movers(build, "case1", "us"),
        lambda: compare_schools(build, "case1"),
        lambda: airmap.air_map(build, "case1", 10.0),
    ):
        with pytest.raises(InputError, match="no such duty case"):
            ask()


def test_an_empty_build_and_one_with_a_single_field_missing():
    assert everything(new_build()).startswith(b"%PDF")
    assert everything(apply(BUILD, set_value((*P, "core", "face_width"), None, ""))).startswith(b"%PDF")


def test_a_core_far_out_of_its_opening_is_offered_no_cut_that_no_field_allows():
    far = apply(
        BUILD,
        Edit(
            "",
            (
                Change((*P, "place", "x"), quantity("2.5 m", "length")),
                Change((*P, "place", "y"), quantity("1.5 m", "length")),
            ),
        ),
    )
    assert "cut_clear" not in {found.act.code for found in worth.worth_table(far)}
    with pytest.raises(InputError, match="must be at most"):
        checked(Cut, id="c", edge="left", amount=quantity("40 m", "length"))


@pytest.mark.parametrize("covers", [9, 18])
def test_many_covers_are_solved(covers):
    """So many screens over the whole face lose what one with the sum of their losses does."""
    one = Cooler(id="c0", kind="screen", loss=quantity(f"{0.05 * covers:.3f}", "number"))
    many = tuple(Cooler(id=f"c{n}", kind="screen", loss=quantity("0.05", "number")) for n in range(covers))
    got = [assess(apply(BUILD, set_value((*P, "coolers"), given, ""))) for given in (many, (one,))]
    for several, single in zip(*(a.cases for a in got), strict=True):
        assert several.figures.temperature == pytest.approx(single.figures.temperature, abs=1e-4)


NASTY = "=cmd|' /C calc'!A0 \x00\x1b[2J\ufffe <b>&amp; " + "W" * 4000 + " lang " * 800


def test_names_of_any_length_and_kind_come_out():
    changes = [
        Change(("brief", "title"), NASTY),
        Change(("brief", "notes"), NASTY),
        Change((*P, "name"), NASTY),
        Change((*P, "core", "name"), NASTY),
    ]
    changes += [Change((*P, "fans", fan.id, "name"), NASTY) for fan in BUILD.package.fans]
    changes += [Change(("duty_cases", case.id, "name"), NASTY) for case in BUILD.duty_cases]
    changes += [Change((*P, "circuits", one.id, "name"), NASTY) for one in BUILD.package.circuits]
    changes += [Change(("survey", "obstacles", item.id, "name"), NASTY) for item in BUILD.survey.obstacles]
    build = apply(BUILD, Edit("", tuple(changes)))
    assert everything(build).startswith(b"%PDF")
    ET.fromstring(svg_text(elevation(build.package, "us", build.survey)))
    assert len(ET.fromstring(svg_text(Scene((Label("x", (0, 0), NASTY),), (0, 0, 1, 1))))[0].text) == 200


def test_a_face_of_any_shape_fits_the_page():
    for wide, high in (("2 in", "2 m"), ("2 m", "2 in")):
        build = apply(
            BUILD,
            Edit(
                "",
                (
                    Change((*P, "core", "face_width"), quantity(wide, "length")),
                    Change((*P, "core", "face_height"), quantity(high, "length")),
                ),
            ),
        )
        assert sheet_bytes(assess(build), "us", (TODAY, "A4", "")).startswith(b"%PDF")


@pytest.mark.parametrize(
    ("cell", "written"),
    [
        ("=1+1", "'=1+1"),
        ("+5.3 °F (a)", "'+5.3 °F (a)"),
        ("-rods", "'-rods"),
        ("@sum", "'@sum"),
        ("\tx", "'\tx"),
        ("-1.5", "-1.5"),
        ("+2", "+2"),
        ("−1.5", "−1.5"),
        ("fan", "fan"),
        ("", ""),
    ],
)
def test_a_cell_is_text_or_a_number_never_a_formula(cell, written, tmp_path):
    assert harmless(cell) == written
    write_csv([[cell, "x"]], tmp_path / "t.csv")
    assert (
        next(csv.reader((tmp_path / "t.csv").read_text(encoding="utf-8-sig").splitlines()))[0].strip()
        == written.strip()
    )
    assert as_text([[cell]]) == harmless(" ".join(cell.split()))


@pytest.mark.parametrize(
    ("title", "name"),
    [
        ("Van / 5 cyl: “hill”", "Van 5 cyl hill"),
        ("../../etc/passwd", "etc passwd"),
        ("\x00\n", "build"),
        ("", "build"),
        ("x" * 300, "x" * 80),
        (".hidden", "hidden"),
        ("Été (2)", "Été (2)"),
    ],
)
def test_a_suggested_file_name_is_a_file_name(title, name):
    assert file_name(title, "build") == name


def test_a_fix_reaches_a_part_whatever_its_id():
    """Ids are the document's own: one with a slash is a step like any other."""
    odd = apply(
        BUILD,
        Edit(
            "",
            (
                Change(
                    (*P, "circuits"),
                    tuple(one.model_copy(update={"id": f"a/{one.id}", "feeds": ()}) for one in BUILD.package.circuits),
                ),
            ),
        ),
    )
    found = [
        f
        for f in assess(odd).findings
        if f.code == "circuit_feeds_nothing" or any(fix.code == "remove" for fix in f.fix)
    ]
    assert found
    for finding in found:
        for fix in finding.fix:
            if fix.code == "remove":
                assert applies(odd, fix)
                left = apply(odd, edit_for(odd, fix))
                assert len(left.package.circuits) == len(odd.package.circuits) - 1


def test_a_fix_that_cannot_be_applied_is_not_offered():
    assert not applies(BUILD, Act("remove", "", path=(*P, "circuits_gone", "x")))
    assert not applies(BUILD, Act("set", "", given=(("text", "-3 in"),), path=(*P, "core", "depth")))
    assert applies(BUILD, Act("set", "", given=(("text", "3 in"),), path=(*P, "core", "depth")))
