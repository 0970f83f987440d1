"""Coolers of all fluids but the coolant: exchangers, the circuits they hang in, their own air, lines, noise."""
