"""Books with their revisions and changes, and the shelf of papers."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "books",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("title", sa.String(80), nullable=False),
        sa.Column("summary", sa.Text(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("head", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("changed_at", sa.DateTime(), nullable=False),
        sa.Column("binned_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_books"),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_books_binned_changed", "books", ["binned_at", "changed_at"])
    op.create_table(
        "revisions",
        sa.Column("book_id", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("label", sa.String(200), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["book_id"], ["books.id"], name="fk_revisions_book_id_books", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("book_id", "number", name="pk_revisions"),
    )
    op.create_table(
        "changes",
        sa.Column("book_id", sa.Integer(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("window", sa.String(40), nullable=False),
        sa.Column("label", sa.String(200), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["book_id"], ["books.id"], name="fk_changes_book_id_books", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("book_id", "version", name="pk_changes"),
    )
    op.create_table(
        "papers",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.CheckConstraint("length(name) > 0", name="ck_papers_named"),
        sa.PrimaryKeyConstraint("id", name="pk_papers"),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_papers_name", "papers", ["name"])


def downgrade() -> None:
    for table in ("papers", "changes", "revisions", "books"):
        op.drop_table(table)
