"""A build with its core behind the rear axle: as it was first put together, and its parts. Made of the demo's van."""

from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import quantity
from keelroom.document.schema.loop import Hose, Part
from keelroom.document.schema.package import Remote


def length(text):
    return quantity(text, "length", "measured")


def rear_mounted(build):
    """The demo's first package with its core at the rear, wrong in three ways: pump high, two pressure caps, no tank
    in line."""
    where = ("packages", "p1")
    package = next(p for p in build.packages if p.id == "p1")
    rear = Part(
        id="pump",
        kind="pump",
        name="Rear pump",
        x=length("20 in"),
        y=length("26 in"),
        z=length("150 in"),
        bore=length("1 1/2 in"),
    )
    filler = Part(
        id="filler",
        kind="filler",
        name="Front filler",
        cap="pressure",
        x=length("6 in"),
        y=length("21 in"),
        z=length("10 in"),
    )
    hose = {hose.id: hose for hose in package.loop.hoses}

    def line(ident, name, start, end, feet, **more):
        return Hose(
            id=ident,
            name=name,
            start=start,
            end=end,
            kind="reinforced",
            bore=length("1 in"),
            length=length(f"{feet} ft"),
            bends=quantity("4", "count"),
            piece="reducer",
            **more,
        )

    hoses = (
        hose["upper"].model_copy(
            update={
                "end": "filler:in",
                "kind": "reinforced",
                "length": length("10 in"),
                "bends": quantity("1", "count"),
                "name": "Engine to filler",
            }
        ),
        line("out", "Line to the rear", "filler:out", "core:inlet", 13, necks=length("7/8 in")),
        line("rear", "Core to pump", "core:outlet", "pump:in", 2),
        line("back", "Line to the front", "pump:out", "engine:lower", 13, necks=length("7/8 in")),
        hose["heater_feed"],
        hose["heater_back"],
    )
    place = package.place.model_copy(update={"x": length("2 in"), "y": length("4 in"), "z": length("160 in")})
    loop = package.loop.model_copy(
        update={
            "pump": "both",
            "pump_on": quantity("140 °F", "temperature"),
            "hoses": hoses,
            "parts": (*package.loop.parts, rear, filler),
            "electric_flow": quantity("30 gpm", "coolant flow"),
            "electric_pressure": quantity("12 psi", "pressure"),
        }
    )
    return apply(
        build,
        Edit(
            "To the rear",
            (
                Change((*where, "loop"), loop),
                Change((*where, "place"), place),
                Change((*where, "remote"), Remote(away=True)),
            ),
        ),
    )
