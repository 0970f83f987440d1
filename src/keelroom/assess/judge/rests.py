"""Which entries besides its own a finding rests on: what would have to be otherwise for it to go."""

from __future__ import annotations

from keelroom.assess.findings import Finding

Path = tuple[str, ...]
ALL = (
    "brief.engine brief.vehicle brief.accessories brief.climate brief.cooling.limit package.core package.fans "
    "package.shroud package.sealing package.coolers package.coolant package.loop package.control"
)
AIR = (
    "package.core package.fans package.shroud package.sealing package.coolers brief.vehicle.grille_area "
    "brief.vehicle.exit_area"
)
HEAT = "package.coolers brief.engine brief.vehicle brief.accessories brief.climate.ambient"
RING = "package.shroud.blank_width package.shroud.blank_height package.fans"
SEAT = "package.core.face_width package.core.face_height package.core.tank_size package.core.tank_proud"
FACE = "package.core.face_width package.core.face_height"
CIRCUIT = "beside.feed beside.branch beside.back package.fans"
CHARGED = "supply.charge_wire brief.accessories.alternator_rating"
BALANCE = (
    "brief.accessories supply.loads supply.pulley_ratio supply.alternator_air brief.engine.idle_rpm package.fans "
    "package.circuits"
)
LOOP = "package.loop.hoses package.loop.parts"
HIGHEST = "package.loop.parts package.place survey.hoses"
RESTS: dict[str, str] = {
    "does_not_settle": ALL,
    "over_limit": ALL,
    "band_over_limit": ALL,
    "power_short": "brief.engine.power brief.engine.power_rpm brief.vehicle",
    "slow_air": AIR,
    "tubes_in_transition": "package.core brief.engine.pump_flow package.coolant package.loop",
    "tubes_laminar": "package.core brief.engine.pump_flow package.coolant package.loop",
    "rule_differs": ALL,
    "cheap_cause": "brief.causes",
    "limit_under_thermostat": "package.loop.thermostat",
    "limit_over_boiling": "package.coolant package.loop.cap_pressure brief.climate.altitude",
    "ambient_over_limit": "brief.cooling.limit",
    "freezes": "package.coolant.glycol package.coolant.coldest",
    "pump_assumed": "brief.engine.power",
    "rows_do_not_fit": "beside.depth beside.tube_height",
    "panel_hides": f"survey.opening package.place package.cuts {FACE}",
    "no_shroud": "package.fans",
    "shroud_without_fan": "package.fans",
    "shroud_off_face": f"beside.left beside.bottom beside.height {FACE}",
    "shroud_narrow": f"{SEAT} beside.kind",
    "shroud_proud": f"{SEAT} beside.blank_width",
    "edge_leak": "beside.hole_area package.fans",
    "flaps_upside_down": "beside.flap_area",
    "flaps_reversed": "beside.flap_area",
    "trim_fault": RING,
    "trim_without_blank": "package.shroud.blank_width",
    "pan_fault": f"package.shroud package.fans {SEAT}",
    "ring_fault": "package.fans",
    "fan_larger_than_face": FACE,
    "fan_off_face": f"beside.y beside.diameter {FACE}",
    "fan_beside_face": f"beside.y beside.diameter {FACE}",
    "fan_outside_shroud": "beside.y package.shroud",
    "fans_overlap": "package.fans",
    "fans_off_rings": RING,
    "fan_too_good": "beside.curve",
    "hub_too_large": "beside.diameter",
    "stopped_fan": "package.shroud.plenum",
    "fan_too_fast": "beside.safe_rpm brief.engine.power_rpm",
    "clutch_late": "brief.cooling.limit",
    "immersion": "package.shroud.kind",
    "motor_label": "beside.power beside.rated_voltage",
    "recirculation": AIR,
    "bypass": AIR,
    "fit_overlaps": "survey package.core package.fans package.shroud package.moves",
    "fit_under": "survey package.core package.fans package.shroud package.moves",
    "fit_more": "survey package.core package.fans package.shroud package.moves",
    "fit_tight": "survey package.core package.fans package.shroud package.moves",
    "no_float": f"package.core.material {FACE}",
    "obstacle_in_core": f"package.place {FACE} package.core.depth",
    "depth_contradiction": "survey.engine.turning survey.engine.pulley_stack",
    "rails_contradiction": "survey.rails.left survey.rails.right",
    "readings_differ": "survey.second",
    "opening_crosses": "survey.opening.corners",
    "opening_corners": "survey.opening.corners",
    "cut_refused": "survey.opening",
    "cut_stamped": "survey.opening",
    "cut_checks": "survey.checks",
    "cut_structural": "survey.obstacles",
    "bracket_fault": "package.brackets package.place survey.holes package.mounting.shock",
    "frame_fault": "package.coolers package.brackets",
    "bolt_in_hole": "survey.holes",
    "panel_nothing": "package.panels package.sealing survey.air_holes",
    "panel_short": f"package.sealing {FACE}",
    "foam_thin": "package.sealing",
    "panel_fault": "package.panels",
    "move_unheld": "package.brackets",
    "slot_long": "beside.by_y beside.by_z",
    "cap_reach": "survey.obstacles package.place",
    "bottle_small": "survey.obstacles package.loop.hold package.core",
    "bottle_unknown": "survey.obstacles",
    "cover_off_face": f"beside.bottom beside.width beside.height {FACE}",
    "cover_over_opening": "survey.opening beside.width beside.height",
    "coolers_meet": "package.coolers",
    "cooler_no_heat": "brief.engine.boost brief.accessories.ac_fitted",
    "cooler_choked": "beside.width beside.height",
    "cooler_shut": "beside.width beside.height",
    "opening_larger": "beside.width beside.height",
    "no_own_air": "beside.stands",
    "gearbox_hot": HEAT,
    "gearbox_cold": HEAT,
    "oil_hot": HEAT,
    "charge_hot": HEAT,
    "steering_hot": HEAT,
    "ac_cuts_out": f"{AIR} brief.accessories brief.climate.ambient",
    "hose_kinks": "beside.line_bore",
    "lines_narrow": "beside.line_length beside.bends",
    "loop_open": LOOP,
    "part_loose": LOOP,
    "part_over_hood": "survey.hood beside.z",
    "two_thermostats": "package.loop.thermostat_state",
    "second_cap": LOOP,
    "cap_over_weakest": f"{LOOP} package.core.material",
    "pump_absent": "package.loop.parts",
    "pump_unused": "package.loop.parts",
    "pump_late": "brief.cooling.limit",
    "pump_high": HIGHEST,
    "pump_not_lowest": HIGHEST,
    "pump_over_part": "package.loop.cap_pressure brief.engine.pump_flow",
    "bypass_backwards": "package.loop.pump package.loop.parts",
    "core_flow_small": "brief.engine.pump_flow package.core",
    "suction_boils": f"package.coolant {LOOP} brief.climate.altitude",
    "air_trap": HIGHEST,
    "filler_low": HIGHEST,
    "tank_small": "package.loop.hold package.core package.loop.parts",
    "no_surge_tank": LOOP,
    "tank_aside": LOOP,
    "vent_falls": HIGHEST,
    "hose_kink": "beside.bore package.loop.parts survey.hoses",
    "hose_old": "beside.years",
    "wire_short": "beside.length package.place.z package.coolers package.loop.parts",
    "near_exhaust": "survey.obstacles package.place package.loop.parts survey.hoses",
    "bores_differ": "beside.bore survey.hoses package.core.ports",
    "coolant_mixed": "package.loop.stays",
    "waterless": "package.coolant.glycol",
    "waterless_wet": "package.coolant.glycol_share package.loop.old_coolant",
    "copper_claim": "package.core",
    "feeds_unknown": "package.fans",
    "sources_differ": "supply.sources",
    "source_unlike": "supply.sources package.fans",
    "source_low": "supply.sources package.fans",
    "drains": "supply.sources supply.capacity",
    "fuse_size": "beside.fuse_form",
    "fuse_small": "package.fans supply.regulated",
    "fuse_start": "package.fans package.control.soft_start",
    "fuse_over_wire": CIRCUIT,
    "fuse_over_relay": "beside.relay beside.switch",
    "fuse_over_connector": "beside.connector",
    "relay_small": "beside.relay_air package.fans",
    "relay_under_start": "package.fans",
    "relay_before_electronics": "package.fans",
    "mixed_motors": "package.fans beside.feeds",
    "own_of_none": "package.fans beside.feeds",
    "connector_small": "package.fans",
    "drop_over": "supply.drop_limit package.fans package.circuits",
    "drop_unexplained": CIRCUIT,
    "drop_too_small": CIRCUIT,
    "wire_hot": "package.fans package.circuits",
    "wire_place": "package.circuits",
    "fan_set_points": "beside.fan_off",
    "fan_never_stops": "package.loop.thermostat",
    "fan_on_near_limit": "brief.cooling.limit package.control.sensor",
    "sensor_fins": "beside.fan_on beside.set_on_day",
    "sensor_lower": "beside.fan_on",
    "adapter_short": "beside.adapter_push",
    "stages": "beside.fan_on",
    "second_off_over": "beside.second_on",
    "stages_one_relay": "package.circuits",
    "stages_merged": "package.circuits",
    "merged_apart": "package.circuits",
    "override_nowhere": "package.fans",
    "always_hot": "supply.capacity package.fans",
    "fan_gone": "package.fans",
    "lead_fan": "survey package.fans package.shroud",
    "ac_one_controller": "beside.strategy",
    "brushless_chopped": "package.fans",
    "ramp_through_relay": "package.control.strategy",
    "signal_unlike": "package.control.strategy",
    "run_on_long": "supply.capacity package.fans",
    "run_on_dead": "beside.coil",
    "no_run_on": "brief.engine.boost",
    "alternator_short": BALANCE,
    "battery_works": BALANCE,
    "battery_low": "supply.sources",
    "voltage_contradicts": BALANCE,
    "voltage_odd": "supply.sources",
    "regulator_odd": "supply.sources",
    "over_speed": "supply.redline supply.speed_limit",
    "speed_limit_low": "brief.engine.idle_rpm supply.pulley_ratio",
    "redline_low": "brief.engine.idle_rpm brief.engine.power_rpm",
    "reserve_contradicts": "supply.capacity",
    "charge_place": CHARGED,
    "charge_cable_hot": CHARGED,
    "charge_cable": f"{CHARGED} supply.charge_limit",
    "charge_unfused": CHARGED,
    "charge_fuse_small": CHARGED,
    "charge_fuse_over": CHARGED,
}
"""By code; `package.` is the package judged, `beside.` an entry of the same part; a section or a list stands for all
in it."""


def with_rests(finding: Finding, package_id: str) -> Finding:
    """The finding with the entries it rests on besides its own."""
    return finding._replace(
        also=tuple(_path(words.split("."), finding.where, package_id) for words in RESTS.get(finding.code, "").split())
    )


def _path(steps: list[str], where: Path, package_id: str) -> Path:
    if steps[0] == "package":
        return ("packages", package_id, *steps[1:])
    return (*where[:-1], *steps[1:]) if steps[0] == "beside" else tuple(steps)
