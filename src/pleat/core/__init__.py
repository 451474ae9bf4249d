"""Pure computation: no files, clock, randomness, environment, web or database.

Lengths are float millimetres in names that end in ``_mm``; other units are named the same way.
"""
