"""Places of a drive's state, how closely its steps are judged, and how it can end."""

METAL, REST, HOT, CORE, COLD, OIL, GEARBOX, BAY, ELEMENT, READ, SENDER, NEEDLE = range(12)
"""Places of what is warm [degC]: wetted metal, rest of the engine, coolant at its outlet, the core's mean, coolant at
its inlet, oil, gearbox fluid, bay air, thermostat's element, fan sensor, gauge's sender, gauge's needle."""
FANS, LOAD, CHARGE, GIVEN, TAKEN, UPPER, LOWER, PASSED = range(12, 20)
"""Shares of the fans' flow and power; charge given by the battery [A s]; heat given and taken since the start [J]; heat
in the hoses beyond the start's [J]; coolant that went through the core [m3]."""
SIZE, WARM, JOINED, JUDGED = 20, 12, 8, 14
"""Numbers of a state; how many are temperatures; how many give each other heat, the next ones but following them; how
many a step is judged by."""
TOLD = 16
"""Numbers told of a moment beside its state."""
NEAR = 0.035
"""[K] a step may err by: an eighth of it moves no temperature by a tenth of a kelvin over a drive."""
SHORTEST, LONGEST = 1e-3, 20.0
"""[s] of a step."""
DONE, FULL, BROKEN, BOILED = 0, 1, 2, 3
"""How a run ends: at its end, out of room for what it tells, at a state that is none, or where the coolant boils: past
that nothing is known of it."""
