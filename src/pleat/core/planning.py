"""The whole plan: the eight pleats worked out left to right, each from the book and what stands to its left."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import pleat.core.binding.kinds  # noqa: F401 - loading the package registers the kinds
from pleat.core.bench import compute as bench
from pleat.core.binding import compute as binding
from pleat.core.binding.kinds.registry import Kind, known
from pleat.core.book import Book
from pleat.core.brief import compute as brief
from pleat.core.cover import compute as cover
from pleat.core.cutting import compute as cutting
from pleat.core.extras import compute as extras
from pleat.core.materials.tools import NO_TOOLS, Tools
from pleat.core.pages import compute as pages
from pleat.core.paper import compute as paper
from pleat.core.plan import Check, Part, PleatResult

PLEATS: Final = ("brief", "paper", "pages", "extras", "binding", "cover", "cutting", "bench")
"""The pleats' names in the order of work."""


@dataclass(frozen=True)
class Plan:
    """The results of the eight pleats."""

    brief: brief.BriefResult
    paper: paper.PaperResult
    pages: pages.PagesResult
    extras: extras.ExtrasResult
    binding: binding.BindingResult
    cover: cover.CoverResult
    cutting: cutting.CuttingResult
    bench: bench.BenchResult

    def __iter__(self) -> Iterator[tuple[str, PleatResult]]:
        """(name, result) of each pleat, left to right."""
        return ((name, getattr(self, name)) for name in PLEATS)

    @property
    def checks(self) -> tuple[tuple[str, Check], ...]:
        """(pleat, check) for all checks, left to right."""
        return tuple((name, check) for name, result in self for check in result.checks)

    @property
    def parts(self) -> tuple[Part, ...]:
        return (*self.pages.parts, *self.extras.parts, *self.cover.parts)

    def changed_since(self, before: Plan) -> tuple[str, ...]:
        """The names of the pleats whose result differs from that in ``before``."""
        return tuple(name for name, result in self if result != getattr(before, name))


def kind_titles() -> dict[str, str]:
    """The title of every kind of book by its name."""
    return {name: kind.title for name, kind in known().items()}


def make_plan(book: Book, tools: Tools = NO_TOOLS) -> Plan:
    """The plan of ``book`` for a maker with these tools. Never raises for a valid Book: what cannot work becomes a check."""
    brief_ = brief.compute(book.brief, kind_titles())
    paper_ = paper.compute(book.paper, brief_.ruler)
    pages_ = pages.compute(book.pages, brief_, paper_)
    extras_ = extras.compute(book.extras)
    binding_ = binding.compute(book.binding, _kind(book.brief.kind), brief_, paper_, pages_, extras_)
    cover_ = cover.compute(book.cover, brief_, paper_, pages_, extras_, binding_, tools)
    cutting_ = cutting.compute(book.cutting, book.typed, brief_, paper_, pages_, extras_, cover_, tools)
    bench_ = bench.compute(book.bench, brief_, paper_, pages_, binding_, cover_, cutting_)
    return Plan(brief_, paper_, pages_, extras_, binding_, cover_, cutting_, bench_)


def _kind(name: str) -> Kind:
    """The kind of that name; a name nobody registered is planned as the first kind, and the Brief says so."""
    kinds = known()
    return kinds.get(name) or next(iter(kinds.values()))
