"""The kinds of field a Book is made of: each knows its name in the maker's words, its bounds, and how to read
a text.

They are pydantic annotations, so the document, its JSON schema, the form on the screen and the messages all
come from the one line where a field is declared.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from types import UnionType
from typing import Annotated, Final, Union, get_args, get_origin

from pydantic import (
    AfterValidator,
    BaseModel,
    ConfigDict,
    Field,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    ValidationInfo,
)
from pydantic.fields import FieldInfo
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from pleat.core.base.errors import LengthError
from pleat.core.base.units import MM_PER_INCH, RULERS, Ruler, parse_length, tidy

_POINTS: Final = re.compile(r"\s*(\d+(?:[.,]\d+)?)\s*(?:pt|pts|points?|thou|mil)\.?\s*", re.IGNORECASE)


_JOINERS: Final = "\u200c\u200d"
"""Signs that hold letters of some scripts together, or apart; not to be seen, but part of a title."""
_NOWHERE: Final = re.compile(r"[\ud800-\udfff\x00]")


def plain_text(value: str) -> str:
    """A text that any file and database can hold. Raises an error for halves of a sign and for the sign for
    nothing."""
    if _NOWHERE.search(value):
        raise PydanticCustomError("text", "This holds a sign that no text can hold.")
    return value


Word = Annotated[str, Field(max_length=300), AfterValidator(plain_text)]


class Record(BaseModel):
    """The base of everything that is saved: frozen, and no field that is not declared."""

    model_config = ConfigDict(frozen=True, extra="forbid", validate_default=True)


def parse_thickness(text: str) -> float | None:
    """mm of a thickness in points (1 point of board or paper = 0.001 in, US paper trade usage); None for any
    other text.

    >>> round(parse_thickness("60 pt"), 3)
    1.524
    """
    found = _POINTS.fullmatch(text)
    return float(found[1].replace(",", ".")) * MM_PER_INCH / 1000 if found else None


@dataclass(frozen=True)
class LengthRule:
    """A length in mm between two bounds. A text such as ``8 1/4 in`` is read; a bare number is mm.

    ``fine`` lengths are thicknesses: shown finer than the ruler, bare numbers always mm, points of 0.001 in
    understood.
    """

    label: str
    low_mm: float
    high_mm: float
    fine: bool = False

    def read(self, value: object) -> object:
        """The value in mm, unchecked; None passes for fields that may be empty."""
        if isinstance(value, bool):
            raise PydanticCustomError("length", "{label} must be a length.", {"label": self.label})
        if isinstance(value, str):
            try:
                value = tidy(value)
                points = parse_thickness(value) if self.fine else None
                return points if points is not None else parse_length(value, fine=self.fine).mm
            except LengthError as error:
                raise PydanticCustomError("length", "{reason}", {"reason": error.reason}) from error
        return value

    def check(self, value: float, info: ValidationInfo | None = None) -> float:
        """``value`` itself when it lies within the bounds, else an error that says what would do, on the
        ruler that the ``context`` of the validation names."""
        if not math.isfinite(value) or not self.low_mm <= value <= self.high_mm:
            ruler = RULERS["in" if info is not None and (info.context or {}).get("ruler") == "in" else "mm"]
            raise PydanticCustomError("length", "{reason}", {"reason": self.out_of_bounds(value, ruler)})
        return float(value)

    def out_of_bounds(self, value: float, ruler: Ruler) -> str:
        """What is said of a value that cannot be."""

        def shown(mm: float) -> str:
            if ruler.name == "mm":
                return f"{mm:g} mm"
            if self.fine:
                return ruler.fine(mm)
            return ruler.show(mm)

        typed = shown(value) if math.isfinite(value) else "That"
        size = "small" if value < self.low_mm else "large"
        said = f"{typed} is too {size} for {self.label}"
        span = f"it goes from {shown(self.low_mm)} to {shown(self.high_mm)}"
        if math.isfinite(value) and value > 0 and self.low_mm <= value * MM_PER_INCH <= self.high_mm:
            return f"{said}; {span}. Did you mean {value:g} in?"
        return f"{said}; {span}."

    def __get_pydantic_core_schema__(self, source: object, handler: GetCoreSchemaHandler) -> CoreSchema:
        either = core_schema.union_schema([core_schema.float_schema(), core_schema.str_schema()])
        checked = core_schema.with_info_after_validator_function(self.check, core_schema.float_schema())
        return core_schema.no_info_before_validator_function(
            self.read, checked, json_schema_input_schema=either
        )

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, object]:
        shown = dict(handler(schema))
        bounds = f"{self.low_mm:g} to {self.high_mm:g} mm"
        shown["description"] = f"{self.label}: a number in mm, or a text such as '8 1/4 in'; {bounds}"
        return shown


@dataclass(frozen=True)
class NumberRule:
    """A number between two bounds, with the word for what it counts."""

    label: str
    low: float
    high: float
    unit: str = ""
    whole: bool = False

    def read(self, value: object) -> object:
        """The number in ``value``, or an error in the maker's words."""
        if isinstance(value, str):
            text = (
                " ".join(value[:400].split())
                .lower()
                .removesuffix(self.unit.lower())
                .strip()
                .replace(",", ".")
            )
            try:
                value = int(text) if self.whole else float(text)
            except ValueError:
                kind = "a whole number" if self.whole else "a number"
                raise PydanticCustomError(
                    "number", "{reason}", {"reason": f"“{text[:30]}” is not {kind}."}
                ) from None
        if isinstance(value, bool) or not isinstance(value, (int, float)):
            raise PydanticCustomError("number", "{label} must be a number.", {"label": self.label})
        if not self.low <= value <= self.high:
            reason = f"{self.label} goes from {self.low:g} to {self.high:g} {self.unit}".rstrip() + "."
            raise PydanticCustomError("number", "{reason}", {"reason": reason[0].upper() + reason[1:]})
        if self.whole and value != math.floor(value):
            raise PydanticCustomError("number", "{label} must be a whole number.", {"label": self.label})
        return value

    def __get_pydantic_core_schema__(self, source: object, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_before_validator_function(self.read, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, object]:
        return {**handler(schema), "minimum": self.low, "maximum": self.high, "description": self.label}


@dataclass(frozen=True)
class TextRule:
    """A short text in the maker's words."""

    label: str
    longest: int = 80
    required: bool = True

    def read(self, value: object) -> object:
        if not isinstance(value, str):
            raise PydanticCustomError("text", "{label} must be a text.", {"label": self.label})
        plain = value[: 10 * self.longest]
        if not plain.isprintable():
            plain = "".join(c if c.isprintable() or c in _JOINERS else " " for c in plain)
        text = " ".join(plain.split())
        if self.required and not text:
            raise PydanticCustomError(
                "text", "{label} needs a few letters.", {"label": self.label[0].upper() + self.label[1:]}
            )
        if len(text) > self.longest or len(value) > 10 * self.longest:
            reason = f"{self.label} is {len(text)} letters long or more; at most {self.longest} fit."
            raise PydanticCustomError("text", "{reason}", {"reason": reason[0].upper() + reason[1:]})
        return text

    def __get_pydantic_core_schema__(self, source: object, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_before_validator_function(self.read, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, object]:
        return {**handler(schema), "maxLength": self.longest, "description": self.label}


@dataclass(frozen=True)
class ChoiceRule:
    """One of a few words; ``words`` gives each its text on the screen, in the order shown."""

    label: str
    words: tuple[tuple[str, str], ...]


FieldRule = LengthRule | NumberRule | TextRule | ChoiceRule
"""ChoiceRules stand on Literal fields: pydantic does the checking, they carry the words."""
_RULES: Final = (LengthRule, NumberRule, TextRule, ChoiceRule)


@dataclass(frozen=True)
class Declared:
    """What a field's declaration says: its rule, whether it holds several values, whether leaving it empty is
    an answer."""

    rule: FieldRule | None
    many: bool
    may_be_empty: bool


_DECLARED: Final[dict[int, tuple[FieldInfo, Declared]]] = {}


def declared(field: FieldInfo) -> Declared:
    """The declaration of a field, worked out once for each that lives; one that is gone may leave its number
    to another."""
    held = _DECLARED.get(id(field))
    if held is None or held[0] is not field:
        rule = next((one for one in field.metadata if isinstance(one, _RULES)), None) or _rule_in(
            field.annotation
        )
        many = any(get_origin(one) is tuple for one in (field.annotation, *get_args(field.annotation)))
        empty = not field.is_required() and field.get_default() in (None, ())
        held = _DECLARED[id(field)] = (
            field,
            Declared(rule, many, empty or (isinstance(rule, TextRule) and not rule.required)),
        )
    return held[1]


def rule_on(field: FieldInfo) -> FieldRule | None:
    """The rule a field is declared with, on the field itself, on one side of ``... | None`` or on a list's
    members."""
    return declared(field).rule


def _rule_in(annotation: object) -> FieldRule | None:
    for one in getattr(annotation, "__metadata__", ()):
        if isinstance(one, _RULES):
            return one
    if get_origin(annotation) in (Union, UnionType, tuple):
        for inner in get_args(annotation):
            found = _rule_in(inner)
            if found:
                return found
    return None
