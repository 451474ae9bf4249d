"""Epochs: what a page shows is of the time before a copy was put back, or of the time since. A change from a
page of before is refused."""

from __future__ import annotations

import secrets
from collections.abc import Iterable
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from pleat.core.base.errors import PleatError
from pleat.store.models import EpochRow


class PutBackSince(PleatError):
    """A copy was put back since the page was made that asks; ``begun_at`` says when."""

    def __init__(self, begun_at: datetime) -> None:
        self.begun_at = begun_at
        super().__init__(f"a copy was put back at {begun_at}")


def current(session: Session) -> str:
    """The token of the epoch that pages are made in now."""
    return _row(session).token


def hold(session: Session, given: Iterable[str]) -> None:
    """Raise PutBackSince unless a request comes from a page of this epoch, which said so wherever it says
    it."""
    row, tokens = _row(session), set(given)
    if tokens != {row.token}:
        raise PutBackSince(row.begun_at)


def begin(session: Session, now: datetime) -> None:
    """Pages that were made until now are of another epoch from now on."""
    session.add(EpochRow(token=secrets.token_hex(8), begun_at=now))


def _row(session: Session) -> EpochRow:
    return session.scalars(select(EpochRow).order_by(EpochRow.number.desc()).limit(1)).one()
