"""Texts for paper: how long they are in the fonts shipped here, where they break, and fractions set piece by
piece.

The PDF writer sets every span of a text by itself and reads sizes in percent of the page, so a text goes out
in pieces that stand where they belong.
"""

from __future__ import annotations

import os
import re
import tempfile
from functools import cache, lru_cache
from html import escape
from pathlib import Path
from typing import Any, Final

from pleat.core.base.units import written_fractions
from pleat.drawing.shapes import Anchor

_FONTS: Final = Path(__file__).parent / "fonts"
_SIZE: Final = re.compile(r'font-size="([\d.]+)"')
_FAMILY: Final = re.compile(r'font-family="([^"]+)"')
SMALL: Final = 0.66
"""A figure of a fraction, as a share of the text's size."""
_GAP: Final = 0.12


@cache
def use_own_fonts() -> None:
    """Point fontconfig at the fonts shipped here; must run before the first text is drawn in the process."""
    folder = Path(tempfile.mkdtemp(prefix="pleat-fonts-"))
    config = folder / "fonts.conf"
    config.write_text(
        '<?xml version="1.0"?><!DOCTYPE fontconfig SYSTEM '
        f'"fonts.dtd"><fontconfig><dir>{_FONTS}</dir><cachedir>{folder / "cache"}</cachedir></fontconfig>'
    )
    os.environ["FONTCONFIG_FILE"] = str(config)


@cache
def _context(family: str, bold: bool) -> Any:
    use_own_fonts()
    import cairocffi  # loads fontconfig, which reads its environment once

    context = cairocffi.Context(cairocffi.ImageSurface(cairocffi.FORMAT_A8, 1, 1))
    context.select_font_face(
        family,
        cairocffi.FONT_SLANT_NORMAL,
        cairocffi.FONT_WEIGHT_BOLD if bold else cairocffi.FONT_WEIGHT_NORMAL,
    )
    context.set_font_size(100)
    return context


@lru_cache(maxsize=4096)
def width_mm(text: str, style: str) -> float:
    """How long a text without fractions is, in the family and size that the attributes of ``style`` name."""
    family = _FAMILY.search(style)
    advance: float = _context(family[1] if family else "Pleat Figures", "bold" in style).text_extents(text)[4]
    return advance / 100 * size_mm(style)


def size_mm(style: str) -> float:
    found = _SIZE.search(style)
    return float(found[1]) if found else 3.4


def _pieces(text: str, style: str) -> list[tuple[str, float, float, float]]:
    """(text, share of the size, how far it is raised, how far it advances; in mm) of each piece to be set."""
    size, small, found = size_mm(style), _scaled(style), []
    for piece in written_fractions(text):
        if isinstance(piece, str):
            found.append((piece, 1.0, 0.0, width_mm(piece, style)))
            continue
        gap = _GAP * size if found else 0.0
        found += [("", 1.0, 0.0, gap), (piece[0], SMALL, 0.3 * size, width_mm(piece[0], small))]
        found += [("⁄", 1.0, 0.0, width_mm("⁄", style)), (piece[1], SMALL, 0.0, width_mm(piece[1], small))]
    return found


@lru_cache(maxsize=8192)
def length_mm(text: str, style: str) -> float:
    """How long a text is as it is set, fractions and all."""
    return sum(advance for *_, advance in _pieces(text, style))


def _scaled(style: str) -> str:
    return _SIZE.sub(lambda found: f'font-size="{float(found[1]) * SMALL:.3f}"', style)


def write(x: float, y: float, text: str, style: str, anchor: Anchor) -> str:
    """A text as SVG, its anchor at a point in mm."""
    pieces = _pieces(text, style)
    x -= {"start": 0.0, "middle": 0.5, "end": 1.0}[anchor] * sum(advance for *_, advance in pieces)
    out = []
    for piece, share, up, advance in pieces:
        if words := piece.lstrip():  # the writer leaves out blanks at the beginning
            blank = width_mm(piece, style) - width_mm(words, style) if words != piece else 0.0
            look = style if share == 1.0 else _scaled(style)
            out.append(f'<text {look} x="{x + blank:.3f}" y="{y - up:.3f}">{escape(words)}</text>')
        x += advance
    return "".join(out)


_NEAR: Final = 0.1
"""How far the words of a line by themselves may be from the line as it is set, at most, as a share of its
room."""


def broken(text: str, style: str, room_mm: float) -> list[str]:
    """A text in lines of at most ``room_mm``, between words; a word that is longer is broken where the room
    ends."""
    lines: list[str] = []
    long = 0.0
    for word in text.split():
        longer = long + length_mm(word, style) + width_mm(" ", style)
        near = (
            abs(longer - room_mm) < _NEAR * room_mm
        )  # a fraction stands closer to its whole: such a line is measured as it is set
        if lines and (length_mm(f"{lines[-1]} {word}", style) if near else longer) <= room_mm:
            lines[-1] += f" {word}"
            long = longer
            continue
        while length_mm(word, style) > room_mm:
            most = next(n for n in range(len(word), 0, -1) if n == 1 or length_mm(word[:n], style) <= room_mm)
            lines.append(word[:most])
            word = word[most:]
        if word:
            lines.append(word)
            long = length_mm(word, style)
    return lines or [""]


def shortened(text: str, style: str, room_mm: float) -> str:
    """A text cut off with an ellipsis where it is longer than its room."""
    if length_mm(text, style) <= room_mm:
        return text
    return next(
        (
            f"{text[:n].rstrip()}…"
            for n in range(len(text), 0, -1)
            if length_mm(f"{text[:n]}…", style) <= room_mm
        ),
        "…",
    )
