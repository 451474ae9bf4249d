"""The eight pleats, each its record, its kinds and what it works out from all that stands to its left.

A pleat knows no pleat to its right and no book. Begin with ``brief``, then follow the order of the list in
docs/structure.md. ``structures`` is what folded things have in common on whichever pleat they are decided;
``unfit`` stands in where members do not go together.
"""
