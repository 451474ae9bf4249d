"""What is done for what is put in: cut-outs while the sheets are flat, pieces made, glued on and dried, filled at the end."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from pleat.core.extras.base import LeftOfExtras
from pleat.core.extras.spots import Item, on_faces
from pleat.core.plan import Missing, Step, signature
from pleat.core.words import many

FILLED = "extras.filled"
NAMED: Final = 12
"""So many places are named in a step."""
TOOLS: Final = {"window": ("knife", "mat", "ruler"), "eyelet": ("punch", "setter", "hammer")}
"""What is used on flat sheets, by the kind of design; what is sewn through takes an awl and a needle."""
LATE: Final = {"mat": "F4", "fastener": "F3"}
"""The slips of what is put on too late, by the sort of work it is."""
WHY: Final = {
    "F3": "The paper that hides it is on, or the book is shut over it: its half has no place to go, and does not meet the other.",
    "F4": "It lies under what is there already, or is cut through it: afterwards it covers it, or the knife goes through both.",
    "G2": "It wants the sheet flat and by itself: folded in and bound, the punch or the needle goes through the next leaf too, or does not come near.",
}


def _missing(slip: str, item: Item) -> Missing:
    return Missing(
        slip=slip,
        words=f"the {item.title} is not done",
        why=WHY[slip],
        done=f"the {item.title} is done after all",
        undo=f"untick what came before the {item.title}",
    )


def filling(items: Sequence[Item]) -> tuple[Step, ...]:
    """The last step, which lists what goes in where; none where nothing is filled."""
    put = [item for item in items if item.spots]
    filled = [item for item in put if item.thing.work.fill]
    if not filled:
        return ()
    return (
        Step(
            "extras_fill",
            "Fill what was made, last of all",
            " ".join(f"{item.title.capitalize()}: {on_faces(item.spots)}. {item.thing.work.fill}" for item in filled),
            needs=tuple(f"extra_{item.key}.on" for item in put if item.thing.work.fix),
            gives=(FILLED,),
            tags=frozenset({"insert"}),
            signature=signature(*(item.key for item in filled)),
            minutes=2 * len(filled),
        ),
    )


def of(item: Item, left: LeftOfExtras) -> tuple[Step, ...]:
    """What is done on flat sheets, made and put on for one design; nothing where it is put nowhere."""
    if not item.spots:
        return ()
    work, key, count, ruler = item.thing.work, f"extra_{item.key}", len(item.spots), left.brief.ruler
    places = "; ".join(
        f"{one.face.title} at {ruler.number(one.x_mm)} from the left, {ruler.number(one.y_mm)} from the head" for one in item.spots[:NAMED]
    ) + (f" and {count - NAMED} more" if count > NAMED else "")
    mark = signature(item.thing.width_mm, item.thing.height_mm, *(f"{one.face.name}{one.x_mm:.2f}{one.y_mm:.2f}" for one in item.spots))
    stock = f"{item.thing.sheet_stock}.cut" if item.thing.sheet_stock and item.thing.pieces else "leaf.cut"
    bound = any(one.face.cover for one in item.spots)  # the cover is there after all that has to be dry before it is shut
    found = []
    if work.flat:
        found.append(
            Step(
                f"{key}_flat",
                f"{item.title.capitalize()}: while the sheets are flat",
                f"{work.flat} {places}.",
                TOOLS.get(item.record.kind, ("awl", "needle", "thread")),
                needs=("leaf.cut",),
                gives=(f"{key}.flat",),
                tags=work.tags & {"flat", "cut-out"},
                cautions=work.cautions,
                signature=mark,
                minutes=2 * count,
                missing=_missing("F4" if "cut-out" in work.tags else "G2", item),
            )
        )
    if work.make:
        found.append(
            Step(
                f"{key}_make",
                f"Make {many(count, item.title)}",
                work.make,
                ("ruler", "bone folder"),
                needs=(stock,),
                gives=(f"{key}.made",),
                signature=mark,
                minutes=4 * count,
                tags=frozenset({"cut-out"}),
            )
        )
    if work.fix:
        found.append(
            Step(
                f"{key}_fix",
                f"{item.title.capitalize()}: put it on {'its page' if count == 1 else many(count, 'page')}",
                f"{work.fix} {places}.",
                ("glue",),
                needs=(f"{key}.made" if work.make else stock, *(("book.bound",) if bound else ())),
                gives=(f"{key}.on",),
                tags=frozenset() if bound else work.tags & {"glue", "mat", "on a mat", "fastener"},
                wait_minutes=work.wait_minutes if "glue" in work.tags else 0,
                cautions=work.cautions if not work.flat else (),
                signature=mark,
                minutes=3 * count,
                missing=next((_missing(slip, item) for tag, slip in LATE.items() if tag in work.tags), None),
            )
        )
    return tuple(found)
