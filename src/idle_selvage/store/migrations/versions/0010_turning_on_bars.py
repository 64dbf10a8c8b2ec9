"""Whether pieces may be turned end for end on bars that are not balanced.

Revision ID: 0010
Revises: 0009
"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("cloth_use", sa.Column("turn_on_bars", sa.Boolean(), nullable=False, server_default="0"))


def downgrade() -> None:
    op.drop_column("cloth_use", "turn_on_bars")
