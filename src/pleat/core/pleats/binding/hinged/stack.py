"""A stack of leaves on a hinge as a folding programme: built shut from the back board up, then opened leaf by
leaf. A leaf's spine edge lies in the fold it turns about.

Only one opening stands open at a time: as a leaf turns, the gap that was open shuts under it and the next one
opens.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from pleat.core.engines.folding.programme import (
    Add,
    Angle,
    FoldGroup,
    FoldOperation,
    LayOperation,
    Operation,
    Programme,
)
from pleat.core.engines.folding.sheet import Piece, Span, board, piece

FRONT, BACK = "front board", "back board"


@dataclass(frozen=True)
class Joint:
    """What stands open between two neighbours of the stack: the piece, and its two creases with the angles
    they have shut; open they are flat."""

    piece: str
    shut: tuple[Angle, ...]

    @property
    def open(self) -> tuple[Angle, ...]:
        return tuple((one, other, 0.0) for one, other, _ in self.shut)


def leaf_name(number: int) -> str:
    return f"leaf {number}"


def boards(width: float, height: float, stock: str) -> tuple[Piece, Piece]:
    """The back and the front board, as large as a leaf."""
    return board(BACK, stock, width, height), board(FRONT, stock, width, height)


def opened(build: Sequence[Operation], joints: Sequence[Joint]) -> Programme:
    """The programme from the shut stack: the front is turned, then each leaf; ``joints`` run from the front
    to the back."""
    groups = []
    for number, joint in enumerate(joints):
        moves = [FoldOperation(joint.piece, joint.open)]
        if number:
            before = joints[number - 1]
            moves.append(FoldOperation(before.piece, before.shut))
        name = "front opened" if not number else f"{leaf_name(number)} turned"
        groups.append(FoldGroup(name, tuple(moves)))
    return Programme(tuple(build), tuple(groups), opens=True)


def connectors(
    gussets: Sequence[float], size: tuple[float, float], flange: float, stocks: tuple[str, str, str]
) -> Programme:
    """A chain: a connector, flange, gusset and flange, between each two neighbours; ``gussets`` run from the
    front board to the back one, ``stocks`` are those of connectors, leaves and boards."""
    width, height = size
    card, leaf, cover = stocks
    back, front = boards(width, height, cover)
    steps: list[Operation] = [Add(back)]
    joints: list[Joint] = []
    below = (BACK, "body")
    for number in range(len(gussets) - 1, -1, -1):
        name = f"connector {number + 1}"
        spans = [
            Span("upper flange", flange),
            Span(f"gusset {number + 1}", gussets[number]),
            Span("lower flange", flange),
        ]
        sheet = piece(name, card, spans, [Span("", height)], glued=("upper flange", "lower flange"))
        shut: tuple[Angle, ...] = (
            (f"gusset {number + 1}", "lower flange", 90.0),
            ("upper flange", f"gusset {number + 1}", 90.0),
        )
        above = front if number == 0 else board(leaf_name(number), leaf, width, height)
        steps += [
            Add(sheet, "lower flange"),
            LayOperation((name, "lower flange"), below, (0.0, 0.0)),
            FoldOperation(name, shut),
            Add(above),
            LayOperation((above.name, "body"), (name, "upper flange"), (flange - width, 0.0), side="B"),
        ]
        below = (above.name, "body")
        joints.insert(0, Joint(name, shut))
    return opened(steps, joints)


def hills(
    count: int,
    sizes: tuple[float, float, float, float, float],
    size: tuple[float, float],
    stocks: tuple[str, str, str],
) -> Programme:
    """A strip of hills and gaps, a leaf on every hill; ``sizes`` are first flange, end, hill, gap and last
    flange in mm. A gap of nothing makes a zigzag."""
    width, height = size
    card, leaf, cover = stocks
    strip = hill_strip(count, sizes, height, card)
    names = {panel.name for panel in strip.panels}
    back, front = boards(width, height, cover)
    on_front, on_back = (next(name for name in ends if name in names) for ends in (held_by(count)))
    steps: list[Operation] = [
        Add(back),
        Add(strip, on_back),
        LayOperation(("hinge strip", on_back), (BACK, "body"), strip[on_back].outline[0]),
    ]
    joints: list[Joint] = []
    below = on_back
    for number in range(count, 0, -1):
        up, down = f"hill {number} front", f"hill {number} back"
        floor = f"gap {number}" if number < count else "last end"
        shut = _over(floor, down, below, names)
        joints.insert(0, Joint("hinge strip", shut))
        steps += [FoldOperation("hinge strip", shut), FoldOperation("hinge strip", ((up, down, -180.0),))]
        steps += [
            Add(board(leaf_name(number), leaf, width, height)),
            LayOperation((leaf_name(number), "body"), ("hinge strip", up), strip[up].outline[0]),
        ]
        below = up
    shut = _over("first end", on_front, below, names)
    joints.insert(0, Joint("hinge strip", shut))
    edge = strip[on_front].outline[1][0]
    steps += [
        FoldOperation("hinge strip", shut),
        Add(front),
        LayOperation((FRONT, "body"), ("hinge strip", on_front), (edge - width, 0.0), side="B"),
    ]
    return opened(steps, joints)


def held_by(count: int) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """The panels that may lie on the front board and on the back one: the flange, without one the end,
    without that the hill itself."""
    return ("first flange", "first end", "hill 1 front"), ("last flange", "last end", f"hill {count} back")


def hill_strip(
    count: int, sizes: tuple[float, float, float, float, float], height: float, card: str
) -> Piece:
    """The strip inside up: first flange, end, hills with gaps between, end, last flange."""
    first, end, hill, gap, last = sizes
    spans = [Span("first flange", first), Span("first end", end)]
    for number in range(1, count + 1):
        spans += [Span(f"hill {number} front", hill), Span(f"hill {number} back", hill)]
        spans.append(Span(f"gap {number}", gap) if number < count else Span("last end", end))
    spans.append(Span("last flange", last))
    return piece(
        "hinge strip",
        card,
        spans,
        [Span("", height)],
        glued=tuple(name for name, size in (("first flange", first), ("last flange", last)) if size),
    )


def _over(floor: str, above: str, below: str, names: set[str]) -> tuple[Angle, ...]:
    """How the panel above comes over the one below: up a floor and over, or at once where there is no
    floor."""
    if floor in names and floor not in (above, below):
        return ((floor, below, 90.0), (above, floor, 90.0))
    return ((above, below, 180.0),)
