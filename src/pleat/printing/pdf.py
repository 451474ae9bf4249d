"""Sheets to PDF at true size. The fonts come from this package: the PDF writer takes them from the system otherwise."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Iterable
from functools import cache
from io import BytesIO
from pathlib import Path
from typing import Final

from pleat.printing.sheets import Sheet

_FONTS: Final = Path(__file__).parent / "fonts"


@cache
def _use_own_fonts() -> None:
    """Point fontconfig at the fonts shipped here; must run before the first text is drawn in the process."""
    folder = Path(tempfile.mkdtemp(prefix="pleat-fonts-"))
    config = folder / "fonts.conf"
    config.write_text(
        f'<?xml version="1.0"?><!DOCTYPE fontconfig SYSTEM "fonts.dtd"><fontconfig><dir>{_FONTS}</dir><cachedir>{folder / "cache"}</cachedir></fontconfig>'
    )
    os.environ["FONTCONFIG_FILE"] = str(config)


def to_pdf(sheets: Iterable[Sheet], title: str) -> bytes:
    """One PDF, a page a sheet, each exactly as large as its paper, marked not to be scaled when printed."""
    _use_own_fonts()
    import cairosvg  # loads fontconfig, which reads its environment once
    from pypdf import PdfReader, PdfWriter  # half a second that only printing needs
    from pypdf.generic import BooleanObject, DictionaryObject, NameObject

    writer = PdfWriter()
    for sheet in sheets:
        page = cairosvg.svg2pdf(bytestring=sheet.svg.encode(), unsafe=False)
        writer.append(PdfReader(BytesIO(page)))
    writer.add_metadata({"/Title": title, "/Producer": "Pleat"})
    preferences = DictionaryObject(
        {NameObject("/PrintScaling"): NameObject("/None"), NameObject("/PickTrayByPDFSize"): BooleanObject(True)}
    )
    writer.root_object[NameObject("/ViewerPreferences")] = preferences
    out = BytesIO()
    writer.write(out)
    return out.getvalue()
