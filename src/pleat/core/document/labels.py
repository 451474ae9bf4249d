"""The rule of each field of a Book by its path, read from the declarations in ``book``."""

from __future__ import annotations

from functools import cache, lru_cache
from types import UnionType
from typing import Any, Final, Union, get_args, get_origin

from pydantic import BaseModel
from pydantic.fields import FieldInfo

from pleat.core.base.fields import FieldRule, rule_on
from pleat.core.document.book import Book
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.pleats.pages.kinds import BLOCKS
from pleat.core.pleats.paper.record import ROLES

MEMBERS: Final = {registry.pleat: registry for registry in (BLOCKS, BINDINGS, COVERS)}
"""The registries whose members' records stand in a book, by pleat."""


_KINDS: Final = {"pages.kind": "pages are", "binding.kind": "held by", "cover.kind": "covered by"}


def field_at(path: str, book: Book | None = None) -> FieldInfo | None:
    """The declaration of ``brief.leaf_width_mm`` and the like; None for paths that are not there. Numbers in
    a path are skipped.

    Where several members have a field of that name, the one of ``book``'s own member counts, else that of the
    first.
    """
    models, rest = _models(path, book)
    if not rest:
        return _field_in(Book, "extras.items" if path.startswith(_PUT_IN) else path)
    return next((field for record in models if (field := _field_in(record, rest))), None)


_PUT_IN: Final = "extras.items."


def _models(path: str, book: Book | None) -> tuple[list[type[BaseModel]], str]:
    """The records a path may lead into, and the rest of it: members of a pleat, designs of Extras by their
    keys, else the book."""
    pleat, _, rest = path.partition(".")
    if path.startswith(_PUT_IN):
        key, _, rest = path.removeprefix(_PUT_IN).partition(".")
        held = book.extras.items.get(key) if book is not None else None
        return [type(held)] if held is not None else [member.record for member in EXTRAS.members], rest
    if pleat not in MEMBERS:
        return [Book], path
    own = [type(getattr(book, pleat))] if book is not None else []
    return [*own, *(member.record for member in MEMBERS[pleat].members)], rest


@lru_cache(maxsize=1024)  # asked with texts of requests
def _field_in(model: object, path: str) -> FieldInfo | None:
    name, _, rest = path.partition(".")
    if name.isdigit():
        return _field_in(model, rest) if rest else None
    if get_origin(model) is dict:  # its keys are the maker's own
        model = get_args(model)[1]
        return _field_in(model, rest) if rest else _any_of(model)
    for one in get_args(model) if get_origin(model) in (Union, UnionType) else (model,):
        if isinstance(one, type) and issubclass(one, BaseModel) and name in one.model_fields:
            field = one.model_fields[name]
            return _field_in(field.annotation, rest) if rest and not _numbers(rest) else field  # type: ignore[arg-type]
    return None


@cache  # as many as there are groups
def _any_of(model: Any) -> FieldInfo:
    """The field that each value of a group with the maker's own keys is."""
    return FieldInfo.from_annotation(model)


def _numbers(path: str) -> bool:
    return all(name.isdigit() for name in path.split("."))


def names_in(group: str) -> tuple[str, ...]:
    """The names of the fields in a group of a book, "" for the book itself; of a pleat with members those of
    all of them."""
    models, rest = _models(group, None)
    found: list[str] = []
    for model in models:
        field = _field_in(model, rest) if rest else None
        if field:
            inner = field.annotation
        elif rest:
            inner = None
        else:
            inner = model
        inner = get_args(inner)[1] if get_origin(inner) is dict else inner
        if isinstance(inner, type) and issubclass(inner, BaseModel):
            found += inner.model_fields
    return tuple(dict.fromkeys(found))


def may_be_new(group: str) -> bool:
    """Whether a group of fields is named by the maker's own keys, so that one that is not there yet may be
    set."""
    field = None if group.startswith(_PUT_IN) else _field_in(Book, group)
    return field is not None and get_origin(field.annotation) is dict


def rule_of(path: str, book: Book | None = None) -> FieldRule | None:
    """The rule of a field; None for groups and unknown paths."""
    field = field_at(path, book)
    return rule_on(field) if field else None


def label_of(path: str, book: Book | None = None) -> str:
    """What the field is called on the screen; the path itself where it has no name of its own."""
    rule = rule_of(path, book)
    if path in _KINDS:
        return _KINDS[path]
    if rule is None:
        return path or "the file"
    pleat, _, rest = path.partition(".")
    role = ROLES.get(rest.split(".")[0]) if pleat == "paper" else None
    return f"{role.one}: {rule.label}" if role else rule.label


def named(path: str, book: Book) -> str:
    """What a path of a book is called where it stands by itself, as in the history: what is typed of several
    fields at once too."""
    pleat, _, rest = path.partition(".")
    *within, last = rest.split(".")
    if path.startswith(_PUT_IN):
        key, _, field = path.removeprefix(_PUT_IN).partition(".")
        what = design_named(key, book)
        number = field.removeprefix("place.")
        place = f"place {int(number) + 1}" if number.isdecimal() else label_of(path, book)
        return f"{what}: {place}"
    if last in _TOGETHER:
        role = ROLES.get(within[0]) if pleat == "paper" and within else None
        return f"{role.one}: {_TOGETHER[last]}" if role else _TOGETHER[last]
    if within and within[0] in _NUMBERED:
        return (
            f"{_NUMBERED[within[0]]} {int(last) + 1}"
            if last.isdecimal() and len(within) == 1
            else f"a {_NUMBERED[within[0]]}"
        )
    label = label_of(path, book)
    return rest.replace("_", " ").replace(".", " ") if label == path else label


def design_named(key: str, book: Book) -> str:
    """What is put in under a key, by its kind; what is not there by the key."""
    held = book.extras.items.get(key)
    kind = EXTRAS.find(held.kind) if held else None
    return kind.title if kind else key.replace("-", " ")


_TOGETHER: Final = {"size": "size", "weight": "weight", "count": "pages"}
_NUMBERED: Final = {"station": "station", "hole": "hole", "score": "score", "size": "panel"}
"""What is typed of a place among several, by the first word of its path."""
