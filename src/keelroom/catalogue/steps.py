"""What each act on the car takes, step by step: a table that ships here and that a shop can copy and change.

Minutes, hands and shares are common practice, no source.
"""

from __future__ import annotations

import csv
import io
import math
from functools import cache
from importlib.resources import files
from typing import Literal, NamedTuple

from keelroom.core.plan.network import Task, ordered
from keelroom.errors import InputError

State = Literal["drivable", "front_off", "drained", "bare", "mocked_up", "wired", "filled", "proven"]
STATES: dict[State, str] = {
    "drivable": "drivable",
    "front_off": "front off",
    "drained": "drained",
    "bare": "bare",
    "mocked_up": "mocked up",
    "wired": "wired",
    "filled": "filled",
    "proven": "proven",
}
"""States of the car on its way, in their order."""
ACTS: dict[str, frozenset[str]] = {
    "begin": frozenset(),
    "front": frozenset(),
    "drain": frozenset(),
    "take_hose": frozenset(("name",)),
    "take_shroud": frozenset(),
    "take_fan": frozenset(("name",)),
    "take_engine_fan": frozenset(("name",)),
    "take_core": frozenset(),
    "take_cooler": frozenset(("name", "caution")),
    "take_condenser": frozenset(("name",)),
    "take_part": frozenset(("name",)),
    "take_circuit": frozenset(("name",)),
    "take_panel": frozenset(("name",)),
    "take_bracket": frozenset(("name",)),
    "mock_up": frozenset(("readings",)),
    "cut": frozenset(("name", "length", "half_metres")),
    "move": frozenset(("name", "how", "hundredths", "caution")),
    "frame": frozenset(("name", "metres")),
    "bracket": frozenset(("name", "metres", "bolts", "reach", "tight", "tools", "wrench")),
    "port": frozenset(("name", "state", "keeps", "tools", "uses", "caution")),
    "core": frozenset(("torque",)),
    "recore": frozenset(),
    "core_away": frozenset(),
    "shroud_made": frozenset(("area",)),
    "shroud_bought": frozenset(("edges", "rings")),
    "shroud_joined": frozenset(),
    "shroud": frozenset(("metres",)),
    "fan": frozenset(("name",)),
    "fan_bare": frozenset(("name",)),
    "engine_fan": frozenset(("name",)),
    "condenser": frozenset(("name",)),
    "cooler": frozenset(("name", "metres", "metres_n", "litres", "caution")),
    "part": frozenset(("name", "where")),
    "pump": frozenset(("name",)),
    "hose": frozenset(("name", "clamp")),
    "hose_run": frozenset(("name", "metres", "metres_n", "clips")),
    "circuit": frozenset(("name", "wires", "metres", "shrink", "terminals")),
    "control": frozenset(("on", "off")),
    "battery": frozenset(),
    "panel": frozenset(("name", "hundredths", "area", "metres")),
    "fill": frozenset(("litres", "litres_n", "water_n")),
    "test": frozenset(),
    "test_ac": frozenset(),
}
"""Acts on the car, and what of each may be named in its steps in braces, or multiply their minutes."""
COLUMNS = (
    *("act", "step", "state", "words", "per", "low", "likely", "high", "hands", "needs", "waits", "keeps", "again"),
    *("tools", "uses", "check", "forgotten", "caution", "reads"),
)
NEEDED = COLUMNS[:8]
LISTED = " / "
MOST_MINUTES = 6000.0


class StepRule(NamedTuple):
    """One step of an act. low, likely, high [s], times the act's figure `per`;  hands : people;  needs : other steps as
    act.step;  waits [s] after it;  keeps : whether it can be undone;  again : share of cases it is made twice
    uses : consumables as (name, amount with unit);  cautions : steps of `assess.safety`;  reads : where a reading goes
    """

    act: str
    step: str
    state: State
    words: str
    per: str
    low: float
    likely: float
    high: float
    hands: int
    needs: tuple[str, ...]
    waits: float
    keeps: str
    again: float
    tools: tuple[str, ...]
    uses: tuple[tuple[str, str], ...]
    check: str
    forgotten: str
    cautions: tuple[str, ...]
    reads: str

    @property
    def name(self) -> str:
        """As others need it."""
        return f"{self.act}.{self.step}"


@cache
def shipped() -> tuple[StepRule, ...]:
    """The table that ships with the catalogue."""
    return parsed(shipped_text(), "steps.csv")


def shipped_text() -> str:
    """Its text, for a shop to copy and change."""
    return (files("keelroom.catalogue") / "data" / "steps.csv").read_text(encoding="utf-8")


def parsed(text: str, name: str) -> tuple[StepRule, ...]:
    """A table of steps. Raises InputError naming the line and what was expected."""
    reader = csv.DictReader(io.StringIO(text))
    heads = reader.fieldnames or []
    missing = [one for one in NEEDED if one not in heads]
    if missing:
        raise InputError("steps_heads", f"{name}: no column “{missing[0]}”; expected are {', '.join(COLUMNS)}")
    found = [_row(row, f"{name}, line {reader.line_num}") for row in reader if any(row.values())]
    if not found:
        raise InputError("steps_empty", f"{name} holds no step")
    _held_together(found, name)
    return tuple(found)


def _row(row: dict[str, str | None], at: str) -> StepRule:
    told = {name: (row.get(name) or "").strip() for name in COLUMNS}
    act = told["act"]
    if act not in ACTS:
        raise InputError("steps_act", f"{at}: “{act}” is no act known here; known are {', '.join(ACTS)}")
    if not told["step"] or not told["words"]:
        raise InputError("steps_words", f"{at}: a step wants a name and words")
    if told["state"] not in STATES:
        raise InputError(
            "steps_state", f"{at}: “{told['state']}” is no state of the car; known are {', '.join(STATES)}"
        )
    if told["per"] and told["per"] not in ACTS[act]:
        known = ", ".join(sorted(ACTS[act])) or "none"
        raise InputError("steps_per", f"{at}: “{told['per']}” is no figure of {act}; it has {known}")
    low, likely, high = (_minutes(told[name], f"{at}, {name}") for name in ("low", "likely", "high"))
    if not 0 < low <= likely <= high:
        raise InputError(
            "steps_minutes", f"{at}: {told['low']}, {told['likely']}, {told['high']}: low, likely, high were expected"
        )
    hands = _minutes(told["hands"] or "1", f"{at}, hands")
    again = _minutes(told["again"] or "0", f"{at}, again") / 100
    if hands != int(hands) or not 1 <= hands <= 6 or not 0 <= again <= 0.95:
        raise InputError("steps_shares", f"{at}: 1 to 6 hands and 0 to 95 % made twice were expected")
    return StepRule(
        act=act,
        step=told["step"],
        state=told["state"],
        words=told["words"],
        per=told["per"],
        low=60 * low,
        likely=60 * likely,
        high=60 * high,
        hands=int(hands),
        needs=tuple(told["needs"].split()),
        waits=60 * _minutes(told["waits"] or "0", f"{at}, waits"),
        keeps=told["keeps"] or "yes",
        again=again,
        tools=_listed(told["tools"]),
        uses=tuple(_use(one, at) for one in _listed(told["uses"])),
        check=told["check"],
        forgotten=told["forgotten"],
        cautions=_listed(told["caution"]),
        reads=told["reads"],
    )


def _listed(text: str) -> tuple[str, ...]:
    return tuple(one.strip() for one in text.split(LISTED) if one.strip())


def _use(text: str, at: str) -> tuple[str, str]:
    if text.startswith("{"):
        return text, ""
    what, _, amount = text.partition("=")
    if not amount:
        raise InputError("steps_uses", f"{at}: “{text}” says no amount; expected is name=amount unit")
    return what.strip(), amount.strip()


def _minutes(text: str, at: str) -> float:
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        value = math.nan
    if not 0 <= value <= MOST_MINUTES:
        raise InputError("steps_number", f"{at}: “{text}” is no number from 0 to {MOST_MINUTES:.0f}")
    return value


def _held_together(found: list[StepRule], name: str) -> None:
    """Raises InputError where two steps have one name, a need is none, or needs go in a ring."""
    names = [rule.name for rule in found]
    twice = next((one for one in names if names.count(one) > 1), None)
    if twice is not None:
        raise InputError("steps_twice", f"{name}: the step {twice} stands twice")
    for rule in found:
        unknown = next((need for need in rule.needs if need not in names), None)
        if unknown is not None:
            raise InputError("steps_need", f"{name}: {rule.name} needs {unknown}, which is no step of the table")
    try:
        ordered([Task(rule.name, rule.likely, rule.hands, rule.waits, rule.needs) for rule in found])
    except InputError as error:
        raise InputError("steps_ring", f"{name}: {error.message}") from None
