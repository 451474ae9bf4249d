"""A book made another kind of book: whichever of all kinds it was and becomes."""

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.materials.tools import Tools
from pleat.core.whole.planning import make_plan
from pleat.services.starting import becoming
from tests.profiles import LONG

NAMES = [one.name for one in RECIPES]
TOOLS = Tools()


def stored(book, path):
    """What a book file says at a path."""
    group, name = path.split(".")
    return book.model_dump(mode="json")[group][name]


SPARSE = 6 if LONG else 36
# every kind from some and to some others: all pairs would say no more
PAIRS = [
    (was, becomes)
    for n, was in enumerate(NAMES)
    for m, becomes in enumerate(NAMES)
    if n == m or (n * 5 + m) % SPARSE == 0
]


@pytest.mark.every(2)
@pytest.mark.parametrize(("was", "becomes"), PAIRS)
def test_every_kind_becomes_every_other_and_is_all_of_it(was, becomes):
    begun, kind = recipe(was).book(), recipe(becomes)
    change = becoming(begun, kind, TOOLS)
    assert [(path, stored(change.book, path)) for path, _ in kind.made] == list(kind.made_on(RULERS["mm"]))
    assert bool(getattr(change.book.pages, "pile", ())) == kind.pile
    assert bool(change.goes) == (recipe(was).pile and not kind.pile)
    assert change.plan == make_plan(change.book, TOOLS)
    if change.goes and kind.counted:
        assert (change.book.pages.amount, change.book.pages.counted_in) == (
            make_plan(begun, TOOLS).pages.pages,
            "pages",
        )
    carried = (
        "brief",
        "paper.leaf",
        "paper.cover",
        "title",
        *(
            ()
            if change.goes or not (kind.counted and recipe(was).counted)
            else ("pages.amount", "pages.counted_in")
        ),
    )
    before, after = (one.model_dump(mode="json") for one in (begun, change.book))
    if kind.counts and recipe(was).counted and begun.pages.amount > kind.counts.high:
        assert change.book.pages.amount == kind.counts.high, "as many as it holds"
        carried = tuple(path for path in carried if path != "pages.amount")
    for path in carried:
        group, _, name = path.partition(".")
        assert (after[group][name] if name else after[group]) == (
            before[group][name] if name else before[group]
        )


@pytest.mark.parametrize(
    "own",
    [
        ("binding.station_count", 5),
        ("binding.knot", "outside"),
        ("pages.numbered", "yes"),
        ("cover.square_mm", 5.0),
    ],
)
def test_what_the_maker_decided_beside_the_kind_stays(own):
    book = editing.apply(recipe("pocket").book(), [own])
    assert stored(becoming(book, recipe("journal"), TOOLS).book, own[0]) == own[1]


def test_a_programme_gets_its_cover_back_as_it_was():
    book = editing.apply(recipe("journal").book(), [("cover.square_mm", 5.0)])
    bare = becoming(book, recipe("programme"), TOOLS)
    assert bare.aside == ("wrap",)
    assert becoming(bare.book, recipe("journal"), TOOLS).book.cover == book.cover


def test_more_sheets_than_a_pile_holds_are_told():
    book = editing.apply(recipe("journal").book(), [("pages.amount", 2000)])
    with pytest.raises(BadBook, match="A pile holds up to 400 sheets"):
        becoming(book, recipe("found"), TOOLS)
