"""Hypothesis strategies shared by the tests: lengths, papers and whole books."""

from typing import Any

from hypothesis import strategies as st

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, declared, rule_on
from pleat.core.base.kinds import TAG
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.pleats.bench.record import Bench
from pleat.core.pleats.binding.record import Pamphlet
from pleat.core.pleats.brief.record import Brief
from pleat.core.pleats.cover.record import Wrap
from pleat.core.pleats.cutting.record import Cutting
from pleat.core.pleats.extras.base import Placed
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.pleats.extras.record import Extras
from pleat.core.pleats.pages.record import PileSheet, Sections
from pleat.core.pleats.paper.record import Papers

millimetres = st.integers(60, 1200).map(lambda half: half / 2)
papers = st.builds(
    Paper,
    name=st.just("Log paper"),
    kind=st.sampled_from(["copier", "drawing", "cardstock", "coated", "watercolour", "kraft", "other"]),
    sheet_width_mm=st.floats(100, 1000),
    sheet_height_mm=st.floats(100, 1000),
    grammage=st.none() | st.floats(40, 400),
    readings_mm=st.lists(st.floats(0.4, 8), max_size=4).map(tuple),
    pounds=st.none() | st.floats(5, 400),
    form=st.sampled_from(["sheets", "pad", "offcut"]),
    sides=st.sampled_from([1, 2]),
    pattern=st.sampled_from(["plain", "directional"]),
    grain=st.sampled_from(["long", "short", "unknown"]),
    owned=st.none() | st.integers(0, 500),
)


@st.composite
def piles(draw):
    """What a book with a mixed pile says of it: sheets, some with windows or fold-outs, some single leaves,
    in an order or none."""
    numbers = range(1, 1 + draw(st.integers(0, 6)))
    windows, flaps = st.sampled_from(["no", "yes"]), st.none() | st.floats(5, 200)
    own = {f"p{one}": draw(papers) for one in numbers}
    pile = tuple(
        PileSheet(
            id=one,
            paper=f"p{one}",
            window=draw(windows),
            flap_mm=draw(flaps),
            flap_panels=draw(st.integers(1, 3)),
        )
        for one in numbers
    )
    single = draw(st.lists(st.sampled_from(numbers), max_size=2, unique=True)) if pile else []
    return own, {
        "pile": pile,
        "stubs": tuple(single[:1]),
        "tipped": tuple(single[1:]),
        "order": draw(st.sampled_from([(), (tuple(numbers),)])),
    }


sections = st.builds(
    Sections,
    amount=st.integers(1, 120),
    counted_in=st.sampled_from(["pages", "leaves", "folios", "unsaid"]),
    lay=st.sampled_from(["flat", "handled", "crumpled"]),
    folds=st.sampled_from([1, 1, 2, 3]),
    edges=st.sampled_from(["slit", "trim"]),
    creep=st.sampled_from(["leave", "trim", "narrow"]),
    sections=st.integers(1, 4),
    numbered=st.sampled_from(["no", "yes"]),
    flap_mm=st.none() | st.floats(5, 300),
    flap_panels=st.integers(1, 3),
    measured_block_mm=st.none() | st.floats(0.5, 40),
)
_plain = st.builds(
    Book,
    brief=st.builds(
        Brief,
        leaf_width_mm=st.floats(30, 400),
        leaf_height_mm=st.floats(40, 400),
        purpose=st.sampled_from(["writing", "painting"]),
        quantity=st.integers(1, 40),
        ruler=st.sampled_from(["mm", "in"]),
    ),
    paper=st.builds(Papers, leaf=papers, cover=papers),
    pages=sections,
    binding=st.builds(
        Pamphlet,
        station_count=st.sampled_from([0, 3, 5, 7]),
        knot=st.sampled_from(["inside", "outside"]),
        strands=st.sampled_from([1, 2]),
        way=st.sampled_from(["past", "eight"]),
        spread=st.sampled_from(["usual", "quarters", "even"]),
        thread_cut_mm=st.none() | st.floats(10, 3000),
        insets_mm=st.none() | st.lists(st.floats(0, 20), max_size=3).map(tuple),
        positions_mm=st.none() | st.lists(st.floats(0, 40), max_size=7).map(tuple),
        cover_holes_mm=st.none() | st.lists(st.floats(0, 300), max_size=5).map(tuple),
    ),
    cover=st.builds(
        Wrap,
        square_mm=st.floats(0, 20),
        piece_width_mm=st.none() | st.floats(100, 900),
        piece_height_mm=st.none() | st.floats(100, 900),
        score_offset_mm=st.none() | st.floats(0, 60),
        creases=st.sampled_from(["auto", "one", "two"]),
    ),
    cutting=st.builds(
        Cutting, counted=st.dictionaries(st.sampled_from(["leaf", "cover"]), st.integers(0, 9))
    ),
    bench=st.builds(
        Bench,
        ticks=st.dictionaries(
            st.sampled_from(["cut_leaves", "cover_on", "pierce", "sew", "fold", "?"]), st.just("x")
        ),
    ),
)


def _with_pile(book, pile):
    """A book made of a pile, which holds the papers of its sheets."""
    own, values = pile
    return book.model_copy(
        update={
            "paper": book.paper.model_copy(update={"more": own}),
            "pages": book.pages.model_copy(update=values),
        }
    )


def records_of(model, fixed=()):
    """Any record of a model: every field within the rule it is declared with, or left as it is; ``fixed``
    fields are never set."""
    fields = {}
    for name, field in model.model_fields.items():
        rule = rule_on(field)
        if name in (*fixed, TAG) or rule is None:
            continue
        if isinstance(rule, LengthRule):
            one: st.SearchStrategy[Any] = st.floats(rule.low_mm, rule.high_mm)
        elif isinstance(rule, NumberRule):
            one = st.integers(int(rule.low), int(rule.high)) if rule.whole else st.floats(rule.low, rule.high)
        elif isinstance(rule, ChoiceRule):
            one = st.sampled_from([int(key) if key.isdecimal() else key for key, _ in rule.words])
        else:
            continue
        if declared(field).many:
            one = st.lists(one, max_size=7).map(tuple)
        fields[name] = st.none() | one if field.default is None else one
    return st.fixed_dictionaries({}, optional=fields).map(lambda values: model(**values))


FACES = [
    "page 1",
    "page 2",
    "page 7",
    "page 8",
    "page 40",
    "page 9999",
    "inside front cover",
    "inside back cover",
]
_places = st.lists(
    st.builds(
        Placed,
        on=st.sampled_from(FACES),
        x_mm=st.none() | st.floats(-20, 400),
        y_mm=st.none() | st.floats(-20, 400),
    ),
    max_size=4,
).map(tuple)


@st.composite
def put_in(draw, faces=None):
    """What is put in: up to three designs of any kind with any fields, on faces that may be there or not."""
    kinds = draw(st.lists(st.sampled_from(EXTRAS.members), max_size=3))
    items = {}
    for number, kind in enumerate(kinds):
        places = draw(
            _places
            if faces is None
            else st.lists(st.builds(Placed, on=st.sampled_from(faces)), max_size=3).map(tuple)
        )
        items[f"d{number}"] = draw(records_of(kind.record)).model_copy(update={"places": places})
    return Extras(items=items)


books = (
    _plain
    | st.builds(_with_pile, _plain, piles())
    | st.builds(lambda book, extras: book.model_copy(update={"extras": extras}), _plain, put_in())
)
