"""What is noted at a step stays, struck or not; a photograph goes in small, upright, and without where it was
taken."""

from __future__ import annotations

from io import BytesIO

import pytest
from PIL import Image

from pleat.core.base.errors import BadBook
from pleat.core.document.book import Book
from pleat.services import books, log
from pleat.services.log import LONGEST_PX, note, small, struck
from pleat.store import log as store

ORIENTATION, MAKER, GPS = 274, 271, 34853


def taken(size=(400, 300), form="JPEG", turned=1):
    """A photograph, red above and blue below as it is seen, taken with the camera turned."""
    seen = Image.new("RGB", size, "red")
    seen.paste("blue", (0, size[1] // 2, *size))
    kept = {1: seen, 6: seen.rotate(90, expand=True), 8: seen.rotate(-90, expand=True)}[turned]
    exif = kept.getexif()
    exif[ORIENTATION], exif[MAKER] = turned, "A camera"
    exif.get_ifd(GPS)[2] = (50.0, 5.0, 0.0)
    out = BytesIO()
    kept.save(out, form, exif=exif)
    return out.getvalue()


@pytest.mark.parametrize("form", ["JPEG", "PNG", "WEBP"])
@pytest.mark.parametrize("turned", [1, 6, 8])
def test_a_photograph_is_turned_upright_and_says_nothing_of_where(form, turned):
    made = small(taken(form=form, turned=turned))
    for told in (b"Exif", b"A camera", b"GPS", b"http"):
        assert told not in made
    with Image.open(BytesIO(made)) as read:
        assert (read.format, read.size) == ("JPEG", (400, 300))
        assert not read.getexif()
        pixels = read.load()
        assert pixels is not None
        above, below = pixels[200, 40], pixels[200, 260]
    assert above[0] > 200 > 60 > above[2]
    assert below[2] > 200 > 60 > below[0]


def test_a_large_one_is_made_small():
    with Image.open(BytesIO(small(taken((4000, 3000))))) as read:
        assert read.size == (LONGEST_PX, LONGEST_PX * 3 // 4)


@pytest.mark.parametrize("given", [b"GIF89a", b"\xff\xd8\xff", b"<svg/>", taken()[:400], b"x" * 5000])
def test_what_is_no_photograph_is_told(given):
    with pytest.raises(BadBook):
        small(given)


def test_a_note_is_struck_by_a_row_of_its_own_and_stays(session):
    book, other = (books.add(session, Book(title=title), "", "made") for title in ("one", "two"))
    note(session, book, "fold", " the bone folder slipped ", None)
    note(session, book, "press", "", small(taken()))
    with pytest.raises(BadBook):
        note(session, book, "press", "  ", None)
    with pytest.raises(BadBook):
        note(session, book, "press", "x" * (log.MOST_LETTERS + 1), None)
    first, second = store.entries(session, book)
    assert (first.step, first.text, first.has_picture, first.struck) == (
        "fold",
        "the bone folder slipped",
        False,
        False,
    )
    assert second.has_picture
    assert store.picture(session, book, second.number)[:3] == b"\xff\xd8\xff"
    struck(session, book, first.number)
    assert [entry.struck for entry in store.entries(session, book)] == [True, False]
    for wrong in (first.number + 40, second.number + 1, 2**70):
        with pytest.raises(store.NoSuchEntry):
            struck(session, book, wrong)
    with pytest.raises(store.NoSuchEntry):
        struck(session, other, second.number)
    with pytest.raises(store.NoSuchEntry):
        store.picture(session, book, 2**70)
    assert store.entries(session, other) == ()
