"""Who may ask, and headers on every answer.

A page of another site that points its name at this machine is turned away by the Host it names; a form of another site by where it
comes from. On another address than this machine's own, a browser is let in once it has given the pairing code that the maker's screen
shows. No inline script or style anywhere, nothing from another origin.
"""

from __future__ import annotations

import ipaddress
import re
import secrets
import socket
import time
from collections import deque
from contextlib import suppress
from typing import Final
from urllib.parse import urlsplit

from flask import Blueprint, Flask, Response, abort, current_app, redirect, render_template, request, url_for
from itsdangerous import BadSignature, URLSafeTimedSerializer
from markupsafe import Markup
from werkzeug.wrappers import Response as AnyResponse

from pleat.web import asked
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
OWN_HOSTS: Final = ("127.0.0.1", "localhost", "[::1]")
PAIRED_FOR_S: Final = 180 * 86_400
TRIES: Final = 8
"""Wrong codes that are listened to in ``TRIES_IN_S``, from whomever; a code has 10^8."""
TRIES_IN_S: Final = 60.0
_HOST: Final = re.compile(r"(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(?::[0-9]{1,5})?")
pages = Blueprint("pairing", __name__)


def register(app: Flask) -> None:
    """``PLEAT_HOSTS`` are names that may be asked for beside this machine's own; with ``PLEAT_PAIRING`` others give that code first."""
    app.extensions["pleat_tries"] = deque(maxlen=TRIES)
    app.before_request(_known_host)
    app.before_request(_from_here)
    app.before_request(_paired)
    app.before_request(_of_this_epoch)
    app.after_request(_headers)
    app.register_blueprint(pages)


def _known_host() -> Response | None:
    """Answered in plain text: a page would need the name to write its links."""
    found = _HOST.fullmatch(request.environ.get("HTTP_HOST", "").lower())
    if found and found[1] in (*OWN_HOSTS, *current_app.config["PLEAT_HOSTS"]):
        return None
    said = "Pleat was asked for under a name it does not know. Open it by the address it printed when it was started.\n"
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
    """What a page of before a copy was put back asks for is refused, also where it opens no transaction of its own."""
    if request.endpoint not in _OF_ANY_EPOCH and (request.method not in SAFE or HEADER in request.headers):
        with reading():
            pass


# --- pairing ------------------------------------------------------------------------------------------------


def new_code() -> str:
    """Eight digits, in two groups."""
    number = secrets.randbelow(10**8)
    return f"{number // 10_000:04d} {number % 10_000:04d}"


def addresses(host: str) -> list[str]:
    """The addresses by which other machines reach this one when it listens on ``host``."""
    if host not in ("0.0.0.0", "::", ""):
        return [host]
    found = set()
    with suppress(OSError), socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.connect(("192.0.2.1", 9))  # a documentation address (RFC 5737): nothing is sent, but the way out is chosen
        found.add(probe.getsockname()[0])
    with suppress(OSError):
        found |= {str(one[4][0]) for one in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)}
    return sorted(one for one in found if not ipaddress.ip_address(one).is_loopback)


def _is_local() -> bool:
    try:
        return ipaddress.ip_address(request.remote_addr or "").is_loopback
    except ValueError:
        return False


def _signer() -> URLSafeTimedSerializer:
    return URLSafeTimedSerializer(str(current_app.secret_key), salt="pairing")


def _cookie() -> str:
    return f"{current_app.config['SESSION_COOKIE_NAME']}_paired"


def _paired() -> AnyResponse | None:
    if not current_app.config["PLEAT_PAIRING"] or _is_local() or request.endpoint in ("pairing.pair", "pairing.give", "static"):
        return None
    try:
        _signer().loads(request.cookies.get(_cookie(), ""), max_age=PAIRED_FOR_S)
    except BadSignature:
        if request.method in SAFE and not request.headers.get("HX-Request"):
            return redirect(url_for("pairing.pair"), 303)
        abort(403, "This device is not paired, or no longer. Reload the page and give the pairing code.")
    return None


@pages.get("/pair")
def pair() -> str | AnyResponse | tuple[str, int]:
    """On the maker's own screen the code, to be read or scanned; elsewhere the question for it, or the answer that was scanned."""
    code = current_app.config["PLEAT_PAIRING"]
    if not code:
        return redirect(url_for("library.index"), 303)
    if _is_local():
        return render_template("pairing/code.html", code=code, places=[(place, qr(place)) for place in _places(code)])
    return _tried(asked.word(request.args, "code", 20)) if request.args.get("code") else render_template("pairing/ask.html", problem="")


@pages.post("/pair")
def give() -> AnyResponse | tuple[str, int]:
    return _tried(asked.word(request.form, "code", 20))


def _places(code: str) -> list[str]:
    port = current_app.config["PLEAT_PORT"]
    names = [name for name in current_app.config["PLEAT_HOSTS"] if name not in OWN_HOSTS]
    return [f"http://{name}:{port}/pair?code={code.replace(' ', '')}" for name in names]


def qr(text: str) -> Markup:
    """A text as a QR code (ISO/IEC 18004), drawn."""
    import segno

    drawn: str = segno.make(text, error="m").svg_inline(border=4, dark="#000", light="#fff", omitsize=True)
    return Markup(drawn)


def _tried(given: str) -> AnyResponse | tuple[str, int]:
    """Let a device in that knows the code; too many wrong ones from anywhere are not listened to for a while."""
    tries: deque[float] = current_app.extensions["pleat_tries"]
    moment = time.monotonic()
    if len(tries) == TRIES and moment - tries[0] < TRIES_IN_S:
        return render_template("pairing/ask.html", problem="Too many wrong codes. Wait a minute, then read it off the maker's screen."), 429
    wanted = str(current_app.config["PLEAT_PAIRING"]).replace(" ", "")
    if not wanted or not secrets.compare_digest("".join(given.split()).encode(), wanted.encode()):
        tries.append(moment)
        return render_template(
            "pairing/ask.html", problem="That is not the code. It stands on the maker's screen, under “pair a tablet”."
        ), 422
    answer = redirect(url_for("library.index"), 303)
    answer.set_cookie(_cookie(), str(_signer().dumps("paired")), max_age=PAIRED_FOR_S, samesite="Lax", httponly=True)
    return answer


def _headers(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "same-origin"
    response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    response.headers["Permissions-Policy"] = "camera=(), geolocation=(), microphone=(), payment=(), usb=()"
    return kept_by_browsers(response)
