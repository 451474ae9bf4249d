"""The pile, ways to choose and threads without a browser: what is refused, what is told, and that no input
brings a 500."""

from __future__ import annotations

import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.profiles import examples

HTMX = {"HX-Request": "true"}


def post(client, action, book=6, **data):
    return client.post(f"/books/{book}/{action}", data={"takeover": "1", **data}, headers=HTMX)


def sheets_of(client, book=6):
    page = client.get(f"/books/{book}?open=pages").get_data(as_text=True)
    return [int(one) for one in re.findall(r'id="sheet-(\d+)"', page)]


def test_the_demo_has_a_mixed_journal_that_holds(client):
    page = client.get("/books/6?open=pages").get_data(as_text=True)
    assert len(sheets_of(client)) == 18
    assert "in 2 sections" in page
    assert "72 pages" in page
    assert 'data-check="C1"' not in page
    assert 'data-check="C3"' not in page


def test_adding_moving_and_taking_off_answer_with_the_pleats_that_follow(client):
    found = client.get("/books/6/pile/papers?q=kraft").get_data(as_text=True)
    assert "Kraft card" in found
    assert "No paper of that name" in client.get("/books/6/pile/papers?q=zzz").get_data(as_text=True)
    paper = re.search(r'name="paper" value="(\d+)"', found)[1]
    answer = post(client, "pile/add", paper=paper, sheets="2")
    assert answer.status_code == 200
    assert len(sheets_of(client)) == 20
    last = sheets_of(client)[-1]
    assert post(client, "pile/sheet", do="move", sheet=last, section="0", place="0").status_code == 200
    assert sheets_of(client)[0] == last
    for do in (
        "pin",
        "window",
        "pair",
        "part",
        "no window",
        "unpin",
        "inward",
        "outward",
        "stub",
        "tip",
        "fold",
        "next",
        "before",
        "pair",
    ):
        assert post(client, "pile/sheet", do=do, sheet=last, section="0", place="0").status_code == 200, do
    assert " data-paired" in client.get("/books/6?open=pages").get_data(as_text=True)
    assert post(client, "pile/sheet", do="remove", sheet=last).status_code == 200
    assert last not in sheets_of(client)


def test_a_pile_is_begun_from_a_book_of_one_paper_and_taken_away(client):
    assert sheets_of(client, 5) == []
    assert "begin with this book" in client.get("/books/5?open=pages").get_data(as_text=True)
    assert post(client, "pile/begin", book=5).status_code == 200
    begun = sheets_of(client, 5)
    assert len(begun) == len(set(begun)) > 3
    assert "It is begun already" in post(client, "pile/begin", book=5).get_data(as_text=True)
    assert post(client, "pile/clear", book=5).status_code == 200
    assert sheets_of(client, 5) == []


def test_page_numbers_stand_in_a_table_too(client):
    """8 sheets folded twice in 2 sections: 64 pages, each once; the head's half of every sheet stands upside
    down."""
    for path, value in (
        ("pages.count", "64 pages"),
        ("pages.folds", "2"),
        ("pages.sections", "2"),
        ("pages.numbered", "yes"),
    ):
        assert post(client, "edit", book=1, path=path, value=value).status_code == 200
    page = client.get("/books/1?open=pages").get_data(as_text=True)
    table = re.search(r"numbers-table.*?</table>", page, re.S)[0]
    body = table.split("<tbody>")[1]
    sides = re.findall(r"<td>(?!\d+</td>)(.*?)</td>", body, re.S)
    numbers = [int(one) for side in sides for one in re.findall(r"\d+", side)]
    assert sorted(numbers) == list(range(1, 65))
    assert body.count("upside-down") == 32


def test_the_paper_pleat_of_a_pile_says_where_its_leaves_come_from(client):
    page = client.get("/books/6?open=paper").get_data(as_text=True)
    assert "made of the pile under Pages: 18 sheets" in page
    drawer = client.get("/books/6/papers?role=leaf")
    assert drawer.status_code == 200
    assert "gives" in drawer.get_data(as_text=True)
    assert post(client, "pile/known").status_code == 200


@pytest.mark.parametrize(
    ("action", "data", "words"),
    [
        ("pile/add", {"paper": "9999", "sheets": "1"}, "no longer among the materials"),
        ("pile/add", {"paper": "1", "sheets": "0"}, "holds up to 400"),
        ("pile/add", {"paper": "1", "sheets": "9999"}, "holds up to 400"),
        ("pile/sheet", {"do": "move", "sheet": "999"}, "no longer on the pile"),
        ("pile/sheet", {"do": "pin", "sheet": "999"}, "no longer on the pile"),
        ("pile/sheet", {"do": "remove", "sheet": "999"}, "no longer on the pile"),
        ("pile/sheet", {"do": "somersault", "sheet": "1"}, "cannot do that"),
        ("pile/sheet", {"do": "pair", "sheet": "999"}, "no sheet inside it"),
        ("pile/arrange", {"sections": "0"}, "1 to 60 sections"),
        ("thread", {"thread": "1"}, "no longer among the materials"),
        ("take", {"offer": "0" * 12, "label": "900 sections"}, "no longer applies"),
    ],
)
def test_what_cannot_be_done_is_said_and_changes_nothing(client, action, data, words):
    before = sheets_of(client)
    answer = post(client, action, **data)
    assert answer.status_code == 422
    assert words in answer.get_data(as_text=True)
    assert sheets_of(client) == before


def test_arranging_says_how_and_another_way_differs(client):
    post(client, "pile/arrange", sections="2", seed="5")
    first = sheets_of(client)
    post(client, "pile/arrange", sections="2", seed="6", other="1")
    assert sorted(sheets_of(client)) == sorted(first)
    assert sheets_of(client) != first
    assert "nothing on the pile yet" in post(client, "pile/arrange", book=5, sections="2").get_data(
        as_text=True
    )


def test_a_second_window_is_told_about_the_pile_too(client):
    version = re.search(r'name="version" value="(\d+)"', client.get("/books/6").get_data(as_text=True))[1]
    sheet, other = sheets_of(client)[3:5]
    client.post(
        "/books/6/pile/sheet",
        data={"do": "remove", "sheet": sheet, "version": version, "window": "one"},
        headers=HTMX,
    )
    stale = client.post(
        "/books/6/pile/sheet",
        data={"do": "pin", "sheet": other, "version": version, "window": "two"},
        headers=HTMX,
    )
    assert stale.status_code == 409
    assert "Another window changed this book" in stale.get_data(as_text=True)


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=examples(50))
@given(
    action=st.sampled_from(["add", "arrange", "sheet"]),
    do=st.sampled_from(
        [
            "remove",
            "move",
            "outward",
            "next",
            "before",
            "pin",
            "window",
            "pair",
            "part",
            "x",
            "flap",
            "place",
            "stub",
            "tip",
        ]
    ),
    fields=st.dictionaries(
        st.sampled_from(
            [
                "sheet",
                "paper",
                "sheets",
                "section",
                "place",
                "sections",
                "seed",
                "other",
                "flap",
                "panels",
                "at",
            ]
        ),
        st.integers(-5, 70).map(str)
        | st.sampled_from(
            ["", "²", "1e9", "-1", "٣", "9" * 30, "x", "1/0", "2.3", "3 1/2 in", "NaN", "٣.٣", "C6 opened"]
        ),
        max_size=5,
    ),
)
def test_nothing_posted_to_a_pile_brings_a_500_or_loses_a_sheet_that_was_not_taken_off(
    client, action, do, fields
):
    before = set(sheets_of(client))
    answer = post(client, f"pile/{action}", do=do, **fields)
    assert answer.status_code in (200, 422)
    if do != "remove":
        assert before <= set(sheets_of(client))
