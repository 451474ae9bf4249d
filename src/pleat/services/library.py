"""The list of books: lists, copies, files in and out."""

from __future__ import annotations

import json
import re
import unicodedata
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Final

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook
from pleat.core.document.bookfile import read_book, write_book
from pleat.core.materials.table import write_table
from pleat.services import books, counts, materials
from pleat.services.following import let_go
from pleat.services.planned import plan_of
from pleat.store import books as book_store
from pleat.store import items as item_store


@dataclass(frozen=True)
class Listed:
    """A book as the list shows it."""

    id: int
    title: str
    changed_at: datetime
    binned_at: datetime | None
    about: dict[str, object]


def listing(
    session: Session, search: str, page: int, binned: bool = False, per_page: int = 48
) -> tuple[list[Listed], int]:
    """(one page of books, how many there are)."""
    rows, count = book_store.listing(session, search, binned, page, per_page)
    return [
        Listed(row.id, row.title, row.changed_at, row.binned_at, _about(session, row.id, row.summary))
        for row in rows
    ], count


def _about(session: Session, book_id: int, summary: str) -> dict[str, object]:
    """What the list shows of a book; worked out anew for one that was stored before the list had
    portraits."""
    about: dict[str, object] = json.loads(summary)
    if "portrait" in about:
        return about
    book = book_store.load(session, book_id, binned=True).book
    fresh: dict[str, object] = json.loads(books.summary(book, plan_of(book, materials.tools(session))))
    return fresh


def duplicate(session: Session, book_id: int) -> int:
    """A copy with nothing ticked; its id. Raises NoSuchBook."""
    book = book_store.load(session, book_id).book
    copy = book.model_copy(
        update={"title": f"{book.title[:73]} (copy)", "bench": book.bench.model_copy(update={"ticks": {}})}
    )
    return books.add(session, copy, "", f"copied from {book.title}")


def export(session: Session, book_id: int) -> tuple[str, str]:
    """(file name, JSON text). Raises NoSuchBook."""
    book = book_store.load(session, book_id).book
    return f"{file_name(book.title)}.pleat.json", write_book(book)


LONGEST_NAME: Final = 120
"""Bytes of a title in the name of a file. Disks take 255 for the whole name, encrypted ones 143."""
_FORBIDDEN: Final = re.compile(r"(con|prn|aux|nul|com[0-9¹²³]|lpt[0-9¹²³])", re.IGNORECASE)
"""Names of devices, which Windows takes for no file whatever follows the first dot (its naming rules, Win32
documentation)."""


def file_name(title: str) -> str:
    """A title of any script as the name of a file: letters composed with their marks (NFC), digits, and
    dashes for all else."""
    composed = unicodedata.normalize("NFC", title.lower())
    kept = "".join(c if unicodedata.category(c)[0] in "LMN" or c in "\u200c\u200d" else "-" for c in composed)
    name = _cut(re.sub("-+", "-", kept).strip("-"), LONGEST_NAME) or "book"
    return f"{name}-book" if _FORBIDDEN.fullmatch(name) else name


def _cut(name: str, most: int) -> str:
    """As much of a name as so many bytes hold; no letter loses its marks, nor is what joins two left at the
    end."""
    end, size = 0, 0
    for place, sign in enumerate(name):
        size += len(sign.encode())
        if size > most:
            break
        following = name[place + 1 : place + 2]
        if not following or not (
            unicodedata.category(following)[0] == "M" or following in "\u200c\u200d" or sign in "\u200c\u200d"
        ):
            end = place + 1
    return name[:end].strip("-\u200c\u200d")


@dataclass(frozen=True)
class Exported:
    """What was written: how many books and materials, and a line for each file that could not be."""

    books: int
    items: int
    failed: tuple[str, ...] = ()


def export_all(session: Session, folder: Path) -> Exported:
    """Every book as a file and the materials as a table into a folder, which is made. One that fails does not
    end the rest.

    Raises OSError where the folder cannot be made.
    """
    folder.mkdir(parents=True, exist_ok=True)
    taken: set[str] = set()
    failed: list[str] = []
    rows, _ = book_store.listing(session, per_page=10**9)
    written = 0
    for row in rows:
        name = _free(file_name(row.title), row.id, taken)
        with _told(f"“{row.title}” as {name}.pleat.json", failed):
            (folder / f"{name}.pleat.json").write_text(
                write_book(book_store.load(session, row.id).book), encoding="utf-8"
            )
            written += 1
    items = 0
    with _told("the materials as materials.csv", failed):
        found = [stored.item for stored in item_store.everything(session)]
        (folder / "materials.csv").write_text("\ufeff" + write_table(found), encoding="utf-8", newline="")
        items = len(found)
    return Exported(written, items, tuple(failed))


def _free(name: str, book_id: int, taken: set[str]) -> str:
    """A name that no other file has, on disks as well that take Æ and æ, or ß and ss, for one."""

    def known_as(one: str) -> str:
        return unicodedata.normalize("NFC", one.casefold())

    while known_as(name) in taken:
        name = f"{name}-{book_id}"
    taken.add(known_as(name))
    return name


@contextmanager
def _told(what: str, failed: list[str]) -> Iterator[None]:
    try:
        yield
    except OSError as error:
        failed.append(f"{what}: {error.strerror}")
    except BadBook as error:
        failed.append(f"{what}: {error.problems[0].message}")
    except (ValueError, KeyError) as error:
        failed.append(f"{what}: it cannot be read ({type(error).__name__})")


def take_in(session: Session, text: bytes) -> tuple[int, list[str]]:
    """A book from a file's contents: its id, and the papers it names that are not among these materials.

    Raises BadBook and then changes nothing.
    """
    book, lost = counts.relinked(session, let_go(read_book(text)))
    return books.add(session, book, "", "taken from a file"), lost
