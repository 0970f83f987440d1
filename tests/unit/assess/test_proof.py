"""What is said of an act before it is pressed is what pressing it does: over builds that are wrong in many ways."""

import pytest

from keelroom.assess.acts.circuits import still_carried
from keelroom.assess.acts.registry import applies, brings, edit_for, offer
from keelroom.assess.acts.words import takes_words
from keelroom.assess.assess import first_wave
from keelroom.assess.questions.proof import brought_words, proof_told, prove
from keelroom.assess.words import clauses
from keelroom.document.edits import Edit, apply
from tests.changes import on
from tests.soak.rings import rings
from tests.unit.assess.test_findings import BUILD as DEMO_BUILD
from tests.unit.assess.test_findings import SOUND, TABLE, telling

SAMPLED = (
    "own_of_none",
    "no_relay",
    "fuse_size",
    "fan_larger_than_face",
    "no_shroud",
    "pusher_alone",
    "two_thermostats",
    "loop_joined",
    "no_return",
    "waterless",
    "pump_unused",
    "edge_leak",
)


def wrong_build(code):
    build = telling(on(DEMO_BUILD, *TABLE[code][0]))
    return build, first_wave(build, previous=SOUND)


def problems(assessment):
    return {(one.code, one.where) for one in assessment.findings if one.level == "problem"}


@pytest.mark.parametrize("code", SAMPLED)
def test_pressing_brings_what_was_said_and_nothing_else(code):
    build, before = wrong_build(code)
    for finding in before.findings:
        if finding.code != code:
            continue
        for act in finding.fix:
            said = prove(before, finding, act)
            pressed = first_wave(apply(build, edit_for(build, act)))
            new = problems(pressed) - problems(before)
            # One that settles now, over its limit, did not settle before: that is no harm of the act.
            new -= {("over_limit", where) for name, where in problems(before) if name == "does_not_settle"}
            assert {one.code for one in said.brings} == {name for name, _ in new}
            assert said.goes is ((finding.code, finding.where) not in {(f.code, f.where) for f in pressed.findings})
            assert said.lost == tuple(
                case.name
                for case, now in zip(before.cases, pressed.cases, strict=True)
                if case.figures and not now.figures
            )


@pytest.mark.parametrize("code", ["own_of_none", "no_relay", "drains", "fuse_size", "fan_larger_than_face"])
def test_a_circuit_is_mended_whole_or_not_at_all(code):
    """Another switch brings the fuse its contact stands, another fan the wire its current takes."""
    _, before = wrong_build(code)
    (finding,) = (one for one in before.findings if one.code == code)
    for act in finding.fix:
        assert prove(before, finding, act).sound, act.label


def test_a_larger_alternator_brings_the_cable_and_the_fuse_it_takes():
    """160 A over a 10 AWG cable of 3 ft: 10 AWG carries some 60 A hot, and a 100 A fuse opens as it charges. A fuse of
    1.15 × 160 = 184 A, the next made being 200 A, and a cable that stands that (common practice, no source)."""
    supply = (
        (("brief", "accessories", "alternator_rating"), "90 A", "current"),
        (("supply", "charge_wire", "size"), "10 AWG", "wire size"),
        (("supply", "charge_fuse"), "100 A", "current"),
    )
    build = on(DEMO_BUILD, *supply)
    larger = offer("larger_alternator", rating="160")
    after = apply(build, edit_for(build, larger))
    assert after.supply.charge_fuse.si == 200
    assert after.supply.charge_wire.size.si > build.supply.charge_wire.size.si
    codes = {one.code for one in first_wave(telling(after)).findings}
    assert not codes & {"charge_cable_hot", "charge_fuse_small", "charge_fuse_over", "charge_cable"}
    # An hour and a half for the alternator, one for a cable, half of one for a fuse (common practice, no source).
    both = "the alternator and perhaps its belt, cable with lugs and loom, fuse and holder."
    assert takes_words(brings(build, larger), "$") == f"Takes 3.0 h, {both}"
    fuse = offer("charge_fuse")
    assert takes_words(brings(build, fuse), "$") == "Takes 1.5 h, fuse and holder, cable with lugs and loom."
    thick = on(build, (("supply", "charge_wire", "size"), "2/0 AWG", "wire size"))
    assert takes_words(brings(thick, fuse), "$") == "Takes 0.5 h, fuse and holder."


def test_no_cures_lead_in_a_circle():
    """The likeliest rows: what switches, feeds, ends and holds back. The whole table is walked by `make soak`."""
    rows = [code for code in TABLE if code.startswith(("run_on", "always", "sensor", "fan_", "toggle", "no_"))]
    walked, found = rings(rows)
    assert walked > 15
    assert not found


def test_a_circuit_that_was_wrong_before_is_not_touched_in_passing():
    build = on(DEMO_BUILD, *TABLE["fuse_start"][0])
    edit = still_carried(build, "p1", Edit("Another name", ()))
    assert edit.changes == ()


def test_an_electric_pump_that_stands_beside_the_way_is_not_left_alone():
    _, before = wrong_build("pump_unused")
    (finding,) = (one for one in before.findings if one.code == "pump_unused")
    assert [act.label for act in finding.fix] == ["Count both"]


def test_what_was_seen_is_told_in_both_systems():
    build, before = wrong_build("no_shroud")
    (finding,) = (one for one in before.findings if one.code == "no_shroud")
    act = finding.fix[0]
    seen = prove(before, finding, act)
    us, si = (" ".join(clauses(proof_told(seen), system)) for system in ("us", "si"))
    assert us.startswith("Tried on a copy: this goes. Held on hotter days, by: Idle, A/C on ")
    assert "Only on cooler days, by: Steady cruise" in us, "a shroud without flaps stands in the wind of the road"
    assert "°F" not in si
    assert brought_words(seen, "us") == ""
    hotter = first_wave(on(build, (("brief", "climate", "ambient"), "108 °F", "temperature")))
    (finding,) = (one for one in hotter.findings if one.code == "no_shroud")
    assert "cuts out" in brought_words(prove(hotter, finding, act), "us"), "the fans rest, and the condenser with them"
    gone = build.model_copy(update={"packages": (build.package.model_copy(update={"fans": ()}),)})
    assert not applies(gone, act)
    stopped = prove(first_wave(gone), finding, act)
    assert not stopped.sound
    assert "A shroud needs fans" in clauses(proof_told(stopped), "us")[0]
