"""What others may try: names that are not ours, forms from elsewhere, pairing, nonsense on every route, files
gone wrong."""

from __future__ import annotations

import io
import itertools
import re
import socket
import sqlite3
import time
import urllib.request
from contextlib import closing

import pytest
from sqlalchemy.exc import OperationalError

from pleat.core.document.book import Book
from pleat.core.document.bookfile import write_book
from pleat.services import imports
from pleat.web.app import create_app
from tests.fuzz import Fuzzer, mutated_books, mutated_tables
from tests.process import on_its_page, serving
from tests.profiles import examples


@pytest.mark.parametrize(
    ("host", "code"),
    [
        ("localhost", 200),
        ("127.0.0.1:5180", 200),
        ("[::1]:5180", 200),
        ("evil.example", 400),
        ("a..b", 400),
        ("127.0.0.1.evil.example", 400),
        ("localhost:x@evil", 400),
        ("", 400),
    ],
)
def test_only_names_of_this_machine_are_answered(client, host, code):
    """A page that points its own name at this machine is told nothing."""
    answer = client.get("/", headers={"Host": host})
    assert answer.status_code == code
    if code == 400:
        assert "Dark-sky log" not in answer.get_data(as_text=True)


@pytest.mark.parametrize(
    ("headers", "code"),
    [
        ({}, 200),
        ({"Sec-Fetch-Site": "same-origin", "Origin": "http://localhost"}, 200),
        ({"Sec-Fetch-Site": "cross-site"}, 403),
        ({"Sec-Fetch-Site": "same-site"}, 403),
        ({"Origin": "http://evil.example"}, 403),
        ({"Origin": "http://localhost:9999"}, 403),
        ({"Origin": "null"}, 403),
    ],
)
def test_a_change_comes_from_pleats_own_pages(client, headers, code):
    given = {"path": "cover.square_mm", "value": "4", "takeover": "1"}
    assert client.post("/books/5/edit", data=given, headers=headers).status_code == code


def test_headers_that_keep_other_pages_out(client):
    answer = client.get("/")
    for name in ("Cross-Origin-Opener-Policy", "Cross-Origin-Resource-Policy"):
        assert answer.headers[name] == "same-origin"
    assert "camera=()" in answer.headers["Permissions-Policy"]


@pytest.mark.parametrize("seed", [1, 2])
def test_no_request_brings_a_500_from_the_real_server(app, seed):
    epoch = on_its_page(app).environ_base["HTTP_X_EPOCH"]
    with serving(app) as served:
        fuzzer = Fuzzer(served, app, epoch, seed)
        for _ in range(examples(1000)):
            method, address, status = fuzzer.request()
            assert status < 500, (method, address)


def test_book_files_gone_wrong_are_told_in_a_line_and_leave_nothing(client, database):
    def count():
        with closing(sqlite3.connect(database)) as connection:
            return connection.execute(
                "SELECT count(*), (SELECT count(*) FROM revisions) FROM books"
            ).fetchone()

    before = count()
    taken = 0
    for raw in itertools.islice(mutated_books(write_book(Book()), 7), 120):
        answer = client.post("/import", data={"file": (io.BytesIO(raw), "x.json")})
        assert answer.status_code in (303, 422)
        if answer.status_code == 303:
            taken += 1
            assert client.get(answer.headers["Location"]).status_code == 200, "what was taken can be opened"
        else:
            text = answer.get_data(as_text=True)
            assert "Nothing was taken from the file" in text
            assert text.count("<li>") <= 21
    assert count() == (before[0] + taken, before[1] + taken)


def test_tables_gone_wrong_are_told_row_by_row(app, client):
    text = client.get("/materials/table/materials.csv").get_data(as_text=True).lstrip("\ufeff")
    for raw in itertools.islice(mutated_tables(text, 3), 60):
        answer = client.post("/materials/table", data={"file": (io.BytesIO(raw), "x.csv")})
        assert answer.status_code in (303, 422)
        if answer.status_code == 303:
            job = app.extensions["pleat_imports"].find(answer.headers["Location"].rsplit("/", 1)[1])
            end = time.monotonic() + 5
            while job.state == "reading" and time.monotonic() < end:
                time.sleep(0.005)
            assert job.state == "ready", job.error
            assert client.get(answer.headers["Location"]).status_code == 200
    assert len(app.extensions["pleat_imports"]._jobs.all()) <= imports.MOST_JOBS


def test_a_key_that_was_cut_off_is_made_anew(tmp_path):
    (tmp_path / "secret.key").write_text("")
    app = create_app(tmp_path / "pleat.db")
    assert app.test_client().get("/new").status_code == 200
    assert len((tmp_path / "secret.key").read_text()) == 64
    assert [one.name for one in tmp_path.glob(".secret*")] == []
    app.extensions["pleat_engine"].dispose()


def test_half_sent_requests_hold_nobody_up_and_large_ones_are_refused_unread(served):
    host, port = served.removeprefix("http://").split(":")
    held = [socket.create_connection((host, int(port)), timeout=5) for _ in range(40)]
    for one in held:
        one.sendall(b"POST /import HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 5000\r\n\r\nhalf")
    start = time.monotonic()
    assert urllib.request.urlopen(served, timeout=5).status == 200
    assert time.monotonic() - start < 2
    with socket.create_connection((host, int(port)), timeout=5) as large:
        large.sendall(
            f"POST /import HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Length: 900000000\r\n\r\n".encode()
        )
        assert b" 413 " in large.recv(200)
    for one in held:
        one.close()


@pytest.fixture
def broken_app(database):
    """An application of the test's own, which may be given a page that breaks."""
    app = create_app(database, {"TESTING": True, "PROPAGATE_EXCEPTIONS": False})
    yield app
    app.extensions["pleat_engine"].dispose()


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ("database is locked", "in use"),
        ("database or disk is full", "disk is full"),
        ("attempt to write a readonly database", "may not be written"),
        ("disk I/O error", "cannot be used"),
    ],
)
def test_what_stands_in_the_way_of_the_file_is_said_in_words(broken_app, said, words):
    @broken_app.get("/broken")
    def broken():
        raise OperationalError("INSERT", {}, sqlite3.OperationalError(said))

    answer = broken_app.test_client().get("/broken")
    assert answer.status_code == 503
    assert words in answer.get_data(as_text=True)


def test_a_mistake_of_pleats_is_told_in_its_own_words(broken_app):
    broken_app.add_url_rule("/broken", view_func=lambda: 1 / 0)
    answer = broken_app.test_client().get("/broken")
    assert answer.status_code == 500
    assert "your books are as they were" in answer.text
    assert "server" not in answer.text


def asked_of(client, page):
    """The version that a page of a book was made of."""
    return re.search(r'name="version" value="(\d+)"', client.get(page).text)[1]


def test_a_state_is_named_and_gone_back_to(client):
    client.post("/books/5/edit", data={"path": "cover.square_mm", "value": "5", "takeover": "1"})
    version = asked_of(client, "/books/5/history")
    client.post(
        "/books/5/history/name", data={"number": "1", "name": "as first thought of", "version": version}
    )
    page = client.get("/books/5/history").get_data(as_text=True)
    assert 'value="as first thought of"' in page
    assert (
        client.post(
            "/books/5/history/name", data={"number": "1", "name": "x" * 200, "version": version}
        ).status_code
        == 422
    )
    assert client.post("/books/5/history/back", data={"number": "77", "version": version}).status_code == 404
    client.post("/books/5/history/back", data={"number": "1", "version": version})
    assert 'id="i-cover-square-mm" name="value" value="3"' in client.get("/books/5").get_data(as_text=True)
    assert "back to: as first thought of" in client.get("/books/5/history").get_data(as_text=True)


def test_an_old_page_of_the_history_or_of_an_own_stitch_changes_nothing(client):
    """After an undo a number is another state's; and a stitch is tapped for a long time."""
    shown = asked_of(client, "/books/5/history")
    for value in ("5", "6"):
        client.post("/books/5/edit", data={"path": "cover.square_mm", "value": value, "takeover": "1"})
    now = client.get("/books/5/export").data
    for address, given in (
        ("/books/5/history/back", {"number": "1"}),
        ("/books/5/history/name", {"number": "1", "name": "x"}),
        (
            "/books/5/sewing/own",
            {"act": "use", "sewn": "2 in | 2 1 3 2 =over", "stations": "3", "name": "own"},
        ),
    ):
        told = client.post(address, data={**given, "version": shown})
        assert told.status_code == 409
        assert ": 6)" in told.text
        assert client.get("/books/5/export").data == now
    anew = re.search(r'name="version" value="(\d+)"', told.text)[1]
    again = {"act": "use", "sewn": "2 in | 2 1 3 2 =over", "stations": "3", "name": "own", "version": anew}
    assert client.post("/books/5/sewing/own", data=again).status_code == 302, "said once more, it is meant so"
