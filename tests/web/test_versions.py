"""What was made with an older Pleat: a database of each version opens, lists, undoes, prints and goes out."""

from __future__ import annotations

import io
import re
import shutil
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest

from pleat.core.document.bookfile import read_book
from pleat.services import copies
from pleat.store.database import migrate
from pleat.web.app import put_on
from tests.process import on_its_page, pdf_of
from tests.profiles import some
from tests.store.copying import SECOND, VERSIONS, of_version

NAMED_SINCE = (0, 4)


def first_titles(file: Path, into: Path) -> dict[int, str]:
    """What each book of an old database was called at first, read without Pleat."""
    with closing(sqlite3.connect(of_version(file, into))) as connection:
        return dict(
            connection.execute(
                "SELECT book_id, json_extract(document, '$.title') FROM revisions WHERE number = 1"
            )
        )


@pytest.mark.every(2)
@pytest.mark.parametrize("file", some(VERSIONS, 4, 1), ids=lambda file: file.name[:-6])
def test_a_database_of_each_version_opens_lists_undoes_prints_and_goes_out(app, database, tmp_path, file):
    version = file.name.removesuffix(".db.gz")
    shutil.copyfile(of_version(file, tmp_path), database)
    migrate(database)
    put_on(app, database)
    client = on_its_page(app)
    listed = client.get("/").text
    numbers = sorted({int(one) for one in re.findall(r"/books/(\d+)/export", listed)})
    assert len(numbers) >= 4
    assert SECOND not in numbers
    assert f"Log {SECOND} of {version}" in client.get("/bin").text
    assert client.post(f"/books/{SECOND}/restore").status_code == 303
    begun = first_titles(file, tmp_path)
    for number in (*numbers, SECOND):
        page = client.get(f"/books/{number}?open=brief")
        assert page.status_code == 200
        if number > 2:
            continue
        assert f"Log {number} of {version}" in page.text
        history = client.get(f"/books/{number}/history").text
        assert ("as first thought of" in history) == (
            [int(one) for one in version.split(".")][:2] >= list(NAMED_SINCE)
        )
        for _ in range(6):
            assert (
                client.post(f"/books/{number}/undo", data={"takeover": "1", "open": "brief"}).status_code
                == 200
            )
        assert f'<h1 class="visually-hidden">{begun[number]}</h1>' in client.get(f"/books/{number}").text, (
            "all of it is undone"
        )
        for _ in range(6):
            assert (
                client.post(f"/books/{number}/redo", data={"takeover": "1", "open": "brief"}).status_code
                == 200
            )
    for number in numbers[2:4]:
        assert client.get(f"/books/{number}/print").status_code == 200
        out = client.get(f"/books/{number}/export")
        assert read_book(out.data).title == f"Log {number} of {version}"
        assert client.post("/import", data={"file": (io.BytesIO(out.data), "x.json")}).status_code == 303
    assert pdf_of(client, f"/books/{numbers[0]}/print.pdf")[:4] == b"%PDF"
    assert client.get("/materials/table/materials.csv").data.count(b"\n") > 10


def test_a_copy_of_each_version_is_put_back(app, database, tmp_path):
    for file in some(VERSIONS, 3):
        given: Path = of_version(file, tmp_path)
        assert copies.restore(database, given).books >= 4
        assert f"Log 1 of {file.name[:-6]}" in app.test_client().get("/").text
