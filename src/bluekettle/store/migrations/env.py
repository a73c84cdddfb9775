"""Alembic's entry: runs on the connection that `store.engine.migrate` hands over."""

from alembic import context
from sqlmodel import SQLModel

import bluekettle.store.tables  # noqa: F401  (fills the metadata)

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=SQLModel.metadata,
    render_as_batch=True,
)
with context.begin_transaction():
    context.run_migrations()
