"""How a cover opens and closes over its block: a folding programme of a few groups of folds, and the tree of
panels that a moving view needs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from pleat.core.base.points import point
from pleat.core.engines.folding.assembly import Assembly, State
from pleat.core.engines.folding.convex import Polygon, bounds
from pleat.core.engines.folding.sheet import Span, board, piece
from pleat.core.pleats.cover.hard import HardResult
from pleat.core.pleats.cover.laid import LaidResult, Motion
from pleat.core.pleats.cover.result import CoverResult
from pleat.core.pleats.cover.soft import BLOCK
from pleat.core.pleats.pages.block import Block

THINNEST_MM: Final = 1.0
"""A spine panel that is thinner would not be seen to stand."""


@dataclass(frozen=True)
class Turning:
    """A panel of the moving view, inside up, in mm: its outline, its parent's place in the list (-1: it lies
    still), and the hinge it turns about.

    ``angles`` are those of every state; positive ones come up towards the eye. ``lifts`` keep layers that lie
    on each other apart.
    """

    name: str
    parent: int
    outline: Polygon
    axis: Literal["X", "Y", ""]
    hinge_mm: float
    angles: tuple[float, ...]
    lifts: tuple[float, ...]


@point("motion", "how a cover opens")
def motion_of(cover: CoverResult, block: Block) -> Motion:
    """How any cover opens: back, spine and front, over the block."""
    thick = max(cover.spine.likely, THINNEST_MM)
    columns = [Span("back", cover.front_width_mm), Span("spine", thick), Span("front", cover.front_width_mm)]
    square = max(cover.square_head_mm, 0.0)
    return Motion(
        piece("cover", "cover", columns, [Span("", cover.front_height_mm)]),
        "back",
        ((("back", "spine", 90.0), ("spine", "front", 90.0)),),
        ("open", "shut"),
        (
            min(block.leaf_width_mm, cover.front_width_mm),
            block.leaf_height_mm,
            (max(cover.front_width_mm - block.leaf_width_mm, 0.0), square),
        ),
        max(thick - 2 * cover.board_mm, 0.1),
        cover.board_mm,
    )


@motion_of.register
def _of_pieces(cover: LaidResult, block: Block) -> Motion:
    """As its kind says, else like any other."""
    return cover.motion or motion_of.dispatch(CoverResult)(cover, block)


@motion_of.register
def _of_hard(cover: HardResult, _block: Block) -> Motion:
    """Back and front board turn about their joints, which share the quarter turn."""
    shell = cover.shell
    columns = [column for column in shell.columns if "turn-in" not in column.name]
    back = (("back", "back joint", 45.0), ("back joint", "spine", 45.0))
    front = (("spine", "front joint", 45.0), ("front joint", "front", 45.0))
    corner = (max(shell.squares[0], 0.0), shell.square)
    return Motion(
        piece("cover", "covering", columns, [Span("", shell.height)]),
        "back",
        (back, front),
        ("open flat", "the spine up", "shut"),
        (*shell.leaf, corner),
        shell.spine.used.likely,
        shell.board,
    )


def worked(motion: Motion) -> tuple[Assembly, tuple[State, ...]]:
    """The programme done, inside up, with its states in the order of closing."""
    assembly = Assembly()
    assembly.add(motion.piece, motion.base, over=True)
    width, height, corner = motion.block
    found = []
    for number, name in enumerate(motion.names):
        if number:
            assembly.fold(
                motion.piece.name,
                *((one, other, -degrees) for one, other, degrees in motion.groups[number - 1]),
            )
        if number == motion.laid_after:
            assembly.add(board(BLOCK, BLOCK, width, height))
            assembly.lay(
                (BLOCK, "body"), (motion.piece.name, motion.base), corner, face="B", side="B", atop=True
            )
        found.append(assembly.mark(name))
    return assembly, tuple(found)


def turning(motion: Motion) -> tuple[Turning, ...]:
    """The panels as a tree from the base, parents first. Inside up reverses left and right."""
    sheet = motion.piece
    left, _, right, _ = bounds(point for panel in sheet.panels for point in panel.outline)
    mirrored = {panel.name: tuple((left + right - x, y) for x, y in panel.outline) for panel in sheet.panels}
    order: dict[str, int] = {motion.base: 0}
    turnings = [
        Turning(
            motion.base,
            -1,
            mirrored[motion.base],
            "",
            0.0,
            (0.0,) * len(motion.names),
            (0.0,) * len(motion.names),
        )
    ]
    todo = [motion.base]
    while todo:
        name = todo.pop(0)
        for crease in sheet.creases:
            if name not in crease.between:
                continue
            other = crease.other if crease.one == name else crease.one
            if other in order:
                continue
            order[other] = len(turnings)
            todo.append(other)
            axis: Literal["X", "Y"] = "Y" if crease.upright else "X"
            hinge = left + right - crease.start[0] if axis == "Y" else crease.start[1]
            angles, lifts = _angles(motion, crease.between)
            turnings.append(Turning(other, order[name], mirrored[other], axis, hinge, angles, lifts))
    return tuple(turnings)


def _angles(motion: Motion, between: frozenset[str]) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """The angle of a crease in every state; what is folded right over is lifted a little."""
    at, angles, lifts = 0.0, [0.0], [0.0]
    for number, group in enumerate(motion.groups, 1):
        at = next((degrees for one, other, degrees in group if {one, other} == between), at)
        angles.append(at)
        lifts.append(0.4 + 0.1 * number if abs(at) >= 179 else 0.0)
    return tuple(angles), tuple(lifts)
