"""Findings about entries that contradict each other or cannot be: said where they were typed, each with what would make sense of it."""

from __future__ import annotations

from keelroom.assess.defaults import fastest_named, usual_redline
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Level
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.electrical.system import battery_of
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.assess.wording import Found, choose_act, set_act
from keelroom.core.electrical.charging import RESERVE_AMPS, discharge_time
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import PACKAGE_KINDS, Package
from keelroom.units import both

REGULATED = (13.0, 15.5)
"""Volts the regulator of a 12 V system may hold (common practice)."""
UNLIKE_VOLTS = 1.5
"""Times apart that a motor's rated voltage and its source's are no longer of one system."""
MOST_MEASURED = 15.8
"""Volts no 12 V system shows."""
UNDER_WIRES = (0.6, 0.1)
"""Share of what its wires make, less volts, under which a measured drop was measured wrong."""
RESERVE = (0.5, 1.8)
"""Times what its amp-hours tell that a battery's reserve minutes may be."""
LEAST_REDLINE = 0.95
"""Times idle or greatest power's speed that a redline may be."""


def entries(build: Build, package: Package, assessment: Assessment) -> Found:
    """Every entry held against the others it has to agree with."""
    yield from _supply(build)
    yield from _speeds(build)
    yield from _circuits(build, package, assessment)
    yield from _stages(package)
    yield from _trim(package)
    yield from _kinds(build)


def _kinds(build: Build) -> Found:
    """A car is found once, and mended once: what reads the difference takes the first of each."""
    for kind, words in PACKAGE_KINDS.items():
        alike = [package for package in build.packages if package.kind == kind and kind != "planned"]
        for first, package in zip(alike[:1] * len(alike), alike[1:], strict=False):
            where = ("packages", package.id, "kind")
            yield Finding("package_kind_twice", "doubt", where, f"“{package.name or package.id}” stands for {words} too",
                          f"“{first.name or first.id}” is taken where the two are compared; this one is left aside.", (choose_act("It is planned", where, "planned"),))  # fmt: skip


def _supply(build: Build) -> Found:
    supply = build.supply
    cells = 2.0 if max((source.voltage.si for source in supply.sources), default=12.0) > 20 else 1.0
    low, high = (cells * volts for volts in REGULATED)
    if not low <= supply.regulated.si <= high:
        usual = f"{14.2 * cells:g} V"
        yield Finding("regulator_odd", "problem", ("supply", "regulated"), f"No regulator of a {12 * cells:g} V system holds {supply.regulated.si:g} V",
                      f"{low:g} to {high:g} V is what they hold: under it the battery never fills, over it boils.", (set_act(usual, ("supply", "regulated"), usual),), value=supply.regulated.si, limit=high)  # fmt: skip
    for field in ("idle_voltage", "road_voltage"):
        measured = getattr(build.brief.accessories, field)
        if measured is not None and measured.si > MOST_MEASURED * battery_of(supply).cells:
            where = ("brief", "accessories", field)
            yield Finding("voltage_odd", "problem", where, f"{measured.si:g} V measured on a {12 * battery_of(supply).cells:g} V system",
                          "Either it is another system, and the regulator and sources of this build are wrong, or the meter was read wrong: measure again at the battery’s posts.",
                          (Act("clear", "Not measured", path=where),), value=measured.si, limit=MOST_MEASURED)  # fmt: skip
    if supply.reserve is not None:
        by_hours = discharge_time(battery_of(supply.model_copy(update={"reserve": None})), RESERVE_AMPS) / supply.state.si
        ratio = supply.reserve.si / by_hours
        if not RESERVE[0] <= ratio <= RESERVE[1]:
            yield Finding("reserve_contradicts", "doubt", ("supply", "reserve"), "Reserve minutes and amp-hours are not of one battery",
                          f"{supply.capacity.si / 3600:.0f} Ah would give about {by_hours / 60:.0f} min at 25 A, its label says {supply.reserve.si / 60:.0f}. The minutes are used; read the label again.",
                          (Act("clear", "Reserve from the amp-hours", path=("supply", "reserve")),), "PEUKERT", value=supply.reserve.si, limit=by_hours)  # fmt: skip


def _speeds(build: Build) -> Found:
    supply, engine = build.supply, build.brief.engine
    if engine.idle_rpm and supply.speed_limit.si < engine.idle_rpm.si * supply.pulley_ratio.si:
        yield Finding("speed_limit_low", "problem", ("supply", "speed_limit"), "The alternator’s speed limit lies under what it turns at idle",
                      f"{supply.speed_limit.si * 60:.0f} rpm against {engine.idle_rpm.si * supply.pulley_ratio.si * 60:.0f} at idle; 15 000 and 18 000 rpm units exist. It is the alternator’s own speed, not the engine’s.",
                      (set_act("15 000 rpm", ("supply", "speed_limit"), "15000 rpm"),), value=supply.speed_limit.si)  # fmt: skip
    least, usual = fastest_named(engine), usual_redline(engine)
    if usual and supply.redline.si < LEAST_REDLINE * least:
        level: Level = "doubt" if supply.redline.origin == "assumed" else "problem"
        yield Finding("redline_low", level, ("supply", "redline"), "The redline lies under the speed the engine is said to run at",
                      f"{supply.redline.si * 60:.0f} rpm against {least * 60:.0f} at idle or greatest power: the alternator’s top speed is worked out from it.",
                      (set_act(usual, ("supply", "redline"), usual),), value=supply.redline.si, limit=least)  # fmt: skip


def _circuits(build: Build, package: Package, assessment: Assessment) -> Found:
    known = {motored.id for motored in motors_of(build, package)}
    for circuit in package.circuits:
        lost = [ident for ident in circuit.feeds if ident not in known]
        where = ("packages", package.id, "circuits", circuit.id)
        if lost:
            yield Finding("feeds_unknown", "doubt", (*where, "feeds"), f"{circuit.name or circuit.id}: feeds what is not there",
                          f"{', '.join(lost)}: no fan, pump or cooler of that name with a motor known. It was taken out, or its label’s watts are missing.",
                          (Act("known_feeds", "Only what is there", package.id, (("circuit", circuit.id),)),))  # fmt: skip
    for figures in assessment.electrics.circuits if assessment.electrics else ():
        circuit = figures.circuit
        where = ("packages", package.id, "circuits", circuit.id)
        name = circuit.name or circuit.id
        least = UNDER_WIRES[0] * figures.worked - UNDER_WIRES[1]
        if circuit.measured_drop is not None and figures.motors and not figures.fault and circuit.measured_drop.si < least:
            yield Finding("drop_too_small", "doubt", (*where, "measured_drop"), f"{name}: less drop was measured than its wires alone make",
                          f"{circuit.measured_drop.si:.2f} V measured, {figures.worked:.2f} V by length and size: measured with the fan not at full speed, on one side only, or the wire is thicker than written.",
                          (Act("clear", "Worked out from its wires", path=(*where, "measured_drop")),), value=circuit.measured_drop.si, limit=figures.worked)  # fmt: skip
        tied = [source.voltage.si for source in build.supply.sources if source.id in circuit.sources]
        rated = max((motored.motor.voltage for motored in figures.motors), default=0.0)
        if tied and figures.fault != "source" and rated > UNLIKE_VOLTS * max(tied):
            unlike = [m for m in figures.motors if m.motor.voltage > UNLIKE_VOLTS * max(tied)]
            fan = unlike[0] if len(unlike) == 1 and unlike[0].fan else None
            fixes = (set_act(f"Its label says {max(tied):g} V", ("packages", package.id, "fans", fan.id, "rated_voltage"), f"{max(tied):g} V"),) if fan else ()  # fmt: skip
            yield Finding("source_low", "problem", (*where, "sources"), f"{name}: a {rated:g} V motor on a {max(tied):g} V source",
                          f"It turns at about half its speed and moves half its air. A source of {rated:g} V, or a motor for {max(tied):g} V.", fixes, value=rated, limit=max(tied))  # fmt: skip


def _stages(package: Package) -> Found:
    control, where = package.control, ("packages", package.id, "control", "second_off")
    if way_of(control).staged and package.fans and control.second_off.si > control.second_on.si - 1:
        off = control.second_on.si - 5
        yield Finding("second_off_over", "problem", where, "Second speed must go off below where it comes on",
                      f"On at {both(control.second_on.si, 'temperature')}, off at {both(control.second_off.si, 'temperature')}: its relay would chatter until it welds.",
                      (set_act(f"Second speed off at {both(off, 'temperature')}", where, f"{off:.1f} °C"),), value=control.second_off.si, limit=control.second_on.si)  # fmt: skip


def _trim(package: Package) -> Found:
    shroud = package.shroud
    trimmed = [side for side in ("left", "right", "bottom", "top") if getattr(shroud, f"trim_{side}").si > 0]
    if trimmed and shroud.blank_width is None and shroud.kind != "none":
        yield Finding("trim_without_blank", "doubt", ("packages", package.id, "shroud", f"trim_{trimmed[0]}"), "A trim without a shroud to trim",
                      f"{', '.join(trimmed)} cut, but the width of the shroud as bought is not known: nothing is cut, and none of it counts. Measure it over its flange.",
                      (Act("clear_trims", "No trim", package.id),))  # fmt: skip
