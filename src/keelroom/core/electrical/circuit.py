"""One circuit solved: source, fuse, contacts and wires in a row, motors side by side at its end."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.electrical.motor import Motor, current_at
from keelroom.core.electrical.wire import Conductor, conductor_temperature, resistance_at
from keelroom.core.kept import by_value

ROUNDS, PATIENCE = 60, 12
SETTLED = 1e-6


class WireRun(NamedTuple):
    """A length of wire: its copper, length [m] one way, air round it [degC], loaded conductors in its bundle."""

    wire: Conductor
    length: float
    ambient: float
    loaded: int = 1


class Path(NamedTuple):
    """What the current goes through. feed carries all motors; branch and back carry one each, or all where shared.

    contacts [ohm] ahead of the motors: fuse, relay, terminals;  fixed : volts lost as measured, None where worked out
    back_shared : one ground wire for all motors
    """

    feed: WireRun
    branch: WireRun
    back: WireRun
    back_shared: bool
    contacts: float
    fixed: float | None = None


class Flow(NamedTuple):
    """The circuit at one source voltage. voltages, currents of the motors; warm: [degC] feed, branch, back; lost:
    volts by place."""

    voltages: tuple[float, ...]
    currents: tuple[float, ...]
    warm: tuple[float, float, float]
    lost: tuple[tuple[str, float], ...]

    @property
    def current(self) -> float:
        return sum(self.currents)

    @property
    def drop(self) -> float:
        """Volts lost there and back on the way to the worst motor."""
        return sum(volts for _, volts in self.lost)


def _ohms(run: WireRun, temperature: float) -> float:
    return run.length * resistance_at(run.wire, temperature)


@by_value(4096)
def flow_through(path: Path, motors: tuple[Motor, ...], voltage: float) -> Flow:
    """Voltages and currents at `voltage` [V] of the source, wires as warm as the current makes them.

    Current and drop depend on each other: the source's voltage is shared out anew until nothing moves.
    voltage > 0; no more than 60 rounds. Source: Ohm’s law with copper at the temperature its current makes.
    """
    if not motors:
        return Flow((), (), (path.feed.ambient, path.branch.ambient, path.back.ambient), ())
    volts = [voltage] * len(motors)
    warm = (path.feed.ambient, path.branch.ambient, path.back.ambient)
    lost: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    for turn in range(ROUNDS):
        amps = [current_at(motor, v) for motor, v in zip(motors, volts, strict=True)]
        total, most = sum(amps), max(amps)
        back = total if path.back_shared else most
        loads = ((path.feed, total), (path.branch, most), (path.back, back))
        warmed = (conductor_temperature(run.wire, amp, run.ambient, run.loaded) for run, amp in loads)
        warm = tuple(warmed)  # type: ignore[assignment]
        feed, branch, ground = (
            _ohms(run, at) for run, at in zip((path.feed, path.branch, path.back), warm, strict=True)
        )
        if path.fixed is not None:
            lost = (path.fixed, 0.0, 0.0, 0.0)
            after = [voltage - path.fixed] * len(motors)
        else:
            lost = (feed * total, branch * most, ground * back, path.contacts * total)
            shared = lost[0] + lost[3] + (lost[2] if path.back_shared else 0.0)
            own = branch + (0.0 if path.back_shared else ground)
            after = [voltage - shared - own * amp for amp in amps]
        moved = max(abs(a - b) for a, b in zip(after, volts, strict=True))
        # Shorter steps where a brushless motor's rising current makes the search swing: at first where it is far off,
        # later throughout.
        share = 0.6 if moved > 0.3 or turn >= PATIENCE else 1.0
        volts = [max(b + (a - b) * share, 0.0) for a, b in zip(after, volts, strict=True)]
        if moved < SETTLED:
            break
    amps = [current_at(motor, v) for motor, v in zip(motors, volts, strict=True)]
    names = ("measured",) if path.fixed is not None else ("feed wire", "motor wire", "return", "fuse and contacts")
    return Flow(tuple(volts), tuple(amps), warm, tuple(zip(names, lost, strict=False)))
