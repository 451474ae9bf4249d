"""The repository of the materials: items of every kind, what books took from them, and finding among
thousands."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from typing import Final

from sqlalchemy import ColumnElement, Row, and_, delete, func, insert, or_, select
from sqlalchemy.orm import Session

from pleat.core.base.errors import PleatError
from pleat.core.materials.facts import facts
from pleat.core.materials.items import KINDS, Board, Item, Material, Paper
from pleat.core.materials.uses import SheetFacts
from pleat.store.models import ItemRow, TakingRow, is_id

SORTS: Final = {
    "name": (ItemRow.name.collate("NOCASE"), ItemRow.id),
    "thin first": (ItemRow.thickness_mm.is_(None), ItemRow.thickness_mm, ItemRow.id),
    "thick first": (ItemRow.thickness_mm.desc(), ItemRow.id),
    "large first": ((ItemRow.width_mm * ItemRow.height_mm).desc(), ItemRow.id),
    "few left first": (ItemRow.owned.is_(None), ItemRow.owned, ItemRow.id),
    "newest change": (ItemRow.changed_at.desc(), ItemRow.id.desc()),
}
"""The orders the materials can be shown in, by their words."""


class NoSuchItem(PleatError):
    """There is no item of that id."""


@dataclass(frozen=True)
class StoredItem:
    """An item as stored; ``gone`` when it was taken away and can be put back."""

    id: int
    kind: str
    item: Item
    changed_at: datetime
    gone: bool
    version: int = 1


class ItemChanged(PleatError):
    """An item was changed since the page it is edited on was made; ``fields`` are those both changed,
    ``made_at`` says when."""

    def __init__(self, fields: tuple[str, ...], made_at: datetime) -> None:
        self.fields = fields
        self.made_at = made_at
        super().__init__(f"changed meanwhile: {', '.join(fields)}")


def columns_of(item: Item, now: datetime) -> dict[str, object]:
    """What a row holds of an item; worked out apart from writing where there are many."""
    about = asdict(facts(item))
    uses = about.pop("uses")
    document = (
        item.model_copy(update={"stock_id": None}) if isinstance(item, Paper) else item
    ).model_dump_json()
    return {
        **about,
        "uses": "".join(f",{use}" for use in uses) + ("," if uses else ""),
        "name": item.name,
        "document": document,
        "changed_at": now,
    }


def add(session: Session, item: Item, now: datetime) -> int:
    """Add an item; its id."""
    row = ItemRow(**columns_of(item, now))
    session.add(row)
    session.flush()
    return row.id


def insert_columns(session: Session, rows: Sequence[dict[str, object]]) -> None:
    """Add items in one statement, by what ``columns_of`` made of them."""
    if rows:
        session.execute(insert(ItemRow), [{**row, "gone_at": None, "version": 1} for row in rows])


def change(session: Session, item_id: int, item: Item, now: datetime) -> None:
    """Replace an item. Raises NoSuchItem."""
    row = _row(session, item_id)
    for name, value in columns_of(item, now).items():
        setattr(row, name, value)
    row.version += 1


def load(session: Session, item_id: int) -> StoredItem:
    """The item of that id, among the materials or taken off it. Raises NoSuchItem."""
    return _stored(_row(session, item_id))


def find_paper(session: Session, item_id: int) -> Paper | None:
    """The paper of that id with its ``stock_id`` set; None when it is not there or not a paper."""
    found = find_material(session, item_id)
    return found if isinstance(found, Paper) else None


def find_material(session: Session, item_id: int) -> Material | None:
    """What pieces can be cut from, by its id, with its ``stock_id`` set; None when it is not there or
    something else."""
    row = session.get(ItemRow, item_id) if is_id(item_id) else None
    if row is None or row.gone_at is not None:
        return None
    item = _stored(row).item
    return item.model_copy(update={"stock_id": str(row.id)}) if isinstance(item, Material) else None


def owned_of(session: Session, item_ids: Iterable[int]) -> dict[int, int | None]:
    """How many are left of each item that is still there."""
    wanted = list(item_ids)
    rows = session.execute(
        select(ItemRow.id, ItemRow.owned).where(ItemRow.id.in_(wanted), ItemRow.gone_at.is_(None))
    )
    return {row.id: row.owned for row in rows}


def set_owned(session: Session, item_id: int, owned: int, now: datetime) -> None:
    row = _row(session, item_id)
    item = KINDS[row.kind].model.model_validate_json(row.document)
    change(session, item_id, item.model_copy(update={"owned": owned}), now)


def set_gone(session: Session, item_id: int, gone_at: datetime | None) -> None:
    """Take an item away, or put it back with None. Raises NoSuchItem."""
    row = _row(session, item_id)
    row.gone_at = gone_at
    row.version += 1


def listing(
    session: Session, search: str, kind: str, use: str, sort: str, *, page: int = 1, per_page: int
) -> list[StoredItem]:
    """One page of items; each word of ``search`` must be found. Unknown kinds, uses and sorts mean any."""
    where = _where(search, kind, use)
    order = SORTS.get(sort, SORTS["name"])
    rows = session.scalars(
        select(ItemRow).where(*where).order_by(*order).offset((page - 1) * per_page).limit(per_page)
    ).all()
    return [_stored(row) for row in rows]


def count_by_kind(session: Session, search: str = "", use: str = "") -> dict[str, int]:
    """How many items of each kind match."""
    rows = session.execute(
        select(ItemRow.kind, func.count().label("many"))
        .where(*_where(search, "", use))
        .group_by(ItemRow.kind)
    )
    return {row.kind: row.many for row in rows}


def sheets(session: Session, short_mm: float, long_mm: float) -> list[SheetFacts]:
    """Papers whose sheet is at least so large, either way round, as far as what they give needs them."""
    fits = or_(
        and_(ItemRow.width_mm >= short_mm, ItemRow.height_mm >= long_mm),
        and_(ItemRow.width_mm >= long_mm, ItemRow.height_mm >= short_mm),
    )
    rows = session.execute(
        select(
            ItemRow.id,
            ItemRow.name,
            ItemRow.width_mm,
            ItemRow.height_mm,
            ItemRow.grain,
            ItemRow.owned,
            ItemRow.upright_only,
            ItemRow.thickness_mm,
        ).where(ItemRow.gone_at.is_(None), ItemRow.kind == "paper", fits)
    )
    return [SheetFacts(*row) for row in rows]  # type: ignore[arg-type]  # papers have a width and a height


def of_kind(session: Session, kind: str) -> list[StoredItem]:
    """Every item of a kind, by name."""
    return of_kinds(session, (kind,))


def of_kinds(session: Session, kinds: Collection[str], at_least_mm: float = 0.0) -> list[StoredItem]:
    """Every item of some kinds, by name; only those of a thickness where that is asked for."""
    thick = (ItemRow.thickness_mm >= at_least_mm,) if at_least_mm else ()
    where = (ItemRow.kind.in_(kinds), ItemRow.gone_at.is_(None), *thick)
    rows = session.scalars(select(ItemRow).where(*where).order_by(ItemRow.name, ItemRow.id))
    return [_stored(row) for row in rows]


def of_known_thickness(session: Session, kind: str, search: str, most: int) -> tuple[list[StoredItem], int]:
    """(the first items of a kind by name that say how thick they are and hold each word of ``search``, how
    many there are)."""
    where = (*_where(search, kind, ""), ItemRow.thickness_mm.is_not(None))
    rows = session.scalars(
        select(ItemRow).where(*where).order_by(ItemRow.name.collate("NOCASE"), ItemRow.id).limit(most)
    )
    return [_stored(row) for row in rows], session.scalar(
        select(func.count()).select_from(ItemRow).where(*where)
    ) or 0


def everything(session: Session) -> Sequence[StoredItem]:
    """All materials, in the order it was filled."""
    return [
        _stored(row)
        for row in session.execute(select(*_STORED).where(ItemRow.gone_at.is_(None)).order_by(ItemRow.id))
    ]


def load_many(session: Session, item_ids: Iterable[int]) -> dict[int, StoredItem]:
    wanted = list(item_ids)
    return (
        {row.id: _stored(row) for row in session.scalars(select(ItemRow).where(ItemRow.id.in_(wanted)))}
        if wanted
        else {}
    )


def takings(session: Session, book_id: int) -> dict[str, list[tuple[int, int]]]:
    """By bench step: (item, amount) of what it took from the materials, below 0 what it brought."""
    found: dict[str, list[tuple[int, int]]] = {}
    for row in session.scalars(select(TakingRow).where(TakingRow.book_id == book_id).order_by(TakingRow.id)):
        found.setdefault(row.step, []).append((row.item_id, row.amount))
    return found


def record_takings(session: Session, book_id: int, step: str, amounts: Iterable[tuple[int, int]]) -> None:
    for item_id, amount in amounts:
        session.add(TakingRow(book_id=book_id, step=step, item_id=item_id, amount=amount))


def forget_takings(session: Session, book_id: int, step: str) -> None:
    session.execute(delete(TakingRow).where(TakingRow.book_id == book_id, TakingRow.step == step))


def same_offcut(session: Session, piece: Paper | Board) -> int | None:
    """The id of an offcut among the materials of that name and size, to which more can be laid."""
    return session.scalar(
        select(ItemRow.id).where(
            ItemRow.kind == ("paper" if isinstance(piece, Paper) else "board"),
            ItemRow.name == piece.name,
            ItemRow.gone_at.is_(None),
            func.abs(ItemRow.width_mm - piece.sheet_width_mm) < 0.05,
            func.abs(ItemRow.height_mm - piece.sheet_height_mm) < 0.05,
        )
    )


def named(session: Session, names: Collection[str]) -> list[StoredItem]:
    """What pieces can be cut from of those names, in the order it was filled."""
    where = (
        ItemRow.gone_at.is_(None),
        ItemRow.kind.in_(("paper", "board", "cloth")),
        ItemRow.name.in_(names),
    )
    if not names:
        return []
    return [_stored(row) for row in session.execute(select(*_STORED).where(*where).order_by(ItemRow.id))]


def by_name(session: Session) -> dict[tuple[str, str], list[StoredItem]]:
    """Every item by its kind and name."""
    found: dict[tuple[str, str], list[StoredItem]] = {}
    for stored in everything(session):
        found.setdefault((stored.kind, stored.item.name), []).append(stored)
    return found


def _where(search: str, kind: str, use: str) -> list[ColumnElement[bool]]:
    where: list[ColumnElement[bool]] = [ItemRow.gone_at.is_(None)]
    where += [
        func.instr(ItemRow.words, word) > 0 for word in search.lower().split()[:8]
    ]  # both are lower case; LIKE is three times as slow
    if kind in KINDS:
        where.append(ItemRow.kind == kind)
    if use:
        where.append(ItemRow.uses.contains(f",{use},", autoescape=True))
    return where


def _row(session: Session, item_id: int) -> ItemRow:
    row = session.get(ItemRow, item_id) if is_id(item_id) else None
    if row is None:
        raise NoSuchItem(item_id)
    return row


_STORED: Final = (
    ItemRow.id,
    ItemRow.kind,
    ItemRow.document,
    ItemRow.changed_at,
    ItemRow.gone_at,
    ItemRow.version,
)


def _stored(row: ItemRow | Row[int, str, str, datetime, datetime | None, int]) -> StoredItem:
    return StoredItem(
        row.id,
        row.kind,
        KINDS[row.kind].model.model_validate_json(row.document),
        row.changed_at,
        row.gone_at is not None,
        row.version,
    )
