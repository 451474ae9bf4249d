"""The tables. Times are UTC; documents are the JSON of a Book, packed."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import CheckConstraint, DateTime, ForeignKey, Index, LargeBinary, MetaData, String, Text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from pleat.store.packing import Packed


def is_id(number: int) -> bool:
    """Whether a number can be an id at all: SQLite holds no larger ones, and asking for one is an error of
    its own."""
    return 0 < number < 2**63


class Base(DeclarativeBase):
    """Named constraints, so that a later migration can find them."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "ck": "ck_%(table_name)s_%(constraint_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )


class BookRow(Base):
    """A book: which revision is shown, a counter that every change raises, and a summary for the list."""

    __tablename__ = "books"
    __table_args__ = (
        Index("ix_books_binned_changed", "binned_at", "changed_at"),
        {"sqlite_autoincrement": True},
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    title: Mapped[str] = mapped_column(String(80))
    summary: Mapped[str] = mapped_column(Text)
    version: Mapped[int] = mapped_column(default=1)
    head: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(DateTime)
    changed_at: Mapped[datetime] = mapped_column(DateTime)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class RevisionRow(Base):
    """One state of a book. Undo and redo move the book's ``head`` along these; one with a ``name`` is never
    thinned out."""

    __tablename__ = "revisions"

    book_id: Mapped[int] = mapped_column(ForeignKey("books.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[str] = mapped_column("state", Packed)
    label: Mapped[str] = mapped_column(String(200))
    made_at: Mapped[datetime] = mapped_column(DateTime)
    name: Mapped[str | None] = mapped_column(String(80), default=None)


class ChangeRow(Base):
    """Which browser window made which version, so that a second window can be told."""

    __tablename__ = "changes"

    book_id: Mapped[int] = mapped_column(ForeignKey("books.id", ondelete="CASCADE"), primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    window: Mapped[str] = mapped_column(String(40))
    label: Mapped[str] = mapped_column(String(200))
    made_at: Mapped[datetime] = mapped_column(DateTime)


class ItemRow(Base):
    """A thing among the materials; ``document`` is the JSON of its item, the other columns are what it is
    searched and sorted by.

    ``uses`` holds what a paper is good for, each between commas; ``gone_at`` is set when it is taken away;
    every change raises ``version``.
    """

    __tablename__ = "items"
    __table_args__ = (
        CheckConstraint("length(name) > 0", name="named"),
        Index("ix_items_gone_kind_name", "gone_at", "kind", "name"),
        {"sqlite_autoincrement": True},
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(20))
    name: Mapped[str] = mapped_column(String(60))
    words: Mapped[str] = mapped_column(Text)
    width_mm: Mapped[float | None]
    height_mm: Mapped[float | None]
    thickness_mm: Mapped[float | None]
    grain: Mapped[str | None] = mapped_column(String(1))
    owned: Mapped[int | None]
    upright_only: Mapped[bool]
    uses: Mapped[str] = mapped_column(String(60))
    document: Mapped[str] = mapped_column(Text)
    changed_at: Mapped[datetime] = mapped_column(DateTime)
    gone_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)
    version: Mapped[int] = mapped_column(default=1)


class PracticeRow(Base):
    """How often one move of a stitch was tapped right and wrong; ``spot`` is the move in words."""

    __tablename__ = "practice"

    stitch: Mapped[str] = mapped_column(String(40), primary_key=True)
    spot: Mapped[str] = mapped_column(String(200), primary_key=True)
    right: Mapped[int] = mapped_column(default=0)
    wrong: Mapped[int] = mapped_column(default=0)


class TakingRow(Base):
    """What a ticked bench step took from the materials (``amount`` above 0) or brought to it (below 0, an
    offcut)."""

    __tablename__ = "takings"

    id: Mapped[int] = mapped_column(primary_key=True)
    book_id: Mapped[int] = mapped_column(ForeignKey("books.id", ondelete="CASCADE"), index=True)
    step: Mapped[str] = mapped_column(String(40))
    item_id: Mapped[int] = mapped_column(ForeignKey("items.id", ondelete="CASCADE"), index=True)
    amount: Mapped[int]


class CutSheetRow(Base):
    """Sheets that were cut for a book; ``document`` is the JSON of the fact. What they took from the
    materials stands among the takings."""

    __tablename__ = "cut_sheets"
    __table_args__ = ({"sqlite_autoincrement": True},)

    id: Mapped[int] = mapped_column(primary_key=True)
    book_id: Mapped[int] = mapped_column(ForeignKey("books.id", ondelete="CASCADE"), index=True)
    document: Mapped[str] = mapped_column(Text)
    cut_at: Mapped[datetime] = mapped_column(DateTime)


class LogRow(Base):
    """Something that happened while a book was made: ``noted``; ``ticked``, with the copies that are done by
    then; or ``struck`` for a row that strikes the one named in ``strikes``. Rows are added, never changed.
    ``picture`` is a JPEG."""

    __tablename__ = "log"
    __table_args__ = ({"sqlite_autoincrement": True},)

    id: Mapped[int] = mapped_column(primary_key=True)
    book_id: Mapped[int] = mapped_column(ForeignKey("books.id", ondelete="CASCADE"), index=True)
    step: Mapped[str] = mapped_column(String(60))
    kind: Mapped[str] = mapped_column(String(12))
    text: Mapped[str] = mapped_column(Text)
    picture: Mapped[bytes | None] = mapped_column(LargeBinary, default=None)
    strikes: Mapped[int | None] = mapped_column(default=None)
    at: Mapped[datetime] = mapped_column(DateTime)


class PackingRow(Base):
    """A plan of sheets that was made better by ``rounds``, by the key of what it is a plan of; ``done`` where
    nothing was left to do."""

    __tablename__ = "packings"

    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    document: Mapped[str] = mapped_column(Text)
    rounds: Mapped[int]
    done: Mapped[bool]
    made_at: Mapped[datetime] = mapped_column(DateTime)


class EpochRow(Base):
    """From when on the database holds what it holds: a new one begins whenever a copy is put back, and pages
    of an older one are told."""

    __tablename__ = "epochs"
    __table_args__ = ({"sqlite_autoincrement": True},)

    number: Mapped[int] = mapped_column(primary_key=True)
    token: Mapped[str] = mapped_column(String(32))
    begun_at: Mapped[datetime] = mapped_column(DateTime)


class DeviceRow(Base):
    """A device that gave the pairing code; ``gone_at`` is set when the maker sent it away."""

    __tablename__ = "devices"
    __table_args__ = ({"sqlite_autoincrement": True},)

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    address: Mapped[str] = mapped_column(String(60))
    paired_at: Mapped[datetime] = mapped_column(DateTime)
    seen_at: Mapped[datetime] = mapped_column(DateTime)
    gone_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)
