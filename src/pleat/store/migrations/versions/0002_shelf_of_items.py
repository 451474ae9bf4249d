"""The shelf holds items of every kind; papers keep their ids. A table for what bench steps took from it."""

import json
from datetime import UTC, datetime
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

_ITEM_COLUMNS: tuple[sa.Column[Any], ...] = (
    sa.Column("id", sa.Integer(), nullable=False),
    sa.Column("kind", sa.String(20), nullable=False),
    sa.Column("name", sa.String(60), nullable=False),
    sa.Column("words", sa.Text(), nullable=False),
    sa.Column("width_mm", sa.Float(), nullable=True),
    sa.Column("height_mm", sa.Float(), nullable=True),
    sa.Column("thickness_mm", sa.Float(), nullable=True),
    sa.Column("grain", sa.String(1), nullable=True),
    sa.Column("owned", sa.Integer(), nullable=True),
    sa.Column("upright_only", sa.Boolean(), nullable=False),
    sa.Column("uses", sa.String(60), nullable=False),
    sa.Column("document", sa.Text(), nullable=False),
    sa.Column("changed_at", sa.DateTime(), nullable=False),
    sa.Column("gone_at", sa.DateTime(), nullable=True),
)


def upgrade() -> None:
    items = op.create_table(
        "items",
        *_ITEM_COLUMNS,
        sa.CheckConstraint("length(name) > 0", name="ck_items_named"),
        sa.PrimaryKeyConstraint("id", name="pk_items"),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_items_gone_kind_name", "items", ["gone_at", "kind", "name"])
    op.create_table(
        "takings",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("book_id", sa.Integer(), nullable=False),
        sa.Column("step", sa.String(40), nullable=False),
        sa.Column("item_id", sa.Integer(), nullable=False),
        sa.Column("amount", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["book_id"], ["books.id"], name="fk_takings_book_id_books", ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["item_id"], ["items.id"], name="fk_takings_item_id_items", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_takings"),
    )
    op.create_index("ix_takings_book_id", "takings", ["book_id"])
    op.create_index("ix_takings_item_id", "takings", ["item_id"])
    op.bulk_insert(
        items,
        [
            _item(*row)
            for row in op.get_bind().execute(sa.text("SELECT id, name, document FROM papers ORDER BY id"))
        ],
    )
    op.drop_table("papers")


def _item(id_: int, name: str, document: str) -> dict[str, object]:
    """A paper of the old table; what it is searched by is worked out as it was when this migration was
    written."""
    paper = json.loads(document)
    measured = paper.pop("measured_mm", None)
    paper["readings_mm"] = [] if measured is None else [measured]
    width, height, grain = paper["sheet_width_mm"], paper["sheet_height_mm"], paper.get("grain", "unknown")
    sheets = paper.get("measured_sheets", 10)
    weighed = paper.get("grammage")
    thick = measured / sheets if measured else weighed * 1.25 / 1000 if weighed else None
    return {
        "id": id_,
        "kind": "paper",
        "name": name,
        "words": f"{name} paper {paper.get('kind', '')} {paper.get('swatch', '')}".lower(),
        "width_mm": width,
        "height_mm": height,
        "thickness_mm": thick,
        "grain": None if grain == "unknown" else "h" if (height >= width) == (grain == "long") else "w",
        "owned": paper.get("owned"),
        "upright_only": False,
        "uses": "",
        "document": json.dumps(paper, ensure_ascii=False),
        "changed_at": datetime.now(UTC).replace(tzinfo=None),
        "gone_at": None,
    }


def downgrade() -> None:
    raise NotImplementedError(
        "items of other kinds than papers would be lost; restore the file from before instead"
    )
