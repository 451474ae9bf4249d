"""What can go wrong with the wrap: slips A1, A3, C4, D4 and E2."""

from __future__ import annotations

from typing import Final

from pleat.core.binding.compute import BindingResult
from pleat.core.book import FARTHEST_SCORE_MM, LARGEST_SQUARE_MM, Cover
from pleat.core.estimate import Estimate
from pleat.core.materials.tools import Tools
from pleat.core.pages.compute import PagesResult
from pleat.core.panels import PanelPlan
from pleat.core.plan import Check, Fix
from pleat.core.units import Ruler

UNEQUAL_MM: Final = 2.0
"""Squares that differ by more look like a mistake (house rule)."""
HOLE_OFF_MM: Final = 0.75
"""Holes of cover and leaves farther apart than this pull the fold askew (house rule)."""
CREASE_AT_MOST_MM: Final = 4.0
"""Above this one crease no longer serves (common practice: 3 to 4 mm)."""


def find(
    cover: Cover,
    ruler: Ruler,
    pages: PagesResult,
    binding: BindingResult,
    spine: Estimate,
    wrap: PanelPlan,
    creases: int,
    square_fore: float,
    square_head: float,
    holes: tuple[float, ...],
    tools: Tools,
) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say."""
    found = [
        _sum(cover, ruler, wrap),
        _offset(cover, ruler, spine),
        _squares(ruler, square_fore, square_head),
        _creep(ruler, pages, square_fore),
        _crease(ruler, spine, creases),
        _holes(ruler, binding, holes),
        _board(ruler, wrap, tools),
    ]
    return tuple(check for check in found if check)


def _sum(cover: Cover, ruler: Ruler, wrap: PanelPlan) -> Check | None:
    """A1: the panels do not add up to the piece; of its two sides the one that lacks more is said."""
    sides = (
        (cover.piece_width_mm, "cover.piece_width_mm", wrap.width_mm, "wide"),
        (cover.piece_height_mm, "cover.piece_height_mm", wrap.height_mm, "high"),
    )
    known = [(need - piece, piece, path, need, across) for piece, path, need, across in sides if piece is not None]
    off = [one for one in known if abs(one[0]) > ruler.step_mm / 2 + 0.05]
    if not off:
        return None
    short, piece, path, need, across = max(off, key=lambda one: one[0])
    panels = (
        " + ".join(f"{panel.name} {ruler.number(panel.width_mm)}" for panel in wrap.panels) if across == "wide" else "leaf and two squares"
    )
    square = cover.square_mm - max(one[0] for one in known) / 2  # the largest that fits both sides
    fixes = []
    if 0 <= square <= LARGEST_SQUARE_MM and abs(square - cover.square_mm) > 0.05:
        fixes.append(Fix(f"square {ruler.show(square)}", (("cover.square_mm", square),)))
    if short < 0:
        fixes.append(Fix(f"trim the piece by {ruler.show(-short)}", ((path, need),)))
    fixes.append(Fix("cut a new piece", (("cover.piece_width_mm", None), ("cover.piece_height_mm", None))))
    return Check(
        "A1",
        "stop" if short > 0 else "watch",
        f"The cover's panels do not add up to your piece: {ruler.show(abs(short))} {'missing' if short > 0 else 'left over'}.",
        f"{panels} = {ruler.show(need)}; the piece is {ruler.show(piece)} {across}.",
        tuple(fixes),
    )


def _offset(cover: Cover, ruler: Ruler, spine: Estimate) -> Check | None:
    """A3: scores set either side of the middle by something other than half the thickness."""
    offset = cover.score_offset_mm
    slack = ruler.step_mm / 2
    if not offset or spine.low - slack <= 2 * offset <= spine.high + slack:
        return None
    half = Fix(f"{ruler.thin(spine.likely / 2)} either side", (("cover.score_offset_mm", spine.likely / 2),))
    return Check(
        "A3",
        "watch",
        f"Scores {ruler.thin(offset)} either side of the middle make a spine of {ruler.thin(2 * offset)}; what is inside is {ruler.thin(spine.likely)}.",
        f"Half the thickness is {ruler.thin(spine.likely / 2)}. The full thickness either side makes a spine twice too wide, and the cover hangs loose.",
        (
            *((half,) if spine.likely / 2 <= FARTHEST_SCORE_MM else ()),
            Fix("let Pleat place the scores", (("cover.score_offset_mm", None),)),
        ),
    )


def _squares(ruler: Ruler, fore: float, head: float) -> Check | None:
    """E2: no square, or very unequal ones."""
    usual = Fix(f"square {ruler.show(3)}", (("cover.square_mm", 3.0), ("cover.piece_width_mm", None), ("cover.piece_height_mm", None)))
    numbers = f"{ruler.show(fore)} at the fore edge, {ruler.show(head)} at head and tail"
    if min(fore, head) < -0.05:
        return Check("E2", "stop", f"Leaves stand out of the cover: {numbers}.", "The cover you cut is smaller than the leaves.", (usual,))
    if abs(fore - head) > UNEQUAL_MM:
        return Check("E2", "watch", f"The squares are very unequal: {numbers}.", "The eye sees a difference from about 2 mm on.", (usual,))
    if max(fore, head) < 0.05:
        return Check(
            "E2",
            "note",
            "There is no square: the cover ends with the leaves.",
            f"A school of its own, but the edges of the leaves take every knock. The usual square is {ruler.show(3)}.",
            (usual,),
        )
    return None


def _creep(ruler: Ruler, pages: PagesResult, fore: float) -> Check | None:
    """C4: inner leaves stand out past the cover."""
    if pages.creep.high <= fore + 0.05:
        return None
    wanted = ruler.snap_up(pages.creep.high)
    sure = pages.creep.likely > fore
    return Check(
        "C4",
        "watch" if sure else "note",
        f"Inner leaves {'will' if sure else 'may'} stand out past the cover: they creep {ruler.thin(pages.creep.low)} to {ruler.thin(pages.creep.high)}, the square is {ruler.thin(max(fore, 0))}.",
        "The inner sheets have a longer way round the fold's outside layers and show at the fore edge.",
        (
            Fix(
                f"square {ruler.show(wanted)}",
                (("cover.square_mm", wanted), ("cover.piece_width_mm", None), ("cover.piece_height_mm", None)),
            ),
        )
        if wanted <= 40
        else (),
        "" if wanted <= 40 else "Take fewer sheets: no square is wide enough.",
    )


def _crease(ruler: Ruler, spine: Estimate, creases: int) -> Check | None:
    if creases == 2 or spine.likely <= CREASE_AT_MOST_MM:
        return None
    return Check(
        "crease",
        "watch",
        f"One crease is not enough for a spine of {ruler.thin(spine.likely)}.",
        "Above 3 to 4 mm the cover springs open and creases by itself, beside the score.",
        (Fix("two creases", (("cover.creases", "two"),)),),
    )


def _board(ruler: Ruler, wrap: PanelPlan, tools: Tools) -> Check | None:
    longest = tools.scoring_longest_mm
    if longest is None or max(wrap.width_mm, wrap.height_mm) <= longest + 0.05:
        return None
    marks = " and ".join(ruler.number(score) for score in wrap.scores_mm)
    return Check(
        "scoring",
        "note",
        f"The cover is longer than your scoring board: {ruler.show(max(wrap.width_mm, wrap.height_mm))} on {ruler.show(longest)}.",
        f"Pieces that hang over slip. Mark {marks} {ruler.name} from the left edge at head and tail and score along a rule.",
        no_fix="Nothing to change: the printed score strip gives the marks.",
    )


def _holes(ruler: Ruler, binding: BindingResult, holes: tuple[float, ...]) -> Check | None:
    """D4: cover and leaves were marked separately, and differ."""
    own = binding.cover_holes_mm
    if own is None:
        return None
    if len(own) != len(holes):
        what = f"The cover has {len(own)} holes, the leaves {len(holes)}."
    else:
        off = max(abs(a - b) for a, b in zip(sorted(own), holes, strict=True))
        if off <= HOLE_OFF_MM:
            return None
        what = f"The holes in your cover are up to {ruler.thin(off)} off those of the leaves."
    wanted = ", ".join(ruler.number(hole) for hole in holes)
    return Check(
        "D4",
        "stop",
        what,
        f"Through one strip they would lie at {wanted} {ruler.name} from the cover's head. Separately measured holes pull the fold askew.",
        (Fix("use one strip for both", (("binding.cover_holes_mm", None),)),),
    )
