"""The Air station's form, its table of fans, and the air figures of the chosen duty case."""

from __future__ import annotations

from keelroom.assess.assessment import Assessment, CaseFigures
from keelroom.build.edits import Change, Edit
from keelroom.build.schema.build import Build
from keelroom.build.schema.package import Fan, Shroud
from keelroom.catalogue.load import FanAssembly, placed
from keelroom.gui.stations.rows import Group, Page, Row, quantities
from keelroom.units import KINDS, format_si

SHROUDS = (("full", "Full, sealed"), ("partial", "Part of the face"), ("none", "None"))
BLADES = (("curved", "Curved"), ("straight", "Straight"))
MOTORS = (("brushed", "Brushed"), ("brushless", "Brushless"))
COLUMNS = ("Fan", "Rated", "Depth", "Cost")


def pages(build: Build) -> tuple[Page, ...]:
    """What is fitted, where it sits, and what it does."""
    package = ("packages", build.active)
    shroud = (*package, "shroud")
    extra = quantities(shroud, "left", "bottom", "width", "height") if build.package.shroud.kind == "partial" else ()
    gap = quantities(shroud, "fan_gap") if build.package.shroud.kind == "none" else ()
    fans = tuple(_fan_group(build, fan, i) for i, fan in enumerate(build.package.fans))
    return (
        Page("Choose", ()),
        Page("Fans", fans or (Group("No fan yet", (), note="Choose one from the list, or add one and describe it."),),
             (("Add a fan", "add_fan"), ("Spread over the face", "spread"), ("Keep in my parts", "keep"))),
        Page("Shroud", (Group("Shroud", (Row("choice", (*shroud, "kind"), "Shroud", SHROUDS), *extra, *gap, *quantities(shroud, "cost"))),)),
        Page("Figures", ()),
    )  # fmt: skip


def _fan_group(build: Build, fan: Fan, index: int) -> Group:
    path = ("packages", build.active, "fans", fan.id)
    rows = (
        Row("text", (*path, "name"), "Fan"),
        *quantities(path, "x", "y", "diameter", "hub_diameter", "depth", "free_air_flow", "derate", "power", "rated_voltage"),
        Row("choice", (*path, "blade"), "Blade", BLADES),
        Row("choice", (*path, "motor"), "Motor", MOTORS),
        Row("curve", (*path, "curve"), "Curve points"),
        *quantities(path, "cost"),
    )
    return Group(f"Fan {index + 1}", rows, remove=path)


def cells(assembly: FanAssembly, system: str) -> tuple[str, ...]:
    """One line of the table of fans."""
    fan, count = assembly.fan, assembly.count
    flow = format_si(count * fan.free_air_flow.si, KINDS["airflow"], system) if fan.free_air_flow else "?"
    return (assembly.name, flow, format_si(fan.depth.si, KINDS["length"], system) if fan.depth else "?", f"{assembly.cost:.0f}")


def choose(build: Build, assembly: FanAssembly, system: str) -> Edit:
    """The edit that fits an assembly to the active package: fans spread over the face, with its own shroud or the present one."""
    fans, shroud = placed(assembly, build.package.core, system)
    place = ("packages", build.active)
    kept: Shroud = shroud if assembly.shrouded else build.package.shroud
    return Edit(f"Fans: {assembly.name}", (Change((*place, "fans"), fans), Change((*place, "shroud"), kept)))


def figure_rows(build: Build, assessment: Assessment, case_id: str, system: str) -> tuple[str, list[tuple[str, str]]]:
    """The chosen duty case's name and its air figures as (what, value): rated, expected and measured-like kept apart."""
    case = next((case for case in assessment.cases if case.case_id == case_id), None)
    if case is None or case.figures is None:
        return (case.name if case else ""), []
    figures = case.figures

    def text(si: float, kind: str) -> str:
        return format_si(si, KINDS[kind], system)

    rows = [
        ("Air through the core, fans running", text(figures.airflow_fans_on, "airflow")),
        ("Mean over fan on and off times", text(figures.airflow, "airflow")),
        ("Speed at the face", text(figures.face_speed, "air speed")),
        ("Air ahead of the core", text(figures.air_in, "temperature")),
        ("Air behind the core", text(figures.air_out, "temperature")),
        *_fan_rows(build, figures, text),
    ]
    wanted = assessment.rules.airflow_wanted
    if wanted is not None:
        rows.append(("CFM rule of thumb wants", text(wanted, "airflow")))
    rows += [(f"Pressure, {place}", text(pressure, "fan pressure")) for place, pressure in figures.pressures]
    return case.name, rows


def _fan_rows(build: Build, figures: CaseFigures, text) -> list[tuple[str, str]]:  # type: ignore[no-untyped-def]
    rows: list[tuple[str, str]] = []
    for i, (fan, found) in enumerate(zip(build.package.fans, figures.fans, strict=False), 1):
        if fan.free_air_flow:
            rows.append((f"Fan {i}: advertised, free air", text(fan.free_air_flow.si, "airflow")))
        rows += [
            (f"Fan {i}: into this core", text(found.flow_into_core, "airflow")),
            (f"Fan {i}: at the fan, as an anemometer reads", text(found.flow_at_fan, "airflow")),
            (f"Fan {i}: mean current", text(found.current, "current")),
        ]
    return rows
