"""Acts: what can be done to a build, said as data, and done again from that data alone."""

import json

import pytest

from keelroom.assess.acts.registry import acts, applies, brings, edit_for, kind_of, offer, rests_on, rooms
from keelroom.assess.acts.words import after_words, brings_words, mind_words, takes_words
from keelroom.assess.assess import assess
from keelroom.assess.questions.worth import TRIED
from keelroom.document.act import Act
from keelroom.document.edits import act_of, apply, set_value
from keelroom.document.entered import ENTER, ENTER_ALL, MOVE, moved_to
from keelroom.document.fields import get
from keelroom.document.file import load, parse, serialised
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.trail import KEPT
from keelroom.document.store import Store
from keelroom.errors import InputError
from tests.acts import doing, done
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
P1 = ("packages", "p1")


def test_every_kind_is_declared_whole():
    assert len(acts()) == sum(len(room.KINDS) for room in rooms()) > 90, "no code stands twice"
    for code, kind in acts().items():
        assert kind.code == code
        assert kind.meaning[0].isupper()
        assert not kind.meaning.endswith("."), "a line, not a sentence"
        assert all(said.endswith(".") for said in kind.cautions), code
        assert not any(said.endswith(".") for said in (*kind.before, *kind.after)), code
    assert {code for code, _, _ in TRIED} <= set(acts())


def test_every_act_a_finding_offers_is_of_a_kind_that_is_known():
    offered = [
        act for package in BUILD.packages for finding in assess(BUILD, package.id).findings for act in finding.fix
    ]
    assert len(offered) > 30
    for act in offered:
        assert kind_of(act)
        assert (
            act.package
            or act.path
            or act.code in ("charge_cable", "charge_fuse", "larger_alternator", "faster_pulley", "faster_idle")
        )


@pytest.mark.parametrize(
    ("act", "said"),
    [
        (Act("of_tomorrow", ""), "a newer one may have done it"),
        (offer("spread", "p9"), "no longer in the build"),
        (offer("onto_face", "p1"), "says no fan"),
        (offer("onto_face", "p1", fan="fan9"), "no longer in the package"),
        (offer("larger_alternator", rating="many"), "“many” is no number"),
        (offer("fit_core", "p1", name="Unobtainium"), "No core called"),
        (offer("add_cooler", "p1", kind="freezer"), "no cooler of the kind"),
        (offer("add_panel", "p1", what="roof"), "expected one of top, left"),
        (offer("school", "p1", school="none"), "No school"),
        (offer("cut_to", "p1", stage="Q"), "no longer wanted"),
        (Act(ENTER_ALL, "", given=(("json", "["),)), "no longer what this field takes"),
        (Act(ENTER, "", "", (), ("brief", "nowhere")), "has no “nowhere”"),
        (Act(ENTER, "", "", (("text", "wide"),), ("packages", "p1", "core", "depth")), "wide"),
    ],
)
def test_an_act_that_cannot_be_done_says_why(act, said):
    with pytest.raises(InputError, match=said):
        doing(BUILD, act)
    assert not applies(BUILD, act)


def test_an_act_is_about_the_package_it_names_not_the_active_one():
    """The demo's active package is p1: what is offered for another is done to that one, and to nothing else."""
    for found, package in ((assess(BUILD, one.id), one) for one in BUILD.packages[1:]):
        for act in {act for finding in found.findings for act in finding.fix if act.package and applies(BUILD, act)}:
            assert act.package == package.id
            after = doing(BUILD, act)
            others = [(a, b) for a, b in zip(BUILD.packages, after.packages, strict=True) if a.id != package.id]
            assert all(a == b for a, b in others), act
    horn = next(f for f in assess(BUILD).findings for act in f.fix if act.code == "move_away").fix[0]
    elsewhere = done(BUILD, "activate", "p3")
    after = doing(elsewhere, horn)
    assert after.packages[0].moves != BUILD.packages[0].moves
    assert after.package.moves == BUILD.packages[2].moves


VALUES = (
    ((*P1, "core", "depth"), quantity("2 1/4 in", "length", "measured")),
    (("brief", "vehicle", "mass"), quantity("1234 kg", "mass", "catalogue")),
    ((*P1, "circuits", "circuit1", "feed", "size"), quantity("8 AWG", "wire size", "derived")),
    ((*P1, "core", "condition"), "some_scale"),
    (("brief", "vehicle", "lockup"), False),
    (("survey", "hood", "front"), None),
    (("brief", "title"), "A “van”, 2½ t"),
    (("survey", "checks"), ("hood", "belt")),
    ((*P1, "fans"), BUILD.package.fans[:1]),
    ((*P1, "core"), BUILD.packages[1].core),
    (("brief", "notes"), "Two\nlines, \x07 and ²"),
    ((*P1, "name"), "é\t\x00"),
    (("survey", "rails", "left"), quantity("4 in", "length").model_copy(update={"doubt": 0.01})),
)


@pytest.mark.parametrize(
    ("path", "value"), VALUES, ids=lambda v: v[-1] if isinstance(v, tuple) and v and isinstance(v[-1], str) else ""
)
def test_what_was_entered_is_entered_again_from_its_act_and_from_the_file(path, value):
    """As typed, with its unit, origin and doubt: by the act of the store's step, and by the act a file gives back."""
    store = Store(BUILD)
    store.apply(set_value(path, value, "Entered"))
    step, kept = store.steps[-1], parse(serialised(store.build), DEMO).trail[-1]
    for act in (step.act, kept.act):
        assert act.code == ENTER
        assert act.label == "Entered"
        assert doing(BUILD, act) == apply(BUILD, set_value(path, value, ""))
    assert kept.touched == (path,)


def test_several_entered_at_once_are_one_act():
    edit = edit_for(BUILD, offer("spread", "p1"))
    bare = type(edit)(edit.label, edit.changes)
    act = act_of(bare)
    assert (act.code, act.package) == (ENTER_ALL, "p1")
    assert doing(BUILD, act) == apply(BUILD, bare)


def test_a_drag_is_one_act_with_all_it_changed():
    """Across first, then up: the step's act says both, and done again it leads to the same place."""
    store, fan = Store(BUILD), (*P1, "fans", "fan1")
    for axis, si in (("x", 0.2), ("y", 0.25), ("x", 0.22)):
        value = from_si(si, "length", "us", "measured")
        edit = set_value((*fan, axis), value, "Move fan 1", "drag")
        store.apply(type(edit)(edit.label, edit.changes, "drag", moved_to("Move fan 1", fan, {axis: value})))
    assert len(store.steps) == 1
    act = store.steps[-1].act
    assert act.code == MOVE
    assert dict(act.given)["x"] == from_si(0.22, "length", "us", "measured").as_typed
    assert doing(BUILD, act).package.fans[0] == store.build.package.fans[0]
    assert len(store.build.trail) == 1
    store.end_merge()
    store.undo()
    assert store.build == BUILD, "undone to the letter, its trail with it"


def test_a_drag_that_led_back_leaves_no_trace():
    store = Store(BUILD)
    where = (*P1, "fans", "fan1", "x")
    for value in (quantity("9 in", "length"), BUILD.package.fans[0].x):
        store.apply(set_value(where, value, "Move fan 1", "drag"))
    store.end_merge()
    assert store.build == BUILD
    assert not store.dirty


def test_every_act_that_applies_is_done_again_from_its_file():
    """Every act the demo's findings and Worth offer, done in a store, written, read back and done again from what was
    read."""
    acts = {act for finding in assess(BUILD).findings for act in finding.fix}
    acts |= {offer(code, "p1", label, **given) for code, label, given in TRIED}
    count = 0
    for act in sorted(act for act in acts if applies(BUILD, act)):
        store = Store(BUILD)
        store.apply(edit_for(BUILD, act))
        again = parse(serialised(store.build), DEMO).trail[-1].act
        assert again._replace(label=act.label) == act
        assert doing(BUILD, again) == store.build.model_copy(update={"trail": ()})
        count += 1
    assert count > 25


def test_the_trail_of_a_file_has_an_end():
    """A file keeps the last steps and is no longer for the rest: 300, by hand."""
    store = Store(BUILD)
    for number in range(KEPT + 5):
        store.apply(set_value(("brief", "title"), f"Title {number}", f"Title {number}"))
    assert len(store.build.trail) == KEPT == 300
    assert store.build.trail[0].label == "Title 5"
    assert len(json.dumps(store.build.trail[-1].model_dump())) < 400


def test_what_an_act_brings():
    """Seating the shroud: an hour beyond what the build counts, eye protection, and the entry it rests on is assumed
    in the demo."""
    off = on(BUILD, ((*P1, "shroud", "edge_gap"), quantity("1/4 in", "length")))
    found = brings(off, offer("seat", "p1"))
    assert found.hours == 3600
    assert [change.path for change in found.changes] == [(*P1, "shroud", "edge_gap")]
    assert found.assumed == ((*P1, "shroud", "edge_gap"),)
    assert (
        brings_words(offer("seat", "p1"), found, "$", 2)
        == "Shroud / Gap at the shroud's edge: 1/32 in, was 1/4 in. Takes 1.0 h."
    )
    assert takes_words(found._replace(money=-155.0), "$") == "Takes 1.0 h. $155 less to buy."
    assert "Eye, hand and ear protection" in mind_words(found)
    assert after_words(offer("mend_circuit", "p1", circuit="circuit1")).startswith(
        "Then: the motor’s volts with a meter"
    )
    # A bracket, by hand: template (6 + 4 · 12 + 25) / 6, made (12 + 4 · 22 + 50) / 6, one in three twice, finished
    # (4 + 4 · 8 + 15) / 6, bolted (3 + 4 · 6 + 15) / 6 min: about an hour (common practice).
    by_hand = (6 + 48 + 25) / 6 + 1.33 * (12 + 88 + 50) / 6 + (4 + 32 + 15) / 6 + (3 + 24 + 15) / 6
    assert brings(BUILD, offer("add_bracket", "p1")).hours == pytest.approx(60 * by_hand)
    # Another core: what it costs, by the catalogue's price; the one the car has was not to be bought.
    name = "Crossflow 28 × 19, 2 row, dimpled tube, aluminium"
    dearer = brings(BUILD, offer("fit_core", "p1", name=name))
    new = doing(BUILD, offer("fit_core", "p1", name=name)).package.core.cost.si
    assert dearer.money == pytest.approx(new)


def test_what_an_act_rests_on_is_of_its_package():
    assert rests_on(offer("deeper", "p2")) == (("packages", "p2", "core", "depth"), ("packages", "p2", "core", "rows"))
    named = [path for kind in acts().values() for path in kind.rests_on if not any(step[:1] == "<" for step in path)]
    for path in named:
        get(BUILD, tuple("p1" if step == "*" else step for step in path))
    assert len(named) > 60


def test_what_is_too_long_to_keep_is_not_kept_and_says_so():
    """Notes of 20 000 characters: the file stays small, opens, and the step is there without them."""
    store = Store(BUILD)
    store.apply(set_value(("brief", "notes"), "n" * 20_000, "Notes " * 100))
    kept = parse(serialised(store.build), DEMO)
    assert kept == store.build
    assert len(kept.trail[-1].label) == 200
    with pytest.raises(InputError, match="too long to be kept"):
        doing(BUILD, kept.trail[-1].act)
