"""Kept safe: copies out and back by the page, two windows that edit meanwhile, pages of before, and what goes
out of the real server."""

from __future__ import annotations

import http.client
import io
import re
import shutil
import sqlite3
import threading
import time
import unicodedata
import urllib.error
from contextlib import closing
from datetime import date
from pathlib import Path
from typing import Any
from urllib.parse import unquote, urlsplit

import pytest
from click.testing import CliRunner
from flask import Flask
from flask.testing import FlaskClient
from playwright.sync_api import Page, expect

from pleat.cli import main
from pleat.services import copies
from pleat.services.library import LONGEST_NAME, file_name
from pleat.store import backups
from pleat.store import books as store
from pleat.store.database import close, open_engine, transaction
from pleat.store.packing import unpacked
from pleat.web.app import FORM_LIMIT, create_app
from tests.fuzz import addresses
from tests.process import Window, on_its_page, serving
from tests.store.copying import contents, wrecked

TITLES = (
    "Sternbuch für Zoë",
    "Журнал звёзд",
    "नक्षत्र पुस्तिका",
    "دفتر النجوم",
    "星空の手帖",
    "ספר כוכבים / “8 1/4”",
)
"""Titles of six scripts; the last with signs that no file name may have."""


# --- what a browser may keep, and what goes out
# ---------------------------------------------------------------


def test_nothing_but_what_is_shipped_is_kept_by_a_browser(app, client):
    rules = [rule for rule in app.url_map.iter_rules() if "GET" in (rule.methods or ())]
    assert len(rules) > 40
    for rule in rules:
        for address in addresses(rule, (1, 9999)):
            answer = client.get(address)
            kept = (
                "public, max-age=31536000, immutable"
                if answer.status_code == 200 and rule.endpoint == "static"
                else "no-store"
            )
            assert answer.headers["Cache-Control"] == kept, address
            answer.close()
    for code, answer in (
        (404, client.get("/nothing")),
        (405, client.get("/books/1/edit")),
        (400, client.get("/", headers={"Host": "elsewhere.example"})),
        (403, client.post("/new", headers={"Origin": "http://elsewhere.example"})),
        (413, client.post("/import", data={"file": (io.BytesIO(b"x" * (FORM_LIMIT + 9)), "x")})),
    ):
        assert (answer.status_code, answer.headers["Cache-Control"]) == (code, "no-store")
    css = client.get(f"{app.static_url_path}/css/house.css").text
    fonts = re.findall(r'url\("([^"]+)"', css)
    assert len(fonts) == 2
    for font in fonts:
        assert client.get(f"{app.static_url_path}/css/{font}").status_code == 200, (
            "what a style names is under the same stamp"
        )


def test_every_download_of_any_title_comes_from_the_real_server(app: Flask, database: Path):
    """RFC 6266: the name in ASCII, and in full as ``filename*`` as RFC 8187 has it: UTF-8, no language, its
    bytes by percent."""
    for number, title in enumerate(TITLES, 1):
        on_its_page(app).post(f"/books/{number}/rename", data={"title": title})
    with serving(app) as address:
        where = urlsplit(address)

        def fetched(path: str) -> tuple[str, bytes]:
            """(the file's name, its contents)."""
            connection = http.client.HTTPConnection(where.hostname or "", where.port, timeout=30)
            connection.request("GET", path)
            answer = connection.getresponse()
            data = answer.read()
            connection.close()
            if answer.status == 303 or (answer.status == 200 and "html" in answer.headers["Content-Type"]):
                time.sleep(0.05)
                going = answer.headers.get("Location", path)
                return fetched(going if going.endswith(".pdf") else f"{going}.pdf")
            assert answer.status == 200, (path, answer.status)
            said = answer.headers["Content-Disposition"]
            whole, plain = (
                re.search(r"filename\*=UTF-8''([^;]+)", said),
                re.search(r'filename="?([^";]+)', said),
            )
            assert plain, said
            return unquote(whole[1]) if whole else plain[1], data

        for number, title in enumerate(TITLES, 1):
            page = on_its_page(app).get(f"/books/{number}/print").text
            files = set(re.findall(rf"/books/{number}/templates/[^\"]+", page))
            for path in (f"/books/{number}/export", f"/books/{number}/print.pdf", *files):
                name, data = fetched(path)
                assert len(data) > 200
                letters = "".join(sign for sign in title.lower() if sign.isalpha())
                assert letters in "".join(sign for sign in name if sign.isalpha()), (name, title)
                assert not set(name) & set('<>:"/\\|?*'), name
        for path, name in (
            ("/materials/table/materials.csv", "pleat-materials.csv"),
            ("/copies/pleat.db", "pleat-"),
        ):
            assert fetched(path)[0].startswith(name)


# --- a copy is put back
# ---------------------------------------------------------------------------------------


def put_back(client: FlaskClient, path: str, **given: Any) -> str:
    """What the page says once a copy was put back, or could not be."""
    begun = client.post(path, **given)
    assert begun.status_code == 303
    latest = time.monotonic() + 30
    while "again=1" in (page := client.get(begun.headers["Location"]).text):
        assert time.monotonic() < latest
        time.sleep(0.02)
    return page


def test_a_copy_goes_out_and_comes_back_through_the_page(client, app):
    copy = client.get("/copies/pleat.db")
    assert copy.headers["Content-Disposition"].startswith("attachment; filename=pleat-")
    client.post("/books/1/bin")
    client.post("/bin/empty", data={"shown": "1"})
    assert client.get("/books/1").status_code == 404
    assert client.post("/copies", data={}).status_code == 422
    for wrong in (b"", b"nonsense" * 900, copy.data[:30_000]):
        said = put_back(client, "/copies", data={"file": (io.BytesIO(wrong), "x.db")})
        assert "Nothing was changed" in said
        assert ".given-" not in said
    assert "back from the copy" in put_back(client, "/copies", data={"file": (io.BytesIO(copy.data), "x.db")})
    assert client.get("/books/1").status_code == 409, "a page of before asks what is there now"
    anew = on_its_page(app)
    assert anew.get("/books/1").status_code == 200
    assert "before-restore-1.db" in anew.get("/copies").text
    assert "back from the copy" in put_back(anew, "/copies/kept/before-restore-1.db/back")
    again = on_its_page(app)
    assert again.get("/books/1").status_code == 404
    assert again.get("/copies/kept/before-restore-1.db").data[:6] == b"SQLite"
    for name in ("nothing.db", "книга.db", "x" * 300, "..%2Fpleat.db", "%2e%2e%2fsecret.key"):
        assert again.get(f"/copies/kept/{name}").status_code == 404
    place = backups.folder(app.config["PLEAT_DATABASE"])
    assert [one.name for one in place.iterdir() if one.name.startswith(".")] == [], (
        "nothing is left of what was sent"
    )


def test_every_change_from_a_page_of_before_is_told_and_not_made(app, client, database):
    copies.restore(database, copied(database))
    before = contents(database)
    rules = [
        rule
        for rule in app.url_map.iter_rules()
        if "POST" in (rule.methods or ()) and rule.endpoint != "pairing.give"
    ]
    assert len(rules) > 40
    for rule in rules:
        for address in addresses(rule, (1,)):
            told = client.post(
                address, data={"title": "x", "path": "title", "value": "x", "takeover": "1", "number": "1"}
            )
            assert told.status_code == 409, address
            assert "A copy was put back" in told.text
    part = client.get("/books/1/bodies?of=cover", headers={"HX-Request": "true"})
    assert part.status_code == 409, "a page is not made up of two times"
    assert contents(database) == before


def copied(database: Path) -> Path:
    made = database.with_name("copy.db")
    made.unlink(missing_ok=True)
    backups.backup(database, made)
    return made


def test_what_two_windows_are_told_is_saved_is_there_or_in_a_copy_however_often_one_is_put_back(
    app, database
):
    told, saved = edited_while_restored(app, database, restores=5)
    assert len(told) >= 2
    assert set(told) == {409}
    assert len(saved) > 10
    assert saved - kept_titles(database) == set()


def edited_while_restored(app: Flask, database: Path, restores: int) -> tuple[list[int], set[str]]:
    """(what two windows were answered whose edits were not taken, all titles that were acknowledged), while
    copies are put back."""
    copy, saved, told, stop = copied(database), set[str](), list[int](), threading.Event()

    def edits(name: str, book: int) -> None:
        window, number = Window(address, book), 0
        while not stop.is_set():
            number += 1
            title = f"{name} {number}"
            try:
                window.edit("title", title)
                saved.add(title)
            except urllib.error.HTTPError as error:
                told.append(error.code)
                window = Window(address, book)

    with serving(app) as served:
        address = f"{served}/"
        windows = [threading.Thread(target=edits, args=pair) for pair in (("one", 1), ("two", 5))]
        for one in windows:
            one.start()
        for _ in range(restores):
            time.sleep(0.3)
            copies.restore(database, copy)
        time.sleep(0.3)
        stop.set()
        for one in windows:
            one.join()
    return told, saved


def kept_titles(database: Path) -> set[str]:
    """The title of every state in the database and in all copies of it, read without Pleat's own store."""
    found = set()
    for file in (database, *backups.folder(database).glob("*.db")):
        with closing(sqlite3.connect(file)) as connection:
            for (state,) in connection.execute("SELECT state FROM revisions"):
                found.add(re.search(r'"title":"([^"]*)"', unpacked(state))[1])
    return found


def test_a_copy_that_is_larger_than_a_request_goes_back_part_by_part_with_a_bar(
    desk: Page, served: str, tmp_path: Path, whole_app: Flask
):
    database = tmp_path / "served.db"
    big = wrecked(copied(database), "UPDATE changes SET label = hex(randomblob(400000))")
    assert big.stat().st_size > 1.2 * whole_app.config["MAX_CONTENT_LENGTH"]
    desk.goto("/books/5")
    other = desk.context.new_page()
    other.goto("/copies")
    other.get_by_label("a copy", exact=True).set_input_files(big)
    other.get_by_role("button", name="put it back", exact=True).first.click()
    expect(other.get_by_text("books are back from the copy")).to_be_visible(timeout=30_000)
    desk.locator("#i-title").first.fill("Of before")
    desk.locator("#i-title").first.press("Tab")
    expect(desk.locator("#notice")).to_contain_text("A copy was put back")
    other.get_by_role("link", name="to your books").click()
    expect(other.get_by_text("Dark-sky log")).to_be_visible()


def test_a_copy_that_is_none_is_told_beside_its_field(desk: Page, tmp_path: Path, served: str):
    wrong = tmp_path / "wrong.db"
    wrong.write_bytes(b"no copy, though it is called one" * 200)
    desk.goto("/copies")
    desk.get_by_label("a copy", exact=True).set_input_files(wrong)
    desk.get_by_role("button", name="put it back", exact=True).first.click()
    expect(desk.get_by_role("alert")).to_contain_text(
        "Nothing was changed. The file is no copy of Pleat's books."
    )
    desk.get_by_role("link", name="to the copies").click()
    expect(desk.get_by_role("heading", name="Copies of everything")).to_be_visible()


# --- where a copy goes
# ----------------------------------------------------------------------------------------


def test_no_copy_goes_onto_what_is_ours_open_or_no_copy(demo_database, tmp_path, monkeypatch):
    database, other, notes = tmp_path / "pleat.db", tmp_path / "other.db", tmp_path / "notes.txt"
    shutil.copyfile(demo_database, database)
    create_app(database).extensions["pleat_engine"].dispose()
    shutil.copyfile(demo_database, other)
    notes.write_text("not ours")
    (tmp_path / "link.db").symlink_to("pleat.db")
    (tmp_path / "hard.db").hardlink_to(database)
    (tmp_path / "round.db").symlink_to("round.db")
    engine = open_engine(other)
    monkeypatch.chdir(tmp_path)
    with transaction(engine) as session:
        store.set_summary(session, 1, "{}")
    backups.daily(database, date(2026, 3, 1))
    before = {one: one.read_bytes() for one in (database, other, notes, tmp_path / "secret.key")}
    for target, words in (
        ("pleat.db", "own file"),
        (str(database), "own file"),
        ("link.db", "own file"),
        ("hard.db", "own file"),
        ("pleat.db-wal", "own file"),
        ("secret.key", "own file"),
        ("other.db", "in use"),
        ("notes.txt", "no copy"),
        (".", "is a folder"),
        ("pleat-backups/day-2026-03-01.db", "keeps by itself"),
        ("notes.txt/copy.db", "cannot be written to"),
        ("/dev/null", "no file"),
        ("round.db", "nowhere"),
        ("x" * 300, "cannot be written to"),
    ):
        said = CliRunner().invoke(main, ["backup", target])
        assert said.exit_code == 1, target
        assert said.output.count("\n") == 1, said.output
        assert words in said.output, (target, said.output)
    assert {one: one.read_bytes() for one in before} == before
    close(engine)
    (tmp_path / "far.db").symlink_to("else/far.db")
    for target in ("copy.db", "copy.db", "else/copy.db", "far.db"):
        assert CliRunner().invoke(main, ["backup", target]).exit_code == 0, (
            "an older copy is written over, a folder made, a link followed"
        )
    assert (tmp_path / "else/far.db").is_file()
    assert (tmp_path / "far.db").is_symlink()


@pytest.mark.parametrize(
    "title",
    [
        "con",
        "LPT1",
        "nul",
        "aux.x",
        "...",
        "a/b\\c:d*e?f",
        "x" * 400,
        "ﬃ" * 90,
        "𐌰" * 80,
        "é" * 80,
        "न" * 80,
        "नि" * 40,
        "z" + "\u0301" * 70,
    ],
)
def test_a_title_is_a_file_name_on_any_disk(title):
    name = f"{file_name(title)}.pleat.json"
    assert 0 < len(file_name(title).encode()) <= LONGEST_NAME + 5
    assert len(name.encode()) < 143
    assert not re.search(r'[<>:"/\\|?*\x00-\x1f]', name)
    assert not re.fullmatch(r"(con|prn|aux|nul|com\d|lpt\d)(\..*)?", name, re.IGNORECASE), (
        "what Windows keeps for devices"
    )
    assert unicodedata.is_normalized("NFC", name)
    assert not unicodedata.combining(name[0])


def test_one_book_that_cannot_be_written_is_told_and_does_not_end_the_rest(demo_database, tmp_path):
    database = tmp_path / "pleat.db"
    shutil.copyfile(demo_database, database)
    wrecked(database, "UPDATE revisions SET state = x'09aa' WHERE book_id = 5")
    (tmp_path / "out/star-chart-companion.pleat.json").mkdir(parents=True)
    said = CliRunner().invoke(main, ["export", str(tmp_path / "out"), "--database", str(database)])
    assert said.exit_code == 1
    assert said.stderr.count("Not written: ") == 2
    assert "“Dark-sky log” as dark-sky-log.pleat.json" in said.stderr
    assert len(list((tmp_path / "out").glob("*.pleat.json"))) == 13
    assert (tmp_path / "out/materials.csv").exists()
