"""Pleat as a process of its own, and a browser window without a browser: for the tests of the command line and the benchmarks."""

from __future__ import annotations

import re
import subprocess
import sys
import urllib.parse
import urllib.request
from http.cookiejar import CookieJar
from pathlib import Path

ROOT = Path(__file__).parents[1]


class Window:
    """One book open in a window: cookies, the token, what its fields hold, and edits."""

    def __init__(self, address: str, book: int) -> None:
        self.book = f"{address}books/{book}"
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.page = self.opener.open(self.book, timeout=10).read().decode()
        self.token = re.search(r'X-CSRFToken": "([^"]+)"', self.page)[1]

    def value(self, path: str) -> str:
        """What the field shows."""
        name = path.replace(".", "-").replace("_", "-")
        return re.search(rf'id="i-{name}" name="value" value="([^"]*)"', self.page)[1]

    def edit(self, path: str, value: str) -> None:
        """Returns once the server has acknowledged."""
        data = urllib.parse.urlencode({"path": path, "value": value, "takeover": "1"}).encode()
        self.opener.open(urllib.request.Request(f"{self.book}/edit", data, {"X-CSRFToken": self.token}), timeout=10).read()


def serve(database: Path) -> tuple[subprocess.Popen[str], str]:
    """The process serving ``database``, and its address."""
    process = subprocess.Popen(
        [sys.executable, "-m", "pleat", "serve", "--demo", "--port", "0", "--database", str(database)],
        stdout=subprocess.PIPE,
        text=True,
        env={"PYTHONPATH": str(ROOT / "src"), "PYTHONUNBUFFERED": "1"},
    )
    return process, re.search(r"http://\S+", process.stdout.readline())[0]
