"""Where formulas and figures come from, by short name, so that every working can cite them."""

from __future__ import annotations

from typing import NamedTuple


class Reference(NamedTuple):
    """A published source, a package or a practice. `confirmed`: how this project checked it."""

    key: str
    citation: str
    confirmed: str


_ALL = (
    Reference(
        "HEYWOOD",
        "Heywood, Internal Combustion Engine Fundamentals: motored friction and table 12.1",
        "from memory; idle fuel and table ranges checked",
    ),
    Reference(
        "TAYLOR",
        "Taylor, The Internal Combustion Engine in Theory and Practice 1, ch. 8: gas to wall by Re^0.75",
        "from memory; coolant over brake power at 2 000 rpm, rated, cruise and idle checked",
    ),
    Reference(
        "CHANG_WANG",
        "Chang & Wang, Int. J. Heat Mass Transfer 40 (1997) 533: generalized louver-fin j",
        "from memory; band of ±15 % stated",
    ),
    Reference(
        "CHANG_HSU",
        "Chang, Hsu, Lin & Wang, Int. J. Heat Mass Transfer 43 (2000) 2237: louver-fin f",
        "from memory; band of ±20 % stated",
    ),
    Reference(
        "KAYS_LONDON",
        "Kays & London, Compact Heat Exchangers: ε-NTU, core pressure drop",
        "ht package and tabulated values",
    ),
    Reference("SHAH_LONDON", "Shah & London, Laminar Flow Forced Convection in Ducts", "published duct values"),
    Reference(
        "GNIELINSKI",
        "Gnielinski (1976, transition 2013); table values as in Incropera",
        "ht package and published values",
    ),
    Reference(
        "TALER",
        "Taler, Int. J. Thermal Sciences 108 (2016) 108: tubes in transition and turbulent flow",
        "from memory; within 12 % of the ht package's turbulent correlations",
    ),
    Reference(
        "COOLPROP",
        "CoolProp incompressible glycol solutions, by mass fraction",
        "regenerated and compared in the tests",
    ),
    Reference("IF97", "IAPWS-IF97 saturation line, region 4", "iapws package"),
    Reference(
        "RAOULT",
        "Raoult's law with pure-glycol Antoine vapour pressure",
        "from memory; common coolant tables within 3 K",
    ),
    Reference(
        "ASTM_B258",
        "ASTM B258: gauge numbers as sections; IEC 60028 copper and its coefficient",
        "published solid and stranded values",
    ),
    Reference("SAE_J1128", "SAE J1128 low-voltage primary cable: smallest conductors", "from memory"),
    Reference("ISO_6722", "ISO 6722 60 V cables: largest resistance per metre", "published check values"),
    Reference(
        "CFR183",
        "33 CFR 183.425 table 5: amps by gauge and insulation, engine spaces, bundles",
        "from memory; its own correction factors agree with the rise of temperature used",
    ),
    Reference(
        "ISO8820",
        "ISO 8820 fuse-links: sizes and blowing times by form, parts 3 to 5; breakers SAE J553",
        "published check values, times from memory",
    ),
    Reference("PEUKERT", "Peukert (1897): time of discharge; SAE J537 reserve capacity", "worked example"),
    Reference(
        "CONVERTER", "Torque converter: capacity factor K, torque = (rpm/K)², speed and torque ratio", "worked example"
    ),
    Reference(
        "TABLE_OIL",
        "Incropera, Fundamentals of Heat and Mass Transfer, table A.5: engine oil (unused)",
        "from memory; its viscosities and densities agree with its dynamic viscosities",
    ),
    Reference(
        "FAN_SOUND",
        "ASHRAE Handbook: fan sound power from specific level, flow and pressure",
        "form by worked example; level from memory",
    ),
    Reference("SAE_HOSE", "SAE J517 100R6 hose: least bend radii", "from memory"),
    Reference(
        "DAVIES_TAYLOR",
        "Davies & Taylor, Proc. R. Soc. A 200 (1950) 375: a large bubble climbs a tube at 0.35 √(gD)",
        "from memory",
    ),
    Reference(
        "KENT_AIR",
        "Kent (1952): entrained air in downward sloping pipes is cleared at 1.23 √(gD sin θ)",
        "from memory",
    ),
    Reference(
        "WISNER",
        "Wisner, Mohsen & Kouwen, J. Hydraulics Div. ASCE 101 (1975): cleared at √(gD)·(0.25 √sin θ + 0.825)",
        "from memory; agrees with Kent at 45°",
    ),
    Reference(
        "BENJAMIN",
        "Benjamin, J. Fluid Mech. 31 (1968) 209: a cavity runs along a level pipe at 0.54 √(gD)",
        "from memory",
    ),
    Reference(
        "BENDIKSEN", "Bendiksen, Int. J. Multiphase Flow 10 (1984) 467: between level and upright", "from memory"
    ),
    Reference("CRANE", "Crane TP 410: sudden contraction and enlargement", "fluids package"),
    Reference("SAE_J1508", "SAE J1508 worm-drive hose clamps: sizes and ranges", "from memory"),
    Reference("SAE_J962", "SAE J962 formed tube ends for hose connections: beads", "from memory"),
    Reference("SAE_FITTING", "SAE J514 37° flare fittings: sizes and threads", "from memory"),
    Reference("ISA", "ICAO/ISO 2533 standard atmosphere (1976)", "fluids package"),
    Reference("SUTHERLAND", "Sutherland viscosity and conductivity of air", "CoolProp within 2 %"),
    Reference(
        "FAN_LAWS", "Fan similarity laws: flow with speed, pressure with density and speed squared", "textbook identity"
    ),
    Reference("ROAD_LOAD", "Road load: rolling, aerodynamic drag, grade", "textbook identity"),
    Reference("PRACTICE", "Common practice, no published source", "check values of the trade"),
)

SOURCES: dict[str, Reference] = {source.key: source for source in _ALL}
