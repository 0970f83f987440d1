"""Many packages to assess together: catalogue cores with catalogue fans, no two alike, varied by a fixed seed."""

import random
from collections.abc import Iterator

from keelroom.assess.inputs.translate import PointRow, car_of, row_of
from keelroom.catalogue.load import cores, fan_assemblies, placed
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package, Shroud


def packages(count: int, seed: int = 5) -> Iterator[Package]:
    """Random pairs of catalogue core and fans, some bare, some with part of the face shrouded."""
    chance = random.Random(seed)
    for i in range(count):
        core, assembly = chance.choice(cores()), chance.choice(fan_assemblies())
        fans, shroud = placed(assembly, core, "si")
        if chance.random() < 0.3:
            shroud = Shroud(kind="none")
        # No two of them are the same: fins as they are counted, a gap as it is measured.
        assert core.fin_density
        fins = from_si(core.fin_density.si * chance.uniform(0.9, 1.1), "fin density", "si", "measured")
        gap = from_si(chance.uniform(0.0, 0.004), "length", "si", "measured")
        core, shroud = core.model_copy(update={"fin_density": fins}), shroud.model_copy(update={"edge_gap": gap})
        yield Package(id=f"p{i}", core=core, fans=fans, shroud=shroud)


def rows(build: Build, count: int) -> dict[tuple[object, ...], list[PointRow]]:
    """Operating points of `count` packages over every duty case, by batch."""
    found: dict[tuple[object, ...], list[PointRow]] = {}
    for package in packages(count):
        car = car_of(build, package)
        for case in build.duty_cases:
            row = row_of(build, package, car, case)
            found.setdefault(row.batch, []).append(row)
    return found
