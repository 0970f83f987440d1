"""What is advised for a circuit, as facts."""

from __future__ import annotations

from keelroom.assess.electrical.figures import CircuitFigures
from keelroom.facts import Fact, fact


def sizes_told(sizes: tuple[str, ...]) -> Fact:
    """The advised sizes of feed, wire to the motor and return."""
    if not sizes:
        return fact("sizes.none")
    feed, motor, back = sizes if len(sizes) > 1 else (sizes[0],) * 3
    return (
        fact("sizes.alike", size=feed)
        if feed == motor == back
        else fact("sizes.each", feed=feed, motor=motor, back=back)
    )


def advice(figures: CircuitFigures) -> Fact:
    """The advised wire, fuse and relays in a few words."""
    found = figures.advice
    fuse = fact("fuse_of", amps=(found.fuse, "current")) if found.fuse else fact("fuse_of.none")
    return fact("advice", sizes=sizes_told(found.sizes), fuse=fuse, switch=_switched(figures))


def _switched(figures: CircuitFigures) -> Fact:
    """What ought to switch it: relays and how many, a box, a switch, or nothing before a motor's own electronics."""
    found = figures.advice
    if found.switch == "own":
        return fact("switched_inside")
    device = found.switch if found.switch in ("switch", "controller") else "relay"
    many = len(figures.motors) if found.switch == "relays" else 1
    if not found.relay:
        return fact("switched_by.none", device=device)
    code = "switched_by.several" if many > 1 else "switched_by"
    return fact(code, many=many, amps=(found.relay, "current"), device=device)
