"""Pleat served, by this process or one of its own, and a browser window without a browser: for tests,
benchmarks and pictures."""

from __future__ import annotations

import re
import subprocess
import sys
import threading
import time
import urllib.parse
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

from flask import Flask
from flask.testing import FlaskClient

from pleat.store import epochs
from pleat.store.database import transaction
from pleat.web.app import create_app
from pleat.web.serving import listening, make_server

ROOT = Path(__file__).parents[1]


def _found(pattern: str, text: str) -> str:
    """What the pattern's group holds, where it first stands in the text."""
    match = re.search(pattern, text)
    assert match, pattern
    return match[1]


class Window:
    """One book open in a window: cookies, the token, what its fields hold, and edits."""

    def __init__(self, address: str, book: int) -> None:
        self.book = f"{address}books/{book}"
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.page = self.opener.open(self.book, timeout=10).read().decode()
        self.version = self._version(self.page)
        self.headers = {
            "X-CSRFToken": _found(r'X-CSRFToken": "([^"]+)"', self.page),
            "X-Epoch": _found(r'X-Epoch": "([^"]+)"', self.page),
        }

    def value(self, path: str) -> str:
        """What the field shows."""
        name = path.replace(".", "-").replace("_", "-")
        return _found(rf'id="i-{name}" name="value" value="([^"]*)"', self.page)

    def edit(self, path: str, value: str) -> None:
        """In the pleat of the path, which is open; returns once the server has acknowledged."""
        fields = {
            "path": path,
            "value": value,
            "version": self.version,
            "window": "process",
            "open": path.partition(".")[0],
        }
        data = urllib.parse.urlencode(fields).encode()
        answer = self.opener.open(urllib.request.Request(f"{self.book}/edit", data, self.headers), timeout=10)
        self.version = self._version(answer.read().decode())

    @staticmethod
    def _version(page: str) -> str:
        return _found(r'name="version" value="(\d+)"', page)


def on_its_page(app: Flask) -> FlaskClient:
    """A client whose requests say that they come from a page of the database's present epoch, as those of
    every page do."""
    made = app.test_client()
    with transaction(app.extensions["pleat_engine"], reading=True) as session:
        made.environ_base["HTTP_X_EPOCH"] = epochs.current(session)
    return made


def pdf_of(client: FlaskClient, address: str) -> bytes:
    """The PDF that is at an address at once, or once its bar is full."""
    answer = client.get(address)
    if answer.status_code == 303:
        going, latest = answer.headers["Location"], time.monotonic() + 60
        while "HX-Redirect" not in (answer := client.get(going, headers={"HX-Request": "true"})).headers:
            assert time.monotonic() < latest, answer.text
            time.sleep(0.02)
        answer = client.get(answer.headers["HX-Redirect"])
    assert answer.mimetype == "application/pdf", answer.status
    return bytes(answer.data)


def serve(database: Path) -> tuple[subprocess.Popen[str], str]:
    """The process serving ``database``, and its address."""
    process = subprocess.Popen(
        [sys.executable, "-m", "pleat", "serve", "--demo", "--port", "0", "--database", str(database)],
        stdout=subprocess.PIPE,
        text=True,
        env={"PYTHONPATH": str(ROOT / "src"), "PYTHONUNBUFFERED": "1"},
    )
    assert process.stdout
    return process, _found(r"(http://\S+)", process.stdout.readline())


@contextmanager
def running(database: Path, config: dict[str, Any] | None = None) -> Iterator[str]:
    """The address of Pleat served from this process as it is in earnest: CSRF, policy and all."""
    with serving(create_app(database, config)) as address:
        yield address


@contextmanager
def serving(app: Flask, port: int = 0) -> Iterator[str]:
    """The address of an application served from this process, at a free port or a given one."""
    server = make_server(app, [listening("127.0.0.1", port)], threads=4)

    listens = threading.Thread(target=server.run, daemon=True)
    listens.start()
    yield f"http://127.0.0.1:{server.effective_port}"

    def close() -> None:
        for channel in [*server.active_channels.values()]:
            channel.close()
        server.close()

    # no answer is still being made and no thread runs on when the next test begins: two that read source at
    # once trip the interpreter
    server.task_dispatcher.shutdown(timeout=10)
    with suppress(
        OSError
    ):  # where the server was awake just then, it has closed already what would have woken it
        server.trigger.pull_trigger(close)
    listens.join(timeout=10)
    assert not listens.is_alive()
    app.extensions["pleat_engine"].dispose()
