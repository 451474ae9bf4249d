"""The tables. Times are UTC; documents are the JSON of a Book."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import CheckConstraint, DateTime, ForeignKey, Index, MetaData, String, Text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


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
    """A book: which revision is shown, a counter that every change raises, and a summary for the shelf."""

    __tablename__ = "books"
    __table_args__ = (Index("ix_books_binned_changed", "binned_at", "changed_at"), {"sqlite_autoincrement": True})

    id: Mapped[int] = mapped_column(primary_key=True)
    title: Mapped[str] = mapped_column(String(80))
    summary: Mapped[str] = mapped_column(Text)
    version: Mapped[int] = mapped_column(default=1)
    head: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(DateTime)
    changed_at: Mapped[datetime] = mapped_column(DateTime)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class RevisionRow(Base):
    """One state of a book. Undo and redo move the book's ``head`` along these."""

    __tablename__ = "revisions"

    book_id: Mapped[int] = mapped_column(ForeignKey("books.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[str] = mapped_column(Text)
    label: Mapped[str] = mapped_column(String(200))
    made_at: Mapped[datetime] = mapped_column(DateTime)


class ChangeRow(Base):
    """Which browser window made which version, so that a second window can be told."""

    __tablename__ = "changes"

    book_id: Mapped[int] = mapped_column(ForeignKey("books.id", ondelete="CASCADE"), primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    window: Mapped[str] = mapped_column(String(40))
    label: Mapped[str] = mapped_column(String(200))
    made_at: Mapped[datetime] = mapped_column(DateTime)


class PaperRow(Base):
    """A paper on the shelf; ``document`` is the JSON of a Paper."""

    __tablename__ = "papers"
    __table_args__ = (CheckConstraint("length(name) > 0", name="named"), {"sqlite_autoincrement": True})

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60), index=True)
    document: Mapped[str] = mapped_column(Text)
