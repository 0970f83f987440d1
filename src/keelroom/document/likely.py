"""What a field is likely to hold, beside what it may: a value outside is accepted, and asked about. Common practice:
what such parts and cars measure, with room for the odd one."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from functools import cache
from typing import NamedTuple

from pydantic import BaseModel

from keelroom.document.fields import Path, measured_fields, models_below, spec_of
from keelroom.document.quantity import Quantity, Spec
from keelroom.document.schema.build import Build
from keelroom.units import KINDS, parse

RANGES = {
    "Vehicle": """mass 900..26000 lb; drag_area 0.35..4 m²; rolling 0.005..0.05; tyre_diameter 18..48 in;
        converter_factor 80..350; top_ratio 0.5..1.6; final_drive 1.8..8; driveline_efficiency 70..97 %;
        grille_area 30..1200 in²; exit_area 50..2000 in²""",
    "Engine": """displacement 0.5..10 L; cylinders 1..12; power 20..1500 hp; power_rpm 1500..10000 rpm; boost 0..45 psi;
        idle_rpm 450..1600 rpm; pump_flow 15..500 L/min; heat_multiplier 0.7..1.5; bay_heat 2..20 %""",
    "Accessories": """ac_idle_power 0.3..5 kW; ac_road_power 0.3..8 kW; ac_cop 1..4; steering_power 0..3 kW;
        converter_power 0..8 kW; alternator_rating 25..400 A; alternator_idle_share 20..75 %;
        alternator_efficiency 40..85 %; idle_voltage 8..30 V; road_voltage 10..30 V""",
    "Climate": "ambient -20..52 °C; altitude -1400..15000 ft; humidity 0..100 %; asphalt_rise 0..40 °F",
    "Cooling": "limit 185..275 °F",
    "Opening": "width 6..60 in; height 4..40 in; panel_thickness 0.02..2 in; support_lean -20..20 °",
    "Turning": "x -6..60 in; y -12..40 in; diameter 1..16 in; depth 0..48 in",
    "Front": "block_depth 2..60 in; pulley_stack 0.5..14 in; rock_forward 0..1.5 in; rock_sideways 0..3 in",
    "Hood": "front 2..60 in; back 2..70 in; run 2..48 in",
    "Rails": "left -12..40 in; right 10..80 in; top -20..40 in; between 12..70 in",
    "Obstacle": """left -24..80 in; bottom -30..60 in; front -30..60 in; width 0.25..60 in; height 0.25..48 in;
        depth 0.25..48 in; work 0..20 h; holds 0.1..12 L""",
    "HoseEnd": "x -12..80 in; y -24..60 in; z -6..70 in; bore 0.25..2.5 in",
    "MountHole": "x -12..80 in; y -24..60 in; z -30..60 in; diameter 0.12..1 in; behind 0..30 in",
    "AirHole": "width 0.25..24 in; height 0.25..24 in; x -24..80 in; y -24..60 in",
    "Survey": "ground 3..50 in; room_width 8..70 in; room_height 6..48 in",
    "SecondReading": "value -48..120 in",
    "GapRule": "gap 1/16..3 in",
    "Leg": """lasts 0..300 min; speed 0..130 mph; grade -15..20 %; towed 0..12000 lb; gear_step 0.9..5;
        ac_share 20..100 %; rpm 500..7500 rpm; ambient -30..52 °C; stands 0..10 min; goes 0..30 min""",
    "Choosing": "width 8..60 in; height 6..40 in; amps 5..150 A; budget 0..5000; hours 0..100 h",
    "Tick": "took 0..600 min",
    "Item": "price 0..3000; lead 0..60",
    "OwnStep": "low 1..600 min; likely 1..600 min; high 1..1200 min; hands 1..3; cost 0..2000",
    "Pace": "times 0.4..2.5",
    "Work": "people 1..4; begins 5..14 h; day 1..12 h; rate 0..250; contingency 0..60 %",
    "Stores": """times 0.6..1.6; oil 2..14 L; sensor_lag 1..60 s; sender_lag 1..60 s; needle_lag 1..120 s;
        least_on 0..300 s""",
    "Supply": """regulated 13..30 V; pulley_ratio 1.2..4; speed_limit 8000..24000 rpm; redline 2000..11000 rpm;
        alternator_air 10..110 °C; capacity 15..250 Ah; reserve 20..400 min; state 20..100 %; peukert 1.02..1.4;
        charge_fuse 60..500 A; charge_limit 0.1..0.8 V; drop_limit 0.1..1.5 V""",
    "Wire": "length 0.1..30 ft; size 0.5..95 mm²; ambient 10..130 °C; bundle 1..30",
    "Source": "voltage 10..30 V; holds 3..150 A",
    "Load": "power 1..1500 W",
    "Core": """passes 1..3; face_width 8..48 in; face_height 5..36 in; depth 0.6..5 in; rows 1..5; tank_size 0.5..5 in;
        tank_proud 0..2 in; neck_height 0.5..4 in; fin_density 8..24 fins/in;
        fin_height 4..12 mm; fin_thickness 0.05..0.2 mm;
        tube_height 1.2..5 mm; tube_wall 0.12..0.6 mm; louver_pitch 0.7..2.5 mm; louver_angle 18..38 °;
        turbulator 1..2.5; cost 0..5000""",
    "CorePort": "up 0..36 in; bore 0.15..2.5 in",
    "Fan": """diameter 5..32 in; hub_diameter 1.5..10 in; depth 1.2..9 in; x -4..50 in; y -4..40 in;
        free_air_flow 150..9000 CFM; power 20..1300 W; rated_voltage 10..30 V; rated_current 2..110 A; derate 50..110 %;
        reversed_share 20..100 %; ratio 0.7..1.6; rated_rpm 1000..4000 rpm; drag 0.2..18 kW; engages 120..220 °F;
        safe_rpm 2000..9000 rpm; immersion 20..100 %; nose 1..40 in; spacer -2..4 in; tip_trim 0..1.5 in;
        duct_width 6..40 in; duct_height 6..36 in; duct_depth 0.5..6 in; cost 0..3000""",
    "Shroud": """left -4..48 in; bottom -4..36 in; width 4..60 in; height 4..48 in; fan_gap 0..6 in; depth 0.5..9 in;
        edge_gap 0..1.5 in; hole_area 0..80 in²; flap_area 0..200 in²; cost 0..2000; blank_width 6..60 in;
        blank_height 6..48 in; trim_left 0..6 in; trim_right 0..6 in; trim_bottom 0..6 in; trim_top 0..6 in;
        second_width 6..60 in; join_trim 0..4 in; lap 0..3 in;
        ring_opening 5..32 in; ring_x 3..48 in; ring_y 3..36 in;
        gasket 0..1 in; ears 0..4 in; hole_inset 0..4 in;
        thickness 0.02..0.19 in; bend_radius 0..0.5 in; flange 0..2 in; bead 0..0.5 in; sheet_width 12..120 in;
        sheet_height 12..120 in""",
    "Corner": "x -6..60 in; y -6..48 in",
    "Cut": "amount 0.1..12 in; trim 0..0.4 in",
    "Slit": "gap 0..4 in; length 1..60 in",
    "Cooler": """left -24..80 in; bottom -24..48 in; width 2..50 in; height 1.5..40 in; loss 0.5..40;
        conductance 200..8000 W/m²K; thickness 0.3..6 in; stand_off 0..6 in; front -30..200 in; opens 120..230 °F;
        opening 3..600 in²; guard 0..8; spacer 0..4 in; side_room 0..12 in; fans 0..3; fan_diameter 2..16 in;
        fan_flow 30..3000 CFM; fan_power 5..400 W; fan_voltage 10..30 V; fan_on 100..265 °F;
        fitting_room 0..8 in; line_bore 0.2..2.5 in;
        line_length 0.5..60 ft; bends 0..16; tightest 0.5..24 in; cost 0..3000""",
    "Place": """x -24..48 in; y -24..36 in; z -10..250 in; lean -30..90 °; reach_x 0..10 in; reach_y 0..10 in;
        reach_z 0..10 in; reach_lean 0..20 °""",
    "Remote": """inlet_area 10..1000 in²; exit_area 10..1500 in²; ram -20..90 %; behind -60..60 %; duct_loss 0..12;
        warmed 0..60 °F""",
    "Move": """by_x -16..16 in; by_y -16..16 in; by_z -16..16 in; left -24..80 in; bottom -30..60 in; front -30..60 in;
        width 0.25..60 in; height 0.25..48 in; depth 0.25..48 in; notch 0..8 in; holds 0.1..12 L; cap_room 0..20 in;
        hours 0..20 h; cost 0..2000""",
    "Panel": """length 2..70 in; depth 0.5..40 in; far_length 2..70 in; front_lip 0..4 in; back_lip 0..4 in;
        front_bend -120..120 °; back_bend -120..120 °; thickness 0.02..0.19 in; radius 0..0.5 in; bead 0..0.5 in;
        bead_end 0..8 in; notch_width 0..16 in; notch_depth 0..12 in; notch_at 0..30 in; pins 0..20;
        pin_hole 0.15..0.6 in; bolts 0..20; hole 0.15..0.6 in; foam 0.1..3 in; foam_gap 0..3 in; cost 0..1000""",
    "Bracket": """new_x -24..80 in; new_y -24..60 in; new_z -30..60 in; width 0.3..4 in; thickness 0.03..0.4 in;
        radius 0..0.6 in; press 0..15 °; arch_at 0..40 in; arch_width 0..20 in; arch_height 0..6 in;
        near_hole 0.12..0.8 in; near_holes 0..4; pitch 0.3..8 in; far_hole 0.12..0.8 in; edge 0.15..2 in;
        slot 0..1.5 in; spacer 0..3 in; stiffener 0..1.5 in; pad 0.05..1.9 in; squeezed 0.04..1.9 in; cost 0..500""",
    "Mounting": "shock 2..20; mass 3..150 lb; float_gap 0..0.4 in; pads 0..1.5 in",
    "Frame": "leg 0.3..2 in; thickness 0.03..0.2 in; lap 0..1.5 in; header 0..3 in; line 0.15..1.2 in",
    "Circuit": """fuse 1..150 A; fuse_at 0..6 ft; relay 5..200 A; relay_air 10..110 °C; connector 5..200 A;
        grounds 0..4; measured_drop 0..3 V; lead_length 0.2..6 ft; lead_size 0.5..35 mm²; spare 0..6""",
    "Control": """fan_on 150..235 °F; fan_off 140..230 °F; second_on 150..240 °F; second_off 140..235 °F;
        run_on 0..15 min; set_on_day -10..45 °C; adapter 0.6..6 in; adapter_push 0.3..2.5 in""",
    "Loop": """pulley_ratio 0.5..1.5; electric_flow 5..400 L/min; electric_pressure 2..200 kPa;
        electric_voltage 10..30 V; electric_power 10..1500 W; pump_on 70..220 °F; thermostat 150..215 °F;
        cap_pressure 4..34 psi;
        core_stands 8..120 psi; hold 1..12 gal; stays 0..60 %""",
    "Part": """x -24..90 in; y -30..60 in; z -30..250 in; bore 0.15..2.5 in; holds 0.1..12 L; cap_rating 3..34 psi;
        stands 5..140 psi; opens 150..215 °F; loss 0..120; cost 0..2000""",
    "Hose": """bore 0.15..2.5 in; length 0.1..60 ft; bends 0..16; tightest 0.4..36 in; necks 0.1..2.5 in;
        stock 0.1..60 ft; years 0..30; cost 0..500""",
    "Via": "x -24..90 in; y -30..60 in; z -30..250 in",
    "Coolant": "glycol_share 0..100 %; coldest -50..60 °F",
    "DutyCase": """speed 0..180 mph; grade -20..25 %; towed_mass 0..20000 lb; gear_step 0.5..5; rpm 450..10000 rpm;
        stops_per_km 0..10; ambient -30..130 °F; seen_at 140..290 °F; seen_day -30..130 °F;
        seen_for 0.5..120 min""",
    "Sensor": "lag 0..60 s; zero 0..8 °C; noise 0.1..5 °C; share 0.5..30 %",
    "Reading": """at 0..300 min; temperature 0..300 °F; voltage 8..30 V; current -200..250 A; airflow 50..8000 CFM;
        pressure 0..30 psi; level 40..110 dB; wind 50..2500 ft/min""",
    "Trial": "ambient -30..52 °C; stopped 0..300 min",
}
_ROW = re.compile(r"(\w+) (-?[\d./]+)\.\.(-?[\d./]+)(?: (.+))?")
_IMPROPER = re.compile(r"\b(\d+)\s*/\s*(\d+)\b")


class Entry(NamedTuple):
    """An entry outside what is likely. likely: the range [SI]; astray: how far outside, in widths of ten: 1 is ten
    times over or a tenth of it."""

    path: Path
    spec: Spec
    value: Quantity
    likely: tuple[float, float]
    astray: float


@cache
def likely_ranges() -> dict[int, tuple[float, float]]:
    """The likely range [SI] of every field that has one, by its spec's identity."""
    found = {}
    for model in models_below(Build):
        told = _told(RANGES.get(model.__name__, ""))
        for name in model.model_fields:
            spec = spec_of(model, name)
            if spec is not None and name in told:
                low, high, unit = told[name]
                found[id(spec)] = (_si(low, spec, unit), _si(high, spec, unit))
    return found


def _told(text: str) -> dict[str, tuple[str, str, str]]:
    rows = (_ROW.fullmatch(" ".join(row.split())) for row in text.split(";") if row.strip())
    return {row[1]: (row[2], row[3], row[4] or "") for row in rows if row}


def _si(text: str, spec: Spec, unit: str) -> float:
    kind = KINDS[spec.kind_name]
    if kind.named:  # a range need not end at a size that is sold
        return float(text) * next(one.factor for one in kind.units if one.symbol == unit)
    return parse(text, kind, unit or kind.units[0].symbol).si


def likely_of(spec: Spec) -> tuple[float, float] | None:
    """The likely range [SI] of a field; None where there is none."""
    return likely_ranges().get(id(spec))


def astray_by(si: float, likely: tuple[float, float]) -> float:
    """How far outside a value lies, 0 inside: in powers of ten where the range has a sign of its own, in widths of the
    range else."""
    low, high = likely
    if low <= si <= high or math.isclose(si, low, rel_tol=1e-6) or math.isclose(si, high, rel_tol=1e-6):
        return 0.0
    edge = low if si < low else high
    if edge * si > 0:
        return abs(math.log10(si / edge))
    return abs(si - edge) / (high - low)


def unlikely(node: BaseModel, at: Path = ()) -> Iterator[Entry]:
    """What was typed below a section, outside what is likely."""
    for path, spec, value in measured_fields(node, at):
        likely = likely_of(spec) if value is not None and value.origin == "measured" else None
        if value is None or likely is None:
            continue
        astray = astray_by(value.si, likely)
        if astray > 0:
            yield Entry(path, spec, value, likely, astray)


def improper(value: Quantity) -> bool:
    """Whether a fraction was typed that is more than a whole, such as 6 17/16."""
    found = _IMPROPER.search(value.as_typed)
    return bool(found and re.search(r"\d\s+\d+\s*/", value.as_typed) and int(found[1]) >= int(found[2]))


def meant(entry: Entry) -> tuple[str, ...]:
    """What may have been meant: the same figure with its point moved, or in another unit of its kind, where that is
    likely; as it would be typed, at most two."""
    kind, number = KINDS[entry.spec.kind_name], re.match(r"-?[\d.]+$", entry.value.as_typed.split(" ")[0])
    if number is None or kind.named:
        return ()
    figure = float(number[0])
    tried = [f"{figure * 10:g} {entry.value.unit}", f"{figure / 10:g} {entry.value.unit}"]
    tried += [f"{figure:g} {unit.symbol}" for unit in kind.units if unit.symbol != entry.value.unit]
    if figure < 0:
        tried.append(f"{-figure:g} {entry.value.unit}")
    good = (text.strip() for text in tried if astray_by(parse(text.strip(), kind, "").si, entry.likely) == 0.0)
    return tuple(dict.fromkeys(good))[:2]
