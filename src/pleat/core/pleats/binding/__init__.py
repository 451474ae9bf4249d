"""Pleat 5: stations, the path of the thread, and the thread."""
