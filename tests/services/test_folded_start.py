"""Folded structures begun from a few answers, become from other kinds, made from what is owned, and counted
out at the bench."""

from __future__ import annotations

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, advise, recipe
from pleat.core.materials.items import BoughtFastener, Paper
from pleat.core.materials.tools import NO_TOOLS
from pleat.core.whole.planning import make_plan
from pleat.services import books as service
from pleat.services import offered
from pleat.services.starting import Answers, becoming, begun, so_far, start
from pleat.store.database import transaction
from tests.core.pleats.structures.samples import FOLDED

CARD = Paper(
    name="Night card, large",
    kind="cardstock",
    sheet_width_mm=700,
    sheet_height_mm=500,
    grammage=240,
    grain="short",
    owned=40,
)
STARS = Paper(
    name="Star prints, pad",
    kind="drawing",
    form="pad",
    sheet_width_mm=305,
    sheet_height_mm=305,
    grammage=120,
    grain="long",
    sides=1,
    designs=6,
    each=4,
)


@pytest.fixture
def session(app):
    with transaction(app.extensions["pleat_engine"]) as opened:
        yield opened


def kept(session, paper):
    return offered.keep(session, paper)


def answers(name, paper, **more):
    one = recipe(name)
    return Answers(recipe=name, size=one.size, count=one.count, paper=str(paper), **more)


@pytest.mark.parametrize("name", FOLDED)
def test_it_is_begun_from_the_paper_that_was_chosen_and_plans(session, name):
    card = kept(session, CARD)
    book = begun(session, answers(name, card))
    one = recipe(name)
    mine = getattr(book.paper, one.made_from)
    assert mine.name == CARD.name
    assert mine.stock_id == str(card)
    plan = make_plan(book)
    assert not [
        check for _, check in plan.checks if check.level == "stop" and check.key not in ("owned", "F10")
    ]
    assert one.counted == ("amount" in type(book.pages).model_fields)


def test_papers_of_the_faces_come_from_the_materials_where_there_are_some(session):
    card = kept(session, CARD)
    kept(session, STARS)
    book = begun(session, answers("crossfold", card))
    assert book.paper.mat.stock_id is not None
    plan = make_plan(book)
    assert plan.paper.stock("mat").caliper.likely < 0.25, "a paper that lies flat on a face, no card"
    other = editing.apply(book, [("paper.mat", STARS.model_dump(mode="json"))])
    assert [one.label for one in make_plan(other).pages.offers if one.group == "papers"] == [
        "give all 10 faces their papers"
    ]


def test_a_count_is_asked_for_only_where_there_is_something_to_count(session):
    card = kept(session, CARD)
    assert begun(session, answers("crossfold", card)).pages.kind == "crossfold"
    with pytest.raises(BadBook) as told:
        begun(session, Answers(recipe="hills", size="180 × 180", count="many", paper=str(card)))
    assert [problem.path for problem in told.value.problems] == ["count"]
    book, guessed = so_far(session, Answers(recipe="hills", size="nonsense", count="", paper=""))
    assert set(guessed) == {"size", "count", "paper"}
    assert book.pages.amount == 8


def test_a_paper_that_is_not_among_the_materials_is_kept_and_is_what_it_is_folded_from(session):
    given = Answers(
        recipe="nested",
        size="150 × 200",
        paper="own",
        own_name="Grey card",
        own_size="700 x 500",
        own_weight="230 g/m²",
        title="Three nights",
    )
    book_id = start(session, given, "window")
    book = service.open_book(session, book_id).book
    assert book.paper.card.name == "Grey card"
    assert book.paper.card.stock_id is not None
    assert book.title == "Three nights"
    again = service.open_book(session, start(session, given, "window")).book
    assert again.paper.card.stock_id == book.paper.card.stock_id, (
        "the same paper typed twice is one among the materials"
    )


@pytest.mark.parametrize("name", FOLDED)
def test_what_it_takes_is_counted_against_what_is_owned(session, name):
    """With forty sheets there is enough; with none the plan says how many are missing, and so does what it
    costs."""
    card = kept(session, CARD)
    opened = service.open_book(session, start(session, answers(name, card), "window"))
    role = recipe(name).made_from
    takes = opened.plan.cutting.takes[role]
    assert 1 <= takes <= 40
    assert not [check for _, check in opened.plan.checks if check.key == "owned" and CARD.name in check.title]
    none = editing.apply(opened.book, [(f"paper.{role}.owned", takes - 1)])
    (check,) = [
        check for _, check in make_plan(none).checks if check.key == "owned" and CARD.name in check.title
    ]
    assert f"you own {takes - 1}" in check.title


@pytest.mark.parametrize("name", FOLDED)
def test_it_becomes_a_journal_and_comes_back_with_all_it_had(name):
    book = editing.apply(recipe(name).book(), [("pages.border_mm", 5.0), ("pages.photo", "a7")])
    journal = becoming(book, recipe("journal"), NO_TOOLS).book
    assert journal.pages.kind == "sections"
    assert journal.aside["pages"][book.pages.kind]["border_mm"] == 5.0
    back = becoming(journal, recipe(name), NO_TOOLS).book
    assert back.pages.border_mm == 5.0
    assert back.pages.kind == book.pages.kind
    assert make_plan(back).pages.made.thick.likely > 0


def test_recipes_for_photographs_are_proposed_for_photographs():
    best = [one.recipe.name for one in advise("photographs", 12, frozenset())[:6]]
    assert set(best) & set(FOLDED)
    flat = advise("photographs", 16, frozenset({"flat"}))
    assert {one.recipe.name for one in flat[:4]} & {"concertina", "hills", "connectors"}
    assert len({one.name for one in RECIPES}) == len(RECIPES) == 56


@pytest.mark.parametrize(
    ("name", "item"),
    [
        (
            "flapped",
            BoughtFastener(name="Flat magnet, small", shape="magnet", width_mm=6, thickness_mm=1, owned=3),
        ),
        ("row", BoughtFastener(name="Eyelet, brass", shape="eyelet", width_mm=5, thickness_mm=0.6, owned=5)),
        ("keyring", BoughtFastener(name="Brad", shape="brad", width_mm=5, thickness_mm=0.5, owned=1)),
    ],
)
def test_what_is_only_named_is_found_among_the_materials_and_counted(session, name, item):
    """All items of a sort together; what the run takes is counted from its pieces."""
    book = editing.apply(recipe(name).book(), [("brief.quantity", 2)])
    book_id = service.add(session, book, "window", "made")

    def there():
        opened = service.open_book(session, book_id)
        named = {piece.name for piece in opened.plan.parts if getattr(piece, "stock", "") == item.shape}
        (want,) = [want for want in opened.overview.wants if want.name in named]
        assert want.needed == sum(
            piece.count for piece in opened.plan.parts if getattr(piece, "stock", "") == item.shape
        )
        return want

    before = there().owned or 0
    kept(session, item)
    assert there().owned == before + item.owned
    assert there().missing == max(there().needed - there().owned, 0)
