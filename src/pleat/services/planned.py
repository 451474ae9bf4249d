"""Plans that were just made: an edit starts from the plan that the one before it ended with, which is not
worked out again."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache

from pleat.core.document.book import Book
from pleat.core.materials.tools import NO_TOOLS, Tools
from pleat.core.whole.planning import Plan, make_plan

KEPT = 12
"""A few windows' worth; a plan takes some hundred kilobytes."""


@dataclass(frozen=True)
class _Asked:
    """A book by all that is in it, and the tools."""

    text: str
    tools: Tools
    book: Book = field(compare=False)
    before: Plan | None = field(compare=False)


@lru_cache(maxsize=KEPT)
def _plan(asked: _Asked) -> Plan:
    return make_plan(asked.book, asked.tools, asked.before)


def plan_of(book: Book, tools: Tools = NO_TOOLS, before: Plan | None = None) -> Plan:
    """The plan of a book for a maker with these tools, as ``make_plan`` gives it; ``before`` is that of the
    book before it was changed."""
    return _plan(_Asked(book.model_dump_json(), tools, book, before))
