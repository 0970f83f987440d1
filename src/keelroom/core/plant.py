"""What is solved and what comes of it: records of stacked operating points.

A point is a plant, what the car is, in a situation, what it is asked to do: a search varies the first, a drive the
second.
"""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.air.fan import FanCurve
from keelroom.core.air.network import AirFlows, Breath, Network
from keelroom.core.arrays import Bools, Floats
from keelroom.core.coolers.exchange import Coolers, Exchanged
from keelroom.core.electrical.control import Law, Sensing
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.coolant import CoolantCurves
from keelroom.core.loop.circuit import CoolantCircuit, LoopLaw
from keelroom.core.loop.flows import LoopFlows
from keelroom.core.thermal.engine_heat import Drive, EngineHeat, Engines, Vehicles
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces
from keelroom.core.thermal.louver import LouverSurface

LOOP_TEMPERATURE = 95.0
"""[degC] the coolant loop is solved at: other temperatures move its flows by a few per cent through the viscosity
alone."""
CEILING = 190.0
"""No engine-outlet temperature above it is sought [degC]: far past boiling of any mix under any cap."""
STEPS = 60
"""Steps after which a search for a steady temperature gives up."""
SETTLES, STUCK, LOST = 0, 1, 2
"""How such a search ends: settled, at the ceiling with heat left over, or not at all."""
AS_COMMANDED = -1.0
"""Share of a fan that nothing holds."""
LEAST_FLOW = 1e-3
"""Flow [kg/s] below which the air of a path counts as still."""


class Weather(NamedTuple):
    """Outdoors, arrays (n,). ambient [degC]; altitude [m]; humidity 0..1; grille_rise [K] of air at the grille."""

    ambient: Floats
    altitude: Floats
    humidity: Floats
    grille_rise: Floats


class Fans(NamedTuple):
    """Fans, (n, fans). power [W] at rated_voltage.

    runs : 0 where the fan stands still whatever is commanded: a stopped fan is a hole
    driven : 1 where the engine turns it; drag [W] of its shaft at rated speed; clutch : 1 where it has a thermal one
    """

    curve: FanCurve
    power: Floats
    rated_voltage: Floats
    brushless: Floats
    runs: Floats
    driven: Floats
    drag: Floats
    clutch: Floats


class Command(NamedTuple):
    """What the fans are told: voltage (n, fans) at each motor; what the sensor sees of the coolant, and the share of
    full it makes them run at.

    turned (n, fans) : speed of the shaft an engine turns over the fan's rated one, 0 for electric ones
    """

    voltage: Floats
    turned: Floats
    sensing: Sensing
    law: Law


class Face(NamedTuple):
    """The face as lanes of tube. kinds (n, M, K) of cells by their shares of the classes; which (n, lanes, cells) of
    them each cell is; weight (n, lanes) share of the tubes."""

    kinds: Floats
    which: Floats
    weight: Floats


class Doubts(NamedTuple):
    """Factors on what is doubtful, (n,), 1 as entered: heat to coolant, core conductance, fan pressure, leak areas, the
    coolant's flow."""

    heat: Floats
    conductance: Floats
    fan_pressure: Floats
    leaks: Floats
    flow: Floats


class Layout(NamedTuple):
    """How a core is laid out, shared by all points of a batch: tubes across or down, passes of the coolant, rows of
    tubes one behind another."""

    crossflow: bool
    passes: int
    rows: int


class Plant(NamedTuple):
    """What n cars are, of one layout. cap_pressure [Pa]; limit [degC] of the engine's outlet."""

    core: CoreGeometry
    engine: Engines
    vehicle: Vehicles
    network: Network
    fans: Fans
    coolers: Coolers
    face: Face
    coolant: CoolantCurves
    circuit: CoolantCircuit
    cap_pressure: Floats
    limit: Floats


class Situation(NamedTuple):
    """What n cars are asked to do and stand in. air_speed [m/s] of the air met; pump_voltage at an electric coolant
    pump

    fluids : what the fluids of coolers are given, as far as the engine's losses do not say it
    """

    climate: Weather
    drive: Drive
    air_speed: Floats
    command: Command
    pump_voltage: Floats
    fluids: Fluids


class Points(NamedTuple):
    """n operating points of one layout, stacked: each a plant in a situation."""

    plant: Plant
    situation: Situation
    doubts: Doubts

    def doubted(self, **factors: Floats) -> Points:
        """The same with other factors (n,) on what is doubtful, by the names of `Doubts`."""
        return self._replace(doubts=self.doubts._replace(**factors))


class AirAt(NamedTuple):
    """The air path at one state of the fans. heat: what the engine gives then; power (n,) [W] of the fans."""

    flows: AirFlows
    breath: Breath
    heat: EngineHeat
    into_coolant: Floats
    """(n,) [W] with what gearbox and oil coolers add and take while the coolant is as warm as the loop is solved at"""
    power: Floats
    speed: Floats
    """(n, fans) share of rated speed"""
    branches: Floats
    """(n, B) all flows in branch order, those of the core per area, where a like point's search begins: its areas may
    differ"""


class Fluids(NamedTuple):
    """What fluids of coolers are given whatever the engine's load is, (n,). Shaft power of the A/C [W] and its share
    of Carnot; steering [W];

    own_air (n, E) [kg/s] through coolers away from the core, 0 for those ahead
    """

    compressor: Floats
    cop_share: Floats
    steering: Floats
    own_air: Floats


class Fixed(NamedTuple):
    """What does not change with the coolant's temperature, worked out once per batch."""

    surfaces: CoreSurfaces
    surface: LouverSurface
    air: moist_air.AirState
    outdoor_density: Floats
    boiling: Floats
    loop: LoopFlows
    core_was: CoreGeometry
    loop_was: LoopLaw
    """what surfaces and loop were worked out from, so that the next like batch need not"""
    running: AirAt
    stopped: AirAt


class State(NamedTuple):
    """One evaluation at given engine-outlet temperatures, all (n,) unless said."""

    temperature: Floats
    rejection: Floats
    """of the core, less what the coolant is given at this temperature beyond `heat_in` by gearbox and oil"""
    heat_in: Floats
    given: Floats
    """all heat into the coolant at this temperature"""
    exchanged: Exchanged
    """what the coolers do then"""
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
    tube_prandtl: Floats
    """both of the coolant in the tubes"""
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
