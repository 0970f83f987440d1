"""What is made for the package: 1:1 patterns, the cut list and the sheets it is cut from."""

from __future__ import annotations

import math
from collections import Counter

from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.package_bodies import LEAST_HOSE, RIM
from keelroom.assess.fit.shroud_plan import join_patterns, pan_plan, ring_of, trim_pattern, trim_plan
from keelroom.assess.inputs.fans import disc_of
from keelroom.assess.loop.hose_plans import ROD_STOCK as ROD
from keelroom.assess.loop.hose_plans import hose_plans, rod_pattern
from keelroom.assess.placing import core_depth, face_size, over_tanks, tank_size
from keelroom.assess.words import not_to_cut
from keelroom.assess.work.hardware import Rows, edge_cut, made_panels
from keelroom.core.outline import circle, rectangle
from keelroom.core.packaging.nesting import laid_out
from keelroom.core.packaging.pattern import Bend, Mark, Pattern
from keelroom.core.packaging.sheet import METALS
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import KINDS, both, fine, format_si

CARDBOARD = "Cardboard"


def patterns(build: Build, package: Package) -> tuple[Pattern, ...]:
    """Every template of the package, mock-ups first."""
    found = [*core_mockup(package), *fan_mockups(package)]
    trimmed = trim_plan(package)
    if trimmed is not None:
        found.append(trim_pattern(package, trimmed)._replace(faults=trimmed.faults))
        found += [pattern._replace(faults=trimmed.faults) for pattern in join_patterns(package, trimmed)]
    else:
        panned = pan_plan(package)
        if panned is not None:
            found += [pattern._replace(faults=panned.faults) for pattern in panned.made.patterns]
    ring = ring_of(package)[0]
    if ring is not None:
        found.append(ring)
    for plan in made_panels(build, package):
        found += plan.patterns
    for made in bracket_plans(build, package):
        found += [pattern._replace(faults=made.faults) for pattern in (made.made.patterns if made.made else ())]
    for frame in frame_plans(package):
        found += [pattern._replace(faults=tuple(one.fact for one in frame.faults)) for pattern in frame.patterns]
    found += cut_strips(build, package)
    found += [
        pattern
        for plan in hose_plans(build, package)
        if plan.run.bore >= LEAST_HOSE and (pattern := rod_pattern(plan)) is not None
    ]
    return tuple(found)


def core_mockup(package: Package) -> tuple[Pattern, ...]:
    """The core as a folded cardboard box: face with tanks, and walls as deep as the core."""
    core, (width, height) = package.core, face_size(package)
    tank, depth = tank_size(core), core_depth(core)
    across = core.flow == "crossflow"
    wide, high = over_tanks(core)
    left, bottom = (-tank, 0.0) if across else (0.0, -tank)
    right, top = left + wide, bottom + high
    cross = (
        (left, bottom - depth),
        (right, bottom - depth),
        (right, bottom),
        (right + depth, bottom),
        (right + depth, top),
        (right, top),
        (right, top + depth),
        (left, top + depth),
        (left, top),
        (left - depth, top),
        (left - depth, bottom),
        (left, bottom),
    )
    folds = tuple(
        Bend(start, end, 90.0, 0.0)
        for start, end in (
            ((left, bottom), (right, bottom)),
            ((left, top), (right, top)),
            ((left, bottom), (left, top)),
            ((right, bottom), (right, top)),
        )
    )
    edges = (
        (((0.0, bottom), (0.0, top)), ((width, bottom), (width, top)))
        if across
        else (((left, 0.0), (right, 0.0)), ((left, height), (right, height)))
    )
    marks = (
        Mark((width / 2, height / 2), f"Core mock-up, {package.name}"),
        *(Mark(start, "", end) for start, end in edges),
    )
    return (Pattern("Core mock-up", CARDBOARD, (cross,), bends=folds, marks=marks),)


def fan_mockups(package: Package) -> tuple[Pattern, ...]:
    """Per fan: a disc for its ring, a strip that makes its depth, a disc for its motor."""
    found = []
    for number, fan in enumerate(package.fans, 1):
        disc, depth = disc_of(fan), fan.depth.si if fan.depth else 0.065
        hub = (fan.hub_diameter.si if fan.hub_diameter else 0.3 * 2 * disc.radius) / 2
        for name, radius in (("ring", disc.radius + RIM), ("motor", hub)):
            found.append(
                Pattern(
                    f"Fan {number} mock-up, {name}",
                    CARDBOARD,
                    (circle((0.0, 0.0), radius, 96),),
                    marks=(Mark((0.0, 0.0), f"Fan {number} {name}"), *_cross(radius)),
                )
            )
        found.append(
            Pattern(
                f"Fan {number} mock-up, depth",
                CARDBOARD,
                (rectangle(0, 0, 0.3, depth),),
                marks=(Mark((0.15, depth / 2), f"Fan {number}: roll to its depth {both(depth, 'length')}"),),
            )
        )
    return tuple(found)


def _cross(radius: float) -> tuple[Mark, ...]:
    return (Mark((-radius, 0.0), "", (radius, 0.0)), Mark((0.0, -radius), "", (0.0, radius)))


def cut_strips(build: Build, package: Package) -> tuple[Pattern, ...]:
    """A strip per cut, as long as the opening's side: tape it to the panel and cut along it."""
    return tuple(
        Pattern(
            f"Cut strip {number}, {cut.edge} edge",
            CARDBOARD,
            (rectangle(0, 0, edge_cut(build, package, cut.edge), cut.amount.si),),
            marks=(
                Mark(
                    (0.06, cut.amount.si / 2),
                    f"{cut.edge} edge: lay along it, cut here {both(cut.amount.si, 'length')}",
                ),
            ),
        )
        for number, cut in enumerate(package.cuts, 1)
    )


def cut_list(build: Build, package: Package, system: str) -> Rows:
    """What is cut from sheet and strip: heading first."""

    def length(si: float) -> str:
        return format_si(si, KINDS["length"], system)

    rows: Rows = [("Piece", "Pieces", "Material", "Length", "Width", "Bends", "Holes", "Can be made")]
    for pattern in patterns(build, package):
        if pattern.material in (CARDBOARD, ROD):
            continue
        _, _, wide, high = pattern.bounds
        bends = ", ".join(sorted({f"{abs(bend.degrees):.0f}°" for bend in pattern.bends}))
        holes = Counter(fine(hole.diameter, system) for hole in pattern.holes)
        slots = [
            f"slot {fine(slot.width, system)} × {fine(math.dist(slot.start, slot.end) + slot.width, system)}"
            for slot in pattern.slots
        ]
        drilled = ", ".join([f"{count} × {size}" for size, count in holes.items()] + slots)
        rows.append(
            (
                pattern.name,
                str(pattern.copies),
                pattern.material,
                length(wide),
                length(high),
                f"{len(pattern.bends)} × {bends}" if bends else "none",
                drilled or "none",
                not_to_cut(pattern, system) or "yes",
            )
        )
    return rows


def sheet_list(build: Build, package: Package, system: str) -> Rows:
    """Which sheets the pieces are cut from, heading first: pieces of one metal and thickness laid on the sheet at
    hand."""
    size = (package.shroud.sheet_width.si, package.shroud.sheet_height.si)
    by_stock: dict[str, list[Pattern]] = {}
    for pattern in patterns(build, package):
        if any(pattern.material.startswith(metal.name) for metal in METALS.values()) and "tube" not in pattern.material:
            by_stock.setdefault(pattern.material, []).extend([pattern] * pattern.copies)
    rows: Rows = [("Sheet", "Pieces", "Sheets", "Used", "Does not go into it")]
    for stock, pieces in by_stock.items():
        laid = laid_out([pattern.bounds[2:] for pattern in pieces], size)
        over = ", ".join(dict.fromkeys(pieces[k].name for k in laid.too_large)) or "none"
        sheet = " × ".join(format_si(side, KINDS["length"], system) for side in size)
        rows.append((f"{stock}, {sheet}", str(len(pieces)), str(laid.sheets), f"{laid.used:.0%}", over))
    return rows
