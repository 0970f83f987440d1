"""Acts on the coolant circuit: usual hoses, a heater, a surge tank, a filler, a vent line, a wider way for a hose,
parts and ports added."""

from __future__ import annotations

import math

from keelroom.assess.acts.kind import HOUR, ActKind, Doing
from keelroom.assess.fit.hose_ways import detour
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.heights import core_top, hood_over
from keelroom.assess.inputs.coolant.ports import Vector, joins_alike, places_at, ports_of, ports_taken
from keelroom.assess.inputs.coolant.volumes import TANKED, volumes_of
from keelroom.assess.placing import Axes, core_depth, size_of, stand
from keelroom.assess.safety import cautions
from keelroom.document.edits import Change, Edit, added, apply, fresh_id, fresh_name, set_value
from keelroom.document.quantity import Quantity, as_read, from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Hose, Loop, Part, PartKind, Piece, Via, usual_hoses
from keelroom.document.schema.package import CorePort, Package
from keelroom.document.schema.survey import HoseEnd
from keelroom.errors import InputError

BEHIND, FIREWALL = 0.42, 0.95
"""[m] behind the plane of the engine's front ports, and of a heater at the firewall, where nothing was measured
(common practice)."""
CAP_ROOM = 0.03
"""[m] between a neck’s cap and the hood"""
ABOVE = 0.06
"""[m] a tank's vent port stands over what it vents."""


def loop_path(package: Package) -> tuple[str, ...]:
    return ("packages", package.id, "loop")


def usual_hoses_edit(build: Build, package: Package, label: str) -> Edit:
    """The usual upper and lower hose between the ports they belong to, in place of hoses that lead nowhere."""
    ports = ports_of(build, package)
    kept = tuple(
        hose
        for hose in package.loop.hoses
        if hose.start in ports and hose.end in ports and not joins_alike(ports[hose.start], ports[hose.end])
    )
    taken = set(ports_taken(kept))
    made = list(kept)
    outlet, inlet = (_engine_port(build, role, taken) for role in ("outlet", "inlet"))
    for usual, start, end in zip(usual_hoses(), (outlet, "core:outlet"), ("core:inlet", inlet), strict=True):
        if start and end and start not in taken and end not in taken:
            ident = usual.id if usual.id not in {hose.id for hose in made} else fresh_id(tuple(made), "hose")
            made.append(usual.model_copy(update={"id": ident, "start": start, "end": end}))
    if tuple(made) == package.loop.hoses:
        raise InputError("no_usual_hose", "No usual hose is missing: join what stands in the circuit by hand")
    return Edit(label, (Change((*loop_path(package), "hoses"), tuple(made)),))


def _engine_port(build: Build, role: str, taken: set[str]) -> str:
    ends = [f"engine:{end.id}" for end in build.survey.hoses if end.role == role and not end.plugged]
    return next((key for key in ends if key not in taken), "")


def ordinary_edit(build: Build, package: Package) -> Edit:
    """An ordinary front-mounted circuit in one act: ports of the engine where none were measured, upper and lower
    hose along credible routes, heater with its hoses, an overflow bottle that is large enough. What was measured
    stays."""
    frame, (width, height) = Axes(stand(build.survey, package)), size_of(package.core)
    middle, top, bottom = (frame.point(width / 2, v, core_depth(package.core)) for v in (height / 2, height, 0.0))
    places: dict[str, Vector] = {
        "outlet": (middle[0], top[1] - 0.07, middle[2] + BEHIND),
        "inlet": (middle[0] + 0.12, bottom[1] + 0.16, middle[2] + BEHIND),
        "heater_out": (middle[0] - 0.10, top[1] - 0.06, middle[2] + FIREWALL - 0.25),
        "heater_in": (middle[0] - 0.06, bottom[1] + 0.20, middle[2] + FIREWALL - 0.30),
    }
    ends = list(build.survey.hoses)
    for role, bore in (
        ("outlet", "1 1/2 in"),
        ("inlet", "1 1/2 in"),
        ("heater_out", "5/8 in"),
        ("heater_in", "3/4 in"),
    ):
        if not any(end.role == role for end in ends):
            ends.append(
                HoseEnd.model_validate(
                    {
                        "id": fresh_id(tuple(ends), "port"),
                        "role": role,
                        "bore": quantity(bore, "length"),
                        "faces": "rear" if "heater" in role else "front",
                    }
                )
            )
    placed = tuple(_placed(end, places[end.role]) if end.role in places else end for end in ends)
    changed = apply(build, Edit("", (Change(("survey", "hoses"), placed),)))
    return _whole(build, changed, package, middle)


def _placed(end: HoseEnd, at: Vector) -> HoseEnd:
    """An end with what was not measured taken as usual."""
    missing = {axis: _length(value) for axis, value in zip("xyz", at, strict=True) if getattr(end, axis) is None}
    return end.model_copy(update=missing)


def _length(value: float) -> Quantity:
    return from_si(value, "length", "us", "assumed")


def _whole(build: Build, changed: Build, package: Package, middle: Vector) -> Edit:
    """The rest of an ordinary circuit: hoses without a length of their own, which follow their routes then, heater
    and bottle."""
    loop = package.loop
    hoses = [_by_route(hose) for hose in loop.hoses]
    parts = list(loop.parts)
    if not any(part.kind == "heater" for part in parts):
        at = (middle[0] - 0.15, core_top(build.survey, package) - 0.10, middle[2] + FIREWALL)
        heater = Part(
            id="heater",
            kind="heater",
            x=_length(at[0]),
            y=_length(at[1]),
            z=_length(at[2]),
            bore=quantity("5/8 in", "length"),
        )
        parts.append(heater)
        for ident, name, role, port in (
            ("heater_feed", "Heater feed", "heater_out", "heater:in"),
            ("heater_return", "Heater return", "heater_in", "heater:out"),
        ):
            end = next(end for end in changed.survey.hoses if end.role == role)
            start, stop = (f"engine:{end.id}", port) if role == "heater_out" else (port, f"engine:{end.id}")
            piece: Piece = "sleeve" if role == "heater_in" and end.bore.si > 0.0175 else "none"
            hoses.append(Hose(id=ident, name=name, start=start, end=stop, kind="reinforced", piece=piece))
    with_hoses = loop.model_copy(update={"hoses": tuple(hoses), "parts": tuple(parts)})
    if not any(part.kind in TANKED for part in parts):
        parts.append(_bottle(changed, package, with_hoses, middle))
    done = with_hoses.model_copy(update={"parts": tuple(parts)})
    if done == loop and changed.survey == build.survey:
        raise InputError("ordinary_already", "The circuit has all of it already")
    return Edit(
        "Make an ordinary circuit",
        (Change(("survey", "hoses"), changed.survey.hoses), Change(loop_path(package), done)),
    )


def _by_route(hose: Hose) -> Hose:
    """A hose whose assumed length and bends give way to its route's."""
    assumed = {
        name: None
        for name in ("length", "bends")
        if (value := getattr(hose, name)) is not None and value.origin == "assumed"
    }
    return hose.model_copy(update=assumed)


def _bottle(build: Build, package: Package, loop: Loop, middle: Vector) -> Part:
    holds = _large_enough(build, package, loop, 1.0)
    at = (middle[0] + 0.35, middle[1], middle[2] + 0.10)
    return Part(
        id=fresh_id(loop.parts, "bottle"),
        kind="overflow",
        holds=holds,
        x=_length(at[0]),
        y=_length(at[1]),
        z=_length(at[2]),
    )


def _large_enough(build: Build, package: Package, loop: Loop, least: float) -> Quantity:
    """What a tank added to this circuit has to hold, its own coolant counted, up to the next half litre that is sold;
    at least so many litres."""
    volumes = volumes_of(build, package.model_copy(update={"loop": loop}))
    wanted = (volumes.room.wanted if volumes else 1.5e-3) * 1.12e3
    return quantity(f"{max(math.ceil(wanted * 2) / 2, least):g} L", "volume")


def add_surge_tank(build: Build, package: Package, label: str) -> Edit:
    """A tank in line at the top of the hot side: the hose from the engine's outlet goes to it, a new one from it goes
    on."""
    graph = graph_of(build, package)
    first = next((branch.run for branch in graph.order if branch.run), None)
    if first is None:
        raise InputError("no_hot_hose", "Join the engine’s outlet to the core first: the tank goes into that line")
    parts, hoses = package.loop.parts, package.loop.hoses
    ident = fresh_id(parts, "tank")
    tops = [port.at[1] for port in graph.ports.values() if port.at[1] is not None]
    start = first.start
    height = max([core_top(build.survey, package), *tops]) + ABOVE
    near = start.place or (0.0, height, BEHIND)
    height = _under_hood(build, height, near[2] - 0.1)
    tank = Part(
        id=ident,
        kind="surge_tank",
        holds=_large_enough(build, package, package.loop, 2.0),
        x=_length(near[0]),
        y=_length(height),
        z=_length(near[2] - 0.1),
    )
    onward = fresh_id(hoses, "hose")
    bore = first.hose.bore or from_si(first.bore, "length", "us", "assumed")
    short = Hose(
        id=onward,
        name="Engine to tank",
        start=start.key,
        end=f"{ident}:in",
        kind="moulded",  # a foot of large bore between two necks takes its bend in the mould only
        bore=bore,
        length=quantity("12 in", "length"),
        bends=quantity("1", "count"),
    )
    rest = tuple(
        hose.model_copy(update={("start" if hose.start == start.key else "end"): f"{ident}:out", "bore": bore})
        if hose.id == first.hose.id
        else hose
        for hose in hoses
    )
    where = loop_path(package)
    return Edit(label, (Change((*where, "parts"), (*parts, tank)), Change((*where, "hoses"), (short, *rest))))


def _under_hood(build: Build, height: float, z: float) -> float:
    """A height [m], or as high as the hood lets it be there."""
    hood = hood_over(build.survey, z)
    return height if hood is None else min(height, hood - CAP_ROOM)


def add_filler(build: Build, package: Package, label: str, at: str) -> Edit:
    """A filler neck at the highest point: in the hose that leaves it, with a plain cap, the pressure cap staying
    where it is."""
    graph = graph_of(build, package)
    nodes = places_at(at)
    run = next((run for run in graph.runs if nodes & {run.start.node, run.end.node} and run.bore > 0.012), None)
    if at.startswith("hose:"):
        run = next((run for run in graph.runs if at.split("#", maxsplit=1)[0] == f"hose:{run.hose.id}"), run)
    if run is None:
        raise InputError("no_hose_there", "No hose leaves that point: put the filler in by hand")
    parts, hoses = package.loop.parts, package.loop.hoses
    ident, second = fresh_id(parts, "filler"), fresh_id(hoses, "hose")
    near = run.start if run.start.node in nodes else run.end
    tops = [port.at[1] for port in graph.ports.values() if port.at[1] is not None]
    place = near.place or (0.0, max(tops, default=0.5), BEHIND)
    top = max([place[1], *([run.route.highest] if run.route else [])]) + 0.04
    top = _under_hood(build, top, place[2] - 0.08)
    part = Part(id=ident, kind="filler", cap="plain", x=_length(place[0]), y=_length(top), z=_length(place[2] - 0.08))
    half = from_si((run.length or 0.6) / 2, "length", "us", "assumed")
    bore = run.hose.bore or from_si(run.bore, "length", "us", "assumed")
    first = run.hose.model_copy(
        update={"end": f"{ident}:in", "start": run.start.key, "length": half, "via": (), "bore": bore}
    )
    onward = Hose(
        id=second,
        name=f"{run.name}, second part",
        start=f"{ident}:out",
        end=run.end.key,
        kind=run.hose.kind,
        bore=bore,
        length=half,
        bends=quantity("1", "count"),
        piece=run.hose.piece,
    )
    where = loop_path(package)
    new = tuple(x for hose in hoses for x in ((first, onward) if hose.id == run.hose.id else (hose,)))
    return Edit(label, (Change((*where, "parts"), (*parts, part)), Change((*where, "hoses"), new)))


def add_tee(build: Build, package: Package, label: str, given: tuple[str, str]) -> Edit:
    """A tee at a port two hoses want: the one that has it and the one that came after go to the tee, a short piece
    from there to the port."""
    ident, field = given
    if field not in ("start", "end"):
        raise InputError("act_incomplete", f"A hose has a start and an end, no “{field}”")
    parts, hoses = package.loop.parts, package.loop.hoses
    wanting = next((hose for hose in hoses if hose.id == ident), None)
    port = ports_of(build, package).get(getattr(wanting, field)) if wanting is not None else None
    having = next(
        (hose for hose in hoses if hose.id != ident and port is not None and port.key in (hose.start, hose.end)), None
    )
    if wanting is None or port is None or having is None:
        raise InputError("no_tee_wanted", "That port is one hose’s by now")
    tee, short = fresh_id(parts, "tee"), fresh_id(hoses, "hose")
    x, y, z = (None if value is None else _length(value) for value in port.at)
    bore = having.bore or from_si(port.bore if port.bore is not None else 0.0381, "length", "us", "assumed")
    ends = (f"{tee}:b", port.key) if port.sense < 0 else (port.key, f"{tee}:b")
    piece = Hose(
        id=short,
        name=fresh_name([hose.name for hose in hoses], "Tee piece"),
        start=ends[0],
        end=ends[1],
        kind="reinforced",
        bore=bore,
        piece=having.piece,
        length=quantity("3 in", "length"),
        bends=quantity("0", "count"),
    )
    led: dict[str, dict[str, object]] = {
        having.id: {"start" if having.start == port.key else "end": f"{tee}:a", "bore": bore},
        ident: {field: f"{tee}:c"},
    }
    rest = tuple(hose.model_copy(update=led.get(hose.id, {})) for hose in hoses)
    where = loop_path(package)
    part = Part(id=tee, kind="tee", name=fresh_name([part.name for part in parts], "Tee"), x=x, y=y, z=z)
    return Edit(label, (Change((*where, "parts"), (*parts, part)), Change((*where, "hoses"), (*rest, piece))))


def plumb_steam(build: Build, package: Package, label: str, ident: str) -> Edit:
    """A rising 1/4 in line from a steam port to a tank's vent port, else to a vent port at the top of the core."""
    end = next((one for one in build.survey.hoses if one.id == ident), None)
    if end is None:
        raise InputError("no_such_port", "The survey no longer has that port")
    hoses, where = package.loop.hoses, loop_path(package)
    taken = ports_taken(hoses)
    ports = ports_of(build, package)
    vents = [key for key in ports if key.endswith((":vent", ":vent2")) and key not in taken]
    vents += [f"core:{port.id}" for port in package.core.ports if port.use == "vent" and f"core:{port.id}" not in taken]
    changes: tuple[Change, ...] = ()
    if not vents:
        made = CorePort(
            id=fresh_id(package.core.ports, "port"),
            name="Vent port",
            use="vent",
            up=_length(size_of(package.core)[1] - 0.01),
            bore=quantity("1/4 in", "length"),
            state="used",
        )
        changes = (Change(("packages", package.id, "core", "ports"), (*package.core.ports, made)),)
        vents = [f"core:{made.id}"]
    line = Hose(
        id=fresh_id(hoses, "hose"),
        name="Steam line",
        start=f"engine:{ident}",
        end=vents[0],
        kind="hard",
        bore=quantity("1/4 in", "length"),
        length=quantity("30 in", "length"),
        bends=quantity("3", "count"),
        piece="none" if abs(end.bore.si - 0.00635) < 1e-3 else "reducer",
    )
    return Edit(label, (*changes, Change((*where, "hoses"), (*hoses, line))))


def plumb_heater(build: Build, package: Package, label: str) -> Edit:
    """A heater between the engine's heater ports, with its hoses."""
    hoses, parts, where = list(package.loop.hoses), list(package.loop.parts), loop_path(package)
    ends = {
        role: next((end for end in build.survey.hoses if end.role == role and not end.plugged), None)
        for role in ("heater_out", "heater_in")
    }
    missing = next((role for role, end in ends.items() if end is None), None)
    if missing:
        raise InputError("no_heater_port", "Measure both heater ports of the engine at Survey first")
    heater = next((part for part in parts if part.kind == "heater"), None)
    if heater is None:
        heater = Part(id=fresh_id(tuple(parts), "heater"), kind="heater", bore=quantity("5/8 in", "length"))
        parts.append(heater)
    taken = ports_taken(hoses)
    for name, end, port in (("Heater feed", ends["heater_out"], "in"), ("Heater return", ends["heater_in"], "out")):
        assert end is not None
        mine, its = f"engine:{end.id}", f"{heater.id}:{port}"
        if mine not in taken and its not in taken:
            start, stop = (mine, its) if port == "in" else (its, mine)
            piece: Piece = "none" if abs(end.bore.si - 0.015875) < 2e-3 else "reducer"
            hoses.append(
                Hose(
                    id=fresh_id(tuple(hoses), "hose"),
                    name=name,
                    start=start,
                    end=stop,
                    kind="reinforced",
                    length=quantity("36 in", "length"),
                    bends=quantity("2", "count"),
                    piece=piece,
                )
            )
    return Edit(label, (Change((*where, "parts"), tuple(parts)), Change((*where, "hoses"), tuple(hoses))))


def _renew(do: Doing) -> Edit:
    """A hose as new."""
    path = (*loop_path(do.package), "hoses", do.given("hose"))
    return Edit(do.act.label, (Change((*path, "state"), "good"), Change((*path, "years"), None)))


def wider_way(build: Build, package: Package, ident: str) -> Edit:
    """A hose by points that let its bends be as wide as its kind wants, clear of what stands there. Raises InputError
    where none was found."""
    found = detour(build, package, ident)
    if found is None:
        raise InputError("no_wider_way", "No way was found that is wide enough: another kind of hose, or a hard line")
    points = tuple(
        Via.model_validate({"id": f"p{k}"} | {axis: _length(value) for axis, value in zip("xyz", at, strict=True)})
        for k, at in enumerate(found, 1)
    )
    path = (*loop_path(package), "hoses", ident)
    return Edit(
        "A wider way for a hose",
        (Change((*path, "via"), points), Change((*path, "length"), None), Change((*path, "bends"), None)),
    )


KINDS_OF_PART: tuple[tuple[PartKind, str], ...] = (
    ("pump", "Electric pump"),
    ("heater", "Heater core"),
    ("surge_tank", "Surge tank, in line"),
    ("expansion_tank", "Expansion tank, beside the flow"),
    ("overflow", "Overflow bottle"),
    ("filler", "Filler neck"),
    ("bleed", "Bleed piece"),
    ("tee", "Tee"),
    ("crossover", "Crossover pipe"),
    ("thermostat", "Thermostat housing, in line"),
)
USUAL = {
    "pump": {"bore": ("1 1/2 in", "length")},
    "heater": {"bore": ("5/8 in", "length")},
    "surge_tank": {"holds": ("2 L", "volume")},
    "expansion_tank": {"holds": ("2 L", "volume")},
    "overflow": {"holds": ("1.5 L", "volume")},
}
"""what a part of a kind is added with"""


def _add_part(do: Doing) -> Edit:
    kind = do.given("kind")
    words = dict(KINDS_OF_PART).get(kind)  # type: ignore[call-overload]
    if words is None:
        raise InputError("act_incomplete", f"No part of a circuit is a “{kind}”")
    parts = do.package.loop.parts
    usual = {name: quantity(text, of) for name, (text, of) in USUAL.get(kind, {}).items()}
    name = fresh_name([part.name for part in parts], words.split(",", maxsplit=1)[0])
    part = Part.model_validate({"id": fresh_id(parts, kind.split("_")[0]), "kind": kind, "name": name} | usual)
    return added(do.build, (*loop_path(do.package), "parts"), part, f"Add {name.lower()}")


def _add_hose(do: Doing) -> Edit:
    hose = Hose(id=fresh_id(do.package.loop.hoses, "hose"), kind="reinforced")
    return added(do.build, (*loop_path(do.package), "hoses"), hose, "Add a hose")


def _add_port(do: Doing) -> Edit:
    ports = do.package.core.ports
    port = CorePort(id=fresh_id(ports, "port"), name=f"Core port {len(ports) + 1}")
    return added(do.build, (*do.where, "core", "ports"), port, "Add a port of the core")


def _pulley(do: Doing) -> Edit:
    ratio = do.package.loop.pulley_ratio
    if do.package.loop.pump == "electric" or ratio is None:
        raise InputError("no_pulley", "The pump is electric, or its pulley is not known")
    return set_value(
        (*loop_path(do.package), "pulley_ratio"), quantity(f"{min(1.2 * ratio.si, 3):.2f}", "number"), do.act.label
    )


def _cooler_thermostat(do: Doing) -> Edit:
    present = do.package.loop.thermostat
    if present is None or present.si < 75:
        raise InputError("cool_already", "No thermostat is known, or it opens as cool as they come")
    return set_value(
        (*loop_path(do.package), "thermostat"),
        as_read(present.si - 8.0, "temperature", do.system, "derived"),
        do.act.label,
    )


def _water(do: Doing) -> Edit:
    share = do.package.coolant.glycol_share
    if share is None or share.si <= 0.31:
        raise InputError("water_already", "No more than that is glycol already, or the share is not known")
    return set_value((*do.where, "coolant", "glycol_share"), quantity("30 %", "share"), do.act.label)


def _coolant(do: Doing) -> Edit:
    """Another glycol, another share of it."""
    where = (*do.where, "coolant")
    share = quantity(f"{do.number('share_percent'):g} %", "share", "catalogue")
    return Edit(do.act.label, (Change((*where, "glycol"), do.given("glycol")), Change((*where, "glycol_share"), share)))


FLUSH = ("Flush until what runs out is clear; measure the mix once it has gone round",)
WET = cautions("hoses")
BLEED = ("Fill and bleed it by the plan of Filling, heater on",)
LOOP = ("packages", "*", "loop")
KINDS = (
    ActKind(
        "usual_hoses",
        "The usual upper and lower hose between the ports they belong to",
        lambda do: usual_hoses_edit(do.build, do.package, do.act.label),
        "Put the usual hoses in",
        cautions=WET,
        after=BLEED,
        rests_on=(("survey", "hoses"), ("packages", "*", "place")),
    ),
    ActKind(
        "ordinary_circuit",
        "An ordinary front-mounted circuit: ports, hoses, heater and bottle where none are",
        lambda do: ordinary_edit(do.build, do.package),
        "Make an ordinary circuit",
        after=("Measure what was assumed: ports first",),
        rests_on=(("survey", "hoses"), ("packages", "*", "place")),
    ),
    ActKind(
        "add_surge_tank",
        "A tank in line at the top of the hot side",
        lambda do: add_surge_tank(do.build, do.package, do.act.label),
        "Put a surge tank after the engine",
        cautions=WET,
        before=("Room under the hood above everything that holds coolant",),
        after=BLEED,
        rests_on=(("survey", "hood"), ("packages", "*", "loop", "parts")),
    ),
    ActKind(
        "add_filler",
        "A filler neck at the highest point",
        lambda do: add_filler(do.build, do.package, do.act.label, do.given("at")),
        "Put a filler neck there",
        cautions=WET,
        after=BLEED,
        rests_on=(("survey", "hood"), ("packages", "*", "loop", "parts")),
    ),
    ActKind(
        "add_tee",
        "A tee at a port two hoses want",
        lambda do: add_tee(do.build, do.package, do.act.label, (do.given("hose"), do.given("end"))),
        "Put a tee between them",
        cautions=WET,
        after=BLEED,
        rests_on=(("survey", "hoses"),),
    ),
    ActKind(
        "plumb_steam",
        "A rising line from a steam port to a tank, else to the top of the core",
        lambda do: plumb_steam(do.build, do.package, do.act.label, do.given("port")),
        "Plumb it up to the tank",
        cautions=WET,
        after=BLEED,
        rests_on=(("survey", "hoses"), ("packages", "*", "loop", "parts")),
    ),
    ActKind(
        "plumb_heater",
        "A heater between the engine’s heater ports, with its hoses",
        lambda do: plumb_heater(do.build, do.package, do.act.label),
        "Plumb the heater",
        cautions=WET,
        after=BLEED,
        rests_on=(("survey", "hoses"),),
    ),
    ActKind(
        "renew_hose",
        "A hose as new",
        _renew,
        "Renew it",
        hours=0.5 * HOUR,
        parts=("The hose and new clamps",),
        cautions=WET,
        after=BLEED,
        rests_on=(("packages", "*", "loop", "hoses"),),
    ),
    ActKind(
        "wider_way",
        "A way for a hose that lets its bends be wide enough",
        lambda do: wider_way(do.build, do.package, do.given("hose")),
        "A wider way for a hose",
        after=("A rod bent to it held against the car",),
        rests_on=(("survey", "hoses"), ("survey", "obstacles"), ("packages", "*", "loop", "parts")),
    ),
    ActKind("add_part", "A part of the circuit to place and to join", _add_part, first="y"),
    ActKind("add_hose", "A hose to describe", _add_hose, "Add a hose", first="length"),
    ActKind("add_core_port", "A port of the core to describe", _add_port, "Add a port of the core", first="up"),
    ActKind(
        "pulley",
        "The pump a fifth faster by its pulley",
        _pulley,
        "Pump 20 % faster by its pulley",
        hours=1.5 * HOUR,
        parts=("Pulley and belt",),
        cautions=cautions("belt"),
        after=("Belt straight and tight; no noise at the redline",),
        rests_on=((*LOOP, "pulley_ratio"),),
    ),
    ActKind(
        "cooler_thermostat",
        "A thermostat that opens 8 K earlier",
        _cooler_thermostat,
        "Thermostat 14 °F (8 K) cooler",
        hours=HOUR,
        parts=("Thermostat and gasket",),
        cautions=WET,
        after=(*BLEED, "Fan set points above it still"),
        rests_on=((*LOOP, "thermostat"),),
    ),
    ActKind(
        "water",
        "More water in the coolant",
        _water,
        "More water in the coolant (30 % glycol)",
        hours=HOUR,
        cautions=WET,
        before=("How cold it gets where the car stands: this freezes at about 5 °F (−15 °C)",),
        after=FLUSH,
        rests_on=(("packages", "*", "coolant", "glycol_share"),),
    ),
    ActKind(
        "coolant",
        "Another glycol, another share of it",
        _coolant,
        hours=HOUR,
        cautions=WET,
        after=FLUSH,
        rests_on=(("packages", "*", "coolant", "coldest"),),
    ),
)
