"""How this circuit is flushed, tested, filled and bled, step by step."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.heights import caps_of
from keelroom.assess.inputs.coolant.ports import part_name
from keelroom.assess.inputs.coolant.volumes import TANKED, holds_of, purchase_of, share_of, volumes_of
from keelroom.assess.loop.air import Air, bleed_list
from keelroom.assess.loop.order import is_long
from keelroom.assess.wording import lowered
from keelroom.core.loop.volume import COLD, line_volume
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import both

SAFE_CAP = 49.0
"""[degC] of coolant under which a cap may be opened (common practice: 120 °F, and only where the hose gives when it is squeezed)."""
PULL = 85e3
"""[Pa] under the outdoors a vacuum filler pulls (common practice: 24 to 26 inHg)."""


class FillStep(NamedTuple):
    """One step: under which heading, what is done, and whether it is a caution."""

    stage: str
    what: str
    caution: bool = False


def fill_plan(build: Build, package: Package, found: Air, test: float) -> tuple[FillStep, ...]:
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
        "Coolant is poisonous to people and animals and tastes sweet: catch it, keep it covered, dispose of it by local rules.",
        True,
    )
    if loop.old_coolant == "none":
        return [FillStep("Flush", "New and dry: rinse swarf and flux out of core and lines with clean water before they are joined.")]
    steps = [
        FillStep("Flush", f"Cold: open the drains of core and block, heater open. About {loop.stays.si:.0%} stays in block and heater.")
    ]
    if loop.old_coolant in ("other", "glycol_only") or share_of(package) >= 0.95:
        steps.append(
            FillStep(
                "Flush",
                "All of the old coolant has to come out: water in, warm until the thermostat opens, cool, drain; again until it runs clear and tastes of nothing to a test strip.",
            )
        )
    elif loop.old_coolant == "water":
        steps.append(
            FillStep("Flush", "Water is in it: run it warm once, drain, look whether it comes clear. What stays counts in the mix below.")
        )
    else:
        steps.append(FillStep("Flush", "Water first, until it runs clear, where the old coolant was brown; otherwise only drain."))
    if share_of(package) >= 0.95:
        steps.append(
            FillStep(
                "Flush",
                "Without water: blow block, heater and core dry, drive the preparation fluid through, drain; under 3 % of water may stay.",
            )
        )
    return [*steps, caution]


def _buy(build: Build, package: Package) -> list[FillStep]:
    volumes = volumes_of(build, package)
    if volumes is None:
        return [FillStep("Buy", "How much coolant it takes stands here once engine and core are known.")]
    bought = purchase_of(package, volumes.total)
    steps = [
        FillStep(
            "Buy",
            f"The circuit holds about {both(volumes.total, 'volume')}: {both(bought.glycol, 'volume')} of glycol and {both(bought.water, 'volume')} of distilled water go in.",
        )
    ]
    if not bought.reached:
        steps.append(
            FillStep("Buy", f"What stays in the block keeps the mix at {bought.share:.0%}: drain the block too, or flush with the mix.")
        )
    return steps


def _test(package: Package, test: float) -> list[FillStep]:
    caution = FillStep("Test", "Regulated air only, at or under the cap’s rating, behind a shield; nobody leans over it.", True)
    held = f"Cold: {both(test, 'pressure')} on the closed circuit, never over the cap or the weakest part. It holds for ten minutes, or the leak is looked for with soap."
    if package.loop.first_test == "pressure":
        return [
            FillStep("Test", held),
            FillStep("Test", "Air finds what water does not, and nothing has to be dried: a repaired core is tested so before it goes in."),
            caution,
        ]
    return [
        FillStep(
            "Test",
            "Fill with water and look: every joint dry under a lamp, cold and then warm. It flushes at once; a pinhole may not show.",
        ),
        FillStep("Test", f"Then pressure, at most {both(test, 'pressure')}, before the mix goes in."),
        caution,
    ]


def _fill(build: Build, package: Package, found: Air) -> list[FillStep]:
    caps = [cap for cap in caps_of(build, package)]
    fillers = [part for part in package.loop.parts if part.kind == "filler"]
    highest = max((cap for cap in caps if cap.at is not None), key=lambda cap: cap.at or 0.0, default=None)
    where = lowered(part_name(fillers[0])) if fillers else lowered(highest.name) if highest else "the highest neck"
    heater = "Heater on hot, so that its valve is open. " if any(part.kind == "heater" for part in package.loop.parts) else ""
    if package.loop.fill_way == "vacuum":
        steps = [
            FillStep("Fill", f"{heater}Vacuum filler on {where}: pull {both(PULL, 'pressure')}; hoses go flat, that is right."),
            FillStep(
                "Fill", "Shut the valve and wait five minutes: a needle that creeps back is a leak, to be found before a drop goes in."
            ),
            FillStep("Fill", "Hose in the mix with its end under, air bled out of it; open: the circuit draws itself full."),
        ]
    else:
        steps = [
            FillStep(
                "Fill",
                f"{heater}Sealed funnel on {where}, its level over everything else; nose of the car up where that is not the highest point.",
            ),
            FillStep("Fill", "Pour slowly, squeeze the hoses, until the level stands."),
        ]
    graph = graph_of(build, package)
    if graph.whole and is_long(graph):
        lines = sum(line_volume(run.bore, run.length or 0.0) for run in graph.runs)
        steps.append(
            FillStep(
                "Fill",
                f"Filled at the front, the lines alone swallow {both(lines, 'volume')}, and their air comes back in gulps: fill, let the pump turn in bursts, wait, fill again, before the engine is started.",
            )
        )
    steps += [FillStep("Bleed", f"{step.name}: {step.what}.") for step in bleed_list(found)]
    if package.loop.pump != "mechanical":
        steps.append(
            FillStep(
                "Bleed",
                "Engine off, key on: run the electric pump ten seconds, stop ten, until the level stops falling; never dry for longer.",
            )
        )
    return steps


def _heat(build: Build, package: Package, found: Air) -> list[FillStep]:
    loop = package.loop
    opens = both(loop.thermostat.si, "temperature") if loop.thermostat and loop.thermostat_state != "none" else "working temperature"
    stop = both(build.brief.cooling.limit.si, "temperature") if build.brief.cooling.limit else "its limit"
    steps = [
        FillStep("Heat", "Hot coolant under pressure scalds: never open a cap on a hot circuit.", True),
        FillStep(
            "Heat",
            f"Cap on. Idle until past {opens}: the upper hose gets hot at once when the thermostat opens, the heater blows hot. Stop at {stop}, whatever else.",
        ),
        FillStep(
            "Heat",
            f"Off, let it fall under {both(SAFE_CAP, 'temperature')} and until the hose gives when squeezed; only then open, top up, close.",
        ),
        FillStep("Heat", "Again, two or three times, until a cycle takes less than a cupful."),
    ]
    if found.traps:
        steps.append(
            FillStep(
                "Heat",
                "No more air looks like this: the level stands, no bubbles with the revs held at 2,000, the heater hot at idle, the gauge without jumps.",
            )
        )
    if loop.pump != "mechanical" and loop.pump_on:
        steps.append(
            FillStep(
                "Heat",
                f"The electric pump comes on at {both(loop.pump_on.si, 'temperature')} and the gauge falls at once: cycle it by hand until no air comes back.",
            )
        )
    if build.brief.vehicle.gearbox == "automatic":
        steps.append(FillStep("Heat", "Indoors only with exhaust extraction; wheels chocked, out of the plane of fan and belt.", True))
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
                    f"{part_name(part)}: cold mark at {mark:.0%} of its height (at {both(COLD, 'temperature')}); the growth of {both(volumes.room.growth, 'volume')} fits over it.",
                )
            )
    steps.append(
        FillStep(
            "After", "After the first drive, cold: level, every clamp a quarter turn, under each joint with a dry rag. Again after a week."
        )
    )
    if graph_of(build, package).whole and package.loop.ground_strap:
        steps.append(FillStep("After", "Meter from coolant to battery post, everything on: under 0.1 V."))
    return steps
