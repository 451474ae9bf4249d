"""Sheets that were cut: facts beside the books, which no undo takes back. Plans that were made better."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "cut_sheets",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("book_id", sa.Integer(), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("cut_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["book_id"], ["books.id"], name="fk_cut_sheets_book_id_books", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_cut_sheets"),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_cut_sheets_book_id", "cut_sheets", ["book_id"])
    op.create_table(
        "packings",
        sa.Column("key", sa.String(40), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("rounds", sa.Integer(), nullable=False),
        sa.Column("done", sa.Boolean(), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("key", name="pk_packings"),
    )


def downgrade() -> None:
    op.drop_table("packings")
    op.drop_table("cut_sheets")
