"""Ways of deciding when fans run, as a table: what each is said by its properties, never by its name elsewhere."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.document.schema.electrical import Control, Strategy
from keelroom.document.schema.package import Signal


class ControlWay(NamedTuple):
    """One way of control.

    title : as it is chosen;  brain : what commands the coils
    by_hand : needs no sensor;  by_computer : has the engine's own sensor;  knob : set by a knob on it, its sensor has
              no contact
    alone : what commands sits in each fan's own box, and feels the temperature itself
    grounds : it grounds the coils, the others feed them;  staged : a low and a high output;  varies : speed goes with
              temperature
    """

    title: str
    brain: str = "thermoswitch"
    by_hand: bool = False
    by_computer: bool = False
    knob: bool = False
    alone: bool = False
    grounds: bool = False
    staged: bool = False
    varies: bool = False

    @property
    def gives(self) -> Signal:
        """What its output is: a chopped signal, a ground, or a 12 V level."""
        return "pulses" if self.varies else "ground" if self.grounds else "level"

    @property
    def sold_by_degrees(self) -> bool:
        """Whether its set points are those a switch is sold with."""
        return self.brain == "thermoswitch"


WAYS: dict[Strategy, ControlWay] = {
    "toggle": ControlWay("Toggle in the cab", "toggle", by_hand=True),
    "ground_switch": ControlWay("Switch grounds a relay", grounds=True),
    "feed_switch": ControlWay("Switch feeds a relay"),
    "two_speed": ControlWay("Two speeds, staged", grounds=True, staged=True),
    "both_relays": ControlWay("Both relays together", grounds=True),
    "adjustable": ControlWay("Adjustable controller", "controller", knob=True),
    "variable": ControlWay("Variable, soft start", "variable controller", knob=True, varies=True),
    "module": ControlWay("Module with its own probe", "fan module", knob=True, alone=True, varies=True),
    "computer": ControlWay("Computer, low and high", "engine computer", by_computer=True, grounds=True, staged=True),
    "computer_pwm": ControlWay("Computer, variable", "engine computer", by_computer=True, varies=True),
}


def way_of(control: Control) -> ControlWay:
    """How a control decides."""
    return WAYS[control.strategy]
