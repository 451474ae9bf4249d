"""Items from what was typed, and what to show of an item in its fields."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Any, Final

from pydantic import ValidationError
from pydantic.fields import FieldInfo
from pydantic_core import PydanticCustomError

from pleat.core.base.errors import BadBook, FieldProblem, LengthError
from pleat.core.base.fields import ChoiceRule, FieldRule, rule_on
from pleat.core.base.texts import read_field, shown
from pleat.core.base.units import RULERS, RulerName
from pleat.core.engines.sewing.notation import BadSewing
from pleat.core.engines.sewing.notation import read as read_stitch
from pleat.core.materials.items import KINDS, Item, Paper
from pleat.core.materials.sizes import parse_size
from pleat.core.materials.weights import parse_weight

MOST_HOLES: Final = 15
HIDDEN: Final = ("stock_id",)
"""Fields that are never typed."""
WEIGHT_FIELDS: Final = ("grammage", "pounds", "grade")
"""Set together from one text, ``weight``."""


@cache
def fields_of(kind: str) -> dict[str, FieldInfo]:
    """The fields a maker fills in for a kind, by name, in order. Raises KeyError for an unknown kind."""
    return {name: field for name, field in KINDS[kind].model.model_fields.items() if name not in HIDDEN}


def label_of(kind: str, name: str) -> str:
    """What a field is called on the screen."""
    if name in ("weight", "size"):
        return name
    rule = rule_of(kind, name)
    return rule.label if rule else name


def rule_of(kind: str, name: str) -> FieldRule | None:
    field = fields_of(kind).get(name)
    return rule_on(field) if field else None


def build(kind: str, texts: Mapping[str, str], ruler: RulerName, held: Item | None = None) -> Item:
    """The item that the typed texts make of ``held``, or of nothing. Fields that are not among the texts
    stay.

    For a paper ``weight`` (``65 lb cover``) and ``size`` (``A4``) are understood too. Raises BadBook with
    every field that cannot be taken.
    """
    data: dict[str, Any] = held.model_dump() if held else {}
    problems: list[FieldProblem] = []
    for name, text in texts.items():
        try:
            data.update(_read(kind, name, text, ruler, held))
            if kind == "stitch" and name == "moves":
                read_stitch(data["moves"], MOST_HOLES)
        except (LengthError, BadSewing, PydanticCustomError) as error:
            reason = error.message() if isinstance(error, PydanticCustomError) else error.reason
            problems.append(FieldProblem(name, label_of(kind, name), text[:80], reason))
    missing = [name for name, field in fields_of(kind).items() if field.is_required() and name not in data]
    named = {problem.path for problem in problems}
    problems += [
        FieldProblem(name, label_of(kind, name), "", "This is missing.")
        for name in missing
        if name not in named and not (name.startswith("sheet_") and "size" in named)
    ]
    if problems:
        raise BadBook(problems)
    if data.get("form") == "pad" and data.get("owned") is None and {"designs", "each"} & set(texts):
        data["owned"] = int(data.get("designs", 1)) * int(
            data.get("each", 1)
        )  # a pad just described is a full one
    try:
        return KINDS[kind].model.model_validate(data)
    except ValidationError as error:
        faults = [(str(fault["loc"][0]) if fault["loc"] else "name", fault) for fault in error.errors()]
        raise BadBook(
            [
                FieldProblem(
                    name, label_of(kind, name), texts.get(name, "")[:80], _words(kind, name, fault["msg"])
                )
                for name, fault in faults
            ]
        ) from error


def _words(kind: str, name: str, message: str) -> str:
    rule = rule_of(kind, name)
    return (
        f"Choose one of: {', '.join(text for _, text in rule.words)}."
        if isinstance(rule, ChoiceRule)
        else message
    )


def _read(kind: str, name: str, text: str, ruler: RulerName, held: Item | None) -> dict[str, object]:
    if kind == "paper" and name == "weight":
        return dict(
            zip(WEIGHT_FIELDS, parse_weight(text) if text.strip() else (None, None, None), strict=True)
        )
    if name == "size":
        if not text.strip() or (isinstance(held, Paper) and text.strip() == size_text(held, ruler)):
            return {}
        width, height, _ = parse_size(text, ruler)
        return {"sheet_width_mm": width, "sheet_height_mm": height}
    field = fields_of(kind).get(name)
    if field is None:
        raise LengthError(text, "There is no such field.")
    read = read_field(field, text, getattr(held, name, None), ruler)
    return {} if read is None else {name: read[0]}


def size_text(paper: Paper, ruler: RulerName) -> str:
    """A sheet's size as its field shows it."""
    return RULERS[ruler].size(paper.sheet_width_mm, paper.sheet_height_mm).rsplit(" ", 1)[0]


def weight_text(paper: Paper) -> str:
    """A paper's weight as it was said: ``65 lb cover`` or ``90 g/m²``; empty when it is not known."""
    if paper.pounds is not None:
        return f"{paper.pounds:g} lb {paper.grade or ''}".strip()
    return f"{paper.grammage:g} g/m²" if paper.grammage is not None else ""


def text_of(item: Item, kind: str, name: str, ruler: RulerName) -> str:
    """What stands in a field: lengths on the ruler, thicknesses in mm as they were measured, nothing for what
    is not known."""
    if isinstance(item, Paper) and name in ("weight", "size"):
        return weight_text(item) if name == "weight" else size_text(item, ruler)
    return shown(fields_of(kind)[name], getattr(item, name), ruler)
