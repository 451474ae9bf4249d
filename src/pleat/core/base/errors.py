"""The errors the core raises; each carries fields, so that nobody has to parse a sentence."""

from __future__ import annotations

from dataclasses import dataclass


class PleatError(Exception):
    """Base of every error Pleat raises on purpose."""


@dataclass(frozen=True)
class FieldProblem:
    """One field that could not be taken: where it is, what was typed, what is wrong and what would do."""

    path: str
    label: str
    typed: str
    message: str


class LengthError(PleatError, ValueError):
    """A text that is not a length. ``typed`` is what was given, ``reason`` says what is wrong with it."""

    def __init__(self, typed: str, reason: str) -> None:
        self.typed = typed
        self.reason = reason
        super().__init__(reason)


class BadBook(PleatError):
    """A book document or an edit that cannot be taken. ``problems`` names every field concerned."""

    def __init__(self, problems: list[FieldProblem]) -> None:
        self.problems = problems
        super().__init__("; ".join(f"{p.label}: {p.message}" for p in problems))
