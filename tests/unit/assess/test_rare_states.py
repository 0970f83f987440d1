"""States few builds are in, each held against values worked by hand: what no ordinary build passes through, no ordinary
test sees."""

import math

import pytest
from scipy.optimize import brentq

from keelroom.assess.assess import assess, first_wave
from keelroom.assess.defaults import usual_redline
from keelroom.assess.electrical.cures import Lack, _led_lamps
from keelroom.assess.figures.assessment import HOLDING
from keelroom.assess.figures.casefigures import _verdict
from keelroom.assess.figures.read_off import draws_of
from keelroom.assess.inputs.coolant.flows import pump_flow_rated
from keelroom.assess.inputs.coolers import own_curve
from keelroom.assess.report import plain_verdict, verdict_line
from keelroom.core.outline import area
from keelroom.core.packaging.plate import adapter_plate
from keelroom.core.packaging.sheet import METALS
from keelroom.core.rows import bound
from keelroom.core.thermal.engine_heat import engine_heat
from keelroom.core.thermal.engine_point import DriveRows, VehicleRows, road_power
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.survey import Survey
from keelroom.units import INCH
from tests.changes import on
from tests.conftest import DEMO
from tests.reference.cars import CAR, at, drive_with, engine_with
from tests.told import what_of

BUILD = load(DEMO)
P1 = ("packages", "p1")
LAMPS, CONTROL, CIRCUIT = ("supply", "loads", "lamps", "power"), (*P1, "control"), (*P1, "circuits", "circuit1")


def test_what_an_unlocked_converter_loses_ends_in_its_fluid():
    """K 160 at 2800 rpm takes 415.2 Nm stalled. 58 kW in are 197.8 Nm, 0.4764 of it: the sixth root of the rest, 0.8978
    of the speed, comes out, with the torque that went in, so 10.22 %, 5.93 kW, is lost, and 52.07 kW come out."""
    vehicle = CAR._replace(converter_factor=at(160), driveline_efficiency=at(0.85), gearbox_part=at(0.0))
    drive = drive_with(rpm=2800, speed=20)
    wanted = 52.07e3 * 0.85
    car = bound(VehicleRows, vehicle)

    def short(grade):
        return road_power(car, bound(DriveRows, drive._replace(grade=at(grade))), 0, 1.2) - wanted

    steep = brentq(short, 0, 1)
    engine = engine_with(power=200e3, power_rpm=2800.0)
    air = (at(1.2), at(101325.0), at(30.0))
    slipping, locked = (
        engine_heat((engine, vehicle), drive._replace(grade=at(steep), slips=at(slips)), at(0.0), air)
        for slips in (1, 0)
    )
    assert float(slipping.gearbox[0]) == pytest.approx(5.93e3, abs=15)
    assert float(slipping.wheels[0]) == pytest.approx(58e3, abs=20)
    assert float(locked.gearbox[0]) == 0.0, "no part of the gears' own loss is in this fluid"
    assert float(locked.wheels[0]) == pytest.approx(52.07e3, abs=1)


def test_a_small_fans_hub_takes_its_part_of_the_annulus():
    """11 in across with a hub of 0.45 of it: 48.90 of 61.32 square centimetres times ten are swept. Twice as fast
    through half the annulus is four times the dynamic pressure: a larger hub stalls sooner."""
    where = (*P1, "coolers", "cooler")
    (cooler,) = (one for one in BUILD.package.coolers if one.id == "cooler")
    fields = (("fans", "1", "count"), ("fan_diameter", "11 in", "length"), ("fan_flow", "800 CFM", "airflow"))
    changes = [
        ((*where, name), text, kind) for name, text, kind in (*fields, ("fan_power", "40 W", "electrical power"))
    ]
    (cooler,) = (one for one in on(BUILD, *changes).package.coolers if one.id == "cooler")
    swept = math.pi / 4 * (11 * INCH) ** 2 * (1 - 0.45**2)
    assert swept == pytest.approx(0.04890, abs=1e-5)
    curve = own_curve(cooler)
    flow = 800 * 0.3048**3 / 60
    # 40 W are what blades a quarter as deep as wide, 3.3 dynamic heads through that annulus, take for 0.95 of it.
    assert float(curve.flow) == pytest.approx(0.95 * flow, rel=0.02)


@pytest.mark.parametrize("degrees", [4.0, 10.0])
def test_a_leaned_core_turns_about_its_lower_front_edge(degrees):
    """17 in high and 2.25 in deep, leaned back: its middle goes to (h/2 cos - d/2 sin, h/2 sin + d/2 cos) from that
    edge, by plane geometry; a core with no place entered stands higher by half of what it lost of its height."""
    build = on(BUILD, ((*P1, "place", "lean"), f"{degrees} °", "angle"))
    upright = on(BUILD, ((*P1, "place", "lean"), "0 °", "angle"))
    core, plain = (first_wave(one).fit.parts[0].solid for one in (build, upright))
    lean, z = math.radians(degrees), BUILD.package.place.z.si
    high, deep = 2 * (plain.centre[1] - (plain.centre[1] - plain.half[1])), 2 * (plain.centre[2] - z)
    assert core.centre[2] - z == pytest.approx(high / 2 * math.sin(lean) + deep / 2 * math.cos(lean), abs=1e-9)
    assert core.axes[1] == pytest.approx((0.0, math.cos(lean), math.sin(lean)))
    assert core.axes[2] == pytest.approx((0.0, -math.sin(lean), math.cos(lean)))
    lower = high / 2 * (1 - math.cos(lean)) if BUILD.package.place.y is None else 0.0
    rise = high / 2 * math.cos(lean) - deep / 2 * math.sin(lean) - high / 2
    assert core.centre[1] - plain.centre[1] == pytest.approx(rise + lower, abs=1e-9)


def test_a_plate_from_four_holes_by_its_rounded_outline():
    """Holes 100 by 60 mm apart, 15 mm of metal round each: 100 x 60 + 2 x 15 x 160 + pi 15^2 mm2; of 3 mm steel that
    weighs 0.270 kg."""
    square = [(0.0, 0.0), (0.1, 0.0), (0.1, 0.06), (0.0, 0.06)]
    made = adapter_plate("plate", (square[:2], square[2:]), (6.4e-3, 8e-3), (METALS["steel"], 3e-3, 0.015))
    wanted = 0.1 * 0.06 + 2 * 0.015 * 0.16 + math.pi * 0.015**2
    assert wanted == pytest.approx(0.011507, abs=1e-6)
    assert area(made.outlines[0]) == pytest.approx(wanted, rel=5e-3)
    assert area(made.outlines[0]) * 3e-3 * METALS["steel"].density == pytest.approx(0.270, abs=0.003)
    assert sorted(hole.diameter for hole in made.holes) == [6.4e-3, 6.4e-3, 8e-3, 8e-3]
    assert not made.faults


def test_what_is_taken_where_nothing_is_entered():
    """Common practice, no source: 1.4 L/min a kilowatt, 175.24 kW: 245.3 L/min; a redline a tenth over the speed of
    greatest power: 5720 for 5200."""
    engine = BUILD.brief.engine.model_copy(
        update={"pump_flow": None, "power_rpm": quantity("5200 rpm", "turning speed")}
    )
    assert pump_flow_rated(engine) * 6e4 == pytest.approx(1.4 * 175.24, rel=1e-4)
    assert usual_redline(engine) == "5720 rpm"


def test_the_verdict_that_is_copied_is_the_ledgers_word_for_word():
    """Each case by its name with what it comes to and what that means; then the fit, the volts and the caution."""
    text = plain_verdict(assess(BUILD), "us")
    head, rest = text.split(". Fit: ")
    assert head.startswith(f"{BUILD.package.name} in {BUILD.brief.title}: ")
    cases = head.split(f"{BUILD.brief.title}: ")[1].split("; ")
    assert [case.name for case in BUILD.duty_cases] == [
        next(duty.name for duty in BUILD.duty_cases if said.startswith(duty.name)) for said in cases
    ]
    for said, duty, found in zip(cases, BUILD.duty_cases, assess(BUILD).cases, strict=True):
        degrees = f"{found.figures.temperature * 1.8 + 32:.0f} °F"
        meant = {
            "holds": "holds",
            "tight": "likely holds",
            "even": "an even chance",
            "over": "over limit",
            "does_not_settle": "does not settle",
        }
        wanted = "does not settle" if found.figures.verdict == "does_not_settle" else degrees
        assert said.startswith(f"{duty.name} ")
        assert wanted in said
        assert said.endswith(f"({meant[found.figures.verdict]})")
    assert rest.startswith("does not fit. Tightest: ")
    assert rest.endswith("Planning estimates; local codes and licensed practice come first.")
    bare = plain_verdict(first_wave(BUILD.model_copy(update={"survey": Survey()})), "us")
    assert ". Fit: the bay is not surveyed. " in bare


@pytest.mark.parametrize(
    ("ends", "chance", "verdict"),
    [
        ((100, 104), 0.02, "holds"),
        ((104, 109), 0.2, "tight"),
        ((106, 112), 0.36, "even"),
        ((106, 112), 0.49, "even"),
        ((108, 115), 0.6, "over"),
    ],
)
def test_an_even_chance_never_reads_as_held(ends, chance, verdict):
    """Limit 107 °C: about one in three is the most that is still said to hold; a verdict over it counts as none."""
    assert _verdict(True, ends, 107.0, chance) == verdict
    assert (verdict in HOLDING) == (verdict in ("holds", "tight"))
    assert _verdict(False, ends, 107.0, chance) == "does_not_settle"


def test_packages_count_an_even_chance_among_what_does_not_hold():
    """The demo's engine-driven fan has 4 in 10 to pass on the grade: 4 of 6 hold, not 5."""
    found = assess(BUILD, "p4")
    assert found.figures_of("grade").verdict == "even"
    assert verdict_line(found, "us").startswith("4 of 6 hold")
    (said,) = (finding for finding in found.findings if finding.code == "band_over_limit")
    assert what_of(said).endswith("may hold or not; about 4 in 10 that it passes the limit")


def test_led_lamps_are_offered_where_they_give_back_what_is_missing():
    """85 W less at 13.5 V are 6.30 A, and at the 14.2 V the regulator holds, through the same
    resistance, 6.62 A."""
    idle = next(draw for draw in draws_of(assess(BUILD)) if draw.case.id == "idle")
    for lacks, offered in ((6.6, True), (6.65, False)):
        one = Lack(idle._replace(system=idle.system._replace(modelled=100.0 - lacks)), 100.0, 780.0)
        cure = _led_lamps(BUILD, [one])
        assert (cure.fix is not None) is offered
        assert cure.told.code == ("cure.lamps" if offered else "cure.lamps_help")
    assert _led_lamps(on(BUILD, (LAMPS, "45 W", "electrical power")), [one]) is None, "they are that already"


def test_the_fan_said_to_have_more_room_is_the_other_one():
    build = on(
        BUILD, ((*CONTROL, "strategy"), "two_speed"), ((*CIRCUIT, "switch"), "relays"), ((*CONTROL, "lead"), "fan2")
    )
    (found,) = (one for one in assess(build).findings if one.code == "lead_fan")
    assert what_of(found) == "Fan 2 starts first, fan 1 has more room behind it"
    (act,) = found.fix
    assert act.label == "Fan 1 first"
