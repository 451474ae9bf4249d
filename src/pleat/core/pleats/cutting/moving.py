"""A piece that the maker moves: to another place of its sheet, turned, or onto another sheet. Both sheets are
pinned then, and the rest is planned anew around them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

from pleat.core.engines.packing.cuts import part_sheet
from pleat.core.engines.packing.fill import fillings
from pleat.core.engines.packing.planner import free_of
from pleat.core.engines.packing.problem import Box, PieceDemand, PieceGrid, SheetSource, overlap, ticks
from pleat.core.materials.sheet import CutPiece, SheetCut
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.pinned import as_pin, key_of
from pleat.core.pleats.cutting.record import PinnedSheet
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.pleats.cutting.sources import in_mm

MOST_MOVED: Final = 60
"""Pieces of a sheet that can be moved one by one."""
TRIED: Final = 80
"""Places whose cuts are tried."""
STATES: Final = 60
"""States of a sheet that is filled anew with one piece more."""
Towards = Literal["", "left", "right", "up", "down"]


class NoRoomError(ValueError):
    """A piece that does not go where it was put; its text says why, in the maker's words."""


@dataclass(frozen=True)
class PieceMove:
    """A piece of a sheet, by the sheet's key and its place among the ``single_pieces`` of it. ``onto`` is the
    key of the sheet it is to lie on ("": its own), ``offcut`` the number of a ``fresh`` one ("": a whole
    sheet). ``at`` is where its left upper corner was put, in mm; ``towards`` the way it was pushed. With
    neither it lies where there is room."""

    sheet: str
    piece: int
    onto: str = ""
    fresh: bool = False
    offcut: str = ""
    at: tuple[float, float] | None = None
    towards: Towards = ""
    turn: bool = False


def single_pieces(sheet: SheetCut) -> list[CutPiece]:
    """Every piece of a sheet by itself."""
    return [
        replace(
            piece,
            x_mm=piece.x_mm + column * piece.width_mm,
            y_mm=piece.y_mm + row * piece.height_mm,
            across=1,
            down=1,
        )
        for piece in sheet.pieces
        for row in range(piece.down)
        for column in range(piece.across)
    ]


def can_be_moved(sheet: SheetCut) -> bool:
    """Whether pieces of a sheet can be moved by hand: there are not too many of them."""
    return sum(piece.count for piece in sheet.pieces) <= MOST_MOVED


def moved(
    plan: StockPlan, cuts: Sequence[StockCut], pins: Sequence[PinnedSheet], move: PieceMove
) -> list[PinnedSheet]:
    """All ``pins`` of a book after a piece was moved. Raises NoRoomError where it does not go there."""
    sheet = _sheet(plan, move.sheet)
    pieces = single_pieces(sheet)
    if not 0 <= move.piece < len(pieces) or not can_be_moved(sheet):
        raise NoRoomError("That piece is no longer there. Look at the sheets again.")
    piece = pieces.pop(move.piece)
    if move.turn:
        piece = _turned(piece)
    free = {cut.part.key: cut.free for cut in cuts}
    if move.fresh:
        target = _fresh(plan, move.offcut, piece)
        laid = _laid(plan, target, [], piece, replace(move, at=None, towards=""), free)
        return _pins(plan, pins, sheet, pieces, replace(target, pieces=laid), None)
    if move.onto in ("", sheet.key):
        target = replace(sheet, pieces=())
        laid = _laid(plan, target, pieces, piece, move, free)
        own = [pin for pin in pins if key_of(pin) != sheet.key]
        return [*own, as_pin(plan.stock.key, replace(sheet, pieces=laid))]
    target = _sheet(plan, move.onto)
    if not can_be_moved(target):
        raise NoRoomError("That sheet has too many pieces to lay another one among them by hand.")
    laid = _laid(plan, target, single_pieces(target), piece, move, free)
    return _pins(plan, pins, sheet, pieces, replace(target, pieces=laid), target)


def fresh_sheets(plan: StockPlan) -> list[tuple[str, float, float]]:
    """What nothing is cut from yet, by its number ("" for a whole sheet): (number, width, height) in mm; of a
    roll its width, and 0."""
    used: dict[str, int] = {}
    for sheet in plan.sheets:
        used[sheet.offcut] = used.get(sheet.offcut, 0) + sheet.times
    return [
        (number, in_mm(source.width), 0.0 if source.roll else in_mm(source.height))
        for number, source in plan.sources.items()
        if source.count is None or used.get(number, 0) < source.count
    ]


def _sheet(plan: StockPlan, key: str) -> SheetCut:
    found = next((sheet for sheet in plan.sheets if sheet.key == key), None)
    if found is None:
        raise NoRoomError("That sheet is no longer planned. Look at the sheets again.")
    return found


def _turned(piece: CutPiece) -> CutPiece:
    return replace(piece, width_mm=piece.height_mm, height_mm=piece.width_mm, turned=not piece.turned)


def _fresh(plan: StockPlan, offcut: str, piece: CutPiece) -> SheetCut:
    """A sheet that nothing is cut from yet; of a roll as much as the piece is long."""
    source = plan.sources.get(offcut)
    used = sum(sheet.times for sheet in plan.sheets if sheet.offcut == offcut)
    if source is None or (source.count is not None and used >= source.count):
        raise NoRoomError("There is no such sheet left.")
    remnant = plan.remnants.get(offcut)
    high = piece.height_mm if source.roll else in_mm(source.height)
    return SheetCut(
        times=1,
        width_mm=in_mm(source.width),
        height_mm=high,
        pieces=(),
        cuts=(),
        offcuts=(),
        first_part=piece.part,
        offcut=offcut,
        other=remnant.name if remnant and remnant.whole else "",
    )


def _pins(
    plan: StockPlan,
    pins: Sequence[PinnedSheet],
    source: SheetCut,
    rest: Sequence[CutPiece],
    target: SheetCut,
    was: SheetCut | None,
) -> list[PinnedSheet]:
    """The pins with one sheet more as the ``target`` is now; of a pinned ``source`` what is left of one stays
    pinned, and of the others that were alike all."""
    found = []
    for pin in pins:
        key = key_of(pin)
        if key == source.key:
            if rest:
                found.append(as_pin(plan.stock.key, replace(source, times=1, pieces=tuple(rest))))
            found += [pin.model_copy(update={"times": pin.times - 1})] if pin.times > 1 else []
        elif was is not None and key == was.key:
            found += [pin.model_copy(update={"times": pin.times - 1})] if pin.times > 1 else []
        else:
            found.append(pin)
    return [*found, as_pin(plan.stock.key, replace(target, times=1))]


def _laid(
    plan: StockPlan,
    target: SheetCut,
    others: Sequence[CutPiece],
    piece: CutPiece,
    move: PieceMove,
    free: dict[str, bool],
) -> tuple[CutPiece, ...]:
    """All pieces of the target with one more: where it was put or pushed, at the nearest place that cuts from
    edge to edge reach; else all of them laid anew. Raises NoRoomError."""
    source = plan.sources[target.offcut]
    if source.roll:
        source = replace(source, height=ticks(target.height_mm))
    boxes = [_box(one) for one in others]
    for x, y in _places(source, boxes, piece, move):
        box = (x, y, ticks(piece.width_mm), ticks(piece.height_mm))
        if _can_be_cut(source, [*boxes, box]):
            return (*others, replace(piece, x_mm=in_mm(x), y_mm=in_mm(y)))
    if move.towards:
        raise NoRoomError(f"There is no place for it further {_FURTHER[move.towards]} on this sheet.")
    found = _anew(source, others, piece, free)
    if found is None:
        raise NoRoomError("There is no room for it there: no cuts from edge to edge part it from the others.")
    return found


_FURTHER: Final = {"left": "to the left", "right": "to the right", "up": "up", "down": "down"}


def _box(piece: CutPiece) -> Box:
    return ticks(piece.x_mm), ticks(piece.y_mm), ticks(piece.width_mm), ticks(piece.height_mm)


def _places(
    source: SheetSource, boxes: Sequence[Box], piece: CutPiece, move: PieceMove
) -> Iterator[tuple[int, int]]:
    """Where its left upper corner may come to lie, the nearest first: at an edge of the sheet or of another
    piece; beside no other, and on nothing that cannot be used."""
    left, top, wide, high = source.usable
    own_wide, own_high = ticks(piece.width_mm), ticks(piece.height_mm)
    edges = (*boxes, *source.blocked)
    xs = {left, left + wide - own_wide} | {
        at for x, _, w, _ in edges for at in (x, x + w, x - own_wide, x + w - own_wide)
    }
    ys = {top, top + high - own_high} | {
        at for _, y, _, h in edges for at in (y, y + h, y - own_high, y + h - own_high)
    }
    now = (ticks(piece.x_mm), ticks(piece.y_mm))
    aim = (ticks(move.at[0]), ticks(move.at[1])) if move.at else now
    found = [
        (x, y)
        for x in xs
        for y in ys
        if left <= x <= left + wide - own_wide and top <= y <= top + high - own_high
        if _is_towards(move.towards, x - now[0], y - now[1])
    ]
    found.sort(key=lambda one: (_far(move.towards, one[0] - aim[0], one[1] - aim[1]), one))
    tried = 0
    for x, y in found:
        box = (x, y, own_wide, own_high)
        if not any(overlap(box, other) for other in edges):
            yield x, y
            tried += 1
            if tried == TRIED:
                return


def _is_towards(towards: Towards, right: int, down: int) -> bool:
    match towards:
        case "left":
            return right < 0
        case "right":
            return right > 0
        case "up":
            return down < 0
        case "down":
            return down > 0
    return True


def _far(towards: Towards, right: int, down: int) -> int:
    """How far a place is; of a piece that is pushed what goes sideways counts more."""
    across, along = abs(right), abs(down)
    if towards in ("left", "right"):
        return across + 3 * along
    if towards in ("up", "down"):
        return 3 * across + along
    return across * across + along * along


def _can_be_cut(source: SheetSource, boxes: Sequence[Box]) -> bool:
    try:
        part_sheet((0, 0, source.width, source.height), [PieceGrid(0, *box) for box in boxes])
    except ValueError:
        return False
    return True


def _anew(
    source: SheetSource, others: Sequence[CutPiece], piece: CutPiece, free: dict[str, bool]
) -> tuple[CutPiece, ...] | None:
    """All of them laid anew, the piece the way round it was put; None where that is not found."""
    sorts: dict[tuple[str, bool], list[CutPiece]] = {}
    for one in others:
        sorts.setdefault((one.part, one.turned), []).append(one)
    demands = [
        PieceDemand(ticks(own[0].width_mm), ticks(own[0].height_mm), len(own), may_turn=free.get(part, False))
        for (part, _), own in sorts.items()
    ]
    demands.append(PieceDemand(ticks(piece.width_mm), ticks(piece.height_mm), 1))
    counts = tuple(demand.count for demand in demands)
    models = [*(own[0] for own in sorts.values()), piece]
    for way in free_of(source, 0):
        for filled in fillings(way, demands, counts, [float(one.area) for one in demands], STATES):
            if filled.counts == counts:
                return tuple(
                    _as_laid(models[grid.demand], grid, demands[grid.demand]) for grid in filled.grids
                )
    return None


def _as_laid(model: CutPiece, grid: PieceGrid, demand: PieceDemand) -> CutPiece:
    """Pieces where the engine laid them."""
    turned = model.turned != (grid.width != demand.width)
    return replace(
        model,
        x_mm=in_mm(grid.x),
        y_mm=in_mm(grid.y),
        width_mm=in_mm(grid.width),
        height_mm=in_mm(grid.height),
        turned=turned,
        across=grid.across,
        down=grid.down,
    )
