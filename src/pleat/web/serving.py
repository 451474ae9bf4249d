"""The server around the application: what it accepts before a request is whole."""

from __future__ import annotations

import socket
from typing import Any, Final

from flask import Flask
from waitress import create_server

THREADS: Final = 8
CONNECTIONS: Final = 400
"""Requests wait outside the threads until they are whole, so that half-sent ones take none of them."""
SILENT_S: Final = 30


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


def listening(host: str, port: int) -> socket.socket:
    """A socket that is bound, so that its port is known before anything else is. Raises OSError, OverflowError."""
    made = socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET, socket.SOCK_STREAM)
    try:
        made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        made.bind((host, port))
    except (OSError, OverflowError):
        made.close()
        raise
    return made
