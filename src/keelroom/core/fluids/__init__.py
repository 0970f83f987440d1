"""Properties of coolants and of moist air, and boiling under a cap."""
