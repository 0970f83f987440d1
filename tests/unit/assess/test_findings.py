"""Every finding there is, raised by what it speaks of and gone once that is mended."""

import ast
from pathlib import Path

import pytest

import keelroom.assess
from keelroom.assess.acts.registry import applies, edit_for
from keelroom.assess.assess import assess, completed, first_wave
from keelroom.assess.causes import CAUSES
from keelroom.assess.judge.rests import RESTS
from keelroom.assess.words import CODES
from keelroom.document.edits import apply
from keelroom.document.fields import get
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.brief import CauseCheck
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.moves import Move
from keelroom.document.schema.package import CurvePoint, Cut
from keelroom.document.schema.panels import Panel
from keelroom.document.schema.survey import AirHole, Corner, Hood, SecondReading, Survey
from tests.changes import FIX, HANDS, on
from tests.conftest import DEMO
from tests.told import what_of, why_of
from tests.unit.assess.electrical.rows import ELECTRICAL_ROWS
from tests.unit.assess.loop.rows import FAULTS, LOOP_ROWS

BUILD = load(DEMO)
P1, P2, P3 = (("packages", name) for name in ("p1", "p2", "p3"))
COOLING, OPENING, ENGINE = ("brief", "cooling"), ("survey", "opening"), ("survey", "engine")
FAN1, FAN2 = (*P1, "fans", "fan1"), (*P1, "fans", "fan2")
SHROUD, CORE, COVERS = (*P1, "shroud"), (*P1, "core"), (*P1, "coolers")
REMOTE = (*P1, "coolers", "cooler")
DRIVEN = ((*FAN1, "motor"), "engine")
CIRCUIT, CONTROL, MOUNTING = (*P1, "circuits", "circuit1"), (*P1, "control"), (*P1, "mounting")
BARE = (("active",), "p2")
BOUGHT = (("active",), "p3")


def point(flow, pressure):
    return CurvePoint(flow=quantity(f"{flow} m³/s", "airflow"), pressure=quantity(f"{pressure} Pa", "fan pressure"))


def inches(text):
    return quantity(f"{text} in", "length")


def corner(ident, x, y):
    return Corner(id=ident, x=inches(x), y=inches(y))


def cut(edge, amount="1/2"):
    return Cut(id="cut1", edge=edge, amount=inches(amount))


def named(items, ident):
    return next(item for item in items if item.id == ident)


NO_OBSTACLES = (("survey", "obstacles"), ())
CLEAR = (
    ("survey",),
    Survey(hood=Hood(front=quantity("60 in", "length", "measured"), back=quantity("60 in", "length", "measured"))),
)
"""a bay with nothing in it but a hood far away"""
CHECKED = (("survey", "checks"), ("hood", "belt", "latch", "structure"))
ASSUMED = [("grille_area", "250 in²", "area"), ("exit_area", "300 in²", "area"), ("drag_area", "15 ft²", "area")]
CHARGE = ("supply", "charge_wire")
AMPS_120 = (("brief", "accessories", "alternator_rating"), "120 A", "current")
HEAVY = (((*CHARGE, "size"), "2 AWG", "wire size"), AMPS_120)
FULL_FEED = tuple(((*CIRCUIT, run, "size"), "4 AWG", "wire size") for run in ("feed", "branch", "back"))


def panels(**fields):
    """One panel over the core, and what is said of it."""
    said = {
        name: quantity(text, kind)
        for name, (text, kind) in fields.items()
        if isinstance(text, str) and name not in ("kind", "closes")
    }
    return (
        (*P1, "panels"),
        (
            Panel(
                id="panel1", name="Panel", **{n: v for n, (v, _) in fields.items() if n in ("kind", "closes")}, **said
            ),
        ),
    )


def moves(ident, how, **fields):
    return (
        (*P1, "moves"),
        (Move(id=ident, how=how, **{name: quantity(text, kind) for name, (text, kind) in fields.items()}),),
    )


def own_electronics(**fields):
    return [((*P1, "fans", fan, name), value) for fan in ("fan1", "fan2") for name, value in fields.items()]


def kind_of(ident, kind):
    return (("survey", "obstacles", ident, "kind"), kind)


HALF = {"by_x": ("1/2 in", "length")}
FLAPS = ((*SHROUD, "flap_area"), "40 in²", "area")
STAGED, APART = ((*CONTROL, "strategy"), "two_speed"), ((*CIRCUIT, "switch"), "relays")
TABLE = {
    "not_worked_out": (
        [((*P1, "core", "fin_density"), "1.5 fins/in", "fin density")],
        [((*P1, "core", "fin_density"), "15 fins/in", "fin density")],
    ),
    "gap_assumed": (
        [((*P1, "sealing", "top", "gap"), quantity("3/8 in", "length"))],
        [((*P1, "sealing", edge, "gap"), "3/8 in", "length") for edge in ("left", "right", "bottom", "top")],
    ),
    "air_hole_unmeasured": (
        [(("survey", "air_holes"), (AirHole(id="hole"),))],
        [(("survey", "air_holes", "hole", side), "2 in", "length") for side in ("width", "height")],
    ),
    "flaps_upside_down": ([FLAPS, ((*SHROUD, "flap_hinge"), "bottom")], FIX),
    "flaps_reversed": ([FLAPS, ((*SHROUD, "flap_way"), "toward")], FIX),
    "panel_nothing": ([panels(closes=("nowhere", ""))], FIX),
    "panel_fault": (
        [panels(bead=("1/4 in", "length"), notch_width=("4 in", "length"), notch_depth=("3 in", "length"))],
        FIX,
    ),
    "foam_thin": ([panels(foam=("1/8 in", "length"), foam_gap=("1/2 in", "length"))], FIX),
    "panel_short": ([panels(length=("10 in", "length"))], FIX),
    "move_lost": ([moves("nobody", "removed")], FIX),
    "move_needed": ([kind_of("latch", "latch_support"), moves("latch", "removed")], FIX),
    "slot_long": ([moves("horn", "slotted", by_x=("2 in", "length"))], FIX),
    "move_nowhere": ([moves("horn", "slotted")], [moves("horn", "slotted", **HALF)]),
    "cap_reach": (
        [kind_of("reservoir", "washer_bottle"), moves("reservoir", "slotted", cap_room=("1 in", "length"), **HALF)],
        [moves("reservoir", "slotted", cap_room=("4 in", "length"), **HALF)],
    ),
    "bottle_small": (
        [kind_of("reservoir", "overflow_bottle"), moves("reservoir", "slotted", holds=("100 ml", "volume"), **HALF)],
        FIX,
    ),
    "bottle_unknown": (
        [
            (("survey", "obstacles", "reservoir", "holds"), None),
            kind_of("reservoir", "overflow_bottle"),
            moves("reservoir", "slotted", **HALF),
        ],
        [moves("reservoir", "slotted", holds=("4 L", "volume"), **HALF)],
    ),
    "move_unheld": ([moves("horn", "new_place", left=("22 in", "length"))], FIX),
    "move_caution": ([kind_of("brake", "brake_unit"), moves("brake", "slotted", **HALF)], [((*P1, "moves"), ())]),
    "ring_fault": (
        [((*SHROUD, "ring_opening"), "8 in", "length"), ((*SHROUD, "blank_height"), "12 1/4 in", "length")],
        [((*SHROUD, "ring_opening"), None)],
    ),
    "join_unmeasured": ([((*SHROUD, "joined"), True)], [((*SHROUD, "blank_width"), "14 in", "length")]),
    "join_fans": (
        [
            ((*SHROUD, "joined"), True),
            ((*SHROUD, "blank_width"), "14 in", "length"),
            ((*P1, "fans"), BUILD.package.fans[:1]),
        ],
        FIX,
    ),
    "own_of_none": ([((*CIRCUIT, "switch"), "own")], FIX),
    "mixed_motors": ([((*P1, "fans", "fan1", "controller"), "inside")], FIX),
    "relay_before_electronics": (own_electronics(controller="inside"), FIX),
    "outputs_tied": ([STAGED, ((*CONTROL, "low_speed"), "tied")], FIX),
    "stages_merged": (
        [STAGED, ((*CONTROL, "low_speed"), "merged"), ((*CIRCUIT, "switch"), "parallel")],
        [((*CONTROL, "low_speed"), "one_fan")],
    ),
    "merged_apart": ([STAGED, ((*CONTROL, "low_speed"), "merged")], FIX),
    "brushless_chopped": ([*own_electronics(motor="brushless"), ((*CONTROL, "strategy"), "variable")], FIX),
    "signal_unlike": (own_electronics(controller="inside", signal="level"), FIX),
    "override_nowhere": (
        [*own_electronics(controller="inside"), ((*CIRCUIT, "switch"), "own"), ((*CONTROL, "strategy"), "module")],
        FIX,
    ),
    "fan_gone": ([((*CONTROL, "lead"), "fan9")], [((*CONTROL, "lead"), "")]),
    "lead_fan": ([STAGED, APART, ((*CONTROL, "lead"), "fan2")], FIX),
    "ac_one_controller": (
        [((*CONTROL, "strategy"), "variable"), ((*CONTROL, "ac_request"), True), ((*CONTROL, "ac_fans"), ("fan1",))],
        FIX,
    ),
    # code: what raises it, what mends it
    "missing": ([((*CORE, "face_width"), None)], [((*CORE, "face_width"), "26 in", "length")]),
    "no_fans": ([((*P1, "fans"), ())], [((*P1, "fans"), BUILD.package.fans)]),
    "pump_assumed": ([(("brief", "engine", "pump_flow"), None)], FIX),
    "limit_under_thermostat": ([((*COOLING, "limit"), "180 °F", "temperature")], FIX),
    "ambient_over_limit": (
        [((*COOLING, "limit"), "105 °F", "temperature"), (("brief", "climate", "ambient"), "110 °F", "temperature")],
        [((*COOLING, "limit"), "225 °F", "temperature")],
    ),
    "fan_never_stops": ([(("packages", "p1", "control", "fan_off"), "175 °F", "temperature")], FIX),
    "fan_set_points": ([(("packages", "p1", "control", "fan_on"), "185 °F", "temperature")], FIX),
    "freezes": (
        [(("packages", "p1", "coolant", "glycol_share"), "5 %", "share")],
        [(("packages", "p1", "coolant", "glycol_share"), "50 %", "share")],
    ),
    "limit_over_boiling": (
        [((*COOLING, "limit"), "300 °F", "temperature")],
        [((*COOLING, "limit"), "225 °F", "temperature")],
    ),
    "rows_do_not_fit": (
        [((*CORE, "depth"), "1/2 in", "length"), ((*CORE, "rows"), "6", "count")],
        [((*CORE, "rows"), "2", "count")],
    ),
    "no_shroud": ([((*SHROUD, "kind"), "none")], FIX),
    "fan_larger_than_face": ([((*FAN1, "diameter"), "18 in", "length")], FIX),
    "fan_off_face": ([((*FAN1, "x"), "4 in", "length")], FIX),
    "fans_overlap": ([((*FAN1, "x"), "9 in", "length")], FIX),
    "shroud_off_face": (
        [
            ((*SHROUD, "kind"), "partial"),
            ((*SHROUD, "width"), "30 in", "length"),
            ((*SHROUD, "height"), "17 in", "length"),
        ],
        [((*SHROUD, "width"), "26 in", "length")],
    ),
    "fan_outside_shroud": (
        [
            ((*SHROUD, "kind"), "partial"),
            ((*SHROUD, "width"), "13 in", "length"),
            ((*SHROUD, "height"), "17 in", "length"),
        ],
        [((*SHROUD, "width"), "26 in", "length")],
    ),
    "hub_too_large": ([((*FAN1, "hub_diameter"), "10 in", "length")], [((*FAN1, "hub_diameter"), "4 in", "length")]),
    "fan_rating_only": (
        [],
        [((*fan, "curve"), (point(0, 150), point(0.3, 90), point(0.6, 0))) for fan in (FAN1, FAN2)],
    ),
    "fan_curve": ([((*FAN1, "curve"), (point(0, 100), point(0.5, 150)))], [((*FAN1, "curve"), ())]),
    "fan_too_good": (
        [((*FAN1, "curve"), (point(0, 900), point(0.8, 500), point(1.2, 0)))],
        [((*FAN1, "power"), "2000 W", "power")],
    ),
    "does_not_settle": ([], [(("duty_cases",), tuple(c for c in BUILD.duty_cases if c.id != "full"))]),
    "over_limit": (
        [],
        [(("duty_cases", "grade", "grade"), "0 %", "share"), (("duty_cases", "grade", "towed_mass"), "0 lb", "mass")],
    ),
    "band_over_limit": (
        [(("duty_cases", "grade", "towed_mass"), "1900 lb", "mass")],
        [(("duty_cases", "grade", "grade"), "1 %", "share")],
    ),
    "power_short": (
        [(("duty_cases", "grade", "grade"), "40 %", "share")],
        [(("duty_cases", "grade", "grade"), "1 %", "share")],
    ),
    "outside_correlation": ([((*CORE, "depth"), "4 in", "length")], [((*CORE, "depth"), "2 1/4 in", "length")]),
    "slow_air": (
        [((*FAN1, "runs"), False), ((*FAN2, "runs"), False)],
        [((*FAN1, "runs"), True), ((*FAN2, "runs"), True)],
    ),
    "rule_differs": (
        [],
        [(("brief", "engine", "displacement"), "1.0 L", "displacement"), (("brief", "engine", "displacement"), None)],
    ),
    "assumed": ([], [(("brief", "vehicle", name), text, kind) for name, text, kind in ASSUMED]),
    "unlike_seen": (
        [(("duty_cases", "idle", "seen"), "hot"), (("duty_cases", "idle", "seen_at"), "245 °F", "temperature")],
        [(("duty_cases", "idle", "seen"), "fine"), (("duty_cases", "idle", "seen_at"), None)],
    ),
    "judged_mended": (
        [(("brief", "causes"), (CauseCheck(id="timing", state="found", size="very late or lean"),))],
        [(("brief", "causes"), ())],
    ),
    "cheap_cause": ([], [(("brief", "causes"), tuple(CauseCheck(id=one.id, state="fine") for one in CAUSES))]),
    "panel_hides": ([], [((*OPENING, "width"), "40 in", "length"), ((*OPENING, "height"), "40 in", "length")]),
    "cover_off_face": (
        [((*COVERS, "condenser", "left"), "9 in", "length")],
        [((*COVERS, "condenser", "left"), "2 in", "length")],
    ),
    "cover_over_opening": (
        [((*COVERS, "condenser", "height"), "25 in", "length"), ((*OPENING, "height"), "12 in", "length")],
        [((*COVERS,), ())],
    ),
    "shroud_without_fan": (
        [
            ((*SHROUD, "kind"), "partial"),
            ((*SHROUD, "width"), "2 in", "length"),
            ((*SHROUD, "height"), "2 in", "length"),
        ],
        FIX,
    ),
    "fan_beside_face": ([((*FAN1, "x"), "60 in", "length")], [((*FAN1, "x"), "6 1/2 in", "length")]),
    "stopped_fan": ([((*FAN1, "runs"), False)], [((*FAN1, "runs"), True)]),
    "reversed_blade": ([((*FAN1, "reversed_blade"), True)], [((*FAN1, "reversed_blade"), False)]),
    "pusher_alone": ([((*FAN1, "mount"), "pusher"), ((*FAN2, "runs"), False)], FIX),
    "edge_leak": ([((*SHROUD, "edge_gap"), "1 in", "length")], FIX),
    "recirculation": (
        [],
        [((*P1, "sealing", edge, "gap"), "0 in", "length") for edge in ("left", "right", "bottom", "top")],
    ),
    "bypass": ([], [((*P1, "sealing", edge, "gap"), "0 in", "length") for edge in ("left", "right", "bottom", "top")]),
    "gearbox_hot": (
        [
            (("brief", "vehicle", "gearbox"), "automatic"),
            (("brief", "vehicle", "in_tank_cooler"), False),
            (
                COVERS,
                (
                    Cooler(
                        id="box",
                        kind="gearbox_cooler",
                        width=inches("4"),
                        height=inches("4"),
                        conductance=quantity("20 W/m²K", "face conductance"),
                    ),
                ),
            ),
        ],
        [
            ((*COVERS, "box", "conductance"), "2500 W/m²K", "face conductance"),
            ((*COVERS, "box", "width"), "20 in", "length"),
            ((*COVERS, "box", "height"), "14 in", "length"),
        ],
    ),
    "ac_cuts_out": ([((*P1, "fans"), ())], [(("duty_cases", case.id, "ac_on"), False) for case in BUILD.duty_cases]),
    "fit_more": ([((*P1, "place", "z"), "8 in", "length")], [CLEAR]),
    "fit_tight": ([], [CLEAR]),
    "fit_overlaps": ([], [CLEAR]),
    "fit_under": ([BOUGHT], [CLEAR]),
    "not_surveyed": ([(("survey",), Survey())], [(("survey",), BUILD.survey)]),
    "fit_unmeasured": (
        [],
        [
            (("survey", "obstacles"), tuple(o for o in BUILD.survey.obstacles if o.id != "brace")),
            (("survey", "hoses"), ()),
        ],
    ),
    "measure_next": ([], [(("survey",), Survey())]),
    "obstacle_in_core": (
        [
            (("survey", "obstacles", "horn", axis), text, "length")
            for axis, text in (("left", "10 in"), ("bottom", "8 in"), ("front", "0 in"))
        ],
        [(("survey", "obstacles"), ())],
    ),
    "depth_contradiction": (
        [
            ((*ENGINE, "block_depth"), "30 in", "length"),
            ((*ENGINE, "pulley_stack"), "3 in", "length"),
            ((*ENGINE, "turning", "pulley", "depth"), "9 in", "length"),
        ],
        [((*ENGINE, "block_depth"), "12 in", "length")],
    ),
    "rails_contradiction": (
        [
            (("survey", "rails", "left"), "-3 in", "length"),
            (("survey", "rails", "right"), "27 in", "length"),
            (("survey", "rails", "between"), "33 in", "length"),
        ],
        [(("survey", "rails", "between"), "30 in", "length")],
    ),
    "opening_crosses": (
        [((*OPENING, "corners"), (corner("a", 0, 0), corner("b", 20, 20), corner("c", 20, 0), corner("d", 0, 20)))],
        [((*OPENING, "corners"), (corner("a", 0, 0), corner("b", 20, 0), corner("c", 20, 20), corner("d", 0, 20)))],
    ),
    "opening_corners": (
        [((*OPENING, "corners"), (corner("a", 0, 0), corner("b", 20, 20)))],
        [((*OPENING, "corners"), ())],
    ),
    "readings_differ": (
        [(("survey", "second"), (SecondReading(id="engine.turning.nose.depth", value=inches("11")),))],
        FIX,
    ),
    "cut_refused": ([((*OPENING, "left_edge"), "no_go"), ((*P1, "cuts"), (cut("left"),))], FIX),
    "cut_stamped": ([((*P1, "cuts"), (cut("bottom"),))], [((*P1, "cuts"), (cut("left"),))]),
    "cut_checks": ([((*P1, "cuts"), (cut("left"),))], [((*P1, "cuts"), ())]),
    "cut_structural": ([((*P1, "cuts"), (cut("left"),))], [NO_OBSTACLES]),
    "bracket_fault": ([((*P1, "brackets", "bracket1", "end"), "")], [((*P1, "brackets"), ())]),
    "through_fins": ([((*MOUNTING, "fan_to"), "through_fins")], FIX),
    "no_float": ([((*MOUNTING, "float_gap"), "0 in", "length")], [((*MOUNTING, "float_gap"), "1/8 in", "length")]),
    "frame_fault": (
        [((*MOUNTING, "frames", "frame1", "lap"), "1 7/8 in", "length")],
        [
            ((*MOUNTING, "frames", "frame1", "lap"), "1/8 in", "length"),
            ((*MOUNTING, "frames", "frame1", "fitted"), False),
        ],
    ),
    "cooler_fault": ([((*REMOTE, "side_room"), "0 in", "length")], [((*REMOTE, "side_room"), "1 in", "length")]),
    "oil_hot": (
        [
            (
                COVERS,
                (*BUILD.package.coolers, Cooler(id="oil", kind="oil_cooler", width=inches("3"), height=inches("3"))),
            )
        ],
        [(COVERS, ())],
    ),
    "charge_hot": ([], [(COVERS, ())]),
    "steering_hot": (
        [
            (
                COVERS,
                (
                    Cooler(
                        id="ps",
                        kind="steering_cooler",
                        width=inches("1"),
                        height=inches("1"),
                        conductance=quantity("20 W/m²K", "face conductance"),
                    ),
                ),
            ),
            (("brief", "accessories", "steering_power"), "2 kW", "power"),
        ],
        [(("brief", "accessories", "steering_power"), "0.02 kW", "power")],
    ),
    "gearbox_cold": ([], FIX),
    "cooler_no_heat": (
        [(("brief", "engine", "boost"), "0 psi", "pressure")],
        [(("brief", "engine", "boost"), "11 psi", "pressure")],
    ),
    "core_over_room": (
        [(("survey", "room_width"), "28 in", "length")],
        [(("survey", "room_width"), "32 in", "length")],
    ),
    "lies_at_grille": ([((*P1, "place", "lean"), "85 °", "angle")], FIX),
    "cut_belt_open": (
        [
            (("survey", "engine", "out"), True),
            (("survey", "engine", "turning"), ()),
            ((*P1, "cuts"), (Cut(id="cut1", edge="top", amount=inches("1/2")),)),
        ],
        [(("survey", "engine", "out"), False)],
    ),
    "two_outputs": (
        [((*P1, "control", "strategy"), "two_speed"), ((*P1, "fans"), BUILD.package.fans[:1])],
        FIX,
    ),
    "cooler_fan_late": ([((*REMOTE, "fan_on"), quantity("230 °F", "temperature"))], FIX),
    "cooler_fan_rests": (
        [((*REMOTE, "fan_on"), quantity("185 °F", "temperature"))],
        [((*REMOTE, "fan_on"), None)],
    ),
    "cooler_shut": ([((*REMOTE, "spacer"), "0 in", "length")], FIX),
    "cooler_choked": (
        [((*REMOTE, "width"), "20 in", "length"), ((*REMOTE, "height"), "12 in", "length")],
        [((*REMOTE, "spacer"), "4 in", "length")],
    ),
    "opening_larger": ([((*REMOTE, "opening"), "400 in²", "area")], [((*REMOTE, "opening"), "60 in²", "area")]),
    "no_own_air": ([((*REMOTE, "stands"), "bay"), ((*REMOTE, "fans"), "0", "count")], FIX),
    "hose_kinks": ([((*REMOTE, "tightest"), "1 in", "length")], [((*REMOTE, "tightest"), "4 in", "length")]),
    "lines_long": ([((*REMOTE, "line_length"), "40 ft", "length")], [((*REMOTE, "line_length"), "8 ft", "length")]),
    "lines_narrow": ([((*REMOTE, "line_bore"), "1/4 in", "length")], [((*REMOTE, "line_bore"), "1/2 in", "length")]),
    "coolers_meet": ([], FIX),
    "fan_too_fast": (
        [DRIVEN, ((*FAN1, "safe_rpm"), "3000 rpm", "turning speed")],
        [((*FAN1, "safe_rpm"), "9000 rpm", "turning speed")],
    ),
    "clutch_late": ([DRIVEN, ((*FAN1, "engages"), "240 °F", "temperature")], FIX),
    "generator_rating": ([(("supply", "charger"), "generator")], FIX),
    "generator_pulley": ([(("supply", "charger"), "generator")], FIX),
    "fan_meets_core": ([DRIVEN, ((*FAN1, "nose"), "3.30 in", "length")], FIX),
    "immersion": ([DRIVEN, ((*FAN1, "immersion"), "10 %", "share")], FIX),
    "bolt_in_hole": (
        [(("survey", "holes", "upper_left", "diameter"), "1/8 in", "length")],
        [(("survey", "holes", "upper_left", "diameter"), "5/16 in", "length")],
    ),
    "pan_fault": ([((*SHROUD, "flange"), "1/8 in", "length")], [((*SHROUD, "flange"), "3/4 in", "length")]),
    "trim_fault": (
        [BOUGHT, ((*P3, "shroud", "trim_left"), "6 in", "length")],
        [((*P3, "shroud", "trim_left"), "3/8 in", "length")],
    ),
    "fans_off_rings": ([BOUGHT, ((*P3, "shroud", "trim_left"), "1 in", "length")], FIX),
    "shroud_proud": ([BOUGHT], FIX),
    "shroud_narrow": (
        [BOUGHT, ((*P3, "shroud", "blank_width"), "20 in", "length")],
        [((*P3, "shroud", "blank_width"), "24 in", "length")],
    ),
    # electrical ones that are not in the electrical table
    "sources_differ": (
        [
            ((*CIRCUIT, "sources"), ("battery", "ignition")),
            (("supply", "sources", "ignition", "voltage"), "24 V", "voltage"),
        ],
        [(("supply", "sources", "ignition", "voltage"), "12 V", "voltage")],
    ),
    "fuse_start": ([((*CIRCUIT, "fuse"), "40 A", "current"), *FULL_FEED], FIX),
    "charge_cable_hot": (
        [((*CHARGE, "size"), "10 AWG", "wire size"), ((*CHARGE, "length"), "1 ft", "length"), AMPS_120],
        FIX,
    ),
    "charge_place": ([((*CHARGE, "ambient"), "260 °F", "temperature")], [((*CHARGE, "cable"), "iso_d")]),
    "charge_unfused": ([], FIX),
    "charge_fuse_small": ([*HEAVY, (("supply", "charge_fuse"), "100 A", "current")], FIX),
    "charge_fuse_over": ([*HEAVY, (("supply", "charge_fuse"), "300 A", "current")], FIX),
    "fan_on_near_limit": ([(("packages", "p1", "control", "fan_on"), "226 °F", "temperature")], FIX),
    "voltage_contradicts": (
        [(("brief", "accessories", "idle_voltage"), "13.9 V", "voltage")],
        [(("brief", "accessories", "idle_voltage"), None)],
    ),
    "tubes_in_transition": (
        [(("brief", "engine", "pump_flow"), "60 gpm", "coolant flow")],
        [((*CORE, "turbulator"), "3", "number")],
    ),
    "waterless": ([(("packages", "p1", "coolant", "glycol_share"), "100 %", "share")], FIX),
    "copper_claim": ([BARE], [(("packages", "p2", "core", "material"), "aluminium")]),
    "regulator_odd": ([(("supply", "regulated"), "19 V", "voltage")], FIX),
    "voltage_odd": ([(("brief", "accessories", "road_voltage"), "24 V", "voltage")], FIX),
    "reserve_contradicts": ([(("supply", "reserve"), "20 min", "minutes")], FIX),
    "speed_limit_low": ([(("supply", "speed_limit"), "900 rpm", "turning speed")], FIX),
    "package_kind_twice": ([(("packages", "p1", "kind"), "as_found")], FIX),
    "unlikely": (
        [(("brief", "vehicle", "tyre_diameter"), "2.6 in", "length")],
        [(("brief", "vehicle", "tyre_diameter"), "26 in", "length")],
    ),
    "redline_low": ([(("supply", "redline"), "600 rpm", "turning speed")], FIX),
    "feeds_unknown": ([((*CIRCUIT, "feeds"), ("fan1", "fan2", "fan9"))], FIX),
    "drop_too_small": ([((*CIRCUIT, "measured_drop"), "0.1 V", "voltage")], FIX),
    "source_low": (
        [((*fan, "rated_voltage"), "24 V", "voltage") for fan in (FAN1, FAN2)],
        [((*fan, "rated_voltage"), "12 V", "voltage") for fan in (FAN1, FAN2)],
    ),
    "second_off_over": (
        [((*CONTROL, "strategy"), "two_speed"), ((*CONTROL, "second_off"), "210 °F", "temperature")],
        FIX,
    ),
    "trim_without_blank": ([((*SHROUD, "trim_left"), "1/2 in", "length")], FIX),
    "ramp_through_relay": ([((*CONTROL, "strategy"), "variable")], FIX),
}


TABLE |= LOOP_ROWS | ELECTRICAL_ROWS
LONGEST_ACT = 38
"""letters that go onto a button as wide as the panel"""


def telling(build):
    """The build with the cases that tell: idle, road, grade, and those that are not the demo's."""
    own = {case.id: case for case in BUILD.duty_cases}
    kept = tuple(
        case for case in build.duty_cases if case.id in ("idle", "cruise", "grade", "full") or case != own.get(case.id)
    )
    return build.model_copy(update={"duty_cases": kept})


SOUND = first_wave(telling(BUILD))


LATER = ("battery_down", "unlike_seen")
"""codes the second wave alone tells"""


def codes(build, previous=SOUND, later=False):
    found = first_wave(telling(build), previous=previous)
    whole = completed(found.build, found) if later else found
    return {finding.code: finding for finding in whole.findings}


@pytest.mark.parametrize("code", TABLE)
def test_a_finding_is_raised_by_its_cause_and_gone_once_that_is_mended(code):
    wrong, mend = TABLE[code]
    build = on(BUILD, *wrong)
    finding = codes(build, later=code in LATER).get(code)
    assert finding is not None, "not raised"
    assert what_of(finding)
    assert len(why_of(finding)) > 15
    assert bool(finding.fix) or mend is not FIX, "offers no fix"
    assert not finding.fix or mend is not HANDS, "is mended with hands"
    if mend not in (FIX, HANDS):
        assert code not in codes(on(build, *mend), later=code in LATER), "still there"


def test_every_fix_that_is_offered_removes_what_it_is_offered_for():
    """Whatever else is wrong: each fix of each finding these builds have, applied, takes that finding away and no
    field away.

    What a finding says it rests on is there to be looked at."""
    tried, left, last, compared, mended = set(), [], first_wave(telling(BUILD)), set(), set()
    assert set(RESTS) <= set(CODES)
    for code, (wrong, mend) in TABLE.items():
        build = telling(on(BUILD, *wrong))
        before = first_wave(build, previous=last)
        for finding in before.findings:
            compared |= {finding.code} if finding.also else set()
            for path in finding.also:
                get(build, path)
            for fix in finding.fix:
                key = (finding.code, finding.where, fix.code, fix.path, fix.given)
                own = finding.code == code and mend is FIX
                if (key in tried and not own) or not applies(build, fix):
                    continue
                tried.add(key)
                assert len(fix.label) <= LONGEST_ACT, fix.label
                after = first_wave(apply(build, edit_for(build, fix)), previous=before).findings
                if own:
                    mended.add(code)
                    assert code not in {f.code for f in after}, f"still there after “{fix.label}”"
                alike = [f for f in after if (f.code, f.where) == (finding.code, finding.where)]
                same = [f for f in alike if what_of(f) == what_of(finding)]
                # One of several that share in a cause makes it less; whatever else is said has to be gone.
                if any(
                    f.value is None or finding.value is None or abs(f.value) >= abs(finding.value) - 1e-9 for f in same
                ):
                    left.append((finding.code, fix.label, what_of(finding), finding.value, [f.value for f in same]))
    assert not left
    assert mended == {code for code, (_, mend) in TABLE.items() if mend is FIX}
    assert len(tried) > 90
    assert len(compared) > 100


def every_code():
    """The codes the judges can give, read off their sources."""
    found = set()
    for path in Path(keelroom.assess.__file__).parent.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "Finding":
                first = node.args[0]
                found.add(first.value if isinstance(first, ast.Constant) else ast.unparse(first))
    return found


def test_no_finding_is_without_its_row():
    """One code is made of the gap's state; its rows stand for it. Panels and moves are judged in their planners,
    which name theirs."""
    hot = {f"{fluid}_hot" for fluid in ("gearbox", "oil", "charge", "steering")}
    told = {
        "panel_nothing",
        "panel_fault",
        "foam_thin",
        "panel_short",
        "move_needed",
        "slot_long",
        "move_nowhere",
        "cap_reach",
        "bottle_small",
        "bottle_unknown",
    }
    told |= FAULTS
    made = (
        every_code() - {"f'fit_{gap.state}'", "f'{fluid}_hot'", "code", "fault.code"}
        | {"fit_overlaps", "fit_under"}
        | hot
        | told
    )
    assert made - set(TABLE) == set()
    assert len(made) > 110
    assert set(TABLE) == made, "a row without a finding"
    assert set(CODES) == made, "each code says what it means, and none is of nothing"
    assert all(meaning[0].isupper() and not meaning.endswith(".") for meaning in CODES.values())


def test_what_is_done_is_not_offered_again_and_mending_comes_to_an_end():
    """The first fix that is offered, applied again and again: no build comes twice, and at the end nothing is left to
    offer."""
    for start in (
        BUILD,
        on(BUILD, ((*P1, "circuits"), ())),
        on(BUILD, (("brief", "accessories", "alternator_rating"), "60 A", "current")),
    ):
        build, seen = start, [start]
        for _ in range(30):
            offered = [fix for finding in assess(build).findings for fix in finding.fix if applies(build, fix)]
            if not offered:
                break
            build = apply(build, edit_for(build, offered[0]))
            assert build not in seen, offered[0].label
            seen.append(build)
        assert not offered
        assert len(seen) > 5
