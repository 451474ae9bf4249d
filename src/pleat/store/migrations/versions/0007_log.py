"""What happens while a book is made: rows beside it, which no undo takes back."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "log",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("book_id", sa.Integer(), nullable=False),
        sa.Column("step", sa.String(60), nullable=False),
        sa.Column("kind", sa.String(12), nullable=False),
        sa.Column("text", sa.Text(), nullable=False),
        sa.Column("picture", sa.LargeBinary(), nullable=True),
        sa.Column("strikes", sa.Integer(), nullable=True),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["book_id"], ["books.id"], name="fk_log_book_id_books", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name="pk_log"),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_log_book_id", "log", ["book_id"])


def downgrade() -> None:
    op.drop_table("log")
