"""The repository of the shelf's papers."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from pleat.core.book import Paper
from pleat.store.models import PaperRow


def add(session: Session, paper: Paper) -> int:
    """Put a paper on the shelf; its id."""
    row = PaperRow(name=paper.name, document=paper.model_copy(update={"stock_id": None}).model_dump_json())
    session.add(row)
    session.flush()
    return row.id


def listing(session: Session) -> dict[int, Paper]:
    """All papers by id, by name."""
    rows = session.scalars(select(PaperRow).order_by(PaperRow.name, PaperRow.id)).all()
    return {row.id: _paper(row) for row in rows}


def load(session: Session, paper_id: int) -> Paper | None:
    """The paper of that id with its ``stock_id`` set, or None."""
    row = session.get(PaperRow, paper_id)
    return _paper(row) if row else None


def _paper(row: PaperRow) -> Paper:
    return Paper.model_validate_json(row.document).model_copy(update={"stock_id": str(row.id)})
