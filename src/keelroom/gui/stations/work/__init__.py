"""The Work station."""
