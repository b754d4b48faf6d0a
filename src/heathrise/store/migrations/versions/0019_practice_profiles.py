"""A project goes by a practice profile, of which a firm has several; fast transition can be by it

Revision ID: 0019
Revises: 0018
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None

# What nobody had to say by hand is by the purpose of the network from now on.
_BY_PURPOSE = (
    "UPDATE wireless_name AS w JOIN network AS n ON n.project_id = w.project_id AND n.id = w.network "
    "SET w.fast_transition = NULL WHERE w.fast_transition = (n.purpose <> 'devices')"
)
_SAID = (
    "UPDATE wireless_name AS w JOIN network AS n ON n.project_id = w.project_id AND n.id = w.network "
    "SET w.fast_transition = (n.purpose <> 'devices') WHERE w.fast_transition IS NULL"
)


def upgrade() -> None:
    op.alter_column("wireless_name", "fast_transition", existing_type=sa.Boolean(), nullable=True)
    op.execute(_BY_PURPOSE)
    steps.create_table(
        "practice",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("choices", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )
    steps.create_table(
        "firm_practice",
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("said", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("firm_practice")
    op.drop_table("practice")
    op.execute(_SAID)
    op.alter_column("wireless_name", "fast_transition", existing_type=sa.Boolean(), nullable=False)
