"""Scenes in build units with semantic roles, from Build and Assessment; no Qt."""
