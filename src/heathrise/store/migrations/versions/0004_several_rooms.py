"""Several equipment rooms: runs pinned to one, and the ways between them

Revision ID: 0004
Revises: 0003
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("run", sa.Column("equipment_room", sa.String(40), nullable=True))
    steps.create_foreign_key(
        "run_equipment_room", "run", "equipment_room", ["project_id", "equipment_room"], ["project_id", "id"]
    )
    steps.create_table(
        "uplink",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("room", sa.String(40), nullable=False),
        sa.Column("to", sa.String(40), nullable=False),
        sa.Column("medium", sa.String(40), nullable=True),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "room"], ["equipment_room.project_id", "equipment_room.id"]),
        sa.ForeignKeyConstraint(["project_id", "to"], ["equipment_room.project_id", "equipment_room.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("uplink")
    op.drop_constraint("run_equipment_room", "run", type_="foreignkey")
    op.drop_column("run", "equipment_room")
