"""What keeps a book shut: its two halves, where each goes, and what has to be ready before the paper hides
it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from pleat.core.base.cautions import KNIFE, MAGNETS, PUNCH
from pleat.core.base.plan import Count, Length, Missing, Piece, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.trade.covers import BOW_MM, FASTENER_KNOT_MM
from pleat.core.trade.holes import ELASTIC_CUT

Fastener = Literal["none", "magnet", "dot", "tie", "elastic", "button", "clip"]
FASTENERS: Final = (
    ("none", "nothing"),
    ("magnet", "magnets"),
    ("dot", "hook-and-loop dots"),
    ("tie", "a tie through eyelets"),
    ("elastic", "elastic from the back"),
    ("button", "button and cord"),
    ("clip", "a clip"),
)
ON_FLAP: Final = frozenset({"magnet", "dot", "clip"})
"""Those whose halves have to lie on each other, which takes a flap."""
HIDDEN: Final = frozenset({"magnet", "tie", "elastic"})
"""Those that go in before the paper that hides them."""


@dataclass(frozen=True)
class Landing:
    """Where the two halves go, in mm: each panel's name, and how far from the two edges that ``first_from``
    and ``second_from`` name."""

    first: tuple[str, float, float]
    second: tuple[str, float, float]
    first_from: tuple[str, str] = ("the edge", "the head")
    second_from: tuple[str, str] = ("the edge", "the head")


def title(fastener: Fastener) -> str:
    return dict(FASTENERS)[fastener]


def steps(fastener: Fastener, ruler: Ruler, landing: Landing, hides: str) -> tuple[Step, ...]:
    """The first half before its panel is papered, the second once the book is shut and squared up. ``hides``
    names the paper that hides it."""
    if fastener == "none":
        return ()
    (one, one_x, one_y), (other, other_x, other_y) = landing.first, landing.second
    place = (
        f"{one}: {ruler.show(one_x)} from {landing.first_from[0]}, {ruler.show(one_y)} from "
        f"{landing.first_from[1]}"
    )
    lands = (
        f"{other}: {ruler.show(other_x)} from {landing.second_from[0]}, {ruler.show(other_y)} from "
        f"{landing.second_from[1]}"
    )
    cautions = {
        "magnet": (MAGNETS,),
        "tie": (PUNCH,),
        "elastic": (PUNCH,),
        "button": (PUNCH,),
        "clip": (KNIFE,),
    }.get(fastener, ())
    first = {
        "magnet": "Glue the first magnet into its place. Mark which face looks out: the second has to pull, "
        "not push.",
        "dot": "Press on the first half of the dot.",
        "tie": "Set the eyelet and knot the ribbon behind it.",
        "elastic": "Punch both holes and pull the elastic through, knot inside.",
        "button": "Sew on the button through two holes, with a scrap of card behind.",
        "clip": "Fix the first half of the clip.",
    }[fastener]
    hidden = fastener in HIDDEN
    return (
        Step(
            key="fastener_first",
            title=f"Fix {title(fastener)}: the first half",
            detail=f"On the {place}. {first}" + (f" Do it before {hides} hides it." if hidden else ""),
            needs=("cover.scored", "board.cut") if hidden else ("book.dry", "book.creased"),
            gives=("fastener.first",),
            uses=("fastener.face",) if hidden else (),
            cautions=cautions,
            signature=signature(one, one_x, one_y),
            missing=Missing(
                slip="F3",
                words=f"{title(fastener)} is not in",
                why=f"Once {hides} is on, its knot or glue has no place to go, and it shows.",
                done="the fastener is in after all",
                undo="untick what hides it",
            )
            if hidden
            else None,
            kind="decorate",
        ),
        _second_half(cautions, other, other_x, other_y, lands, fastener),
    )


def _second_half(
    cautions: tuple[str, ...],
    other: str,
    other_x: float,
    other_y: float,
    lands: str,
    fastener: Fastener,
) -> Step:
    """The half that meets the first one where that comes down."""
    return Step(
        key="fastener_second",
        title=f"Fix {title(fastener)}: the second half",
        detail=f"Shut the book and square it up. It lands on the {lands}. Mark it there rather than by "
        "measure alone.",
        needs=("fastener.first", "block.in", "book.dry", "book.creased"),
        gives=("fastener.on", "book.bound"),
        fixes=tuple(f"cover.{piece.key}" for piece in pieces(fastener, 0.0, 0.0, 0.0, 1)),
        cautions=cautions,
        signature=signature(other, other_x, other_y),
        kind="decorate",
    )


def pieces(
    fastener: Fastener, height_mm: float, thick_mm: float, width_mm: float, quantity: int
) -> tuple[Piece, ...]:
    """What it takes for books of this front and thickness in mm, ``height_mm`` along the spine and
    ``width_mm`` across it: magnets, dots, buttons and clips by count, ties, cord and elastic by length."""
    around_mm = 2 * (width_mm + thick_mm)
    match fastener:
        case "magnet":
            return (Count(key="magnets", name="magnets", count=2 * quantity, stock="magnet", use="cover"),)
        case "dot":
            return (
                Count(key="dots", name="hook-and-loop dots, pairs", count=quantity, stock="dot", use="cover"),
            )
        case "tie":
            return (
                Length(
                    key="tie",
                    name="ribbon to tie with",
                    length_mm=around_mm / 4 + BOW_MM,
                    count=2 * quantity,
                    stock="ribbon",
                    use="cover",
                ),
                Count(key="eyelets", name="eyelets", count=2 * quantity, stock="eyelet", use="cover"),
            )
        case "elastic":
            return (
                Length(
                    key="elastic",
                    name="elastic",
                    length_mm=ELASTIC_CUT[1] * (height_mm + 2 * thick_mm + 30) + 2 * FASTENER_KNOT_MM,
                    count=quantity,
                    stock="elastic",
                    use="cover",
                ),
                Count(key="eyelets", name="eyelets", count=2 * quantity, stock="eyelet", use="cover"),
            )
        case "button":
            return (
                Count(key="buttons", name="buttons", count=quantity, stock="button", use="cover"),
                Length(
                    key="cord",
                    name="cord round the button",
                    length_mm=1.5 * around_mm,
                    count=quantity,
                    stock="cord",
                    use="cover",
                ),
            )
        case "clip":
            return (Count(key="clips", name="clips", count=quantity, stock="clip", use="cover"),)
    return ()
