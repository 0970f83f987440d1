"""Trials: the logbook, how a test is done, what was read, what that tells."""
