"""Steps of a migration. Each is its own, and one that was made already is no step: MariaDB takes
no change of a table back, so what a killed start left half way goes on where it stopped."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import sqlalchemy as sa
from alembic import op


def create_table(name: str, *parts: Any, **more: Any) -> None:
    """Make a table unless it is there."""
    op.create_table(name, *parts, if_not_exists=True, **more)


def add_column(table: str, column: sa.Column[Any], before: str | None = None) -> None:
    """Add a column unless it is there.

    Args:
        before: what a row of before has in it, for a column that is never empty.
    """
    if before is not None:
        column.server_default = sa.DefaultClause(before)
    op.add_column(table, column, if_not_exists=True)
    if before is not None:
        op.alter_column(
            table,
            column.name,
            existing_type=column.type,
            existing_nullable=column.nullable,
            server_default=None,
        )


def create_foreign_key(name: str, table: str, to: str, columns: Sequence[str], of: Sequence[str]) -> None:
    """Add a foreign key unless one of this name is there."""
    if name not in {key["name"] for key in _looked_at().get_foreign_keys(table)}:
        op.create_foreign_key(name, table, to, list(columns), list(of))


def create_unique_constraint(name: str, table: str, columns: Sequence[str]) -> None:
    """Add a unique key unless one of this name is there."""
    if name not in {key["name"] for key in _looked_at().get_unique_constraints(table)}:
        op.create_unique_constraint(name, table, list(columns))


def drop_unique_constraint(name: str, table: str) -> None:
    """Take a unique key away unless it is gone."""
    if name in {key["name"] for key in _looked_at().get_unique_constraints(table)}:
        op.drop_constraint(name, table, type_="unique")


def _looked_at() -> sa.Inspector:
    return sa.inspect(op.get_bind())
