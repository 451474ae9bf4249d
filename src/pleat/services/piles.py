"""The mixed pile of a book: sheets on and off it, arranging, and moving them by hand. All of these give a
changed Book."""

from __future__ import annotations

import itertools
import re
from collections.abc import Callable, Mapping
from typing import Final

from pydantic_core import PydanticCustomError

from pleat.core.base.errors import BadBook, FieldProblem, LengthError
from pleat.core.base.texts import read_field
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.pleats.pages.arrange import Arranged, arrange
from pleat.core.pleats.pages.arrange import Sections as Arrangement
from pleat.core.pleats.pages.mixed import MixedFolio, sections_of
from pleat.core.pleats.pages.record import PileSheet, Sections
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.whole.planning import worked_out

MOST = 400


def pages_of(book: Book) -> Sections:
    """What the book decides of its sections. Raises BadBook for one that is not made of folded sheets."""
    if not isinstance(book.pages, Sections):
        raise BadBook([FieldProblem("", "the pile", "", "Only a book of folded sheets is made of a pile.")])
    return book.pages


def _mixed(book: Book) -> tuple[tuple[MixedFolio, ...], ...]:
    return sections_of(pages_of(book), book.paper.more, book.brief.leaf_width_mm, book.brief.leaf_height_mm)


def _order(book: Book) -> list[list[int]]:
    """The pile's ids as they lie now, section by section."""
    return [[folio.id for folio in section] for section in _mixed(book)]


def _with(
    book: Book,
    order: list[list[int]],
    pile: list[PileSheet] | None = None,
    papers: Mapping[str, Paper] | None = None,
) -> Book:
    """The book with another order, empty sections left out, and perhaps another pile; papers that no sheet is
    of are forgotten."""
    kept = [section for section in order if section]
    changes: editing.Changes = [("pages.order", kept), ("pages.sections", max(1, len(kept)))]
    if pile is not None:
        used = {sheet.paper for sheet in pile}
        own = {**book.paper.more, **(papers or {})}
        changes.insert(0, ("pages.pile", [sheet.model_dump(mode="json") for sheet in pile]))
        changes.insert(
            0,
            ("paper.more", {key: paper.model_dump(mode="json") for key, paper in own.items() if key in used}),
        )
    return editing.apply(book, changes)


def _key_for(book: Book, paper: Paper) -> str:
    """The key of a paper among the book's own, a new one where it is not there yet."""
    same = (
        key for key, own in book.paper.more.items() if own == paper.model_copy(update={"owned": own.owned})
    )
    free = (f"p{number}" for number in itertools.count(1) if f"p{number}" not in book.paper.more)
    return next(same, None) or next(free)


def add(book: Book, paper: Paper, sheets: int) -> Book:
    """So many sheets of a paper more on the pile, dealt to the thinnest sections. Raises BadBook when that is
    too many."""
    pile, key = list(pages_of(book).pile), _key_for(book, paper)
    if not 1 <= sheets <= MOST - len(pile):
        raise BadBook(
            [
                FieldProblem(
                    "sheets",
                    "sheets",
                    str(sheets),
                    f"A pile holds up to {MOST} sheets; {len(pile)} are on it.",
                )
            ]
        )
    there = {sheet.id for sheet in pile}
    fresh = list(itertools.islice((number for number in itertools.count(1) if number not in there), sheets))
    pile += [PileSheet(id=number, paper=key) for number in fresh]
    order = _order(book) or [[] for _ in range(pages_of(book).sections)]
    for number in fresh:
        min(order, key=len).append(number)
    return _with(book, order, pile, {key: book.paper.more.get(key, paper)})


def begun(book: Book) -> Book:
    """A book of one paper as a pile of its own sheets, sections and fold-outs as they are, for others to be
    laid among them.

    Raises BadBook for sheets folded more than once, for more than a pile holds, and where there is a pile
    already.
    """
    pages, block = pages_of(book), worked_out(book).pages
    assert isinstance(block, SectionsBlock)
    sections, key = block.sections, _key_for(book, book.paper.leaf)
    if pages.pile:
        raise BadBook([FieldProblem("", "the pile", "", "It is begun already.")])
    if pages.folds > 1:
        raise BadBook(
            [
                FieldProblem(
                    "",
                    "the pile",
                    "",
                    "Sheets folded more than once do not lie on a pile: fold each once first.",
                )
            ]
        )
    if sum(sections) > MOST:
        raise BadBook(
            [
                FieldProblem(
                    "", "the pile", "", f"A pile holds up to {MOST} sheets; this book has {sum(sections)}."
                )
            ]
        )
    number = itertools.count(1)
    order = [[next(number) for _ in range(count)] for count in sections]
    chosen = slice(None) if pages.flap_on == "every" else slice(-1, None)
    flapped = {one for section in order for one in section[chosen]} if pages.flap_mm else set()
    pile = [
        PileSheet(
            id=one,
            paper=key,
            flap_mm=pages.flap_mm if one in flapped else None,
            flap_panels=pages.flap_panels,
        )
        for section in order
        for one in section
    ]
    return _with(book, order, pile, {key: book.paper.leaf})


def cleared(book: Book) -> Book:
    """The book of one paper again, in as many sections as its pile lay in."""
    return editing.apply(
        book,
        [
            *((f"pages.{name}", []) for name in ("pile", "order", "stubs", "tipped", "pairs")),
            ("paper.more", {}),
        ],
    )


def _known(book: Book, sheet_id: int) -> None:
    """Raise BadBook for a sheet that is not on the pile."""
    if not any(sheet.id == sheet_id for sheet in pages_of(book).pile):
        raise BadBook([FieldProblem("", "sheet", str(sheet_id), "That sheet is no longer on the pile.")])


def remove(book: Book, sheet_id: int) -> Book:
    """The book with a sheet taken off its pile; without any the book is of one paper again. Raises
    BadBook."""
    _known(book, sheet_id)
    pile = [sheet for sheet in pages_of(book).pile if sheet.id != sheet_id]
    order = [[one for one in section if one != sheet_id] for section in _order(book)]
    kept = [list(pair) for pair in pages_of(book).pairs if sheet_id not in pair]
    return editing.apply(join(_with(book, order, pile), sheet_id, "folded"), [("pages.pairs", kept)])


def mark(book: Book, sheet_id: int, **values: object) -> Book:
    """The book with a sheet of the pile pinned or unpinned, or with a window or none. Raises BadBook."""
    _known(book, sheet_id)
    if values.get("window") == "no":
        values |= dict.fromkeys(_WINDOW)
    pile = [
        sheet.model_copy(update=values) if sheet.id == sheet_id else sheet for sheet in pages_of(book).pile
    ]
    return _with(book, _order(book), pile)


def join(book: Book, sheet_id: int, how: str) -> Book:
    """The book with a sheet folded in, or as a single leaf on a stub or tipped in at the gutter."""
    stubs = [stub for stub in pages_of(book).stubs if stub != sheet_id] + (
        [sheet_id] if how == "stub" else []
    )
    tipped = [one for one in pages_of(book).tipped if one != sheet_id] + (
        [sheet_id] if how == "tipped" else []
    )
    return editing.apply(book, [("pages.stubs", stubs), ("pages.tipped", tipped)])


def flap(book: Book, sheet_id: int, length: str, panels: str) -> Book:
    """The book with a fold-out on a sheet of its pile as typed, empty for none. Raises BadBook naming the
    field that cannot be read."""
    _known(book, sheet_id)
    held = next(sheet for sheet in pages_of(book).pile if sheet.id == sheet_id)
    values, problems = {}, []
    for name, text in (("flap_mm", length), ("flap_panels", panels or "1")):
        try:
            read = read_field(PileSheet.model_fields[name], text, getattr(held, name), book.brief.ruler)
            values.update({name: read[0]} if read else {})
        except (LengthError, PydanticCustomError) as error:
            problems.append(
                FieldProblem(
                    name, name, text[:80], error.reason if isinstance(error, LengthError) else error.message()
                )
            )
    if problems:
        raise BadBook(problems)
    return mark(book, sheet_id, **values)


_WINDOW: Final = ("window_width_mm", "window_height_mm", "window_fore_mm", "window_head_mm")


def window(book: Book, sheet_id: int, texts: Mapping[str, str]) -> Book:
    """The book with the window of a sheet so large and there, as typed; what is left empty is as usual.
    Raises BadBook naming the field."""
    _known(book, sheet_id)
    held = next(sheet for sheet in pages_of(book).pile if sheet.id == sheet_id)
    values: dict[str, object] = {"window": "yes"}
    problems = []
    for name in _WINDOW:
        text = texts.get(name.removesuffix("_mm"), "")
        try:
            read = read_field(PileSheet.model_fields[name], text, getattr(held, name), book.brief.ruler)
            values.update({name: read[0]} if read else {})
        except LengthError as error:
            problems.append(
                FieldProblem(name, name.removesuffix("_mm").replace("_", " "), text[:80], error.reason)
            )
    if problems:
        raise BadBook(problems)
    return mark(book, sheet_id, **values)


def place_typed(book: Book, sheet_id: int, text: str) -> Book:
    """The book with a sheet laid where a maker typed: ``3`` is the third place in its section, ``2.3`` that
    in the second section, from 1.

    Raises BadBook when it cannot be read, or there is no such place.
    """
    _known(book, sheet_id)
    order = _order(book)
    found = re.fullmatch(r"(?:([0-9]{1,3}) ?[.,/ ] ?)?([0-9]{1,3})", " ".join(text[:300].split()))
    section = next(number for number, part in enumerate(order) if sheet_id in part)
    if found is None:
        raise BadBook(
            [
                FieldProblem(
                    "place", "place", text[:40], "Type a place such as 3, or section and place such as 2.3."
                )
            ]
        )
    section, place = int(found[1]) - 1 if found[1] else section, int(found[2]) - 1
    most = len(order[section]) + (sheet_id not in order[section]) if 0 <= section < len(order) else 1
    if not 0 <= section <= len(order) or not 0 <= place < most:
        there = "is 1 section" if len(order) == 1 else f"are {len(order)} sections"
        words = f"There {there}; {len(order) + 1} begins a new one." if not 0 <= section <= len(order) else ""
        words = words or f"Section {section + 1} has the places 1 to {most} for it."
        raise BadBook([FieldProblem("place", "place", text[:40], words)])
    return move(book, sheet_id, section, place)


def pair(book: Book, sheet_id: int, together: bool) -> Book:
    """The book with a sheet kept together with the one inside it, or no longer. Raises BadBook where there is
    none inside it."""
    order = _order(book)
    inside = next(
        (
            section[place + 1]
            for section in order
            for place, one in enumerate(section[:-1])
            if one == sheet_id
        ),
        None,
    )
    if inside is None:
        raise BadBook(
            [
                FieldProblem(
                    "",
                    "sheet",
                    str(sheet_id),
                    "It is the innermost: there is no sheet inside it to keep it with.",
                )
            ]
        )
    kept = [pair for pair in pages_of(book).pairs if set(pair) != {sheet_id, inside}]
    if together:
        kept.append((sheet_id, inside))
    return editing.apply(book, [("pages.order", order), ("pages.pairs", [list(pair) for pair in kept])])


def move(book: Book, sheet_id: int, section: int, place: int) -> Book:
    """The book with a sheet laid into a section at a place, both from 0; past the last section it begins a
    new one.

    Raises BadBook for a sheet that is not on the pile.
    """
    _known(book, sheet_id)
    order = [[one for one in part if one != sheet_id] for part in _order(book)]
    if section >= len(order):
        order.append([])
    target = order[max(0, min(section, len(order) - 1))]
    target.insert(max(0, min(place, len(target))), sheet_id)
    return _with(book, order)


def propose(
    book: Book, sections: int, seed: int, unlike_now: bool, go_on: Callable[[float], bool] = lambda _: True
) -> Arranged:
    """An arrangement of the book's pile; pinned sheets keep section and place. ``go_on`` may end the search
    with what it has.

    Raises BadBook when there is nothing to arrange.
    """
    parts = _mixed(book)
    if not parts:
        raise BadBook(
            [
                FieldProblem(
                    "",
                    "the pile",
                    "",
                    "There is nothing on the pile yet: add papers from the materials first.",
                )
            ]
        )
    if not 1 <= sections <= 60:
        raise BadBook([FieldProblem("sections", "sections", str(sections), "Arrange in 1 to 60 sections.")])
    pile = [folio.arranged for section in parts for folio in section]
    pins = {
        folio.id: (number, place)
        for number, section in enumerate(parts)
        for place, folio in enumerate(section)
        if folio.pinned
    }
    unlike: Arrangement = (
        tuple(tuple(folio.id for folio in section) for section in parts) if unlike_now else ()
    )
    there = {folio.id for folio in pile}
    pairs = [pair for pair in pages_of(book).pairs if set(pair) <= there]
    return arrange(sorted(pile, key=lambda folio: folio.id), sections, seed, pins, pairs, unlike, go_on=go_on)


def arranged(book: Book, proposal: Arranged) -> Book:
    """The book with a proposal taken. Raises BadBook when its pile has changed since."""
    if sorted(one for section in proposal.sections for one in section) != sorted(
        sheet.id for sheet in pages_of(book).pile
    ):
        raise BadBook(
            [FieldProblem("", "the pile", "", "It has changed since it was arranged. Arrange it again.")]
        )
    return _with(book, [list(section) for section in proposal.sections])
