"""Roofs of buildings, the margin kept in hand, what a site allows

Revision ID: 0002
Revises: 0001
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE

from heathrise.store.migrations import steps

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
        steps.add_column(table, sa.Column(name, kind, nullable=False), before)


def downgrade() -> None:
    for table, name, *_ in ADDED:
        op.drop_column(table, name)
