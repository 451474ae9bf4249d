"""A form from a record: every field's label, words and value come from the one line where it is declared."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.fields import ChoiceRule, Record, rule_on
from pleat.core.base.kinds import TAG
from pleat.core.base.texts import shown
from pleat.core.document.book import Book
from pleat.core.document.labels import field_at, label_of


@dataclass(frozen=True)
class FieldEntry:
    """One field of a book as the page shows it; ``words`` are those to choose from, empty for a text."""

    path: str
    label: str
    text: str
    words: tuple[tuple[str, str], ...] = ()


def entry(book: Book, path: str) -> FieldEntry:
    """The field at a path of ``book``. Raises LookupError where there is none that can be typed."""
    field = field_at(path, book)
    rule = rule_on(field) if field else None
    if field is None or rule is None:
        raise LookupError(path)
    value: object = book
    words = rule.words if isinstance(rule, ChoiceRule) else ()
    for name in path.split("."):
        if isinstance(value, dict):  # what is not kept there is the first of its choices
            value = value.get(name, words[0][0] if words else None)
        else:
            value = getattr(value, name)
    return FieldEntry(path, label_of(path, book), shown(field, value, book.brief.ruler), words)


def entries(book: Book, group: str) -> tuple[FieldEntry, ...]:
    """Every field of the record at ``group`` that can be typed, in the order they are declared."""
    record = getattr(book, group)
    assert isinstance(record, Record)
    fields = type(record).model_fields
    return tuple(
        entry(book, f"{group}.{name}") for name, field in fields.items() if name != TAG and rule_on(field)
    )
