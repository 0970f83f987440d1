"""Coolers and the engine's fan in a build: what migrates, what each spot means, who turns with whom."""

import json

import pytest
from pypdf import PdfReader

from keelroom.assess.acts.packages import with_engine_fan
from keelroom.assess.assess import assess
from keelroom.assess.figures.coolernoise import loudness
from keelroom.assess.inputs.airside import air_side
from keelroom.assess.inputs.coolers import out_area, own_air, own_curve, size_of
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.translate import car_of, row_of
from keelroom.assess.placing import face_size
from keelroom.assess.questions.cooler_places import cooler_places
from keelroom.assess.questions.swap import swap
from keelroom.document.edits import apply
from keelroom.document.file import load, parse
from keelroom.document.quantity import quantity
from keelroom.export.sheet import write_sheet
from keelroom.units import KINDS, format_si
from tests.acts import doing
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
P1 = ("packages", "p1")
COOLER = (*P1, "coolers", "cooler")
GOLDEN = DEMO.parents[3] / "tests/golden"


def remote(build=BUILD):
    return next(one for one in build.package.coolers if one.id == "cooler")


def test_a_cooler_hung_away_in_an_old_file_is_one_of_the_coolers():
    """Version 5 kept it with the mounting, without heat, air or place; its motor is known to circuits by the same
    id."""
    build = load(GOLDEN / "version-5.keelroom")
    cooler = remote(build)
    assert (cooler.kind, cooler.stands, cooler.fans.si, cooler.fan_power.as_typed) == (
        "gearbox_cooler",
        "bumper",
        1,
        "90 W",
    )
    assert (cooler.width.as_typed, cooler.bottom.as_typed, cooler.fitting) == ("11 in", "-4 in", "elbow_90")
    assert any("cooler" in circuit.feeds for circuit in build.package.circuits)
    raw = json.loads((GOLDEN / "version-5.keelroom").read_text())
    raw["packages"][0]["mounting"]["cooler"]["fitted"] = False
    assert "cooler" not in [one.id for one in parse(json.dumps(raw).encode(), "old").package.coolers]


def test_what_a_spot_gives_a_cooler():
    """At 45 mph the slot's ram drives it, under the floor hardly anything does, standing only its fans; in the bay it
    breathes the bay."""
    face, road, stand = face_size(BUILD.package), (20.0, 1.13), (0.0, 1.13)
    cooler, bare = remote(), remote().model_copy(update={"fans": quantity("0", "count")})
    floor = bare.model_copy(update={"stands": "floor"})
    assert own_air(bare, face, road, 0.0) > 2 * own_air(floor, face, road, 0.0) > 0
    assert own_air(bare, face, stand, 0.0) < 1e-3
    assert own_air(cooler, face, stand, 13.0) > 0.03
    assert own_air(cooler, face, stand, 9.0) < 0.8 * own_air(cooler, face, stand, 13.0)
    assert cooler.away
    assert not cooler.model_copy(update={"stands": "ahead"}).away
    backwards = cooler.model_copy(update={"backwards": True})
    assert own_air(backwards, face, stand, 13.0) < 0.75 * own_air(cooler, face, stand, 13.0), (
        "a one-way blade run backwards"
    )
    assert float(own_curve(backwards).flow) == pytest.approx(0.55 * float(own_curve(cooler).flow))
    # 2 (11 + 6) x 3/4 = 25.5 of 66 in2
    assert out_area(cooler, size_of(cooler, face)) / 0.0254**2 == pytest.approx(25.5)


def test_the_core_gets_the_air_a_remote_cooler_leaves_alone():
    """Where it is hung changes the gearbox's books and the amps, and no flow through the core."""
    away = [air_side(build, build.package).network for build in (BUILD, on(BUILD, ((*COOLER, "stands"), "floor")))]
    assert (away[0].loss == away[1].loss).all()
    ahead = on(BUILD, ((*COOLER, "stands"), "ahead"), ((*COOLER, "bottom"), "4 in", "length"))
    assert air_side(ahead, ahead.package).network.loss.sum() > away[0].loss.sum()


def test_places_are_solved_as_they_would_be_taken():
    """The best place, taken, gives what its line says."""
    found = cooler_places(BUILD, "cooler")
    assert len(found) >= 8
    best = found[0]
    after = assess(doing(BUILD, best.act))
    assert max(case.figures.fluids.gearbox for case in after.cases) == pytest.approx(best.fluid, abs=0.05)
    assert not (best.gap is not None and best.gap < 0)
    assert {place.stands for place in found} >= {"ahead", "bumper", "floor", "wheel_well", "trunk", "bay"}
    assert next(place for place in found if place.stands == "bay").fluid > best.fluid, "the bay's air is hot"


WITHOUT = BUILD.model_copy(update={"packages": BUILD.packages[:3]})
"""the demo without the car as found"""


def test_a_fan_of_the_engine_turns_with_it_and_loads_it():
    build = apply(WITHOUT, with_engine_fan(WITHOUT, WITHOUT.package))
    ident = build.packages[-1].id
    package = build.packages[-1]
    car = car_of(build, package)
    rows = {case.id: row_of(build, package, car, case).points.situation.command for case in build.duty_cases}
    fan = package.fans[0]
    for case in build.duty_cases:
        rpm = next(c.figures.rpm for c in assess(build, ident).cases if c.case_id == case.id)
        assert float(rows[case.id].turned[0]) == pytest.approx(fan.ratio.si * rpm / 2200, rel=1e-6)
    told = swap(apply(WITHOUT, with_engine_fan(WITHOUT, WITHOUT.package)))
    hill = next(row for row in told.rows if row.case.startswith("Quarry"))
    electric = sum(fan.power for fan in next(c.figures for c in assess(build).cases if c.case_id == "grade").fans)
    given = hill.drag - electric / build.brief.accessories.alternator_efficiency.si
    assert hill.brake[0] - hill.brake[1] == pytest.approx(given, rel=0.05), (
        "what it drags the engine gives, what the electric ones draw too"
    )
    assert told.rows[0].drag < 100
    assert [motored.id for motored in motors_of(build, package)] == ["cooler"], "no wire goes to it"


def test_an_engine_fan_beside_an_electric_pusher_works_too():
    """The electric one is commanded, the engine's turns with its clutch engaged; together they move more than the
    electric one alone."""
    both = on(BUILD, ((*P1, "fans", "fan1", "motor"), "engine"), ((*P1, "fans", "fan2", "mount"), "pusher"))
    alone = on(both, ((*P1, "fans", "fan1", "runs"), False))
    grade = [next(c.figures for c in assess(build).cases if c.case_id == "grade") for build in (both, alone)]
    assert grade[0].airflow > 1.1 * grade[1].airflow
    command = row_of(both, both.package, car_of(both, both.package), both.duty_case("grade")).points.situation.command
    assert [float(value) > 0 for value in command.turned] == [True, False]
    assert float(command.sensing.fins) == 0.0, "the electric fan's own sensor commands"


def test_fans_are_heard_as_they_run():
    figures = next(case.figures for case in assess(BUILD).cases if case.case_id == "idle")
    near, far = ({one.name: one for one in loudness(BUILD, figures, metres)} for metres in (1.0, 2.0))
    assert set(near) == {"Cooling fans", "Gearbox cooler fan"}
    for name, one in near.items():
        assert one.ahead - far[name].ahead == pytest.approx(6.02, abs=0.01)
    assert near["Cooling fans"].ahead > near["Gearbox cooler fan"].ahead
    assert near["Gearbox cooler fan"].idling in ("drowned", "hardly noticeable"), (
        "common practice: loud alone, unnoticed with the engine on"
    )


def test_the_sheet_tells_the_fluids_and_what_to_buy(tmp_path):
    write_sheet(assess(BUILD), tmp_path / "s.pdf", "us")
    text = "\n".join(page.extract_text() for page in PdfReader(str(tmp_path / "s.pdf")).pages)
    start = text.rindex("Other coolers")  # after the table of contents
    part = text[start : text.index("Electrical", start)]
    hill = next(case.figures for case in assess(BUILD).cases if case.case_id == "grade")
    assert format_si(hill.fluids.gearbox, KINDS["temperature"], "us") in part
    assert format_si(hill.fluids.head_pressure, KINDS["pressure"], "us") in part
    assert "size 6 fittings (9/16-18)" in part
    assert "never vented" in text
