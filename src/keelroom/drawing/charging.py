"""The charging balance drawn: per duty case what is wanted, lying along one rail of amps, against what the alternator
can give."""

from __future__ import annotations

from collections.abc import Callable

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.electrical.system import System, system_at
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.drawing.scene import Label, Polyline, Rect, Scene, Shape

MM = 1e-3
WIDTH, LEFT, RIGHT, ROW, TOP = 600.0, 20.0, 580.0, 74.0, 44.0
BAR = 20.0


def charging(build: Build, package: Package, assessment: Assessment) -> Scene | None:
    """A bar per duty case; None where none is worked out or the alternator is not known."""
    solved = [(case, result) for case, result in zip(build.duty_cases, assessment.cases, strict=True) if result.figures]
    if not solved or assessment.electrics is None or assessment.electrics.alternator is None:
        return None
    driven = assessment.driven
    systems = [(result.name, system_at(driven, package, demand_of(driven.brief, case).at)) for case, result in solved]
    most = (
        max(
            max(system.balance.wanted, min(system.balance.available, 1.6 * system.balance.wanted))
            for _, system in systems
        )
        * 1.06
    )
    names = {motored.name: motored.fan for motored in motors_of(build, package)}
    shapes: list[Shape] = []

    def x(amps: float) -> float:
        return LEFT + (RIGHT - LEFT) * amps / most

    def line(role: str, x0: float, y0: float, x1: float, y1: float) -> None:
        shapes.append(Polyline(role, ((x0 * MM, y0 * MM), (x1 * MM, y1 * MM))))

    def words(at_x: float, y: float, text: str, role: str = "el.words", align: str = "start") -> None:
        shapes.append(Label(role, (at_x * MM, y * MM), text, align))

    step = 20 if most > 60 else 10
    for amps in range(0, int(most) + 1, step):
        line("rail", x(amps), -TOP + 14, x(amps), -TOP - ROW * len(systems) + 22)
        words(x(amps), -TOP + 22, f"{amps} A" if amps else "0", "el.words", "middle")
    for k, (name, system) in enumerate(systems):
        y = -TOP - ROW * k - 22
        _bar(shapes, system, names, (x, y))
        words(LEFT, y + 20, name, "el.value")
        words(RIGHT, y + 20, _volts(system), "el.flag", "end")
        balance = system.balance
        given = min(balance.available, most)
        line("bar.given", x(given), y - BAR / 2 - 7, x(given), y + BAR / 2 + 4)
        text, under = f"gives {balance.available:.0f} A", y - BAR / 2 - 14
        if balance.battery < -0.05:
            words(LEFT, under, f"{text}, the battery {-balance.battery:.0f} A while the fans run", "el.alarm")
        else:
            more = " or more" if given < balance.available else ""
            words(min(x(given), RIGHT), under, text + more, "el.words", "end" if given > 0.5 * most else "start")
    return Scene(
        tuple(shapes), (0.0, -(TOP + ROW * len(systems) + 4) * MM, WIDTH * MM, (TOP + ROW * len(systems) + 4) * MM)
    )


def _bar(
    shapes: list[Shape], system: System, fans: dict[str, bool], at: tuple[Callable[[float], float], float]
) -> None:
    """Loads end to end, each with its name where it has room."""
    x, y = at
    start = 0.0
    for name, amps in sorted(system.loads, key=lambda load: (not fans.get(load[0], False), load[0] not in fans)):
        if amps < 0.05:
            continue
        left, right = x(start), x(start + amps)
        role = "bar.fan" if fans.get(name) else "bar.rest" if name in fans else "bar.load"
        shapes.append(Rect(role, left * MM, (y - BAR / 2) * MM, (right - left) * MM, BAR * MM))
        if right - left > 7.2 * len(name) + 8:
            shapes.append(
                Label("bar.word" if role == "bar.load" else "bar.label", ((left + right) / 2 * MM, y * MM), name)
            )
        start += amps


def _volts(system: System) -> str:
    """Volts at the battery and at the motors, kept apart."""
    where = "measured at the battery" if system.measured else "at the battery"
    text = f"{system.balance.voltage:.1f} V {where}"
    return f"{text}, {min(system.volts.values()):.1f} V at the worst motor" if system.volts else text
