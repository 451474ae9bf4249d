"""Demo data: an amateur astronomy society preparing its open night. All of it is made up."""

from __future__ import annotations

from typing import Any, Final

from sqlalchemy.orm import Session

from pleat.core import editing
from pleat.core.book import Book, Paper, Papers
from pleat.core.planning import make_plan
from pleat.services import books
from pleat.store import papers as shelf

PAPERS: Final[tuple[dict[str, Any], ...]] = (
    {
        "name": "Log paper, cream",
        "kind": "drawing",
        "sheet_width_mm": 297,
        "sheet_height_mm": 210,
        "grammage": 100,
        "grain": "short",
        "owned": 120,
        "swatch": "cream",
    },
    {
        "name": "Copier paper",
        "kind": "copier",
        "sheet_width_mm": 210,
        "sheet_height_mm": 297,
        "grammage": 80,
        "grain": "long",
        "owned": 500,
        "swatch": "white",
    },
    {
        "name": "Copier paper, letter",
        "kind": "copier",
        "sheet_width_mm": "8 1/2 in",
        "sheet_height_mm": "11 in",
        "grammage": 75.2,
        "grain": "long",
        "owned": 400,
        "swatch": "white",
    },
    {
        "name": "Chart paper, long sheets",
        "kind": "drawing",
        "sheet_width_mm": 420,
        "sheet_height_mm": 210,
        "grammage": 120,
        "measured_sheets": 10,
        "measured_mm": 1.42,
        "grain": "short",
        "owned": 40,
        "swatch": "white",
    },
    {
        "name": "Sketching paper",
        "kind": "drawing",
        "sheet_width_mm": 420,
        "sheet_height_mm": 594,
        "grammage": 120,
        "grain": "long",
        "owned": 18,
        "swatch": "cream",
    },
    {
        "name": "Watercolour paper, nebula grey",
        "kind": "watercolour",
        "sheet_width_mm": 300,
        "sheet_height_mm": 400,
        "grammage": 200,
        "grain": "unknown",
        "owned": 12,
        "swatch": "grey",
    },
    {
        "name": "Night card, indigo",
        "kind": "cardstock",
        "sheet_width_mm": 320,
        "sheet_height_mm": 450,
        "grammage": 240,
        "grain": "long",
        "owned": 30,
        "swatch": "indigo",
    },
    {
        "name": "Kraft card",
        "kind": "cardstock",
        "sheet_width_mm": 450,
        "sheet_height_mm": 320,
        "grammage": 270,
        "measured_sheets": 10,
        "measured_mm": 3.6,
        "grain": "short",
        "owned": 25,
        "swatch": "kraft",
    },
    {
        "name": "Letter card, rust",
        "kind": "cardstock",
        "sheet_width_mm": "11 in",
        "sheet_height_mm": "8 1/2 in",
        "grammage": 216,
        "grain": "short",
        "owned": 20,
        "swatch": "rust",
    },
    {
        "name": "Moss card",
        "kind": "cardstock",
        "sheet_width_mm": 297,
        "sheet_height_mm": 420,
        "grammage": 250,
        "grain": "long",
        "owned": 16,
        "swatch": "moss",
    },
)

_BOOKS: Final[tuple[tuple[str, str, str, dict[str, str], int], ...]] = (
    ("Visitor notes, first draft", "Copier paper", "Moss card", {"brief.size": "A5", "pages.count": "56 pages"}, 0),
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
        {"brief.size": "148 x 205", "brief.quantity": "6", "pages.count": "40 pages", "binding.station_count": "5"},
        5,
    ),
)


def demo_papers() -> tuple[Paper, ...]:
    return tuple(Paper.model_validate(paper) for paper in PAPERS)


def demo_book(title: str, leaf: Paper, cover: Paper, texts: dict[str, str], ticked: int) -> Book:
    """A book edited as a maker would, with its first ``ticked`` steps done."""
    book = Book(title=title, paper=Papers(leaf=leaf, cover=cover))
    for path, text in texts.items():
        book = editing.edit(book, {path: text})
    for number in range(ticked):
        plan = make_plan(book)
        book = books.tick(book, plan, plan.bench.steps[number].step.key, True)
    return book


def fill(session: Session) -> None:
    """Put the demo's papers and books on an empty shelf; anything already there is left alone."""
    if shelf.listing(session):
        return
    for paper in demo_papers():
        shelf.add(session, paper)
    kept = {paper.name: paper for paper in (shelf.load(session, paper_id) for paper_id in shelf.listing(session)) if paper}
    for title, leaf, cover, texts, ticked in _BOOKS:
        books.add(session, demo_book(title, kept[leaf], kept[cover], texts, ticked), "", "made for the demo")
