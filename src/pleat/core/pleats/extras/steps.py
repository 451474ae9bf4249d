"""What is done for what is put in: cut-outs while the sheets are flat, pieces made, glued on and dried,
filled at the end."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Final

from pleat.core.base.cautions import BOARD
from pleat.core.base.plan import Missing, Piece, Step, signature
from pleat.core.base.slips import SlipCode
from pleat.core.base.words import many
from pleat.core.pleats.extras.base import LeftOfExtras, WorkWords
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem, on_faces

FILLED = "extras.filled"
NAMED: Final = 12
"""So many places are named in a step."""
TOOLS: Final = {"window": ("knife", "mat", "ruler"), "eyelet": ("punch", "setter", "hammer")}
"""What is used on flat sheets, by the kind of design; what is sewn through takes an awl and a needle."""
LATE: Final[dict[str, SlipCode]] = {"mat": "F4", "fastener": "F3"}
"""The slips of what is put on too late, by the sort of work it is."""
IN_COVER: Final = {
    (
        True,
        True,
    ): "Cut it out of the board before that is covered. Over it, cut the covering from corner to corner, "
    "turn the flaps to the inside and glue them.",
    (True, False): "Cut it out of the cover while that is flat, on the mat, from its corners inward.",
    (
        False,
        True,
    ): "Through the covered board, before the block goes in, with a scrap under it; what is set has to reach "
    "through board and covering.",
    (False, False): "Through the cover while that is flat, with a scrap under it.",
}
"""What is done in the inside of a cover, by whether it is cut out, and whether boards are covered."""
WHY: Final[dict[SlipCode, str]] = {
    "F3": "The paper that hides it is on, or the book is shut over it: its half has no place to go, and does "
    "not meet the other.",
    "F4": "It lies under what is there already, or is cut through it: afterwards it covers it, or the knife "
    "goes through both.",
    "G2": "It wants the sheet flat and by itself: folded in and bound, the punch or the needle goes through "
    "the next leaf too, or does not come near.",
}


def _missing(slip: SlipCode, item: PlacedDesign) -> Missing:
    return Missing(
        slip=slip,
        words=f"the {item.title} is not done",
        why=WHY[slip],
        done=f"the {item.title} is done after all",
        undo=f"untick what came before the {item.title}",
    )


def _places(spots: Sequence[PlacedItem], left: LeftOfExtras) -> str:
    """Where it lies, the first places by name."""
    ruler, count = left.brief.ruler, len(spots)
    named = (
        f"{spot.face.title} at {ruler.number(spot.x_mm)} from the left, "
        f"{ruler.number(spot.y_mm)} from the head"
        for spot in spots[:NAMED]
    )
    return "; ".join(named) + (f" and {count - NAMED} more" if count > NAMED else "")


def _mark(item: PlacedDesign, spots: Sequence[PlacedItem]) -> str:
    return signature(
        item.thing.width_mm,
        item.thing.height_mm,
        *(f"{spot.face.name}{spot.x_mm:.2f}{spot.y_mm:.2f}" for spot in spots),
    )


def _flat(item: PlacedDesign, left: LeftOfExtras) -> Iterator[Step]:
    """What wants the sheet flat, and what wants the cover before it is folded, covered or hung."""
    work = item.thing.work
    inside, outside = ([spot for spot in item.spots if spot.face.cover is cover] for cover in (False, True))
    if not work.flat:
        return
    tools = TOOLS.get(item.record.kind, ("awl", "needle", "thread"))
    missing = _missing("F4" if "cut-out" in work.tags else "G2", item)
    if inside:
        yield Step(
            key=f"extra_{item.key}_flat",
            title=f"{item.title.capitalize()}: while the sheets are flat",
            detail=f"{work.flat} {_places(inside, left)}.",
            tools=tools,
            needs=left.pages.cut_states,
            gives=(f"extra_{item.key}.flat",),
            tags=frozenset({"cut-out"}),
            uses=("leaves.flat",),
            cautions=work.cautions,
            signature=_mark(item, inside),
            minutes=2 * len(inside),
            missing=missing,
            kind="decorate",
        )
    if outside:
        roles, cut = left.brief.made_of.cover.roles, "cut-out" in work.tags
        covered = "covering" in roles
        dry = covered and not cut
        when = "once it is dry" if dry else "while it is flat"
        yield Step(
            key=f"extra_{item.key}_cover",
            title=f"{item.title.capitalize()}: in the cover {when}",
            detail=f"{IN_COVER[cut, covered]} {_places(outside, left)}, from where the leaf begins.",
            tools=tools,
            needs=("cover.dry",) if dry else ("cover.cut", "board.cut", "cover.joined"),
            gives=(f"extra_{item.key}.flat", *(("cover.set",) if dry else ("cover.ready", "board.ready"))),
            cautions=(*work.cautions, *((BOARD,) if "board" in roles else ())),
            signature=_mark(item, outside),
            minutes=4 * len(outside),
            missing=missing,
            kind="decorate",
        )


def filling(items: Sequence[PlacedDesign]) -> tuple[Step, ...]:
    """The last step, which lists what goes in where; none where nothing is filled."""
    put = [item for item in items if item.spots]
    filled = [item for item in put if item.thing.work.fill]
    if not filled:
        return ()
    return (
        Step(
            key="extras_fill",
            title="Fill what was made, last of all",
            detail=" ".join(
                f"{item.title.capitalize()}: {on_faces(item.spots)}. {item.thing.work.fill}"
                for item in filled
            ),
            needs=("book.bound", *(f"extra_{item.key}.on" for item in put if item.thing.work.fix)),
            gives=(FILLED,),
            tags=frozenset({"insert"}),
            signature=signature(*(item.key for item in filled)),
            minutes=2 * len(filled),
            fixes=tuple(
                f"extras.{item.key}"
                for item in filled
                if not item.thing.work.fix and not item.thing.work.flat
            ),
            kind="decorate",
        ),
    )


def of(item: PlacedDesign, left: LeftOfExtras, parts: Sequence[Piece]) -> tuple[Step, ...]:
    """What is done on flat sheets, made and put on for one design of these parts; nothing where it is put
    nowhere."""
    if not item.spots:
        return ()
    work, key, count = item.thing.work, f"extra_{item.key}", len(item.spots)
    places, mark = _places(item.spots, left), _mark(item, item.spots)
    stock = (
        (f"{item.thing.sheet_stock}.cut",)
        if item.thing.sheet_stock and item.thing.pieces
        else left.pages.cut_states
    )
    bound = any(
        spot.face.cover for spot in item.spots
    )  # the cover is there after all that has to be dry before it is shut
    # pages of a section are worked on while their sheet lies open, before it is nested
    open_ = left.pages.unit == "section" and not bound
    steps = [*_flat(item, left)]
    whole = (f"extras.{item.key}", *(f"extras.{part.key}" for part in parts))
    if steps and not work.fix:
        steps[0] = replace(steps[0], fixes=whole)
    if work.make:
        steps.append(_cut(stock, mark, count, work, key, item))
    if work.fix:
        whose = "its page" if count == 1 else many(count, "page")
        steps.append(
            Step(
                key=f"{key}_fix",
                title=f"{item.title.capitalize()}: put it on {whose}",
                detail=f"{work.fix} {places}.",
                tools=("glue",),
                needs=(
                    *((f"{key}.made",) if work.make else stock),
                    *(("book.bound",) if bound else ()),
                    *(("leaf.folded",) if open_ else ()),
                ),
                gives=(f"{key}.on", *(("leaf.ready",) if open_ else ())),
                fixes=whole,
                tags=frozenset() if bound else work.tags & {"glue", "mat", "on a mat"},
                uses=("fastener.face",) if "fastener" in work.tags and not bound else (),
                wait_minutes=work.wait_minutes if "glue" in work.tags else 0,
                cautions=work.cautions if not work.flat else (),
                signature=mark,
                minutes=3 * count,
                pieces=count,
                missing=next((_missing(slip, item) for tag, slip in LATE.items() if tag in work.tags), None),
                kind="decorate",
            )
        )
    return tuple(steps)


def _cut(
    stock: tuple[str, ...], mark: str, count: int, work: WorkWords, key: str, item: PlacedDesign
) -> Step:
    """The step in which its sheet is cut."""
    return Step(
        key=f"{key}_make",
        title=f"Make {many(count, item.title)}",
        detail=work.make,
        tools=("ruler", "bone folder"),
        needs=stock,
        gives=(f"{key}.made",),
        signature=mark,
        minutes=4 * count,
        pieces=count,
        tags=frozenset({"cut-out"}),
        kind="decorate",
    )
