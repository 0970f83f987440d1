"""What a drive is made of, stretch by stretch, and what comes of it."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.arrays import Floats, Ints
from keelroom.core.drive import places
from keelroom.core.plant import Fixed, Layout, Points


class Legs(NamedTuple):
    """n stretches one after another.

    until (n,) [s] from the start;  row (n,) : the situation each stands in
    pace, more : factors on the coolant's flow and on the heat;  alive : 1 where the engine runs
    forced : share of full the fans are run at, under 0 where their control says;  switched : 1 where that has contacts
    heater : share of full the cabin's heater is on;  drains : 1 where the battery's charge is followed
    boils [degC] : of the outlet, where the run ends
    heats (n, 2, 6) [W], charge_flow [W/K] : what the engine gives coolant, gearbox, oil, charge air, its flow, and the
    bay, with the fans stopped and running;  bay (n, 2) [W] : what the situation's air was worked out with
    """

    until: Floats
    row: Ints
    pace: Floats
    more: Floats
    alive: Floats
    forced: Floats
    switched: Floats
    heater: Floats
    drains: Floats
    boils: Floats
    heats: Floats
    bay: Floats


class Supply(NamedTuple):
    """What the electrical system does in R situations, at S states of charge from flat to full.

    capacity [A s];  states (S,) 0..1;  idle_volts, blown_at (R,) [V] : with the fans stopped, and those their air was
    worked out at
    volts (R, S) with them running;  amps, rests (R, S) : what the battery takes then, and with them stopped [A]
    drained, rest_drained (R, S) : charge it loses by that a second [A], less than nothing where it is charged
    """

    capacity: float
    states: Floats
    idle_volts: Floats
    blown_at: Floats
    volts: Floats
    amps: Floats
    rests: Floats
    drained: Floats
    rest_drained: Floats


class Stands(NamedTuple):
    """Situations (R,) of one car, and what `prepare` gave of them."""

    points: Points
    fixed: Fixed
    layout: Layout


class Start(NamedTuple):
    """Where a drive starts: its state, contacts closed, where the thermostat's play stands [degC], the battery's
    charge 0..1."""

    state: Floats
    contacts: tuple[bool, bool]
    seat: float
    charge: float


class Run(NamedTuple):
    """A drive as it went, at m moments as close as it needs: time (m,) [s], states (m, SIZE), told (m, TOLD)."""

    time: Floats
    states: Floats
    told: Floats

    def of(self, place: int) -> Floats:
        """A number of the state over time, by its place."""
        found: Floats = self.states[:, place]
        return found

    @property
    def outlet(self) -> Floats:
        """Coolant leaving the engine [degC]."""
        return self.of(places.HOT)

    @property
    def gauge(self) -> Floats:
        """What the driver reads [degC]."""
        return self.of(places.NEEDLE)

    @property
    def inlet(self) -> Floats:
        """Coolant coming back to the engine [degC]."""
        return self.of(places.COLD)

    @property
    def share(self) -> Floats:
        """Of the fans' full flow."""
        return self.of(places.FANS)

    @property
    def last(self) -> Start:
        """Where it stood at its end; the battery's charge is what it started with."""
        at = self.told[-1]
        return Start(self.states[-1], (at[11] > 0, at[12] > 0), float(self.states[-1, places.ELEMENT]), 1.0)


TOLD_NAMES = (
    *("core_in", "core_out", "opening", "own", "core_heat", "air", "front_air", "air_in", "volts", "amps"),
    *("core_flow", "first", "second", "leg", "wanted", "flow"),
)
"""Names of what is told of a moment, in order."""


def told(run: Run, name: str) -> Floats:
    """What is told of every moment, by its name.

    Source: definition; raises ValueError where there is none of that name.
    """
    found: Floats = run.told[:, TOLD_NAMES.index(name)]
    return found
