"""What a maker owns: one model a kind, each with the fields that kind needs. Lengths are mm.

A field's rule (``core.fields``) gives its name, bounds, form and messages. To add a kind, add a model and its
line in ``KINDS``.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pydantic import Field, field_validator
from pydantic_core import PydanticCustomError

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, Record, TextRule

PaperKind = Literal["copier", "drawing", "cardstock", "coated", "watercolour", "kraft", "other"]
Grade = Literal["bond", "text", "cover", "index", "bristol", "tag"]
Swatch = Literal["white", "cream", "grey", "kraft", "indigo", "rust", "moss"]
SWATCHES: Final = ChoiceRule(
    "colour", tuple((name, name) for name in ("white", "cream", "grey", "kraft", "indigo", "rust", "moss"))
)
GRAINS: Final = ChoiceRule(
    "grain along the", (("long", "long side"), ("short", "short side"), ("unknown", "not known"))
)
_Grain = Annotated[Literal["long", "short", "unknown"], GRAINS]
_StockId = Annotated[
    str | None, Field(max_length=40, description="the item among the materials it was taken from")
]
_Owned = Annotated[int, NumberRule("how many are left", 0, 100000, whole=True)]


class Item(Record):
    """What every kind has. ``price`` is what one costs (one sheet, one metre, one piece), in the maker's own
    money."""

    name: Annotated[str, TextRule("the name", 60)]
    tags: Annotated[str, TextRule("words to find it by", 120, required=False)] = ""
    price: Annotated[float, NumberRule("price of one", 0, 100000)] | None = None


class Paper(Item):
    """A paper as the maker knows it. Thickness comes from a measured stack, else from its weight and kind,
    else from its name.

    On a roll ``sheet_width_mm`` is its width and ``sheet_height_mm`` the length left. ``pounds`` without a
    ``grade`` stays a question: the grammage is then open. A directional pattern stands upright along the
    sheet's height. ``margins_mm`` are edges that are not used: one value all round, two for the sides and for
    head and tail, or four clockwise from the left edge. ``windows_mm`` are holes, printed patches and the
    like that no piece may have: from the left, from the top, width and height of each.
    """

    stock_id: _StockId = None
    form: Annotated[
        Literal["sheets", "pad", "roll", "found", "offcut"],
        ChoiceRule(
            "comes as",
            (
                ("sheets", "sheets"),
                ("pad", "pad"),
                ("roll", "roll"),
                ("found", "found paper"),
                ("offcut", "offcut"),
            ),
        ),
    ] = "sheets"
    kind: Annotated[
        PaperKind,
        ChoiceRule(
            "kind of paper",
            (
                ("copier", "copier"),
                ("drawing", "drawing"),
                ("cardstock", "cardstock"),
                ("coated", "coated"),
                ("watercolour", "watercolour"),
                ("kraft", "kraft"),
                ("other", "not sure"),
            ),
        ),
    ] = "other"
    sheet_width_mm: Annotated[float, LengthRule("the sheet's width", 30, 5000)]
    sheet_height_mm: Annotated[float, LengthRule("the sheet's height", 30, 100000)]
    designs: Annotated[int, NumberRule("designs in the pad", 1, 500, whole=True)] = 1
    each: Annotated[int, NumberRule("sheets of each design", 1, 500, whole=True)] = 1
    owned: Annotated[int, NumberRule("sheets you own", 0, 100000, "sheets", whole=True)] | None = None
    grammage: Annotated[float, NumberRule("the weight", 20, 700, "g/m²")] | None = None
    pounds: Annotated[float, NumberRule("the weight in pounds", 5, 400, "lb")] | None = None
    grade: (
        Annotated[
            Grade,
            ChoiceRule(
                "grade of the pounds",
                tuple((name, name) for name in ("bond", "text", "cover", "index", "bristol", "tag")),
            ),
        ]
        | None
    ) = None
    measured_sheets: Annotated[
        int, NumberRule("sheets in the measured stack", 1, 500, "sheets", whole=True)
    ] = 10
    readings_mm: tuple[Annotated[float, LengthRule("the measured stack", 0.02, 200, fine=True)], ...] = Field(
        default=(), max_length=20
    )
    grain: _Grain = "unknown"
    grain_sure: Annotated[
        Literal["sure", "likely", "guess"],
        ChoiceRule("how sure of the grain", (("sure", "sure"), ("likely", "fairly"), ("guess", "a guess"))),
    ] = "sure"
    sides: Annotated[Literal[1, 2], ChoiceRule("good on", (("2", "both sides"), ("1", "one side")))] = 2
    pattern: Annotated[
        Literal["plain", "all-over", "directional"],
        ChoiceRule("pattern", (("plain", "plain"), ("all-over", "any way up"), ("directional", "has a top"))),
    ] = "plain"
    toughness: Annotated[
        Literal["weak", "usual", "tough"],
        ChoiceRule("toughness", (("weak", "soft, weak"), ("usual", "usual"), ("tough", "tough"))),
    ] = "usual"
    margins_mm: tuple[Annotated[float, LengthRule("edges that are not used", 0, 300)], ...] = Field(
        default=(), max_length=4
    )
    windows_mm: tuple[Annotated[float, LengthRule("holes and windows", 0, 5000)], ...] = Field(
        default=(), max_length=48
    )
    swatch: Annotated[Swatch, SWATCHES] = "white"

    @field_validator("margins_mm")
    @classmethod
    def _one_two_or_four(cls, value: tuple[float, ...]) -> tuple[float, ...]:
        if len(value) == 3:
            words = "Give one width for all edges, two for the sides and for head and tail, or four."
            raise PydanticCustomError("length", "{reason}", {"reason": words})
        return value if any(value) else ()

    @field_validator("windows_mm")
    @classmethod
    def _four_each(cls, value: tuple[float, ...]) -> tuple[float, ...]:
        if len(value) % 4 or not all(side > 0 for at, side in enumerate(value) if at % 4 > 1):
            words = "Give four lengths for each: from the left, from the top, how wide, how high."
            raise PydanticCustomError("length", "{reason}", {"reason": words})
        return value

    @property
    def margins(self) -> tuple[float, float, float, float]:
        """The edges that are not used: left, top, right, bottom, in mm."""
        match self.margins_mm:
            case (edge,):
                return edge, edge, edge, edge
            case (sides, ends):
                return sides, ends, sides, ends
            case (left, top, right, bottom):
                return left, top, right, bottom
        return 0.0, 0.0, 0.0, 0.0

    @property
    def usable_mm(self) -> tuple[float, float]:
        """(width, height) without the edges that are not used; next to nothing where they are all of it."""
        left, top, right, bottom = self.margins
        return max(self.sheet_width_mm - left - right, 0.1), max(self.sheet_height_mm - top - bottom, 0.1)

    @property
    def windows(self) -> tuple[tuple[float, float, float, float], ...]:
        """Holes and windows, each (from the left, from the top, width, height) in mm."""
        four = self.windows_mm
        return tuple((four[at], four[at + 1], four[at + 2], four[at + 3]) for at in range(0, len(four), 4))


class Board(Item):
    """Greyboard, chipboard, mount board."""

    stock_id: _StockId = None
    sheet_width_mm: Annotated[float, LengthRule("the board's width", 30, 3000)]
    sheet_height_mm: Annotated[float, LengthRule("the board's height", 30, 3000)]
    thickness_mm: Annotated[float, LengthRule("the board's thickness", 0.3, 12, fine=True)]
    grain: _Grain = "unknown"
    owned: _Owned | None = None
    swatch: Annotated[Swatch, SWATCHES] = "grey"


class Cloth(Item):
    """Book cloth, fabric or any wrap from a roll; its warp, like a grain, runs along the roll."""

    stock_id: _StockId = None
    roll_width_mm: Annotated[float, LengthRule("the roll's width", 30, 3000)]
    length_left_mm: Annotated[float, LengthRule("the length left", 0, 200000)]
    thickness_mm: Annotated[float, LengthRule("the cloth's thickness", 0.05, 5, fine=True)]
    backed: Annotated[
        Literal["yes", "no"], ChoiceRule("backed with paper", (("yes", "yes"), ("no", "no")))
    ] = "yes"
    swatch: Annotated[Swatch, SWATCHES] = "indigo"


class ThreadSpool(Item):
    """Thread or cord: by lea and plies, by tex, or by a measured diameter; the last one given wins over those
    before it."""

    fibre: Annotated[
        Literal["linen", "cotton", "polyester", "other"],
        ChoiceRule(
            "fibre",
            (("linen", "linen"), ("cotton", "cotton"), ("polyester", "polyester"), ("other", "other")),
        ),
    ] = "linen"
    lea: Annotated[int, NumberRule("the lea number", 4, 120, whole=True)] | None = None
    plies: Annotated[int, NumberRule("the plies", 1, 12, whole=True)] = 3
    tex: Annotated[float, NumberRule("the tex", 5, 5000, "tex")] | None = None
    diameter_mm: Annotated[float, LengthRule("the measured diameter", 0.05, 8, fine=True)] | None = None
    waxed: Annotated[Literal["yes", "no"], ChoiceRule("waxed", (("yes", "yes"), ("no", "no")))] = "no"
    length_left_mm: Annotated[float, LengthRule("the length left", 0, 5000000)] | None = None
    swatch: Annotated[Swatch, SWATCHES] = "indigo"


class Elastic(Item):
    """Round cord or flat band; ``stretch`` is how much longer it gets, in percent of its slack length."""

    shape: Annotated[
        Literal["cord", "band", "loop"],
        ChoiceRule("shape", (("cord", "cord"), ("band", "flat band"), ("loop", "closed loop"))),
    ] = "cord"
    width_mm: Annotated[float, LengthRule("width or diameter", 0.3, 60, fine=True)]
    length_left_mm: Annotated[float, LengthRule("the length left", 0, 200000)]
    stretch: Annotated[float, NumberRule("stretches by", 5, 400, "%")] = 80
    swatch: Annotated[Swatch, SWATCHES] = "rust"


class Hardware(Item):
    """Rings, wire, coil, strips with rings, and posts. ``inner_mm`` is the inner diameter, of a post its
    length inside."""

    shape: Annotated[
        Literal["ring", "wire", "coil", "strip", "post"],
        ChoiceRule(
            "shape",
            (
                ("ring", "ring"),
                ("wire", "double wire"),
                ("coil", "coil"),
                ("strip", "strip with rings"),
                ("post", "post"),
            ),
        ),
    ] = "ring"
    inner_mm: Annotated[float, LengthRule("the inner diameter", 2, 150)]
    wire_mm: Annotated[float, LengthRule("the wire's thickness", 0.3, 10, fine=True)] = 2.0
    pitch_mm: Annotated[float, LengthRule("the pitch", 2, 150)] | None = None
    length_mm: Annotated[float, LengthRule("the length", 10, 1000)] | None = None
    owned: _Owned | None = None


class Stick(Item):
    """A stick, twig or dowel for a spine."""

    length_mm: Annotated[float, LengthRule("the length", 20, 3000)]
    thickness_mm: Annotated[float, LengthRule("the thickness", 1, 60, fine=True)]
    owned: _Owned | None = None


class BoughtFastener(Item):
    """What holds a cover or flap shut, or keeps a hole from tearing."""

    shape: Annotated[
        Literal["magnet", "dot", "eyelet", "brad"],
        ChoiceRule(
            "shape",
            (("magnet", "magnet"), ("dot", "hook-and-loop dot"), ("eyelet", "eyelet"), ("brad", "brad")),
        ),
    ] = "magnet"
    width_mm: Annotated[float, LengthRule("the width", 1, 60)]
    thickness_mm: Annotated[float, LengthRule("the thickness", 0.1, 15, fine=True)]
    owned: _Owned | None = None


class Glue(Item):
    """Glue, paste or tape: wet or dry, and its times."""

    shape: Annotated[
        Literal["pva", "paste", "stick", "tape", "hot", "spray"],
        ChoiceRule(
            "kind",
            (
                ("pva", "white glue"),
                ("paste", "paste"),
                ("stick", "stick"),
                ("tape", "tape"),
                ("hot", "hot glue"),
                ("spray", "spray"),
            ),
        ),
    ] = "pva"
    wet: Annotated[Literal["wet", "dry"], ChoiceRule("goes on", (("wet", "wet"), ("dry", "dry")))] = "wet"
    working_minutes: Annotated[float, NumberRule("can be moved for", 0, 1440, "minutes")] | None = None
    drying_minutes: Annotated[float, NumberRule("dry after", 0, 10080, "minutes")] | None = None
    width_mm: Annotated[float, LengthRule("the tape's width", 1, 200)] | None = None


class Tool(Item):
    """A tool with what it can do, so that checks know what this maker can do."""

    shape: Annotated[
        Literal["ruler", "scoring board", "trimmer", "punch", "awl", "caliper"],
        ChoiceRule(
            "tool",
            (
                ("ruler", "ruler"),
                ("scoring board", "scoring board"),
                ("trimmer", "trimmer"),
                ("punch", "paper punch"),
                ("awl", "awl"),
                ("caliper", "caliper"),
            ),
        ),
    ] = "ruler"
    grid_mm: Annotated[float, LengthRule("its marks are apart", 0.005, 50, fine=True)] | None = None
    longest_mm: Annotated[float, LengthRule("the longest it takes", 20, 3000)] | None = None
    thickest_mm: Annotated[float, LengthRule("the thickest it takes", 0.05, 50, fine=True)] | None = None
    pitch_mm: Annotated[float, LengthRule("holes apart", 2, 300)] | None = None
    hole_mm: Annotated[float, LengthRule("the hole's width", 0.5, 20, fine=True)] | None = None
    margin_mm: Annotated[float, LengthRule("hole's middle to the edge", 1, 60)] | None = None


class Stitch(Item):
    """A stitch of the maker's own, move by move (``core.sewing.notation``), on so many holes; any book can be
    sewn with it."""

    stations: Annotated[int, NumberRule("holes", 1, 15, whole=True)] = 3
    moves: Annotated[str, TextRule("its moves", 12000)] = "2 in | 2 1 3 2 =over"


Material = Paper | Board | Cloth
"""What pieces are cut from."""
AnyItem = (
    Paper | Board | Cloth | ThreadSpool | Elastic | Hardware | Stick | BoughtFastener | Glue | Tool | Stitch
)


@dataclass(frozen=True)
class KindOfItem:
    """A kind with its words: one of it, many of it."""

    model: type[Item]
    one: str
    many: str


KINDS: Final[dict[str, KindOfItem]] = {
    "paper": KindOfItem(Paper, "paper", "papers"),
    "board": KindOfItem(Board, "board", "boards"),
    "cloth": KindOfItem(Cloth, "cloth or wrap", "cloths"),
    "thread": KindOfItem(ThreadSpool, "thread or cord", "threads"),
    "elastic": KindOfItem(Elastic, "elastic", "elastic"),
    "hardware": KindOfItem(Hardware, "ring, wire or post", "rings and posts"),
    "stick": KindOfItem(Stick, "stick", "sticks"),
    "fastener": KindOfItem(BoughtFastener, "fastener", "fasteners"),
    "glue": KindOfItem(Glue, "glue or tape", "glues and tapes"),
    "tool": KindOfItem(Tool, "tool", "tools"),
    "stitch": KindOfItem(Stitch, "stitch of your own", "stitches"),
}
"""Every kind by its name, in the order shown."""


def kind_of(item: Item) -> str:
    """The name of an item's kind."""
    return next(name for name, kind in KINDS.items() if kind.model is type(item))


def known_as(own: Material) -> tuple[object, ...]:
    """What tells a paper, a board or a cloth from others: those that agree in it are one material."""
    match own:
        case Paper():
            return (
                own.name,
                round(own.sheet_width_mm, 1),
                round(own.sheet_height_mm, 1),
                own.kind,
                own.grammage,
            )
        case Board():
            return (
                own.name,
                round(own.sheet_width_mm, 1),
                round(own.sheet_height_mm, 1),
                round(own.thickness_mm, 2),
            )
        case Cloth():
            return (own.name, round(own.roll_width_mm, 1), round(own.thickness_mm, 2))
    return (own.name,)
