#!/usr/bin/env python3
"""What a maker sees, as marks: the plan, the page and the print of every example, every book of the demo and
many random books.

A redesign changes none of them: write the marks before it, hold the code against them after each move. Usage:
python -m tools.golden write FILE; python -m tools.golden against FILE
"""

from __future__ import annotations

import hashlib
import json
import re
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Final

from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings

from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan
from pleat.demo import fill
from pleat.examples import names, text
from pleat.printing.sheets import print_sheets
from pleat.services import books as service
from pleat.store import books as store
from pleat.store.database import transaction
from pleat.web.app import create_app
from tests.process import on_its_page
from tests.strategies import books as random_books

from pleat.core.document.book import Book  # isort: skip
from pleat.core.document.bookfile import read_book  # isort: skip

RANDOM: Final = 300
_PASSING: Final = re.compile(
    r'("X-CSRFToken": "|"X-Epoch": "|name="csrf_token" value="|name="epoch" value="|name="window" value="'
    r'|/static/|/books/|data-book=")[^"/]*'
    r"|<time.*?</time>|\d+ UTC"
)
"""What differs from one run to the next: tokens, stamps, numbers of books, times."""


def marks() -> Iterator[tuple[str, str]]:
    """(what, its mark) of everything, in an order that stays."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "golden.db", {"WTF_CSRF_ENABLED": False})
        with transaction(app.extensions["pleat_engine"]) as session:
            fill(session)
            shown = {f"demo {row.id}": row.id for row in store.listing(session)[0]}
            kept = {f"example {name}": read_book(text(name)) for name in names()}
            kept |= {f"random {number}": book for number, book in enumerate(_random())}
            shown |= {name: service.add(session, book, "", "golden") for name, book in kept.items()}
            stored = {name: store.load(session, number).book for name, number in shown.items()}
        client = on_its_page(app)
        for name, number in shown.items():
            yield from _of(client, name, number, stored[name])


def _of(client: FlaskClient, name: str, number: int, book: Book) -> Iterator[tuple[str, str]]:
    plan = make_plan(book)
    yield f"{name}: plan", _mark(json.dumps(plan_data(plan), ensure_ascii=False))
    yield f"{name}: print", _mark("".join(sheet.svg for sheet in print_sheets(plan, book.title, "a4")))
    yield f"{name}: page", _mark(_PASSING.sub("", client.get(f"/books/{number}").text))


def _random() -> list[Book]:
    found: list[Book] = []

    @settings(
        max_examples=RANDOM,
        derandomize=True,
        database=None,
        deadline=None,
        suppress_health_check=list(HealthCheck),
    )
    @given(random_books)
    def collect(book: Book) -> None:
        found.append(book)

    collect()
    return found


def _mark(seen: str) -> str:
    return hashlib.blake2s(seen.encode(), digest_size=10).hexdigest()


def main() -> None:
    what, file = sys.argv[1], Path(sys.argv[2])
    now = dict(marks())
    if what == "write":
        file.write_text(json.dumps(now, indent=0))
        print(f"{len(now)} marks are in {file}")
        return
    before = json.loads(file.read_text())
    other = [name for name in {**before, **now} if before.get(name) != now.get(name)]
    print(f"{len(now)} marks, {len(other)} otherwise: {other[:20] or 'none'}")
    sys.exit(bool(other))


if __name__ == "__main__":
    main()
