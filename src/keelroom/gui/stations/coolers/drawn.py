"""Pictures of the Aux coolers station: where the heat goes, where coolers stand."""

from __future__ import annotations

from functools import partial

from keelroom.drawing.coolers import fluids_scene
from keelroom.drawing.spots import spots_scene
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.scene_view import Drawing, Picture


def spots_picture(session: Session) -> Picture:
    """Of places."""
    return Picture("Where the coolers stand", partial(_spots, session))


def lines_picture(session: Session) -> Picture:
    """Of places with the lines that go there."""
    return Picture("Lines of the coolers, on the car", partial(_spots, session, lines=True))


def fluids_picture(session: Session) -> Picture:
    """Of heat and fluids."""
    return Picture("Fluids of the chosen case", partial(_fluids, session))


def _spots(session: Session, lines: bool = False) -> Drawing:
    """The car with its coolers and their lines."""
    build = session.build
    if not build.package.coolers:
        return None, "No cooler yet", "Add one from the list."
    return (
        spots_scene(build, session.assessment.figures_of(session.case), session.system, lines),
        "Where the lines go" if lines else "Where the coolers stand",
        "From the left side: places, not sizes. A disc: a fan of its own. The bay to scale is at Fit-up.",
    )


def _fluids(session: Session) -> Drawing:
    """What each fluid is given and what takes it, in the chosen case."""
    figures = session.assessment.figures_of(session.case)
    if figures is None:
        return None, "Fluids", "They are drawn once a duty case is worked out."
    name = next((case.name for case in session.build.duty_cases if case.id == session.case), "")
    scene = fluids_scene(figures, session.system)
    if scene is None:
        return (
            None,
            "Nothing to cool but the coolant",
            "Gearbox, oil, intake air and A/C are given nothing in this case.",
        )
    foot = "Each row: what the fluid is given, then what takes it. Shaded: coolers, with the air they meet."
    return scene, f"Where the heat goes, {name}", foot
