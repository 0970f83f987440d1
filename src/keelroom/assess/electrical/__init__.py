"""Circuits, charging and control of a build: what the drawing, the findings and the lists are made from."""
