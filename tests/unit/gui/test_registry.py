"""The stations' declarations: every field has one, no other list of stations or paths stands beside them."""

import re
from pathlib import Path

import pytest

import keelroom.gui
from keelroom.assess.assess import assess
from keelroom.document.fields import measured_fields
from keelroom.document.file import load
from keelroom.gui.registry import STATIONS, by_station, named, station_at
from keelroom.gui.station import ANY, StationState, holds
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)


@pytest.mark.parametrize(
    ("path", "name"),
    [
        (("brief", "engine", "power"), "Brief"),
        (("duty_cases", "idle", "ambient"), "Brief"),
        (("active",), "Brief"),
        (("own_fans",), "Brief"),
        (("brief", "accessories", "ac_cop"), "Brief"),
        (("brief", "accessories", "idle_voltage"), "Electrical"),
        (("supply", "state"), "Electrical"),
        (("survey", "opening", "width"), "Survey"),
        (("gaps", "hood"), "Fit-up"),
        (("packages",), "Core"),
        (("packages", "p1", "core", "depth"), "Core"),
        (("packages", "p9", "name"), "Core"),
        (("packages", "p1", "coolers", "condenser"), "Aux coolers"),
        (("brief", "vehicle", "lockup"), "Aux coolers"),
        (("packages", "p1", "fans", "fan1", "x"), "Air"),
        (("packages", "p1", "shroud", "depth"), "Air"),
        (("packages", "p1", "sealing"), "Survey"),
        (("packages", "p1", "panels"), "Fit-up"),
        (("packages", "p1", "moves"), "Fit-up"),
        (("packages", "p1", "shroud", "bend_radius"), "Fit-up"),
        (("packages", "p1", "place", "x"), "Fit-up"),
        (("packages", "p1", "mounting", "frames"), "Fit-up"),
        (("packages", "p1", "circuits", "circuit1", "fuse"), "Electrical"),
        (("packages", "p1", "control", "strategy"), "Electrical"),
    ],
)
def test_where_a_path_is_edited(path, name):
    assert station_at(path).name == name


def test_no_two_stations_own_a_field_alike():
    """Whatever is looked up agrees with a search through all patterns; and no pattern is two stations'."""
    patterns = [pattern for station in STATIONS for pattern in station.owns]
    assert len(set(patterns)) == len(patterns)
    for path, _, _ in measured_fields(BUILD):
        fits = {s.name: max((len(p) for p in s.owns if holds(p, path)), default=-1) for s in STATIONS}
        closest = max(fits.values())
        owners = [name for name, fit in fits.items() if fit == closest]
        assert len(owners) == 1 or closest < 0, (path, owners)
        assert station_at(path).name == owners[0]


def test_a_pattern_holds_what_is_at_it_and_below():
    assert holds(("packages", ANY, "fans"), ("packages", "p1", "fans", "fan1"))
    assert holds((), ("brief",))
    assert not holds(("packages", ANY, "fans"), ("packages", "p1"))
    assert not holds(("packages", ANY, "fans"), ("packages", "p1", "shroud"))


def test_every_finding_belongs_to_one_station():
    findings = assess(BUILD).findings
    grouped = by_station(findings)
    assert sorted(map(str, findings)) == sorted(str(finding) for own in grouped.values() for finding in own)
    assert all(station_at(finding.where).name == name for name, own in grouped.items() for finding in own)


def test_how_far_a_station_is():
    """By hand from the demo's findings: what comes out of a duty case is no fault of the Brief; an unsurveyed bay is
    not started."""

    def state(build, name):
        found = assess(build)
        return named(name).state(build, found, by_station(found.findings)[name])

    assert state(BUILD, "Core") == StationState("settled")
    assert state(BUILD, "Fit-up") == StationState("problems", 2)
    hot = on(BUILD, (("brief", "vehicle", "mass"), "20000 lb", "mass"))
    assert not state(hot, "Brief").word.startswith("problem"), "over the limit is a result"
    bare = on(BUILD, (("brief", "engine", "displacement"), None))
    assert state(bare, "Brief") == StationState("not started")


def test_no_other_module_knows_the_stations_by_name():
    """The names stand in the declarations; elsewhere they would be a second list of stations."""
    names = "|".join(re.escape(station.name) for station in STATIONS)
    listing = re.compile(rf'"(?:{names})"[^\n]{{0,40}}"(?:{names})"')
    for path in Path(keelroom.gui.__file__).parent.rglob("*.py"):
        if path.parent.parent.name != "stations":
            assert not listing.search(path.read_text()), path
