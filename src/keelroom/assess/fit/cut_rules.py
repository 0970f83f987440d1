"""What must be looked at before anything is cut, and which edges must not be."""

from __future__ import annotations

from keelroom.document.edits import Edit, apply
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import PanelEdge
from keelroom.document.schema.survey import Check, EdgeKind, Opening

CHECKS: dict[Check, tuple[str, str]] = {
    "hood": ("Hood", "closed over a mock-up with putty on its highest points"),
    "belt": ("Belt", "engine pried forward, fan mock-up in place"),
    "latch": ("Latch", "latch, its support and the safety catch clear of the cut"),
    "structure": (
        "Structure",
        "what the panel carries: rails, bumper beam, airbag sensors; qualified advice where in doubt",
    ),
}


def edge_kind(opening: Opening, edge: PanelEdge) -> EdgeKind:
    """What kind of edge lies on one side; the worst of the outline's edges there."""
    if not opening.corners:
        kind: EdgeKind = getattr(opening, f"{edge}_edge")
        return kind
    axis = 0 if edge in ("left", "right") else 1
    sign = 1 if edge in ("right", "top") else -1
    places = [(corner.x.si, corner.y.si)[axis] * sign for corner in opening.corners]
    limit = max(places)
    kinds = [
        corner.edge
        for k, corner in enumerate(opening.corners)
        if places[k] > limit - 1e-4 and places[(k + 1) % len(places)] > limit - 1e-4
    ]
    return next((kind for kind in ("no_go", "stamped") if kind in kinds), "plain")


def _belt_unmeasured(build: Build) -> bool:
    return all(one.depth is None for one in build.survey.engine.turning)


def belt_open(build: Build) -> bool:
    """Whether the belt cannot be looked at, for the engine is out, and was not measured before."""
    return build.survey.engine.out and _belt_unmeasured(build)


BELT_OPEN = (
    "The engine is out: belt and pulley stay unmeasured. Cut from the smallest stage outward, and mock fan and belt up "
    "with the engine in before anything behind the core is made for good."
)


def checks_missing(build: Build) -> tuple[tuple[Check, str], ...]:
    """What must be looked at before anything is cut, with what is wrong with it yet.

    With the engine out of the car nobody can measure its belt: that stays open and is said, and nothing waits for it.
    """
    survey, found = build.survey, []
    for check, (name, what) in CHECKS.items():
        if check == "belt" and belt_open(build):
            continue
        lacks = {"hood": survey.hood.front is None, "belt": _belt_unmeasured(build)}.get(check, False)
        if lacks:
            found.append((check, f"{name}: not measured yet"))
        elif check not in survey.checks:
            found.append((check, f"{name}: {what}"))
    return tuple(found)


def _may_cut(path: tuple[str, ...]) -> bool:
    """Whether a change there can add a cut: to the cuts of a package, to one of them, or to whole packages."""
    return path == ("packages",) or (path[:1] == ("packages",) and path[2:3] == ("cuts",))


def barred(build: Build, edit: Edit) -> str:
    """Why an edit must not be made yet, '' where nothing stands against it: the one gate of what cannot be taken back.

    A cut that the build does not hold already waits for its cheap checks, and is never made at an edge marked no-go.
    Whatever offers an edit asks here, and so does whoever applies one that comes from no field.
    """
    if not any(_may_cut(change.path) for change in edit.changes):
        return ""  # most edits, every move of a drag among them, cannot
    after = apply(build, edit)
    held = {cut for package in build.packages for cut in package.cuts}
    new = [cut for package in after.packages for cut in package.cuts if cut not in held]
    if not new:
        return ""
    refused = sorted({cut.edge for cut in new if edge_kind(after.survey.opening, cut.edge) == "no_go"})
    if refused:
        return f"The {' and '.join(refused)} edge is marked no-go in the survey: it must not be cut"
    missing = checks_missing(after)
    if missing:
        names = ", ".join(CHECKS[check][0].lower() for check, _ in missing)
        return f"{len(missing)} cheap check{'s' * (len(missing) > 1)} before a cut, at Fit-up, Cut: {names}"
    return ""
