"""What is likely: nothing of the catalogue, the defaults or the demo is asked about, and what a slip of the hand makes
is, with what was meant."""

import re

import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.defaults import new_build
from keelroom.catalogue.load import cores, engines, fan_assemblies, vehicles
from keelroom.document.edits import apply
from keelroom.document.fields import measured_fields, models_below, spec_of
from keelroom.document.file import load
from keelroom.document.likely import astray_by, improper, likely_of, meant, unlikely
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.survey import SecondReading
from tests.changes import on
from tests.conftest import DEMO
from tests.told import what_of, why_of

BUILD = load(DEMO)
TYRE, DRAG = ("brief", "vehicle", "tyre_diameter"), ("brief", "vehicle", "drag_area")
POINTS = {"AlternatorPoint", "CurvePoint", "CommandPoint", "PumpPoint"}
"""points of curves, which are held against each other"""


def asked(build):
    return [one for one in first_wave(build).findings if one.code == "unlikely"]


def test_every_field_has_a_likely_range_inside_what_it_may_hold():
    for model in models_below(Build):
        for name in model.model_fields:
            spec = spec_of(model, name)
            if spec is None or model.__name__ in POINTS:
                continue
            likely = likely_of(spec)
            assert likely is not None, (model.__name__, name)
            low, high = likely
            assert low < high
            assert not spec.refusal(high), (model.__name__, name, high)
            assert not spec.refusal(low) or low == 0.0, (model.__name__, name, low)


def test_nothing_of_the_catalogue_the_defaults_or_the_demo_is_asked_about():
    parts = (*cores(), *(one.fan for one in fan_assemblies()), *engines(), *vehicles(), new_build(), BUILD)
    for part in parts:
        for path, spec, value in measured_fields(part):
            likely = likely_of(spec)
            assert value is None or likely is None or astray_by(value.si, likely) == 0.0, (path, value.as_typed)
    assert not asked(BUILD)


@pytest.mark.parametrize(
    ("path", "text", "kind", "means"),
    [
        (TYRE, "2.6 in", "length", "26 in"),
        (("packages", "p1", "core", "face_height"), "2.5 in", "length", "25 in"),
        (DRAG, "97 ft²", "drag area", "9.7 ft²"),
        (("brief", "vehicle", "mass"), "300 lb", "mass", "3000 lb"),
        (("packages", "p1", "core", "face_width"), "2.75 in", "length", "27.5 in"),
        (("packages", "p1", "core", "depth"), "9 in", "length", None),
        (("brief", "climate", "altitude"), "5000 m", "altitude", "5000 ft"),
    ],
)
def test_a_slip_of_the_hand_is_accepted_and_asked_about_with_what_was_meant(path, text, kind, means):
    wrong = on(BUILD, (path, text, kind))
    (finding,) = asked(wrong)
    assert (finding.level, finding.where) == ("doubt", path)
    assert what_of(finding).endswith("is that so?")
    offered = {act.label.removeprefix("It is ") for act in finding.fix}
    if means is None:
        return
    assert means in offered
    for act in finding.fix:
        from keelroom.assess.acts.registry import edit_for

        assert not asked(apply(wrong, edit_for(wrong, act))), act.label


def test_a_negative_reading_of_a_tape_is_asked_about_with_its_positive():
    entry = next(iter(unlikely(on(BUILD, (("survey", "hood", "front"), "-19 in", "length")))))
    assert entry.path == ("survey", "hood", "front")
    assert "19 in" in meant(entry)


def test_what_was_taken_twice_is_asked_about_no_more():
    odd = on(BUILD, (("survey", "hood", "front"), "70 in", "length"))
    assert asked(odd)
    again = SecondReading(id="hood.front", value=quantity("70 in", "length", "measured"))
    assert not asked(on(odd, (("survey", "second"), (again,))))


def test_a_fraction_over_a_whole_is_read_and_asked_about():
    """6 17/16 in is 7 1/16 in, 179.3875 mm."""
    assert improper(quantity("6 17/16 in", "length"))
    assert not improper(quantity("6 15/16 in", "length"))
    assert not improper(quantity("17/16 in", "length")), "typed as a fraction alone it is one"
    (finding,) = asked(on(BUILD, (("survey", "hood", "front"), "20 17/16 in", "length")))
    assert "20 17/16" in what_of(finding)
    assert "21 1/16" in why_of(finding)


def test_where_a_solve_fails_the_entries_farthest_from_likely_are_named():
    wrong = on(
        BUILD,
        (("packages", "p1", "core", "fin_density"), "1.5 fins/in", "fin density"),
        (TYRE, "28 in", "length"),
    )
    stopped = next(one for one in first_wave(wrong).findings if one.code == "not_worked_out")
    assert re.search(r"Farthest from what such cars measure: Fins 1\.5 fins/in", why_of(stopped))
