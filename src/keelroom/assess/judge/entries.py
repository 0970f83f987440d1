"""Findings about entries that contradict each other or cannot be: said where they were typed, each with what would
make sense of it."""

from __future__ import annotations

from keelroom.assess.defaults import fastest_named, usual_redline
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found, Level
from keelroom.assess.fixes import choose_act, set_act
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.electrical.system import battery_of, cells_of
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.core.electrical.charging import RESERVE_AMPS, discharge_time
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import PACKAGE_KINDS, Package
from keelroom.facts import given
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


def kinds(build: Build, package: Package, assessment: Assessment) -> Found:
    """A car is found once, and mended once: what reads the difference takes the first of each."""
    for kind, words in PACKAGE_KINDS.items():
        alike = [one for one in build.packages if one.kind == kind and kind != "planned"]
        for first, other in zip(alike[:1] * len(alike), alike[1:], strict=False):
            where = ("packages", other.id, "kind")
            yield Finding(
                "package_kind_twice",
                "doubt",
                where,
                given(name=other.name or other.id, kind=words, first=first.name or first.id),
                fix=(choose_act("It is planned", where, "planned"),),
            )


def _supply(build: Build) -> Found:
    supply = build.supply
    cells = cells_of(max((source.voltage.si for source in supply.sources), default=12.0))
    low, high = (cells * volts for volts in REGULATED)
    if not low <= supply.regulated.si <= high:
        usual = f"{14.2 * cells:g} V"
        yield Finding(
            "regulator_odd",
            "problem",
            ("supply", "regulated"),
            given(
                system=(12 * cells, "voltage"),
                regulated=(supply.regulated.si, "voltage"),
                low=(low, "voltage"),
                high=(high, "voltage"),
            ),
            fix=(set_act(usual, ("supply", "regulated"), usual),),
            value=supply.regulated.si,
            limit=high,
        )
    for field in ("idle_voltage", "road_voltage"):
        measured = getattr(build.brief.accessories, field)
        if measured is not None and measured.si > MOST_MEASURED * battery_of(supply).cells:
            where = ("brief", "accessories", field)
            yield Finding(
                "voltage_odd",
                "problem",
                where,
                given(measured=(measured.si, "voltage"), system=(12 * battery_of(supply).cells, "voltage")),
                fix=(Act("clear", "Not measured", path=where),),
                value=measured.si,
                limit=MOST_MEASURED,
            )
    if supply.reserve is not None:
        by_hours = (
            discharge_time(battery_of(supply.model_copy(update={"reserve": None})), RESERVE_AMPS) / supply.state.si
        )
        ratio = supply.reserve.si / by_hours
        if not RESERVE[0] <= ratio <= RESERVE[1]:
            yield Finding(
                "reserve_contradicts",
                "doubt",
                ("supply", "reserve"),
                given(
                    capacity=(supply.capacity.si, "charge"),
                    by_hours=(by_hours, "minutes"),
                    reserve=(supply.reserve.si, "minutes"),
                ),
                fix=(Act("clear", "Reserve from the amp-hours", path=("supply", "reserve")),),
                source="PEUKERT",
                value=supply.reserve.si,
                limit=by_hours,
            )


def _speeds(build: Build) -> Found:
    supply, engine = build.supply, build.brief.engine
    if engine.idle_rpm and supply.speed_limit.si < engine.idle_rpm.si * supply.pulley_ratio.si:
        yield Finding(
            "speed_limit_low",
            "problem",
            ("supply", "speed_limit"),
            given(
                speed_limit=(supply.speed_limit.si, "turning speed"),
                at_idle=(engine.idle_rpm.si * supply.pulley_ratio.si, "turning speed"),
            ),
            fix=(set_act("15 000 rpm", ("supply", "speed_limit"), "15000 rpm"),),
            value=supply.speed_limit.si,
        )
    least, usual = fastest_named(engine), usual_redline(engine)
    if usual and supply.redline.si < LEAST_REDLINE * least:
        level: Level = "doubt" if supply.redline.origin == "assumed" else "problem"
        yield Finding(
            "redline_low",
            level,
            ("supply", "redline"),
            given(redline=(supply.redline.si, "turning speed"), least=(least, "turning speed")),
            fix=(set_act(usual, ("supply", "redline"), usual),),
            value=supply.redline.si,
            limit=least,
        )


def _circuits(build: Build, package: Package, assessment: Assessment) -> Found:
    known = {motored.id for motored in motors_of(build, package)}
    for circuit in package.circuits:
        lost = [ident for ident in circuit.feeds if ident not in known]
        where = ("packages", package.id, "circuits", circuit.id)
        if lost:
            yield Finding(
                "feeds_unknown",
                "doubt",
                (*where, "feeds"),
                given(name=circuit.name or circuit.id, lost=tuple(lost)),
                fix=(Act("known_feeds", "Only what is there", package.id, (("circuit", circuit.id),)),),
            )
    for figures in assessment.electrics.circuits if assessment.electrics else ():
        circuit = figures.circuit
        where = ("packages", package.id, "circuits", circuit.id)
        name = circuit.name or circuit.id
        least = UNDER_WIRES[0] * figures.worked - UNDER_WIRES[1]
        if (
            circuit.measured_drop is not None
            and figures.motors
            and not figures.fault
            and circuit.measured_drop.si < least
        ):
            yield Finding(
                "drop_too_small",
                "doubt",
                (*where, "measured_drop"),
                given(
                    name=name, measured_drop=(circuit.measured_drop.si, "voltage"), worked=(figures.worked, "voltage")
                ),
                fix=(Act("clear", "Worked out from its wires", path=(*where, "measured_drop")),),
                value=circuit.measured_drop.si,
                limit=figures.worked,
            )
        tied = [source.voltage.si for source in build.supply.sources if source.id in circuit.sources]
        rated = max((motored.motor.voltage for motored in figures.motors), default=0.0)
        if tied and figures.fault != "source" and rated > UNLIKE_VOLTS * max(tied):
            unlike = [m for m in figures.motors if m.motor.voltage > UNLIKE_VOLTS * max(tied)]
            fan = unlike[0] if len(unlike) == 1 and unlike[0].fan else None
            fixes = (
                (
                    set_act(
                        f"Its label says {max(tied):g} V",
                        ("packages", package.id, "fans", fan.id, "rated_voltage"),
                        f"{max(tied):g} V",
                    ),
                )
                if fan
                else ()
            )
            yield Finding(
                "source_low",
                "problem",
                (*where, "sources"),
                given(name=name, rated=(rated, "voltage"), tied=(max(tied), "voltage")),
                fix=fixes,
                value=rated,
                limit=max(tied),
            )


def _stages(package: Package) -> Found:
    control, where = package.control, ("packages", package.id, "control", "second_off")
    if way_of(control).staged and package.fans and control.second_off.si > control.second_on.si - 1:
        off = control.second_on.si - 5
        yield Finding(
            "second_off_over",
            "problem",
            where,
            given(second_on=(control.second_on.si, "temperature"), second_off=(control.second_off.si, "temperature")),
            fix=(set_act(f"Second speed off at {both(off, 'temperature')}", where, f"{off:.1f} °C"),),
            value=control.second_off.si,
            limit=control.second_on.si,
        )


def _trim(package: Package) -> Found:
    shroud = package.shroud
    trimmed = [side for side in ("left", "right", "bottom", "top") if getattr(shroud, f"trim_{side}").si > 0]
    if trimmed and shroud.blank_width is None and shroud.kind != "none":
        yield Finding(
            "trim_without_blank",
            "doubt",
            ("packages", package.id, "shroud", f"trim_{trimmed[0]}"),
            given(trimmed=tuple(trimmed)),
            fix=(Act("clear_trims", "No trim", package.id),),
        )
