"""Cutting: rounds, deeds, the list before them; remnants of their own outline; paired devices.

Revision ID: 0013
Revises: 0012
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "cutting",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("use_id", sa.Integer(), nullable=False),
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("fingerprint", sa.String(16), nullable=False),
        sa.Column("lay", sa.JSON(), nullable=False),
        sa.Column("own_order", sa.JSON(), nullable=False),
        sa.Column("at", sa.String(80), nullable=False),
        sa.Column("begun_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["use_id"], ["cloth_use.id"], name=op.f("fk_cutting_use_id_cloth_use")),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], name=op.f("fk_cutting_cloth_id_cloth")),
        sa.ForeignKeyConstraint(
            ["fingerprint"], ["lay_problem.fingerprint"], name=op.f("fk_cutting_fingerprint_lay_problem")
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_cutting")),
    )
    for column in ("use_id", "cloth_id", "fingerprint"):
        op.create_index(op.f(f"ix_cutting_{column}"), "cutting", [column])
    op.create_table(
        "cut_deed",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("cutting_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("key", sa.String(80), nullable=False),
        sa.Column("copy", sa.Integer(), nullable=False),
        sa.Column("why", sa.String(120), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["cutting_id"], ["cutting.id"], name=op.f("fk_cut_deed_cutting_id_cutting"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_cut_deed")),
    )
    op.create_index(op.f("ix_cut_deed_cutting_id"), "cut_deed", ["cutting_id"])
    op.create_table(
        "before_line",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("use_id", sa.Integer(), nullable=False),
        sa.Column("key", sa.String(20), nullable=False),
        sa.Column("why", sa.String(120), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["use_id"], ["cloth_use.id"], name=op.f("fk_before_line_use_id_cloth_use"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_before_line")),
        sa.UniqueConstraint("use_id", "key", name="uq_before_line_use_id"),
    )
    op.create_index(op.f("ix_before_line_use_id"), "before_line", ["use_id"])
    op.create_table(
        "paired_device",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("token", sa.String(64), nullable=False),
        sa.Column("paired_at", sa.DateTime(), nullable=False),
        sa.Column("seen_at", sa.DateTime(), nullable=False),
        sa.Column("revoked_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_paired_device")),
        sa.UniqueConstraint("token", name=op.f("uq_paired_device_token")),
    )
    op.add_column("cloth", sa.Column("outline", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("cloth", sa.Column("cut_at", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("cloth", sa.Column("outline_state", sa.Integer(), nullable=False, server_default="0"))
    # without a key to cloth itself: SQLite would make the table anew for it, and what hangs on a cloth would go with it
    op.add_column("cloth", sa.Column("remnant_of", sa.Integer(), nullable=True))
    op.add_column("settings", sa.Column("scrap", sa.Double(), nullable=False, server_default="100.0"))


def downgrade() -> None:
    op.drop_column("settings", "scrap")
    for column in ("remnant_of", "outline_state", "cut_at", "outline"):
        op.drop_column("cloth", column)
    for table in ("paired_device", "before_line", "cut_deed", "cutting"):
        op.drop_table(table)
