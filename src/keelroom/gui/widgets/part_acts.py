"""What can be done with a part where it is drawn: read its measure under the pointer, go to its figures, stop or take
out a fan."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.registry import offer
from keelroom.assess.fixes import flag_act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.act_menu import Entry, entry_of
from keelroom.units import KINDS, format_si


class DrawnPart(NamedTuple):
    """One part under the pointer: its name, its measure in a few words, where its figures are, and the fan's id where
    it is one."""

    name: str
    measure: str
    path: tuple[str, ...]
    fan: str = ""

    @property
    def words(self) -> str:
        return f"{self.name}: {self.measure}" if self.measure else self.name


def fan_part(build: Build, fan: Fan, system: str) -> DrawnPart:
    """A fan by its number, with its size and place."""
    number = [one.id for one in build.package.fans].index(fan.id) + 1
    x, y = (format_si(value.si, KINDS["length"], system) for value in (fan.x, fan.y))
    size = f"{format_si(fan.diameter.si, KINDS['length'], system)}, " if fan.diameter else ""
    return DrawnPart(
        f"Fan {number}",
        f"{size}{x} from left, {y} from bottom",
        ("packages", build.active, "fans", fan.id, "diameter"),
        fan.id,
    )


def core_part(build: Build, system: str) -> DrawnPart:
    """The core with its face and depth."""
    core = build.package.core
    sizes = [
        format_si(value.si, KINDS["length"], system)
        for value in (core.face_width, core.face_height, core.depth)
        if value
    ]
    return DrawnPart("Core", " × ".join(sizes), ("packages", build.active, "core", "face_width"))


def acts_of(session: Session, part: DrawnPart) -> list[Entry]:
    """What a right-click offers, each undone like any step."""
    entries = [Entry("Go to its figures", lambda: session.asked_for.emit(part.path))]
    fan = next((one for one in session.build.package.fans if one.id == part.fan), None)
    if fan is not None:
        where = ("packages", session.build.active, "fans", fan.id, "runs")
        word = "Stop it" if fan.runs else "Let it run"
        runs = flag_act(f"{part.name}: {word.lower()}", where, not fan.runs)
        out = offer("take_out_fan", session.build.active, f"Take out {part.name.lower()}", fan=fan.id)
        entries += [entry_of(session, word, runs), entry_of(session, "Take it out", out)]
    return entries
