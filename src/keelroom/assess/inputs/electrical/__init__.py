"""Motors, how they are switched, and the volts a system holds: what the solve is given."""
