"""Acts that close the ways round the core: a panel or a strip at each edge that is open, panels, covers, ducts and
dams added."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.fit.panels import foam_for, panel_name
from keelroom.assess.inputs.sealing import PANEL_GAP, open_edges
from keelroom.assess.safety import cautions
from keelroom.document.edits import Change, Edit, added, fresh_id, fresh_name
from keelroom.document.quantity import quantity
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import EDGES, Edge, Panel, PanelKind
from keelroom.document.schema.survey import AirHole
from keelroom.errors import InputError
from keelroom.units import INCH

STRIP_MOST = 1.25 * INCH
"""[m] of gap over which foam alone folds over, and sheet is needed (common practice)."""
NAMES: dict[Edge, str] = {"top": "Top panel", "bottom": "Bottom panel", "left": "Left side", "right": "Right side"}


def closing(package: Package, holes: tuple[AirHole, ...], edges: tuple[Edge, ...]) -> tuple[Change, ...]:
    """Changes that close these edges: what is planned there is fitted, else a panel, or a strip where the gap is
    narrow; () where all are."""
    panels, open_ways = list(package.panels), {way.key: way for way in open_edges(package, holes, edges)}
    for edge in edges:
        way = open_ways.get(edge)
        if way is None:
            continue
        planned = [
            k for k, panel in enumerate(panels) if panel.closes == edge and panel.kind != "dam" and not panel.fitted
        ]
        if planned:
            panels[planned[0]] = panels[planned[0]].model_copy(update={"fitted": True})
            continue
        here = [k for k, panel in enumerate(panels) if panel.closes == edge and panel.kind != "dam"]
        made = _made(tuple(panels), edge, way.gap)
        if here:
            # What is there closes only part of it: it is made whole.
            panels[here[0]] = panels[here[0]].model_copy(
                update={"length": None, "foam": made.foam, "foam_gap": made.foam_gap}
            )
        else:
            panels.append(made)
    return (Change(("packages", package.id, "panels"), tuple(panels)),) if tuple(panels) != package.panels else ()


def _made(panels: tuple[Panel, ...], edge: Edge, gap: float) -> Panel:
    narrow = gap <= STRIP_MOST and edge in ("left", "right")
    kind: PanelKind = "strip" if narrow else "panel"
    words = f"{NAMES[edge]} strip" if narrow else NAMES[edge] if edge in ("top", "bottom") else f"{NAMES[edge]} panel"
    return Panel(
        id=fresh_id(panels, "panel"), name=words, kind=kind, closes=edge, foam=foam_for(gap if narrow else PANEL_GAP)
    )


def _close(do: Doing) -> Edit:
    edges = tuple(edge for edge in EDGES if edge in do.given("edges").split())
    changes = closing(do.package, do.build.survey.air_holes, edges)
    if not changes:
        raise InputError("closed_already", "Every edge that is open has a panel or a strip already")
    return Edit(do.act.label, changes)


ADDS: dict[str, tuple[str, PanelKind, str]] = {
    "top": ("Panel over the core", "panel", "top"),
    "left": ("Strip at the left", "strip", "left"),
    "right": ("Strip at the right", "strip", "right"),
    "bottom": ("Panel under the core", "panel", "bottom"),
    "cover": ("Cover a hole", "cover", ""),
    "duct": ("Duct piece", "duct", "left"),
    "dam": ("Air dam", "dam", ""),
}
"""What can be added: in words, its kind, the way it closes."""
DAM_DEEP = "4 in"


def new_panel(do: Doing) -> Panel:
    """A panel as it is added."""
    if do.given("what") not in ADDS:
        raise InputError("act_incomplete", f"There is no panel “{do.given('what')}”; expected one of {', '.join(ADDS)}")
    words, kind, closes = ADDS[do.given("what")]
    package = do.package
    taken = {panel.closes for panel in package.panels}
    if kind == "cover":
        closes = next((hole.id for hole in do.build.survey.air_holes if hole.id not in taken), "")
    if kind == "duct":
        closes = next((edge for edge in ("left", "right") if edge not in taken), "left")
    gap = getattr(package.sealing, closes).gap.si if kind == "strip" else PANEL_GAP
    edge = NAMES.get(closes, words)  # type: ignore[call-overload]
    name = {
        "panel": edge,
        "strip": f"{edge} strip" if closes in NAMES else words,
        "cover": "Cover plate",
        "duct": "Duct piece",
        "dam": "Air dam",
    }[kind]
    more: dict[str, object] = {"foam": foam_for(gap)}
    if kind == "dam":
        nothing: dict[str, object] = {
            "back_lip": quantity("0 in", "length"),
            "bolts": quantity("0", "count"),
            "foam": None,
        }
        more = nothing | {"depth": quantity(DAM_DEEP, "length")}
    if kind == "cover":
        more |= {"bolts": quantity("4", "count")}
    ident = fresh_id(package.panels, "panel")
    return Panel.model_validate(
        {"id": ident, "name": fresh_name(map(panel_name, package.panels), name), "kind": kind, "closes": closes} | more
    )


def _add(do: Doing) -> Edit:
    panel = new_panel(do)
    return added(do.build, (*do.where, "panels"), panel, f"Add {panel.name.lower()}")


SHEET = cautions("sheet", "drill")
KINDS = (
    ActKind(
        "close_edges",
        "Close edges of the core by strips or panels, where they are open",
        _close,
        "Close every edge of the core",
        cautions=SHEET,
        after=("A strip of paper is held all round with the fans running",),
        rests_on=tuple(("packages", "*", "sealing", edge) for edge in EDGES),
    ),
    ActKind(
        "add_panel",
        "Add a panel, a strip, a cover, a duct piece or a dam",
        _add,
        cautions=SHEET,
        first="name",
        rests_on=(("packages", "*", "sealing"),),
    ),
)
