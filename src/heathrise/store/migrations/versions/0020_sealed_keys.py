"""Keys of wireless names and accounts are kept, sealed; a subnet may be IPv6 in full

Revision ID: 0020
Revises: 0019
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

from heathrise.store.migrations import steps

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None

_SUBNETS = (("network", "subnet", False), ("site", "upstream_subnet", False))


def upgrade() -> None:
    for table, column, nullable in _SUBNETS:
        op.alter_column(
            table, column, existing_type=sa.String(18), type_=sa.String(43), existing_nullable=nullable
        )
    steps.create_table(
        "sealed_key",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("of", sa.String(120), nullable=False),
        sa.Column("token", sa.Text(), nullable=False),
        sa.Column("how", sa.String(40), nullable=False),
        sa.Column("bits", mysql.DOUBLE(asdecimal=False), nullable=False),
        sa.Column("made", mysql.DATETIME(fsp=6), nullable=False),
        sa.Column("author", sa.String(120), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "of"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("sealed_key")
    for table, column, nullable in _SUBNETS:
        op.alter_column(
            table, column, existing_type=sa.String(43), type_=sa.String(18), existing_nullable=nullable
        )
