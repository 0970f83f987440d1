"""The hose a sensor sits in, and the adapter that holds it there."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.ports import CORE_IN, CORE_OUT
from keelroom.assess.inputs.coolant.routes import HoseRun
from keelroom.assess.inputs.electrical.controller import seat_of
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import Fact, fact

THREADS = {
    "npt_18": "1/8 NPT",
    "npt_14": "1/4 NPT",
    "npt_38": "3/8 NPT",
    "npt_12": "1/2 NPT",
    "m14": "M14 × 1.5",
    "m16": "M16 × 1.5",
    "m22": "M22 × 1.5",
}


def _sensor_run(build: Build, package: Package) -> HoseRun | None:
    """The hose the sensor sits in: the one at the core's end it is named after."""
    end = CORE_OUT if seat_of(package.control).after_core else CORE_IN
    return next((run for run in graph_of(build, package).runs if end in (run.start.key, run.end.key)), None)


def sensor_hose(build: Build, package: Package) -> str:
    """The id of the hose the sensor sits in; '' where there is none."""
    run = _sensor_run(build, package) if seat_of(package.control).hosed else None
    return run.hose.id if run else ""


class Adapter(NamedTuple):
    """The sensor adapter in a hose: piece to cut out of it [m], bore [m], thread; fault: why it cannot be, None where
    it can."""

    cut: float
    bore: float | None
    thread: str
    strap: bool
    fault: Fact | None


def adapter_of(build: Build, package: Package) -> Adapter | None:
    """What the adapter asks of the hose; None where the sensor sits elsewhere."""
    control = package.control
    if not seat_of(control).hosed or way_of(control).by_hand:
        return None
    cut = control.adapter.si - 2 * control.adapter_push.si
    run = _sensor_run(build, package)
    fault = None if cut > 0 else fact("hose_ends_meet")
    return Adapter(max(cut, 0.0), run.bore if run else None, THREADS[control.thread], control.strap, fault)
