"""Pleat 6: the cover, drawn flat from the outside."""
