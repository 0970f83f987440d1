"""What one controller commands at one state of the coolant: `control`, written once.

Compiled where a C compiler was at hand (`point.pxd` types it).
"""


class SensingRows:
    """n sensors as memory to read by rows: `control.Sensing`, field by field."""


class ControlRows:
    """n controllers: temperatures, shares, powers, least and least_power of `control.Law`."""


def sensed(sensing, i, outlet, drop):
    """Temperature [degC] at sensor i. outlet: of the engine [degC]; drop [K]: of the coolant over the core, at most
    down to the air. Source: FIN_SHARE common practice; the rest a heat balance."""
    at = outlet
    if sensing.after_core[i] > 0:
        at = max(outlet - drop, sensing.air[i])
    return at - sensing.fins[i] * (at - sensing.air[i])


def asked_at(knots, values, i, least, reading):
    """A share 0..1 of full flow or power at a reading [degC]: straight between a law's knots, level past their ends,
    never under `least`."""
    share = values[i, 0]
    for k in range(1, knots.shape[1]):
        along = (reading - knots[i, k - 1]) / (knots[i, k] - knots[i, k - 1])
        share += (values[i, k] - values[i, k - 1]) * min(max(along, 0.0), 1.0)
    return max(share, least)


def commanded_share(law, i, reading):
    """Mean share of full flow commanded at what the sensor reads [degC]."""
    return asked_at(law.temperatures, law.shares, i, law.least[i], reading)


def power_share(law, i, reading):
    """Mean share of full electrical power at what the sensor reads [degC]."""
    return asked_at(law.temperatures, law.powers, i, law.least_power[i], reading)
