"""The document: traps of the schema library, edits and their inverse, the store, saving and refusing."""

import errno
import json
import math
import os
import re
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from keelroom.assess.defaults import new_build
from keelroom.catalogue import load as catalogue
from keelroom.document import file, writing
from keelroom.document.difference import ABSENT, came, differences, worded
from keelroom.document.edits import Change, Edit, added, apply, fresh_id, removed, set_value
from keelroom.document.fields import get, measured_fields
from keelroom.document.quantity import Quantity, from_si, quantity, typed
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.moves import Move
from keelroom.document.store import Store, same_content
from keelroom.errors import CatalogueError, DocumentError, InputError

MASS = ("brief", "vehicle", "mass")


def raw(build) -> dict:
    return json.loads(file.serialised(build))


def refusal(document, name="x.keelroom") -> DocumentError:
    data = document if isinstance(document, bytes) else json.dumps(document).encode()
    with pytest.raises(DocumentError) as caught:
        file.parse(data, Path(name))
    return caught.value


# the traps of the schema library, one each


def test_nothing_is_converted(demo):
    for wrong in ("3.5", True):
        document = raw(demo)
        document["brief"]["vehicle"]["mass"]["si"] = wrong
        assert "mass" in refusal(document).message


def test_no_extras(demo):
    document = raw(demo)
    document["brief"]["colour"] = "red"
    assert "colour" in refusal(document).message


def test_no_infinities_in_memory_or_in_a_file(demo):
    with pytest.raises(ValidationError):
        Quantity(si=math.inf, as_typed="1", unit="m")
    text = file.serialised(demo).decode()
    for token in ("NaN", "Infinity", "1e400"):
        broken = re.sub(r'"si": [\d.]+', f'"si": {token}', text, count=1)
        assert refusal(broken.encode()).code == "not_finite"


def test_models_are_frozen_and_hold_tuples(demo):
    with pytest.raises(ValidationError):
        demo.revision = 3
    assert isinstance(demo.packages, tuple)
    assert isinstance(demo.brief.symptoms, tuple)


def test_an_edit_validates_what_a_plain_copy_would_not(demo):
    with pytest.raises(InputError):
        apply(demo, set_value(MASS, "heavy", ""))
    with pytest.raises(InputError):
        apply(demo, set_value(MASS, quantity("-3 kg", "mass"), ""))


def test_duplicate_keys_are_refused(demo):
    text = file.serialised(demo).decode().replace('"revision": 0', '"revision": 0, "revision": 1', 1)
    assert "revision" in refusal(text.encode()).message


def test_si_must_be_what_the_text_says(demo):
    document = raw(demo)
    document["brief"]["vehicle"]["mass"]["si"] = 1.0
    assert "reads as" in refusal(document).message


# refusals of files


@pytest.mark.parametrize(
    ("data", "code"),
    [
        (b"", "not_json"),
        (b"\xff\xfe\x00", "not_text"),
        (b"[1]", "foreign"),
        (b'{"format": "other"}', "foreign"),
        (b'{"format": "keelroom-build"}', "no_version"),
        (b'{"format": "keelroom-build", "version": 18}', "newer"),
        (b'{"format": "keelroom-build", "version": true}', "no_version"),
        (b'{"a":' * 100000, "too_deep"),
        (b'{"format": "keelroom-build", "version": ' + b"1" * 5000 + b"}", "not_finite"),
    ],
)
def test_a_file_that_is_no_build_says_so(data, code):
    error = refusal(data)
    assert error.code == code
    assert error.message.startswith("x.keelroom")


def test_a_truncated_file_names_the_line(demo):
    assert "line" in refusal(file.serialised(demo)[:4000]).message


def test_missing_file_and_too_large_a_file(tmp_path, monkeypatch):
    with pytest.raises(DocumentError, match="cannot be read"):
        file.load(tmp_path / "none.keelroom")
    big = tmp_path / "big.keelroom"
    big.write_bytes(b"x" * 2000)
    monkeypatch.setattr(file, "LARGEST", 1000)
    with pytest.raises(DocumentError, match="far more"):
        file.load(big)


def test_between_fields_is_a_finding_not_a_refusal(demo):
    build = apply(demo, set_value(("brief", "cooling", "limit"), quantity("60 °C", "temperature"), ""))
    assert file.parse(file.serialised(build), Path("x")) == build


# saving


def test_what_is_saved_is_what_is_loaded(demo, tmp_path):
    stored = file.save(demo, tmp_path / "a.keelroom")
    assert file.load(tmp_path / "a.keelroom") == stored.build == demo
    assert file.read(tmp_path / "a.keelroom").digest == stored.digest == file.digest(tmp_path / "a.keelroom")


@pytest.mark.parametrize("fault", [errno.ENOSPC, errno.EROFS, errno.EACCES])
@pytest.mark.parametrize("act", ["fsync", "replace"])
def test_a_failed_save_loses_nothing(demo, tmp_path, monkeypatch, fault, act):
    target = tmp_path / "a.keelroom"
    file.save(demo, target)
    before = target.read_bytes()

    def fail(*_args):
        raise OSError(fault, os.strerror(fault))

    monkeypatch.setattr(writing.os, act, fail)
    with pytest.raises(DocumentError, match="Nothing was lost"):
        file.save(demo, target)
    monkeypatch.undo()
    assert target.read_bytes() == before
    assert [path.name for path in tmp_path.iterdir()] == ["a.keelroom"]


# edits and the store


def test_untouched_sections_stay_identical(demo):
    build = apply(demo, set_value(MASS, quantity("2000 kg", "mass"), ""))
    assert build.packages is demo.packages
    assert build.brief.engine is demo.brief.engine
    assert build.brief.vehicle is not demo.brief.vehicle


FIELDS = [
    (path, spec, value)
    for path, spec, value in measured_fields(file.load(Path(__file__).parents[3] / "src/keelroom/assets/demo.keelroom"))
    if value
]


ACTS = st.one_of(
    st.tuples(
        st.just("edit"), st.sampled_from(FIELDS), st.floats(0.5, 1.5), st.sampled_from(("", "", "drag one", "drag two"))
    ),
    st.tuples(st.sampled_from(("undo", "redo", "end", "save", "list"))),
)


@given(st.lists(ACTS, min_size=1, max_size=16))
def test_any_sequence_undone_gives_every_earlier_document(acts):
    """Merged or not, saved between or not: a plain list of the documents seen is what undo and redo walk."""
    store = Store(file.load(Path(__file__).parents[3] / "src/keelroom/assets/demo.keelroom"))
    seen, at, key = [store.build], 0, ""
    for act, *what in acts:
        if act in ("undo", "redo"):
            getattr(store, act)()
            at = max(at - 1, 0) if act == "undo" else min(at + 1, len(seen) - 1)
            key = ""
        elif act == "end":
            store.end_merge()
            if key and same_content(seen[at], seen[at - 1]):
                at -= 1
                seen = seen[: at + 1]
            key = ""
        elif act == "save":
            store.mark_saved(store.to_write())
            assert not store.dirty
        else:
            if act == "list":
                path, value, merge = (
                    ("packages", "p1", "moves"),
                    tuple(Move(id=f"o{n}") for n in range(len(store.build.package.moved) + 1)),
                    "",
                )
            else:
                (path, spec, old), factor, merge = what
                value = from_si(old.si * factor, spec.kind_name, "us", "measured")
            try:
                expected = apply(seen[at], set_value(path, value, ""))
            except InputError:
                continue
            store.apply(set_value(path, value, "Step", merge))
            if not same_content(expected, seen[at]):
                seen = [*seen[: at if merge and merge == key else at + 1], expected]
                at, key = len(seen) - 1, merge
        assert same_content(store.build, seen[at])
    for earlier in reversed(seen[:at]):
        store.undo()
        assert same_content(store.build, earlier)
    assert not store.undo_label
    for later in seen[1:]:
        store.redo()
        assert same_content(store.build, later)
    assert not store.redo_label


def test_a_drag_over_two_axes_is_undone_whole(demo):
    store = Store(demo)
    fan = ("packages", "p1", "fans", "fan1")
    for axis, inches in (("x", 7), ("x", 8), ("y", 5), ("y", 6)):
        store.apply(set_value((*fan, axis), quantity(f"{inches} in", "length"), "Move fan 1", "drag fan1"))
    store.end_merge()
    assert store.trail == ("Move fan 1",)
    store.undo()
    assert store.build is demo
    store.redo()
    assert [get(store.build, (*fan, axis)).as_typed for axis in "xy"] == ["8 in", "6 in"]


def test_what_is_changed_is_told_by_value(demo):
    store = Store(demo)
    store.apply(set_value(MASS, quantity("2000 kg", "mass"), "Mass"))
    assert store.dirty
    store.apply(set_value(MASS, get(demo, MASS), "Mass"))
    assert not store.dirty, "typed back by hand"
    store.undo()
    store.mark_saved(store.to_write())
    store.undo()
    assert store.dirty
    store.redo()
    assert not store.dirty, "undone to what was saved"
    store.apply(set_value(MASS, get(store.build, MASS), "Mass"))
    assert store.trail[-1:] != ("Mass", "Mass"), "an edit that changes nothing is no step"
    store.replace(demo, saved=False)
    assert store.dirty, "a recovered build is safe nowhere yet"


def test_revisions_rise_whatever_was_undone(demo):
    store = Store(demo)
    for kilos in (2000, 2100):
        store.apply(set_value(MASS, quantity(f"{kilos} kg", "mass"), "Mass"))
        store.mark_saved(store.to_write())
    store.undo()
    assert store.to_write().revision == demo.revision + 3


def told(before, after):
    return tuple(map(worded, differences(before, after)))


def test_differences_are_told_in_words(demo):
    changed = apply(demo, set_value(MASS, quantity("2000 kg", "mass", "measured"), ""))
    assert told(demo, changed) == ("Brief / vehicle / Vehicle mass: 2000 kg, was 4350 lb",)
    fewer = apply(demo, set_value(("duty_cases",), demo.duty_cases[1:], ""))
    assert told(demo, fewer) == (f"Duty cases: without {demo.duty_cases[0].name}",)
    assert told(fewer, demo)[0].startswith("Duty cases: with ")
    assert differences(demo, demo.model_copy(update={"revision": 9})) == ()


def test_one_drag_is_one_step(demo):
    store = Store(demo)
    where = ("packages", "p1", "fans", "fan1", "x")
    for inches in (7, 8, 9):
        store.apply(set_value(where, quantity(f"{inches} in", "length"), "Move fan 1", "drag fan1"))
    assert store.trail == ("Move fan 1",)
    store.end_merge()
    store.apply(set_value(where, quantity("10 in", "length"), "Move fan 1", "drag fan1"))
    store.undo()
    assert get(store.build, where).as_typed == "9 in"
    store.undo()
    assert store.build == demo


def test_lists_by_id(demo):
    case = DutyCase(id=fresh_id(demo.duty_cases, "case"), name="Ferry ramp")
    more = apply(demo, added(demo, ("duty_cases",), case, "Add"))
    assert get(more, ("duty_cases", case.id, "name")) == "Ferry ramp"
    less = apply(more, removed(more, ("duty_cases",), case.id, "Remove"))
    assert less == demo
    with pytest.raises(InputError, match="unique"):
        apply(demo, Edit("", (Change(("duty_cases",), (case, case)),)))
    with pytest.raises(InputError, match="names no package"):
        apply(demo, set_value(("active",), "p99", ""))


@pytest.mark.parametrize(
    "path", [("brief", "nothing"), ("packages", "p9", "core"), ("brief", "vehicle", "mass", "si", "x")]
)
def test_a_path_to_nowhere_is_refused(demo, path):
    with pytest.raises(InputError):
        apply(demo, set_value(path, None, ""))


def test_schema_describes_what_is_saved(demo):
    schema = Build.model_json_schema()
    jsonschema.validate(raw(demo), schema)
    jsonschema.validate(raw(new_build()), schema)
    broken = raw(demo)
    broken["duty_cases"][0]["demand"] = "dreaming"
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(broken, schema)


def test_every_default_is_legal():
    for _, spec, value in measured_fields(new_build()):
        if value is not None:
            assert typed(value.as_typed, spec, value.unit).si == value.si


# the catalogue


def test_catalogue_has_what_a_shop_needs():
    cores, fans = catalogue.cores(), catalogue.fan_assemblies()
    assert len(cores) >= 20
    assert len(fans) >= 24
    assert {core.flow for core in cores} == {"crossflow", "downflow"}
    assert {core.material for core in cores} == {"aluminium", "copper_brass"}
    assert {int(core.rows.si) for core in cores} == {1, 2, 3, 4}
    assert {fan.fan.motor for fan in fans} == {"brushed", "brushless"}
    flows = sorted(fan.count * fan.fan.free_air_flow.si / (0.3048**3 / 60) for fan in fans)
    assert flows[0] == pytest.approx(820)
    assert flows[-1] == pytest.approx(5500)
    assert all(row.basis for row in (*cores, *(fan.fan for fan in fans)))
    for fan in fans:  # bigger fans are not free: watts per flow stay within what motors and blades do
        assert 60 < fan.fan.power.si / fan.fan.free_air_flow.si * 0.472 < 200


def test_an_unknown_part_names_its_neighbours():
    with pytest.raises(CatalogueError, match="near it: Crossflow 24"):
        catalogue.named(catalogue.cores(), "Crossflow 24 x 17, 2 row, aluminum")


def test_own_parts_are_kept_and_replaced_by_name(tmp_path, demo):
    target = tmp_path / "own.json"
    core = demo.package.core.model_copy(update={"name": "Bench core"})
    catalogue.keep_own(core, target)
    catalogue.keep_own(core.model_copy(update={"condition": "bad"}), target)
    catalogue.keep_own(demo.package.fans[0], target)
    kept = catalogue.own_parts(target)
    assert [(c.name, c.condition) for c in kept.cores] == [("Bench core", "bad")]
    assert len(kept.fans) == 1
    target.write_text("{")
    with pytest.raises(CatalogueError, match="cannot be read"):
        catalogue.own_parts(target)


def test_a_saved_file_has_the_permissions_of_any_other(demo, tmp_path):
    """A shop shares its folder: the file must not come out readable by its writer alone."""
    (tmp_path / "plain.txt").write_text("")
    file.save(demo, tmp_path / "b.keelroom")
    assert (tmp_path / "b.keelroom").stat().st_mode == (tmp_path / "plain.txt").stat().st_mode
    (tmp_path / "b.keelroom").chmod(0o640)
    file.save(demo, tmp_path / "b.keelroom")
    assert (tmp_path / "b.keelroom").stat().st_mode & 0o777 == 0o640


def test_a_difference_is_data_and_knows_the_step_that_made_it(demo):
    store = Store(demo)
    store.apply(set_value(MASS, quantity("2000 kg", "mass", "measured"), "Mass"))
    store.apply(set_value(("duty_cases",), demo.duty_cases[1:], "One case less"))
    mass, case = differences(demo, store.build)
    assert (mass.path, mass.was.as_typed, mass.now.as_typed, mass.act.label) == (MASS, "4350 lb", "2000 kg", "Mass")
    assert (case.path, case.now, case.was.id) == (("duty_cases", "idle"), ABSENT, "idle")
    assert case.act.label == "One case less"
    assert came(store.build, demo) == ("duty_cases", "idle")
    turned = apply(demo, set_value(("duty_cases",), tuple(reversed(demo.duty_cases)), ""))
    assert told(demo, turned) == ("Duty cases: in another order",)
    store.undo()
    assert [one.act.label for one in differences(demo, store.build)] == ["Mass"]
