"""One table of roles: what is broken, red or filled on screen is so on paper, in SVG and in PDF."""

from keelroom.document.file import load
from keelroom.drawing.elevation import elevation
from keelroom.drawing.roles import ROLES
from keelroom.drawing.scene import Circle
from keelroom.export.inks import INKS
from keelroom.export.svg import svg_text
from keelroom.gui.theme.palette import DARK, LIGHT
from keelroom.gui.widgets.inks import inks
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)


def test_every_back_end_draws_every_role_alike():
    for palette in (LIGHT, DARK):
        screen = inks(palette)
        assert set(screen) == set(INKS) == set(ROLES)
        for role, style in ROLES.items():
            assert screen[role].dashed is INKS[role].dashed is style.dashed
            assert bool(screen[role].fill) is (INKS[role].fill is not None)


def test_a_stopped_fan_is_broken_in_svg_too():
    stopped = on(BUILD, (("packages", "p1", "fans", "fan1", "runs"), False))
    scene = elevation(stopped.package, "us", stopped.survey)
    assert any(isinstance(shape, Circle) and shape.role == "fan.stopped" for shape in scene.shapes)
    lines = [line for line in svg_text(scene).splitlines() if 'class="fan.stopped"' in line]
    assert lines
    assert all("stroke-dasharray" in line for line in lines)
