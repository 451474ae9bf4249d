"""A free folio: the maker draws it. Scores are dragged, cells cut away, flaps added, directions and the order
of shutting set; the checks, parts, steps and views are those of every other structure, which can all be made
free."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import replace
from itertools import accumulate, permutations
from typing import Any, Final, Literal

from pydantic import Field

from pleat.core.base.errors import LengthError
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Changes, Check, Offer
from pleat.core.base.units import RULERS, parse_length
from pleat.core.engines.folding.assembly import Key
from pleat.core.engines.folding.convex import bounds
from pleat.core.engines.folding.flat import Dragged
from pleat.core.engines.folding.programme import Programme
from pleat.core.pleats.brief.record import Brief
from pleat.core.pleats.brief.resize import possible, resized
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import CARD, FoldedBlock, FoldedSpec
from pleat.core.pleats.structures import redrawn
from pleat.core.pleats.structures.drawn import (
    DrawnFold,
    DrawnGroup,
    DrawnPanel,
    DrawnSheet,
    DrawnStep,
    piece_of,
    programme_of,
)
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.fastened import Fastened
from pleat.core.pleats.structures.made import Room, Sizes
from pleat.core.pleats.structures.orders import label_of

MOST_ORDERED: Final = 4
"""Groups whose every order is offered; of more, one can be moved forward."""


def _first(width_mm: float, height_mm: float) -> DrawnSheet:
    """A front and a back of this size with a gusset between, to begin with."""
    names = ("front", "gusset", "back")
    return DrawnSheet(
        name="sheet",
        widths_mm=(width_mm, 3.0, width_mm),
        heights_mm=(height_mm,),
        panels=tuple(DrawnPanel(name=name, column=number, row=0) for number, name in enumerate(names)),
        base="back",
    )


def _over() -> DrawnGroup:
    folds = (("back", "gusset"), ("gusset", "front"))
    return DrawnGroup(
        name="front",
        folds=tuple(DrawnFold(sheet="sheet", one=one, other=other, degrees=90.0) for one, other in folds),
    )


class Free(Fastened):
    """Pleat 3, a folio as it was drawn; without sheets a front and a back of the leaf's size."""

    kind: Literal["free"] = "free"
    sheets: tuple[DrawnSheet, ...] = Field(default=(), max_length=60)
    steps: tuple[DrawnStep, ...] = Field(default=(), max_length=200)
    groups: tuple[DrawnGroup, ...] = Field(default_factory=lambda: (_over(),), max_length=60)


def drawn(record: Free, width_mm: float, height_mm: float) -> Free:
    """The record with its sheets, those it begins with where nothing was drawn yet."""
    return record if record.sheets else record.model_copy(update={"sheets": (_first(width_mm, height_mm),)})


def read(record: Free, name: str, text: str, brief: Brief) -> list[tuple[str, object]] | None:
    """A score dragged (``score.0.x.1``: of the first sheet, the one before its second column) or a size typed
    (``size.0.y.0``); None for what is no such field. Raises LengthError."""
    parts = name.split(".")
    if (
        len(parts) != 4
        or parts[0] not in ("score", "size")
        or parts[2] not in ("x", "y")
        or not (parts[1].isdecimal() and parts[3].isdecimal())
    ):
        return None
    record = drawn(record, brief.leaf_width_mm, brief.leaf_height_mm)
    number, place = int(parts[1][:4]), int(parts[3][:4])
    axis: redrawn.Axis = "x" if parts[2] == "x" else "y"
    if (
        number >= len(record.sheets)
        or not (parts[0] == "size") <= place + 1
        or place >= len(redrawn.sizes(record.sheets[number], axis))
        or (parts[0] == "score" and place < 1)
    ):
        raise LengthError(text, "There is no such score on the sheet.")
    sheet, ruler = record.sheets[number], RULERS[brief.ruler]
    mm = parse_length(text, brief.ruler).mm
    now = (
        [0.0, *accumulate(redrawn.sizes(sheet, axis))][place]
        if parts[0] == "score"
        else redrawn.sizes(sheet, axis)[place]
    )
    if mm == now:
        return []
    if parts[0] == "size" and not 0.5 <= mm <= 2000:
        raise LengthError(text, f"A panel is between {ruler.show(0.5)} and {ruler.show(2000)} wide.")
    if parts[0] == "score":
        edges = [0.0, *accumulate(redrawn.sizes(sheet, axis))]
        low, high = edges[place - 1] + redrawn.LEAST_MM, edges[place + 1] - redrawn.LEAST_MM
        if not low - ruler.step_mm / 2 <= mm <= high + ruler.step_mm / 2:
            raise LengthError(
                text, f"This score lies between its neighbours: from {ruler.show(low)} to {ruler.show(high)}."
            )
    changed = (
        redrawn.scored_at(sheet, axis, place, mm)
        if parts[0] == "score"
        else redrawn.sized(sheet, axis, place, mm)
    )
    return [("sheets", _dumped([*record.sheets[:number], changed, *record.sheets[number + 1 :]]))]


def _dumped(records: Iterable[Any]) -> list[object]:
    return [record.model_dump(mode="json") for record in records]


def compute(record: Free, left: LeftOfPages) -> FoldedBlock:
    """What was drawn, worked out; shut it is as large as its shadow on the table."""
    record = drawn(record, left.brief.leaf_width_mm, left.brief.leaf_height_mm)
    walls = _walls(record)

    def programme(_sizes: Sizes) -> Programme:
        return programme_of(record.sheets, record.steps, record.groups)

    def mend(room: Room, size: float) -> Changes:
        return (("pages.sheets", _dumped(_with_wall(record, room.wall, size))),)

    block = folded.compute(
        record,
        left,
        FoldedSpec(
            "free folio",
            lambda _wide, _high: programme,
            typed=walls,
            paths=dict.fromkeys(walls, ""),
            offers=(*_orders(record), *_drawing(record, left)),
            mend=mend,
            checks=lambda _made: _as_typed(record, left),
            dragged=_dragged(record.sheets[0]),
        ),
    )
    worked = block.made.folded
    shadows = [worked.shut.shadow(key, worked.assembly.pieces) for key in worked.shut.pile]
    x0, y0, x1, y1 = bounds(point for shadow in shadows for point in shadow)
    return replace(block, leaf_width_mm=max(x1 - x0, 1.0), leaf_height_mm=max(y1 - y0, 1.0))


def _dragged(sheet: DrawnSheet) -> tuple[Dragged, ...]:
    """The scores of the first sheet."""
    handles = []
    axes: tuple[redrawn.Axis, ...] = ("x", "y")
    for axis in axes:
        edges = [0.0, *accumulate(redrawn.sizes(sheet, axis))]
        for number in range(1, len(edges) - 1):
            low, high = edges[number - 1] + redrawn.LEAST_MM, edges[number + 1] - redrawn.LEAST_MM
            handles.append(
                Dragged(
                    f"pages.score.0.{axis}.{number}",
                    axis,
                    edges[number],
                    min(low, edges[number]),
                    max(high, edges[number]),
                )
            )
    return tuple(handles)


def _as_typed(record: Free, left: LeftOfPages) -> tuple[Check, ...]:
    """A leaf that was typed and is not what was drawn: its panels have sizes of their own."""
    brief, ruler = left.brief, left.brief.ruler
    sizes = [
        (sheet.widths_mm[panel.column], sheet.heights_mm[panel.row])
        for sheet in record.sheets
        for panel in sheet.panels
        if _there(sheet, panel)
    ]
    if any(
        abs(wide - brief.leaf_width_mm) < 0.3 and abs(high - brief.leaf_height_mm) < 0.3
        for wide, high in sizes
    ):
        return ()
    base = max(sizes, key=lambda one: one[0] * one[1], default=(0.0, 0.0))
    as_drawn = (
        (Offer(label=f"the leaf as it is drawn: {ruler.size(*base)}", changes=resized(brief, *base)[0]),)
        if possible(*base)
        else ()
    )
    anew: Changes = (
        ("pages.sheets", []),
        ("pages.steps", []),
        ("pages.groups", [_over().model_dump(mode="json")]),
    )
    return (
        Check(
            code="drawn",
            level="note",
            title=f"The leaf of {ruler.size(brief.leaf_width_mm, brief.leaf_height_mm)} is not what is "
            f"drawn: the largest panel is {ruler.size(*base)}.",
            why="A folio that was drawn has the sizes of its drawing. Type them on it, or let it be drawn "
            "anew for the leaf.",
            offers=(*as_drawn, Offer(label="draw it anew for this leaf", changes=anew)),
        ),
    )


def _there(sheet: DrawnSheet, panel: DrawnPanel) -> bool:
    return panel.column < len(sheet.widths_mm) and panel.row < len(sheet.heights_mm)


def _walls(record: Free) -> dict[str, float | None]:
    """Panels that stand up between two folds of a right angle, with their size: by their name, or as ``panel
    of sheet`` where it is not theirs alone."""
    sheets = {sheet.name: sheet for sheet in record.sheets}
    found: dict[Key, float] = {}
    for group in record.groups:
        right = [fold for fold in group.folds if abs(fold.degrees) == 90 and fold.sheet in sheets]
        ends = Counter((fold.sheet, name) for fold in right for name in (fold.one, fold.other))
        for sheet, name in (key for key, times in ends.items() if times == 2):
            if any(panel.name == name for panel in sheets[sheet].panels):
                x0, y0, x1, y1 = bounds(piece_of(sheets[sheet])[name].outline)
                found[sheet, name] = min(x1 - x0, y1 - y0)
    alike = Counter(name for _, name in found)
    return {name if alike[name] == 1 else f"{name} of {sheet}": size for (sheet, name), size in found.items()}


def _with_wall(record: Free, wall: Key, size: float) -> list[DrawnSheet]:
    """The sheets with a wall of another size, along the shorter of its sides."""
    sheets = []
    for sheet in record.sheets:
        panel = next((one for one in sheet.panels if (sheet.name, one.name) == wall), None)
        if panel is None:
            sheets.append(sheet)
            continue
        axis: redrawn.Axis = "x" if sheet.widths_mm[panel.column] <= sheet.heights_mm[panel.row] else "y"
        sheets.append(redrawn.sized(sheet, axis, panel.column if axis == "x" else panel.row, size))
    return sheets


def _orders(record: Free) -> tuple[Offer, ...]:
    """Other orders of shutting: all of them, or for many groups each a place forward."""
    groups, now = record.groups, tuple(group.name for group in record.groups)
    if len(groups) <= MOST_ORDERED:
        return tuple(
            Offer(
                label=label_of(tuple(group.name for group in order)),
                changes=(("pages.groups", _dumped(order)),),
                group="order",
            )
            for order in permutations(groups)
            if tuple(group.name for group in order) != now
        )
    return tuple(
        Offer(
            label=f"{groups[number].name} before {groups[number - 1].name}",
            changes=(
                (
                    "pages.groups",
                    _dumped(
                        [*groups[: number - 1], groups[number], groups[number - 1], *groups[number + 1 :]]
                    ),
                ),
            ),
            group="draw",
        )
        for number in range(1, len(groups))
    )


def _drawing(record: Free, left: LeftOfPages) -> list[Offer]:
    """What can be drawn on the first sheet with one tap."""
    sheet, rest = record.sheets[0], list(record.sheets[1:])
    offers: list[Offer] = []

    def sheets(label: str, changed: DrawnSheet, groups: tuple[DrawnGroup, ...] | None = None) -> None:
        more = () if groups is None else (("pages.groups", _dumped(groups)),)
        offers.append(
            Offer(label=label, changes=(("pages.sheets", _dumped([changed, *rest])), *more), group="draw")
        )

    offers += _folds(record, sheet)
    axes: tuple[tuple[redrawn.Axis, str], ...] = (("x", "column"), ("y", "row"))
    for axis, word in axes:
        for number, size in enumerate(redrawn.sizes(sheet, axis)):
            if size >= 20 and not redrawn.full(sheet, axis):
                changed = redrawn.split(sheet, axis, number)
                sheets(
                    f"score {word} {number + 1} in half, {left.brief.ruler.show(size / 2)} each",
                    changed,
                    redrawn.refolded(record.groups, sheet, changed),
                )
    for side in ("left", "right", "head", "tail"):
        if not redrawn.full(sheet, "x" if side in ("left", "right") else "y"):
            changed, _ = redrawn.flapped(sheet, side)
            if redrawn.hangs_together(changed):
                sheets(f"add a flap at the {side}", changed)
    there = {(panel.column, panel.row) for panel in sheet.panels}
    for panel in sheet.panels:
        if redrawn.can_be_cut(sheet, panel.name):
            sheets(f"cut away {panel.name}", redrawn.cut_away(sheet, panel.name))
    for column in range(len(sheet.widths_mm)):
        for row in range(len(sheet.heights_mm)):
            if (column, row) not in there:
                changed = redrawn.put_back(sheet, column, row)
                if redrawn.hangs_together(changed):
                    sheets(f"put back column {column + 1}, row {row + 1}", changed)
    return offers


def _folds(record: Free, sheet: DrawnSheet) -> list[Offer]:
    """Folds turned over, left out, and made."""
    offers: list[Offer] = []
    for number, group in enumerate(record.groups):
        other = "outside" if group.folds[0].degrees > 0 else "inside"
        offers.append(
            Offer(
                label=f"fold {group.name} to the {other}",
                changes=(("pages.groups", _dumped(redrawn.turned_over(record.groups, number))),),
                group="draw",
            )
        )
        if len(record.groups) > 1:
            offers.append(
                Offer(
                    label=f"leave {group.name} unfolded",
                    changes=(
                        ("pages.groups", _dumped([*record.groups[:number], *record.groups[number + 1 :]])),
                    ),
                    group="draw",
                )
            )
    folded_ = {frozenset({fold.one, fold.other}) for group in record.groups for fold in group.folds}
    folded_ |= {frozenset({fold.one, fold.other}) for step in record.steps for fold in step.folds}
    for crease in piece_of(sheet).creases:
        if crease.between not in folded_ and len(record.groups) < 60:
            groups = redrawn.folded_over(record.groups, sheet, crease.one, crease.other)
            offers.append(
                Offer(
                    label=f"fold {crease.other} over {crease.one}",
                    changes=(("pages.groups", _dumped(groups)),),
                    group="draw",
                )
            )
    return offers


KIND: Final = BlockKind(
    name="free",
    title="free folio",
    summary="Drawn by you: scores dragged, cells cut away, flaps added, its directions and order set.",
    record=Free,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    unit="folio",
    traits=Traits(glue=True),
    read=read,
)
