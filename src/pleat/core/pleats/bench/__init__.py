"""Pleat 8: what to do, in which order."""
