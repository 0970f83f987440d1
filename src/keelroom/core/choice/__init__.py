"""Choosing among many: fronts over several aims, and what would be regretted."""
