"""What an assessment says: figures per duty case, rules beside them, totals, findings. Plain values, SI."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal, NamedTuple

from keelroom.assess.electrical.figures import Electrics
from keelroom.assess.figures.beliefs import Belief
from keelroom.assess.figures.in_hand import InHand
from keelroom.assess.figures.seen import Unlike
from keelroom.assess.findings import Finding
from keelroom.assess.fit.clearances import Fit
from keelroom.assess.inputs.needs import Need
from keelroom.assess.inputs.translate import PointRow
from keelroom.assess.loop.figures import LoopCase
from keelroom.assess.mended import judged_on
from keelroom.assess.outcome import Stopped
from keelroom.core.answer import Answer
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

NAMED = 3
"""Parts that stopped for one reason named before the rest is counted."""
Verdict = Literal["holds", "tight", "even", "over", "does_not_settle"]
HOLDING: tuple[Verdict, ...] = ("holds", "tight")
"""Verdicts that count as held: an even chance does not."""


class FanFigures(NamedTuple):
    """One fan at one operating point. flow_at_fan: while running, at its own density;  read_by_hand: what a vane
    anemometer makes of that;  flow_into_core: of it the air drawn through the core, at the density ahead of it
    [m3/s]."""

    fan_id: str
    flow_at_fan: float
    read_by_hand: float
    flow_into_core: float
    share: float
    """of the air through the core"""
    from_core: float
    from_edge: float
    from_hole: float
    """shares of this fan's air: through the core, round the edge, back through a stopped fan"""
    pressure: float
    """rise over the fan [Pa]"""
    voltage: float
    """at the motor"""
    current: float
    power: float


class Left(NamedTuple):
    """Heat [W] a fluid leaves somewhere: to a cooler, to the coolant, or off by its own way (its case, its lines,
    into the engine)."""

    fluid: str
    where: str
    heat: float
    to: Literal["cooler", "coolant", "own"]
    cooler_id: str = ""
    """where it is a cooler's: names may stand twice"""


NO_HEAT = 50.0
"""[W] under which a fluid is given nothing worth a cooler or a word."""


class FluidFigures(NamedTuple):
    """The fluids of coolers at one operating point, temperatures [degC]: gearbox in its pan and leaving for the
    coolers, oil, intake air as it enters the engine, refrigerant where it condenses with its pressure over the
    outdoors [Pa], air at the vents and in the cabin, power steering.

    runs : share of the time the compressor runs;  given [W] each fluid, left [W] where it went: what was given is all
           somewhere;  within [K] of the band each that is given heat stands in,
           either way
    """

    gearbox: float
    gearbox_leaving: float
    oil: float
    charge: float
    condensing: float
    head_pressure: float
    vents: float
    cabin: float
    steering: float
    runs: float
    given: tuple[tuple[str, float], ...]
    left: tuple[Left, ...]
    within: tuple[tuple[str, float], ...]

    def of(self, fluid: str) -> float:
        """[degC] a fluid runs at, the refrigerant where it condenses."""
        return float(getattr(self, {"refrigerant": "condensing"}.get(fluid, fluid)))

    def heated(self, fluid: str) -> bool:
        """Whether a fluid is given heat at all: where it is not, its temperature tells nobody anything."""
        return dict(self.given).get(fluid, 0.0) >= NO_HEAT


class CoolerFigures(NamedTuple):
    """A cooler at one operating point: heat [W], air through it [kg/s], temperatures [degC]."""

    cooler_id: str
    kind: str
    heat: float
    flow: float
    air_in: float
    air_out: float
    fluid: float
    """of its own fluid: gearbox oil, refrigerant, intake air"""
    within: float
    """[K] either way of the band that stands in; 0 where it has no fluid"""


COLDEST, HOTTEST = -30.0, 60.0
"""[degC] an ambient colder than this is no comfort to anybody; hotter than the other no weather is."""


class CaseAmbients(NamedTuple):
    """Ambients [degC] up to which the limit is held, and at which it boils."""

    holds: float
    boils: float


class CaseFigures(NamedTuple):
    """One duty case, solved. Temperatures degC, heat W, flows m3/s."""

    temperature: float
    """what the gauge reaches: the top of the swing where the fans cycle"""
    mean: float
    """over the fans' off and on times, a figure of duty; the same where they do not cycle"""
    swings_from: float
    """the bottom of the swing; the same where the fans do not cycle"""
    fan_on_at: float
    """when the first fan comes on, inf where none is switched by temperature"""
    chance: float
    """that the limit is passed"""
    low: float
    high: float
    """the band holds 80 % of cases; inf where the hot end of the band does not settle"""
    verdict: Verdict
    margin: float
    in_hand: InHand
    boiling: float
    heat_in: float
    rejection_at_limit: float
    heat_by_cause: tuple[tuple[str, float], ...]
    doubt_by_cause: tuple[tuple[str, float], ...]
    climb: float
    """K/s at the limit"""
    time_to_limit: float
    airflow: float
    """mean through the core, at the density ahead of it"""
    airflow_fans_on: float
    """the same while the fans run"""
    face_speed: float
    front_air: float
    """ahead of everything, recirculated air mixed in"""
    air_in: float
    air_out: float
    bay_air: float
    recirculated: float
    """share of the air at the face that comes back from the bay"""
    back_through: float
    """share of the air drawn through the core that goes back through what no fan sweeps, the fans running"""
    bypassed: float
    """share of the air taken in that goes round the core"""
    coolant_out: float
    coolant_flow: float
    core_coolant_flow: float
    thermostat_opening: float
    fan_command: float
    fans: tuple[FanFigures, ...]
    coolers: tuple[CoolerFigures, ...]
    fluids: FluidFigures
    fan_current: float
    """of the cooling fans over their on and off times"""
    electrical_current: float
    """everything on, the fans running"""
    mean_current: float
    """everything on, over the fans' on and off times"""
    alternator_current: float
    system_voltage: float
    """at the battery, everything on"""
    battery_current: float
    """into the battery, negative where it gives"""
    battery_lasts: float
    """seconds until it is down with everything on and the fans running, inf where it is not going down"""
    rpm: float
    speed: float
    ambient: float
    brake_power: float
    fuel_power: float
    power_short: float
    louver_reynolds: float
    tube_reynolds: float
    """of the coolant in the tubes"""
    faster_coolant: tuple[float, float]
    """kelvin that two passes instead of one, and a pump a fifth faster, would take off, to first order"""
    pressures: tuple[tuple[str, float], ...]
    loop: LoopCase
    """the coolant circuit then"""
    ambients: CaseAmbients | None = None
    """None until the second wave has them"""

    @property
    def held(self) -> bool:
        """Whether the limit counts as held."""
        return self.verdict in HOLDING

    @property
    def cycles(self) -> bool:
        """Whether the fans switch on and off and the gauge swings with them."""
        return self.swings_from < self.temperature


class CaseResult(NamedTuple):
    """A duty case: worked out, or needing something, or stopped by what is said there; one of the three, never two.
    counted: the package must hold it, else it stands for information."""

    case_id: str
    name: str
    figures: CaseFigures | None
    needs: tuple[Need, ...] = ()
    stopped: Stopped | None = None
    counted: bool = True


class RulesOfThumb(NamedTuple):
    """Both rules beside what the package has; None where not known. m2 and m3/s."""

    face_area: float | None
    face_area_wanted: float | None
    airflow: float | None
    airflow_wanted: float | None


class Totals(NamedTuple):
    """Running totals of the package. Currents at idle with everything on and the fans running [A], cost, hours; None
    where not known."""

    amps_at_idle: float | None
    alternator_at_idle: float | None
    volts_at_idle: float | None
    """at the battery, the fans running"""
    cost: float | None
    """of what its work buys"""
    hours: float | None
    """[s] of all hands its work is likely to take"""


def _together(alike: list[Stopped]) -> Stopped:
    """Stops for one reason as one: the part it is said of most closely, with the others of that sort by name."""
    closest = max(alike, key=lambda one: len(one.where))
    names = list(dict.fromkeys(one.part for one in alike if one.where == closest.where))
    shown = ", ".join(names[:NAMED]) + (f" and {len(names) - NAMED} more" if len(names) > NAMED else "")
    return closest._replace(part=shown)


class Start(NamedTuple):
    """The solved arrays of an assessment and what they were made from; `key` tells whether another's arrays are of
    like shape."""

    key: tuple[object, ...]
    answer: Answer
    rows: tuple[PointRow, ...]
    followed: bool = False
    """the band was moved along while something was dragged, not worked out"""


class Down(NamedTuple):
    """A car at a light whose battery goes flat: of which case, after how long [s], the volts the alternator holds
    alone, and what the gauge reaches with its fans at those [degC], inf where it does not settle under boiling."""

    case_id: str
    lasts: float
    voltage: float
    temperature: float


class Assessment(NamedTuple):
    """The whole judgement of one package of one build, which it holds: no figure stands beside a build it was not
    made of."""

    build: Build
    """the very build it was made of"""
    package_id: str
    cases: tuple[CaseResult, ...]
    rules: RulesOfThumb
    totals: Totals
    findings: tuple[Finding, ...]
    limit: float | None
    thermostat: float | None
    boiling: float | None
    fit: Fit | None = None
    electrics: Electrics | None = None
    beliefs: tuple[Belief, ...] = ()
    """what is believed of its parts, worked out both ways; while something is dragged none is"""
    unlike: tuple[Unlike, ...] = ()
    """cases the car was seen to do otherwise in than the build as found could; while something is dragged none is"""
    down: Down | None = None
    """None where no battery goes flat, and until the second wave has it"""
    idle_id: str = ""
    """the duty case that stands for idle, '' where there is none"""
    start: Start | None = None
    """the solved arrays, where the next assessment begins; not part of the judgement"""
    judged: bool = True
    """whether the findings are this build's; while something is dragged they are those it was picked up with"""
    deepened: bool = False
    """whether the second wave has been, whatever it found"""
    stopped: tuple[Stopped, ...] = ()
    """parts beside the duty cases that could not be worked out: the fit, the circuits, a part of the judgement"""
    refused: tuple[tuple[PointRow, Stopped], ...] = ()
    """points that found no answer, each with its reason: while they stay the same they are not tried again; not part
    of the judgement"""

    def figures_of(self, case_id: str) -> CaseFigures | None:
        """A duty case's figures; None where there is no such case or it has none."""
        return next((case.figures for case in self.cases if case.case_id == case_id), None)

    @property
    def complete(self) -> bool:
        """Whether it is judged and the second wave has been."""
        return self.judged and (self.deepened or self.start is None)

    @property
    def package(self) -> Package:
        """The package it judges."""
        return self.build.with_id(self.package_id)

    @property
    def driven(self) -> Build:
        """The build its package is judged on: what was found of the car is mended for all but the car as found."""
        return judged_on(self.build, self.package)

    @property
    def all_stopped(self) -> tuple[Stopped, ...]:
        """Everything that could not be worked out; what shares its reason is told once, where it is said most
        closely."""
        cases = [case.stopped for case in self.cases if case.stopped]
        told: dict[str, list[Stopped]] = {}
        for one in (*cases, *self.stopped):
            told.setdefault(one.why, []).append(one)
        return tuple(_together(alike) for alike in told.values())

    @property
    def idle(self) -> CaseFigures | None:
        """Figures of the case that stands for idle; None where there is none or it lacks something."""
        return self.figures_of(self.idle_id)

    @property
    def counting(self) -> tuple[CaseResult, ...]:
        """The cases that count; all of them where none does."""
        return tuple(case for case in self.cases if case.counted) or self.cases

    @property
    def tightest(self) -> CaseResult | None:
        """The solved case with the least margin, of those that count where any does."""
        known = [case for case in self.cases if case.figures]
        return _least([case for case in known if case.counted] or known)

    @property
    def telling(self) -> CaseResult | None:
        """The case that tells most: of those that settle and count the one with the least margin, else the tightest."""
        settled = (case for case in self.counting if case.figures and case.figures.verdict != "does_not_settle")
        return _least(settled) or self.tightest

    @property
    def worst_level(self) -> str:
        """The gravest finding level present, or 'none'."""
        present = {finding.level for finding in self.findings}
        return next((level for level in ("problem", "doubt", "note") if level in present), "none")


def _least(cases: Iterable[CaseResult]) -> CaseResult | None:
    """The one with the least margin; None of none."""
    return min(cases, key=lambda case: case.figures.margin if case.figures else 0.0, default=None)
