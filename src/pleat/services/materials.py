"""The materials: items in and out, and the maker's tools."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

from pydantic import ValidationError
from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.units import RulerName
from pleat.core.document.bookfile import problems_of
from pleat.core.materials.editing import build, fields_of, text_of
from pleat.core.materials.items import KINDS
from pleat.core.materials.tools import Tools, tools_from
from pleat.services.clock import now
from pleat.store import items as store
from pleat.store.items import StoredItem

PER_PAGE: Final = 48


@dataclass(frozen=True)
class Wanted:
    """What is looked for among the materials."""

    search: str = ""
    kind: str = ""
    use: str = ""
    sort: str = "name"
    page: int = 1


def listing(session: Session, wanted: Wanted) -> tuple[list[StoredItem], int, dict[str, int]]:
    """(one page of items, how many there are, how many of each kind match)."""
    kinds = store.count_by_kind(session, wanted.search, wanted.use)
    count = kinds.get(wanted.kind, 0) if wanted.kind in KINDS else sum(kinds.values())
    stored_items = (
        store.listing(
            session, wanted.search, wanted.kind, wanted.use, wanted.sort, page=wanted.page, per_page=PER_PAGE
        )
        if count
        else []
    )
    return stored_items, count, kinds


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

    ``shown`` is what the fields held when the page was made, at ``version``: only what was typed over counts,
    so that a page of yesterday does not bring yesterday's count back. Without a version the texts are taken
    as they are. Raises NoSuchItem, BadBook, and ItemChanged where a field was changed here and elsewhere.
    """
    stored = store.load(session, item_id)
    fields = dict(texts)
    if shown is not None:
        fields = {name: text for name, text in texts.items() if text != shown.get(name)}
    if version is not None and version != stored.version:
        now_ = {
            name: text_of(stored.item, stored.kind, name, ruler)
            for name in fields
            if name in shown_fields(stored)
        }
        both = tuple(
            name for name, text in now_.items() if text not in ((shown or {}).get(name), fields[name])
        )
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
    """The item with fields set to values that were worked out, such as readings or the grain. Raises
    NoSuchItem, BadBook."""
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
    """What the maker's tools can do, and what there is to hold a book with."""
    return tools_from(
        (str(stored.id), stored.item)
        for stored in store.of_kinds(session, ("tool", "hardware", "stick", "elastic"))
    )
