"""The whole document, and duty cases."""

from typing import Annotated, Literal, Self

from pydantic import model_validator

from keelroom.document.fields import id_lists
from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Brief, Maybe
from keelroom.document.schema.choosing import Choosing
from keelroom.document.schema.drive import Driving
from keelroom.document.schema.electrical import Supply
from keelroom.document.schema.package import Core, Fan, Package, PackageKind
from keelroom.document.schema.survey import GapRule, Survey, usual_gaps
from keelroom.document.schema.trail import KEPT, Done
from keelroom.document.schema.trials import Calibration, Trials
from keelroom.document.schema.work import Work
from keelroom.errors import InputError

FORMAT: Literal["keelroom-build"] = "keelroom-build"
VERSION: Literal[17] = 17
Demand = Literal["idle", "road_load", "full_power"]
Seen = Literal["", "fine", "hot"]
"""nobody looked; it stayed; it climbed"""


class DutyCase(Strict):
    """One steady situation the package must live with."""

    id: str
    name: str = ""
    demand: Demand = "road_load"
    speed: Annotated[Quantity, Spec("speed", "Road speed", ge=0, le=120)] = quantity("0 mph", "speed")
    grade: Annotated[Quantity, Spec("share", "Grade", ge=-0.5, le=1)] = quantity("0 %", "share")
    towed_mass: Annotated[Quantity, Spec("mass", "Towed or extra mass", ge=0, le=60000)] = quantity("0 lb", "mass")
    gear_step: Annotated[
        Quantity, Spec("number", "Gear, as multiple of top", gt=0.2, le=10, help="1 top gear; 1.4 one gear down")
    ] = quantity("1", "number")
    rpm: Annotated[Maybe, Spec("turning speed", "Engine speed", gt=0, le=250, help="Empty: from gearing, or idle")] = (
        None
    )
    stops_per_km: Annotated[Quantity, Spec("number", "Stops per kilometre", ge=0, le=50)] = quantity("0", "number")
    counted: bool = True
    """the package must hold it; else it stands for information"""
    ac_on: bool = False
    in_gear: bool = True
    ambient: Annotated[
        Maybe, Spec("temperature", "Ambient", ge=-50, le=60, help="Empty: the hottest day of the brief")
    ] = None
    seen: Seen = ""
    """what the car did in it before the work"""
    seen_at: Annotated[
        Maybe, Spec("temperature", "Gauge read", ge=0, le=200, help="The highest while it climbed; empty: not noted")
    ] = None
    seen_day: Annotated[
        Maybe, Spec("temperature", "On a day of", ge=-50, le=60, help="Empty: as warm as the case’s own day")
    ] = None
    seen_for: Annotated[
        Maybe,
        Spec("minutes", "It lasted", gt=0, le=86400, help="Warm before; empty: until the needle moved no more"),
    ] = None


class Build(Strict):
    """A build: one brief, one survey, several packages of which one is active, duty cases, and the user's own parts."""

    format: Literal["keelroom-build"] = FORMAT
    version: Literal[17] = VERSION
    revision: int = 0
    brief: Brief = Brief()
    survey: Survey = Survey()
    gaps: Annotated[tuple[GapRule, ...], most(20)] = usual_gaps()
    supply: Supply = Supply()
    packages: Annotated[tuple[Package, ...], most(120)] = ()
    active: str = ""
    duty_cases: Annotated[tuple[DutyCase, ...], most(60)] = ()
    driving: Driving = Driving()
    logbook: Trials = Trials()
    calibration: Calibration = Calibration()
    work: Work = Work()
    choosing: Choosing = Choosing()
    own_cores: Annotated[tuple[Core, ...], most(200)] = ()
    own_fans: Annotated[tuple[Fan, ...], most(200)] = ()
    trail: Annotated[tuple[Done, ...], most(KEPT)] = ()
    """what was done to it, oldest first; nothing is computed from it"""

    @model_validator(mode="after")
    def _ids_are_unique(self) -> Self:
        fault = self.id_fault()
        if fault:
            raise ValueError(fault)
        return self

    def id_fault(self) -> str:
        """What is wrong with the ids of lists and of the active package; '' where nothing is."""
        # Own parts are known by their names: fans kept from two packages may both be called fan1 there.
        for path, ids in id_lists(self, apart=("own_fans",)):
            if "" in ids:
                return f"an entry of {' / '.join(path)} has no id; every entry needs one of its own"
            if len(set(ids)) != len(ids):
                twice = next(one for k, one in enumerate(ids) if one in ids[:k])
                return f"the id “{twice}” stands twice in {' / '.join(path)}; ids are unique within their list"
        if self.active not in {package.id for package in self.packages}:
            return f"active names no package: “{self.active}”"
        return ""

    def duty_case(self, case_id: str) -> DutyCase:
        """The duty case by its id. Raises InputError where there is none: it may have been taken out meanwhile."""
        for case in self.duty_cases:
            if case.id == case_id:
                return case
        raise InputError("no_such_case", "There is no such duty case: make one at the Brief", case=case_id)

    @property
    def package(self) -> Package:
        """The active package."""
        return self.with_id(self.active)

    @property
    def counting(self) -> tuple[DutyCase, ...]:
        """The duty cases that count; all of them where none does."""
        return tuple(case for case in self.duty_cases if case.counted) or self.duty_cases

    def with_id(self, ident: str) -> Package:
        """The package of that id, which is there."""
        return next(package for package in self.packages if package.id == ident)

    def of_kind(self, kind: PackageKind) -> Package | None:
        """The first package of a kind; None where the build has none."""
        return next((package for package in self.packages if package.kind == kind), None)
