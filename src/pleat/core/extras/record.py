"""What goes into the book."""

from __future__ import annotations

from pleat.core.fields import Record


class Extras(Record):
    """Pleat 4: nothing can be put in here yet."""
