"""Findings of hoses, lines and ports: bores that do not meet, kinks, age, ports left open, what is not plumbed."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fixes import choose_act, flag_act
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.ports import ROLE_WORDS, end_name, ports_taken
from keelroom.assess.inputs.coolant.routes import HoseRun
from keelroom.assess.loop.hose_plans import hose_plans
from keelroom.assess.loop.renewal import renewal
from keelroom.core.loop.hoses import BEND_OVER_BORE, MAKES, STRETCH, meets
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import given

EASIER = ("convoluted", "hard", "moulded")
"""Kinds that bend tighter, in the order they are proposed."""


def hoses(build: Build, package: Package, assessment: Assessment) -> Found:
    """Every hose, and every port of engine and core."""
    graph = graph_of(build, package)
    for plan in hose_plans(build, package):
        if plan.stopped:
            where = ("packages", package.id, "loop", "hoses", plan.run.hose.id)
            yield Finding(
                "not_worked_out", "problem", where, given(name=plan.run.name, reason=plan.stopped), form="part"
            )
    for run in graph.runs:
        yield from _bores(package, run)
        yield from _kink(package, run)
        yield from _age(package, run)
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
        yield Finding(
            "bores_differ",
            "problem",
            path,
            given(
                name=run.name,
                port=port.name,
                bore=(run.bore, "length"),
                neck=(port.bore, "length"),
                stretch=(STRETCH, "length"),
            ),
            form=met.way,
            fix=(choose_act(f"With a {met.way}", path, met.way),),
            value=run.bore,
            limit=port.bore,
        )
        return


def _kink(package: Package, run: HoseRun) -> Found:
    if run.radius is None or run.radius >= run.wanted - 5e-4:
        return
    where = ("packages", package.id, "loop", "hoses", run.hose.id)
    easier = [kind for kind in EASIER if run.radius >= BEND_OVER_BORE[kind] * run.bore - 5e-4]
    fixes = tuple(choose_act(f"Make it of {MAKES[kind]}", (*where, "kind"), kind) for kind in easier[:1])
    yield Finding(
        "hose_kink",
        "problem",
        (*where, "kind"),
        given(
            name=run.name,
            radius=(run.radius, "length"),
            make=MAKES[run.hose.kind],
            bore=(run.bore, "length"),
            wanted=(run.wanted, "length"),
        ),
        fix=fixes,
        value=run.radius,
        limit=run.wanted,
    )


def _age(package: Package, run: HoseRun) -> Found:
    due = renewal(run.hose)
    if due is None:
        return
    where = ("packages", package.id, "loop", "hoses", run.hose.id)
    yield Finding(
        "hose_old",
        due.level,
        (*where, "state"),
        given(name=run.name, years=(due.years, "count"), life=(due.life, "count")),
        form=due.form,
        fix=(Act("renew_hose", "Renew it", package.id, (("hose", run.hose.id),)),),
    )


def _engine_ports(build: Build, package: Package) -> Found:
    joined = ports_taken(package.loop.hoses)
    loose = [end for end in build.survey.hoses if not end.plugged and f"engine:{end.id}" not in joined]
    for end in loose:
        path = ("survey", "hoses", end.id, "plugged")
        plug = flag_act("It is closed", path, True)
        if end.role == "steam":
            fixes = (Act("plumb_steam", "Plumb it up to the tank", package.id, (("port", end.id),)), plug)
            yield Finding("steam_open", "problem", path, given(port=end_name(end)), fix=fixes)
        elif end.role in ("heater_out", "heater_in"):
            fixes = (Act("plumb_heater", "Plumb the heater", package.id), plug)
            yield Finding("heater_unplumbed", "doubt", path, given(port=end_name(end)), fix=fixes)
        elif len([one for one in build.survey.hoses if one.role == end.role]) > 1:
            yield Finding(
                "engine_port_open", "problem", path, given(port=end_name(end), role=ROLE_WORDS[end.role]), fix=(plug,)
            )


def _core_ports(package: Package) -> Found:
    joined = ports_taken(package.loop.hoses)
    for port in package.core.ports:
        where = ("packages", package.id, "core", "ports", port.id, "state")
        name = port.name or f"The core’s {port.use} port"
        own = f"core:{port.use}" if port.use in ("inlet", "outlet") else f"core:{port.id}"
        if port.state == "open" and own not in joined:
            yield Finding(
                "core_port_open",
                "problem",
                where,
                given(name=name, bore=(port.bore.si, "length"), thread=port.thread),
                form="" if port.thread else "unread",
                fix=(
                    choose_act("A plug in it", where, "plugged"),
                    choose_act("To be closed for good", where, "to_close"),
                ),
            )
        if port.state == "to_close":
            yield Finding("core_port_closing", "note", where, given(name=name), form=package.core.material)
