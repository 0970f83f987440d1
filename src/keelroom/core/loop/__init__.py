"""The coolant circuit: pump, thermostat."""
