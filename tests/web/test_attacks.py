"""What others may try: names that are not ours, forms from elsewhere, pairing, nonsense on every route, files gone wrong."""

from __future__ import annotations

import io
import itertools
import socket
import sqlite3
import time
import urllib.request
from contextlib import closing
from typing import Any

import pytest
import segno
from PIL import Image
from playwright.sync_api import Page
from sqlalchemy.exc import OperationalError

from pleat.core.book import Book
from pleat.core.bookfile import write_book
from pleat.services import imports
from pleat.web import security
from pleat.web.app import create_app
from tests.fuzz import Fuzzer, mutated_books, mutated_tables
from tests.process import running


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


def test_another_device_gives_the_code_once_and_guessing_is_not_listened_to(database):
    app = create_app(database, {"PLEAT_PAIRING": "1234 5678", "PLEAT_HOSTS": ("192.0.2.7",), "PLEAT_PORT": 5191, "WTF_CSRF_ENABLED": False})
    away = {"environ_base": {"REMOTE_ADDR": "192.0.2.9"}, "base_url": "http://192.0.2.7:5191"}
    tablet, maker = app.test_client(), app.test_client()
    assert tablet.get("/", **away).headers["Location"].endswith("/pair")
    assert tablet.post("/import", **away).status_code == 403
    assert tablet.get(f"{app.static_url_path}/css/house.css", **away).status_code == 200
    shown = maker.get("/pair").get_data(as_text=True)
    assert "1234 5678" in shown
    assert "<svg" in shown
    assert "1234 5678" not in tablet.get("/pair", **away).get_data(as_text=True), "the code stands on the maker's own screen only"
    assert tablet.post("/pair", data={"code": "0000 0000"}, **away).status_code == 422
    assert tablet.post("/pair", data={"code": "12345678"}, **away).status_code == 303
    assert tablet.get("/", **away).status_code == 200
    scanned = app.test_client()
    assert scanned.get("/pair?code=12345678", **away).status_code == 303
    assert scanned.get("/", **away).status_code == 200
    guess = app.test_client()
    codes = [guess.post("/pair", data={"code": str(number)}, **away).status_code for number in range(security.TRIES + 3)]
    assert codes[-1] == 429
    assert guess.post("/pair", data={"code": "12345678"}, **away).status_code == 429, "nor the right one, for a while"
    assert maker.get("/").status_code == 200
    names = app.test_client().get("/new").headers.getlist("Set-Cookie")
    assert all(name.startswith("pleat_5191") for name in names), "two Pleats on one machine keep their own cookies"
    app.extensions["pleat_engine"].dispose()


def test_headers_that_keep_other_pages_out(client):
    answer = client.get("/")
    for name in ("Cross-Origin-Opener-Policy", "Cross-Origin-Resource-Policy"):
        assert answer.headers[name] == "same-origin"
    assert "camera=()" in answer.headers["Permissions-Policy"]


@pytest.mark.parametrize("seed", [1, 2])
def test_no_request_brings_a_500_or_keeps_pleat_busy(app, seed):
    fuzzer = Fuzzer(app, seed)
    for _ in range(350):
        start = time.thread_time()  # what it keeps the processor busy, whatever else the machine does
        method, address, status, _ = fuzzer.request()
        seconds = time.thread_time() - start
        assert status < 500, (method, address)
        assert seconds < 2, (method, address, seconds)


def test_book_files_gone_wrong_are_told_in_a_line_and_leave_nothing(client, database):
    def count():
        with closing(sqlite3.connect(database)) as connection:
            return connection.execute("SELECT count(*), (SELECT count(*) FROM revisions) FROM books").fetchone()

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
    assert len(app.extensions["pleat_imports"]._jobs) <= imports.MOST_JOBS


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
        large.sendall(f"POST /import HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Length: 900000000\r\n\r\n".encode())
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


def test_a_copy_goes_out_and_comes_back_through_the_page(client):
    copy = client.get("/copies/pleat.db")
    assert copy.headers["Content-Disposition"].startswith("attachment; filename=pleat-")
    client.post("/books/1/bin")
    client.post("/bin/empty")
    assert client.get("/books/1").status_code == 404
    for wrong in (b"", b"nonsense" * 900, copy.data[:30_000]):
        refused = client.post("/copies", data={"file": (io.BytesIO(wrong), "x.db")})
        assert refused.status_code == 422
        assert "Nothing was changed" in refused.get_data(as_text=True) or not wrong
    assert client.post("/copies", data={"file": (io.BytesIO(copy.data), "x.db")}).status_code == 303
    assert client.get("/books/1").status_code == 200
    assert "before-restore" in client.get("/copies").get_data(as_text=True)


def test_a_state_is_named_and_gone_back_to(client):
    client.post("/books/5/edit", data={"path": "cover.square_mm", "value": "5", "takeover": "1"})
    client.post("/books/5/history/name", data={"number": "1", "name": "as first thought of"})
    page = client.get("/books/5/history").get_data(as_text=True)
    assert 'value="as first thought of"' in page
    assert client.post("/books/5/history/name", data={"number": "1", "name": "x" * 200}).status_code == 422
    client.post("/books/5/history/back", data={"number": "1"})
    assert 'id="i-cover-square-mm" name="value" value="3"' in client.get("/books/5").get_data(as_text=True)
    assert "back to: as first thought of" in client.get("/books/5/history").get_data(as_text=True)
    assert client.post("/books/5/history/back", data={"number": "77"}).status_code == 404


@pytest.mark.parametrize("dark", ["0", "1"])
def test_the_pairing_code_is_seen_as_it_is_drawn_with_its_clear_margin(page: Page, demo_database, dark):
    """ISO/IEC 18004 asks for four clear modules all round; whatever the page's styles, what is seen is the code and nothing else."""
    config: dict[str, Any] = {"PLEAT_PAIRING": "1234 5678", "PLEAT_PORT": 5180, "PLEAT_HOSTS": ["127.0.0.1", "192.168.7.20"]}
    matrix = [list(row) for row in segno.make("http://192.168.7.20:5180/pair?code=12345678", error="m").matrix_iter(border=4)]
    page.add_init_script(f"localStorage.setItem('pleat-dark', '{dark}')")
    with running(demo_database, config) as address:
        page.goto(f"{address}/pair")
        seen = Image.open(io.BytesIO(page.locator(".pairing-places svg").screenshot())).convert("1", dither=Image.Dither.NONE)
    step = seen.width / len(matrix)
    assert seen.height == pytest.approx(seen.width, abs=1)
    for y, row in enumerate(matrix):
        assert [seen.getpixel((int((x + 0.5) * step), int((y + 0.5) * step))) == 0 for x in range(len(row))] == [bool(one) for one in row]
