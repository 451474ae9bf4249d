"""The catalogue of checks: every slip that Pleat tells, by its code.

A check is made with the code of one of these (``pleat.core.base.plan.Check``); one that is not here cannot be
made, and mypy finds it before. What it says is worked out where its figures are. ``docs/checks.md`` is made
from this table by ``make tables``; that each is raised by a book and absent in another is seen in
``tests/core/whole/test_slips.py``.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal, get_args

Level = Literal["stop", "watch", "note"]
"""It will not work; it may go wrong; good to know."""
LEVELS: Final[tuple[Level, ...]] = ("stop", "watch", "note")
PleatName = Literal["brief", "paper", "pages", "extras", "binding", "cover", "cutting", "bench"]

# fmt: off
SlipCode = Literal[
    "A1", "A2", "A3", "A4", "A5", "A6", "A7", "A8", "A9", "A10", "A11",
    "B1", "B2", "B3", "B4", "B6", "B7", "B8", "B9", "B10", "B11",
    "C1", "C2", "C3", "C3_alike", "C4", "C5", "C6", "C7",
    "D1", "D2", "D3", "D4", "D5", "D6", "D7", "D8", "D9", "D10", "D11",
    "E1", "E2", "E3", "E4", "E5", "E6",
    "F1", "F2", "F3", "F4", "F5", "F6", "F7", "F8", "F9", "F10",
    "G2",
    "backed", "changed", "cotton", "crease", "cut_otherwise", "deep", "drawn", "flap_folds", "flap_room",
    "flap_trim", "grade", "grain", "grip", "hinge", "holds", "joint", "kind", "layers", "marks", "measured",
    "mirrored", "narrow", "order", "over_holes", "overlap", "owned", "owned_pad", "padding", "painted",
    "perforated", "pin", "quarter", "readings", "scoring", "seam", "sections", "slant", "stacked", "stations",
    "thread", "through", "trimmer", "tuck", "unfit", "unknown", "warp", "wedge", "weight", "window",
]
"""A letter and a number name what the trade knows as a mistake, a word what else wants the maker's eye."""
# fmt: on


@dataclass(frozen=True, kw_only=True)
class Slip:
    """One thing that can go wrong: what, how bad it can be, the pleats that tell it, and where its limit
    comes from."""

    code: SlipCode
    what: str
    levels: tuple[Level, ...]
    pleats: tuple[PleatName, ...]
    source: str


ARITHMETIC: Final = "arithmetic"
PRACTICE: Final = "common practice, no source"
HOUSE: Final = "house rule"


def _slip(code: SlipCode, what: str, levels: str, pleats: str, source: str) -> Slip:
    """A row of the table: levels and pleats are words with spaces between them. Raises ValueError for one
    that there is not."""
    told, where = set(levels.split()), set(pleats.split())
    if not told <= set(LEVELS) or not where <= set(get_args(PleatName)):
        raise ValueError(f"the slip {code} has a level or a pleat that there is not: {levels}; {pleats}")
    return Slip(
        code=code,
        what=what,
        levels=tuple(level for level in LEVELS if level in told),
        pleats=tuple(name for name in get_args(PleatName) if name in where),
        source=source,
    )


# fmt: off
SLIPS: Final[dict[str, tuple[Slip, ...]]] = {
    "Sizes and sums": (
        _slip("A1", "panels of a scored piece do not add up to the sheet it was cut from",
              "stop watch", "pages cover", ARITHMETIC),
        _slip("A2", "two panels that are meant to be equal are not",
              "stop watch", "pages binding cover", ARITHMETIC),
        _slip("A3", "a spine scored by a distance either side of the middle that is not half its thickness",
              "stop watch", "cover", ARITHMETIC),
        _slip("A4", "a strip or paper that dresses a panel is as wide as the panel, and blocks its folds",
              "watch", "pages cover", ARITHMETIC),
        _slip("A5", "one size of paper for panels of different sizes",
              "stop watch", "pages cover", ARITHMETIC),
        _slip("A6", "a piece has no panel to go on, or a leaf no place",
              "stop watch note", "pages extras binding cover", ARITHMETIC),
        _slip("A7", "a border named as the total where it is on each side, or the other way round",
              "watch", "pages cover", ARITHMETIC),
        _slip("A8", "a jig is not as wide as the strip it is laid on", "stop", "binding", ARITHMETIC),
        _slip("A9", "the same part has two sizes in two places", "stop watch", "pages cover", ARITHMETIC),
        _slip("A10", "inches and millimetres are mixed in one plan, and rounded twice",
              "watch note", "cutting", ARITHMETIC),
        _slip("A11", "a count without a word is taken for pages", "note", "pages", HOUSE),
    ),
    "Paper and stock": (
        _slip("B1", "a piece does not come out of the sheet that is owned", "stop", "cutting", ARITHMETIC),
        _slip("B2", "a tab is too narrow to glue", "stop", "pages", PRACTICE),
        _slip("B3", "a sheet is smaller than the leaf needs once it is folded",
              "stop note", "pages", ARITHMETIC),
        _slip("B4", "an offcut is taken for pieces it is too short for, or for some of them", "stop note",
              "cutting", ARITHMETIC),
        _slip("B6", "the count of pieces a sheet gives is wrong", "stop watch", "cutting", ARITHMETIC),
        _slip("B7", "the grain runs across the spine or across the folds",
              "watch note", "pages cover cutting", PRACTICE),
        _slip("B8", "a weight in pounds is read in the wrong grade",
              "watch note", "paper pages", "US paper trade basis sizes, as in TAPPI T 410"),
        _slip("B9", "paper that is good on one side shows its blank one",
              "watch note", "pages extras cover", ARITHMETIC),
        _slip("B10", "a pattern with a top lies sideways or on its head",
              "watch", "pages extras cover cutting", ARITHMETIC),
        _slip("B11", "the paper is too heavy for so many leaves", "watch", "pages extras", HOUSE),
    ),
    "Pages and sections": (
        _slip("C1", "too many sheets for one fold", "stop watch", "pages", HOUSE),
        _slip("C2", "a small leaf is held by fewer than two holes", "stop watch", "binding", ARITHMETIC),
        _slip("C3", "two windows lie face to face", "watch", "pages", ARITHMETIC),
        _slip("C3_alike", "similar papers lie side by side", "note", "pages", HOUSE),
        _slip("C4", "inner leaves creep past the cover", "watch note", "cover", ARITHMETIC),
        _slip("C5", "leaves of odd size stay odd after a common trim", "note", "pages", ARITHMETIC),
        _slip("C6", "a fold-out reaches the gutter", "stop watch", "pages extras", PRACTICE),
        _slip("C7", "two papers that should face each other do not", "watch", "pages", ARITHMETIC),
    ),
    "Binding": (
        _slip("D1", "the cover is forgotten before it is sewn through", "stop", "bench", ARITHMETIC),
        _slip("D2", "a stitch leaves out a hole, ends on the wrong side or does not hold",
              "stop watch", "binding", ARITHMETIC),
        _slip("D3", "the thread is cut too short, or wastefully long",
              "stop watch note", "binding", ARITHMETIC),
        _slip("D4", "holes of cover and leaves are not the same", "stop", "cover", ARITHMETIC),
        _slip("D5", "a hole is too near an edge", "stop watch", "binding cover", PRACTICE),
        _slip("D6", "the pitch of the punch is not that of what is bound with",
              "stop", "binding", ARITHMETIC),
        _slip("D7", "the stack is thicker than the punch takes", "stop", "binding", ARITHMETIC),
        _slip("D8", "rings are too small for the book, or are threaded in the wrong order",
              "stop watch", "binding bench", ARITHMETIC),
        _slip("D9", "front and back cover are punched the same way round instead of mirrored",
              "stop", "binding", ARITHMETIC),
        _slip("D10", "what is pulled has nothing to pull at: a tight or slack elastic, a hole in weak paper, "
        "glue alone",
              "stop watch note", "extras binding", PRACTICE),
        _slip("D11", "sticks or strips do not fit the spine", "stop watch", "binding", ARITHMETIC),
    ),
    "Cover": (
        _slip("E1", "gaps between the boards are left out of the sum", "stop watch", "cover", ARITHMETIC),
        _slip("E2", "no square, very unequal ones, or leaves that stand out",
              "stop watch note", "cover", PRACTICE),
        _slip("E3", "a turn-in is too long or too short, or its corners are cut in the wrong place",
              "stop watch", "cover", PRACTICE),
        _slip("E4", "the covering does not come out of the cloth or paper that is owned",
              "stop", "cutting", ARITHMETIC),
        _slip("E5", "a step inside a padded cover keeps the hinge from lying flat", "watch", "cover", HOUSE),
        _slip("E6", "the spine is not lined before the block is hung in",
              "stop watch", "cover bench", PRACTICE),
    ),
    "Extras, bulk and closing": (
        _slip("F1", "what goes into a pocket is as wide as its throat, or stands out more than was wanted",
              "stop watch", "pages extras", ARITHMETIC),
        _slip("F2", "a mouth is glued shut or covered", "stop watch", "pages extras", ARITHMETIC),
        _slip("F3", "a fastener has nothing to hold on to, misses its other half, or is forgotten until its "
        "panel is covered",
              "stop", "pages extras cover bench", ARITHMETIC),
        _slip("F4", "what lies below is done after what lies on it", "stop", "extras bench", ARITHMETIC),
        _slip("F5", "what is put in is too thick for the spine or gusset: the book gapes",
              "stop watch", "pages extras binding cover", HOUSE),
        _slip("F6", "thick things lie on one spot of successive pages", "watch", "pages extras", HOUSE),
        _slip("F7", "flaps open into the gutter or into each other",
              "stop watch", "pages extras", ARITHMETIC),
        _slip("F8", "a gusset is too small for what the later flap closes round",
              "stop", "pages extras cover", ARITHMETIC),
        _slip("F9", "a thing is larger than what carries it", "stop", "pages extras cover", ARITHMETIC),
        _slip("F10", "what is shown is larger than its mat or frame", "stop", "pages extras", ARITHMETIC),
    ),
    "Order": (
        _slip("G2", "decorating that wants the flat sheet is left until it is folded in",
              "stop", "bench", PRACTICE),
    ),
    "What else wants the maker's eye": (
        _slip("backed", "covering that is not backed lets the glue through", "watch", "cover", PRACTICE),
        _slip("changed", "a step was ticked, and its figures have changed since",
              "watch", "bench", ARITHMETIC),
        _slip("cotton", "cotton thread, unwaxed and single", "note", "binding", PRACTICE),
        _slip("crease", "one crease for a spine that is too thick for it", "watch", "cover", PRACTICE),
        _slip("cut_otherwise", "pieces were cut that do not go into the book as it is now",
              "watch note", "cutting", ARITHMETIC),
        _slip("deep", "more paper than a sewing machine goes through", "stop", "binding", HOUSE),
        _slip("drawn", "the leaf of the brief is not what is drawn", "note", "pages", ARITHMETIC),
        _slip("flap_folds", "a fold-out from sheets that are folded more than once",
              "stop", "pages", ARITHMETIC),
        _slip("flap_room", "the sheet has no room for the fold-out", "stop", "pages", ARITHMETIC),
        _slip("flap_trim", "a trim of the fore edge would cut the fold-out off", "stop", "pages", ARITHMETIC),
        _slip("grade", "a reading and what is known by name disagree, or the grade of the pounds is not sure",
              "watch note", "paper", "US paper trade basis sizes, as in TAPPI T 410"),
        _slip("grain", "the grain of a paper is not known, or guessed", "note", "paper", PRACTICE),
        _slip("grip", "nothing stands out of a pocket to take it by", "note", "extras", HOUSE),
        _slip("hinge", "a hinge runs through the holes, past the middle, or is missing where leaves do not "
        "bend",
              "stop watch note", "binding cover", PRACTICE),
        _slip("holds", "magnets that do not hold through what lies between them",
              "watch", "extras", PRACTICE),
        _slip("joint", "the joint of a case is too narrow to open", "stop watch", "cover", HOUSE),
        _slip("kind", "a kind that this Pleat does not know", "stop", "pages binding cover", ARITHMETIC),
        _slip("layers", "so many layers spring open at their creases", "watch", "cover", HOUSE),
        _slip("marks", "on another ruler the book comes out otherwise", "watch", "cutting", ARITHMETIC),
        _slip("measured", "a measured block is not what its paper makes", "watch", "pages", HOUSE),
        _slip("mirrored", "holes that are not the same from both ends", "note", "cover", ARITHMETIC),
        _slip("narrow", "sheets folded more than once cannot be narrowed for the creep",
              "stop", "pages", ARITHMETIC),
        _slip("order", "a step is ticked before what comes first", "note", "bench", ARITHMETIC),
        _slip("over_holes", "a thing lies over the holes", "watch", "binding", ARITHMETIC),
        _slip("overlap", "two things lie over each other", "watch", "extras", ARITHMETIC),
        _slip("owned", "more is needed than is owned", "stop", "cutting", ARITHMETIC),
        _slip("owned_pad", "a pad gives fewer of a design than are wanted", "watch", "pages", ARITHMETIC),
        _slip("padding", "padding goes into the joint", "watch", "cover", PRACTICE),
        _slip("painted", "painted pages swell, and are estimated as new", "note", "pages", HOUSE),
        _slip("perforated", "a machine's holes take so much of the fold that it tears",
              "watch", "binding", HOUSE),
        _slip("pin", "a pinned sheet holds pieces that the book takes no more", "note", "cutting",
              ARITHMETIC),
        _slip("quarter", "the spine's covering leaves little of the board", "watch", "cover", PRACTICE),
        _slip("readings", "readings that cannot be used", "watch", "paper", ARITHMETIC),
        _slip("scoring", "a piece is longer than the scoring board", "note", "cover", ARITHMETIC),
        _slip("seam", "the seam is wider than the strip it lies on", "note", "cover", PRACTICE),
        _slip("sections", "a stitch is not for so many sections, or not for such",
              "stop watch", "binding", PRACTICE),
        _slip("slant", "a slant that its pocket has no height for", "watch", "extras", HOUSE),
        _slip("stacked", "more pockets than the band has room for", "watch", "extras", ARITHMETIC),
        _slip("stations", "holes placed by hand are for another count", "watch", "binding", ARITHMETIC),
        _slip("thread", "a thread that is too thick or too thin for its fold", "note", "binding", HOUSE),
        _slip("through", "a thing goes through to another on the page behind", "watch", "extras", ARITHMETIC),
        _slip("trimmer", "a piece that the trimmer does not take", "note", "cutting", ARITHMETIC),
        _slip("tuck", "a strip tucks in farther than its board is wide, or nearly",
              "stop watch", "cover", ARITHMETIC),
        _slip("unfit", "a binding or cover that does not go with the block",
              "stop", "binding cover", ARITHMETIC),
        _slip("unknown", "of a paper too little is known", "watch", "paper", HOUSE),
        _slip("warp", "boards that pull to one side", "watch", "cover", PRACTICE),
        _slip("wedge", "filled, the fore edge is thicker than the spine", "watch", "cover", HOUSE),
        _slip("weight", "a paper's reading and its weight do not go together",
              "watch note", "paper", "ISO 536 and ISO 534, with bulks of common practice"),
        _slip("window", "a window leaves too little paper around it", "watch", "pages", PRACTICE),
    ),
}
# fmt: on
"""The slips by subject, in the order of the trade."""

CATALOGUE: Final[dict[SlipCode, Slip]] = {slip.code: slip for group in SLIPS.values() for slip in group}
