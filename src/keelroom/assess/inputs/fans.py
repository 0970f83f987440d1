"""A fan by itself: how large it is over its tips, what it is believed to blow, what turns it."""

from __future__ import annotations

import math

import numpy as np

from keelroom.assess.inputs.electrical.loads import fan_rating
from keelroom.core.air.face import Disc
from keelroom.core.air.fan import TYPED_DOUBT, FanCurve, Rating, generic_curve, shutoff_doubt, typed_curve
from keelroom.document.quantity import Quantity
from keelroom.document.schema.package import Fan, Made
from keelroom.errors import InputError

MADE: dict[Made, tuple[float, float]] = {
    "original": (1.0, 0.0),
    "copy": (0.95, 0.15),
    "used": (0.93, 0.12),
    "budget": (0.85, 0.25),
}
"""Share a fan keeps of what is believed of its rating, and standard doubt that adds to its pressure, by where it comes
from (common practice, no source)."""
USUAL_DEPTH = 0.2
"""Depth over diameter of a fan nobody has measured."""
BLADES = 0.5
"""Depth of an engine's fan's blades over its own, clutch and all (common practice)."""


def swept(fan: Fan) -> float:
    """Diameter over its tips [m], as trimmed; a foot where not known yet."""
    return max(_diameter(fan) - 2 * fan.tip_trim.si, 0.3 * _diameter(fan))


def disc_of(fan: Fan) -> Disc:
    """The fan's disc on the face."""
    diameter = swept(fan)
    return Disc(
        fan.x.si, fan.y.si, diameter / 2, min(fan.hub_diameter.si if fan.hub_diameter else 0.0, 0.8 * diameter) / 2
    )


def power_of(fan: Fan) -> float:
    """The motor's rated watts, by its label, or what its shaft takes; 1 where too little of it is known, which
    `needs_of` catches."""
    if fan.motor == "engine":
        return si_or_one(fan.drag)
    label = fan_rating(fan)
    return label.power if label else si_or_one(fan.power)


def si_or_one(value: Quantity | None) -> float:
    return value.si if value is not None else 1.0


def fan_curve(fan: Fan) -> FanCurve:
    """The fan's pressure-flow curve at its rated voltage: typed points, or generic from its rating.

    Raises InputError where typed points do not fall.
    """
    if fan.curve:
        points = tuple((point.flow.si, point.pressure.si) for point in fan.curve)
        return _trimmed(fan, typed_curve(points, _as_it_came(fan)))
    return _trimmed(fan, generic_curve(rating_of(fan)))


def _trimmed(fan: Fan, curve: FanCurve) -> FanCurve:
    """A curve of blades as they came, with what was trimmed off their tips: flow by tip speed and what is swept,
    pressure by the square of tip speed, the hole as large as what is swept.

    Source: FAN_LAWS, the hub as it was.
    """
    tips, ring = trimmed_to(fan)
    if tips == 1.0:
        return curve
    return curve._replace(flow=curve.flow * tips * ring, pressure=curve.pressure * tips**2)


def annulus_of(fan: Fan) -> float:
    """[m2] between its hub and its tips, as trimmed."""
    return _annulus(fan, swept(fan))


def _annulus(fan: Fan, diameter: float) -> float:
    hub = fan.hub_diameter.si if fan.hub_diameter else 0.3
    return float(max(np.pi / 4 * (diameter**2 - min(hub, 0.8 * diameter) ** 2), 1e-4))


def _as_it_came(fan: Fan) -> float:
    """[m2] between its hub and its tips, before they were trimmed."""
    return _annulus(fan, _diameter(fan))


def _diameter(fan: Fan) -> float:
    return fan.diameter.si if fan.diameter else 0.3


def trimmed_to(fan: Fan) -> tuple[float, float]:
    """Tip diameter, and what it sweeps, over what they were before its tips were trimmed."""
    return swept(fan) / _diameter(fan), annulus_of(fan) / _as_it_came(fan)


def blade_depth(fan: Fan) -> float:
    """Depth of the blades of an engine's fan [m]."""
    return BLADES * (fan.depth.si if fan.depth else 0.1)


def shaft_of(fan: Fan) -> float:
    """What an engine's fan takes at its stated speed [W], as trimmed: flow times pressure."""
    tips, ring = trimmed_to(fan)
    return si_or_one(fan.drag) * ring * tips**3


def rating_of(fan: Fan) -> Rating:
    """What is known of a fan by its label, and by where it comes from."""
    flow, derate = (v.si if v else 1.0 for v in (fan.free_air_flow, fan.derate))
    deep = fan.depth.si / fan.diameter.si if fan.depth and fan.diameter else USUAL_DEPTH
    # Its label is of the blades as they came; what was trimmed off them is taken off its curve.
    return Rating(flow, power_of(fan), fan.blade, derate * MADE[fan.made][0], _as_it_came(fan), deep)


def credible_curve(fan: Fan) -> tuple[FanCurve, float]:
    """The fan's curve and the doubt of its shut-off pressure; points that make no curve fall back on the rating."""
    if fan.curve:
        try:
            return fan_curve(fan), TYPED_DOUBT
        except InputError:
            fan = fan.model_copy(update={"curve": ()})
    return fan_curve(fan), math.hypot(shutoff_doubt(rating_of(fan)), MADE[fan.made][1])
