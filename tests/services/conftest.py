"""A database of its own for each test, and a session in it."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from sqlalchemy.orm import Session

from pleat.store.database import migrate, open_engine, transaction


@pytest.fixture
def session(database: Path) -> Iterator[Session]:
    migrate(database)
    engine = open_engine(database)
    with transaction(engine) as session:
        yield session
    engine.dispose()
