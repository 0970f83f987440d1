"""Acts on the core of a package: another chosen, one re-cored, cleaned, kept among one's own parts."""

from __future__ import annotations

from contextlib import suppress

from keelroom.assess.acts.kind import HOUR, ActKind, Doing
from keelroom.assess.safety import cautions
from keelroom.document.edits import Change, Edit, set_value
from keelroom.document.quantity import as_read, from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core, Fan, Package
from keelroom.errors import InputError, KeelRoomError
from keelroom.units import INCH

WET = cautions("core")


def own_cores(build: Build) -> tuple[Core, ...]:
    """The build's own cores and the user's. Raises CatalogueError where the user's cannot be read."""
    from keelroom.catalogue.load import own_parts

    kept = {core.name for core in build.own_cores}
    return (*build.own_cores, *(core for core in own_parts().cores if core.name not in kept))


def offered_cores(build: Build) -> tuple[Core, ...]:
    """Cores to choose from: the build's own, the user's as far as they can be read, the catalogue's."""
    from keelroom.catalogue.load import cores

    mine = build.own_cores
    with suppress(KeelRoomError):  # who shows the list says what is wrong with the file
        mine = own_cores(build)
    return (*mine, *cores())


def fit_core(package: Package, core: Core, system: str = "us") -> Edit:
    """The edit that fits a core: the fans keep their places as shares of the face."""
    fans = tuple(_moved_fan(fan, (package.core, core), system) for fan in package.fans)
    where = ("packages", package.id)
    return Edit(f"Core: {core.name}", (Change((*where, "core"), core), Change((*where, "fans"), fans)))


def _moved_fan(fan: Fan, cores: tuple[Core, Core], system: str) -> Fan:
    old, new = cores

    def scaled(at: float, was: float | None, now: float | None) -> float:
        return at * now / was if was and now else at

    if (old.face_width, old.face_height) == (new.face_width, new.face_height):
        return fan
    x = scaled(fan.x.si, old.face_width.si if old.face_width else None, new.face_width.si if new.face_width else None)
    y = scaled(
        fan.y.si, old.face_height.si if old.face_height else None, new.face_height.si if new.face_height else None
    )
    return fan.model_copy(
        update={"x": from_si(x, "length", system, "derived"), "y": from_si(y, "length", system, "derived")}
    )


def _fit(do: Doing) -> Edit:
    core = next((one for one in offered_cores(do.build) if one.name == do.given("name")), None)
    if core is None:
        raise InputError("no_such_core", f"No core called “{do.given('name')}” is among your parts or in the catalogue")
    return fit_core(do.package, core, do.system)


def _deeper(do: Doing) -> Edit:
    core = do.package.core
    if core.depth is None or core.rows is None or core.rows.si >= 6:
        raise InputError("no_deeper", "No core of this kind has one more tube row")
    rows = core.rows.si + 1
    depth = core.depth.si * rows / core.rows.si
    return Edit(
        do.act.label,
        (
            Change((*do.where, "core", "rows"), quantity(f"{rows:.0f}", "count")),
            Change((*do.where, "core", "depth"), as_read(min(depth, 0.25), "length", do.system, "derived")),
        ),
    )


def _denser(do: Doing) -> Edit:
    fins = do.package.core.fin_density
    if fins is None:
        raise InputError("no_fins", "How many fins an inch the core has is not known")
    return set_value(
        (*do.where, "core", "fin_density"),
        as_read(fins.si + 2 / INCH, "fin density", do.system, "derived"),
        do.act.label,
    )


def _copper(do: Doing) -> Edit:
    core = do.package.core
    if core.material == "copper_brass" or core.fin_density is None:
        raise InputError("copper_already", "It is of copper and brass already, or its fins are not known")
    fins = as_read(max(core.fin_density.si, 16 / INCH), "fin density", do.system, "derived")
    return Edit(
        do.act.label,
        (
            Change((*do.where, "core", "material"), "copper_brass"),
            Change((*do.where, "core", "fin_density"), fins),
            Change((*do.where, "core", "fin_height"), quantity("6.5 mm", "length")),
        ),
    )


def _keep(do: Doing) -> Edit:
    core = do.package.core
    if not core.name:
        raise InputError("no_name", "Give the core a name first; it is kept under it")
    others = tuple(one for one in do.build.own_cores if one.name != core.name)
    return set_value(("own_cores",), (*others, core), f"Keep “{core.name}” in my parts")


CORE = ("packages", "*", "core")
KINDS = (
    ActKind(
        "fit_core",
        "Fit a core of the parts list; the fans keep their places on the face",
        _fit,
        cautions=WET,
        before=("Its tanks and necks against hood, latch and crossmember",),
        after=("No drip at necks and drain after a warm-up",),
        rests_on=(("survey", "opening"), ("survey", "rails")),
    ),
    ActKind(
        "deeper",
        "A core of one more tube row, that much deeper",
        _deeper,
        "One more tube row, core that much deeper",
        cautions=WET,
        rests_on=((*CORE, "depth"), (*CORE, "rows")),
    ),
    ActKind(
        "denser",
        "A core of two more fins an inch",
        _denser,
        "Two more fins per inch",
        cautions=WET,
        rests_on=((*CORE, "fin_density"),),
    ),
    ActKind(
        "copper",
        "A re-core in copper and brass, at least 16 fins an inch",
        _copper,
        "Re-core in copper/brass with a denser core",
        cautions=cautions("core", "close_brass"),
        rests_on=((*CORE, "fin_density"),),
    ),
    ActKind(
        "clean",
        "The core cleaned inside",
        lambda do: set_value((*do.where, "core", "condition"), "clean", do.act.label),
        "Clean the core inside",
        hours=2 * HOUR,
        cautions=WET,
        after=("Flow through it, and its face evenly warm",),
    ),
    ActKind("keep_core", "Keep the core among one’s own parts", _keep, "Keep in my parts"),
)
