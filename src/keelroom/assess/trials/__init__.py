"""Trials: what a test should read, what was read, and what that tells of the model."""
