"""Answers without a browser: headers, refusals, files, and that no input brings a 500."""

from __future__ import annotations

import io
import json
import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from pleat.core.materials.items import ThreadSpool
from pleat.services import offered
from pleat.services.clock import now
from pleat.store import items
from pleat.store.database import transaction
from pleat.web.app import create_app
from tests.profiles import examples

HTMX = {"HX-Request": "true"}


def page(client, address):
    answer = client.get(address)
    assert answer.status_code == 200, address
    return answer.get_data(as_text=True)


def version(client, book_id):
    return re.search(r'name="version" value="(\d+)"', page(client, f"/books/{book_id}"))[1]


def test_every_page_answers_with_the_policy_and_without_inline_script_or_style(client):
    for address in (
        "/",
        "/bin",
        "/new",
        "/books/5",
        "/books/2?open=cutting",
        "/books/5/print",
        "/books/5/print?paper=letter",
        "/books/5/papers?role=cover",
        "/materials?make=A6",
        "/materials/4",
        "/materials/new/glue",
        "/materials/2/measure",
        "/materials/6/grain",
        "/materials/table",
    ):
        answer = client.get(address)
        text = answer.get_data(as_text=True)
        assert answer.status_code == 200
        policy = answer.headers["Content-Security-Policy"]
        assert "script-src 'self'" in policy
        assert "unsafe" not in policy
        assert " style=" not in text
        assert "<style" not in text
        assert not re.search(r"<script(?![^>]*\bsrc=)", text)
        assert not re.search(r"\son\w+=", text)
        assert not re.search(r'(?:src|href|action)="(?:https?:)?//', text), "nothing comes from anywhere else"


def test_a_change_answers_with_the_pleats_that_changed_and_no_others(client):
    answer = client.post(
        "/books/5/edit",
        data={"path": "cover.square_mm", "value": "4", "version": version(client, 5), "window": "w"},
        headers=HTMX,
    )
    swapped = re.findall(r'hx-target="#pleat-(\w+)"', answer.get_data(as_text=True))
    assert swapped == ["cover", "cutting", "bench"]
    assert "saved" in answer.get_data(as_text=True)


def test_what_cannot_be_taken_is_said_at_its_field(client):
    answer = client.post(
        "/books/5/edit",
        data={"path": "cover.square_mm", "value": "<b>wide", "version": "1", "window": "w"},
        headers=HTMX,
    )
    text = answer.get_data(as_text=True)
    assert answer.status_code == 422
    assert 'hx-target="#n-cover-square-mm"' in text
    assert "&lt;b&gt;wide" in text
    gone = client.post(
        "/books/5/take",
        data={"offer": "abc", "label": "no such", "version": "1", "window": "w"},
        headers=HTMX,
    )
    assert gone.status_code == 422
    assert "no longer applies" in gone.get_data(as_text=True)


def test_another_windows_change_is_told_and_can_be_taken_over(client):
    first = version(client, 5)
    client.post(
        "/books/5/edit", data={"path": "cover.square_mm", "value": "4", "version": first, "window": "one"}
    )
    stale = {"path": "cover.square_mm", "value": "6", "version": first, "window": "two"}
    told = client.post("/books/5/edit", data=stale)
    assert told.status_code == 409
    assert "Another window changed this book" in told.get_data(as_text=True)
    assert 'name="value" value="6"' in told.get_data(as_text=True), "what was typed is kept"
    taken = client.post("/books/5/edit", data={**stale, "takeover": "1"})
    assert taken.get_data(as_text=True).count("#pleat-") == 8


def test_a_file_out_and_in_again_and_bad_files_change_nothing(client):
    saved = client.get("/books/5/export")
    assert "attachment" in saved.headers["Content-Disposition"]
    count = len(re.findall("shelf-book", page(client, "/")))
    taken = client.post("/import", data={"file": (io.BytesIO(saved.data), "log.pleat.json")})
    assert taken.status_code == 303
    assert len(re.findall("shelf-book", page(client, "/"))) == count + 1
    broken = json.loads(saved.data) | {"pages": {"amount": "many"}}
    for text, word in ((json.dumps(broken).encode(), "the count"), (b"\xff\x00", "JSON"), (b"", "JSON")):
        refused = client.post("/import", data={"file": (io.BytesIO(text), "x.json")})
        assert refused.status_code == 422
        assert word in refused.get_data(as_text=True)
    assert client.post("/import", data={}).status_code == 422
    large = client.post("/import", data={"file": (io.BytesIO(b" " * 1_300_000), "x.json")})
    assert (large.status_code, "over 1 MB" in large.get_data(as_text=True)) == (422, True)
    assert client.post("/import", data={"file": (io.BytesIO(b" " * 9_300_000), "x.json")}).status_code == 413
    assert len(re.findall("shelf-book", page(client, "/"))) == count + 1


def test_the_shelf_renames_copies_bins_and_restores(client):
    client.post("/books/1/rename", data={"title": "Comet diary"})
    assert "Comet diary" in page(client, "/")
    assert client.post("/books/1/rename", data={"title": "  "}).status_code == 422
    assert client.post("/books/1/duplicate").status_code == 303
    assert "Comet diary (copy)" in page(client, "/?q=comet")
    client.post("/books/1/bin")
    assert client.get("/books/1").status_code == 404
    assert "Comet diary" in page(client, "/bin")
    client.post("/books/1/restore")
    assert client.get("/books/1").status_code == 200
    assert "No book of that name" in page(client, "/?q=zzz")


def test_what_is_not_there_is_said_in_words(client):
    for address in (
        "/books/999",
        f"/books/{9**30}",
        f"/materials/{9**30}",
        "/nothing",
        "/books/999/print.pdf",
        "/books/abc",
    ):
        answer = client.get(address)
        assert answer.status_code == 404
        assert "to your books" in answer.get_data(as_text=True)
    assert (
        client.post("/books/999/edit", data={"path": "title", "value": "x"}, headers=HTMX).status_code == 404
    )
    assert client.get("/books/5/edit").status_code == 405


def test_changes_without_the_token_are_refused(database):
    guarded = create_app(database).test_client()
    for address in ("/new", "/import", "/books/1/edit", "/books/1/bin", "/books/1/rename"):
        answer = guarded.post(address, data={"title": "x"})
        assert answer.status_code == 400
        assert "too old" in answer.get_data(as_text=True)


@pytest.mark.parametrize(
    "given_",
    [
        {},
        {"size": "140 x 200", "paper": "x", "count": "40"},
        {"size": "wide", "paper": "1", "count": "many"},
        {"fit": "paper", "count": "3 pages"},
        {"fit": "paper", "paper": "3", "count": "999999"},
    ],
)
def test_a_start_that_lacks_an_answer_says_which_and_keeps_the_rest(client, given_):
    answer = client.post("/new", data=given_)
    assert answer.status_code == 422
    text = answer.get_data(as_text=True)
    assert re.search(r'class="field-note"[^>]*>[^<]', text)
    assert f'value="{given_.get("size", "")}"' in text


PATHS = """title brief.size brief.leaf_width_mm binding.kind brief.purpose brief.ruler brief.quantity
paper.leaf.weight paper.leaf.size
paper.leaf.owned pages.count pages.flap_mm
binding.station.0 binding.station.x binding.moves binding.cover_holes_mm
binding.thread.lea binding.strands cover.square_mm cover.piece_width_mm
cutting.counted.leaf bench.ticks typed format . paper.leaf
paper..x binding.insets_mm"""


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=examples(150))
@given(
    path=st.sampled_from(PATHS.split()),
    text=st.text(max_size=30)
    | st.sampled_from(
        ["1", "0", "-1", "1/0", "1e400", "½", "9" * 40, "1 x 1", "\x00", "5 lb", "²", "١٢ pages"]
    ),
)
def test_no_text_in_any_field_brings_a_500(client, path, text):
    answer = client.post("/books/4/edit", data={"path": path, "value": text, "takeover": "1"}, headers=HTMX)
    assert answer.status_code in (200, 422)
    if answer.status_code == 422:
        assert re.search(r">\s*\S", answer.get_data(as_text=True))


def test_emptying_the_bin_takes_what_the_page_showed(client):
    """Two windows: one shows the bin, the other puts another book there."""
    client.post("/books/1/bin")
    shown = re.search(r'name="shown" value="([\d ]*)"', page(client, "/bin"))
    client.post("/books/2/bin")
    client.post("/bin/empty", data={"shown": shown[1]})
    told = page(client, "/bin")
    assert "1 book is gone for good. 1 was put here since, and stays." in told
    assert client.post("/books/2/restore").status_code == 303
    assert client.get("/books/2").status_code == 200
    assert client.get("/books/1").status_code == 404
    for wrong in ("", "x", "9" * 400, "-1", "3 4 5"):
        client.post("/bin/empty", data={"shown": wrong})
    assert client.get("/books/3").status_code == 200, "what is not in the bin stays"


def test_of_many_threads_the_first_are_offered_and_a_search_finds_the_others(app, client):
    with transaction(app.extensions["pleat_engine"]) as session:
        spools = [ThreadSpool(name=f"Spool {number:03d}", lea=18, plies=3) for number in range(90)]
        items.insert_columns(
            session, [items.columns_of(one, now()) for one in (*spools, ThreadSpool(name="Spool of what"))]
        )
    drawer = page(client, "/books/5/threads")
    assert drawer.count("paper-choice") == offered.THREADS
    assert "The first 30 of 9" in drawer
    assert "Spool of what" not in drawer, "a thread that does not say how thick it is cannot be reckoned with"
    found = page(client, "/books/5/threads?find=spool 07")
    assert found.count("<b>Spool 07") == 10
    assert "No thread of those words" in page(client, "/books/5/threads?find=nothing such")
