"""Findings about the air: cheap causes, what hides the face, where air is lost or comes back, and what stands ahead."""

from __future__ import annotations

from keelroom.assess.causes import open_causes
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.inputs.airside import cover_rectangle, disc_of, in_shroud, shroud_rectangle
from keelroom.assess.inputs.sealing import open_edges
from keelroom.assess.placing import face_size, hidden_share, opening_on_face
from keelroom.assess.wording import Found, choose_act, lowered
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import both

ROUNDING = 0.5e-3
RECIRCULATES, LEAKS, BYPASSES = 0.08, 0.12, 0.15
"""Shares from which air that comes back, is drawn round the edge, or goes round the core is worth a word."""


def causes(build: Build, package: Package, assessment: Assessment) -> Found:
    """Unresolved cheap causes stand before any part is recommended."""
    waiting = open_causes(build.brief)
    if not waiting:
        return
    names = ", ".join(lowered(cause.name) for cause in waiting[:4])
    more = f" and {len(waiting) - 4} more" if len(waiting) > 4 else ""
    first = waiting[0]
    yield Finding("cheap_cause", "doubt", ("brief", "symptoms"), f"Rule out {len(waiting)} cheap cause{'s' * (len(waiting) > 1)} before buying anything",
                  f"The symptoms could be {names}{more}. Begin with {first.name.lower()}: {first.test}", value=float(len(waiting)))  # fmt: skip


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
    shown = 1 - hidden_share(build.survey, package)
    if shown < 1:
        yield Finding("panel_hides", "problem" if shown < 0.5 else "doubt", ("survey", "opening", "width"), f"The panel hides {1 - shown:.0%} of the face",
                      "Cells behind uncut metal get no air. Judge by what the cut gains, and do the cheap checks (hood, belt, latch, structure) before cutting: "
                      "a structural panel, bumper beam or latch support is work for qualified advice.", value=1 - shown, limit=0.0)  # fmt: skip
    for cover in (cooler for cooler in package.coolers if cooler.stands == "ahead"):
        placed = cover_rectangle(package, cover)
        where = ("packages", package.id, "coolers", cover.id, "left")
        name = cover.name or cover.kind.replace("_", " ")
        if placed is None:
            continue
        left, bottom, wide, high = placed
        over = max(-left, -bottom, left + wide - width, bottom + high - height)
        if over > ROUNDING:
            yield Finding("cover_off_face", "doubt", where, f"{name}: stands {both(over, 'length')} over the edge of the face",
                          "What hangs over heats and hinders no air of this core; check its place.", value=over, limit=0.0)  # fmt: skip
        if opening is not None and (wide > wide_open + ROUNDING or high > high_open + ROUNDING):
            yield Finding("cover_over_opening", "problem", where, f"{name}: larger than the panel's opening",
                          f"{both(wide, 'length')} × {both(high, 'length')} against an opening of {both(wide_open, 'length')} × {both(high_open, 'length')}: "
                          "its edges see no air.", value=wide, limit=wide_open)  # fmt: skip
    rectangle = shroud_rectangle(package)
    if rectangle is not None and package.fans and not any(in_shroud(package, fan) for fan in package.fans):
        yield Finding("shroud_without_fan", "problem", ("packages", package.id, "shroud", "kind"), "No fan breathes from the shroud",
                      "A shroud with no fan in it only hides the face. Move a fan into it or take it off.",
                      (choose_act("Take the shroud off", ("packages", package.id, "shroud", "kind"), "none"),))  # fmt: skip
    for fan in package.fans:
        disc = disc_of(fan)
        if not (-disc.radius < disc.x < width + disc.radius and -disc.radius < disc.y < height + disc.radius):
            yield Finding("fan_beside_face", "problem", ("packages", package.id, "fans", fan.id, "x"), "A fan stands beside the face altogether",
                          "It moves bay air in a circle and none through the core.")  # fmt: skip


def air(build: Build, package: Package, assessment: Assessment) -> Found:
    """Where air is lost or comes back, and fans that stand or push."""
    where = ("packages", package.id)
    idle = assessment.idle
    stopped = [fan for fan in package.fans if not fan.runs]
    if stopped and len(stopped) < len(package.fans) and package.shroud.plenum == "shared" and package.shroud.kind != "none":
        lost = max((fan.from_hole for fan in idle.fans), default=0.0) if idle else 0.0
        yield Finding("stopped_fan", "problem", (*where, "fans", stopped[0].id, "runs"), "A stopped fan is a hole in the shroud",
                      f"{lost:.0%} of the running fan's air comes back through it at a standstill. Get it running, or close its ring; "
                      "a divided shroud stops the leak but leaves half the face without air (see Worth).", value=lost)  # fmt: skip
    for fan in package.fans:
        if fan.reversed_blade:
            yield Finding("reversed_blade", "doubt", (*where, "fans", fan.id, "reversed_blade"), "A one-way blade run backwards is no pusher",
                          f"Taken as {fan.reversed_share.si:.0%} of its flow. A fan made for the direction moves far more.", value=fan.reversed_share.si)  # fmt: skip
        elif fan.mount == "pusher" and not any(other.mount == "puller" and other.runs for other in package.fans):
            yield Finding("pusher_alone", "doubt", (*where, "fans", fan.id, "mount"), "A pusher as the main fan",
                          "A puller behind the core moves more and does not stand in the ram air at speed.",
                          (choose_act("Mount it behind the core", (*where, "fans", fan.id, "mount"), "puller"),))  # fmt: skip
    if idle is None:
        return
    edge = max((figures.from_edge for fan, figures in zip(package.fans, idle.fans, strict=False) if in_shroud(package, fan)), default=0.0)
    if edge > LEAKS and package.shroud.kind != "none":
        yield Finding("edge_leak", "doubt", (*where, "shroud", "edge_gap"), f"{edge:.0%} of a fan's air comes round the shroud's edge",
                      "Suction lost through the edge gap and holes never passes the core. Trim until it seats on the core, then seal with foam or split hose.",
                      (Act("edge_seal", "Seal the edge", package.id),), value=edge, limit=LEAKS)  # fmt: skip
    if idle.recirculated > RECIRCULATES:
        rise = both(idle.front_air - idle.ambient, "temperature difference")
        yield Finding("recirculation", "doubt", (*where, "panels"), f"{idle.recirculated:.0%} of the air at the face is hot bay air come back",
                      f"Standing, the face breathes air {rise} over ambient. Side strips and a panel over core and condenser stop it; "
                      "panels alone have given about 10 °F at the A/C vents.",
                      _seals(build, package, True),
                      value=idle.recirculated, limit=RECIRCULATES)  # fmt: skip
    fast = max((case.figures for case in assessment.cases if case.figures), key=lambda f: f.bypassed, default=None)
    if fast is not None and fast.bypassed > BYPASSES:
        yield Finding("bypass", "note", (*where, "panels"), f"At speed {fast.bypassed:.0%} of the air goes round the core",
                      "Air takes the gap if it can. Side seals send it through the core.",
                      _seals(build, package, False), value=fast.bypassed, limit=BYPASSES)  # fmt: skip


def _seals(build: Build, package: Package, over: bool) -> tuple[Act, ...]:
    """What closes the core's edges that are open, over and under first where the air comes back."""
    sides = Act("close_edges", "Side strips", package.id, (("edges", "left right"),))
    panels = Act("close_edges", "Panels over and under", package.id, (("edges", "top bottom"),))
    offered = (panels, sides) if over else (sides, panels)
    left_open = {way.key for way in open_edges(package, build.survey.air_holes)}
    return tuple(act for act in offered if left_open.intersection(dict(act.given)["edges"].split()))
