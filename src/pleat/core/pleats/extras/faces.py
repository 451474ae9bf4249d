"""The faces of a book that something can be put on: both sides of every leaf, or the faces of what is folded.
Their names last."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache

from pleat.core.base.points import point
from pleat.core.engines.folding.convex import bounds
from pleat.core.pleats.extras.base import Face
from pleat.core.pleats.pages.block import Block
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.pleats.structures.cut import said

SIDES = {"A": "inside", "B": "outside"}
FRONT, BACK = "inside front cover", "inside back cover"


def in_words(name: str) -> str:
    """A face by its name where nothing else is known of the book.

    >>> in_words("page 3"), in_words("folder/front, pocket:B")
    ('page 3', 'pocket of the front, outside')
    """
    piece, _, rest = name.partition("/")
    panel, _, side = rest.partition(":")
    return f"{said((piece, panel))}, {SIDES.get(side, side)}" if panel else name


def faces_of(block: Block, *, covered: bool) -> tuple[Face, ...]:
    """The faces of a block from front to back, and the insides of the cover before and after them where it
    has one."""
    inner = inner_faces(block)
    if not covered or not inner:
        return inner
    width, height = block.leaf_width_mm, block.leaf_height_mm
    first, last = inner[0], inner[-1]
    leaves = first.spine != "none"
    front = Face(
        FRONT,
        FRONT,
        -1,
        width,
        height,
        "right",
        (width, 0.0),
        (-1.0, 0.0),
        facing=first.name if leaves else "",
        cover=True,
    )
    back = Face(
        BACK, BACK, last.leaf + 1, width, height, "left", facing=last.name if leaves else "", cover=True
    )
    if leaves:
        inner = (replace(first, facing=FRONT), *inner[1:-1], replace(last, facing=BACK))
    return (front, *inner, back)


@point("faces", "the faces of a block that something can be put on")
def inner_faces(block: Block) -> tuple[Face, ...]:
    """Both sides of every leaf: the front with the spine at its left, the back with it at its right. An odd
    page is a front."""
    return _leaves(block.leaves, block.leaf_width_mm, block.leaf_height_mm)


@lru_cache(maxsize=16)
def _leaves(count: int, width: float, height: float) -> tuple[Face, ...]:
    faces = []
    for leaf in range(count):
        front, back = f"page {2 * leaf + 1}", f"page {2 * leaf + 2}"
        after = f"page {2 * leaf + 3}" if leaf + 1 < count else ""
        before = f"page {2 * leaf}" if leaf else ""
        faces.append(Face(front, front, leaf, width, height, "left", facing=before, behind=back))
        faces.append(
            Face(
                back,
                back,
                leaf,
                width,
                height,
                "right",
                (width, 0.0),
                (-1.0, 0.0),
                facing=after,
                behind=front,
            )
        )
    return tuple(faces)


@inner_faces.register
def _folded(block: FoldedBlock) -> tuple[Face, ...]:
    """The faces that are large enough to be dressed, as one looks at them; where each lies is read off the
    shut layers."""
    made = block.made
    shut, pieces = made.folded.shut, made.folded.assembly.pieces
    keys = list(dict.fromkeys(one.key for one in made.dressings))
    corners = [point for key in keys for point in shut.poses[key].on_table(pieces[key[0]][key[1]].outline)]
    left, top, _, _ = bounds(corners) if corners else (0.0, 0.0, 0.0, 0.0)
    faces = []
    for copy in range(made.copies):
        for dressing in made.dressings:
            x0, y0, x1, y1 = bounds(pieces[dressing.key[0]][dressing.key[1]].outline)
            pose = shut.poses[dressing.key]
            (ax, ay), (bx, by), (cx, cy) = pose.on_table(((x0, y0), (x1, y0), (x0, y1)))
            wide, high = x1 - x0, y1 - y0
            across, down = ((bx - ax) / wide, (by - ay) / wide), ((cx - ax) / high, (cy - ay) / high)
            corner = (ax, ay)
            if dressing.side == "B":  # one looks at its other side
                corner, across = (bx, by), (-across[0], -across[1])
            number = f"{copy + 1} " if made.copies > 1 else ""
            name = f"{number}{dressing.name}"
            leaf = f"leaf {copy + 1}, " if made.copies > 1 else ""
            title = f"{leaf}{said(dressing.key)}, {SIDES[dressing.side]}"
            back = "B" if dressing.side == "A" else "A"
            behind = f"{number}{dressing.key[0]}/{dressing.key[1]}:{back}"
            origin = (corner[0] - left, corner[1] - top)
            faces.append(
                Face(
                    name,
                    title,
                    copy,
                    wide,
                    high,
                    "none",
                    origin,
                    across,
                    down,
                    behind=behind,
                    good=not dressing.blank,
                )
            )
    return tuple(faces)


def by_name(faces: Iterable[Face]) -> dict[str, Face]:
    """The faces by their names."""
    return {face.name: face for face in faces}
