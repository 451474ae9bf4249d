"""Album leaves for hinges: each of two papers, a board or a tag, dressed on both faces, some with a flip that
opens its own way."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Check, Offer
from pleat.core.engines.folding.programme import (
    Add,
    FoldGroup,
    FoldOperation,
    LayOperation,
    Operation,
    Programme,
)
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import FoldedBlock, FoldedSpec
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.made import Build, Made, Sizes
from pleat.core.pleats.structures.pads import FromPad
from pleat.core.trade.folding import LEAST_FLIP_MM
from pleat.core.trade.pages import FLAP_GAP_MM

STOCKS: Final = {"papers": "leaf", "board": "board", "tag": "card"}
Counted = Literal["leaves", "pages", "unsaid"]
COUNTS: Final = (("leaves", "leaves"), ("pages", "pages"), ("unsaid", "not said"))


class Album(FromPad):
    """Pleat 3, leaves of an album. ``spread`` says whether bulky things lie on one spot of successive leaves
    or are moved about."""

    kind: Literal["album"] = "album"
    amount: Annotated[int, NumberRule("how many", 1, 400, whole=True)] = 8
    counted_in: Annotated[Counted, ChoiceRule("counted in", COUNTS)] = "leaves"
    leaf_is: Annotated[
        Literal["papers", "board", "tag"],
        ChoiceRule(
            "a leaf is", (("papers", "two papers, back to back"), ("board", "a board"), ("tag", "one card"))
        ),
    ] = "papers"
    flips: Annotated[
        Literal["none", "fore", "head", "tail", "spine"],
        ChoiceRule(
            "a flip on each leaf",
            (
                ("none", "none"),
                ("fore", "from the fore edge"),
                ("head", "from the head"),
                ("tail", "from the tail"),
                ("spine", "from the spine"),
            ),
        ),
    ] = "none"
    flip_mm: Annotated[float, LengthRule("the flip reaches", LEAST_FLIP_MM, 600)] | None = None
    flip_tab_mm: Annotated[float, LengthRule("the flip's tab", 6, 60)] = 12.0
    lie: Annotated[
        Literal["same", "moved"],
        ChoiceRule(
            "bulky things lie", (("same", "on one spot of every leaf"), ("moved", "moved from leaf to leaf"))
        ),
    ] = "moved"


def leaves_of(amount: int, counted_in: str) -> int:
    """How many leaves: half as many as pages, where they were counted so."""
    return max(1, -(-amount // 2)) if counted_in in ("pages", "unsaid") else amount


def flip_of(record: Album, width: float, height: float) -> float:
    """How far a flip reaches from its edge, in mm; 0 for none."""
    if record.flips == "none":
        return 0.0
    side = width if record.flips in ("fore", "spine") else height
    return min(record.flip_mm or side / 2, side)


def build(record: Album, width: float, height: float) -> Build:
    """One leaf, its spine on the left, its front up; a flip is glued on by its tab."""
    reach, tab_mm = flip_of(record, width, height), record.flip_tab_mm

    def programme(_sizes: Sizes) -> Programme:
        stock = STOCKS[record.leaf_is]
        front = piece("leaf", stock, [Span("", width)], [Span("", height)])
        steps: list[Operation] = [Add(front)]
        if record.leaf_is == "papers":
            back = piece("back leaf", stock, [Span("", width)], [Span("", height)])
            steps += [
                Add(back),
                LayOperation(("back leaf", "body"), ("leaf", "body"), (0.0, 0.0), face="B", side="B"),
            ]
        if not reach:
            return Programme(tuple(steps))
        tab, flip = Span("tab", tab_mm), Span("flip", reach)
        upright = record.flips in ("fore", "spine")
        order = [tab, flip] if record.flips in ("fore", "tail") else [flip, tab]
        sheet = piece(
            "flip",
            "card",
            order if upright else [Span("", width)],
            [Span("", height)] if upright else order,
            glued=("tab",),
        )
        at = {
            "fore": (width - tab_mm, 0.0),
            "tail": (0.0, height - tab_mm),
            "spine": (0.0, 0.0),
            "head": (0.0, 0.0),
        }[record.flips]
        steps += [Add(sheet, "tab"), LayOperation(("flip", "tab"), ("leaf", "body"), at)]
        return Programme(
            tuple(steps), (FoldGroup("flip", (FoldOperation("flip", (("tab", "flip", 180.0),)),)),)
        )

    return programme


def compute(record: Album, left: LeftOfPages) -> FoldedBlock:
    """One leaf worked out, so many times."""
    width, height = left.brief.leaf_width_mm, left.brief.leaf_height_mm
    count = leaves_of(record.amount, record.counted_in)
    return folded.compute(
        record,
        left,
        FoldedSpec(
            "album leaves",
            lambda wide, high: build(record, wide, high),
            unit="hinged",
            copies=count,
            leaves=count,
            panels="leaves",
            states="page",
            later=frozenset({"back leaf"})
            if record.leaf_is == "papers" and left.brief.made_of.binding.splits
            else frozenset(),
            checks=lambda made: _checks(record, left, made, (width, height)),
        ),
    )


def _checks(record: Album, left: LeftOfPages, made: Made, size: tuple[float, float]) -> tuple[Check, ...]:
    found = (
        unsaid(record.amount, record.counted_in),
        _gutter(record, left, size),
        _wrong_side(record),
        _one_spot(record, left, made),
    )
    return tuple(check for check in found if check)


def unsaid(amount: int, counted_in: str) -> Check | None:
    """A11: a count without its unit word."""
    if counted_in != "unsaid":
        return None
    return Check(
        code="A11",
        level="note",
        title=f"You typed {amount} without saying of what: taken as pages, that is "
        f"{leaves_of(amount, counted_in)} leaves.",
        why=f"A leaf has two pages. {amount} leaves would be {2 * amount} pages, twice the paper.",
        offers=(
            Offer(label=f"yes, {amount} pages", changes=(("pages.counted_in", "pages"),)),
            Offer(label=f"I meant {amount} leaves", changes=(("pages.counted_in", "leaves"),)),
        ),
    )


def _gutter(record: Album, left: LeftOfPages, size: tuple[float, float]) -> Check | None:
    """C6: a flip that reaches the gutter."""
    ruler, reach = left.brief.ruler, flip_of(record, *size)
    most = ruler.snap_down(size[0] - FLAP_GAP_MM)
    if record.flips != "fore" or reach <= size[0] - FLAP_GAP_MM + 0.05:
        return None
    return Check(
        code="C6",
        level="watch",
        title=f"The flip of {ruler.show(reach)} reaches the gutter: {ruler.show(size[0] - reach)} are left "
        "of the leaf.",
        why=f"The leaf bends beside its hinge; {ruler.show(FLAP_GAP_MM)} are kept clear of it (common "
        "practice: 3/4 in).",
        offers=(
            Offer(label=f"a flip of {ruler.show(most)}", changes=(("pages.flip_mm", most),))
            if most >= LEAST_FLIP_MM
            else Offer(label="no flips", changes=(("pages.flips", "none"),)),
        ),
    )


def _wrong_side(record: Album) -> Check | None:
    """F7: flips hinged at the spine open into each other across the gutter."""
    if record.flips != "spine":
        return None
    return Check(
        code="F7",
        level="stop",
        title="Flips hinged at the spine open into each other.",
        why="Open, each lies over the facing page and over its flip; only one of the two can be opened, and "
        "the gutter lifts it.",
        offers=(
            Offer(label="from the fore edge", changes=(("pages.flips", "fore"),)),
            Offer(label="from the head", changes=(("pages.flips", "head"),)),
        ),
    )


def _one_spot(record: Album, left: LeftOfPages, made: Made) -> Check | None:
    """F6: bulky things on one spot of every leaf."""
    ruler = left.brief.ruler
    each = made.calipers["more"].likely
    if record.lie != "same" or not made.places or each < 1.0 or made.copies < 2:
        return None
    pile = 2 * each * made.copies
    return Check(
        code="F6",
        level="watch",
        title=f"Things of {ruler.thin(each)} lie on one spot of all {made.copies} leaves: {ruler.thin(pile)} "
        "there, nothing beside it.",
        why="Shut, the album stands up there and gapes at its edges. Moved from leaf to leaf, to one half "
        "and the other, the bulk is spread.",
        offers=(Offer(label="move them from leaf to leaf", changes=(("pages.lie", "moved"),)),),
    )


KIND: Final = BlockKind(
    name="album",
    title="album leaves",
    summary="Stiff leaves for hinges, dressed on both faces, with flips.",
    record=Album,
    compute=compute,
    roles=("leaf", "mat"),
    unused=lambda record: (*without_papers(record), *(() if record.leaf_is == "papers" else ("leaf",))),
    unit="hinged",
    traits=Traits(glue=True),
)
