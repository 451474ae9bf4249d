"""Three tiny kinds, registered for a test and taken away again: two of a binding, and the cover of the
how-to."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from pleat.core.document import labels
from pleat.core.document.book import Book
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.cover.kinds import COVERS
from tests.kinds import howto, onering, stapled


def _again() -> None:
    """The document as the registries are now."""
    Book.model_rebuild(force=True)
    labels._field_in.cache_clear()


@pytest.fixture(scope="module")
def tiny_kinds() -> Iterator[None]:
    before, covers = BINDINGS.members, COVERS.members
    BINDINGS.members = (*BINDINGS.members, stapled.KIND, onering.KIND)
    COVERS.members = (*covers, howto.module().KIND)
    _again()
    yield
    BINDINGS.members, COVERS.members = before, covers
    _again()
