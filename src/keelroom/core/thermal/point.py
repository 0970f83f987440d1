"""The core at one point: what its fins lose and give on the air's side, its tubes on the coolant's, and the coolant's
way over the face. Compiled where a C compiler was at hand (`point.pxd` types it).
"""

import math

import numpy as np

LOW_RE = 100.0
"""Below it the friction correlation's logarithm runs away; its slope at this point is carried on."""
BLEND_LOW, BLEND_HIGH = 100.0, 225.0
"""The two friction branches, which meet with a step at Re_Lp 150, are blended over this range of Re_Lp."""
ENTRANCE, EXIT = 0.4, 0.2
"""Kays & London loss coefficients for laminar flow at sigma near 0.8, read from their chart (from memory)."""
LAMINAR_END, TURBULENT_FROM, TURBULENT_TO = 2300.0, 1000.0, 6000.0
"""Re at which smooth pipes leave the laminar line, and between which flat tubes do."""
DOUBT_PLAIN, DOUBT_TRANSITION = 0.10, 0.30
"""Standard doubt of the Nusselt number: in laminar and turbulent flow, and at its most between them (smooth and rough
tubes differ by more than that)."""
WIDEST, SPREAD = 2300.0, 0.65
"""Re where that doubt is greatest, and how far from there it fades, in ln Re."""
MOST_PER_CELL = 25.0
"""Exponent at which a cell has given up all it can."""
LEAST_SHARE = 1e-9
NO_FLUX = 1e-9
"""Flux [kg/s per m2] that is none."""


class CoreRows:
    """n cores as memory to read by rows: `geometry.CoreGeometry`, field by field."""


class SurfaceRows:
    """n cores' areas: `geometry.CoreSurfaces`, field by field."""


class LouverRows:
    """n surfaces' constants: `louver.LouverSurface`, field by field."""


class FaceRows:
    """n faces: kinds (n, M, K) of cells by their shares of the classes, which (n, lanes, cells) of them each cell is,
    weight (n, lanes) share of the tubes;  alike: whether all are one face."""


def friction_factor(louver, i, Re):
    """Fanning friction factor of surface i against louver-pitch Reynolds number, smooth over the correlation's break.

    Re 100..3000, flat beyond; below LOW_RE its slope is carried on. Source: CHANG_HSU, blended over its break at 150.
    """
    held = max(Re, LOW_RE)
    x = min(max(math.log(held / BLEND_LOW) / math.log(BLEND_HIGH / BLEND_LOW), 0.0), 1.0)
    low, high = 0.0, 0.0
    if x < 1:
        low = louver.low0[i] * held ** -louver.low_slope[i] * math.log(0.5 * held) ** -3.01
        if Re < LOW_RE:
            low *= (Re / LOW_RE) ** -(louver.low_slope[i] + 3.01 / math.log(0.5 * LOW_RE))
    if x > 0:
        high = louver.high0[i] * held ** louver.high_slope[i] * math.log(0.3 * held) ** -2.966
    return low + x * x * (3 - 2 * x) * (high - low)


def core_drop(core, surfaces, louver, i, flux, density, viscosity, expansion):
    """Pressure [Pa] the air loses through core i at a face flux [kg/s per m2], >= 0.

    density [kg/m3] ahead, viscosity [Pa s], expansion: density ahead over density behind.
    Source: KAYS_LONDON with entrance, core friction, acceleration and exit.
    """
    sigma = surfaces.free_ratio[i]
    G = flux / sigma
    f = friction_factor(louver, i, max(G * core.louver_pitch[i] / viscosity, 1e-3))
    area_ratio = surfaces.air_area[i] / sigma
    loss = ENTRANCE + 1 - sigma * sigma + 2 * (expansion - 1) + f * area_ratio * 0.5 * (1 + expansion)
    return G * G / (2 * density) * (loss - (1 - sigma * sigma - EXIT) * expansion)


def air_film(core, surfaces, louver, i, viscosity, conductivity, cp):
    """Heat transfer coefficient [W/m2K] on the fins of core i at a face flux of 1 kg/s per m2. viscosity, conductivity,
    cp at film. Source: CHANG_WANG."""
    scale = louver.j0[i] * (core.louver_pitch[i] / viscosity) ** -0.49 * surfaces.free_ratio[i] ** -0.51 * cp
    return scale * (viscosity * cp / conductivity) ** (-2.0 / 3.0)


def air_conductance(core, surfaces, i, film, flux):
    """Air-side conductance eta_o h A [W/K] per square metre of face of core i at a face flux > 0, with half the fin
    height. film : `air_film` there. Source: CHANG_WANG with fin efficiency tanh(mL)/mL."""
    h = film * flux**0.51
    mL = 0.5 * core.fin_height[i] * math.sqrt(2 * h / (core.fin_conductivity[i] * core.fin_thickness[i]))
    return (1 - surfaces.fin_share[i] * (1 - math.tanh(mL) / mL)) * h * surfaces.air_area[i]


def developed_nusselt(aspect):
    """Nusselt number of a developed laminar flow in a flat duct at constant wall temperature. aspect 0..1, height over
    width. Source: SHAH_LONDON."""
    a = aspect
    return 7.541 * (1 - a * (2.610 - a * (4.970 - a * (5.119 - a * (2.702 - 0.548 * a)))))


def entering_nusselt(developed, graetz):
    """The same with the entry length in it. graetz: Re Pr Dh / L. Source: SHAH_LONDON."""
    return (developed * developed * developed + 1.849**3 * graetz) ** (1.0 / 3.0)


def taler_rise(Re, Pr, diameter_over_length):
    """What turbulence adds to the laminar Nusselt number at Re 2300: nothing there, Re 2300..1e6, Pr 0.1..1000.

    Source: TALER, ±10 %.
    """
    over = max(Re, LAMINAR_END)
    friction = (1.2776 * math.log10(over) - 0.406) ** -2.246 / 8
    rise = friction * (over - LAMINAR_END) * Pr**1.008
    rise /= 1.08 + 12.39 * math.sqrt(friction) * (Pr ** (2.0 / 3.0) - 1)
    return rise * (1 + diameter_over_length ** (2.0 / 3.0))


def tube_nusselt(Re, Pr, aspect, diameter_over_length):
    """Nusselt number over all regimes: developing laminar up to Re 1000, Taler's from Re 6000, a power of Re between.

    In a smooth pipe with a calm entry turbulence begins at Re 2300. A radiator's flat tubes have sharp, re-entrant
    ends, seams and dimples, and leave the laminar line from about Re 1000 on; a power through both ends keeps a
    deeper core from losing more by slower coolant than it gains by its area.  Sources: SHAH_LONDON, TALER; where the
    blend begins: common practice
    """
    share = math.log(max(Re, 1.0) / TURBULENT_FROM) / math.log(TURBULENT_TO / TURBULENT_FROM)
    share = min(max(share, 0.0), 1.0)
    developed, per_reynolds, low, high = developed_nusselt(aspect), Pr * diameter_over_length, 1.0, 1.0
    if share < 1:
        low = entering_nusselt(developed, min(Re, TURBULENT_FROM) * per_reynolds)
    if share > 0:
        high = entering_nusselt(developed, LAMINAR_END * per_reynolds)
        high += taler_rise(max(Re, TURBULENT_TO), Pr, diameter_over_length)
    return low ** (1 - share) * high**share


def nusselt_doubt(Re):
    """Standard doubt of `tube_nusselt`, as a share of it. Source: scatter of TALER and GNIELINSKI, and of rough flat
    tubes (common practice)."""
    off = math.log(max(Re, 1.0) / WIDEST) / SPREAD
    return DOUBT_PLAIN + (DOUBT_TRANSITION - DOUBT_PLAIN) * math.exp(-off * off)


class FaceMarch:
    """The coolant's way over the face of one car at a time: each lane of tube through its cells, layer behind layer.

    Within a cell a layer's coolant is mixed across the layer's depth and the air is unmixed, which is exact for a
    uniform cell; the air leaving a layer enters the next. One layer over a uniform face is the closed form "coolant
    mixed, air unmixed"; many layers tend to "both unmixed" (KAYS_LONDON).

    flux [kg/s per m2], warm [degC], conductance [W/K per m2] (K): what each class of the face brings
    carried [W/K per m2], met [degC], gives [W/K per m2] (M): what each kind of cell meets, cells of one kind alike
    air [degC] (lanes, cells): of each cell, going on from layer to layer
    heat [W], coolant_out [degC], whole [W/K], caught [W/K] : what all cells give, conduct, and the air they meet
    """

    def __init__(self, face, passes, layers):
        lanes, cells, kinds, classes = (
            face.which.shape[1],
            face.which.shape[2],
            face.kinds.shape[1],
            face.kinds.shape[2],
        )
        self.face, self.passes, self.layers = face, passes, layers
        self.lanes, self.cells, self.kinds, self.classes = lanes, cells, kinds, classes
        self.flux, self.warm, self.conductance = (np.zeros(classes) for _ in range(3))
        self.carried, self.met, self.gives, self.kept, self.spread = (np.zeros(kinds) for _ in range(5))
        self.air, self.coolant = np.zeros((lanes, cells)), np.zeros(lanes)
        # The classes a kind of cell is of, few of all there are: found once for as long as the cars have one face.
        self.alike, self.looked, self.begins = face.alike, -1, np.zeros(kinds + 1, np.intc)
        self.mixed, self.shares = np.zeros(kinds * classes, np.intc), np.zeros(kinds * classes)
        self.area, self.heat, self.coolant_out, self.whole, self.caught = 0.0, 0.0, 0.0, 0.0, 0.0

    def meet(self, i, area, cp):
        """What each kind of cell of face i brings, from the classes by its mix: what is blocked brings nothing.

        area [m2] of the whole face, cp [J/kgK] of the air.
        """
        if self.looked != (0 if self.alike else i):
            self.look_at(i)
        begins, mixed, shares = self.begins, self.mixed, self.shares
        comes, warmth, conducts = self.flux, self.warm, self.conductance
        for kind in range(self.kinds):
            flux, warm, gives = 0.0, 0.0, 0.0
            for n in range(begins[kind], begins[kind + 1]):
                k, share = mixed[n], shares[n]
                flux += share * comes[k]
                warm += share * comes[k] * warmth[k]
                gives += share * conducts[k]
            self.carried[kind] = max(flux, NO_FLUX) * cp
            self.met[kind] = warm / flux if flux > NO_FLUX else self.warm[0]
            self.gives[kind] = gives
        self.begin(i, area)

    def look_at(self, i):
        """Find the classes each kind of cell of face i is of."""
        count = 0
        for kind in range(self.kinds):
            self.begins[kind] = count
            for k in range(self.classes):
                share = self.face.kinds[i, kind, k]
                if share != 0:
                    self.mixed[count], self.shares[count] = k, share
                    count += 1
        self.begins[self.kinds], self.looked = count, 0 if self.alike else i

    def begin(self, i, area):
        """Put to every cell of face i the air its kind meets, and add up what all meet and conduct."""
        self.area, self.whole, self.caught = area, 0.0, 0.0
        met, given, brought, air, which = self.met, self.gives, self.carried, self.air, self.face.which
        for lane in range(self.lanes):
            each, gives, carried = self.of_cell(i, lane), 0.0, 0.0
            for cell in range(self.cells):
                kind = which[i, lane, cell]
                air[lane, cell] = met[kind]
                gives += given[kind]
                carried += brought[kind]
            self.whole += gives * each
            self.caught += carried * each

    def of_cell(self, i, lane):
        """Face area [m2] a cell of a lane stands for."""
        return self.area * max(self.face.weight[i, lane], LEAST_SHARE) / self.cells

    def march(self, i, flow, inlet):
        """Take coolant of a capacity [W/K] in at `inlet` [degC] and over face i, pass by pass and layer by layer."""
        self.heat, start = 0.0, 0
        for number in range(self.passes):
            stop = self.bound(number + 1)
            inlet = self.over_pass(i, start, stop, number % 2 == 1, flow, inlet)
            start = stop
        self.coolant_out = inlet

    def bound(self, number):
        """The first lane of a pass: lanes are split evenly among them, the half to the even."""
        twice, whole = 2 * number * self.lanes, 2 * self.passes
        bound = twice // whole
        left = twice - bound * whole
        if 2 * left > whole or (2 * left == whole and bound % 2 == 1):
            bound += 1
        return bound

    def over_pass(self, i, start, stop, backwards, flow, inlet):
        """The coolant's mean temperature [degC] after one pass of lanes start..stop."""
        together = 0.0
        for lane in range(start, stop):
            together += self.face.weight[i, lane]
        # Coolant and air of a cell both go with its lane's share of the tubes: cells of one kind give up as much of it.
        share = flow * self.cells / (self.layers * together * self.area)
        for kind in range(self.kinds):
            self.spread[kind] = share / self.carried[kind]
            transfer = -math.expm1(-self.gives[kind] / self.layers / self.carried[kind])
            self.kept[kind] = math.exp(-min(transfer / self.spread[kind], MOST_PER_CELL))
        mixed = inlet
        # By names of its own: what is reached through the object is looked up at every cell.
        kept, spread, air, coolant, which = self.kept, self.spread, self.air, self.coolant, self.face.which
        for _ in range(self.layers):
            after = 0.0
            for lane in range(start, stop):
                coolant[lane] = inlet
            # Lane beside lane: none waits for what another comes to.
            for place in range(self.cells):
                cell = self.cells - 1 - place if backwards else place
                for lane in range(start, stop):
                    kind, was = which[i, lane, cell], coolant[lane]
                    comes = kept[kind] * was + (1 - kept[kind]) * air[lane, cell]
                    air[lane, cell] += (was - comes) * spread[kind]
                    coolant[lane] = comes
            for lane in range(start, stop):
                after += self.face.weight[i, lane] / together * coolant[lane]
            mixed += (after - inlet) / self.layers
        self.heat += flow * (inlet - mixed)
        return mixed


def marched(marches, area, carried, air, gives, coolant, heat):
    """March n faces of so much area [m2] whose kinds of cells are known: carried, air, gives (n, M); coolant (n, 2)
    capacity [W/K] and inlet [degC].

    heat (n, 2) : heat [W] and coolant outlet [degC];  air : becomes (n, lanes * cells) what leaves each cell
    """
    for i in range(heat.shape[0]):
        for kind in range(marches.kinds):
            marches.carried[kind], marches.met[kind] = carried[i, kind], air[i, kind]
            marches.gives[kind] = gives[i, kind]
        marches.begin(i, area)
        marches.march(i, coolant[i, 0], coolant[i, 1])
        heat[i, 0], heat[i, 1] = marches.heat, marches.coolant_out
        for kind in range(marches.kinds):
            air[i, kind] = marches.air[kind // marches.cells, kind % marches.cells]
