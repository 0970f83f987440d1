"""Kinds of measure and the units each is read and shown in."""

from __future__ import annotations

import math
from functools import cache
from typing import NamedTuple

from keelroom.errors import InputError

INCH = 0.0254
POUND = 0.45359237
PSI = POUND * 9.80665 / INCH**2


class Unit(NamedTuple):
    """One way to write a kind: `si = value * factor + offset`."""

    symbol: str
    factor: float
    offset: float = 0.0
    decimals: int = 1
    names: tuple[str, ...] = ()


class Kind(NamedTuple):
    """A kind of quantity with the units it may be typed in; the first unit is the SI one."""

    name: str
    units: tuple[Unit, ...]
    us: str
    si: str
    example: str
    named: bool = False
    """sizes that go by a name (wire): shown as they were written, never converted"""

    def unit(self, symbol: str) -> Unit:
        """The unit written `symbol`; InputError naming the units that would do."""
        wanted = plain(symbol)
        for unit in self.units:
            if wanted in (plain(unit.symbol), *(plain(name) for name in unit.names)):
                return unit
        known = ", ".join(u.symbol for u in self.units if u.symbol)
        raise InputError(
            "unknown_unit",
            f"“{symbol}” is not a unit of {self.name}; use {known}"
            if known
            else "This is a plain number; leave the unit out",
            unit=symbol,
            kind=self.name,
        )

    def shown_unit(self, system: str) -> Unit:
        """The unit a system shows this kind in: "us" or "si", or one of them with choices of its own, as
        `system_with` writes it."""
        return _shown(self.name, system)

    @property
    def affine(self) -> bool:
        """True where zero is a matter of convention, so that sums of two readings mean nothing."""
        return any(unit.offset for unit in self.units)


@cache
def _shown(kind_name: str, system: str) -> Unit:
    kind, (_, *chosen) = KINDS[kind_name], system.split(BESIDES)
    symbols = dict(choice.split(CHOSEN, 1) for choice in chosen)
    return kind.unit(symbols.get(kind_name, kind.us if inches(system) else kind.si))


BESIDES, CHOSEN = ";", "="
CHOICES = {"heat": ("kW", "hp", "BTU/min"), "volume": ("qt", "gal", "L")}
"""kinds whose unit may be chosen apart from the system, with what it may be"""


def inches(system: str) -> bool:
    """Whether a system shows lengths in inches."""
    return system.split(BESIDES, 1)[0] == "us"


def system_with(base: str, choices: dict[str, str]) -> str:
    """A system ("us" or "si") with units of some kinds chosen apart from it, those that can be.

    choices : symbols by kind; '' and what is no unit that may be chosen are left out
    """
    told = [f"{kind}{CHOSEN}{choices[kind]}" for kind, may in CHOICES.items() if choices.get(kind) in may]
    return BESIDES.join((base, *told))


DIGITS = str.maketrans("²³₂", "232")
"""raised and lowered digits as typed on a plain keyboard"""


def plain(symbol: str) -> str:
    return "".join(symbol.translate(DIGITS).replace("°", "").split()).rstrip(".").lower()


def a_kind(noun: str) -> str:
    if noun == "money":
        return "a sum of money"
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


def _kind(name: str, us: str, si: str, example: str, *units: Unit) -> Kind:
    return Kind(name, units, us, si, example)


KINDS: dict[str, Kind] = {
    kind.name: kind
    for kind in (
        _kind(
            "length",
            "in",
            "mm",
            "24 3/8, 24.375 in or 619 mm",
            Unit("m", 1.0, decimals=3),
            Unit("mm", 1e-3, decimals=1),
            Unit("cm", 1e-2, decimals=1),
            Unit("in", INCH, decimals=3, names=('"', "″", "inch", "inches")),
            Unit("ft", 12 * INCH, decimals=2, names=("'", "′", "feet", "foot")),
        ),
        _kind(
            "area",
            "in²",
            "cm²",
            "450 in² or 2900 cm²",
            Unit("m²", 1.0, decimals=3),
            Unit("cm²", 1e-4, decimals=0),
            Unit("in²", INCH**2, decimals=0, names=("sqin",)),
            Unit("ft²", (12 * INCH) ** 2, decimals=1, names=("sqft",)),
        ),
        _kind(
            "drag area",
            "ft²",
            "m²",
            "8.5 ft² or 0.8 m²",
            Unit("m²", 1.0, decimals=2),
            Unit("ft²", (12 * INCH) ** 2, decimals=1, names=("sqft",)),
        ),
        _kind(
            "temperature",
            "°F",
            "°C",
            "195 °F or 90 °C",
            Unit("°C", 1.0, decimals=0),
            Unit("°F", 5 / 9, -160 / 9, decimals=0),
            Unit("K", 1.0, -273.15, decimals=0),
        ),
        _kind(
            "temperature difference",
            "°F",
            "K",
            "9 °F or 5 K",
            Unit("K", 1.0, decimals=0, names=("°C",)),
            Unit("°F", 5 / 9, decimals=0),
        ),
        _kind(
            "airflow",
            "CFM",
            "m³/s",
            "1600 CFM or 0.75 m³/s",
            Unit("m³/s", 1.0, decimals=2),
            Unit("CFM", (12 * INCH) ** 3 / 60, decimals=0, names=("ft3/min",)),
            Unit("m³/h", 1 / 3600, decimals=0),
            Unit("L/s", 1e-3, decimals=0),
        ),
        _kind(
            "air speed",
            "ft/min",
            "m/s",
            "3 m/s or 600 ft/min",
            Unit("m/s", 1.0, decimals=1),
            Unit("ft/min", 12 * INCH / 60, decimals=0, names=("fpm",)),
        ),
        _kind(
            "coolant speed",
            "ft/s",
            "m/s",
            "1 m/s or 3 ft/s",
            Unit("m/s", 1.0, decimals=2),
            Unit("ft/s", 12 * INCH, decimals=1, names=("fps",)),
        ),
        _kind(
            "coolant flow",
            "gpm",
            "L/min",
            "30 gpm or 115 L/min",
            Unit("m³/s", 1.0, decimals=5),
            Unit("L/min", 1e-3 / 60, decimals=0, names=("lpm",)),
            Unit("gpm", 231 * INCH**3 / 60, decimals=0, names=("gal/min",)),
        ),
        _kind(
            "power",
            "hp",
            "kW",
            "180 W, 60 kW or 250 hp",
            Unit("W", 1.0, decimals=0),
            Unit("kW", 1e3, decimals=1),
            Unit("hp", POUND * 9.80665 * 12 * INCH * 550, decimals=0),
        ),
        _kind(
            "pressure",
            "psi",
            "kPa",
            "15 psi or 100 kPa",
            Unit("Pa", 1.0, decimals=0),
            Unit("kPa", 1e3, decimals=0),
            Unit("bar", 1e5, decimals=2),
            Unit("psi", PSI, decimals=1),
        ),
        _kind(
            "fan pressure",
            "inH₂O",
            "Pa",
            "180 Pa or 0.7 inH2O",
            Unit("Pa", 1.0, decimals=0),
            Unit("inH₂O", 249.08891, decimals=2, names=("inh2o", "in wg", "inwc")),
        ),
        _kind(
            "mass",
            "lb",
            "kg",
            "3400 lb or 1540 kg",
            Unit("kg", 1.0, decimals=0),
            Unit("lb", POUND, decimals=0, names=("lbs",)),
        ),
        _kind(
            "force", "lbf", "N", "40 N or 9 lbf", Unit("N", 1.0, decimals=0), Unit("lbf", POUND * 9.80665, decimals=0)
        ),
        _kind(
            "speed",
            "mph",
            "km/h",
            "55 mph or 90 km/h",
            Unit("m/s", 1.0, decimals=1),
            Unit("km/h", 1 / 3.6, decimals=0, names=("kph",)),
            Unit("mph", 1609.344 / 3600, decimals=0),
        ),
        _kind(
            "turning speed",
            "rpm",
            "rpm",
            "750 rpm",
            Unit("1/s", 1.0, decimals=1, names=("rev/s",)),
            Unit("rpm", 1 / 60, decimals=0),
        ),
        _kind(
            "displacement",
            "in³",
            "L",
            "350 in³ or 5.7 L",
            Unit("m³", 1.0, decimals=5),
            Unit("L", 1e-3, decimals=2, names=("litre", "liter")),
            Unit("cm³", 1e-6, decimals=0, names=("cc",)),
            Unit("in³", INCH**3, decimals=0, names=("cuin", "cu in", "ci", "cid")),
        ),
        _kind(
            "volume",
            "qt",
            "L",
            "1.5 qt or 1.4 L",
            Unit("m³", 1.0, decimals=5),
            Unit("L", 1e-3, decimals=1, names=("litre", "liter")),
            Unit("ml", 1e-6, decimals=0, names=("cm³", "cc")),
            Unit("qt", 57.75 * INCH**3, decimals=1, names=("quart", "quarts")),
            Unit("gal", 231 * INCH**3, decimals=2),
        ),
        _kind(
            "altitude",
            "ft",
            "m",
            "1200 m or 4000 ft",
            Unit("m", 1.0, decimals=0),
            Unit("ft", 12 * INCH, decimals=0, names=("'",)),
        ),
        _kind("face conductance", "W/m²K", "W/m²K", "2500 W/m²K", Unit("W/m²K", 1.0, decimals=0)),
        _kind(
            "angle",
            "°",
            "°",
            "25",
            Unit("rad", 1.0, decimals=3),
            Unit("°", math.pi / 180, decimals=0, names=("deg", "")),
        ),
        _kind("voltage", "V", "V", "13.8 V", Unit("V", 1.0, decimals=1)),
        _kind("current", "A", "A", "15 A", Unit("A", 1.0, decimals=0)),
        _kind("electrical power", "W", "W", "180 W", Unit("W", 1.0, decimals=0), Unit("kW", 1e3, decimals=2)),
        _kind(
            "wire size", "AWG", "mm²", "12 AWG or 2.5 mm²", Unit("mm²", 1e-6, decimals=2), Unit("AWG", 1e-6, decimals=2)
        )._replace(named=True),
        _kind("charge", "Ah", "Ah", "60 Ah", Unit("Ah", 3600.0, decimals=0)),
        _kind("minutes", "min", "min", "90 min or 45 s", Unit("s", 1.0, decimals=0), Unit("min", 60.0, decimals=1)),
        _kind("seconds", "s", "s", "15 s or 0.5 min", Unit("s", 1.0, decimals=0), Unit("min", 60.0, decimals=2)),
        _kind(
            "heat",
            "kW",
            "kW",
            "42 kW",
            Unit("W", 1.0, decimals=0),
            Unit("kW", 1e3, decimals=1),
            Unit("hp", POUND * 9.80665 * 12 * INCH * 550, decimals=1),
            Unit("BTU/min", 1055.05585262 / 60, decimals=0),
        ),
        _kind("share", "%", "%", "45 %", Unit("fraction", 1.0, decimals=2), Unit("%", 0.01, decimals=0)),
        _kind(
            "fin density",
            "fins/in",
            "fins/in",
            "14 fins/in",
            Unit("1/m", 1.0, decimals=0),
            Unit("fins/in", 1 / INCH, decimals=0, names=("fpi", "/in")),
            Unit("fins/dm", 10.0, decimals=0),
        ),
        _kind("count", "", "", "2", Unit("", 1.0, decimals=0)),
        _kind("number", "", "", "1.2", Unit("", 1.0, decimals=2)),
        _kind("sound level", "dB", "dB", "72 dB", Unit("dB", 1.0, decimals=0)),
        _kind("money", "", "", "250", Unit("", 1.0, decimals=0, names=("$", "€", "£"))),
        _kind(
            "time",
            "h",
            "h",
            "10 h",
            Unit("s", 1.0, decimals=0),
            Unit("min", 60.0, decimals=0),
            Unit("h", 3600.0, decimals=1),
        ),
    )
}
