"""What is advised for a circuit, in words."""

from __future__ import annotations

from keelroom.assess.electrical.figures import CircuitFigures


def sizes_words(sizes: tuple[str, ...]) -> str:
    """The advised sizes of feed, wire to the motor and return."""
    if not sizes:
        return "no wire that keeps the drop goes into its terminals"
    if len(set(sizes)) == 1:
        return sizes[0]
    return ", ".join(f"{size} {name}" for size, name in zip(sizes, ("feed", "to the motor", "return"), strict=True))


def advice_words(figures: CircuitFigures) -> str:
    """The advised wire, fuse and relays in a few words."""
    found = figures.advice
    return ", ".join((sizes_words(found.sizes), f"{found.fuse:g} A fuse" if found.fuse else "no fuse fits", _switch_words(figures)))


def _switch_words(figures: CircuitFigures) -> str:
    """What ought to switch it: relays and how many, a box, a switch, or nothing before a motor's own electronics."""
    found = figures.advice
    if found.switch == "own":
        return "no relay: its own electronics switch it"
    what = found.switch if found.switch in ("switch", "controller") else "relay"
    many = len(figures.motors) if found.switch == "relays" else 1
    return f"{f'{many} × ' if many > 1 else ''}{found.relay:g} A {what}" if found.relay else f"no single {what} is large enough"
