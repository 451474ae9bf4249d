"""The materials: items in and out, what papers give a book, what the bench took, and the maker's tools."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Final, Literal

from pydantic import ValidationError
from sqlalchemy.orm import Session

from pleat.core.book import Book
from pleat.core.bookfile import problems_of
from pleat.core.cutting.offcuts import offcuts
from pleat.core.errors import BadBook, FieldProblem
from pleat.core.estimate import Estimate
from pleat.core.materials.editing import build, fields_of, text_of
from pleat.core.materials.items import KINDS, Item, Paper, ThreadSpool
from pleat.core.materials.thickness import thickness
from pleat.core.materials.thread import spool_diameter_mm
from pleat.core.materials.tools import Tools, tools_from
from pleat.core.materials.uses import USES_MM, Gives, fits_pattern, grain_axis, what_gives
from pleat.core.overview import Good
from pleat.core.paper.record import Papers
from pleat.core.plan import Part
from pleat.core.planning import Plan, make_plan
from pleat.core.units import MM_PER_INCH, RulerName
from pleat.core.words import many
from pleat.core.yields import both_ways
from pleat.services.clock import now
from pleat.store import items as store
from pleat.store.items import StoredItem

Role = Literal["leaf", "cover"]
Place = Literal["leaf", "cover", "pile"]
PER_PAGE: Final = 48
MOST_OFFERED: Final = 60
"""Papers a drawer offers at most; a search among the materials finds the others."""
STARTERS: Final = {
    -1: Paper(name="Copier paper, A4", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80),
    -2: Paper(
        name="Copier paper, letter", kind="copier", sheet_width_mm=8.5 * MM_PER_INCH, sheet_height_mm=11 * MM_PER_INCH, grammage=75.2
    ),
}
"""What a first book can be started from while nothing is among the materials."""


@dataclass(frozen=True)
class Wanted:
    """What is looked for among the materials."""

    search: str = ""
    kind: str = ""
    use: str = ""
    sort: str = "name"
    page: int = 1


@dataclass(frozen=True)
class PaperChoice:
    """A paper with what it would mean for a book: pieces a sheet gives, its thickness, whether the grain is right."""

    id: int
    paper: Paper
    caliper: Estimate
    gives: int
    with_grain: bool | None
    in_use: bool


def listing(session: Session, wanted: Wanted) -> tuple[list[StoredItem], int, dict[str, int]]:
    """(one page of items, how many there are, how many of each kind match)."""
    kinds = store.count_by_kind(session, wanted.search, wanted.use)
    count = kinds.get(wanted.kind, 0) if wanted.kind in KINDS else sum(kinds.values())
    found = store.listing(session, wanted.search, wanted.kind, wanted.use, wanted.sort, wanted.page, PER_PAGE) if count else []
    return found, count, kinds


def start(session: Session, kind: str, texts: Mapping[str, str], ruler: RulerName) -> int:
    """A new item from what was typed; its id. Raises BadBook naming each field, and then nothing is kept."""
    if kind not in KINDS:
        raise BadBook([FieldProblem("kind", "kind", kind, "There is no such kind of material.")])
    return store.add(session, build(kind, texts, ruler), now())


def edit(
    session: Session,
    item_id: int,
    texts: Mapping[str, str],
    ruler: RulerName,
    version: int | None = None,
    shown: Mapping[str, str] | None = None,
) -> StoredItem:
    """The item with fields set from typed texts.

    ``shown`` is what the fields held when the page was made, at ``version``: only what was typed over counts, so that a page
    of yesterday does not bring yesterday's count back. Without a version the texts are taken as they are. Raises NoSuchItem, BadBook, and
    ItemChanged where a field was changed here and elsewhere.
    """
    stored = store.load(session, item_id)
    fields = dict(texts)
    if shown is not None:
        fields = {name: text for name, text in texts.items() if text != shown.get(name)}
    if version is not None and version != stored.version:
        now_ = {name: text_of(stored.item, stored.kind, name, ruler) for name in fields if name in shown_fields(stored)}
        both = tuple(name for name, text in now_.items() if text not in ((shown or {}).get(name), fields[name]))
        if both or not 0 < version < stored.version:
            raise store.ItemChanged(both or tuple(fields), stored.changed_at)
    item = build(stored.kind, fields, ruler, stored.item)
    if item != stored.item:
        store.change(session, item_id, item, now())
    return store.load(session, item_id)


def shown_fields(stored: StoredItem) -> tuple[str, ...]:
    """The names of what an item's page shows."""
    extra = ("size", "weight") if stored.kind == "paper" else ()
    return (*fields_of(stored.kind), *extra)


def set_fields(session: Session, item_id: int, **values: object) -> StoredItem:
    """The item with fields set to values that were worked out, such as readings or the grain. Raises NoSuchItem, BadBook."""
    stored = store.load(session, item_id)
    try:
        item = KINDS[stored.kind].model.model_validate({**stored.item.model_dump(), **values})
    except ValidationError as error:
        raise BadBook(problems_of(error)) from error
    store.change(session, item_id, item, now())
    return replace(stored, item=item)


def copy(session: Session, item_id: int) -> int:
    """A second item like this one; its id. Raises NoSuchItem."""
    item = store.load(session, item_id).item
    return store.add(session, item.model_copy(update={"name": f"{item.name[:53]} (copy)"}), now())


def take_off(session: Session, item_id: int) -> str:
    """Take an item away; its name. It can be put back. Raises NoSuchItem."""
    store.set_gone(session, item_id, now())
    return store.load(session, item_id).item.name


def put_back(session: Session, item_id: int) -> None:
    store.set_gone(session, item_id, None)


def tools(session: Session) -> Tools:
    """What the maker's tools can do."""
    return tools_from(stored.item for stored in store.of_kind(session, "tool"))


# --- papers for books --------------------------------------------------------------------------------------


FIRST: Final = 5
"""Papers that a start offers before one looks for others."""


def suited(session: Session, leaf_width_mm: float, leaf_height_mm: float, search: str, taken: str = "") -> list[PaperChoice]:
    """The few papers that suit the leaves of a book of this size best, or those a search finds: with a thickness that drapes, that give
    something, with the grain, and the most of them. The one that was ``taken`` already stays among them.
    """
    found = store.listing(session, search, "paper", "", "name", 1, MOST_OFFERED)
    choices = []
    for stored in found:
        own = stored.item
        if not isinstance(own, Paper):
            continue
        thick = thickness(own).sheet
        sheet = grain_axis(own.sheet_width_mm, own.sheet_height_mm, own.grain)
        better, _ = both_ways(2 * leaf_width_mm, leaf_height_mm, own.sheet_width_mm, own.sheet_height_mm, sheet, fits_pattern(own))
        choices.append(PaperChoice(stored.id, own, thick, better.count, better.with_grain if better.count else None, False))
    if not choices and not search:
        choices = [PaperChoice(key, own, thickness(own).sheet, 1, None, False) for key, own in STARTERS.items()]
    low, high = USES_MM["leaves"]

    def fitness(one: PaperChoice) -> tuple[bool, bool, bool, int]:
        draped = low <= one.caliper.likely <= high
        return (not one.gives, not draped, one.with_grain is False, -(one.paper.owned or 0))

    choices.sort(key=fitness)
    if search:
        return choices
    return [*choices[:FIRST], *(one for one in choices[FIRST:] if str(one.id) == taken)]


def paper(session: Session, paper_id: int) -> Paper | None:
    """A paper by its id, one of the everyday ones too; None when it is not there."""
    return STARTERS.get(paper_id) or store.find_paper(session, paper_id)


def keep(session: Session, kept: Paper) -> int:
    """Put a copy of a book's paper among the materials; its id."""
    return store.add(session, kept, now())


def papers_for(session: Session, book: Book, role: Role) -> list[PaperChoice]:
    """Papers among the materials with what each gives this book: those that give something and with the grain first."""
    part = next((one for one in make_plan(book).parts if isinstance(one, Part) and one.stock == role), None)
    width, height = (part.width_mm, part.height_mm) if part else (2 * book.brief.leaf_width_mm, book.brief.leaf_height_mm)
    own = getattr(book.paper, role).stock_id
    found = []
    for sheet in store.sheets(session, 0, 0):
        better, _ = both_ways(width, height, sheet.width_mm, sheet.height_mm, sheet.grain, sheet.upright_only)
        found.append((better.count == 0, better.count > 0 and better.with_grain is False, sheet.name.lower(), sheet.key, better))
    found.sort(key=lambda row: row[:4])
    shown = found[:MOST_OFFERED]
    items = store.load_many(session, [row[3] for row in shown])
    choices = []
    for *_, key, better in shown:
        item = items[key].item
        assert isinstance(item, Paper)
        with_grain = better.with_grain if better.count else None
        choices.append(PaperChoice(key, item, thickness(item).sheet, better.count, with_grain, own == str(key)))
    return choices


def threads(session: Session) -> list[tuple[int, ThreadSpool]]:
    """The threads among the materials that say how thick they are."""
    found = [(stored.id, stored.item) for stored in store.of_kind(session, "thread") if isinstance(stored.item, ThreadSpool)]
    return [(item_id, spool) for item_id, spool in found if spool_diameter_mm(spool) is not None]


def goods(session: Session, plan: Plan) -> dict[str, Good]:
    """What the materials know of the things in a plan that are not papers, by the item that its pieces name."""
    wanted = {int(piece.stock) for piece in plan.parts if not isinstance(piece, Part) and piece.stock.isdecimal()}
    return {str(item_id): _good(stored.item) for item_id, stored in store.load_many(session, wanted).items()} if wanted else {}


def _good(item: Item) -> Good:
    left: float | None = getattr(item, "length_left_mm", None)
    return Good(getattr(item, "owned", None) if left is None else left, item.price)


def could_make(session: Session, leaf_width_mm: float, leaf_height_mm: float) -> list[Gives]:
    """The papers a book of this leaf size can be made from, folded once."""
    wide = 2 * leaf_width_mm
    return what_gives(
        store.sheets(session, min(wide, leaf_height_mm) - 0.05, max(wide, leaf_height_mm) - 0.05), leaf_width_mm, leaf_height_mm
    )


def cover_for(session: Session, leaf_width_mm: float, leaf_height_mm: float) -> Paper | None:
    """A cover paper from the materials for a leaf of this size, with its grain along the spine if possible; None where there is none."""
    found = store.listing(session, "", "paper", "cover", "thick first", 1, MOST_OFFERED)
    papers = [stored for stored in found if isinstance(stored.item, Paper)] or [
        stored for stored in store.listing(session, "", "paper", "", "thick first", 1, 1) if isinstance(stored.item, Paper)
    ]
    sheets = {sheet.key: sheet for sheet in store.sheets(session, 0, 0)}

    def fitness(stored: StoredItem) -> tuple[bool, bool, bool, bool]:
        sheet = sheets[stored.id]
        better, _ = both_ways(2 * leaf_width_mm + 10, leaf_height_mm + 6, sheet.width_mm, sheet.height_mm, sheet.grain, sheet.upright_only)
        item = stored.item
        assert isinstance(item, Paper)
        return (better.count > 0, better.with_grain is not False, item.kind == "cardstock", item.form != "offcut")

    return store.find_paper(session, max(papers, key=fitness).id) if papers else None


# --- the materials' counts and the bench ----------------------------------------------------------------------


def with_materials(session: Session, book_id: int, book: Book) -> tuple[Book, tuple[Place, ...]]:
    """The book with the sheets its papers have among the materials now, and where it has a paper that the materials have otherwise by now.

    What this book has cut already counts as there. A paper that was taken away stays as the book knows it, without the link.
    The sheets of a pile are counted alike.
    """
    linked = {int(paper.stock_id) for paper in book.paper.by_key().values() if paper.stock_id}
    if not linked:
        return book, ()
    there = {item_id: one for item_id in linked if (one := store.find_paper(session, item_id))}
    taken: dict[int, int] = {}
    for rows in store.takings(session, book_id).values() if book.bench.ticks else ():
        for item_id, amount in rows:
            taken[item_id] = taken.get(item_id, 0) + max(amount, 0)

    def counted(own: Paper) -> Paper:
        held = there.get(int(own.stock_id)) if own.stock_id else None
        if held is None:
            return own.model_copy(update={"stock_id": None}) if own.stock_id else own
        owned = None if held.owned is None else held.owned + taken.get(int(own.stock_id or 0), 0)
        return own if own.owned == owned else own.model_copy(update={"owned": owned})

    book = with_papers(book, counted)

    def known_otherwise(own: Paper) -> bool:
        held = there[int(own.stock_id)] if own.stock_id else own
        return held != own.model_copy(update={"owned": held.owned})

    roles: tuple[tuple[Place, Paper], ...] = (("leaf", book.paper.leaf), ("cover", book.paper.cover))
    otherwise = [role for role, own in roles if known_otherwise(own)]
    if any(known_otherwise(own) for own in book.paper.more.values()):
        otherwise.append("pile")
    return book, tuple(otherwise)


def as_known(session: Session, book: Book) -> Callable[[Book], Book]:
    """How to change a book so that every sheet of its pile is as the materials have it now; sheets that are not from the materials stay."""
    there = {own.stock_id: store.find_paper(session, int(own.stock_id)) for own in book.paper.more.values() if own.stock_id}

    def alter(now_: Book) -> Book:
        more = {key: there.get(own.stock_id or "") or own for key, own in now_.paper.more.items()}
        return now_.model_copy(update={"paper": now_.paper.model_copy(update={"more": more})})

    return alter


def tell(session: Session, own: Paper) -> str:
    """Let the materials know a paper as a book has it, readings and all, but for its count; its name. Raises BadBook."""
    if not own.stock_id or (there := store.find_paper(session, int(own.stock_id))) is None:
        raise BadBook([FieldProblem("", "paper", "", "That paper is no longer among the materials.")])
    store.change(session, int(own.stock_id), own.model_copy(update={"owned": there.owned}), now())
    return own.name


def relinked(session: Session, book: Book) -> tuple[Book, list[str]]:
    """A book from elsewhere with its papers linked to those of these materials that are the same; names of those that are not here."""
    here = {_known_as(stored.item): stored.id for stored in store.of_kind(session, "paper") if isinstance(stored.item, Paper)}
    lost: list[str] = []

    def link(own: Paper) -> Paper:
        if not own.stock_id:
            return own
        item_id = here.get(_known_as(own))
        if item_id is None and own.name not in lost:
            lost.append(own.name)
        return own.model_copy(update={"stock_id": None if item_id is None else str(item_id)})

    return with_papers(book, link), lost


def _known_as(paper: Paper) -> tuple[object, ...]:
    return (paper.name, round(paper.sheet_width_mm, 1), round(paper.sheet_height_mm, 1), paper.kind, paper.grammage)


def with_papers(book: Book, alter: Callable[[Paper], Paper]) -> Book:
    """The book with every one of its papers, for leaves and cover and of the pile, as ``alter`` makes it."""
    papers = Papers(
        leaf=alter(book.paper.leaf), cover=alter(book.paper.cover), more={key: alter(own) for key, own in book.paper.more.items()}
    )
    return book.model_copy(update={"paper": papers})


def settle(session: Session, book_id: int, before: Book, after: Book, plan: Plan) -> str:
    """Take what newly ticked cutting steps use from the materials and put their offcuts there; give back what unticked ones took.

    Returns what was moved, in words; "" for nothing.
    """
    if before.bench.ticks.keys() == after.bench.ticks.keys():
        return ""
    there = store.takings(session, book_id)
    said: list[str] = []
    for key, moved in there.items():
        if key not in after.bench.ticks:
            for item_id, amount in moved:
                _add(session, item_id, amount)
            store.forget_takings(session, book_id, key)
            said += _in_words(session, moved, back=True)
    own = after.paper.by_key()
    for step in (one.step for one in plan.bench.work if one.step.takes):
        if step.key in after.bench.ticks and step.key not in before.bench.ticks and step.key not in there:
            moved = [move for stock in step.takes for move in _take(session, own[stock], stock, plan)]
            store.record_takings(session, book_id, step.key, moved)
            said += _in_words(session, moved, back=False)
    return "; ".join(said)


def _in_words(session: Session, moved: list[tuple[int, int]], back: bool) -> list[str]:
    """``5 sheets of Log paper taken, 115 left``; offcuts count below 0."""
    items = store.load_many(session, [item_id for item_id, _ in moved])
    found = []
    for item_id, amount in moved:
        if not amount:
            continue
        name, left = items[item_id].item.name, getattr(items[item_id].item, "owned", None)
        if amount > 0:
            found.append(f"{many(amount, 'sheet')} of {name} {'given back' if back else 'taken'}, {left} there now")
        else:
            found.append(f"{-amount} of {name} {'taken away again' if back else 'put there'}")
    return found


def _take(session: Session, own: Paper, stock: str, plan: Plan) -> list[tuple[int, int]]:
    """What cutting the parts of one stock takes from its item, and the offcuts it brings: (item, amount) with offcuts below 0."""
    if not own.stock_id or store.find_paper(session, int(own.stock_id)) is None:
        return []
    item_id, moved = int(own.stock_id), []
    left = store.owned_of(session, [item_id]).get(item_id)
    if left is not None:
        amount = min(left, plan.cutting.takes.get(stock, 0))
        _add(session, item_id, -amount)
        moved.append((item_id, amount))
    for cut in plan.cutting.cuts:
        if cut.stock.key == stock:
            moved += [_lay_down(session, piece) for piece in offcuts(cut, own)]
    return moved


def _lay_down(session: Session, piece: Paper) -> tuple[int, int]:
    """An offcut among the materials, with others like it where there are some."""
    same = store.same_offcut(session, piece)
    if same is None:
        return store.add(session, piece, now()), -(piece.owned or 0)
    _add(session, same, piece.owned or 0)
    return same, -(piece.owned or 0)


def _add(session: Session, item_id: int, amount: int) -> None:
    """Change how many are left, never below none; an offcut of which none is left goes away again."""
    stored = store.load(session, item_id)
    left: int | None = getattr(stored.item, "owned", None)
    if left is None:
        return
    store.set_owned(session, item_id, max(0, left + amount), now())
    if isinstance(stored.item, Paper) and stored.item.form == "offcut":
        store.set_gone(session, item_id, None if left + amount > 0 else now())
