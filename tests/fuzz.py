"""Requests and files that no maker would send, from a seed: a few hundred in the tests, tens of thousands by
hand (``benchmarks``)."""

from __future__ import annotations

import json
import random
import re
from collections.abc import Iterator, Sequence
from http.client import HTTPConnection
from typing import Any
from urllib.parse import urlencode, urlsplit

from flask import Flask
from werkzeug.routing import Rule

TEXTS = (
    "",
    " ",
    "0",
    "1",
    "-1",
    "5",
    "48 pages",
    "A5",
    "210",
    "8 1/4 in",
    "1/0",
    "1e999",
    "Infinity",
    "NaN",
    "1,500",
    "½",
    "٣",
    "²",
    "\x00",
    "\ud800",
    "9" * 400,
    "9" * 5000,
    " " * 32_000,
    "1 " * 16_000,
    "x" * 300,
    "=1+1",
    "<b>&",
    "65 lb cover",
    "2 1 3 2",
    "1;2;3",
    "a\nb",
    "pamphlet",
    "yes",
    "in",
    "mm",
    "leaf",
    "cover",
    "title",
    "binding.station." + "9" * 3000,
    "x.size",
    "paper.leaf.stock_id",
    "typed",
    "bench.ticks",
    "⁄" * 500,
    "2 in | 2 1 3 2 =over",
    "1.1 out | 1 2 2.2 1 =tail",
    "9.9 in | 9",
    "use",
    "keep",
    "pass",
    "catch",
    "1.1",
    "2.2",
)
NUMBERS = (0, 1, 2, 5, 6, 7, 99, 2**31, 2**63, 9**40)
FIELDS = [
    "path",
    "value",
    "check",
    "label",
    "group",
    "step",
    "done",
    "unlocked",
    "role",
    "paper",
    "thread",
    "version",
    "window",
    "takeover",
    "title",
    "size",
    "count",
    "fit",
    "ruler",
    "number",
    "name",
    "sheet",
    "section",
    "place",
    "do",
    "at",
    "flap",
    "panels",
    "window_width",
    "sections",
    "other",
    "stop",
    "zero",
    "readings",
    "sheets",
    "typed",
    "zero_typed",
    "code",
    "bend",
    "tear",
    "weight",
    "owned",
    "tags",
    "was.owned",
    "q",
    "page",
    "kind",
    "use",
    "sort",
    "make",
    "recipe",
    "fit",
    "own_name",
    "own_size",
    "own_weight",
    "ruler",
    "pages",
    "wish",
    "offer",
    "act",
    "hole",
    "sewn",
    "side",
    "what",
    "taps",
    "rights",
    "part",
    "hand",
]
PATHS = [
    "title",
    "brief.size",
    "brief.leaf_width_mm",
    "binding.kind",
    "brief.ruler",
    "brief.quantity",
    "paper.leaf.weight",
    "paper.leaf.size",
    "paper.leaf.readings_mm",
    "pages.count",
    "pages.flap_mm",
    "pages.sections",
    "binding.station.0",
    "binding.moves",
    "binding.cover_holes_mm",
    "cover.square_mm",
    "cover.score_offset_mm",
    "cutting.lies.leaf",
]


def addresses(rule: Rule, numbers: Sequence[int], words: Sequence[str] = ("paper", "x")) -> list[str]:
    """Addresses that a rule of the url map answers: with each of some numbers, or each of some words, in its
    places."""
    plain = re.sub(r"<any\((?:\w+, )*(\w+)\):\w+>", r"\1", str(rule)).replace(
        "<path:filename>", "css/house.css"
    )
    if "<int:" in plain:
        return [re.sub(r"<\w+>", words[0], re.sub(r"<int:\w+>", str(number), plain)) for number in numbers]
    return [re.sub(r"<\w+>", word, plain) for word in words] if "<" in plain else [plain]


def multipart(fields: dict[str, bytes], files: dict[str, bytes]) -> tuple[bytes, str]:
    """(body, content type) of a form with files (RFC 7578)."""
    edge, out = "fuzzed-part", []
    for name, value in fields.items():
        out.append(
            b'--%s\r\nContent-Disposition: form-data; name="%s"\r\n\r\n%s\r\n'
            % (edge.encode(), name.encode(), value)
        )
    for name, value in files.items():
        head = b'--%s\r\nContent-Disposition: form-data; name="%s"; filename="x.csv"\r\n\r\n' % (
            edge.encode(),
            name.encode(),
        )
        out.append(head + value + b"\r\n")
    return b"".join(out) + f"--{edge}--\r\n".encode(), f"multipart/form-data; boundary={edge}"


class Fuzzer:
    """Requests to every route of a served application, each a known method and address with unknown contents,
    from a page of ``epoch``."""

    def __init__(self, served: str, app: Flask, epoch: str, seed: int) -> None:
        self.dice = random.Random(seed)
        self.where = urlsplit(served)
        self.epoch = epoch
        self.rules = [rule for rule in app.url_map.iter_rules() if rule.endpoint != "static"]

    def text(self) -> str:
        kind = self.dice.random()
        if kind < 0.75:
            return self.dice.choice(TEXTS)
        return "".join(
            chr(self.dice.choice((self.dice.randrange(32, 127), self.dice.randrange(0x250))))
            for _ in range(self.dice.randrange(60))
        )

    def request(self) -> tuple[str, str, int]:
        """(method, address, status) of one request."""
        rule = self.dice.choice(self.rules)
        method = self.dice.choice(sorted((rule.methods or set()) - {"HEAD", "OPTIONS"}))
        number = self.dice.choice((*NUMBERS, *(self.dice.randrange(80) for _ in NUMBERS)))
        address = self.dice.choice(
            addresses(rule, (number,), ("paper", "x", "glue", "stations", "title.db", "%00", "9" * 300))
        )
        given: dict[str, Any] = {self.dice.choice(FIELDS): self.text() for _ in range(self.dice.randrange(6))}
        if self.dice.random() < 0.5:
            given |= {"path": self.dice.choice(PATHS), "value": self.text(), "takeover": "1"}
        files: dict[str, bytes] = {}
        if method == "POST" and self.dice.random() < 0.1:
            files["file"] = self.text().encode("utf-8", "replace")
        return method, address, self._sent(method, address, given, files)

    def _sent(self, method: str, address: str, given: dict[str, Any], files: dict[str, bytes]) -> int:
        """The status of the answer, all of which was read."""
        headers = {"Host": self.where.netloc, "X-Epoch": self.epoch}
        if self.dice.random() < 0.5:
            headers["HX-Request"] = "true"
        raw = {name: value.encode("utf-8", "surrogatepass") for name, value in given.items()}
        body = b""
        if method == "POST":
            if files:
                body, headers["Content-Type"] = multipart(raw, files)
            else:
                body, headers["Content-Type"] = urlencode(raw).encode(), "application/x-www-form-urlencoded"
        elif raw:
            address += f"?{urlencode({name: value[:600] for name, value in raw.items()})}"
        connection = HTTPConnection(self.where.hostname or "", self.where.port, timeout=60)
        try:
            connection.request(method, address, body, headers)
            answer = connection.getresponse()
            answer.read()
            return answer.status
        finally:
            connection.close()


WRECKS: tuple[Any, ...] = (
    None,
    True,
    [],
    {},
    "",
    "x",
    -1,
    0,
    1.5,
    10**30,
    10**400,
    1e308,
    "9" * 400,
    "\ud800",
    [[]],
    {"a": {"b": 1}},
    "8 1/4 in",
    " " * 9000,
)


def mutated_books(text: str, seed: int) -> Iterator[bytes]:
    """A book file with one thing or several wrong in it, without end."""
    dice = random.Random(seed)
    while True:
        kind = dice.random()
        if kind < 0.7:
            data = json.loads(text)
            for _ in range(dice.randrange(1, 4)):
                _wreck(data, dice)
            yield (
                json.dumps(data)
                .replace("1e+308", dice.choice(("1e308", "1e999", "Infinity", "NaN")))
                .encode("utf-8", "surrogatepass")
            )
        elif kind < 0.8:
            yield (
                (b"[" * (deep := dice.choice((50, 400, 980, 5000))) + b"]" * deep)
                if dice.random() < 0.5
                else b'{"brief":' * deep_or(dice) + b"1"
            )
        else:
            raw = bytearray(text.encode())
            for _ in range(dice.randrange(1, 30)):
                at = dice.randrange(len(raw))
                raw[at : at + dice.randrange(3)] = bytes(
                    dice.randrange(256) for _ in range(dice.randrange(3))
                )
            yield bytes(raw)


def deep_or(dice: random.Random) -> int:
    return dice.choice((3, 40, 980))


def _wreck(data: Any, dice: random.Random) -> None:
    """One value somewhere in the document replaced, taken out or doubled under another name."""
    place = data
    while True:
        keys = list(place) if isinstance(place, dict) else list(range(len(place)))
        if not keys:
            return
        key = dice.choice(keys)
        inner = place[key]
        if isinstance(inner, (dict, list)) and inner and dice.random() < 0.8:
            place = inner
            continue
        if isinstance(place, dict) and dice.random() < 0.2:
            place[f"{key}{dice.choice(('', 's', '_mm', '.x'))}x"] = place.pop(key)
        else:
            place[key] = dice.choice(WRECKS)
        return


def mutated_tables(text: str, seed: int) -> Iterator[bytes]:
    """A table of materials with cells, signs between them, quotes and bytes gone wrong, without end."""
    dice = random.Random(seed)
    while True:
        lines = text.splitlines()
        for _ in range(dice.randrange(1, 6)):
            row = dice.randrange(min(6, len(lines)))
            cells = lines[row].split(";")
            cells[dice.randrange(len(cells))] = dice.choice(
                (*TEXTS, '"', 'a "quoted', "65,5 lb", "name\nname", "-5", "1;2", "'=x", "kind of item")
            )
            lines[row] = dice.choice((";", ";", ";", ",", "\t")).join(cells)
        raw = "\n".join(lines).encode("utf-8", "surrogatepass")
        yield raw if dice.random() < 0.9 else raw[: dice.randrange(len(raw))] + b"\xff\x00"
