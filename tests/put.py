"""Books with things put in, as the tests want them."""

from __future__ import annotations

from typing import Any

from pleat.core.base.plan import Check
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.recipes import recipe
from pleat.core.pleats.extras import placing
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.whole.planning import Plan, make_plan

POCKET = {"kind": "pocket", "goes": "card", "goes_thick_mm": 0.8}
"""A pocket for a bank card."""


def of(name: str, *changes: tuple[str, object]) -> Book:
    """The book of a recipe, changed."""
    found = recipe(name)
    assert found is not None, name
    return editing.apply(found.book(), changes)


def put(book: Book, *designs: dict[str, Any]) -> Book:
    """The book with designs ``d0``, ``d1`` and on put in, in this order."""
    return editing.apply(
        book, tuple((f"extras.items.d{number}", design) for number, design in enumerate(designs))
    )


def at(face: str, x: float | None = None, y: float | None = None) -> list[dict[str, Any]]:
    """One place."""
    return [{"on": face, "x_mm": x, "y_mm": y}]


def told(plan: Plan, slip: str) -> list[Check]:
    """The checks of one slip on Extras."""
    return [check for check in plan.extras.checks if check.key == slip]


def keys(book: Book) -> set[str]:
    """The slips Extras tells of a book."""
    return {check.key for check in make_plan(book).extras.checks}


def everything(book: Book) -> Book:
    """The book with one of every kind of thing put in, each on a face of its own as far as there are so
    many."""
    faces = [face.name for face in make_plan(book).extras.faces]
    for number, kind in enumerate(EXTRAS.members):
        changes = placing.added(book.extras, kind.name, faces[number % len(faces)])
        assert changes is not None
        book = editing.apply(book, changes)
    return book
