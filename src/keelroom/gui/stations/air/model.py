"""The Air station's form, its table of fans, and the air figures of the chosen duty case."""

from __future__ import annotations

from collections.abc import Callable

from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.airfigures import READING_DOUBT
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.figures.outputs import lines
from keelroom.assess.inputs.electrical.loads import label_words
from keelroom.catalogue.load import FanAssembly
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan
from keelroom.gui.rows import Group, Page, Row, quantities
from keelroom.units import KINDS, format_si, money_text

Text = Callable[[float, str], str]
SHROUDS = (("full", "Full"), ("partial", "Part of the face"), ("none", "None"))
BLADES = (("curved", "Curved"), ("straight", "Straight"))
MADE = (("original", "A new original"), ("copy", "A copy"), ("used", "Used"), ("budget", "From a budget kit"))
MOTORS = (("brushed", "Brushed motor"), ("brushless", "Brushless motor"), ("engine", "The engine"))
ELECTRIC = ("power", "rated_voltage", "rated_current")
DRIVEN = ("ratio", "rated_rpm", "drag", "safe_rpm", "tip_trim", "nose")
DUCT = ("duct_height", "duct_depth")
MOUNTS = (("puller", "Behind: puller"), ("pusher", "In front: pusher"))
PLENUMS = (("shared", "All fans share it"), ("divided", "Divided between fans"))
COLUMNS = ("Fan", "Rated", "Depth", "Cost")


def pages(build: Build) -> tuple[Page, ...]:
    """What is fitted, where it sits, and what it does."""
    package = ("packages", build.active)
    shroud = (*package, "shroud")
    kind = build.package.shroud.kind
    extra = quantities(shroud, "left", "bottom", "width", "height") if kind == "partial" else ()
    inside = (
        ()
        if kind == "none"
        else (
            *quantities(shroud, "depth", "edge_gap", "hole_area", "flap_area"),
            Row("choice", (*shroud, "plenum"), "Plenum", PLENUMS),
        )
    )
    fans = tuple(_fan_group(build, fan, i) for i, fan in enumerate(build.package.fans))
    return (
        Page("Choose", ()),
        Page(
            "Fans",
            fans or (Group("No fan yet", (), note="Choose one from the list, or add one and describe it."),),
            (
                ("Add a fan", offer("add_fan", build.active)),
                ("Spread over the face", offer("spread", build.active)),
                ("Keep in my parts", "keep"),
            ),
            brief=lambda path: next(fan.name for fan in build.package.fans if fan.id == path[-1]),
        ),
        Page(
            "Shroud",
            (
                Group(
                    "Shroud",
                    (
                        Row("choice", (*shroud, "kind"), "Shroud", SHROUDS),
                        *extra,
                        *inside,
                        *quantities(shroud, "fan_gap", "cost"),
                    ),
                ),
                Group(
                    "Round the core",
                    (),
                    note="Air goes round the core if it can; standing, hot bay air comes back. The gaps are "
                    "measured at Survey, Air gaps; panels and strips that close them are planned at Fit-up, "
                    "Panels.",
                ),
            ),
            (("To the gaps", (*package, "sealing", "top", "gap")),),
        ),
        Page("Curve", ()),
        Page("Figures", ()),
        Page("Worth", ()),
        Page("Panels", ()),
        Page("Swap", ()),
    )


def _fan_group(build: Build, fan: Fan, index: int) -> Group:
    path = ("packages", build.active, "fans", fan.id)
    rows = (
        Row("text", (*path, "name"), "Fan"),
        *quantities(
            path,
            "x",
            "y",
            "diameter",
            "hub_diameter",
            "depth",
            "free_air_flow",
            "derate",
            *(DRIVEN if fan.motor == "engine" else ELECTRIC),
            *(() if fan.motor != "engine" else ("immersion",) if fan.nose is None else ("spacer",)),
        ),
        Row("choice", (*path, "made"), "Comes as", MADE),
        *(
            ()
            if fan.motor != "engine"
            else (
                Row("flag", (*path, "clutch"), "Thermal clutch"),
                *(quantities(path, "engages") if fan.clutch else ()),
            )
        ),
        Row("choice", (*path, "mount"), "Place", MOUNTS),
        *(quantities(path, "duct_width", *(DUCT if fan.duct_width else ())) if fan.mount == "pusher" else ()),
        Row("flag", (*path, "runs"), "Runs"),
        Row("choice", (*path, "blade"), "Blade", BLADES),
        Row("choice", (*path, "motor"), "Turned by", MOTORS),
        *_controller_rows(fan, path),
        Row("flag", (*path, "reversed_blade"), "One-way blade run backwards"),
        *(quantities(path, "reversed_share") if fan.reversed_blade else ()),
        Row("curve", (*path, "curve"), "Curve points"),
        *quantities(path, "cost"),
    )
    return Group(f"Fan {index + 1}", rows, note=label_words(fan), remove=path)


CONTROLLERS = (("none", "None: two leads"), ("inside", "Inside the motor"), ("beside", "In a box beside it"))
SIGNALS = (("pulses", "Pulses (variable)"), ("level", "12 V"), ("ground", "A ground"))


def _controller_rows(fan: Fan, path: tuple[str, ...]) -> tuple[Row, ...]:
    """What electronics a motor has, and the leads they want."""
    if fan.motor == "engine":
        return ()
    rows = [Row("choice", (*path, "controller"), "Its own electronics", CONTROLLERS)]
    if fan.controller != "none":
        rows += [
            Row("choice", (*path, "signal"), "Signal lead takes", SIGNALS),
            Row("flag", (*path, "key_lead"), "A lead from the key wakes it"),
            Row("flag", (*path, "override_lead"), "A lead runs it at full speed"),
        ]
    return tuple(rows)


def cells(assembly: FanAssembly, system: str, sign: str) -> tuple[str, ...]:
    """One line of the table of fans."""
    fan, count = assembly.fan, assembly.count
    flow = format_si(count * fan.free_air_flow.si, KINDS["airflow"], system) if fan.free_air_flow else "?"
    return (
        assembly.name,
        flow,
        format_si(fan.depth.si, KINDS["length"], system) if fan.depth else "?",
        money_text(assembly.cost, sign),
    )


def figure_rows(build: Build, assessment: Assessment, case_id: str, system: str) -> tuple[str, list[tuple[str, str]]]:
    """The chosen duty case's name and its air figures as (what, value): rated, expected and measured-like kept
    apart."""
    case = next((case for case in assessment.cases if case.case_id == case_id), None)
    if case is None or case.figures is None:
        return (case.name if case else ""), []
    figures = case.figures

    def text(si: float, kind: str) -> str:
        return format_si(si, KINDS[kind], system)

    rows = [
        *lines(figures, system, "airflow_fans_on_m3_s"),
        ("Mean over fan on and off times", text(figures.airflow, "airflow")),
        *lines(figures, system, *SHOWN),
        *_cover_rows(build, figures, text),
        *_fan_rows(build, figures, text),
    ]
    wanted = assessment.rules.airflow_wanted
    if wanted is not None:
        rows.append(("CFM rule of thumb wants", text(wanted, "airflow")))
    return case.name, rows


SHOWN = (
    "face_speed_m_s",
    "ambient_degC",
    "front_air_degC",
    "recirculated_share",
    "back_through_share",
    "bypassed_share",
    "air_in_degC",
    "air_out_degC",
    "bay_air_degC",
    "core_coolant_flow_m3_s",
    "coolant_flow_m3_s",
)
FLUIDS = {
    "condenser": "refrigerant",
    "gearbox_cooler": "gearbox fluid",
    "oil_cooler": "oil",
    "charge_cooler": "intake air",
}


def _cover_rows(build: Build, figures: CaseFigures, text: Text) -> list[tuple[str, str]]:
    rows: list[tuple[str, str]] = []
    names = {cover.id: cover.name or cover.kind.replace("_", " ") for cover in build.package.coolers}
    for cover in figures.coolers:
        if cover.kind in FLUIDS and cover.heat > 1:
            name = names.get(cover.cooler_id, cover.kind)
            rows += [
                (f"{name}: air leaves at", text(cover.air_out, "temperature")),
                (f"{name}: its {FLUIDS[cover.kind]}", text(cover.fluid, "temperature")),
            ]
    return rows


def _fan_rows(build: Build, figures: CaseFigures, text: Text) -> list[tuple[str, str]]:
    """Rated, expected and read apart from each other, in that order."""
    rows: list[tuple[str, str]] = []
    for i, (fan, found) in enumerate(zip(build.package.fans, figures.fans, strict=False), 1):
        if fan.free_air_flow and not fan.curve:
            rows.append((f"Fan {i}: rated, free air", text(fan.free_air_flow.si, "airflow")))
            if fan.derate:
                rows.append((f"Fan {i}: credible share of it", f"{fan.derate.si:.0%}"))
        rows += [
            (f"Fan {i}: expected into this core", text(found.flow_into_core, "airflow")),
            (f"Fan {i}: hot air at its blades", text(found.flow_at_fan, "airflow")),
            (f"Fan {i}: a hand anemometer reads", f"{text(found.read_by_hand, 'airflow')} ± {READING_DOUBT:.0%}"),
        ]
        if fan.free_air_flow:
            rows.append((f"Fan {i}: reading over rating", f"{found.read_by_hand / fan.free_air_flow.si:.0%}"))
        rows += [
            (f"Fan {i}: through the core", f"{found.from_core:.0%}"),
            *([(f"Fan {i}: round the edge", f"{found.from_edge:.0%}")] if found.from_edge > 0.005 else []),
            *([(f"Fan {i}: back through a stopped fan", f"{found.from_hole:.0%}")] if found.from_hole > 0.005 else []),
            (f"Fan {i}: volts at the motor", text(found.voltage, "voltage")),
            (f"Fan {i}: mean current", text(found.current, "current")),
        ]
    return rows
