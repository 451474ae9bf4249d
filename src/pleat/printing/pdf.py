"""Sheets to PDF at true size. The fonts come from this package: the PDF writer takes them from the system
otherwise."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from io import BytesIO

from pleat.printing.letters import use_own_fonts
from pleat.printing.sheets import PrintSheet


def to_pdf(
    sheets: Iterable[PrintSheet], title: str, told: Callable[[PrintSheet], None] = lambda _: None
) -> bytes:
    """One PDF, a page a sheet, each exactly as large as its paper, marked not to be scaled when printed.

    ``told`` hears of each sheet when it is done.
    """
    use_own_fonts()
    import cairosvg  # loads fontconfig, which reads its environment once
    from pypdf import PdfReader, PdfWriter  # half a second that only printing needs
    from pypdf.generic import BooleanObject, DictionaryObject, NameObject

    writer = PdfWriter()
    for sheet in sheets:
        page = cairosvg.svg2pdf(bytestring=sheet.svg.encode(), unsafe=False)
        writer.append(PdfReader(BytesIO(page)))
        told(sheet)
    writer.add_metadata({"/Title": title, "/Producer": "Pleat"})
    preferences = DictionaryObject(
        {
            NameObject("/PrintScaling"): NameObject("/None"),
            NameObject("/PickTrayByPDFSize"): BooleanObject(True),
        }
    )
    writer.root_object[NameObject("/ViewerPreferences")] = preferences
    out = BytesIO()
    writer.write(out)
    return out.getvalue()
