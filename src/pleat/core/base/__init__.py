"""What everything else is made of: lengths and their units, texts, doubt, fields and their rules, kinds, and
the results a plan consists of.

Knows nothing above it. Begin with ``units`` and ``plan``.
"""
