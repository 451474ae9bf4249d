"""Pleat 1: what is being made, how big, how many, on which ruler."""
