"""States of books are packed; which epoch the database is in, and which devices were let in."""

import secrets
from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

import sqlalchemy as sa
from alembic import op

from pleat.store.packing import packed, unpacked

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

_READ_AT_ONCE = 200


def upgrade() -> None:
    op.add_column("revisions", sa.Column("state", sa.LargeBinary(), nullable=True))
    _each("document", "state", packed)
    with op.batch_alter_table("revisions") as revisions:
        revisions.drop_column("document")
        revisions.alter_column("state", existing_type=sa.LargeBinary(), nullable=False)
    epochs = op.create_table(
        "epochs",
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("token", sa.String(32), nullable=False),
        sa.Column("begun_at", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("number", name="pk_epochs"),
        sqlite_autoincrement=True,
    )
    op.bulk_insert(
        epochs,
        [{"number": 1, "token": secrets.token_hex(8), "begun_at": datetime.now(UTC).replace(tzinfo=None)}],
    )
    op.create_table(
        "devices",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("address", sa.String(60), nullable=False),
        sa.Column("paired_at", sa.DateTime(), nullable=False),
        sa.Column("seen_at", sa.DateTime(), nullable=False),
        sa.Column("gone_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_devices"),
        sqlite_autoincrement=True,
    )


def downgrade() -> None:
    op.drop_table("devices")
    op.drop_table("epochs")
    op.add_column("revisions", sa.Column("document", sa.Text(), nullable=True))
    _each("state", "document", unpacked)
    with op.batch_alter_table("revisions") as revisions:
        revisions.drop_column("state")
        revisions.alter_column("document", existing_type=sa.Text(), nullable=False)


def _each(source: str, target: str, turned: Callable[[Any], bytes | str]) -> None:
    """Fill a column of every state from another one, a few at a time."""
    connection, last = op.get_bind(), (0, 0)
    read = sa.text(
        f"SELECT book_id, number, {source} FROM revisions WHERE (book_id, number) > (:book, :number) ORDER "
        "BY book_id, number LIMIT :most"
    )
    write = sa.text(f"UPDATE revisions SET {target} = :value WHERE book_id = :book AND number = :number")
    while rows := connection.execute(read, {"book": last[0], "number": last[1], "most": _READ_AT_ONCE}).all():
        connection.execute(
            write, [{"value": turned(row[2]), "book": row[0], "number": row[1]} for row in rows]
        )
        last = (rows[-1][0], rows[-1][1])
