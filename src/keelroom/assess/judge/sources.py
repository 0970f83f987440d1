"""Findings about what circuits are tied to: slots, taps and channels that give so much and no more, feeds joined."""

from __future__ import annotations

from keelroom.assess.electrical.figures import CircuitFigures, Electrics
from keelroom.assess.findings import Finding, Found
from keelroom.core.electrical.protection import CONTINUOUS
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Source
from keelroom.document.schema.package import Package
from keelroom.facts import given

CHANNEL_START = 1.5
"""Times what it gives that a solid-state channel lets through for a start before it shuts off (common practice, no
source)."""


def sources(build: Build, package: Package, found: Electrics) -> Found:
    """Every source by what is tied to it, and circuits tied to several."""
    fed = [one for one in found.circuits if one.motors and not one.fault]
    for source in build.supply.sources:
        tied = [one for one in fed if source.id in one.circuit.sources]
        if source.holds is not None and tied:
            yield from _limited(package, source, source.holds.si, tied)
    for one in fed:
        yield from _joined(build, package, one)


def _to_the_post(build_package: str, circuit: str) -> Act:
    return Act("tie_to_battery", "Tied to the battery post", build_package, (("circuit", circuit),))


def _limited(package: Package, source: Source, holds: float, tied: list[CircuitFigures]) -> Found:
    """A slot's fuse runs on at four fifths of its rating; a channel at all of it, but counts the start."""
    name, at = source.name or source.id, ("supply", "sources", source.id, "holds")
    most = holds if source.channel else holds / CONTINUOUS
    drawn = sum(one.continuous for one in tied)
    heaviest = max(tied, key=lambda one: one.continuous)
    fix = (_to_the_post(package.id, heaviest.circuit.id),) if source.id != "battery" else ()
    figures = {"drawn": (drawn, "current"), "most": (most, "current"), "holds": (holds, "current")}
    if drawn > most + 0.05:
        yield Finding(
            "source_over",
            "problem",
            at,
            given(name=name, **figures),
            form="channel" if source.channel else "",
            fix=fix,
            source="ISO8820",
            value=drawn,
            limit=most,
        )
        return
    begins = max(one.starting.current + drawn - one.continuous for one in tied)
    if source.channel and begins > CHANNEL_START * holds:
        yield Finding(
            "channel_trips",
            "problem",
            at,
            given(name=name, begins=(begins, "current"), lets=(CHANNEL_START * holds, "current")),
            fix=fix,
            value=begins,
            limit=CHANNEL_START * holds,
        )
    for one in tied:
        fuse = one.circuit.fuse
        if not source.channel and fuse is not None and fuse.si > holds:
            yield Finding(
                "fuse_over_slot",
                "doubt",
                ("packages", package.id, "circuits", one.circuit.id, "fuse"),
                given(
                    name=one.circuit.name or one.circuit.id,
                    fuse=(fuse.si, "current"),
                    slot=name,
                    holds=(holds, "current"),
                ),
                fix=(_to_the_post(package.id, one.circuit.id),),
                value=fuse.si,
                limit=holds,
            )


def _joined(build: Build, package: Package, one: CircuitFigures) -> Found:
    """Two feeds on one wire: neither's fuse protects it alone, and what the key switches off is fed from behind."""
    tied = [source for source in build.supply.sources if source.id in one.circuit.sources]
    if len(tied) < 2:
        return
    mixed = len({source.always for source in tied}) > 1
    yield Finding(
        "feeds_joined",
        "problem" if mixed else "doubt",
        ("packages", package.id, "circuits", one.circuit.id, "sources"),
        given(name=one.circuit.name or one.circuit.id, feeds=tuple(source.name or source.id for source in tied)),
        form="key" if mixed else "",
        fix=(_to_the_post(package.id, one.circuit.id),),
    )
