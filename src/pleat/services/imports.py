"""Taking a table among the materials: read in the background, shown row by row, written in one transaction
once agreed, or not at all."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager
from dataclasses import dataclass, field
from functools import cache
from typing import Final, Literal

from sqlalchemy.orm import Session

from pleat.core.base.fields import LengthRule, rule_on
from pleat.core.materials.items import KINDS, Item, kind_of
from pleat.core.materials.table import KindMissing, TableRow, read_table
from pleat.services.clock import now
from pleat.services.jobs import Job, Jobs
from pleat.store import items as store

Action = Literal["new", "change", "same", "not"]
MOST_JOBS: Final = 6
"""Tables waiting for a word from the maker; with more, the oldest is forgotten."""
_BREATH: Final = 40
"""Rows after which the reader lets other requests run."""


@dataclass(frozen=True)
class ImportEntry:
    """What would become of a row: put among the materials, change the item of that name, nothing new, or not
    taken and why.

    ``version`` is that of the item as it was when the row was held against it.
    """

    row: TableRow
    action: Action
    item_id: int | None
    why: str
    version: int = 0


@dataclass(kw_only=True)
class Table(Job):
    """A table on its way. ``state`` goes from "reading" to "ready", then "writing" to "done"; "failed" says
    why in ``error``.

    One that does not say what its rows are is "asking", and keeps its ``data`` meanwhile.
    """

    name: str
    data: bytes = b""
    entries: list[ImportEntry] = field(default_factory=list)
    unknown: list[str] = field(default_factory=list)
    told: str = ""

    def count(self, action: Action) -> int:
        return sum(entry.action == action for entry in self.entries)


class Imports:
    """The tables being taken in by one process; ``writing`` and ``reading`` open a session in a
    transaction."""

    def __init__(
        self,
        reading: Callable[[], AbstractContextManager[Session]],
        writing: Callable[[], AbstractContextManager[Session]],
    ) -> None:
        self._reading, self._writing = reading, writing
        self._jobs: Jobs[Table] = Jobs("import", MOST_JOBS)
        self.find, self.forget = self._jobs.find, self._jobs.forget

    def start(self, name: str, data: bytes) -> Table:
        """Begin to read a table, or to ask what it is of. Raises BadTable at once when there is none in the
        file."""
        job = Table(name=name, total=max(1, data.count(b"\n")))
        try:
            job.unknown, rows = read_table(data)
            self._begin(job, rows)
        except KindMissing:
            job.state, job.data = "asking", data
        return self._jobs.keep(job)

    def say(self, job: Table, kind: str) -> None:
        """Begin to read a table whose rows are all of one kind, which its maker has said by now."""
        if job.state == "asking" and kind in KINDS:
            job.unknown, rows = read_table(job.data, kind)
            job.data = b""
            self._begin(job, rows)

    def _begin(self, job: Table, rows: Iterator[TableRow]) -> None:
        job.state = "reading"
        self._jobs.run(job, lambda job: self._read(job, rows))

    def agree(self, job: Table) -> None:
        """Write what the preview showed; a second word changes nothing."""
        if job.state == "ready":
            job.told = ""
            job.state, job.done, job.total = "writing", 0, max(1, len(job.entries))
            self._jobs.run(job, self._write)

    def _read(self, job: Table, rows: Iterator[TableRow]) -> None:
        read = []
        for row in rows:
            read.append(row)
            job.done += 1
            if job.done % _BREATH == 0:
                time.sleep(0.001)
        with self._reading() as session:
            there = store.by_name(session)
        job.entries = compared(read, there)
        job.state = "ready"

    def _write(self, job: Table) -> None:
        stamp, fresh, changed = now(), [], []
        for entry in job.entries:
            if entry.row.item is not None and entry.action == "new":
                fresh.append(store.columns_of(entry.row.item, stamp))
            elif entry.row.item is not None and entry.action == "change" and entry.item_id is not None:
                changed.append((entry.item_id, entry.row))
            job.done += 1
            if job.done % _BREATH == 0:
                time.sleep(0.001)
        with self._writing() as session:
            there = store.by_name(session)
            versions = {item.id: item.version for items in there.values() for item in items}
            if any(
                versions.get(entry.item_id) != entry.version
                for entry in job.entries
                if entry.item_id is not None
            ) or (
                any(
                    (entry.row.kind, entry.row.name) in there
                    for entry in job.entries
                    if entry.action == "new" and not entry.why
                )
            ):
                job.entries = compared([entry.row for entry in job.entries], there)
                job.told = (
                    "The materials were changed since this was shown. Nothing is written yet: look at "
                    "it once more."
                )
                job.state = "ready"
                return
            store.insert_columns(session, fresh)
            for item_id, row in changed:
                store.change(session, item_id, row.over(store.load(session, item_id).item), stamp)
        job.state = "done"


def compared(rows: list[TableRow], there: dict[tuple[str, str], list[store.StoredItem]]) -> list[ImportEntry]:
    """Each row held against the materials: an item of the same kind and name is the same one, unless there
    are several."""
    left = {key: list(items) for key, items in there.items()}
    entries = []
    for row in rows:
        if row.item is None:
            entries.append(ImportEntry(row, "not", None, " ".join(row.problems)))
            continue
        same_name = left.get((row.kind, row.item.name), [])
        equal = next(
            (
                stored_item
                for stored_item in same_name
                if _plain(stored_item.item) == _plain(row.over(stored_item.item))
            ),
            None,
        )
        if equal:
            same_name.remove(equal)
            entries.append(ImportEntry(row, "same", equal.id, "It is there already.", equal.version))
        elif len(same_name) == 1:
            one = same_name.pop()
            entries.append(
                ImportEntry(row, "change", one.id, _differences(one.item, row.over(one.item)), one.version)
            )
        elif same_name:
            entries.append(
                ImportEntry(
                    row,
                    "new",
                    None,
                    f"{len(same_name)} things of that name are there already; this becomes another.",
                )
            )
        else:
            entries.append(ImportEntry(row, "new", None, ""))
    return entries


def _plain(item: Item) -> dict[str, object]:
    """An item's fields for comparing: lengths to a hundredth of a millimetre, which no table and no ruler is
    finer than."""
    lengths = {name: rule for name, rule in _rules(type(item)).items() if isinstance(rule, LengthRule)}
    digits = {name: 4 if rule.fine else 2 for name, rule in lengths.items()}
    return {
        name: round(value, digits.get(name, 6)) if isinstance(value, float) else value
        for name, value in item.model_dump(exclude={"stock_id"}).items()
    }


@cache
def _rules(model: type[Item]) -> dict[str, object]:
    return {name: rule_on(field) for name, field in model.model_fields.items()}


def _differences(old: Item, new: Item) -> str:
    """``owned 120 → 90; price – → 0.06``."""
    if kind_of(old) != kind_of(new):
        return ""
    before, after = _plain(old), _plain(new)

    def shown(value: object) -> str:
        if value in (None, "", ()):
            return "–"
        if isinstance(value, tuple):
            return ", ".join(f"{one:g}" for one in value)
        return str(value)

    return "; ".join(
        f"{name.removesuffix('_mm').replace('_', ' ')} {shown(before[name])} → {shown(after[name])}"
        for name in after
        if before[name] != after[name]
    )
