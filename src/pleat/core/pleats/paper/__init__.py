"""Pleat 2: the papers, how thick they are and which way the grain runs."""
