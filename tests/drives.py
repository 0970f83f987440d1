"""Schedules to drive builds through, for tests."""

import numpy as np

from keelroom.assess.drives.driven import Driven, drive_of, prepared
from keelroom.core.drive.run import drive
from keelroom.core.kept import in_one_go
from keelroom.document.quantity import quantity
from keelroom.document.schema.drive import Leg, Schedule


def leg(kind="idle", lasts="20 min", **more):
    """One leg; measures as texts."""
    kinds = {"speed": "speed", "grade": "share", "towed": "mass", "rpm": "turning speed", "ambient": "temperature"}
    kinds |= {"stands": "minutes", "goes": "minutes", "gear_step": "number", "ac_share": "share"}
    told = {name: quantity(value, kinds[name]) if name in kinds else value for name, value in more.items()}
    ident = told.pop("id", f"{kind}-{lasts}".replace(" ", ""))
    return Leg(id=ident, kind=kind, lasts=quantity(lasts, "minutes"), **told)


def schedule(*legs, begins="settled"):
    """A drive of such legs, each under an id of its own."""
    own = tuple(one.model_copy(update={"id": f"{one.id}{k}"}) for k, one in enumerate(legs))
    return Schedule(id="test", name="Test", begins=begins, legs=own)


def driven(build, *legs, begins="settled", bands=False) -> Driven:
    """A build's package in use through such legs; what cannot be driven fails the test."""
    found = drive_of(build, build.package, schedule(*legs, begins=begins), bands)
    assert isinstance(found, Driven), found
    return found


@in_one_go
def ready(build, *legs, begins="settled"):
    """What such a drive is made of, before it is run."""
    return prepared(build, build.package, schedule(*legs, begins=begins))


def rerun(made, start, lumps=None, finer=1.0, **legs):
    """A prepared drive run again with other lumps, or other columns of its legs; past boiling too."""
    found = made.situations
    legs = {"boils": 1e9, **legs}
    changed = {name: np.full_like(getattr(found.legs, name), value) for name, value in legs.items()}
    return drive(found.stands, lumps or made.lumps, found.legs._replace(**changed), found.supply, start, finer)


def read_at(run, line, at):
    """A line of a run at a moment [s]."""
    return float(np.interp(at, run.time, line))
