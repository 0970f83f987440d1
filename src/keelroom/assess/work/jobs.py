"""What is done to the car: the difference between the car as found and a package, each thing of it in one job.

The one enumeration steps, hours, cost, shopping, cautions and record go by.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from typing import NamedTuple, TypeVar

from pydantic import BaseModel

from keelroom.assess.fit.moves import CAUTIONED, HOW_WORDS, seconds
from keelroom.assess.fit.panels import HOURS, panel_name
from keelroom.assess.inputs.coolant.ports import part_name
from keelroom.assess.inputs.coolant.routes import hose_name
from keelroom.assess.inputs.coolant.volumes import purchase_of, volumes_of
from keelroom.assess.placing import size_of
from keelroom.core.kept import by_identity
from keelroom.document.fields import Path, measured_fields
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.loop import Hose
from keelroom.document.schema.package import Core, Fan, Package
from keelroom.document.schema.survey import Survey
from keelroom.units import both

USUAL_EDGE, USUAL_HOSE, LONG_HOSE = 0.6, 0.6, 1.6
"""[m] of a panel's edge and of a hose nobody measured; of a line that is laid, not pushed on (common practice)."""
HALF = 0.5
"""[m] of a cut the table's minutes are for"""
HUNDRED = 6000.0
"""[s] the table's minutes are for where a thing brings hours of its own"""
BOUGHT_PANEL = 0.65
"""[h] to fit a panel that is bought, its price known (common practice: a bolt-in one takes under an hour)."""
PLUGGED = {"plugged": "by a plug", "to_close": "for good"}
NO_NAME = frozenset(("name", "cost", "basis", "kit", "condition"))
"""What of a part is no work."""
COOLER_CAUTIONS = {"condenser": "refrigerant", "gearbox_cooler": "gearbox"}
COOLER_LITRES = {"gearbox_cooler": 1.5, "oil_cooler": 0.8, "steering_cooler": 0.4, "water_charge_cooler": 2.0}
"""[L] of its own fluid that is topped up (common practice)."""
M = TypeVar("M", bound=BaseModel)


class Job(NamedTuple):
    """One thing done to the car. acts : of the table of steps, in their order;  ident : its own, for good
    about : the path of what it is about;  words, figures : what its steps name and multiply by
    """

    ident: str
    acts: tuple[str, ...]
    about: Path
    name: str
    words: tuple[tuple[str, str], ...] = ()
    figures: tuple[tuple[str, float], ...] = ()

    @property
    def item(self) -> str:
        """What it brings, on the shopping list: its own in every package."""
        return f"{self.about[1]}/{self.ident}" if self.about[0] == "packages" else self.ident

    def figure(self, name: str) -> float:
        """A figure of it; 1 where the step goes by none."""
        return dict(self.figures).get(name, 1.0) if name else 1.0


@by_identity(4096)
def same(one: BaseModel | None, other: BaseModel | None) -> bool:
    """Whether two parts are alike but for what they are called and cost."""
    if one is None or other is None or type(one) is not type(other):
        return one is other
    return one is other or all(
        getattr(one, name) == getattr(other, name) for name in type(one).model_fields if name not in NO_NAME
    )


@by_identity(32)
def jobs_of(build: Build, package: Package) -> tuple[Job, ...]:
    """All that is done to the car for a package; nothing for the car as found itself."""
    found = build.of_kind("as_found")
    if found is not None and (found is package or found.id == package.id):
        return ()
    change = _Change(build, package, found)
    own = tuple(change.all())
    return (*_before(change, own), *own, *_after(change, own)) if own else ()


def recored(core: Core, found: Core) -> bool:
    """Whether the car's own brass tanks go on to another core: the car is off the road while that is away."""
    if core.material != "copper_brass" or found.material != "copper_brass":
        return False
    tanks = ("flow", "face_width", "face_height", "tank_size")
    made = ("depth", "rows", "fin_density", "fin_height")
    alike = all(_figure(core, name) == _figure(found, name) for name in tanks)
    return alike and any(_figure(core, name) != _figure(found, name) for name in made)


def _figure(core: Core, name: str) -> object:
    value = getattr(core, name)
    return value.si if isinstance(value, Quantity) else value


def _by_id(parts: Iterable[M]) -> dict[str, M]:
    return {getattr(part, "id", ""): part for part in parts}


class _Change:
    """A package against the car as found; of a car nobody described all of it is new, core and shroud there were."""

    def __init__(self, build: Build, package: Package, found: Package | None) -> None:
        self.build, self.package, self.found = build, package, found
        self.at: Path = ("packages", package.id)
        self.was: Path = ("packages", found.id) if found else self.at
        self.core = found is None or not same(package.core, found.core) or package.place != found.place
        self.shroud = found is None or not same(package.shroud, found.shroud)

    def all(self) -> Iterator[Job]:
        """Every job on a part."""
        yield from self.taken_out()
        yield from self.fitted()
        yield from self.metal()
        yield from self.circuit()
        yield from self.electrics()

    # out of the car

    def taken_out(self) -> Iterator[Job]:
        found = self.found
        if self.core:
            yield Job("take_core", ("take_core",), (*self.was, "core"), "Core, out")
        had = found is None or found.shroud.kind != "none"
        if had and (self.core or self.shroud):
            yield Job("take_shroud", ("take_shroud",), (*self.was, "shroud"), "Shroud, out")
        if found is None:
            yield from (self._condenser_out(one) for one in self.package.coolers if one.kind == "condenser")
            return
        yield from self._gone("take_fan", "fans", found.fans, self.package.fans)
        yield from self._gone("take_cooler", "coolers", found.coolers, self.package.coolers)
        yield from self._gone("take_circuit", "circuits", found.circuits, self.package.circuits)
        yield from self._gone("take_panel", "panels", found.panels, self.package.panels)
        yield from self._gone("take_bracket", "brackets", found.brackets, self.package.brackets)
        yield from self._gone("take_part", "loop", found.loop.parts, self.package.loop.parts, "parts")
        yield from self._gone("take_hose", "loop", found.loop.hoses, self.package.loop.hoses, "hoses")

    def _condenser_out(self, one: Cooler) -> Job:
        """The condenser there was, of a car nobody described: its refrigerant is recovered first."""
        path, words = (*self.at, "coolers", one.id), (("name", named(one)),)
        return Job(f"take_condenser:{one.id}", ("take_condenser",), path, f"{named(one)}, out", words)

    def _gone(self, act: str, section: str, was: Iterable[M], now: Iterable[M], inside: str = "") -> Iterator[Job]:
        there = _by_id(now)
        for part in was:
            ident = getattr(part, "id", "")
            stays = ident in there and same(part, there[ident])
            if stays and not (act == "take_hose" and self.core):
                continue
            path = (*self.was, section, *((inside,) if inside else ()), ident)
            own = act
            if isinstance(part, Fan) and part.motor == "engine":
                own = "take_engine_fan"
            if isinstance(part, Cooler) and part.kind == "condenser":
                own = "take_condenser"
            name = named(part)
            caution = COOLER_CAUTIONS.get(part.kind, "hot_lines") if isinstance(part, Cooler) else ""
            words = (("name", name), ("caution", caution))
            yield Job(f"{own}:{ident}", (own,), path, f"{name}, out", words)

    # into the car

    def fitted(self) -> Iterator[Job]:
        package, found = self.package, self.found
        if self.core:
            torque = "25 N·m at most"
            acts = ("core", "recore") if found is not None and recored(package.core, found.core) else ("core",)
            yield Job("core", acts, (*self.at, "core"), named(package.core) or "Core", (("torque", torque),))
        for port in self._new(package.core.ports, found.core.ports if found else ()):
            if port.state in PLUGGED:
                yield self._port(port.id, port.name or port.id, port.state)
        if package.remote.away and not (found and found.remote.away):
            yield Job("core_away", ("core_away",), (*self.at, "remote"), "Air for a core that stands away")
        yield from self._shroud()
        yield from map(self._fan, self._new(package.fans, found.fans if found else ()))
        yield from map(self._cooler, self._new(package.coolers, found.coolers if found else ()))

    def _port(self, ident: str, name: str, state: str) -> Job:
        brass = self.package.core.material == "copper_brass"
        closed = state == "to_close"
        words = (
            ("name", name),
            ("state", "capped and soldered or welded" if closed else PLUGGED[state]),
            ("keeps", "no" if closed else "yes"),
            ("tools", "torch or welder" if closed else "spanner"),
            ("uses", "cap=1 pc" if closed else "plug=1 pc"),
            ("caution", "close_brass" if closed and brass else "weld" if closed else "core"),
        )
        return Job(f"port:{ident}", ("port",), (*self.at, "core", "ports", ident), f"Port {name}", words)

    def _shroud(self) -> Iterator[Job]:
        shroud = self.package.shroud
        if shroud.kind == "none" or not (self.shroud or self.core):
            return
        wide, high = size_of(self.package.core)
        edges = sum(side.si > 0 for side in (shroud.trim_left, shroud.trim_right, shroud.trim_bottom, shroud.trim_top))
        rings = 1.0 if shroud.ring_opening is not None else 0.0
        made: tuple[str, ...] = ()
        if self.shroud and shroud.joined:
            made = ("shroud_joined",)
        elif self.shroud and shroud.blank_width is not None and (edges or rings):
            made = ("shroud_bought",)
        elif self.shroud and shroud.blank_width is None and not shroud.supplied:
            made = ("shroud_made",)
        yield Job(
            "shroud",
            (*made, "shroud"),
            (*self.at, "shroud"),
            "Shroud",
            (("area", f"{1.5 * wide * high:.2f}"), ("edges", f"{edges} edges"), ("metres", f"{2 * (wide + high):.1f}")),
            (("edges", float(edges)), ("rings", rings)),
        )

    def _fan(self, fan: Fan) -> Job:
        bare = self.package.shroud.kind == "none" or fan.mount == "pusher"
        act = "engine_fan" if fan.motor == "engine" else "fan_bare" if bare else "fan"
        return Job(f"fan:{fan.id}", (act,), (*self.at, "fans", fan.id), named(fan), (("name", named(fan)),))

    def _cooler(self, cooler: Cooler) -> Job:
        path, name = (*self.at, "coolers", cooler.id), named(cooler)
        if cooler.kind == "condenser":
            return Job(f"cooler:{cooler.id}", ("condenser",), path, name, (("name", name),))
        metres = 0.0 if cooler.kind in ("screen", "charge_cooler") else cooler.line_length.si
        words = (
            ("name", name),
            ("metres", f"{max(metres, 0.3):.1f}"),
            ("litres", f"{COOLER_LITRES.get(cooler.kind, 0.5):g}"),
            ("caution", COOLER_CAUTIONS.get(cooler.kind, "hot_lines")),
        )
        return Job(f"cooler:{cooler.id}", ("cooler",), path, name, words, (("metres_n", max(metres, 0.3)),))

    # metal

    def metal(self) -> Iterator[Job]:
        yield from self._cuts()
        yield from self._moves()
        yield from self._brackets()
        yield from self._panels()

    def _new(self, now: Iterable[M], was: Iterable[M]) -> Iterator[M]:
        """Parts that are not in the car as found, or are another there."""
        there = _by_id(was)
        return (part for part in now if not same(part, there.get(getattr(part, "id", ""))))

    def _cuts(self) -> Iterator[Job]:
        for cut in self._new(self.package.cuts, self.found.cuts if self.found else ()):
            length = edge_length(self.build.survey, cut.edge)
            words = (("name", f"{cut.edge} edge"), ("length", both(length, "length")))
            path = (*self.at, "cuts", cut.id)
            yield Job(f"cut:{cut.id}", ("cut",), path, f"Cut, {cut.edge}", words, (("half_metres", length / HALF),))

    def _moves(self) -> Iterator[Job]:
        obstacles = _by_id(self.build.survey.obstacles)
        for move in self._new(self.package.moves, self.found.moves if self.found else ()):
            obstacle = obstacles.get(move.id)
            if obstacle is None:
                continue
            name, caution = obstacle.name or obstacle.id, str(CAUTIONED.get(obstacle.kind, "move"))
            words = (("name", name), ("how", HOW_WORDS[move.how]), ("caution", caution))
            taken = (("hundredths", seconds(obstacle, move) / HUNDRED),)
            yield Job(f"move:{move.id}", ("move",), (*self.at, "moves", move.id), f"{name}, moved", words, taken)

    def _brackets(self) -> Iterator[Job]:
        package, found = self.package, self.found
        for bracket in self._new(package.brackets, found.brackets if found else ()):
            name, path = bracket.name or bracket.id, (*self.at, "brackets", bracket.id)
            yield Job(f"bracket:{bracket.id}", ("bracket",), path, f"Bracket {name}", _metres(name, 0.3))
        for frame in self._new(package.mounting.frames, found.mounting.frames if found else ()):
            if frame.fitted:
                of = next((named(one) for one in package.coolers if one.id == frame.cooler), "condenser")
                path = (*self.at, "mounting", "frames", frame.id)
                yield Job(f"frame:{frame.id}", ("frame",), path, f"Frame of {of}", _metres(of, 2.4))

    def _panels(self) -> Iterator[Job]:
        for panel in self._new(self.package.panels, self.found.panels if self.found else ()):
            if not panel.fitted:
                continue
            hours = BOUGHT_PANEL if panel.cost is not None and panel.kind == "panel" else HOURS[panel.kind]
            name, long = panel_name(panel), panel.length.si if panel.length else USUAL_EDGE
            words = (*_metres(name, long), ("area", f"{long * panel.depth.si:.2f}"))
            path, taken = (*self.at, "panels", panel.id), (("hundredths", hours * 3600 / HUNDRED),)
            yield Job(f"panel:{panel.id}", ("panel",), path, name, words, taken)

    # coolant

    def circuit(self) -> Iterator[Job]:
        loop, found = self.package.loop, self.found
        was = found.loop if found else None
        for part in self._new(loop.parts, was.parts if was else ()):
            if was is None and part.kind in CARS_OWN:
                continue
            act = "pump" if part.kind == "pump" else "part"
            words = (("name", part_name(part)), ("where", "where it was planned"))
            yield Job(f"part:{part.id}", (act,), (*self.at, "loop", "parts", part.id), part_name(part), words)
        if loop.pump == "electric" and (was is None or was.pump != "electric"):
            own = (("name", "electric pump in the place of the engine’s"),)
            yield Job("pump", ("pump",), (*self.at, "loop", "pump"), "Electric pump", own)
        if was is not None and (loop.thermostat, loop.thermostat_state) != (was.thermostat, was.thermostat_state):
            words = (("name", "thermostat"), ("where", "spring to the engine"))
            yield Job("thermostat", ("part",), (*self.at, "loop", "thermostat"), "Thermostat", words)
        had = _by_id(was.hoses) if was else {}
        for hose in loop.hoses:
            if self.core or not same(hose, had.get(hose.id)):
                yield self._hose(hose)

    def _hose(self, hose: Hose) -> Job:
        metres = hose.length.si if hose.length else USUAL_HOSE
        path, name = (*self.at, "loop", "hoses", hose.id), hose_name(hose)
        if metres < LONG_HOSE:
            size = f"{1000 * hose.bore.si:.0f} mm" if hose.bore else "to measure"
            return Job(f"hose:{hose.id}", ("hose",), path, name, (("name", name), ("clamp", size)))
        words = (("name", name), ("metres", f"{metres:.1f}"), ("clips", f"{math.ceil(metres / 0.3)}"))
        return Job(f"hose:{hose.id}", ("hose_run",), path, name, words, (("metres_n", metres),))

    # wire

    def electrics(self) -> Iterator[Job]:
        package, found = self.package, self.found
        for circuit in self._new(package.circuits, found.circuits if found else ()):
            motors = max(len(circuit.feeds), 1)
            wires = 1 + 2 * motors
            metres = circuit.feed.length.si + motors * (circuit.branch.length.si + circuit.back.length.si)
            name = f"Harness, {circuit.name or circuit.id}"
            words = (
                ("name", circuit.name or circuit.id),
                ("wires", str(wires)),
                ("metres", f"{metres:.1f}"),
                ("shrink", f"{0.08 * wires:.1f}"),
                ("terminals", str(2 * wires)),
            )
            path = (*self.at, "circuits", circuit.id)
            yield Job(f"circuit:{circuit.id}", ("circuit",), path, name, words, (("wires", float(wires)),))
        if any(fan.motor != "engine" for fan in package.fans) and (
            found is None or _set(package) != _set(found) or package.circuits != found.circuits
        ):
            control = package.control
            points = control.fan_on, control.fan_off
            on, off = (both(one.si, "temperature") if one else "its own" for one in points)
            yield Job("control", ("control",), (*self.at, "control"), "Control of the fans", (("on", on), ("off", off)))


def _metres(name: str, metres: float) -> tuple[tuple[str, str], ...]:
    return ("name", name), ("metres", f"{metres:.1f}")


def _set(package: Package) -> object:
    """Its control without what was done at the bench."""
    return package.control.model_copy(update={"done": (), "spun": ()})


CARS_OWN = ("heater",)
"""Parts of the circuit that are the car's own, where nobody said how it was found."""
WET = frozenset(("take_core", "core", "port", "take_part", "take_hose", "part", "pump", "hose", "hose_run"))
OPENS = frozenset(("core", "take_core", "cut", "frame", "condenser", "take_cooler", "take_condenser", "core_away"))
PLAIN = frozenset(("panel", "take_panel"))
"""Acts that let coolant out, that want the front off, that need neither mock-up nor the battery off."""


def _before(change: _Change, own: tuple[Job, ...]) -> Iterator[Job]:
    acts = {act for job in own for act in job.acts}
    yield Job("begin", ("begin",), change.at, "Before anything comes off")
    if acts - PLAIN:
        yield Job("battery", ("battery",), ("supply",), "Battery")
    if acts & OPENS:
        yield Job("front", ("front",), (*change.at, "place"), "Front")
    if acts & WET:
        yield Job("drain", ("drain",), (*change.at, "loop"), "Coolant, out")
    if acts - PLAIN - {"control", "take_circuit", "circuit"}:
        count = assumed_readings(change.build.survey)
        words = (("readings", f"{count} of the survey" if count else "what the trial fit shows"),)
        readings = (("readings", float(min(max(count, 1), 12))),)
        yield Job("mock_up", ("mock_up",), ("survey",), "Mock-up", words, readings)


def _after(change: _Change, own: tuple[Job, ...]) -> Iterator[Job]:
    acts = {act for job in own for act in job.acts}
    if acts & WET or (change.found and change.found.coolant != change.package.coolant):
        volumes = volumes_of(change.build, change.package)
        bought = purchase_of(change.package, volumes.total) if volumes else None
        litres, glycol, water = (
            (1e3 * volumes.total, 1e3 * bought.glycol, 1e3 * bought.water) if volumes and bought else (10.0, 5.0, 5.0)
        )
        words = (("litres", f"{litres:.1f} L"), ("litres_n", f"{glycol:.1f}"), ("water_n", f"{water:.1f}"))
        yield Job("fill", ("fill",), (*change.at, "coolant"), "Coolant, in", words)
    ac = change.build.brief.accessories.ac_fitted and bool(acts - PLAIN)
    yield Job("test", ("test", "test_ac") if ac else ("test",), ("logbook",), "Proof")


@by_identity(32)
def assumed_readings(survey: Survey) -> int:
    """How many readings of the survey are only assumed."""
    return sum(value is not None and value.origin == "assumed" for _, _, value in measured_fields(survey))


def edge_length(survey: Survey, edge: str) -> float:
    """[m] of an edge of the panel's opening."""
    side = survey.opening.height if edge in ("left", "right") else survey.opening.width
    return side.si if side else USUAL_EDGE


def named(part: BaseModel) -> str:
    """What a part is called."""
    if isinstance(part, Hose):
        return hose_name(part)
    return str(getattr(part, "name", "") or getattr(part, "id", "") or type(part).__name__)
