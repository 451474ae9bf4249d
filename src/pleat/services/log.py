"""What a maker notes at a step: words, and photographs made small, turned upright, without where and by what
they were taken."""

from __future__ import annotations

import csv
from io import BytesIO, StringIO
from typing import Final
from zipfile import ZIP_DEFLATED, ZipFile

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.document.bookfile import write_book
from pleat.core.materials.table import harmless
from pleat.services.clock import now
from pleat.store import books, log

LONGEST_PX: Final = 1600
QUALITY: Final = 82
KINDS: Final = ("JPEG", "PNG", "WEBP")
MOST_PIXELS: Final = 64_000_000
MOST_LETTERS: Final = 4000


def note(session: Session, book_id: int, step: str, text: str, picture: bytes | None) -> None:
    """Keep what was noted, with a picture that was made small. Raises NoSuchBook, and BadBook for what is
    empty or too long."""
    books.load(session, book_id)
    words = text.strip()
    if not words and picture is None:
        raise BadBook([FieldProblem("note", "note", text, "Write something, or choose a photograph.")])
    if len(words) > MOST_LETTERS:
        message = f"That is longer than {MOST_LETTERS} letters: make two notes of it."
        raise BadBook([FieldProblem("note", "note", text, message)])
    log.add(session, book_id, step, words, picture, now())


def small(photograph: bytes) -> bytes:
    """A photograph as a JPEG of 1600 pixels at most, upright, with nothing beside its pixels. Raises BadBook
    for what is no JPEG, PNG or WebP."""
    from PIL import Image, ImageOps, UnidentifiedImageError  # a fifth of a second that only this needs

    try:
        with Image.open(BytesIO(photograph), formats=KINDS) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise ValueError("it has too many pixels")
            opened.draft("RGB", (LONGEST_PX, LONGEST_PX))
            upright = ImageOps.exif_transpose(opened).convert("RGB")
            upright.thumbnail((LONGEST_PX, LONGEST_PX))
            plain = Image.frombytes("RGB", upright.size, upright.tobytes())
            out = BytesIO()
            plain.save(out, "JPEG", quality=QUALITY, optimize=True)
            return out.getvalue()
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError) as error:
        message = "This is no photograph that Pleat can read: take a JPEG, PNG or WebP."
        raise BadBook([FieldProblem("photograph", "photograph", "", message)]) from error


def struck(session: Session, book_id: int, number: int) -> None:
    """Strike an entry. Raises NoSuchEntry."""
    log.strike(session, book_id, number, now())


def packed(session: Session, book_id: int) -> bytes:
    """A ZIP of the book's file, its log as a table, and its photographs. Raises NoSuchBook."""
    book = books.load(session, book_id).book
    table = StringIO()
    rows = csv.writer(table)
    rows.writerow(("number", "at (UTC)", "step", "note", "photograph", "struck"))
    out = BytesIO()
    with ZipFile(out, "w", ZIP_DEFLATED) as file:
        file.writestr("book.pleat.json", write_book(book))
        for entry in log.entries(session, book_id):
            name = f"photographs/{entry.number}.jpg" if entry.has_picture else ""
            struck_ = "struck" if entry.struck else ""
            at = entry.at.isoformat(" ", "seconds")
            rows.writerow((entry.number, at, entry.step, harmless(entry.text), name, struck_))
            if name:
                file.writestr(name, log.picture(session, book_id, entry.number))
        file.writestr("log.csv", table.getvalue())
    return out.getvalue()


def count_copies(session: Session, book_id: int, step: str, copies: int) -> None:
    """Note of how many copies a step is done, where that is another number than before."""
    if log.counts(session, book_id).get(step, 0) != copies:
        log.count(session, book_id, step, copies, now())
