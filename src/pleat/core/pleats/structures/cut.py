"""What a structure is cut from: its pieces as parts, the papers of its faces by size, and all of them as they
lie on a drawing."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from typing import Final, Literal

from pleat.core.base.plan import Fold, Offer, Part
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.convex import bounds
from pleat.core.engines.folding.flat import Flat, rows
from pleat.core.engines.folding.sheet import BODY, Piece, scores
from pleat.core.pleats.structures.dressing import Dressing
from pleat.core.pleats.structures.made import MAT, Made

NOT_CUT: Final = ("offcut", "insert", "block")
"""What is no piece of stock: it comes out of another's offcut, or is there already."""
Smaller = Callable[[float, float], tuple[Offer, ...]]


def said(key: tuple[str, str]) -> str:
    """A panel in the maker's words: ``pocket of the front``; a piece of one panel by its own name.

    >>> said(("folder", "front, pocket")), said(("card", "body")), said(("folder", "front"))
    ('pocket of the front', 'card', 'front')
    """
    piece, panel = key
    if panel == BODY:
        return piece
    column, _, row = panel.partition(", ")
    if column.endswith("tab") and row:
        return f"{column} of the {row}"
    return f"{row} of the {column}" if row else column


def unnumbered(words: str) -> str:
    """Without the numbers of panels and pieces, so that what is done alike is said once.

    >>> unnumbered("panel 3 of the strip 1")
    'panel of the strip'
    """
    return " ".join(word for word in words.split() if not word.isdigit())


def sheets(made: Made) -> tuple[Piece, ...]:
    """The pieces that are folded or laid, without what lies on their faces."""
    return tuple(piece for piece in made.programme.pieces if not piece.name.startswith("on "))


_WHICH: Final = ("left ", "right ", "middle ", "first ", "last ", "front ", "back ")


def kind_of(name: str) -> str:
    """A piece's name without its number and without which side it is for: pieces of one kind are cut alike.

    >>> kind_of("leaf 3"), kind_of("left bag")
    ('leaf', 'bag')
    """
    kind = name.rstrip(" 0123456789")
    return next((kind.removeprefix(which) for which in _WHICH if kind.startswith(which)), kind)


def sorts(made: Made) -> dict[str, list[Piece]]:
    """The pieces that are cut, by what each sort of them is called: those of one kind and size, without a
    number where all of a kind are alike."""
    found: dict[tuple[object, ...], list[Piece]] = {}
    for piece in sheets(made):
        found.setdefault((kind_of(piece.name), *(round(side, 2) for side in piece.size_mm)), []).append(piece)
    kinds = Counter(kind for kind, *_ in found)
    return {str(kind) if kinds[kind] == 1 else alike[0].name: alike for (kind, *_), alike in found.items()}


def counted(made: Made) -> dict[str, tuple[Piece, int]]:
    """Each sort of piece once by what it is called, with how many there are of it."""
    return {name: (alike[0], len(alike)) for name, alike in sorts(made).items()}


def folds_of(piece: Piece, angles: Mapping[tuple[str, str, str], float]) -> tuple[Fold, ...]:
    """Where a piece is scored, inside up, and which way each line folds: a mountain where the thing as it is
    shut has it bent away."""
    away: set[tuple[bool, float]] = set()
    left, top, _, _ = bounds(point for panel in piece.panels for point in panel.outline)
    for crease in piece.creases:
        if angles.get((piece.name, crease.one, crease.other), 0.0) < 0:
            at = crease.start[0] - left if crease.upright else crease.start[1] - top
            away.add((crease.upright, round(at, 6)))

    def fold(at: float, axis: Literal["upright", "level"]) -> Fold:
        return Fold(at, "mountain" if (axis == "upright", at) in away else "valley", axis)

    return (
        *(fold(score, "upright") for score in scores(piece)),
        *(fold(score, "level") for score in scores(piece, upright=False)),
    )


def parts(
    made: Made,
    quantity: int,
    *,
    smaller: Smaller | None = None,
    times: Mapping[str, int] | None = None,
    across: str = "its folds crack",
) -> tuple[Part, ...]:
    """Every sort of piece as a part, its grain along the folds it has most of; then the papers, a part for
    each size. ``times`` says of which kinds there are more for one book than the programme has. Pieces that
    come out of another's offcut are no parts."""
    found = []
    for kind, (piece, count) in counted(made).items():
        if piece.stock in NOT_CUT:
            continue
        upright, level = scores(piece), scores(piece, upright=False)
        folds = folds_of(piece, made.worked.shut.angles)
        many = (times or {}).get(kind, count * made.copies) * quantity
        grain: Literal["w", "h"] = "h" if len(upright) >= len(level) else "w"
        found.append(
            Part(
                key=kind,
                name=kind,
                width_mm=piece.size_mm[0],
                height_mm=piece.size_mm[1],
                count=many,
                stock=piece.stock,
                grain=grain,
                folds=folds,
                across=across,
                smaller=smaller,
            )
        )
    return tuple(found)


def papers(
    dressings: Sequence[Dressing],
    quantity: int,
    ruler: Ruler,
    times: int = 1,
    smaller: Callable[[tuple[float, float]], Smaller] | None = None,
) -> tuple[Part, ...]:
    """The papers of the faces by size, the largest first; ``smaller`` says what would make one of a size come
    out of a sheet."""
    return tuple(
        Part(
            key=f"paper_{letter}",
            name=f"paper {letter}",
            width_mm=size[0],
            height_mm=size[1],
            count=len(faces) * times * quantity,
            stock=MAT,
            across="it may curl",
            smaller=smaller(size) if smaller else None,
        )
        for letter, (size, faces) in by_size(dressings, ruler).items()
    )


def by_size(
    dressings: Sequence[Dressing], ruler: Ruler
) -> dict[str, tuple[tuple[float, float], list[Dressing]]]:
    """The faces whose papers are of one size as the ruler shows it, by a letter, the largest first: (size in
    mm, faces)."""
    alike: dict[tuple[str, str], list[Dressing]] = {}
    for dressing in dressings:
        alike.setdefault((ruler.number(dressing.width_mm), ruler.number(dressing.height_mm)), []).append(
            dressing
        )
    sizes = [
        ((round(min(one.width_mm for one in on), 2), round(min(one.height_mm for one in on), 2)), on)
        for on in alike.values()
    ]
    ordered = sorted(sizes, key=lambda item: (-item[0][0] * item[0][1], item[0]))
    return {chr(64 + number) if number <= 26 else str(number): item for number, item in enumerate(ordered, 1)}


def flats(made: Made, wide: float = 1.9) -> tuple[Flat, ...]:
    """The pieces side by side, each sort once."""
    listed = [
        (piece, kind, count, kind)
        for kind, (piece, count) in counted(made).items()
        if piece.stock not in NOT_CUT[1:]
    ]
    return rows(listed, wide)
