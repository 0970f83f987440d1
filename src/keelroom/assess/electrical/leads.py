"""The wires of the circuits as a graph: every wire runs from one named point to another, and points are what joints
are told from."""

from __future__ import annotations

from collections import Counter
from typing import NamedTuple

from keelroom.assess.electrical.figures import CircuitFigures, Electrics
from keelroom.core.electrical.wire import CABLES
from keelroom.document.schema.electrical import UNRELAYED, Circuit, Source
from keelroom.units import INCH

MOTOR_COLOURS = ("orange", "yellow", "brown", "pink")
TAIL = 6 * INCH
"""[m] from a splice to one of the parts that share it; counted within the run it branches from (common practice)."""
IN, OUT = 30, 87
"""a relay's contact, by the numbers moulded into it (DIN 72552)"""
COIL_PLUS, COIL_MINUS = 86, 85
POSTS = ("ground ", "open: ")
"""how points begin that take any number of ring terminals and need no joint"""


class HarnessWire(NamedTuple):
    """One wire: number, points it runs from and to, size as written, cable, colour, length [m], what it carries [A].

    circuit : whose it is ('' control);  role, place : what it does there, and for which motor, contact or source,
              from 1
    """

    number: int
    start: str
    end: str
    size: str
    cable: str
    colour: str
    length: float
    current: float
    circuit: str
    role: str
    place: int = 1


def titles(found: Electrics) -> dict[str, str]:
    """What each circuit is called, by id: two of one name are told apart by their ids."""
    names = {one.circuit.id: one.circuit.name or one.circuit.id for one in found.circuits}
    count = Counter(names.values())
    return {ident: name if count[name] == 1 else f"{name} ({ident})" for ident, name in names.items()}


def numbered(base: int, first: int, place: int) -> int:
    """The number of the wire at a place: tens of its circuit's hundred, more digits where there are ten or more of a
    kind."""
    return base + first + place if place < 10 else (base + first) * 1000 + place


def contacts(circuit: Circuit, motors: int) -> int:
    """How many relays (or what stands for them) a circuit has side by side."""
    return {"relays": max(motors, 1), "parallel": 2}.get(circuit.switch, 1)


def switches(circuit: Circuit, title: str, motors: int) -> list[str]:
    """What switches a circuit, by name; [] where nothing does."""
    if circuit.switch in UNRELAYED:
        return []
    what = f"{title}: {circuit.switch if circuit.switch in ('switch', 'controller') else 'relay'}"
    count = contacts(circuit, motors)
    return [f"{what} {k}" if count > 1 else what for k in range(1, count + 1)]


class _Run:
    """Wires of one circuit being laid."""

    def __init__(self, figures: CircuitFigures, title: str, base: int) -> None:
        self.figures, self.circuit, self.title, self.base = figures, figures.circuit, title, base
        self.parts = switches(self.circuit, title, len(figures.motors))
        self.wires: list[HarnessWire] = []

    def lay(
        self,
        number: tuple[int, int],
        role: str,
        ends: tuple[str, str],
        run: str,
        colour: str,
        length: float,
        current: float,
    ) -> None:
        """One wire: its first number and place, what it does, its points, the run whose wire it is cut from."""
        wire = getattr(self.circuit, run)
        first, place = number
        made = (
            numbered(self.base, first, place),
            *ends,
            wire.size.as_typed,
            CABLES[wire.cable].name,
            wire.colour or colour,
            length,
            current,
        )
        self.wires.append(HarnessWire(*made, self.circuit.id, role, max(place, 1)))

    def pin(self, part: str, side: int) -> str:
        """The point a heavy wire is crimped to."""
        return f"{part}, {side}" if ": relay" in part else f"{part}, {'in' if side == IN else 'out'}"

    def feed(self, sources: tuple[Source, ...]) -> None:
        """Source, fuse, and what switches."""
        circuit, total = self.circuit, self.figures.continuous
        tied = [source.name or source.id for source in sources if source.id in circuit.sources] or ["open: no source"]
        before = min(circuit.fuse_at.si, circuit.feed.length.si) if circuit.fuse or len(tied) > 1 else 0.0
        start = tied[0]
        if circuit.fuse or len(tied) > 1:
            fuse = f"{self.title}: fuse {circuit.fuse.si:g} A" if circuit.fuse else f"{self.title}: splice of the feeds"
            enters, start = (f"{fuse}, in", f"{fuse}, out") if circuit.fuse else (fuse, fuse)
            for k, name in enumerate(tied, 1):
                self.lay((1, 0) if k == 1 else (50, k), "source", (name, enters), "feed", "red", before, total)
        rest = circuit.feed.length.si - before
        apart, behind = len(self.parts) > 1, self._tails_behind
        tail = min(TAIL, rest / (1 + apart + behind))
        entry = (
            f"{self.title}: splice to the relays"
            if apart
            else self.pin(self.parts[0], IN)
            if self.parts
            else self._split
        )
        self.lay((2, 0), "feed", (start, entry), "feed", "red", rest - tail * (apart + behind), total)
        each = total / max(len(self.parts), 1)
        for k, part in enumerate(self.parts, 1):
            # A thick feed does not go into a relay's socket: its tails are of the wire to the motor, which the fuse
            # protects as well.
            run = "branch" if apart and circuit.feed.size.si > circuit.branch.size.si else "feed"
            if apart:
                self.lay((30, k), "feed_tail", (entry, self.pin(part, IN)), run, "red", tail, each)
            if behind:
                self.lay((7, k), "out_tail", (self.pin(part, OUT), self._split), run, "red", tail, each)

    @property
    def _split(self) -> str:
        return f"{self.title}: splice to the motors"

    @property
    def _tails_behind(self) -> bool:
        """Whether contacts and motors meet in a splice: not where each contact has one motor."""
        many = len(self.figures.motors)
        return (
            bool(self.parts)
            and (len(self.parts) > 1 or many > 1)
            and not (self.circuit.switch == "relays" and len(self.parts) == many)
        )

    def to_motors(self) -> None:
        """From contact or splice to each motor."""
        for k, motored in enumerate(self.figures.motors, 1):
            begin = (
                self._split
                if self._tails_behind or not self.parts
                else self.pin(self.parts[min(k, len(self.parts)) - 1], OUT)
            )
            ends = begin, f"{motored.name} +"
            self.lay(
                (10, k),
                "motor",
                ends,
                "branch",
                MOTOR_COLOURS[(k - 1) % 4],
                self.circuit.branch.length.si,
                self.figures.each,
            )

    def back(self) -> None:
        """From each motor to the ground; where they share it, by a splice of their tails."""
        circuit, motors = self.circuit, self.figures.motors
        if circuit.ground == "none":
            return
        points = 1 if circuit.ground == "battery" else int(circuit.grounds.si)
        ground = "ground " + ("post of the battery" if circuit.ground == "battery" else circuit.ground)
        bolts = [f"{ground}, point {k}" for k in range(1, points + 1)] if points > 1 else [ground]
        length, each = circuit.back.length.si, self.figures.each
        if circuit.shared_ground and len(motors) > 1:
            splice, tail = f"{self.title}: ground splice", min(TAIL, length / 2)
            for k, motored in enumerate(motors, 1):
                self.lay((20, k), "back_tail", (f"{motored.name} −", splice), "back", "black", tail, each)
            self.lay((20, 0), "back", (splice, bolts[0]), "back", "black", length - tail, self.figures.continuous)
            used = 1
        else:
            for k, motored in enumerate(motors, 1):
                self.lay((20, k), "back", (f"{motored.name} −", bolts[(k - 1) % points]), "back", "black", length, each)
            used = min(max(len(motors), 1), points)
        for k in range(used, points):
            self.lay((40, k), "link", (bolts[0], bolts[k]), "back", "black", TAIL, self.figures.continuous)


def circuit_leads(figures: CircuitFigures, sources: tuple[Source, ...], title: str, base: int) -> list[HarnessWire]:
    """Every heavy wire of one circuit; numbers begin with its own hundred, so that nothing moves when another
    changes."""
    run = _Run(figures, title, base)
    run.feed(sources)
    run.to_motors()
    run.back()
    return run.wires
