"""States of books as they are kept: the JSON of each, squeezed with the help of a text that every book's JSON
is much like.

A state takes some 300 bytes so, instead of 5,000; each can be read without any other. DEFLATE with a preset
dictionary is RFC 1950's. The first byte of a state names its dictionary; a dictionary that was ever used
stays as it is, for ever.
"""

from __future__ import annotations

import zlib
from functools import cache
from pathlib import Path
from typing import Any, Final

from sqlalchemy import Dialect, LargeBinary
from sqlalchemy.types import TypeDecorator

from pleat.core.document.bookfile import LARGEST_FILE

NEWEST: Final = 1


@cache
def _dictionary(number: int) -> bytes:
    """Raises ValueError for one that this Pleat has not."""
    file = Path(__file__).parent / f"states-{number}.txt"
    if not file.exists():
        raise ValueError(f"a state is packed in a way {number} that this Pleat does not know")
    return file.read_bytes()


def packed(text: str) -> bytes:
    squeezer = zlib.compressobj(9, zdict=_dictionary(NEWEST))
    return bytes([NEWEST]) + squeezer.compress(text.encode()) + squeezer.flush()


def unpacked(data: bytes) -> str:
    """Raises ValueError for what is no state, or one larger than any book is."""
    opener = zlib.decompressobj(zdict=_dictionary(data[0] if data else 0))
    try:
        text = opener.decompress(data[1:], 4 * LARGEST_FILE)
    except zlib.error as error:
        raise ValueError("a state cannot be unpacked") from error
    if not opener.eof or opener.unused_data:
        raise ValueError("a state is not whole")
    return text.decode()


class Packed(TypeDecorator[str]):
    """A text that is packed in its column."""

    impl = LargeBinary
    cache_ok = True

    def process_bind_param(self, value: str | None, _: Dialect) -> bytes | None:
        return None if value is None else packed(value)

    def process_result_value(self, value: Any | None, _: Dialect) -> str | None:
        return None if value is None else unpacked(value)
