"""Findings of hoses, lines and ports: bores that do not meet, kinks, age, ports left open, what is not plumbed."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.fit.moves import unmoved
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.ports import ROLE_WORDS, end_name, ports_taken
from keelroom.assess.inputs.coolant.routes import HoseRun, hose_name
from keelroom.assess.loop.hose_plans import hose_plans
from keelroom.assess.loop.renewal import renewal
from keelroom.assess.wording import Found, choose_act, flag_act, lowered
from keelroom.core.loop.hoses import BEND_OVER_BORE, MAKES, STRETCH, meets
from keelroom.core.packaging.solids import clearance, stacked
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import INCH, both

EASIER = ("convoluted", "hard", "moulded")
"""Kinds that bend tighter, in the order they are proposed."""


def hoses(build: Build, package: Package, assessment: Assessment) -> Found:
    """Every hose, and every port of engine and core."""
    graph = graph_of(build, package)
    for plan in hose_plans(build, package):
        if plan.stopped:
            where = ("packages", package.id, "loop", "hoses", plan.run.hose.id)
            yield Finding(
                "not_worked_out",
                "problem",
                where,
                f"{plan.run.name} could not be worked out",
                f"{plan.stopped}. Everything else stands without it.",
            )
    for run in graph.runs:
        yield from _bores(package, run)
        yield from _kink(package, run)
        yield from _age(package, run)
    yield from _exhaust(build, package)
    yield from _engine_ports(build, package)
    yield from _core_ports(package)


def _bores(package: Package, run: HoseRun) -> Found:
    if run.hose.piece != "none":
        return
    for port in (run.start, run.end):
        if port.bore is None:
            continue
        met = meets(run.bore, port.bore)
        if met.way in ("fits", "stretched", "clamped"):
            continue
        path = ("packages", package.id, "loop", "hoses", run.hose.id, "piece")
        how = {
            "sleeve": "A sleeve cut from an offcut of a smaller hose, pushed over the neck first, makes it meet.",
            "reducer": f"A hose stretches by about {both(STRETCH, 'length')}; more wants a reducer or a stepped joiner.",
        }[met.way]
        yield Finding("bores_differ", "problem", path, f"{run.name} does not meet {lowered(port.name)}",
                      f"The hose is {both(run.bore, 'length')}, the neck {both(port.bore, 'length')}. {how}",
                      (choose_act(f"With a {met.way}", path, met.way),), value=run.bore, limit=port.bore)  # fmt: skip
        return


def _kink(package: Package, run: HoseRun) -> Found:
    if run.radius is None or run.radius >= run.wanted - 5e-4:
        return
    where = ("packages", package.id, "loop", "hoses", run.hose.id)
    easier = [kind for kind in EASIER if run.radius >= BEND_OVER_BORE[kind] * run.bore - 5e-4]
    fixes = tuple(choose_act(f"Make it of {MAKES[kind]}", (*where, "kind"), kind) for kind in easier[:1])
    yield Finding("hose_kink", "problem", (*where, "kind"), f"{run.name} kinks",
                  f"Bent to a radius of {both(run.radius, 'length')}; {MAKES[run.hose.kind]} of {both(run.bore, 'length')} wants {both(run.wanted, 'length')} at least. "
                  "A hose that has gone flat lets half through and is sucked shut at revs.", fixes, value=run.radius, limit=run.wanted)  # fmt: skip


def _age(package: Package, run: HoseRun) -> Found:
    due = renewal(run.hose)
    if due is None:
        return
    where = ("packages", package.id, "loop", "hoses", run.hose.id)
    yield Finding("hose_old", due.level, (*where, "state"), f"{run.name}: {due.what}", due.why,
                  (Act("renew_hose", "Renew it", package.id, (("hose", run.hose.id),)),))  # fmt: skip


OFF_EXHAUST = 3 * INCH
"""[m] a coolant hose keeps off an exhaust pipe or manifold (common practice; half of it with a shield between)."""


def _exhaust(build: Build, package: Package) -> Found:
    hot = [item for item in build.survey.obstacles if item.kind == "exhaust" and item.id not in package.moved]
    if not hot:
        return
    keys = {f"obstacle:{item.id}": item for item in hot}
    pipes = [body for body in unmoved(build.survey, package) if body.key in keys and not body.unknown]
    lines = [body for body in parts_of_package(build.survey, package) if body.sort == "hose"]
    if not pipes or not lines:
        return
    pairs = [(line, pipe) for line in lines for pipe in pipes]
    gaps = clearance(stacked([line.solid for line, _ in pairs]), stacked([pipe.solid for _, pipe in pairs])).gap
    nearest: dict[str, tuple[float, str]] = {}
    for (line, pipe), gap in zip(pairs, gaps, strict=True):
        ident = line.key.split(":")[1]
        if float(gap) < nearest.get(ident, (OFF_EXHAUST, ""))[0]:
            nearest[ident] = (float(gap), pipe.name)
    for ident, (gap, name) in nearest.items():
        hose = next(one for one in package.loop.hoses if one.id == ident)
        where = ("packages", package.id, "loop", "hoses", ident, "name")
        yield Finding("hose_near_exhaust", "problem", where, f"{hose_name(hose)} passes {both(max(gap, 0.0), 'length')} from {lowered(name)}",
                      f"{both(OFF_EXHAUST, 'length')} at least, or a shield with air on both sides: rubber bakes hard, and coolant that runs onto a hot pipe burns, glycol without water first of all.",
                      value=gap, limit=OFF_EXHAUST)  # fmt: skip


def _engine_ports(build: Build, package: Package) -> Found:
    joined = ports_taken(package.loop.hoses)
    loose = [end for end in build.survey.hoses if not end.plugged and f"engine:{end.id}" not in joined]
    for end in loose:
        path = ("survey", "hoses", end.id, "plugged")
        plug = flag_act("It is closed", path, True)
        if end.role == "steam":
            fixes = (Act("plumb_steam", "Plumb it up to the tank", package.id, (("port", end.id),)), plug)
            yield Finding("steam_open", "problem", path, f"{end_name(end)} is open-ended",
                          "Steam gathers at the back of a head and cooks it: every steam port is plumbed, rising, with a 1/4 in line to the tank or the core’s top.", fixes)  # fmt: skip
        elif end.role in ("heater_out", "heater_in"):
            fixes = (Act("plumb_heater", "Plumb the heater", package.id), plug)
            yield Finding("heater_unplumbed", "doubt", path, f"{end_name(end)}: nothing is joined to it",
                          "Without the heater’s branch its port loses coolant, and on many engines the flow past the thermostat while it is shut.", fixes)  # fmt: skip
        elif len([one for one in build.survey.hoses if one.role == end.role]) > 1:
            yield Finding("engine_port_open", "problem", path, f"{end_name(end)} is open",
                          f"A second {ROLE_WORDS[end.role]} is used or closed.", (plug,))  # fmt: skip


CLOSING = {
    "aluminium": "A plate cut to cover it, welded by somebody who welds thin aluminium: cleaned bright, the core dry and open to the air. Plastic tanks take a plug in the thread, nothing else. Epoxy is a stopgap.",
    "copper_brass": "A cap or plate in brass or steel, tacked at about 35–41 A, left to cool, then short runs, back-stepped: the solder beside it may run, so the seams next to it are kept wet. Silver brazing wants the whole port away from soldered seams; a neck is left for a later owner.",
}


def _core_ports(package: Package) -> Found:
    joined = ports_taken(package.loop.hoses)
    for port in package.core.ports:
        where = ("packages", package.id, "core", "ports", port.id, "state")
        name = port.name or f"The core’s {port.use} port"
        own = f"core:{port.use}" if port.use in ("inlet", "outlet") else f"core:{port.id}"
        if port.state == "open" and own not in joined:
            thread = f" Its plug has the thread {port.thread}." if port.thread else " Read its thread before a plug is bought."
            yield Finding("core_port_open", "problem", where, f"{name} is open",
                          f"{both(port.bore.si, 'length')} of it lets all coolant out.{thread}",
                          (choose_act("A plug in it", where, "plugged"), choose_act("To be closed for good", where, "to_close")))  # fmt: skip
        if port.state == "to_close":
            yield Finding("core_port_closing", "note", where, f"{name} is to be closed",
                          f"{CLOSING[package.core.material]} Then test at or under the cap’s rating, regulated air, behind a shield, before it is trusted.")  # fmt: skip
