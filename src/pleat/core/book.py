"""The Book: the document that is saved, exchanged and planned from. It holds decisions and measurements, never results.

Format 2 keeps several readings of a paper's stack (``readings_mm``) where format 1 had one (``measured_mm``); format 3 adds the
fold-outs of a pile's sheets; format 4 which way round pieces lie, and the size and place of windows. ``bookfile`` reads them all.
Lengths are mm. In a book file a length may also be a text with its unit (``"8 1/4 in"``); it is read
once, exactly, and how it was typed is kept in ``typed`` so that mixed units can be pointed out.
"""

from __future__ import annotations

from typing import Annotated, Any, Final, Literal

from pydantic import AfterValidator, Field, model_validator
from pydantic_core import PydanticCustomError

from pleat.core.fields import ChoiceRule, LengthRule, NumberRule, Record, TextRule, plain_text
from pleat.core.materials.items import Paper

FORMAT: Final = 4
"""The version of the document; a reader of format n reads every format up to n."""


MOST_SECTIONS: Final = 60
FARTHEST_SCORE_MM: Final = 60.0
LARGEST_SQUARE_MM: Final = 40.0
Position = Annotated[float, LengthRule("a station", 0, 1000)]
Word = Annotated[str, Field(max_length=300), AfterValidator(plain_text)]
Lies = Literal["auto", "upright", "turned"]
_LIES: Final = (("auto", "the better way"), ("upright", "upright"), ("turned", "turned"))


class Brief(Record):
    """Pleat 1, what is being made."""

    kind: Annotated[str, TextRule("the kind of book", 40)] = "pamphlet"
    leaf_width_mm: Annotated[float, LengthRule("the leaf's width", 30, 600)] = 148.5
    leaf_height_mm: Annotated[float, LengthRule("the leaf's height", 40, 600)] = 210.0
    purpose: Annotated[
        Literal["writing", "sketching", "painting", "photographs", "gift"],
        ChoiceRule(
            "what it is for",
            (
                ("writing", "writing"),
                ("sketching", "sketching"),
                ("painting", "painting"),
                ("photographs", "photographs"),
                ("gift", "a gift"),
            ),
        ),
    ] = "writing"
    quantity: Annotated[int, NumberRule("how many books", 1, 500, "books", whole=True)] = 1
    ruler: Annotated[Literal["mm", "in"], ChoiceRule("ruler", (("mm", "mm"), ("in", "in")))] = "mm"


def _copier() -> Paper:
    return Paper(name="Copier paper", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80)


def _card() -> Paper:
    return Paper(name="Cover card", kind="cardstock", sheet_width_mm=297, sheet_height_mm=420, grammage=250, swatch="kraft")


class Papers(Record):
    """Pleat 2, what it is made from."""

    leaf: Paper = Field(default_factory=_copier)
    cover: Paper = Field(default_factory=_card)


class PileSheet(Record):
    """One sheet of a mixed pile, folded once: its paper as the materials had it, and the window cut into it.

    ``pinned`` sheets stay where they lie when the pile is arranged. A fold-out hangs on the fore edge of its second leaf, or of its only one.
    A window without sizes lies in the middle of the first leaf. ``lies`` says which of the sheet's sides the spine goes along, ``narrow``
    which leaf of a sheet that is not wide enough is the narrower one.
    """

    id: int = Field(ge=0, le=100000)
    paper: Paper
    window: Annotated[Literal["no", "yes"], ChoiceRule("window", (("no", "no window"), ("yes", "has a window")))] = "no"
    window_width_mm: Annotated[float, LengthRule("the window's width", 5, 600)] | None = None
    window_height_mm: Annotated[float, LengthRule("the window's height", 5, 600)] | None = None
    window_fore_mm: Annotated[float, LengthRule("the window from the fore edge", 0, 600)] | None = None
    window_head_mm: Annotated[float, LengthRule("the window from the head", 0, 600)] | None = None
    pinned: bool = False
    lies: Annotated[Lies, ChoiceRule("lies", _LIES)] = "auto"
    narrow: Annotated[
        Literal["both", "first", "second"],
        ChoiceRule("where it is narrower", (("both", "both leaves"), ("first", "the first leaf"), ("second", "the second leaf"))),
    ] = "both"
    flap_mm: Annotated[float, LengthRule("the fold-out flap", 5, 600)] | None = None
    flap_panels: Annotated[int, NumberRule("the number of panels", 1, 6, "panels", whole=True)] = 1


class Pages(Record):
    """Pleat 3, how many leaves and how they lie. With sheets in ``pile`` the book is made of those, whatever the count says.

    ``order`` holds the pile's ids section by section, from the outside in; where it does not fit the pile, the sheets are dealt out.
    """

    amount: Annotated[int, NumberRule("the count", 1, 2000, whole=True)] = 40
    counted_in: Annotated[
        Literal["pages", "leaves", "folios", "unsaid"],
        ChoiceRule("counted in", (("pages", "pages"), ("leaves", "leaves"), ("folios", "folded sheets"), ("unsaid", "not said"))),
    ] = "pages"
    lay: Annotated[
        Literal["flat", "handled", "crumpled"],
        ChoiceRule("how the paper lies", (("flat", "new and flat"), ("handled", "handled, dyed or painted"), ("crumpled", "crumpled"))),
    ] = "flat"
    folds: Annotated[Literal[1, 2, 3], ChoiceRule("each sheet folded", (("1", "once"), ("2", "twice"), ("3", "three times")))] = 1
    edges: Annotated[Literal["slit", "trim"], ChoiceRule("edges", (("slit", "slit open"), ("trim", "trimmed")))] = "slit"
    trim_mm: Annotated[float, LengthRule("the trim", 0.5, 20)] = 3.0
    sections: Annotated[int, NumberRule("sections", 1, MOST_SECTIONS, "sections", whole=True)] = 1
    creep: Annotated[
        Literal["leave", "trim", "narrow"],
        ChoiceRule("the creep", (("leave", "left as it is"), ("trim", "trimmed off"), ("narrow", "inner sheets cut narrower"))),
    ] = "leave"
    numbered: Annotated[Literal["no", "yes"], ChoiceRule("page numbers", (("no", "blank book"), ("yes", "numbered")))] = "no"
    flap_mm: Annotated[float, LengthRule("the fold-out flap", 5, 600)] | None = None
    flap_panels: Annotated[int, NumberRule("the number of panels", 1, 6, "panels", whole=True)] = 1
    flap_on: Annotated[
        Literal["innermost", "every"], ChoiceRule("flap on", (("innermost", "the innermost sheet"), ("every", "every sheet")))
    ] = "innermost"
    measured_block_mm: Annotated[float, LengthRule("the measured block", 0.1, 100)] | None = None
    pile: tuple[PileSheet, ...] = Field(default=(), max_length=400)
    order: tuple[tuple[int, ...], ...] = Field(default=(), max_length=MOST_SECTIONS)
    stubs: tuple[int, ...] = Field(default=(), max_length=400, description="sheets of the pile that are single leaves on a stub")
    tipped: tuple[int, ...] = Field(default=(), max_length=400, description="sheets of the pile that are glued in at the gutter")
    pairs: tuple[tuple[int, int], ...] = Field(default=(), max_length=200, description="sheets of the pile that should face each other")

    @model_validator(mode="after")
    def _numbered_once(self) -> Pages:
        """Every sheet of the pile has a number of its own."""
        if len({sheet.id for sheet in self.pile}) != len(self.pile):
            raise PydanticCustomError("pile", "Two sheets of the pile have the same number.")
        return self


class Extras(Record):
    """Pleat 4: nothing can be put in here yet."""


class Thread(Record):
    """A thread by its trade number, lea and plies as in 18/3; a tex wins over that, and a measured diameter over both.

    ``name`` is what it is called among the materials; empty for a linen thread known by its number.
    """

    name: Annotated[str, TextRule("the thread's name", 60, required=False)] = ""
    lea: Annotated[int, NumberRule("the lea number", 4, 120, whole=True)] = 18
    plies: Annotated[int, NumberRule("the plies", 1, 12, whole=True)] = 3
    tex: Annotated[float, NumberRule("the tex", 5, 5000, "tex")] | None = None
    diameter_mm: Annotated[float, LengthRule("the thread's measured diameter", 0.05, 8, fine=True)] | None = None


class Binding(Record):
    """Pleat 5: stations from the leaf's head, the path of the thread, and the thread itself."""

    station_count: Annotated[Literal[3, 5], ChoiceRule("stations", (("3", "3 stations"), ("5", "5 stations")))] = 3
    insets_mm: tuple[Position, ...] | None = Field(
        default=None, max_length=2, description="symmetric stations: their distances from the head, outermost first"
    )
    positions_mm: tuple[Position, ...] | None = Field(default=None, max_length=5, description="unlocked stations, from the head")
    knot: Annotated[
        Literal["inside", "outside"], ChoiceRule("knot", (("inside", "inside, in the fold"), ("outside", "outside, on the spine")))
    ] = "inside"
    own_path: tuple[Annotated[int, NumberRule("a hole", 1, 5, whole=True)], ...] | None = Field(
        default=None, min_length=2, max_length=40, description="the maker's own order of holes, 1 at the head"
    )
    thread: Thread = Thread()
    strands: Annotated[Literal[1, 2], ChoiceRule("thread taken", (("1", "single"), ("2", "double")))] = 1
    tail_mm: Annotated[float, LengthRule("each tail", 30, 1000)] = 90.0
    thread_cut_mm: Annotated[float, LengthRule("the thread you cut", 10, 20000)] | None = None
    cover_holes_mm: tuple[Position, ...] | None = Field(
        default=None, max_length=5, description="holes already made in the cover, from the cover's head"
    )


class Cover(Record):
    """Pleat 6: the soft wrap."""

    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    creases: Annotated[
        Literal["auto", "one", "two"], ChoiceRule("creases", (("auto", "by thickness"), ("one", "one crease"), ("two", "two creases")))
    ] = "auto"
    score_offset_mm: Annotated[float, LengthRule("the score from the middle", 0, FARTHEST_SCORE_MM)] | None = None
    piece_width_mm: Annotated[float, LengthRule("the width of the piece you cut", 30, 2000)] | None = None
    piece_height_mm: Annotated[float, LengthRule("the height of the piece you cut", 30, 2000)] | None = None


Counted = Annotated[int, NumberRule("pieces from one sheet", 0, 1000, "pieces", whole=True)]


class Cutting(Record):
    """Pleat 7: how many pieces the maker counted out of one sheet, where they did, and which way round pieces lie."""

    counted_leaf: Counted | None = None
    counted_cover: Counted | None = None
    leaf_lies: Annotated[Lies, ChoiceRule("leaf pieces lie", _LIES)] = "auto"
    cover_lies: Annotated[Lies, ChoiceRule("the cover lies", _LIES)] = "auto"


class Bench(Record):
    """Pleat 8: ticked steps, each with the signature of the figures it was ticked on."""

    ticks: dict[Word, Annotated[str, Field(max_length=20_000), AfterValidator(plain_text)]] = Field(default_factory=dict, max_length=200)


class Book(Record):
    """One book, or a run of equal ones. Raises pydantic's ValidationError; read files with ``bookfile.read_book``."""

    format: Literal[4] = 4
    title: Annotated[str, TextRule("the title", 80)] = "Untitled book"
    brief: Brief = Brief()
    paper: Papers = Field(default_factory=Papers)
    pages: Pages = Pages()
    extras: Extras = Extras()
    binding: Binding = Binding()
    cover: Cover = Cover()
    cutting: Cutting = Cutting()
    bench: Bench = Bench()
    typed: dict[Word, Word] = Field(default_factory=dict, max_length=200, description="how lengths were typed, by field")

    @model_validator(mode="before")
    @classmethod
    def _keep_what_was_typed(cls, data: Any) -> Any:
        """Lengths given as text in a file leave a record of the text, before they become millimetres."""
        if not isinstance(data, dict) or not isinstance(held := data.get("typed") or {}, dict):
            return data
        typed = {path: text for path, text in _texts(data) if path.endswith("_mm")}
        return {**data, "typed": {**typed, **held}} if typed else data


_DEEPEST: Final = 3
"""How many groups deep a field of a book lies."""


def _texts(data: dict[str, Any], prefix: str = "", depth: int = 1) -> list[tuple[str, str]]:
    found: list[tuple[str, str]] = []
    for key, value in data.items():
        if isinstance(value, dict) and key != "typed" and depth < _DEEPEST:
            found += _texts(value, f"{prefix}{key}.", depth + 1)
        elif isinstance(value, str):
            found.append((f"{prefix}{key}", value))
    return found
