"""Panels, strips, covers, ducts and dams of a package as they are made: patterns, foam, trim, and what each closes."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.inputs.air_parts import Parts, air_parts
from keelroom.assess.inputs.sealing import BARE, AirWay, edge_length, foam_gap, hole_size, panel_length, ways
from keelroom.assess.outcome import Stopped, alone
from keelroom.core.kept import by_identity
from keelroom.core.packaging.fixings import BOLTS, DRUMS_UNDER, FLOPPY, HAND
from keelroom.core.packaging.foam import LEAST, MOST, STRIP_WIDE, free_for, push, squeeze
from keelroom.core.packaging.panel import Beading, Drilled, Lip, Notch, PanelMade, Shape, cover, panel, swings
from keelroom.core.packaging.pattern import Pattern
from keelroom.core.packaging.sheet import METALS, edge_sag
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import EDGES, Panel
from keelroom.document.schema.survey import AirHole
from keelroom.facts import Fact, Fault, fact
from keelroom.units import INCH

COVER_LAP = INCH
"""[m] a cover laps its hole all round (common practice)."""
PIN_HOLDS = 40.0
"""[N] one push pin holds against foam (common practice)."""
SOLD = ("1/8 in", "1/4 in", "3/8 in", "1/2 in", "3/4 in", "1 in", "1 1/2 in", "2 in", "3 in")
"""free thicknesses foam strip is sold in (common practice)."""
KIND_WORDS = {"panel": "Panel", "strip": "Seal strip", "cover": "Cover plate", "duct": "Duct piece", "dam": "Air dam"}
HOURS = {"panel": 1.5, "strip": 0.25, "cover": 0.5, "duct": 1.5, "dam": 1.0}
"""[h] to make and fit one (common practice; a bought bolt-in panel takes under one)."""
WORK_NOTES = (
    "Mark the hood stop’s height before it comes off, and put it back to the mark.",
    "Tape the paint beside every edge the panel passes.",
    "Plastic washers under the panel’s bolts; it rattles on bare metal.",
    "Start all bolts and pins before any is tightened, then tighten in steps, so that nothing warps.",
    "Sheet edges cut: deburr, then edge trim; it adds 1/8 in, leave room for it.",
)


class PanelPlan(NamedTuple):
    """One panel worked out. made: None for a strip; way: what it closes, None where it closes nothing; gap, free [m]
    of its foam, share squeezed; foam_length [m]; frequency [Hz] its field swings at, 0 without sheet; faults: the
    field each is at, and its sentence; notes."""

    panel: Panel
    name: str
    made: PanelMade | None
    way: AirWay | None
    length: float
    gap: float
    share: float
    foam_length: float
    frequency: float
    faults: tuple[Fault, ...]
    notes: tuple[Fact, ...]

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        """Its pieces, each with what is wrong with it."""
        wrong = tuple(one.fact for one in self.faults)
        return tuple(pattern._replace(faults=wrong) for pattern in self.made.patterns) if self.made else ()


def foam_for(gap: float) -> Quantity:
    """Foam of a thickness that is sold and is squeezed enough in a gap [m]; the thickest where none is."""
    made = [quantity(text, "length", "catalogue") for text in SOLD]
    return next((free for free in made if free.si >= free_for(gap) - 1e-6), made[-1])


def panel_name(panel: Panel) -> str:
    """What it is called."""
    return panel.name or (
        f"{KIND_WORDS[panel.kind]}, {panel.closes}" if panel.closes in EDGES else KIND_WORDS[panel.kind]
    )


def panel_plans(build: Build, package: Package) -> tuple[PanelPlan, ...]:
    """Every panel of the package."""
    return _panel_plans(air_parts(package), build.survey.air_holes)


@by_identity(16)
def _panel_plans(package: Parts, holes: tuple[AirHole, ...]) -> tuple[PanelPlan, ...]:
    found = {way.key: way for way in ways(package, holes)}
    return tuple(_planned(package, holes, one, found.get(one.closes)) for one in package.panels)


def _planned(package: Parts, holes: tuple[AirHole, ...], own: Panel, way: AirWay | None) -> PanelPlan:
    """One panel; where it cannot be worked out, that is what is wrong with it."""

    def instead(stop: Stopped) -> PanelPlan:
        return PanelPlan(
            own,
            panel_name(own),
            None,
            way,
            0.0,
            0.0,
            0.0,
            0.0,
            0.0,
            (Fault("kind", fact("stopped", sentence=stop.sentence)),),
            (),
        )

    return alone(f"The panel “{panel_name(own)}”", (), lambda: _plan(package, holes, own, way), instead)


def _plan(package: Parts, holes: tuple[AirHole, ...], own: Panel, way: AirWay | None) -> PanelPlan:
    length, gap = panel_length(package, holes, own), foam_gap(package, own)
    hole = next((item for item in holes if item.id == own.closes), None)
    size = (hole_size(hole), hole.round) if hole is not None else ((0.0, 0.0), False)
    made = _drawn(own, length, size) if own.kind != "strip" else None
    faults = list(made.wrong) if made else []
    notes = list(made.notes) if made else []
    faults += _closes(own, way, (length, _together(package, holes, own))) or _twice(package, holes, own)
    share = squeeze(own.foam.si, gap) if own.foam else 0.0
    if own.kind != "dam":
        wrong, said = _foam(own, gap, share)
        faults += wrong
        notes += said
    foam_length = _foam_length(own, length, size) if own.foam and own.kind != "dam" else 0.0
    frequency = 0.0
    if own.kind in ("panel", "duct", "dam") and made is not None:
        frequency = swings(_shape(own, length), METALS[own.metal])
        notes += _stiff(own, length, frequency)
        notes += _held(own, share, foam_length)
    return PanelPlan(
        own, panel_name(own), made, way, length, gap, share, foam_length, frequency, tuple(faults), tuple(notes)
    )


def _drawn(own: Panel, length: float, hole: tuple[tuple[float, float], bool]) -> PanelMade:
    metal, name = METALS[own.metal], panel_name(own)
    if own.kind == "cover":
        return cover(name, hole[0], hole[1], COVER_LAP, (metal, own.thickness.si, _bolts(own)))
    return panel(name, _shape(own, length), metal)


def _bolts(own: Panel) -> Drilled:
    return Drilled(int(own.bolts.si), own.hole.si, "bolt")


def _shape(own: Panel, length: float) -> Shape:
    """A panel as wanted."""
    far = own.far_length.si if own.kind == "duct" and own.far_length else length
    return Shape(
        length,
        far,
        own.depth.si,
        Lip(own.front_lip.si, math.degrees(own.front_bend.si)),
        Lip(own.back_lip.si, math.degrees(own.back_bend.si)),
        own.thickness.si,
        own.radius.si,
        Notch(own.notch_width.si, own.notch_depth.si, own.notch_at.si),
        Beading(own.bead.si, own.bead_end.si, own.beads == "across"),
        Drilled(int(own.pins.si), own.pin_hole.si, "pin"),
        _bolts(own),
    )


def _closes(own: Panel, way: AirWay | None, long: tuple[float, float]) -> list[Fault]:
    """Whether there is anything for it to close, and whether it does. long: its length, and with all others at the
    same place [m]"""
    length, together = long
    if own.kind == "dam":
        return []
    if way is None:
        return [Fault("closes", fact("closes_nothing"))]
    if own.kind == "cover" and way.key in EDGES:
        return [Fault("closes", fact("cover_on_edge"))]
    if own.kind != "cover" and way.key not in EDGES:
        return [Fault("closes", fact("hole_takes_cover"))]
    if way.area <= 0:
        return [Fault("closes", fact("no_gap.unmeasured" if way.assumed else "no_gap", name=way.name))]
    found = []
    if own.kind in ("panel", "strip", "duct") and together < way.length - 5e-3:
        found.append(
            Fault(
                "length",
                fact(
                    "leaves_open",
                    open=(way.length - together, "length"),
                    long=(length, "length"),
                    gap=(way.length, "length"),
                ),
            )
        )
    return found


def _together(package: Parts, holes: tuple[AirHole, ...], own: Panel) -> float:
    """Length [m] of all panels at the place of one, as far as they are fitted like it."""
    return sum(panel_length(package, holes, one) for one in package.panels if _alike(one, own))


def _alike(one: Panel, own: Panel) -> bool:
    """Whether two panels share a place, and are both fitted or both planned."""
    return one.closes == own.closes and one.kind != "dam" and one.fitted == own.fitted


def _twice(package: Parts, holes: tuple[AirHole, ...], own: Panel) -> list[Fault]:
    """Whether another panel closes the same way already, all of it."""
    if own.kind == "dam":
        return []
    ahead = [one for one in package.panels[: package.panels.index(own)] if _alike(one, own)]
    covered = sum(panel_length(package, holes, one) for one in ahead)
    whole = edge_length(package, own.closes) if own.closes in EDGES else 0.0
    if ahead and covered >= whole - 5e-3:
        return [Fault("closes", fact("closed_already", other=panel_name(ahead[0])))]
    return []


def _foam(own: Panel, gap: float, share: float) -> tuple[list[Fault], list[Fact]]:
    if own.foam is None:
        return [], [fact("no_foam", open=(BARE, "length"))] if own.kind != "strip" else []
    if share <= 0:
        return [
            Fault(
                "foam",
                fact("foam_thin", foam=(own.foam.si, "length"), gap=(gap, "length"), thick=(free_for(gap), "length")),
            )
        ], []
    if share < LEAST:
        return [], [fact("foam_loose", share=(share, "share"), thick=(free_for(gap), "length"))]
    if share > MOST:
        return [], [fact("foam_hard", share=(share, "share"), thick=(free_for(gap), "length"))]
    return [], [fact("foam_seals", foam=(own.foam.si, "length"), share=(share, "share"), gap=(gap, "length"))]


def _foam_length(own: Panel, length: float, hole: tuple[tuple[float, float], bool]) -> float:
    if own.kind != "cover":
        return length
    (wide, high), is_round = hole
    return math.pi * wide if is_round else 2 * (wide + high)


def _stiff(own: Panel, length: float, frequency: float) -> list[Fact]:
    """Whether it drums or flops; beads and folded edges help."""
    metal = METALS[own.metal]
    notes: list[Fact] = []
    if frequency < DRUMS_UNDER:
        notes.append(
            fact(
                "drums.beaded" if own.bead.si > 0 and own.beads == "across" else "drums",
                frequency=(frequency, "number"),
                under=(DRUMS_UNDER, "number"),
                bead=(INCH / 4, "length"),
            )
        )
    sag = edge_sag(metal, own.thickness.si, length, min(own.front_lip.si, own.back_lip.si), HAND)
    if sag > FLOPPY:
        notes.append(fact("floppy_panel", sag=(sag, "length")))
    return notes


def _held(own: Panel, share: float, foam_length: float) -> list[Fact]:
    """Whether pins and bolts hold it against its foam."""
    if not foam_length or share <= 0:
        return []
    force = push(own.firmness, share) * STRIP_WIDE * foam_length
    held = PIN_HOLDS * own.pins.si
    notes = [fact("foam_pushes", force=(force, "force"))]
    if own.bolts.si < 1 and force > held:
        need = math.ceil(force / PIN_HOLDS)
        notes.append(
            fact("pins_hold", pins=(own.pins.si, "count"), held=(held, "force"), need=need, bolt=BOLTS[own.bolt].name)
        )
    return notes
