"""Pools of addresses by hand, and a limit for all of a network

Revision ID: 0022
Revises: 0021
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

from heathrise.store.migrations import steps

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("network", sa.Column("pool_first", sa.Integer(), nullable=True))
    steps.add_column("network", sa.Column("pool_last", sa.Integer(), nullable=True))
    steps.add_column("network", sa.Column("limit_all_mbps", mysql.DOUBLE(asdecimal=False), nullable=True))


def downgrade() -> None:
    for column in ("limit_all_mbps", "pool_last", "pool_first"):
        op.drop_column("network", column)
