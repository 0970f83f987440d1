"""The air of one operating point: a fan's pressure, and the network of pressures from the free stream through grille,
face, fans and bay to under the car.

What the air is heated by, and what a core takes from it, a subclass says: this discipline does not know it. Branches
stand as `network.Order` says. Compiled where a C compiler was at hand (`point.pxd` types it).
"""

import math

import numpy as np

from keelroom.core.air.network import DISCHARGE, EXIT_LOSS, FLAP_CLOSED, FLAP_LOSS, GRILLE_LOSS
from keelroom.core.balance import Branches
from keelroom.core.fluids.air import STANDARD_DENSITY

SLOWEST = 1e-3
"""Share of full speed a stopped fan is taken to turn at: a hole."""
STILL = 1e-4
"""Flow [kg/s] under which a square law is carried to zero along a straight line."""
STILL_FLUX = 1e-4
"""The same for a class of the face [kg/s per m2]."""
STILL_OWN = 1e-5
"""The same for the own air of a cooler [kg/s]."""
OPENING_LOSS, OUT_LOSS = 1.5, 1.8
"""Dynamic heads lost in an opening with its mesh, and turning out behind a cooler (common practice)."""
THIN_CORE = -0.45
"""How the core's drop follows the density behind it, as a power: only the search depends on it."""
NUDGED = 1e-4
"""Share of the flux over which the slope of the core's drop is found."""
GRILLE, EXIT, BYPASS, LEAKS = 0, 1, 2, 3
"""Places of the first branches, and where the leaks begin."""


class OwnPathRows:
    """n own paths of coolers as memory to read by rows: `own_air.OwnPath`, field by field."""


class NetworkRows:
    """n networks as memory to read by rows: `network.Network`, field by field."""


class CurveRows:
    """n cars' fans as memory to read by rows: `fan.FanCurve`, field by field."""


def fan_pressure(curve, i, k, thrust, flow, speed, density):
    """Static pressure rise [Pa] of fan k of car i and its slope [Pa per m3/s].

    thrust : factor on its shut-off pressure;  flow [m3/s] at the fan, either sign;  speed : share of full speed;
    density [kg/m3] at the fan. Source: FAN_LAWS. Past free air and in back-flow the curve goes on as the loss of a
    hole, so a stopped fan is a hole and nothing blows up at road speed.
    """
    n, segments = max(speed, SLOWEST), curve.cubics.shape[2]
    x = flow / (n * curve.flow[i, k])
    t, segment = min(max(x, 0.0), 1.0) * segments, 0
    while t > 1 and segment < segments - 1:
        t, segment = t - 1, segment + 1
    c0, c1 = curve.cubics[i, k, segment, 0], curve.cubics[i, k, segment, 1]
    c2, c3 = curve.cubics[i, k, segment, 2], curve.cubics[i, k, segment, 3]
    value = c0 + t * (c1 + t * (c2 + t * c3))
    slope = (c1 + t * (2 * c2 + 3 * t * c3)) * segments
    beyond, behind, hole = max(x - 1, 0.0), min(x, 0.0), curve.hole[i, k] / thrust
    value += slope * (beyond + behind) - hole * beyond * beyond + hole * behind * behind
    slope += -2 * hole * beyond + 2 * hole * behind
    head = density / STANDARD_DENSITY * n * n * curve.pressure[i, k] * thrust
    return head * value, head * slope / (n * curve.flow[i, k])


class AirPath(Branches):
    """The air path of one car at a time.

    road [m/s] of the air met; speed (F) of the fans; thrust : factor on their shut-off pressure
    ahead, behind, bay [kg/m3] and [degC] (…_warm) of the air ahead of the core, behind it and in the bay, which the
    subclass sets in `state` from `flow`
    """

    def __init__(self, network, curve):
        zones, classes, fans = network.leak_area.shape[1], network.area.shape[1], curve.flow.shape[1]
        Branches.__init__(self, 3 + 2 * zones + classes + fans, network.incidence.shape[2])
        self.network, self.curve = network, curve
        self.zones, self.classes, self.fans = zones, classes, fans
        self.core, self.blown = 3 + 2 * zones, 3 + 2 * zones + classes
        self.opening, self.factor, self.speed = np.zeros(self.core), np.zeros(self.core), np.zeros(fans)
        self.row, self.road, self.stream, self.thrust, self.sucked = 0, 0.0, 0.0, 1.0, 0.0
        self.ahead, self.behind, self.bay = 1.2, 1.2, 1.2
        self.ahead_warm, self.behind_warm, self.bay_warm = 20.0, 20.0, 20.0

    def drop(self, flux):
        """Pressure lost in the core [Pa] at a flux [kg/s per m2], > 0: the subclass knows the core."""
        return flux

    def load(self, i, road, thrust, leaks):
        """Make ready for car i in air met at `road` [m/s], its fans at `speed`; thrust and leaks: factors on the fans'
        pressure and on the area of gaps."""
        self.row, self.road, self.thrust = i, road, thrust
        self.join(self.network.incidence, i)
        self.stream = 0.5 * STANDARD_DENSITY * road * road
        strongest, moved, self.sucked = 0.0, 0.0, 0.0
        for k in range(self.fans):
            pressure = self.curve.pressure[i, k] * thrust * self.curve.present[i, k]
            strongest = max(strongest, pressure)
            self.sucked = max(self.sucked, pressure * self.speed[k] * self.speed[k])
            moved += self.curve.flow[i, k] * self.curve.present[i, k]
            self.present[self.blown + k] = 1.0 if self.curve.present[i, k] > 0 else 0.0
        self.scale = self.stream + strongest + 1.0
        self.opening[GRILLE], self.opening[EXIT] = self.network.grille_area[i], self.network.exit_area[i]
        self.opening[BYPASS] = self.network.bypass_area[i] * leaks
        gap = 1.0 / (DISCHARGE * DISCHARGE)
        for b in range(self.core):
            heads = GRILLE_LOSS if b == GRILLE else EXIT_LOSS if b == EXIT else gap
            if b >= LEAKS + self.zones:
                self.opening[b], heads = self.network.flap_area[i, b - LEAKS - self.zones], FLAP_LOSS
            elif b >= LEAKS:
                self.opening[b] = self.network.leak_area[i, b - LEAKS] * leaks
            self.present[b] = 1.0 if self.opening[b] > 0 else 0.0
            self.factor[b] = heads / (2 * max(self.opening[b], 1e-9) ** 2) if self.opening[b] > 0 else 0.0
        face = 0.0
        for k in range(self.classes):
            self.present[self.core + k] = 1.0 if self.network.area[i, k] > 0 else 0.0
            face += self.network.area[i, k]
        # A wide gap round the core can carry more than the core and the fans together: the bound must let it.
        passing = math.sqrt(self.stream) * (face + 2 * self.opening[BYPASS])
        self.reach = STANDARD_DENSITY * moved + passing + 0.05
        self.guess(face)

    def guess(self, face):
        """Flows in step with what drives them; where nothing does they are nothing, which is then the answer too.

        face [m2] that air may go through.
        """
        i, total, driven = self.row, 0.0, 0.0
        for k in range(self.fans):
            blown = 0.55 * STANDARD_DENSITY * self.curve.flow[i, k] * self.speed[k] * self.curve.present[i, k]
            driven += blown * (1 - 0.5 * self.network.pushes[i, k])
            pushed = 0.2 * 0.15 * math.sqrt(self.stream) * face
            self.flow[self.blown + k] = blown + pushed * self.curve.present[i, k]
        for k in range(self.classes):
            area = self.network.area[i, k]
            through = 0.15 * math.sqrt(self.stream) * area + area / max(face, 1e-9) * driven
            self.flow[self.core + k] = through
            total += through
        self.flow[GRILLE] = self.flow[EXIT] = total
        self.flow[BYPASS] = 0.1 * self.opening[BYPASS] * math.sqrt(2.4 * self.stream)
        for b in range(LEAKS, self.core):
            drive = self.stream if b >= LEAKS + self.zones else self.sucked + self.stream
            self.flow[b] = self.opening[b] * math.sqrt(2.4 * 0.2 * drive)
        for b in range(self.count):
            if self.present[b] <= 0:
                self.flow[b] = 0.0

    def losses(self):
        """What drives every branch, what it loses, and how the loss rises with its flow."""
        i = self.row
        stagnation = 0.5 * self.ahead * self.road * self.road
        self.source[GRILLE], self.source[EXIT] = self.network.ram[i] * stagnation, -self.network.base[i] * stagnation
        for b in range(self.count):
            if self.present[b] <= 0:
                self.loss[b], self.slope[b] = 0.0, 1.0
            elif b < self.core:
                self.through_opening(b)
            elif b < self.blown:
                self.through_core(b)
            else:
                k = b - self.blown
                density = self.ahead if self.network.pushes[i, k] > 0 else self.behind
                rise, steepness = fan_pressure(
                    self.curve, i, k, self.thrust, self.flow[b] / density, self.speed[k], density
                )
                self.loss[b], self.slope[b] = -rise, -steepness / density

    def through_opening(self, b):
        """The square law of a grille, exit, gap, leak or flap."""
        forward, passed, shut = self.flow[b] >= 0, self.bay, 1.0
        if b == GRILLE:
            passed = self.ahead
        elif b == EXIT:
            passed = self.bay
        elif b == BYPASS:
            passed = self.ahead if forward else self.bay
        elif b < LEAKS + self.zones:
            passed = self.bay if forward else self.behind
        else:
            passed = self.behind if forward else self.bay
            if self.network.flaps_open[self.row, 0 if forward else 1] <= 0:
                shut = FLAP_CLOSED
        self.square_law(b, self.factor[b] * shut / passed, STILL)

    def through_core(self, b):
        """Drop and its slope in a class of the face, odd in the flow; the slope by a small step."""
        k = b - self.core
        area = max(self.network.area[self.row, k], 1e-9)
        flux = self.flow[b] / area
        size = max(abs(flux), STILL_FLUX)
        more = size * (1 + NUDGED)
        covers = self.network.loss[self.row, k] / (2 * self.ahead)
        lost = self.drop(size) + covers * size * size
        self.loss[b] = lost * flux / size
        # Under the smallest flux the drop is carried to zero along a straight line.
        if abs(flux) < STILL_FLUX:
            self.slope[b] = lost / size / area
        else:
            self.slope[b] = (self.drop(more) + covers * more * more - lost) / (size * NUDGED) / area

    def foresee(self):
        """How the losses change with the density behind the core: less air is hotter and thinner."""
        total, moved = 0.0, 0.0
        for b in range(self.core, self.blown):
            total += self.flow[b]
            moved += self.move[b]
        share = min(max(moved / max(abs(total), 1e-3), -0.5), 0.5)
        thinning = (self.behind_warm - self.ahead_warm) / (self.behind_warm + 273.15) * share
        self.loss[EXIT] -= self.loss[EXIT] * thinning
        for b in range(self.core, self.blown):
            self.loss[b] += THIN_CORE * self.loss[b] * thinning
        for b in range(self.blown, self.count):
            self.loss[b] += (self.loss[b] - self.slope[b] * self.flow[b]) * thinning

    def take_step(self, share):
        """The flows after a step, which is kept within what any air path could carry.

        Where a square law's tangent would turn its flow round or more than double it, the flow that the new pressure
        gives is taken instead: near zero the tangent points far too far.
        """
        for b in range(self.count):
            move, was = share * self.move[b], abs(self.flow[b])
            if b < self.core and abs(move) > was > STILL:
                drive = abs(self.head[b]) / max(abs(self.loss[b]), 1e-12)
                square = min(was * math.sqrt(drive), self.reach)
                self.flow[b] = square if self.head[b] > 0 else -square if self.head[b] < 0 else 0.0
            else:
                self.flow[b] += min(max(move, -self.reach), self.reach)

    def back(self):
        """Bay air [kg/s] that comes back to the front: round the core and backwards through it."""
        flow = max(-self.flow[BYPASS], 0.0)
        for b in range(self.core, self.blown):
            flow += max(-self.flow[b], 0.0)
        return flow

    def forward(self):
        """Air [kg/s] that goes forwards through the core."""
        flow = 0.0
        for b in range(self.core, self.blown):
            flow += max(self.flow[b], 0.0)
        return flow


class OwnAir(Branches):
    """The own air of one cooler away from the core at a time: opening, face, fans, way out.

    One density throughout: the air's heating is left to the doubt of the place.
    """

    def __init__(self, path, curve, incidence):
        Branches.__init__(self, 4, 3)
        self.path, self.curve = path, curve
        self.join(incidence, 0)
        self.factor = np.zeros(4)
        self.row, self.speed, self.density, self.blown, self.fans = 0, 0.0, 1.2, False, 1.0

    def load(self, i, road, speed, density):
        """Make ready path i in air met at `road` [m/s], its fans at a share of full speed."""
        self.row, self.speed, self.density = i, speed, density
        self.blown, self.fans = self.curve.present[i, 0] > 0, max(self.path.fans[i], 1.0)
        stagnation = 0.5 * density * road * road
        self.scale = stagnation + self.curve.pressure[i, 0] * self.curve.present[i, 0] * speed * speed + 1.0
        area = min(self.path.opening[i], self.path.face[i])
        moved = 1.5 * density * self.curve.flow[i, 0] * self.curve.present[i, 0] * self.path.fans[i]
        self.reach = moved + area * math.sqrt(4 * density * stagnation) + 1e-3
        self.factor[0] = OPENING_LOSS / (2 * density * max(self.path.opening[i], 1e-6) ** 2)
        self.factor[1] = self.path.loss[i] / (2 * density * max(self.path.face[i], 1e-6) ** 2)
        self.factor[3] = OUT_LOSS / (2 * density * max(self.path.out[i], 1e-6) ** 2)
        self.source[0], self.source[3] = self.path.pressed[i] * stagnation, -self.path.drawn[i] * stagnation
        begun = min(math.sqrt(0.5 * self.scale / (self.factor[0] + self.factor[1] + self.factor[3])), self.reach)
        for b in range(self.count):
            self.present[b], self.flow[b] = 1.0, begun

    def losses(self):
        """Square laws of opening, face and way out, and the fans side by side."""
        for b in range(self.count):
            self.square_law(b, self.factor[b], STILL_OWN)
        self.loss[2], self.slope[2] = 1e-3 * self.flow[2], 1e-3
        if self.blown:
            share = self.density * self.fans
            rise, steepness = fan_pressure(self.curve, self.row, 0, 1.0, self.flow[2] / share, self.speed, self.density)
            self.loss[2], self.slope[2] = -rise, -steepness / share

    def take_step(self, share):
        """No further than it could carry."""
        for b in range(self.count):
            move = min(max(share * self.move[b], -self.reach), self.reach)
            self.flow[b] = min(max(self.flow[b] + move, -self.reach), self.reach)


def own_flows(own, road, speed, density, out):
    """Flow [kg/s] through the face of each path, into out (n,). The first that does not balance, -1 where all do."""
    for i in range(out.shape[0]):
        own.load(i, road[i], speed[i], density[i])
        if own.solve() == 0:
            return i
        out[i] = own.flow[1]
    return -1
