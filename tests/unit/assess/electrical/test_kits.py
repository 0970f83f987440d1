"""Wiring kits as sold: what they make of a package, and what is said where they do not suit it."""

import pytest

from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.assess import first_wave
from keelroom.assess.electrical.harness import parts_list, wire_list
from keelroom.assess.inputs.electrical.system import contacts_of
from keelroom.catalogue.load import kits
from keelroom.document.edits import apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.errors import InputError
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
TWO = next(kit for kit in kits() if kit.fans == 2 and kit.each)


def kitted(build, kit):
    return apply(build, edit_for(build, offer("fit_kit", build.active, name=kit.name)))


def test_a_relay_kit_gives_each_fan_its_fuse_relay_and_coloured_leads_and_leaves_the_rest():
    """Two fans of the demo: two circuits of the kit's 30 A, 12 AWG, red and blue, its spare lead insulated; the gearbox
    cooler's own circuit stays; the sensor sits in the core's bung."""
    build = kitted(BUILD, TWO)
    made = [one for one in build.package.circuits if one.kit]
    assert [one.feeds for one in made] == [("fan1",), ("fan2",)]
    assert all(
        (one.fuse.as_typed, one.feed.size.as_typed, one.branch.colour) == ("30 A", "12 AWG", "blue") for one in made
    )
    assert {one.id for one in BUILD.package.circuits if "cooler" in one.feeds} <= {
        one.id for one in build.package.circuits
    }
    assert build.package.control.sensor == "core_in"
    judged = first_wave(build)
    rows = wire_list(build, build.package, judged.electrics, "us")
    assert {row[2] for row in rows if row[5].startswith("Fan 1 +")} == {"blue"}
    assert (
        sum(int(row[1]) for row in parts_list(build, build.package, judged.electrics)[1:] if "left over" in row[0]) == 2
    )


def test_a_kit_for_one_fan_is_refused_for_two_and_one_too_weak_is_said():
    one = next(kit for kit in kits() if kit.fans == 1)
    with pytest.raises(InputError, match="feeds 1 fan; the package has 2"):
        kitted(BUILD, one)
    strong = apply(
        BUILD,
        edit_for(BUILD, offer("fit_fans", "p1", "Fans", name="Twin 15 in brushless, shrouded, 2 × 450 W", count="2")),
    )
    found = {one.code for one in first_wave(kitted(strong, TWO)).findings if one.level == "problem"}
    assert "fuse_small" in found, "37 A on a 30 A fuse"


def test_a_controllers_own_leads_lose_what_their_copper_loses():
    """By hand: 0.61 m of 12 AWG, in and out, at 65.6 degC. ASTM B258: 5.21 mohm/m at 20 degC for the full gauge, copper
    18 % more when warm: 3.75 mohm; J1128 cable holds as little as 88 % of the gauge, and its strands are laid: 4.4."""
    circuit = BUILD.package.circuits[0]
    plain = circuit.model_copy(update={"switch": "controller"})
    led = plain.model_copy(
        update={"lead_length": quantity("1 ft", "length"), "lead_size": quantity("12 AWG", "wire size")}
    )
    assert 3.75e-3 < contacts_of(led, 2) - contacts_of(plain, 2) < 4.4e-3
    assert contacts_of(led.model_copy(update={"switch": "relay"}), 2) == contacts_of(
        plain.model_copy(update={"switch": "relay"}), 2
    ), "no box, no leads of its own"


def test_what_a_slot_and_a_channel_give_is_counted_over_all_that_hangs_on_them():
    """By hand: two fans of 180 W at 13 V draw some 28 A: a 30 A slot runs on at 24 A (a fuse at four fifths, common
    practice, no source), a 30 A channel at 30 but not their start of 80 A and more."""
    holds = ("supply", "sources", "ignition", "holds")
    tied = on(BUILD, (("packages", "p1", "circuits", "circuit1", "sources"), ("ignition",)))
    slot = on(tied, (holds, "30 A", "current"))
    channel = on(slot, (("supply", "sources", "ignition", "channel"), True))
    codes = [{one.code for one in first_wave(build).findings} for build in (tied, slot, channel)]
    told = {"source_over", "channel_trips"}
    assert [one & told for one in codes] == [set(), {"source_over"}, {"channel_trips"}]
