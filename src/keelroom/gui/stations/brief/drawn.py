"""Pictures of the Brief, each beside the page it answers."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from keelroom.drawing.brief import areas_scene, duty_scene, fuel_scene, limits_scene, seen_scene
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.scene_view import WORDED, Drawing, Picture

if TYPE_CHECKING:  # what explains takes drives and trials in, which no first window needs
    from keelroom.assess.questions.explain import Explained

SEEN_FOOT = "The car as found in the cases it was seen in. Explain works out what would read so."


def pictures_of(session: Session) -> dict[str, Picture]:
    """By part of a page."""
    seen = Picture("What the car did", partial(seen_drawing, session, None), WORDED)
    return {
        "Vehicle": Picture("Areas at one scale", partial(_areas, session), WORDED),
        "Limits": Picture("Day, marks and limits", partial(_limits, session), WORDED),
        "Engine": Picture("Where the fuel goes", partial(_fuel, session), WORDED),
        "Before": seen,
        "Causes": seen,
        "Duty cases": Picture("What the car is asked to do", partial(_duties, session), WORDED),
    }


def _areas(session: Session) -> Drawing:
    scene = areas_scene(session.build, session.system)
    title = "What the wind and the air meet"
    if scene is None:
        return None, title, "It is drawn once drag area, grille or core are known."
    return scene, title, "Areas at one scale. A grille far smaller than the face, or no way out, starves any core."


def _limits(session: Session) -> Drawing:
    scene = limits_scene(session.build, session.assessment, session.system)
    return scene, "Day, marks and limits", "What each duty case reads, on the days it is asked for."


def _fuel(session: Session) -> Drawing:
    scene = fuel_scene(session.assessment, session.system)
    if scene is None:
        return None, "Where the fuel goes", f"First needed: {session.needed}." if session.needed else session.stopped
    foot = "Work at the crank turns wheels and accessories; what goes into the coolant the core must shed."
    return scene, "Where the fuel goes", foot


def _duties(session: Session) -> Drawing:
    scene = duty_scene(session.build, session.assessment, session.case, session.system)
    if scene is None:
        return None, "No duty case yet", "Make them from the brief."
    foot = "Arrow: speed. Posts: stops. Grades are drawn twice as steep."
    return scene, "What the car is asked to do", foot


def seen_drawing(session: Session, found: Explained | None) -> Drawing:
    """What was seen, and beside it what would be read, where that was worked out."""
    title = "What the car did"
    readings = {"now": found.expected, "other": found.explanations[0].readings} if found else {}
    scene = seen_scene(session.build, session.assessment, readings, session.system)
    if scene is None:
        return None, title, "Mark what it did, case by case: it is drawn here against what would read so."
    return scene, title, "No mark: it boils, or no gauge was read." if found else SEEN_FOOT
