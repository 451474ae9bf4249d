"""Other devices: each is let in once it has given the pairing code that the maker's screen shows, and stays
in until it is sent away."""

from __future__ import annotations

import ipaddress
import secrets
import socket
import time
from collections import OrderedDict, deque
from contextlib import suppress
from typing import Final

from flask import Blueprint, Flask, abort, current_app, flash, redirect, render_template, request, url_for
from itsdangerous import BadSignature, URLSafeTimedSerializer
from markupsafe import Markup
from sqlalchemy.exc import OperationalError
from werkzeug.wrappers import Response as AnyResponse

from pleat.services.clock import now
from pleat.store import devices
from pleat.store.database import transaction
from pleat.web import asked
from pleat.web.database import SAFE, reading, writing

OWN_HOSTS: Final = ("127.0.0.1", "localhost", "[::1]")
PAIRED_FOR_S: Final = 180 * 86_400
TRIES: Final = 8
"""Wrong codes that are listened to from one device in ``TRIES_IN_S``; a code has 10^8."""
TRIES_IN_S: Final = 60.0
_REMEMBERED: Final = 4096
"""Devices whose wrong codes are counted; with more, those longest ago are forgotten."""
_OPEN: Final = ("pairing.pair", "pairing.give", "static")
pages = Blueprint("pairing", __name__, url_prefix="/pair")


class Tries:
    """Wrong codes by device: one that guesses is not listened to for a while, and keeps no other out."""

    def __init__(self) -> None:
        self._missed: OrderedDict[str, deque[float]] = OrderedDict()

    def too_many(self, device: str) -> bool:
        missed = self._missed.get(device)
        return missed is not None and len(missed) == TRIES and time.monotonic() - missed[0] < TRIES_IN_S

    def miss(self, device: str) -> None:
        missed = self._missed.setdefault(device, deque(maxlen=TRIES))
        missed.append(time.monotonic())
        self._missed.move_to_end(device)
        while len(self._missed) > _REMEMBERED:
            self._missed.popitem(last=False)


def register(app: Flask) -> None:
    """With ``PLEAT_PAIRING`` other devices give that code first."""
    app.extensions["pleat_tries"] = Tries()
    app.before_request(_paired)
    app.register_blueprint(pages)


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
        probe.connect(
            ("192.0.2.1", 9)
        )  # a documentation address (RFC 5737): nothing is sent, but the way out is chosen
        found.add(probe.getsockname()[0])
    with suppress(OSError):
        found |= {str(one[4][0]) for one in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)}
    return sorted(one for one in found if not ipaddress.ip_address(one).is_loopback)


def _device() -> str:
    """What a device is told from others by: its address, of which an IPv6 network hands each device as many
    as it likes (RFC 8981)."""
    with suppress(ValueError):
        address = ipaddress.ip_address(request.remote_addr or "")
        if isinstance(address, ipaddress.IPv6Address):
            return str(address.ipv4_mapped or ipaddress.ip_network((int(address), 64), strict=False))
    return request.remote_addr or ""


def _is_local() -> bool:
    try:
        address = ipaddress.ip_address(request.remote_addr or "")
    except ValueError:
        return False
    mapped = address.ipv4_mapped if isinstance(address, ipaddress.IPv6Address) else None
    return (mapped or address).is_loopback


# --- who is let in
# --------------------------------------------------------------------------------------------


def _signer() -> URLSafeTimedSerializer:
    return URLSafeTimedSerializer(str(current_app.secret_key), salt="pairing")


def _cookie() -> str:
    return f"{current_app.config['SESSION_COOKIE_NAME']}_paired"


def _paired() -> AnyResponse | None:
    if not current_app.config["PLEAT_PAIRING"] or _is_local() or request.endpoint in _OPEN or _known():
        return None
    if request.method in SAFE and not request.headers.get("HX-Request"):
        return redirect(url_for("pairing.pair"), 303)
    return abort(403, "This device is not paired, or no longer. Reload the page and give the pairing code.")


def _known() -> bool:
    """Whether the device was let in and not sent away since; it is kept when it was last seen."""
    try:
        known_by = _signer().loads(request.cookies.get(_cookie(), ""), max_age=PAIRED_FOR_S)
    except BadSignature:
        return False
    engine, address = current_app.extensions["pleat_engine"], request.remote_addr or ""
    with transaction(engine, reading=True) as session:
        device = devices.known(session, str(known_by))
        if device is None:
            return False
        number, late = device.id, now() - device.seen_at > devices.SEEN_EVERY or device.address != address
    if late:
        with (
            suppress(OperationalError),
            transaction(engine) as session,
        ):  # where others write just now, it is kept another time
            devices.seen(session, number, address, now())
    return True


# --- the page
# -------------------------------------------------------------------------------------------------


@pages.get("")
def pair() -> str | AnyResponse | tuple[str, int]:
    """On the maker's own screen the code, to be read or scanned, and the devices that get in; elsewhere the
    question for it, or the answer that was scanned."""
    code = current_app.config["PLEAT_PAIRING"]
    if not code:
        return redirect(url_for("library.index"), 303)
    if _is_local():
        with reading() as session:
            let_in = devices.listing(session)
        return render_template(
            "pairing/code.html",
            code=code,
            places=[(place, qr(place)) for place in _places(code)],
            devices=let_in,
        )
    return _tried(asked.word(request.args, "code", 20), "") if request.args.get("code") else _ask("")


@pages.post("")
def give() -> AnyResponse | tuple[str, int]:
    return _tried(asked.word(request.form, "code", 20), asked.word(request.form, "name", 60).strip())


@pages.post("/<int:device_id>/away")
def send_away(device_id: int) -> AnyResponse:
    """A device gets in no more. Only the maker's own screen says so."""
    if not _is_local():
        abort(403, "Devices are sent away on the maker's own screen.")
    with writing() as session:
        name = devices.send_away(session, device_id, now())
    flash(
        f"{name} gets in no more; with the pairing code it would again."
        if name
        else "That device gets in no more already."
    )
    return redirect(url_for("pairing.pair"), 303)


def _places(code: str) -> list[str]:
    port = current_app.config["PLEAT_PORT"]
    names = [name for name in current_app.config["PLEAT_HOSTS"] if name not in OWN_HOSTS]
    return [f"http://{name}:{port}/pair?code={code.replace(' ', '')}" for name in names]


def qr(text: str) -> Markup:
    """A text as a QR code (ISO/IEC 18004), drawn."""
    import segno

    drawn: str = segno.make(text, error="m").svg_inline(border=4, dark="#000", light="#fff", omitsize=True)
    return Markup(drawn)


def _tried(given: str, name: str) -> AnyResponse | tuple[str, int]:
    """Let a device in that knows the code; one that gave too many wrong ones is not listened to for a
    while."""
    tries: Tries = current_app.extensions["pleat_tries"]
    device = _device()
    if tries.too_many(device):
        return _ask(
            "Too many wrong codes from this device. Wait a minute, then read it off the maker's screen."
        ), 429
    wanted = str(current_app.config["PLEAT_PAIRING"]).replace(" ", "")
    if not wanted or not secrets.compare_digest("".join(given.split()).encode(), wanted.encode()):
        tries.miss(device)
        return _ask("That is not the code. It stands on the maker's screen, under “pair a tablet”."), 422
    with transaction(current_app.extensions["pleat_engine"]) as session:
        known_by = devices.let_in(session, name, request.remote_addr or "", now())
    answer = redirect(url_for("library.index"), 303)
    answer.set_cookie(
        _cookie(), str(_signer().dumps(known_by)), max_age=PAIRED_FOR_S, samesite="Lax", httponly=True
    )
    return answer


def _ask(problem: str) -> str:
    return render_template("pairing/ask.html", problem=problem, name=asked.word(request.form, "name", 60))
