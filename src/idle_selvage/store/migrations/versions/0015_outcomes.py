"""How garments came out.

Revision ID: 0015
Revises: 0014
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "outcome",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("use_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(8), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=True),
        sa.Column("seam_id", sa.Integer(), nullable=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("measured", sa.Double(), nullable=False),
        sa.Column("before", sa.Double(), nullable=True),
        sa.Column("after", sa.Double(), nullable=True),
        sa.Column("predicted", sa.Double(), nullable=True),
        sa.Column("low", sa.Double(), nullable=True),
        sa.Column("high", sa.Double(), nullable=True),
        sa.Column("washes", sa.Integer(), nullable=False),
        sa.Column("note", sa.String(300), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["use_id"], ["cloth_use.id"], name=op.f("fk_outcome_use_id_cloth_use")),
        sa.ForeignKeyConstraint(["piece_id"], ["piece.id"], name=op.f("fk_outcome_piece_id_piece")),
        sa.ForeignKeyConstraint(["seam_id"], ["seam.id"], name=op.f("fk_outcome_seam_id_seam")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_outcome")),
    )
    op.create_index(op.f("ix_outcome_use_id"), "outcome", ["use_id"])


def downgrade() -> None:
    op.drop_table("outcome")
