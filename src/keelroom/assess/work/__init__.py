"""The work on the car: what is done to it, in which steps, how long, for how much, and what of it was done."""
