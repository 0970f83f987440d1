"""What raises each finding of circuits and charging, and what mends it: rows of the table in test_findings."""

from keelroom.document.quantity import quantity
from keelroom.document.schema.electrical import AlternatorPoint
from tests.changes import FIX, HANDS

FANS = ("packages", "p1", "circuits", "circuit1")
CONTROL = ("packages", "p1", "control")

TWENTY, SLOT = ((("supply", "sources", "ignition", "holds"), quantity(text, "current")) for text in ("20 A", "38 A"))
ELECTRICAL_ROWS = {
    "fuse_over_wire": ((), FIX),
    "fuse_over_relay": ((), FIX),
    "relay_small": ((), FIX),
    "relay_under_start": ((), FIX),
    "drop_over": ((), FIX),
    "over_speed": ((), FIX),
    "charge_cable": (((("supply", "charge_wire", "length"), "12 ft", "length"),), FIX),
    "alternator_short": ((), FIX),
    "battery_down": (
        ((("brief", "accessories", "alternator_rating"), "100 A", "current"),),
        ((("brief", "accessories", "alternator_rating"), "250 A", "current"),),
    ),
    "battery_works": (
        ((("brief", "accessories", "alternator_rating"), "150 A", "current"),),
        ((("brief", "accessories", "alternator_rating"), "250 A", "current"),),
    ),
    "spin": ((), HANDS),
    "wire_short": (
        ((("packages", "p1", "place", "z"), "9 ft", "length"),),
        (((*FANS, "branch", "length"), "14 ft", "length"),),
    ),
    "no_fuse": ((((*FANS, "fuse"), None),), FIX),
    "fuse_far": ((((*FANS, "fuse_at"), "3 ft", "length"),), FIX),
    "fuse_size": ((((*FANS, "fuse"), "32 A", "current"),), FIX),
    "fuse_small": ((((*FANS, "fuse"), "20 A", "current"),), FIX),
    "fuse_over_connector": ((((*FANS, "connector"), "25 A", "current"),), FIX),
    "connector_small": ((((*FANS, "connector"), "10 A", "current"),), FIX),
    "relay_unknown": ((((*FANS, "relay"), None),), FIX),
    "no_relay": ((((*FANS, "switch"), "none"), ((*FANS, "sources"), ("ignition",))), FIX),
    "drains": ((((*FANS, "switch"), "none"),), FIX),
    "source_unlike": (((("supply", "sources", "battery", "voltage"), "24 V", "voltage"),), HANDS),
    "drop_unexplained": ((((*FANS, "measured_drop"), "2.5 V", "voltage"),), HANDS),
    "run_assumed": ((((*FANS, "feed", "length"), "6 ft", "length"),), HANDS),
    "adapter_short": ((((*CONTROL, "adapter"), "1 in", "length"),), HANDS),
    "switch_sold": (((("packages", "p1", "control", "fan_on"), "192 °F", "temperature"),), FIX),
    "curve_of_one": (
        (
            (
                ("supply", "curve"),
                (AlternatorPoint(speed=quantity("3000 rpm", "turning speed"), current=quantity("60 A", "current")),),
            ),
        ),
        HANDS,
    ),
    "no_source": ((((*FANS, "sources"), ()),), HANDS),
    "no_return": ((((*FANS, "ground"), "none"),), FIX),
    "ground_through_core": ((((*FANS, "ground"), "core"),), FIX),
    "wire_hot": ((((*FANS, "feed", "cable"), "j1128_thermoplastic"),), FIX),
    "wire_place": (
        (((*FANS, "branch", "cable"), "bare_awg"), ((*FANS, "branch", "ambient"), "190 °F", "temperature")),
        FIX,
    ),
    "circuit_empty": ((((*FANS, "feeds"), ()),), FIX),
    "no_circuit": ((((*FANS, "feeds"), ("fan1",)),), FIX),
    "fuse_over_lead": (
        (
            ((*FANS, "switch"), "controller"),
            ((*FANS, "lead_length"), quantity("1 ft", "length")),
            ((*FANS, "lead_size"), quantity("18 AWG", "wire size")),
        ),
        (((*FANS, "lead_size"), quantity("4 AWG", "wire size")),),
    ),
    "source_over": (
        (
            (("supply", "sources", "ignition", "holds"), quantity("20 A", "current")),
            ((*FANS, "sources"), ("ignition",)),
        ),
        FIX,
    ),
    "fuse_over_slot": (
        (
            (("supply", "sources", "ignition", "holds"), quantity("38 A", "current")),
            ((*FANS, "sources"), ("ignition",)),
        ),
        FIX,
    ),
    "channel_trips": (
        (
            (("supply", "sources", "ignition", "holds"), quantity("40 A", "current")),
            (("supply", "sources", "ignition", "channel"), True),
            ((*FANS, "sources"), ("ignition",)),
        ),
        FIX,
    ),
    "feeds_joined": ((((*FANS, "sources"), ("battery", "ignition")),), FIX),
    "belt_slips": (((("supply", "belt"), "slips"),), FIX),
    "sensor_lost": ((((*CONTROL, "sensor_state"), "lost_stands"),), FIX),
    "no_sensor": ((((*CONTROL, "sensor"), "none"),), FIX),
    "toggle_alone": ((((*CONTROL, "strategy"), "toggle"),), FIX),
    "always_hot": ((((*CONTROL, "coil"), "always"),), FIX),
    "sensor_fins": ((((*CONTROL, "sensor"), "fins"),), FIX),
    "sensor_lower": ((((*CONTROL, "sensor"), "lower_hose"),), FIX),
    "ground_through_coolant": ((((*CONTROL, "strap"), False),), FIX),
    "stages": ((((*CONTROL, "strategy"), "two_speed"), ((*CONTROL, "second_on"), "190 °F", "temperature")), FIX),
    "stages_one_relay": ((((*CONTROL, "strategy"), "two_speed"),), FIX),
    "run_on_long": ((((*CONTROL, "run_on"), "20 min", "minutes"),), FIX),
    "run_on_dead": ((((*CONTROL, "run_on"), "3 min", "minutes"),), FIX),
    "no_run_on": ((), HANDS),
    "no_ac_request": ((), FIX),
    "spins_backwards": (((("packages", "p1", "fans", "fan1", "reversed_blade"), True),), FIX),
    "motor_label": (((("packages", "p1", "fans", "fan1", "rated_current"), "22 A", "current"),), HANDS),
    "battery_low": (
        (
            (("brief", "accessories", "idle_voltage"), "9.5 V", "voltage"),
            (("brief", "accessories", "alternator_rating"), "250 A", "current"),
        ),
        HANDS,
    ),
}
