"""Every place a hose can be joined to: ports of the engine, the core and what stands in the circuit, by key."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from keelroom.assess.made import laid_core
from keelroom.assess.placing import Axes, core_depth, size_of, stand_of, tank_size
from keelroom.assess.tape import tolerance
from keelroom.core.kept import by_identity
from keelroom.document.fields import Path
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Hose, Loop, Part
from keelroom.document.schema.package import Core, CorePort, Package, Place, Remote
from keelroom.document.schema.survey import HoseEnd, Opening, Survey

COLD, HOT, OUTLET, INLET = "engine:cold", "engine:hot", "engine:outlet", "engine:inlet"
"""nodes of the engine: at its pump's inlet, in its jacket, and beyond a thermostat at either end"""
CORE_IN, CORE_OUT = "core:inlet", "core:outlet"
ROLE_WORDS = {
    "outlet": "coolant outlet",
    "inlet": "coolant inlet",
    "heater_out": "heater feed",
    "heater_in": "heater return",
    "steam": "steam port",
}
KIND_WORDS = {
    "pump": "Electric pump",
    "thermostat": "Thermostat housing",
    "heater": "Heater core",
    "surge_tank": "Surge tank",
    "expansion_tank": "Expansion tank",
    "overflow": "Overflow bottle",
    "filler": "Filler neck",
    "bleed": "Bleed piece",
    "tee": "Tee",
    "crossover": "Crossover pipe",
}
THROUGH = ("pump", "thermostat", "heater")
"""parts with a way through them; the others are one place to which hoses come"""
SENSES = {"outlet": 1, "heater_out": 1, "steam": 1, "inlet": -1, "heater_in": -1}
"""1 where coolant comes out of a port, -1 where it goes in, 0 either"""
UPPER, LOWER = 0.05, 0.08
"""[m] of the usual necks from a crossflow tank's ends, and from a downflow core's sides"""
Point = tuple[float | None, float | None, float | None]
Vector = tuple[float, float, float]
WAYS: dict[str, Vector] = {
    "front": (0, 0, -1),
    "rear": (0, 0, 1),
    "left": (-1, 0, 0),
    "right": (1, 0, 0),
    "up": (0, 1, 0),
    "down": (0, -1, 0),
}


class Port(NamedTuple):
    """A port. node: the place in the circuit it leads to; sense as SENSES; at: where it is, as far as known; way: out
    of it; bore [m], None where it takes its hose's; path: of what it belongs to."""

    key: str
    name: str
    node: str
    sense: int
    at: Point
    way: Vector | None
    bore: float | None
    path: Path
    loose: Vector = (0.0, 0.0, 0.0)
    """[m] each of its measures may be off"""

    @property
    def place(self) -> Vector | None:
        """Where it is; None where one of its measures is missing."""
        x, y, z = self.at
        return None if x is None or y is None or z is None else (x, y, z)


def necks(core: Core) -> dict[str, Vector]:
    """Where the hoses leave the core, in its own frame: inlet (upper hose) and outlet (lower hose)."""
    width, height = size_of(core)
    tank, depth = tank_size(core), core_depth(core) / 2
    inlet_right = core.inlet_side == "right"
    one_way = int(core.passes.si) % 2 == 1
    if core.flow == "crossflow":
        upper = width + tank / 2 if inlet_right else -tank / 2
        lower = (-tank / 2 if inlet_right else width + tank / 2) if one_way else upper
        return {"upper": (upper, height - UPPER, depth), "lower": (lower, UPPER, depth)}
    sides = {"upper": width - LOWER if inlet_right else LOWER, "lower": LOWER if inlet_right else width - LOWER}
    return {"upper": (sides["upper"], height + tank / 2, depth), "lower": (sides["lower"], -tank / 2, depth)}


def along_tank(core: Core, port: CorePort) -> Vector:
    """Where a port of the core is, in its own frame."""
    u, v, w = necks(core)["upper" if port.tank == "inlet" else "lower"]
    return (u, port.up.si, w) if core.flow == "crossflow" else (port.up.si, v, w)


def ports_of(build: Build, package: Package) -> Mapping[str, Port]:
    """Every port by its key, in the order of the circuit."""
    return ports_in(build.survey, package)


def ports_in(survey: Survey, package: Package) -> Mapping[str, Port]:
    """The same, of what it depends on."""
    core = laid_core(package.core)
    return _ports(survey.hoses, survey.opening, core, package.place, package.loop, package.id, package.remote)


@by_identity(64)
def _ports(
    ends: tuple[HoseEnd, ...], opening: Opening, core: Core, place: Place, loop: Loop, ident: str, remote: Remote
) -> Mapping[str, Port]:
    found = [_engine_port(end, loop) for end in ends]
    found += _core_ports(opening, core, place, ident, remote.away)
    for part in loop.parts:
        found += _part_ports(part, ("packages", ident, "loop", "parts", part.id))
    return {port.key: port for port in found}


def end_name(end: HoseEnd) -> str:
    """What an engine's port is called."""
    usual = {"upper": "Engine outlet", "lower": "Engine inlet"}
    return end.name or usual.get(end.id) or f"Engine {ROLE_WORDS[end.role]}"


def node_of_role(role: str, loop: Loop) -> str:
    """The place in the circuit an engine's port of a role leads to."""
    gated = loop.thermostat_state != "none"
    if role == "outlet":
        return OUTLET if gated and loop.thermostat_place == "outlet" else HOT
    if role == "inlet":
        return INLET if gated and loop.thermostat_place == "inlet" else COLD
    return COLD if role == "heater_in" else HOT


def _engine_port(end: HoseEnd, loop: Loop) -> Port:
    at = (_si(end.x), _si(end.y), _si(end.z))
    node = node_of_role(end.role, loop)
    loose = tuple(tolerance(value) if value is not None else 0.0 for value in (end.x, end.y, end.z))
    where = ("survey", "hoses", end.id)
    return Port(
        f"engine:{end.id}",
        end_name(end),
        node,
        SENSES[end.role],
        at,
        WAYS[end.faces],
        end.bore.si,
        where,
        (loose[0], loose[1], loose[2]),
    )


def _core_ports(opening: Opening, core: Core, place: Place, ident: str, away: bool) -> list[Port]:
    frame = Axes(stand_of(opening, place, core))
    # Of a core away from the grille it is not known which way its necks look.
    out = None if away else frame.axes[2]
    where = ("packages", ident, "core")
    own: dict[str, CorePort] = {
        port.use: port for port in core.ports if port.use in ("inlet", "outlet") and port.state in ("used", "open")
    }
    found = []
    for use, neck, node, sense in (("inlet", "upper", CORE_IN, -1), ("outlet", "lower", CORE_OUT, 1)):
        port = own.get(use)
        at = frame.point(*(along_tank(core, port) if port else necks(core)[neck]))
        bore, path = (port.bore.si, (*where, "ports", port.id)) if port else (None, (*where, "flow"))
        found.append(Port(f"core:{use}", f"Core {use}", node, sense, at, out, bore, path))
    for port in core.ports:
        if port is not own.get(port.use) and port.use not in ("sensor", "drain", "cooler"):
            node = CORE_IN if port.tank == "inlet" else CORE_OUT
            name = port.name or f"Core {port.use if port.use != 'other' else 'port'}"
            at = frame.point(*along_tank(core, port))
            found.append(Port(f"core:{port.id}", name, node, 0, at, out, port.bore.si, (*where, "ports", port.id)))
    return found


def part_name(part: Part) -> str:
    """What a part of the circuit is called."""
    return part.name or KIND_WORDS[part.kind]


PORTS = {
    "pump": (("in", "suction", -1), ("out", "outlet", 1)),
    "thermostat": (("in", "hot side", -1), ("out", "cold side", 1)),
    "heater": (("in", "feed", -1), ("out", "return", 1)),
    "surge_tank": (("in", "inlet", -1), ("out", "outlet", 1), ("vent", "vent port", 0)),
    "expansion_tank": (("feed", "feed", 1), ("vent", "vent port", -1), ("vent2", "second vent port", -1)),
    "overflow": (("in", "inlet", 0),),
    "tee": (("a", "run", 0), ("b", "run", 0), ("c", "branch", 0)),
    "crossover": (("a", "left end", 0), ("b", "right end", 0), ("c", "middle", 0)),
}
INLINE = (("in", "inlet", 0), ("out", "outlet", 0))
"""of a filler neck or a bleed piece"""


def _part_ports(part: Part, path: Path) -> list[Port]:
    name, at, bore = part_name(part), (_si(part.x), _si(part.y), _si(part.z)), _si(part.bore)
    way = WAYS[{"up": "up", "down": "down", "side": "left"}[part.outlet]] if part.kind == "pump" else None
    small = ("vent", "vent2")
    return [
        Port(
            f"{part.id}:{end}",
            f"{name}, {words}",
            f"{part.id}:{end}" if part.kind in THROUGH else part.id,
            sense,
            at,
            way if end == "out" else None,
            None if end in small else bore,
            path,
        )
        for end, words, sense in PORTS.get(part.kind, INLINE)
    ]


def _si(value: Quantity | None) -> float | None:
    return value.si if value is not None else None


def ports_taken(hoses: tuple[Hose, ...] | list[Hose]) -> dict[str, Hose]:
    """Ports by key that a hose is joined to, with that hose."""
    return {key: hose for hose in hoses for key in (hose.start, hose.end)}


def joins_alike(first: Port, last: Port) -> bool:
    """Whether a hose between two ports would join two outlets, or two inlets."""
    return first.sense == last.sense != 0


def places_at(key: str) -> set[str]:
    """A place of the circuit with what is one place with it for a hose that leaves it: the engine's outlet and its
    inside."""
    return {HOT, OUTLET} if key in (HOT, OUTLET) else {key}
