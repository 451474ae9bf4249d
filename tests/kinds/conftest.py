"""Two tiny kinds of book, registered for a test and taken away again."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from pleat.core.document import labels
from pleat.core.document.book import Book
from pleat.core.pleats.binding.kinds import BINDINGS
from tests.kinds import onering, stapled


def _again() -> None:
    """The document as the registries are now."""
    Book.model_rebuild(force=True)
    labels._field_in.cache_clear()


@pytest.fixture(scope="module")
def tiny_kinds() -> Iterator[None]:
    before = BINDINGS.members
    BINDINGS.members = (*BINDINGS.members, stapled.KIND, onering.KIND)
    _again()
    yield
    BINDINGS.members = before
    _again()
