"""Part of the window."""
