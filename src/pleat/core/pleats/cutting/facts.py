"""What was cut stays as it was cut: what of it the book no longer uses is told. So are sheets that were
pinned and are planned anew."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, joined, many
from pleat.core.materials.sheet import CutPiece, CutSheet, done_of
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.left import LeftOfCutting
from pleat.core.pleats.cutting.pinned import key_of, pieces_of
from pleat.core.pleats.cutting.record import PinnedSheet
from pleat.core.pleats.cutting.shared import StockPlan, is_of


def find(cuts: Sequence[StockCut], plans: Sequence[StockPlan], left: LeftOfCutting) -> Iterator[Check]:
    """A check for each part of which pieces were cut that do not go into the book as it is now."""
    ruler, wanted = left.brief.ruler, {cut.part.key: cut for cut in cuts}
    spare: dict[str, list[tuple[CutSheet, CutPiece]]] = {}
    for fact in left.tools.shelf.cut:
        for piece in fact.sheet.pieces:
            if not fits(fact, piece, wanted.get(piece.part)):
                spare.setdefault(piece.part, []).append((fact, piece))
    for part, pieces in spare.items():
        yield _spare(wanted.get(part), part, pieces, ruler)
    for cut in cuts:
        done = [fact for plan in plans if cut.stock in plan.stocks for fact in plan.done]
        more = done_of(cut.part.key, cut.part.width_mm, cut.part.height_mm, done) - cut.part.count
        if more > 0:
            yield _too_many(cut, more)


def fits(fact: CutSheet, piece: CutPiece, cut: StockCut | None) -> bool:
    """Whether pieces that were cut go into the book as it is now, as far as their size and material say."""
    return cut is not None and is_of(fact, cut.stock) and piece.is_as(cut.part.width_mm, cut.part.height_mm)


def _spare(
    cut: StockCut | None, part: str, pieces: Sequence[tuple[CutSheet, CutPiece]], ruler: Ruler
) -> Check:
    fact = pieces[0][0]
    count = sum(piece.count * fact.sheet.times for fact, piece in pieces)
    name = dict(fact.names)[part]
    sizes = joined(dict.fromkeys(ruler.size(*piece.own_size) for _, piece in pieces))
    was = f"{count} × {name} {by_count(count, 'was', 'were')} cut as {sizes}"
    if cut is None:
        told, now = f"{was}; this book has none of that name now.", ""
    elif all(not is_of(fact, cut.stock) for fact, _ in pieces):
        told, now = f"{was} from {fact.material}; the book takes {cut.stock.name} now.", ""
    else:
        size = ruler.size(cut.part.width_mm, cut.part.height_mm)
        told = f"{was}; {size} is needed now."
        larger = all(
            piece.own_size[0] >= cut.part.width_mm and piece.own_size[1] >= cut.part.height_mm
            for _, piece in pieces
        )
        now = " Each is large enough to be trimmed." if larger else ""
    return Check(
        code="cut_otherwise",
        of=part,
        level="watch",
        title=told,
        why=f"What is cut stays as it was cut.{now} The plan counts other pieces for the book.",
        no_fix="Go back to the size that was cut, or lay the pieces among your offcuts under Cutting: the "
        "next plan takes from them.",
    )


def _too_many(cut: StockCut, more: int) -> Check:
    return Check(
        code="cut_otherwise",
        of=cut.part.key,
        level="note",
        title=f"{many(more, 'piece')} more of the {cut.part.name} {by_count(more, 'was', 'were')} cut than "
        "the book takes now.",
        why="They were cut when the book took more of them. Keep them for a spare.",
        no_fix="Nothing to do; or take more books or pages again.",
    )


def turned_by_hand(
    cuts: Sequence[StockCut], plans: Sequence[StockPlan], pins: Sequence[PinnedSheet]
) -> Iterator[Check]:
    """B7 and B10 of pieces that the maker turned on a pinned sheet, against their grain or their pattern."""
    for cut in cuts:
        matters = cut.stock.upright_only or (cut.better.with_grain is not None and not cut.free)
        found = [
            sheet
            for plan in plans
            for sheet in plan.sheets
            if matters and sheet.pinned
            if any(_is_turned(piece, cut) for piece in sheet.pieces)
        ]
        if not found:
            continue
        keys = {sheet.key for sheet in found}
        count = sum(
            piece.count * sheet.times for sheet in found for piece in sheet.pieces if _is_turned(piece, cut)
        )
        pattern = cut.stock.upright_only
        comes = "the pattern lies sideways" if pattern else "the grain runs across them"
        lies = by_count(count, "lies", "lie")
        rest = [pin.model_dump() for pin in pins if key_of(pin) not in keys]
        yield Check(
            code="B10" if pattern else "B7",
            of=cut.part.key,
            level="watch",
            title=f"{count} × {cut.part.name} {lies} the other way round than the rest: {comes} there.",
            why="You turned "
            + by_count(count, "it", "them")
            + " on a pinned sheet. Pieces of one book whose grain runs two ways warp against each other.",
            offers=(Offer(label="plan that sheet anew", changes=(("cutting.pins", rest),)),),
        )


def _is_turned(piece: CutPiece, cut: StockCut) -> bool:
    return piece.part == cut.part.key and piece.turned != cut.better.turned


def lost_pins(pins: Sequence[PinnedSheet], plans: Sequence[StockPlan]) -> Iterator[Check]:
    """Pins that hold nothing any more; those whose sheets were cut are done with."""
    held = {sheet.key for plan in plans for sheet in plan.sheets if sheet.pinned}
    cut = {fact.sheet.pieces for plan in plans for fact in plan.done}
    lost = [pin for pin in pins if key_of(pin) not in held and pieces_of(pin) not in cut]
    if lost:
        yield Check(
            code="pin",
            level="note",
            title=f"{many(len(lost), 'pinned sheet')} {by_count(len(lost), 'is', 'are')} planned anew: the "
            "pieces or the sheet are others now.",
            why="A sheet stays pinned as long as the book takes every piece on it, in that size.",
            offers=(Offer(label="pin none of them", changes=(("cutting.pins", []),)),),
        )
