"""Alembic's environment: run by `oblatus.store.migrate`, with the connection it is handed."""

from alembic import context
from sqlmodel import SQLModel

from oblatus.store import tables  # noqa: F401 (fills the metadata)

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=SQLModel.metadata, compare_type=True)
with context.begin_transaction():
    context.run_migrations()
