"""What stands on the face of everything that is handed out, sheet, lists and templates: the problems that are open in
what it is for, and what can hurt somebody at the steps it asks for."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.safety import Step, cautions, known
from keelroom.assess.words import worded
from keelroom.document.schema.build import Build


def steps_of(build: Build) -> tuple[Step, ...]:
    """The steps of the work the active package takes, as dangers know them."""
    package = build.package
    moved = set(package.moved)
    kinds = {one.kind for one in build.survey.obstacles if one.id in moved}
    closes = any(port.state == "to_close" for port in package.core.ports)
    made = bool(package.brackets or package.panels)
    pan = package.shroud.kind == "full" and not package.shroud.supplied
    there: dict[Step, bool] = {
        "wire": bool(package.circuits),
        "charge": bool(package.circuits),
        "spin": bool(package.fans),
        "drill": made,
        "bend": made or pan,
        "cut": bool(package.cuts) or pan,
        "structure": bool(package.cuts) or any(one.structural for one in build.survey.obstacles if one.id in moved),
        "weld": closes,
        "close_brass": closes and package.core.material == "copper_brass",
        "refrigerant": build.brief.accessories.ac_fitted,
        "gearbox": any(one.kind == "gearbox_cooler" for one in package.coolers),
        "hot_lines": bool(package.coolers),
        "move": bool(moved),
        "latch": "latch_support" in kinds,
        "brakes": "brake_unit" in kinds,
        "battery": "battery_tray" in kinds,
    }
    always = ("plan", "drain", "core", "hoses", "fill", "pressure_test", "run", "soak", "fan", "lift", "jack", "hood")
    return known((*always, *(step for step, is_there in there.items() if is_there)))


MADE = frozenset({"shroud", "panels", "brackets", "mounting", "cuts", "moves", "core", "place", "survey"})
"""parts of a build its templates and cut lists are made for"""
WIRED = frozenset({"circuits", "control", "supply", "fans"})
"""those the harness and its lists are made for"""


def minds_of_wired(assessment: Assessment, system: str) -> tuple[str, ...]:
    """The same of the harness."""
    return (*_unsettled(assessment, WIRED, system), *cautions("wire", "charge", "spin"))


def _unsettled(assessment: Assessment, parts: frozenset[str], system: str) -> tuple[str, ...]:
    return tuple(f"NOT SETTLED: {one}" for one in open_problems(assessment, parts, system))


def minds_of_made(assessment: Assessment, system: str) -> tuple[str, ...]:
    """What stands with templates and lists of made parts: problems that are open, then what can hurt somebody."""
    return (*_unsettled(assessment, MADE, system), *cautions("drill", "bend", "cut", "structure"))


def open_problems(assessment: Assessment, parts: frozenset[str], system: str) -> tuple[str, ...]:
    """Problems, in words, of some parts of the package or sections of the build: what a list of them must say on its
    face."""
    return tuple(
        dict.fromkeys(
            worded(one, system).what
            for one in assessment.findings
            if one.level == "problem" and parts & set(one.where[:3])
        )
    )
