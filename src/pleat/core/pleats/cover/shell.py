"""The boards of a hard cover and what lies between them: every width from the left, flat and seen from the
outside, back board first.

Board height = leaf + 2 squares. Board width = leaf - set-back + square at the fore edge. A spine strip that
stands between the boards is as wide as the block and both boards; one that lies over the block alone is as
wide as the block. Shut, the covering goes from the strip over the joint to the board: the joint is the
strip's thickness and the set-back, and the board's thickness too where the strip ends below it.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate
from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import Cut, Piece, Span, cut_off, piece
from pleat.core.pleats.cover.fasteners import FASTENERS, Fastener
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.cover.spine import Spine, Spined, spine_of
from pleat.core.pleats.cover.turned import corner_for
from pleat.core.trade.cases import (
    GIVES_BOARDS,
    JOINT_BOARDS,
    JOINT_MM,
    LINING_BORDER_MM,
    OPENS_BOARDS,
    SPINE_LINING_MM,
    TURN_IN_MM,
)

YES_NO: Final = (("yes", "yes"), ("no", "no"))
NO_YES: Final = (("no", "no"), ("yes", "yes"))
YesNo = Literal["yes", "no"]


Seam = Literal["one", "joined", "joint"]
SEAMS: Final = (
    ("one", "one piece"),
    ("joined", "joined on the spine"),
    ("joint", "joined beside the front joint"),
)


class Hard(Spined):
    """Pleat 6: what is decided of every cover with boards and a spine."""

    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    square_fore_mm: (
        Annotated[float, LengthRule("the square at the fore edge", 0, LARGEST_SQUARE_MM)] | None
    ) = None
    joint_mm: Annotated[float, LengthRule("the joint", 1, 30)] | None = None
    set_back_mm: Annotated[float, LengthRule("the boards' set-back from the block's edge", 0, 30)] | None = (
        None
    )
    strip: Annotated[
        Literal["between", "over"],
        ChoiceRule(
            "the spine strip",
            (("between", "stands between the boards"), ("over", "lies over the block alone")),
        ),
    ] = "between"
    turn_in_mm: Annotated[float, LengthRule("the turn-in", 3, 100)] = TURN_IN_MM[1]
    corner_mm: Annotated[float, LengthRule("the covering cut off the board's corner", 0, 40)] | None = None
    rounded_mm: Annotated[float, LengthRule("corners rounded by", 0, 40)] = 0.0
    seam: Annotated[Seam, ChoiceRule("the covering is", SEAMS)] = "one"
    ends: Annotated[
        Literal["endpapers", "leaves", "bare"],
        ChoiceRule(
            "the boards are lined with",
            (
                ("endpapers", "endpapers, half pasted down"),
                ("leaves", "the outermost leaves"),
                ("bare", "nothing"),
            ),
        ),
    ] = "endpapers"
    spine_lining: Annotated[YesNo, ChoiceRule("a lining inside the spine", YES_NO)] = "yes"
    ribbon: Annotated[YesNo, ChoiceRule("ribbon marker", NO_YES)] = "no"
    head_bands: Annotated[YesNo, ChoiceRule("head bands", NO_YES)] = "no"
    fastener: Annotated[Fastener, ChoiceRule("kept shut by", FASTENERS)] = "none"
    back_mm: Annotated[float, LengthRule("the back board's width as it is cut", 10, 1000)] | None = None
    front_mm: Annotated[float, LengthRule("the front board's width as it is cut", 10, 1000)] | None = None
    strip_mm: Annotated[float, LengthRule("the spine strip's width as it is cut", 1, 200)] | None = None
    piece_width_mm: (
        Annotated[float, LengthRule("the width of the covering as it is cut", 30, 3000)] | None
    ) = None


@dataclass(frozen=True)
class Shell:
    """All lengths in mm: board and covering thickness, the boards, the strip, joint, set-back and turn-in;
    ``pad`` is what the covering needs more to go over padding at each outer edge. ``marked`` is the left edge
    and the width of the piece on which the boards' places are marked, where that is not all of the
    covering."""

    board: float
    covering: float
    back: float
    front: float
    height: float
    strip: float
    joint: float
    set_back: float
    turn_in: float
    corner: float
    square: float
    spine: Spine
    leaf: tuple[float, float]
    needed: float
    between: bool = True
    pad: float = 0.0
    marked: tuple[float, float] | None = None

    @property
    def reach(self) -> float:
        """The covering outside the boards, at every outer edge."""
        return self.turn_in + self.pad

    @cached_property
    def columns(self) -> tuple[Span, ...]:
        """Every width of the flat cover, back on the left."""
        widths = (self.reach, self.back, self.joint, self.strip, self.joint, self.front, self.reach)
        return tuple(
            Span(name, width, "bend" if name != "back turn-in" else "fold")
            for name, width in zip(COLUMNS, widths, strict=True)
        )

    @cached_property
    def rows(self) -> tuple[Span, ...]:
        return Span("head turn-in", self.reach), Span("", self.height), Span("tail turn-in", self.reach)

    @cached_property
    def edges(self) -> tuple[float, ...]:
        """Running positions from the left edge of the covering."""
        return tuple(accumulate((column.size_mm for column in self.columns), initial=0.0))

    @property
    def width(self) -> float:
        """The covering's width flat."""
        return self.edges[-1]

    @property
    def marks_outside(self) -> tuple[tuple[float, int], ...]:
        """(place from its left edge, number of the edge of a board or the strip) of every mark that lies on
        the piece that is marked, seen from outside."""
        left, wide = self.marked or (0.0, self.width)
        return tuple(
            (at - left, number) for number, at in enumerate(self.edges[1:-1]) if left < at < left + wide
        )

    @property
    def marked_width(self) -> float:
        """The width of the piece that is marked."""
        return self.marked[1] if self.marked else self.width

    @property
    def marks_inside(self) -> tuple[float, ...]:
        """The places of the marks from the left edge, inside up: front and back change places there."""
        return tuple(self.marked_width - at for at, _ in reversed(self.marks_outside))

    @property
    def wrap_height(self) -> float:
        return self.height + 2 * self.reach

    @property
    def squares(self) -> tuple[float, float]:
        """How far the back and the front board really stand past the leaves at the fore edge."""
        return self.back + self.set_back - self.leaf[0], self.front + self.set_back - self.leaf[0]

    @property
    def shut(self) -> tuple[float, float]:
        """Width and height of the front as it lies shut, from the spine strip's outer face."""
        return self.board + self.set_back + self.front, self.height

    @cached_property
    def opens(self) -> float:
        """How far a board turns before the leaf that is pasted to it pulls, in degrees; 180 lies flat.

        Shut, board and leaf meet at the set-back. Turned by an angle, the board's inner edge moves away from
        the block's edge; the hollow back gives way a little. Both are lengths in a drawing of the joint end
        on.
        """
        reach, below = (
            max(self.set_back, 0.0) + GIVES_BOARDS * self.board,
            0.0 if self.between else self.board,
        )
        arm = math.hypot(self.board + max(self.set_back, 0.0), below)
        start = math.atan2(below, self.board + max(self.set_back, 0.0))

        def pulls(degrees: int) -> bool:
            turn = math.radians(degrees)
            across = -self.board + arm * math.cos(turn + start) + self.board * math.sin(turn)
            up = arm * math.sin(turn + start) - self.board * math.cos(turn) + self.board - below
            return math.hypot(across, up) > reach + 1e-9

        return float(next((degrees - 1 for degrees in range(90, 181) if pulls(degrees)), 180))


COLUMNS: Final = ("back turn-in", "back", "back joint", "spine", "front joint", "front", "front turn-in")
OUTER: Final = frozenset({"back turn-in", "front turn-in"})


def joint_for(board_mm: float, ruler: Ruler) -> float:
    """The joint by itself, on the ruler: as usual, and for a thick board as much as lets it open flat.

    >>> from pleat.core.base.units import RULERS
    >>> joint_for(2.0, RULERS["mm"])
    8.0
    """
    usual = min(max(JOINT_BOARDS * board_mm, JOINT_MM[0]), JOINT_MM[1])
    return max(ruler.snap(usual), ruler.snap_up(OPENS_BOARDS * board_mm))


def shell_of(
    cover: Hard, left: LeftOfCover, *, more: float = 0.0, pad: float = 0.0, joint_mm: float | None = None
) -> Shell:
    """The flat cover; widths the maker has cut already count as they are. ``more`` is what else the strip has
    to cover, in mm; ``joint_mm`` the joint of a kind that has another than the usual one."""
    ruler, pages = left.brief.ruler, left.pages
    board, covering = left.paper.stock("board").caliper.likely, left.paper.stock("covering").caliper.likely
    lining = left.paper.stock("lining").caliper
    spine = spine_of(cover, left, (("endpapers", lining.times(4)),) if cover.ends == "endpapers" else ())
    between = cover.strip == "between"
    goes_round = board if between else 2 * board
    asked = None if cover.set_back_mm is None else cover.set_back_mm + goes_round
    joint = cover.joint_mm or asked or joint_mm or joint_for(board, ruler)
    set_back = joint - goes_round
    needed = spine.used.likely + more + (2 * board if between else 0.0)
    fore = cover.square_mm if cover.square_fore_mm is None else cover.square_fore_mm
    width = max(ruler.snap_up(pages.leaf_width_mm - set_back + fore), ruler.step_mm)
    return Shell(
        board,
        covering,
        cover.back_mm or width,
        cover.front_mm or width,
        pages.leaf_height_mm + 2 * cover.square_mm,
        cover.strip_mm or ruler.snap_up(needed),
        joint,
        set_back,
        cover.turn_in_mm,
        corner_for(board + pad, covering) if cover.corner_mm is None else cover.corner_mm,
        cover.square_mm,
        spine,
        (pages.leaf_width_mm, pages.leaf_height_mm),
        needed,
        between,
        pad,
    )


def lining_size(shell: Shell, ruler: Ruler) -> tuple[float, float]:
    """The lining of the spine: over the strip and both joints and on to either board, short of head and
    tail."""
    return shell.strip + 2 * shell.joint + 2 * ruler.near(SPINE_LINING_MM), shell.height - 2 * ruler.near(
        LINING_BORDER_MM
    )


def cornered(sheet: Piece, reach_mm: float, clear_mm: float, corners: str = "both") -> Piece:
    """A covering with its corners cut at 45 degrees, ``clear_mm`` off the board's corner, which lies
    ``reach_mm`` in from both edges; of those on the left, on the right, or both."""
    width, height = sheet.size_mm
    leg = 2 * reach_mm - clear_mm * math.sqrt(2)
    if leg <= 0:
        return sheet
    cuts = []
    for at_x, way in ((0.0, 1), (width, -1)):
        if corners not in ("both", "left" if way == 1 else "right"):
            continue
        cuts += [
            Cut((at_x + way * leg, 0.0), (at_x, leg), (at_x, 0.0)),
            Cut((at_x + way * leg, height), (at_x, height - leg), (at_x, height)),
        ]
    return cut_off(sheet, cuts)


def wrap_piece(shell: Shell, name: str = "covering", stock: str = "covering") -> Piece:
    """The covering in one piece, its corners cut; joints bend, only the turn-ins' lines are folds."""
    kept = [(column, row.name) for column in COLUMNS for row in shell.rows if row.name]
    return cornered(
        piece(name, stock, shell.columns, shell.rows, kept=kept, glued=turned_in(shell.columns, shell)),
        shell.reach,
        shell.corner,
    )


def turned_in(columns: Iterable[Span], shell: Shell) -> tuple[str, ...]:
    """The names of the panels that are turned in and glued: those at head and tail, and whole columns that
    are turn-ins."""
    ends = [row.name for row in shell.rows if row.name]
    names = [column.name for column in columns]
    return (
        *(name for name in names if "turn-in" in name),
        *(f"{name}, {end}" for name in names for end in ends),
    )
