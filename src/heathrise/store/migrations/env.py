"""Alembic's entry: runs on the connection that ``migrate`` hands over."""

from alembic import context

from heathrise.store.tables import metadata

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=metadata,
    transaction_per_migration=True,
)
with context.begin_transaction():
    context.run_migrations()
