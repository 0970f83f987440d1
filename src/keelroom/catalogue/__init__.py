"""Generic parts and property tables, each row with what it is based on."""
