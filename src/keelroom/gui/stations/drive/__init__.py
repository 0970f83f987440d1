"""The Drive station: a package over time."""
