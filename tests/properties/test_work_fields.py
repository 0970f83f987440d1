"""Every field of the work moves what is planned, told or bought, or only names something."""

import pytest

from keelroom.assess.assess import assess
from keelroom.assess.questions.record import record
from keelroom.assess.work.money import estimated
from keelroom.assess.work.plan import before_needed, planned
from keelroom.assess.work.shopping import shopping
from keelroom.catalogue.steps import shipped_text
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.trials import Photo
from keelroom.document.schema.work import Item, OwnStep, Pace, Tick, Work
from keelroom.document.snapshot import kept, packed
from tests.conftest import DEMO

BUILD = load(DEMO)
STEP = "circuit:circuit1/build"
READY = BUILD.model_copy(
    update={
        "work": Work(
            start="2026-11-30",
            needed="2026-12-01",
            rate=quantity("80", "money"),
            ticks=(Tick(id="t", step=STEP, package="p1", words="Harness", day="2026-11-30", planned=60.0),),
            items=(Item(id="p1/fan:fan1", name="Fan"), Item(id="use:loom:m", name="Loom")),
            own=(OwnStep(id="o"),),
            pace=(Pace(id="circuit"),),
        )
    }
)
AT = {
    "Work": (),
    "Tick": ("ticks", "t"),
    "Item": ("items", "use:loom:m"),
    "OwnStep": ("own", "o"),
    "Pace": ("pace", "circuit"),
}
NAMES = {
    "Work": {"ticks", "items", "own", "pace"},
    "Tick": {"id"},
    "Item": {"id", "name"},
    "OwnStep": {"id"},
    "Pace": {"id", "steps"},
}
"""What a thing is called, or holds in a list of its own, or only tells of how many it is"""
OTHER = {
    ("Work", "people"): quantity("2", "count"),
    ("Work", "begins"): quantity("7 h", "time"),
    ("Work", "day"): quantity("5 h", "time"),
    ("Work", "days"): ("tue",),
    ("Work", "start"): "2026-12-07",
    ("Work", "needed"): "2026-12-20",
    ("Work", "rate"): quantity("95", "money"),
    ("Work", "contingency"): quantity("20 %", "share"),
    ("Work", "table"): packed(shipped_text().replace(",7,12,25,", ",9,15,30,")),
    ("Work", "recorded"): kept(BUILD.package.model_copy(update={"name": "Before"})),
    ("Work", "notes"): "Next time two people.",
    ("Tick", "step"): "circuit:circuit2/build",
    ("Tick", "package"): "p3",
    ("Tick", "words"): "Another",
    ("Tick", "went"): "twice",
    ("Tick", "day"): "2026-12-01",
    ("Tick", "who"): "Bo",
    ("Tick", "took"): quantity("90 min", "minutes"),
    ("Tick", "planned"): 7200.0,
    ("Tick", "note"): "A hand short.",
    ("Tick", "photos"): (Photo(id="p", file="x.png"),),
    ("Item", "price"): quantity("8", "money"),
    ("Item", "lead"): quantity("5", "number"),
    ("Item", "source"): "yard",
    ("Item", "instead"): "split hose",
    ("Item", "in_hand"): True,
    ("Item", "receipt"): "no. 12",
    ("OwnStep", "name"): "Tow it in",
    ("OwnStep", "low"): quantity("25 min", "minutes"),
    ("OwnStep", "likely"): quantity("40 min", "minutes"),
    ("OwnStep", "high"): quantity("90 min", "minutes"),
    ("OwnStep", "hands"): quantity("2", "count"),
    ("OwnStep", "state"): "drivable",
    ("OwnStep", "cost"): quantity("60", "money"),
    ("Pace", "times"): quantity("1.3", "number"),
}


def told(build):
    plan = planned(build, build.package)
    found = estimated(build, build.package, plan)
    said = (
        plan.spans,
        plan.ticks,
        plan.first,
        found._replace(),
        before_needed(build, plan),
        shopping(build, build.package),
    )
    return repr((said, record(assess(build), plan, "us")))


@pytest.mark.parametrize(("model", "name"), list(OTHER))
def test_every_field_moves_what_is_said(model, name):
    changed = apply(READY, Edit("", (Change(("work", *AT[model], name), OTHER[model, name]),)))
    assert told(READY) != told(changed)


def test_the_fields_are_those_above():
    for model in (Work, Tick, Item, OwnStep, Pace):
        known = NAMES[model.__name__] | {name for kind, name in OTHER if kind == model.__name__}
        assert known == set(model.model_fields)
