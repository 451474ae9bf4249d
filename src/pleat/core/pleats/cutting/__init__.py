"""Pleat 7: every part, and how many come out of each sheet."""
