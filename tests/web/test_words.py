"""The words of a page fit the book they are said of: questions, what an empty field comes to, the history."""

from __future__ import annotations

import re

import pytest

from pleat.core.document import editing
from pleat.core.document.labels import named
from pleat.core.document.recipes import RECIPES
from pleat.core.whole.planning import worked_out
from pleat.services import books
from pleat.store.database import transaction
from pleat.web.forms import entries
from tests.core.pleats.extras.test_extras import at, put
from tests.profiles import some
from tests.put import of

NAMES = [one.name for one in RECIPES]


def opened(app, book):
    with transaction(app.extensions["pleat_engine"]) as session:
        return books.open_book(session, books.add(session, book, "", "made"))


@pytest.mark.parametrize("name", some(NAMES, 4))
def test_a_question_and_an_empty_field_say_what_is_so_of_this_book(name, app, client):
    shown = opened(app, put(of(name), {"kind": "flap", "places": at(_face(name))}))
    text = client.get(f"/books/{shown.stored.id}?open=binding").get_data(as_text=True)
    needle = (
        shown.plan.brief.made_of.binding.traits.needle or "sewn" in shown.plan.brief.made_of.binding.title
    )
    assert needle or "which way does the thread run" not in text
    for worth in re.findall(r'placeholder="([^"]*), worked out"', text):
        assert re.fullmatch(r"\d+(?: \d+/\d+|/\d+|\.\d+)?(?: mm)?", worth), worth


def _face(name):
    return next((face.name for face in worked_out(of(name)).extras.faces), "page 1")


@pytest.mark.parametrize("name", some(NAMES, 2))
def test_the_history_has_a_name_for_whatever_is_typed(name):
    """No paths, and a flap is not called a pocket."""
    book = put(of(name), {"kind": "flap", "places": at(_face(name))})
    paths = [one.path for group in ("brief", "pages", "binding", "cover") for one in entries(book, group)]
    paths += [
        "brief.size",
        "pages.count",
        "paper.leaf.size",
        "paper.cover.weight",
        "binding.station.0",
        "binding.hole.1",
    ]
    paths += [
        "pages.score.0.x.1",
        "pages.size.0.y.0",
        "extras.items.d0.place.0",
        "extras.items.d0.width_mm",
        "title",
    ]
    for path in paths:
        said = named(path, book)
        assert said
        assert not re.search(r"[_.]|\bitems\b", said), said
        assert "pocket" not in said or not path.startswith("extras."), said


def test_what_is_chosen_stands_in_the_history_in_words(app, client):
    shown = opened(app, of("journal"))
    form = {"version": shown.stored.version, "window": "w", "path": "cover.creases", "value": "four"}
    assert client.post(f"/books/{shown.stored.id}/edit", data=form).status_code == 200
    with transaction(app.extensions["pleat_engine"]) as session:
        stored = books.open_book(session, shown.stored.id).stored
    rule = next(
        one for one in entries(editing.apply(of("journal"), []), "cover") if one.path == "cover.creases"
    )
    assert dict(rule.words)["four"] in stored.can_undo
