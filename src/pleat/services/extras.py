"""Putting things into a book: on a free place of a face, and spread so that the book stays even."""

from __future__ import annotations

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.pleats.extras import placing
from pleat.core.pleats.extras.spots import over
from pleat.services.planned import plan_of


def put(book: Book, kind: str, face: str) -> Book:
    """A new design on a face, in the middle of it or, where something lies there, at its first free corner.
    Raises BadBook."""
    plan = plan_of(book)
    changes = placing.added(book.extras, kind, face)
    if changes is None or face not in {one.name for one in plan.extras.faces}:
        raise BadBook(
            [
                FieldProblem(
                    "", "this", kind, "There is no such thing, no such face, or no room for one more design."
                )
            ]
        )
    after = editing.apply(book, changes)
    key = changes[0][0].rsplit(".", 1)[1]
    result = plan_of(after).extras
    item = placing.item_of(result, key)
    if item is None or not item.spots:
        return after
    own = item.spots[0]
    others = [
        spot.box
        for other in result.items
        if other.key != key
        for spot in other.spots
        if spot.face == own.face and not other.thing.flat_mat
    ]
    if item.thing.flat_mat or not any(over(own.box, box) for box in others):
        return after
    free = next(
        (at for at in placing.beside(own, others) if not any(over(at.box, box) for box in others)), None
    )
    return (
        editing.edit(after, {f"extras.items.{key}.place.0": f"{free.x_mm} mm; {free.y_mm} mm"})
        if free
        else after
    )
