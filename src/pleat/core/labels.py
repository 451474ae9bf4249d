"""The rule of each field of a Book by its path, read from the declarations in ``book``."""

from __future__ import annotations

from functools import cache
from types import UnionType
from typing import Any, Union, get_args, get_origin

from pydantic import BaseModel

from pleat.core.book import Book
from pleat.core.fields import ChoiceRule, FieldRule, LengthRule, NumberRule, TextRule

_RULES = (LengthRule, NumberRule, TextRule, ChoiceRule)


@cache
def rule_of(path: str) -> FieldRule | None:
    """The rule declared for ``brief.leaf_width_mm`` and the like; None for groups and unknown paths."""
    model: Any = Book
    rule: FieldRule | None = None
    for name in path.split("."):
        if name.isdigit():
            continue
        if not (isinstance(model, type) and issubclass(model, BaseModel)) or name not in model.model_fields:
            return None
        field = model.model_fields[name]
        rule = next((one for one in field.metadata if isinstance(one, _RULES)), None) or _rule_in(field.annotation)
        model = field.annotation
    return rule


def _rule_in(annotation: Any) -> FieldRule | None:
    """A rule inside ``Annotated[...] | None`` or ``tuple[Annotated[...], ...] | None``."""
    for one in getattr(annotation, "__metadata__", ()):
        if isinstance(one, _RULES):
            return one
    if get_origin(annotation) in (Union, UnionType, tuple):
        for inner in get_args(annotation):
            found = _rule_in(inner)
            if found:
                return found
    return None


def label_of(path: str) -> str:
    """What the field is called on the screen; the path itself where it has no name of its own."""
    rule = rule_of(path)
    if rule is None:
        return path or "the file"
    owner = {"paper.leaf": "leaf paper: ", "paper.cover": "cover paper: "}.get(".".join(path.split(".")[:2]), "")
    return owner + rule.label
