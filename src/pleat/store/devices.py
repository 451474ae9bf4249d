"""Devices that gave the pairing code: who they are, when they were last seen, and which were sent away. They
stay what they are when a copy is put back."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Final

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from pleat.store.models import DeviceRow, is_id

SEEN_EVERY: Final = timedelta(minutes=1)
"""How finely it is kept when a device was last seen."""


def let_in(session: Session, name: str, address: str, now: datetime) -> str:
    """Let a device in; what it is known by from then on."""
    number = (session.scalar(select(func.max(DeviceRow.id))) or 0) + 1
    row = DeviceRow(name=name[:60] or f"device {number}", address=address[:60], paired_at=now, seen_at=now)
    session.add(row)
    session.flush()
    return f"{row.id} {row.paired_at.isoformat()}"


def known(session: Session, known_by: str) -> DeviceRow | None:
    """The device that is known by this; None for one that never was let in here, or was sent away."""
    number, _, since = known_by.partition(" ")
    row = session.get(DeviceRow, int(number)) if number.isdecimal() and is_id(int(number)) else None
    return row if row and row.gone_at is None and row.paired_at.isoformat() == since else None


def seen(session: Session, device_id: int, address: str, now: datetime) -> None:
    session.execute(
        update(DeviceRow).where(DeviceRow.id == device_id).values(seen_at=now, address=address[:60])
    )


def listing(session: Session) -> Sequence[DeviceRow]:
    """Those that get in, the one seen last first."""
    return session.scalars(
        select(DeviceRow).where(DeviceRow.gone_at.is_(None)).order_by(DeviceRow.seen_at.desc(), DeviceRow.id)
    ).all()


def send_away(session: Session, device_id: int, now: datetime) -> str:
    """What the device was called that gets in no more; "" where there is none."""
    row = session.get(DeviceRow, device_id) if is_id(device_id) else None
    if row is None or row.gone_at is not None:
        return ""
    row.gone_at = now
    return row.name
