"""Plans that were made better, by the key of what they are plans of."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from pydantic import TypeAdapter
from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from pleat.core.engines.packing.problem import Packing
from pleat.store.models import PackingRow

_READER: Final = TypeAdapter(Packing)
MOST_KEPT: Final = 400
"""Older ones are worked out anew when they are asked for."""


@dataclass(frozen=True)
class KeptPacking:
    """A plan after so many rounds; ``done`` where nothing was left to do."""

    packing: Packing
    rounds: int
    done: bool


def read(document: str) -> Packing:
    """A plan from its text. Raises ValueError for one that cannot be."""
    return _READER.validate_json(document)


def find(session: Session, keys: Collection[str]) -> dict[str, KeptPacking]:
    rows = session.scalars(select(PackingRow).where(PackingRow.key.in_(keys))) if keys else ()
    return {row.key: KeptPacking(read(row.document), row.rounds, row.done) for row in rows}


def keep(session: Session, key: str, kept: KeptPacking, now: datetime) -> None:
    """Keep a plan, and forget those that were kept long ago."""
    row = session.get(PackingRow, key) or PackingRow(key=key)
    row.document = _READER.dump_json(kept.packing).decode()
    row.rounds, row.done, row.made_at = kept.rounds, kept.done, now
    session.add(row)
    session.flush()
    latest = select(PackingRow.key).order_by(PackingRow.made_at.desc()).limit(MOST_KEPT)
    session.execute(delete(PackingRow).where(PackingRow.key.not_in(latest)))
