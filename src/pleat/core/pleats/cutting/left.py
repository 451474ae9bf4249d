"""What Cutting is worked out from."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.pleats.cover.result import CoverResult, LeftOfCover


@dataclass(frozen=True)
class TypedLength:
    """A length of the book as it was typed, with the bounds in mm of its field."""

    path: str
    text: str
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class LeftOfCutting(LeftOfCover):
    """Everything but the bench, and how the book's lengths were typed."""

    cover: CoverResult
    typed: tuple[TypedLength, ...]
