"""Keel Room sizes a radiator core and electric fans against an engine's heat."""

__version__ = "0.1.0"
