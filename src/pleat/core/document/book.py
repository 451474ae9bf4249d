"""The Book: the document that is saved, exchanged and planned from. It holds decisions and measurements,
never results.

Pages, binding and cover hold the record of one member of a registry, named by its ``kind``; what was decided
for members left behind is kept in ``aside``. What the formats before this one had otherwise stands in
``formats``, which reads them all. Lengths are mm. In a book file a length may also be a text with its unit
(``"8 1/4 in"``); it is read once, exactly, and how it was typed is kept in ``typed`` so that mixed units can
be pointed out.
"""

from __future__ import annotations

from typing import Annotated, Any, Final, Literal

from pydantic import Field, model_validator

from pleat.core.base.fields import Record, TextRule, Word
from pleat.core.base.kinds import Member, OneOf
from pleat.core.pleats.bench.record import Bench
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.binding.record import Pamphlet
from pleat.core.pleats.brief.record import Brief
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.pleats.cover.record import Wrap
from pleat.core.pleats.cutting.record import Cutting
from pleat.core.pleats.extras.record import Extras
from pleat.core.pleats.pages.kinds import BLOCKS
from pleat.core.pleats.pages.record import Sections
from pleat.core.pleats.paper.record import Papers

FORMAT: Final = 12
"""The version of the document; a reader of format n reads every format up to n."""


class Book(Record):
    """One book, or a run of equal ones. Raises pydantic's ValidationError; read files with
    ``bookfile.read_book``."""

    format: Literal[12] = 12
    title: Annotated[str, TextRule("the title", 80)] = "Untitled book"
    brief: Brief = Brief()
    paper: Papers = Field(default_factory=Papers)
    pages: Annotated[Member, OneOf(BLOCKS)] = Sections()
    extras: Extras = Extras()
    binding: Annotated[Member, OneOf(BINDINGS)] = Pamphlet()
    cover: Annotated[Member, OneOf(COVERS)] = Wrap()
    cutting: Cutting = Cutting()
    bench: Bench = Bench()
    typed: dict[Word, Word] = Field(
        default_factory=dict, max_length=200, description="how lengths were typed, by field"
    )
    aside: dict[Word, dict[Word, dict[str, Any]]] = Field(
        default_factory=dict,
        max_length=3,
        description="what was decided for members left behind, by pleat and member",
    )

    @model_validator(mode="before")
    @classmethod
    def _keep_what_was_typed(cls, data: object) -> object:
        """Lengths given as text in a file leave a record of the text, before they become millimetres."""
        if not isinstance(data, dict) or not isinstance(held := data.get("typed") or {}, dict):
            return data
        typed = {path: text for path, text in _texts(data) if path.endswith("_mm")}
        return {**data, "typed": {**typed, **held}} if typed else data


_DEEPEST: Final = 3
"""How many groups deep a field of a book lies."""


def _texts(data: dict[str, object], prefix: str = "", depth: int = 1) -> list[tuple[str, str]]:
    found: list[tuple[str, str]] = []
    for key, value in data.items():
        if isinstance(value, dict) and key not in ("typed", "aside") and depth < _DEEPEST:
            found += _texts(value, f"{prefix}{key}.", depth + 1)
        elif isinstance(value, str):
            found.append((f"{prefix}{key}", value))
    return found
