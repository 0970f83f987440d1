"""A package over time: what stores heat, what is asked stretch by stretch, the run, and what it says."""
