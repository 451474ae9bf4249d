"""Changing a book: from texts a maker typed, or from the values of a fix. Nothing is half applied.

A text that shows exactly what the book holds changes nothing, so that a length shown rounded
(139.5 for 139.7 mm) is not replaced by its rounding when a form is sent back as it was.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from typing import Any

from pydantic_core import PydanticCustomError

from pleat.core.binding import stations
from pleat.core.book import Book
from pleat.core.bookfile import validate_book
from pleat.core.errors import BadBook, FieldProblem, LengthError
from pleat.core.fields import rule_on
from pleat.core.labels import field_at, label_of
from pleat.core.materials.sizes import parse_size
from pleat.core.materials.weights import parse_weight
from pleat.core.pages.counting import parse_count
from pleat.core.texts import read_field, shows, with_unit
from pleat.core.units import RULERS, RulerName, parse_length, tidy

Changes = list[tuple[str, Any]]


def apply(book: Book, changes: Iterable[tuple[str, Any]], typed: Mapping[str, str] | None = None) -> Book:
    """The book with each (path, value) set. ``typed`` records how lengths were typed; others lose their record.

    Raises BadBook naming the fields when the result would not be a valid book, or a path is not there.
    """
    data = book.model_dump(mode="json")
    for path, value in changes:
        *groups, name = path.split(".")
        place = data
        for group in groups:
            place = place.get(group, {}) if isinstance(place, dict) else {}
        if name not in place:
            raise BadBook([FieldProblem(path, path, str(value)[:80], "There is no such field in a book.")])
        place[name] = value
        data["typed"] = {field: text for field, text in data["typed"].items() if field != path and not field.startswith(f"{path}.")}
    data["typed"].update(typed or {})
    return validate_book(data)


def edit(book: Book, texts: Mapping[str, str]) -> Book:
    """The book with fields set from typed texts, by path; several at once are taken together or not at all.

    Beside the paths of fields there are a few that set more than one: ``pages.count`` (``48 pages``),
    ``brief.size`` and ``paper.leaf.size`` (``A5``, ``8 1/2 x 11 in``), ``paper.leaf.weight`` (``65 lb cover``: grammage, pounds and grade) and
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
    """A fault found in the whole book, put where the maker typed: ``brief.leaf_width_mm`` came from ``brief.size``."""
    if problem.path in texts:
        return FieldProblem(problem.path, problem.label, texts[problem.path][:80], problem.message)
    for path, text in texts.items():
        if problem.path.split(".")[:-1] == path.split(".")[:-1] or path.split(".")[0] == problem.path.split(".")[0]:
            return FieldProblem(path, label_of(path), text[:80], problem.message)
    return problem


def _read(book: Book, path: str, text: str) -> list[tuple[str, Any, str]]:
    """(path, value, how it was typed or "") for one typed text; empty when it shows what is there already."""
    ruler = book.brief.ruler
    if path in ("brief.size", "paper.leaf.size", "paper.cover.size"):
        return _read_size(book, path.removesuffix(".size"), text, ruler)
    if path == "pages.count":
        amount, unit = parse_count(text)
        return [("pages.amount", amount, ""), ("pages.counted_in", unit, "")]
    if path in ("paper.leaf.weight", "paper.cover.weight"):
        group = path.removesuffix("weight")
        values = parse_weight(text) if text.strip() else (None, None, None)
        return [(group + name, value, "") for name, value in zip(("grammage", "pounds", "grade"), values, strict=True)]
    if path.startswith("binding.station."):
        return _read_station(book, path, text, ruler)
    return _read_field(book, path, text, ruler)


def _read_size(book: Book, group: str, text: str, ruler: RulerName) -> list[tuple[str, Any, str]]:
    width, height, notes = parse_size(text, ruler)
    prefix = f"{group}.leaf_" if group == "brief" else f"{group}.sheet_"
    held = _value_at(book, prefix + "width_mm"), _value_at(book, prefix + "height_mm")
    if text.strip() in (RULERS[ruler].size(*held), RULERS[ruler].size(*held).rsplit(" ", 1)[0]):
        return []
    return [(prefix + "width_mm", width, with_unit(notes[0], ruler)), (prefix + "height_mm", height, with_unit(notes[1], ruler))]


def _read_station(book: Book, path: str, text: str, ruler_name: RulerName) -> list[tuple[str, Any, str]]:
    number = path.rsplit(".", 1)[1]
    index, ruler, height = int(number) if number.isdecimal() and len(number) < 3 else -1, RULERS[ruler_name], book.brief.leaf_height_mm
    positions = stations.place(book.binding, height, ruler)
    if not 0 <= index < len(positions):
        raise LengthError(text, "There is no such station.")
    if shows(text, positions[index], ruler_name):
        return []
    to = parse_length(text, ruler_name).mm
    if not 0 < to < height:
        raise LengthError(text, f"The leaf is {ruler.show(height)} high; a station lies between its head and its tail.")
    below = positions[index - 1] if index else 0.0
    above = positions[index + 1] if index + 1 < len(positions) else height
    if not below < to < above:
        raise LengthError(
            text, f"Station {index + 1} lies between its neighbours, {ruler.show(below)} and {ruler.show(above)} from the head."
        )
    moved = stations.move(book.binding, index, to, height, ruler)
    if moved == book.binding and index == len(positions) // 2:
        raise LengthError(text, "The middle station stays in the middle while both halves move together. Unlock them to move it.")
    return [
        (f"binding.{name}", value, "")
        for name in ("insets_mm", "positions_mm")
        if (value := getattr(moved, name)) != getattr(book.binding, name)
    ]


def _read_field(book: Book, path: str, text: str, ruler: RulerName) -> list[tuple[str, Any, str]]:
    field, held = field_at(path), _value_at(book, path)
    if path == "binding.own_path" and text.strip():
        text = tidy(text)
        words = re.findall(r"[0-9]{1,3}", text)
        if not words or re.search(r"[^\d\s,;.→>-]", text):
            raise LengthError(text, "Type the holes in order, 1 at the head: for example 2 1 3 2.")
        return [(path, [int(word) for word in words], "")]
    if field is None or rule_on(field) is None or ".pile" in path:
        raise LengthError(text, "There is no such field to type in.")
    read = read_field(field, text, held, ruler)
    return [] if read is None else [(path, list(read[0]) if isinstance(read[0], tuple) else read[0], read[1])]


def _value_at(book: Book, path: str) -> Any:
    value: Any = book
    for name in path.split("."):
        value = getattr(value, name, None)
    return value
