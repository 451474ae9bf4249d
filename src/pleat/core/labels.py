"""The rule of each field of a Book by its path, read from the declarations in ``book``."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from pydantic import BaseModel
from pydantic.fields import FieldInfo

from pleat.core.book import Book
from pleat.core.fields import FieldRule, rule_on


@lru_cache(maxsize=1024)  # asked with texts of requests
def field_at(path: str) -> FieldInfo | None:
    """The declaration of ``brief.leaf_width_mm`` and the like; None for paths that are not there. Numbers in a path are skipped."""
    model: Any = Book
    field: FieldInfo | None = None
    for name in path.split("."):
        if name.isdigit():
            continue
        if not (isinstance(model, type) and issubclass(model, BaseModel)) or name not in model.model_fields:
            return None
        field = model.model_fields[name]
        model = field.annotation
    return field


def rule_of(path: str) -> FieldRule | None:
    """The rule of a field; None for groups and unknown paths."""
    field = field_at(path)
    return rule_on(field) if field else None


def label_of(path: str) -> str:
    """What the field is called on the screen; the path itself where it has no name of its own."""
    rule = rule_of(path)
    if rule is None:
        return path or "the file"
    owner = {"paper.leaf": "leaf paper: ", "paper.cover": "cover paper: "}.get(".".join(path.split(".")[:2]), "")
    return owner + rule.label
