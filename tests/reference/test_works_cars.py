"""Ordinary cars as they left the works hold the hot day; the same with a fault of the trade does not. Common
practice, no source."""

import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.faults import faults_of
from keelroom.document.edits import Edit, apply
from tests.reference.works_cars import WORKS

BOILS_FROM = 104.4
"""degC, 220 °F: what is seen of a car that overheats at a light."""
FAULTS = {
    "a fan dead": (("fan_dead", "one of them"), ("fan_dead", "it stands"), ("fan_dead", "a clutch that slips")),
    "3 in gaps and no shroud": (("sealing", "3 in open all round"), ("shroud_off", "none")),
    "dirt and late timing": (("blocked", "half of the face"), ("timing", "very late or lean")),
    "a fan dead and 3 in gaps": (
        ("fan_dead", "one of them"),
        ("fan_dead", "a clutch that slips"),
        ("sealing", "3 in open all round"),
    ),
}
REACHED = {
    "compact 1.8": {"a fan dead and 3 in gaps"},
    "saloon 2.0": {"a fan dead and 3 in gaps"},
    "half-ton 5.0": {"a fan dead and 3 in gaps"},
    "coupé 5.7": {"a fan dead", "3 in gaps and no shroud", "dirt and late timing", "a fan dead and 3 in gaps"},
    "swap 6.2": {"3 in gaps and no shroud", "a fan dead and 3 in gaps"},
    "van 2.8": {"a fan dead"},
}
"""What takes each past 220 °F at a light with the A/C on; what is missing here leaves it cooler."""


@pytest.mark.parametrize("name", WORKS)
def test_as_it_left_the_works_it_holds_and_with_a_fault_it_boils_at_a_light(name):
    build = WORKS[name].built()
    found = first_wave(build)
    thermostat = build.package.loop.thermostat.si
    for case in found.cases:
        assert case.figures, case.stopped
        assert case.figures.held, case.name
        if case.case_id == "cruise":
            assert case.figures.temperature - thermostat < 10.0
    faults = {(fault.cause, fault.size): fault.changes for fault in faults_of(build, build.package)}
    reached = set()
    for word, parts in FAULTS.items():
        changes = tuple(change for part in parts for change in faults.get(part, ()))
        idle = first_wave(apply(build, Edit(word, changes)), previous=found).cases[0].figures
        assert idle
        if changes and idle.temperature > BOILS_FROM:
            reached.add(word)
    assert reached == REACHED[name]
