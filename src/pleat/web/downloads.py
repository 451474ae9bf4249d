"""What goes out as a file: its name in whatever script, and nothing kept by the browser but what never
changes under its address."""

from __future__ import annotations

import hashlib
import io
from pathlib import Path

from flask import Response, request, send_file


def download(data: str | bytes, name: str, mimetype: str, inline: bool = False) -> Response:
    """An answer that the browser keeps as a file of this name, or shows with ``inline``.

    The name goes out twice, as RFC 6266 and RFC 8187 have it: in ASCII, and in full as ``filename*``.
    """
    raw = data.encode() if isinstance(data, str) else data
    return send_file(io.BytesIO(raw), mimetype, as_attachment=not inline, download_name=name)


def stamp(folder: Path) -> str:
    """A name for what is shipped in a folder, another one whenever any of it changed."""
    made = hashlib.blake2s(digest_size=6)
    for file in sorted(path for path in folder.rglob("*") if path.is_file()):
        made.update(f"{file.relative_to(folder)} {file.stat().st_size} ".encode())
        made.update(file.read_bytes())
    return made.hexdigest()


def kept_by_browsers(response: Response) -> Response:
    """Shipped files for a year, since their address changes with them; all else never: a page, a copy or a
    print is of this moment."""
    shipped = request.endpoint == "static" and response.status_code in (200, 206, 304)
    response.headers["Cache-Control"] = "public, max-age=31536000, immutable" if shipped else "no-store"
    return response
