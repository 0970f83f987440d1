"""Edits that close the ways round the core: a panel or a strip at each edge that is open."""

from __future__ import annotations

from keelroom.assess.inputs.sealing import PANEL_GAP, ways
from keelroom.core.findings import Fix
from keelroom.core.packaging.foam import free_for
from keelroom.document.edits import Change, fresh_id
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import EDGES, Edge, Panel, PanelKind
from keelroom.document.schema.survey import AirHole
from keelroom.units import INCH

SOLD = ("1/8 in", "1/4 in", "3/8 in", "1/2 in", "3/4 in", "1 in", "1 1/2 in", "2 in", "3 in")
"""free thicknesses foam strip is sold in (common practice)."""
STRIP_MOST = 1.25 * INCH
"""[m] of gap over which foam alone folds over, and sheet is needed (common practice)."""
NAMES: dict[Edge, str] = {"top": "Top panel", "bottom": "Bottom panel", "left": "Left side", "right": "Right side"}


def edges_of(fix: Fix) -> tuple[Edge, ...]:
    """The edges a fix closes."""
    return tuple(edge for edge in EDGES if edge in dict(fix.parameters)["edges"].split())


def foam_for(gap: float) -> Quantity:
    """Foam of a thickness that is sold and is squeezed enough in a gap [m]; the thickest where none is."""
    made = [quantity(text, "length", "catalogue") for text in SOLD]
    return next((free for free in made if free.si >= free_for(gap) - 1e-6), made[-1])


def closing(package: Package, holes: tuple[AirHole, ...], edges: tuple[Edge, ...]) -> tuple[Change, ...]:
    """Changes that close these edges: what is planned there is fitted, else a panel, or a strip where the gap is narrow; () where all are."""
    panels, open_ways = list(package.panels), {way.key: way for way in ways(package, holes)}
    for edge in edges:
        way = open_ways[edge]
        if way.left <= way.area * 0.02:
            continue
        planned = [k for k, panel in enumerate(panels) if panel.closes == edge and panel.kind != "dam" and not panel.fitted]
        if planned:
            panels[planned[0]] = panels[planned[0]].model_copy(update={"fitted": True})
            continue
        here = [k for k, panel in enumerate(panels) if panel.closes == edge and panel.kind != "dam"]
        made = _made(tuple(panels), edge, way.gap)
        if here:
            # What is there closes only part of it: it is made whole.
            panels[here[0]] = panels[here[0]].model_copy(update={"length": None, "foam": made.foam, "foam_gap": made.foam_gap})
        else:
            panels.append(made)
    return (Change(("packages", package.id, "panels"), tuple(panels)),) if tuple(panels) != package.panels else ()


def _made(panels: tuple[Panel, ...], edge: Edge, gap: float) -> Panel:
    narrow = gap <= STRIP_MOST and edge in ("left", "right")
    kind: PanelKind = "strip" if narrow else "panel"
    words = f"{NAMES[edge]} strip" if narrow else NAMES[edge] if edge in ("top", "bottom") else f"{NAMES[edge]} panel"
    return Panel(id=fresh_id(panels, "panel"), name=words, kind=kind, closes=edge, foam=foam_for(gap if narrow else PANEL_GAP))
