"""Alembic's environment: all pending migrations in one transaction.

It runs on an engine with foreign keys off, since rebuilding a parent table with them on would cascade into
its children; that no row lost its parent is checked before anything is kept.
"""

from alembic import context

from pleat.store.models import Base

with context.config.attributes["engine"].begin() as connection:
    context.configure(
        connection=connection, target_metadata=Base.metadata, render_as_batch=True, transactional_ddl=True
    )
    context.run_migrations()
    broken = connection.exec_driver_sql("PRAGMA foreign_key_check").all()
    if broken:
        raise RuntimeError(f"the migration would leave rows without their parent: {broken[:5]}")
