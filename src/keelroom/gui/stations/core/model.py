"""The Core station's form and its table of cores to choose from."""

from __future__ import annotations

from dataclasses import dataclass

from keelroom.assess.acts.registry import offer
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import FINS, Core
from keelroom.gui.rows import Group, Page, Row, quantities
from keelroom.units import KINDS, format_si, money_text

FLOWS = (("crossflow", "Crossflow"), ("downflow", "Downflow"))
MATERIALS = (("aluminium", "Aluminium"), ("copper_brass", "Copper/brass"))
CONDITIONS = (("clean", "Clean"), ("some_scale", "Some scale"), ("bad", "Badly scaled"))


def pages(build: Build) -> tuple[Page, ...]:
    """Size first, then what is inside."""
    core = ("packages", build.active, "core")
    return (
        Page("Choose", ()),
        Page(
            "Size",
            (
                Group(
                    "Core",
                    (
                        Row("text", (*core, "name"), "Core"),
                        Row("choice", (*core, "flow"), "Flow", FLOWS),
                        *quantities(
                            core, "face_width", "face_height", "depth", "tank_size", "neck_height", "passes", "cost"
                        ),
                        Row("choice", (*core, "condition"), "Inside", CONDITIONS),
                    ),
                    note="Face: the finned part only; tanks outside it.",
                ),
                Group(
                    "Fins and tubes",
                    (Row("choice", (*core, "material"), "Material", MATERIALS), *quantities(core, "rows", *FINS)),
                ),
                Group(
                    "Package",
                    (Row("text", ("packages", build.active, "name"), "Package"),),
                ),
            ),
            (
                ("Keep in my parts", "keep"),
                ("Copy this package", offer("copy_package", build.active)),
                ("Remove it", offer("remove_package", build.active)),
            ),
        ),
        Page("Sweeps", ()),
    )


@dataclass(frozen=True)
class Choice:
    """One line of the table: its cells, the core, and whether it is the user's own."""

    cells: tuple[str, ...]
    core: Core
    own: bool


def choices(shipped: tuple[Core, ...], own: tuple[Core, ...], system: str, sign: str) -> tuple[Choice, ...]:
    """Cores to choose from, the user's own first."""
    return tuple(
        Choice(_cells(core, system, mine, sign), core, mine)
        for mine, cores in ((True, own), (False, shipped))
        for core in cores
    )


def _cells(core: Core, system: str, own: bool, sign: str) -> tuple[str, ...]:
    length = KINDS["length"]
    width, height, depth = (
        format_si(v.si, length, system) if v else "?" for v in (core.face_width, core.face_height, core.depth)
    )
    unit = length.shown_unit(system).symbol
    face = f"{width.removesuffix(unit).strip()} × {height}"
    fins = f"{core.fin_density.si * 0.0254:.0f}/in" if core.fin_density else "?"
    cost = money_text(core.cost.si, sign) if core.cost else ""
    return (("mine: " if own else "") + core.name, depth, face, fins, cost)


def fit_core_act(build: Build, core: Core) -> Act | None:
    """The act that puts a core into the active package; None where it is there."""
    if core == build.package.core:
        return None
    return offer("fit_core", build.active, f"Core: {core.name}", name=core.name)
