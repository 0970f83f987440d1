"""The harness walked as a graph from its printed lists alone: what feeds every motor, what sits across every coil,
where wires end."""

from __future__ import annotations

import itertools
import re

import pytest

from keelroom.assess.electrical.figures import electrics
from keelroom.assess.electrical.harness import splice_list, wire_list
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.electrical.ways import WAYS
from keelroom.document.file import load
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
P1 = ("packages", "p1")
CIRCUIT = (*P1, "circuits", "circuit1")
STRATEGIES = tuple(WAYS)
SWITCHES = ("relay", "relays", "parallel", "controller", "switch", "none")


def with_fans(count: int) -> Build:
    """The build with so many fans, all on its one circuit."""
    first = BUILD.package.fans[0]
    fans: tuple[Fan, ...] = tuple(first.model_copy(update={"id": f"fan{k}"}) for k in range(1, count + 1))
    return on(BUILD, ((*P1, "fans"), fans), ((*CIRCUIT, "feeds"), tuple(fan.id for fan in fans)))


def every_build():
    """Strategies by switches by fan counts by sharing; request and override on where they can be."""
    for count, shared, request in itertools.product((1, 2, 3), (False, True), (False, True)):
        base = on(
            with_fans(count),
            ((*CIRCUIT, "shared_ground"), shared),
            ((*P1, "control", "ac_request"), request),
            ((*P1, "control", "override"), request),
            ((*CIRCUIT, "sources"), ("battery", "alternator") if request else ("battery",)),
        )
        for strategy, switch in itertools.product(STRATEGIES, SWITCHES):
            yield (
                on(base, ((*P1, "control", "strategy"), strategy), ((*CIRCUIT, "switch"), switch)),
                (count, shared, request, strategy, switch),
            )


class Printed:
    """Points joined by wires, read off the cut list; parts that pass current by the names of their pins."""

    def __init__(self, build: Build) -> None:
        found = electrics(build, build.package)
        cut, self.joints = (
            wire_list(build, build.package, found, "us")[1:],
            splice_list(build, build.package, found)[1:],
        )
        self.wires = [(number, start, end) for number, *_, start, end, _, _ in cut]
        self.points = points = {point for _, *ends in self.wires for point in ends}
        self.fuses = [(p, p.replace(", in", ", out")) for p in points if re.search(r"fuse [\d.]+ A, in$", p)]
        self.contacts = [(p, p[:-2] + "87") for p in points if p.endswith(", 30")]
        self.contacts += [(p, p[:-2] + "out") for p in points if re.search(r": (switch|controller)( \d)?, in$", p)]
        self.coils = [(p, p[:-2] + "85") for p in points if p.endswith(", 86")]
        self.posts = {source.name for source in build.supply.sources}

    def reached(self, point: str, *internal) -> set[str]:
        """Every point that wires, and these parts passing current, join with one."""
        joined = [(start, end) for _, start, end in self.wires] + [pair for pairs in internal for pair in pairs]
        found, waiting = {point}, [point]
        while waiting:
            at = waiting.pop()
            near = {b if a == at else a for a, b in joined if at in (a, b)} - found
            found |= near
            waiting += near
        return found

    def fed(self, point: str, *internal) -> bool:
        return bool(self.reached(point, *internal) & self.posts)


def grounds(points: set[str]) -> bool:
    return any(point.startswith("ground") for point in points)


@pytest.fixture(scope="module")
def printed():
    return [(Printed(build), build, said) for build, said in every_build()]


def test_every_motor_is_fed_through_its_fuse_and_its_contact_and_only_so(printed):
    motors = 0
    for lists, build, said in printed:
        for motored in motors_of(build, build.package):
            plus = f"{motored.name} +"
            if plus not in lists.points:
                continue
            motors += 1
            assert lists.fed(plus, lists.fuses, lists.contacts), said
            assert not lists.fed(plus, lists.contacts), said
            assert lists.fed(plus, lists.fuses) is (motored.fan and said[-1] == "none"), said
            assert grounds(lists.reached(f"{motored.name} −")), said
            assert not grounds(lists.reached(plus, lists.fuses, lists.contacts)), said
    assert motors == (1 + 2 + 3 + 3) * 4 * len(STRATEGIES) * len(SWITCHES), "the gearbox cooler's own fan in each"


def test_no_coil_is_shorted_and_every_coil_has_two_sides(printed):
    coils = 0
    for lists, _, said in printed:
        for plus, minus in lists.coils:
            coils += 1
            assert minus in lists.points, said
            assert minus not in lists.reached(plus), said
        assert len(lists.coils) == 1 + {"relay": 1, "relays": said[0], "parallel": 2}.get(said[-1], 0), said
    assert coils == (3 * len(SWITCHES) + 3 + (1 + 2 + 3) + 3 * 2) * 4 * len(STRATEGIES), (
        "the keyed relay of the cooler's fan in each"
    )


def test_a_coil_sits_between_a_feed_and_what_grounds_it_or_between_a_ground_and_what_feeds_it(printed):
    for lists, _, said in printed:
        for plus, minus in lists.coils:
            feed, ground = lists.reached(plus), lists.reached(minus)
            if plus.startswith("Gearbox"):
                assert any("key-switched feed" in point for point in feed), said
                assert grounds(ground), said
                continue
            commanded = ground if said[3] in ("ground_switch", "two_speed", "both_relays", "computer") else feed
            still = feed if commanded is ground else ground
            assert any(point.endswith(", out") for point in commanded), said
            assert grounds(still) if still is ground else any("feed, 5 A fuse" in point for point in still), said
            assert not grounds(feed), said
            assert not any("fuse" in point for point in ground), said


def test_one_stage_never_brings_the_other_with_it(printed):
    """Low commanded alone: the coils of high stay apart from it, override and request included."""
    counted = 0
    for lists, _, said in printed:
        outs = [point for point in lists.points if point.endswith((" low, out", " high, out"))]
        if len(outs) == 2:
            counted += 1
            assert outs[1] not in lists.reached(outs[0]), said
    assert counted == 2 * (2 * 2 + 1) * 4


def test_every_wire_has_two_ends_a_number_of_its_own_and_every_meeting_is_a_listed_joint(printed):
    for lists, _, said in printed:
        numbers = [number for number, *_ in lists.wires]
        assert len(set(numbers)) == len(numbers), said
        assert all(start and end and start != end for _, start, end in lists.wires), said
        listed = {row[0]: set(row[1].split(", ")) for row in lists.joints}
        for point in lists.points:
            meeting = {number for number, *ends in lists.wires if point in ends}
            if point in listed:
                assert listed[point] == meeting, said
            elif len(meeting) > 1:
                assert grounds({point}) or point in lists.posts or point.startswith(("adapter", "compressor")), (
                    said,
                    point,
                )
        assert set(listed) <= lists.points, said


def test_the_heavier_tool_is_asked_for_by_section():
    """Common practice, no source: three wires of 18 AWG (0.82 mm² each) are a hand crimper's work, three of 10 AWG
    (5.26) are not."""
    build = on(with_fans(2), ((*CIRCUIT, "switch"), "relays"), ((*P1, "control", "strategy"), "both_relays"))
    tools = {row[0]: row[3] for row in Printed(build).joints}
    assert tools["coils: splice of the feed"] == "hand crimper"
    thick = on(build, *(((*CIRCUIT, run, "size"), "10 AWG", "wire size") for run in ("feed", "branch", "back")))
    tools = {row[0]: row[3] for row in Printed(thick).joints}
    assert tools[f"{build.package.circuits[0].name}: splice to the relays"].startswith("heavier")
