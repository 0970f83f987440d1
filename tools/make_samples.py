"""Makes the shipped samples besides the demo, an engine swap that holds and a core far from the engine, and the
pictures of all three for the start page: `python tools/make_samples.py`. Run when the schema or a drawing changes."""

import os

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QColor, QImage, QPainter

from keelroom import ASSETS
from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.assess import assess
from keelroom.assess.first_build import Answers, first_build
from keelroom.assess.words import worded
from keelroom.document.edits import apply, set_value
from keelroom.document.file import load, serialised
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.build import Build
from keelroom.drawing.elevation import elevation
from keelroom.drawing.scene import Dimension, Label, Rect
from keelroom.gui.app import application
from keelroom.gui.theme.palette import LIGHT
from keelroom.gui.widgets.inks import inks
from keelroom.gui.widgets.scene_paint import ScenePainter, body_font, fitted

PICTURE = (240, 150)
MARGIN = 8


def done(build: Build, *codes: str) -> Build:
    """The build after acts of its active package."""
    for code in codes:
        act = offer(code, build.active)
        edit = edit_for(build, act)
        assert edit is not None, code
        build = apply(build, edit)
    return build


def typed(build: Build, values: dict[tuple[str, ...], object]) -> Build:
    """The build with values set."""
    for path, value in values.items():
        build = apply(build, set_value(path, value, "Sample"))
    return build


def cured(build: Build, words: str) -> Build:
    """The build with what cures the first finding that speaks of something."""
    finding = next(one for one in assess(build).findings if words in worded(one, "us").what and one.fix)
    edit = edit_for(build, finding.fix[0])
    assert edit is not None, words
    return apply(build, edit)


def inch(text: str) -> Quantity:
    """A length measured."""
    return quantity(f"{text} in", "length", "measured")


def coupe() -> Build:
    """A modern V8 in a compact coupé, three rows and twin brushless fans: every case holds."""
    build = first_build(
        Answers(
            "Compact coupé, front engine",
            "Modern V8 6.2, aluminium",
            core="Crossflow 28 × 19, 3 row, aluminium",
            fans="Twin 14 in brushless, shrouded, 2 × 380 W",
            hottest=quantity("100 °F", "temperature"),
        ),
        "us",
    )
    build = done(build, "ordinary_circuit", "plan_circuits", "centre")
    build = typed(
        build,
        {
            ("brief", "title"): "Hollow Road coupé: 6.2 swap",
            ("brief", "use"): "Street, summer traffic with the A/C on",
            ("brief", "vehicle", "name"): "Hollow Road coupé",
            ("packages", build.active, "name"): "Three rows, twin brushless 14s",
            ("survey", "opening", "width"): inch("34 1/2"),
            ("survey", "opening", "height"): inch("21"),
            ("brief", "accessories", "alternator_rating"): quantity("220 A", "current", "catalogue"),
        },
    )
    # A cable that stands what such an alternator gives, and its fuse.
    return cured(build, "Nothing protects the charge cable")


def rear() -> Build:
    """A small engine behind the seats, its core at the tail with air of its own."""
    build = first_build(
        Answers(
            "Rear-engined kit car, remote core",
            "Four-cylinder 1.8, naturally aspirated",
            core="Crossflow 22 × 15, 2 row, aluminium",
            fans="Twin 11 in slim, shrouded, 2 × 130 W",
            hottest=quantity("95 °F", "temperature"),
            ac=False,
        ),
        "us",
    )
    build = done(build, "ordinary_circuit", "plan_circuits", "centre")
    where = ("packages", build.active)
    return typed(
        build,
        {
            ("brief", "title"): "Tarn Hill roadster: core at the tail",
            ("brief", "use"): "Weekends and hill runs; no A/C",
            ("brief", "vehicle", "name"): "Tarn Hill roadster",
            (*where, "name"): "22 × 15 behind the engine",
            (*where, "remote", "away"): True,
            (*where, "remote", "inlet_area"): quantity("180 in²", "area", "measured"),
            (*where, "remote", "exit_area"): quantity("220 in²", "area", "measured"),
        },
    )


def picture(build: Build, name: str) -> None:
    """The package from the front, as the start page shows it."""
    image = QImage(*(2 * side for side in PICTURE), QImage.Format.Format_RGB32)
    image.setDevicePixelRatio(2)
    image.fill(QColor(LIGHT.paper))
    scene = elevation(build.package, "us", build.survey)
    bare = scene._replace(shapes=tuple(one for one in scene.shapes if not isinstance(one, Label | Dimension)))
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setFont(body_font(9))
    wide, high = PICTURE
    boxes = [one for one in bare.shapes if isinstance(one, Rect)]
    left, bottom = min(box.left for box in boxes), min(box.bottom for box in boxes)
    right, top = max(box.left + box.width for box in boxes), max(box.bottom + box.height for box in boxes)
    view = fitted(
        (left, bottom, right - left, top - bottom), QRectF(MARGIN, MARGIN, wide - 2 * MARGIN, high - 2 * MARGIN)
    )
    ScenePainter(LIGHT, view).scene(painter, bare, inks(LIGHT))
    painter.end()
    path = ASSETS / "samples" / f"{name}.png"
    assert image.save(str(path)), path
    print(f"wrote {path.name}")


def main() -> None:
    app = application()  # kept while pictures are drawn
    (ASSETS / "samples").mkdir(exist_ok=True)
    assert app
    picture(load(ASSETS / "demo.keelroom"), "demo")
    for name, build in (("coupe", coupe()), ("rear", rear())):
        path = ASSETS / "samples" / f"{name}.keelroom"
        path.write_bytes(serialised(build))
        print(f"wrote {path.name}: {path.stat().st_size} bytes")
        picture(build, name)


if __name__ == "__main__":
    main()
