"""Roofs of buildings, the margin kept in hand, what a site allows

Revision ID: 0002
Revises: 0001
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

# What an element drawn before has: the default of its field.
ADDED = (
    ("building", "roof", sa.String(120), "roof-tiles"),
    ("site", "channels_149_up", sa.Boolean(), "0"),
    ("site", "margin_db", DOUBLE(asdecimal=False), "3"),
    ("site", "tight_bundles", sa.Boolean(), "0"),
)


def upgrade() -> None:
    for table, name, kind, before in ADDED:
        op.add_column(table, sa.Column(name, kind, nullable=False, server_default=before))
        op.alter_column(
            table, name, existing_type=kind, existing_nullable=False, server_default=None
        )


def downgrade() -> None:
    for table, name, *_ in ADDED:
        op.drop_column(table, name)
