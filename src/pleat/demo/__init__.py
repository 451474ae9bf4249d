"""Demo data: an amateur astronomy society preparing its open night. All of it is made up."""

from __future__ import annotations

import json
from collections.abc import Mapping
from pathlib import Path
from typing import Final

from sqlalchemy.orm import Session

from pleat import examples
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.recipes import recipe
from pleat.core.materials.items import KINDS, Item, Paper
from pleat.core.pleats.paper.record import Papers
from pleat.core.whole.planning import make_plan
from pleat.services import books, following, library, offered, piles
from pleat.services.clock import now
from pleat.store import items as store

_BOOKS: Final[tuple[tuple[str, str, str, dict[str, str], int], ...]] = (
    (
        "Visitor notes, first draft",
        "Copier paper",
        "Moss card",
        {"brief.size": "A5", "pages.count": "56 pages"},
        0,
    ),
    (
        "Meteor count, August",
        "Copier paper, letter",
        "Letter card, rust",
        {"brief.ruler": "in", "brief.size": "5 1/2 x 8 1/2 in", "pages.count": "32 pages"},
        0,
    ),
    (
        "Moon sketchbook",
        "Sketching paper",
        "Kraft card",
        {
            "brief.size": "200 x 200",
            "pages.count": "16 leaves",
            "binding.station_count": "5",
            "brief.purpose": "sketching",
            "binding.knot": "outside",
        },
        7,
    ),
    (
        "Star chart companion",
        "Chart paper, long sheets",
        "Kraft card",
        {"brief.size": "140 x 200", "pages.count": "24 pages", "pages.flap_mm": "110"},
        3,
    ),
    (
        "Dark-sky log",
        "Log paper, cream",
        "Night card, indigo",
        {
            "brief.size": "148 x 205",
            "brief.quantity": "6",
            "pages.count": "32 pages",
            "binding.station_count": "5",
        },
        5,
    ),
)


def demo_items() -> tuple[Item, ...]:
    """What is among the society's materials."""
    rows = json.loads((Path(__file__).parent / "materials.json").read_text())
    return tuple(KINDS[row.pop("item")].model.model_validate(row) for row in rows)


def demo_book(title: str, leaf: Paper, cover: Paper, texts: dict[str, str], ticked: int) -> Book:
    """A book edited as a maker would, with its first ``ticked`` steps done."""
    book = Book(title=title, paper=Papers(leaf=leaf, cover=cover))
    for path, text in texts.items():
        book = editing.edit(book, {path: text})
    for number in range(ticked):
        plan = make_plan(book)
        book = books.tick(book, plan, plan.bench.work[number].step.key, True)
    return book


_THREAD: Final = "Linen 18/3, waxed"
"""What the run of several books is sewn with."""
_PILE: Final = (
    ("Old observing pages", 4),
    ("Log paper, cream", 3),
    ("Site map, folded", 2),
    ("Flour bag paper", 3),
    ("Window envelopes", 2),
    ("Constellation print", 2),
    ("Chart paper, long sheets", 2),
)


def mixed_journal(kept: Mapping[str, Paper]) -> Book:
    """A journal from whatever the society had lying about, arranged in three sections."""
    book = demo_book(
        "Found-paper field journal",
        kept["Log paper, cream"],
        kept["Kraft card"],
        {"brief.size": "148 x 205"},
        0,
    )
    for name, sheets in _PILE:
        book = piles.add(book, kept[name], sheets)
    window = next(
        sheet.id
        for sheet in piles.pages_of(book).pile
        if book.paper.more[sheet.paper].name == "Window envelopes"
    )
    book = piles.mark(book, window, window="yes")
    return piles.arranged(book, piles.propose(book, 2, 11, unlike_now=False))


def demo_books(kept: Mapping[str, Paper] | None = None) -> tuple[Book, ...]:
    """The society's books, made from ``kept`` papers by name, or from those of the demo without their places
    among the materials."""
    papers = kept or {item.name: item for item in demo_items() if isinstance(item, Paper)}
    made = (
        demo_book(title, papers[leaf], papers[cover], texts, ticked)
        for title, leaf, cover, texts, ticked in _BOOKS
    )
    return (*made, mixed_journal(papers))


def filled_journal() -> Book:
    """The guide to the open night: a long-stitch journal with pockets, pictures, a flap, and the programme as
    a booklet inside it."""
    put_in = json.loads((Path(__file__).parent / "extras.json").read_text(encoding="utf-8"))
    own = recipe("longstitch")
    assert own is not None
    return editing.apply(
        own.book(),
        (
            ("title", "Guide to the open night"),
            *((f"extras.items.{key}", one) for key, one in put_in.items()),
        ),
    )


def fill(session: Session) -> None:
    """Put the demo's items and books where there are none yet; anything already there is left alone."""
    if store.count_by_kind(session):
        return
    store.insert_columns(session, [store.columns_of(item, now()) for item in demo_items()])
    kept = {
        paper.name: paper
        for stored in store.of_kind(session, "paper")
        if (paper := store.find_paper(session, stored.id))
    }
    spool_id, spool = next(
        (item_id, one) for item_id, one in offered.threads(session)[0] if one.name == _THREAD
    )
    for book in demo_books(kept):
        own = books.use_thread(book, spool_id, spool) if book.brief.quantity > 1 else book
        books.add(session, own, "", "made for the demo")
    taken = {
        name: library.take_in(session, examples.text(name).encode())[0]
        for name in ("programme", "link", "case", "rings", "sticks", "crossfold", "hills")
    }
    guide = following.taken(filled_journal(), "programme", following.as_booklet(session, taken["programme"]))
    books.add(session, guide, "", "made for the demo")
