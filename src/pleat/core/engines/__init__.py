"""Geometry and movement that know no book, no paper and no trade: sheets that fold, threads that sew, holes
and rings, thickness by place.

Each can be used by itself. Begin with ``folding.assembly``, ``sewing.moves``, ``holes.ring`` or ``bulk``.
"""
