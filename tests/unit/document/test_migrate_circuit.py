"""Version 5: what is chosen of the circuit is the package's. A version 4 file keeps every figure it had."""

import json

import pytest

from keelroom.assess.assess import assess
from keelroom.document.file import load
from keelroom.errors import DocumentError
from tests.conftest import DEMO
from tests.unit.assess.test_assess import GOLDEN


def test_what_the_brief_said_of_the_circuit_stands_in_every_package(tmp_path):
    raw = json.loads((GOLDEN / "version-4.keelroom").read_text())
    raw["brief"]["loop"] = {
        "pump": "electric",
        "hose_bore": {"si": 0.03175, "as_typed": "1 1/4 in", "unit": "in", "origin": "measured", "doubt": None},
    }
    raw["brief"]["cooling"] |= {"thermostat_place": "inlet", "glycol": "propylene_glycol", "fan_off": None}
    (tmp_path / "old.keelroom").write_text(json.dumps(raw))
    build = load(tmp_path / "old.keelroom")
    assert len(build.packages) == 3
    for package in build.packages:
        assert (package.loop.pump, package.loop.thermostat_place) == ("electric", "inlet")
        assert [hose.bore.as_typed for hose in package.loop.hoses] == ["1 1/4 in"] * 2
        assert package.coolant.glycol == "propylene_glycol"
        assert package.control.fan_off is None
    assert build.packages[0].control.strategy == "ground_switch", "what the package said itself stands"
    assert (
        build.brief.cooling.limit.as_typed == raw["brief"]["cooling"].get("limit", {"as_typed": "225 °F"})["as_typed"]
    )


@pytest.mark.parametrize(
    ("where", "broken"),
    [
        (("brief", "loop"), [1]),
        (("brief", "loop"), None),
        (("brief", "cooling"), 3),
        (("packages", 0, "control"), 3),
        (("packages", 0, "loop"), "x"),
        (("brief", "loop"), {"pipe": 1}),
    ],
)
def test_what_is_no_section_is_refused_and_not_dropped(tmp_path, where, broken):
    raw = json.loads((GOLDEN / "version-4.keelroom").read_text())
    section = raw
    for step in where[:-1]:
        section = section[step]
    section[where[-1]] = broken
    (tmp_path / "old.keelroom").write_text(json.dumps(raw))
    with pytest.raises(DocumentError) as refused:
        load(tmp_path / "old.keelroom")
    assert str(where[-1]) in refused.value.message


def test_a_file_without_them_gets_the_usual_ones(tmp_path):
    raw = json.loads((GOLDEN / "version-4.keelroom").read_text())
    raw["brief"].pop("loop", None)
    raw["brief"].pop("cooling", None)
    (tmp_path / "old.keelroom").write_text(json.dumps(raw))
    build = load(tmp_path / "old.keelroom")
    assert build.package.loop.thermostat.as_typed == "180 °F"
    assert build.brief.cooling.limit.as_typed == "225 °F"


@pytest.mark.parametrize("case", ["idle", "grade", "night"])
def test_packages_may_differ_in_their_circuit_and_are_judged_each_by_its_own(case):
    """By hand: water carries more heat than half glycol, so the package with it runs no hotter; the other two do not
    move."""
    from tests.changes import on

    build = load(DEMO)
    thin = on(build, (("packages", "p2", "coolant", "glycol_share"), "10 %", "share"))

    def temperature(of, package):
        return next(c.figures.mean for c in assess(of, package).cases if c.case_id == case)

    assert temperature(thin, "p1") == temperature(build, "p1")
    assert temperature(thin, "p3") == temperature(build, "p3")
    assert temperature(thin, "p2") <= temperature(build, "p2")
    assert case != "grade" or temperature(thin, "p2") < temperature(build, "p2") - 0.3


def test_one_bore_and_length_for_both_hoses_become_two_hoses(tmp_path):
    """Version 8. Of version 7's five bends the upper hose has three; 48 in are twice 24; a bore that was its end's is
    not said again."""
    raw = json.loads((GOLDEN / "version-7.keelroom").read_text())
    loop = raw["packages"][0]["loop"]
    loop["hose_bends"] |= {"si": 5.0, "as_typed": "5"}
    loop["hose_length"] |= {"si": 1.2192, "as_typed": "48", "unit": "in", "origin": "measured"}
    (tmp_path / "old.keelroom").write_text(json.dumps(raw))
    upper, lower = load(tmp_path / "old.keelroom").packages[0].loop.hoses
    assert (upper.bends.si, lower.bends.si) == (3, 2)
    assert upper.length.si + lower.length.si == pytest.approx(1.2192)
    assert upper.length.origin == "measured"
    assert upper.bore is None, "1 1/2 in, as the engine's outlet in the survey"
    assert lower.bore.as_typed == "1 1/2 in", "the engine's inlet is 1 3/4 in"
    assert (upper.start, upper.end, lower.start, lower.end) == (
        "engine:upper",
        "core:inlet",
        "core:outlet",
        "engine:lower",
    )
    ends = load(tmp_path / "old.keelroom").survey.hoses
    assert [end.role for end in ends] == ["outlet", "inlet"]


def test_figures_of_version_7_stand():
    """What its demo reads. Version 7's own program said 90.56, 87.57, 114.85 and 82.58 °C:
    heat by mass flow has added 15 % on its grade, where the engine is slow and open, fans blow as their blades
    and watts say together, and the bay is as warm as what it is given."""
    found = {case.case_id: case.figures.temperature for case in assess(load(GOLDEN / "version-7.keelroom")).cases}
    for case, celsius in {"idle": 90.56, "cruise": 87.60, "grade": 126.64, "night": 83.31}.items():
        assert found[case] == pytest.approx(celsius, abs=0.03)
