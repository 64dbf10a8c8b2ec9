"""Photos beside lines of the log.

Revision ID: 0014
Revises: 0013
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "log_photo",
        sa.Column("log_id", sa.Integer(), nullable=False),
        sa.Column("jpeg", sa.LargeBinary(), nullable=False),
        sa.ForeignKeyConstraint(
            ["log_id"], ["log_entry.id"], name=op.f("fk_log_photo_log_id_log_entry"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("log_id", name=op.f("pk_log_photo")),
    )


def downgrade() -> None:
    op.drop_table("log_photo")
