"""What charging comes to: the balance at idle, the alternator's speed, its cable, and the battery on its own."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.electrical.figures import Electrics, sizes_like
from keelroom.assess.inputs.cases import stands
from keelroom.assess.inputs.electrical.system import System, battery_of, run_of
from keelroom.core.electrical.charging import Alternator, discharge_time, output, top_speed
from keelroom.core.electrical.circuit import WireRun
from keelroom.core.electrical.motor import current_at
from keelroom.core.electrical.protection import fuse_sizes
from keelroom.core.electrical.wire import ampacity, conductor, conductor_temperature, wire_voltage_drop
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.electrical import Supply
from keelroom.facts import Fact, articled, fact
from keelroom.gauges import is_metric

AGREES, AGREES_AMPS = 0.15, 8.0
"""Share of what it gives, and amps at least, within which a measured voltage and the model agree (common practice)."""
CHARGE_FUSE = 1.15
"""Times the alternator's rating its cable's fuse is at least: cold it gives some more than that (common practice)."""


def fan_current_alone(build: Build, found: Electrics | None) -> float:
    """Amps of the fans on the battery alone, at 12 V."""
    motors = (
        [m for one in found.circuits for m in one.motors if m.fan and not one.fault] + [m for m in found.loose if m.fan]
        if found
        else []
    )
    return sum(current_at(motored.motor, 12.0 * battery_of(build.supply).cells) for motored in motors)


def share_taken(build: Build, found: Electrics | None, seconds: float) -> float:
    """Share of a full battery the fans alone take in so many seconds."""
    amps, battery = fan_current_alone(build, found), battery_of(build.supply)
    return seconds / discharge_time(battery, amps) * battery.state if amps else 0.0


CRUISING = 2500.0
"""[rpm] of the engine at which an alternator's cruising output is told (common practice)."""


JUST = 0.05
"""[A] an alternator may lack before it is said to."""


class Draw(NamedTuple):
    """What one duty case draws: the system with all that is on then and the fans running, and the amps of the mean of
    their on and off times."""

    case: DutyCase
    system: System
    mean: float

    @property
    def lacks(self) -> float:
        """Amps the alternator lacks in the mean, under 0 what it has over."""
        return self.mean - self.system.balance.available

    @property
    def short(self) -> bool:
        """Whether the battery helps while the fans run."""
        return self.system.short > JUST

    @property
    def empties(self) -> bool:
        """Whether it goes flat: what the fans take out is not given back by their rests."""
        return self.short and self.lacks > JUST

    def needs(self, regulated: float) -> float:
        """Amps that keep the battery from emptying: the mean, as it draws at the volts the regulator holds [V]."""
        return self.mean * max(regulated / self.system.balance.voltage, 1.0)


class Charging(NamedTuple):
    """The charging side as facts.

    idle : the system standing, the fans running, None where no duty case stands
    draws : of the duty cases that count, as far as they are worked out
    top, limit [rpm] : the alternator's speed at the redline, and its most
    cable : from it to the battery
    """

    alternator: Alternator
    idle: System | None
    draws: tuple[Draw, ...]
    top: float
    limit: float
    cable: ChargeCable

    @property
    def hardest(self) -> Draw | None:
        """The draw that leaves the alternator least; None until one is worked out."""
        return max(self.draws, key=lambda draw: draw.lacks, default=None)

    @property
    def cruising(self) -> float:
        """Amps it gives hot at CRUISING of the engine."""
        return output(self.alternator, CRUISING)

    @property
    def over_speed(self) -> bool:
        """Whether the redline turns it faster than it stands."""
        return self.top > self.limit

    @property
    def contradiction(self) -> float:
        """Amps by which a measured voltage belies the model at idle: positive where it must be giving more than it
        could; 0 where they agree."""
        if self.idle is None or not self.idle.measured:
            return 0.0
        given, could = self.idle.balance.available, self.idle.modelled
        slack = max(AGREES * given, AGREES_AMPS)
        if given > could + slack:
            return given - could
        return given - could if self.idle.short > 0 and could > given + slack else 0.0


def charging_of(build: Build, found: Electrics, draws: tuple[Draw, ...]) -> Charging | None:
    """The charging side of a build; None where the alternator's rating is not known."""
    if found.alternator is None:
        return None
    supply = build.supply
    top = top_speed(found.alternator, supply.redline.si * 60)
    return Charging(
        found.alternator,
        found.idle,
        draws,
        top,
        supply.speed_limit.si * 60,
        charge_cable(supply, found.alternator.rating),
    )


def balance_told(facts: Charging) -> tuple[Fact, ...]:
    """The balance of the hardest case: what is on and the fans running first, the mean of their cycle as what it is."""
    draw = facts.hardest
    if draw is None:
        return ()
    system, balance = draw.system, draw.system.balance
    gives = fact("gives.measured" if system.measured else "gives", amps=(balance.available, "current"))
    short = (
        fact("battery_makes_up", amps=(system.short, "current"), time=(balance.lasts, "minutes"))
        if system.short > 0
        else None
    )
    code = "wanted.fans" if system.fan_amps > 0 else "wanted"
    when = fact("at_idle") if stands(draw.case) else fact("in_case", name=draw.case.name)
    first = fact(code, wanted=(balance.wanted, "current"), when=when, given=gives, short=short)
    if draw.mean >= balance.wanted - 0.5:
        return (first,)
    return (first, fact("mean_wanted", amps=(draw.mean, "current")))


class ChargeCable(NamedTuple):
    """The charge cable at an alternator's rating [A]: volts it loses and may lose, its ampacity [A] where it lies,
    copper and insulation limit [degC], its fuse [A] (None: none)."""

    rating: float
    drop: float
    drop_limit: float
    ampacity: float
    warm: float
    limit: float
    fuse: float | None

    @property
    def carries(self) -> float:
        """Amps it must stand: what flows, and what its fuse lets through."""
        return max(self.rating, self.fuse or 0.0)

    @property
    def fits(self) -> bool:
        """Whether it neither loses too much nor is worked too hard."""
        return self.drop <= self.drop_limit and self.ampacity >= self.carries


def charge_cable(supply: Supply, rating: float, run: WireRun | None = None) -> ChargeCable:
    """The supply's charge cable, or another `run` in its place, at `rating` [A]."""
    run = run or run_of(supply.charge_wire)
    warm = conductor_temperature(run.wire, rating, run.ambient, run.loaded)
    return ChargeCable(
        rating=rating,
        drop=wire_voltage_drop(rating, run.length, run.wire, warm) / 2,
        drop_limit=supply.charge_limit.si,
        ampacity=ampacity(run.wire, run.ambient, run.loaded),
        warm=warm,
        limit=run.wire.limit,
        fuse=supply.charge_fuse.si if supply.charge_fuse else None,
    )


def charge_fuse_for(rating: float) -> float | None:
    """The smallest bolt-down fuse [A] an alternator of `rating` [A] never opens while it charges."""
    return next((size for size in fuse_sizes("bolt_down") if size >= CHARGE_FUSE * rating), None)


def _smallest(supply: Supply, rating: float) -> str | None:
    """The smallest cable that carries the rating and the supply's own fuse within its drop; None where none does."""
    wire = supply.charge_wire
    run, metric = run_of(wire), is_metric(wire.size.unit)
    return next(
        (
            t
            for t, area in sizes_like(metric)
            if charge_cable(supply, rating, run._replace(wire=conductor(area, metric, wire.cable))).fits
        ),
        None,
    )


def _fused(supply: Supply, rating: float) -> Supply:
    """The supply with the fuse it ought to have in its charge cable, where one is made."""
    wanted = charge_fuse_for(rating)
    return (
        supply.model_copy(update={"charge_fuse": quantity(f"{wanted:g} A", "current", "derived")}) if wanted else supply
    )


def cable_for(supply: Supply, rating: float) -> str | None:
    """The smallest charge cable that carries an alternator's rating [A] and its fuse within its drop; None where none
    does.

    A fuse it lacks is counted too, so that fitting one does not ask for another cable, unless no cable stands that.
    """
    fused = supply if supply.charge_fuse else _fused(supply, rating)
    return _smallest(fused, rating) or _smallest(supply, rating)


class Protection(NamedTuple):
    """What protects a charge cable: the fuse, and the cable it then takes, as they would be typed; cable '' where the
    present one does, None where no single one stands that fuse."""

    fuse: str
    cable: str | None

    @property
    def label(self) -> str:
        return articled(f"A {self.fuse} fuse {f'and {self.cable} cable' if self.cable else 'at the battery'}")


def protection_for(supply: Supply, rating: float) -> Protection | None:
    """The fuse an alternator's rating [A] asks for and the cable that goes with it; None where no such fuse is made."""
    fused = _fused(supply, rating)
    fuse, cable = fused.charge_fuse, charge_cable(fused, rating)
    if fused is supply or fuse is None:
        return None
    return Protection(fuse.as_typed, "" if cable.ampacity >= cable.carries else _smallest(fused, rating))
