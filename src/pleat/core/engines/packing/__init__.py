"""Rectangles cut out of sheets, edge to edge: which lie on which sheet, by which cuts, and how good that is.
Knows no book, no paper and no trade: sheets, pieces, prices. Begin with ``problem`` and ``planner``."""
