"""What was practised of each stitch, move by move."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "practice",
        sa.Column("stitch", sa.String(40), primary_key=True),
        sa.Column("spot", sa.String(200), primary_key=True),
        sa.Column("right", sa.Integer(), nullable=False, server_default="0"),
        sa.Column("wrong", sa.Integer(), nullable=False, server_default="0"),
    )


def downgrade() -> None:
    op.drop_table("practice")
