"""What a person set and expects to find again: units, theme, pane sizes. Never anything of a build."""

from __future__ import annotations

import json

from PyQt6.QtCore import QByteArray, QLocale, QSettings

from keelroom.units import CHOICES, system_with

PAPERS = ("A4", "Letter")
THEMES = ("light", "dark", "contrast")
LONGEST_SIGN = 4
"""Letters of a currency."""
TEXT_SIZES, USUAL_SIZE = (9, 10, 11, 12, 14), 10
"""[pt] the type may be set to, and what it is unless it is."""
MOST_LOGS = 40
"""Sorts of loggers' files kept in mind."""
MOST_RECENT = 8
"""Files kept in mind."""


def _usual_paper() -> str:
    """Letter where inches are usual, A4 elsewhere."""
    return "Letter" if QLocale.system().measurementSystem() == QLocale.MeasurementSystem.ImperialUSSystem else "A4"


class Settings:
    """Typed access to the stored settings; unknown or damaged values fall back on the default."""

    def __init__(self) -> None:
        self._store = QSettings("keelroom", "keelroom")

    def _one_of(self, name: str, choices: tuple[str, ...]) -> str:
        """The stored choice; '' where none, or one there is not, is stored."""
        value = str(self._store.value(name, ""))
        return value if value in choices else ""

    @property
    def units(self) -> str:
        return self._one_of("units", ("us", "si")) or "us"

    @units.setter
    def units(self, value: str) -> None:
        self._store.setValue("units", value)

    @property
    def system(self) -> str:
        """The units, with those chosen apart from them."""
        return system_with(self.units, {kind: self.unit_of(kind) for kind in CHOICES})

    def unit_of(self, kind: str) -> str:
        """The unit of a kind that was chosen apart from the system; '' where none was."""
        return self._one_of(f"unit of {kind}", CHOICES[kind])

    def choose_unit(self, kind: str, symbol: str) -> None:
        """Choose it, '' for the system's own."""
        self._store.setValue(f"unit of {kind}", symbol)

    @property
    def theme(self) -> str:
        return self._one_of("theme", THEMES) or "light"

    @theme.setter
    def theme(self, value: str) -> None:
        self._store.setValue("theme", value)

    @property
    def pixels_per_metre(self) -> float:
        """Of the screen, as calibrated with a ruler; 0 where nobody has."""
        try:
            value = float(self._store.value("pixels_per_metre", 0.0))
        except (TypeError, ValueError):
            return 0.0
        return value if 500 < value < 50000 else 0.0

    @pixels_per_metre.setter
    def pixels_per_metre(self, value: float) -> None:
        self._store.setValue("pixels_per_metre", value)

    @property
    def folded(self) -> bool:
        """Whether the ledger is folded to one line."""
        return str(self._store.value("folded", "false")) == "true"

    @folded.setter
    def folded(self, value: bool) -> None:
        self._store.setValue("folded", "true" if value else "false")

    @property
    def drawer(self) -> str:
        """The drawer that was out; '' none."""
        return str(self._store.value("drawer", ""))

    @drawer.setter
    def drawer(self, value: str) -> None:
        self._store.setValue("drawer", value)

    @property
    def paper_chosen(self) -> str:
        """The paper that was set; '' none."""
        return self._one_of("paper", PAPERS)

    @property
    def paper(self) -> str:
        """Paper for everything printed or written as PDF: as set, else Letter where inches are, else as is usual where
        one is."""
        return self.paper_chosen or ("Letter" if self.units == "us" else _usual_paper())

    @paper.setter
    def paper(self, value: str) -> None:
        self._store.setValue("paper", value)

    @property
    def currency(self) -> str:
        """Sign put before costs, wherever they are shown: as set, else as is usual where one is; '' none."""
        return str(self._store.value("currency", QLocale.system().currencySymbol()))[:LONGEST_SIGN]

    @currency.setter
    def currency(self, value: str) -> None:
        self._store.setValue("currency", value.strip()[:LONGEST_SIGN])

    def columns(self, table: str) -> tuple[list[str], dict[str, int]]:
        """Of a table by its name: titles of columns that were put away, and widths that were set [px]."""
        try:
            away, wide = json.loads(str(self._store.value(f"columns/{table}", "[[], {}]")))
            return [str(title) for title in away], {str(title): int(width) for title, width in wide.items()}
        except (ValueError, TypeError, AttributeError):
            return [], {}

    def keep_columns(self, table: str, away: list[str], wide: dict[str, int]) -> None:
        """Keep them."""
        self._store.setValue(f"columns/{table}", json.dumps([away, wide]))

    @property
    def logs_read(self) -> dict[str, str]:
        """How loggers' files were read last, by the heads of their columns."""
        try:
            found = json.loads(str(self._store.value("logs read", "{}")))
            return {str(heads): str(how) for heads, how in found.items()}
        except (ValueError, AttributeError):
            return {}

    def keep_log_read(self, heads: str, how: str) -> None:
        """Keep how a file of these heads was read; of many the oldest goes."""
        found = {one: was for one, was in self.logs_read.items() if one != heads} | {heads: how}
        self._store.setValue("logs read", json.dumps(dict(list(found.items())[-MOST_LOGS:])))

    @property
    def template(self) -> str:
        """The file new builds may begin from; '' none."""
        return str(self._store.value("template", ""))

    @template.setter
    def template(self, path: str) -> None:
        self._store.setValue("template", path)

    @property
    def text_size(self) -> int:
        """Points of the type."""
        try:
            size = int(self._store.value("text_size", USUAL_SIZE))
        except (TypeError, ValueError):
            return USUAL_SIZE
        return size if size in TEXT_SIZES else USUAL_SIZE

    @text_size.setter
    def text_size(self, points: int) -> None:
        self._store.setValue("text_size", points)

    @property
    def shown_round(self) -> bool:
        """Whether the first screen was explained."""
        return str(self._store.value("shown_round", "false")) == "true"

    @shown_round.setter
    def shown_round(self, value: bool) -> None:
        self._store.setValue("shown_round", "true" if value else "false")

    @property
    def recent(self) -> list[str]:
        """Files opened or saved last, newest first."""
        value = self._store.value("recent", [])
        return [str(one) for one in value][:MOST_RECENT] if isinstance(value, list) else []

    def add_recent(self, path: str) -> None:
        """Put a file at the head of those used last."""
        self._store.setValue("recent", [path, *(one for one in self.recent if one != path)][:MOST_RECENT])

    def tell_of(self, path: str, title: str, verdict: str) -> None:
        """Keep a file's title and how it stood."""
        told = {one: list(self.told_of(one)) for one in self.recent} | {path: [title, verdict]}
        self._store.setValue("told", told)

    def told_of(self, path: str) -> tuple[str, str]:
        """A file's title and how it stood when it was used last; empty where nothing is kept."""
        told = self._store.value("told", {})
        found = told.get(path) if isinstance(told, dict) else None
        return (str(found[0]), str(found[1])) if isinstance(found, list) and len(found) == 2 else ("", "")

    @property
    def said_slow(self) -> str:
        """What was last said of running interpreted."""
        return str(self._store.value("said_slow", ""))

    @said_slow.setter
    def said_slow(self, value: str) -> None:
        self._store.setValue("said_slow", value)

    def remember(self, name: str, state: QByteArray) -> None:
        self._store.setValue(name, state)

    def remembered(self, name: str) -> QByteArray | None:
        value = self._store.value(name)
        return value if isinstance(value, QByteArray) else None
