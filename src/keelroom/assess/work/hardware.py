"""What is bought to hold a package: bolts, nuts and washers, foam, trim, hose with its clamps."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable

from keelroom.assess.fit.coolers import named
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.panels import PanelPlan, panel_plans
from keelroom.assess.fit.shroud_plan import pan_of, trim_plan
from keelroom.assess.inputs.airside import shroud_rectangle
from keelroom.assess.loop.hose_plans import hose_plans
from keelroom.assess.placing import face_size, opening_box
from keelroom.core.loop.hoses import MAKES
from keelroom.core.packaging.fixings import BOLTS
from keelroom.core.packaging.shroud import fasteners
from keelroom.document.schema.build import Build
from keelroom.document.schema.mounts import Bracket
from keelroom.document.schema.package import Package
from keelroom.units import KINDS, format_si

Rows = list[tuple[str, ...]]
NUTS = {"rivet_nut": "Rivet nut", "lock_nut": "Nylon lock nut", "welded_stud": "Nut on its stud,"}


def made_panels(build: Build, package: Package) -> tuple[PanelPlan, ...]:
    """The panels that are fitted: what is only thought of is cut from no sheet and bought nowhere."""
    return tuple(plan for plan in panel_plans(build, package) if plan.panel.fitted)


def hardware_list(build: Build, package: Package, system: str) -> Rows:
    """What is bought to hold it: heading first."""

    def length(si: float) -> str:
        return format_si(si, KINDS["length"], system)

    counts: Counter[tuple[str, str]] = Counter()
    for bracket in package.brackets:
        _bracket_hardware(counts, bracket, length)
    plans = made_panels(build, package)
    for plan in plans:
        _panel_hardware(counts, plan)
    rows: Rows = [("Item", "Quantity", "For")]
    rows += [(item, str(count), use) for (item, use), count in counts.items()]
    for plan in plans:
        if plan.foam_length and plan.panel.foam:
            rows.append(
                (
                    f"Foam strip {length(plan.panel.foam.si)} thick, {plan.panel.firmness}",
                    length(plan.foam_length),
                    plan.name,
                )
            )
        if plan.made and plan.panel.trim:
            rows.append(("Rubber edge trim, takes 1/8 in", length(plan.made.trim), plan.name))
    place = shroud_rectangle(package)
    if place is not None and package.fans:
        trim = trim_plan(package)
        seal = trim.now.seal if trim else 2 * (place[2] + place[3])
        rows.append(("Foam strip or split hose", length(seal), "shroud to core, all round"))
        made = pan_of(package)
        sides = 2 * sum(
            fasteners(length)
            for length, plain in zip(place[2:], reversed(made.plain) if made else (), strict=False)
            if not plain
        )
        if sides or trim:
            rows.append(
                (
                    "Rivets or screws, shroud flange",
                    str(sides or 2 * (fasteners(place[2]) + fasteners(place[3]))),
                    "shroud",
                )
            )
    trimmed = sum(edge_cut(build, package, cut.edge) for cut in package.cuts)
    if trimmed:
        rows.append(("Rubber edge trim, takes 1/8 in", length(trimmed), "cut panel edges"))
    rows += [
        ("Rubber grommets for the lines", "2", f"{frame.name} frame") for frame in frame_plans(package) if frame.pieces
    ]
    for cooler in package.coolers:
        if cooler.away:
            rows.append((f"Spacers, {length(cooler.spacer.si)}", "4", named(cooler)))
    return [*rows, *_hose_hardware(build, package, length)]


def _hose_hardware(build: Build, package: Package, length: Callable[[float], str]) -> Rows:
    """Hose by kind and bore, its clamps, clips and pieces."""
    rows: Rows = []
    clamps: Counter[str] = Counter()
    for plan in hose_plans(build, package):
        run = plan.run
        rows.append(
            (
                f"{MAKES[run.hose.kind].capitalize()}, {length(run.bore)} bore",
                length(plan.cut) if plan.cut else "not measured",
                run.name,
            )
        )
        if run.hose.piece != "none":
            rows.append((f"{run.hose.piece.capitalize()} to its neck", "1", run.name))
        clamps.update(clamp.name for clamp in plan.clamps)
        if run.hose.piece == "reducer":
            clamps[plan.clamps[0].name] += 2
        if plan.clips:
            rows.append(("Rubber-lined clip", str(plan.clips), run.name))
    return rows + [(name[:1].upper() + name[1:], str(count), "hoses") for name, count in clamps.items()]


def _bracket_hardware(counts: Counter[tuple[str, str]], bracket: Bracket, length: Callable[[float], str]) -> None:
    bolt, use = BOLTS[bracket.bolt], "brackets"
    near = int(bracket.near_holes.si) + (len(bracket.starts) if bracket.form == "plate" else 0)
    far = 1 + (len(bracket.ends) if bracket.form == "plate" else 0)
    for nut, count in ((bracket.nut, near), (bracket.far_nut, far)):
        counts[
            (f"Bolt {bolt.name}, button head, plated" if nut != "welded_stud" else f"Weld stud {bolt.name}", use)
        ] += count
        counts[(f"{NUTS[nut]} {bolt.name}", use)] += count
        counts[(f"Wide washer {bolt.name}", use)] += 2 * count if nut != "welded_stud" else count
    if bracket.spacer.si > 0:
        counts[(f"Spacer {length(bracket.spacer.si)}, for {bolt.name}", use)] += near
    if bracket.isolated:
        counts[(f"Rubber grommet or pad, {length(bracket.pad.si)} free", use)] += near


def _panel_hardware(counts: Counter[tuple[str, str]], plan: PanelPlan) -> None:
    own = plan.panel
    if plan.made is None:
        return
    bolt = BOLTS[own.bolt]
    if own.kind != "cover" and own.pins.si >= 1:
        counts[("Push pin", plan.name)] += int(own.pins.si)
    if own.bolts.si >= 1:
        counts[(f"Bolt {bolt.name}, button head, plated", plan.name)] += int(own.bolts.si)
        counts[(f"Plastic washer {bolt.name}, under the panel", plan.name)] += int(own.bolts.si)


def edge_cut(build: Build, package: Package, edge: str) -> float:
    """How long a side of the opening is [m]."""
    _, _, wide, high = opening_box(build.survey.opening, face_size(package))
    return high if edge in ("left", "right") else wide
