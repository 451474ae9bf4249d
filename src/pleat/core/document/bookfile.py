"""Books as JSON: reading with messages that name the field, writing, and the published schema."""

from __future__ import annotations

import json
from difflib import get_close_matches
from typing import Any, Final

from pydantic import ValidationError

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.marks import on_marks
from pleat.core.base.units import RULERS, Ruler, RulerName
from pleat.core.document.book import FORMAT, Book
from pleat.core.document.formats import upgraded
from pleat.core.document.labels import label_of, names_in
from pleat.core.pleats.pages.record import Sections

LARGEST_FILE: Final = 1_000_000
"""Bytes. A book is a few kilobytes; anything this large is not one."""
DEEPEST: Final = 12
"""Brackets within brackets; a book has half as many."""
PROBLEMS_TOLD: Final = 20


def read_book(text: str | bytes) -> Book:
    """The book in a JSON text. Raises BadBook naming each field that is wrong; the message is for the
    maker."""
    if len(text) > LARGEST_FILE:
        raise _whole("The file is over 1 MB, far more than a book needs. Is it the right file?")
    try:
        data = json.loads(text)
        _not_deeper(data, DEEPEST)
    except (ValueError, RecursionError) as error:
        where = (
            f" Line {error.lineno}, column {error.colno}: {error.msg}."
            if isinstance(error, json.JSONDecodeError)
            else ""
        )
        raise _whole("This is not a book file: it cannot be read as JSON." + where) from error
    if not isinstance(data, dict):
        raise _whole("This is not a book file: it should begin with { and hold named fields.")
    made_by = data.get("format", FORMAT)
    if isinstance(made_by, int) and not isinstance(made_by, bool) and made_by > FORMAT:
        raise BadBook(
            [
                FieldProblem(
                    "format",
                    "format",
                    str(made_by),
                    f"The file is of format {made_by}; this Pleat reads up to {FORMAT}. A newer Pleat will "
                    "open it.",
                )
            ]
        )
    book = validate_book(upgraded(data))
    if len(book.model_dump_json()) > LARGEST_FILE:
        raise _whole(
            "Written out in full, with everything the file leaves out, this book is over 1 MB: Pleat could "
            "not open it again."
        )
    return book


def _not_deeper(data: object, levels: int) -> None:
    """Raise RecursionError for data with more groups within groups than any book has, ValueError for texts
    that no file can hold."""
    if isinstance(data, str):
        data.encode()  # raises for half a sign
    elif isinstance(data, (dict, list)):
        if not levels:
            raise RecursionError
        for one in (*data, *data.values()) if isinstance(data, dict) else data:
            _not_deeper(one, levels - 1)


def validate_book(data: dict[str, object], marks: RulerName | None = None) -> Book:
    """A Book from plain data; what that leaves out lies on the marks of the ruler ``marks``, else of the one
    the book was made on. Raises BadBook."""
    try:
        brief = data.get("brief")
        book = Book.model_validate(
            data, context={"ruler": brief.get("ruler") if isinstance(brief, dict) else "mm"}
        )
    except ValidationError as error:
        raise BadBook(problems_of(error)) from error
    except (OverflowError, RecursionError) as error:
        raise _whole("A number in this file is too large for any length or count.") from error
    if lost := _lost_papers(book):
        raise BadBook(lost)
    return _decided_on(book, RULERS[marks or book.brief.made_on])


def _lost_papers(book: Book) -> list[FieldProblem]:
    """Sheets of a pile whose paper is not among the book's own."""
    there, pile = book.paper.more, book.pages.pile if isinstance(book.pages, Sections) else ()
    lost = [(number, sheet.paper) for number, sheet in enumerate(pile) if sheet.paper not in there]
    more = " …" if len(there) > 8 else ""
    known = f" It has {', '.join(list(there)[:8])}{more}." if there else ""
    return [
        FieldProblem(
            f"pages.pile.{number}.paper",
            "the paper",
            name[:80],
            f"This book has no paper “{name[:40]}” under paper.more.{known}",
        )
        for number, name in lost[:PROBLEMS_TOLD]
    ]


def _decided_on(book: Book, ruler: Ruler) -> Book:
    """The book with what nobody decided on the marks of a ruler."""
    before = {name: getattr(book, name) for name in _DECIDED}
    after = {name: on_marks(record, ruler) for name, record in before.items()}
    changed = {name: record for name, record in after.items() if record is not before[name]}
    return book.model_copy(update=changed) if changed else book


def write_book(book: Book) -> str:
    """The book as JSON, indented, keys in the order of the pleats."""
    return json.dumps(book.model_dump(mode="json"), ensure_ascii=False, indent=2) + "\n"


def book_schema() -> dict[str, Any]:
    """The JSON schema (draft 2020-12) of a book file as it may be written by hand."""
    schema = _in_one_line(Book.model_json_schema(mode="validation"))
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Pleat book",
        **{k: v for k, v in schema.items() if k != "title"},
    }


def _in_one_line(schema: object) -> Any:
    """What is described, without the line breaks of the source."""
    if isinstance(schema, dict):
        described = {key: _in_one_line(value) for key, value in schema.items()}
        if isinstance(text := schema.get("description"), str):
            described["description"] = " ".join(text.split())
        return described
    return [_in_one_line(one) for one in schema] if isinstance(schema, list) else schema


def problems_of(error: ValidationError) -> list[FieldProblem]:
    """Each fault pydantic found, with the field's name in the maker's words."""
    problems = []
    faults = error.errors()
    for fault in faults[:PROBLEMS_TOLD]:
        path = ".".join(
            str(step)[:60]
            for number, step in enumerate(fault["loc"])
            if not _is_machinery(number, step, fault["loc"])
        )
        typed = fault.get("input")
        shown = (
            ""
            if not isinstance(typed, (str, float)) and not (isinstance(typed, int) and abs(typed) < 10**20)
            else str(typed)[:80]
        )
        message = _message(fault["type"], fault["msg"], fault.get("ctx", {}))
        problems.append(
            FieldProblem(
                path,
                label_of(path),
                shown,
                message + (_nearest(path) if fault["type"] == "extra_forbidden" else ""),
            )
        )
    if len(faults) > PROBLEMS_TOLD:
        problems.append(FieldProblem("", "and", "", f"{len(faults) - PROBLEMS_TOLD} more of this sort."))
    return problems


def _nearest(path: str) -> str:
    """The known name nearest to one that is not known, as a question; "" where none is near."""
    group, _, name = path.rpartition(".")
    near = get_close_matches(name, names_in(group), 1, 0.6)
    return f" Did you mean {near[0]}?" if near else ""


_DECIDED: Final = ("brief", "pages", "extras", "binding", "cover")
"""The pleats whose lengths are decisions; those of papers and tools are measured."""
_PLEATS_OF_MEMBERS: Final = ("pages", "binding", "cover")


def _is_machinery(number: int, step: int | str, place: tuple[int | str, ...]) -> bool:
    """Pydantic names the validator in the place of optional fields (``function-before[...]``), and the member
    before its fields."""
    return (number == 1 and place[0] in _PLEATS_OF_MEMBERS) or (
        isinstance(step, str) and ("[" in step or "-" in step)
    )


def _message(kind: str, message: str, context: dict[str, Any]) -> str:
    plain = {
        "extra_forbidden": "Pleat does not know this field. Is it spelled right, or from a newer Pleat?",
        "missing": "This is missing.",
        "finite_number": "This must be a number.",
        "float_type": "This must be a length.",
        "model_type": "This must be a group of named fields in { }.",
        "dict_type": "This must be a group of named fields in { }.",
        "tuple_type": "This must be a list in [ ].",
        "too_long": "There are too many here.",
        "too_short": "There are too few here.",
    }
    if kind == "literal_error":
        return f"This must be one of: {context.get('expected', '')}."
    return plain.get(kind, message)


def _whole(message: str) -> BadBook:
    return BadBook([FieldProblem("", "the file", "", message)])
