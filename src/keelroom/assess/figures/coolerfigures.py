"""Coolers and their fluids at a solved point, in figures a person understands, with the books of where every watt
went."""

from __future__ import annotations

from keelroom.assess.figures.assessment import NO_HEAT, CoolerFigures, FluidFigures, Left
from keelroom.assess.figures.fluidbands import coolers_sinks, half_band, others, outside
from keelroom.assess.inputs.coolers import FLUID_OF
from keelroom.catalogue.refrigerants import saturation_pressure
from keelroom.core.answer import Answer
from keelroom.core.coolers.cabin import cabin, per_dry
from keelroom.core.coupling import fluid_heat
from keelroom.core.operating_point import mean
from keelroom.core.plant import Points
from keelroom.document.schema.coolers import Cooler

NOTHING = 0.05
"""[W] the tank's cooler must give to have a line of its own."""


def cooler_figures(
    there: tuple[Cooler, ...], fluids: FluidFigures, answer: Answer, i: int
) -> tuple[CoolerFigures, ...]:
    """Every cooler at one point: heat given, its air in and out, the temperature of its fluid."""
    found = answer.solution.state.exchanged
    return tuple(
        CoolerFigures(
            cooler.id,
            cooler.kind,
            float(found.heat[i, k]),
            float(found.air[i, k]),
            float(found.air_in[i, k]),
            float(found.air_in[i, k] + found.rise[i, k]),
            fluids.of(FLUID_OF[cooler.kind]) if cooler.kind in FLUID_OF else float(found.air_in[i, k]),
            dict(fluids.within).get(FLUID_OF.get(cooler.kind, ""), 0.0),
        )
        for k, cooler in enumerate(there)
    )


def fluid_figures(there: tuple[Cooler, ...], points: Points, answer: Answer, refrigerant: str, i: int) -> FluidFigures:
    """Where every fluid settles, and where what it was given went."""
    state, fixed = answer.solution.state, answer.solution.fixed
    found = state.exchanged
    gearbox, oil, charge, charge_flow = (
        float(mean(state.load[i], off[i], on[i]))
        for off, on in zip(fluid_heat(fixed.stopped.heat), fluid_heat(fixed.running.heat), strict=True)
    )
    doubt, fluids = float(points.doubts.heat[i]), points.situation.fluids
    given = {
        "gearbox": gearbox * doubt,
        "oil": oil * doubt,
        "charge": charge,
        "steering": float(fluids.steering[i]),
        "refrigerant": 0.0,
    }
    tank = float(found.tank[i])
    left = [
        Left(
            FLUID_OF[cooler.kind],
            cooler.name or cooler.kind.replace("_", " "),
            float(found.heat[i, k]),
            "cooler",
            cooler.id,
        )
        for k, cooler in enumerate(there)
        if cooler.kind in FLUID_OF
    ]
    if any(cooler.kind == "condenser" for cooler in there):
        given["refrigerant"] = float(fluids.compressor[i] * (1 + found.cop[i]) * found.runs[i])
    left += [
        *([Left("gearbox", "the core’s tank", tank, "coolant")] if abs(tank) > NOTHING else []),
        Left("gearbox", "its case", float(found.shed[i]), "own"),
        Left("oil", "the block", given["oil"] - float(found.from_block[i]), "coolant"),
        Left("charge", "the engine", float(charge_flow * (found.charge[i] - outside(points, i))), "own"),
        Left("steering", "its lines", float(found.steering_shed[i]), "own"),
    ]
    condensing, vapour = float(found.condensing[i]), per_dry(float(fixed.air.vapour[i]))
    cooling = float(fluids.compressor[i] * found.cop[i] * found.runs[i])
    inside = cabin(cooling, (float(points.situation.climate.ambient[i]), vapour), float(fixed.air.pressure[i]))
    runs_at = {name: float(getattr(found, name)[i]) for name in ("gearbox", "oil", "charge", "steering")}
    runs_at["refrigerant"] = condensing
    passes = {"charge": charge_flow}

    def band(name: str, watts: float) -> float:
        taken, at = _taken_from(name, there, answer, i), runs_at[name]
        sinks = [*coolers_sinks(taken, at, passes.get(name, 0.0)), *others(name, points, answer, i)]
        return half_band(name, watts, at, sinks)

    within = tuple((name, band(name, watts)) for name, watts in given.items() if watts >= NO_HEAT)
    return FluidFigures(
        gearbox=float(found.gearbox[i]),
        gearbox_leaving=float(found.gearbox_leaving[i]),
        oil=float(found.oil[i]),
        charge=float(found.charge[i]),
        condensing=condensing,
        head_pressure=saturation_pressure(refrigerant, condensing) - float(fixed.air.pressure[i]),
        vents=inside.vents,
        cabin=inside.air,
        steering=float(found.steering[i]),
        runs=float(found.runs[i]),
        given=tuple(given.items()),
        left=tuple(left),
        within=within,
    )


def _taken_from(fluid: str, there: tuple[Cooler, ...], answer: Answer, i: int) -> list[tuple[Cooler, float, float]]:
    """Coolers of a fluid, each with its heat [W] and the air it meets [degC]."""
    found = answer.solution.state.exchanged
    return [
        (cooler, float(found.heat[i, k]), float(found.air_in[i, k]))
        for k, cooler in enumerate(there)
        if FLUID_OF.get(cooler.kind) == fluid
    ]
