"""What is read by the way: each place against what it is made of, by hand."""

import numpy as np
import pytest

from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.trials.expected import foretold
from keelroom.assess.trials.judged import judged
from keelroom.assess.trials.spots import flow_of_marks, seen_at_end, spot_of
from keelroom.assess.trials.tried import made_of, points_of
from keelroom.catalogue.protocols import PROTOCOLS
from keelroom.core.trials.traverse import places
from keelroom.document.edits import apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.errors import InputError
from tests.changes import on
from tests.conftest import DEMO
from tests.drives import leg
from tests.trials import reading, trial, with_trials

BUILD = load(DEMO)
PSI = 6894.757


def seen(build, *legs):
    one = trial(*(legs or (leg("idle", "10 min", id="leg", ac_on=True),)))
    return seen_at_end(made_of(build, one), one)


def expects(build, one):
    return {found.sensor.place: found for found in foretold(build, one).expects}


def test_motor_volts_are_the_batterys_less_what_the_wire_loses():
    found = seen(BUILD)
    volts = spot_of("motor", found).value
    lost = [max(volt for _, volt in flow.lost) for flow in found.system.flows if flow.lost]
    assert found.system.balance.voltage - volts >= max(lost) - 1e-9
    assert 0 < found.system.balance.voltage - volts < 2.5
    assert spot_of("running", found).value == pytest.approx(found.system.fan_amps, rel=1e-6)
    # Brushed motors draw several times their running amps at a start (common practice, no source).
    assert 2 < spot_of("start", found).value / found.system.fan_amps < 8


def test_a_cap_holds_between_half_its_rating_and_all_of_it():
    """A warm circuit stands at its cap's pressure or near it (common practice, no source)."""
    build = on(BUILD, (("packages", BUILD.active, "loop", "cap_pressure"), "16 psi", "pressure"))
    assert spot_of("held", seen(build)).value == pytest.approx(12 * PSI, rel=1e-3)


def test_no_air_conditioning_no_vent():
    vents = spot_of("vent", seen(BUILD)).value
    assert 0 < vents < 15  # degC: 40 to 55 degF at the middle vent (common practice, no source)
    without = on(BUILD, (("brief", "accessories", "ac_fitted"), False))
    assert spot_of("vent", seen(without, leg("idle", "10 min", id="leg"))) is None


def test_fins_stand_between_coolant_and_air():
    found = seen(BUILD)
    assert found.figures.air_in < spot_of("fin", found).value < found.figures.mean


def test_marks_foretold_are_the_air_through_the_face():
    """Mean of the speeds at the places of ISO 3966 times the area: the flow the fans draw, within what places tell."""
    one = trial(leg("idle", "5 min", id="leg"), protocol="air")
    build = with_trials(BUILD, one)
    told = foretold(build, one)
    core = BUILD.package.core
    assert len(told.marks) == len(places(core.face_width.si, core.face_height.si))
    figures = seen_at_end(made_of(build, one), one).figures
    flow = np.mean(told.marks) * core.face_width.si * core.face_height.si
    assert flow == pytest.approx(figures.airflow_fans_on, rel=0.12)
    assert expects(build, one)["mark"].value == pytest.approx(figures.airflow_fans_on / 0.28516, rel=1e-3)


def test_marks_come_to_mean_times_area_warmed():
    """25 marks at 2 m/s before a face of 0.285 m2: 0.570 m3/s, behind the core as much more as it is warmer."""
    marks = tuple(reading("mark", "1 min", mark=n, wind="2 m/s") for n in range(1, 26))
    one = trial(leg("idle", "5 min", id="leg"), protocol="air", readings=marks)
    build = with_trials(BUILD, one)
    plain = flow_of_marks(build, one, None)
    assert plain.flow == pytest.approx(2.0 * 0.28516072, rel=1e-6)
    assert plain.uneven == 0.0
    warm = seen_at_end(made_of(build, one), one)
    ratio = (warm.figures.air_out + 273.15) / (warm.figures.air_in + 273.15)
    assert flow_of_marks(build, one, warm).flow == pytest.approx(plain.flow * ratio, rel=1e-9)
    taken = apply(build, edit_for(build, offer("flow_of_marks", trial="t1"))).logbook.trials[0]
    assert taken.readings[-1].airflow.si == pytest.approx(plain.flow * ratio, rel=1e-3)
    again = build.model_copy(update={"logbook": build.logbook.model_copy(update={"trials": (taken,)})})
    twice = apply(again, edit_for(again, offer("flow_of_marks", trial="t1"))).logbook.trials[0]
    assert len(twice.readings) == len(taken.readings)  # taken anew, not beside
    # The marks themselves are not learnt from: their flow is.
    assert [point.sensor.place for point in points_of(again, taken)] == ["air"]


@pytest.mark.parametrize(
    ("readings", "passes"),
    [
        ((("0 min", "15 psi"), ("15 min", "15 psi")), "passes"),
        ((("0 min", "15 psi"), ("15 min", "14.5 psi")), "passes"),
        ((("0 min", "15 psi"), ("15 min", "12 psi")), "fails"),
        ((("0 min", "15 psi"), ("8 min", "15 psi")), "open"),
        ((("0 min", "15 psi"),), "open"),
    ],
)
def test_a_pressure_test_holds_a_quarter_of_an_hour(readings, passes):
    """No fall in fifteen minutes beyond a needle's width (common practice, no source)."""
    read = tuple(reading("held", at, pressure=value) for at, value in readings)
    one = trial(protocol="pressure", readings=read).model_copy(update={"legs": ()})
    assert judged(with_trials(BUILD, one), one).passes == passes


@pytest.mark.parametrize("key", [one.key for one in PROTOCOLS])
def test_every_protocol_lays_out_what_its_steps_write(key):
    build = apply(BUILD, edit_for(BUILD, offer("add_trial", protocol=key)))
    made = build.logbook.trials[-1]
    protocol = next(one for one in PROTOCOLS if one.key == key)
    writes = [(max(step.minute, 0) * 60, place) for step in protocol.steps for place in step.writes]
    if not writes:
        with pytest.raises(InputError, match="laid out already"):
            edit_for(build, offer("lay_readings", trial=made.id))
        return
    laid = apply(build, edit_for(build, offer("lay_readings", trial=made.id)))
    places_of = {one.id: one.place for one in laid.logbook.sensors}
    found = [(one.at.si, places_of[one.sensor]) for one in laid.logbook.trials[-1].readings]
    assert sorted(found) == sorted(set(writes))
    assert {place for _, place in writes} | set(protocol.reads) <= set(places_of.values())
    with pytest.raises(InputError, match="laid out already"):
        edit_for(laid, offer("lay_readings", trial=made.id))
    day = laid.logbook.trials[-1].model_copy(update={"ambient": quantity("90 °F", "temperature")})
    if day.legs:
        whole = laid.model_copy(update={"logbook": laid.logbook.model_copy(update={"trials": (day,)})})
        told = expects(whole, day)
        assert set(protocol.reads) - {"oil"} <= set(told)
        assert all(one.low < one.value < one.high for one in told.values())
