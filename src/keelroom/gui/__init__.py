"""The window: stations, shared widgets, session and theme. Nothing below imports it."""
