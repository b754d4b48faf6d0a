"""Ports chosen by hand, devices plugged into others, runs that take the shortest
way or go by points, walls that keep fire back

Revision ID: 0015
Revises: 0014
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE

from heathrise.store.migrations import steps

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("wall", sa.Column("rated", sa.Boolean(), nullable=False), "0")
    steps.add_column("run", sa.Column("through", sa.String(40), nullable=True))
    steps.add_column("run", sa.Column("shortest", sa.Boolean(), nullable=False), "0")
    steps.create_foreign_key("run_through", "run", "device", ["project_id", "through"], ["project_id", "id"])
    steps.create_table(
        "port_pin",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("switch", sa.String(40), nullable=False),
        sa.Column("port", sa.Integer(), nullable=False),
        sa.Column("device", sa.String(40), nullable=False),
        sa.Column("cable", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "switch"], ["switch.project_id", "switch.id"]),
        sa.ForeignKeyConstraint(["project_id", "device"], ["device.project_id", "device.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )

    steps.create_table(
        "way_point",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("device", sa.String(40), nullable=False),
        sa.Column("floor", sa.String(40), nullable=False),
        sa.Column("at", sa.JSON(), nullable=False),
        sa.Column("rank", DOUBLE(asdecimal=False), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "device"], ["device.project_id", "device.id"]),
        sa.ForeignKeyConstraint(["project_id", "floor"], ["floor.project_id", "floor.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("way_point")
    op.drop_table("port_pin")
    op.drop_constraint("run_through", "run", type_="foreignkey")
    op.drop_column("run", "through")
    op.drop_column("run", "shortest")
    op.drop_column("wall", "rated")
