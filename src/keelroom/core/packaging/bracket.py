"""Brackets and straps from one hole to another: kind, developed length, bend lines, holes, and whether there is room."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.outline import Point, rectangle
from keelroom.core.packaging.fixings import edge_wanted
from keelroom.core.packaging.pattern import Bend, Hole, Mark, Pattern, Slot
from keelroom.core.packaging.sheet import RIGHT, Metal, bend_allowance, bend_deduction
from keelroom.units import both, fine_both

STEEPEST = math.radians(60)
"""[rad] a joggle is not bent further than this: beyond it two right angles are easier made."""
GENTLEST = math.radians(20)


class Stock(NamedTuple):
    """What a bracket is made from. width, thickness, radius (inside, of its bends) [m]; rib: height [m] of an edge turned up along a
    flat strap, over its face; 0 none. It cannot cross a bend: a bracket that is bent has none."""

    metal: Metal
    width: float
    thickness: float
    radius: float
    rib: float = 0.0


class Ends(NamedTuple):
    """Its holes. near, far: hole diameter [m]; edge: from each hole's centre to the strip's end [m]; slot: travel [m] at the far hole."""

    near: float
    far: float
    edge: float
    slot: float = 0.0


class Made(NamedTuple):
    """A bracket as it is made. kind: flat, joggle or L; developed [m]; fault: why it cannot be made, '' where it can;
    reach [m]: from hole to hole along the flat side, what a shock bends; mass [kg] of the bracket itself."""

    kind: str
    pattern: Pattern
    developed: float
    fault: str
    reach: float
    mass: float


def flat_or_joggle(name: str, run: float, offset: float, stock: Stock, ends: Ends) -> Made:
    """A strap between two holes whose faces are parallel. run, offset [m]: along and out of the first face.

    Source: Machinery’s Handbook straight lengths, from memory; STEEPEST common practice.
    """
    if abs(offset) < 1e-6:
        return _made(("flat", name), run + 2 * ends.edge + ends.slot, (ends.edge, ends.edge + run), (), (stock, ends), run, "")
    middle = stock.radius + stock.thickness / 2
    # The gentlest bends leave the strap straightest; steeper ones are taken only where the run is too short for them.
    angle, slope = 0.0, 0.0
    room = 0.0
    for degrees in range(round(math.degrees(GENTLEST)), round(math.degrees(STEEPEST)) + 1, 5):
        angle = math.radians(degrees)
        slope = (abs(offset) - 2 * middle * (1 - math.cos(angle))) / math.sin(angle)
        used = 2 * middle * math.sin(angle) + slope * math.cos(angle)
        room = (run - used) / 2
        if slope >= 0 and room >= _clear_of_bend(stock, ends):
            break
    fault = ""
    if slope < 0:
        fault = (
            f"no room for its bends: an offset of {both(offset, 'length')} is less than two bends of {both(stock.radius, 'length')} radius take; "
            f"pack it with washers or take a smaller radius"
        )
        slope = 0.0
    elif room < _clear_of_bend(stock, ends):
        need = run + 2 * (_clear_of_bend(stock, ends) - room)
        fault = f"no room for its bends: the holes are {both(run, 'length')} apart along the face, two bends clear of both holes need {both(need, 'length')}"
    arc = bend_allowance(stock.metal, stock.thickness, stock.radius, angle)
    first = ends.edge + max(room, 0.0)
    between = first + arc + max(slope, 0.0)
    length = between + arc + max(room, 0.0) + ends.edge + ends.slot
    degrees_up = math.degrees(angle) * (1 if offset > 0 else -1)
    bends = ((first + arc / 2, degrees_up), (between + arc / 2, -degrees_up))
    holes = (ends.edge, length - ends.edge - ends.slot)
    return _made(("joggle", name), length, holes, bends, (stock, ends), math.hypot(run, offset), fault)


def angle_bracket(name: str, legs: tuple[float, float], stock: Stock, ends: Ends) -> Made:
    """An L between two holes whose faces stand square to each other. legs [m]: from each hole to the outside corner.

    Source: Machinery’s Handbook straight lengths, from memory.
    """
    outside = [leg + ends.edge for leg in legs]
    length = sum(outside) + ends.slot - bend_deduction(stock.metal, stock.thickness, stock.radius)
    setback = stock.radius + stock.thickness
    arc = bend_allowance(stock.metal, stock.thickness, stock.radius)
    bend = outside[0] - setback + arc / 2
    fault = ""
    for leg, which in zip(legs, ("first", "second"), strict=True):
        need = setback + _clear_of_bend(stock, ends)
        if leg < need - 1e-9:
            fault = f"no room for its bend: the {which} hole is {both(leg, 'length')} from the corner, the bend and the hole's edge need {both(need, 'length')}"
    holes = (ends.edge, length - ends.edge - ends.slot)
    return _made(("L", name), length, holes, ((bend, math.degrees(RIGHT)),), (stock, ends), max(legs), fault)


def _clear_of_bend(stock: Stock, ends: Ends) -> float:
    """From where a bend ends to a hole's centre, so that the hole stays round [m]: its radius and twice the thickness."""
    return max(ends.near, ends.far) / 2 + 2 * stock.thickness


def _made(
    named: tuple[str, str],
    length: float,
    holes: tuple[float, float],
    bends: tuple[tuple[float, float], ...],
    of: tuple[Stock, Ends],
    reach: float,
    fault: str,
) -> Made:
    """named: kind and name; holes: places along the strip; bends: place along it and degrees."""
    (kind, name), (stock, ends) = named, of
    middle = stock.width / 2

    def across(at: float) -> tuple[Point, Point]:
        return (at, 0.0), (at, stock.width)

    far_end = (holes[1] + ends.slot, middle)
    drilled = (Hole((holes[0], middle), ends.near, "part"),) + (() if ends.slot else (Hole((holes[1], middle), ends.far, "chassis"),))
    pattern = Pattern(
        name,
        f"{stock.metal.name}, {fine_both(stock.thickness)}",
        (rectangle(0.0, 0.0, max(length, 1e-3), stock.width),),
        holes=drilled,
        slots=(Slot((holes[1], middle), far_end, ends.far),) if ends.slot else (),
        bends=tuple(Bend(*across(at), degrees, stock.radius) for at, degrees in bends),
        marks=(Mark((length / 2, middle), name),),
    )
    if kind == "flat" and stock.rib > 0:
        pattern, fault = _ribbed(pattern, length, stock, fault)
    mass = length * pattern.bounds[3] * stock.thickness * stock.metal.density
    least = edge_wanted(max(ends.near, ends.far))[0]
    short = [what for what, have in (("end", ends.edge), ("side", middle)) if have < least - 1e-9]
    if short and not fault:
        have = min(ends.edge, middle)
        fault = f"the hole is {both(have, 'length')} from the strip's {short[0]}; a {both(max(ends.near, ends.far), 'length')} hole needs at least {both(least, 'length')}"
    return Made(kind, pattern, length, fault, reach, mass)


def _ribbed(pattern: Pattern, length: float, stock: Stock, fault: str) -> tuple[Pattern, str]:
    """The strap with one edge turned up square along its whole length, and why that cannot be bent."""
    setback = stock.radius + stock.thickness
    high = stock.rib + stock.thickness
    deduction = bend_deduction(stock.metal, stock.thickness, stock.radius)
    line = stock.width - setback + bend_allowance(stock.metal, stock.thickness, stock.radius) / 2
    if high < setback + 2 * stock.thickness and not fault:
        fault = (
            f"no room for its rib's bend: {both(stock.rib, 'length')} high, it needs {both(stock.radius + 2 * stock.thickness, 'length')}"
        )
    outline = rectangle(0.0, 0.0, max(length, 1e-3), stock.width + high - deduction)
    bend = Bend((0.0, line), (length, line), math.degrees(RIGHT), stock.radius)
    return pattern._replace(outlines=(outline, *pattern.outlines[1:]), bends=(*pattern.bends, bend)), fault
