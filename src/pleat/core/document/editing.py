"""Changing a book: from texts a maker typed, or from the values of a fix. Nothing is half applied.

What is typed counts, also where it reads like a length that is shown rounded: 1/2 typed where 12 mm stand as
1/2 is half an inch.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any, Final

from pydantic import ValidationError
from pydantic_core import PydanticCustomError

from pleat.core.base.errors import BadBook, FieldProblem, LengthError
from pleat.core.base.fields import Record, rule_on
from pleat.core.base.kinds import TAG
from pleat.core.base.marks import on_marks
from pleat.core.base.texts import read_field, with_unit
from pleat.core.base.units import RULERS, RulerName
from pleat.core.document.book import Book
from pleat.core.document.bookfile import validate_book
from pleat.core.document.labels import MEMBERS, field_at, label_of, may_be_new
from pleat.core.materials.items import Board, Cloth, Paper
from pleat.core.materials.sizes import parse_size
from pleat.core.materials.weights import parse_weight
from pleat.core.pleats.brief.record import Brief
from pleat.core.pleats.extras import placing
from pleat.core.pleats.pages.counting import parse_count
from pleat.core.pleats.paper.record import ROLES

Changes = list[tuple[str, object]]
_SIZES: Final = frozenset(f"paper.{role}.size" for role in ROLES)
_WEIGHTS: Final = frozenset(f"paper.{role}.weight" for role in ROLES)
_SIDES: Final[dict[type[Record], tuple[str, str]]] = {
    Brief: ("leaf_width_mm", "leaf_height_mm"),
    Paper: ("sheet_width_mm", "sheet_height_mm"),
    Board: ("sheet_width_mm", "sheet_height_mm"),
    Cloth: ("roll_width_mm", "length_left_mm"),
}
"""What a typed size sets, width first."""


def apply(book: Book, changes: Iterable[tuple[str, Any]], typed: Mapping[str, str] | None = None) -> Book:
    """The book with each (path, value) set. ``typed`` records how lengths were typed; others lose their
    record.

    What is new in it lies on the marks of the ruler in use. Raises BadBook naming the fields when the result
    would not be a valid book, or a path is not there.
    """
    data = book.model_dump(mode="json")
    for path, value in changes:
        *groups, name = path.split(".")
        place = data
        for group in groups:
            place = place.get(group, {}) if isinstance(place, dict) else {}
        if name == TAG and groups[0] in MEMBERS:
            _take_member(data, groups[0], value, book.brief.ruler)
            continue
        if name not in place and not may_be_new(".".join(groups)):
            raise BadBook([FieldProblem(path, path, str(value)[:80], "There is no such field in a book.")])
        place[name] = value
        if path == "brief.ruler":
            place["marks"] = book.brief.on(value).marks
        data["typed"] = {
            field: text
            for field, text in data["typed"].items()
            if field != path and not field.startswith(f"{path}.")
        }
    data["typed"].update(typed or {})
    return validate_book(data, book.brief.ruler)


def _take_member(data: dict[str, Any], pleat: str, name: object, ruler: RulerName) -> None:
    """Another member of a pleat: what was decided for the one left behind is laid aside, and what lay there
    for this one comes back."""
    kind = MEMBERS[pleat].find(str(name))
    if kind is None:
        raise BadBook([FieldProblem(f"{pleat}.{TAG}", "the kind", str(name)[:80], "There is no such kind.")])
    own = data[pleat]
    if own[TAG] == kind.name:
        return
    aside = data["aside"].setdefault(pleat, {})
    aside[own[TAG]] = {field: value for field, value in own.items() if field != TAG}
    back = {**aside.pop(kind.name, _counted(own) if pleat == "pages" else {}), TAG: kind.name}
    try:
        record = kind.record.model_validate(back)
    except ValidationError:  # laid aside by an older or newer Pleat
        record = kind.record(kind=kind.name)
    data[pleat] = on_marks(record, RULERS[ruler]).model_dump(mode="json")
    data["typed"] = {
        field: text for field, text in data["typed"].items() if not field.startswith(f"{pleat}.")
    }


def _counted(own: dict[str, object]) -> dict[str, object]:
    """How many pages were wanted, for a block of another kind; a folded sheet is two leaves of it."""
    kept: dict[str, Any] = {field: own[field] for field in ("amount", "counted_in") if field in own}
    if kept.get("counted_in") == "folios":
        return {"amount": 2 * kept["amount"], "counted_in": "leaves"}
    return kept


def edit(book: Book, texts: Mapping[str, str]) -> Book:
    """The book with fields set from typed texts, by path; several at once are taken together or not at all.

    Beside the paths of fields there are a few that set more than one: ``pages.count`` (``48 pages``),
    ``brief.size`` and ``paper.leaf.size`` (``A5``, ``8 1/2 x 11 in``), ``paper.leaf.weight`` (``65 lb
    cover``: grammage, pounds and grade) and what the book's members read themselves, such as
    ``binding.station.0`` (a station's place; its symmetric partner follows). Raises BadBook.
    """
    problems: list[FieldProblem] = []
    changes: Changes = []
    typed: dict[str, str] = {}
    for path, text in texts.items():
        try:
            for target, value, note in _read(book, path, text):
                changes.append((target, value))
                if note:
                    typed[target] = note
        except (LengthError, PydanticCustomError) as error:
            reason = error.reason if isinstance(error, LengthError) else error.message()
            problems.append(FieldProblem(path, label_of(path), text[:80], reason))
    if problems:
        raise BadBook(problems)
    try:
        return apply(book, changes, typed)
    except BadBook as error:
        raise BadBook([_where_typed(problem, texts) for problem in error.problems]) from error


def _where_typed(problem: FieldProblem, texts: Mapping[str, str]) -> FieldProblem:
    """A fault found in the whole book, put where the maker typed: ``brief.leaf_width_mm`` came from
    ``brief.size``."""
    if problem.path in texts:
        return FieldProblem(problem.path, problem.label, texts[problem.path][:80], problem.message)
    for path, text in texts.items():
        if (
            problem.path.split(".")[:-1] == path.split(".")[:-1]
            or path.split(".")[0] == problem.path.split(".")[0]
        ):
            return FieldProblem(path, label_of(path), text[:80], problem.message)
    return problem


def _read(book: Book, path: str, text: str) -> list[tuple[str, object, str]]:
    """(path, value, how it was typed or "") for one typed text; empty when it shows what is there already."""
    ruler = book.brief.ruler
    if path == "brief.size" or path in _SIZES:
        return _read_size(book, path.removesuffix(".size"), text, ruler)
    if path == "pages.count":
        amount, unit = parse_count(text)
        return [("pages.amount", amount, ""), ("pages.counted_in", unit, "")]
    if path in _WEIGHTS:
        group = path.removesuffix("weight")
        values = parse_weight(text) if text.strip() else (None, None, None)
        return [
            (group + name, value, "")
            for name, value in zip(("grammage", "pounds", "grade"), values, strict=True)
        ]
    if path.startswith("extras.") and (placed := placing.read(book.extras, path, text, ruler)) is not None:
        return [(target, value, "") for target, value in placed]
    pleat, _, name = path.partition(".")
    if pleat in MEMBERS and name == TAG:
        return [(path, text.strip(), "")]
    if pleat in MEMBERS:
        kind, record = MEMBERS[pleat].of(getattr(book, pleat))
        if kind.read and (found := kind.read(record, name, text, book.brief)) is not None:
            return [(f"{pleat}.{field}", value, "") for field, value in found]
        read = _read_field(book, path, text, ruler)
        taken: str = getattr(record, "gear", "")
        if read and taken and name in kind.described:  # it is not what was taken from the materials any more
            read += [(f"{pleat}.gear", "", ""), (f"{pleat}.stock_id", None, "")]
        return read
    return _read_field(book, path, text, ruler)


def _read_size(book: Book, group: str, text: str, ruler: RulerName) -> list[tuple[str, object, str]]:
    width, height, notes = parse_size(text, ruler)
    across, along = _SIDES[type(_value_at(book, group))]
    if (width, height) == (_value_at(book, f"{group}.{across}"), _value_at(book, f"{group}.{along}")):
        return []
    return [
        (f"{group}.{across}", width, with_unit(notes[0], ruler)),
        (f"{group}.{along}", height, with_unit(notes[1], ruler)),
    ]


def _read_field(book: Book, path: str, text: str, ruler: RulerName) -> list[tuple[str, object, str]]:
    field, held = field_at(path, book), _value_at(book, path)
    if field is None or rule_on(field) is None or ".pile" in path:
        raise LengthError(text, "There is no such field to type in.")
    read = read_field(field, text, held, ruler, typed=True)
    if read is None:
        return []
    value, written = read
    return [(path, list(value) if isinstance(value, tuple) else value, written)]


def _value_at(book: Book, path: str) -> Any:
    value: object = book
    for name in path.split("."):
        value = value.get(name) if isinstance(value, dict) else getattr(value, name, None)
    return value
