"""Places on the land that are to be reached

Revision ID: 0024
Revises: 0023
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

from heathrise.store.migrations import steps

revision = "0024"
down_revision = "0023"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.create_table(
        "far_point",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("what", sa.String(40), nullable=False),
        sa.Column("at", sa.JSON(), nullable=False),
        sa.Column("ground_m", mysql.DOUBLE(asdecimal=False), nullable=False),
        sa.Column("mast_m", mysql.DOUBLE(asdecimal=False), nullable=False),
        sa.Column("room", sa.String(40), nullable=True),
        sa.Column("room_mast_m", mysql.DOUBLE(asdecimal=False), nullable=False),
        sa.Column("clients", sa.Integer(), nullable=False),
        sa.Column("cameras", sa.Integer(), nullable=False),
        sa.Column("doors", sa.Integer(), nullable=False),
        sa.Column("sensors", sa.Integer(), nullable=False),
        sa.Column("mbps", mysql.DOUBLE(asdecimal=False), nullable=True),
        sa.Column("delay_ms", mysql.DOUBLE(asdecimal=False), nullable=True),
        sa.Column("years", sa.Integer(), nullable=False),
        sa.Column("power", sa.String(40), nullable=False),
        sa.Column("land", sa.String(40), nullable=False),
        sa.Column("services_known", sa.Boolean(), nullable=False),
        sa.Column("profile", sa.JSON(), nullable=False),
        sa.Column("trees", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "room"], ["equipment_room.project_id", "equipment_room.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("far_point")
