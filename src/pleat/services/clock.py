"""The time as the tables hold it."""

from __future__ import annotations

from datetime import UTC, datetime


def now() -> datetime:
    """UTC without a zone."""
    return datetime.now(UTC).replace(tzinfo=None)
