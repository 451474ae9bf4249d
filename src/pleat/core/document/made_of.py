"""Which members a book is made of: what every pleat may know before any is worked out."""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

from pleat.core.base.kinds import BindingMember, BlockMember, Chosen, CoverMember, End
from pleat.core.document.book import Book
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.pleats.extras.record import stocks_of
from pleat.core.pleats.pages.kinds import BLOCKS


def chosen(book: Book) -> Chosen:
    """The members the book is made of."""
    members = BLOCKS.of(book.pages), BINDINGS.of(book.binding), COVERS.of(book.cover)
    (block, _), (binding, _), (cover, _) = members
    unused = tuple(kind.unused(record) if kind.unused else () for kind, record in members)
    along: Literal["w", "h"] = "w" if getattr(book.binding, "bound_at", "side") == "head" else "h"
    ends: tuple[End, ...] = getattr(book.binding, "glued_ends", ())
    return _chosen((block, binding, cover), stocks_of(book.extras), along, unused, ends)


@lru_cache(maxsize=256)
def _chosen(
    kinds: tuple[BlockMember, BindingMember, CoverMember],
    put_in: tuple[str, ...],
    held_along: Literal["w", "h"],
    unused: tuple[tuple[str, ...], ...],
    glued_ends: tuple[End, ...],
) -> Chosen:
    return Chosen(*kinds, put_in, held_along, unused, glued_ends)
