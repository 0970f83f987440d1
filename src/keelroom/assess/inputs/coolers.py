"""From the build's coolers to core terms: what each does with its fluid, what air it meets where it stands."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np

from keelroom.assess.inputs.air_parts import Parts
from keelroom.core.air.fan import PUSHED, FanCurve, Rating, generic_curve, no_fan
from keelroom.core.air.own_air import LEAST_LOSS, OwnPath, own_flow
from keelroom.core.arrays import Floats, stack
from keelroom.core.coolers.circuits import NEVER
from keelroom.core.coolers.exchange import Coolers
from keelroom.core.electrical.motor import motor_speed
from keelroom.core.fluids.air import STANDARD_DENSITY
from keelroom.core.kept import by_value
from keelroom.document.schema.brief import Engine, Vehicle
from keelroom.document.schema.coolers import Cooler, CoolerKind
from keelroom.errors import InputError

FLUID_OF: dict[CoolerKind, str] = {
    "condenser": "refrigerant",
    "gearbox_cooler": "gearbox",
    "oil_cooler": "oil",
    "steering_cooler": "steering",
    "charge_cooler": "charge",
    "water_charge_cooler": "charge",
}
FLUIDS = ("gearbox", "oil", "charge", "refrigerant", "steering")
AIR_SHARE = {"tube_fin": 0.75, "plate_fin": 0.65, "stacked_plate": 0.6}
"""Share of a cooler's resistance on its air side, by how it is made (common practice: oil is the other half, and
worse when cold)."""
CONDENSING_AIR_SHARE, CHARGE_AIR_SHARE = 0.85, 0.6
"""The same where the refrigerant condenses, and where air is on both sides (common practice)."""
TANK = 120.0
"""[W/K] a gearbox cooler in the core's tank hands over (common practice: 6 to 8 kW at 60 K)."""
RATED_OIL, OIL_LEAD = 0.11, 18.0
"""Heat into the oil over rated power, and the kelvin the oil then runs over the coolant without a cooler (common
practice: 10 to 20)."""
DERATE, HUB = 0.95, 0.45
"""Credible share of a small fan's rating, and its hub over its diameter (common practice)."""
REVERSED = 0.55
"""Flow a fan keeps that runs a one-way blade backwards (common practice)."""


class CoolerSpot(NamedTuple):
    """What standing somewhere means for a cooler's air. pressed, drawn: pressure coefficients where its air comes in
    and goes out;

    doubt of the difference; from_bay, into_bay: whether it breathes the bay's air and gives its own there;  words:
    what the place is
    """

    pressed: float
    drawn: float
    doubt: float
    from_bay: bool
    into_bay: bool
    words: str


SPOTS: dict[str, CoolerSpot] = {
    "ahead": CoolerSpot(0.0, 0.0, 0.0, False, False, "ahead of the core"),
    "beside": CoolerSpot(0.7, 0.0, 0.3, False, True, "beside the core"),
    "behind": CoolerSpot(0.0, 0.0, 0.0, False, True, "behind the core"),
    "bay": CoolerSpot(0.0, 0.0, 0.05, True, True, "in the bay"),
    "bumper": CoolerSpot(0.6, -0.05, 0.3, False, False, "behind a slot of bumper or cross member"),
    "floor": CoolerSpot(0.05, -0.1, 0.15, False, False, "under the floor"),
    "wheel_well": CoolerSpot(0.1, -0.1, 0.2, False, False, "in a wheel well"),
    "trunk": CoolerSpot(0.0, -0.05, 0.1, False, False, "on the trunk floor"),
}
"""Pressure of the road's air by place (from memory, common practice: each with its doubt)."""


def fitted(package: Parts, ac_fitted: bool) -> tuple[Cooler, ...]:
    """What is really there, those ahead of the core first: a condenser only where there is an A/C."""
    there = [cooler for cooler in package.coolers if ac_fitted or cooler.kind != "condenser"]
    return tuple(sorted(there, key=lambda cooler: cooler.stands != "ahead"))


def ahead_of_core(package: Parts, ac_fitted: bool) -> tuple[Cooler, ...]:
    """What stands ahead of the core, screens too."""
    return tuple(cooler for cooler in fitted(package, ac_fitted) if cooler.stands == "ahead")


def size_of(cooler: Cooler, face: tuple[float, float]) -> tuple[float, float]:
    """Width and height [m] of its face; ahead of the core without sizes of its own it reaches to the far edges."""
    wide = cooler.width.si if cooler.width else max(face[0] - cooler.left.si, 0.0) if cooler.stands == "ahead" else 0.28
    high = (
        cooler.height.si
        if cooler.height
        else max(face[1] - cooler.bottom.si, 0.0)
        if cooler.stands == "ahead"
        else 0.15
    )
    return wide, high


def out_area(cooler: Cooler, size: tuple[float, float]) -> float:
    """[m2] of the way its air goes out behind: the slot its spacers leave all round, at most its face."""
    return float(min(2 * (size[0] + size[1]) * cooler.spacer.si, size[0] * size[1]))


def coolers_of(
    car: tuple[Engine, Vehicle, Any, Any],
    there: tuple[Cooler, ...],
    face: tuple[float, float],
    classes: tuple[Floats, Floats],
) -> Coolers:
    """Coolers in core terms. classes: areas (K,) and covered (K, C) of those ahead, which come first."""
    areas, covered = classes
    count = max(len(there), 1)
    table = {
        name: np.zeros(count)
        for name in (*FLUIDS, "water", "ahead", "after_tank", "into_bay", "from_bay", "from_core", "area")
    }
    table |= {"conductance": np.ones(count), "air_share": np.ones(count), "opens": np.full(count, NEVER)}
    under = np.zeros((len(areas), count))
    under[:, : covered.shape[1]] = covered[:, :count]
    for k, cooler in enumerate(there):
        fluid, size, spot = FLUID_OF.get(cooler.kind, ""), size_of(cooler, face), SPOTS[cooler.stands]
        if fluid:
            table[fluid][k] = 1.0
        ahead = cooler.stands == "ahead"
        table["water"][k] = cooler.kind == "water_charge_cooler"
        table["conductance"][k] = cooler.conductance.si
        table["air_share"][k] = (
            CONDENSING_AIR_SHARE
            if fluid == "refrigerant"
            else CHARGE_AIR_SHARE
            if fluid == "charge"
            else AIR_SHARE[cooler.make]
        )
        table["ahead"][k], table["after_tank"][k] = ahead, cooler.after_tank
        table["opens"][k] = cooler.opens.si if cooler.opens else NEVER
        table["into_bay"][k], table["from_bay"][k] = spot.into_bay, spot.from_bay
        table["from_core"][k] = (
            min(size[0] * size[1] / max(face[0] * face[1], 1e-9), 1.0) if cooler.stands == "behind" else 0.0
        )
        table["area"][k] = float(areas @ under[:, k]) if ahead else size[0] * size[1]
    engine, vehicle, *_ = car
    automatic = vehicle.gearbox == "automatic"
    power = engine.power.si if engine.power else 1.0
    return Coolers(
        **table,
        covered=under,
        upstream=_upstream(there, areas, under),
        tank=np.array(TANK if automatic and vehicle.in_tank_cooler else 0.0),
        oil_to_block=np.array(RATED_OIL * power / OIL_LEAD),
    )


ORDER: tuple[CoolerKind, ...] = (
    "screen",
    "charge_cooler",
    "water_charge_cooler",
    "oil_cooler",
    "steering_cooler",
    "gearbox_cooler",
    "condenser",
)
"""Front to back, where coolers stand as far ahead of the core as each other (common practice: what must be coolest
breathes first)."""


def breathes_after(cooler: Cooler, other: Cooler) -> bool:
    """Whether `other` stands further forward."""
    if cooler.stands != "ahead" or other.stands != "ahead" or cooler is other:
        return False
    here, there = ((-one.stand_off.si, ORDER.index(one.kind)) for one in (cooler, other))
    return there < here


def _upstream(there: tuple[Cooler, ...], areas: Floats, under: Floats) -> Floats:
    """Share (E, E) of each cooler's face that lies behind each other one."""
    count = under.shape[1]
    shares = np.zeros((count, count))
    for i, cooler in enumerate(there):
        whole = float(areas @ under[:, i])
        for j, other in enumerate(there):
            if whole > 1e-9 and breathes_after(cooler, other):
                shares[i, j] = float((areas * under[:, i]) @ under[:, j]) / whole
    return shares


def own_air(cooler: Cooler, face: tuple[float, float], road: tuple[float, float], volts: float) -> float:
    """Air [kg/s] through a cooler that stands away from the core. road: speed met [m/s], density [kg/m3]; volts at its
    fans.

    Raises InputError where its resistance is none, SolveError where its air does not balance.
    """
    size, spot = size_of(cooler, face), SPOTS[cooler.stands]
    area, loss = size[0] * size[1], cooler.loss.si + cooler.guard.si
    if loss < LEAST_LOSS:
        why = (
            f"its resistance with its guard’s is {loss:g}, and the law of its own air holds from {LEAST_LOSS:g} "
            "dynamic heads on"
        )
        raise InputError("own_air", why, path=("coolers", cooler.id, "loss"))
    opening = cooler.opening.si if cooler.opening else area
    speed = float(motor_speed(np.array(volts), np.array(cooler.fan_voltage.si), np.array(0.0))) if volts > 0 else 0.0
    shape = (opening, area, out_area(cooler, size), loss, spot.pressed, spot.drawn)
    # Fan, ram and losses all go with the density: the volume does not, so that the weather need not be solved for
    # again.
    return road[1] * _own_volume(shape, _fan_of(cooler), road[0], speed)


FanOf = tuple[float, Rating, float]
OWN_DEPTH = 0.25
"""Depth over diameter of a cooler's own fan (common practice)."""


def _fan_of(cooler: Cooler) -> FanOf | None:
    """How many, what is known of one, and the share of its flow it keeps; None without one whose figures are known."""
    if cooler.fans.si < 1 or cooler.fan_flow is None or cooler.fan_power is None or cooler.fan_diameter is None:
        return None
    annulus = np.pi / 4 * cooler.fan_diameter.si**2 * (1 - HUB**2)
    kept = (REVERSED if cooler.backwards else 1.0) * (PUSHED if cooler.through == "pushes" else 1.0)
    rating = Rating(cooler.fan_flow.si, cooler.fan_power.si, cooler.blade, DERATE, float(annulus), OWN_DEPTH)
    return cooler.fans.si, rating, kept


def own_curve(cooler: Cooler) -> FanCurve | None:
    """The curve of one of its own fans; None without."""
    fan = _fan_of(cooler)
    return _curve_of(fan) if fan else None


def _curve_of(fan: FanOf) -> FanCurve:
    _, rating, kept = fan
    curve = generic_curve(rating)
    pressure = kept**2 if kept < PUSHED else 1.0
    return curve._replace(flow=curve.flow * kept, pressure=curve.pressure * pressure, hole=curve.hole / pressure)


@by_value(512)
def _own_volume(shape: tuple[float, ...], fan: FanOf | None, road: float, speed: float) -> float:
    """[m3/s] through the face."""
    opening, area, out, loss, pressed, drawn = (np.array([value]) for value in shape)
    curve = stack([stack([_curve_of(fan) if fan else no_fan()])])
    path = OwnPath(opening, area, out, loss, curve, np.array([fan[0] if fan else 1.0]), pressed, drawn)
    return (
        abs(float(own_flow(path, np.array([road]), np.array([speed]), np.array([STANDARD_DENSITY]))[0]))
        / STANDARD_DENSITY
    )
