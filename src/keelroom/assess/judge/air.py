"""Findings about the air: cheap causes, what hides the face, where air is lost or comes back, and what stands ahead."""

from __future__ import annotations

import math

from keelroom.assess.causes import CAUSES, open_causes
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fixes import choose_act, flag_act
from keelroom.assess.inputs.airside import cover_rectangle, in_shroud, shroud_rectangle
from keelroom.assess.inputs.fans import disc_of
from keelroom.assess.inputs.sealing import open_edges
from keelroom.assess.placing import LIES, face_size, hidden_share, opening_on_face, stand
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import fact, given, lowered

ROUNDING = 0.5e-3
RECIRCULATES, LEAKS, BYPASSES = 0.08, 0.12, 0.15
"""Shares from which air that comes back, is drawn round the edge, or goes round the core is worth a word."""


def causes(build: Build, package: Package, assessment: Assessment) -> Found:
    """Unresolved cheap causes stand before any part is recommended."""
    names = {cause.id: lowered(cause.name) for cause in CAUSES}
    mended = [names[one.id] for one in build.brief.causes if one.state == "mended" and one.size and one.id in names]
    if mended:
        yield Finding(
            "judged_mended", "note", ("brief", "causes"), given(names=tuple(mended)), value=float(len(mended))
        )
    waiting = open_causes(build.brief)
    if not waiting:
        return
    first = waiting[0]
    yield Finding(
        "cheap_cause",
        "doubt",
        ("brief", "symptoms"),
        given(
            count=(len(waiting), "count"),
            names=tuple(names[cause.id] for cause in waiting),
            first=first.name.lower(),
            test=first.test,
        ),
        value=float(len(waiting)),
    )


def unlike(build: Build, package: Package, assessment: Assessment) -> Found:
    """What the car was seen to do and the build as entered could not: what is advised rests on a car it is not."""
    for one in assessment.unlike:
        hot = one.seen == "hot"
        did = "saw.hot" if hot else "saw.stayed" if one.told else "saw.under"
        reads = fact("seen.boils") if math.isinf(one.expected) else None
        yield Finding(
            "unlike_seen",
            "problem",
            ("duty_cases", one.case_id, "seen"),
            given(
                name=one.name,
                saw=fact(did, saw=(one.reading, "temperature")),
                expected=reads or fact("seen.reads", expected=(one.expected, "temperature")),
            ),
            form="hot" if one.reading > one.expected else "cool",
        )


def face(build: Build, package: Package, assessment: Assessment) -> Found:
    """What hides the face: the panel, covers that do not fit it, a shroud that serves no fan."""
    if not (package.core.face_width and package.core.face_height):
        return
    width, height = face_size(package)
    opening = opening_on_face(build.survey, package)
    wide_open, high_open = width, height
    if opening is not None:
        xs, ys = [x for x, _ in opening], [y for _, y in opening]
        wide_open, high_open = max(xs) - min(xs), max(ys) - min(ys)
    lean = stand(build.survey, package).lean
    if abs(lean) > LIES and not package.remote.away:
        yield Finding(
            "lies_at_grille",
            "doubt",
            ("packages", package.id, "place", "lean"),
            given(lean=(abs(lean), "angle")),
            fix=(flag_act("It has air of its own", ("packages", package.id, "remote", "away"), True),),
            value=abs(lean),
            limit=LIES,
        )
    shown = 1 - hidden_share(build.survey, package)
    if shown < 1:
        yield Finding(
            "panel_hides",
            "problem" if shown < 0.5 else "doubt",
            ("survey", "opening", "width"),
            given(hidden=(1 - shown, "share")),
            value=1 - shown,
            limit=0.0,
        )
    for cover in (cooler for cooler in package.coolers if cooler.stands == "ahead"):
        placed = cover_rectangle(package, cover)
        where = ("packages", package.id, "coolers", cover.id, "left")
        name = cover.name or cover.kind.replace("_", " ")
        if placed is None:
            continue
        left, bottom, wide, high = placed
        over = max(-left, -bottom, left + wide - width, bottom + high - height)
        if over > ROUNDING:
            yield Finding(
                "cover_off_face", "doubt", where, given(name=name, over=(over, "length")), value=over, limit=0.0
            )
        if opening is not None and (wide > wide_open + ROUNDING or high > high_open + ROUNDING):
            yield Finding(
                "cover_over_opening",
                "problem",
                where,
                given(
                    name=name,
                    wide=(wide, "length"),
                    high=(high, "length"),
                    wide_open=(wide_open, "length"),
                    high_open=(high_open, "length"),
                ),
                value=wide,
                limit=wide_open,
            )
    rectangle = shroud_rectangle(package)
    if rectangle is not None and package.fans and not any(in_shroud(package, fan) for fan in package.fans):
        yield Finding(
            "shroud_without_fan",
            "problem",
            ("packages", package.id, "shroud", "kind"),
            fix=(choose_act("Take the shroud off", ("packages", package.id, "shroud", "kind"), "none"),),
        )
    for fan in package.fans:
        disc = disc_of(fan)
        if not (-disc.radius < disc.x < width + disc.radius and -disc.radius < disc.y < height + disc.radius):
            yield Finding("fan_beside_face", "problem", ("packages", package.id, "fans", fan.id, "x"))


def air(build: Build, package: Package, assessment: Assessment) -> Found:
    """Where air is lost or comes back, and fans that stand or push."""
    where = ("packages", package.id)
    idle = assessment.idle
    stopped = [fan for fan in package.fans if not fan.runs]
    if (
        stopped
        and len(stopped) < len(package.fans)
        and package.shroud.plenum == "shared"
        and package.shroud.kind != "none"
    ):
        lost = max((fan.from_hole for fan in idle.fans), default=0.0) if idle else 0.0
        yield Finding(
            "stopped_fan", "problem", (*where, "fans", stopped[0].id, "runs"), given(lost=(lost, "share")), value=lost
        )
    for fan in package.fans:
        if fan.reversed_blade:
            yield Finding(
                "reversed_blade",
                "doubt",
                (*where, "fans", fan.id, "reversed_blade"),
                given(reversed_share=(fan.reversed_share.si, "share")),
                value=fan.reversed_share.si,
            )
        elif fan.mount == "pusher" and not any(other.mount == "puller" and other.runs for other in package.fans):
            yield Finding(
                "pusher_alone",
                "doubt",
                (*where, "fans", fan.id, "mount"),
                fix=(choose_act("Mount it behind the core", (*where, "fans", fan.id, "mount"), "puller"),),
            )
    if idle is None:
        return
    edge = max(
        (figures.from_edge for fan, figures in zip(package.fans, idle.fans, strict=False) if in_shroud(package, fan)),
        default=0.0,
    )
    if edge > LEAKS and package.shroud.kind != "none":
        yield Finding(
            "edge_leak",
            "doubt",
            (*where, "shroud", "edge_gap"),
            given(edge=(edge, "share")),
            fix=(Act("edge_seal", "Seal the edge", package.id),),
            value=edge,
            limit=LEAKS,
        )
    if idle.recirculated > RECIRCULATES:
        yield Finding(
            "recirculation",
            "doubt",
            (*where, "panels"),
            given(
                recirculated=(idle.recirculated, "share"),
                rise=(idle.front_air - idle.ambient, "temperature difference"),
            ),
            fix=_seals(build, package, True),
            value=idle.recirculated,
            limit=RECIRCULATES,
        )
    fast = max((case.figures for case in assessment.cases if case.figures), key=lambda f: f.bypassed, default=None)
    if fast is not None and fast.bypassed > BYPASSES:
        yield Finding(
            "bypass",
            "note",
            (*where, "panels"),
            given(bypassed=(fast.bypassed, "share")),
            fix=_seals(build, package, False),
            value=fast.bypassed,
            limit=BYPASSES,
        )


def _seals(build: Build, package: Package, over: bool) -> tuple[Act, ...]:
    """What closes the core's edges that are open, over and under first where the air comes back."""
    sides = Act("close_edges", "Side strips", package.id, (("edges", "left right"),))
    panels = Act("close_edges", "Panels over and under", package.id, (("edges", "top bottom"),))
    offered = (panels, sides) if over else (sides, panels)
    left_open = {way.key for way in open_edges(package, build.survey.air_holes)}
    return tuple(act for act in offered if left_open.intersection(dict(act.given)["edges"].split()))
