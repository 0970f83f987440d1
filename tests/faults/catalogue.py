"""Deliberate faults, each a line of the product made wrong, and the tests that must notice it.

`make faults` applies each to a copy of the sources and prints what turned red; the test run does the same.
"""

from typing import NamedTuple


class Fault(NamedTuple):
    """`old` in `file` becomes `new`; the tests named then fail."""

    name: str
    file: str
    old: str
    new: str
    tests: tuple[str, ...]


FACTS, OUTSIDE, ASSESS = (
    "tests/properties/test_facts.py",
    "tests/reference/test_outside_values.py",
    "tests/unit/assess/test_assess.py",
)
NETWORK = "tests/properties/test_network.py"
ELECTRICAL, CIRCUITS = "tests/reference/test_electrical_outside.py", "tests/unit/assess/electrical/test_circuits.py"
PACKAGING, FITUP = "tests/reference/test_packaging_outside.py", "tests/unit/assess/fit/test_fit.py"
DRIVES = "tests/reference/test_drive_outside.py"
TRIALS = "tests/reference/test_trials_outside.py"
SCALAR = "tests/reference/test_scalar_agreement.py::test_every_point_agrees_to_a_millionth"

FAULTS = (
    Fault(
        "fan density on the wrong side",
        "core/air/point.py",
        "density = self.ahead if self.network.pushes[i, k] > 0 else self.behind",
        "density = self.ahead",
        (SCALAR,),
    ),
    Fault(
        "a leak that blows out instead of in",
        "core/air/network.py",
        "if pusher else (BAY, node)",
        "if pusher else (node, node)",
        (f"{NETWORK}::test_gaps_at_their_limits", f"{NETWORK}::test_mass_and_enthalpy_close_in_every_node"),
    ),
    Fault(
        "hot bay air never comes back",
        "core/joint/car.py",
        "self.grille_air + (self.bay_warm - self.grille_air) * mixed",
        "self.grille_air + 0 * (self.bay_warm - self.grille_air) * mixed",
        (f"{NETWORK}::test_a_top_panel_cools_the_air_at_the_condenser",),
    ),
    Fault(
        "flaps open the wrong way",
        "core/air/point.py",
        "flaps_open[self.row, 0 if forward else 1]",
        "flaps_open[self.row, 1 if forward else 0]",
        (f"{NETWORK}::test_at_speed_a_full_shroud_without_flaps_can_lose_to_a_bare_fan_and_flaps_win_it_back",),
    ),
    Fault(
        "limits reversed",
        "assess/figures/casefigures.py",
        "if temperature > limit:",
        "if temperature < limit:",
        (f"{ASSESS}::test_the_verdict_is_what_temperature_band_and_limit_say",),
    ),
    Fault(
        "fan law: pressure with speed, not its square",
        "core/air/point.py",
        "head = density / STANDARD_DENSITY * n * n * curve.pressure",
        "head = density / STANDARD_DENSITY * n * curve.pressure",
        (f"{OUTSIDE}::test_fan_laws",),
    ),
    Fault(
        "thermostat at the inlet feels the outlet",
        "core/joint/meeting.py",
        "return self.temperature - heat / (last * self.per_flow)",
        "return self.temperature - 0 * heat / (last * self.per_flow)",
        (f"{FACTS}::test_inlet_place_runs_the_outlet_hotter",),
    ),
    Fault(
        "gauge pressure taken as absolute",
        "core/coupling.py",
        "air.pressure + plant.cap_pressure, start",
        "plant.cap_pressure + 101325.0, start",
        (f"{FACTS}::test_altitude_cuts_mass_flow_and_boiling",),
    ),
    Fault(
        "whole fin height in the fin efficiency",
        "core/thermal/point.py",
        "mL = 0.5 * core.fin_height",
        "mL = core.fin_height",
        (SCALAR,),
    ),
    Fault(
        "coolant layers see the same air",
        "core/thermal/point.py",
        "air[lane, cell] += (was - comes) * spread[kind]",
        "air[lane, cell] += 0 * (was - comes) * spread[kind]",
        (f"{OUTSIDE}::test_uniform_face_is_the_closed_form_of_its_layering",),
    ),
    Fault(
        "metal soaks into twice the coolant",
        "core/joint/running.py",
        "rate[HOT] = (soaks + engine",
        "rate[HOT] = (0.5 * soaks + engine",
        (f"{DRIVES}::test_three_lumps_shut_off_go_by_the_closed_form",),
    ),
    Fault(
        "a hose holds back twice its volume",
        "core/joint/running.py",
        "wanted, newest = now[PASSED] - volume, self.kept - 1",
        "wanted, newest = now[PASSED] - 2 * volume, self.kept - 1",
        (f"{DRIVES}::test_a_hose_holds_back_by_its_volume",),
    ),
    Fault(
        "a battery goes down by its amps alone",
        "assess/drives/situations.py",
        "return battery.capacity * 3600 / discharge_time(battery._replace(state=1.0), -amps)",
        "return -amps",
        (f"{DRIVES}::test_a_battery_goes_down_by_peukert",),
    ),
    Fault(
        "glycol share taken as mass",
        "core/fluids/coolant.py",
        'return glycol_mass / (glycol_mass + (1.0 - volume_fraction) * DENSITY_20["water"])',
        "return volume_fraction",
        (f"{OUTSIDE}::test_published_value",),
    ),
    Fault(
        "friction per revolution, not per two",
        "core/thermal/engine_point.py",
        "engine.displacement[i] * rpm / 120.0",
        "engine.displacement[i] * rpm / 60.0",
        (f"{OUTSIDE}::test_published_value",),
    ),
    Fault(
        "fans load no alternator",
        "core/thermal/engine_point.py",
        "(drive.electrical[i] + fan_power)",
        "(drive.electrical[i] + 0 * fan_power)",
        (SCALAR,),
    ),
    Fault(
        "the engine's rock forgotten",
        "assess/fit/survey_bodies.py",
        "if item.depth else 16 * INCH) - rock",
        "if item.depth else 16 * INCH) - 0 * rock",
        (f"{FITUP}::test_the_engine_rocks_the_belt_forward",),
    ),
    Fault(
        "bends measured on the inside",
        "core/packaging/sheet.py",
        "return angle * (radius + neutral_share(metal) * thickness)",
        "return angle * radius",
        (f"{PACKAGING}::test_an_l_bracket_folds_back_to_its_legs",),
    ),
    Fault(
        "a cylinder taken for its box",
        "core/packaging/nearest.py",
        "return (p * p + q * q) ** 0.5 * solid[3] + r * solid[5]",
        "return p * solid[3] + q * solid[4] + r * solid[5]",
        (f"{PACKAGING}::test_an_overlap_is_the_shortest_way_out_of_a_cylinder",),
    ),
    Fault(
        "trim lines moved the wrong way",
        "core/packaging/shroud.py",
        "low_cut = min(max(over / 2 - shift, 0.0), over)",
        "low_cut = min(max(over / 2 + shift, 0.0), over)",
        (f"{FITUP}::test_an_uneven_trim_moves_the_fan_with_its_shroud",),
    ),
    Fault(
        "a guess counts as measured",
        "assess/fit/clearances.py",
        'if value is None or value.origin == "assumed":',
        "if value is None:",
        (f"{FITUP}::test_verdicts_from_unsurveyed_to_clear",),
    ),
    Fault(
        "templates fitted to the page",
        "export/tiles.py",
        "drawing = SceneFlowable(scene, scene.bounds[2] * 1000 * mm)",
        "drawing = SceneFlowable(scene, scene.bounds[2] * 970 * mm)",
        (f"{PACKAGING}::test_the_printed_bar_is_100_mm_and_the_piece_is_full_size",),
    ),
    Fault(
        "return wire dropped",
        "core/electrical/circuit.py",
        "lost = (feed * total, branch * most, ground * back, path.contacts * total)",
        "lost = (feed * total, branch * most, 0.0, path.contacts * total)",
        (f"{ELECTRICAL}::test_a_circuit_is_what_a_general_solver_finds",),
    ),
    Fault(
        "cable taken for bare gauge copper",
        "core/electrical/wire.py",
        "area = J1128_AREA.get(round(awg_number(size)), size * 1e6 * 0.88) * 1e-6",
        "area = size",
        (f"{OUTSIDE}::test_published_value",),
    ),
    Fault(
        "a fuse may exceed its wire",
        "assess/judge/circuits.py",
        "if fuse > weakest.ampacity + 0.05:",
        "if fuse > 2 * weakest.ampacity + 0.05:",
        (
            "tests/unit/assess/test_findings.py::test_a_finding_is_raised_by_its_cause_and_gone_once_that_is_mended"
            "[fuse_over_wire]",
        ),
    ),
    Fault(
        "alternator at the crank's speed",
        "core/electrical/charging.py",
        "return engine_rpm * self.ratio * self.slip",
        "return engine_rpm * self.slip",
        (f"{ELECTRICAL}::test_an_alternator_hot_at_idle_gives_a_third_to_over_half_of_its_rating",),
    ),
    Fault(
        "drop taken from the battery, not the motor",
        "assess/inputs/translate.py",
        "volts = [system.volts.get(fan.id, 0.0)",
        "volts = [system.balance.voltage + 0 * system.volts.get(fan.id, 0.0)",
        (f"{CIRCUITS}::test_a_thicker_wire_turns_the_fan_faster_and_cools_the_engine",),
    ),
    Fault(
        "a reading counts for less than it tells",
        "core/trials/fit.py",
        "pull = slopes.T @ (weight * (self.seen.values - read.mean(axis=0) + slopes @ at))",
        "pull = slopes.T @ (0.5 * weight * (self.seen.values - read.mean(axis=0) + slopes @ at))",
        (f"{TRIALS}::test_a_posterior_is_that_of_a_grid",),
    ),
    Fault(
        "a slope as sure as if no reading followed another",
        "core/trials/steady.py",
        "(len(at) - 2) / spread * len(at) / count)",
        "(len(at) - 2) / spread)",
        (f"{TRIALS}::test_what_follows_itself_is_less_sure",),
    ),
    Fault(
        "what was learnt taken into every core",
        "assess/inputs/learnt.py",
        "made_core(tried.core) == made_core(package.core)",
        "True",
        ("tests/properties/test_trial_fields.py::test_every_factor_learnt_moves_a_duty_case[core]",),
    ),
)
