"""The request's transaction: explicit in each handler, so that it is committed before an answer is written."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from flask import current_app
from sqlalchemy.orm import Session

from pleat.store.database import transaction


@contextmanager
def reading() -> Iterator[Session]:
    with transaction(current_app.extensions["pleat_engine"], reading=True) as session:
        yield session


@contextmanager
def writing() -> Iterator[Session]:
    with transaction(current_app.extensions["pleat_engine"]) as session:
        yield session
