"""A search that failed is told apart from pieces that cannot be laid.

Revision ID: 0009
Revises: 0008
"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("trial", sa.Column("fault", sa.Boolean(), nullable=False, server_default="0"))
    # what was tried is only kept to be there at once: what failed before is tried again
    op.execute("DELETE FROM trial WHERE lays = '[]'")


def downgrade() -> None:
    op.drop_column("trial", "fault")
