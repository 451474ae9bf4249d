"""What keeps a folded structure shut: its halves, where each goes, found by following the shut layers."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import MAGNETS
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Count, Figure, Missing, Offer, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.assembly import Key
from pleat.core.engines.folding.carried import carried
from pleat.core.engines.folding.convex import Point, bounds, middle
from pleat.core.pleats.structures.cut import said
from pleat.core.pleats.structures.made import Made
from pleat.core.pleats.structures.pads import FromPad
from pleat.core.trade.folding import FOLDED_FASTENER_MM

TITLES: Final = {"none": "nothing", "magnet": "magnets", "dot": "hook-and-loop dots"}


class Fastened(FromPad):
    """A structure that may be kept shut; ``fastened_mm`` is where a second half sits already, from that
    panel's edge."""

    fastener: Annotated[
        Literal["none", "magnet", "dot"], ChoiceRule("kept shut by", tuple(TITLES.items()))
    ] = "none"
    fastened_mm: Annotated[float, LengthRule("the other half, from its panel's left edge", 0, 600)] | None = (
        None
    )


@dataclass(frozen=True)
class Halves:
    """Both halves in mm on their own pieces: the outermost panel with its place, and the panel below with
    where it lands; None where nothing lies below."""

    first: Key
    at: Point
    second: Key | None
    lands: Point | None


def halves(made: Made, ruler: Ruler) -> Halves | None:
    """Where a fastener goes: at the middle of the free edge of the panel that is shut last, and on what lies
    right below it when all is shut."""
    worked = made.folded
    closing = made.programme.closing
    if not closing:
        return None
    shut, pieces = worked.shut, worked.assembly.pieces
    cards = [key for key in shut.pile if not pieces[key[0]].rigid]
    fold = closing[-1].folds[-1]
    moved = {(fold.piece, name) for one, other, _ in fold.angles for name in (one, other)}
    top = next((key for key in reversed(cards) if key in moved), None)
    if top is None:
        return None
    at = _free_edge(made, top, ruler.near(FOLDED_FASTENER_MM))
    below = cards[: cards.index(top)]
    for key in reversed(below):
        found = carried(worked.assembly, shut, top, at, key)
        if found is not None:
            return Halves(top, at, key, found)
    return Halves(top, at, None, None)


def _free_edge(made: Made, key: Key, inset: float) -> Point:
    """The middle of the side across from the fold a panel hangs on, a little inside."""
    piece = made.folded.assembly.pieces[key[0]]
    left, top, right, bottom = bounds(piece[key[1]].outline)
    crease = next((one for one in piece.creases if key[1] in one.between), None)
    x, y = middle((crease.start, crease.end)) if crease else (left, (top + bottom) / 2)
    inset = min(inset, (right - left) / 2, (bottom - top) / 2)
    if crease is None or crease.upright:
        return (right - inset if x <= (left + right) / 2 else left + inset, (top + bottom) / 2)
    return ((left + right) / 2, bottom - inset if y <= (top + bottom) / 2 else top + inset)


def _off(made: Made, key: Key, point: Point) -> tuple[float, float]:
    """A place from its panel's own left edge and head."""
    left, top, _, _ = bounds(made.folded.assembly.pieces[key[0]][key[1]].outline)
    return point[0] - left, point[1] - top


def _place(made: Made, key: Key, point: Point, ruler: Ruler) -> str:
    x, y = _off(made, key, point)
    return f"{said(key)}: {ruler.show(x)} from its left edge and {ruler.show(y)} from its head, inside up"


def figures(record: Fastened, made: Made, ruler: Ruler) -> tuple[Figure, ...]:
    """Both halves with their places."""
    found = halves(made, ruler) if record.fastener != "none" else None
    if found is None or found.second is None or found.lands is None:
        return ()
    one, other = _place(made, found.first, found.at, ruler), _place(made, found.second, found.lands, ruler)
    return (
        Figure(
            key="fastener",
            label=TITLES[record.fastener],
            value=f"on the {said(found.first)} and the {said(found.second)}",
            show="text",
            how=f"One half on the {one}; shut, it lies over the {other}.",
            rules=(Rule("arithmetic", "the place followed through the shut layers"),),
            scrap=f"{one}; {other}",
        ),
    )


def checks(record: Fastened, made: Made, ruler: Ruler) -> tuple[Check, ...]:
    """A6: a half that lands on nothing; F3: one that sits where the other does not come down."""
    if record.fastener == "none":
        return ()
    found = halves(made, ruler)
    if found is None or found.second is None or found.lands is None:
        return (
            Check(
                code="A6",
                level="stop",
                title=f"There is no panel for the other half of {TITLES[record.fastener]}.",
                why="Nothing lies below the outermost panel where its half would be.",
                offers=(Offer(label="nothing keeps it shut", changes=(("pages.fastener", "none"),)),),
            ),
        )
    x, _ = _off(made, found.second, found.lands)
    if record.fastened_mm is None or abs(record.fastened_mm - x) <= 2.0:
        return ()
    return (
        Check(
            code="F3",
            level="stop",
            title=f"The other half sits {ruler.show(record.fastened_mm)} from the edge of the "
            f"{said(found.second)}; the first comes down at {ruler.show(x)}.",
            why=f"Shut, they miss each other by {ruler.show(abs(record.fastened_mm - x))}.",
            offers=(Offer(label=f"move it to {ruler.show(x)}", changes=(("pages.fastened_mm", None),)),),
        ),
    )


def parts(record: Fastened, quantity: int) -> tuple[Count, ...]:
    """What it takes."""
    if record.fastener == "none":
        return ()
    if record.fastener == "magnet":
        return (Count(key="magnets", name="magnets", count=2 * quantity, stock="magnet"),)
    return (Count(key="dots", name="hook-and-loop dots, pairs", count=quantity, stock="dot"),)


def steps(record: Fastened, made: Made, ruler: Ruler, prefix: str) -> tuple[Step, ...]:
    """The first half before its panel is papered; the second once all is shut and squared up over that paper,
    before its own face is papered."""
    found = halves(made, ruler) if record.fastener != "none" else None
    if found is None or found.second is None or found.lands is None:
        return ()
    title, cautions = TITLES[record.fastener], (MAGNETS,) if record.fastener == "magnet" else ()
    return (
        Step(
            key="fastener_first",
            title=f"Fix {title}: the first half",
            detail=f"On the {_place(made, found.first, found.at, ruler)}. "
            + (
                "Mark which face looks down: the second has to pull, not push. Then the paper hides it."
                if cautions
                else "Press it on."
            ),
            needs=(f"{prefix}.scored",),
            gives=("fastener.first",),
            uses=("fastener.face",),
            cautions=cautions,
            signature=signature(*found.at),
            missing=Missing(
                slip="F3",
                words=f"{title} are not in",
                why="Once the paper is on, a magnet has no place to go but on top of it.",
                done="the first half is in after all",
                undo="the papers are not on yet",
            ),
            kind="decorate",
        ),
        Step(
            key="fastener_second",
            title=f"Fix {title}: the second half",
            detail="Shut it dry, in its order, and square it up. It lands on the "
            f"{_place(made, found.second, found.lands, ruler)}; mark it there rather than by measure alone.",
            needs=("fastener.first", f"{prefix}.papered.first", f"{prefix}.dry"),
            gives=("fastener.on",),
            fixes=tuple(f"pages.{piece.key}" for piece in parts(record, 1)),
            cautions=cautions,
            signature=signature(*found.lands),
            kind="decorate",
        ),
    )
