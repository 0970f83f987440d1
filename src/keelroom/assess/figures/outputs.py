"""What comes out, declared once: every figure of a duty case and of a package with its key, label, kind and how it is
read off.

The machine form, the ledger, the sheet, workings, comparisons and pages of figures read this list; a new figure is a
line of it.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from operator import attrgetter
from typing import Generic, Literal, NamedTuple, TypeVar

from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.figures.in_hand import FAR, within_far
from keelroom.units import KINDS, format_si

Better = Literal["less", "more", ""]
Value = float | str | None
T = TypeVar("T")
NOT_KNOWN, NO_LIMIT = "not known yet", "no limit"


class Output(NamedTuple, Generic[T]):
    """One figure that comes out.

    key      : its name in the machine form, with its SI unit; it stays for good
    label    : what it is called, as it begins a line
    kind     : the kind of measure, as fields have them; '' for words and for a plain number
    read     : reads it off a duty case's figures, or off an assessment [SI; None where it is not known, inf where it
               has no end]
    better   : which way is better, '' where neither is
    compares : whether it can be set beside the same of another build: a figure of duty, not of a state somebody chose
    """

    key: str
    label: str
    kind: str
    read: Callable[[T], Value]
    better: Better = ""
    compares: bool = False

    def text(self, of: T, system: str) -> str:
        """The figure in words, in one unit system."""
        return value_text(self.read(of), self.kind, system)


def value_text(value: Value, kind: str, system: str) -> str:
    """A figure in words, in one unit system."""
    if value is None:
        return NOT_KNOWN
    if isinstance(value, str):
        return value
    if not math.isfinite(value):
        return NO_LIMIT
    if kind == "share":
        return f"{value:.0%}"
    return format_si(value, KINDS[kind], system) if kind else f"{value:.3g}"


def day_text(hotter: float, system: str) -> str:
    """How much hotter a day [K] is held, in words; past FAR only that it is more."""
    told = value_text(within_far(hotter), "temperature difference", system).replace("-", "−")
    return f"under {told}" if hotter < -FAR else f"over {told}" if hotter > FAR else told


def _of(field: str) -> Callable[[CaseFigures], Value]:
    return attrgetter(field)


def _ambient(which: str) -> Callable[[CaseFigures], Value]:
    return lambda f: getattr(f.ambients, which) if f.ambients is not None else None


CASE: tuple[Output[CaseFigures], ...] = (
    Output("temperature_degC", "Engine outlet, at the most", "temperature", _of("temperature")),
    Output("mean_degC", "Engine outlet, in the mean", "temperature", _of("mean"), "less", True),
    Output("swings_from_degC", "Engine outlet, at the least", "temperature", _of("swings_from")),
    Output("fan_on_at_degC", "The first fan comes on at", "temperature", _of("fan_on_at")),
    Output("band_low_degC", "Band from", "temperature", _of("low")),
    Output("band_high_degC", "Band to", "temperature", _of("high")),
    Output("verdict", "Verdict", "", _of("verdict")),
    Output("margin_K", "In hand to the limit", "temperature difference", _of("margin"), "more"),
    Output("hotter_day_K", "Held on hotter days, by", "temperature difference", _of("in_hand.day"), "more", True),
    Output("boiling_degC", "Boils at", "temperature", _of("boiling"), "more", True),
    Output("heat_in_W", "Heat into the coolant", "heat", _of("heat_in"), "less", True),
    Output("rejection_at_limit_W", "Rejection at the limit", "heat", _of("rejection_at_limit"), "more", True),
    Output("climb_at_limit_K_s", "Climbs at the limit, a second", "temperature difference", _of("climb"), "less"),
    Output("time_to_limit_s", "Time to the limit", "time", _of("time_to_limit"), "more"),
    Output("airflow_m3_s", "Air through the core", "airflow", _of("airflow"), "more"),
    Output(
        "airflow_fans_on_m3_s", "Air through the core, fans running", "airflow", _of("airflow_fans_on"), "more", True
    ),
    Output("face_speed_m_s", "Speed at the face", "air speed", _of("face_speed"), "more", True),
    Output("air_in_degC", "Air ahead of the core", "temperature", _of("air_in"), "less", True),
    Output("air_out_degC", "Air behind the core", "temperature", _of("air_out")),
    Output("front_air_degC", "Air at the face", "temperature", _of("front_air"), "less", True),
    Output("bay_air_degC", "Air in the bay", "temperature", _of("bay_air"), "less", True),
    Output("recirculated_share", "Come back from the bay", "share", _of("recirculated"), "less", True),
    Output("back_through_share", "Back through what no fan sweeps", "share", _of("back_through"), "less", True),
    Output("bypassed_share", "Gone round the core", "share", _of("bypassed"), "less", True),
    Output("core_outlet_degC", "Coolant back from the core", "temperature", _of("coolant_out")),
    Output("coolant_flow_m3_s", "Coolant through the engine", "coolant flow", _of("coolant_flow"), "more", True),
    Output("core_coolant_flow_m3_s", "Coolant through the core", "coolant flow", _of("core_coolant_flow"), "more"),
    Output("thermostat_opening", "Thermostat open", "share", _of("thermostat_opening")),
    Output("fan_command", "Fans run, of the time", "share", _of("fan_command"), "less", True),
    Output("fan_current_A", "Fans, over their on and off times", "current", _of("fan_current"), "less", True),
    Output(
        "electrical_current_A", "Everything on, the fans running", "current", _of("electrical_current"), "less", True
    ),
    Output(
        "mean_current_A", "Everything on, in the mean of the fans’ cycle", "current", _of("mean_current"), "less", True
    ),
    Output(
        "alternator_current_A",
        "The alternator gives hot at this speed",
        "current",
        _of("alternator_current"),
        "more",
        True,
    ),
    Output("system_voltage_V", "Volts at the battery", "voltage", _of("system_voltage"), "more", True),
    Output("battery_current_A", "Into the battery", "current", _of("battery_current"), "more", True),
    Output("battery_lasts_s", "The battery lasts", "time", _of("battery_lasts"), "more", True),
    Output("engine_speed_rpm", "Engine at, rpm", "", _of("rpm")),
    Output("speed_m_s", "Road speed", "speed", _of("speed")),
    Output("ambient_degC", "Outdoor air", "temperature", _of("ambient")),
    Output("brake_power_W", "Brake power", "power", _of("brake_power")),
    Output("fuel_power_W", "Fuel burnt", "power", _of("fuel_power"), "less", True),
    Output("power_short_W", "Power the engine lacks", "power", _of("power_short"), "less"),
    Output("louver_reynolds", "Reynolds number of the louvers", "", _of("louver_reynolds")),
    Output("tube_reynolds", "Reynolds number of the coolant in the tubes", "", _of("tube_reynolds")),
    Output("chance_over_limit", "Chance that the limit is passed", "share", _of("chance"), "less", True),
    Output("highest_ambient_degC", "Holds the limit up to, outdoors", "temperature", _ambient("holds"), "more", True),
    Output("air_to_boil_degC", "Air to boil", "temperature", _ambient("boils"), "more", True),
)
"""Figures of a duty case."""
TOTALS: tuple[Output[Assessment], ...] = (
    Output(
        "current_at_idle_A",
        "Idle, everything on and the fans running",
        "current",
        lambda a: a.totals.amps_at_idle,
        "less",
        True,
    ),
    Output(
        "alternator_at_idle_A",
        "The alternator gives hot at idle",
        "current",
        lambda a: a.totals.alternator_at_idle,
        "more",
        True,
    ),
    Output(
        "voltage_at_idle_V", "Volts at the battery at idle", "voltage", lambda a: a.totals.volts_at_idle, "more", True
    ),
    Output("cost", "Parts", "money", lambda a: a.totals.cost, "less", True),
    Output("hours_s", "Shop hours", "time", lambda a: a.totals.hours, "less", True),
)
"""Running totals of a package."""
RULES: tuple[Output[Assessment], ...] = (
    Output("face_area_m2", "Face", "area", lambda a: a.rules.face_area, "more", True),
    Output("face_area_wanted_m2", "Face the frontal-area rule wants", "area", lambda a: a.rules.face_area_wanted),
    Output("airflow_m3_s", "Air standing, fans running", "airflow", lambda a: a.rules.airflow, "more", True),
    Output("airflow_wanted_m3_s", "Air the CFM rule wants", "airflow", lambda a: a.rules.airflow_wanted),
)
"""Rules of thumb beside what a package has."""
PACKAGE = (*TOTALS, *RULES)
OF_CASE = {output.key: output for output in CASE}


def machine(outputs: Sequence[Output[T]], of: T) -> dict[str, Value]:
    """Figures by their keys; None where one has no finite value."""
    values = ((output.key, output.read(of)) for output in outputs)
    return {key: None if isinstance(value, float) and not math.isfinite(value) else value for key, value in values}


def lines(figures: CaseFigures, system: str, *keys: str) -> tuple[tuple[str, str], ...]:
    """Some figures of a duty case as (label, value), in the order asked for."""
    return tuple((OF_CASE[key].label, OF_CASE[key].text(figures, system)) for key in keys)


def beside(one: CaseFigures, other: CaseFigures, system: str) -> tuple[tuple[str, str, str], ...]:
    """Figures of one duty case in two builds that differ in words, as (label, the one, the other); none where it does
    not settle in both: what stands there then is where the search ended."""
    if "does_not_settle" in (one.verdict, other.verdict):
        return ()
    told = ((output.label, output.text(one, system), output.text(other, system)) for output in CASE if output.compares)
    return tuple(row for row in told if row[1] != row[2])
