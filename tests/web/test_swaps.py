"""After any edit of any book the swapped page is the page that a reload shows."""

from __future__ import annotations

import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from pleat.core.whole.planning import PLEATS
from pleat.services import books as service
from pleat.store.database import transaction
from tests.profiles import examples
from tests.strategies import books

HTMX = {"HX-Request": "true"}
EDITS = st.one_of(
    st.tuples(
        st.just("edit"),
        st.sampled_from(["mm", "in"]).map(lambda ruler: {"path": "brief.ruler", "value": ruler}),
    ),
    st.tuples(
        st.just("edit"),
        st.sampled_from(
            [
                ("brief.leaf_width_mm", "120"),
                ("brief.leaf_height_mm", "5 in"),
                ("brief.size", "A6"),
                ("brief.quantity", "3"),
                ("brief.purpose", "painting"),
                ("paper.leaf.size", "A3"),
                ("paper.leaf.grain", "short"),
                ("paper.cover.weight", "300"),
                ("paper.leaf.sides", "1"),
                ("paper.leaf.readings_mm", "1.1; 1.12"),
                ("pages.count", "24 pages"),
                ("pages.sections", "2"),
                ("pages.folds", "2"),
                ("pages.creep", "trim"),
                ("pages.numbered", "yes"),
                ("pages.flap_mm", "60"),
                ("pages.measured_block_mm", "4"),
                ("binding.station_count", "5"),
                ("binding.station.0", "30"),
                ("binding.tail_mm", "100"),
                ("binding.knot", "outside"),
                ("cover.square_mm", "5"),
                ("cover.creases", "two"),
                ("cover.score_offset_mm", "2"),
                ("cover.piece_width_mm", "300"),
                ("cutting.counted.leaf", "3"),
                ("title", "Other"),
            ]
        ).map(lambda pair: {"path": pair[0], "value": pair[1]}),
    ),
    st.tuples(st.sampled_from(["pile/clear", "pile/begin", "undo", "redo", "fit"]), st.just({})),
    st.tuples(
        st.just("edit"),
        st.sampled_from(["leaf", "cover"]).map(
            lambda part: {"path": f"cutting.lies.{part}", "value": "turned"}
        ),
    ),
    st.tuples(
        st.just("paper"),
        st.tuples(st.sampled_from(["leaf", "cover"]), st.integers(1, 20)).map(
            lambda pair: {"role": pair[0], "paper": str(pair[1])}
        ),
    ),
    st.tuples(st.just("pile/arrange"), st.just({"sections": "2"})),
    st.tuples(st.just("stations"), st.sampled_from([{"unlocked": "0"}, {"unlocked": "1"}])),
    st.tuples(
        st.just("tick"),
        st.sampled_from(["gather", "cut_leaves", "sew"]).map(lambda step: {"step": step, "done": "1"}),
    ),
    st.tuples(st.just("take"), st.integers(0, 30).map(lambda number: {"number": str(number)})),
)


def parts(page: str) -> dict[str, str]:
    """The pleats of a page or of an answer, and its bar and state, without what differs from open to shut."""
    section = (
        r'<section class="pleat" id="pleat-(\w+)"(.*?)</section>'
        r'\s*(?=<section class="pleat"|</main>|</hx-partial>)'
    )
    found: dict[str, str] = dict(re.findall(section, page, re.S))
    book = re.search(
        r'<section class="book" id="book"(.*?)</section>\s*(?=<section class="pleat"|</hx-partial>)',
        page,
        re.S,
    )
    found |= {"book": book[1]} if book else {}
    bar = re.search(r'<header class="bar" id="bar">(.*?)</header>', page, re.S)
    state = re.search(r'<div id="state" hidden>(.*?)</div>', page, re.S)
    found |= {"bar": bar[1]} if bar else {}
    found |= {"state": state[1]} if state else {}
    return {name: re.sub(r'aria-expanded="\w+"', "", text) for name, text in found.items()}


def strips_of(page: str) -> dict[str, str]:
    """The folded pleats, whether their bodies are as old as they are or not."""
    return {
        name: text
        for name, _, text in re.findall(r'id="strip-(\w+)"( data-behind)?(.*?)</button>', page, re.S)
    }


@settings(max_examples=examples(40), suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    book=books,
    edits=st.lists(st.tuples(EDITS, st.sampled_from(["", "book", *PLEATS])), min_size=1, max_size=3),
)
def test_the_swapped_page_is_the_reloaded_one(app, client, book, edits):
    """What lies folded while the book changes is sent its strip, and its body when it is asked for."""
    with transaction(app.extensions["pleat_engine"]) as session:
        book_id = service.add(session, book, "", "made")
    shown = parts(client.get(f"/books/{book_id}").get_data(as_text=True))
    assert len(shown) == 11
    for (action, values), lies_open in edits:
        if action == "take":
            offered = re.findall(r'name="offer" value="(\w+)"', "".join(shown.values()))
            if not offered:
                continue
            values = {"offer": offered[int(values["number"]) % len(offered)]}
        version = re.search(r'name="version" value="(\d+)"', shown["state"])[1]
        answer = client.post(
            f"/books/{book_id}/{action}",
            data={**values, "version": version, "window": "w", "open": lies_open},
            headers=HTMX,
        )
        assert answer.status_code in (200, 422)
        if answer.status_code == 200:
            text = answer.get_data(as_text=True)
            behind = re.findall(r'id="strip-(\w+)" data-behind', text)
            assert lies_open not in behind
            assert lies_open or not behind
            strips = strips_of(text)
            bodies = client.get(
                f"/books/{book_id}/bodies", query_string={"of": " ".join(behind), "open": lies_open}
            ).get_data(as_text=True)
            assert all(strips[name] == strips_of(bodies)[name] for name in behind), (
                "the strip told it already"
            )
            shown |= parts(text) | parts(bodies)
        reloaded = parts(client.get(f"/books/{book_id}").get_data(as_text=True))
        for name in reloaded:
            assert shown[name] == reloaded[name], f"{name} is stale after {action} {values}"


@pytest.mark.parametrize(
    ("path", "value", "pleats"),
    [
        ("cover.square_mm", "4", {"cover", "cutting", "bench"}),
        ("binding.tail_mm", "100", {"binding", "pages", "bench", "cover"}),
        ("title", "x", set()),
    ],
)
def test_no_more_is_swapped_than_reads_what_changed(client, path, value, pleats):
    version = re.search(r'name="version" value="(\d+)"', client.get("/books/5").get_data(as_text=True))[1]
    answer = client.post(
        "/books/5/edit", data={"path": path, "value": value, "version": version, "window": "w"}, headers=HTMX
    )
    assert set(re.findall(r'hx-target="#pleat-(\w+)"', answer.get_data(as_text=True))) <= pleats
