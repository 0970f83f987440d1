"""What is solved and what comes of it: records of stacked operating points."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.air.fan import FanCurve
from keelroom.core.air.network import AirFlows, Breath, Network
from keelroom.core.arrays import Bools, Floats
from keelroom.core.electrical.control import Law, Sensing
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.coolant import CoolantCurves
from keelroom.core.loop.circuit import Circuit, Loop, LoopFlows
from keelroom.core.thermal.engine_heat import Drive, Engine, EngineHeat
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces
from keelroom.core.thermal.louver import LouverSurface


class Climate(NamedTuple):
    """Outdoors, arrays (n,). ambient [degC]; altitude [m]; humidity 0..1; grille_rise [K] of air at the grille."""

    ambient: Floats
    altitude: Floats
    humidity: Floats
    grille_rise: Floats


class Fans(NamedTuple):
    """Fans and their command, (n, fans) or (n,). power [W] at rated_voltage; voltage (n, fans) at each motor.

    runs : (n, fans) 0 where the fan stands still whatever is commanded: a stopped fan is a hole
    sensing, law : what the sensor sees of the coolant, and the share of full it makes the fans run at
    """

    curve: FanCurve
    power: Floats
    rated_voltage: Floats
    brushless: Floats
    voltage: Floats
    runs: Floats
    sensing: Sensing
    law: Law


class Covers(NamedTuple):
    """What stands ahead of the core, C of them, (n, C) unless said.

    heat [W] given whatever the engine does;  gearbox, oil, charge: shares of the engine's losses each takes
    cuts_out : 1 where the heat stops at CONDENSER_RISE;  conductance [W/K per m2 of its face], fluid to air
    covered : (n, K, C) 1 where a class of the face lies behind it
    """

    heat: Floats
    gearbox: Floats
    oil: Floats
    charge: Floats
    cuts_out: Floats
    conductance: Floats
    covered: Floats


class Face(NamedTuple):
    """The face as lanes of tube. mix (n, lanes, cells, K) share of each cell; weight (n, lanes) share of the tubes."""

    mix: Floats
    weight: Floats


class Doubts(NamedTuple):
    """Factors on what is doubtful, (n,), 1 as entered: heat to coolant, core conductance, fan pressure, leak areas."""

    heat: Floats
    conductance: Floats
    fan_pressure: Floats
    leaks: Floats


class Points(NamedTuple):
    """n operating points of one layout, stacked."""

    core: CoreGeometry
    engine: Engine
    drive: Drive
    climate: Climate
    network: Network
    fans: Fans
    covers: Covers
    face: Face
    coolant: CoolantCurves
    circuit: Circuit
    pump_voltage: Floats
    cap_pressure: Floats
    limit: Floats
    doubts: Doubts


class Air(NamedTuple):
    """The air path at one state of the fans. heat: what the engine gives then; power (n,) [W] of the fans."""

    flows: AirFlows
    breath: Breath
    heat: EngineHeat
    cover_heat: Floats
    """(n, C) [W] each cover would give to its air"""
    power: Floats
    speed: Floats
    """(n, fans) share of rated speed"""
    branches: Floats
    """(n, B) all flows in branch order, those of the core per area, where a like point's search begins: its areas may differ"""


class Fixed(NamedTuple):
    """What does not change with the coolant's temperature, worked out once per batch."""

    surfaces: CoreSurfaces
    surface: LouverSurface
    air: moist_air.AirState
    outdoor_density: Floats
    boiling: Floats
    loop: LoopFlows
    core_was: CoreGeometry
    loop_was: Loop
    """what surfaces and loop were worked out from, so that the next like batch need not"""
    running: Air
    stopped: Air


class State(NamedTuple):
    """One evaluation at given engine-outlet temperatures, all (n,) unless said."""

    temperature: Floats
    rejection: Floats
    heat_in: Floats
    coolant_flow: Floats
    core_flow: Floats
    opening: Floats
    coolant_out: Floats
    """leaving the core"""
    engine_inlet: Floats
    reading: Floats
    """[degC] of the fans' sensor"""
    command: Floats
    """mean share of their full flow the fans are run at"""
    load: Floats
    """mean share of their full electrical power"""
    front_air: Floats
    """[degC] ahead of all covers, recirculated air mixed in"""
    air_in: Floats
    """mean ahead of the core"""
    air_out: Floats
    """mean behind the core"""
    bay_air: Floats
    flux: Floats
    """(n, K) [kg/s per m2], 0 where the air runs backwards: it has been through and takes no more heat"""
    conductance: Floats
    """whole core, coolant to air [W/K]"""
    tube_reynolds: Floats
    """of the coolant in the tubes"""
    tube_share: Floats
    """of the way from coolant to air lies in the coolant's film"""

    @property
    def margin(self) -> Floats:
        """Rejection less heat in [W]."""
        return self.rejection - self.heat_in


class Solution(NamedTuple):
    """Steady points. settles (n,) bool: a steady temperature exists under CEILING; state holds it, or the ceiling."""

    state: State
    fixed: Fixed
    settles: Bools
    slope: Floats
    """(n,) [W/K] how the margin rises with temperature there"""
    steps: int
    residual: float


class Half(NamedTuple):
    """What the air path is solved from."""

    core: CoreGeometry
    engine: Engine
    drive: Drive
    climate: Climate
    network: Network
    fans: Fans
    covers: Covers
    doubts: Doubts
    surfaces: CoreSurfaces
    surface: LouverSurface
    air: moist_air.AirState
    outdoor_density: Floats
