"""The server around the application: what it accepts before a request is whole, and when it tidies up."""

from __future__ import annotations

import gc
import socket
import threading
import time
from typing import Any, Final

from flask import Flask, request_started
from waitress import create_server

THREADS: Final = 8
CONNECTIONS: Final = 400
"""Requests wait outside the threads until they are whole, so that half-sent ones take none of them."""
SILENT_S: Final = 30
QUIET_S: Final = 1.0
UNTIDY: Final = 100_000
"""So many new objects, some eighty edits without a pause, are looked through even while somebody waits."""


def make_server(app: Flask, sockets: list[socket.socket], threads: int = THREADS) -> Any:
    """A server on listening sockets. A body that is said to be too large is refused before it is read."""
    return create_server(
        app,
        sockets=sockets,
        threads=threads,
        max_request_body_size=app.config["MAX_CONTENT_LENGTH"],
        connection_limit=CONNECTIONS,
        channel_timeout=SILENT_S,
        cleanup_interval=5,
    )


def tidy_when_quiet(app: Flask, quiet_s: float = QUIET_S) -> None:
    """Look for garbage while nobody waits for an answer, once nothing was asked for ``quiet_s`` seconds: in
    the middle of one it takes a third of an edit's time. For a process that serves and does nothing else,
    when all is loaded."""
    asked = threading.Event()

    def tidy() -> None:
        while asked.wait():
            while asked.is_set():
                asked.clear()
                time.sleep(quiet_s)
            gc.collect()

    request_started.connect(lambda *_args, **_more: asked.set(), app, weak=False)
    threading.Thread(target=tidy, daemon=True).start()
    gc.collect()
    gc.freeze()  # what lives as long as the process is never looked through again
    gc.set_threshold(UNTIDY, *gc.get_threshold()[1:])


def listening(host: str, port: int) -> socket.socket:
    """A socket that is bound, so that its port is known before anything else is. Raises OSError,
    OverflowError."""
    made = socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET, socket.SOCK_STREAM)
    try:
        made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        made.bind((host, port))
    except (OSError, OverflowError):
        made.close()
        raise
    return made
