"""What trials have told of the model, taken into what is computed while the calibration is on."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.made import made_core, made_fans
from keelroom.core.kept import by_identity, by_value, one_of_equals
from keelroom.core.plant import Doubts, Plant
from keelroom.core.unsure import Unsure
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.trials import Calibration, FactorId
from keelroom.document.snapshot import unpacked

FACTORS: tuple[FactorId, ...] = ("heat", "core", "fans", "leaks", "flow")
"""In the order of `unsure.HOTTER`."""
PLACES: dict[FactorId, str] = {
    "heat": "heat",
    "core": "conductance",
    "fans": "fan_pressure",
    "leaks": "leaks",
    "flow": "flow",
}
"""What of `plant.Doubts` a factor is."""


class Learnt(NamedTuple):
    """Factors on what is doubtful and the standard doubts that are left of them, shares, none where nothing is known;
    ties: their correlations, row by row over FACTORS."""

    values: tuple[float, ...] = (1.0,) * len(FACTORS)
    left: tuple[float | None, ...] = (None,) * len(FACTORS)
    ties: tuple[float, ...] = tuple(np.eye(len(FACTORS)).ravel().tolist())

    @property
    def doubts(self) -> Doubts:
        """As factors of a point."""
        return AS_ENTERED._replace(
            **{PLACES[name]: np.array(value) for name, value in zip(FACTORS, self.values, strict=True)}
        )

    def taken_in(self, plant: Plant, unsure: Unsure) -> tuple[Plant, Unsure]:
        """A plant and what is not known of it, with what was learnt."""
        left = dict(zip(FACTORS, self.left, strict=True))
        known = {name: np.array(doubt) for name, doubt in left.items() if doubt is not None and name != "heat"}
        side = len(FACTORS)
        unsure = unsure._replace(tied=np.array(self.ties).reshape(side, side), **known)
        if left["heat"] is None:
            return plant, unsure
        law = plant.engine.law._replace(doubt=np.array(left["heat"]))
        return plant._replace(engine=plant.engine._replace(law=law)), unsure


AS_ENTERED = Doubts(*(np.array(1.0) for _ in Doubts._fields))
NOTHING = Learnt()


@by_value(32)
def package_kept(text: str) -> Package | None:
    """A package out of the text it was kept as; None where none was, or it is of a format no longer read."""
    return unpacked(text)


def learnt_of(build: Build, package: Package) -> Learnt:
    """What is known of a package's car: heat and coolant's flow of every package, core, fans and gaps where they are
    those that were tried."""
    return _learnt(build.calibration, package) if build.calibration.on else NOTHING


@by_identity(64)
def _learnt(calibration: Calibration, package: Package) -> Learnt:
    tried = package_kept(calibration.package)
    holds = {"heat": True, "flow": tried is not None and tried.loop.pump == package.loop.pump}
    if tried is not None:
        holds |= {
            "core": made_core(tried.core) == made_core(package.core),
            "fans": made_fans(tried.fans) == made_fans(package.fans) and tried.shroud == package.shroud,
            "leaks": tried.sealing == package.sealing and tried.shroud == package.shroud,
        }
    known = {factor.id: factor for factor in calibration.factors if holds.get(factor.id, False)}
    ties = np.eye(len(FACTORS))
    if len(calibration.ties) == ties.size:
        whole = np.array(calibration.ties).reshape(ties.shape)
        both = np.array([name in known for name in FACTORS])
        ties = np.where(both[:, None] & both[None, :], whole, ties)
    return one_of_equals(
        Learnt(
            tuple(known[name].value if name in known else 1.0 for name in FACTORS),
            tuple(known[name].doubt if name in known else None for name in FACTORS),
            tuple(ties.ravel().tolist()),
        )
    )
