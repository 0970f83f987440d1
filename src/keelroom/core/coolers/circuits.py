"""What bends a cooler's circuit: its bypass thermostat."""

OPENING_SPAN = 10.0
"""Kelvin over which a bypass thermostat sends the fluid through its coolers (common practice)."""
NEVER = -273.0
"""[degC] from which on a cooler without a bypass thermostat has its fluid."""
