"""What another thread from the materials would change in a book."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.materials.items import ThreadSpool
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.binding.thread import ThreadNeed, suits
from pleat.core.whole.planning import worked_out
from pleat.services import books
from pleat.services.books import Opened


@dataclass(frozen=True)
class Otherwise:
    """What another thread would change: what is cut of it, what it adds at the spine, and what is to be said
    of it here."""

    need: ThreadNeed
    swell: Estimate
    said: str


def with_thread(opened: Opened, item_id: int, spool: ThreadSpool) -> Otherwise | None:
    """The book sewn with a thread from the materials instead; None where nothing is sewn by hand."""
    if not isinstance(opened.plan.binding, SewnResult):
        return None
    result = worked_out(
        books.use_thread(opened.book, item_id, spool), opened.tools, opened.plan.untried
    ).binding
    assert isinstance(result, SewnResult)
    fold = max((row.fold_mm for row in result.sewing.bed.rows), default=0.0)
    return Otherwise(result.need, result.swell, suits(result.thread_diameter_mm, fold))
