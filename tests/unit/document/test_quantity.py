"""What an act sets is rounded as its unit is read."""

import pytest

from keelroom.document.quantity import as_read


@pytest.mark.parametrize(
    ("si", "kind", "system", "text", "back"),
    [
        (83.3, "temperature", "us", "182", (182 - 32) / 1.8),
        (83.3, "temperature", "si", "83", 83.0),
        (0.0123, "length", "us", "1/2", 0.0127),
        (-3.4, "temperature", "si", "-3", -3.0),
    ],
)
def test_a_figure_that_is_set_is_whole_in_the_unit_it_is_read_in(si, kind, system, text, back):
    """By hand: 83.3 °C is 181.94 °F; 12.3 mm are 0.484 in, 7.7 sixteenths."""
    made = as_read(si, kind, system, "derived")
    assert made.as_typed.split(" ")[0] == text
    assert made.si == pytest.approx(back)
    assert made.origin == "derived"
