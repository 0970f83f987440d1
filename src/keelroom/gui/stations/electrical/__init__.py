"""The Electrical station: circuits, charging, control, harness and bench tests."""
