"""What raises each finding of the coolant circuit, and what mends it: rows of the table in test_findings."""

from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.loop import Hose, Part, PumpPoint
from keelroom.document.schema.package import CorePort
from keelroom.document.schema.survey import HoseEnd
from tests.changes import FIX
from tests.conftest import DEMO

BUILD = load(DEMO)
P1 = ("packages", "p1")
LOOP = (*P1, "loop")
HOSES, PARTS = (*LOOP, "hoses"), (*LOOP, "parts")
UPPER, LOWER, HEATER, BOTTLE = (*HOSES, "upper"), (*HOSES, "lower"), (*PARTS, "heater"), (*PARTS, "bottle")
LOOP_OF = BUILD.packages[0].loop


def inches(text):
    return quantity(f"{text} in", "length", "measured")


def hoses(*more, **changed):
    """The demo's hoses with some changed by id, and more."""
    kept = tuple(hose.model_copy(update=changed.get(hose.id, {})) for hose in LOOP_OF.hoses)
    return (HOSES, (*kept, *more))


def parts(*more):
    return (PARTS, (*LOOP_OF.parts, *more))


def line(ident, start, end, **more):
    return Hose(
        id=ident, start=start, end=end, length=inches("20"), bends=quantity("1", "count"), kind="reinforced", **more
    )


def pump(**more):
    return Part(id="pump", kind="pump", x=inches("12"), y=inches("-4"), z=inches("8"), bore=inches("1 1/2"), **more)


def points(*pairs):
    return tuple(
        PumpPoint(flow=quantity(f"{q} gpm", "coolant flow"), pressure=quantity(f"{p} psi", "pressure"))
        for q, p in pairs
    )


IN_LINE = [
    parts(Part(id="stat", kind="thermostat")),
    hoses(line("second", "stat:out", "core:inlet"), upper={"end": "stat:in"}),
]
PUMPED = [
    parts(pump()),
    hoses(
        line("on", "pump:out", "engine:lower", bore=quantity("1 1/2 in", "length"), piece="reducer"),
        lower={"end": "pump:in", "piece": "none", "bore": None},
    ),
]
TANK = Part(
    id="tank", kind="expansion_tank", y=inches("20"), x=inches("20"), z=inches("9"), holds=quantity("2 L", "volume")
)
STEAM = HoseEnd(
    id="steam",
    role="steam",
    x=inches("10"),
    y=inches("18"),
    z=inches("25"),
    bore=quantity("1/4 in", "length"),
    faces="up",
)
SECOND = HoseEnd(id="second", role="outlet", name="Second outlet", x=inches("10"), y=inches("18"), z=inches("12"))
VENTED = [(("survey", "hoses"), (*BUILD.survey.hoses, STEAM))]
PORT = CorePort(id="port1", name="Old oil-cooler port", thread="1/4-18 NPT")

LOOP_ROWS = {
    "loop_end": ([((*UPPER, "end"), "")], FIX),
    "loop_taken": ([((*HOSES, "heater_feed", "start"), "engine:upper")], FIX),
    "loop_same": ([((*HOSES, "heater_feed", "end"), "engine:heater_feed")], FIX),
    "loop_joined": ([((*UPPER, "end"), "core:outlet")], FIX),
    "loop_open": ([(HOSES, ())], FIX),
    "part_loose": ([parts(TANK)], [(PARTS, LOOP_OF.parts)]),
    "pump_aside": ([parts(pump()), ((*LOOP, "pump"), "electric")], FIX),
    "cap_weak": ([((*LOOP, "cap_state"), "weak")], FIX),
    "air_left": ([((*LOOP, "air_left"), "some")], FIX),
    "thermostat_reversed": ([((*LOOP, "thermostat_state"), "reversed")], FIX),
    "thermostat_missing": ([((*LOOP, "thermostat_state"), "none")], FIX),
    "two_thermostats": (IN_LINE, FIX),
    "no_pressure_cap": ([((*LOOP, "core_neck"), "plain")], FIX),
    "second_cap": ([((*BOTTLE, "cap"), "pressure")], FIX),
    "cap_over_weakest": ([((*LOOP, "cap_pressure"), "28 psi", "pressure")], FIX),
    "pump_over_part": ([((*HEATER, "stands"), "17 psi", "pressure")], [((*HEATER, "stands"), "30 psi", "pressure")]),
    "pump_curve": (
        [((*LOOP, "pump"), "electric"), ((*LOOP, "pump_curve"), points((0, 5), (10, 6)))],
        [((*LOOP, "pump_curve"), ())],
    ),
    "pump_unused": ([parts(pump())], FIX),
    "pump_absent": ([((*LOOP, "pump"), "both")], FIX),
    "pump_late": ([((*LOOP, "pump"), "electric"), ((*LOOP, "pump_on"), "224 °F", "temperature")], FIX),
    "pump_on_side": ([parts(pump(lying=True)), ((*LOOP, "pump"), "both")], FIX),
    "pump_outlet": ([parts(pump(outlet="down")), ((*LOOP, "pump"), "both")], FIX),
    "pump_high": ([parts(pump().model_copy(update={"y": inches("20")})), ((*LOOP, "pump"), "both")], FIX),
    "pump_not_lowest": ([parts(pump().model_copy(update={"y": inches("8")})), ((*LOOP, "pump"), "both")], FIX),
    "bypass_backwards": ([*PUMPED, ((*LOOP, "pump"), "both")], FIX),
    "suction_boils": (
        [
            ((*LOOP, "cap_pressure"), "0 psi", "pressure"),
            ((*LOWER, "necks"), "5/8 in", "length"),
            ((*LOOP, "pulley_ratio"), "2", "number"),
        ],
        [((*LOWER, "necks"), None), ((*LOOP, "cap_pressure"), "15 psi", "pressure")],
    ),
    "core_flow_small": (
        [((*LOWER, "necks"), "3/16 in", "length"), ((*LOOP, "thermostat"), "120 °F", "temperature")],
        [((*LOWER, "necks"), None)],
    ),
    "tubes_laminar": (
        [(("brief", "engine", "pump_flow"), "25 gpm", "coolant flow")],
        [(("brief", "engine", "pump_flow"), "80 gpm", "coolant flow")],
    ),
    "air_trap": ([], FIX),
    "filler_low": ([(("survey", "hoses", "upper", "y"), "22 in", "length")], FIX),
    "tank_small": ([((*BOTTLE, "holds"), "0.5 L", "volume")], FIX),
    "no_surge_tank": ([((*UPPER, "length"), "9 ft", "length"), ((*LOWER, "length"), "9 ft", "length")], FIX),
    "tank_aside": ([parts(Part(id="tank", kind="surge_tank", holds=quantity("2 L", "volume")))], FIX),
    "vent_wide": (
        [
            *VENTED,
            parts(TANK),
            hoses(line("vent", "engine:steam", "tank:vent", bore=quantity("5/8 in", "length"), piece="sleeve")),
        ],
        FIX,
    ),
    "vent_falls": (
        [
            *VENTED,
            parts(TANK.model_copy(update={"y": inches("12")})),
            hoses(line("vent", "engine:steam", "tank:vent", bore=quantity("1/4 in", "length"))),
        ],
        FIX,
    ),
    "neck_unmeasured": (
        [((*P1, "place", "y"), "3 in", "length")],
        [((*P1, "core", "neck_height"), quantity("1 in", "length"))],
    ),
    "part_over_hood": ([((*BOTTLE, "y"), "30 in", "length")], FIX),
    "coolant_mixed": ([((*LOOP, "old_coolant"), "other")], FIX),
    "waterless_wet": ([((*LOOP, "old_coolant"), "water"), ((*P1, "coolant", "glycol_share"), "100 %", "share")], FIX),
    "no_inhibitor": ([((*P1, "coolant", "inhibitor"), False)], FIX),
    "ground_by_coolant": ([((*LOOP, "ground_strap"), False)], FIX),
    "bores_differ": ([((*LOWER, "piece"), "none"), ((*LOWER, "bore"), "1 1/2 in", "length")], FIX),
    "hose_kink": ([((*UPPER, "kind"), "silicone"), ((*UPPER, "tightest"), "4 in", "length")], FIX),
    "hose_old": ([((*LOWER, "years"), "22", "number")], FIX),
    "near_exhaust": (
        [(("survey", "obstacles", "crossover", "kind"), "exhaust")],
        [(("survey", "obstacles", "crossover", "kind"), "other")],
    ),
    "steam_open": (VENTED, FIX),
    "heater_unplumbed": ([(HOSES, tuple(hose for hose in LOOP_OF.hoses if hose.id != "heater_feed"))], FIX),
    "engine_port_open": ([(("survey", "hoses"), (*BUILD.survey.hoses, SECOND))], FIX),
    "core_port_open": ([((*P1, "core", "ports"), (PORT,))], FIX),
    "core_port_closing": (
        [((*P1, "core", "ports"), (PORT.model_copy(update={"state": "to_close"}),))],
        [((*P1, "core", "ports", "port1", "state"), "plugged")],
    ),
}
FAULTS = {"loop_end", "loop_taken", "loop_same", "loop_joined", "loop_open", "pump_aside"}
"""codes the graph names"""
