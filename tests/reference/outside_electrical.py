"""Outside values of the electrics: wire, ampacity, fuses, motors, batteries, and what the trade fits."""

from __future__ import annotations

import math

from keelroom.core.electrical import charging, control, protection
from keelroom.core.electrical.motor import Motor, current_at, rating, start_current
from keelroom.core.electrical.wire import ampacity, bundle_share, conductor, resistance_at, wire_voltage_drop
from keelroom.gauges import awg_area, awg_number
from tests.reference.check import Check

KFT = 304.8
B258, NEC, J1128, ISO, CFR, FUSE = (
    "ASTM B258",
    "NEC chapter 9 table 8, uncoated",
    "SAE J1128 smallest conductor",
    "ISO 6722 largest resistance",
    "33 CFR 183.425 table 5 (memory)",
    "ISO 8820-3 (memory)",
)
FAN = Motor(12.0, 180.0)


def awg(number: float, cable: str = "bare_awg"):
    return conductor(awg_area(number), False, cable)


def starts(motor: Motor, volts: float) -> protection.Starting:
    return protection.starting((motor,), 0.0, (start_current(motor, volts),))


def electrical_checks() -> list[Check]:
    found = []
    for number, area, solid in (
        (8, 8.367, 0.6282),
        (10, 5.261, 0.9989),
        (12, 3.309, 1.588),
        (14, 2.081, 2.525),
        (16, 1.309, 4.016),
    ):
        found.append(
            Check(f"{number} AWG section [mm2]", "citation", B258, area, lambda n=number: awg_area(n) * 1e6, 1e-3)
        )
        found.append(
            Check(
                f"{number} AWG solid at 20 °C [ohm/kft]",
                "citation",
                B258,
                solid,
                lambda n=number: awg(n).resistance / 1.02 * KFT,
                2e-3,
            )
        )
    for number, stranded in ((8, 0.778), (10, 1.24), (12, 1.98), (14, 3.14), (16, 4.99)):
        found.append(
            Check(
                f"{number} AWG stranded at 75 °C [ohm/kft]",
                "citation",
                NEC,
                stranded,
                lambda n=number: resistance_at(awg(n), 75.0) * KFT,
                7e-3,
            )
        )
    for number, area in ((16, 1.12), (14, 1.85), (12, 2.91), (10, 4.65), (8, 7.23)):
        found.append(
            Check(
                f"{number} AWG of its cable class [mm2]",
                "memory",
                J1128,
                area,
                lambda n=number: awg(n, "j1128_crosslinked").area * 1e6,
                1e-9,
            )
        )
    for size, milliohm in ((1.0, 18.5), (1.5, 12.7), (2.5, 7.60), (4.0, 4.71), (6.0, 3.14), (10.0, 1.82)):
        found.append(
            Check(
                f"{size:g} mm2 at 20 °C [mohm/m]",
                "citation",
                ISO,
                milliohm,
                lambda s=size: conductor(s * 1e-6, True, "iso_c").resistance * 1e3,
                1e-9,
            )
        )
    for name, limit in (
        ("j1128_thermoplastic", 80.0),
        ("j1128_crosslinked", 125.0),
        ("iso_a", 85.0),
        ("iso_b", 100.0),
        ("iso_c", 125.0),
        ("iso_d", 150.0),
    ):
        found.append(
            Check(
                f"insulation of {name} [°C]",
                "citation",
                "SAE J1128, ISO 6722",
                limit,
                lambda n=name: awg(12, n).limit,
                1e-9,
            )
        )
    # The same rule gives an engine space's 50 °C correction of every insulation from the rise it leaves.
    for cable, share in (("bare_awg", 0.78), ("j1128_crosslinked", 0.89)):
        found.append(
            Check(
                f"50 °C engine space, {cable}",
                "memory",
                CFR,
                share,
                lambda c=cable: ampacity(awg(12, c), 50.0) / ampacity(awg(12, c), 30.0),
                0.01,
            )
        )
    for number, amps in ((10, 50.0), (8, 70.0), (6, 100.0)):
        found.append(
            Check(
                f"{number} AWG, 80 °C insulation, 30 °C air [A]",
                "memory",
                CFR,
                amps,
                lambda n=number: ampacity(awg(n), 30.0),
                0.05,
            )
        )
    for loaded, share in ((2, 1.0), (3, 0.70), (6, 0.60), (24, 0.50), (25, 0.40)):
        found.append(
            Check(f"{loaded} loaded conductors together", "memory", CFR, share, lambda k=loaded: bundle_share(k), 1e-9)
        )
    found += [
        Check("gauge number of 3.309 mm2", "citation", B258, 12.0, lambda: awg_number(3.309e-6), 1e-3),
        Check(
            "drop, 12 AWG, 20 A, 100 ft one way, 75 °C [V]",
            "citation",
            "2 I R L with the NEC's 1.98 ohm/kft",
            7.92,
            lambda: wire_voltage_drop(20.0, 100 * 0.3048, awg(12), 75.0),
            0.01,
        ),
        Check(
            "copper-clad aluminium over copper",
            "practice",
            "common practice",
            1.6,
            lambda: awg(12, "aluminium").resistance / awg(12).resistance,
            1e-9,
        ),
        Check(
            "100 Ah at 20 h, k 1.2, 10 A [h]",
            "memory",
            "Peukert's law, textbook example",
            8.7,
            lambda: charging.discharge_time(charging.Battery(100, 1, 1.2), 10.0) / 3600,
            0.005,
        ),
        Check(
            "reserve 120 min at its own 25 A [min]",
            "citation",
            "SAE J537 by definition",
            120.0,
            lambda: charging.discharge_time(charging.Battery(60, 1, 1.2, 7200.0), 25.0) / 60,
            1e-9,
        ),
        Check(
            "alternator at 6 000 rpm and 23 °C, share of rating",
            "citation",
            "ISO 8854 by definition",
            1.0,
            lambda: charging.output(charging.Alternator(100, 1, 23, 14), 6000) / 100,
            1e-9,
        ),
        Check(
            "180 W at 12 V [A]", "practice", "common practice", 15.0, lambda: rating(12.0, 180.0, None).current, 1e-9
        ),
        Check("the same fan at 14 V [A]", "practice", "common practice", 19.0, lambda: current_at(FAN, 14.0), 0.03),
        Check(
            "relay for one such fan [A]",
            "practice",
            "common practice",
            30.0,
            lambda: protection.relay_for(current_at(FAN, 13.5), start_current(FAN, 13.5), 60.0) or math.nan,
            1e-9,
        ),
        Check(
            "30 A relay at 85 °C [A]", "memory", "relay derating", 20.0, lambda: 30 * protection.relay_share(85.0), 1e-9
        ),
        Check(
            "fuse for a 7.5 A cooler fan [A]",
            "practice",
            "common practice",
            10.0,
            lambda: protection.fuse_for(7.5, starts(Motor(13.0, 90.0), 13.0), "blade") or math.nan,
            1e-9,
        ),
        Check("blade fuse at 200 %, least [s]", "memory", FUSE, 0.15, lambda: protection.blow_times(2.0)[0], 1e-6),
        Check("blade fuse at 350 %, most [s]", "memory", FUSE, 0.5, lambda: protection.blow_times(3.5)[1], 1e-6),
        Check(
            "blade fuse at 110 %, least [h]", "memory", FUSE, 100.0, lambda: protection.blow_times(1.1)[0] / 3600, 1e-9
        ),
        Check(
            "probe in the fins set at 90 °F, late on a 60 °F day [°F]",
            "practice",
            "common practice: late, by some 10 °F",
            12.9,
            lambda: 1.8 * (control.outlet_for(control.reading_at(90.0, 32.2, fins=0.3), 15.6, fins=0.3) - 90.0),
            0.02,
        ),
    ]
    return found
