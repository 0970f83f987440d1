"""The Aux coolers station without a window: fields of each cooler, tables of heat, lines and noise."""

from __future__ import annotations

from keelroom.assess.acts.coolers import KINDS_OF_COOLER
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.fit.coolers import LINED, LinePlan, kinked, line_plan, mount_notes, named, oil_through
from keelroom.assess.inputs.coolers import FLUID_OF, SPOTS, fitted
from keelroom.assess.safety import caution, cautions
from keelroom.assess.words import clause, clauses
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.gui.rows import Group, Page, Path, Row, Said, quantities
from keelroom.units import KINDS, format_si

MAKES = (("tube_fin", "Tube and fin"), ("plate_fin", "Plate and fin"), ("stacked_plate", "Stacked plate"))
PLACES = tuple((key, spot.words[0].upper() + spot.words[1:]) for key, spot in SPOTS.items())
FITTINGS = (("straight", "Straight"), ("elbow_45", "45° elbow"), ("elbow_90", "90° elbow"))
BLADES = (("straight", "Straight"), ("curved", "Curved"))
THROUGH = (("pulls", "Pulls air through it"), ("pushes", "Pushes air through it"))
GASES = (("r134a", "R-134a"), ("r1234yf", "R-1234yf"))
LIST_COLUMNS = ("Cooler", "Its fluid", "Gives", "Air in", "Air out", "Stands", "Air through it")
BOOK_COLUMNS = ("Fluid and case", "Given", "Coolers", "Coolant", "Own")
WAY_COLUMNS = ("Way", "Grade", "Idle", "Cold road", "Engine", "Into coolant")
PLACE_COLUMNS = ("Place", "Its fluid", "Engine", "Room", "Cut", "Keep off")
CAUTIONS = cautions("refrigerant", "gearbox")


def pages(build: Build, system: str, assessment: Assessment, shown: str, case: str) -> tuple[Page, ...]:
    """The list first; of the pages of fields only the shown one is worded."""
    each = _each(build) or (
        Group(
            "No cooler yet",
            (),
            note="Condenser, gearbox, oil, steering or charge cooler, screen: add one from the list.",
        ),
    )
    fluids = Page(
        "Fluids", _fluid_groups(build), said=_fluids_said(assessment, case, system) if shown == "Fluids" else ()
    )
    advice = (lambda path: advice_of(build, path, system)) if shown == "Each" else None
    return (
        Page("List", ()),
        Page("Each", each, advice=advice),
        fluids,
        *(Page(name, ()) for name in ("Books", "Gearbox", "Find", "Lines", "Noise")),
    )


def _each(build: Build) -> tuple[Group, ...]:
    return tuple(group for cooler in build.package.coolers for group in _groups(build, cooler))


def _groups(build: Build, cooler: Cooler) -> list[Group]:
    """What a cooler is and where it stands; its own air and its lines fold."""
    path: Path = ("packages", build.active, "coolers", cooler.id)
    name = named(cooler)
    away, screen = cooler.stands != "ahead", cooler.kind == "screen"
    place = ("left", "bottom", "front" if cooler.away else "stand_off")
    rows = (
        Row("text", (*path, "name"), "Name"),
        Row("choice", (*path, "kind"), "Kind", KINDS_OF_COOLER),
        *(() if screen else (Row("choice", (*path, "make"), "Made as", MAKES),)),
        Row("choice", (*path, "stands"), "Stands", PLACES),
        *quantities(path, "width", "height", "thickness", *place, "loss"),
        *(() if screen else quantities(path, "conductance")),
        *(
            (Row("flag", (*path, "after_tank"), "After the cooler in the tank"), *quantities(path, "opens"))
            if cooler.kind == "gearbox_cooler"
            else ()
        ),
        *quantities(path, "cost"),
    )
    found = [Group(name, rows, remove=path)]
    if away and not screen:
        fan = (
            *quantities(path, "fans", of=name),
            *(
                (
                    *quantities(path, "fan_diameter", "fan_flow", "fan_power", "fan_voltage", "fan_on", of=name),
                    Row("choice", (*path, "blade"), "Blade", BLADES, name),
                    Row("choice", (*path, "through"), "Its fan", THROUGH, name),
                    Row("flag", (*path, "backwards"), "One-way blade run backwards", said=name),
                )
                if cooler.fans.si >= 1
                else ()
            ),
        )
        found.append(
            Group(f"{name}: its own air", (*quantities(path, "opening", "guard", "spacer", "side_room", of=name), *fan))
        )
    if cooler.kind in LINED or (away and not screen):
        lines = (
            Row("choice", (*path, "fitting"), "Its fittings", FITTINGS, name),
            *quantities(path, "fitting_room", "line_bore", "line_length", "bends", "tightest", of=name),
        )
        found.append(Group(f"{name}: fittings and lines", lines, rare=True))
    return found


def advice_of(build: Build, path: Path, system: str) -> Said:
    """What is wrong and what to know of one cooler's mount."""
    cooler = next((c for c in build.package.coolers if c.id == path[-1]), None)
    if cooler is None or cooler.stands == "ahead":
        return ()
    faults, notes = mount_notes(build, build.package, cooler)
    return (
        *(("problem", clause(one.fact, system)) for one in faults),
        *(("faint", note) for note in clauses(notes, system)),
    )


def _fluid_groups(build: Build) -> tuple[Group, ...]:
    vehicle, accessories = ("brief", "vehicle"), ("brief", "accessories")
    automatic = build.brief.vehicle.gearbox == "automatic"
    gearbox = (
        Row("flag", (*vehicle, "in_tank_cooler"), "Gearbox fluid cooled in the radiator tank"),
        *quantities(vehicle, "converter_factor"),
        Row("flag", (*vehicle, "lockup"), "Converter locks on the road"),
        *quantities(accessories, "converter_power"),
    )
    ac = (
        (Row("choice", (*accessories, "refrigerant"), "Refrigerant", GASES),)
        if build.brief.accessories.ac_fitted
        else ()
    )
    note = "" if automatic else "A manual gearbox turns little into heat and sheds most of it by its case."
    return (
        Group("Gearbox", gearbox if automatic else (), note=note),
        *((Group("A/C", ac, note=caution("refrigerant")),) if ac else ()),
    )


def _fluids_said(assessment: Assessment, case: str, system: str) -> Said:
    found = []
    for result in assessment.cases:
        figures = result.figures
        if figures is None:
            continue
        fluids, kind = figures.fluids, KINDS["temperature"]
        words = [f"gearbox {format_si(fluids.gearbox, kind, system)}", f"oil {format_si(fluids.oil, kind, system)}"]
        if fluids.heated("charge"):
            words.append(f"intake air {format_si(fluids.charge, kind, system)}")
        if fluids.heated("refrigerant"):
            words.append(
                f"condenses at {format_si(fluids.condensing, kind, system)}, "
                f"{format_si(fluids.head_pressure, KINDS['pressure'], system)} at the gauge, vents "
                f"{format_si(fluids.vents, kind, system)}, cabin {format_si(fluids.cabin, kind, system)}"
            )
        found.append(("", f"{result.name}: " + "; ".join(words)))
    return tuple(found)


LEAST_TOLD = 0.5
"""[K] of a band under which none is told."""


def list_cells(build: Build, figures: CaseFigures | None, system: str) -> list[tuple[str, ...]]:
    """A line per cooler at the chosen duty case."""
    told = {cooler.cooler_id: cooler for cooler in figures.coolers} if figures else {}
    there = {cooler.id for cooler in fitted(build.package, build.brief.accessories.ac_fitted)}
    rows: list[tuple[str, ...]] = []
    for cooler in build.package.coolers:
        found, kind = told.get(cooler.id), KINDS["temperature"]
        if found is None:
            rows.append(
                (named(cooler), "?" if cooler.id in there else "no A/C", "", "", "", SPOTS[cooler.stands].words, "")
            )
            continue
        fluid = format_si(found.fluid, kind, system) if cooler.kind in FLUID_OF else "—"
        if found.within >= LEAST_TOLD:
            half = KINDS["temperature difference"].shown_unit(system)
            fluid = f"{fluid} ± {found.within / half.factor:.0f}"
        rows.append(
            (
                named(cooler),
                fluid,
                format_si(found.heat, KINDS["heat"], system).replace("-", "−"),
                format_si(found.air_in, kind, system),
                format_si(found.air_out, kind, system),
                SPOTS[cooler.stands].words,
                format_si(found.flow / 1.15, KINDS["airflow"], system),
            )
        )
    return rows


FLUID_WORDS = {
    "gearbox": "gearbox",
    "oil": "engine oil",
    "charge": "charge air",
    "steering": "power steering",
    "refrigerant": "A/C",
}


def book_cells(assessment: Assessment, system: str) -> list[tuple[str, ...]]:
    """A line per duty case and fluid: what it is given and where that goes; the columns after the first add up to
    it."""
    rows = []
    for result in assessment.cases:
        if result.figures is None:
            continue
        fluids = result.figures.fluids
        for fluid, given in fluids.given:
            if not fluids.heated(fluid):
                continue
            coolers, coolant, own = (
                sum(part.heat for part in fluids.left if part.fluid == fluid and part.to == to)
                for to in ("cooler", "coolant", "own")
            )
            texts = [
                format_si(value, KINDS["heat"], system).replace("-", "−") if abs(value) > 1 else "—"
                for value in (given, coolers, coolant, own)
            ]
            rows.append((f"{FLUID_WORDS[fluid]}, {result.name}", *texts))
    return rows


def plan_of(build: Build, cooler: Cooler, figures: CaseFigures | None) -> LinePlan | None:
    """Lines of a cooler that carry oil, at the chosen case; None for others."""
    if cooler.kind not in LINED or figures is None:
        return None
    return line_plan(
        build.package, cooler, oil_through(cooler, figures.rpm), max(figures.fluids.of(FLUID_OF[cooler.kind]), 20.0)
    )


def lines_said(build: Build, cooler: Cooler, figures: CaseFigures | None, system: str) -> Said:
    """Pressure, fittings, bends and fluid of one cooler's lines."""
    if cooler.kind == "condenser":
        return (
            (
                "",
                "Refrigerant lines go in sizes 6, 8 and 10. Through the core's frame or beside its tubes "
                "they want clear holes with grommets: the frame page of Fit-up drills them.",
            ),
            ("faint", caution("refrigerant")),
        )
    plan = plan_of(build, cooler, figures)
    if plan is None:
        return ()
    length, pressure = KINDS["length"], KINDS["pressure"]
    size, thread = plan.fitting
    said = [
        (
            "",
            f"{format_si(plan.lost.pressure, pressure, system)} lost at {plan.lost.speed:.1f} m/s "
            f"({'laminar' if plan.lost.laminar else 'turbulent'}, Re {plan.lost.reynolds:.0f})",
        ),
        ("", f"Size {size} fittings, {thread}; no hose bent under {format_si(plan.bend, length, system)} radius"),
        ("", f"The addition takes {plan.fluid * 1e3:.2f} L ({plan.fluid * 1e3 * 1.0567:.2f} qt) of fluid"),
    ]
    bent = kinked(cooler)
    return (*said, *((("problem", bent),) if bent else ()))
