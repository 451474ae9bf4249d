"""Items get a version and revisions a name; papers that came with the first schema get what they are good
for."""

import json

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None

_USES = (("leaves", 0.04, 0.22), ("pockets", 0.12, 0.38), ("cover", 0.2, 0.7))
"""Thickness in mm by use, as it was when this migration was written."""
_BULK = {"copier": 1.3, "drawing": 1.2, "cardstock": 1.25, "coated": 0.9, "watercolour": 1.7, "kraft": 1.5}


def upgrade() -> None:
    op.add_column("items", sa.Column("version", sa.Integer(), nullable=False, server_default="1"))
    op.add_column("revisions", sa.Column("name", sa.String(80), nullable=True))
    papers = (
        op.get_bind()
        .execute(sa.text("SELECT id, document, thickness_mm FROM items WHERE kind = 'paper' AND uses = ''"))
        .all()
    )
    for id_, document, known in papers:
        paper = json.loads(document)
        readings, grammage = paper.get("readings_mm") or [], paper.get("grammage")
        thick = known
        if readings:
            thick = sorted(readings)[len(readings) // 2] / paper.get("measured_sheets", 10)
        elif grammage:
            thick = grammage * _BULK.get(paper.get("kind", "other"), 1.35) / 1000
        uses = [use for use, low, high in _USES if thick and low <= thick <= high]
        if uses:
            op.get_bind().execute(
                sa.text("UPDATE items SET uses = :uses WHERE id = :id"),
                {"uses": "".join(f",{use}" for use in uses) + ",", "id": id_},
            )


def downgrade() -> None:
    op.drop_column("revisions", "name")
    op.drop_column("items", "version")
