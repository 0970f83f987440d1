"""What hoses, hard lines, beads and clamps are made like: tables and rules of the trade for coolant."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.units import INCH

BEND_OVER_BORE = {"moulded": 1.0, "reinforced": 4.0, "silicone": 5.0, "convoluted": 2.0, "hard": 2.0}
"""Least radius of the middle line over the bore. Moulded: as its mandrel was bent, no more by hand; straight hose
with fabric, silicone without a wire; convoluted; thin tube bent in a die of two diameters (common practice)."""
MAKES = {
    "moulded": "moulded hose",
    "reinforced": "straight hose with fabric",
    "silicone": "silicone hose without a wire",
    "convoluted": "convoluted hose",
    "hard": "hard line, bent in a die",
}
WALL = 4.5e-3
"""[m] of a radiator hose (common practice)."""
PUSHED_ON = 1.0 * INCH
"""[m] a hose goes over its neck: past the bead, with the clamp behind it (common practice: an inch on large necks)."""
STRETCH = INCH / 16
"""[m] of bore a hose may be stretched over a larger neck; more wants a reducer (common practice)."""
SLACK = 1.0e-3
"""[m] of bore a clamp may close a hose onto a smaller neck (common practice)."""
TUBE_OF_LINE = {4: 5.6, 6: 8.7, 8: 11.2, 10: 14.2, 12: 17.5, 16: 22.2, 20: 28.6, 24: 34.9}
"""Size of a line in sixteenths and the bore [mm] its fittings leave it: size 16 goes through 7/8 in (common
practice)."""
BEADS = ((13.0, 1.0), (20.0, 1.2), (32.0, 1.5), (100.0, 2.0))
"""Neck up to [mm] across, and how far its bead stands out [mm] (SAE_J962)."""
T_BOLT_RANGE = (3e-3, 5e-3)
"""[m] under and over its middle a T-bolt clamp closes (common practice)."""
CLIP_EVERY = {"moulded": 0.6, "reinforced": 0.45, "silicone": 0.4, "convoluted": 0.4, "hard": 0.6}
"""[m] of free run between clips (common practice)."""
LIFE = {"moulded": 10.0, "reinforced": 8.0, "silicone": 15.0, "convoluted": 6.0, "hard": 40.0}
"""Years after which a hose is renewed whatever it looks like (common practice; four to five is said of a car that
earns its living)."""


def least_radius(kind: str, bore: float) -> float:
    """Least radius [m] of the middle line of a hose of a kind and bore [m]. Source: BEND_OVER_BORE, common practice."""
    return BEND_OVER_BORE[kind] * bore


def bead_height(neck: float) -> float:
    """How far [m] the bead of a neck [m across] stands out. Source: SAE_J962."""
    return next(height for across, height in BEADS if neck * 1e3 <= across or across == BEADS[-1][0]) * 1e-3


class ClampSize(NamedTuple):
    """A clamp: its size as it is bought, and the diameters [m] it closes over."""

    name: str
    least: float
    most: float


def worm_clamp(outside: float) -> ClampSize:
    """The smallest worm-drive clamp that closes over a hose pushed on its neck, `outside` [m] across, with a quarter
    of its range to go.

    Source: SAE_J1508: size n closes to (n + 8)/16 in at most; its range from memory.
    """
    for size in (4, 6, 8, 10, 12, 16, 20, 24, 28, 32, 36, 40, 44, 48, 56, 64, 72):
        most = (size + 8) / 16 * INCH
        least = most - (0.9 if size > 12 else 0.55) * INCH
        if outside <= most - 0.25 * (most - least):
            return ClampSize(f"worm-drive clamp size {size}", max(least, 6e-3), most)
    return ClampSize("worm-drive clamp made for it", outside * 0.8, outside * 1.1)


def t_bolt_clamp(outside: float) -> ClampSize:
    """The T-bolt clamp for a hose `outside` [m] across on its neck. Source: common practice: 8 mm of range in steps
    of 3 mm."""
    middle = round(outside * 1e3 / 3.0) * 3.0e-3
    return ClampSize(
        f"T-bolt clamp {(middle - T_BOLT_RANGE[0]) * 1e3:.0f}–{(middle + T_BOLT_RANGE[1]) * 1e3:.0f} mm",
        middle - T_BOLT_RANGE[0],
        middle + T_BOLT_RANGE[1],
    )


def line_bore(size: int) -> float:
    """Bore [m] of a line's fittings by its size in sixteenths. Source: common practice; size 16 is 7/8 in."""
    return TUBE_OF_LINE[size] * 1e-3


class Meets(NamedTuple):
    """How a hose and a neck meet. way: fits, stretched, clamped, sleeve or reducer; by: hose bore less neck [m]."""

    way: str
    by: float


def meets(hose: float, neck: float) -> Meets:
    """How a hose of a bore goes over a neck of a size, both [m]: as it is, stretched, closed by its clamp, or not
    without a piece between.

    A neck that is smaller by up to 3/8 in takes a sleeve cut from an offcut; a larger one wants a reducer.
    Source: STRETCH, common practice.
    """
    by = hose - neck
    if abs(by) <= 3e-4:
        return Meets("fits", by)
    if by < 0:
        return Meets("stretched" if -by <= STRETCH + 1e-5 else "reducer", by)
    if by <= SLACK:
        return Meets("clamped", by)
    return Meets("sleeve" if by <= 0.375 * INCH + 1e-5 else "reducer", by)
