"""What the materials offer a book: papers, covers and threads that suit it, and what they know of other
things it takes."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Final

from sqlalchemy.orm import Session

from pleat.core.base.plan import Part
from pleat.core.base.units import MM_PER_INCH
from pleat.core.base.yields import Lay, both_ways
from pleat.core.document.book import Book
from pleat.core.materials.items import KINDS, Elastic, Item, Material, Paper, ThreadSpool, kind_of, known_as
from pleat.core.materials.thread import spool_diameter_mm
from pleat.core.materials.uses import Gives, SheetFacts, folio_on, what_gives
from pleat.core.pleats.paper.record import CAN_SERVE
from pleat.core.pleats.paper.stocks import Stock, stock_of
from pleat.core.trade.paper import USES_MM
from pleat.core.whole.overview import Good
from pleat.core.whole.planning import Plan, worked_out
from pleat.services.clock import now
from pleat.store import items as store
from pleat.store.items import StoredItem

MOST_OFFERED: Final = 60
"""Papers a drawer offers at most; a search among the materials finds the others."""
STARTERS: Final = {
    -1: Paper(name="Copier paper, A4", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80),
    -2: Paper(
        name="Copier paper, letter",
        kind="copier",
        sheet_width_mm=8.5 * MM_PER_INCH,
        sheet_height_mm=11 * MM_PER_INCH,
        grammage=75.2,
    ),
}
"""What a first book can be started from while nothing is among the materials."""


@dataclass(frozen=True)
class PaperChoice:
    """A material with what it would mean for a book: as a stock, pieces a sheet gives, whether the grain is
    right."""

    id: int
    paper: Material
    stock: Stock
    gives: int
    with_grain: bool | None
    in_use: bool


FIRST: Final = 5
"""Papers that a start offers before one looks for others."""


def suited(
    session: Session, leaf_width_mm: float, leaf_height_mm: float, search: str, taken: str = ""
) -> list[PaperChoice]:
    """The few papers that suit the leaves of a book of this size best, or those a search finds: with a
    thickness that drapes, that give something, with the grain, and the most of them. The one that was
    ``taken`` already stays among them.
    """
    sheets = store.sheets(session, 0, 0)
    if search:
        named = {
            stored.id for stored in store.listing(session, search, "paper", "", "name", per_page=MOST_OFFERED)
        }
        sheets = [sheet for sheet in sheets if sheet.key in named]
    elif not sheets:
        return [
            PaperChoice(key, starter, stock_of("leaf", starter), 1, None, False)
            for key, starter in STARTERS.items()
        ]
    low, high = USES_MM["leaves"]
    rated = []
    for sheet in sheets:
        better = folio_on(sheet, leaf_width_mm, leaf_height_mm)
        drapes = low <= (sheet.thickness_mm or 0) <= high
        rated.append(
            (
                not better.count,
                not drapes,
                better.with_grain is False,
                -(sheet.owned or 0),
                sheet.name.lower(),
                sheet.key,
                better,
            )
        )
    rated.sort(key=lambda row: row[:6])
    shown = (
        rated if search else [row for place, row in enumerate(rated) if place < FIRST or str(row[5]) == taken]
    )
    return _choices(session, [row[5:] for row in shown], "")


def _choices(session: Session, rated: Sequence[tuple[int, Lay]], own: str | None) -> list[PaperChoice]:
    """The papers of these ids with what a sheet gives; ``own`` is the one in use."""
    items = store.load_many(session, [key for key, _ in rated])
    choices = []
    for key, better in rated:
        item = items[key].item
        assert isinstance(item, Material)
        with_grain = better.with_grain if better.count else None
        choices.append(
            PaperChoice(key, item, stock_of("leaf", item), better.count, with_grain, own == str(key))
        )
    return choices


def paper(session: Session, paper_id: int) -> Paper | None:
    """A paper by its id, one of the everyday ones too; None when it is not there."""
    return STARTERS.get(paper_id) or store.find_paper(session, paper_id)


def material(session: Session, item_id: int) -> Material | None:
    """A paper, a board or a cloth by its id, one of the everyday papers too; None when it is not there."""
    return STARTERS.get(item_id) or store.find_material(session, item_id)


def keep(session: Session, kept: Material) -> int:
    """Put a copy of a book's material among the materials, where that is not among them yet; its id."""
    alike = (
        stored.id
        for stored in store.of_kind(session, kind_of(kept))
        if isinstance(stored.item, Material) and known_as(stored.item) == known_as(kept)
    )
    there = next(alike, None)
    return store.add(session, kept, now()) if there is None else there


def papers_for(session: Session, book: Book, role: str) -> list[PaperChoice]:
    """What the materials have for a role with what each gives this book: those that give something and with
    the grain first."""
    parts = [one for one in worked_out(book).parts if isinstance(one, Part) and one.stock == role]
    part = max(parts, key=lambda one: one.width_mm * one.height_mm, default=None)
    width, height = (
        (part.width_mm, part.height_mm) if part else (2 * book.brief.leaf_width_mm, book.brief.leaf_height_mm)
    )
    own = getattr(book.paper, role).stock_id
    found = []
    for sheet in _sheets(session, role):
        better, _ = both_ways(width, height, sheet.width_mm, sheet.height_mm, sheet.grain, sheet.upright_only)
        found.append(
            (
                better.count == 0,
                better.count > 0 and better.with_grain is False,
                sheet.name.lower(),
                sheet.key,
                better,
            )
        )
    found.sort(key=lambda row: row[:4])
    return _choices(session, [row[3:] for row in found[:MOST_OFFERED]], own)


FOUND: Final = ("board", "covering", "lining", "strip", "mat")
"""The roles that a new book takes from the materials by itself, beside its leaves and its cover card."""


def from_materials(session: Session, book: Book) -> Book:
    """The book with boards, covering and lining from the materials, where there are some that give its pieces
    with the grain the right way: cloth before paper for the covering, and linings that drape. What is not
    found stays as it is."""
    for role in worked_out(book).paper.roles:
        if role not in FOUND:
            continue
        fits = [
            choice
            for choice in papers_for(session, book, role)
            if choice.gives and choice.with_grain is not False
        ]
        if role in ("lining", "mat"):
            low, high = USES_MM["leaves"]
            fits = [
                fit
                for fit in fits
                if low <= fit.stock.caliper.likely <= high and (fit.stock.sides == 2 or role == "mat")
            ]
        best = min(
            fits,
            key=lambda choice: (
                role in ("covering", "strip") and not choice.stock.cloth,
                choice.with_grain is None,
            ),
            default=None,
        )
        found = store.find_material(session, best.id) if best else None
        if found is not None:
            book = book.model_copy(update={"paper": book.paper.model_copy(update={role: found})})
    return book


def _sheets(session: Session, role: str) -> list[SheetFacts]:
    """The sheets among the materials that can serve in a role, whatever kind they are."""
    kinds = [kind for kind in KINDS if KINDS[kind].model in CAN_SERVE[role]]
    sheets = store.sheets(session, 0, 0) if "paper" in kinds else []
    for stored in (
        stored_item for kind in kinds if kind != "paper" for stored_item in store.of_kind(session, kind)
    ):
        assert isinstance(stored.item, Material)
        stock = stock_of(role, stored.item)
        sheets.append(
            SheetFacts(
                stored.id,
                stock.name,
                stock.usable_width_mm,
                stock.usable_height_mm,
                stock.grain,
                stock.owned,
                stock.upright_only,
            )
        )
    return sheets


THREADS: Final = 30
"""Threads a drawer offers at most, since the book is worked out with each of them; its search finds the
others."""


def threads(session: Session, search: str = "") -> tuple[list[tuple[int, ThreadSpool]], int]:
    """(the first threads by name that a search finds, how many it finds); all of them say how thick they
    are."""
    rows, count = store.of_known_thickness(session, "thread", search, THREADS)
    return [(stored.id, stored.item) for stored in rows if isinstance(stored.item, ThreadSpool)], count


def thread(session: Session, item_id: int) -> ThreadSpool | None:
    """A thread by its id that says how thick it is; None when it is not there."""
    stored_item = store.load_many(session, [item_id]).get(item_id)
    spool = stored_item.item if stored_item and isinstance(stored_item.item, ThreadSpool) else None
    return spool if spool and spool_diameter_mm(spool) is not None else None


def goods(session: Session, plan: Plan) -> dict[str, Good]:
    """What the materials know of the things in a plan that are not papers, by the item that its pieces
    name."""
    stocks = {piece.stock for piece in plan.parts if not isinstance(piece, Part) and piece.stock}
    wanted = {int(stock) for stock in stocks if stock.isdecimal()}
    found = (
        {str(item_id): _good(stored.item) for item_id, stored in store.load_many(session, wanted).items()}
        if wanted
        else {}
    )
    sorts = {stock for stock in stocks if not stock.isdecimal()}
    return {**found, **(_by_sort(session, sorts) if sorts else {})}


CORD_MM: Final = 0.9
"""A thread this thick serves as a cord (house rule)."""


def _by_sort(session: Session, sorts: Collection[str]) -> dict[str, Good]:
    """What there is of a sort that a plan only names, such as magnets: all items of that sort together, at
    the price of the first."""
    there: dict[str, list[Good]] = {}
    cords = store.of_kinds(session, ("thread",), CORD_MM) if "cord" in sorts else []
    for stored in [*store.of_kinds(session, ("fastener", "elastic")), *cords]:
        item = stored.item
        if isinstance(item, ThreadSpool):
            named = {"cord"} if (spool_diameter_mm(item) or 0.0) >= CORD_MM else set()
        else:
            named = {str(getattr(item, "shape", "")), *({"elastic"} if isinstance(item, Elastic) else ())}
        for sort in named & set(sorts):
            there.setdefault(sort, []).append(_good(item))
    return {
        sort: Good(
            _together([good.owned for good in own]),
            next((good.price for good in own if good.price is not None), None),
        )
        for sort, own in there.items()
    }


def _together(owned: Sequence[float | None]) -> float | None:
    counted = [one for one in owned if one is not None]
    return sum(counted) if counted else None


def _good(item: Item) -> Good:
    left: float | None = getattr(item, "length_left_mm", None)
    return Good(getattr(item, "owned", None) if left is None else left, item.price)


def could_make(session: Session, leaf_width_mm: float, leaf_height_mm: float) -> list[Gives]:
    """The papers a book of this leaf size can be made from, folded once."""
    wide = 2 * leaf_width_mm
    return what_gives(
        store.sheets(session, min(wide, leaf_height_mm) - 0.05, max(wide, leaf_height_mm) - 0.05),
        leaf_width_mm,
        leaf_height_mm,
    )


def cover_for(session: Session, leaf_width_mm: float, leaf_height_mm: float) -> Paper | None:
    """A cover paper from the materials for a leaf of this size, with its grain along the spine if possible;
    None where there is none."""
    stored_items = store.listing(session, "", "paper", "cover", "thick first", per_page=MOST_OFFERED)
    papers = [stored for stored in stored_items if isinstance(stored.item, Paper)] or [
        stored
        for stored in store.listing(session, "", "paper", "", "thick first", per_page=1)
        if isinstance(stored.item, Paper)
    ]
    sheets = {sheet.key: sheet for sheet in store.sheets(session, 0, 0)}

    def fitness(stored: StoredItem) -> tuple[bool, bool, bool, bool]:
        sheet = sheets[stored.id]
        better, _ = both_ways(
            2 * leaf_width_mm + 10,
            leaf_height_mm + 6,
            sheet.width_mm,
            sheet.height_mm,
            sheet.grain,
            sheet.upright_only,
        )
        item = stored.item
        assert isinstance(item, Paper)
        return (
            better.count > 0,
            better.with_grain is not False,
            item.kind == "cardstock",
            item.form != "offcut",
        )

    return store.find_paper(session, max(papers, key=fitness).id) if papers else None
