"""How this circuit is flushed, tested, filled and bled, step by step."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.heights import caps_of
from keelroom.assess.inputs.coolant.ports import part_name
from keelroom.assess.inputs.coolant.volumes import TANKED, holds_of, purchase_of, share_of, volumes_of
from keelroom.assess.loop.air import TrappedAir, bleed_list
from keelroom.assess.loop.order import is_long
from keelroom.core.loop.volume import COLD, line_volume
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import Fact, fact, lowered

SAFE_CAP = 49.0
"""[degC] of coolant under which a cap may be opened (common practice: 120 °F, and only where the hose gives when it
is squeezed)."""
PULL = 85e3
"""[Pa] under the outdoors a vacuum filler pulls (common practice: 24 to 26 inHg)."""


class FillStep(NamedTuple):
    """One step: under which heading, what is done (worded by `words.filling`), and whether it is a caution."""

    stage: str
    fact: Fact
    caution: bool = False


def fill_plan(build: Build, package: Package, found: TrappedAir, test: float) -> tuple[FillStep, ...]:
    """The whole plan for this circuit. found: where air stays; test [Pa]: what it may be tested at."""
    return (
        *_flush(package),
        *_buy(build, package),
        *_test(package, test),
        *_fill(build, package, found),
        *_heat(build, package, found),
        *_after(build, package),
    )


def _flush(package: Package) -> list[FillStep]:
    loop = package.loop
    caution = FillStep(
        "Flush",
        fact("safety.drain"),
        True,
    )
    if loop.old_coolant == "none":
        return [FillStep("Flush", fact("step.rinse"))]
    steps = [FillStep("Flush", fact("step.drain", stays=(loop.stays.si, "share")))]
    if loop.old_coolant in ("other", "glycol_only") or share_of(package) >= 0.95:
        steps.append(
            FillStep(
                "Flush",
                fact("step.all_out"),
            )
        )
    elif loop.old_coolant == "water":
        steps.append(FillStep("Flush", fact("step.water_in")))
    else:
        steps.append(FillStep("Flush", fact("step.clear")))
    if share_of(package) >= 0.95:
        steps.append(
            FillStep(
                "Flush",
                fact("step.dry"),
            )
        )
    return [*steps, caution]


def _buy(build: Build, package: Package) -> list[FillStep]:
    volumes = volumes_of(build, package)
    if volumes is None:
        return [FillStep("Buy", fact("step.not_known"))]
    bought = purchase_of(package, volumes.total)
    steps = [
        FillStep(
            "Buy",
            fact(
                "step.buy",
                total=(volumes.total, "volume"),
                glycol=(bought.glycol, "volume"),
                water=(bought.water, "volume"),
            ),
        )
    ]
    if not bought.reached:
        steps.append(FillStep("Buy", fact("step.mix_kept", share=(bought.share, "share"))))
    return steps


def _test(package: Package, test: float) -> list[FillStep]:
    caution = FillStep("Test", fact("safety.pressure_test"), True)
    held = fact("step.held", test=(test, "pressure"))
    if package.loop.first_test == "pressure":
        return [
            FillStep("Test", held),
            FillStep("Test", fact("step.air_finds")),
            caution,
        ]
    return [
        FillStep(
            "Test",
            fact("step.water_look"),
        ),
        FillStep("Test", fact("step.then_pressure", test=(test, "pressure"))),
        caution,
    ]


def _fill(build: Build, package: Package, found: TrappedAir) -> list[FillStep]:
    caps = [cap for cap in caps_of(build, package)]
    fillers = [part for part in package.loop.parts if part.kind == "filler"]
    highest = max((cap for cap in caps if cap.at is not None), key=lambda cap: cap.at or 0.0, default=None)
    where = lowered(part_name(fillers[0])) if fillers else lowered(highest.name) if highest else "the highest neck"
    heater = fact("step.heater_open") if any(part.kind == "heater" for part in package.loop.parts) else None
    if package.loop.fill_way == "vacuum":
        steps = [
            FillStep("Fill", fact("step.vacuum", heater=heater, where=where, pull=(PULL, "pressure"))),
            FillStep("Fill", fact("step.creeps")),
            FillStep("Fill", fact("step.draws")),
        ]
    else:
        steps = [
            FillStep(
                "Fill",
                fact("step.funnel", heater=heater, where=where),
            ),
            FillStep("Fill", fact("step.pour")),
        ]
    graph = graph_of(build, package)
    if graph.whole and is_long(graph):
        lines = sum(line_volume(run.bore, run.length or 0.0) for run in graph.runs)
        steps.append(
            FillStep(
                "Fill",
                fact("step.long_lines", lines=(lines, "volume")),
            )
        )
    steps += [FillStep("Bleed", fact("step.bled", name=step.name, how=step.how)) for step in bleed_list(found)]
    if package.loop.pump != "mechanical":
        steps.append(
            FillStep(
                "Bleed",
                fact("step.pump_bursts"),
            )
        )
    return steps


def _heat(build: Build, package: Package, found: TrappedAir) -> list[FillStep]:
    loop = package.loop
    limit, opens = build.brief.cooling.limit, loop.thermostat if loop.thermostat_state != "none" else None
    until = fact("step.opens", at=(opens.si, "temperature")) if opens else fact("step.working")
    stop = fact("step.limit", at=(limit.si, "temperature")) if limit else fact("step.its_limit")
    steps = [
        FillStep("Heat", fact("safety.soak"), True),
        FillStep(
            "Heat",
            fact("step.warm_up", until=until, stop=stop),
        ),
        FillStep(
            "Heat",
            fact("step.cool_down", safe=(SAFE_CAP, "temperature")),
        ),
        FillStep("Heat", fact("step.again")),
    ]
    if found.traps:
        steps.append(
            FillStep(
                "Heat",
                fact("step.no_more_air"),
            )
        )
    if loop.pump != "mechanical" and loop.pump_on:
        steps.append(
            FillStep(
                "Heat",
                fact("step.pump_comes", pump_on=(loop.pump_on.si, "temperature")),
            )
        )
    return steps


def _after(build: Build, package: Package) -> list[FillStep]:
    volumes = volumes_of(build, package)
    steps = []
    for part in package.loop.parts:
        if part.kind in TANKED and volumes is not None:
            mark = volumes.room.mark(holds_of(part))
            steps.append(
                FillStep(
                    "After",
                    fact(
                        "step.cold_mark",
                        name=part_name(part),
                        mark=(mark, "share"),
                        cold=(COLD, "temperature"),
                        growth=(volumes.room.growth, "volume"),
                    ),
                )
            )
    steps.append(FillStep("After", fact("step.first_drive")))
    if graph_of(build, package).whole and package.loop.ground_strap:
        steps.append(FillStep("After", fact("step.meter")))
    return steps
