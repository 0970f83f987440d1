"""Reading what a person types, and writing it back."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from keelroom.errors import InputError
from keelroom.units import INCH, KINDS, as_sixteenths, format_si, inches, money_text, number_text, parse, system_with

LENGTH = KINDS["length"]


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("24 3/8", 24.375),
        ('24-3/8"', 24.375),
        ("24.375 in", 24.375),
        ("619 mm", 619 / 25.4),
        ("61.9 cm", 61.9 / 2.54),
        ("24 3/8 - 1 1/4", 23.125),
        ("5' 3 1/2\"", 63.5),
        ("2 * 12 3/8", 24.75),
        ("(3 + 4)/2 in", 3.5),
        ("½", 0.5),
        ("1,250 mm", 1250 / 25.4),
        ("24,5", 24.5),
        ("24 -3/8", 23.625),
        ("-3", -3.0),
    ],
)
def test_lengths_as_written_on_a_tape(text, inches):
    assert parse(text, LENGTH, "in").si == pytest.approx(inches * INCH, rel=1e-12)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("3/0", "over zero"),
        ("abc", "expected a length"),
        ("", "such as"),
        ("3 kg", "not a unit of length"),
        ("2 in * 3 in", "Two measures"),
        ("1e400", "too large"),
        ("(3", "bracket"),
        ("1/(2-2)", "division by zero"),
        ("@", "cannot be read"),
        ("3 3 3", "cannot be read"),
        ("9" * 300, "too long"),
    ],
)
def test_a_wrong_entry_says_what_was_expected(text, says):
    with pytest.raises(InputError) as caught:
        parse(text, LENGTH, "in")
    assert says in caught.value.message


def test_a_bare_number_takes_the_unit_shown_whatever_its_size():
    assert parse("600", LENGTH, "in").si == pytest.approx(600 * INCH)
    assert parse("0.6", LENGTH, "mm").si == pytest.approx(0.6e-3)


def test_temperature_is_not_temperature_difference():
    assert parse("9 °F", KINDS["temperature difference"], "K").si == pytest.approx(5.0)
    assert parse("212F", KINDS["temperature"], "°C").si == pytest.approx(100.0)
    with pytest.raises(InputError):
        parse("95 °F + 5 °C", KINDS["temperature"], "°C")


@given(st.integers(0, 16 * 200))
def test_sixteenths_come_back(sixteenths):
    assert parse(as_sixteenths(sixteenths / 16), LENGTH, "in").si == pytest.approx(sixteenths / 16 * INCH)


@given(st.sampled_from(sorted(KINDS)), st.floats(0.001, 1e4), st.sampled_from(["us", "si"]))
def test_what_is_shown_reads_back(name, value, system):
    kind = KINDS[name]
    unit = kind.shown_unit(system)
    shown = format_si(value, kind, system)
    step = {"in": INCH / 16}.get(unit.symbol, 10.0**-unit.decimals * unit.factor)
    assert parse(shown, kind, unit.symbol).si == pytest.approx(value, abs=0.51 * step + 1e-9)


@given(st.text(max_size=30))
def test_any_text_reads_or_is_refused(text):
    try:
        reading = parse(text, LENGTH, "in")
    except InputError:
        return
    assert math.isfinite(reading.si)


def test_minus_nothing_is_nothing():
    assert number_text(-0.001, KINDS["mass"].unit("kg")) == "0"


@pytest.mark.parametrize(
    ("path", "value", "said"),
    [
        (("brief", "vehicle", "mass"), -1.0, "Vehicle mass must be more than 0"),  # nought is nought in pounds too
        (("brief", "cooling", "limit"), -20.0, "Limit, engine outlet must be at least 40 °C (104 °F)"),
    ],
)
def test_a_refusal_says_the_limit_in_the_readers_unit(path, value, said):
    from keelroom.document.edits import owner_and_spec
    from keelroom.document.file import load
    from tests.conftest import DEMO

    assert owner_and_spec(load(DEMO), path)[1].refusal(value) == said


def test_heat_and_volume_may_be_told_in_other_units_than_the_system_s():
    """Worked by hand: 42 kW is 56.3 hp of 745.7 W, 2388.5 BTU/min of 1055.06 J; 1 US gallon is 3.785 L."""
    system = system_with("us", {"heat": "hp", "volume": "gal"})
    assert format_si(42e3, KINDS["heat"], system) == "56.3 hp"
    assert format_si(42e3, KINDS["heat"], system_with("si", {"heat": "BTU/min"})) == "2388 BTU/min"
    assert format_si(3.785411784e-3, KINDS["volume"], system) == "1.00 gal"
    assert format_si(0.0254, KINDS["length"], system) == "1 in"
    assert inches(system)
    assert not inches(system_with("si", {"heat": "hp"}))
    assert system_with("us", {"heat": "", "volume": "furlong"}) == "us", "what is no unit of it is left out"


def test_money_is_whole_and_has_its_sign_before_it():
    assert money_text(1249.6, "$") == "$1250"
    assert money_text(-80, "€") == "−€80"
    assert money_text(0, "") == "0"
