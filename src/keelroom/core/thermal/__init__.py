"""Heat from the engine into the coolant, and from the coolant through the core into the air."""
