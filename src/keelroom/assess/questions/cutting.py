"""Cut or not: what of the face the panel hides, what each stage of cutting would gain, and what must be looked at
first."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.bay import cut_steps, letter
from keelroom.assess.acts.core import fit_core
from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.batch import Asked, temperatures
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.fit.cut_rules import BELT_OPEN, belt_open, checks_missing, edge_kind
from keelroom.assess.placing import face_size, hidden_share
from keelroom.assess.questions.worth import telling_cases
from keelroom.assess.safety import cautions
from keelroom.catalogue.load import FanAssembly, cores, fan_assemblies, placed
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import PanelEdge
from keelroom.document.schema.survey import Check
from keelroom.errors import InputError
from keelroom.units import both

SPARE = 1e-3
"""[m] by which fans may stand over a face before others are taken."""


class CutStage(NamedTuple):
    """One stage of cutting. hidden: share of the face still behind metal after it; heats: (case name, settled degC,
    inf where it does not settle, None where something is missing); refused: why it must not be cut, '' where it may;
    act: makes all cuts up to it."""

    letter: str
    words: str
    edge: PanelEdge | None
    amount: float
    hidden: float
    heats: tuple[tuple[str, float | None], ...]
    refused: str
    act: Act | None


class CutPlan(NamedTuple):
    """Stages from no cut outward, and the biggest core that needs none. missing: checks that still have to come
    first."""

    stages: tuple[CutStage, ...]
    uncut: CutStage | None
    uncut_core: str
    missing: tuple[tuple[Check, str], ...]
    cautions: tuple[str, ...]


@in_one_go
def cut_plan(build: Build, system: str = "us") -> CutPlan:
    """Stages of cutting for the active package with the temperatures each leaves, against the biggest core that needs
    no cut."""
    package = build.package
    cases = [case for case in telling_cases(build) if case is not None]
    steps: list[tuple[PanelEdge | None, float, Build]] = [(None, 0.0, build)]
    steps += [(step.edge, step.amount, step.build) for step in cut_steps(build, package, system)]
    rival, rival_build = _biggest_uncut(build)
    asked = [*(step[2] for step in steps), *([rival_build] if rival_build else [])]
    heats = temperatures([Asked(one, case.id) for one in asked for case in cases])
    rows = [
        tuple((case.name, heat) for case, heat in zip(cases, heats[k * len(cases) : (k + 1) * len(cases)], strict=True))
        for k in range(len(asked))
    ]
    stages = tuple(
        CutStage(
            "" if edge is None else letter(k),
            _words(edge, amount, package.name),
            edge,
            amount,
            hidden_share(one.survey, one.package),
            rows[k],
            _refusal(build, edge),
            None if edge is None else offer("cut_to", package.id, f"Cut {letter(k)}", stage=letter(k)),
        )
        for k, (edge, amount, one) in enumerate(steps)
    )
    uncut = CutStage("", rival, None, 0.0, 0.0, rows[-1], _does_not_fit(rival_build), None) if rival_build else None
    stamped = [edge for edge in ("left", "right", "bottom", "top") if edge_kind(build.survey.opening, edge) != "plain"]
    found = [*cautions("cut", "structure")]
    if stamped:
        found.append(
            f"Stamped or no-go: {', '.join(stamped)}. A stamped edge carries load; what is cut there is made "
            "good with a brace."
        )
    found += [f"{item.name}: marked structural" for item in build.survey.obstacles if item.structural]
    if belt_open(build):
        found.append(BELT_OPEN)
    return CutPlan(stages, uncut, rival, checks_missing(build), tuple(found))


def _words(edge: PanelEdge | None, amount: float, name: str) -> str:
    return f"{name}, panel as found" if edge is None else f"{edge} edge, {both(amount, 'length')}"


def _refusal(build: Build, edge: PanelEdge | None) -> str:
    if edge is not None and edge_kind(build.survey.opening, edge) == "no_go":
        return f"The {edge} edge is marked no-go in the survey: it must not be cut"
    return ""


def _biggest_uncut(build: Build) -> tuple[str, Build | None]:
    """The catalogue core with the most face that the opening leaves whole, with this package's fans where they go
    onto it, else with the strongest of the catalogue that do."""
    best: tuple[float, str, Build] | None = None
    bare = apply(build, Edit("", (Change(("packages", build.active, "cuts"), ()), *_centred(build))))
    for core in cores():
        assert core.face_width
        assert core.face_height
        area = core.face_width.si * core.face_height.si
        if best is not None and area <= best[0]:
            continue
        try:
            changed = apply(bare, fit_core(bare.package, core))
        except InputError:
            continue
        if hidden_share(changed.survey, changed.package) == 0:
            best = (area, core.name, changed)
    return _with_fans_that_fit(best[1], best[2]) if best else ("", None)


def _with_fans_that_fit(name: str, build: Build) -> tuple[str, Build]:
    """The rival with fans that its face has room for, named where they are others."""
    package = build.package
    width, height = face_size(package)
    sizes = [fan.diameter.si for fan in package.fans if fan.diameter]
    if sum(sizes) <= width + SPARE and max(sizes, default=0.0) <= height + SPARE:
        return name, build

    def flow(assembly: FanAssembly) -> float:
        return assembly.count * (assembly.fan.free_air_flow.si if assembly.fan.free_air_flow else 0.0)

    fitting = [
        a
        for a in fan_assemblies()
        if a.fan.diameter and a.fan.diameter.si <= height and a.count * a.fan.diameter.si <= width
    ]
    if not fitting:
        return name, build
    best = max(fitting, key=flow)
    fans, shroud = placed(best, package.core, "us")
    kept = (
        package.shroud.model_copy(update={"kind": "full"}) if package.shroud.kind != "none" or best.shrouded else shroud
    )
    where = ("packages", build.active)
    return f"{name}, {best.name}", apply(
        build, Edit("", (Change((*where, "fans"), fans), Change((*where, "shroud"), kept)))
    )


def _does_not_fit(build: Build) -> str:
    """Why the rival would not go in, '' where it would or nothing round it is measured."""
    tightest = fit_up(build, build.package).tightest
    if tightest is None or tightest.margin >= 0:
        return ""
    gap = (
        f"overlaps by {both(-tightest.gap, 'length')}"
        if tightest.gap < 0
        else f"comes within {both(tightest.gap, 'length')}"
    )
    return f"It does not fit as the bay is: {tightest.part.name} {gap} at {tightest.other.name}"


def _centred(build: Build) -> tuple[Change, ...]:
    return tuple(Change(("packages", build.active, "place", axis), None) for axis in ("x", "y"))
