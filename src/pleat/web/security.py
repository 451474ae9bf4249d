"""Who may ask, and headers on every answer.

A page of another site that points its name at this machine is turned away by the Host it names; a form of
another site by where it comes from; another device by ``pairing``. No inline script or style anywhere,
nothing from another origin.
"""

from __future__ import annotations

import re
from typing import Final
from urllib.parse import urlsplit

from flask import Flask, Response, abort, current_app, request

from pleat.web import pairing
from pleat.web.database import HEADER, SAFE, reading
from pleat.web.downloads import kept_by_browsers

POLICY: Final = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' data:",
        "font-src 'self'",
        "connect-src 'self'",
        "form-action 'self'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
        "manifest-src 'self'",
    )
)
_HOST: Final = re.compile(r"(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(?::[0-9]{1,5})?")


def register(app: Flask) -> None:
    """``PLEAT_HOSTS`` are names that may be asked for beside this machine's own; with ``PLEAT_PAIRING``
    others give that code first."""
    app.before_request(_known_host)
    app.before_request(_from_here)
    pairing.register(app)
    app.before_request(_of_this_epoch)
    app.after_request(_headers)


def _known_host() -> Response | None:
    """Answered in plain text: a page would need the name to write its links."""
    found = _HOST.fullmatch(request.environ.get("HTTP_HOST", "").lower())
    if found and found[1] in (*pairing.OWN_HOSTS, *current_app.config["PLEAT_HOSTS"]):
        return None
    said = (
        "Pleat was asked for under a name it does not know. Open it by the address it printed when it was "
        "started.\n"
    )
    return Response(said, 400, mimetype="text/plain")


def _from_here() -> None:
    """Changes come from Pleat's own pages: what the browser says of where a form comes from must fit."""
    if request.method in SAFE:
        return
    if request.headers.get("Sec-Fetch-Site", "same-origin") not in ("same-origin", "none"):
        abort(403, "This change came from another page than Pleat's own. Nothing was changed.")
    origin = request.headers.get("Origin")
    if origin is not None and urlsplit(origin).netloc.lower() != request.environ.get("HTTP_HOST", "").lower():
        abort(403, "This change came from another page than Pleat's own. Nothing was changed.")


_OF_ANY_EPOCH: Final = ("pairing.give", "copies.going_back")
"""What changes no book, and is asked across the moment at which a copy is put back."""


def _of_this_epoch() -> None:
    """What a page of before a copy was put back asks for is refused, also where it opens no transaction of
    its own."""
    if request.endpoint not in _OF_ANY_EPOCH and (request.method not in SAFE or HEADER in request.headers):
        with reading():
            pass


def _headers(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "same-origin"
    response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    response.headers["Permissions-Policy"] = "camera=(), geolocation=(), microphone=(), payment=(), usb=()"
    return kept_by_browsers(response)
