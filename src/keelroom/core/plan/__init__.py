"""Steps of work: their order, how long they take in doubt, and when they are done."""
