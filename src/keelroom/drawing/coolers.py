"""The fluids of a build drawn for one duty case: what each is given, where it leaves it, how hot it runs, what air
its coolers meet."""

from __future__ import annotations

from keelroom.assess.figures.assessment import CaseFigures, CoolerFigures
from keelroom.assess.figures.coolerlimits import HOT
from keelroom.assess.inputs.coolers import FLUID_OF
from keelroom.drawing.scene import Label, Polyline, Rect, Scene, Shape
from keelroom.units import KINDS, format_si

MM = 1e-3
LEFT, ROW, TOP, GIVEN, BOX, HIGH, GAP = 5.0, 96.0, 8.0, 58.0, 112.0, 44.0, 8.0
ACROSS, LINE = 3, 68.0
"""Boxes of a fluid side by side, and how far down those after them stand: their words want the width when panels
leave the board narrow."""
WIDTH = LEFT + GIVEN + ACROSS * (GAP + BOX) + LEFT
NAMES = {
    "gearbox": "Gearbox fluid",
    "oil": "Engine oil",
    "charge": "Intake air",
    "refrigerant": "Refrigerant",
    "steering": "Power steering",
}


def fluid_rows(figures: CaseFigures) -> list[str]:
    """Fluids with something to show, in the order of the drawing."""
    fluids = figures.fluids
    cooled = {FLUID_OF[cooler.kind] for cooler in figures.coolers if cooler.kind in FLUID_OF}
    return [fluid for fluid in NAMES if fluid in cooled or (fluids.heated(fluid) and fluid != "steering")]


def fluids_scene(figures: CaseFigures, system: str) -> Scene | None:
    """A row per fluid; None where no fluid is given anything."""
    rows = fluid_rows(figures)
    if not rows:
        return None
    shapes: list[Shape] = []
    high = TOP
    for fluid in rows:
        high += _row(shapes, (fluid, figures), -high, system)
    return Scene(tuple(shapes), (0.0, -high * MM, WIDTH * MM, high * MM))


def _row(shapes: list[Shape], told: tuple[str, CaseFigures], top: float, system: str) -> float:
    """Draws one fluid; how high it is."""
    fluid, figures = told
    at = figures.fluids.of(fluid)
    given, left = dict(figures.fluids.given)[fluid], [part for part in figures.fluids.left if part.fluid == fluid]
    head = f"{NAMES[fluid]} {format_si(at, KINDS['temperature'], system)}"
    if fluid == "refrigerant" and not figures.fluids.heated(fluid):
        head = "Refrigerant: the A/C is off"
    elif fluid == "refrigerant":
        head += (
            f", {format_si(figures.fluids.head_pressure, KINDS['pressure'], system)} at the gauge; vents "
            f"{format_si(figures.fluids.vents, KINDS['temperature'], system)}, cabin "
            f"{format_si(figures.fluids.cabin, KINDS['temperature'], system)}"
        )
    alarm = at > HOT.get(fluid, 1e9)
    _words(shapes, (LEFT, top - 10), head, "el.alarm" if alarm else "el.value")
    y = top - 26 - HIGH / 2
    _box(shapes, (LEFT, y), GIVEN, ("is given", format_si(given, KINDS["heat"], system)), "bar.rest")
    by_id = {cooler.cooler_id: cooler for cooler in figures.coolers}
    start = LEFT + GIVEN
    for k, part in enumerate(left):
        line, across = divmod(k, ACROSS)
        x, low = start + GAP + across * (BOX + GAP), y - line * LINE
        if across == 0:
            shapes.append(
                Polyline(
                    "rail",
                    tuple(
                        (u * MM, v * MM)
                        for u, v in ((start, y), (start + GAP / 2, y), (start + GAP / 2, low), (x, low))
                    ),
                )
            )
        else:
            shapes.append(Polyline("rail", (((x - GAP) * MM, low * MM), (x * MM, low * MM))))
        cooler = by_id.get(part.cooler_id)
        _box(
            shapes,
            (x, low),
            BOX,
            (part.where, format_si(part.heat, KINDS["heat"], system).replace("-", "−")),
            "bar.fan" if cooler else "bar.rest",
        )
        if cooler is not None:
            _words(shapes, (x + BOX / 2, low - HIGH / 2 - 9), _air(cooler, system), "el.words", "middle")
    return ROW + LINE * max((len(left) - 1) // ACROSS, 0)


def _air(cooler: CoolerFigures, system: str) -> str:
    kind = KINDS["temperature"]
    ends = [format_si(value, kind, system) for value in (cooler.air_in, cooler.air_out)]
    return f"air {ends[0].split()[0]} → {ends[1]}"


def _box(shapes: list[Shape], at: tuple[float, float], wide: float, words: tuple[str, str], role: str) -> None:
    x, y = at
    shapes.append(Rect(role, x * MM, (y - HIGH / 2) * MM, wide * MM, HIGH * MM, 4 * MM))
    fits = max(int(wide / 6.9), 6)
    name = words[0] if len(words[0]) <= fits else words[0][: fits - 1] + "…"
    _words(shapes, (x + wide / 2, y + 9), name, "bar.label", "middle")
    _words(shapes, (x + wide / 2, y - 10), words[1], "bar.label", "middle")


def _words(shapes: list[Shape], at: tuple[float, float], text: str, role: str, align: str = "start") -> None:
    shapes.append(Label(role, (at[0] * MM, at[1] * MM), text, align))
